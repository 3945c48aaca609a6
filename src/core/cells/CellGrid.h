// CellGrid: the cells of one tiles layer.
//
// An endless sparse grid at absolute positions, negative ones included. Cells live in chunks of 64 × 64, chunks in
// pages of 8 × 8, pages in one sorted table; each level is Shared, so a copy is one pointer and an edit copies only the
// path to the chunk it touches. A chunk takes one of three forms, which only its size and speed tell apart:
//
//   uniform    one cell everywhere: no memory of its own
//   two-tone   two cells, the ground and the marked one: one bit a cell, 0.5 KB — the rim of a shape drawn on one
//              ground, and all that one tile paints on an empty layer
//   dense      any cells: 16 KB
//
// A chunk that is two-tone or dense has a revision of its own.
//
// Invariants: a dense or two-tone chunk is never uniform; the ground of a two-tone chunk is the lesser of its cells, so
// empty where there is any; a page is never all empty. An edit keeps a chunk in the least form it can without looking
// at all of its cells, so a dense chunk may come to hold two cells only; equality compares contents.
// Cost: at() is a binary search over pages (64 for a 4096 × 4096 map); set() copies at most one chunk, one page and the
// table, each only while somebody else holds it. A sparse scatter of several tiles costs 16 KB a chunk.
// Threads: as of any value: one grid belongs to one thread at a time, and its copies to others; chunks that copies share
// are never changed in place. ChunkPool, from which all take their room, may be used by any.
#pragma once

#include <array>
#include <functional>
#include <map>
#include <vector>

#include "core/base/Revision.h"
#include "core/base/Shared.h"
#include "core/cells/Cell.h"
#include "core/cells/CellSet.h"
#include "core/cells/ChunkPool.h"

namespace uq {

using ChunkCells = std::array<Cell, kChunkSide * kChunkSide>;  // row by row

class CellGrid {
  struct Chunk {
    using Pool = ChunkPool;
    Revision revision;
    ChunkCells cells{};
    friend bool operator==(const Chunk&, const Chunk&) = default;
  };
  struct TwoTone {
    Revision revision;
    ChunkRows rows{};  // where the marked cell lies; neither all clear nor all set
    Cell marked;
    friend bool operator==(const TwoTone&, const TwoTone&) = default;
  };

 public:
  // One chunk as a visitor sees it; valid until the grid is edited or dropped.
  class ChunkView {
   public:
    ChunkPos at;

    // Row `y` 0..63, column `x` 0..63, inside the chunk.
    Cell cell(int x, int y) const {
      if (dense_) return dense_->cells[static_cast<std::size_t>(y * kChunkSide + x)];
      return twoTone_ && (twoTone_->rows[static_cast<std::size_t>(y)] >> x & 1) ? twoTone_->marked : ground_;
    }
    std::array<Cell, kChunkSide> row(int y) const;
    ChunkCells cells() const;

    bool isUniform() const { return !dense_ && !twoTone_; }
    // The one cell of a uniform chunk.
    Cell uniform() const { return ground_; }
    // Whether nothing is painted here.
    bool blank() const { return isUniform() && ground_.empty(); }
    // All cells, row by row; null where the chunk is kept in less.
    const ChunkCells* dense() const { return dense_ ? &dense_->cells : nullptr; }

    // Calls `visit(cell)` so that each cell that occurs comes at least once: two of a two-tone chunk, all of a dense
    // one.
    template <class Visit>
    void forEachOccurring(Visit&& visit) const {
      if (dense_) {
        for (const Cell cell : dense_->cells) visit(cell);
        return;
      }
      visit(ground_);
      if (twoTone_) visit(twoTone_->marked);
    }
    // Whether any cell passes; asked in the same way.
    template <class Passes>
    bool any(Passes&& passes) const {
      if (!dense_) return passes(ground_) || (twoTone_ && passes(twoTone_->marked));
      for (const Cell cell : dense_->cells) {
        if (passes(cell)) return true;
      }
      return false;
    }
    // Where cells pass, one bit a cell; asked in the same way.
    template <class Passes>
    ChunkRows rowsWhere(Passes&& passes) const;

    // Equal keys mean equal cells.
    std::uint64_t key() const {
      return dense_ ? dense_->revision.number() : twoTone_ ? twoTone_->revision.number() : ground_.bits();
    }

