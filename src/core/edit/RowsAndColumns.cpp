#include "core/edit/RowsAndColumns.h"

#include <algorithm>

#include "core/base/InShares.h"
#include "core/edit/Rejoin.h"
#include "core/edit/ResizeMap.h"

namespace uq {

namespace {

constexpr int kMostLines = 2 * kFarthestCell;  // so that no sum overflows
constexpr int kJoinedBeside = 1;                // cells on either side of what came in, or went

void joinBand(Quilt& quilt, LayerAt at, const CellSet& band, bool isNew = false) {
  Rejoined joined = rejoined(quilt, at, band, {}, isNew);
  if (!joined.changed.empty()) quilt = quilt.with(at, std::move(joined.cells));
}

bool goesAlong(const Layer& layer, Id only) { return layer.holdsTiles() && (only.empty() || layer.id == only); }

// Behind which column, or row, there is nothing painted; to whole chunks, unless it is near the limit.
int farthest(const CellGrid& cells, const CellLines& lines) {
  int end = -kFarthestCell;
  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    const CellRect all = chunk.at.cells();
    end = std::max(end, lines.areColumns() ? all.x1 : all.y1);
  });
  if (std::int64_t{end} + lines.count <= kFarthestCell) return end;
  const CellRect used = cells.usedBounds();
  return lines.areColumns() ? used.x1 : used.y1;
}

int clampedOffset(int pixels) { return std::clamp(pixels, -kFarthestOffset, kFarthestOffset); }

}  // namespace

int evenLines(GridKind kind, CellLines::Which which) {
  const bool shiftsRows = kind == GridKind::staggered || kind == GridKind::hexagonalPointy;
  const bool shiftsColumns = kind == GridKind::hexagonalFlat;
  return (which == CellLines::Which::rows ? shiftsRows : shiftsColumns) ? 2 : 1;
}

namespace {

// Pins go along with their cells: those on lines that go, go with them; a box loses or gains what lies within it.
void moveAlong(const CellLines& lines, Pins& pins) {
  std::erase_if(pins, [&](const Pin& pin) {
    const CellRect gone = lines.within(pin.box());
    return !pin.edge && lines.count < 0 && gone.intersected(pin.box()) == pin.box();
  });
  for (Pin& pin : pins) {
    if (pin.edge) continue;
    const CellPos first = nearestTo(lines, pin.cell);
    // A box whose last cells go ends where the last one that stays lies.
    CellPos last{pin.cell.x + pin.over.w - 1, pin.cell.y + pin.over.h - 1};
    const int inside = lines.areColumns() ? last.x : last.y;
    const bool lastGoes = lines.count < 0 && inside >= lines.at && inside < lines.at - lines.count;
    if (lastGoes) (lines.areColumns() ? last.x : last.y) = lines.at - 1;
    else last = nearestTo(lines, last);
    pin.cell = first;
    pin.over = {std::max(1, last.x - first.x + 1), std::max(1, last.y - first.y + 1)};
  }
}

}  // namespace

std::string whyNoLines(const Map& map, const CellLines& lines, Id only, const std::set<Id>& locked) {
  const std::string called = lines.areColumns() ? "columns" : "rows";
  if (lines.count == 0) return "At least one of the " + called + " is needed";
  if (std::abs(std::int64_t{lines.count}) > kMostLines) return "Cells lie at most 1,048,576 from where the map began";
  const int first = lines.areColumns() ? map.bounds.x0 : map.bounds.y0;
  const int end = lines.areColumns() ? map.bounds.x1 : map.bounds.y1;
  if (lines.at < first || lines.at > end) return "The map has no such " + called;
  if (lines.count < 0 && std::int64_t{lines.at} - lines.count > end)
    return "The map has not so many " + called + " there";
  const Layer* alone = only.empty() ? nullptr : map.layer(only);
  if (alone && !alone->holdsTiles()) return "“" + alone->name + "” has no cells: choose a layer with tiles, or change all of them";
  if (only.empty()) {
    const CellRect bounds = whereTo(lines, map.bounds);
    if (std::string why = whyNoBounds(map, bounds); !why.empty()) return why;
  }
  for (const Shared<Layer>& layer : map.layers) {
    if (!goesAlong(layer.read(), only)) continue;
    if (locked.contains(layer->id)) return "“" + layer->name + "” is locked: unlock it, or change another layer alone";
    if (lines.count > 0 && farthest(layer->cells, lines) + std::int64_t{lines.count} > kFarthestCell) {
      return "Cells lie at most 1,048,576 from where the map began";
    }
  }
  return {};
}

