// TargetExport: what a target says, done: its maps written into a folder in its form.
//
// Only what has changed is written, and where asked only maps that have are looked at (core/store/ExportFolder.h). The files of maps that
// are gone from the quilt, or from the target, go, where they are as they were written. Each file is whole or as it was, whatever
// happens. The same quilt and target give the same bytes. Cost: the files, one after the other; memory as much as the largest.
// Threads: any one, with a painter of its own.
#pragma once

#include <string>
#include <vector>

#include "core/base/Progress.h"
#include "core/document/Target.h"
#include "core/store/ExportFolder.h"
#include "raster/MapPainter.h"

namespace uq {

struct TargetAsk {
  std::string folder;
  bool onlyChanged = false;  // maps whose files are there and of what they are made now are passed over
  bool keepsBooks = true;    // else nothing is known of it later
  bool takesAway = true;     // files of maps that are gone go
  std::vector<Id> maps{};    // of the target's; empty: all of them, and what is of the whole quilt. Else nothing goes
};

struct TargetDone {
  std::vector<std::string> written;  // paths inside the folder
  std::vector<std::string> same;     // that were as they are
  std::vector<std::string> removed;  // of maps that are gone
  std::vector<std::string> left;     // likewise, but somebody changed them
  std::vector<std::string> lacks;    // what could not be given, in words
  std::vector<Id> maps;              // some of whose files were written
  int passedOver = 0;                // maps
};

// The Error says which file could not be written, and where. Files before it are written.
Result<TargetDone> exportTarget(Disk& disk, MapPainter& painter, const Quilt& quilt, const Target& target, const TargetAsk& ask, Progress* progress = nullptr);

// Files that the next export does away with, by map: those of maps that are gone.
std::vector<ExportFolder::Gone> goneFrom(Disk& disk, const Quilt& quilt, const Target& target, const std::string& folder);

// What comes out of one map, to look at before: the beginning of a text, or a picture of at most `room`.
struct TargetSample {
  std::string file;   // its path inside the folder
  std::string text;   // at most kLongestSample bytes of it
  QImage picture;     // null: it is a text
  std::string wrong;  // why nothing comes out, in words
  bool isPart = false;  // of a large map: as if it were only its upper left
  int line = 0;       // of a form of one's own in which that is; 0: in none
};
inline constexpr std::size_t kLongestSample = 6000;
TargetSample sampleOf(MapPainter& painter, const Quilt& quilt, const Target& target, Id map, QSize room);

}  // namespace uq
