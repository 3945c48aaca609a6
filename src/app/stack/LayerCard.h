// LayerCard: one layer in the Stack — its thread, a small picture, name and role, eye and lock.
#pragma once

#include <QFrame>
#include <QImage>

#include "app/workroom/Session.h"

class QToolButton;

namespace uq {

class NameField;

class LayerCard : public QFrame {
  Q_OBJECT

 public:
  // A card of a layer on a level is set in from the left.
  LayerCard(Id layer, bool onLevel, QWidget* parent);

  Id layer() const { return layer_; }
  void present(const TilesLayer& layer, bool active, bool hidden, bool locked);
  // A picture of the layer alone, any size.
  void setThumbnail(const QImage& picture);
  // Opens a field over the name; Enter takes what is typed, Esc leaves it.
  void rename();

 Q_SIGNALS:
  void chosen(uq::Id layer);
  void eyePressed(uq::Id layer);
  void lockPressed(uq::Id layer);
  void renamed(uq::Id layer, const QString& name);
  void nameClosed();
  // The card is dragged: the pointer's place in the parent; and let go there.
  void dragged(uq::Id layer, QPoint at);
  void dropped(uq::Id layer, QPoint at);

 protected:
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
  bool active_ = false;
  bool hidden_ = false;
  QImage thumbnail_;
  QPoint pressedAt_;
  bool drags_ = false;
  NameField* field_ = nullptr;
  QToolButton* eye_;
  QToolButton* lock_;
};

}  // namespace uq
