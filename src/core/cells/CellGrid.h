// CellGrid: the cells of one tiles layer.
//
// An endless sparse grid at absolute positions, negative ones included. Cells live in chunks of 64 × 64, chunks in
// pages of 8 × 8, pages in one sorted table; each level is Shared, so a copy is one pointer and an edit copies only the
// path to the chunk it touches (16 KB and a little). A chunk slot is either uniform — one value for all its cells, no
// memory — or a dense chunk with a revision of its own.
//
// Invariants, which make equal contents equal structures: a dense chunk is never uniform; a page is never all empty.
// Cost: at() is a binary search over pages (64 for a 4096 × 4096 map); set() copies at most one chunk, one page and the
// table, each only while somebody else holds it. A sparse scatter costs 16 KB a chunk.
#pragma once

#include <array>
#include <functional>
#include <map>
#include <vector>

#include "core/base/Revision.h"
#include "core/base/Shared.h"
#include "core/cells/Cell.h"
#include "core/cells/ChunkPool.h"
#include "core/cells/ChunkPos.h"

namespace uq {

using ChunkCells = std::array<Cell, kChunkSide * kChunkSide>;  // row by row

class CellGrid {
 public:
  struct Chunk {
    using Pool = ChunkPool;
    Revision revision;
    ChunkCells cells{};
    friend bool operator==(const Chunk&, const Chunk&) = default;
  };

  // One chunk as a visitor sees it: `dense` is null where all cells are `uniform`.
  struct ChunkView {
    ChunkPos at;
    const Chunk* dense = nullptr;
    Cell uniform;

    // Row `y` 0..63, column `x` 0..63, inside the chunk.
    Cell cell(int x, int y) const {
      return dense ? dense->cells[static_cast<std::size_t>(y * kChunkSide + x)] : uniform;
    }
    // Equal keys mean equal cells.
    std::uint64_t key() const { return dense ? dense->revision.number() : uniform.bits(); }
  };

  Cell at(CellPos pos) const;
  ChunkView chunk(ChunkPos at) const;

  // Lays `cell` at `pos`; true when that changed something.
  bool set(CellPos pos, Cell cell);

  // Lays `cell` on all of `cells`. Whole chunks become uniform: constant time each, and for whole pages together.
  void fill(CellRect cells, Cell cell);

  // The chunk writer, for bulk work: lays all cells of a chunk at once. Cost: one copy of the chunk, none if uniform.
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
    Shared<Chunk> dense;  // blank: uniform
    Cell uniform;         // empty while dense is not blank
    bool empty() const { return dense.isBlank() && uniform.empty(); }
    friend bool operator==(const Slot&, const Slot&) = default;
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
  CellRect fillPages(CellRect cells, Cell cell);
  static std::size_t slotIndex(ChunkPos at);
  static Pages::const_iterator pageFor(const Pages& pages, ChunkPos at, bool& found);

  Shared<Pages> pages_;
};

}  // namespace uq
