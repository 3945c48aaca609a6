// WalkerCard: where the figure that the player moves stands in the Stack. It is dragged between the cards; a press colours
// the layers by whether they are drawn in front of it or behind.
#pragma once

#include <QFrame>

namespace uq {

class WalkerCard : public QFrame {
  Q_OBJECT

 public:
  explicit WalkerCard(QWidget* parent);

  // The names of the layers right behind it and right in front; empty where there is none.
  void present(const QString& behind, const QString& front, bool colours);

 Q_SIGNALS:
  void pressed();
  // By keyboard: so many layers nearer.
  void moved(int by);
  void dragged(QPoint at);  // in the parent
  void dropped(QPoint at);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  bool colours_ = false;
  QPoint pressedAt_;
  bool drags_ = false;
};

}  // namespace uq
