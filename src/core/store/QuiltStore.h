// QuiltStore: one quilt's folder, opened; the only thing that reads or writes it.
//
// Opening reads everything that can be read and reports the rest: a broken map file leaves that map out, a cut-off
// `.cells` keeps the rows before the cut, a missing sheet or picture keeps its tiles. Whatever could not be read whole is never
// written again by this store, and its names and ids are given to nothing else (Quilt::taken). A store opened for writing
// holds the quilt's lock and finishes a save that was cut short; where the lock is not to be had, it is read-only and says
// why. One opened for reading changes nothing: it reads through such a save, and anew where another program saved
// meanwhile.
//
// Saving writes only what changed since the last save and what is missing, all of it or nothing (see Journal.h). Every
// text is read back by its own reader before anything counts, so what is saved opens again. Nothing is saved where
// another program changed a file that the quilt stands on.
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
  // A file of a quilt: what is written into it, and what its reader says of such a text.
  struct QuiltFile {
    std::function<std::string()> text;
    std::function<std::optional<Error>(const std::string& text)> readBack;  // nothing where it is as it should be
    bool isPicture = false;
    bool isSaved = false;   // nothing in it changed since the last save
    std::string movesFrom;  // the file that holds just this, where that had another name
  };
  using QuiltFiles = std::map<std::string, QuiltFile>;  // by path
  struct Planned {
    Journal journal;
    QuiltFiles files;  // all that the quilt stands on
  };

  QuiltStore(std::shared_ptr<Disk> disk, std::string folder);

  std::string full(const std::string& path) const { return path.empty() ? folder_ : joined(folder_, path); }
  // Reads the whole quilt, or what there is of it.
  static Result<Opened> openOnce(const std::shared_ptr<Disk>& disk, const std::string& folder, Access access,
                                 Progress& progress);
  std::optional<Error> takeLock();
  Result<void> settleJournal();
  Result<std::string> read(const std::string& path, std::int64_t most);
  Result<std::vector<Disk::Entry>> list(const std::string& path);
  // The plain files or folders among the names of a folder; links are reported and left out.
  std::vector<std::string> names(const std::string& path, Disk::Kind kind, Quilt& quilt, Errors& problems);
  Quilt readAll(Errors& problems, Progress& progress);
  void notRead(Errors& problems, Error error);
  // A part that was left out: what begins with `prefix` is not written, and ids in `text` are given to nothing else.
  void leaveOut(Quilt& quilt, const std::string& prefix, std::string_view text);
  void readSheets(Quilt& quilt, Errors& problems);
  Result<void> readPlaces(Sheet& sheet);
  void readPictures(Sheet& sheet, Errors& problems);
  void readStamps(Quilt& quilt, Errors& problems);
  void readMap(const std::string& folder, Quilt& quilt, Errors& problems, Progress& progress);
  // The files of a quilt, which must live as long; `saved` is what was saved last.
  static QuiltFiles filesOf(const Quilt& quilt, const Quilt& saved);
  static void addSheetFiles(const Sheet& sheet, const Sheet* saved, QuiltFiles& files);
  static void addStampFiles(const Stamp& stamp, const Quilt& quilt, const Quilt& saved, QuiltFiles& files);
  static void addMapFiles(const Map& map, const Map* saved, const Quilt& quilt, QuiltFiles& files);
  Result<Planned> plan(const Quilt& quilt) const;
  // Whether the files are as they were last read or written, those of the journal and those that the quilt stands on.
  Result<void> checkUnchanged(const Planned& planned) const;
  Result<void> checkUnchanged(const std::string& path) const;
  bool isThere(const std::string& path) const;
  // Whether nothing was saved by another program since this one began to read.
  bool isStill() const;
  // `committed` tells whether the save has happened, even where finishing it failed.
  Result<void> carryOut(const Planned& planned, Progress& progress, bool& committed);
  void remember(const std::string& path, std::uint64_t hash);
  Result<std::vector<Disk::Entry>> entriesOf(const std::string& path);
  void removeLeftovers();

  std::shared_ptr<Disk> disk_;
  std::string folder_;
  Quilt saved_;
  std::map<std::string, Seen> seen_;  // files as last read or written
  std::map<Id, Error> damaged_;       // maps
  std::set<std::string> leftOut_;     // how the paths of parts begin that could not be read
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
