// uquilt export: maps written for a game or another program, in open forms.
#pragma once

#include <string>
#include <vector>

namespace uq::cli {

struct MapsExportOrder {
  std::string quilt;                // its folder
  std::vector<std::string> maps;    // names; empty: all
  std::string form;                 // json, csv, png, ora or template; empty: that of the output's ending
  std::string output;               // of one picture the file, else a folder
  std::string cells = "plain";      // of json: plain or runs; of csv: numbers or names
  std::string templateFile;         // of a form of one's own: NAME.ENDING.mustache
  std::string escape;               // none, xml or c; empty: as the ending asks
  std::string name;                 // of what comes out, as a template; empty: the map's own, with that ending
};
// Says what each form has no place for, and what was written. Files that would not change are left alone.
int exportMaps(const MapsExportOrder& order);

}  // namespace uq::cli
