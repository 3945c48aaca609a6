// Pins of one map that have the same number, as a merge leaves them: people call pins by their numbers.
#include <map>

#include "core/check/LooseThread.h"
#include "core/edit/Pins.h"

namespace uq {

namespace {

constexpr std::string_view kNumber = "doubled number";

void lookAtNumbers(const Quilt&, const Map& map, Check::Threads& threads) {
  std::map<int, const Pin*> known;
  for (const Shared<Layer>& layer : map.layers) {
    for (const Pin& pin : layer->pins.read()) {
      const auto [first, isNew] = known.try_emplace(pin.number, &pin);
      if (isNew) continue;
      threads.push_back({kNumber, map.id, middleOf(pin, map.bounds), pin.id,
                         "“" + pinText(*first->second) + "” and “" + pinText(pin) + "” both have the number " + std::to_string(pin.number),
                         LooseThread::Mend::renumber, "Give it another"});
    }
  }
}

}  // namespace

extern const Check kPinsCheck;
const Check kPinsCheck{{kNumber}, lookAtNumbers, nullptr};

}  // namespace uq
