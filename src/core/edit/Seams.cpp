#include "core/edit/Seams.h"

#include <algorithm>

namespace uq {

namespace {

CellRect there(const Map& other, CellPos by) {
  const CellRect& cells = other.bounds;
  return {cells.x0 + by.x, cells.y0 + by.y, cells.x1 + by.x, cells.y1 + by.y};
}

std::set<Id> wrongOf(const Quilt& quilt) {
  const SewnMaps sewn(quilt);
  std::set<Id> wrong;
  for (const Shared<Seam>& seam : quilt.seams()) {
    if (!sewn.whyWrong(seam->id).empty()) wrong.insert(seam->id);
  }
  return wrong;
}

Sewing withSeam(const Quilt& quilt, Seam seam) {
  const std::set<Id> before = wrongOf(quilt);
  const Quilt after = quilt.with(seam);
  const SewnMaps sewnThen(after);
  for (const Shared<Seam>& one : after.seams()) {
    const std::string& why = sewnThen.whyWrong(one->id);
    if (!why.empty() && !before.contains(one->id)) return {quilt, why};
  }
  return {after, {}};
}

// Where a map lies that was sewn to one edge of another, once edges have moved. Cells stay where they are along the edge.
CellPos reseated(const Map& mapBefore, const Map& otherBefore, CellPos by, const Map& map, const Map& other) {
  const CellRect& was = mapBefore.bounds;
  const CellRect beside = there(otherBefore, by);
  if (was.x1 == beside.x0) return {map.bounds.x1 - other.bounds.x0, by.y};
  if (beside.x1 == was.x0) return {map.bounds.x0 - other.bounds.x1, by.y};
  if (was.y1 == beside.y0) return {by.x, map.bounds.y1 - other.bounds.y0};
  return {by.x, map.bounds.y0 - other.bounds.y1};
}

bool sameEdges(const Map& a, const Map& b) { return a.bounds == b.bounds && a.grid == b.grid; }

}  // namespace

Sewing sewn(const Quilt& quilt, Id map, Id other, CellPos by, IdSource& ids) {
  const Map* one = quilt.map(map);
  if (map == other) return {quilt, (one ? one->name : "A map") + " is sewn to itself only where it wraps"};
  return withSeam(quilt, {freshId(quilt, ids), map, other, by, {}, {}});
}

Sewing wrapped(const Quilt& quilt, Id map, bool down, IdSource& ids) {
  if (wraps(quilt, map, down)) return {quilt, {}};
  return withSeam(quilt, {freshId(quilt, ids), map, map, down ? kWrapsDown : kWrapsAcross, {}, {}});
}

bool wraps(const Quilt& quilt, Id map, bool down) {
  return std::any_of(quilt.seams().begin(), quilt.seams().end(), [&](const Shared<Seam>& seam) {
    return seam->wraps() && seam->map == map && (seam->by == kWrapsDown) == down;
  });
}

Quilt ripped(const Quilt& quilt, const std::set<Id>& seams) {
  Quilt next = quilt;
  for (const Id seam : seams) next = next.without<Seam>(seam);
  return next;
}

std::set<Id> seamsAround(const Quilt& quilt, const std::set<Id>& maps) {
  std::set<Id> found;
  for (const Shared<Seam>& seam : quilt.seams()) {
    if (maps.contains(seam->map) != maps.contains(seam->other)) found.insert(seam->id);
  }
  return found;
}

std::set<Id> seamsOf(const Quilt& quilt, Id map) {
  std::set<Id> found;
  for (const Shared<Seam>& seam : quilt.seams()) {
    if (seam->joins(map)) found.insert(seam->id);
  }
  return found;
}

std::string seamText(const Quilt& quilt, const Seam& seam) {
  const auto nameOf = [&](Id id) {
    const Map* map = quilt.map(id);
    return map ? map->name : std::string("a map that is gone");
  };
  if (seam.wraps()) return nameOf(seam.map) + (seam.by == kWrapsDown ? " wraps down" : " wraps across");
  return nameOf(seam.map) + " ~ " + nameOf(seam.other);
}

std::string sewnAlong(const Quilt& quilt, Id id, MapEdge edge) {
  const Map* map = quilt.map(id);
  if (!map) return {};
  const bool across = edge == MapEdge::left || edge == MapEdge::right;
  if (wraps(quilt, id, !across)) return map->name;
  Pin along;
  along.edge = edge;
  const CellRect own = cellsOf(along, map->bounds);
  const CellPos out = edge == MapEdge::left ? CellPos{-1, 0} : edge == MapEdge::top ? CellPos{0, -1} : edge == MapEdge::right ? CellPos{1, 0} : CellPos{0, 1};
  const CellRect beyond{own.x0 + out.x, own.y0 + out.y, own.x1 + out.x, own.y1 + out.y};
  for (const Sewn& one : SewnMaps::of(quilt)->around(id)) {
    const Map* other = quilt.map(one.map);
    if (one.map != id && other && !beyond.intersected(there(*other, one.by)).empty()) return other->name;
  }
  return {};
}

int cellsSewn(const Quilt& quilt, const Seam& seam) {
  const Map* map = quilt.map(seam.map);
  const Map* other = quilt.map(seam.other);
  if (!map || !other) return 0;
  if (seam.wraps()) return seam.by == kWrapsDown ? map->bounds.width() : map->bounds.height();
  const CellRect common = map->bounds.grown(1).intersected(there(*other, seam.by));
  return std::max(common.width(), common.height());
}

SeamsKept withSeamsKept(const Quilt& before, Quilt after) {
  SeamsKept kept{std::move(after), {}};
  if (before.seams().empty() || kept.quilt.seams().empty()) return kept;
  const auto edgesMoved = [&](Id id) {
    const Map* was = before.map(id);
    const Map* now = kept.quilt.map(id);
    return !was || !now || !sameEdges(*was, *now);
  };
  const bool any = std::any_of(kept.quilt.seams().begin(), kept.quilt.seams().end(), [&](const Shared<Seam>& seam) {
    return edgesMoved(seam->map) || edgesMoved(seam->other);
  });
  if (!any) return kept;
  const std::set<Id> wrong = wrongOf(before);
  for (const Shared<Seam>& seam : before.seams()) {
    const Seam* now = kept.quilt.listed<Seam>(seam->id);
    const Map* map = kept.quilt.map(seam->map);
    const Map* other = kept.quilt.map(seam->other);
    if (!now || !(*now == seam.read()) || seam->wraps() || wrong.contains(seam->id) || !map || !other) continue;
    if (!edgesMoved(seam->map) && !edgesMoved(seam->other)) continue;
    Seam moved = *now;
    moved.by = reseated(*before.map(seam->map), *before.map(seam->other), seam->by, *map, *other);
    kept.quilt = kept.quilt.with(std::move(moved));
  }
  // One after the other: without the first that is wrong, others may be right.
  while (true) {
    const SewnMaps sewnNow(kept.quilt);
    const auto opens = std::find_if(kept.quilt.seams().begin(), kept.quilt.seams().end(), [&](const Shared<Seam>& seam) {
      return !sewnNow.whyWrong(seam->id).empty() && before.listed<Seam>(seam->id) && !wrong.contains(seam->id);
    });
    if (opens == kept.quilt.seams().end()) return kept;
    const Seam gone = opens->read();
    kept.opened.push_back(seamText(before, gone));
    kept.quilt = kept.quilt.without<Seam>(gone.id);
  }
}

}  // namespace uq
