#include "core/edit/ResizeMap.h"

#include <algorithm>
#include <limits>

#include "core/edit/Chance.h"
#include "core/edit/Edgings.h"
#include "core/edit/Joiner.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/LookAlikes.h"
#include "core/edit/MapFacts.h"
#include "core/edit/Rejoin.h"
#include "core/edit/RowsAndColumns.h"
#include "core/grid/Grid.h"

namespace uq {

namespace {

constexpr const char* kGround = "ground";

int sum(int a, int b) {
  const std::int64_t all = std::int64_t{a} + b;
  return static_cast<int>(std::clamp<std::int64_t>(all, std::numeric_limits<int>::min() / 2, std::numeric_limits<int>::max() / 2));
}

// What lies within `all` and outside `inner`: at most four rectangles.
std::vector<CellRect> around(CellRect all, CellRect inner) {
  inner = inner.intersected(all);
  if (inner.empty()) return {all};
  std::vector<CellRect> parts = {{all.x0, all.y0, all.x1, inner.y0},
                                 {all.x0, inner.y1, all.x1, all.y1},
                                 {all.x0, inner.y0, inner.x0, inner.y1},
                                 {inner.x1, inner.y0, all.x1, inner.y1}};
  std::erase_if(parts, [](const CellRect& one) { return one.empty(); });
  return parts;
}

// Whether new room on a layer is filled as its last row.
bool takesRoom(const Map& map, std::size_t index, NewRoom room) {
  const Layer& layer = map.layers[index].read();
  if (!layer.holdsTiles() || room == NewRoom::empty) return false;
  if (room == NewRoom::lastRow) return true;
  const bool anyGround = std::any_of(map.layers.begin(), map.layers.end(), [](const auto& one) { return one->role == kGround; });
  return anyGround ? layer.role == kGround : index == 0;
}

// What new room takes from the nearest cell: the same again; of ground that a kept mix knows one of the mix, by chance, which
// falls the same for a place however often the edge is dragged over it.
class NewGround {
 public:
  NewGround(const Quilt& quilt, const Map& map, NewRoom room)
      : quilt_(quilt), grid_(makeGrid(map.grid)), mixes_(room == NewRoom::ground) {}

  Laid at(CellPos place, const Laid& nearest) {
    if (!mixes_ || nearest.cell.empty()) return nearest;
    const auto [known, isNew] = looks_.try_emplace(nearest.cell.bits());
    if (isNew) {
      const Cell plain = plainOf(nearest.cell);
      known->second = looksOf(quilt_, plain);
      if (known->second.empty()) known->second = {{plain, 1}};
    }
    return {thrownLook(known->second, thrown(kNewGround, grid_->toSide(place))), nearest.lift};
  }

 private:
  // Whether it is a member that shows its material and nothing else.
  bool isPlain(const Edging& edging, Cell cell) const {
    const EdgingMember* member = Joiner(quilt_, edging, *grid_).memberAt(cell);
    const auto shows = [&](const std::vector<MaterialIndex>& places) { return std::all_of(places.begin(), places.end(), [&](MaterialIndex one) { return one == member->middle; }); };
    return member && shows(member->sides) && shows(member->corners);
  }
  // Of what joins the tile that shows its material and nothing else.
  Cell plainOf(Cell cell) const {
    const auto of = materialOfTile(quilt_, grid_->shape().kind, cell);
    if (of && isPlain(*of->edging, cell)) return cell;
    const auto plain = of ? plainTile(quilt_, *of->edging, of->material) : std::nullopt;
    return plain.value_or(cell);
  }

  static constexpr std::uint64_t kNewGround = 0x6e65772067726e64;  // a seed like any other

