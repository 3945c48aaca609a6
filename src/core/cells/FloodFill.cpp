#include "core/cells/FloodFill.h"

#include <algorithm>
#include <bit>
#include <cstring>
#include <iterator>
#include <map>
#include <memory>
#include <tuple>
#include <utility>

#include "core/base/InShares.h"

namespace uq {

namespace {

constexpr int kSide = kChunkSide;
constexpr std::uint64_t kAll = ~std::uint64_t{0};
constexpr std::size_t kPagesAThread = 4;  // a million cells
constexpr std::uint64_t kEvenBits = 0x5555555555555555;

std::size_t at(int i) { return static_cast<std::size_t>(i); }

// 64 bytes, each 0 or 1, as bits.
std::uint64_t packed(const std::uint8_t* bytes) {
  std::uint64_t bits = 0;
  for (int i = 0; i < 8; ++i) {
    std::uint64_t eight = 0;
    std::memcpy(&eight, bytes + 8 * i, 8);
    bits |= (eight * 0x0102040810204080u >> 56) << (8 * i);
  }
  return bits;
}

// From which columns of a row a step by dx, dy leads to a neighbour: [row is odd][dy + 1][dx + 1].
struct Steps {
  std::uint64_t from[2][3][3] = {};
  bool rowsHang = false;  // neighbours in a row hang together
  bool square = false;    // sides are (±1, 0) and (0, ±1) everywhere
};

Steps stepsOf(const Grid& grid, Through through) {
  Steps steps;
  const int sides = grid.turnOrder();
  for (int y = 0; y < 2; ++y) {
    for (int x = 0; x < 2; ++x) {
      const auto add = [&](CellPos to) {
        steps.from[y][to.y - y + 1][to.x - x + 1] |= x == 1 ? ~kEvenBits : kEvenBits;
      };
      for (int side = 0; side < sides; ++side) {
        add(grid.across({x, y}, side));
        const bool corners = through == Through::corners && grid.shape().kind != GridKind::staggered;
        const auto opposite = corners ? grid.acrossCorner({x, y}, side) : std::nullopt;
        if (opposite) add(*opposite);
      }
    }
  }
  const auto all = [&](int dy, int dx) {
    return steps.from[0][dy + 1][dx + 1] == kAll && steps.from[1][dy + 1][dx + 1] == kAll;
  };
  steps.rowsHang = all(0, 1) && all(0, -1);
  steps.square = sides == 4 && steps.rowsHang && through == Through::sides;
  return steps;
}

// The stretches of `open` that hold a bit of `seeds`, which lie in `open`.
std::uint64_t stretches(std::uint64_t open, std::uint64_t seeds) {
  // Upwards a carry runs through each stretch; downwards a parallel prefix.
  std::uint64_t filled = (open & ~(open + seeds)) | seeds;
  for (int by = 1; by < kSide; by *= 2) {
    filled |= open & (filled >> by);
    open &= open >> by;
  }
  return filled;
}

std::uint64_t shifted(std::uint64_t bits, int by) { return by > 0 ? bits << 1 : by < 0 ? bits >> 1 : bits; }

class Filling {
 public:
  Filling(const Grid& grid, CellRect bounds, const ChunkTest& test, Through through)
      : steps_(stepsOf(grid, through)), bounds_(bounds), test_(test) {
    if (bounds.empty()) return;
    chunk_ = ChunkPos::of({bounds.x0, bounds.y0});
    const ChunkPos end = ChunkPos::of({bounds.x1 - 1, bounds.y1 - 1});
    across_ = static_cast<unsigned>(end.cx - chunk_.cx + 1);
    down_ = static_cast<unsigned>(end.cy - chunk_.cy + 1);
    first_ = PagePos::of(chunk_);
    const PagePos last = PagePos::of(end);
    const std::int64_t columns = last.px - first_.px + 1;
    const std::int64_t pages = columns * (last.py - first_.py + 1);
    if (pages > kMostTabled) return;
    columns_ = static_cast<std::size_t>(columns);
    table_.resize(static_cast<std::size_t>(pages));
  }

