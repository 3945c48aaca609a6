// Running stitches: how every boundary is drawn — dashes of dark thread with light gaps, readable on any art.
#pragma once

#include <QPainter>
#include <QVector>

#include "core/document/Thread.h"

namespace uq {

// Two-tone dashes along a rectangle, one logical pixel or `width` wide. `thread` is the dark tone's colour.
void drawStitches(QPainter& painter, const QRectF& rect, const QColor& thread, const QColor& gap, qreal width = 2);
void drawStitchLine(QPainter& painter, const QLineF& line, const QColor& thread, const QColor& gap, qreal width = 2);

// The same along many lines at once, and along a closed line through corners.
void drawStitchLines(QPainter& painter, const QVector<QLineF>& lines, const QColor& thread, const QColor& gap,
                     qreal width = 2);
void drawStitches(QPainter& painter, const QPolygonF& corners, const QColor& thread, const QColor& gap,
                  qreal width = 2);

// A layer's thread as it runs down a card's edge: its colour, its pattern in ink on it, and an ink hairline at its
// right, so that threads differ without colour vision and yellow shows on paper.
void drawThread(QPainter& painter, const QRectF& rect, const Thread& thread);

}  // namespace uq
