// Loose joints along stitches: pictures that are cut off at the edge of their map, although the sheet has what belongs there.
#include "core/check/LooseThread.h"
#include "core/sheets/LooseJoints.h"

namespace uq {

namespace {

constexpr std::string_view kJoint = "loose joint at a stitch";
constexpr int kDeep = 2;  // cells on each side of the stitch that are looked at
constexpr std::size_t kMostJointsOf = 1'000;  // of a layer

// Both maps' cells along the stitch as one map, by the layers of the first.
Map alongStitch(const SeamSight& sight, CellRect here, CellRect there) {
  Map both = sight.map;
  both.bounds = {std::min(here.x0, there.x0), std::min(here.y0, there.y0), std::max(here.x1, there.x1), std::max(here.y1, there.y1)};
  for (Shared<Layer>& shared : both.layers) {
    if (!shared->holdsTiles()) continue;
    const Layer& was = shared.read();
    LayerCells cells;
    const auto copy = [&](const Layer& from, CellRect part, CellPos by) {
      from.cells.forEachPainted(part, [&](CellPos at, Cell cell) {
        cells.cells.set({at.x + by.x, at.y + by.y}, cell);
        if (const int lift = from.lifts.at(at); lift != 0) cells.lifts.set({at.x + by.x, at.y + by.y}, lift);
      });
    };
    copy(was, here, {});
    if (const auto partner = partnerOn(sight.quilt, {sight.map.id, was.id}, sight.other.id)) {
      copy(*sight.other.layer(partner->layer), {there.x0 - sight.by.x, there.y0 - sight.by.y, there.x1 - sight.by.x, there.y1 - sight.by.y}, sight.by);
    }
    shared.edit([&](Layer& layer) { static_cast<LayerCells&>(layer) = std::move(cells); });
  }
  return both;
}

void lookAtJoints(const SeamSight& sight, Check::Threads& threads) {
  // A map that wraps has its own layers on both sides, and partners on other maps only.
  if (!sight.joints || sight.seam.wraps()) return;
  const CellRect beyond{sight.other.bounds.x0 + sight.by.x, sight.other.bounds.y0 + sight.by.y, sight.other.bounds.x1 + sight.by.x,
                        sight.other.bounds.y1 + sight.by.y};
  const CellRect here = beyond.grown(kDeep).intersected(sight.map.bounds);
  const CellRect there = sight.map.bounds.grown(kDeep).intersected(beyond);
  const Map both = alongStitch(sight, here, there);
  const auto grid = makeGrid(sight.map.grid);
  for (std::size_t i = 0; i < both.layers.size(); ++i) {
    const Layer& layer = both.layers[i].read();
    if (!layer.holdsTiles()) continue;
    int count = 0;
    CellPos first;
    for (const LooseJoint& joint : looseJoints(*sight.joints, both, i, both.bounds, kMostJointsOf)) {
      const CellPos across = grid->across(joint.cell, joint.side);
      if (sight.map.bounds.contains(joint.cell) == sight.map.bounds.contains(across)) continue;
      const CellPos own = sight.map.bounds.contains(joint.cell) ? joint.cell : across;
      if (count++ == 0) first = own;
    }
    if (count == 0) continue;
    threads.push_back({kJoint, sight.map.id, first, sight.seam.id,
                       sight.called(count) + (count == 1 ? " is" : " are") + " cut off on " + layer.name + ", though the sheet has what belongs there", {}, {}});
  }
}

}  // namespace

extern const Check kJointsCheck;
const Check kJointsCheck{{kJoint}, nullptr, nullptr, lookAtJoints};

}  // namespace uq
