// HeldDisk: the real disk, of which reading or writing files of one kind, usually .cells, can be held up, to look at the
// workroom while it works.
#pragma once

#include <condition_variable>
#include <mutex>

#include "core/ForwardingDisk.h"

namespace uq::test {

class HeldDisk : public ForwardingDisk {
 public:
  ~HeldDisk() override { letGo(); }

  void hold(const std::string& files = ".cells") { set(files); }
  void letGo() { set({}); }

 private:
  void beforeReading(const std::string& path) override { wait(path); }
  void beforeChanging(const std::string& path) override { wait(path); }
  void set(const std::string& held) {
    const std::lock_guard lock(mutex_);
    held_ = held;
    changed_.notify_all();
  }
  void wait(const std::string& path) {
    std::unique_lock lock(mutex_);
    changed_.wait(lock, [&] { return held_.empty() || path.find(held_) == std::string::npos; });
  }

  std::mutex mutex_;
  std::condition_variable changed_;
  std::string held_;  // what the paths of files have in common that wait
};

}  // namespace uq::test
