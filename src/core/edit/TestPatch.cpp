#include "core/edit/TestPatch.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/edit/JoinLaying.h"

namespace uq {

namespace {

constexpr int kSceneWidth = 17;  // cells
constexpr int kSceneHeight = 7;
constexpr int kInnerWidth = 8;   // of one material within another
constexpr int kScenesAcross = 3;  // where there are many
constexpr std::size_t kMostScenes = 12;

std::vector<CellPos> boxOf(int x, int y, int width, int height) {
  std::vector<CellPos> cells;
  for (int row = 0; row < height; ++row) {
    for (int column = 0; column < width; ++column) cells.push_back({x + column, y + row});
  }
  return cells;
}

// Which materials some member shows together, ground and all.
std::set<std::pair<MaterialIndex, MaterialIndex>> borders(const Edging& edging) {
  std::set<std::pair<MaterialIndex, MaterialIndex>> pairs;
  for (const EdgingMember& one : edging.members) {
    std::set<MaterialIndex> shown(one.sides.begin(), one.sides.end());
    shown.insert(one.corners.begin(), one.corners.end());
    if (edging.decides != Decides::corners) shown.insert(one.middle);
    for (const MaterialIndex a : shown) {
      for (const MaterialIndex b : shown) {
        if (a < b) pairs.emplace(a, b);
      }
    }
  }
  return pairs;
}

}  // namespace

MaterialIndex groundOf(const Edging& edging) {
  if (showsNothing(edging)) return kNothingSeen;
  std::map<MaterialIndex, int> counts;
  for (const EdgingMember& one : edging.members) {
    for (const MaterialIndex side : one.sides) ++counts[side];
    for (const MaterialIndex corner : one.corners) ++counts[corner];
  }
  // Where sides decide the ground is what is shown at sides, and has the fewest members of its own.
  if (edging.decides != Decides::corners) {
    for (const EdgingMember& one : edging.members) counts[one.middle] -= 2 * placesOf(edging.grid);
  }
  MaterialIndex best = edging.materials.size() > 1 ? 1 : 0;
  for (const auto& [material, count] : counts) {
    if (count > counts[best]) best = material;
  }
  return best;
}

TestPatch::TestPatch(Quilt quilt, Edging edging, const GridShape& shape, const std::vector<PatchStroke>& own)
    : quilt_(std::move(quilt)), edging_(std::move(edging)), grid_(makeGrid(shape)), joiner_(quilt_, edging_, *grid_), ground_(groundOf(edging_)) {
  map_.grid = shape;
  map_.name = "Test patch";
  plan();
  if (ground_ != kNothingSeen) {
    const CellRect all = map_.bounds;
    paint({boxOf(all.x0, all.y0, all.x1 - all.x0, all.y1 - all.y0), ground_, false});
  }
  for (const PatchStroke& one : plan_) paint(one);
  for (const PatchStroke& one : own) paint(one);
  update();
}

void TestPatch::plan() {
  if (edging_.decides == Decides::path) {
    std::set<MaterialIndex> run;
    for (const EdgingMember& one : edging_.members) {
      if (one.middle != ground_ && one.middle != kNothingSeen) run.insert(one.middle);
    }
    map_.bounds = {0, 0, kSceneWidth, kSceneHeight + 1};
    if (!run.empty()) planPath(*run.begin());
    return;
  }
  auto pairs = borders(edging_);
  while (pairs.size() > kMostScenes) pairs.erase(std::prev(pairs.end()));
  const int most = kSceneWidth * (pairs.size() > 3 ? kScenesAcross : pairs.size() > 1 ? 2 : 1);
  CellPos at{0, 0};
  int width = 0;
  int height = 0;
  const auto place = [&](int across) {
    if (at.x > 0 && at.x + across > most) at = {0, height};
    const CellPos here = at;
    at.x += across;
    width = std::max(width, at.x);
    height = std::max(height, here.y + kSceneHeight + kSceneHeight % 2);  // even: rows stay shifted alike
    return here;
  };
  for (const auto& [a, b] : pairs) {
    if (a == ground_ || b == ground_) {
      planScene(place(kSceneWidth), a == ground_ ? b : a, ground_);
      continue;
    }
    const CellPos corner = place(kInnerWidth);
    add(boxOf(corner.x + 1, corner.y + 1, 6, 5), a);
    add(boxOf(corner.x + 3, corner.y + 2, 2, 2), b);
  }
  if (width == 0) {
    planScene(place(kSceneWidth), 0, ground_);
  }
  map_.bounds = {0, 0, width, height};
}

void TestPatch::planScene(CellPos corner, MaterialIndex material, MaterialIndex ground) {
  const auto at = [&](int x, int y) { return CellPos{corner.x + x, corner.y + y}; };
  add(boxOf(corner.x + 1, corner.y + 1, 5, 5), material);
  if (ground == kNothingSeen) plan_.push_back({{at(3, 3)}, material, true});
  else add({at(3, 3)}, ground);
  // Two cells between them: by corners what is laid reaches halfway into the next ones.
  add({at(8, 1), at(9, 1), at(10, 1), at(11, 1), at(12, 1), at(13, 1), at(14, 1), at(15, 1), at(15, 2), at(15, 3)}, material);
  add({at(8, 4)}, material);
  add({at(11, 4), at(12, 5)}, material);
}

void TestPatch::planPath(MaterialIndex path) {
  add({{1, 1}, {2, 1}, {3, 1}, {4, 1}, {4, 2}, {4, 3}, {3, 3}, {2, 3}, {1, 3}, {1, 2}, {1, 1}}, path);
  add({{6, 2}, {7, 2}, {8, 2}, {9, 2}, {10, 2}, {11, 2}}, path);
  add({{8, 0}, {8, 1}, {8, 2}, {8, 3}, {8, 4}}, path);
  add({{11, 2}, {11, 3}, {11, 4}, {11, 5}}, path);
  add({{9, 5}, {10, 5}, {11, 5}, {12, 5}}, path);
  add({{2, 6}}, path);
  add({{5, 6}, {6, 6}, {6, 5}}, path);
}

void TestPatch::paint(const PatchStroke& stroke) {
  CellSet cells;
  std::vector<CellPos> way;
  for (const CellPos cell : stroke.cells) {
    if (!map_.bounds.contains(cell)) continue;
    cells.insert(cell);
    // From cell to cell through sides, as a stroke goes.
    if (way.empty() || edging_.decides != Decides::path) {
      way.push_back(cell);
      continue;
    }
    const std::vector<CellPos> line = grid_->sideLine(way.back(), cell);
    for (std::size_t i = 1; i < line.size(); ++i) way.push_back(line[i]);
  }
  for (const CellPos cell : way) cells.insert(cell);
  if (cells.empty()) return;
  const LayerCells before = cells_;
  joiner_.beginStroke();
  (void)joiner_.lay(cells_, {before, cells, stroke.material, stroke.takesAway, way, [this](CellPos at) { return map_.bounds.contains(at); }});
  update();
}

void TestPatch::update() {
  map_.layers.clear();
  for (LayerCells& shown : withHemsShown(quilt_, edging_, *grid_, cells_, map_.bounds)) {
    Layer layer;
    layer.name = "Patch";
    static_cast<LayerCells&>(layer) = std::move(shown);
    map_.layers.emplace_back(std::move(layer));
  }
  map_.revision = Revision::next();
}

std::optional<TestPatch::Spot> TestPatch::spotAt(CellPos at) const {
  if (!map_.bounds.contains(at)) return std::nullopt;
  auto wanted = joiner_.wantedAt(cells_, at);
  const EdgingMember* member = joiner_.memberAt(cells_.cells.at(at));
  if (!wanted || (!member && isNothing(*wanted))) return std::nullopt;
  const int cost = member ? costOf(edging_, *member, *wanted) : 1;
  return Spot{std::move(*wanted), member, cost};
}

std::vector<const EdgingMember*> TestPatch::candidates(CellPos at, std::size_t most) const {
  const auto spot = spotAt(at);
  if (!spot) return {};
  std::vector<const EdgingMember*> found = joiner_.nearest(spot->wanted, most);
  if (spot->member && std::find(found.begin(), found.end(), spot->member) == found.end() && !found.empty()) found.back() = spot->member;
  return found;
}

}  // namespace uq
