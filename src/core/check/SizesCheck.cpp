// Sizes that do not agree, and backdrops that end early: what the map's card tells, too.
#include "core/check/LooseThread.h"
#include "core/edit/SizeFindings.h"

namespace uq {

namespace {

constexpr std::string_view kSizes = "sizes that disagree";

void lookAtSizes(const Quilt& quilt, const Map& map, Check::Threads& threads) {
  for (SizeFinding& one : sizeFindings(quilt, map)) {
    threads.push_back({kSizes, map.id, std::nullopt, {}, std::move(one.text), LooseThread::Mend::agreeSizes, std::move(one.mend)});
  }
}

}  // namespace

extern const Check kSizesCheck;
const Check kSizesCheck{{kSizes}, lookAtSizes, nullptr};

}  // namespace uq
