#include "raster/MapPainter.h"

#include <QPainter>
#include <algorithm>
#include <map>
#include <tuple>

#include "raster/BlankPicture.h"
#include "raster/MapPainterParts.h"
#include "raster/NearChunks.h"

namespace uq {

namespace {

constexpr std::int64_t kExactChange = 64;  // cells: a smaller change is measured picture by picture

// The columns of device pixels that one strip of a picture fills: all of them, unless it stands on several cells.
struct Columns {
  int left = 0;
  int right = 0;
};

// Draws a tile larger than life: each device pixel shows the map pixel under its middle.
void magnify(QImage& target, const QRect& device, const PixelView& tile, const PixelRect& seat, ViewScale scale,
             const QRect& shown, unsigned opacity, std::vector<int>& columns) {
  const QRect place = shown.intersected(device);
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

// Columns `shown` of a view whose first is `left`.
PixelView columnsOf(PixelView view, int left, Columns shown) {
  view.pixels += shown.left - left;
  view.w = shown.right - shown.left;
  return view;
}

}  // namespace

void MapPainter::prepare(const Quilt& quilt, const Map& map) {
  const bool otherTiles = kit_.art.follow(quilt);
  if (kit_.art.setShape(map.grid) || otherTiles) {
    kit_.reach.clear();
    kit_.colours.clear();
  }
}

PixelRect MapPainter::placeOf(const Grid& grid, CellPos at, Cell cell, int lift) {
  const TileArt::Tile& tile = kit_.art.tile(asDrawn(cell, grid));
  const PixelRect box = grid.cellBox({0, 0});
  const PixelSize size = tile.size().w > 0 ? tile.size() : PixelSize{box.w, box.h};
  return moved(standing(grid, at, size, tile.stance()), {0, -lift});
}

PixelRect MapPainter::placeOf(const Quilt& quilt, const Map& map, CellPos at, Cell cell, int lift) {
  prepare(quilt, map);
  return placeOf(*makeGrid(map.grid), at, cell, lift);
}

void MapPainter::drawTiles(QImage& target, const Map& map, const Run& run, ViewScale scale, const QRect& device,
                           const GhostCells* ghost, const std::atomic<bool>* stop) {
  const auto grid = makeGrid(map.grid);
  const Reach farthest = ChunkReach::farthest(kit_.art, *grid);
  // A strip of something that stands on several cells, drawn with its front cell.
  struct Piece {
    Cell cell;
    PixelRect place;
    Strip strip;
    unsigned opacity;
  };
  struct Part {
    PixelPos shift;  // map pixels
    QRect device;    // what the layer shows of the target, before its shift
    NearChunks near;
    std::map<CellPos, GhostCells::Laid> ghosts;
    std::map<CellPos, std::vector<Piece>> pieces;  // by front cell
    bool isGround = false;                         // which stays as it is in front of a ghost
  };
  std::vector<Part> parts;
  CellRect cells;
  PixelRect ghostArea;  // where ghosts are drawn by depth, shifts and all
  const auto addPieces = [&](Part& part, CellPos at, Cell cell, int lift, unsigned opacity) {
    const TileArt::Tile& tile = kit_.art.tile(asDrawn(cell, *grid));
    if (!tile.stance().isWide()) return;
    const PixelRect place = placeOf(*grid, at, cell, lift);
    for (const Strip& strip : stripsOf(*grid, at, tile.stance().footprint, place)) {
      part.pieces[strip.front].push_back({cell, place, strip, opacity});
      cells = cells.united(CellRect::around(strip.front, strip.front));
    }
  };
  for (std::size_t i = 0; i < run.layers.size(); ++i) {
    const Layer* layer = map.layer(run.layers[i]);
    if (!layer) continue;
    const PixelPos shift = run.shiftOf(i);
    const QRect own = device.translated(-deviceShift(shift, scale));
    const PixelRect pixels = scale.covering(own);
    Part part{shift, own, NearChunks(*layer, map.bounds, pixels, farthest, &kit_.reach, kit_.art, *grid), {}, {},
              layer->role == kGroundRole};
    cells = cells.united(part.near.cells());
    if (kit_.art.hasWide()) {
      part.near.forEachCell([&](CellPos at, Cell cell, int lift) { addPieces(part, at, cell, lift, 255); });
    }
    if (ghost && ghost->layer == layer->id) {
      for (const GhostCells::Laid& one : ghost->cells) part.ghosts.emplace(one.at, one);
      cells = cells.united(grid->cellsMeeting(farthest.around(pixels)).intersected(map.bounds));
      for (const auto& [at, one] : part.ghosts) {
        if (one.cell.empty()) continue;
        addPieces(part, at, one.cell, one.lift, kGhostOpacity);
        if (!run.byDepth || part.ghosts.size() > kMostFadedFor) continue;
        ghostArea = ghostArea.united(moved(placeOf(*grid, at, one.cell, one.lift), shift));
      }
    }
    parts.push_back(std::move(part));
  }
  if (cells.empty()) return;

  const PixelRect box = grid->cellBox({0, 0});
  const PixelSize cellSize{box.w, box.h};
  std::vector<int> columns;
  bool ghostDrawn = false;
  const auto drawPicture = [&](const Part& part, TileArt::Tile& tile, const PixelRect& seat, const Strip* strip,
                               unsigned opacity) {
    QRect place = scale.toDevice(seat);
    Columns shown{place.x(), place.x() + place.width()};
    if (strip) {
      const auto edge = [&](int x) { return scale.toDevice({x, 0, 1, 1}).x(); };
      if (strip->left > seat.x) shown.left = edge(strip->left);
      if (strip->right < seat.right()) shown.right = edge(strip->right);
      if (shown.left >= shown.right) return;
    }
    const QRect seen(shown.left, place.y(), shown.right - shown.left, place.height());
    if (!seen.intersects(part.device)) return;
    if (scale.zoom > 1 && !tile.takesCellSize()) {
      magnify(target, part.device, tile.straight(), seat, scale, seen, opacity, columns);
      return;
    }
    const PixelView& whole = kit_.art.sized(tile, place.width(), place.height());
    blend(target, seen.topLeft() - part.device.topLeft(), strip ? columnsOf(whole, place.x(), shown) : whole, opacity);
  };
  // Faint where it stands before a ghost that was drawn already.
  const auto opacityOf = [&](const Part& part, CellPos front, const PixelRect& seat) {
    const bool covers = ghostDrawn && !part.isGround && reachesOver(moved(seat, part.shift), moved(grid->cellBox(front), part.shift),
                                                  ghostArea);
    return covers ? kInFrontOpacity : 255u;
  };
  const auto drawCell = [&](const Part& part, CellPos at, Cell cell, int lift, bool isGhost) {
    TileArt::Tile& tile = kit_.art.tile(asDrawn(cell, *grid));
    if (tile.stance().isWide()) return;  // among the pieces
    const PixelSize size = tile.size().w > 0 ? tile.size() : cellSize;
    const PixelRect seat = moved(standing(*grid, at, size, tile.stance()), {0, -lift});
    drawPicture(part, tile, seat, nullptr, isGhost ? kGhostOpacity : opacityOf(part, at, seat));
  };
  const auto drawRow = [&](const Part& part, const DrawRow& row) {
    const CellRect known = part.near.cells();
    for (int i = 0; i < row.count; ++i) {
      const CellPos at = row.at(i);
      if (!part.pieces.empty()) {
        if (const auto here = part.pieces.find(at); here != part.pieces.end()) {
          for (const Piece& piece : here->second) {
            TileArt::Tile& tile = kit_.art.tile(asDrawn(piece.cell, *grid));
            const unsigned opacity = piece.opacity == 255 ? opacityOf(part, at, piece.place) : piece.opacity;
            drawPicture(part, tile, piece.place, &piece.strip, opacity);
          }
        }
      }
      if (known.contains(at)) {
        const NearChunks::Near& one = part.near.of(at);
        if (one.cells.contains(at)) {
          const CellRect all = one.chunk.at.cells();
          const Cell cell = one.chunk.cell(at.x - all.x0, at.y - all.y0);
          const int lift = NumberGrid::numberOf(one.lifts.cell(at.x - all.x0, at.y - all.y0));
          if (!cell.empty()) drawCell(part, at, cell, lift, false);
        }
      }
      if (part.ghosts.empty()) continue;
      const auto preview = part.ghosts.find(at);
      if (preview != part.ghosts.end() && !preview->second.cell.empty()) {
        drawCell(part, at, preview->second.cell, preview->second.lift, true);
        ghostDrawn = !ghostArea.empty();
      }
    }
  };
  const auto stopped = [stop] { return stop && stop->load(std::memory_order_relaxed); };
  if (run.byDepth) {
    grid->inDrawOrder(cells, [&](const DrawRow& row) {
      for (std::size_t i = 0; i < parts.size() && !stopped(); ++i) drawRow(parts[i], row);
    });
    return;
  }
  for (const Part& part : parts) {
    if (stopped()) return;
    const CellRect own = part.ghosts.empty() && part.pieces.empty() ? part.near.cells() : cells;
    grid->inDrawOrder(own, [&](const DrawRow& row) { drawRow(part, row); });
  }
}

QImage MapPainter::drawRun(const Quilt& quilt, const Map& map, const Run& run, ViewScale scale, const QRect& device,
                           const GhostCells* ghost, const std::atomic<bool>* stop) {
  if (run.backdrop) {
    QImage picture = blankPicture(device.size());
    if (!kit_.backdrops.draw(picture, quilt, map, *run.backdrop, pictures(), scale, device)) return {};
    if (run.tint != kNoTint) tintBy(picture, run.tint);
    return picture;
  }
  prepare(quilt, map);
  const auto grid = makeGrid(map.grid);
  const Reach farthest = ChunkReach::farthest(kit_.art, *grid);
  const bool colours = drawsColours(*grid, scale) && run.shifts.empty();
  std::vector<const Layer*> layers;
  bool any = false;
  for (std::size_t i = 0; i < run.layers.size(); ++i) {
    const Layer* layer = map.layer(run.layers[i]);
    if (!layer) continue;
    const PixelRect pixels = scale.covering(device.translated(-deviceShift(run.shiftOf(i), scale)));
    const PixelRect near = colours ? grid->pixelBounds(grid->cellsMeeting(pixels)) : pixels;
    // For colours the reach of each chunk would cost more to know than a few cells that do not matter.
    ChunkReach* const reach = colours ? nullptr : &kit_.reach;
    const bool shows = (ghost && ghost->layer == layer->id) ||
                       !NearChunks(*layer, map.bounds, near, farthest, reach, kit_.art, *grid).cells().empty();
    if (shows) layers.push_back(layer);
    any = any || shows;
  }
  if (!any) return {};
  QImage picture = blankPicture(device.size());
  if (colours) {
    drawColours(picture, map, layers, scale, device, kit_, ghost, stop);
  } else {
    drawTiles(picture, map, run, scale, device, ghost, stop);
  }
  if (run.tint != kNoTint) tintBy(picture, run.tint);
  return stop && stop->load(std::memory_order_relaxed) ? QImage() : picture;
}

QPainter::CompositionMode modeOf(Blend blend) {
  switch (blend) {
    case Blend::multiply: return QPainter::CompositionMode_Multiply;
    case Blend::screen: return QPainter::CompositionMode_Screen;
    case Blend::add: return QPainter::CompositionMode_Plus;
    case Blend::normal: break;
  }
  return QPainter::CompositionMode_SourceOver;
}

void MapPainter::drawOver(QImage& below, const Quilt& quilt, const Map& map, const std::vector<Run>& runs,
                          ViewScale scale, const QRect& device, const GhostCells* ghost) {
  for (const Run& run : runs) {
    const QRect own = device.translated(-run.shift(scale));
    QImage one = drawRun(quilt, map, run, scale, own, ghost);
    if (one.isNull()) continue;
    if (run.backdrop) {
      // What hangs beyond the map is not shown.
      const QRect hangs = boundsOf(quilt, map, run, scale).translated(-own.topLeft());
      if (!hangs.contains(one.rect())) {
        QPainter painter(&one);
        painter.setCompositionMode(QPainter::CompositionMode_Clear);
        for (const QRect& beyond : QRegion(one.rect()).subtracted(hangs)) painter.fillRect(beyond, Qt::transparent);
      }
    }
    if (run.blend == Blend::normal && run.opacity == 100) {
      blend(below, {}, viewOf(one));
    } else {
      layOver(below, one, run.opacity / 100.0, run.blend);
    }
  }
}

QImage MapPainter::draw(const Quilt& quilt, const Map& map, const std::vector<Run>& runs, ViewScale scale,
                        const QRect& device, const GhostCells* ghost) {
  QImage picture = blankPicture(device.size());
  drawOver(picture, quilt, map, runs, scale, device, ghost);
  return picture;
}

QImage MapPainter::sample(const Quilt& quilt, const Map& map, const Run& run, CellRect blocks, int step) {
  if (run.backdrop) return sampledBackdrop(quilt, map, *run.backdrop, blocks, step);
  prepare(quilt, map);
  std::vector<const Layer*> layers;
  for (const Id id : run.layers) {
    if (const Layer* layer = map.layer(id)) layers.push_back(layer);
  }
  return sampledColours(map, layers, blocks, step, kit_);
}

QImage MapPainter::sampledBackdrop(const Quilt& quilt, const Map& map, const Backdrop& backdrop, CellRect blocks,
                                   int step) {
  QImage picture = blankPicture({std::max(1, blocks.width()), std::max(1, blocks.height())});
  const Sheet* sheet = quilt.sheet(backdrop.sheet);
  const auto place = hungAt(quilt, map, backdrop);
  const QImage whole = place ? pictures().picture(*sheet) : QImage();
  // Only squares are drawn by blocks that lie as their pixels do.
  if (whole.isNull() || map.grid.kind != GridKind::orthogonal) return picture;
  const PixelSize cell = map.grid.cell;
  const PixelRect area{blocks.x0 * step * cell.w, blocks.y0 * step * cell.h, blocks.width() * step * cell.w,
                       blocks.height() * step * cell.h};
  const PixelRect covered = hungOver(quilt, map, backdrop, area);
  if (covered.empty()) return picture;
  QPainter painter(&picture);
  painter.setRenderHint(QPainter::SmoothPixmapTransform);
  painter.scale(1.0 / (step * cell.w), 1.0 / (step * cell.h));
  painter.translate(-area.x, -area.y);
  QBrush brush(whole);
  brush.setTransform(QTransform::fromScale(static_cast<double>(place->w) / whole.width(),
                                           static_cast<double>(place->h) / whole.height()));
  painter.fillRect(QRect(covered.x, covered.y, covered.w, covered.h), brush);
  return picture;
}

namespace {

// Adds the painted chunks, cut to where one of two bounds holds them and the other does not.
void addComingAndGoing(std::vector<CellRect>& differences, const CellRect& before, const CellRect& after,
                       const CellGrid& then, const CellGrid& now) {
  if (before == after) return;
  const auto beyond = [&](const CellRect& all, const CellRect& other, const CellGrid& cells) {
    const CellRect common = all.intersected(other);
    const CellRect strips[] = {{all.x0, all.y0, all.x1, common.y0},
                               {all.x0, common.y1, all.x1, all.y1},
                               {all.x0, common.y0, common.x0, common.y1},
                               {common.x1, common.y0, all.x1, common.y1}};
    cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
      for (const CellRect& strip : strips) {
        const CellRect part = common.empty() ? chunk.at.cells().intersected(all) : chunk.at.cells().intersected(strip);
        if (!part.empty()) differences.push_back(part);
        if (common.empty()) break;
      }
    });
  };
  beyond(before, after, then);
  beyond(after, before, now);
}

}  // namespace

