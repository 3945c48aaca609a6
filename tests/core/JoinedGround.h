// JoinedGround: a map on which a made edging is laid, and the checker that knows its members alone.
#pragma once

#include <rapidcheck/gtest.h>

#include "core/MadeInQuilt.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Edgings.h"
#include "core/edit/Joiner.h"
#include "core/edit/Stroke.h"

namespace uq::test {

// A map of the made sheet's grid, with the edging kept; its ground, where it is not *nothing*, laid all over.
struct JoinedGround : MadeInQuilt {
  Id edging;
  LayerAt at;
  CellRect bounds;

  explicit JoinedGround(MadeEdging from) : MadeInQuilt(std::move(from)) {
    const EdgingAdded added = addEdging(quilt, truth, "Quay", ids);
    quilt = added.quilt;
    edging = added.edging;
    MapPlan plan;
    plan.name = "Ground";
    plan.grid = made.shape;
    plan.width = 14;
    plan.height = 14;
    const MapAdded map = addMap(quilt, plan, ids);
    quilt = map.quilt;
    at = {map.map, quilt.map(map.map)->layers.front()->id};
    bounds = quilt.map(map.map)->bounds;
    if (const MaterialIndex ground = groundMaterial(); ground != kNothingSeen) {
      LayerCells cells;
      for (int y = bounds.y0; y < bounds.y1; ++y) {
        for (int x = bounds.x0; x < bounds.x1; ++x) cells.cells.set({x, y}, *plainTile(quilt, edge(), ground));
      }
      quilt = quilt.with(at, std::move(cells));
    }
  }
  const Edging& edge() const { return *quilt.edging(edging); }
  MaterialIndex groundMaterial() const { return showsNothing(edge()) || edge().materials.size() < 2 ? kNothingSeen : 1; }
  const CellGrid& cells() const { return quilt.layer(at)->cells; }

  void paint(const std::vector<CellPos>& path, MaterialIndex material = 0, bool takesAway = false, int width = 1) {
    StrokePlan plan = layingOn(at, materialInHand(quilt, edge(), material));
    plan.takesAway = takesAway;
    plan.options.width = width;
    quilt = stroked(quilt, plan, path);
  }
  const EdgingMember* member(Cell cell) const {
    const auto slot = quilt.slots().find(sheet);
    for (const EdgingMember& one : edge().members) {
      if (!cell.empty() && slot && cell == Cell({*slot, one.tile.tile}, one.turn)) return &one;
    }
    return nullptr;
  }
  // What a cell shows at a side, and at a corner; nothing where it is no member.
  std::optional<MaterialIndex> side(CellPos cell, int side) const {
    const Cell there = cells().at(cell);
    if (there.empty() && showsNothing(edge())) return kNothingSeen;
    const EdgingMember* one = member(there);
    return one ? std::optional(one->sides[static_cast<std::size_t>(side)]) : std::nullopt;
  }
  std::optional<MaterialIndex> corner(CellPos cell, int corner) const {
    const Cell there = cells().at(cell);
    if (there.empty() && showsNothing(edge())) return kNothingSeen;
    const EdgingMember* one = member(there);
    return one ? std::optional(one->corners[static_cast<std::size_t>(corner)]) : std::nullopt;
  }
  // What each cell shows, row by row: its middle, then its sides, then its corners.
  std::string drawn() const {
    std::string text;
    for (int y = bounds.y0; y < bounds.y1; ++y, text += "\n") {
      for (int x = bounds.x0; x < bounds.x1; ++x, text += " ") {
        const EdgingMember* one = member(cells().at({x, y}));
        text += one ? std::to_string(one->middle) + ":" : ".";
        for (const auto* list : {one ? &one->sides : nullptr, one ? &one->corners : nullptr}) {
          for (std::size_t i = 0; list && i < list->size(); ++i) text += (*list)[i] == kNothingSeen ? "-" : std::to_string((*list)[i]);
          if (list) text += "/";
        }
      }
    }
    return text;
  }
  // Places at which two cells of the map do not show the same. Knows the members and the grid, and nothing of how they are chosen.
  int wrongJoints() const {
    const auto grid = makeGrid(made.shape);
    const int places = placesOf(made.shape.kind);
    int wrong = 0;
    for (int y = bounds.y0; y < bounds.y1; ++y) {
      for (int x = bounds.x0; x < bounds.x1; ++x) {
        for (int i = 0; i < places; ++i) {
          const CellPos beside = grid->across({x, y}, i);
          if (!bounds.contains(beside)) continue;
          const int facing = (i + places / 2) % places;
          if (sidesDecide(edge().decides)) {
            const auto a = side({x, y}, i);
            const auto b = side(beside, facing);
            wrong += a && b && *a != *b ? 1 : 0;
          }
          if (!cornersDecide(edge().decides)) continue;
          // A side runs from its corner to the next; seen from the other cell the other way round.
          const auto a = corner({x, y}, i);
          const auto b = corner(beside, (facing + 1) % places);
          wrong += a && b && *a != *b ? 1 : 0;
        }
      }
    }
    return wrong;
  }
};

inline MadeEdging fullSet(Decides decides, std::optional<GridKind> grid = std::nullopt) {
  for (std::uint64_t seed = *rc::gen::arbitrary<std::uint32_t>();; ++seed) {
    MadeEdging made = madeEdging(seed, false);
    const bool suits = made.set == MadeSet::full && made.truth.decides == decides;
    // Sheets are made for diamonds; they lie on staggered ones, too.
    const bool staggers = grid == GridKind::staggered || (!grid && *rc::gen::arbitrary<bool>());
    if (suits && staggers && made.shape.kind == GridKind::diamond) made.shape.kind = GridKind::staggered;
    if (suits && made.shape.kind == grid.value_or(made.shape.kind)) return made;
  }
}

inline std::vector<CellPos> someCells(CellRect within, int count) {
  std::vector<CellPos> cells;
  for (int i = 0; i < count; ++i) cells.push_back({*rc::gen::inRange(within.x0, within.x1), *rc::gen::inRange(within.y0, within.y1)});
  return cells;
}

}  // namespace uq::test
