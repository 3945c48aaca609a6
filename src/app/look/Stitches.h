// Running stitches: how every boundary is drawn — dashes of dark thread with light gaps, readable on any art.
#pragma once

#include <QPainter>

namespace uq {

// Two-tone dashes along a rectangle, one logical pixel or `width` wide. `thread` is the dark tone's colour.
void drawStitches(QPainter& painter, const QRectF& rect, const QColor& thread, const QColor& gap, qreal width = 2);
void drawStitchLine(QPainter& painter, const QLineF& line, const QColor& thread, const QColor& gap, qreal width = 2);

}  // namespace uq
