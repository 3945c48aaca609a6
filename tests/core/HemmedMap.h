// HemmedMap: a map with walls that have a face below them, and a floor with walls all around, so that hems can be held to what is known.
//
// Walls and floor join by sides and each is drawn by one tile for every set of sides, numbered by it; tiles of the face are numbered
// by row and piece.
#pragma once

#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Edgings.h"
#include "core/edit/Stroke.h"

namespace uq::test {

struct HemmedMap {
  static constexpr std::uint32_t kFloor = 64;
  static constexpr std::uint32_t kFace = 128;
  static constexpr std::uint32_t kShadow = 140;

  IdSource ids{5};
  Quilt quilt = smallQuilt();
  GridShape shape;
  Id sheet;
  Id walls;
  Id floor;
  Id map;
  CellRect bounds;

  explicit HemmedMap(GridKind kind) : shape(nearestShape(kind, {32, 32})) {
    Sheet cut;
    cut.id = sheet = ids.next();
    cut.name = cut.file = "made";
    cut.code = "MD";
    cut.picture = "made.png";
    cut.cut.cell = shape.cell;
    cut.pictureSize = {16 * shape.cell.w, 10 * shape.cell.h};
    quilt = quilt.with(cut);
    (void)quilt.slotFor(sheet, "MD");
    walls = add(bySides("Walls", 0, {faceBelow()}));
    floor = add(bySides("Floor", kFloor, {}));
    MapPlan plan;
    plan.name = "House";
    plan.grid = shape;
    plan.width = plan.height = 16;
    const MapAdded added = addMap(quilt, plan, ids);
    quilt = added.quilt;
    map = added.map;
    bounds = quilt.map(map)->bounds;
  }

  Edging bySides(const std::string& material, std::uint32_t first, std::vector<Hem> hems) const {
    Edging edging;
    edging.grid = shape.kind;
    edging.decides = Decides::sides;
    edging.materials = {{material, 0x808080}};
    edging.hems = std::move(hems);
    const int sides = placesOf(shape.kind);
    for (std::uint32_t mask = 0; mask < 1u << sides; ++mask) {
      EdgingMember one{{sheet, first + mask}, {}, 0, {}, {}};
      for (int side = 0; side < sides; ++side) one.sides.push_back(mask >> side & 1 ? 0 : kNothingSeen);
      edging.members.push_back(one);
    }
    return edging;
  }
  Hem faceBelow() const {
    Hem hem{"face", 0, {}};
    hem.side = below();
    hem.rows = 2;
    hem.grows = true;
    for (const HemRow row : kHemRows) {
      for (const HemPiece piece : kHemPieces) hem.tiles.push_back({{sheet, faceTile(row, piece)}, {}, row, piece});
    }
    return hem;
  }
  static std::uint32_t faceTile(HemRow row, HemPiece piece) { return kFace + 4 * static_cast<std::uint32_t>(row) + static_cast<std::uint32_t>(piece); }
  // The side by which a cell ends below, or lower left.
  int below() const { return placesOf(shape.kind) == 4 ? 2 : shape.kind == GridKind::hexagonalFlat ? 3 : 4; }
  Id add(Edging edging) {
    const EdgingAdded added = addEdging(quilt, edging, edging.materials.front().name, ids);
    quilt = added.quilt;
    return added.edging;
  }
  void change(Id edging, const std::function<void(Edging&)>& how) {
    Edging next = *quilt.edging(edging);
    how(next);
    quilt = quilt.with(next);
  }
  LayerAt ground() const { return {map, quilt.map(map)->layers.front()->id}; }
  // The first layer of that role; nothing where there is none.
  std::optional<LayerAt> ofRole(const std::string& role) const {
    for (const Shared<Layer>& layer : quilt.map(map)->layers) {
      if (layer->role == role) return LayerAt{map, layer->id};
    }
    return std::nullopt;
  }
  StrokePlan plan(Id edging, Tool tool, int rows = 0) const {
    StrokePlan plan = layingOn(ground(), materialInHand(quilt, *quilt.edging(edging), 0));
    plan.tool = tool;
    plan.hand.rows = rows;
    return plan;
  }
  void paint(const StrokePlan& plan, const std::vector<CellPos>& path) { quilt = stroked(quilt, plan, path); }
  Cell at(LayerAt layer, CellPos cell) const { return quilt.layer(layer)->cells.at(cell); }
  Cell at(CellPos cell) const { return at(ground(), cell); }
  // The number of the tile there, −1 where nothing lies.
  int tile(LayerAt layer, CellPos cell) const { return at(layer, cell).empty() ? -1 : static_cast<int>(at(layer, cell).tile().number); }
  int tile(CellPos cell) const { return tile(ground(), cell); }
  bool isWall(LayerAt layer, CellPos cell) const { return tile(layer, cell) >= 0 && tile(layer, cell) < static_cast<int>(kFloor); }
  bool isFloor(CellPos cell) const { return tile(cell) >= static_cast<int>(kFloor) && tile(cell) < static_cast<int>(kFace); }
};

}  // namespace uq::test
