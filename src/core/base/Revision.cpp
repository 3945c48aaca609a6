#include "core/base/Revision.h"

#include <atomic>

namespace uq {

Revision Revision::next() {
  static std::atomic<std::uint64_t> counter{std::uint64_t{1} << 32};
  return Revision(counter.fetch_add(1, std::memory_order_relaxed) + 1);
}

}  // namespace uq
