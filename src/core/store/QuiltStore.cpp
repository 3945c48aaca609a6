#include "core/store/QuiltStore.h"

#include "core/store/Documents.h"
#include "core/store/StoreLimits.h"

namespace uq {

namespace {

constexpr int kMostTries = 4;  // to read while another program saves

}  // namespace

Result<QuiltStore::Opened> QuiltStore::open(std::shared_ptr<Disk> disk, const std::string& folder, Access access,
                                            Progress* progress, const Onlooker& onlooker,
                                            const ReadBefore* before) {
  Progress unseen;
  Progress& steps = progress ? *progress : unseen;
  for (int tries = 1;; ++tries) {
    auto opened = openOnce(disk, folder, access, steps, access == Access::write ? onlooker : Onlooker(), before);
    if (!opened || access == Access::write || opened->store.folder_.isStill()) return opened;
    if (tries < kMostTries) continue;
    opened->problems.push_back(Error{Error::Cause::changedOutside, "it was being saved all the time while it was read",
                                     folder, 0, "What is shown may be a mix of two states", "Open it again"});
    return opened;
  }
}

Result<QuiltStore::Opened> QuiltStore::openOnce(const std::shared_ptr<Disk>& disk, const std::string& folder,
                                                Access access, Progress& progress, const Onlooker& onlooker,
                                                const ReadBefore* before) {
  QuiltStore store(QuiltFolder(disk, folder));
  QuiltFolder& files = store.folder_;
  const auto there = files.look();
  if (!there) return fail(there.error());
  if (!*there) {
    return fail(Error{Error::Cause::missing,
                      "there is no quilt here (no quilt.json)",
                      folder,
                      0,
                      {},
                      "Choose the folder that holds quilt.json"});
  }
  Errors problems;
  if (access == Access::write) {
    store.readOnly_ = files.lock();
    // Whoever held the lock before may have finished the save that was seen.
    if (const auto again = files.look(); !again) return fail(again.error());
    if (files.isLocked() && files.hasPending()) {
      if (auto settled = files.settle(); !settled) {
        store.readOnly_ = Error(settled.error())
                              .keeping("The quilt is shown as it was saved last, and can be looked at")
                              .advising("Mend what stands in the way of that file, and open the quilt again");
      }
    }
    if (files.isLocked() && !store.readOnly_) files.removeLeftovers();
  }
  if (store.readOnly_) problems.push_back(*store.readOnly_);
  QuiltRead read = readQuilt(files, progress, onlooker, before);
  if (progress.isCancelled()) return fail(Error::Cause::cancelled, "opening was cancelled", folder);
  problems.insert(problems.end(), read.problems.begin(), read.problems.end());
  if (!store.readOnly_) store.readOnly_ = read.unwritable;
  if (access == Access::read) {
    store.readOnly_ = Error{Error::Cause::notPermitted, "the quilt was opened for reading only", folder, 0, {}, {}};
  }
  store.damaged_ = std::move(read.damaged);
  store.leftOut_ = std::move(read.leftOut);
  store.whole_ = read.isWhole;
  store.saved_ = read.quilt;
  return Opened{std::move(store), std::move(read.quilt), std::move(problems)};
}

Result<QuiltStore::Opened> QuiltStore::create(std::shared_ptr<Disk> disk, const std::string& folder, const Quilt& quilt,
                                              Progress* progress) {
  Progress unseen;
  if (auto made = disk->makeFolder(folder); !made) return fail(made.error());
  QuiltStore store(QuiltFolder(disk, folder));
  const auto there = disk->list(folder, kMostNames);
  if (!there) return fail(there.error());
  if (!there->empty()) {
    return fail(Error{Error::Cause::notPermitted, "the folder is not empty", folder, 0, "Nothing was written",
                      "Choose an empty or a new folder"});
  }
  if (auto locked = store.folder_.lock()) {
    if (locked->cause != Error::Cause::inUse) store.folder_.leaveEmpty({});
    return fail(*locked);
  }
  const auto planned = store.plan(quilt);
  if (!planned) {
    store.folder_.leaveEmpty({});
    return fail(planned.error());
  }
  bool committed = false;
  if (auto done = store.folder_.carryOut(*planned, progress ? *progress : unseen, committed); !done) {
    if (!committed) store.folder_.leaveEmpty(*planned);
    return fail(done.error());
  }
  store.saved_ = quilt;
  return Opened{std::move(store), quilt, {}};
}

Result<SavePlan> QuiltStore::plan(const Quilt& quilt) const {
  SaveAsk ask{{}, leftOut_, [this](const std::string& path) { return folder_.isThere(path); }};
  for (const auto& [id, error] : damaged_) ask.damaged.insert(folderOf(mapFile(*saved_.map(id))));
  return planSave(saved_, quilt, ask);
}

Result<QuiltStore::Reread> QuiltStore::readAgain(Progress& progress) const {
  QuiltFolder files(folder_.shared(), folder());
  const auto there = files.look();
  if (!there) return fail(there.error());
  if (!*there || files.hasPending()) {
    return fail(Error{Error::Cause::changedOutside, "the quilt is being changed by another program", folder(), 0, {}, {}});
  }
  const ReadBefore before{saved_};
  QuiltRead read = readQuilt(files, progress, {}, &before);
  if (progress.isCancelled()) return fail(Error::Cause::cancelled, "reading was cancelled", folder());
  if (!files.isStill()) {
    return fail(Error{Error::Cause::changedOutside, "the quilt is being changed by another program", folder(), 0, {}, {}});
  }
  return Reread{std::move(files), std::move(read)};
}

void QuiltStore::take(Reread reread) {
  folder_.takeSeen(std::move(reread.folder));
  saved_ = std::move(reread.read.quilt);
  damaged_ = std::move(reread.read.damaged);
  leftOut_ = std::move(reread.read.leftOut);
  whole_ = reread.read.isWhole;
}

const Error* QuiltStore::damage(Id map) const {
  const auto found = damaged_.find(map);
  return found == damaged_.end() ? nullptr : &found->second;
}

Result<void> QuiltStore::takeOver() {
  if (!readOnly()) return {};
  if (readOnly_->cause != Error::Cause::inUse) return fail(*readOnly_);
  if (auto locked = folder_.lock()) return fail(std::move(*locked));
  *tookOver_ = true;
  return {};
}

Result<QuiltStore::Saved> QuiltStore::save(const Quilt& quilt, Progress* progress) {
  Progress unseen;
  if (auto mine = takeOver(); !mine) return fail(mine.error());
  for (const auto& [id, error] : damaged_) {
    const Map* before = saved_.map(id);
    const Map* now = quilt.map(id);
    if (!now || !(*before == *now)) return fail(error);
  }
  const auto there = folder_.stamp(std::string(kQuiltFile));
  if (!there) return fail(there.error());
  if (!*there) {
    return fail(Error{Error::Cause::missing, "the quilt's folder is gone, or is no quilt any more", folder(), 0,
                      "Nothing was saved, and your work is still in the window", "Save the quilt in a new folder"});
  }
  if (auto locked = folder_.lock()) return fail(std::move(*locked));
  if (auto settled = folder_.settle(); !settled) return fail(settled.error());
  auto plans = plan(quilt);
  if (!plans) return fail(plans.error());
  const SavePlan& planned = *plans;
  Saved saved{planned.journal.writes, {}, planned.journal.removes};
  for (const auto& move : planned.journal.moves) saved.moved.push_back(move.to);
  if (!planned.journal.empty()) {
    if (auto unchanged = folder_.checkUnchanged(planned.standsOn()); !unchanged) return fail(unchanged.error());
    bool committed = false;
    const auto done = folder_.carryOut(planned, progress ? *progress : unseen, committed);
    if (committed) saved_ = quilt;
    if (!done) return fail(done.error());
  }
  saved_ = quilt;
  return saved;
}

Error notWhole(const std::string& folder) {
  return {Error::Cause::notPermitted, "parts of this quilt could not be read, and a copy would lose them", folder, 0,
          "Nothing was written", "Mend the files that were named, or copy the folder"};
}

}  // namespace uq
