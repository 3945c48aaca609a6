// A sheet painted by a test, tile by tile, and a quilt that has it.
#pragma once

#include "core/Support.h"
#include "core/edit/ArrangeSheets.h"
#include "core/edit/LayCells.h"
#include "core/sheets/SheetTidy.h"
#include "core/sheets/TileMarks.h"
#include "core/sheets/TileSides.h"

namespace uq::test {

// A picture made of tiles of one colour each, and a sheet that is cut from it. Colour 0 is see-through.
struct Painted {
  static constexpr int kSide = 4;
  int columns = 0;
  std::vector<std::uint32_t> pixels;
  Sheet sheet;

  Painted(int wide, const std::vector<std::uint32_t>& colours) : columns(wide) {
    const int rows = static_cast<int>(colours.size()) / wide;
    pixels.resize(static_cast<std::size_t>(wide * rows * kSide * kSide));
    for (int y = 0; y < rows * kSide; ++y) {
      for (int x = 0; x < wide * kSide; ++x) {
        pixels[static_cast<std::size_t>(y * wide * kSide + x)] =
            colours[static_cast<std::size_t>(y / kSide * wide + x / kSide)];
      }
    }
    sheet.name = "quay";
    sheet.cut.cell = {kSide, kSide};
    sheet.pictureSize = {wide * kSide, rows * kSide};
    sheet.source = PictureBytes(std::string(reinterpret_cast<const char*>(pixels.data()), pixels.size() * 4));
    sheet.marks = Shared(marksOf(sheet, view()));
  }
  PixelView view() const {
    return {pixels.data(), columns * kSide, columns * kSide, static_cast<int>(pixels.size()) / (columns * kSide),
            false};
  }
  void dot(int tile, PixelPos at, std::uint32_t colour) {
    const int x = tile % columns * kSide + at.x;
    const int y = tile / columns * kSide + at.y;
    pixels[static_cast<std::size_t>(y * columns * kSide + x)] = colour;
  }
};

inline constexpr std::uint32_t kA = 0xffaa0000, kB = 0xff00bb00, kC = 0xff0000cc, kD = 0xffdddd00, kE = 0xff00eeee;

// The small quilt with such a sheet, whose tiles can be laid on the layer Sheds of its map Yard.
struct Laid {
  Quilt quilt = smallQuilt();
  IdSource ids{9};
  Id sheet;
  SheetSlot slot = 0;
  explicit Laid(const Painted& painted) {
    const SheetAdded added = addSheet(quilt, painted.sheet, "Old Quay.png", ids);
    quilt = added.quilt;
    sheet = added.sheet;
    slot = *quilt.slots().find(sheet);
  }
  void lay(std::uint32_t number, CellPos at = {1, 1}) {
    const std::vector<CellChange> one = {{at, Cell({slot, number}, {})}};
    quilt = layCells(quilt, layerOf(quilt, "Yard", "Sheds"), one);
  }
  const Sheet& now() const { return *quilt.sheet(sheet); }
  std::set<std::uint32_t> inUse() const { return numbersInUse(now(), usesIn(quilt), slot); }
};

// Where the pixels of that sheet lie; both must outlive what is returned.
inline PixelsOf pixelsOf(const Painted& painted, const Laid& laid) {
  return [&painted, &laid](TileRef tile) -> std::optional<TilePixels> {
    const auto place = tile.slot == laid.slot ? laid.now().place(tile.number) : std::nullopt;
    if (!place) return std::nullopt;
    return TilePixels{painted.view(), *place};
  };
}

}  // namespace uq::test
