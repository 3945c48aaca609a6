#include "core/cells/ChunkPool.h"

#include <sys/mman.h>

#include <cassert>
#include <cstdint>
#include <mutex>
#include <new>

namespace uq {

namespace {

constexpr std::size_t kSlabBytes = std::size_t{8} << 20;
constexpr std::size_t kHeaderBytes = 64;
constexpr std::size_t kBlocks = (kSlabBytes - kHeaderBytes) / ChunkPool::kLargestBlock;

struct FreeBlock {
  FreeBlock* next;
};

// Stands at the beginning of its memory, which is aligned to its size: so a block finds its slab.
struct Slab {
  Slab* next = nullptr;  // in the list of slabs with room
  Slab* previous = nullptr;
  FreeBlock* free = nullptr;
  std::size_t fresh = 0;  // blocks that were never given out begin here
  std::size_t used = 0;

  bool full() const { return used == kBlocks; }
  static Slab* of(void* block) {
    return reinterpret_cast<Slab*>(reinterpret_cast<std::uintptr_t>(block) & ~(kSlabBytes - 1));
  }
};
static_assert(sizeof(Slab) <= kHeaderBytes);

class Pool {
 public:
  void* take() {
    const std::lock_guard lock(mutex_);
    if (!withRoom_) addSlab();
    Slab* slab = withRoom_;
    ++slab->used;
    ++blocks_;
    if (slab->full()) unlink(slab);
    if (FreeBlock* block = slab->free) {
      slab->free = block->next;
      return block;
    }
    return reinterpret_cast<char*>(slab) + kHeaderBytes + slab->fresh++ * ChunkPool::kLargestBlock;
  }

  void giveBack(void* block) noexcept {
    const std::lock_guard lock(mutex_);
    Slab* slab = Slab::of(block);
    if (slab->full()) link(slab);
    slab->free = new (block) FreeBlock{slab->free};
    --slab->used;
    --blocks_;
    const bool another = slab->next || slab->previous;
    if (slab->used == 0 && another) {
      unlink(slab);
      --slabs_;
      munmap(slab, kSlabBytes);
    }
  }

  ChunkPool::Figures figures() {
    const std::lock_guard lock(mutex_);
    return {slabs_, blocks_};
  }

 private:
  void addSlab() {
    link(new (alignedMemory()) Slab);
    ++slabs_;
  }
  // kSlabBytes that begin at a multiple of kSlabBytes: cut out of twice as much.
  static void* alignedMemory() {
    void* twice = mmap(nullptr, 2 * kSlabBytes, PROT_READ | PROT_WRITE, MAP_PRIVATE | MAP_ANONYMOUS, -1, 0);
    if (twice == MAP_FAILED) throw std::bad_alloc();
    const auto begin = reinterpret_cast<std::uintptr_t>(twice);
    const std::uintptr_t aligned = (begin + kSlabBytes - 1) & ~(kSlabBytes - 1);
    const std::size_t before = aligned - begin;
    if (before != 0) munmap(twice, before);
    munmap(reinterpret_cast<void*>(aligned + kSlabBytes), kSlabBytes - before);
    (void)madvise(reinterpret_cast<void*>(aligned), kSlabBytes, MADV_HUGEPAGE);
    return reinterpret_cast<void*>(aligned);
  }
  void link(Slab* slab) noexcept {
    slab->previous = nullptr;
    slab->next = withRoom_;
    if (withRoom_) withRoom_->previous = slab;
    withRoom_ = slab;
  }
  void unlink(Slab* slab) noexcept {
    (slab->previous ? slab->previous->next : withRoom_) = slab->next;
    if (slab->next) slab->next->previous = slab->previous;
    slab->next = slab->previous = nullptr;
  }

  std::mutex mutex_;
  Slab* withRoom_ = nullptr;
  std::size_t slabs_ = 0;
  std::size_t blocks_ = 0;
};

// Never destroyed: chunks in static values may outlive every static object.
Pool& pool() {
  static Pool* pool = new Pool;
  return *pool;
}

}  // namespace

void* ChunkPool::allocate([[maybe_unused]] std::size_t bytes) {
  assert(bytes <= kLargestBlock);
  return pool().take();
}

void ChunkPool::release(void* block) noexcept { pool().giveBack(block); }

ChunkPool::Figures ChunkPool::figures() { return pool().figures(); }

}  // namespace uq
