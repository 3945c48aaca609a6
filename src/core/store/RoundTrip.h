// RoundTrip: a quilt saved beside, opened there and compared, so that people can trust that nothing is lost on the way.
//
// Cost: a save and an opening. Threads: any.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/base/Error.h"
#include "core/document/Quilt.h"
#include "core/store/Disk.h"

namespace uq {

struct RoundTrip {
  std::vector<std::string> lost;   // what is not the same after it was opened again: "the map Yard", "the quilt's own facts"
  std::vector<std::string> spelt;  // files of the quilt's folder that would be spelt otherwise now; such as of an older version
  int files = 0;                   // that were written
};

// `scratch`: an empty folder for it; what is written there stays. An Error where it cannot be saved, or opened.
Result<RoundTrip> roundTrip(const std::shared_ptr<Disk>& disk, const Quilt& quilt, const std::string& folder, const std::string& scratch);

}  // namespace uq
