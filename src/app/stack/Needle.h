// Needle: the "+" between two cards of the Stack, which adds a layer just there. Only the mark itself takes a press, not
// the gap in which it stands.
#pragma once

#include <QAbstractButton>

namespace uq {

class Needle : public QAbstractButton {
  Q_OBJECT

 public:
  explicit Needle(QWidget* parent);
  QSize sizeHint() const override { return {0, 7}; }

 Q_SIGNALS:
  void otherKindsWanted(QPoint at);  // on the screen

 protected:
  bool hitButton(const QPoint& at) const override;
  bool event(QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;

 private:
  bool pointedAt_ = false;  // the mark
};

}  // namespace uq
