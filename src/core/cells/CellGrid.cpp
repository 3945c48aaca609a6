#include "core/cells/CellGrid.h"

#include <algorithm>
#include <bit>
#include <cstring>
#include <utility>

namespace uq {

namespace {

bool isUniform(const ChunkCells& cells) {
  // Most chunks differ at once; the rest is compared with itself, one cell on.
  return std::memcmp(cells.data(), cells.data() + 1, sizeof cells - sizeof(Cell)) == 0;
}

// Calls `visit(first, count)` for the stretches of cells that rows say, as places in a chunk's cells.
template <class Visit>
void forEachStretch(const ChunkRows& rows, Visit&& visit) {
  for (std::size_t y = 0; y < rows.size(); ++y) {
    for (std::uint64_t row = rows[y]; row != 0;) {
      const int x = std::countr_zero(row);
      const int count = std::countr_one(row >> x);
      visit(static_cast<std::ptrdiff_t>(y * kChunkSide) + x, count);
      row &= ~bitsOf(x, x + count);
    }
  }
}

bool areAll(const ChunkRows& rows, std::uint64_t row) {
  return std::all_of(rows.begin(), rows.end(), [row](std::uint64_t one) { return one == row; });
}

// The smallest rectangle of cells in which two views of one chunk differ.
CellRect differing(const CellGrid::ChunkView& a, const CellGrid::ChunkView& b) {
  const CellRect all = a.at.cells();
  CellRect rect;
  for (int y = 0; y < kChunkSide; ++y) {
    const auto differs = [&](int x) { return a.cell(x, y) != b.cell(x, y); };
    int first = 0;
    while (first < kChunkSide && !differs(first)) ++first;
    if (first == kChunkSide) continue;
    int last = kChunkSide - 1;
    while (!differs(last)) --last;
    rect = rect.united({all.x0 + first, all.y0 + y, all.x0 + last + 1, all.y0 + y + 1});
  }
  return rect;
}

}  // namespace

std::size_t CellGrid::slotIndex(ChunkPos at) {
  const int row = at.cy - floorDiv(at.cy, kPageSide) * kPageSide;
  const int column = at.cx - floorDiv(at.cx, kPageSide) * kPageSide;
  return static_cast<std::size_t>(row * kPageSide + column);
}

CellGrid::Pages::const_iterator CellGrid::pageFor(const Pages& pages, ChunkPos at, bool& found) {
  const std::pair wanted(floorDiv(at.cy, kPageSide), floorDiv(at.cx, kPageSide));
  const auto it = std::lower_bound(pages.begin(), pages.end(), wanted,
                                   [](const PageAt& page, const auto& w) { return std::pair(page.py, page.px) < w; });
  found = it != pages.end() && std::pair(it->py, it->px) == wanted;
  return it;
}

const CellGrid::Slot* CellGrid::slotAt(ChunkPos at) const {
  bool found = false;
  const auto page = pageFor(pages_.read(), at, found);
  return found ? &page->page.read().slots[slotIndex(at)] : nullptr;
}

void CellGrid::editSlot(ChunkPos at, const std::function<void(Slot&)>& change) {
  pages_.edit([&](Pages& pages) {
    bool found = false;
    auto place = pages.begin() + (pageFor(pages, at, found) - pages.cbegin());
    if (!found) {
      place = pages.insert(place, PageAt{floorDiv(at.cx, kPageSide), floorDiv(at.cy, kPageSide), {}});
    }
    bool blank = false;
    place->page.edit([&](Page& page) {
      Slot& slot = page.slots[slotIndex(at)];
      change(slot);
      blank =
          slot.empty() && std::all_of(page.slots.begin(), page.slots.end(), [](const Slot& s) { return s.empty(); });
    });
    if (blank) pages.erase(place);
  });
}

Cell CellGrid::at(CellPos pos) const {
  const ChunkView view = chunk(ChunkPos::of(pos));
  return view.cell(pos.x - view.at.cx * kChunkSide, pos.y - view.at.cy * kChunkSide);
}

CellGrid::ChunkView CellGrid::chunk(ChunkPos at) const {
  const Slot* slot = slotAt(at);
  return slot ? slot->seen(at) : ChunkView(at, nullptr, nullptr, {});
}

bool CellGrid::set(CellPos pos, Cell cell) {
  if (at(pos) == cell) return false;
  fill({pos.x, pos.y, pos.x + 1, pos.y + 1}, cell);
  return true;
}

void CellGrid::fill(CellRect cells, Cell cell) {
  if (cells.empty()) return;
  const ChunkPos at = ChunkPos::of({cells.x0, cells.y0});
  const CellRect all = at.cells();
  if (cells == all) return editSlot(at, [cell](Slot& slot) { slot = {{}, {}, cell}; });
  if (!(cells.intersected(all) == cells)) return fill(CellSet(cells), cell);
  editSlot(at, [&](Slot& slot) {
    slot.lay(CellRect{cells.x0 - all.x0, cells.y0 - all.y0, cells.x1 - all.x0, cells.y1 - all.y0}, cell);
  });
}

void CellGrid::fill(const CellSet& cells, Cell cell) {
  if (cells.empty()) return;
  // All pages that are covered whole are this one.
  Shared<Page> whole;
  if (!cell.empty()) whole.edit([cell](Page& page) { page.slots.fill({{}, {}, cell}); });
  pages_.edit([&](Pages& pages) {
    Pages all;
    all.reserve(pages.size() + 1);
    auto rest = pages.begin();
    cells.forEachPage([&](const CellSet::PageView& laid) {
      const std::pair place(laid.at.py, laid.at.px);
      while (rest != pages.end() && std::pair(rest->py, rest->px) < place) all.push_back(std::move(*rest++));
      Shared<Page> page;
      if (rest != pages.end() && std::pair(rest->py, rest->px) == place) page = std::move(rest++->page);
      if (laid.full == ~std::uint64_t{0}) {
        page = whole;
      } else if (!(page.isBlank() && cell.empty())) {
        bool blank = true;
        page.edit([&](Page& own) {
          for (std::size_t i = 0; i < own.slots.size(); ++i) {
            Slot& slot = own.slots[i];
            if (laid.full >> i & 1) {
              slot = {{}, {}, cell};
            } else if (const ChunkRows* rows = laid.some(i)) {
              slot.lay(*rows, cell);
            }
            blank = blank && slot.empty();
          }
        });
        if (blank) page = {};
      }
      if (!page.isBlank()) all.push_back({laid.at.px, laid.at.py, std::move(page)});
    });
    all.insert(all.end(), std::move_iterator(rest), std::move_iterator(pages.end()));
    pages = std::move(all);
  });
}

void CellGrid::setChunk(ChunkPos at, const ChunkCells& cells) {
  editSlot(at, [&](Slot& slot) { slot = slotOf(cells); });
}

CellGrid::ChunkView CellGrid::Slot::seen(ChunkPos at) const {
  return {at, dense.isBlank() ? nullptr : &dense.read(), twoTone.isBlank() ? nullptr : &twoTone.read(), ground};
}

bool CellGrid::Slot::operator==(const Slot& other) const {
  const bool sameForm = dense.isBlank() == other.dense.isBlank();
  if (sameForm) return dense == other.dense && twoTone == other.twoTone && ground == other.ground;
  const ChunkView mine = seen({});
  const ChunkView theirs = other.seen({});
  return !mine.isUniform() && !theirs.isUniform() && mine.cells() == theirs.cells();
}

CellGrid::Slot CellGrid::slotOf(const ChunkCells& cells) {
  const Cell first = cells.front();
  const auto second = std::find_if(cells.begin(), cells.end(), [first](Cell cell) { return cell != first; });
  if (second == cells.end()) return {{}, {}, first};
  const bool two = std::all_of(second, cells.end(), [&](Cell cell) { return cell == first || cell == *second; });
  if (!two) return {Shared<Chunk>(std::in_place, Revision::next(), cells), {}, {}};
  const Cell ground = std::min(first, *second, [](Cell a, Cell b) { return a.bits() < b.bits(); });
  TwoTone twoTone{Revision::next(), {}, ground == first ? *second : first};
  const Cell* cell = cells.data();
  for (std::uint64_t& row : twoTone.rows) {
    for (int x = 0; x < kChunkSide; ++x) row |= std::uint64_t{*cell++ != ground} << x;
  }
  return {{}, Shared(std::move(twoTone)), ground};
}

template <class Stretches>
void CellGrid::Slot::layOnDense(Stretches&& stretches, Cell cell) {
  bool changes = false;
  stretches([&](std::ptrdiff_t first, int count) {
    const auto from = dense.read().cells.begin() + first;
    changes = changes || std::any_of(from, from + count, [cell](Cell there) { return there != cell; });
  });
  if (!changes) return;
  dense.edit([&](Chunk& chunk) {
    chunk.revision = Revision::next();
    stretches([&](std::ptrdiff_t first, int count) { std::fill_n(chunk.cells.begin() + first, count, cell); });
  });
  if (isUniform(dense.read().cells)) *this = {{}, {}, cell};
}

void CellGrid::Slot::lay(CellRect part, Cell cell) {
  if (dense.isBlank()) {
    ChunkRows rows{};
    for (int y = part.y0; y < part.y1; ++y) rows[static_cast<std::size_t>(y)] = bitsOf(part.x0, part.x1);
    return lay(rows, cell);
  }
  const auto stretches = [part](auto&& visit) {
    for (int y = part.y0; y < part.y1; ++y) visit(std::ptrdiff_t{y} * kChunkSide + part.x0, part.width());
  };
  layOnDense(stretches, cell);
}

void CellGrid::Slot::lay(const ChunkRows& rows, Cell cell) {
  const auto stretches = [&rows](auto&& visit) { forEachStretch(rows, visit); };
  if (!dense.isBlank()) return layOnDense(stretches, cell);
  if (twoTone.isBlank()) {
    if (cell == ground || areAll(rows, 0)) return;
    if (areAll(rows, ~std::uint64_t{0})) {
      ground = cell;
      return;
    }
    TwoTone made{Revision::next(), rows, cell};
    if (cell.bits() < ground.bits()) {
      for (std::uint64_t& row : made.rows) row = ~row;
      made.marked = std::exchange(ground, cell);
    }
    twoTone = Shared(std::move(made));
    return;
  }
  const TwoTone& old = twoTone.read();
  if (cell != ground && cell != old.marked) {
    dense = Shared(Chunk{Revision::next(), seen({}).cells()});
    twoTone = {};
    ground = {};
    return layOnDense(stretches, cell);
  }
  ChunkRows marked = old.rows;
  for (std::size_t y = 0; y < marked.size(); ++y)
    marked[y] = cell == ground ? marked[y] & ~rows[y] : marked[y] | rows[y];
  if (marked == old.rows) return;
  if (areAll(marked, 0) || areAll(marked, ~std::uint64_t{0})) {
    *this = {{}, {}, cell};
    return;
  }
  twoTone.edit([&](TwoTone& two) {
    two.revision = Revision::next();
    two.rows = marked;
  });
}

std::array<Cell, kChunkSide> CellGrid::ChunkView::row(int y) const {
  std::array<Cell, kChunkSide> row;
  if (dense_) {
    std::copy_n(dense_->cells.begin() + y * kChunkSide, kChunkSide, row.begin());
    return row;
  }
  row.fill(ground_);
  if (!twoTone_) return row;
  for (std::uint64_t bits = twoTone_->rows[static_cast<std::size_t>(y)]; bits != 0; bits &= bits - 1) {
    row[static_cast<std::size_t>(std::countr_zero(bits))] = twoTone_->marked;
  }
  return row;
}

ChunkCells CellGrid::ChunkView::cells() const {
  if (dense_) return dense_->cells;
  ChunkCells cells;
  cells.fill(ground_);
  if (twoTone_) {
    forEachStretch(twoTone_->rows, [&](std::ptrdiff_t first, int count) {
      std::fill_n(cells.begin() + first, count, twoTone_->marked);
    });
  }
  return cells;
}

void CellGrid::forEachChunk(const std::function<void(const ChunkView&)>& visit) const {
  const Pages& pages = pages_.read();
  for (auto band = pages.begin(); band != pages.end();) {
    const auto bandEnd = std::find_if(band, pages.end(), [&](const PageAt& p) { return p.py != band->py; });
    for (int row = 0; row < kPageSide; ++row) {
      for (auto page = band; page != bandEnd; ++page) {
        for (int column = 0; column < kPageSide; ++column) {
          const Slot& slot = page->page.read().slots[static_cast<std::size_t>(row * kPageSide + column)];
          if (slot.empty()) continue;
          visit(slot.seen({page->px * kPageSide + column, page->py * kPageSide + row}));
        }
      }
    }
    band = bandEnd;
  }
}

void CellGrid::forEachPainted(CellRect within, const std::function<void(CellPos, Cell)>& visit) const {
  forEachChunk([&](const ChunkView& chunk) {
    const CellRect all = chunk.at.cells();
    const CellRect part = within.intersected(all);
    for (int y = part.y0; y < part.y1; ++y) {
      for (int x = part.x0; x < part.x1; ++x) {
        const Cell cell = chunk.cell(x - all.x0, y - all.y0);
        if (!cell.empty()) visit({x, y}, cell);
      }
    }
  });
}

std::map<TileRef, std::int64_t> CellGrid::tally(CellRect within) const {
  // By slot and number, as cells come in any order.
  std::vector<std::vector<std::int64_t>> counts;
  const auto add = [&](Cell cell, std::int64_t count) {
    const TileRef tile = cell.tile();
    if (tile.slot >= counts.size()) counts.resize(tile.slot + 1);
    auto& numbers = counts[tile.slot];
    if (tile.number >= numbers.size()) numbers.resize(tile.number + 1);
    numbers[tile.number] += count;
  };
  forEachChunk([&](const ChunkView& chunk) {
    const CellRect all = chunk.at.cells();
    const CellRect part = within.intersected(all);
    if (part.empty()) return;
    if (chunk.isUniform()) return add(chunk.uniform(), part.count());
    for (int y = part.y0; y < part.y1; ++y) {
      for (int x = part.x0; x < part.x1; ++x) {
        if (const Cell cell = chunk.cell(x - all.x0, y - all.y0); !cell.empty()) add(cell, 1);
      }
    }
  });
  std::map<TileRef, std::int64_t> tally;
  for (SheetSlot slot = 0; slot < counts.size(); ++slot) {
    for (std::uint32_t number = 0; number < counts[slot].size(); ++number) {
      if (counts[slot][number] > 0) tally[{slot, number}] = counts[slot][number];
    }
  }
  return tally;
}

CellRect CellGrid::usedBounds() const {
  CellRect used;
  forEachChunk([&](const ChunkView& chunk) {
    const CellRect all = chunk.at.cells();
    // A chunk inside what is known to be used already adds nothing.
    if (used.intersected(all) == all) return;
    for (int y = 0; y < kChunkSide; ++y) {
      for (int x = 0; x < kChunkSide; ++x) {
        if (!chunk.cell(x, y).empty()) used = used.united({all.x0 + x, all.y0 + y, all.x0 + x + 1, all.y0 + y + 1});
      }
    }
  });
  return used;
}

std::vector<CellRect> CellGrid::differences(const CellGrid& a, const CellGrid& b) {
  std::vector<CellRect> rects;
  if (a.sameAs(b)) return rects;
  static const Page blank;
  const auto comparePages = [&](int px, int py, const Page& one, const Page& other) {
    for (int i = 0; i < kPageSide * kPageSide; ++i) {
      const ChunkPos at{px * kPageSide + i % kPageSide, py * kPageSide + i / kPageSide};
      const ChunkView mine = one.slots[static_cast<std::size_t>(i)].seen(at);
      const ChunkView theirs = other.slots[static_cast<std::size_t>(i)].seen(at);
      if (mine.key() == theirs.key()) continue;
      if (const CellRect rect = differing(mine, theirs); !rect.empty()) rects.push_back(rect);
    }
  };
  const Pages& ours = a.pages_.read();
  const Pages& others = b.pages_.read();
  auto one = ours.begin();
  auto other = others.begin();
  const auto place = [](const PageAt& page) { return std::pair(page.py, page.px); };
  while (one != ours.end() || other != others.end()) {
    if (other == others.end() || (one != ours.end() && place(*one) < place(*other))) {
      comparePages(one->px, one->py, one->page.read(), blank);
      ++one;
    } else if (one == ours.end() || place(*other) < place(*one)) {
      comparePages(other->px, other->py, blank, other->page.read());
      ++other;
    } else {
      if (!one->page.sameAs(other->page)) comparePages(one->px, one->py, one->page.read(), other->page.read());
      ++one;
      ++other;
    }
  }
  return rects;
}

}  // namespace uq
