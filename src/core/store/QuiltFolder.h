// QuiltFolder: the folder of one quilt as files: the disk below it, its lock, its journal, and how every file was last
// seen.
//
// Knows nothing of what the files mean (QuiltReading, SavePlan). All that is read is remembered by its stamp and hash,
// so that a save can tell what another program wrote. A committed save that could not be finished is read through, and
// finished by who holds the lock. Paths are relative to the folder.
// Cost: that of the files. Threads: one call at a time, on any thread.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/base/Progress.h"
#include "core/store/Disk.h"
#include "core/store/Journal.h"

namespace uq {

struct SavePlan;

class QuiltFolder {
 public:
  // Nothing below `path` is reached through a link from now on; it need not exist.
  QuiltFolder(std::shared_ptr<Disk> disk, std::string path);

  Disk& disk() const { return *disk_; }
  const std::shared_ptr<Disk>& shared() const { return disk_; }
  const std::string& path() const { return path_; }

  // Locks the quilt against other writers (by beats where the drive has no locks), or says why not and what then. Locked already it is looked after: a checkout
  // that is cleaned takes the private folder along, and its lock.
  std::optional<Error> lock();
  bool isLocked() const { return lock_ != nullptr; }

  // Looks for a committed save. True when a quilt is here: quilt.json, or a save that will make it.
  Result<bool> look();
  bool hasPending() const { return pending_.has_value(); }
  // Finishes a save that was committed; only who holds the lock may.
  Result<void> settle();
  // Removes the new files of a save that never reached its commit; only who holds the lock may.
  void removeLeftovers();

  // A file, through a committed save that could not be finished; its Error names the file as given.
  Result<std::string> read(const std::string& path, std::int64_t most);
  // What lies in a folder, without hidden names; nothing where there is no such folder.
  Result<std::vector<Disk::Entry>> list(const std::string& path);
  Result<std::optional<Disk::Stamp>> stamp(const std::string& path) const { return disk_->stamp(full(path)); }
  // What cannot be looked at is not missing.
  bool isThere(const std::string& path) const;
  // Whether nothing was saved by another program since this one began to read.
  bool isStill() const;
  // Whether all that was read or written is as it was then, and nothing lies beside it that would be read, too. Pictures
  // do not count. What cannot be looked at counts as changed.
  bool isAsSeen() const;
  // Takes what another look at the same folder saw; of pictures only those that were not known (see saw).
  void takeSeen(QuiltFolder&& other);
  // A file as it is on the disk now, read by somebody else.
  void saw(const std::string& path, std::string_view bytes);

  // Whether these files are as they were last read or written; an Error names the first that another program wrote.
  Result<void> checkUnchanged(const std::set<std::string>& paths) const;
  // Writes and commits a plan, all of it or nothing. `committed` tells whether the save has happened, even where
  // finishing it failed.
  Result<void> carryOut(const SavePlan& plan, Progress& progress, bool& committed);
  // Takes away what a plan that was not committed has left in a folder that was empty, the lock too.
  void leaveEmpty(const SavePlan& plan);

 private:
  struct Seen {
    Disk::Stamp stamp;
    std::uint64_t hash = 0;
  };

  std::string full(const std::string& path) const { return path.empty() ? path_ : joined(path_, path); }
  Result<void> checkUnchanged(const std::string& path) const;
  Result<void> writeAll(const SavePlan& plan, Progress& progress, std::map<std::string, std::uint64_t>& hashes);

  std::shared_ptr<Disk> disk_;
  std::string path_;
  std::map<std::string, Seen> seen_;
  std::optional<Journal> pending_;  // a committed save that could not be finished
  std::unique_ptr<Disk::Lock> lock_;
};

}  // namespace uq
