// uquilt import: a new map of a quilt made of the picture of a map, or of tables of cells.
#pragma once

#include <string>
#include <vector>

namespace uq::cli {

struct ImportOrder {
  std::string quilt;               // its folder
  std::vector<std::string> files;  // one picture, or tables (.csv), the farthest layer first
  std::string name;                // of the map
  std::string like;                // a map whose grid the new one has
  std::string grid;                // else its kind,
  std::string cell;                // and the size of a cell, "32x32"
  bool makesSheet = false;
  bool json = false;
};
int importFiles(const ImportOrder& order);

}  // namespace uq::cli
