// QuiltStore: one quilt's folder, opened; the only thing that reads or writes it.
//
// Joins three parts: the folder (QuiltFolder: disk, lock, journal, what was seen of every file), reading (QuiltReading)
// and the plan of a save (SavePlan, from values alone).
//
// Opening reads everything that can be read and reports the rest: a broken map file leaves that map out, a cut-off
// `.cells` keeps the rows before the cut, a missing sheet or picture keeps its tiles. Whatever could not be read whole
// is never written again by this store, and its names and ids are given to nothing else (Quilt::taken). A store opened
// for writing holds the quilt's lock and finishes a save that was cut short; where the lock is not to be had, it is
// read-only and says why. One opened for reading changes nothing: it reads through such a save, and anew where another
// program saved meanwhile.
//
// Saving writes only what changed since the last save and what is missing, all of it or nothing (see Journal.h). Every
// text is read back by its own reader before anything counts, so what is saved opens again. Nothing is saved where
// another program changed a file that the quilt stands on.
// Cost: opening is linear in the files; saving in the changed layers, one layer's text in memory at a time.
// Threads: one call at a time, on any thread; folder(), readOnly(), isWhole() and damage() may be asked meanwhile. Opening and saving report to a Progress, if given one, and can be cancelled by it: then
// nothing was opened, or the quilt on the disk is the old one.
#pragma once

#include <atomic>
#include <map>
#include <memory>
#include <set>
#include <string>
#include <vector>

#include "core/base/Progress.h"
#include "core/document/Quilt.h"
#include "core/store/QuiltFolder.h"
#include "core/store/QuiltReading.h"
#include "core/store/SavePlan.h"

namespace uq {

class QuiltStore {
 public:
  enum class Access { read, write };

  struct Opened;
  struct Saved {
    std::vector<std::string> written;
    std::vector<std::string> moved;  // the new names of files that only changed their name
    std::vector<std::string> removed;
  };

  // Opens the quilt in `folder`. An Error only when there is no quilt to show at all. One that is opened for writing can
  // be looked at by an onlooker while its maps are read.
  // `before`: see readQuilt.
  static Result<Opened> open(std::shared_ptr<Disk> disk, const std::string& folder, Access access,
                             Progress* progress = nullptr, const Onlooker& onlooker = {},
                             const ReadBefore* before = nullptr);

  // Writes `quilt` whole into `folder`, which must be empty or not exist, and opens it. Pictures that are missing stay
  // missing.
  static Result<Opened> create(std::shared_ptr<Disk> disk, const std::string& folder, const Quilt& quilt,
                               Progress* progress = nullptr);

  // Saves what changed. On an Error the quilt on the disk is the old one, or the new one to be finished by the next
  // opener; never a mix.
  Result<Saved> save(const Quilt& quilt, Progress* progress = nullptr);

  // Whether another program changed the folder since it was read or saved; pictures apart.
  bool isChanged() const { return !folder_.isAsSeen(); }
  // The quilt as it is in the folder now, with the slots of the one that was saved; an Error while somebody is just
  // saving it. Nothing counts before it is taken.
  struct Reread {
    QuiltFolder folder;
    QuiltRead read;
  };
  Result<Reread> readAgain(Progress& progress) const;
  // From now on that is what is saved.
  void take(Reread reread);

  // A picture as it is on the disk now, read by somebody else: saving over it loses nothing that nobody knows of.
  void sawPicture(const std::string& path, std::string_view bytes) { folder_.saw(path, bytes); }

  bool isSaved(const Quilt& quilt) const { return quilt == saved_; }
  const std::string& folder() const { return folder_.path(); }
  Disk& disk() const { return folder_.disk(); }

  // Has the lock from now on that somebody else held; an Error (inUse) while they do. What they saved since is looked at
  // like any other change.
  Result<void> takeOver();
  // Why nothing can be saved here; empty when it can. Where somebody else held the lock, a save takes it over first.
  const std::optional<Error>& readOnly() const {
    static const std::optional<Error> none;
    return *tookOver_ ? none : readOnly_;
  }
  // False when a part of the quilt could not be read: what is in memory is then no full copy of it.
  bool isWhole() const { return whole_; }
  // Why this map must not be changed (part of it could not be read); nullptr when it may.
  const Error* damage(Id map) const;

 private:
  explicit QuiltStore(QuiltFolder folder) : folder_(std::move(folder)) {}

  // Reads the whole quilt, or what there is of it.
  static Result<Opened> openOnce(const std::shared_ptr<Disk>& disk, const std::string& folder, Access access,
                                 Progress& progress, const Onlooker& onlooker, const ReadBefore* before);
  Result<SavePlan> plan(const Quilt& quilt) const;

  QuiltFolder folder_;
  Quilt saved_;
  std::map<Id, Error> damaged_;    // maps
  std::set<std::string> leftOut_;  // how the paths of parts begin that could not be read
  bool whole_ = true;
  std::optional<Error> readOnly_;
  std::shared_ptr<std::atomic<bool>> tookOver_ = std::make_shared<std::atomic<bool>>(false);
};

struct QuiltStore::Opened {
  QuiltStore store;
  Quilt quilt;
  Errors problems;
};

// Why a quilt of which parts could not be read is not written elsewhere; see QuiltStore::isWhole.
Error notWhole(const std::string& folder);

}  // namespace uq
