#define XXH_INLINE_ALL
#include <xxhash.h>

#include "raster/PictureImport.h"

#include <QPainter>
#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>
#include <tuple>
#include <unordered_map>

#include "core/edit/Pattern.h"
#include "raster/BlankPicture.h"

namespace uq {

namespace {

constexpr int kInARow = 16;
constexpr std::size_t kTried = 240;  // cells by which it is found where the map lies

// The pixels of a cell's box that are the cell's own, row by row.
struct CellMask {
  struct Stretch {
    int y = 0;
    int x = 0;
    int count = 0;
  };
  std::vector<Stretch> stretches;
  std::size_t pixels = 0;
};

CellMask maskOf(const Grid& grid, CellPos cell) {
  CellMask mask;
  const PixelRect box = grid.cellBox(cell);
  for (int y = 0; y < box.h; ++y) {
    int first = box.w;
    int end = 0;
    for (int x = 0; x < box.w; ++x) {
      if (grid.cellAt({box.x + x, box.y + y}) != cell) continue;
      first = std::min(first, x);
      end = x + 1;
    }
    if (end <= first) continue;
    mask.stretches.push_back({y, first, end - first});
    mask.pixels += static_cast<std::size_t>(end - first);
  }
  return mask;
}

class Pieces {
 public:
  explicit Pieces(const Grid& grid) {
    std::size_t most = 0;
    for (int parity = 0; parity < 4; ++parity) {
      masks_[parity] = maskOf(grid, {parity & 1, parity >> 1});
      most = std::max(most, masks_[parity].pixels);
    }
    buffer_.resize(most);
  }
  // Of what lies at a place of a picture on a cell; nothing where all of it is clear.
  std::optional<std::uint64_t> sumAt(const QImage& picture, QPoint at, CellPos cell) {
    const CellMask& mask = masks_[static_cast<std::size_t>((cell.x & 1) + 2 * (cell.y & 1))];
    QRgb* to = buffer_.data();
    QRgb any = 0;
    for (const CellMask::Stretch& one : mask.stretches) {
      const QRgb* from = reinterpret_cast<const QRgb*>(picture.constScanLine(at.y() + one.y)) + at.x() + one.x;
      for (int i = 0; i < one.count; ++i) any |= from[i];
      std::memcpy(to, from, static_cast<std::size_t>(one.count) * sizeof(QRgb));
      to += one.count;
    }
    if (any == 0) return std::nullopt;
    return XXH3_64bits(buffer_.data(), mask.pixels * sizeof(QRgb));
  }

