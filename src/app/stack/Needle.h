// Needle: the "+" between two cards of the Stack, which adds a layer just there.
#pragma once

#include <QAbstractButton>

namespace uq {

class Needle : public QAbstractButton {
  Q_OBJECT

 public:
  explicit Needle(QWidget* parent);
  QSize sizeHint() const override { return {0, 13}; }

 Q_SIGNALS:
  void otherKindsWanted(QPoint at);  // on the screen

 protected:
  void paintEvent(QPaintEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
};

}  // namespace uq
