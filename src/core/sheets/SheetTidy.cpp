#include "core/sheets/SheetTidy.h"

#include <unordered_map>

#include "core/sheets/TileMarks.h"

namespace uq {

namespace {

int solidPixels(const PixelView& picture, const PixelRect& part, int most) {
  int count = 0;
  for (int y = part.y; y < part.bottom(); ++y) {
    for (int x = part.x; x < part.right(); ++x) {
      if (alphaOf(picture.at(x, y)) != 0 && ++count > most) return count;
    }
  }
  return count;
}

}  // namespace

TidyFinds findToTidy(const Sheet& sheet, const PixelView& picture, const TileUses& uses, SheetSlot slot,
                     Progress* progress) {
  TidyFinds finds;
  const std::set<std::uint32_t> inUse = numbersInUse(sheet, uses, slot);
  std::unordered_map<std::uint64_t, std::uint32_t> known;          // tiles by their marks
  std::unordered_map<std::uint64_t, std::uint32_t> knownMirrored;  // by those of their mirror pictures
  const auto count = static_cast<std::uint32_t>(sheet.tileCount());
  for (std::uint32_t cell = 0; cell < count; ++cell) {
    if (progress && cell % 1024 == 0) {
      if (progress->isCancelled()) break;
      progress->step(1024);
    }
    const std::uint32_t number = sheet.numberAt(cell);
    const PixelRect part = sheet.cellRect(cell);
    if (!sheet.offers(number) || part.right() > picture.w || part.bottom() > picture.h) continue;
    const bool kept = sheet.factsOf(number).keep;
    const std::uint64_t mark = markOf(picture, part);
    if (mark == 0) {
      if (!kept) finds.blank.push_back(number);
      continue;
    }
    // Of equal tiles the first one stays, and any that is to be kept.
    const auto twin = known.find(mark);
    const auto mirror = twin == known.end() ? knownMirrored.find(mark) : knownMirrored.end();
    if (!kept && twin != known.end()) {
      finds.twins.emplace(number, TilePlaces::Twin{twin->second, false});
      continue;
    }
    if (!kept && mirror != knownMirrored.end()) {
      finds.twins.emplace(number, TilePlaces::Twin{mirror->second, true});
      continue;
    }
    known.emplace(mark, number);
    knownMirrored.emplace(mirroredMarkOf(picture, part), number);
    if (kept) continue;
    if (solidPixels(picture, part, kMostStrayPixels) <= kMostStrayPixels) {
      finds.stray.push_back(number);
    } else if (!inUse.contains(number)) {
      finds.unused.push_back(number);
    }
  }
  // A tile that a found twin shows must stay.
  for (const auto& [number, twin] : finds.twins) {
    if (inUse.contains(number)) std::erase(finds.unused, twin.of);
  }
  for (const auto& [number, rect] : sheet.places->retired) finds.retired.push_back(number);
  return finds;
}

Sheet tidied(Sheet sheet, const TidyFinds& finds) {
  TilePlaces places = sheet.places.read();
  for (const auto* list : {&finds.blank, &finds.stray, &finds.unused}) {
    places.dropped.insert(list->begin(), list->end());
  }
  for (const auto& [number, twin] : finds.twins) {
    places.twins[number] = twin;
    // Whoever showed this tile shows the other one now.
    for (auto& [other, shown] : places.twins) {
      if (shown.of == number) shown = {twin.of, shown.mirrored != twin.mirrored};
    }
  }
  sheet.places = places.empty() ? Shared<TilePlaces>() : Shared(std::move(places));
  return sheet;
}

}  // namespace uq
