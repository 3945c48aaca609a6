// NoticeStrip: the strip over the canvas that says what went wrong or what would go along, until it is answered.
//
// It lies over the upper edge of what it belongs to and takes no room from it, so that nothing moves when it comes.
#pragma once

#include <QFrame>

class QLabel;

namespace uq {

class NoticeStrip : public QFrame {
  Q_OBJECT

 public:
  explicit NoticeStrip(QWidget* parent = nullptr);

  // Shows the texts, one a paragraph; hides the strip when there are none.
  void tell(const QStringList& texts);
  QString text() const;
  // Over which widget of the same window it lies from now on; that must live as long, or be left before.
  void lieOver(QWidget* below);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void place();

  QWidget* below_ = nullptr;
  QLabel* label_;
  QString texts_;
};

}  // namespace uq
