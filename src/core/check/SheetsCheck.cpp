// Sheets that are missing or say no licence, and what is still painted in chalk.
#include <map>

#include "core/check/LooseThread.h"

namespace uq {

namespace {

constexpr std::string_view kMissing = "missing sheet";
constexpr std::string_view kUnlicensed = "no licence";
constexpr std::string_view kChalked = "still chalk";

void lookAtTiles(const Quilt& quilt, const Map& map, Check::Threads& threads) {
  struct Seen {
    std::int64_t cells = 0;
    CellPos first;
  };
  std::map<Id, Seen> missing;
  Seen chalked;
  for (const Shared<Layer>& layer : map.layers) {
    const Sheet* hung = layer->kind == LayerKind::backdrop && !layer->backdrop.sheet.empty() ? quilt.sheet(layer->backdrop.sheet) : nullptr;
    if (layer->kind == LayerKind::backdrop && !layer->backdrop.sheet.empty() && !hung) {
      threads.push_back({kMissing, map.id, std::nullopt, layer->backdrop.sheet, layer->name + " on " + map.name + " hangs a sheet that is missing", {}, {}});
    }
    if (!layer->holdsTiles()) continue;
    const std::map<TileRef, std::int64_t> tally = layer->cells.tally(map.bounds);
    for (const std::pair<const TileRef, std::int64_t>& one : tally) {
      const TileRef tile = one.first;
      const std::int64_t count = one.second;
      const bool isChalk = tile.slot == kChalkSlot;
      if (!isChalk && quilt.sheetAt(tile.slot)) continue;
      Seen& seen = isChalk ? chalked : missing[quilt.slots().sheet(tile.slot)];
      if (seen.cells == 0) {
        bool found = false;
        layer->cells.forEachPainted(map.bounds, [&, of = tile](CellPos at, Cell cell) {
          if (!found && cell.tile() == of) seen.first = at;
          found = found || cell.tile() == of;
        });
      }
      seen.cells += count;
    }
  }
  const auto cellsText = [](std::int64_t count) { return std::to_string(count) + (count == 1 ? " cell" : " cells"); };
  for (const auto& [sheet, seen] : missing) {
    threads.push_back({kMissing, map.id, seen.first, sheet, cellsText(seen.cells) + " of " + map.name + " are painted with a sheet that is missing", {}, {}});
  }
  if (chalked.cells > 0) {
    threads.push_back({kChalked, map.id, chalked.first, {}, cellsText(chalked.cells) + " of " + map.name + (chalked.cells == 1 ? " is" : " are") + " still chalk", {}, {}});
  }
}

void lookAtSheets(const Quilt& quilt, Check::Threads& threads) {
  for (const Shared<Sheet>& sheet : quilt.sheets()) {
    if (sheet->origin.licence.empty()) threads.push_back({kUnlicensed, {}, std::nullopt, sheet->id, "The sheet " + sheet->name + " says no licence", {}, {}});
  }
}

}  // namespace

extern const Check kSheetsCheck;
const Check kSheetsCheck{{kMissing, kUnlicensed, kChalked}, lookAtTiles, lookAtSheets};

}  // namespace uq
