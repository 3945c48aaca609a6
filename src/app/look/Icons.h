// Our own icons: SVGs of one stroke weight, drawn in the theme's ink at any size.
#pragma once

#include <QColor>
#include <QIcon>

namespace uq {

// The icon of that name in `icons/`, sharp at every device pixel ratio. Drawn once, then kept.
QIcon icon(const QString& name, const QColor& colour);

}  // namespace uq