  CellSet from(CellPos start) {
    if (!bounds_.contains(start)) return {};
    const ChunkPos first = ChunkPos::of(start);
    State& state = *stateAt(first);
    load(state, first);
    const CellRect cells = first.cells();
    if (state.holds == Holds::none) return {};
    if (state.holds == Holds::all) {
      fillWhole(state, first);
    } else {
      Chunk& chunk = chunks_[at(state.chunk)];
      const std::uint64_t bit = std::uint64_t{1} << (start.x - cells.x0);
      if (!(chunk.open[at(start.y - cells.y0)] & bit)) return {};
      seed(chunk, start.y - cells.y0, bit);
      settle(chunk);
      send(first, chunk.filled[0], chunk.filled[kSide - 1], chunk.left, chunk.right);
    }
    for (std::size_t next = 0; next < queue_.size(); ++next) {
      const auto [place, waiting] = queue_[next];
      grow(*waiting, place);
    }
    return result();
  }

 private:
  enum Edge { top, bottom, left, right };

  struct State {
    std::uint64_t in[4] = {};  // what neighbours reach of each edge: by column, or by row
    int chunk = -1;            // in chunks_
    Holds holds = Holds::none;
    bool known = false;
    bool waits = false;  // in the queue
    bool full = false;
  };
  struct PageStates {
    PagePos at;
    bool triedWhole = false;
    State states[kPageSide * kPageSide];
  };
  struct Chunk {
    ChunkRows open;
    ChunkRows filled{};
    std::uint64_t pending = 0;  // rows that have not yet reached out
    std::uint64_t left = 0;     // what is filled of the first and the last column, by row
    std::uint64_t right = 0;
  };

  // nullptr outside the bounds. Valid as long as the filling.
  State* stateAt(ChunkPos place) {
    const auto within = [](int at, int from, unsigned count) { return static_cast<unsigned>(at - from) < count; };
    if (!within(place.cx, chunk_.cx, across_) || !within(place.cy, chunk_.cy, down_)) return nullptr;
    const PagePos page = PagePos::of(place);
    return &statesOf(page).states[page.indexOf(place)];
  }

  // Those of a page that the bounds touch.
  PageStates& statesOf(PagePos page) {
    auto& slot = columns_ > 0 ? table_[at(page.py - first_.py) * columns_ + at(page.px - first_.px)] : scattered_[page];
    if (!slot) [[unlikely]] {
      slot = std::make_unique<PageStates>();
      slot->at = page;
      pages_.push_back(slot.get());
    }
    return *slot;
  }

  void load(State& state, ChunkPos place) {
    state.known = true;
    ChunkRows rows;
    state.holds = test_(place, rows);
    if (state.holds == Holds::none) return;
    const CellRect cells = place.cells();
    const CellRect inside = cells.intersected(bounds_);
    if (state.holds == Holds::all && inside == cells) return;
    if (state.holds == Holds::all) rows.fill(kAll);
    const std::uint64_t columns = bitsOf(inside.x0 - cells.x0, inside.x1 - cells.x0);
    for (int y = 0; y < kSide; ++y) {
      const bool within = cells.y0 + y >= inside.y0 && cells.y0 + y < inside.y1;
      rows[at(y)] &= within ? columns : 0;
    }
    state.holds = Holds::some;
    state.chunk = static_cast<int>(chunks_.size());
    chunks_.push_back({rows});
  }

  void seed(Chunk& chunk, int y, std::uint64_t bits) {
    const std::uint64_t fresh = bits & chunk.open[at(y)] & ~chunk.filled[at(y)];
    if (fresh == 0) return;
    chunk.filled[at(y)] |= steps_.rowsHang ? stretches(chunk.open[at(y)], fresh) : fresh;
    chunk.pending |= std::uint64_t{1} << y;
  }

  // Lets all pending rows reach out, up and down in turn.
  void settle(Chunk& chunk) {
    int y = 0;
    bool down = true;
    while (chunk.pending != 0) {
      const std::uint64_t ahead = chunk.pending & (down ? kAll << y : kAll >> (kSide - 1 - y));
      if (ahead == 0) {
        down = !down;
        continue;
      }
      y = down ? std::countr_zero(ahead) : kSide - 1 - std::countl_zero(ahead);
      chunk.pending &= ~(std::uint64_t{1} << y);
      const std::uint64_t row = chunk.filled[at(y)];
      if (steps_.square) {
        if (y > 0) seed(chunk, y - 1, row);
        if (y < kSide - 1) seed(chunk, y + 1, row);
        continue;
      }
      for (int dy = -1; dy <= 1; ++dy) {
        if (y + dy < 0 || y + dy >= kSide) continue;
        std::uint64_t reached = 0;
        for (int dx = -1; dx <= 1; ++dx) reached |= shifted(row & steps_.from[y & 1][dy + 1][dx + 1], dx);
        seed(chunk, y + dy, reached);
      }
    }
    std::uint64_t first = 0;
    std::uint64_t last = 0;
    for (int row = 0; row < kSide; ++row) {
      first |= (chunk.filled[at(row)] & 1) << row;
      last |= (chunk.filled[at(row)] >> (kSide - 1)) << row;
    }
    chunk.left = first;
    chunk.right = last;
  }

