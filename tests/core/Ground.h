// What the tests of the painting hand share: a map of one layer on any grid, and things to hold.
#pragma once

#include <set>
#include "core/Support.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/FindStretch.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/MapFacts.h"
#include "core/edit/Region.h"
#include "core/edit/ResizeMap.h"
#include "core/edit/Selected.h"
#include "core/edit/Stroke.h"
#include "core/edit/SwapTiles.h"
#include "core/edit/Turned.h"

namespace uq::test {

// A map of one layer on any grid, with shifted rows of either parity, and a sheet "street".
struct Ground {
  explicit Ground(GridKind kind, bool firstShift = false) {
    quilt = smallQuilt();
    Map map = *quilt.mapNamed("Yard");
    map.grid = nearestShape(kind, {32, 32});
    map.grid.firstShift = firstShift;
    map.bounds = {-9, -7, 9, 8};
    quilt = quilt.with(map);
    at = layerOf(quilt, "Yard", "Sheds");
    quilt = quilt.with(at, LayerCells());
    grid = makeGrid(map.grid);
  }

  CellRect bounds() const { return quilt.map(at.map)->bounds; }
  Cell cell(const Quilt& q, CellPos pos) const { return q.layer(at)->cells.at(pos); }
  Cell tile(std::uint32_t number) const { return tileOf(quilt, "street", number); }
  StrokePlan plan(Tool tool, InHand hand) const {
    StrokePlan plan = layingOn(at, std::move(hand));
    plan.tool = tool;
    return plan;
  }
  // A few patches of two tiles and nothing.
  void scatter() {
    CellGrid cells;
    for (int i = 0, n = *rc::gen::inRange(0, 60); i < n; ++i) {
      const CellPos pos{*rc::gen::inRange(-9, 9), *rc::gen::inRange(-7, 8)};
      const auto number = *rc::gen::inRange(0u, 2u);
      const auto turn = static_cast<std::uint8_t>(*rc::gen::inRange(0, 4));
      cells.set(pos, Cell(tile(number).tile(), Turn{false, turn}));
    }
    quilt = quilt.with(at, LayerCells{std::move(cells), {}, {}});
  }
  CellPos anyCell() const { return {*rc::gen::inRange(-9, 9), *rc::gen::inRange(-7, 8)}; }
  std::set<CellPos> cellsOf(const CellSet& set) const {
    std::set<CellPos> all;
    set.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) all.insert({first.x + i, first.y});
    });
    return all;
  }

  Quilt quilt;
  LayerAt at;
  std::shared_ptr<const Grid> grid;
};

inline Ground anyGround() {
  return Ground(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))),
                *rc::gen::arbitrary<bool>());
}

// From cell to cell, as anybody would do it by hand.
inline std::set<CellPos> plainFill(const Ground& ground, CellPos start) {
  std::set<CellPos> found;
  std::vector<CellPos> open{start};
  const auto held = [&](CellPos pos) {
    const Cell cell = ground.cell(ground.quilt, pos);
    return cell.empty() ? TileRef{} : cell.tile();
  };
  while (!open.empty()) {
    const CellPos pos = open.back();
    open.pop_back();
    if (!ground.bounds().contains(pos) || held(pos) != held(start) || !found.insert(pos).second) continue;
    for (int side = 0; side < ground.grid->turnOrder(); ++side) open.push_back(ground.grid->across(pos, side));
  }
  return found;
}

inline InHand mixOf(const Ground& ground, std::initializer_list<std::uint32_t> numbers) {
  InHand mix(Block::of(ground.tile(*numbers.begin())), ground.grid->shape().kind);
  mix.manner = Manner::mix;
  for (const std::uint32_t number : numbers) mix.members.push_back({Block::of(ground.tile(number))});
  return mix;
}

// Three tiles in a row: an end, a middle, an end.
inline InHand platform(const Ground& ground, int middles = 1) {
  std::vector<Block::Part> parts;
  for (int i = 0; i < middles + 2; ++i) {
    parts.push_back({{i, 0}, ground.tile(10 + static_cast<std::uint32_t>(i))});
  }
  return InHand(Block(std::move(parts)), ground.grid->shape().kind).inManner(Manner::stretch);
}

inline std::vector<std::uint32_t> row(const Ground& ground, const Quilt& quilt, SidePos from, int count) {
  std::vector<std::uint32_t> numbers;
  for (int i = 0; i < count; ++i) {
    const Cell cell = ground.cell(quilt, ground.grid->fromSide(from + SidePos{i, 0}));
    numbers.push_back(cell.empty() ? 0 : cell.tile().number);
  }
  return numbers;
}

}  // namespace uq::test
