// HandPicture: something in hand, drawn small — as a map of its own, so that it looks as it will when laid.
#pragma once

#include <QImage>
#include <QPainter>
#include <QRectF>
#include <optional>

#include "app/workroom/Session.h"

namespace uq {

struct HandPicture {
  Map map;           // with a layer for each part, cells as side coordinates say
  PixelRect pixels;  // that are drawn
  double scale = 1;  // logical pixels for one map pixel: at most 2, whole above 1
  QPointF corner;    // where it stands, in the middle of its room
};

// Nothing where it holds no tile.
std::optional<HandPicture> pictureOf(Session& session, const InHand& hand, const QRectF& room);

// Draws it; of a mix its first members side by side.
void drawHand(QPainter& painter, Session& session, const InHand& hand, const QRectF& room, double ratio);

}  // namespace uq