Quilt withLines(const Quilt& quilt, Id id, const CellLines& lines, Id only) {
  const Map* map = quilt.map(id);
  if (!map || !whyNoLines(*map, lines, only).empty()) return quilt;
  Map next = *map;
  if (only.empty()) next.bounds = whereTo(lines, map->bounds);
  const auto parts = inShares(map->layers.size(), 1, [&](std::size_t from, std::size_t to) {
    std::vector<std::optional<LayerCells>> moved;
    for (std::size_t i = from; i < to; ++i) {
      const Layer& layer = map->layers[i].read();
      const bool moves = goesAlong(layer, only) && !(layer.cells.empty() && layer.lifts.empty());
      moved.push_back(moves ? std::optional(whereTo(lines, static_cast<const LayerCells&>(layer))) : std::nullopt);
    }
    return moved;
  });
  std::size_t index = 0;
  for (const auto& part : parts) {
    for (const auto& moved : part) {
      Shared<Layer>& shared = next.layers[index++];
      if (moved) {
        // What is laid as before stays the same value, so that it is not saved or drawn anew.
        if (!(*moved == static_cast<const LayerCells&>(shared.read()))) {
          shared.edit([&](Layer& layer) { static_cast<LayerCells&>(layer) = *moved; });
        }
      } else if (!shared->pins->empty() && only.empty()) {
        shared.edit([&](Layer& layer) { layer.pins.edit([&](Pins& pins) { moveAlong(lines, pins); }); });
      } else if (shared->kind == LayerKind::backdrop && only.empty()) {
        const PixelPos to = whereTo(map->grid, lines, shared->offset);
        if (!(to == shared->offset)) {
          shared.edit([&](Layer& layer) { layer.offset = {clampedOffset(to.x), clampedOffset(to.y)}; });
        }
      }
    }
  }
  Quilt after = quilt.with(std::move(next));
  if (quilt.edgings().empty()) return after;
  // What now lies beside something else is joined with it.
  const Map& now = *after.map(id);
  // What moves by half a cell lies beside other cells all over, and what it showed of those that were there counts no more.
  const bool shifts = lines.count % evenLines(map->grid.kind, lines.which) != 0;
  const CellRect all = now.bounds;
  const int from = shifts ? lines.at : lines.at - kJoinedBeside;
  const int end = lines.areColumns() ? all.x1 : all.y1;
  const int to = shifts ? end : lines.at + std::max(lines.count, 0) + kJoinedBeside;
  const CellSet band(lines.areColumns() ? CellRect{from, all.y0, to, all.y1}.intersected(all) : CellRect{all.x0, from, all.x1, to}.intersected(all));
  for (const Shared<Layer>& layer : std::vector(now.layers)) {
    if (layer->holdsTiles() && goesAlong(layer.read(), only)) joinBand(after, {id, layer->id}, band, shifts);
  }
  return after;
}

std::int64_t paintedIn(const Map& map, const CellLines& lines, Id only) {
  if (lines.count >= 0) return 0;
  Map counted = map;
  std::erase_if(counted.layers, [&](const Shared<Layer>& layer) { return !goesAlong(layer.read(), only); });
  return PaintedCount(std::move(counted)).in(lines.within(map.bounds));
}

std::string linesText(const CellLines& lines) {
  const int count = std::abs(lines.count);
  const std::string one = lines.areColumns() ? "column" : "row";
  return std::to_string(count) + " " + one + (count == 1 ? "" : "s");
}

Id linesLayer(const Desk& desk) { return desk.linesOfLayer ? desk.activeAt().layer : Id(); }

PixelPos whereTo(const GridShape& shape, const CellLines& lines, PixelPos at) {
  const auto grid = makeGrid(shape);
  const CellPos cell = grid->cellAt(at);
  const PixelRect from = grid->cellBox(cell);
  const PixelRect to = grid->cellBox(nearestTo(lines, cell));
  return {at.x + to.x - from.x, at.y + to.y - from.y};
}

}  // namespace uq
