#include "raster/MapPainter.h"

#include <QPainter>
#include <algorithm>
#include <map>
#include <tuple>

#include "raster/NearChunks.h"

namespace uq {

namespace {

constexpr std::int64_t kExactChange = 64;  // cells: a smaller change is measured picture by picture

std::vector<const TilesLayer*> layersOf(const Map& map, const Run& run) {
  std::vector<const TilesLayer*> layers;
  for (const Id id : run.layers) {
    if (const TilesLayer* layer = map.layer(id)) layers.push_back(layer);
  }
  return layers;
}

// Draws a tile larger than life: each device pixel shows the map pixel under its middle.
void magnify(QImage& target, const QRect& device, const PixelView& tile, const PixelRect& seat, ViewScale scale,
             unsigned opacity, std::vector<int>& columns) {
  const QRect place = scale.toDevice(seat).intersected(device);
  if (place.isEmpty()) return;
  columns.resize(static_cast<std::size_t>(place.width()));
  for (int i = 0; i < place.width(); ++i) {
    columns[static_cast<std::size_t>(i)] = std::clamp(scale.toMap({place.x() + i, 0}).x - seat.x, 0, tile.w - 1);
  }
  for (int y = place.top(); y <= place.bottom(); ++y) {
    const QRgb* from = tile.row(std::clamp(scale.toMap({0, y}).y - seat.y, 0, tile.h - 1));
    QRgb* to = reinterpret_cast<QRgb*>(target.scanLine(y - device.y())) + (place.x() - device.x());
    if (opacity == 255 && tile.opaque) {
      for (const int x : columns) *to++ = from[x];
    } else {
      for (const int x : columns) {
        const QRgb pixel = opacity == 255 ? from[x] : scaledBy(from[x], opacity);
        *to = over(pixel, *to);
        ++to;
      }
    }
  }
}

}  // namespace

PixelSize drawnSize(const Quilt& quilt, const Map& map, Cell cell) {
  if (cell.tile().slot == kChalkSlot) return map.grid.cell;
  const Sheet* sheet = quilt.sheetAt(cell.tile().slot);
  const auto place = sheet ? sheet->place(cell.tile().number) : std::nullopt;
  const PixelSize size = place ? PixelSize{place->w, place->h} : map.grid.cell;
  return makeGrid(map.grid)->pictureTurn(cell.turn()).steps % 2 == 1 ? PixelSize{size.h, size.w} : size;
}

void MapPainter::prepare(const Quilt& quilt, const Map& map) {
  const bool otherTiles = kit_.art.follow(quilt);
  if (kit_.art.setShape(map.grid) || otherTiles) {
    kit_.reach.clear();
    kit_.colours.clear();
  }
}

void MapPainter::drawTiles(QImage& target, const Quilt& quilt, const Map& map,
                           const std::vector<const TilesLayer*>& layers, ViewScale scale, const QRect& device,
                           const GhostCells* ghost, const std::atomic<bool>* stop) {
  const auto grid = makeGrid(map.grid);
  const PixelRect pixels = scale.covering(device);
  const Reach farthest = ChunkReach::farthest(quilt, *grid);
  struct Part {
    NearChunks near;
    std::map<CellPos, Cell> ghosts;
  };
  std::vector<Part> parts;
  CellRect cells;
  for (const TilesLayer* layer : layers) {
    Part part{NearChunks(layer->cells, map.bounds, pixels, farthest, kit_.reach, kit_.art, *grid), {}};
    cells = cells.united(part.near.cells());
    if (ghost && ghost->layer == layer->id) {
      part.ghosts.insert(ghost->cells.begin(), ghost->cells.end());
      cells = cells.united(grid->cellsMeeting(farthest.around(pixels)).intersected(map.bounds));
    }
    parts.push_back(std::move(part));
  }
  if (cells.empty()) return;

  std::vector<int> columns;
  const auto drawCell = [&](CellPos at, Cell cell, unsigned opacity) {
    TileArt::Tile& tile = kit_.art.tile(asDrawn(cell, *grid));
    const PixelSize size = tile.size().w > 0 ? tile.size() : map.grid.cell;
    const PixelRect seat = grid->seat(at, size);
    if (scale.zoom > 1 && !tile.takesCellSize()) {
      magnify(target, device, tile.straight(), seat, scale, opacity, columns);
      return;
    }
    const QRect place = scale.toDevice(seat);
    if (place.intersects(device)) {
      blend(target, place.topLeft() - device.topLeft(), kit_.art.sized(tile, place.width(), place.height()), opacity);
    }
  };
  const auto drawRow = [&](const Part& part, const DrawRow& row) {
    const CellRect known = part.near.cells();
    for (int i = 0; i < row.count; ++i) {
      const CellPos at = row.at(i);
      if (known.contains(at)) {
        const NearChunks::Near& one = part.near.of(at);
        if (one.cells.contains(at)) {
          const CellRect all = one.chunk.at.cells();
          const Cell cell = one.chunk.cell(at.x - all.x0, at.y - all.y0);
          if (!cell.empty()) drawCell(at, cell, 255);
        }
      }
      if (part.ghosts.empty()) continue;
      if (const auto preview = part.ghosts.find(at); preview != part.ghosts.end() && !preview->second.empty()) {
        drawCell(at, preview->second, kGhostOpacity);
      }
    }
  };
  const auto stopped = [stop] { return stop && stop->load(std::memory_order_relaxed); };
  if (drawsByDepth(map)) {
    grid->inDrawOrder(cells, [&](const DrawRow& row) {
      for (std::size_t i = 0; i < parts.size() && !stopped(); ++i) drawRow(parts[i], row);
    });
    return;
  }
  for (const Part& part : parts) {
    if (stopped()) return;
    const CellRect own = part.ghosts.empty() ? part.near.cells() : cells;
    grid->inDrawOrder(own, [&](const DrawRow& row) { drawRow(part, row); });
  }
}

QImage MapPainter::drawRun(const Quilt& quilt, const Map& map, const Run& run, ViewScale scale, const QRect& device,
                           const GhostCells* ghost, const std::atomic<bool>* stop) {
  prepare(quilt, map);
  const auto grid = makeGrid(map.grid);
  const Reach farthest = ChunkReach::farthest(quilt, *grid);
  const bool colours = drawsColours(*grid, scale);
  const PixelRect pixels = scale.covering(device);
  const PixelRect near = colours ? grid->pixelBounds(grid->cellsMeeting(pixels)) : pixels;
  std::vector<const TilesLayer*> layers = layersOf(map, run);
  std::erase_if(layers, [&](const TilesLayer* layer) {
    if (ghost && ghost->layer == layer->id) return false;
    return NearChunks(layer->cells, map.bounds, near, farthest, kit_.reach, kit_.art, *grid).cells().empty();
  });
  if (layers.empty()) return {};
  QImage picture(device.size(), QImage::Format_ARGB32_Premultiplied);
  picture.fill(Qt::transparent);
  if (colours) {
    drawColours(picture, quilt, map, layers, scale, device, kit_, ghost, stop);
  } else {
    drawTiles(picture, quilt, map, layers, scale, device, ghost, stop);
  }
  return stop && stop->load(std::memory_order_relaxed) ? QImage() : picture;
}

QImage MapPainter::draw(const Quilt& quilt, const Map& map, const std::vector<Run>& runs, ViewScale scale,
                        const QRect& device, const GhostCells* ghost) {
  QImage picture;
  for (const Run& run : runs) {
    QImage one = drawRun(quilt, map, run, scale, device.translated(-run.shift(scale)), ghost);
    if (one.isNull()) continue;
    if (picture.isNull() && run.opacity == 100) {
      picture = std::move(one);
      continue;
    }
    if (picture.isNull()) {
      picture = QImage(device.size(), QImage::Format_ARGB32_Premultiplied);
      picture.fill(Qt::transparent);
    }
    blend(picture, {}, viewOf(one), run.alpha());
  }
  if (picture.isNull()) {
    picture = QImage(device.size(), QImage::Format_ARGB32_Premultiplied);
    picture.fill(Qt::transparent);
  }
  return picture;
}

QImage MapPainter::sample(const Quilt& quilt, const Map& map, const Run& run, CellRect blocks, int step) {
  prepare(quilt, map);
  return sampledColours(map, layersOf(map, run), blocks, step, kit_);
}

std::vector<PixelRect> MapPainter::changes(const Quilt& before, const Quilt& after, LayerAt at) {
  const Map& map = *after.map(at.map);
  const CellGrid& then = before.layer(at)->cells;
  const CellGrid& now = after.layer(at)->cells;
  if (then.sameAs(now)) return {};
  prepare(after, map);
  const auto grid = makeGrid(map.grid);
  std::vector<PixelRect> changed;
  for (const CellRect& cells : CellGrid::differences(then, now)) {
    const ChunkPos chunk = ChunkPos::of({cells.x0, cells.y0});
    const CellGrid::ChunkView views[] = {then.chunk(chunk), now.chunk(chunk)};
    PixelRect covered = grid->pixelBounds(cells);
    if (std::int64_t{cells.width()} * cells.height() > kExactChange) {
      Reach reach;
      for (const auto& view : views) reach = reach.united(kit_.reach.of(view, kit_.art, *grid));
      covered = reach.covered(covered);
    } else {
      const CellRect all = chunk.cells();
      grid->inDrawOrder(cells, [&](const DrawRow& row) {
        for (int i = 0; i < row.count; ++i) {
          const CellPos place = row.at(i);
          for (const auto& view : views) {
            const Cell cell = view.cell(place.x - all.x0, place.y - all.y0);
            if (!cell.empty()) covered = covered.united(grid->seat(place, drawnSize(after, map, cell)));
          }
        }
      });
    }
    changed.push_back(covered);
  }
  return changed;
}

std::vector<PickedTile> tilesAt(const Quilt& quilt, const Map& map, const SheetPictures& pictures,
                                const std::set<Id>& hidden, PixelPos at) {
  const auto grid = makeGrid(map.grid);
  const Reach farthest = ChunkReach::farthest(quilt, *grid);
  // Where in the draw order a tile was found: row, layer and place in the row; or layer first.
  struct Found {
    int row;
    int layer;
    int place;
    PickedTile tile;
  };
  std::vector<Found> found;
  int layerNumber = 0;
  for (const Shared<TilesLayer>& layer : map.layers) {
    ++layerNumber;
    if (hidden.contains(layer->id)) continue;
    const PixelPos on{at.x - layer->offset.x, at.y - layer->offset.y};
    const CellRect near = grid->cellsMeeting(farthest.around({on.x, on.y, 1, 1})).intersected(map.bounds);
    grid->inDrawOrder(near, [&](const DrawRow& row) {
      for (int i = 0; i < row.count; ++i) {
        const CellPos place = row.at(i);
        const Cell cell = layer->cells.at(place);
        if (cell.empty()) continue;
        const PixelRect seat = grid->seat(place, drawnSize(quilt, map, cell));
        if (!seat.contains(on)) continue;
        // Chalk and tiles without a picture fill the outline of their cell.
        const auto pixels = pictures.turned(quilt, asDrawn(cell, *grid));
        const bool hit = pixels ? qAlpha(pixels->pixel(on.x - seat.x, on.y - seat.y)) != 0 : grid->cellAt(on) == place;
        // Rows are told apart by the foot of their cells, which all layers share.
        if (hit) found.push_back({grid->cellBox(place).bottom(), layerNumber, i, {layer->id, place, cell}});
      }
    });
  }
  const bool byDepth = drawsByDepth(map);
  std::sort(found.begin(), found.end(), [&](const Found& a, const Found& b) {
    const auto key = [&](const Found& one) {
      return byDepth ? std::tuple(one.row, one.layer, one.place) : std::tuple(one.layer, one.row, one.place);
    };
    return key(a) > key(b);
  });
  std::vector<PickedTile> tiles;
  for (const Found& one : found) tiles.push_back(one.tile);
  return tiles;
}

std::optional<PickedTile> topmostAt(const Quilt& quilt, const Map& map, const SheetPictures& pictures,
                                    const std::set<Id>& hidden, PixelPos at) {
  const std::vector<PickedTile> tiles = tilesAt(quilt, map, pictures, hidden, at);
  return tiles.empty() ? std::nullopt : std::optional(tiles.front());
}

}  // namespace uq
