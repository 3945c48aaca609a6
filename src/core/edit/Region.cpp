#include "core/edit/Region.h"

#include <algorithm>

#include "core/cells/CellShapes.h"
#include "core/edit/Patchwork.h"

namespace uq {

namespace {

ChunkTest isIn(const CellSet& set) {
  return [&set](ChunkPos at, ChunkRows& rows) {
    rows = set.rowsAt(at);
    const bool none = std::all_of(rows.begin(), rows.end(), [](std::uint64_t row) { return row == 0; });
    const bool all = std::all_of(rows.begin(), rows.end(), [](std::uint64_t row) { return ~row == 0; });
    return none ? Holds::none : all ? Holds::all : Holds::some;
  };
}

const ChunkRows& spelt(Holds holds, const ChunkRows& some) {
  static constexpr ChunkRows kNone{};
  static const ChunkRows kAll = [] {
    ChunkRows rows;
    rows.fill(~std::uint64_t{0});
    return rows;
  }();
  return holds == Holds::none ? kNone : holds == Holds::all ? kAll : some;
}

// The cells whose nearest painted tile, looking through `layers` from the nearest, is one of `tiles`; the empty tile
// stands for cells on which nothing is painted.
ChunkTest showsOneOf(const std::vector<const CellGrid*>& layers, std::vector<TileRef> tiles) {
  const bool nothing = std::find(tiles.begin(), tiles.end(), TileRef{}) != tiles.end();
  std::vector<std::pair<ChunkTest, ChunkTest>> looks;  // holds one of them; is empty
  for (const CellGrid* cells : layers) looks.emplace_back(holdsOneOf(*cells, tiles), holdsOneOf(*cells, {TileRef{}}));
  return [looks = std::move(looks), nothing](ChunkPos at, ChunkRows& rows) {
    ChunkRows open;
    open.fill(~std::uint64_t{0});
    ChunkRows found{};
    ChunkRows some;
    for (const auto& [holds, isEmpty] : looks) {
      const Holds empty = isEmpty(at, some);
      if (empty == Holds::all) continue;
      const ChunkRows through = spelt(empty, some);
      const Holds held = holds(at, some);
      const ChunkRows& hits = spelt(held, some);
      for (std::size_t y = 0; y < rows.size(); ++y) {
        found[y] |= open[y] & hits[y] & ~through[y];
        open[y] &= through[y];
      }
    }
    std::uint64_t any = 0;
    std::uint64_t all = ~std::uint64_t{0};
    for (std::size_t y = 0; y < rows.size(); ++y) {
      rows[y] = nothing ? found[y] | open[y] : found[y];
      any |= rows[y];
      all &= rows[y];
    }
    return any == 0 ? Holds::none : ~all == 0 ? Holds::all : Holds::some;
  };
}

TileRef tileAt(const CellGrid& cells, CellPos at) {
  const Cell cell = cells.at(at);
  return cell.empty() ? TileRef{} : cell.tile();
}

bool holds(const InHand& hand, TileRef tile) {
  bool found = false;
  hand.forEachCell([&](Cell cell) { found = found || cell.tile() == tile; });
  return found;
}

}  // namespace

std::vector<TileRef> kinOf(const Quilt& quilt, const InHand* hand, TileRef tile, Alike alike) {
  std::vector<TileRef> kin{tile};
  if (tile == TileRef{} || alike == Alike::tile) return kin;
  if (alike == Alike::pile) {
    const Sheet* own = quilt.sheetAt(tile.slot);
    const auto addAll = [&](const Sheet& sheet, SheetSlot slot) {
      const auto count = static_cast<std::uint32_t>(sheet.tileCount());
      for (std::uint32_t cell = 0; cell < count; ++cell) kin.push_back({slot, sheet.numberAt(cell)});
    };
    if (own && (own->origin.pile.empty() || tile.slot == kChalkSlot)) addAll(*own, tile.slot);
    if (own && !own->origin.pile.empty()) {
      for (const auto& sheet : quilt.sheets()) {
        const auto slot = quilt.slots().find(sheet->id);
        if (sheet->origin.pile == own->origin.pile && slot) addAll(sheet.read(), *slot);
      }
    }
  }
  const auto look = [&](const InHand& mix) {
    if (mix.manner != Manner::mix || !holds(mix, tile)) return;
    for (const MixMember& member : mix.members) {
      for (const Block::Part& part : member.block.parts()) kin.push_back(part.cell.tile());
    }
  };
  if (hand) look(*hand);
  for (const auto& stamp : quilt.stamps()) {
    look(stamp->held);
    if (alike != Alike::stamp) continue;
    stamp->held.forEachBlock([&](const Block& block) {
      const auto& parts = block.parts();
      const auto is = [tile](const Block::Part& part) { return part.cell.tile() == tile; };
      if (std::none_of(parts.begin(), parts.end(), is)) return;
      for (const Block::Part& part : parts) kin.push_back(part.cell.tile());
    });
  }
  std::sort(kin.begin(), kin.end());
  kin.erase(std::unique(kin.begin(), kin.end()), kin.end());
  return kin;
}

bool usuallyAsSeen(const Quilt& quilt, LayerAt at, CellPos cell) {
  const Layer* layer = quilt.layer(at);
  return layer && layer->cells.at(cell).empty();
}

std::string whyNoRegion(const Quilt& quilt, const RegionAsk& ask) {
  const CellRect all = Patchwork::under(quilt, ask.layer.map).bounds();
  const bool isWide = isTooWide(ask.within.empty() ? all : ask.within.bounds());
  return isWide ? "This map is too large to look through at once: select a part of it first" : "";
}

CellSet regionOf(const Quilt& quilt, const RegionAsk& ask, CellPos at) {
  const Layer* layer = quilt.layer(ask.layer);
  if (!layer || !whyNoRegion(quilt, ask).empty()) return {};
  const Map& map = *quilt.map(ask.layer.map);
  const Patchwork patchwork = Patchwork::under(quilt, map.id);
  if (!patchwork.contains(at) || (!ask.within.empty() && !ask.within.contains(at))) return {};
  const auto grid = makeGrid(map.grid);
  TileRef tile = tileAt(layer->cells, at);
  std::vector<const CellGrid*> seen;
  if (ask.asSeen) {
    for (auto one = map.layers.rbegin(); one != map.layers.rend(); ++one) {
      if (!ask.hidden.contains((*one)->id)) seen.push_back(&(*one)->cells);
    }
    const auto top = std::find_if(seen.begin(), seen.end(), [&](const CellGrid* one) { return !one->at(at).empty(); });
    tile = top == seen.end() ? TileRef{} : (*top)->at(at).tile();
  }
  const std::vector<TileRef> same = kinOf(quilt, ask.hand, tile, ask.alike);
  std::vector<ChunkTest> tests{ask.asSeen ? showsOneOf(seen, same) : holdsOneOf(layer->cells, same)};
  if (!ask.within.empty()) tests.push_back(isIn(ask.within));
  const ChunkTest test = tests.size() == 1 ? tests.front() : passesAll(std::move(tests));
  const CellRect bounds = ask.within.empty() ? patchwork.bounds() : patchwork.bounds().intersected(ask.within.bounds());
  return ask.everywhere ? cellsPassing(bounds, test) : floodFill(*grid, bounds, at, test, ask.through);
}

}  // namespace uq
