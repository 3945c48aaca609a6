// uquilt joints: lays what belongs at the loose joints of maps, as the workroom does.
#pragma once

#include <string>

namespace uq::cli {

struct JointsOrder {
  std::string quilt;    // its folder
  std::string map;      // empty: all
  bool dryRun = false;  // only say what would change
};
// Prints each layer with how many cells were laid, and how many joints are left for a person.
int layJoints(const JointsOrder& order);

}  // namespace uq::cli