  void fillWhole(State& state, ChunkPos place) {
    if (fillPage(PagePos::of(place))) return;
    state.full = true;
    send(place, kAll, kAll, kAll, kAll);
  }

  // Fills all chunks of a page at once where all of their cells take part. Tries it once.
  bool fillPage(PagePos at) {
    PageStates& page = statesOf(at);
    if (std::exchange(page.triedWhole, true)) return false;
    const ChunkPos first = at.chunk(0);
    const ChunkPos last = at.chunk(kPageSide * kPageSide - 1);
    const CellRect cells = first.cells().united(last.cells());
    if (cells.intersected(bounds_) != cells) return false;
    for (int index = 0; index < kPageSide * kPageSide; ++index) {
      State& state = page.states[index];
      if (!state.known) load(state, at.chunk(index));
      if (state.holds != Holds::all) return false;
    }
    for (State& state : page.states) state.full = true;
    for (int i = 0; i < kPageSide; ++i) {
      send({first.cx + i, first.cy}, kAll, kAll, kAll, kAll);
      send({first.cx + i, last.cy}, kAll, kAll, kAll, kAll);
      send({first.cx, first.cy + i}, kAll, kAll, kAll, kAll);
      send({last.cx, first.cy + i}, kAll, kAll, kAll, kAll);
    }
    return true;
  }

  // Takes in what has reached a chunk's edges.
  void grow(State& state, ChunkPos place) {
    state.waits = false;
    if (!state.known) load(state, place);
    if (state.holds == Holds::none || state.full) return;
    if (state.holds == Holds::all) return fillWhole(state, place);
    Chunk& chunk = chunks_[at(state.chunk)];
    seed(chunk, 0, state.in[top]);
    seed(chunk, kSide - 1, state.in[bottom]);
    for (const auto& [edge, filled, bit] :
         {std::tuple(left, chunk.left, std::uint64_t{1}), std::tuple(right, chunk.right, ~(kAll >> 1))}) {
      for (std::uint64_t rows = state.in[edge] & ~filled; rows != 0; rows &= rows - 1) {
        seed(chunk, std::countr_zero(rows), bit);
      }
    }
    if (chunk.pending == 0) return;
    settle(chunk);
    send(place, chunk.filled[0], chunk.filled[kSide - 1], chunk.left, chunk.right);
  }

  void receive(ChunkPos place, Edge edge, std::uint64_t bits) {
    if (bits == 0) return;
    if (State* state = stateAt(place)) reach(*state, place, edge, bits);
  }

  void reach(State& state, ChunkPos place, Edge edge, std::uint64_t bits) {
    if (state.full || (state.known && state.holds == Holds::none)) return;
    const std::uint64_t fresh = bits & ~state.in[edge];
    if (fresh == 0) return;
    state.in[edge] |= fresh;
    if (state.waits) return;
    if (state.chunk >= 0 && (edge == top || edge == bottom)) {
      const Chunk& chunk = chunks_[at(state.chunk)];
      const int y = edge == top ? 0 : kSide - 1;
      if ((fresh & chunk.open[at(y)] & ~chunk.filled[at(y)]) == 0) return;
    }
    state.waits = true;
    queue_.emplace_back(place, &state);
  }

