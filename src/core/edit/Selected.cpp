#include "core/edit/Selected.h"

#include <algorithm>

#include "core/edit/Chance.h"
#include "core/edit/LaidStamps.h"
#include "core/edit/LayCells.h"
#include "core/edit/Patchwork.h"
#include "core/edit/Pattern.h"
#include "core/edit/Region.h"
#include "core/edit/Turned.h"

namespace uq {

namespace {

// Where the cells of a set come to, as far as that lies on the patchwork.
template <class Place>
CellSet placed(const Patchwork& patchwork, const CellSet& cells, Place&& place) {
  CellSet moved;
  cells.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const CellPos to = place(CellPos{first.x + i, first.y});
      if (patchwork.contains(to)) moved.insert(to);
    }
  });
  return moved;
}

// The painted cells among the selected as a block that is held there.
std::optional<Block> heldBy(const Quilt& quilt, LayerAt at, const CellSet& selected, SidePos grip) {
  const Layer* layer = quilt.layer(at);
  if (!layer) return Block();
  const Map& map = *quilt.map(at.map);
  const auto grid = makeGrid(map.grid);
  std::vector<Block::Part> parts;
  layer->forEachLaid(Patchwork::under(quilt, map.id).among(selected), [&](CellPos place, const Laid& laid) {
    const bool room = static_cast<std::int64_t>(parts.size()) <= kMostCopiedCells;
    if (room) parts.push_back({grid->toSide(place) - grip, laid.cell, laid.lift});
  });
  if (static_cast<std::int64_t>(parts.size()) > kMostCopiedCells) return std::nullopt;
  return Block(std::move(parts));
}

}  // namespace

std::vector<LayerAt> layersOfVerb(const Desk& desk, const Quilt& quilt) {
  const Map* map = quilt.map(desk.map);
  if (!map) return {};
  if (!desk.options.allLayers) return {desk.activeAt()};
  std::vector<LayerAt> layers;
  for (const Shared<Layer>& layer : map->layers) {
    if (layer->holdsTiles() && !desk.hidden.contains(layer->id) && !desk.locked.contains(layer->id))
      layers.push_back({map->id, layer->id});
  }
  return layers;
}

SelectedCells::SelectedCells(Layers on, const CellSet& cells) : all(cells) {
  for (const LayerAt one : on) layers.push_back({one, cells});
}

std::vector<LayerAt> SelectedCells::at() const {
  std::vector<LayerAt> all_;
  for (const On& one : layers) all_.push_back(one.at);
  return all_;
}

SelectedCells selectedOf(const Desk& desk, const Quilt& quilt) {
  if (const auto laid = laidOn(quilt, desk.map, desk.selectedStamp, desk.selection())) return cellsOf(quilt, *laid);
  return {layersOfVerb(desk, quilt), desk.selection()};
}

CellPos gripOf(const CellSet& selected) {
  const CellRect bounds = selected.bounds();
  return {bounds.x0 + (bounds.width() - 1) / 2, bounds.y0 + (bounds.height() - 1) / 2};
}

Quilt clearCells(const Quilt& quilt, Layers layers, const CellSet& selected) {
  return clearCells(quilt, SelectedCells(layers, selected));
}

Quilt clearCells(const Quilt& quilt, const SelectedCells& selected) {
  Quilt after = quilt;
  for (const auto& [at, cells] : selected.layers) after = clearCells(after, at, cells);
  return after;
}

std::optional<InHand> copyOf(const Quilt& quilt, Layers layers, LayerAt main, const CellSet& selected) {
  return copyOf(quilt, SelectedCells(layers, selected), main);
}

