#include "raster/MadeShapes.h"

#include <algorithm>
#include <cmath>

#include "core/sheets/TileMarks.h"
#include "raster/BlankPicture.h"
#include "raster/Blend.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

constexpr int kColumns = 8;

// For each pixel of a picture that stands on a cell, row by row, the corner that is nearest where cells are as wide as high.
std::vector<std::size_t> nearestCorners(const Grid& grid, PixelSize size) {
  const PixelRect box = grid.cellBox({0, 0});
  const auto outline = grid.outline({0, 0});
  std::vector<std::size_t> nearest;
  nearest.reserve(static_cast<std::size_t>(size.w) * static_cast<std::size_t>(size.h));
  // Pictures stand on the bottom of their cell, and in its middle.
  const PixelRect seat = grid.seat({0, 0}, size);
  for (int y = 0; y < size.h; ++y) {
    for (int x = 0; x < size.w; ++x) {
      const auto far = [&](PixelPos corner) {
        return std::hypot((seat.x + x + 0.5 - corner.x) / box.w, (seat.y + y + 0.5 - corner.y) / box.h);
      };
      const auto found = std::min_element(outline.begin(), outline.end(), [&](PixelPos a, PixelPos b) { return far(a) < far(b); });
      nearest.push_back(static_cast<std::size_t>(found - outline.begin()));
    }
  }
  return nearest;
}

// What was made for a shape shows it; `beside` stands where anything would do.
EdgingMember memberFor(const EdgingShape& shape, std::uint32_t number, MaterialIndex beside) {
  EdgingMember member;
  member.tile.tile = number;
  member.middle = shape.middle;
  member.sides = shape.sides;
  member.corners = shape.corners;
  for (MaterialIndex& side : member.sides) side = side == kAnything ? beside : side;
  if (member.middle == kAnything) {
    std::ptrdiff_t most = 0;
    for (const MaterialIndex one : shape.corners) {
      const auto times = std::count(shape.corners.begin(), shape.corners.end(), one);
      if (times > most) most = times, member.middle = one;
    }
  }
  return member;
}

}  // namespace

MadeShapes madeShapes(const Quilt& quilt, const SheetPictures& pictures, const Edging& edging, const Grid& grid) {
  MadeShapes made;
  const Sheet* from = edging.members.empty() ? nullptr : quilt.sheet(edging.members.front().tile.sheet);
  if (!from) return made;
  const PixelSize size = from->cut.cell;
  const auto pictureOf = [&](const TileId& tile) {
    const auto slot = quilt.slots().find(tile.sheet);
    const auto picture = slot ? pictures.tile(quilt, {*slot, tile.tile}) : std::nullopt;
    const bool fits = picture && picture->width() == size.w && picture->height() == size.h;
    return fits ? picture->convertToFormat(QImage::Format_ARGB32_Premultiplied) : QImage();
  };
  // What a path's tiles show where the path does not run.
  MaterialIndex beside = kNothingSeen;
  for (const EdgingMember& one : edging.members) {
    for (const MaterialIndex side : one.sides) beside = side != one.middle ? side : beside;
  }
  const auto nearest = nearestCorners(grid, size);
  std::vector<QImage> shapes;
  for (const MissingShape& one : coverageOf(quilt, edging, grid).missing) {
    std::vector<QImage> parts;
    for (const TileId& tile : one.parts) parts.push_back(pictureOf(tile));
    const bool areThere = !parts.empty() && std::none_of(parts.begin(), parts.end(), [](const QImage& part) { return part.isNull(); });
    if (!areThere || edging.members.size() + shapes.size() >= kMostMembersOfEdging) continue;
    QImage shape = blankPicture({size.w, size.h});
    for (int y = 0; y < size.h; ++y) {
      auto* row = reinterpret_cast<QRgb*>(shape.scanLine(y));
      for (int x = 0; x < size.w; ++x) {
        const QImage& part = parts[nearest[static_cast<std::size_t>(y) * static_cast<std::size_t>(size.w) + static_cast<std::size_t>(x)]];
        row[x] = reinterpret_cast<const QRgb*>(part.constScanLine(y))[x];
      }
    }
    made.members.push_back(memberFor(one.shape, static_cast<std::uint32_t>(shapes.size()), beside));
    shapes.push_back(std::move(shape));
  }
  if (shapes.empty()) return made;
  const int columns = std::min(kColumns, static_cast<int>(shapes.size()));
  const int rows = (static_cast<int>(shapes.size()) + columns - 1) / columns;
  made.picture = blankPicture({columns * size.w, rows * size.h});
  for (std::size_t i = 0; i < shapes.size(); ++i) {
    const int left = static_cast<int>(i) % columns * size.w;
    const int top = static_cast<int>(i) / columns * size.h;
    for (int y = 0; y < size.h; ++y) {
      std::copy_n(reinterpret_cast<const QRgb*>(shapes[i].constScanLine(y)), size.w, reinterpret_cast<QRgb*>(made.picture.scanLine(top + y)) + left);
    }
  }
  made.sheet.name = edging.name + ", made";
  made.sheet.cut.cell = size;
  made.sheet.pictureSize = {made.picture.width(), made.picture.height()};
  made.sheet.origin = from->origin;
  made.sheet.origin.from = from->origin.from.empty() ? "cut together of " + from->name : from->origin.from + ", cut together of " + from->name;
  made.sheet.turns = from->turns;
  made.sheet.footing = from->footing;
  made.sheet.stance = from->stance;
  made.sheet.source = PictureBytes(pngOf(made.picture));
  made.sheet.marks = Shared(marksOf(made.sheet, viewOf(made.picture)));
  return made;
}

}  // namespace uq
