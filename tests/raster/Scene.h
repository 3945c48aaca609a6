// Scene: a small map to draw, with a sheet of the cell's size and one of tall pictures.
#pragma once

#include <rapidcheck/gtest.h>

#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Levels.h"
#include "raster/MapPainter.h"

namespace uq {

inline constexpr QRgb kRed = 0xffc03020;
inline constexpr QRgb kBlue = 0xff2040c0;

// Any of the five grids, with cells of about 16 px.
inline GridShape anySmallGrid() {
  GridShape shape = nearestShape(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))),
                                 *rc::gen::element(PixelSize{16, 16}, PixelSize{24, 12}, PixelSize{13, 17}));
  if (shape.kind == GridKind::orthogonal) shape.cell = {16, 16};
  shape.firstShift = *rc::gen::arbitrary<bool>();
  const bool slanted = shape.kind == GridKind::diamond || shape.kind == GridKind::staggered;
  shape.plan = slanted && *rc::gen::inRange(0, 4) == 0;
  return shape;
}

// A map of cells of 16 px, 8 × 6 of them if nothing else is said; sheet "small" has tiles of the cell's size with a
// mark in each corner, sheet "tall" one picture of 24 × 40 px, sheet "wide" one of 64 × 48 px that stands on 3 × 2 cells,
// a little beside their middle.
struct Scene {
  Quilt quilt;
  SheetPictures pictures;
  Id map;
  SheetSlot small = 0;
  SheetSlot tall = 0;
  SheetSlot wide = 0;

  explicit Scene(CellRect bounds = {-2, -1, 6, 5}, GridShape grid = {GridKind::orthogonal, {16, 16}}) {
    IdSource ids(1);
    const auto addSheet = [&](const char* name, PixelSize cell, const QImage& picture) {
      Sheet sheet;
      sheet.id = ids.next();
      sheet.name = name;
      sheet.code = std::string(1, static_cast<char>('A' + quilt.sheets().size()));
      sheet.cut.cell = cell;
      sheet.pictureSize = {picture.width(), picture.height()};
      quilt = quilt.with(sheet);
      pictures.set(sheet, picture.convertToFormat(QImage::Format_ARGB32_Premultiplied));
      return *quilt.slots().find(sheet.id);
    };
    QImage tiles(32, 16, QImage::Format_ARGB32);
    tiles.fill(QColor(90, 160, 90));
    for (int i = 0; i < 16; ++i) tiles.setPixel(i, 0, kRed);  // the first tile's upper edge
    for (int i = 0; i < 8; ++i) tiles.setPixel(0, i, kBlue);  // and the upper half of its left edge
    for (int y = 4; y < 12; ++y) {
      for (int x = 20; x < 28; ++x) tiles.setPixel(x, y, 0);  // the second tile has a hole
    }
    small = addSheet("small", {16, 16}, tiles);
    QImage tree(24, 40, QImage::Format_ARGB32);
    tree.fill(QColor(40, 90, 50, 255));
    for (int y = 0; y < 8; ++y) {
      for (int x = 0; x < 24; ++x) tree.setPixel(x, y, qRgba(200, 40, 40, 255 - y * 20));
    }
    tall = addSheet("tall", {24, 40}, tree);
    QImage wall(64, 48, QImage::Format_ARGB32);
    for (int y = 0; y < 48; ++y) {
      for (int x = 0; x < 64; ++x) wall.setPixel(x, y, y < x / 3 ? 0 : qRgb(3 * x, 5 * y, 120));
    }
    wide = addSheet("wide", {64, 48}, wall);
    Sheet standing = *quilt.sheetAt(wide);
    standing.stance = {{2, -3}, {3, 2}};
    quilt = quilt.with(standing);
    Map yard;
    yard.id = ids.next();
    yard.name = "Yard";
    yard.grid = grid;
    yard.bounds = bounds;
    for (const char* name : {"Ground", "Things"}) {
      Layer layer;
      layer.id = ids.next();
      layer.name = name;
      yard.layers.emplace_back(std::move(layer));
    }
    map = yard.id;
    quilt = quilt.with(yard);
  }

  const Map& yard() const { return *quilt.map(map); }
  void lay(const char* layer, CellPos at, Cell cell, int lift = 0) {
    const std::vector<CellChange> one = {{at, cell, lift}};
    quilt = layCells(quilt, {map, yard().layerNamed(layer)->id}, one);
  }
  // Puts the layer of things on a level so high above the ground.
  void raiseThings(int rise) {
    Map raised = yard();
    LayerFolder level;
    level.id = IdSource(5).next();
    level.name = "Level 1";
    level.rise = rise;
    raised.folders = {level};
    raised.layers[1].edit([&](Layer& layer) { layer.folder = level.id; });
    quilt = quilt.with(std::move(raised));
  }
  // Levels, and orders in which they are drawn, as they may come.
  void arrangeAtRandom() {
    if (*rc::gen::arbitrary<bool>()) raiseThings(*rc::gen::inRange(-20, 60));
    const auto order = [] { return *rc::gen::element(DrawOrder::byDepth, DrawOrder::byLayers); };
    quilt = withDrawOrder(quilt, map, {}, order());
    if (!yard().folders.empty()) quilt = withDrawOrder(quilt, map, yard().folders[0].id, order());
  }
  // A few tiles of any sheet, turned anyhow, anywhere on either layer.
  // Gives the map other bounds; what lies beyond them stays.
  void bound(CellRect bounds) {
    Map other = yard();
    other.bounds = bounds;
    quilt = quilt.with(other);
  }
  void layAtRandom(int most) {
    const CellRect all = yard().bounds;
    for (int i = 0, n = *rc::gen::inRange(1, most); i < n; ++i) {
      const char* layer = *rc::gen::element("Ground", "Things");
      const CellPos at{*rc::gen::inRange(all.x0, all.x1), *rc::gen::inRange(all.y0, all.y1)};
      const auto order = static_cast<std::uint8_t>(makeGrid(yard().grid)->turnOrder());
      const Turn turn{*rc::gen::arbitrary<bool>(), *rc::gen::inRange<std::uint8_t>(0, order)};
      const auto cell =
          *rc::gen::element(Cell(), Cell({small, 0}, turn), Cell({small, 1}, turn), Cell({tall, 0}, turn),
                            Cell({wide, 0}, turn), Cell({kChalkSlot, 4}, turn));
      lay(layer, at, cell, *rc::gen::element(0, 0, 0, 5, 40));
    }
  }
  QImage draw(double zoom, QRect device, const Seeing& seeing = {}, const GhostCells* ghost = nullptr) {
    MapPainter painter(pictures);
    return painter.draw(quilt, yard(), runsOf(yard(), seeing), {zoom}, device, ghost);
  }
  LayerAt at(const char* layer) const { return {map, yard().layerNamed(layer)->id}; }
  QImage whole(double zoom) {
    const PixelRect pixels = makeGrid(yard().grid)->pixelBounds(yard().bounds);
    return draw(zoom, ViewScale{zoom}.toDevice(pixels));
  }
};

}  // namespace uq
