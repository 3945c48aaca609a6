// Progress: how far long work is, and whether it is still wanted.
//
// Shared by the thread that works and the one that shows it; every call may come from any thread. The worker asks
// isCancelled() between steps that take some tenths of a second, and ends with an Error whose cause is `cancelled`.
#pragma once

#include <algorithm>
#include <atomic>
#include <cstdint>

namespace uq {

class Progress {
 public:
  // Announces units of work, such as bytes or files; more may be announced later.
  void expect(std::int64_t units) { expected_ += units; }
  void step(std::int64_t units) { done_ += units; }

  // 0 .. 1000; 0 while nothing was announced.
  int perMille() const {
    const std::int64_t expected = expected_;
    return expected <= 0 ? 0 : static_cast<int>(std::clamp<std::int64_t>(done_ * 1000 / expected, 0, 1000));
  }

  void cancel() { cancelled_ = true; }
  bool isCancelled() const { return cancelled_; }

 private:
  std::atomic<std::int64_t> expected_{0};
  std::atomic<std::int64_t> done_{0};
  std::atomic<bool> cancelled_{false};
};

}  // namespace uq
