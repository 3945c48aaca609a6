// Ground that changes at a stitch: tiles that lie beside one another there, and nowhere near it on either map.
#include <map>
#include <set>

#include "core/check/LooseThread.h"
#include "core/edit/Roles.h"

namespace uq {

namespace {

constexpr std::string_view kGround = "ground that changes";
constexpr int kBand = 48;       // cells from the stitch in which tiles are seen beside one another
constexpr std::size_t kFewest = 4;  // cells side by side: fewer are an accident of what was painted there

using Beside = std::set<std::pair<TileRef, TileRef>>;

const Layer* groundOf(const Map& map) {
  for (const Shared<Layer>& layer : map.layers) {
    if (layer->role == kGroundRole && layer->holdsTiles()) return &layer.read();
  }
  return nullptr;
}

void learn(const Grid& grid, const Layer& ground, CellRect part, int sides, Beside& beside) {
  ground.cells.forEachPainted(part, [&](CellPos at, Cell cell) {
    for (int side = 0; side < sides; ++side) {
      const Cell next = ground.cells.at(grid.across(at, side));
      if (!next.empty()) beside.insert(std::minmax(cell.tile(), next.tile()));
    }
  });
}

// Those that lie side by side with enough others.
std::set<CellPos> runsOf(std::set<CellPos> cells) {
  std::set<CellPos> runs;
  while (!cells.empty()) {
    std::vector<CellPos> run{*cells.begin()};
    cells.erase(cells.begin());
    for (std::size_t i = 0; i < run.size(); ++i) {
      for (int y = -1; y <= 1; ++y) {
        for (int x = -1; x <= 1; ++x) {
          const CellPos next{run[i].x + x, run[i].y + y};
          if (cells.erase(next) > 0) run.push_back(next);
        }
      }
    }
    if (run.size() >= kFewest) runs.insert(run.begin(), run.end());
  }
  return runs;
}

void lookAtGround(const SeamSight& sight, Check::Threads& threads) {
  const Layer* here = groundOf(sight.map);
  const Layer* there = groundOf(sight.other);
  if (!here || !there) return;
  const auto grid = makeGrid(sight.map.grid);
  const int sides = static_cast<int>(headingsOf(sight.map.grid.kind).size());
  const CellRect beyond{sight.other.bounds.x0 + sight.by.x, sight.other.bounds.y0 + sight.by.y, sight.other.bounds.x1 + sight.by.x,
                        sight.other.bounds.y1 + sight.by.y};
  const CellRect band = sight.map.bounds.grown(1).intersected(beyond).grown(kBand);
  Beside beside;
  learn(*grid, *here, band.intersected(sight.map.bounds), sides, beside);
  const CellRect other{band.x0 - sight.by.x, band.y0 - sight.by.y, band.x1 - sight.by.x, band.y1 - sight.by.y};
  learn(*grid, *there, other.intersected(sight.other.bounds), sides, beside);
  std::set<CellPos> changes;
  sight.forEachPair([&](CellPos at, CellPos across, int) {
    const Cell one = here->cells.at(at);
    const Cell two = there->cells.at(across);
    if (one.empty() || two.empty() || one.tile() == two.tile()) return;
    if (!beside.contains(std::minmax(one.tile(), two.tile()))) changes.insert(at);
  });
  changes = runsOf(std::move(changes));
  if (changes.empty()) return;
  threads.push_back({kGround, sight.map.id, *changes.begin(), sight.seam.id,
                     "The ground changes along " + sight.called(static_cast<int>(changes.size())), {}, {}});
}

}  // namespace

extern const Check kGroundCheck;
const Check kGroundCheck{{kGround}, nullptr, nullptr, lookAtGround};

}  // namespace uq
