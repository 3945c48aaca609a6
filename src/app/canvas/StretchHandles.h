// StretchHandles: the handles of a stretch that was just laid, by which it is fitted anew.
//
// A stretch that grows across has one at each end, one that grows down likewise, and one that does both a corner, too.
// They lie on its ends; where a stretch is small on the screen, outside it, and apart.
// Cost: constant. Threads: the interface's.
#pragma once

#include <optional>
#include <vector>

#include "app/canvas/Scene.h"

namespace uq {

struct StretchHandle {
  QPointF at;      // on the widget
  QPointF end;     // what it drags: where it lies itself, or of a small stretch the middle of the last cell
  int across = 0;  // -1 the left end, 1 the right one
  int down = 0;
};

// Those of the stretch that was laid last, on the plane of the active layer; none once something else was done.
std::vector<StretchHandle> stretchHandles(const Scene& scene, const Plane& plane);
// The one that is meant by a point.
std::optional<StretchHandle> handleAt(const std::vector<StretchHandle>& handles, QPointF at);
// Whether a cell belongs to that stretch.
bool isOnStretch(const Scene& scene, CellPos cell);
// Fits the stretch of the gesture under way so that the handle's end comes to a cell, as far as it can be that short.
// While the handle is at a point of the widget, its end is at `endWith` that point.
inline QPointF endWith(const StretchHandle& handle, QPointF at) { return at + handle.end - handle.at; }
void dragHandle(const Scene& scene, const StretchHandle& handle, CellPos to);

}  // namespace uq
