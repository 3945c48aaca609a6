// uquilt query: what a quilt holds, as JSON lines for scripts.
#pragma once

#include <string>

namespace uq::cli {

struct QueryOrder {
  std::string quilt;   // its folder
  std::string what;    // facts, maps, layers, cells, tiles, spots or doorways
  std::string map;     // name; empty: all
  std::string layer;   // name; empty: all
  std::string region;  // "X,Y,W,H" in cells; empty: everything
};
int query(const QueryOrder& order);

}  // namespace uq::cli
