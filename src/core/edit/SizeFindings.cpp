#include "core/edit/SizeFindings.h"

#include <cstdlib>
#include <set>

#include "core/edit/ArrangeMaps.h"
#include "core/edit/Camera.h"
#include "core/edit/HangingPlace.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/MapFacts.h"
#include "core/edit/ResizeMap.h"

namespace uq {

namespace {

constexpr int kMostChunks = 256;  // of a layer, that are looked at for the sheets it is painted with

std::string pixels(int count) { return std::to_string(count) + " px"; }

// Along one axis: how the map and the screen go together.
void addScreen(const Quilt& quilt, const Map& map, bool across, std::vector<SizeFinding>& findings) {
  const PixelRect all = makeGrid(map.grid)->pixelBounds(map.bounds);
  const PixelSize shown = screenOf(quilt, map);
  const PixelSize pitch = cellsPitch(map.grid);
  const int has = across ? all.w : all.h;
  const int wants = across ? shown.w : shown.h;
  const int cell = across ? pitch.w : pitch.h;
  const std::string line = across ? "column" : "row";
  const auto resized = [&](int by, NewRoom room) {
    return withBounds(quilt, map.id, moved(map.bounds, across ? EdgeMoves{0, 0, by, 0} : EdgeMoves{0, 0, 0, by}), room);
  };
  if (has < wants) {
    const int lines = ceilDiv(wants - has, cell);
    const std::string text =
        "The map is " + pixels(wants - has) + (across ? " narrower" : " lower") + " than the screen";
    findings.push_back(
        {text, lines == 1 ? "Lay the last " + line + " again" : "Add " + std::to_string(lines) + " " + line + "s",
         resized(lines, lines == 1 ? NewRoom::lastRow : NewRoom::empty)});
  } else if (has > wants && has < wants + cell) {
    findings.push_back({"The screen cuts the last " + line + ": " + pixels(has - wants) + " of it do not fit",
                        "Take the last " + line + " off", resized(-1, NewRoom::empty)});
  }
}

void addBackdrops(const Quilt& quilt, const Map& map, std::vector<SizeFinding>& findings) {
  for (const BackdropGap& gap : backdropGaps(quilt, map)) {
    Backdrop repeated = map.layer(gap.layer)->backdrop;
    repeated.repeatsAcross = true;
    findings.push_back({gap.text, "Repeat it across", withBackdrop(quilt, {map.id, gap.layer}, repeated)});
  }
  const PixelRect all = makeGrid(map.grid)->pixelBounds(map.bounds);
  for (const Shared<Layer>& layer : map.layers) {
    const auto size = layer->kind == LayerKind::backdrop ? hungSize(quilt, map, layer->backdrop) : std::nullopt;
    const bool fits = layer->backdrop.fit == Backdrop::Fit::asItIs && !layer->backdrop.repeatsDown;
    const int off = size ? size->h - all.h : 0;
    if (!fits || off == 0 || std::abs(off) >= map.grid.cell.h) continue;
    Backdrop fitted = layer->backdrop;
    fitted.fit = Backdrop::Fit::map;
    fitted.shownAt = 100;
    findings.push_back(
        {layer->name + " is " + pixels(std::abs(off)) + (off > 0 ? " higher" : " lower") + " than the map",
         "Make it as high as the map", withBackdrop(quilt, {map.id, layer->id}, fitted)});
  }
}

void addTiles(const Quilt& quilt, const Map& map, std::vector<SizeFinding>& findings) {
  std::set<SheetSlot> laid;
  for (const Shared<Layer>& layer : map.layers) {
    int looked = 0;
    layer->cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
      if (++looked > kMostChunks) return;
      chunk.forEachOccurring([&](Cell cell) {
        if (!cell.empty()) laid.insert(cell.tile().slot);
      });
    });
  }
  const PixelSize cell = map.grid.cell;
  for (const SheetSlot slot : laid) {
    const Sheet* sheet = quilt.sheetAt(slot);
    if (!sheet || sheet->isCollection()) continue;
    const PixelSize tile = sheet->cut.cell;
    // Across whole cells, or as broad as high where they stand on it: a tile that is higher may stand up.
    const bool agrees = tile.w % cell.w == 0 || cell.w % std::max(1, tile.w) == 0;
    const bool canBe = nearestShape(map.grid.kind, {tile.w, tile.w * cell.h / cell.w}).cell.w == tile.w;
    if (agrees || !canBe) continue;
    const PixelSize to = map.grid.kind == GridKind::orthogonal ? tile : PixelSize{tile.w, tile.w * cell.h / cell.w};
    Quilt mended = withCell(quilt, map.id, to);
    if (mended == quilt) continue;
    findings.push_back({"The tiles of " + sheet->name + " are " + std::to_string(tile.w) + " × " +
                            std::to_string(tile.h) + ", the map's cells " + std::to_string(cell.w) + " × " +
                            std::to_string(cell.h),
                        "Take cells of " + std::to_string(to.w) + " × " + std::to_string(to.h), std::move(mended)});
  }
}

}  // namespace

std::vector<SizeFinding> sizeFindings(const Quilt& quilt, const Map& map) {
  std::vector<SizeFinding> findings;
  addScreen(quilt, map, true, findings);
  addScreen(quilt, map, false, findings);
  addBackdrops(quilt, map, findings);
  addTiles(quilt, map, findings);
  std::erase_if(findings, [&](const SizeFinding& one) { return one.mended == quilt; });
  return findings;
}

}  // namespace uq
