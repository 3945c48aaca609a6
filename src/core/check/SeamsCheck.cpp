// Seams that are wrong, and seams whose edges disagree: an opening that faces a wall.
#include <set>

#include "core/check/LooseThread.h"
#include "core/edit/Seams.h"
#include "core/edit/Standing.h"

namespace uq {

namespace {

constexpr std::string_view kWrong = "wrong seam";
constexpr std::string_view kEdges = "edges that disagree";

void lookAtSeams(const Quilt& quilt, Check::Threads& threads) {
  if (quilt.seams().empty()) return;
  const auto sewn = SewnMaps::of(quilt);
  for (const Shared<Seam>& seam : quilt.seams()) {
    const Map* map = quilt.map(seam->map);
    const Map* other = quilt.map(seam->other);
    const std::string& why = sewn->whyWrong(seam->id);
    if (!why.empty()) {
      threads.push_back({kWrong, map ? map->id : other ? other->id : Id(), std::nullopt, seam->id, seamText(quilt, seam.read()) + ": " + why,
                         LooseThread::Mend::openSeam, "Open the seam"});
    }
  }
}

void lookAlongEdges(const SeamSight& sight, Check::Threads& threads) {
  const Standing here(sight.quilt, sight.map);
  const Standing there(sight.quilt, sight.other);
  std::set<CellPos> disagree;
  sight.forEachPair([&](CellPos at, CellPos beyond, int) {
    if (here.canStand(at) != there.canStand(beyond)) disagree.insert(at);
  });
  if (disagree.empty()) return;
  const auto count = static_cast<int>(disagree.size());
  threads.push_back({kEdges, sight.map.id, *disagree.begin(), sight.seam.id,
                     sight.called(count) + (count == 1 ? " is" : " are") + " open on one side and solid on the other", {}, {}});
}

}  // namespace

extern const Check kSeamsCheck;
const Check kSeamsCheck{{kWrong, kEdges}, nullptr, lookAtSeams, lookAlongEdges};

}  // namespace uq
