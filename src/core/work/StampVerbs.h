// StampVerbs: what is done to the stamps of a quilt. Each is one step. Threads: those of the Work.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/edit/LaidStamps.h"
#include "core/work/Work.h"

namespace uq {

class StampVerbs {
 public:
  // `work` must live as long.
  explicit StampVerbs(Work& work) : work_(work) {}

  // What is in hand is kept under a name of its own, and then is that stamp. With Select, what is selected is kept, of all
  // layers that are seen, and the hand stays as it is.
  void keep();
  // What a stamp would be corrected with: with Select what is selected, of all layers that are seen, else what is in
  // hand. Nothing, and why is said, where that is nothing or too much.
  std::optional<InHand> correction() const;
  // Which of the places where it lies change with a stamp.
  enum class Places { none, here, all };  // here: on the desk's map
  // The stamp becomes its correction; what was laid of it changes with it where asked for. One step.
  void correct(Id stamp, Places places = Places::none);
  // Those places, as the quilt is now.
  std::vector<LaidStamp> places(Id stamp, Places places) const;
  void rename(Id stamp, const std::string& name);
  void remove(Id stamp);
  void move(Id stamp, Id before);

 private:
  void keepSelected();
  std::optional<InHand> selected() const;

  Work& work_;
};

}  // namespace uq
