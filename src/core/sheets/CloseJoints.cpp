#include "core/sheets/CloseJoints.h"

#include <algorithm>
#include <tuple>

namespace uq {

namespace {

constexpr int kMostRounds = 16;

// How a cell stands among its neighbours.
struct Standing {
  int loose = 0;           // sides
  int unlike = 0;          // sides that do not join the tile there, whether or not the sheet has what belongs there
  std::int64_t apart = 0;  // how far apart all sides are
  friend auto operator<=>(const Standing&, const Standing&) = default;
};

Standing standingOf(JointBook& book, const Map& map, std::size_t index, CellPos at, Cell cell) {
  TileSides& sides = book.sides();
  const LayerCells& layer = map.layers[index].read();
  Standing standing;
  for (int side = 0; side < sides.count(); ++side) {
    const CellPos beside = sides.grid().across(at, side);
    if (!map.bounds.contains(beside)) continue;
    const Cell neighbour = layer.cells.at(beside);
    const TileSide* own = sides.of(cell, side);
    const TileSide* facing = sides.of(neighbour, sides.facing(side));
    if (!own || !facing) continue;
    if (book.between(cell, side, neighbour)) ++standing.loose;
    const int apart = differenceOf(*own, *facing);
    if (apart > kMostDifference && !neighbour.empty()) ++standing.unlike;
    standing.apart += apart;
  }
  return standing;
}

}  // namespace

std::optional<Closing> closingOf(JointBook& book, const Map& map, std::size_t index, const LooseJoint& joint) {
  const LayerCells& layer = map.layers[index].read();
  const CellPos beyond = book.sides().grid().across(joint.cell, joint.side);
  const Cell here = layer.cells.at(joint.cell);
  const Cell there = layer.cells.at(beyond);
  const std::vector<Cell>& made = book.madeFor(here, joint.side, there);
  std::optional<Closing> best;
  Standing least;
  for (const CellPos at : {beyond, joint.cell}) {
    const bool isHere = at == joint.cell;
    if (isHere && there.empty()) continue;
    const Standing now = standingOf(book, map, index, at, isHere ? here : there);
    for (const Cell cell : made) {
      const Standing then = standingOf(book, map, index, at, cell);
      // Neighbours along the joint may still wait for theirs, so what is unlike only decides between tiles.
      if (then.loose > now.loose) continue;
      if (best && least <= then) continue;
      best = Closing{at, cell};
      least = then;
    }
  }
  return best;
}

Closed closeJoints(JointBook& book, const Map& map, std::size_t index, CellRect part, const CellSet& within,
                   std::size_t most, Progress* progress) {
  Closed closed{map, 0, 0};
  CellSet laid;
  for (int round = 0; round < kMostRounds; ++round) {
    const std::vector<LooseJoint> joints = looseJoints(book, closed.map, index, part, most, progress);
    if (progress && progress->isCancelled()) return {map, 0, 0};
    closed.left = 0;
    bool any = false;
    for (const LooseJoint& joint : joints) {
      if (progress && progress->isCancelled()) return {map, 0, 0};
      const CellPos beyond = book.sides().grid().across(joint.cell, joint.side);
      const auto may = [&](CellPos at) { return part.contains(at) && (within.empty() || within.contains(at)); };
      if (!may(joint.cell) || !may(beyond)) continue;
      ++closed.left;
      const LayerCells& layer = closed.map.layers[index].read();
      // The round may have closed it from another side.
      if (!book.between(layer.cells.at(joint.cell), joint.side, layer.cells.at(beyond))) continue;
      const auto closing = closingOf(book, closed.map, index, joint);
      // A place is laid once, so that two tiles cannot take turns for ever.
      if (!closing || laid.contains(closing->at)) continue;
      const int lift = layer.laidAt(joint.cell).lift;
      closed.map.layers[index].edit([&](Layer& edited) { edited.lay(closing->at, closing->cell, lift); });
      laid.insert(closing->at);
      ++closed.cells;
      any = true;
    }
    if (!any) return closed;
  }
  return closed;
}

}  // namespace uq
