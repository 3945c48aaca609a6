#include "core/document/FrameTime.h"

namespace uq {

namespace {

// Calls visit(sheet, number, frames) for each animated tile.
template <class Visit>
void forEachAnimated(const Quilt& quilt, Visit&& visit) {
  for (const auto& sheet : quilt.sheets()) {
    for (const auto& [number, facts] : sheet->tiles) {
      if (!facts.frames.empty()) visit(sheet.read(), number, facts.frames);
    }
  }
}

}  // namespace

std::uint32_t frameAt(const Frames& frames, std::int64_t milliseconds) {
  std::int64_t all = 0;
  for (const Frame& frame : frames) all += frame.milliseconds;
  std::int64_t left = all > 0 ? milliseconds % all : 0;
  for (const Frame& frame : frames) {
    if (left < frame.milliseconds) return frame.tile;
    left -= frame.milliseconds;
  }
  return frames.front().tile;
}

bool hasFrames(const Quilt& quilt) {
  bool any = false;
  forEachAnimated(quilt, [&](const Sheet&, std::uint32_t, const Frames&) { any = true; });
  return any;
}

std::set<TileRef> animatedTiles(const Quilt& quilt) {
  std::set<TileRef> tiles;
  forEachAnimated(quilt, [&](const Sheet& sheet, std::uint32_t number, const Frames&) {
    if (const auto slot = quilt.slots().find(sheet.id)) tiles.insert({*slot, number});
  });
  return tiles;
}

Quilt inFrame(const Quilt& quilt, std::int64_t milliseconds) {
  std::map<Id, TilePlaces> changed;
  forEachAnimated(quilt, [&](const Sheet& sheet, std::uint32_t number, const Frames& frames) {
    const std::uint32_t shown = sheet.shows(frameAt(frames, milliseconds)).of;
    if (shown == sheet.shows(number).of) return;
    changed.try_emplace(sheet.id, sheet.places.read()).first->second.twins[number] = {shown, false};
  });
  Quilt now = quilt;
  for (auto& [id, places] : changed) {
    Sheet sheet = *quilt.sheet(id);
    sheet.places = Shared(std::move(places));
    now = now.with(std::move(sheet));
  }
  return now;
}

}  // namespace uq
