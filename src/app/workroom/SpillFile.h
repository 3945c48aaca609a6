// SpillFile: where the undo line of one open quilt puts what shall not stay in memory.
//
// One file in the state folder of the user ($XDG_STATE_HOME/urban-quilt, else ~/.local/state/urban-quilt), made at the
// first write and without a name from then on, so that nothing is left behind however the program ends.
#pragma once

#include <QFile>
#include <mutex>

#include "core/history/PackedMap.h"

namespace uq {

class SpillFile : public Spill {
 public:
  Result<Place> write(std::string_view bytes) override;
  Result<std::string> read(Place place) override;

 private:
  std::mutex mutex_;
  QFile file_;
  std::int64_t end_ = 0;
};

}  // namespace uq
