// NoticeStrip: the strip over the canvas that says what went wrong or what would go along, until it is answered.
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

 private:
  QLabel* label_;
  QString texts_;
};

}  // namespace uq
