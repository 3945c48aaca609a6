#include "core/edit/FindStretch.h"

#include <algorithm>
#include <set>

#include "core/edit/Pattern.h"

namespace uq {

namespace {

// The box of the cells that hang together with one and are among `known`; nothing where there are too many.
std::optional<CellRect> boxAround(const Grid& grid, const Map& map, const Layer& layer, CellPos at,
                                  const std::set<std::uint32_t>& known) {
  std::set<CellPos> seen;
  std::vector<CellPos> open{at};
  CellRect box;
  while (!open.empty()) {
    const CellPos cell = open.back();
    open.pop_back();
    const bool is = map.bounds.contains(cell) && known.contains(layer.cells.at(cell).bits());
    if (!is || !seen.insert(cell).second) continue;
    if (seen.size() > kMostFoundCells) return std::nullopt;
    const SidePos side = grid.toSide(cell);
    box = box.united({side.u, side.v, side.u + 1, side.v + 1});
    for (int i = 0; i < grid.turnOrder(); ++i) open.push_back(grid.across(cell, i));
  }
  return box.empty() ? std::nullopt : std::optional(box);
}

bool liesIn(const Quilt& quilt, const Grid& grid, const Layer& layer, const InHand& stretch, CellRect box) {
  if (!whyNoStretch(stretch, box.width(), box.height()).empty()) return false;
  Pattern pattern(quilt, grid, stretch, {box.x0, box.y0}, 0);
  pattern.stretchOver(box);
  for (int v = box.y0; v < box.y1; ++v) {
    for (int u = box.x0; u < box.x1; ++u) {
      if (!pattern.mayLie(0, {u, v}, layer.cells.at(grid.fromSide({u, v})))) return false;
    }
  }
  return true;
}

}  // namespace

std::optional<FoundStretch> findStretch(const Quilt& quilt, LayerAt at, CellPos cell, const InHand& hand) {
  const Layer* layer = quilt.layer(at);
  if (!layer || layer->cells.at(cell).empty()) return std::nullopt;
  const Map& map = *quilt.map(at.map);
  const auto grid = makeGrid(map.grid);
  std::optional<FoundStretch> found;
  const auto look = [&](const InHand& candidate) {
    if (found || candidate.manner != Manner::stretch || !areOfOneFamily(candidate.grid, map.grid.kind)) return;
    std::set<std::uint32_t> known;
    for (const Block::Part& part : candidate.parts()) {
      known.insert(part.cell.bits());
      if (!candidate.ends.shuffles) continue;
      for (const Look& alike : looksOf(quilt, part.cell)) known.insert(alike.cell.bits());
    }
    if (!known.contains(layer->cells.at(cell).bits())) return;
    const auto box = boxAround(*grid, map, *layer, cell, known);
    if (box && liesIn(quilt, *grid, *layer, candidate, *box)) found = FoundStretch{candidate, *box};
  };
  look(hand);
  for (const auto& stamp : quilt.stamps()) look(stamp->held);
  return found;
}

std::optional<FoundStamp> findStamp(const Quilt& quilt, LayerAt at, CellPos cell) {
  const Layer* layer = quilt.layer(at);
  if (!layer || layer->cells.at(cell).empty()) return std::nullopt;
  const Map& map = *quilt.map(at.map);
  const auto grid = makeGrid(map.grid);
  const SidePos here = grid->toSide(cell);
  std::optional<FoundStamp> found;
  std::size_t most = 1;
  for (const auto& stamp : quilt.stamps()) {
    const auto& parts = stamp->held.parts();
    if (stamp->held.manner != Manner::asItIs || parts.size() <= most) continue;
    if (!areOfOneFamily(stamp->held.grid, map.grid.kind)) continue;
    for (const Block::Part& own : parts) {
      if (own.cell != layer->cells.at(cell)) continue;
      const SidePos grip = here - own.at;
      const bool all = std::all_of(parts.begin(), parts.end(), [&](const Block::Part& part) {
        return layer->cells.at(grid->fromSide(grip + part.at)) == part.cell;
      });
      if (!all) continue;
      found = FoundStamp{stamp->id, grip};
      most = parts.size();
      break;
    }
  }
  return found;
}

}  // namespace uq
