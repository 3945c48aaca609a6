// BeatLock: holds a quilt on a drive that has no locks: a file that says by whom it is held, written anew again and again.
//
// Somebody who finds the file cannot ask whether its writer still lives, only look whether it changes. So it is held by
// others until it was seen unchanged for kBeatStale, by this machine's steady clock: clocks that jump or differ between
// machines mean nothing. Two who take it at one moment both read it back, and the one whose name stands there has it.
// Where locks exist, Disk::lock is the better one: it is let go the moment its holder ends.
// Cost: one small file every kBeatEvery, on a thread of its own, so a slow drive keeps nobody waiting.
// Threads: any; `stands` reads the file.
#pragma once

#include <chrono>
#include <condition_variable>
#include <memory>
#include <mutex>
#include <string>
#include <thread>

#include "core/store/Disk.h"

namespace uq {

inline constexpr std::chrono::seconds kBeatEvery{10};
inline constexpr std::chrono::seconds kBeatStale{45};

class BeatLock final : public Disk::Lock {
 public:
  using Clock = std::chrono::steady_clock;

  // An Error (inUse) where somebody else has it, or it was not looked at for long enough to tell. `beats`: whether it
  // goes on by itself.
  static Result<std::unique_ptr<BeatLock>> take(std::shared_ptr<Disk> disk, const std::string& path,
                                                Clock::time_point now = Clock::now(), bool beats = true);
  // Lets it go, where it still is this one's.
  ~BeatLock() override;

  bool stands() const override;
  // Writes the next beat; nothing where somebody else took it over.
  void beat();

 private:
  BeatLock(std::shared_ptr<Disk> disk, std::string path);

  std::shared_ptr<Disk> disk_;
  std::string path_;
  std::string token_;
  int count_ = 0;
  std::mutex mutex_;
  std::condition_variable_any ends_;
  std::jthread beats_;  // the last: it uses the others
};

}  // namespace uq
