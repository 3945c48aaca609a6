#include "core/work/HeldBar.h"

#include <utility>

#include "core/work/StepNames.h"

namespace uq {

void HeldBar::take(const std::string& what) {
  if (!work_.map()) return;
  const std::string name = verbName(work_.desk(), work_.quilt(), what);
  began_ = work_.begin(name, Gesture::changing(work_.quilt())).has_value();
  heldSince_ = work_.gesturesBegun();
}

void HeldBar::leave() {
  const bool isOurs = isHeld() && began_ && work_.gesture();
  heldSince_.reset();
  if (isOurs) (void)work_.finish();
}

void HeldBar::drop() {
  const bool isOurs = isHeld() && began_ && work_.gesture();
  heldSince_.reset();
  if (isOurs) work_.drop();
}

bool HeldBar::takes(const std::function<Quilt(const Quilt& before)>& edit) {
  if (!isHeld()) return false;
  if (began_ && work_.gesture()) {
    work_.gesture()->become(edit(work_.gesture()->before()));
    work_.show();
  }
  return true;
}

}  // namespace uq
