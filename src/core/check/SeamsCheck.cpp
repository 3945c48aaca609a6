// Seams that are wrong, and seams whose edges disagree: an opening that faces a wall.
#include "core/check/LooseThread.h"
#include "core/edit/Seams.h"
#include "core/edit/Standing.h"

namespace uq {

namespace {

constexpr std::string_view kWrong = "wrong seam";
constexpr std::string_view kEdges = "edges that disagree";

// The cells of the map along its edge that lie beside a cell of the other, and that one, where one can be stood on only.
struct Disagreement {
  int count = 0;
  CellPos first;
};
Disagreement compare(const Quilt& quilt, const Map& map, const Map& other, CellPos by) {
  Disagreement found;
  const Standing here(quilt, map);
  const Standing there(quilt, other);
  const auto grid = makeGrid(map.grid);
  const int sides = static_cast<int>(headingsOf(map.grid.kind).size());
  const CellRect beyond{other.bounds.x0 + by.x, other.bounds.y0 + by.y, other.bounds.x1 + by.x, other.bounds.y1 + by.y};
  const CellRect strip = beyond.grown(1).intersected(map.bounds);
  for (int y = strip.y0; y < strip.y1; ++y) {
    for (int x = strip.x0; x < strip.x1; ++x) {
      for (int side = 0; side < sides; ++side) {
        const CellPos next = grid->across({x, y}, side);
        if (!beyond.contains(next) || map.bounds.contains(next)) continue;
        if (here.canStand({x, y}) == there.canStand({next.x - by.x, next.y - by.y})) continue;
        if (found.count++ == 0) found.first = {x, y};
        break;
      }
    }
  }
  return found;
}

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
      continue;
    }
    if (!map || !other || seam->wraps()) continue;
    const Disagreement found = compare(quilt, *map, *other, seam->by);
    if (found.count == 0) continue;
    threads.push_back({kEdges, map->id, found.first, seam->id,
                       std::to_string(found.count) + (found.count == 1 ? " cell" : " cells") + " at the stitch " + seamText(quilt, seam.read()) +
                           (found.count == 1 ? " is" : " are") + " open on one side and solid on the other",
                       {}, {}});
  }
}

}  // namespace

extern const Check kSeamsCheck;
const Check kSeamsCheck{{kWrong, kEdges}, nullptr, lookAtSeams};

}  // namespace uq
