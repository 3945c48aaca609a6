// HeldStrip: the last things that were in hand, the newest first; a click takes one again.
#pragma once

#include <QWidget>

#include "app/workroom/Session.h"

namespace uq {

class HeldStrip : public QWidget {
  Q_OBJECT

 public:
  explicit HeldStrip(QWidget* parent = nullptr);

  void setSession(Session* session);
  QRectF rectOf(std::size_t index) const;

 protected:
  bool event(QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;

 private:
  std::optional<std::size_t> indexAt(QPointF at) const;
  QString textOf(const InHand& hand) const;

  Session* session_ = nullptr;
};

}  // namespace uq
