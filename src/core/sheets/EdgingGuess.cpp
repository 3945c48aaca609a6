#include "core/sheets/EdgingGuess.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace uq {

namespace {

using Places = std::vector<MaterialIndex>;

constexpr double kTowardsCorner = 0.80;  // of the way from the middle: where a corner's patch lies
constexpr double kTowardsBlunt = 0.89;   // the same of hexagons, whose corners are blunt
constexpr double kHalfway = 0.49;        // where a band along the sides does not reach, and a path that runs elsewhere neither
constexpr double kTowardsSide = 0.86;    // and a side's
constexpr unsigned kClear = 100;         // alpha below which nothing is seen
constexpr double kOneMaterial = 26;            // distance of colours that are one material, at most
constexpr int kSameHue = 12;             // by which the channels of a stripe differ from those of its ground, at most
constexpr int kShade = 36;               // and how much darker or lighter it is
constexpr double kFewPatches = 0.035;    // share of all patches below which a colour is an accident

// What a patch shows: the middle value of each channel of what is drawn in it.
struct Patch {
  std::array<int, 3> rgb{};
  bool clear = true;
};

double apart(const std::array<int, 3>& a, const std::array<int, 3>& b) {
  double sum = 0;
  for (std::size_t i = 0; i < 3; ++i) sum += double(a[i] - b[i]) * (a[i] - b[i]);
  return std::sqrt(sum);
}

struct Point {
  double x, y;
};

// Where on a cell is looked at, in pixels from its box's corner.
struct Spots {
  Point middle;
  std::vector<Point> corners;
  std::vector<Point> halfway;  // to the corners
  std::vector<Point> sides;
  double radius = 1;
};

Spots spotsOf(const Grid& grid) {
  const PixelRect box = grid.cellBox({0, 0});
  Spots spots;
  spots.middle = {box.w / 2.0, box.h / 2.0};
  std::vector<Point> outline;
  for (const PixelPos at : grid.outline({0, 0})) outline.push_back({double(at.x - box.x), double(at.y - box.y)});
  const auto towards = [&](Point to, double share) {
    return Point{spots.middle.x + (to.x - spots.middle.x) * share, spots.middle.y + (to.y - spots.middle.y) * share};
  };
  const bool isBlunt = outline.size() == 6;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Point next = outline[(i + 1) % outline.size()];
    spots.corners.push_back(towards(outline[i], isBlunt ? kTowardsBlunt : kTowardsCorner));
    spots.halfway.push_back(towards(outline[i], kHalfway));
    spots.sides.push_back(towards({(outline[i].x + next.x) / 2, (outline[i].y + next.y) / 2}, kTowardsSide));
  }
  spots.radius = std::max(1.0, std::min(box.w, box.h) / (isBlunt ? 18.0 : 11.0));
  return spots;
}

class Looking {
 public:
  Looking(const GridShape& shape) : grid_(makeGrid(shape)), spots_(spotsOf(*grid_)), cell_(shape.cell) {}

  struct Seen {
    Patch middle;
    std::vector<Patch> corners;
    std::vector<Patch> halfway;
    std::vector<Patch> sides;
    bool empty = true;
  };
  Seen at(const TilePixels& tile) const {
    Seen seen;
    seen.middle = patch(tile, spots_.middle, 1.4);
    for (const Point spot : spots_.corners) seen.corners.push_back(patch(tile, spot, 1));
    for (const Point spot : spots_.halfway) seen.halfway.push_back(patch(tile, spot, 0.7));
    for (const Point spot : spots_.sides) seen.sides.push_back(patch(tile, spot, 1));
    seen.empty = isEmpty(tile);
    return seen;
  }

 private:
  // The cell's box on the picture: pictures stand on the bottom of their cell, slanted ones in the middle of it.
  PixelPos corner(const PixelRect& part) const {
    const bool slanted = grid_->shape().kind != GridKind::orthogonal;
    return {part.x + (slanted ? (part.w - cell_.w) / 2 : 0), part.y + part.h - cell_.h};
  }

  bool isEmpty(const TilePixels& tile) const {
    for (int y = tile.part.y; y < tile.part.bottom(); ++y) {
      for (int x = tile.part.x; x < tile.part.right(); ++x) {
        if (alphaOf(tile.picture.at(x, y)) >= kClear) return false;
      }
    }
    return true;
  }

