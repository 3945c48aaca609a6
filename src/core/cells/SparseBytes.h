// SparseBytes: a small number on any cell of an endless grid, for the length of one computation.
//
// Chunks of 64 × 64 cells are there where something was set; a look-up in the chunk used last costs nothing but the load. No value
// of a document: copying copies all of it. One thread.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <unordered_map>

#include "core/cells/CellGrid.h"

namespace uq {

class SparseBytes {
 public:
  static constexpr std::int8_t kUnset = -128;

  std::int8_t at(CellPos pos) const {
    const Bytes* bytes = find(ChunkPos::of(pos));
    return bytes ? (*bytes)[indexOf(pos)] : kUnset;
  }
  void set(CellPos pos, std::int8_t value) { make(ChunkPos::of(pos))[indexOf(pos)] = value; }
  // `count` cells from `first` to the right.
  void set(CellPos first, int count, std::int8_t value) {
    while (count > 0) {
      const int here = std::min(count, kChunkSide - (first.x & (kChunkSide - 1)));
      Bytes& bytes = make(ChunkPos::of(first));
      std::fill_n(bytes.begin() + static_cast<std::ptrdiff_t>(indexOf(first)), here, value);
      first.x += here;
      count -= here;
    }
  }
  bool empty() const { return chunks_.empty(); }

 private:
  using Bytes = std::array<std::int8_t, static_cast<std::size_t>(kChunkSide) * kChunkSide>;

  static std::size_t indexOf(CellPos pos) { return static_cast<std::size_t>((pos.y & (kChunkSide - 1)) * kChunkSide + (pos.x & (kChunkSide - 1))); }
  static std::uint64_t keyOf(ChunkPos at) { return std::uint64_t(std::uint32_t(at.cx)) << 32 | std::uint32_t(at.cy); }
  Bytes* find(ChunkPos at) const {
    const std::uint64_t key = keyOf(at);
    if (isLast_ && key == lastKey_) return last_;
    const auto found = chunks_.find(key);
    isLast_ = true;
    lastKey_ = key;
    return last_ = found == chunks_.end() ? nullptr : found->second.get();
  }
  Bytes& make(ChunkPos at) {
    if (Bytes* known = find(at)) return *known;
    auto bytes = std::make_unique<Bytes>();
    bytes->fill(kUnset);
    last_ = bytes.get();
    chunks_.emplace(lastKey_, std::move(bytes));
    return *last_;
  }

  std::unordered_map<std::uint64_t, std::unique_ptr<Bytes>> chunks_;
  mutable bool isLast_ = false;
  mutable std::uint64_t lastKey_ = 0;
  mutable Bytes* last_ = nullptr;
};

}  // namespace uq
