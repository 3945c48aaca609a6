#include "core/document/EdgingShape.h"

#include <algorithm>
#include <cstdlib>
#include <map>

namespace uq {

namespace {

constexpr int kWrongCorner = 16;
constexpr int kWrongSide = 64;
constexpr int kWrongMiddle = 1024;
constexpr int kAlone = 512;

using Places = std::vector<MaterialIndex>;

bool holds(const Places& places, MaterialIndex material) { return std::find(places.begin(), places.end(), material) != places.end(); }

// Where corner i lies after mirroring across.
std::vector<std::size_t> mirroredCorners(const Grid& grid) {
  const auto outline = grid.outline({0, 0});
  const PixelRect box = grid.cellBox({0, 0});
  std::vector<std::size_t> to;
  for (const PixelPos corner : outline) {
    const int x = 2 * box.x + box.w - corner.x;
    const auto far = [&](PixelPos at) { return std::abs(at.x - x) + std::abs(at.y - corner.y); };
    to.push_back(static_cast<std::size_t>(std::min_element(outline.begin(), outline.end(), [&](PixelPos a, PixelPos b) { return far(a) < far(b); }) - outline.begin()));
  }
  return to;
}

Places turnedPlaces(const Places& places, const std::vector<std::size_t>& mirrored, bool sides, Turn turn) {
  Places turned(places.size());
  const std::size_t count = places.size();
  for (std::size_t i = 0; i < count; ++i) {
    // A side runs from its corner to the next one; mirrored, the other way round.
    std::size_t to = !turn.mirror ? i : sides ? mirrored[(i + 1) % count] : mirrored[i];
    to = (to + turn.steps) % count;
    turned[to] = places[i];
  }
  return turned;
}

std::string listed(const std::vector<std::string>& words) {
  std::string text;
  for (std::size_t i = 0; i < words.size(); ++i) text += (i == 0 ? "" : i + 1 == words.size() ? " and " : ", ") + words[i];
  return text;
}

}  // namespace

EdgingShape shapeOf(const EdgingMember& member) { return {member.middle, member.sides, member.corners}; }

int costOf(const Edging& edging, const EdgingMember& member, const EdgingShape& wanted) {
  int cost = 0;
  const auto compare = [&](const Places& shown, const Places& want, int each) {
    for (std::size_t i = 0; i < want.size() && i < shown.size(); ++i) {
      // A path must not run on where no stroke crossed.
      const bool runsOn = edging.decides == Decides::path && member.middle == wanted.middle && shown[i] == member.middle;
      if (want[i] == kAnything ? runsOn : shown[i] != want[i]) cost += want[i] == kNothingSeen ? each * 3 / 4 : each;
    }
  };
  compare(member.sides, wanted.sides, kWrongSide);
  compare(member.corners, wanted.corners, kWrongCorner);
  if (wanted.middle != kAnything && member.middle != wanted.middle) cost += kWrongMiddle;
  if (wanted.middle != kAnything && holds(wanted.sides, wanted.middle) && !holds(member.sides, member.middle)) cost += kAlone;
  return cost;
}

bool isNothing(const EdgingShape& shape) {
  const auto none = [](MaterialIndex one) { return one == kNothingSeen || one == kAnything; };
  return none(shape.middle) && std::all_of(shape.sides.begin(), shape.sides.end(), none) && std::all_of(shape.corners.begin(), shape.corners.end(), none);
}

EdgingShape turnedShape(const Grid& grid, const EdgingShape& shape, Turn turn) {
  const auto mirrored = mirroredCorners(grid);
  return {shape.middle, turnedPlaces(shape.sides, mirrored, true, turn), turnedPlaces(shape.corners, mirrored, false, turn)};
}

std::string placeName(GridKind grid, bool corner, int place) {
  static const char* const kFourStraight[] = {"top", "right", "bottom", "left"};
  static const char* const kFourSlanted[] = {"upper right", "lower right", "lower left", "upper left"};
  static const char* const kCornersOfSquares[] = {"upper left", "upper right", "lower right", "lower left"};
  static const char* const kSixUpright[] = {"upper left", "upper right", "right", "lower right", "lower left", "left"};
  static const char* const kSixLevel[] = {"top", "upper right", "lower right", "bottom", "lower left", "upper left"};
  static const char* const kCornersUpright[] = {"upper left", "top", "upper right", "lower right", "bottom", "lower left"};
  switch (grid) {
    case GridKind::orthogonal: return corner ? kCornersOfSquares[place % 4] : kFourStraight[place % 4];
    case GridKind::diamond:
    case GridKind::staggered: return corner ? kFourStraight[place % 4] : kFourSlanted[place % 4];
    case GridKind::hexagonalPointy: return corner ? kCornersUpright[place % 6] : kSixUpright[place % 6];
    case GridKind::hexagonalFlat: return corner ? kSixUpright[place % 6] : kSixLevel[place % 6];
  }
  return {};
}

std::string shapeInWords(const Edging& edging, const EdgingShape& shape) {
  if (isNothing(shape)) return "nothing";
  std::map<MaterialIndex, int> counts;
  for (const Places* places : {&shape.sides, &shape.corners}) {
    for (const MaterialIndex one : *places) ++counts[one];
  }
  MaterialIndex most = shape.middle;
  if (most == kAnything) {
    int count = 0;
    for (const auto& [material, times] : counts) {
      if (material != kAnything && times > count) count = times, most = material;
    }
  }
  std::map<MaterialIndex, std::vector<std::string>> others;
  const auto take = [&](const Places& places, bool corners) {
    for (std::size_t i = 0; i < places.size(); ++i) {
      const bool follows = corners && !shape.sides.empty() && (places[i] == shape.sides[i] || places[i] == shape.sides[(i + places.size() - 1) % places.size()]);
      if (places[i] == most || places[i] == kAnything || follows) continue;
      others[places[i]].push_back(placeName(edging.grid, corners, static_cast<int>(i)));
    }
  };
  if (edging.decides == Decides::path) {
    std::vector<std::string> over;
    for (std::size_t i = 0; i < shape.sides.size(); ++i) {
      if (shape.sides[i] == most) over.push_back(placeName(edging.grid, false, static_cast<int>(i)));
    }
    return materialName(edging, most) + (over.empty() ? " that runs on nowhere" : ", running on " + listed(over));
  }
  take(shape.sides, false);
  take(shape.corners, true);
  std::string text = materialName(edging, most);
  bool isFirst = true;
  for (const auto& [material, places] : others) {
    text += std::string(isFirst ? ", but its " : ", its ") + listed(places) + (places.size() == 1 ? " is " : " are ") + materialName(edging, material);
    isFirst = false;
  }
  return text;
}

}  // namespace uq