  Patch patch(const TilePixels& tile, Point spot, double wider) const {
    const PixelRect box = grid_->cellBox({0, 0});
    const PixelPos from = corner(tile.part);
    const double radius = spots_.radius * wider;
    std::array<std::vector<int>, 3> channels;
    int clear = 0;
    for (int y = static_cast<int>(std::floor(spot.y - radius)); y <= static_cast<int>(std::ceil(spot.y + radius)); ++y) {
      for (int x = static_cast<int>(std::floor(spot.x - radius)); x <= static_cast<int>(std::ceil(spot.x + radius)); ++x) {
        const PixelPos on{from.x + x, from.y + y};
        const bool isIn = x >= 0 && y >= 0 && x < cell_.w && y < cell_.h && on.x >= tile.part.x && on.y >= tile.part.y && on.x < tile.part.right() &&
                          on.y < tile.part.bottom() && grid_->cellAt({box.x + x, box.y + y}) == CellPos{0, 0};
        if (!isIn) continue;
        const std::uint32_t pixel = tile.picture.at(on.x, on.y);
        const unsigned alpha = alphaOf(pixel);
        if (alpha < kClear) {
          ++clear;
          continue;
        }
        for (std::size_t i = 0; i < 3; ++i) channels[i].push_back(static_cast<int>((pixel >> (16 - 8 * i) & 255) * 255 / alpha));
      }
    }
    Patch shown;
    const auto drawn = static_cast<int>(channels[0].size());
    shown.clear = drawn == 0 || clear > drawn;
    if (shown.clear) return shown;
    for (std::size_t i = 0; i < 3; ++i) {
      auto middle = channels[i].begin() + static_cast<std::ptrdiff_t>(channels[i].size() / 2);
      std::nth_element(channels[i].begin(), middle, channels[i].end());
      shown.rgb[i] = *middle;
    }
    return shown;
  }

  std::unique_ptr<const Grid> grid_;
  Spots spots_;
  PixelSize cell_;
};

// The colours that stand for materials: those with the most patches near them, one after the other.
std::vector<std::array<int, 3>> coloursOf(const std::vector<Looking::Seen>& tiles) {
  std::vector<std::array<int, 3>> all;
  const auto take = [&](const Patch& patch) {
    if (!patch.clear) all.push_back(patch.rgb);
  };
  for (const Looking::Seen& seen : tiles) {
    if (seen.empty) continue;
    // Middles and corners of plain parts count as much as sides.
    take(seen.middle);
    for (const Patch& one : seen.corners) take(one);
    for (const Patch& one : seen.sides) take(one);
  }
  // Few different ones: patches of a material are drawn alike.
  std::map<std::array<int, 3>, int> counted;
  for (const auto& one : all) {
    std::array<int, 3> coarse = one;
    for (int& channel : coarse) channel = channel / 6 * 6 + 3;
    ++counted[coarse];
  }
  std::vector<std::array<int, 3>> colours;
  std::vector<int> heaps;  // how many patches each stands for
  const double few = std::max(2.0, kFewPatches * static_cast<double>(all.size()));
  while (static_cast<int>(colours.size()) < kMostMaterials && !counted.empty()) {
    std::array<int, 3> best{};
    int most = 0;
    for (const auto& [middle, own] : counted) {
      int sum = 0;
      for (const auto& [colour, count] : counted) sum += apart(middle, colour) <= kOneMaterial ? count : 0;
      // The densest colour of the largest heap.
      if (sum * 1000 + own > most) most = sum * 1000 + own, best = middle;
    }
    if (most / 1000 < few) break;
    std::array<double, 3> mean{};
    int heap = 0;
    for (auto one = counted.begin(); one != counted.end();) {
      if (apart(best, one->first) > kOneMaterial) {
        ++one;
        continue;
      }
      for (std::size_t i = 0; i < 3; ++i) mean[i] += double(one->first[i]) * one->second;
      heap += one->second;
      one = counted.erase(one);
    }
    std::array<int, 3> colour{};
    for (std::size_t i = 0; i < 3; ++i) colour[i] = static_cast<int>(std::lround(mean[i] / heap));
    bool isRest = false;
    for (std::size_t i = 0; i < colours.size(); ++i) {
      // A heap beside one that was taken is its rest; a small one that is only lighter or darker is a stripe of it.
      const auto& known = colours[i];
      const auto [least, greatest] = std::minmax({known[0] - colour[0], known[1] - colour[1], known[2] - colour[2]});
      const bool isShade = greatest - least <= kSameHue && std::abs(greatest + least) <= 2 * kShade && heap * 3 < heaps[i];
      isRest = isRest || isShade || apart(known, colour) < 1.3 * kOneMaterial;
    }
    if (isRest) continue;
    colours.push_back(colour);
    heaps.push_back(heap);
  }
  return colours;
}

