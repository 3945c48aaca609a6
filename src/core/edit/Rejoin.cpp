#include "core/edit/Rejoin.h"

#include <algorithm>
#include <set>

#include "core/edit/JoinLaying.h"
#include "core/edit/Joiner.h"

namespace uq {

namespace {

// The edgings of a family some of whose tiles are of sheets that a set of cells shows, before or after.
std::vector<const Edging*> edgingsMet(const Quilt& quilt, const GridShape& shape, const std::set<Id>& sheets) {
  std::vector<const Edging*> met;
  for (const Shared<Edging>& one : quilt.edgings()) {
    const Edging& edging = one.read();
    const bool meets = std::any_of(edging.members.begin(), edging.members.end(), [&](const EdgingMember& member) { return sheets.contains(member.tile.sheet); });
    if (meets && areOfOneFamily(edging.grid, shape.kind)) met.push_back(&edging);
  }
  return met;
}

// `beside`: as many rows and columns beside the set count, too.
void addSheets(const Quilt& quilt, const CellGrid& cells, const CellSet& which, std::set<Id>& sheets, int beside = 0) {
  std::set<SheetSlot> slots;
  CellReader reader(cells);
  SheetSlot last{};
  which.forEachStretch([&](CellPos first, int count) {
    for (int y = first.y - beside; y <= first.y + beside; ++y) {
      for (int x = first.x - beside; x < first.x + count + beside; ++x) {
        const Cell cell = reader.at({x, y});
        if (cell.empty() || (cell.tile().slot == last && !slots.empty())) continue;
        slots.insert(last = cell.tile().slot);
      }
    }
  });
  for (const SheetSlot slot : slots) {
    if (const Sheet* sheet = quilt.sheetAt(slot)) sheets.insert(sheet->id);
  }
}

}  // namespace

Rejoined rejoined(const Quilt& quilt, LayerAt at, const CellSet& cells, const std::function<bool(CellPos)>& may, bool isNew) {
  const Map* map = quilt.map(at.map);
  const Layer* layer = quilt.layer(at);
  if (!map || !layer || !layer->holdsTiles() || quilt.edgings().empty()) return {layer ? static_cast<const LayerCells&>(*layer) : LayerCells(), {}};
  Rejoined result{*layer, {}};
  const CellSet inside = cells.intersected(CellSet(map->bounds));
  const auto grid = makeGrid(map->grid);
  std::set<Id> sheets;
  // What stands beside them may end otherwise where they are empty.
  addSheets(quilt, layer->cells, inside, sheets, 2);
  const auto mayTouch = [&](CellPos cell) { return map->bounds.contains(cell) && (!may || may(cell)); };
  for (const Edging* edging : edgingsMet(quilt, map->grid, sheets)) {
    result.changed = result.changed.united(Joiner(quilt, *edging, *grid).mend(result.cells, inside, mayTouch, isNew));
  }
  return result;
}

QuiltRejoined rejoinedWithHems(const Quilt& quilt, LayerAt at, const CellSet& cells, const std::function<bool(CellPos)>& may) {
  const Map* map = quilt.map(at.map);
  if (!map || !quilt.layer(at)) return {quilt, {}};
  const CellRect bounds = map->bounds;
  const CellSet inside = cells.intersected(CellSet(bounds));
  const auto mayTouch = [&](CellPos cell) { return bounds.contains(cell) && (!may || may(cell)); };
  Rejoined own = rejoined(quilt, at, cells, may);
  QuiltRejoined result{own.changed.empty() ? quilt : quilt.with(at, std::move(own.cells)), own.changed};
  std::set<Id> sheets;
  addSheets(quilt, quilt.layer(at)->cells, inside, sheets);
  for (const Edging* edging : edgingsMet(quilt, map->grid, sheets)) {
    HemsMended mended = withHemsMended(quilt, result.quilt, at, *edging, inside, mayTouch);
    result = {std::move(mended.quilt), result.changed.united(mended.changed)};
  }
  return result;
}

Quilt joinedWhereChanged(const Quilt& before, const Quilt& after, Id id, std::int64_t most) {
  const Map* was = before.map(id);
  const Map* now = after.map(id);
  if (!was || !now || after.edgings().empty()) return after;
  Quilt joined = after;
  const auto grid = makeGrid(now->grid);
  for (const Shared<Layer>& shared : now->layers) {
    const Layer& layer = shared.read();
    const Layer* old = was->layer(layer.id);
    if (!layer.holdsTiles() || !old || old->sameAs(layer)) continue;
    CellSet changed;
    std::int64_t count = 0;
    for (const CellRect& box : LayerCells::differences(*old, layer)) {
      for (int y = box.y0; y < box.y1 && count <= most; ++y) {
        for (int x = box.x0; x < box.x1; ++x) {
          if (old->cells.at({x, y}) != layer.cells.at({x, y})) changed.insert({x, y}), ++count;
        }
      }
    }
    changed = changed.intersected(CellSet(now->bounds));
    if (changed.empty() || count > most) continue;
    std::set<Id> sheets;
    addSheets(before, old->cells, changed, sheets);
    addSheets(after, layer.cells, changed, sheets);
    LayerCells cells = layer;
    CellSet all;
    for (const Edging* edging : edgingsMet(after, now->grid, sheets)) {
      all = all.united(Joiner(after, *edging, *grid).mend(cells, changed, [&](CellPos cell) { return now->bounds.contains(cell); }, true));
    }
    const LayerAt at{id, layer.id};
    if (!all.empty()) joined = joined.with(at, std::move(cells));
    const CellSet touched = all.united(changed);
    const auto may = [&](CellPos cell) { return now->bounds.contains(cell); };
    for (const Edging* edging : edgingsMet(after, now->grid, sheets)) joined = withHemsMended(before, joined, at, *edging, touched, may).quilt;
  }
  return joined;
}

Quilt withStandInsMended(const Quilt& quilt, const Edging& edging) {
  Quilt mended = quilt;
  for (const Shared<Map>& map : quilt.maps()) {
    if (!areOfOneFamily(edging.grid, map->grid.kind)) continue;
    const bool has = std::any_of(map->layers.begin(), map->layers.end(), [](const Shared<Layer>& layer) { return !layer->meant.empty(); });
    if (!has) continue;
    const auto grid = makeGrid(map->grid);
    for (const Shared<Layer>& layer : map->layers) {
      LayerCells cells = layer.read();
      if (!Joiner(quilt, edging, *grid).layMeant(cells).empty()) mended = mended.with(LayerAt{map->id, layer->id}, std::move(cells));
    }
  }
  return mended;
}

JoinFindings joinFindings(const Quilt& quilt, LayerAt at) {
  JoinFindings found;
  const Map* map = quilt.map(at.map);
  const Layer* layer = quilt.layer(at);
  if (!map || !layer || !layer->holdsTiles() || quilt.edgings().empty() || layer->cells.empty()) return found;
  const CellSet all(layer->cells.usedBounds().intersected(map->bounds));
  std::set<Id> sheets;
  addSheets(quilt, layer->cells, all, sheets);
  const auto grid = makeGrid(map->grid);
  for (const Edging* edging : edgingsMet(quilt, map->grid, sheets)) {
    Joiner joiner(quilt, *edging, *grid);
    LayerCells cells = *layer;
    const auto may = [&](CellPos cell) { return map->bounds.contains(cell); };
    found.wrong = found.wrong.united(joiner.mend(cells, all, may, false));
    if (!edging->hems.empty()) found.hems = found.hems.united(withHemsMended(quilt, quilt, at, *edging, all, may).wrong);
    all.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        const CellPos cell{first.x + i, first.y};
        const EdgingMember* member = joiner.memberAt(cells.cells.at(cell));
        const auto wanted = member ? joiner.wantedAt(cells, cell) : std::nullopt;
        if (wanted && costOf(*edging, *member, *wanted) > 0) found.standIns.insert(cell);
      }
    });
  }
  return found;
}

}  // namespace uq
