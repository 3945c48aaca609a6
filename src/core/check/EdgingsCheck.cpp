// What is joined otherwise than its edging would join it, and where a stand-in lies since a shape is missing.
#include "core/check/LooseThread.h"
#include "core/edit/Rejoin.h"

namespace uq {

namespace {

constexpr std::string_view kWrong = "joined wrongly";
constexpr std::string_view kStandIn = "stand-in for a missing shape";
// Of a map that is looked at: joining a layer anew takes about a microsecond a cell, and this is asked after each stroke. Larger
// ones are looked at by Check > Join anew.
constexpr std::int64_t kMostCells = 1 << 12;

std::string cellsOf(std::int64_t count, const Layer& layer, const Map& map) {
  return std::to_string(count) + (count == 1 ? " cell of “" : " cells of “") + layer.name + "” on " + map.name;
}

CellPos firstOf(const CellSet& cells) {
  std::optional<CellPos> first;
  cells.forEachStretch([&](CellPos at, int) {
    if (!first) first = at;
  });
  return first.value_or(CellPos{});
}

void lookAtEdgings(const Quilt& quilt, const Map& map, Check::Threads& threads) {
  if (quilt.edgings().empty() || map.bounds.count() > kMostCells) return;
  for (const Shared<Layer>& shared : map.layers) {
    const Layer& layer = shared.read();
    if (!layer.holdsTiles()) continue;
    const JoinFindings found = joinFindings(quilt, {map.id, layer.id});
    if (const std::int64_t wrong = found.wrong.count(); wrong > 0) {
      threads.push_back({kWrong, map.id, firstOf(found.wrong), layer.id, cellsOf(wrong, layer, map) + (wrong == 1 ? " shows" : " show") + " another border than belongs there",
                         LooseThread::Mend::joinAnew, "Join anew"});
    }
    if (const std::int64_t hems = found.hems.count(); hems > 0) {
      threads.push_back({kWrong, map.id, firstOf(found.hems), layer.id,
                         "What the materials of “" + layer.name + "” on " + map.name + " bring along is not as it should be at " +
                             std::to_string(hems) + (hems == 1 ? " cell" : " cells"),
                         LooseThread::Mend::joinAnew, "Join anew"});
    }
    if (const std::int64_t standIns = found.standIns.count(); standIns > 0) {
      threads.push_back({kStandIn, map.id, firstOf(found.standIns), layer.id,
                         cellsOf(standIns, layer, map) + (standIns == 1 ? " shows" : " show") + " a stand-in: no tile shows what belongs there", {}, {}});
    }
  }
}

}  // namespace

extern const Check kEdgingsCheck;
const Check kEdgingsCheck{{kWrong, kStandIn}, lookAtEdgings, nullptr};

}  // namespace uq