struct Read {
  MaterialIndex middle = kNothingSeen;
  Places corners;
  Places halfway;
  Places sides;
};

class Telling {
 public:
  Telling(std::vector<Read> tiles, int places) : tiles_(std::move(tiles)), places_(static_cast<std::size_t>(places)) {}

  // How many patches a way of deciding does not explain.
  int unexplainedByCorners() const {
    int wrong = 0;
    std::map<Places, MaterialIndex> known;
    for (const Read& one : tiles_) {
      wrong += one.middle != most(one.corners, one.middle) ? 2 : 0;
      for (std::size_t i = 0; i < places_; ++i) {
        const MaterialIndex a = one.corners[i];
        const MaterialIndex b = one.corners[(i + 1) % places_];
        wrong += one.sides[i] != a && one.sides[i] != b ? 1 : 0;
      }
    }
    return wrong;
  }

  // A corner beside a side that differs from the middle shows what that side shows.
  int unexplainedBySides(bool cornersMayDiffer) const {
    int wrong = 0;
    for (const Read& one : tiles_) {
      for (std::size_t i = 0; i < places_; ++i) {
        const MaterialIndex before = one.sides[(i + places_ - 1) % places_];
        const MaterialIndex after = one.sides[i];
        const bool isFree = before == one.middle && after == one.middle;
        if (isFree) wrong += one.corners[i] != one.middle && !cornersMayDiffer ? 1 : 0;
        else wrong += one.corners[i] != before && one.corners[i] != after ? 1 : one.corners[i] == one.middle ? 1 : 0;
      }
    }
    return wrong;
  }

  // What runs through the middle is seen neither at a corner nor on the way there, but between two sides over which it runs.
  int unexplainedByPath(MaterialIndex path) const {
    int wrong = 0;
    for (const Read& one : tiles_) {
      for (std::size_t i = 0; i < places_; ++i) {
        const bool runsBefore = one.sides[(i + places_ - 1) % places_] == path;
        const bool runsAfter = one.sides[i] == path;
        if (one.middle != path) wrong += runsAfter ? 1 : 0;
        if (runsBefore && runsAfter && places_ == 6) continue;
        wrong += one.corners[i] == path ? 1 : 0;
        wrong += !runsBefore && !runsAfter && one.middle == path && one.halfway[i] == path ? 1 : 0;
      }
    }
    return wrong;
  }

  // Whether sides that show the path stand in tiles along more than one way through the cell.
  bool runsManyWays(MaterialIndex path) const {
    std::vector<bool> used(places_, false);
    for (const Read& one : tiles_) {
      for (std::size_t i = 0; i < places_; ++i) used[i] = used[i] || (one.middle == path && one.sides[i] == path);
    }
    int ways = 0;
    for (std::size_t i = 0; i < places_ / 2; ++i) ways += used[i] || used[i + places_ / 2] ? 1 : 0;
    return ways > 1;
  }

  MaterialIndex most(const Places& places, MaterialIndex otherwise) const {
    std::map<MaterialIndex, int> counts;
    for (const MaterialIndex one : places) ++counts[one];
    int best = 0;
    for (const auto& [material, count] : counts) best = std::max(best, count);
    if (counts[otherwise] == best) return otherwise;
    for (const auto& [material, count] : counts) {
      if (count == best) return material;
    }
    return otherwise;
  }

  // The material that most tiles whose sides differ have in their middle.
  MaterialIndex usualMiddle() const {
    std::map<MaterialIndex, int> counts;
    for (const Read& one : tiles_) ++counts[one.middle];
    MaterialIndex best = kNothingSeen;
    int count = -1;
    for (const auto& [material, times] : counts) {
      if (times > count) count = times, best = material;
    }
    return best;
  }

  Decides decides() const {
    const MaterialIndex usual = usualMiddle();
    const int corners = unexplainedByCorners();
    const int sides = unexplainedBySides(false);
    const int both = unexplainedBySides(true);
    const int path = unexplainedByPath(usual);
    const bool sidesDiffer = std::any_of(tiles_.begin(), tiles_.end(), [&](const Read& one) {
      return one.middle == usual && std::any_of(one.sides.begin(), one.sides.end(), [&](MaterialIndex side) { return side == usual; });
    });
    const int little = static_cast<int>(tiles_.size() * places_) / 20;
    if (corners <= std::min(both, path) && corners < sides) return Decides::corners;
    if (sidesDiffer && path <= std::min(corners, little) && runsManyWays(usual)) return Decides::path;
    if (corners < both) return Decides::corners;
    return sides <= both + little / 2 ? Decides::sides : Decides::both;
  }

