#include "core/cells/CellSet.h"

#include <algorithm>
#include <bit>
#include <optional>
#include <utility>

namespace uq {

namespace {

constexpr int kSide = kChunkSide;
constexpr std::uint64_t kAll = ~std::uint64_t{0};

constexpr ChunkRows rowsOf(std::uint64_t row) {
  ChunkRows rows{};
  for (std::uint64_t& one : rows) one = row;
  return rows;
}
constexpr ChunkRows kNoRows = rowsOf(0);
constexpr ChunkRows kFullRows = rowsOf(kAll);

bool before(PagePos a, PagePos b) { return std::pair(a.py, a.px) < std::pair(b.py, b.px); }

// The smallest rectangle around the cells of a chunk that its rows say; some do.
CellRect boundsOf(const ChunkRows& rows, CellRect chunk) {
  std::uint64_t columns = 0;
  int top = kSide;
  int bottom = 0;
  for (int y = 0; y < kSide; ++y) {
    const std::uint64_t row = rows[static_cast<std::size_t>(y)];
    if (row == 0) continue;
    columns |= row;
    top = std::min(top, y);
    bottom = y + 1;
  }
  return {chunk.x0 + std::countr_zero(columns), chunk.y0 + top, chunk.x1 - std::countl_zero(columns),
          chunk.y0 + bottom};
}

// Without the processor's own instruction, which not all have; see Warren, Hacker's Delight, 5-1.
std::int64_t countOf(const ChunkRows& rows) {
  std::uint64_t count = 0;
  for (std::uint64_t row : rows) {
    row -= row >> 1 & 0x5555555555555555u;
    row = (row & 0x3333333333333333u) + (row >> 2 & 0x3333333333333333u);
    row = (row + (row >> 4)) & 0x0f0f0f0f0f0f0f0fu;
    count += row * 0x0101010101010101u >> 56;
  }
  return static_cast<std::int64_t>(count);
}

template <class F>
void forEachRunOfBits(std::uint64_t bits, F&& f) {
  while (bits != 0) {
    const int from = std::countr_zero(bits);
    const int count = std::countr_one(bits >> from);
    f(from, count);
    bits &= ~bitsOf(from, from + count);
  }
}

}  // namespace

bool CellSet::Page::empty() const {
  return full == 0 && std::all_of(some.begin(), some.end(), [](const auto& rows) { return rows.isBlank(); });
}

void CellSet::Page::setFull(std::uint64_t chunks) {
  full = chunks;
  cells = std::int64_t{std::popcount(chunks)} * kSide * kSide;
}

void CellSet::Page::put(int index, const ChunkRows& rows) {
  const std::uint64_t bit = std::uint64_t{1} << index;
  Shared<ChunkRows>& kept = some[static_cast<std::size_t>(index)];
  cells -= full & bit ? kSide * kSide : kept.isBlank() ? 0 : countOf(kept.read());
  const std::int64_t count = countOf(rows);
  cells += count;
  const bool all = count == kSide * kSide;
  full = all ? full | bit : full & ~bit;
  kept = all || count == 0 ? Shared<ChunkRows>() : Shared(rows);
}

CellSet CellSet::ofPages(std::vector<PageRows> pages) {
  std::sort(pages.begin(), pages.end(), [](const PageRows& a, const PageRows& b) { return before(a.at, b.at); });
  CellSet set;
  set.pages_.edit([&](Pages& all) {
    for (const PageRows& rows : pages) {
      Page page;
      page.setFull(rows.full);
      for (const auto& [index, one] : rows.some) page.put(index, one);
      if (!page.empty()) all.push_back({rows.at, Shared(std::move(page))});
    }
  });
  return set;
}

CellSet::CellSet(CellRect cells) {
  if (cells.empty()) return;
  const ChunkPos first = ChunkPos::of({cells.x0, cells.y0});
  const ChunkPos last = ChunkPos::of({cells.x1 - 1, cells.y1 - 1});
  std::vector<PageRows> pages;
  for (int py = PagePos::of(first).py; py <= PagePos::of(last).py; ++py) {
    for (int px = PagePos::of(first).px; px <= PagePos::of(last).px; ++px) {
      PageRows page{{px, py}, 0, {}};
      for (int index = 0; index < kPageSide * kPageSide; ++index) {
        const CellRect all = page.at.chunk(index).cells();
        const CellRect part = cells.intersected(all);
        if (part == all) {
          page.full |= std::uint64_t{1} << index;
        } else if (!part.empty()) {
          ChunkRows rows{};
          for (int y = part.y0; y < part.y1; ++y) {
            rows[static_cast<std::size_t>(y - all.y0)] = bitsOf(part.x0 - all.x0, part.x1 - all.x0);
          }
          page.some.emplace_back(index, rows);
        }
      }
      pages.push_back(std::move(page));
    }
  }
  *this = ofPages(std::move(pages));
}

const ChunkRows& CellSet::rowsAt(ChunkPos at) const {
  const PagePos place = PagePos::of(at);
  const Pages& pages = pages_.read();
  const auto found = std::lower_bound(pages.begin(), pages.end(), place,
                                      [](const PageAt& page, PagePos wanted) { return before(page.at, wanted); });
  if (found == pages.end() || !(found->at == place)) return kNoRows;
  const int index = place.indexOf(at);
  const Page& page = found->page.read();
  if (page.full >> index & 1) return kFullRows;
  const Shared<ChunkRows>& rows = page.some[static_cast<std::size_t>(index)];
  return rows.isBlank() ? kNoRows : rows.read();
}

bool CellSet::contains(CellPos at) const {
  const ChunkPos chunk = ChunkPos::of(at);
  return rowsAt(chunk)[static_cast<std::size_t>(at.y - chunk.cy * kSide)] >> (at.x - chunk.cx * kSide) & 1;
}

void CellSet::insert(CellPos first, int count) {
  const int end = first.x + count;
  for (int x = first.x; x < end;) {
    const ChunkPos chunk = ChunkPos::of({x, first.y});
    const int left = chunk.cx * kSide;
    const int to = std::min(end, left + kSide);
    const auto y = static_cast<std::size_t>(first.y - chunk.cy * kSide);
    const std::uint64_t bits = bitsOf(x - left, to - left);
    const std::uint64_t fresh = bits & ~rowsAt(chunk)[y];
    x = to;
    if (fresh == 0) continue;
    const PagePos place = PagePos::of(chunk);
    pages_.edit([&](Pages& pages) {
      auto at = std::lower_bound(pages.begin(), pages.end(), place,
                                 [](const PageAt& page, PagePos wanted) { return before(page.at, wanted); });
      if (at == pages.end() || !(at->at == place)) at = pages.insert(at, {place, {}});
      // Strokes insert row after row: one row is changed, and its new cells are counted.
      at->page.edit([&](Page& page) {
        const int index = place.indexOf(chunk);
        Shared<ChunkRows>& kept = page.some[static_cast<std::size_t>(index)];
        kept.edit([&](ChunkRows& rows) { rows[y] |= bits; });
        page.cells += std::popcount(fresh);
        if (kept.read()[y] != kAll || kept.read() != kFullRows) return;
        page.full |= std::uint64_t{1} << index;
        kept = {};
      });
    });
  }
}

std::int64_t CellSet::count() const {
  std::int64_t count = 0;
  for (const PageAt& page : pages_.read()) count += page.page->cells;
  return count;
}

CellRect CellSet::bounds() const {
  CellRect bounds;
  forEachPage([&](const PageView& page) {
    if (page.full == kAll) {
      bounds = bounds.united(page.at.chunk(0).cells()).united(page.at.chunk(kPageSide * kPageSide - 1).cells());
      return;
    }
    for (int index = 0; index < kPageSide * kPageSide; ++index) {
      const CellRect all = page.at.chunk(index).cells();
      // Inside what is known to be bounded, nothing is new.
      if (bounds.intersected(all) == all) continue;
      if (page.full >> index & 1) {
        bounds = bounds.united(all);
      } else if (const ChunkRows* rows = page.some(static_cast<std::size_t>(index))) {
        bounds = bounds.united(boundsOf(*rows, all));
      }
    }
  });
  return bounds;
}

template <class Combine>
CellSet CellSet::combined(const CellSet& other, Combine&& combine) const {
  static const Shared<Page> none;
  CellSet result;
  result.pages_.edit([&](Pages& pages) {
    const auto add = [&](PagePos place, const Shared<Page>& ours, const Shared<Page>& theirs) {
      const Page& a = ours.read();
      const Page& b = theirs.read();
      Page page;
      page.setFull(combine(a.full, b.full));
      for (int index = 0; index < kPageSide * kPageSide; ++index) {
        const auto i = static_cast<std::size_t>(index);
        if (a.some[i].isBlank() && b.some[i].isBlank()) continue;
        const auto rowsIn = [&](const Page& one) -> const ChunkRows& {
          return one.full >> index & 1 ? kFullRows : one.some[i].isBlank() ? kNoRows : one.some[i].read();
        };
        const ChunkRows& left = rowsIn(a);
        const ChunkRows& right = rowsIn(b);
        ChunkRows rows;
        for (std::size_t y = 0; y < rows.size(); ++y) rows[y] = combine(left[y], right[y]);
        page.put(index, rows);
      }
      if (!page.empty()) pages.push_back({place, Shared(std::move(page))});
    };
    const Pages& mine = pages_.read();
    const Pages& yours = other.pages_.read();
    std::size_t i = 0;
    std::size_t j = 0;
    while (i < mine.size() || j < yours.size()) {
      if (j == yours.size() || (i < mine.size() && before(mine[i].at, yours[j].at))) {
        add(mine[i].at, mine[i].page, none);
        ++i;
      } else if (i == mine.size() || before(yours[j].at, mine[i].at)) {
        add(yours[j].at, none, yours[j].page);
        ++j;
      } else {
        add(mine[i].at, mine[i].page, yours[j].page);
        ++i;
        ++j;
      }
    }
  });
  return result;
}

CellSet CellSet::united(const CellSet& other) const {
  if (empty()) return other;
  if (other.empty()) return *this;
  return combined(other, [](std::uint64_t a, std::uint64_t b) { return a | b; });
}
CellSet CellSet::without(const CellSet& other) const {
  return combined(other, [](std::uint64_t a, std::uint64_t b) { return a & ~b; });
}
CellSet CellSet::intersected(const CellSet& other) const {
  return combined(other, [](std::uint64_t a, std::uint64_t b) { return a & b; });
}

void CellSet::forEachPage(const std::function<void(const PageView&)>& visit) const {
  for (const PageAt& page : pages_.read()) visit(PageView(page));
}

void CellSet::forEachChunk(const std::function<void(ChunkPos, const ChunkRows*)>& visit) const {
  for (const PageAt& page : pages_.read()) {
    for (int index = 0; index < kPageSide * kPageSide; ++index) {
      const Shared<ChunkRows>& rows = page.page->some[static_cast<std::size_t>(index)];
      const bool full = page.page->full >> index & 1;
      if (full || !rows.isBlank()) visit(page.at.chunk(index), full ? nullptr : &rows.read());
    }
  }
}

void CellSet::forEachStretch(const std::function<void(CellPos, int)>& visit) const {
  forEachChunk([&](ChunkPos at, const ChunkRows* rows) {
    for (int y = 0; y < kSide; ++y) {
      const std::uint64_t row = rows ? (*rows)[static_cast<std::size_t>(y)] : kAll;
      forEachRunOfBits(row, [&](int from, int count) { visit({at.cx * kSide + from, at.cy * kSide + y}, count); });
    }
  });
}

void CellSet::forEachWithoutNeighbour(const std::function<CellPos(bool, bool)>& step, CellRect within,
                                      const std::function<void(CellPos)>& visit) const {
  const auto rowOf = [this](int cx, int y) -> std::uint64_t {
    const int cy = floorDiv(y, kSide);
    return rowsAt({cx, cy})[static_cast<std::size_t>(y - cy * kSide)];
  };
  forEachChunk([&](ChunkPos at, const ChunkRows* some) {
    const ChunkRows& rows = some ? *some : kFullRows;
    const int cx = at.cx;
    const int cy = at.cy;
    const int left = cx * kSide;
    const CellRect part = within.intersected({left, cy * kSide, left + kSide, (cy + 1) * kSide});
    if (part.empty()) return;
    const std::uint64_t seen = bitsOf(part.x0 - left, part.x1 - left);
    for (int y = part.y0; y < part.y1; ++y) {
      const std::uint64_t row = rows[static_cast<std::size_t>(y - cy * kSide)] & seen;
      if (row == 0) continue;
      std::uint64_t alone = 0;
      for (const bool oddColumn : {false, true}) {
        const CellPos by = step(oddColumn, (y & 1) != 0);
        const int from = left + by.x;
        const int column = floorDiv(from, kSide);
        const int off = from - column * kSide;
        std::uint64_t neighbours = rowOf(column, y + by.y) >> off;
        if (off > 0) neighbours |= rowOf(column + 1, y + by.y) << (kSide - off);
        alone |= row & ~neighbours & (std::uint64_t{0x5555555555555555} << (oddColumn ? 1 : 0));
      }
      forEachRunOfBits(alone, [&](int first, int count) {
        for (int i = 0; i < count; ++i) visit({left + first + i, y});
      });
    }
  });
}

std::vector<CellSet::Border> CellSet::borders(CellRect within) const {
  std::vector<Border> borders;
  const auto rowOf = [this](int cx, int y) -> std::uint64_t {
    const int cy = floorDiv(y, kSide);
    return rowsAt({cx, cy})[static_cast<std::size_t>(y - cy * kSide)];
  };
  forEachChunk([&](ChunkPos at, const ChunkRows* some) {
    const ChunkRows& rows = some ? *some : kFullRows;
    const int cx = at.cx;
    const int cy = at.cy;
    const CellRect part = within.intersected({cx * kSide, cy * kSide, (cx + 1) * kSide, (cy + 1) * kSide});
    if (part.empty()) return;
    const int left = cx * kSide;
    const std::uint64_t seen = bitsOf(part.x0 - left, part.x1 - left);
    // Vertical lines that are being drawn, by column; continued from row to row.
    std::array<std::optional<int>, kSide + 1> since{};
    for (int y = part.y0; y <= part.y1; ++y) {
      const bool inside = y < part.y1;
      // Neighbours are looked up beyond `within`, too, so that its edge is no border.
      const std::uint64_t all = inside ? rows[static_cast<std::size_t>(y - cy * kSide)] : 0;
      const std::uint64_t row = all & seen;
      const std::uint64_t before = row & ~(all << 1 | rowOf(cx - 1, y) >> 63);
      const std::uint64_t after = row & ~(all >> 1 | rowOf(cx + 1, y) << 63);
      for (int x = 0; x <= kSide; ++x) {
        const bool line = inside && ((x < kSide && (before >> x & 1)) || (x > 0 && (after >> (x - 1) & 1)));
        auto& begun = since[static_cast<std::size_t>(x)];
        if (line && !begun) begun = y;
        if (line || !begun) continue;
        borders.push_back({{left + x, *begun}, {left + x, y}});
        begun.reset();
      }
      if (!inside) continue;
      forEachRunOfBits(row & ~rowOf(cx, y - 1), [&](int from, int count) {
        borders.push_back({{left + from, y}, {left + from + count, y}});
      });
      forEachRunOfBits(row & ~rowOf(cx, y + 1), [&](int from, int count) {
        borders.push_back({{left + from, y + 1}, {left + from + count, y + 1}});
      });
    }
  });
  return borders;
}

}  // namespace uq
