// KeptReading: what was kept of a quilt, read as far as it goes.
//
// What is damaged in what was kept never takes the place of what is saved: a map, sheet or stamp that cannot be read as it
// was kept is as it was saved, and is named. Of a layer whose cells are damaged the chunks before the damage come back, the
// others are as they were saved. So whoever saves what came back loses nothing that was saved.
// Cost: that of reading what differs; the rest is taken from the quilt as it was saved. Threads: any.
#pragma once

#include "core/store/KeptWork.h"
#include "core/store/QuiltStore.h"

namespace uq {

struct KeptBack {
  Quilt quilt;
  Errors problems;    // beside those that the saved quilt has, too
  bool whole = true;  // else something is as it was saved
};
// `saved` is the quilt as it was opened from the same folder. An Error where nothing came back, or it was cancelled.
Result<KeptBack> readKept(const std::shared_ptr<Disk>& disk, const std::string& folder, const Kept& kept,
                          const QuiltStore::Opened& saved, Progress* progress = nullptr);

}  // namespace uq