   private:
    friend class CellGrid;
    ChunkView(ChunkPos place, const Chunk* dense, const TwoTone* twoTone, Cell ground)
        : at(place), dense_(dense), twoTone_(twoTone), ground_(ground) {}
    const Chunk* dense_;      // null: not dense
    const TwoTone* twoTone_;  // null: not two-tone
    Cell ground_;
  };

  Cell at(CellPos pos) const;
  ChunkView chunk(ChunkPos at) const;

  // Lays `cell` at `pos`; true when that changed something.
  bool set(CellPos pos, Cell cell);

  // Lays `cell` on all of `cells`. Whole chunks become uniform: constant time each, and for whole pages together.
  void fill(CellRect cells, Cell cell);
  void fill(const CellSet& cells, Cell cell);

  // The chunk writer, for bulk work: lays all cells of a chunk at once. Cost: a look at its cells as far as the third
  // kind of them, and one copy of the chunk in its least form.
  void setChunk(ChunkPos at, const ChunkCells& cells);

  // Calls `visit` for each chunk that holds any painted cell, by cy, then cx. Cost: the chunks there are.
  void forEachChunk(const std::function<void(const ChunkView&)>& visit) const;

  // Calls `visit` for each painted cell inside `within`, chunk by chunk.
  void forEachPainted(CellRect within, const std::function<void(CellPos, Cell)>& visit) const;

  // How often each tile lies inside `within`, turns ignored.
  std::map<TileRef, std::int64_t> tally(CellRect within) const;

  // The smallest rectangle that holds every painted cell; empty when nothing is painted.
  CellRect usedBounds() const;

  bool empty() const { return pages_.read().empty(); }
  bool sameAs(const CellGrid& other) const { return pages_.sameAs(other.pages_); }
  friend bool operator==(const CellGrid&, const CellGrid&) = default;

  // Where two grids hold different cells: for each chunk in which they do, the smallest rectangle of cells around the
  // differences. Cost: shared parts are passed over unread.
  static std::vector<CellRect> differences(const CellGrid& a, const CellGrid& b);

 private:
  struct Slot {
    Shared<Chunk> dense;      // blank: one or two cells
    Shared<TwoTone> twoTone;  // blank: one cell, or dense
    Cell ground;              // empty while dense is not blank

    ChunkView seen(ChunkPos at) const;
    bool empty() const { return dense.isBlank() && twoTone.isBlank() && ground.empty(); }
    // Lays `cell` where `rows` say; `part` is counted from the chunk's corner.
    void lay(const ChunkRows& rows, Cell cell);
    void lay(CellRect part, Cell cell);
    // The same on the stretches of a dense chunk that `stretches(visit)` gives to visit(first, count).
    template <class Stretches>
    void layOnDense(Stretches&& stretches, Cell cell);
    bool operator==(const Slot& other) const;
  };
  struct Page {
    std::array<Slot, kPageSide * kPageSide> slots;
    friend bool operator==(const Page&, const Page&) = default;
  };
  struct PageAt {
    int px = 0;
    int py = 0;
    Shared<Page> page;
    friend bool operator==(const PageAt&, const PageAt&) = default;
  };
  using Pages = std::vector<PageAt>;  // by py, then px

  const Slot* slotAt(ChunkPos at) const;
  void editSlot(ChunkPos at, const std::function<void(Slot&)>& change);
  static Slot slotOf(const ChunkCells& cells);
  static std::size_t slotIndex(ChunkPos at);
  static Pages::const_iterator pageFor(const Pages& pages, ChunkPos at, bool& found);

  Shared<Pages> pages_;
};

template <class Passes>
ChunkRows CellGrid::ChunkView::rowsWhere(Passes&& passes) const {
  ChunkRows rows{};
  if (dense_) {
    const Cell* cell = dense_->cells.data();
    for (std::uint64_t& row : rows) {
      for (int x = 0; x < kChunkSide; ++x) row |= std::uint64_t{passes(*cell++)} << x;
    }
    return rows;
  }
  const std::uint64_t onGround = passes(ground_) ? ~std::uint64_t{0} : 0;
  if (!twoTone_) {
    rows.fill(onGround);
    return rows;
  }
  const std::uint64_t onMarked = passes(twoTone_->marked) ? ~std::uint64_t{0} : 0;
  for (std::size_t y = 0; y < rows.size(); ++y) {
    rows[y] = (twoTone_->rows[y] & onMarked) | (~twoTone_->rows[y] & onGround);
  }
  return rows;
}

}  // namespace uq
