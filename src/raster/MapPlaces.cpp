// What of MapPainter tells where something is: which tiles lie under a pixel, and what a map, a run or a ghost covers.
#include <algorithm>
#include <map>
#include <tuple>

#include "raster/MapPainter.h"
#include "raster/MapPainterParts.h"
#include "raster/NearChunks.h"

namespace uq {

std::vector<PickedTile> MapPainter::tilesAt(const Quilt& quilt, const Map& map, const std::set<Id>& hidden,
                                            PixelPos at) {
  prepare(quilt, map);
  const auto grid = makeGrid(map.grid);
  const Reach farthest = ChunkReach::farthest(kit_.art, *grid);
  // Where in the draw order a tile was found: the group, then the foot of its front cell and the layer, in the order in
  // which the group is drawn, then the place in the row.
  struct Found {
    int group;
    int first;
    int second;
    int place;
    PickedTile tile;
  };
  std::vector<Found> found;
  int groupNumber = 0;
  for (const DrawGroup& group : drawGroups(map)) {
    ++groupNumber;
    int layerNumber = 0;
    for (const Layer* layer : group.layers) {
      ++layerNumber;
      if (hidden.contains(layer->id)) continue;
      const PixelPos plane = map.planeOf(*layer);
      const PixelPos on{at.x - plane.x, at.y - plane.y};
      const NearChunks near(*layer, map.bounds, {on.x, on.y, 1, 1}, farthest, &kit_.reach, kit_.art, *grid);
      near.forEachCell([&](CellPos place, Cell cell, int lift) {
        const PixelRect seat = placeOf(*grid, place, cell, lift);
        if (!seat.contains(on)) return;
        TileArt::Tile& tile = kit_.art.tile(asDrawn(cell, *grid));
        const bool hit = tile.takesCellSize()
                             ? grid->cellAt({on.x, on.y + lift}) == place
                             : qAlpha(tile.straight().row(on.y - seat.y)[on.x - seat.x]) != 0;
        if (!hit) return;
        CellPos front = place;
        if (tile.stance().isWide()) {
          for (const Strip& strip : stripsOf(*grid, place, tile.stance().footprint, seat)) {
            if (on.x >= strip.left && on.x < strip.right) front = strip.front;
          }
        }
        const PixelRect box = grid->cellBox(front);
        Found one{groupNumber, layerNumber, box.bottom(), box.x, {layer->id, place, cell}};
        if (group.byDepth) std::swap(one.first, one.second);
        found.push_back(std::move(one));
      });
    }
  }
  std::sort(found.begin(), found.end(), [](const Found& a, const Found& b) {
    return std::tie(a.group, a.first, a.second, a.place) > std::tie(b.group, b.first, b.second, b.place);
  });
  std::vector<PickedTile> tiles;
  for (const Found& one : found) tiles.push_back(one.tile);
  return tiles;
}

std::optional<PickedTile> MapPainter::topmostAt(const Quilt& quilt, const Map& map, const std::set<Id>& hidden,
                                                PixelPos at) {
  const std::vector<PickedTile> tiles = tilesAt(quilt, map, hidden, at);
  return tiles.empty() ? std::nullopt : std::optional(tiles.front());
}

PixelRect MapPainter::areaOf(const Quilt& quilt, const Map& map, const std::vector<Run>& runs,
                             const GhostCells& ghost) {
  prepare(quilt, map);
  const auto grid = makeGrid(map.grid);
  PixelRect area;
  const Layer* own = map.layer(ghost.layer);
  if (!own) return area;
  int foot = kFarthestPixel;  // of the ghost's cell that is drawn first
  for (const auto& [at, cell, lift] : ghost.cells) {
    if (cell.empty()) continue;
    area = area.united(moved(placeOf(*grid, at, cell, lift), map.planeOf(*own)));
    foot = std::min(foot, grid->cellBox(at).bottom());
  }
  const auto run = std::find_if(runs.begin(), runs.end(), [&](const Run& one) {
    return std::find(one.layers.begin(), one.layers.end(), ghost.layer) != one.layers.end();
  });
  if (area.empty() || run == runs.end() || !run->byDepth || ghost.cells.size() > kMostFadedFor) return area;
  const PixelRect ghosts = area;
  const Reach farthest = ChunkReach::farthest(kit_.art, *grid);
  for (const Id id : run->layers) {
    const Layer& layer = *map.layer(id);
    const PixelPos plane = map.planeOf(layer);
    const PixelRect near = moved(ghosts, {-plane.x, -plane.y});
    NearChunks(layer, map.bounds, near, farthest, &kit_.reach, kit_.art, *grid)
        .forEachCell([&](CellPos at, Cell cell, int lift) {
          const PixelRect box = grid->cellBox(at);
          if (box.bottom() < foot) return;
          const PixelRect place = placeOf(*grid, at, cell, lift);
          if (reachesOver(moved(place, plane), moved(box, plane), ghosts)) area = area.united(moved(place, plane));
        });
  }
  return area;
}

QRect MapPainter::boundsOf(const Quilt& quilt, const Map& map, const Run& run, ViewScale scale) {
  const auto grid = makeGrid(map.grid);
  if (run.backdrop) {
    constexpr int kFar = kFarthestPixel / 2;
    const PixelRect own = moved(grid->pixelBounds(map.bounds), {-run.offset.x, -run.offset.y});
    const PixelRect everywhere{-kFar, -kFar, 2 * kFar, 2 * kFar};
    const PixelRect all = hungOver(quilt, map, *run.backdrop, run.endless ? everywhere : own);
    return all.empty() ? QRect() : scale.toDevice(all);
  }
  prepare(quilt, map);
  PixelRect all;
  for (std::size_t i = 0; i < run.layers.size(); ++i) {
    Reach farthest = ChunkReach::farthest(kit_.art, *grid);
    const Layer* layer = map.layer(run.layers[i]);
    if (layer && !layer->lifts.empty()) farthest.up += kMostLift;
    all = all.united(moved(farthest.covered(grid->pixelBounds(map.bounds)), run.shiftOf(i)));
  }
  return deviceTouchedBy(all, *grid, scale);
}

PixelRect MapPainter::extentOf(const Quilt& quilt, const Map& map, const std::vector<Run>& runs) {
  prepare(quilt, map);
  const auto grid = makeGrid(map.grid);
  PixelRect extent = grid->pixelBounds(map.bounds);
  for (const Run& run : runs) {
    for (const Id id : run.layers) {
      const Layer& layer = *map.layer(id);
      const PixelPos plane = map.planeOf(layer);
      Reach farthest = ChunkReach::farthest(kit_.art, *grid);
      if (!layer.lifts.empty()) farthest.up += kMostLift;
      const auto isInside = [&](const PixelRect& cells, const Reach& reach) {
        return extent.united(moved(reach.covered(cells), plane)) == extent;
      };
      layer.cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
        const CellRect cells = chunk.at.cells().intersected(map.bounds);
        // Only what lies near the edge is looked at.
        if (cells.empty() || isInside(grid->pixelBounds(cells), farthest)) return;
        Reach reach = kit_.reach.of(chunk, kit_.art, *grid);
        reach.up += kit_.reach.mostLift(layer.lifts.cells().chunk(chunk.at));
        if (isInside(grid->pixelBounds(cells), reach)) return;
        for (int y = cells.y0; y < cells.y1; ++y) {
          for (int x = cells.x0; x < cells.x1; ++x) {
            const Cell cell = chunk.cell(x - chunk.at.cells().x0, y - chunk.at.cells().y0);
            if (cell.empty() || isInside(grid->cellBox({x, y}), reach)) continue;
            extent = extent.united(moved(placeOf(*grid, {x, y}, cell, layer.lifts.at({x, y})), plane));
          }
        }
      });
    }
  }
  return extent;
}

}  // namespace uq
