// Tag: the words that stand at the pointer — what a press would do, or why it does nothing.
#pragma once

#include <QPainter>

namespace uq {

// Paper with an edge of that colour and an ink hairline, readable on any art; the text in the middle.
void drawTag(QPainter& painter, const QRectF& place, const QString& text, const QColor& edge);

}  // namespace uq
