// KeptWork: what was done to a quilt since it was saved, kept in a folder of the person's own, so that a crash or a power
// cut loses nothing.
//
// The folder holds a manifest, kept.json, and beside it each file of the quilt that differs from the saved one, under a
// number; of a layer of which less than half changed only the chunks that did (CellsPatch). The manifest is replaced whole, and files that it names are never written again, so what is kept is the older
// state or the newer one, never a mix, wherever the program ends. Nothing in the quilt's own folder is touched.
//
// What was kept is read by the quilt's own readers through an OverlayDisk. It is written relative to the quilt as it was
// saved; files that somebody else changed since then are named when it is read.
// Cost of keeping: the documents of changed parts, and of layers that changed since the last time the chunks that differ
// from the saved ones.
// Threads: one call at a time, on any thread.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/cells/ChunkPos.h"
#include "core/document/Quilt.h"
#include "core/store/Disk.h"
#include "core/store/QuiltReading.h"

namespace uq {

struct KeptFacts {
  std::string folder;      // of the quilt
  std::string name;        // of the quilt
  std::int64_t steps = 0;  // since it was saved
  std::int64_t until = 0;  // seconds since 1970
  friend bool operator==(const KeptFacts&, const KeptFacts&) = default;
};

// What is kept along with the quilt and means nothing here: the way back (core/work/KeptSteps.h), by numbers.
struct KeptLine {
  std::vector<std::uint64_t> numbers;  // all that count, in their order
  std::vector<std::uint64_t> fresh;    // those of them that the text is of
  std::function<std::string()> text;   // asked only where there are such
};

class KeptWork {
 public:
  // `place` is a folder for this quilt alone, which need not exist. What is kept there already stays until keep().
  KeptWork(std::shared_ptr<Disk> disk, std::string place);

  // Keeps `now`, of which `saved` is on the disk, and the line. Where both quilts are the same nothing is kept any more.
  // On an Error what was kept before is still there.
  Result<void> keep(const Quilt& saved, const Quilt& now, const KeptFacts& facts, const KeptLine& line = {});
  // What of the line counts and is kept already, in rising order: not fresh any more.
  std::vector<std::uint64_t> keptOfLine() const;
  // Nothing is kept any more.
  Result<void> drop();

 private:
  void forget();

  std::shared_ptr<Disk> disk_;
  std::string place_;
  std::optional<Quilt> kept_;                 // as it was kept last, and of which saved one
  std::optional<Quilt> keptOf_;
  struct Part {
    std::string file;                              // in the place
    std::optional<std::vector<ChunkPos>> chunks{};  // only these, of cells; else all of it
  };
  std::map<std::string, Part> parts_;  // by path in the quilt
  struct LinePart {
    std::string file;
    std::set<std::uint64_t> numbers;
  };
  std::vector<LinePart> line_;
  std::vector<std::uint64_t> lineKept_;
  std::uint64_t next_ = 0;
};

// What lies in such a folder.
struct Kept {
  KeptFacts facts;
  struct File {
    std::string path;                                         // whole
    std::optional<std::set<std::pair<int, int>>> chunks{};  // of cells: it holds only these
  };
  std::map<std::string, File> files;  // by path in the quilt
  std::set<std::string> removed;
  std::map<std::string, std::optional<Disk::Stamp>> saved;  // how the quilt's own files were, by path
  std::vector<std::uint64_t> line;      // the numbers that count
  std::vector<std::string> lineFiles;  // whole paths of the texts
};
// Nothing where nothing is kept; an Error where it cannot be read.
Result<std::optional<Kept>> keptAt(Disk& disk, const std::string& place);
// The disk on which the quilt is as it was kept.
std::shared_ptr<Disk> withKept(std::shared_ptr<Disk> disk, const std::string& folder, const Kept& kept);
// For reading it from there: what is the same in the quilt as it was saved, read whole; both live as long.
ReadBefore savedBefore(const Quilt& saved, const std::shared_ptr<Disk>& disk, const Kept& kept);
// The texts of the line, as far as they can be read.
std::vector<std::string> lineTexts(Disk& disk, const Kept& kept);
// Paths in the quilt whose own files are not as they were when this was kept.
std::vector<std::string> changedSince(Disk& disk, const std::string& folder, const Kept& kept);

// Where the work on the quilt in a folder is kept, below the state folder of the person.
std::string keptPlace(const std::string& stateFolder, const std::string& folder);
// Puts what is kept aside, to be found by uquilt recover; the place is free then.
Result<void> putAside(Disk& disk, const std::string& place);

}  // namespace uq
