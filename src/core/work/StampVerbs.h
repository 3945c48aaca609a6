// StampVerbs: what is done to the stamps of a quilt. Each is one step. Threads: those of the Work.
#pragma once

#include <string>

#include "core/work/Work.h"

namespace uq {

class StampVerbs {
 public:
  // `work` must live as long.
  explicit StampVerbs(Work& work) : work_(work) {}

  // What is in hand is kept under a name of its own, and then is that stamp. With Select, what is selected is kept, of all
  // layers that are seen, and the hand stays as it is.
  void keep();
  // The stamp becomes what is in hand.
  void correct(Id stamp);
  void rename(Id stamp, const std::string& name);
  void remove(Id stamp);
  void move(Id stamp, Id before);

 private:
  void keepSelected();

  Work& work_;
};

}  // namespace uq