 private:
  std::vector<Read> tiles_;
  std::size_t places_;
};

// A side that shows another material than the middle shows it to both its ends.
void agreeCorners(EdgingMember& member) {
  const std::size_t places = member.sides.size();
  for (std::size_t i = 0; i < places; ++i) {
    const MaterialIndex before = member.sides[(i + places - 1) % places];
    const MaterialIndex after = member.sides[i];
    MaterialIndex& corner = member.corners[i];
    if ((before == member.middle && after == member.middle) || (corner == before && before != member.middle) || (corner == after && after != member.middle)) continue;
    corner = before != member.middle ? before : after;
  }
}

std::string colourWord(const std::array<int, 3>& rgb) {
  const int high = std::max({rgb[0], rgb[1], rgb[2]});
  const int low = std::min({rgb[0], rgb[1], rgb[2]});
  if (high - low < 24) return high < 70 ? "black" : high < 130 ? "dark grey" : high < 205 ? "grey" : "white";
  const double hue = [&] {
    const double range = high - low;
    double turned = 0;
    if (high == rgb[0]) turned = (rgb[1] - rgb[2]) / range;
    else if (high == rgb[1]) turned = 2 + (rgb[2] - rgb[0]) / range;
    else turned = 4 + (rgb[0] - rgb[1]) / range;
    return std::fmod(turned * 60 + 360, 360);
  }();
  const std::string shade = high < 110 ? "dark " : "";
  if (hue < 20 || hue >= 340) return shade + "red";
  if (hue < 50) return high < 170 ? shade + "brown" : "sand";
  if (hue < 70) return shade + "yellow";
  if (hue < 165) return shade + "green";
  if (hue < 200) return shade + "teal";
  if (hue < 260) return shade + "blue";
  return shade + "violet";
}

}  // namespace

Edging guessedEdging(const GridShape& shape, const std::vector<TileToGuess>& tiles) {
  Edging edging;
  edging.grid = shape.kind;
  const Looking looking(shape);
  std::vector<Looking::Seen> seen;
  for (const TileToGuess& one : tiles) seen.push_back(looking.at(one.pixels));
  const auto colours = coloursOf(seen);
  for (const auto& colour : colours) {
    std::string name = colourWord(colour);
    for (int n = 2; materialNamed(edging, name); ++n) name = colourWord(colour) + " " + std::to_string(n);
    edging.materials.push_back({name, static_cast<std::uint32_t>(colour[0] << 16 | colour[1] << 8 | colour[2])});
  }
  const auto materialOf = [&](const Patch& patch) {
    MaterialIndex best = kNothingSeen;
    double least = 1e9;
    for (std::size_t i = 0; !patch.clear && i < colours.size(); ++i) {
      if (const double far = apart(patch.rgb, colours[i]); far < least) least = far, best = static_cast<MaterialIndex>(i);
    }
    return best;
  };
  std::vector<Read> reads;
  std::vector<std::size_t> members;
  for (std::size_t i = 0; i < seen.size(); ++i) {
    if (seen[i].empty) continue;
    Read read;
    read.middle = materialOf(seen[i].middle);
    for (const Patch& one : seen[i].corners) read.corners.push_back(materialOf(one));
    for (const Patch& one : seen[i].halfway) read.halfway.push_back(materialOf(one));
    for (const Patch& one : seen[i].sides) read.sides.push_back(materialOf(one));
    reads.push_back(std::move(read));
    members.push_back(i);
  }
  if (reads.empty() || edging.materials.empty()) return edging;
  const Telling telling(reads, placesOf(shape.kind));
  edging.decides = telling.decides();
  for (std::size_t i = 0; i < reads.size(); ++i) {
    EdgingMember member;
    member.tile = tiles[members[i]].tile;
    member.middle = edging.decides == Decides::corners ? telling.most(reads[i].corners, reads[i].middle) : reads[i].middle;
    if (sidesDecide(edging.decides)) member.sides = reads[i].sides;
    if (cornersDecide(edging.decides)) member.corners = reads[i].corners;
    if (edging.decides == Decides::both) agreeCorners(member);
    edging.members.push_back(std::move(member));
  }
  return edging;
}

}  // namespace uq
