// HeldDisk: the real disk, of which reading or writing .cells can be held up, to look at the workroom while it works.
#pragma once

#include <condition_variable>
#include <mutex>

#include "core/ForwardingDisk.h"

namespace uq::test {

class HeldDisk : public ForwardingDisk {
 public:
  ~HeldDisk() override { letGo(); }

  void hold() { set(true); }
  void letGo() { set(false); }

 private:
  void beforeReading(const std::string& path) override { wait(path); }
  void beforeChanging(const std::string& path) override { wait(path); }
  void set(bool held) {
    const std::lock_guard lock(mutex_);
    held_ = held;
    changed_.notify_all();
  }
  void wait(const std::string& path) {
    if (path.find(".cells") == std::string::npos) return;
    std::unique_lock lock(mutex_);
    changed_.wait(lock, [this] { return !held_; });
  }

  std::mutex mutex_;
  std::condition_variable changed_;
  bool held_ = false;
};

}  // namespace uq::test
