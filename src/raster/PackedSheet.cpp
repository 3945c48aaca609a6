#include "raster/PackedSheet.h"

#include <QPainter>
#include <algorithm>
#include <bit>
#include <cmath>

#include "core/store/ExchangeText.h"
#include "raster/BlankPicture.h"
#include "raster/PictureFile.h"

namespace uq {

namespace {

// Draws the rim of `at` outwards.
void bleedOut(QImage& picture, const QRect& at, int by) {
  for (int y = at.top() - by; y <= at.bottom() + by; ++y) {
    for (int x = at.left() - by; x <= at.right() + by; ++x) {
      if (at.contains(x, y)) continue;
      const QPoint from(std::clamp(x, at.left(), at.right()), std::clamp(y, at.top(), at.bottom()));
      reinterpret_cast<QRgb*>(picture.scanLine(y))[x] = reinterpret_cast<const QRgb*>(picture.constScanLine(from.y()))[from.x()];
    }
  }
}

}  // namespace

std::set<std::uint32_t> usedTiles(const Sheet& sheet, const TileUses& uses, SheetSlot slot) {
  std::set<std::uint32_t> used;
  for (auto it = uses.lower_bound(TileRef{slot, 0}); it != uses.end() && it->first.slot == slot; ++it) {
    if (it->second == 0 || !sheet.place(it->first.number)) continue;
    used.insert(it->first.number);
    if (const Frames* frames = sheet.framesOf(it->first.number)) {
      for (const Frame& frame : *frames) {
        if (sheet.place(frame.tile)) used.insert(frame.tile);
      }
    }
  }
  return used;
}

std::vector<std::uint32_t> inOrder(const Sheet& sheet, const std::set<std::uint32_t>& tiles, const TileUses& uses, SheetSlot slot, const Target& how) {
  std::vector<std::uint32_t> ordered(tiles.begin(), tiles.end());
  const auto sortBy = [&](auto&& key) { std::stable_sort(ordered.begin(), ordered.end(), [&](std::uint32_t a, std::uint32_t b) { return key(a) < key(b); }); };
  if (how.order == "name") sortBy([&](std::uint32_t one) { return std::pair(sheet.factsOf(one).name.empty(), sheet.factsOf(one).name); });
  if (how.order == "use") {
    sortBy([&](std::uint32_t one) {
      const auto used = uses.find({slot, one});
      return used == uses.end() ? 0 : -used->second;
    });
  }
  return ordered;
}

Result<PackedSheet> packedSheet(const Sheet& sheet, const QImage& picture, const std::vector<std::uint32_t>& tiles, const Target& how) {
  const auto refuse = [&](Error::Cause cause, const char* why, const char* todo) { return fail(Error{cause, why, sheet.name, 0, "Nothing was written", todo}); };
  PackedSheet packed;
  if (tiles.empty()) return packed;
  if (picture.isNull()) return refuse(Error::Cause::missing, "the sheet's picture is missing", "Point to it on the Table first");
  PixelSize place{1, 1};
  for (const std::uint32_t tile : tiles) {
    const PixelRect rect = *sheet.place(tile);
    place = {std::max(place.w, rect.w), std::max(place.h, rect.h)};
  }
  const std::int64_t stepX = place.w + 2 * how.bleed;
  const std::int64_t stepY = place.h + 2 * how.bleed;
  const auto count = static_cast<std::int64_t>(tiles.size());
  std::int64_t columns = how.columns;
  if (columns == 0) columns = std::max<std::int64_t>(1, std::llround(std::ceil(std::sqrt(static_cast<double>(count) * static_cast<double>(stepY) / static_cast<double>(stepX)))));
  columns = std::min(columns, count);
  std::int64_t wide = columns * stepX;
  // As many as the sides have room for.
  if (how.powersOfTwo) {
    wide = static_cast<std::int64_t>(std::bit_ceil(static_cast<std::uint64_t>(wide)));
    if (how.columns == 0) columns = std::min(wide / stepX, count);
  }
  std::int64_t high = (count + columns - 1) / columns * stepY;
  if (how.powersOfTwo) high = static_cast<std::int64_t>(std::bit_ceil(static_cast<std::uint64_t>(high)));
  if (wide > kLargestPictureSide || high > kLargestPictureSide || wide * high * 4 > std::int64_t{kMostPictureMegabytes} << 20) {
    return refuse(Error::Cause::tooLarge, "the packed picture would be larger than 32,768 pixels or 512 MB", "Choose other columns or narrower rims");
  }
  packed.picture = blankPicture({static_cast<int>(wide), static_cast<int>(high)});
  QPainter painter(&packed.picture);
  painter.setCompositionMode(QPainter::CompositionMode_Source);
  std::int64_t index = 0;
  for (const std::uint32_t tile : tiles) {
    const PixelRect from = *sheet.place(tile);
    const int x = static_cast<int>(index % columns * stepX) + how.bleed;
    const int y = static_cast<int>(index / columns * stepY) + how.bleed + place.h - from.h;
    painter.drawImage(x, y, picture, from.x, from.y, from.w, from.h);
    packed.places.push_back({tile, {x, y, from.w, from.h}});
    ++index;
  }
  painter.end();
  for (const PackedSheet::Place& one : packed.places) bleedOut(packed.picture, QRect(one.at.x, one.at.y, one.at.w, one.at.h), how.bleed);
  return packed;
}

Json packedPlaces(const Sheet& sheet, std::uint32_t number, const PackedSheet& packed, const std::string& picture, int bleed) {
  Json::Array tiles;
  for (const PackedSheet::Place& one : packed.places) {
    const TileFacts& facts = sheet.factsOf(one.tile);
    Json::Object tile{{"number", static_cast<int>(one.tile)}, {"at", Json::Array{one.at.x, one.at.y, one.at.w, one.at.h}}};
    if (!facts.name.empty()) tile.emplace_back("name", facts.name);
    tiles.emplace_back(std::move(tile));
  }
  return Json::Object{{"document", "exchange-sheet"},
                      {"version", std::to_string(kExchangeMajor) + "." + std::to_string(kExchangeMinor)},
                      {"number", static_cast<std::int64_t>(number)},
                      {"code", sheet.code},
                      {"id", sheet.id.text()},
                      {"name", sheet.name},
                      {"picture", picture},
                      {"size", Json::Array{packed.picture.width(), packed.picture.height()}},
                      {"bleed", bleed},
                      {"tiles", std::move(tiles)}};
}

}  // namespace uq
