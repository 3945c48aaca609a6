#include "core/store/QuiltFolder.h"

#include <algorithm>
#include <functional>
#include <set>

#include "core/store/Documents.h"
#include "core/store/BeatLock.h"
#include "core/store/Holder.h"
#include "core/store/SavePlan.h"
#include "core/store/StoreLimits.h"

namespace uq {

namespace {

// Whether a file of a quilt is text, not a picture.
bool isText(const std::string& path) {
  return path.ends_with(".json") || path.ends_with(".cells") || path.ends_with(".tiles");
}

}  // namespace

QuiltFolder::QuiltFolder(std::shared_ptr<Disk> disk, std::string path)
    : disk_(std::move(disk)), path_(std::move(path)) {
  disk_->enclose(path_);
}

std::optional<Error> QuiltFolder::lock() {
  const std::string folder = full(std::string(kPrivateFolder));
  if (lock_) {
    const auto there = disk_->stamp(joined(folder, "lock"));
    if (!there) return there.error();
    if (*there && lock_->stands()) return std::nullopt;
    lock_.reset();
  }
  auto made = disk_->makeFolder(folder);
  bool isBeaten = false;  // the drive has no locks
  if (made) {
    const std::string path = joined(folder, "lock");
    auto held = disk_->lock(path);
    isBeaten = !held && held.error().cause == Error::Cause::noLocks;
    if (isBeaten) held = BeatLock::take(disk_, path);
    if (held) {
      lock_ = std::move(*held);
      writeHolder(*disk_, folder, Holder::thisProgram());
      // Keeps lock and journal out of every version-control repository.
      const std::string ignore = joined(folder, ".gitignore");
      const auto there = disk_->stamp(ignore);
      if (there && !*there) made = disk_->write(ignore, "*\n");
      if (made) return std::nullopt;
    } else {
      made = fail(held.error());
    }
  }
  Error error = made.error();
  if (error.cause == Error::Cause::notPermitted) {
    error.file = path_;
    error.reason = "nothing may be written in this folder";
  }
  if (error.cause == Error::Cause::inUse) {
    error.file = path_;
    if (const auto holder = readHolder(*disk_, folder)) error.reason = textOf(*holder);
    error.todo = "What is saved there is shown here. Once it is closed there, it can be changed here" +
                 (isBeaten ? std::string("; if that program is gone, in a minute") : std::string());
  }
  error.kept = "The quilt can be looked at, but not saved here";
  if (error.todo.empty()) error.todo = "Save it somewhere else to change it";
  return error;
}

Result<bool> QuiltFolder::look() {
  const auto there = stamp(std::string(kQuiltFile));
  if (!there) return fail(there.error());
  auto journal = readJournal(*disk_, path_);
  if (!journal) return fail(journal.error());
  pending_ = std::move(*journal);
  // A quilt that was committed whole and never finished is there, too.
  const auto& writes = pending_ ? pending_->writes : std::vector<std::string>();
  return *there || std::find(writes.begin(), writes.end(), kQuiltFile) != writes.end();
}

Result<void> QuiltFolder::settle() {
  auto journal = readJournal(*disk_, path_);
  if (!journal) return fail(journal.error());
  if (*journal) {
    if (auto done = finishJournal(*disk_, path_, **journal); !done) return done;
  }
  pending_.reset();
  return {};
}

Result<std::string> QuiltFolder::read(const std::string& path, std::int64_t most) {
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

Result<std::vector<Disk::Entry>> QuiltFolder::list(const std::string& path) {
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
  std::erase_if(*entries, [](const Disk::Entry& e) { return e.name.starts_with('.'); });
  return entries;
}

bool QuiltFolder::isStill() const {
  const auto journal = readJournal(*disk_, path_);
  if (journal && journal->has_value() != pending_.has_value()) return false;
  return std::all_of(seen_.begin(), seen_.end(), [this](const auto& one) {
    const auto stamp = disk_->stamp(full(one.first));
    return stamp && (*stamp ? **stamp == one.second.stamp : one.second.stamp == Disk::Stamp());
  });
}

void QuiltFolder::takeSeen(QuiltFolder&& other) {
  for (const auto& [path, seen] : seen_) {
    if (!isText(path)) other.seen_[path] = seen;
  }
  seen_ = std::move(other.seen_);
}

bool QuiltFolder::isAsSeen() const {
  for (const auto& [path, seen] : seen_) {
    if (!isText(path)) continue;
    const auto stamp = disk_->stamp(full(path));
    if (!stamp || !(*stamp ? **stamp == seen.stamp : seen.stamp == Disk::Stamp())) return false;
  }
  const auto isNew = [this](const std::string& document) { return !seen_.contains(document) && isThere(document); };
  if (isNew(std::string(kLinksFile)) || isNew(std::string(kPlanFile))) return false;
  for (const auto& [folder, document] : {std::pair("maps", "/map.json"), std::pair("stamps", "/stamp.json"),
                                         std::pair("sheets", ""), std::pair("edgings", ""), std::pair("targets", "")}) {
    const auto there = disk_->list(full(folder), kMostNames);
    if (!there) continue;
    for (const Disk::Entry& one : *there) {
      const std::string path = joined(folder, one.name) + document;
      if (!one.name.starts_with('.') && path.ends_with(".json") && isNew(path)) return false;
    }
  }
  return true;
}

bool QuiltFolder::isThere(const std::string& path) const {
  const auto stamp = disk_->stamp(full(path));
  return !stamp || *stamp;  // what cannot be looked at is not missing
}

void QuiltFolder::saw(const std::string& path, std::string_view bytes) {
  const auto now = stamp(path);
  if (now && *now) seen_[path] = {**now, hashOf(bytes)};
}

void QuiltFolder::removeLeftovers() {
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
  sweep("edgings");
  sweep("targets");
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

Result<void> QuiltFolder::checkUnchanged(const std::string& path) const {
  const auto stamp = this->stamp(path);
  if (!stamp) return fail(stamp.error());
  const auto seen = seen_.find(path);
  const bool expected = seen != seen_.end();
  if (stamp->has_value() == expected && (!expected || **stamp == seen->second.stamp)) return {};
  if (*stamp && expected) {
    const auto bytes = disk_->read(full(path), kLargestCells);
    if (!bytes) return fail(bytes.error());
    if (hashOf(*bytes) == seen->second.hash) return {};
  }
  if (!*stamp && expected) return {};  // somebody removed it; writing it again loses nothing
  return fail(Error{Error::Cause::changedOutside, "another program wrote this file since the quilt was opened", path, 0,
                    "Nothing was saved, and your work is still in the window",
                    "Save the quilt somewhere else, then compare the two"});
}

Result<void> QuiltFolder::checkUnchanged(const std::set<std::string>& paths) const {
  for (const std::string& path : paths) {
    if (auto done = checkUnchanged(path); !done) return done;
  }
  return {};
}

// The new files beside their places; nothing counts yet.
Result<void> QuiltFolder::writeAll(const SavePlan& plan, Progress& progress,
                                   std::map<std::string, std::uint64_t>& hashes) {
  const auto cancelled = [] { return fail(Error::Cause::cancelled, "saving was cancelled"); };
  const std::set<std::string> folders = plan.folders();
  for (const auto& folder : folders) {
    if (auto made = disk_->makeFolder(full(folder)); !made) return made;
  }
  progress.expect(static_cast<std::int64_t>(plan.journal.writes.size()));
  for (const auto& path : plan.journal.writes) {
    if (progress.isCancelled()) return cancelled();
    const QuiltFile& file = plan.files.at(path);
    const std::string text = file.text();
    // "Saved" means that it opens again.
    if (auto wrong = file.readBack ? file.readBack(text) : std::nullopt) return fail(std::move(*wrong).in(path));
    hashes[path] = hashOf(text);
    if (auto written = disk_->write(full(newNameFor(path)), text); !written) return written;
    progress.step(1);
  }
  if (progress.isCancelled()) return cancelled();
  for (const auto& folder : folders) {
    if (auto synced = disk_->syncFolder(full(folder)); !synced) return synced;
  }
  return {};
}

void QuiltFolder::leaveEmpty(const SavePlan& plan) {
  std::set<std::string, std::greater<>> folders;  // those within others first
  for (const std::string& path : plan.journal.writes) {
    for (std::string inner = folderOf(path); !inner.empty(); inner = folderOf(inner)) folders.insert(inner);
  }
  const std::string ours = full(std::string(kPrivateFolder));
  if (const auto files = disk_->list(ours, kMostNames)) {
    for (const Disk::Entry& one : *files) (void)disk_->remove(joined(ours, one.name));
  }
  (void)disk_->removeFolder(ours);
  for (const std::string& inner : folders) (void)disk_->removeFolder(full(inner));
}

Result<void> QuiltFolder::carryOut(const SavePlan& plan, Progress& progress, bool& committed) {
  std::map<std::string, std::uint64_t> hashes;
  auto done = writeAll(plan, progress, hashes);
  // What another program wrote meanwhile is not overwritten.
  if (done) done = checkUnchanged(plan.standsOn());
  if (done) done = commitJournal(*disk_, path_, plan.journal);
  if (!done) {
    for (const auto& path : plan.journal.writes) (void)disk_->remove(full(newNameFor(path)));
    Error error = done.error();
    error.kept = "The quilt on the disk is as it was, and your work is still in the window";
    return fail(std::move(error));
  }
  committed = true;
  // A stamp that no file has: until the new files stand in their places, only their content can be recognised.
  for (const auto& path : plan.journal.writes) seen_[path] = {{-1, -1}, hashes[path]};
  for (const auto& move : plan.journal.moves) {
    seen_[move.to] = seen_[move.from];
    seen_.erase(move.from);
  }
  for (const auto& path : plan.journal.removes) seen_.erase(path);
  if (auto finished = finishJournal(*disk_, path_, plan.journal); !finished) {
    Error error = finished.error();
    error.kept = "Everything is written, and the save is finished when the quilt is saved or opened again";
    return fail(std::move(error));
  }
  for (const auto& path : plan.journal.writes) {
    const auto now = stamp(path);
    if (now && *now) seen_[path] = {**now, hashes[path]};
  }
  return {};
}

}  // namespace uq
