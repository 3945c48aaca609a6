// Holder: who has a quilt open for writing, on which machine and since when, so that the next one can be told.
//
// Lies beside the lock and says nothing by itself: who holds the lock is the system's to know. What cannot be written or
// read is left out.
#pragma once

#include <cstdint>
#include <optional>
#include <string>

#include "core/store/Disk.h"

namespace uq {

struct Holder {
  std::string who;         // the person's name on the machine
  std::string machine;
  std::int64_t since = 0;  // seconds since 1970

  static Holder thisProgram();
};

// In the folder of the lock.
void writeHolder(Disk& disk, const std::string& folder, const Holder& holder);
std::optional<Holder> readHolder(Disk& disk, const std::string& folder);
// "mira has this quilt open on desk-7 since 14:02"; with the day where that is not today's.
std::string textOf(const Holder& holder);

}  // namespace uq
