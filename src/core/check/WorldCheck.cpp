// Where the player begins, and maps that nothing leads to.
#include <set>

#include "core/check/LooseThread.h"
#include "core/edit/Pins.h"
#include "core/edit/Standing.h"

namespace uq {

namespace {

constexpr std::string_view kNoStart = "no start";
constexpr std::string_view kUnreached = "nothing leads there";

void lookAtStart(const Quilt& quilt, Check::Threads& threads) {
  const PinAt start = quilt.facts().start;
  const auto tell = [&](Id map, std::optional<CellPos> cell, std::string text) {
    threads.push_back({kNoStart, map, cell, {}, std::move(text), {}, {}});
  };
  if (start.empty()) {
    if (!quilt.maps().empty()) tell({}, std::nullopt, "Nothing says where the player begins");
    return;
  }
  const Map* map = quilt.map(start.map);
  const Pin* pin = quilt.pin(start);
  if (!pin) return tell(map ? map->id : Id(), std::nullopt, "The spot at which the player begins is gone");
  const CellPos cell = middleOf(*pin, map->bounds);
  if (!map->bounds.contains(cell)) return tell(map->id, cell, "The player begins outside " + map->name);
  if (!Standing(quilt, *map).canStand(cell)) tell(map->id, cell, "The player begins in something solid on " + map->name);
}

void lookAtWorld(const Quilt& quilt, Check::Threads& threads) {
  lookAtStart(quilt, threads);
  if (quilt.maps().size() < 2) return;
  std::set<Id> led{quilt.facts().start.map};
  for (const Shared<Seam>& seam : quilt.seams()) {
    if (seam->wraps()) continue;
    led.insert(seam->map);
    led.insert(seam->other);
  }
  for (const Shared<Doorway>& doorway : quilt.doorways()) {
    if (!quilt.pin(doorway->from) || !quilt.pin(doorway->to) || doorway->from.map == doorway->to.map) continue;
    led.insert(doorway->to.map);
    if (doorway->back) led.insert(doorway->from.map);
  }
  for (const Shared<Map>& map : quilt.maps()) {
    if (!led.contains(map->id)) threads.push_back({kUnreached, map->id, std::nullopt, {}, "Nothing leads to " + map->name, {}, {}});
  }
}

}  // namespace

extern const Check kWorldCheck;
const Check kWorldCheck{{kNoStart, kUnreached}, nullptr, lookAtWorld};

}  // namespace uq