  // Reaches out from a chunk's filled edges to its eight neighbours.
  void send(ChunkPos place, std::uint64_t first, std::uint64_t last, std::uint64_t west, std::uint64_t east) {
    const auto [cx, cy] = place;
    if (steps_.square) {
      receive({cx, cy - 1}, bottom, first);
      receive({cx - 1, cy}, right, west);
      receive({cx + 1, cy}, left, east);
      receive({cx, cy + 1}, top, last);
      return;
    }
    for (const int dy : {-1, 1}) {
      const std::uint64_t row = dy < 0 ? first : last;
      const int odd = dy < 0 ? 0 : 1;
      const Edge edge = dy < 0 ? bottom : top;
      std::uint64_t reached = 0;
      for (int dx = -1; dx <= 1; ++dx) {
        const std::uint64_t going = row & steps_.from[odd][dy + 1][dx + 1];
        reached |= shifted(going, dx);
        if (dx < 0 && (going & 1)) receive({cx - 1, cy + dy}, edge, std::uint64_t{1} << (kSide - 1));
        if (dx > 0 && going >> (kSide - 1)) receive({cx + 1, cy + dy}, edge, 1);
      }
      receive({cx, cy + dy}, edge, reached);
    }
    for (const int dx : {-1, 1}) {
      const std::uint64_t column = dx < 0 ? west : east;
      std::uint64_t reached = 0;
      for (int odd = 0; odd < 2; ++odd) {
        for (int dy = -1; dy <= 1; ++dy) {
          const std::uint64_t columns = steps_.from[odd][dy + 1][dx + 1];
          const bool leaves = dx < 0 ? columns & 1 : columns >> (kSide - 1);
          if (leaves) reached |= shifted(column & (odd ? ~kEvenBits : kEvenBits), dy);
        }
      }
      receive({cx + dx, cy}, dx < 0 ? right : left, reached);
    }
  }

  CellSet result() {
    std::vector<CellSet::PageRows> all;
    all.reserve(pages_.size());
    for (const PageStates* page : pages_) {
      CellSet::PageRows rows{page->at, 0, {}};
      for (int index = 0; index < kPageSide * kPageSide; ++index) {
        const State& state = page->states[index];
        if (state.full) rows.full |= std::uint64_t{1} << index;
        if (state.chunk >= 0) rows.some.emplace_back(index, chunks_[at(state.chunk)].filled);
      }
      all.push_back(std::move(rows));
    }
    return CellSet::ofPages(std::move(all));
  }

