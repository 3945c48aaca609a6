#include "core/store/QuiltStore.h"

#include <algorithm>

#include "core/store/Documents.h"
#include "core/store/StoreLimits.h"

namespace uq {

namespace {

constexpr int kMostTries = 4;  // to read while another program saves

}  // namespace

QuiltStore::QuiltStore(std::shared_ptr<Disk> disk, std::string folder)
    : disk_(std::move(disk)), folder_(std::move(folder)) {}

Result<QuiltStore::Opened> QuiltStore::open(std::shared_ptr<Disk> disk, const std::string& folder, Access access,
                                            Progress* progress) {
  Progress unseen;
  Progress& steps = progress ? *progress : unseen;
  disk->enclose(folder);
  for (int tries = 1;; ++tries) {
    auto opened = openOnce(disk, folder, access, steps);
    if (!opened || access == Access::write || opened->store.isStill()) return opened;
    if (tries < kMostTries) continue;
    opened->problems.push_back(Error{Error::Cause::changedOutside, "it was being saved all the time while it was read",
                                     folder, 0, "What is shown may be a mix of two states", "Open it again"});
    return opened;
  }
}

Result<QuiltStore::Opened> QuiltStore::openOnce(const std::shared_ptr<Disk>& disk, const std::string& folder,
                                                Access access, Progress& progress) {
  QuiltStore store(disk, folder);
  const auto there = store.disk_->stamp(store.full(std::string(kQuiltFile)));
  if (!there) return fail(there.error());
  auto journal = readJournal(*store.disk_, folder);
  if (!journal) return fail(journal.error());
  // A quilt that was committed whole and never finished is there, too.
  const auto& writes = *journal ? (*journal)->writes : std::vector<std::string>();
  if (!*there && std::find(writes.begin(), writes.end(), kQuiltFile) == writes.end()) {
    return fail(Error{Error::Cause::missing,
                      "there is no quilt here (no quilt.json)",
                      folder,
                      0,
                      {},
                      "Choose the folder that holds quilt.json"});
  }
  Errors problems;
  if (access == Access::write) {
    store.readOnly_ = store.takeLock();
    // Whoever held the lock before may have finished it.
    journal = readJournal(*store.disk_, folder);
    if (!journal) return fail(journal.error());
  }
  if (*journal) store.pending_ = std::move(**journal);
  if (store.lock_ && store.pending_) {
    if (auto settled = store.settleJournal(); !settled) {
      store.readOnly_ = Error(settled.error())
                            .keeping("The quilt is shown as it was saved last, and can be looked at")
                            .advising("Mend what stands in the way of that file, and open the quilt again");
    }
  }
  if (store.lock_ && !store.readOnly_) store.removeLeftovers();
  if (store.readOnly_) problems.push_back(*store.readOnly_);
  Quilt quilt = store.readAll(problems, progress);
  if (progress.isCancelled()) return fail(Error::Cause::cancelled, "opening was cancelled", folder);
  if (access == Access::read) {
    store.readOnly_ = Error{Error::Cause::notPermitted, "the quilt was opened for reading only", folder, 0, {}, {}};
  }
  store.saved_ = quilt;
  return Opened{std::move(store), std::move(quilt), std::move(problems)};
}

bool QuiltStore::isStill() const {
  const auto journal = readJournal(*disk_, folder_);
  if (journal && journal->has_value() != pending_.has_value()) return false;
  return std::all_of(seen_.begin(), seen_.end(), [this](const auto& one) {
    const auto stamp = disk_->stamp(full(one.first));
    return stamp && (*stamp ? **stamp == one.second.stamp : one.second.stamp == Disk::Stamp());
  });
}

Result<QuiltStore::Opened> QuiltStore::create(std::shared_ptr<Disk> disk, const std::string& folder, const Quilt& quilt,
                                              Progress* progress) {
  Progress unseen;
  if (auto made = disk->makeFolder(folder); !made) return fail(made.error());
  disk->enclose(folder);
  const auto there = disk->list(folder, kMostNames);
  if (!there) return fail(there.error());
  if (!there->empty()) {
    return fail(Error{Error::Cause::notPermitted, "the folder is not empty", folder, 0, "Nothing was written",
                      "Choose an empty or a new folder"});
  }
  QuiltStore store(disk, folder);
  if (auto locked = store.takeLock()) return fail(*locked);

  const auto planned = store.plan(quilt);
  if (!planned) return fail(planned.error());
  bool committed = false;
  if (auto done = store.carryOut(*planned, progress ? *progress : unseen, committed); !done) return fail(done.error());
  store.saved_ = quilt;
  return Opened{std::move(store), quilt, {}};
}

std::optional<Error> QuiltStore::takeLock() {
  const std::string folder = full(std::string(kPrivateFolder));
  auto made = disk_->makeFolder(folder);
  if (made) {
    auto lock = disk_->lock(joined(folder, "lock"));
    if (lock) {
      lock_ = std::move(*lock);
      // Keeps lock and journal out of every version-control repository.
      const std::string ignore = joined(folder, ".gitignore");
      const auto there = disk_->stamp(ignore);
      if (there && !*there) made = disk_->write(ignore, "*\n");
      if (made) return std::nullopt;
    } else {
      made = fail(lock.error());
    }
  }
  Error error = made.error();
  if (error.cause == Error::Cause::notPermitted) {
    error.file = folder_;
    error.reason = "nothing may be written in this folder";
  }
  error.kept = "The quilt can be looked at, but not saved here";
  if (error.todo.empty()) error.todo = "Save it somewhere else to change it";
  return error;
}

// Finishes a save that was committed; only who holds the lock may.
Result<void> QuiltStore::settleJournal() {
  auto journal = readJournal(*disk_, folder_);
  if (!journal) return fail(journal.error());
  if (*journal) {
    if (auto done = finishJournal(*disk_, folder_, **journal); !done) return done;
  }
  pending_.reset();
  return {};
}

// Reads a file of the quilt, through a committed save that could not be finished.
Result<std::string> QuiltStore::read(const std::string& path, std::int64_t most) {
  std::string source = path;
  if (pending_) {
    const auto& gone = pending_->removes;
    if (std::find(gone.begin(), gone.end(), path) != gone.end()) {
      return fail(Error::Cause::missing, "it does not exist", path);
    }
    for (const auto& move : pending_->moves) {
      if (move.to == path) source = move.from;
    }
    const auto& writes = pending_->writes;
    if (std::find(writes.begin(), writes.end(), path) != writes.end()) source = newNameFor(path);
    const auto there = disk_->stamp(full(source));
    if (there && !*there) source = path;
  }
  // Looked at before it is read, so that what is written in between is noticed.
  const auto before = disk_->stamp(full(path));
  auto bytes = disk_->read(full(source), most);
  if (!bytes) {
    Error error = bytes.error();
    error.file = path;
    return fail(std::move(error));
  }
  seen_[path] = {before && *before ? **before : Disk::Stamp(), hashOf(*bytes)};
  return bytes;
}

Result<std::vector<Disk::Entry>> QuiltStore::list(const std::string& path) {
  auto entries = entriesOf(path);
  if (entries) std::erase_if(*entries, [](const Disk::Entry& e) { return e.name.starts_with('.'); });
  return entries;
}

// With hidden ones, through a committed save.
Result<std::vector<Disk::Entry>> QuiltStore::entriesOf(const std::string& path) {
  auto entries = disk_->list(full(path), kMostNames);
  if (!entries && entries.error().cause == Error::Cause::missing) return std::vector<Disk::Entry>{};
  if (!entries) {
    Error error = entries.error();
    error.file = path;
    return fail(std::move(error));
  }
  if (pending_) {
    const auto drop = [&](const std::string& gone) {
      std::erase_if(*entries, [&](const Disk::Entry& e) { return joined(path, e.name) == gone; });
    };
    const auto add = [&](const std::string& fresh) {
      if (folderOf(fresh) != path) return;
      drop(fresh);
      entries->push_back({nameOf(fresh), Disk::Kind::file});
    };
    for (const auto& write : pending_->writes) add(write);
    for (const auto& move : pending_->moves) {
      drop(move.from);
      add(move.to);
    }
    for (const auto& gone : pending_->removes) drop(gone);
    std::sort(entries->begin(), entries->end(), [](const auto& a, const auto& b) { return a.name < b.name; });
  }
  return entries;
}

void QuiltStore::remember(const std::string& path, std::uint64_t hash) {
  const auto stamp = disk_->stamp(full(path));
  if (stamp && *stamp) seen_[path] = {**stamp, hash};
}

void QuiltStore::sawPicture(const std::string& path, std::string_view bytes) { remember(path, hashOf(bytes)); }

// New files of a save that never reached its commit.
void QuiltStore::removeLeftovers() {
  const auto sweep = [&](const std::string& folder) {
    const auto entries = disk_->list(full(folder), kMostNames);
    if (!entries) return;
    for (const auto& entry : *entries) {
      const auto path = entry.kind == Disk::Kind::file ? fileOfNewName(joined(folder, entry.name)) : std::nullopt;
      if (path && isQuiltFile(*path)) (void)disk_->remove(full(joined(folder, entry.name)));
    }
  };
  (void)disk_->remove(full(joined(kPrivateFolder, "journal.new")));
  sweep("");
  sweep("sheets");
  const auto sheets = disk_->list(full("sheets"), kMostNames);
  for (const auto& entry : sheets.value_or(std::vector<Disk::Entry>())) {
    if (entry.kind == Disk::Kind::folder) sweep(joined("sheets", entry.name));
  }
  for (const std::string parent : {"maps", "stamps"}) {
    const auto folders = disk_->list(full(parent), kMostNames);
    for (const auto& entry : folders.value_or(std::vector<Disk::Entry>())) {
      if (entry.kind == Disk::Kind::folder) sweep(joined(parent, entry.name));
    }
  }
}

const Error* QuiltStore::damage(Id map) const {
  const auto found = damaged_.find(map);
  return found == damaged_.end() ? nullptr : &found->second;
}

}  // namespace uq
