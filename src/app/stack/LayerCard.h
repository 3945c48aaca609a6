// LayerCard: one layer in the Stack — its thread, a small picture, name and role, eye and lock.
#pragma once

#include <QFrame>
#include <QImage>

#include "app/workroom/Session.h"

class QToolButton;

namespace uq {

class LayerCard : public QFrame {
  Q_OBJECT

 public:
  LayerCard(Id layer, QWidget* parent);

  Id layer() const { return layer_; }
  void present(const TilesLayer& layer, bool active, bool hidden, bool locked);
  // A picture of the layer alone, any size.
  void setThumbnail(const QImage& picture);

 Q_SIGNALS:
  void chosen(uq::Id layer);
  void eyePressed(uq::Id layer);
  void lockPressed(uq::Id layer);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QToolButton* makeToggle(const QString& name);

  Id layer_;
  QString name_;
  QString role_;
  Thread thread_;
  bool active_ = false;
  bool hidden_ = false;
  QImage thumbnail_;
  QToolButton* eye_;
  QToolButton* lock_;
};

}  // namespace uq
