#include "raster/CellColours.h"

#include <algorithm>
#include <array>

namespace uq {

namespace {

// The colour that `part` of a picture gives to a cell of `area` pixels.
QRgb averageOver(const PixelView& picture, const QRect& part, std::int64_t area) {
  std::array<std::int64_t, 4> sums{};
  for (int y = part.top(); y <= part.bottom(); ++y) {
    const QRgb* row = picture.row(y);
    for (int x = part.left(); x <= part.right(); ++x) {
      sums[0] += qRed(row[x]);
      sums[1] += qGreen(row[x]);
      sums[2] += qBlue(row[x]);
      sums[3] += qAlpha(row[x]);
    }
  }
  const auto mean = [area](std::int64_t sum) { return static_cast<int>((sum + area / 2) / area); };
  return qRgba(mean(sums[0]), mean(sums[1]), mean(sums[2]), mean(sums[3]));
}

}  // namespace

void CellColours::clear() {
  flat_.clear();
  patches_.clear();
}

QRgb CellColours::found(Cell cell, TileArt& art, const Grid& grid) {
  const TileRef ref = cell.tile();
  if (ref.slot >= flat_.size()) flat_.resize(ref.slot + 1);
  auto& numbers = flat_[ref.slot];
  if (ref.number >= numbers.size()) numbers.resize(ref.number + 1, kUnknown);
  const PixelRect box = grid.cellBox({0, 0});
  const TileArt::Tile& tile = art.tile(asDrawn(cell, grid));
  const bool fits = tile.takesCellSize() || (tile.size() == PixelSize{box.w, box.h} && box.w == box.h && tile.stance() == Stance{});
  if (!fits) return numbers[ref.number] = kPatched;
  const PixelView view = tile.takesCellSize() ? art.sized(art.tile(asDrawn(cell, grid)), box.w, box.h) : tile.straight();
  return numbers[ref.number] = averageOver(view, {0, 0, view.w, view.h}, std::int64_t{view.w} * view.h);
}

const std::vector<CellColours::Patch>& CellColours::patches(Cell cell, TileArt& art, const Grid& grid) {
  auto [place, isNew] = patches_.try_emplace(cell.bits());
  std::vector<Patch>& patches = place->second;
  if (!isNew) return patches;
  TileArt::Tile& tile = art.tile(asDrawn(cell, grid));
  const PixelRect own = grid.cellBox({0, 0});
  const PixelSize size = tile.size().w > 0 ? tile.size() : PixelSize{own.w, own.h};
  const PixelView& view = tile.takesCellSize() ? art.sized(tile, size.w, size.h) : tile.straight();
  const PixelRect seat = standing(grid, {0, 0}, size, tile.stance());
  grid.inDrawOrder(grid.cellsMeeting(seat), [&](const DrawRow& row) {
    for (int i = 0; i < row.count; ++i) {
      const PixelRect box = grid.cellBox(row.at(i));
      const PixelRect part = box.intersected(seat);
      if (part.empty()) continue;
      const QRgb colour =
          averageOver(view, QRect(part.x - seat.x, part.y - seat.y, part.w, part.h), std::int64_t{box.w} * box.h);
      if (colour != 0) patches.push_back({row.at(i), colour});
    }
  });
  return place->second;
}

}  // namespace uq
