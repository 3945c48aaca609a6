// uquilt edging: what joins, without a window (docs/edgings.md).
#pragma once

#include <string>

namespace uq::cli {

struct GuessOrder {
  std::string quilt;
  std::string sheet;   // name, file or code
  std::string region;  // "X,Y,W,H": columns and rows of the cut; empty: all of it
  std::string grid;    // empty: that of the quilt's maps with such cells
  std::string keep;    // the name under which the quilt keeps what was guessed; empty: it is only printed
  bool json = false;
};
// Guesses what the tiles of a sheet join, and prints it. Exit codes as all commands have them.
int guessEdging(const GuessOrder& order);

struct CoverageOrder {
  std::string quilt;
  std::string edging;  // name or file
  bool json = false;
};
// Prints which shapes an edging needs and lacks, and what could stand in for them.
int edgingCoverage(const CoverageOrder& order);

}  // namespace uq::cli
