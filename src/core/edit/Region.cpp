#include "core/edit/Region.h"

#include <algorithm>

#include "core/cells/CellShapes.h"

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

// The tiles of the edgings that show the material that a tile shows: all whose middle is of it, or those that show nothing else.
void addMaterial(const Quilt& quilt, bool withBorders, TileRef tile, std::vector<TileRef>& kin) {
  const Sheet* sheet = quilt.sheetAt(tile.slot);
  if (!sheet || quilt.edgings().empty()) return;
  const auto isPlain = [](const EdgingMember& one) {
    const auto is = [&](const std::vector<MaterialIndex>& places) { return std::all_of(places.begin(), places.end(), [&](MaterialIndex place) { return place == one.middle; }); };
    return is(one.sides) && is(one.corners);
  };
  for (const Shared<Edging>& edging : quilt.edgings()) {
    if (edging->decides == Decides::path && !withBorders) continue;
    const auto counts = [&](const EdgingMember& one) { return withBorders || isPlain(one); };
    const auto own = std::find_if(edging->members.begin(), edging->members.end(), [&](const EdgingMember& one) {
      return one.tile.tile == tile.number && one.tile.sheet == sheet->id && counts(one);
    });
    if (own == edging->members.end()) continue;
    for (const EdgingMember& one : edging->members) {
      const auto slot = one.middle == own->middle && counts(one) ? quilt.slots().find(one.tile.sheet) : std::nullopt;
      if (slot) kin.push_back({*slot, one.tile.tile});
    }
  }
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
  // Of what joins all that shows the same and nothing else; with a material in hand its borders, too.
  if (alike == Alike::mix) addMaterial(quilt, hand && hand->joins(), tile, kin);
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

Patchwork patchworkOf(const Quilt& quilt, const RegionAsk& ask) {
  const bool alone = !ask.acrossSeams || ask.everywhere || !ask.within.empty();
  return alone ? Patchwork::under(quilt, ask.layer.map) : Patchwork::across(quilt, ask.layer.map, ask.closed);
}

std::string whyNoRegion(const Quilt& quilt, const RegionAsk& ask) {
  const CellRect all = patchworkOf(quilt, ask).bounds();
  const bool isWide = isTooWide(ask.within.empty() ? all : ask.within.bounds());
  return isWide ? "This map is too large to look through at once: select a part of it first" : "";
}

namespace {

// Layers of a map that are seen, the nearest first.
std::vector<const CellGrid*> seenOn(const Map& map, const std::set<Id>& hidden) {
  std::vector<const CellGrid*> seen;
  for (auto one = map.layers.rbegin(); one != map.layers.rend(); ++one) {
    if (!hidden.contains((*one)->id)) seen.push_back(&(*one)->cells);
  }
  return seen;
}

// A fill on a canvas that repeats: what reaches an end of the period goes on at the other.
CellSet fillRound(const Grid& grid, const Patchwork& patchwork, CellPos at, const ChunkTest& test, Through through) {
  const CellRect all = patchwork.bounds();
  const Period& period = patchwork.period();
  const auto folded = [&](CellPos cell) {
    if (period.across > 0) cell.x -= floorDiv(cell.x - all.x0, period.across) * period.across;
    if (period.down > 0) cell.y -= floorDiv(cell.y - all.y0, period.down) * period.down;
    return cell;
  };
  CellSet region;
  CellSet looked;  // along the ends, from which was gone on
  std::vector<CellPos> seeds{folded(at)};
  while (!seeds.empty()) {
    const CellPos seed = seeds.back();
    seeds.pop_back();
    if (region.contains(seed)) continue;
    const CellSet more = floodFill(grid, all, seed, test, through);
    region = region.united(more);
    const auto goOn = [&](const CellRect& end) {
      more.intersected(CellSet(end)).forEachStretch([&](CellPos first, int count) {
        for (int i = 0; i < count; ++i) {
          const CellPos cell{first.x + i, first.y};
          if (looked.contains(cell)) continue;
          looked.insert(cell);
          const int sides = grid.turnOrder();
          for (int side = 0; side < sides; ++side) {
            const auto visit = [&](CellPos next) {
              if (!all.contains(next) && all.contains(folded(next)) && !region.contains(folded(next))) seeds.push_back(folded(next));
            };
            visit(grid.across(cell, side));
            const auto corner = through == Through::corners ? grid.acrossCorner(cell, side) : std::nullopt;
            if (corner) visit(*corner);
          }
        }
      });
    };
    goOn({all.x0, all.y0, all.x0 + 1, all.y1});
    goOn({all.x1 - 1, all.y0, all.x1, all.y1});
    goOn({all.x0, all.y0, all.x1, all.y0 + 1});
    goOn({all.x0, all.y1 - 1, all.x1, all.y1});
  }
  return region;
}

}  // namespace

CellSet regionOf(const Quilt& quilt, const RegionAsk& ask, CellPos at) {
  const Layer* layer = quilt.layer(ask.layer);
  if (!layer || !whyNoRegion(quilt, ask).empty()) return {};
  const Map& map = *quilt.map(ask.layer.map);
  const Patchwork patchwork = patchworkOf(quilt, ask);
  const auto home = patchwork.at(at);
  if (!home || (!ask.within.empty() && !ask.within.contains(at))) return {};
  const auto grid = makeGrid(map.grid);
  // What is there, on whichever map the cell lies.
  static const CellGrid kNothing;
  const auto cellsOn = [&](Id on) {
    const auto partner = partnerOn(quilt, ask.layer, on);
    return partner ? &quilt.layer(*partner)->cells : &kNothing;
  };
  const CellPos own = home->onMap(at);
  TileRef tile = tileAt(*cellsOn(home->map), own);
  if (ask.asSeen) {
    const std::vector<const CellGrid*> seen = seenOn(*quilt.map(home->map), ask.hidden);
    const auto top = std::find_if(seen.begin(), seen.end(), [&](const CellGrid* one) { return !one->at(own).empty(); });
    tile = top == seen.end() ? TileRef{} : (*top)->at(own).tile();
  }
  const std::vector<TileRef> same = kinOf(quilt, ask.hand, tile, ask.alike);
  std::vector<ChunkTest> byPatch;
  for (const Patch& patch : patchwork.patches()) {
    byPatch.push_back(ask.asSeen ? showsOneOf(seenOn(*quilt.map(patch.map), ask.hidden), same)
                                 : holdsOneOf(*cellsOn(patch.map), same));
  }
  std::vector<ChunkTest> tests{onCanvas(patchwork, std::move(byPatch))};
  if (!ask.within.empty()) tests.push_back(isIn(ask.within));
  const ChunkTest test = tests.size() == 1 ? tests.front() : passesAll(std::move(tests));
  if (patchwork.period().any()) return fillRound(*grid, patchwork, at, test, ask.through);
  const CellRect bounds = ask.within.empty() ? patchwork.bounds() : patchwork.bounds().intersected(ask.within.bounds());
  return ask.everywhere ? cellsPassing(bounds, test) : floodFill(*grid, bounds, at, test, ask.through);
}

}  // namespace uq
