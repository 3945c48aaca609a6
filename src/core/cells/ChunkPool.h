// ChunkPool: the memory of dense chunks.
//
// Chunks are all of one size, come and go by the thousand, and fill most of the memory of a large map. They are taken
// from slabs of 8 MB for which huge pages are advised; a freed chunk's room is used again at once. A slab in which
// nothing is left goes back to the system, but for one that is kept for the next edit. Cost: a lock and a few pointers,
// each way. Thread-safe.
#pragma once

#include <cstddef>

namespace uq {

class ChunkPool {
 public:
  // Room for one block; all blocks of a process are of the same size, at most kLargestBlock. Aligned to 64 bytes.
  static void* allocate(std::size_t bytes);
  static void release(void* block) noexcept;

  static constexpr std::size_t kLargestBlock = std::size_t{16} * 1024 + 64;

  struct Figures {
    std::size_t slabs = 0;
    std::size_t blocks = 0;  // in use
  };
  static Figures figures();
};

}  // namespace uq
