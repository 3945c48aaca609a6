// ThreadListing: loose threads as they stand in a list that is looked at.
//
// Rows keep their places while the list is open: what was mended meanwhile stays, and is told as mended, so that no press
// meets another row than the one that was seen; what is new comes below. At most kMost are listed. A value.
#pragma once

#include <QSet>
#include <QString>
#include <functional>
#include <vector>

#include "core/check/Checks.h"
#include "core/document/Quilt.h"

namespace uq {

class ThreadListing {
 public:
  static constexpr std::size_t kMost = 1'000;  // others follow once some of these are mended

  // What hangs loose now. `anew`: the list is opened, and what was mended goes. Only those that `wanted` lets through.
  void take(const Checked& checked, bool anew, const std::function<bool(const LooseThread&)>& wanted = {});
  const std::vector<LooseThread>& rows() const { return rows_; }
  bool isLoose(const LooseThread& thread) const { return loose_.contains(keyOf(thread)); }
  bool isWhole() const { return rows_.size() < kMost; }

  // Its sentence, and in a line below where it is.
  static QString wordsOf(const Quilt& quilt, const LooseThread& thread);

 private:
  static QString keyOf(const LooseThread& thread);

  std::vector<LooseThread> rows_;
  QSet<QString> known_;  // keys of those
  QSet<QString> loose_;  // and of what hangs loose now
};

}  // namespace uq
