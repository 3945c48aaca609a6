#include "core/cells/CellGrid.h"

#include <algorithm>
#include <cstring>
#include <utility>

namespace uq {

namespace {

std::size_t indexInChunk(CellPos pos, ChunkPos chunk) {
  const CellRect cells = chunk.cells();
  return static_cast<std::size_t>((pos.y - cells.y0) * kChunkSide + (pos.x - cells.x0));
}

bool isUniform(const ChunkCells& cells) {
  // Most chunks differ at once; the rest is compared with itself, one cell on.
  return std::memcmp(cells.data(), cells.data() + 1, sizeof cells - sizeof(Cell)) == 0;
}

bool holdsOnly(const CellGrid::Chunk& chunk, ChunkPos at, CellRect part, Cell cell) {
  for (int y = part.y0; y < part.y1; ++y) {
    const auto row = chunk.cells.begin() + static_cast<std::ptrdiff_t>(indexInChunk({part.x0, y}, at));
    if (!std::all_of(row, row + part.width(), [cell](Cell c) { return c == cell; })) return false;
  }
  return true;
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
      if (!slot.dense.isBlank() && isUniform(slot.dense.read().cells)) {
        slot.uniform = slot.dense.read().cells.front();
        slot.dense = {};
      }
      blank =
          slot.empty() && std::all_of(page.slots.begin(), page.slots.end(), [](const Slot& s) { return s.empty(); });
    });
    if (blank) pages.erase(place);
  });
}

Cell CellGrid::at(CellPos pos) const {
  const ChunkPos chunk = ChunkPos::of(pos);
  const Slot* slot = slotAt(chunk);
  if (!slot) return {};
  return slot->dense.isBlank() ? slot->uniform : slot->dense.read().cells[indexInChunk(pos, chunk)];
}

CellGrid::ChunkView CellGrid::chunk(ChunkPos at) const {
  const Slot* slot = slotAt(at);
  if (!slot) return {at, nullptr, {}};
  return {at, slot->dense.isBlank() ? nullptr : &slot->dense.read(), slot->uniform};
}

bool CellGrid::set(CellPos pos, Cell cell) {
  if (at(pos) == cell) return false;
  fill({pos.x, pos.y, pos.x + 1, pos.y + 1}, cell);
  return true;
}

void CellGrid::fill(CellRect cells, Cell cell) {
  if (cells.empty()) return;
  const ChunkPos first = ChunkPos::of({cells.x0, cells.y0});
  const ChunkPos last = ChunkPos::of({cells.x1 - 1, cells.y1 - 1});
  const CellRect pages = fillPages(cells, cell);
  for (int cy = first.cy; cy <= last.cy; ++cy) {
    for (int cx = first.cx; cx <= last.cx; ++cx) {
      const ChunkPos at{cx, cy};
      if (pages.contains({cx >> kPageBits, cy >> kPageBits})) {
        cx |= kPageSide - 1;  // on to the next page
        continue;
      }
      const CellRect part = cells.intersected(at.cells());
      editSlot(at, [&](Slot& slot) {
        if (part == at.cells()) {
          slot = {{}, cell};
          return;
        }
        if (slot.dense.isBlank()) {
          if (slot.uniform == cell) return;
          const Cell old = std::exchange(slot.uniform, Cell{});
          slot.dense.edit([old](Chunk& chunk) { chunk.cells.fill(old); });
        } else if (holdsOnly(slot.dense.read(), at, part, cell)) {
          return;
        }
        slot.dense.edit([&](Chunk& chunk) {
          chunk.revision = Revision::next();
          for (int y = part.y0; y < part.y1; ++y) {
            const auto row = chunk.cells.begin() + static_cast<std::ptrdiff_t>(indexInChunk({part.x0, y}, at));
            std::fill_n(row, part.width(), cell);
          }
        });
      });
    }
  }
}

// Lays `cell` on all pages that lie whole in a rectangle, which share one; those pages.
CellRect CellGrid::fillPages(CellRect cells, Cell cell) {
  constexpr int kCells = kPageSide * kChunkSide;
  const CellRect whole{ceilDiv(cells.x0, kCells), ceilDiv(cells.y0, kCells), floorDiv(cells.x1, kCells),
                       floorDiv(cells.y1, kCells)};
  if (whole.empty()) return {};
  Page page;
  for (Slot& slot : page.slots) slot = {{}, cell};
  const Shared<Page> shared(std::move(page));
  pages_.edit([&](Pages& pages) {
    std::erase_if(pages, [&](const PageAt& one) { return whole.contains({one.px, one.py}); });
    if (cell.empty()) return;
    Pages all;
    all.reserve(pages.size() + static_cast<std::size_t>(whole.count()));
    auto rest = pages.begin();
    for (int py = whole.y0; py < whole.y1; ++py) {
      for (int px = whole.x0; px < whole.x1; ++px) {
        while (rest != pages.end() && std::pair(rest->py, rest->px) < std::pair(py, px)) all.push_back(*rest++);
        all.push_back({px, py, shared});
      }
    }
    all.insert(all.end(), rest, pages.end());
    pages = std::move(all);
  });
  return whole;
}

void CellGrid::setChunk(ChunkPos at, const ChunkCells& cells) {
  if (isUniform(cells)) {
    fill(at.cells(), cells.front());
    return;
  }
  editSlot(at, [&](Slot& slot) { slot = {Shared(Chunk{Revision::next(), cells}), {}}; });
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
          visit({{page->px * kPageSide + column, page->py * kPageSide + row},
                 slot.dense.isBlank() ? nullptr : &slot.dense.read(),
                 slot.uniform});
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
    if (!chunk.dense) return add(chunk.uniform, std::int64_t{part.width()} * part.height());
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
  const auto view = [](const Slot& slot, ChunkPos at) {
    return ChunkView{at, slot.dense.isBlank() ? nullptr : &slot.dense.read(), slot.uniform};
  };
  const auto comparePages = [&](int px, int py, const Page& one, const Page& other) {
    for (int i = 0; i < kPageSide * kPageSide; ++i) {
      const ChunkPos at{px * kPageSide + i % kPageSide, py * kPageSide + i / kPageSide};
      const ChunkView mine = view(one.slots[static_cast<std::size_t>(i)], at);
      const ChunkView theirs = view(other.slots[static_cast<std::size_t>(i)], at);
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
