// QuiltStore: one quilt's folder, opened; the only thing that reads or writes it.
//
// Opening reads everything that can be read and reports the rest: a broken map file leaves that map out, a cut-off
// `.cells` keeps the rows before the cut, a missing sheet or picture keeps its tiles. Whatever could not be read whole is never
// written again by this store. A store opened for writing holds the quilt's lock; where that is not to be had, it is
// read-only and says why.
//
// Saving writes only what changed since the last save, all of it or nothing (see Journal.h), and refuses to overwrite
// what another program wrote meanwhile.
// Cost: opening is linear in the files; saving in the changed layers, one layer's text in memory at a time.
// Threads: one call at a time, on any thread; folder(), readOnly(), isWhole() and damage() never change after opening
// and may be asked meanwhile. Opening and saving report to a Progress, if given one, and can be cancelled by it: then
// nothing was opened, or the quilt on the disk is the old one.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <set>
#include <string>
#include <vector>

#include "core/base/Progress.h"
#include "core/document/Quilt.h"
#include "core/store/Disk.h"
#include "core/store/Journal.h"

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

  // Opens the quilt in `folder`. An Error only when there is no quilt to show at all.
  static Result<Opened> open(std::shared_ptr<Disk> disk, const std::string& folder, Access access,
                             Progress* progress = nullptr);

  // Writes `quilt` whole into `folder`, which must be empty or not exist, and opens it. Pictures that are missing stay
  // missing.
  static Result<Opened> create(std::shared_ptr<Disk> disk, const std::string& folder, const Quilt& quilt,
                               Progress* progress = nullptr);

  // Saves what changed. On an Error the quilt on the disk is the old one, or the new one to be finished by the next
  // opener; never a mix.
  Result<Saved> save(const Quilt& quilt, Progress* progress = nullptr);

  // A picture as it is on the disk now, read by somebody else: saving over it loses nothing that nobody knows of.
  void sawPicture(const std::string& path, std::string_view bytes);

  bool isSaved(const Quilt& quilt) const { return quilt == saved_; }
  const std::string& folder() const { return folder_; }
  Disk& disk() const { return *disk_; }

  // Why nothing can be saved here; empty when it can.
  const std::optional<Error>& readOnly() const { return readOnly_; }
  // False when a part of the quilt could not be read: what is in memory is then no full copy of it.
  bool isWhole() const { return whole_; }
  // Why this map must not be changed (part of it could not be read); nullptr when it may.
  const Error* damage(Id map) const;

 private:
  struct Seen {
    Disk::Stamp stamp;
    std::uint64_t hash = 0;
  };
  struct Planned {
    Journal journal;
    std::map<std::string, std::function<std::string()>> texts;  // by path; made when they are written
    void write(const std::string& path, std::function<std::string()> text) {
      journal.writes.push_back(path);
      texts.emplace(path, std::move(text));
    }
  };

  QuiltStore(std::shared_ptr<Disk> disk, std::string folder);

  std::string full(const std::string& path) const { return path.empty() ? folder_ : joined(folder_, path); }
  std::optional<Error> takeLock();
  Result<void> settleJournal();
  Result<std::string> read(const std::string& path, std::int64_t most);
  Result<std::vector<Disk::Entry>> list(const std::string& path);
  // The plain files or folders among the names of a folder; links are reported and left out.
  std::vector<std::string> names(const std::string& path, Disk::Kind kind, Errors& problems);
  Quilt readAll(Errors& problems, Progress& progress);
  void notRead(Errors& problems, Error error);
  void readSheets(Quilt& quilt, Errors& problems);
  Result<void> readPlaces(Sheet& sheet);
  void readPictures(Sheet& sheet, Errors& problems);
  void readStamps(Quilt& quilt, Errors& problems);
  void readMap(const std::string& folder, Quilt& quilt, Errors& problems, Progress& progress);
  Planned plan(const Quilt& quilt) const;
  void planSheet(const Sheet& sheet, const Sheet* old, Planned& planned) const;
  void planMap(const Map& map, const Map* old, const Quilt& quilt, Planned& planned) const;
  Result<void> checkUnchanged(const Planned& planned);
  // `committed` tells whether the save has happened, even where finishing it failed.
  Result<void> carryOut(const Planned& planned, Progress& progress, bool& committed);
  void remember(const std::string& path, std::uint64_t hash);
  void removeLeftovers();

  std::shared_ptr<Disk> disk_;
  std::string folder_;
  Quilt saved_;
  std::map<std::string, Seen> seen_;  // files as last read or written
  std::map<Id, Error> damaged_;       // maps
  bool whole_ = true;
  std::optional<Error> readOnly_;
  std::optional<Journal> pending_;  // a committed save that could not be finished: read through it
  std::unique_ptr<Disk::Lock> lock_;
};

struct QuiltStore::Opened {
  QuiltStore store;
  Quilt quilt;
  Errors problems;
};

}  // namespace uq