 private:
  std::array<CellMask, 4> masks_;
  std::vector<QRgb> buffer_;
};

// For each way in which the cells of a grid are cut, the tiles by their sums; what lies straight goes before what is turned.
using ByPiece = std::unordered_map<std::uint64_t, Cell>;
std::array<ByPiece, 4> tilesByPiece(const Quilt& quilt, const SheetPictures& pictures, const Grid& grid, Pieces& pieces, Progress* progress) {
  std::array<ByPiece, 4> all;
  const PixelRect box = grid.cellBox({0, 0});
  // On grids whose cells all look alike one parity is enough.
  const bool isAlike = grid.shape().kind == GridKind::orthogonal || grid.shape().kind == GridKind::diamond;
  for (const bool straight : {true, false}) {
    for (const Shared<Sheet>& sheet : quilt.sheets()) {
      const auto slot = quilt.slots().find(sheet->id);
      for (std::uint32_t tile = 0; slot && tile < sheet->endOfNumbers(); ++tile) {
        if (progress && progress->isCancelled()) return all;
        const auto place = sheet->place(tile);
        if (!place || !sheet->offers(tile)) continue;
        for (const Cell cell : turnsOf(quilt, grid, Cell({*slot, tile}, {}))) {
          if ((cell.turn().code() == 0) != straight) continue;
          const auto picture = pictures.turned(quilt, Cell(cell.tile(), grid.drawnTurn(cell.turn())));
          if (!picture || picture->width() != box.w || picture->height() != box.h) continue;
          const QImage plain = picture->convertToFormat(QImage::Format_ARGB32_Premultiplied);
          for (int parity = 0; parity < (isAlike ? 1 : 4); ++parity) {
            const auto sum = pieces.sumAt(plain, {0, 0}, {parity & 1, parity >> 1});
            if (sum) all[static_cast<std::size_t>(parity)].try_emplace(*sum, cell);
          }
        }
      }
    }
  }
  for (std::size_t parity = 1; isAlike && parity < 4; ++parity) all[parity] = all[0];
  return all;
}

using Tiles = std::array<ByPiece, 4>;

bool isInside(const QImage& picture, QPoint at, const PixelRect& box) { return at.x() >= 0 && at.y() >= 0 && at.x() + box.w <= picture.width() && at.y() + box.h <= picture.height(); }

// The cells whose boxes may lie in a picture on which map pixel 0, 0 lies there.
CellRect cellsWithin(const Grid& grid, const QImage& picture, QPoint origin) {
  CellRect all;
  for (const QPoint corner : {QPoint(0, 0), QPoint(picture.width(), 0), QPoint(0, picture.height()), QPoint(picture.width(), picture.height())}) {
    const CellPos cell = grid.cellAt({corner.x() - origin.x(), corner.y() - origin.y()});
    all = all.united({cell.x - 1, cell.y - 1, cell.x + 2, cell.y + 2});
  }
  return all;
}

// How many of some cells are recognised, and how many are clear.
struct Tried {
  int known = 0;
  int clear = 0;
};
Tried tryAt(const QImage& picture, const Grid& grid, const Tiles& tiles, Pieces& pieces, QPoint origin, const std::vector<CellPos>& some) {
  Tried tried;
  for (const CellPos cell : some) {
    const PixelRect box = grid.cellBox(cell);
    const QPoint at(box.x + origin.x(), box.y + origin.y());
    if (!isInside(picture, at, box)) continue;
    const auto sum = pieces.sumAt(picture, at, cell);
    if (!sum) ++tried.clear;
    else if (tiles[static_cast<std::size_t>((cell.x & 1) + 2 * (cell.y & 1))].contains(*sum)) ++tried.known;
  }
  return tried;
}

// Where map pixel 0, 0 lies on the picture: among all places within a step of the grid the one at which most of some pieces are known.
QPoint bestOrigin(const QImage& picture, const Grid& grid, const Tiles& tiles, Pieces& pieces, Progress* progress) {
  const PixelRect first = grid.cellBox({0, 0});
  const bool isDiamond = grid.shape().kind == GridKind::diamond;
  const bool isSquare = grid.shape().kind == GridKind::orthogonal;
  const int steps = isSquare ? 1 : 2;
  const int across = isDiamond ? grid.shape().cell.w : grid.cellBox({steps, 0}).x - first.x;
  const int down = isDiamond ? grid.shape().cell.h : grid.cellBox({0, steps}).y - first.y;
  const QPoint plain(-first.x, -first.y);
  const CellRect all = cellsWithin(grid, picture, plain);
  std::vector<CellPos> some;
  for (std::uint64_t n = 0; n < 20 * kTried && some.size() < kTried; ++n) {
    const std::uint64_t thrown = XXH3_64bits(&n, sizeof n);
    const CellPos cell{all.x0 + static_cast<int>(thrown % static_cast<std::uint64_t>(all.width())), all.y0 + static_cast<int>((thrown >> 32) % static_cast<std::uint64_t>(all.height()))};
    const PixelRect box = grid.cellBox(cell);
    if (isInside(picture, QPoint(box.x, box.y) + plain, box)) some.push_back(cell);
  }
  QPoint best = plain;
  int most = -1;
  for (int y = 0; y < down; ++y) {
    for (int x = 0; x < across; ++x) {
      if (progress && progress->isCancelled()) return best;
      const QPoint origin = plain + QPoint(x, y);
      const Tried tried = tryAt(picture, grid, tiles, pieces, origin, some);
      if (tried.known > most) most = tried.known, best = origin;
      // The plain place is right unless hardly anything is known there.
      if (isSquare && x == 0 && y == 0 && 2 * tried.known + tried.clear >= static_cast<int>(some.size()) / 2) return origin;
      if (tried.known > static_cast<int>(some.size()) * 9 / 10) return origin;
    }
  }
  return best;
}

// Calls `visit` for every cell on which something lies, to be changed.
template <class Visit>
void forEachCell(PictureCells& read, Visit&& visit) {
  CellGrid moved;
  read.cells.forEachPainted(read.cells.usedBounds(), [&](CellPos at, Cell cell) { moved.set(visit(at), cell); });
  read.cells = std::move(moved);
  for (PictureCells::Unknown& one : read.unknown) {
    for (CellPos& at : one.cells) at = visit(at);
  }
}

// Where every other row or column is shifted the same picture is that of two maps: with the even ones for the odd ones. The one that
// takes fewer cells is meant.
void straighten(PictureCells& read, const Grid& grid, CellRect& used) {
  const GridKind kind = grid.shape().kind;
  if (kind == GridKind::orthogonal || kind == GridKind::diamond) return;
  const PixelRect from = grid.cellBox({0, 0});
  const PixelRect to = grid.cellBox(kind == GridKind::hexagonalFlat ? CellPos{1, 0} : CellPos{0, 1});
  const PixelPos by{to.x - from.x, to.y - from.y};
  const auto other = [&](CellPos cell) {
    const PixelRect box = grid.cellBox(cell);
    return grid.cellAt({box.x + box.w / 2 - by.x, box.y + box.h / 2 - by.y});
  };
  CellRect otherUsed;
  PictureCells looked = read;
  forEachCell(looked, [&](CellPos at) {
    const CellPos cell = other(at);
    otherUsed = otherUsed.united({cell.x, cell.y, cell.x + 1, cell.y + 1});
    return cell;
  });
  if (otherUsed.count() >= used.count()) return;
  looked.origin = {read.origin.x + by.x, read.origin.y + by.y};
  read = std::move(looked);
  used = otherUsed;
}

// The same picture with a map that begins at 0, 0; rows and columns that are shifted stay so.
void settle(PictureCells& read, const Grid& grid, const CellRect& used) {
  CellPos by{used.x0, used.y0};
  if (grid.shape().kind != GridKind::orthogonal && grid.shape().kind != GridKind::diamond) by = {by.x - (by.x & 1), by.y - (by.y & 1)};
  const PixelRect from = grid.cellBox({0, 0});
  const PixelRect to = grid.cellBox(by);
  read.origin = {read.origin.x + to.x - from.x, read.origin.y + to.y - from.y};
  forEachCell(read, [&](CellPos at) { return CellPos{at.x - by.x, at.y - by.y}; });
  read.columns = used.x1 - by.x;
  read.rows = used.y1 - by.y;
}

}  // namespace

std::int64_t PictureCells::unknownCells() const {
  std::int64_t count = 0;
  for (const Unknown& one : unknown) count += static_cast<std::int64_t>(one.cells.size());
  return count;
}

Result<PictureCells> cellsOfPicture(const QImage& given, const Quilt& quilt, const SheetPictures& pictures, const GridShape& shape, Progress* progress) {
  const QImage picture = given.format() == QImage::Format_ARGB32_Premultiplied ? given : given.convertToFormat(QImage::Format_ARGB32_Premultiplied);
  const auto grid = makeGrid(shape);
  const PixelRect size = grid->cellBox({0, 0});
  if (picture.width() < size.w || picture.height() < size.h) return fail(Error{Error::Cause::broken, "the picture is smaller than a cell", {}, 0, "Nothing was changed", "Choose cells of another size"});
  PictureCells read;
  Pieces pieces(*grid);
  if (progress) progress->expect(picture.height() / size.h + 2);
  const Tiles tiles = tilesByPiece(quilt, pictures, *grid, pieces, progress);
  if (progress) progress->step(1);
  const QPoint origin = bestOrigin(picture, *grid, tiles, pieces, progress);
  if (progress) progress->step(1);
  read.origin = {origin.x(), origin.y()};
  std::unordered_map<std::uint64_t, std::size_t> unknown;
  CellRect used;
  const CellRect all = cellsWithin(*grid, picture, origin);
  for (int y = all.y0; y < all.y1; ++y) {
    if (progress && progress->isCancelled()) return fail(Error::Cause::cancelled, "it was cancelled");
    for (int x = all.x0; x < all.x1; ++x) {
      const PixelRect box = grid->cellBox({x, y});
      const QPoint at(box.x + origin.x(), box.y + origin.y());
      if (!isInside(picture, at, box)) continue;
      const auto sum = pieces.sumAt(picture, at, {x, y});
      // On squares the map is as large as its picture, however clear it is at its edges.
      if (sum || shape.kind == GridKind::orthogonal) used = used.united({x, y, x + 1, y + 1});
      if (!sum) {
        ++read.clear;
        continue;
      }
      const ByPiece& here = tiles[static_cast<std::size_t>((x & 1) + 2 * (y & 1))];
      if (const auto found = here.find(*sum); found != here.end()) {
        read.cells.set({x, y}, found->second);
        ++read.known;
        continue;
      }
      const auto [index, isNew] = unknown.try_emplace(*sum, read.unknown.size());
      if (isNew) read.unknown.emplace_back();
      read.unknown[index->second].cells.push_back({x, y});
    }
    if (progress) progress->step(1);
  }
  if (used.empty()) return fail(Error{Error::Cause::broken, "nothing lies on the picture", {}, 0, "Nothing was changed", "Choose another picture"});
  straighten(read, *grid, used);
  settle(read, *grid, used);
  std::stable_sort(read.unknown.begin(), read.unknown.end(), [](const auto& a, const auto& b) { return a.cells.size() > b.cells.size(); });
  return read;
}

QImage unknownPictures(const QImage& given, const PictureCells& read, const GridShape& shape) {
  const QImage picture = given.convertToFormat(QImage::Format_ARGB32_Premultiplied);
  const auto grid = makeGrid(shape);
  const PixelRect size = grid->cellBox({0, 0});
  const int count = static_cast<int>(std::min(read.unknown.size(), kMostUnknown));
  if (count == 0) return {};
  QImage all = blankPicture({size.w * std::min(count, kInARow), size.h * ((count + kInARow - 1) / kInARow)});
  for (int i = 0; i < count; ++i) {
    const CellPos cell = read.unknown[static_cast<std::size_t>(i)].cells.front();
    const PixelRect box = grid->cellBox(cell);
    for (const CellMask::Stretch& one : maskOf(*grid, cell).stretches) {
      const QRgb* from = reinterpret_cast<const QRgb*>(picture.constScanLine(box.y + read.origin.y + one.y)) + box.x + read.origin.x + one.x;
      QRgb* to = reinterpret_cast<QRgb*>(all.scanLine(i / kInARow * size.h + one.y)) + i % kInARow * size.w + one.x;
      std::memcpy(to, from, static_cast<std::size_t>(one.count) * sizeof(QRgb));
    }
  }
  return all;
}

}  // namespace uq
