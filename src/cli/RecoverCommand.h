// uquilt recover: what was kept of quilts that were not saved, listed, saved or dropped.
#pragma once

#include <string>

namespace uq::cli {

struct RecoverOrder {
  std::string quilt;   // its folder; empty: of all, where they are listed
  bool apply = false;  // saves what was kept in the quilt's folder
  bool drop = false;   // takes away what was kept of it
};
int recover(const RecoverOrder& order);

}  // namespace uq::cli
