// What uquilt does, apart from its command line.
//
// Every command prints its result to standard output and its errors to standard error, one a line, and returns the exit
// code. No command here changes a quilt (see SheetCommands for those that do); at most the journal of an interrupted save
// is finished on opening.
#pragma once

#include <string>
#include <vector>

namespace uq::cli {

enum ExitCode : int {
  kFine = 0,
  kProblems = 1,    // the command did its work, but something in the quilt is broken or missing
  kUsage = 2,       // the command line makes no sense
  kNotOpened = 3,   // there is no such quilt, map or layer
  kNotWritten = 4,  // the result could not be written
};

// The folder at or above `start` (empty: the current one) that holds a quilt; `start` itself when there is none.
std::string quiltFolder(const std::string& start);

// Maps with grid, bounds and layers, sheets, and counts of what is painted; `json` for programs.
int info(const std::string& quilt, bool json);

struct RenderOrder {
  std::string quilt;                 // its folder
  std::string map;                   // name, folder name, or a path to the map's folder
  std::string output;                // PNG
  double zoom = 1;                   // device pixels a map pixel
  std::vector<std::string> only;     // layer names; empty: all
  bool board = false;   // all pieces, instead of one map
  int neighbours = 0;   // over so many seams those that are sewn to it, too
  bool exact = false;  // only the map's cells, without what reaches beyond them
  std::vector<std::string> without;  // layer names
  std::vector<int> camera;           // x and y of the screen's upper left, in map pixels: layers move by their parallax
  std::string frame;                 // "320x180": how much the screen shows; empty: as the map or the quilt says
};
// One map as a PNG: all of its bounds, every layer unless told otherwise.
int render(const RenderOrder& order);

}  // namespace uq::cli
