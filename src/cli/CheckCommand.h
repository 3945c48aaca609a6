// uquilt check: opens everything, reports what is wrong, and lists the loose threads, as the window does.
#pragma once

#include <string>

namespace uq::cli {

struct CheckOrder {
  std::string quilt;
  bool joints = false;  // also every loose joint of every map
  bool sizes = false;   // only sizes, as they were listed before there were loose threads
  bool json = false;    // for machines: one object
  bool roundTrip = false;  // also saves it beside, opens it there and compares
  bool strict = false;  // loose threads count as something that is wrong
};

// Exit codes as all commands have them: 0 everything opens, 1 something is broken or missing, or with `strict` hangs loose.
int check(const CheckOrder& order);

}  // namespace uq::cli
