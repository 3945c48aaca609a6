#include "core/store/BeatLock.h"

#include <map>

#include "core/base/Id.h"

namespace uq {

namespace {

constexpr std::int64_t kLargestBeat = 4096;

// How a file of somebody else's was seen last, and since when it is so.
struct SeenBeat {
  std::string text;
  BeatLock::Clock::time_point since;
};

// True once a text has stood in a file for long enough.
bool isStale(const std::string& path, const std::string& text, BeatLock::Clock::time_point now) {
  static std::mutex mutex;
  static std::map<std::string, SeenBeat> seen;
  const std::lock_guard lock(mutex);
  const auto [known, isNew] = seen.try_emplace(path, SeenBeat{text, now});
  if (!isNew && known->second.text != text) known->second = {text, now};
  return now - known->second.since >= kBeatStale;
}

}  // namespace

BeatLock::BeatLock(std::shared_ptr<Disk> disk, std::string path)
    : disk_(std::move(disk)), path_(std::move(path)), token_(IdSource::fromSystem().next().text()) {}

Result<std::unique_ptr<BeatLock>> BeatLock::take(std::shared_ptr<Disk> disk, const std::string& path,
                                                 Clock::time_point now, bool beats) {
  const auto there = disk->read(path, kLargestBeat);
  if (!there && there.error().cause != Error::Cause::missing) return fail(there.error());
  const auto isInUse = [&] {
    return fail(Error::Cause::inUse, "another window has this quilt open", path);
  };
  // An empty file is a lock of the other kind, from a drive that had them.
  if (there && !there->empty() && !isStale(path, *there, now)) return isInUse();
  std::unique_ptr<BeatLock> lock(new BeatLock(std::move(disk), path));
  if (auto wrote = writeWhole(*lock->disk_, path, lock->token_ + " 0\n"); !wrote) return fail(wrote.error());
  if (!lock->stands()) return isInUse();
  if (beats) {
    lock->beats_ = std::jthread([one = lock.get()](const std::stop_token& stop) {
      std::unique_lock wait(one->mutex_);
      while (!one->ends_.wait_for(wait, stop, kBeatEvery, [&stop] { return stop.stop_requested(); })) one->beat();
    });
  }
  return lock;
}

BeatLock::~BeatLock() {
  if (beats_.joinable()) {
    beats_.request_stop();
    beats_.join();
  }
  if (stands()) (void)disk_->remove(path_);
}

bool BeatLock::stands() const {
  const auto there = disk_->read(path_, kLargestBeat);
  return there && there->starts_with(token_);
}

void BeatLock::beat() {
  if (stands()) (void)writeWhole(*disk_, path_, token_ + " " + std::to_string(++count_) + "\n");
}

}  // namespace uq