std::vector<PixelRect> MapPainter::changes(const Quilt& before, const Quilt& after, LayerAt at) {
  const Map& map = *after.map(at.map);
  const Layer& then = *before.layer(at);
  const Layer& now = *after.layer(at);
  std::vector<CellRect> differences = LayerCells::differences(then, now);
  addComingAndGoing(differences, before.map(at.map)->bounds, map.bounds, then.cells, now.cells);
  if (differences.empty()) return {};
  prepare(after, map);
  const auto grid = makeGrid(map.grid);
  struct State {
    CellGrid::ChunkView cells;
    CellGrid::ChunkView lifts;
  };
  std::vector<PixelRect> changed;
  for (const CellRect& cells : differences) {
    const ChunkPos chunk = ChunkPos::of({cells.x0, cells.y0});
    const State states[] = {{then.cells.chunk(chunk), then.lifts.cells().chunk(chunk)},
                            {now.cells.chunk(chunk), now.lifts.cells().chunk(chunk)}};
    PixelRect covered = grid->pixelBounds(cells);
    if (std::int64_t{cells.width()} * cells.height() > kExactChange) {
      Reach reach;
      for (const State& state : states) {
        Reach own = kit_.reach.of(state.cells, kit_.art, *grid);
        own.up += kit_.reach.mostLift(state.lifts);
        reach = reach.united(own);
      }
      covered = reach.covered(covered);
    } else {
      const CellRect all = chunk.cells();
      grid->inDrawOrder(cells, [&](const DrawRow& row) {
        for (int i = 0; i < row.count; ++i) {
          const CellPos place = row.at(i);
          for (const State& state : states) {
            const Cell cell = state.cells.cell(place.x - all.x0, place.y - all.y0);
            const int lift = NumberGrid::numberOf(state.lifts.cell(place.x - all.x0, place.y - all.y0));
            if (!cell.empty()) covered = covered.united(placeOf(*grid, place, cell, lift));
          }
        }
      });
    }
    changed.push_back(covered);
  }
  return changed;
}

}  // namespace uq
