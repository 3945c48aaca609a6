#include "core/edit/Covered.h"

#include <unordered_map>

#include "core/cells/CellReader.h"
#include "core/cells/ChunkPos.h"

namespace uq {

namespace {

// Answers about cells, kept: pictures are looked at once for each tile.
class Answers {
 public:
  Answers(const std::function<bool(TileRef)>& ask, const std::function<bool(TileRef)>& fills)
      : ask_(ask), fills_(fills) {}

  bool operator()(Cell cell) {
    if (cell.empty()) return false;
    const auto known = known_.find(cell.bits());
    if (known != known_.end()) return known->second;
    const bool can = cell.turn() == Turn{} || fills_(cell.tile());
    return known_[cell.bits()] = can && ask_(cell.tile());
  }

 private:
  const std::function<bool(TileRef)>& ask_;
  const std::function<bool(TileRef)>& fills_;
  std::unordered_map<std::uint32_t, bool> known_;
};

// Takes the cells that are lifted out of the rows.
void dropLifted(ChunkRows& rows, const Layer& layer, ChunkPos at) {
  if (layer.lifts.empty()) return;
  const CellRect cells = at.cells();
  for (int y = 0; y < kChunkSide; ++y) {
    for (int x = 0; x < kChunkSide; ++x) {
      if (layer.lifts.at({cells.x0 + x, cells.y0 + y}) != 0) {
        rows[static_cast<std::size_t>(y)] &= ~(std::uint64_t{1} << x);
      }
    }
  }
}

bool mayHide(const Map& map, const Layer& behind, const Layer& nearer) {
  return nearer.holdsTiles() && nearer.inGame && nearer.opacity == 100 && nearer.blend == Blend::normal &&
         nearer.parallax == behind.parallax && map.planeOf(nearer) == map.planeOf(behind);
}

}  // namespace

CellSet coveredCells(const Quilt& quilt, LayerAt at, CellRect in, const Hiding& hiding) {
  const Layer* layer = quilt.layer(at);
  if (!layer || !layer->holdsTiles()) return {};
  const Map& map = *quilt.map(at.map);
  in = in.intersected(map.bounds);
  if (in.empty()) return {};
  std::vector<const Layer*> nearer;
  for (std::size_t i = *map.layerIndex(at.layer) + 1; i < map.layers.size(); ++i) {
    if (mayHide(map, *layer, map.layers[i].read())) nearer.push_back(&map.layers[i].read());
  }
  if (nearer.empty()) return {};
  Answers hides(hiding.hides, hiding.fills);
  Answers keepsIn(hiding.keepsIn, hiding.fills);
  std::map<PagePos, CellSet::PageRows> pages;
  layer->cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    if (chunk.at.cells().intersected(in).empty()) return;
    ChunkRows open = chunk.rowsWhere(keepsIn);
    dropLifted(open, *layer, chunk.at);
    ChunkRows hidden{};
    for (const Layer* over : nearer) {
      ChunkRows rows = over->cells.chunk(chunk.at).rowsWhere(hides);
      dropLifted(rows, *over, chunk.at);
      bool all = true;
      for (std::size_t y = 0; y < rows.size(); ++y) {
        hidden[y] |= rows[y] & open[y];
        all = all && hidden[y] == open[y];
      }
      if (all) break;
    }
    auto& page =
        pages.try_emplace(PagePos::of(chunk.at), CellSet::PageRows{PagePos::of(chunk.at), 0, {}}).first->second;
    page.some.emplace_back(page.at.indexOf(chunk.at), hidden);
  });
  std::vector<CellSet::PageRows> all;
  for (auto& [place, page] : pages) all.push_back(std::move(page));
  return CellSet::ofPages(std::move(all)).intersected(CellSet(in));
}

CellSet holes(const Quilt& quilt, Id id, CellRect in, const std::set<Id>& hidden, const Hiding& hiding) {
  const Map* map = quilt.map(id);
  if (!map) return {};
  const auto grid = makeGrid(map->grid);
  Answers covers(hiding.covers, hiding.covers);
  struct Shown {
    CellReader cells;
    PixelPos plane;
    int rise;
  };
  std::vector<Shown> shown;
  int highest = 0;
  for (const Shared<Layer>& layer : map->layers) {
    if (!layer->holdsTiles() || !layer->inGame || hidden.contains(layer->id)) continue;
    shown.push_back({CellReader(layer->cells), map->planeOf(layer.read()), map->riseOf(layer.read())});
    highest = std::max(highest, shown.back().rise);
  }
  const auto lies = [&](Shown& layer, PixelPos at, auto&& is) {
    return is(layer.cells.at(grid->cellAt({at.x - layer.plane.x, at.y - layer.plane.y})));
  };
  const auto leftOpen = [&](PixelPos middle) {
    if (highest == 0) return true;
    const int step = std::max(1, map->grid.cell.h / 2);
    for (Shown& layer : shown) {
      for (int up = step; layer.rise > 0 && up <= layer.rise + step; up += step) {
        if (lies(layer, {middle.x, middle.y - up}, [](Cell cell) { return !cell.empty(); })) return true;
      }
    }
    return false;
  };
  CellSet open;
  in = in.intersected(map->bounds);
  for (int y = in.y0; y < in.y1; ++y) {
    for (int x = in.x0; x < in.x1; ++x) {
      const PixelRect box = grid->cellBox({x, y});
      const PixelPos middle{box.x + box.w / 2, box.y + box.h / 2};
      bool covered = false;
      for (Shown& layer : shown) covered = covered || lies(layer, middle, covers);
      if (!covered && leftOpen(middle)) open.insert({x, y});
    }
  }
  return open;
}

}  // namespace uq
