#include "raster/TileArt.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/grid/PlanGrid.h"
#include "raster/BlankPicture.h"

namespace uq {

namespace {

constexpr std::size_t kMostSizes = 12;  // of one tile: a zoom needs up to four

// A chalk tile: its colour, with an edge at two sides so that cells can be counted.
QImage chalkTile(QSize size, std::uint32_t number, const GridShape& shape) {
  QImage picture(size, QImage::Format_ARGB32_Premultiplied);
  const QColor colour = QColor::fromRgb(chalkColour(number) | 0xff000000);
  picture.fill(colour);
  if (std::min(size.width(), size.height()) < 6 || shape.kind != GridKind::orthogonal) return picture;
  QPainter painter(&picture);
  const QRect all = picture.rect();
  painter.fillRect(QRect(0, all.bottom(), all.width(), 1), colour.darker(112));
  painter.fillRect(QRect(all.right(), 0, 1, all.height()), colour.darker(112));
  return picture;
}

// A tile without a picture: a hatched box with its number, readable on any art.
QImage placeholder(QSize size, Cell cell) {
  QImage picture(size, QImage::Format_ARGB32_Premultiplied);
  picture.fill(QColor(230, 220, 200, 170));
  QPainter painter(&picture);
  painter.fillRect(picture.rect(), QBrush(QColor(58, 66, 86, 90), Qt::BDiagPattern));
  painter.setPen(QColor(27, 32, 48));
  painter.drawRect(picture.rect().adjusted(0, 0, -1, -1));
  if (size.width() >= 16 && size.height() >= 12) {
    QFont font = painter.font();
    font.setPixelSize(std::clamp(size.height() / 3, 8, 24));
    painter.setFont(font);
    painter.drawText(picture.rect(), Qt::AlignCenter, QString::number(cell.tile().number));
  }
  return picture;
}

// Takes away what lies outside the cell's outline. At 100 % exactly the pixels that the cell owns stay; at other sizes
// half a pixel more, so that no gap shows between neighbours.
void clipToCell(QImage& picture, const GridShape& shape) {
  if (shape.kind == GridKind::orthogonal) return;
  const auto grid = makeGrid(shape);
  const PixelRect box = grid->cellBox({0, 0});
  const bool exact = picture.width() == box.w && picture.height() == box.h;
  const std::vector<PixelPos> corners = grid->outline({0, 0});
  const double scaleX = static_cast<double>(picture.width()) / box.w;
  const double scaleY = static_cast<double>(picture.height()) / box.h;
  const auto inside = [&](int x, int y) {
    if (exact) return grid->cellAt({box.x + x, box.y + y}) == CellPos{0, 0};
    for (std::size_t i = 0; i < corners.size(); ++i) {
      const PixelPos a = corners[i];
      const PixelPos b = corners[(i + 1) % corners.size()];
      const double ax = (a.x - box.x) * scaleX;
      const double ay = (a.y - box.y) * scaleY;
      const double dx = (b.x - a.x) * scaleX;
      const double dy = (b.y - a.y) * scaleY;
      // The corners go clockwise, so inside lies to the right of every side.
      const double beyond = (dx * (y + 0.5 - ay) - dy * (x + 0.5 - ax)) / std::hypot(dx, dy);
      if (beyond < -0.6) return false;
    }
    return true;
  };
  for (int y = 0; y < picture.height(); ++y) {
    auto* row = reinterpret_cast<QRgb*>(picture.scanLine(y));
    for (int x = 0; x < picture.width(); ++x) {
      if (!inside(x, y)) row[x] = 0;
    }
  }
}

// A slanted tile as seen from above: what lies on its ground, or on its top where that is covered, laid out as a
// square; anything else as a small picture of itself.
QImage planPicture(const QImage& picture, PixelSize cell) {
  const int side = planSide(cell);
  const auto sampled = [&](int top) {
    QImage square(side, side, QImage::Format_ARGB32_Premultiplied);
    for (int v = 0; v < side; ++v) {
      auto* row = reinterpret_cast<QRgb*>(square.scanLine(v));
      for (int u = 0; u < side; ++u) {
        const double across = (u + 0.5) / side;
        const double down = (v + 0.5) / side;
        const QPoint at(static_cast<int>(std::floor(picture.width() / 2.0 + (across - down) * cell.w / 2)),
                        static_cast<int>(std::floor(top + (across + down) * cell.h / 2)));
        row[u] = picture.rect().contains(at) ? reinterpret_cast<const QRgb*>(picture.constScanLine(at.y()))[at.x()] : 0;
      }
    }
    return square;
  };
  const auto covers = [side](const QImage& square) {
    int opaque = 0;
    for (int v = 0; v < side; ++v) {
      const auto* row = reinterpret_cast<const QRgb*>(square.constScanLine(v));
      opaque += static_cast<int>(std::count_if(row, row + side, [](QRgb pixel) { return qAlpha(pixel) >= 128; }));
    }
    return opaque * 100 >= side * side * 95;
  };
  // Nothing stands above the ground of what only lies there.
  const int above = picture.height() - cell.h;
  const auto isClear = [&](int y) {
    const auto* row = reinterpret_cast<const QRgb*>(picture.constScanLine(y));
    return std::all_of(row, row + picture.width(), [](QRgb pixel) { return qAlpha(pixel) == 0; });
  };
  bool lies = true;
  for (int y = 0; y < above && lies; ++y) lies = isClear(y);
  if (lies) return sampled(above);
  if (QImage top = sampled(0); covers(top)) return top;
  const QImage small = picture.scaled(side, side, Qt::KeepAspectRatio, Qt::SmoothTransformation)
                           .convertToFormat(QImage::Format_ARGB32_Premultiplied);
  QImage square = blankPicture({side, side});
  QPainter(&square).drawImage((side - small.width()) / 2, side - small.height(), small);
  return square;
}

// The sizes and stances of a sheet's tiles.
std::vector<TileArt::Standing> standingsOf(const Sheet& sheet) {
  std::vector<TileArt::Standing> all;
  const auto add = [&all](const TileArt::Standing& one) {
    if (std::find(all.begin(), all.end(), one) == all.end()) all.push_back(one);
  };
  if (!sheet.isCollection()) add({sheet.cut.cell, sheet.stance});
  for (const CollectedPicture& one : sheet.collection) add({one.size, sheet.stanceOf(one.number)});
  for (const auto& [number, rect] : sheet.places->retired) add({{rect.w, rect.h}, sheet.stanceOf(number)});
  for (const auto& [number, facts] : sheet.tiles) {
    const auto place = facts.stance ? sheet.place(number) : std::nullopt;
    if (place) add({{place->w, place->h}, *facts.stance});
  }
  return all;
}

Cell cellOfBits(std::uint32_t bits) {
  return Cell({bits >> 22, bits >> 4 & kLastTileNumber}, Turn::fromCode(bits & 15));
}

}  // namespace

bool TileArt::follow(const Quilt& quilt) {
  bool changed = bytes_ > kMostArtBytes;
  slots_.resize(quilt.slots().count() + 1);
  for (SheetSlot number = 1; number < slots_.size(); ++number) {
    Slot& slot = slots_[number];
    const Sheet* sheet = quilt.sheetAt(number);
    const bool same =
        slot.known && (sheet != nullptr) == (slot.sheet != nullptr) && (!sheet || sheet->revision.is(slot.revision));
    if (!same) {
      changed = changed || slot.known;
      slot.known = true;
      slot.revision = sheet ? sheet->revision : Revision();
      slot.picture = sheet ? pictures_.picture(*sheet) : QImage();
      slot.standings = sheet ? standingsOf(*sheet) : std::vector<Standing>();
    }
    slot.sheet = sheet;
  }
  if (changed) {
    tiles_.clear();
    recent_.fill(nullptr);
    bytes_ = 0;
  }
  hasWide_ = false;
  forEachStanding([this](const Standing& one) { hasWide_ = hasWide_ || one.stance.isWide(); });
  return changed;
}

bool TileArt::setShape(const GridShape& shape) {
  if (shape == shape_) return false;
  shape_ = shape;
  tiles_.clear();
  recent_.fill(nullptr);
  bytes_ = 0;
  return true;
}

TileArt::Tile TileArt::made(Cell cell) const {
  Tile tile;
  tile.bits_ = cell.bits();
  const TileRef ref = cell.tile();
  if (ref.slot >= slots_.size() || !slots_[ref.slot].sheet) return tile;
  const Slot& slot = slots_[ref.slot];
  const auto place = slot.sheet->place(ref.number);
  if (!place) return tile;
  tile.size_ = {place->w, place->h};
  Turn turn = cell.turn();
  if (slot.sheet->shows(ref.number).mirrored) turn.mirror = !turn.mirror;
  if (cell.turn().steps % 2 == 1) std::swap(tile.size_.w, tile.size_.h);
  if (shape_.plan) {
    const QRect whole(place->x, place->y, place->w, place->h);
    tile.size_ = {planSide(shape_.cell), planSide(shape_.cell)};
    if (!slot.picture.rect().contains(whole)) return tile;
    tile.kept_ = planPicture(turnedPicture(slot.picture.copy(whole), turn), shape_.cell);
    tile.straight_ = viewOf(tile.kept_);
    return tile;
  }
  tile.stance_ = turnedStance(*makeGrid(shape_), slot.sheet->stanceOf(ref.number), cell.turn());
  const QRect part(place->x, place->y, place->w, place->h);
  if (!slot.picture.rect().contains(part)) return tile;
  if (turn == Turn{}) {
    tile.kept_ = slot.picture;
    tile.straight_ = viewOf(slot.picture, part);
  } else {
    tile.kept_ = turnedPicture(slot.picture.copy(part), turn);
    tile.straight_ = viewOf(tile.kept_);
  }
  return tile;
}

TileArt::Tile& TileArt::tile(Cell cell) {
  Tile*& recent = recent_[(cell.bits() * 2654435761u) >> 20];
  if (recent && recent->bits_ == cell.bits()) return *recent;
  auto found = tiles_.find(cell.bits());
  if (found == tiles_.end()) {
    found = tiles_.emplace(cell.bits(), made(cell)).first;
    bytes_ += sizeof(Tile) + (cell.turn() == Turn{} ? 0 : static_cast<std::size_t>(found->second.kept_.sizeInBytes()));
  }
  recent = &found->second;
  return *recent;
}

QImage TileArt::made(Tile& tile, QSize size) {
  const PixelView& straight = tile.straight_;
  if (!straight.pixels) {
    const Cell cell = cellOfBits(tile.bits_);
    const TileRef ref = cell.tile();
    const bool isChalk = ref.slot == kChalkSlot && ref.number < kChalkColours;
    QImage filled = isChalk ? chalkTile(size, ref.number, shape_) : placeholder(size, cell);
    clipToCell(filled, shape_);
    return filled;
  }
  const auto viewed = [](const PixelView& view) {
    return QImage(reinterpret_cast<const uchar*>(view.pixels), view.w, view.h, view.stride * qsizetype{sizeof(QRgb)},
                  QImage::Format_ARGB32_Premultiplied);
  };
  const bool larger = size.width() > straight.w || size.height() > straight.h;
  if (larger) return viewed(straight).scaled(size, Qt::IgnoreAspectRatio, Qt::FastTransformation);
  // Halves of even pictures average exactly; each is made once and serves every smaller size.
  QImage from = viewed(straight);
  for (std::size_t i = 0; from.width() % 2 == 0 && from.height() % 2 == 0 && from.width() / 2 >= size.width() &&
                          from.height() / 2 >= size.height();
       ++i) {
    if (i == tile.halves_.size()) {
      tile.halves_.push_back(from.scaled(from.size() / 2, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
                                 .convertToFormat(QImage::Format_ARGB32_Premultiplied));
      bytes_ += static_cast<std::size_t>(tile.halves_.back().sizeInBytes());
    }
    from = tile.halves_[i];
  }
  return from.scaled(size, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
      .convertToFormat(QImage::Format_ARGB32_Premultiplied);
}

const PixelView& TileArt::sized(Tile& tile, int w, int h) {
  if (tile.straight_.pixels && w == tile.straight_.w && h == tile.straight_.h) return tile.straight_;
  for (const Tile::Sized& one : tile.sized_) {
    if (one.view.w == w && one.view.h == h) return one.view;
  }
  if (tile.sized_.size() >= kMostSizes) {
    for (const Tile::Sized& old : tile.sized_) bytes_ -= static_cast<std::size_t>(old.image.sizeInBytes()) + sizeof old;
    tile.sized_.clear();
  }
  Tile::Sized one{made(tile, {w, h}), {}};
  one.view = viewOf(one.image);
  bytes_ += static_cast<std::size_t>(one.image.sizeInBytes()) + sizeof one;
  tile.sized_.push_back(std::move(one));
  return tile.sized_.back().view;
}

}  // namespace uq