  const Quilt& quilt_;
  std::unique_ptr<const Grid> grid_;
  bool mixes_;
  std::map<std::uint32_t, std::vector<Look>> looks_;  // by cell
};

// How far a side may go: to a size of at least one cell.
int insideOf(int moves, int size) { return std::max(moves, 1 - size); }

// By how much a side moves so that the map is whole screens long, as near as can be to `moves`.
int toScreens(int size, int moves, int cell, int screen) {
  if (cell < 1 || screen < 1) return moves;
  const std::int64_t pixels = std::int64_t{size + moves} * cell;
  const std::int64_t screens = std::max<std::int64_t>(1, (pixels + screen / 2) / screen);
  return static_cast<int>(screens * screen / cell) - size;
}

}  // namespace

PixelSize cellsPitch(const GridShape& shape) {
  const auto grid = makeGrid(shape);
  const PixelRect one = grid->pixelBounds({0, 0, 2, 2});
  const PixelRect wider = grid->pixelBounds({0, 0, 4, 2});
  const PixelRect higher = grid->pixelBounds({0, 0, 2, 4});
  return {std::max(1, (wider.w - one.w) / 2), std::max(1, (higher.h - one.h) / 2)};
}

CellRect moved(CellRect bounds, const EdgeMoves& by) {
  return {sum(bounds.x0, -by.left), sum(bounds.y0, -by.top), sum(bounds.x1, by.right), sum(bounds.y1, by.bottom)};
}

std::string whyNoBounds(const Map& map, CellRect bounds, NewRoom room) {
  if (bounds.empty()) return "The map needs at least one cell each way";
  if (bounds.x0 < -kFarthestCell || bounds.y0 < -kFarthestCell || bounds.x1 > kFarthestCell || bounds.y1 > kFarthestCell) {
    return "Cells lie at most 1,048,576 from where the map began";
  }
  const PixelRect pixels = makeGrid(map.grid)->pixelBounds(bounds);
  if (std::max({-pixels.x, -pixels.y, pixels.right(), pixels.bottom()}) > kFarthestPixel) {
    return "A map reaches at most 16,777,216 pixels from where it began";
  }
  const std::int64_t fresh = bounds.count() - bounds.intersected(map.bounds).count();
  if (room != NewRoom::empty && fresh > kMostNewRoom) return "So much new room is not filled at once: leave it empty";
  return {};
}

Quilt withBounds(const Quilt& quilt, Id id, CellRect bounds, NewRoom room) {
  const Map* map = quilt.map(id);
  if (!map || map->bounds == bounds || !whyNoBounds(*map, bounds, room).empty()) return quilt;
  const CellRect old = map->bounds;
  Map next = *map;
  next.bounds = bounds;
  for (std::size_t i = 0; i < next.layers.size(); ++i) {
    if (!takesRoom(*map, i, room)) continue;
    LayerCells cells = next.layers[i].read();
    const LayerCells before = cells;
    NewGround ground(quilt, *map, room);
    for (const CellRect& part : around(bounds, old)) {
      for (int y = part.y0; y < part.y1; ++y) {
        for (int x = part.x0; x < part.x1; ++x) {
          if (!before.cells.at({x, y}).empty()) continue;
          const CellPos nearest{std::clamp(x, old.x0, old.x1 - 1), std::clamp(y, old.y0, old.y1 - 1)};
          cells.lay(CellPos{x, y}, ground.at({x, y}, before.laidAt(nearest)));
        }
      }
    }
    next.layers[i].edit([&](Layer& layer) { static_cast<LayerCells&>(layer) = std::move(cells); });
  }
  Quilt after = quilt.with(std::move(next));
  return room == NewRoom::empty ? after : joinedWhereChanged(quilt, after, id);
}

Resized resized(const Quilt& quilt, Id id, const ResizeAsk& ask) {
  Resized done{quilt, quilt.map(id)->bounds};
  Quilt base = quilt;
  for (const CellLines& lines : ask.lines) {
    const Map& now = *base.map(id);
    done.why = whyNoLines(now, lines, ask.linesOf);
    if (!done.why.empty()) return done;
    done.gone += paintedIn(now, lines, ask.linesOf);
    base = withLines(base, id, lines, ask.linesOf);
  }
  const Map& map = *base.map(id);
  CellRect to = ask.toUsed ? usedBounds(map) : map.bounds;
  if (to.empty()) {
    done.why = "Nothing is painted on this map";
    return done;
  }
  to = moved(to, ask.by);
  if (ask.width) to.x1 = sum(to.x0, *ask.width);
  if (ask.height) to.y1 = sum(to.y0, *ask.height);
  done.why = whyNoBounds(map, to, ask.room);
  if (!done.why.empty()) return done;
  PaintedCount count(map);
  done.bounds = to;
  done.cut = count.cutBy(to);
  done.broughtBack = count.broughtBackBy(to);
  done.quilt = withBounds(base, id, to, ask.room);
  if (ask.dropsAllowance) {
    done.dropped = allowanceCells(*done.quilt.map(id));
    done.quilt = withoutAllowance(done.quilt, id);
  }
  return done;
}

std::vector<std::string> leftOutside(const Map& map, CellRect to, const CellSet& selected) {
  std::vector<std::string> left;
  if (const std::int64_t cells = selected.without(CellSet(to)).count(); cells > 0) {
    left.push_back(std::to_string(cells) + (cells == 1 ? " selected cell" : " selected cells"));
  }
  const auto grid = makeGrid(map.grid);
  for (const Shared<Layer>& layer : map.layers) {
    if (layer->kind != LayerKind::backdrop || layer->backdrop.sheet.empty()) continue;
    const CellPos hangs = grid->cellAt(layer->offset);
    if (map.bounds.contains(hangs) && !to.contains(hangs)) left.push_back("where " + layer->name + " hangs");
  }
  return left;
}

CellRect grownToHold(const Quilt& quilt, const Map& map, CellRect wanted) {
  const PixelSize screen = screenOf(quilt, map);
  const PixelSize cell = cellsPitch(map.grid);
  const auto screens = [](std::int64_t beyond, int cells) {
    return beyond <= 0 ? 0 : static_cast<int>(std::min<std::int64_t>((beyond + cells - 1) / cells * cells, kFarthestCell));
  };
  const int across = std::max(1, ceilDiv(screen.w, cell.w));
  const int down = std::max(1, ceilDiv(screen.h, cell.h));
  const CellRect all = map.bounds;
  const CellRect to = moved(all, {screens(std::int64_t{all.x0} - wanted.x0, across), screens(std::int64_t{all.y0} - wanted.y0, down),
                                  screens(std::int64_t{wanted.x1} - all.x1, across), screens(std::int64_t{wanted.y1} - all.y1, down)});
  return wanted.empty() || !whyNoBounds(map, to).empty() ? all : to;
}

CellRect usedBounds(const Map& map) {
  CellRect used;
  for (const Shared<Layer>& layer : map.layers) {
    const CellRect all = layer->cells.usedBounds();
    if (all.intersected(map.bounds) == all) {
      used = used.united(all);
      continue;
    }
    layer->cells.forEachPainted(map.bounds, [&](CellPos at, Cell) {
      used = used.united({at.x, at.y, at.x + 1, at.y + 1});
    });
  }
  return used;
}

std::int64_t allowanceCells(const Map& map) {
  CellRect all = map.bounds;
  for (const Shared<Layer>& layer : map.layers) all = all.united(layer->cells.usedBounds());
  PaintedCount count(map);
  return count.in(all) - count.in(map.bounds);
}

Quilt withoutAllowance(const Quilt& quilt, Id id) {
  const Map* map = quilt.map(id);
  if (!map) return quilt;
  Map next = *map;
  bool changes = false;
  for (Shared<Layer>& shared : next.layers) {
    const CellRect used = shared->cells.usedBounds().united(shared->lifts.cells().usedBounds());
    if (used.intersected(map->bounds) == used) continue;
    changes = true;
    shared.edit([&](Layer& layer) {
      for (const CellRect& part : around(used.united(map->bounds), map->bounds)) {
        layer.cells.fill(part, Cell());
        layer.lifts.fill(part, 0);
        layer.meant.fill(part, 0);
      }
    });
  }
  return changes ? quilt.with(std::move(next)) : quilt;
}

std::int64_t PaintedCount::inChunk(std::size_t layer, const CellGrid::ChunkView& chunk, CellRect cells) {
  const CellRect all = chunk.at.cells();
  const CellRect part = all.intersected(cells);
  if (part.empty() || chunk.blank()) return 0;
  if (chunk.isUniform()) return std::int64_t{part.width()} * part.height();
  const auto count = [&](CellRect within) {
    std::int64_t painted = 0;
    for (int y = within.y0 - all.y0; y < within.y1 - all.y0; ++y) {
      for (int x = within.x0 - all.x0; x < within.x1 - all.x0; ++x) painted += chunk.cell(x, y).empty() ? 0 : 1;
    }
    return painted;
  };
  if (!(part == all)) return count(part);
  const auto [known, isNew] = whole_.try_emplace({layer, {chunk.at.cx, chunk.at.cy}}, 0);
  if (isNew) known->second = count(all);
  return known->second;
}

std::int64_t PaintedCount::in(CellRect cells) {
  std::int64_t painted = 0;
  for (std::size_t i = 0; i < map_.layers.size(); ++i) {
    map_.layers[i]->cells.forEachChunk([&](const CellGrid::ChunkView& chunk) { painted += inChunk(i, chunk, cells); });
  }
  return painted;
}

std::int64_t PaintedCount::cutBy(CellRect bounds) {
  std::int64_t painted = 0;
  for (const CellRect& part : around(map_.bounds, bounds)) painted += in(part);
  return painted;
}

std::int64_t PaintedCount::broughtBackBy(CellRect bounds) {
  std::int64_t painted = 0;
  for (const CellRect& part : around(bounds, map_.bounds)) painted += in(part);
  return painted;
}

HeldEdge edgeBeyond(CellRect bounds, CellPos outside) {
  return {outside.x < bounds.x0, outside.y < bounds.y0, outside.x >= bounds.x1, outside.y >= bounds.y1};
}

CellRect dragged(const Map& map, const HeldEdge& edge, const EdgeWay& way) {
  const CellRect bounds = map.bounds;
  // Of one axis: by how much the edges before and behind move outwards.
  const auto axis = [&](bool before, bool behind, int moves, int size, int cell, int screen) {
    int out = before ? -moves : behind ? moves : 0;
    if (!before && !behind) return std::pair(0, 0);
    if (way.bothSides) {
      if (way.screen) out = toScreens(size, 2 * out, cell, screen) / 2;
      out = std::max(out, (1 - size) / 2);
      return std::pair(out, out);
    }
    if (way.screen) out = toScreens(size, out, cell, screen);
    out = insideOf(out, size);
    return before ? std::pair(out, 0) : std::pair(0, out);
  };
  const PixelSize screen = way.screen.value_or(PixelSize{});
  const PixelSize cell = cellsPitch(map.grid);
  const auto [left, right] = axis(edge.left, edge.right, way.across, bounds.width(), cell.w, screen.w);
  const auto [top, bottom] = axis(edge.top, edge.bottom, way.down, bounds.height(), cell.h, screen.h);
  return moved(bounds, {left, top, right, bottom});
}

}  // namespace uq
