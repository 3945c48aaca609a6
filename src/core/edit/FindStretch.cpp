#include "core/edit/FindStretch.h"

#include <algorithm>
#include <set>

#include "core/edit/Pattern.h"

namespace uq {

namespace {

// The box of the cells that hang together with one and are among `known`, across gaps of so many cells; nothing where
// there are too many.
std::optional<CellRect> boxAround(const Grid& grid, const Map& map, const Layer& layer, CellPos at,
                                  const std::set<std::uint32_t>& known, SidePos gaps) {
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
    for (const int way : {-1, 1}) {
      if (gaps.u > 0) open.push_back(grid.fromSide(side + SidePos{way * (gaps.u + 1), 0}));
      if (gaps.v > 0) open.push_back(grid.fromSide(side + SidePos{0, way * (gaps.v + 1)}));
    }
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

std::optional<FoundStretch> findStretch(const Quilt& quilt, LayerAt at, CellPos cell, std::span<const InHand> hands) {
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
    const CellRect all = candidate.wholeExtent();
    const StretchEnds& ends = candidate.ends;
    const SidePos gaps{ends.stepAcross - (all.width() - ends.left - ends.right),
                       ends.stepDown - (all.height() - ends.top - ends.bottom)};
    const auto box = boxAround(*grid, map, *layer, cell, known, gaps);
    if (box && liesIn(quilt, *grid, *layer, candidate, *box)) found = FoundStretch{candidate, *box};
  };
  for (const InHand& hand : hands) look(hand);
  for (const auto& stamp : quilt.stamps()) look(stamp->held);
  return found;
}

}  // namespace uq
