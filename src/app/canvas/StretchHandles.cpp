#include "app/canvas/StretchHandles.h"

#include <QLineF>
#include <algorithm>

namespace uq {

namespace {

constexpr double kReach = 9;   // logical pixels, how near a handle is meant
constexpr double kApart = 22;  // logical pixels from the middle of a stretch to a handle, at least
constexpr double kBeside = 8;  // how much farther out those lie that would be nearer
constexpr double kCornerOut = 26;  // the handle of a corner then, each way

std::optional<CellRect> stretchOf(const Scene& scene) {
  return scene.map() ? scene.session().verbs().strokes.stretchBox() : std::nullopt;
}

}  // namespace

std::vector<StretchHandle> stretchHandles(const Scene& scene, const Plane& plane) {
  std::vector<StretchHandle> all;
  const auto box = stretchOf(scene);
  if (!box || box->empty()) return all;
  const Grid& grid = plane.grid();
  // The middle of the edge beyond which the next cell would be.
  const auto at = [&](int u, int v, int outU, int outV) {
    const PixelRect in = grid.cellBox(grid.fromSide({u, v}));
    const PixelRect out = grid.cellBox(grid.fromSide({u + outU, v + outV}));
    return plane.pointOf({(2 * in.x + in.w + 2 * out.x + out.w) / 4, (2 * in.y + in.h + 2 * out.y + out.h) / 4});
  };
  const int u = (box->x0 + box->x1 - 1) / 2;
  const int v = (box->y0 + box->y1 - 1) / 2;
  const InHand& stretch = *scene.session().verbs().strokes.stretchLaid();
  const bool wide = !widthsOf(stretch).most;
  const bool tall = !heightsOf(stretch).most;
  // Of a small stretch the end is the last cell itself, which stays where it is while the handle does.
  const auto inside = [&](int atU, int atV) { return at(atU, atV, 0, 0); };
  const QPointF middle = (at(box->x0, box->y0, -1, -1) + at(box->x1 - 1, box->y1 - 1, 1, 1)) / 2;
  const auto way = [&](QPointF to) {
    const double length = QLineF(middle, to).length();
    return length > 0 ? (to - middle) / length : QPointF();
  };
  const QPointF right = way(at(box->x1 - 1, v, 1, 0));
  const QPointF below = way(at(u, box->y1 - 1, 0, 1));
  const auto add = [&](int fromU, int fromV, int across, int down) {
    const QPointF end = at(fromU, fromV, across, down);
    const bool small = QLineF(middle, end).length() < kApart;
    const QPointF out = across > 0 && down > 0 ? (right + below) * kCornerOut : way(end) * (kApart + kBeside);
    all.push_back({small ? middle + out : end, small ? inside(fromU, fromV) : end, across, down});
  };
  if (wide) add(box->x0, v, -1, 0);
  if (wide) add(box->x1 - 1, v, 1, 0);
  if (tall) add(u, box->y0, 0, -1);
  if (tall) add(u, box->y1 - 1, 0, 1);
  if (wide && tall) add(box->x1 - 1, box->y1 - 1, 1, 1);
  return all;
}

std::optional<StretchHandle> handleAt(const std::vector<StretchHandle>& handles, QPointF at) {
  const auto near = [&](const StretchHandle& handle) { return (handle.at - at).manhattanLength() <= kReach; };
  const auto found = std::find_if(handles.begin(), handles.end(), near);
  return found == handles.end() ? std::nullopt : std::optional(*found);
}

bool isOnStretch(const Scene& scene, CellPos cell) {
  const auto box = stretchOf(scene);
  if (!box) return false;
  const SidePos at = makeGrid(scene.map()->grid)->toSide(cell);
  return box->contains({at.u, at.v});
}

void dragHandle(const Scene& scene, const StretchHandle& handle, CellPos to) {
  Strokes& strokes = scene.session().verbs().strokes;
  const auto box = stretchOf(scene);
  if (!box || !strokes.stroke()) return;
  const SidePos end = makeGrid(scene.map()->grid)->toSide(to);
  const InHand& stretch = strokes.stroke()->plan().hand;
  const StretchSizes across = widthsOf(stretch);
  const StretchSizes down = heightsOf(stretch);
  CellRect next = *box;
  if (handle.across > 0) next.x1 = std::max(end.u + 1, next.x0 + across.least);
  if (handle.across < 0) next.x0 = std::min(end.u, next.x1 - across.least);
  if (handle.down > 0) next.y1 = std::max(end.v + 1, next.y0 + down.least);
  if (handle.down < 0) next.y0 = std::min(end.v, next.y1 - down.least);
  if (whyNoStretch(stretch, next.width(), next.height()).empty()) strokes.refit(next);
}

}  // namespace uq
