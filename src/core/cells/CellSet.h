// CellSet: a set of cells — what is selected, or what a tool would touch.
//
// One bit a cell, in chunks of 64 × 64 and pages of 8 × 8 chunks like CellGrid, at absolute positions. A value: copying
// it is one pointer. Invariants, which make equal sets equal structures: no page is empty; a chunk that is all in the
// set is one bit of its page, and the bits of any other are neither all set nor all clear. Cost: set operations work on
// rows of 64 cells, and on whole chunks where they can.
#pragma once

#include <functional>
#include <vector>

#include "core/base/Shared.h"
#include "core/cells/ChunkPos.h"

namespace uq {

class CellSet {
 public:
  CellSet() = default;
  // All cells of a rectangle.
  explicit CellSet(CellRect cells);

  bool contains(CellPos at) const;
  bool empty() const { return pages_.read().empty(); }
  // Costs a look at each page: they know their counts.
  std::int64_t count() const;
  // The smallest rectangle that holds the set.
  CellRect bounds() const;

  // A chunk's rows; all clear or all set where it is uniform.
  const ChunkRows& rowsAt(ChunkPos at) const;

  void insert(CellPos at) { insert(at, 1); }
  // Neighbouring cells in one row.
  void insert(CellPos first, int count);
  CellSet united(const CellSet& other) const;
  CellSet without(const CellSet& other) const;
  CellSet intersected(const CellSet& other) const;

  // Calls `visit` for stretches of neighbouring cells in one row. A long stretch may come in parts.
  void forEachStretch(const std::function<void(CellPos first, int count)>& visit) const;

  // Calls `visit` for each chunk that holds cells of the set; `rows` is null where all of its cells are.
  void forEachChunk(const std::function<void(ChunkPos at, const ChunkRows* rows)>& visit) const;

  // A page of 8 × 8 chunks as a visitor sees it; valid while the set is.
  class PageView;
  // Calls `visit` for each page that holds cells of the set, by py, then px.
  void forEachPage(const std::function<void(const PageView&)>& visit) const;

  // The border between cells in the set and others, as lines between corners of cells: corner (x, y) is the upper left
  // one of cell (x, y). For grids of squares; only borders of cells in `within`.
  struct Border {
    CellPos from;
    CellPos to;
    friend constexpr auto operator<=>(const Border&, const Border&) = default;
  };
  std::vector<Border> borders(CellRect within) const;

  // Calls `visit` for each cell of the set, in `within`, whose neighbour is no cell of the set. `step` is the way to
  // the neighbour from a cell, which may depend on whether its column and row are odd; at most 64 columns away.
  void forEachWithoutNeighbour(const std::function<CellPos(bool oddColumn, bool oddRow)>& step, CellRect within,
                               const std::function<void(CellPos)>& visit) const;

  // The set put together page by page, each at most once; empty and full rows need not be told apart.
  struct PageRows {
    PagePos at;
    std::uint64_t full = 0;  // by PagePos::indexOf
    std::vector<std::pair<int, ChunkRows>> some;
  };
  static CellSet ofPages(std::vector<PageRows> pages);

  friend bool operator==(const CellSet&, const CellSet&) = default;

 private:
  struct Page {
    std::uint64_t full = 0;
    std::array<Shared<ChunkRows>, kPageSide * kPageSide> some;  // blank: full or empty
    std::int64_t cells = 0;                                     // of the set that lie in it

    bool empty() const;
    void setFull(std::uint64_t chunks);  // of an empty page
    void put(int index, const ChunkRows& rows);
    friend bool operator==(const Page& a, const Page& b) { return a.full == b.full && a.some == b.some; }
  };
  struct PageAt {
    PagePos at;
    Shared<Page> page;
    friend bool operator==(const PageAt&, const PageAt&) = default;
  };
  using Pages = std::vector<PageAt>;  // by py, then px

  template <class Combine>
  CellSet combined(const CellSet& other, Combine&& combine) const;

  Shared<Pages> pages_;
};

class CellSet::PageView {
 public:
  PagePos at;
  std::uint64_t full;  // by PagePos::indexOf: chunks that are all in the set

  // The rows of a chunk of which some cells are in the set; null where all or none are.
  const ChunkRows* some(std::size_t index) const {
    const Shared<ChunkRows>& rows = page_->some[index];
    return rows.isBlank() ? nullptr : &rows.read();
  }

 private:
  friend class CellSet;
  explicit PageView(const PageAt& page) : at(page.at), full(page.page->full), page_(&page.page.read()) {}
  const Page* page_;
};

}  // namespace uq