std::optional<InHand> copyOf(const Quilt& quilt, const SelectedCells& selected, LayerAt main) {
  const Map* map = quilt.map(main.map);
  if (!map) return InHand();
  std::vector<std::pair<std::size_t, Block>> copied;
  const SidePos grip = makeGrid(map->grid)->toSide(gripOf(selected.all));
  for (const auto& [at, cells] : selected.layers) {
    auto block = heldBy(quilt, at, cells, grip);
    if (!block) return std::nullopt;
    if (!block->empty()) copied.emplace_back(*map->layerIndex(at.layer), std::move(*block));
  }
  InHand hand;
  hand.grid = map->grid.kind;
  if (copied.empty()) return hand;
  std::sort(copied.begin(), copied.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  const auto own = std::find_if(copied.begin(), copied.end(),
                                [&](const auto& one) { return map->layers[one.first]->id == main.layer; });
  const auto& [base, block] = own != copied.end() ? *own : copied.front();
  hand.block = block;
  hand.role = map->layers[base]->role;
  for (const auto& [index, part] : copied) {
    if (index == base) continue;
    hand.others.push_back({map->layers[index]->role, static_cast<int>(index) - static_cast<int>(base), part});
  }
  return hand;
}

Quilt moveCells(const Quilt& quilt, const SelectedCells& selected, SidePos by) {
  Quilt after = quilt;
  for (const auto& [at, cells] : selected.layers) after = moveCells(after, at, cells, by);
  return after;
}

Quilt moveToLayer(const Quilt& quilt, LayerAt from, Id to, const CellSet& selected) {
  const Layer* layer = quilt.layer(from);
  const Layer* target = quilt.layer({from.map, to});
  if (!layer || !target || !target->holdsTiles() || from.layer == to) return quilt;
  LayerCells left = *layer;
  LayerCells there = *target;
  left.move(Patchwork::under(quilt, from.map).among(selected), there, [](CellPos at) { return at; });
  return quilt.with(from, std::move(left)).with({from.map, to}, std::move(there));
}

namespace {

// Where the grip of a selection comes to when it is turned, so that the box around it keeps its middle: exactly, or
// where its sides differ by an odd count half a cell towards its corner, and back again. On hexagons the grip stays.
SidePos gripWhenTurned(const Grid& grid, const CellSet& selected, SidePos grip, Turn turn) {
  if (grid.turnOrder() == 6) return grip;
  const CellRect box = sideBoundsOf(grid, selected);
  const auto turned = [&](int u, int v) { return grip + grid.turned(SidePos{u, v} - grip, turn); };
  const SidePos a = turned(box.x0, box.y0);
  const SidePos b = turned(box.x1 - 1, box.y1 - 1);
  const CellRect now = CellRect::around({a.u, a.v}, {b.u, b.v});
  return grip + SidePos{box.x0 + (box.width() - now.width()) / 2 - now.x0,
                        box.y0 + (box.height() - now.height()) / 2 - now.y0};
}

}  // namespace

TurnedCells turnCells(const Quilt& quilt, const SelectedCells& from, Turning turning,
                      const std::optional<TurnGrip>& last) {
  const CellSet& selected = from.all;
  TurnedCells turned{quilt, selected};
  const Map* map = from.layers.empty() ? nullptr : quilt.map(from.layers.front().at.map);
  if (!map || selected.empty()) return turned;
  const auto grid = makeGrid(map->grid);
  const SidePos own = grid->toSide(gripOf(selected));
  const bool goesOn = grid->turnOrder() == 6 && last && last->selected == selected;
  const SidePos grip = goesOn ? grid->toSide(last->at) : own;
  const Turn turn = turnOf(turning, grid->turnOrder());
  const SidePos middle = gripWhenTurned(*grid, selected, grip, turn);
  turned.quilt = clearCells(quilt, from);
  for (const auto& [at, cells] : from.layers) {
    const auto block = heldBy(quilt, at, cells, own);
    if (!block) return {quilt, selected};
    std::vector<Block::Part> parts = block->parts();
    for (Block::Part& part : parts) part.at = part.at + own - grip;
    std::vector<CellChange> arriving;
    const Block held = turnedBlock(quilt, *grid, Block(std::move(parts)), turning);
    for (const Block::Part& part : held.parts()) {
      arriving.push_back({grid->fromSide(middle + part.at), part.cell, part.lift});
    }
    turned.quilt = layCells(turned.quilt, at, arriving);
  }
  turned.selected = placed(Patchwork::under(quilt, map->id), selected, [&](CellPos at) {
    return grid->fromSide(middle + grid->turned(grid->toSide(at) - grip, turn));
  });
  turned.grip = {turned.selected, grid->fromSide(middle)};
  return turned;
}

Quilt thrownAgain(const Quilt& quilt, LayerAt at, const CellSet& selected, const InHand& hand, std::uint64_t seed) {
  const Layer* layer = quilt.layer(at);
  if (!layer) return quilt;
  const Map& map = *quilt.map(at.map);
  const auto grid = makeGrid(map.grid);
  // The mixes that a tile may be thrown by, found once for each tile.
  std::map<TileRef, std::shared_ptr<const Mixing>> mixings;
  const auto mixingOf = [&](TileRef tile) {
    const auto place = mixings.try_emplace(tile);
    auto& known = place.first->second;
    if (!place.second) return known;
    const auto look = [&](const InHand& mix) {
      bool holds = false;
      for (const MixMember& member : mix.members) {
        const auto& parts = member.block.parts();
        holds = holds || (parts.size() == 1 && parts.front().cell.tile() == tile);
      }
      if (mix.manner != Manner::mix || !holds || known) return;
      InHand single = mix;  // larger members have no room among what lies there
      std::erase_if(single.members, [](const MixMember& member) { return member.block.parts().size() != 1; });
      known = std::make_shared<Mixing>(quilt, *grid, single, seed);
    };
    look(hand);
    for (const auto& stamp : quilt.stamps()) look(stamp->held);
    return known;
  };
  std::map<std::uint32_t, std::vector<Cell>> turns;
  LayerCells laid = *layer;
  CellGrid& cells = laid.cells;  // another look is lifted as much
  Mixing::Around around;
  around.cell = [&](SidePos place) { return cells.at(grid->fromSide(place)); };
  around.free = [](SidePos) { return false; };
  layer->forEachLaid(Patchwork::under(quilt, map.id).among(selected), [&](CellPos place, const Laid& there) {
    const Cell cell = there.cell;
    if (const auto mixing = mixingOf(cell.tile())) {
      around.beside.clear();
      for (int side = 0; side < grid->turnOrder(); ++side) {
        around.beside.push_back(grid->toSide(grid->across(place, side)));
      }
      mixing->throwAt(grid->toSide(place), around, [&](SidePos, Laid one) { cells.set(place, one.cell); });
    } else if (hand.turnsByChance) {
      auto [known, isNew] = turns.try_emplace(cell.bits());
      if (isNew) known->second = turnsOf(quilt, *grid, cell);
      const auto& ways = known->second;
      if (!ways.empty()) cells.set(place, ways[pick(thrown(seed, grid->toSide(place)), ways.size())]);
    }
  });
  return quilt.with(at, std::move(laid));
}

Quilt clearCells(const Quilt& quilt, LayerAt at, const CellSet& selected) {
  const Layer* layer = quilt.layer(at);
  if (!layer) return quilt;
  LayerCells cells = *layer;
  cells.lay(Patchwork::under(quilt, at.map).among(selected), Laid{});
  return quilt.with(at, std::move(cells));
}

std::optional<Block> copyOf(const Quilt& quilt, LayerAt at, const CellSet& selected) {
  const Map* map = quilt.map(at.map);
  return map ? heldBy(quilt, at, selected, makeGrid(map->grid)->toSide(gripOf(selected))) : Block();
}

Quilt moveCells(const Quilt& quilt, LayerAt at, const CellSet& selected, SidePos by) {
  const Layer* layer = quilt.layer(at);
  if (!layer || by == SidePos{}) return quilt;
  const auto grid = makeGrid(quilt.map(at.map)->grid);
  const Patchwork patchwork = Patchwork::under(quilt, at.map);
  LayerCells cells = *layer;
  cells.move(patchwork.among(selected), cells, [&](CellPos from) {
    const CellPos to = grid->fromSide(grid->toSide(from) + by);
    return patchwork.contains(to) ? std::optional(to) : std::nullopt;
  });
  return quilt.with(at, std::move(cells));
}

CellSet movedSelection(const Map& map, const CellSet& selected, SidePos by) {
  const auto grid = makeGrid(map.grid);
  return placed(Patchwork({{map.id, map.bounds, {}}}), selected,
                [&](CellPos at) { return grid->fromSide(grid->toSide(at) + by); });
}

}  // namespace uq
