// What `uquilt sheet …` does, apart from its command line: measures cuts, brings pictures in, tidies and exports
// sheets.
//
// Prints results to standard output and errors to standard error, one a line, and returns the exit code. Bringing in
// and tidying save the quilt; where somebody has it open they refuse.
#pragma once

#include <string>
#include <vector>

#include "cli/Commands.h"
#include "core/document/Quilt.h"

namespace uq::cli {

// A sheet by its name, its file's or its code; nullptr where there is none.
const Sheet* sheetNamed(const Quilt& quilt, const std::string& name);

// Prints how a picture is likely to be cut, best first; as a JSON array for programs.
int measureSheet(const std::string& picture, bool json);

struct BringInOrder {
  std::string quilt;
  std::vector<std::string> pictures;  // files or folders
  std::string name;                   // of the sheet; empty: the picture's
  std::string pile;
  std::string footing = "open";  // or solid, overhead
  std::vector<int> cell;         // width and height; empty: as measured
  int border = 0;                // only with a cell
  int gap = 0;
};
int bringSheetIn(const BringInOrder& order);

struct TidyOrder {
  std::string quilt;
  std::string sheet;  // name, file or code
  bool blank = false;
  bool stray = false;
  bool doubles = false;
  bool unused = false;  // none of the four: all but unused
  bool dryRun = false;  // says what would go
};
int tidySheet(const TidyOrder& order);

struct ExportOrder {
  std::string quilt;
  std::string sheet;
  std::string output;  // PNG
  int columns = 0;     // 0: as the sheet is cut
  int gap = 0;
  int border = 0;
  std::string order = "as-cut";  // or by-number, by-name, by-use, by-colour
};
int exportSheet(const ExportOrder& order);

}  // namespace uq::cli