  Steps steps_;
  CellRect bounds_;
  const ChunkTest& test_;
  // The pages by their place: in a table where the bounds are not too wide for one.
  static constexpr std::int64_t kMostTabled = 1 << 16;
  ChunkPos chunk_;  // the first of the bounds, and how many there are each way
  unsigned across_ = 0;
  unsigned down_ = 0;
  PagePos first_;
  std::size_t columns_ = 0;  // of the table; 0 where there is none
  std::vector<std::unique_ptr<PageStates>> table_;
  std::map<PagePos, std::unique_ptr<PageStates>> scattered_;
  std::vector<const PageStates*> pages_;  // all that are touched
  std::vector<Chunk> chunks_;
  std::vector<std::pair<ChunkPos, State*>> queue_;
};

}  // namespace

namespace {

constexpr std::size_t kManyWanted = 12;  // tiles from which on looking each cell up is faster than comparing it with each

// For very many tiles: whether each is wanted, by slot and number.
ChunkTest holdsOneOfMany(const CellGrid& cells, const std::vector<TileRef>& tiles) {
  std::vector<std::vector<bool>> wanted;
  for (const TileRef tile : tiles) {
    if (wanted.size() <= tile.slot) wanted.resize(std::size_t{tile.slot} + 1);
    std::vector<bool>& numbers = wanted[tile.slot];
    if (numbers.size() <= tile.number) numbers.resize(std::size_t{tile.number} + 1);
    numbers[tile.number] = true;
  }
  return [&cells, wanted = std::move(wanted)](ChunkPos place, ChunkRows& rows) {
    const CellGrid::ChunkView chunk = cells.chunk(place);
    const auto holds = [&wanted](Cell one) {
      const std::uint32_t slot = one.bits() >> 22;
      const std::uint32_t number = one.bits() >> 4 & kLastTileNumber;
      return slot < wanted.size() && number < wanted[slot].size() && wanted[slot][number];
    };
    if (chunk.isUniform()) return holds(chunk.uniform()) ? Holds::all : Holds::none;
    if (!chunk.any(holds)) return Holds::none;
    rows = chunk.rowsWhere(holds);
    return std::all_of(rows.begin(), rows.end(), [](std::uint64_t row) { return row == kAll; }) ? Holds::all : Holds::some;
  };
}

}  // namespace

ChunkTest holdsOneOf(const CellGrid& cells, std::vector<TileRef> tiles) {
  if (tiles.size() >= kManyWanted) return holdsOneOfMany(cells, tiles);
  std::vector<std::uint32_t> wanted;
  for (const TileRef tile : tiles) wanted.push_back(tile.slot << 18 | tile.number);
  return [&cells, wanted = std::move(wanted)](ChunkPos place, ChunkRows& rows) {
    const CellGrid::ChunkView chunk = cells.chunk(place);
    const auto holds = [&wanted](Cell one) {
      return std::find(wanted.begin(), wanted.end(), one.bits() >> 4) != wanted.end();
    };
    if (chunk.isUniform()) return holds(chunk.uniform()) ? Holds::all : Holds::none;
    if (!chunk.dense()) {
      if (!chunk.any(holds)) return Holds::none;
      rows = chunk.rowsWhere(holds);
      return std::all_of(rows.begin(), rows.end(), [](std::uint64_t row) { return row == kAll; }) ? Holds::all
                                                                                                  : Holds::some;
    }
    const Cell* cell = chunk.dense()->data();
    std::uint64_t any = 0;
    std::uint64_t all = kAll;
    for (std::uint64_t& row : rows) {
      std::uint8_t hits[kSide] = {};
      for (const std::uint32_t tile : wanted) {
        for (int x = 0; x < kSide; ++x) hits[x] |= static_cast<std::uint8_t>(cell[x].bits() >> 4 == tile);
      }
      row = packed(hits);
      any |= row;
      all &= row;
      cell += kSide;
    }
    return any == 0 ? Holds::none : all == kAll ? Holds::all : Holds::some;
  };
}

ChunkTest passesAll(std::vector<ChunkTest> tests) {
  return [tests = std::move(tests)](ChunkPos place, ChunkRows& rows) {
    Holds all = Holds::all;
    ChunkRows own;
    for (const ChunkTest& test : tests) {
      const Holds one = test(place, own);
      if (one == Holds::none) return Holds::none;
      if (one == Holds::all) continue;
      if (all == Holds::all) {
        rows = own;
      } else {
        for (int y = 0; y < kSide; ++y) rows[at(y)] &= own[at(y)];
      }
      all = Holds::some;
    }
    return all;
  };
}

CellSet floodFill(const Grid& grid, CellRect bounds, CellPos start, const ChunkTest& test, Through through) {
  return Filling(grid, bounds, test, through).from(start);
}

namespace {

// Clears what of a chunk's rows lies beyond `part` of its cells.
void keepWithin(ChunkRows& rows, CellRect part, CellRect chunk) {
  for (int y = chunk.y0; y < chunk.y1; ++y) {
    rows[at(y - chunk.y0)] &= y < part.y0 || y >= part.y1 ? 0 : bitsOf(part.x0 - chunk.x0, part.x1 - chunk.x0);
  }
}

}  // namespace

CellSet cellsPassing(CellRect bounds, const ChunkTest& test) {
  if (bounds.empty()) return {};
  const PagePos first = PagePos::of(ChunkPos::of({bounds.x0, bounds.y0}));
  const PagePos last = PagePos::of(ChunkPos::of({bounds.x1 - 1, bounds.y1 - 1}));
  const std::size_t across = at(last.px - first.px + 1);
  const auto look = [&](std::size_t from, std::size_t to) {
    std::vector<CellSet::PageRows> pages;
    for (std::size_t i = from; i < to; ++i) {
      CellSet::PageRows page{{first.px + static_cast<int>(i % across), first.py + static_cast<int>(i / across)}, 0, {}};
      page.some.reserve(kPageSide * kPageSide);
      for (int index = 0; index < kPageSide * kPageSide; ++index) {
        const ChunkPos place = page.at.chunk(index);
        const CellRect all = place.cells();
        const CellRect part = all.intersected(bounds);
        if (part.empty()) continue;
        ChunkRows rows;
        const Holds holds = test(place, rows);
        if (holds == Holds::none) continue;
        if (holds == Holds::all && part == all) {
          page.full |= std::uint64_t{1} << index;
          continue;
        }
        if (holds == Holds::all) rows.fill(kAll);
        if (part != all) keepWithin(rows, part, all);
        page.some.emplace_back(index, rows);
      }
      pages.push_back(std::move(page));
    }
    return pages;
  };
  std::vector<CellSet::PageRows> pages;
  for (auto& share : inShares(across * at(last.py - first.py + 1), kPagesAThread, look)) {
    std::move(share.begin(), share.end(), std::back_inserter(pages));
  }
  return CellSet::ofPages(std::move(pages));
}

}  // namespace uq
