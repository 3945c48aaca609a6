// CellGather: cells that come one by one, in any order and more than once, and end as a set.
//
// Cost: a comparison and a bit a cell while they stay in one chunk of 64 × 64, where CellSet::insert looks up page and chunk each
// time. For one computation: it gives its set once. For few cells CellSet::insert does.
#pragma once

#include <unordered_map>

#include "core/cells/CellSet.h"

namespace uq {

class CellGather {
 public:
  void insert(CellPos at) {
    const ChunkPos chunk = ChunkPos::of(at);
    if (!last_ || !(chunk == lastAt_)) {
      lastAt_ = chunk;
      const auto key = std::uint64_t(std::uint32_t(chunk.cx)) << 32 | std::uint32_t(chunk.cy);
      const auto [found, isNew] = chunks_.try_emplace(key);
      if (isNew) found->second = {chunk, {}};
      last_ = &found->second.rows;
    }
    (*last_)[static_cast<std::size_t>(at.y - chunk.cy * kChunkSide)] |= std::uint64_t{1} << (at.x - chunk.cx * kChunkSide);
  }
  CellSet set() const {
    std::unordered_map<std::uint64_t, CellSet::PageRows> pages;
    for (const auto& [key, one] : chunks_) {
      const PagePos at = PagePos::of(one.at);
      CellSet::PageRows& page = pages[std::uint64_t(std::uint32_t(at.px)) << 32 | std::uint32_t(at.py)];
      page.at = at;
      page.some.emplace_back(at.indexOf(one.at), one.rows);
    }
    std::vector<CellSet::PageRows> all;
    for (auto& [key, page] : pages) all.push_back(std::move(page));
    return CellSet::ofPages(std::move(all));
  }

 private:
  struct Chunk {
    ChunkPos at;
    ChunkRows rows;
  };
  std::unordered_map<std::uint64_t, Chunk> chunks_;  // nodes stay where they are
  ChunkRows* last_ = nullptr;
  ChunkPos lastAt_{};
};

}  // namespace uq
