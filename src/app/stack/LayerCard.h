// LayerCard: one layer in the Stack — its thread, a small picture, name and role, eye and lock, and at its foot how far
// it moves with the camera, on a bar from 0 to 2 with a notch at 1.
#pragma once

#include <QFrame>
#include <QImage>

#include "app/workroom/Session.h"

class QToolButton;

namespace uq {

class NameField;

// How far cards are set in by so many folders around, in logical pixels.
int stackIndent(int depth);
// Gives the keyboard to the next card below or above one; nothing at the end.
void goToCard(QWidget& from, bool down);

class LayerCard : public QFrame {
  Q_OBJECT

 public:
  // A card is set in from the left by the folders around its layer.
  LayerCard(Id layer, int depth, QWidget* parent);

  Id layer() const { return layer_; }
  struct Shown {
    std::size_t place = 0;  // from the farthest, 1 on
    bool active = false;
    bool also = false;  // chosen beside the active one
    bool hidden = false;
    bool locked = false;
  };
  void present(const Layer& layer, const Shown& shown);
  // Where the bar shows a parallax of so many hundredths, on the card.
  QPointF parallaxPoint(int hundredths) const;
  // A picture of the layer alone, any size.
  void setThumbnail(const QImage& picture);
  // Opens a field over the name; Enter takes what is typed, Esc leaves it.
  void rename();

 Q_SIGNALS:
  void chosen(uq::Id layer);
  void alsoChosen(uq::Id layer);  // with Ctrl: beside the active one
  // The bar at the card's foot: hundredths of a pixel for one of camera, while it is dragged.
  void parallaxTaken(uq::Id layer);
  void parallaxDragged(uq::Id layer, int hundredths);
  void parallaxLeft(uq::Id layer);
  void eyePressed(uq::Id layer);
  void aloneWanted(uq::Id layer);  // a double press on the eye
  void lockPressed(uq::Id layer);
  void renamed(uq::Id layer, const QString& name);
  void nameClosed();
  // The card is dragged: the pointer's place in the parent; and let go there.
  void dragged(uq::Id layer, QPoint at);
  void dropped(uq::Id layer, QPoint at);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QToolButton* makeToggle(const QString& name);

  Id layer_;
  int indent_;  // logical pixels
  QString name_;
  QString role_;
  Thread thread_;
  QRectF parallaxBar() const;

  Parallax parallax_;
  bool inGame_ = true;
  bool alone_ = false;  // the press on the eye that ends now was the second one
  bool onBar_ = false;  // the press took hold of the bar
  bool dragsBar_ = false;
  bool also_ = false;
  QString place_;
  bool active_ = false;
  bool hidden_ = false;
  QImage thumbnail_;
  double bright_ = 1;  // of what it shows, 0 to 1
  QPoint pressedAt_;
  bool drags_ = false;
  NameField* field_ = nullptr;
  QToolButton* eye_;
  QToolButton* lock_;
};

}  // namespace uq
