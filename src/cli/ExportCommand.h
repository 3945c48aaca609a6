// uquilt export: maps written for a game or another program, in open forms; by hand, or as targets of the quilt say.
#pragma once

#include <string>
#include <vector>

#include "core/document/Target.h"

namespace uq::cli {

struct MapsExportOrder {
  std::string quilt;                 // its folder
  std::vector<std::string> maps;     // names; empty: all
  std::vector<std::string> targets;  // names of those that go out
  bool allTargets = false;
  bool onlyChanged = false;          // with targets: maps that have not changed since are passed over
  std::string form;                  // of what goes out by hand; empty: that of the output's ending
  std::string output;                // of one picture the file, else a folder; of a target in place of its own
  std::string cells;                 // of json plain, runs or packed; of csv numbers or names
  std::string of = "map";            // what a PNG shows: map, layer or screen
  Target how{};                      // scale, hidden, columns, bleed, powersOfTwo, naming
  std::string templateFile;          // of a form of one's own: NAME.ENDING.mustache
  std::string escape;                // none, xml or c; empty: as the ending asks
};
// Says what each form has no place for, and what was written. Files that would not change are left alone.
int exportMaps(const MapsExportOrder& order);

}  // namespace uq::cli
