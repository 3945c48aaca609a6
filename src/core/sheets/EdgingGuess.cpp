#include "core/sheets/EdgingGuess.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "core/document/EdgingShape.h"
#include "core/sheets/CellPatches.h"

namespace uq {

namespace {

using Places = std::vector<MaterialIndex>;
using Rgb = std::array<int, 3>;

constexpr double kOneMaterial = 26;            // distance of colours that are one material, at most
constexpr int kSameHue = 12;             // by which the channels of a stripe differ from those of its ground, at most
constexpr int kShade = 36;               // and how much darker or lighter it is
constexpr double kCertain = 10;          // distance of colours that are one for certain
constexpr double kTwoThings = 8;         // and of two that may be two materials, at least
constexpr double kFewPatches = 0.035;    // share of all patches below which a colour is an accident

double apart(const std::array<int, 3>& a, const std::array<int, 3>& b) {
  double sum = 0;
  for (std::size_t i = 0; i < 3; ++i) sum += double(a[i] - b[i]) * (a[i] - b[i]);
  return std::sqrt(sum);
}

// The colours that stand for materials: those with the most patches near them, one after the other.
std::vector<std::array<int, 3>> coloursOf(const std::vector<CellPatches::Seen>& tiles) {
  std::vector<std::array<int, 3>> all;
  const auto take = [&](const CellPatch& patch) {
    if (!patch.clear) all.push_back(patch.rgb);
  };
  for (const CellPatches::Seen& seen : tiles) {
    if (seen.empty) continue;
    // Middles and corners of plain parts count as much as sides.
    take(seen.middle);
    for (const CellPatch& one : seen.corners) take(one);
    for (const CellPatch& one : seen.sides) take(one);
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

std::string freeWord(const Edging& edging, const Rgb& rgb) {
  const std::string word = colourWord(rgb);
  std::string name = word;
  for (int n = 2; materialNamed(edging, name); ++n) name = word + " " + std::to_string(n);
  return name;
}

std::uint32_t packed(const Rgb& rgb) { return static_cast<std::uint32_t>(rgb[0] << 16 | rgb[1] << 8 | rgb[2]); }
Rgb unpacked(std::uint32_t colour) { return {int(colour >> 16 & 255), int(colour >> 8 & 255), int(colour & 255)}; }

// Colours of which it is known what they are.
struct Sample {
  Rgb rgb;
  MaterialIndex material;
};
using Samples = std::vector<Sample>;

MaterialIndex nearestOf(const Samples& samples, const CellPatch& patch) {
  MaterialIndex best = kNothingSeen;
  double least = 1e9;
  for (const Sample& one : samples) {
    if (patch.clear) break;
    if (const double far = apart(patch.rgb, one.rgb); far < least) least = far, best = one.material;
  }
  return best;
}

Read readBy(const Samples& samples, const CellPatches::Seen& seen) {
  Read read;
  read.middle = nearestOf(samples, seen.middle);
  for (const CellPatch& one : seen.corners) read.corners.push_back(nearestOf(samples, one));
  for (const CellPatch& one : seen.halfway) read.halfway.push_back(nearestOf(samples, one));
  for (const CellPatch& one : seen.sides) read.sides.push_back(nearestOf(samples, one));
  return read;
}

// The colours of the materials, and what somebody told of tiles: unless that is drawn as another material is for certain.
Samples samplesOf(const Edging& edging, const std::map<TileId, CellPatches::Seen>& seen) {
  Samples samples;
  for (std::size_t i = 0; i < edging.materials.size(); ++i) {
    samples.push_back({unpacked(edging.materials[i].colour), static_cast<MaterialIndex>(i)});
    for (const std::uint32_t colour : edging.materials[i].also) samples.push_back({unpacked(colour), static_cast<MaterialIndex>(i)});
  }
  const std::size_t certain = samples.size();
  const auto learn = [&](const CellPatch& patch, MaterialIndex material) {
    if (patch.clear) return;
    for (std::size_t i = 0; i < certain; ++i) {
      if (samples[i].material != material && apart(samples[i].rgb, patch.rgb) < kCertain) return;
    }
    samples.push_back({patch.rgb, material});
  };
  for (const EdgingMember& one : edging.members) {
    const auto found = one.told && one.turn == Turn{} ? seen.find(one.tile) : seen.end();
    if (found == seen.end()) continue;
    for (std::size_t i = 0; i < one.corners.size(); ++i) learn(found->second.corners[i], one.corners[i]);
    for (std::size_t i = 0; i < one.sides.size() && edging.decides != Decides::path; ++i) learn(found->second.sides[i], one.sides[i]);
  }
  return samples;
}

void tell(EdgingMember& member, Decides decides, const Telling& telling, const Read& read) {
  member.middle = decides == Decides::corners ? telling.most(read.corners, read.middle) : read.middle;
  member.sides = sidesDecide(decides) ? read.sides : Places();
  member.corners = cornersDecide(decides) ? read.corners : Places();
  member.told = false;
  if (decides == Decides::both) agreeCorners(member);
}

// Two heaps of colours: begun with those farthest apart (Lloyd's iteration; Least squares quantization in PCM, 1982).
std::pair<Rgb, Rgb> twoHeaps(const std::vector<Rgb>& colours) {
  std::map<Rgb, int> counted;
  for (Rgb one : colours) {
    for (int& channel : one) channel = channel / 4 * 4 + 2;
    ++counted[one];
  }
  Rgb heaps[2] = {{}, {}};
  double far = -1;
  for (const auto& [a, countA] : counted) {
    for (const auto& [b, countB] : counted) {
      if (const double weighed = apart(a, b) * std::min(countA, countB); weighed > far) far = weighed, heaps[0] = a, heaps[1] = b;
    }
  }
  for (int round = 0; round < 8; ++round) {
    std::array<double, 3> sums[2] = {{}, {}};
    double counts[2] = {0, 0};
    for (const auto& [colour, count] : counted) {
      const int to = apart(colour, heaps[1]) < apart(colour, heaps[0]) ? 1 : 0;
      for (std::size_t i = 0; i < 3; ++i) sums[to][i] += double(colour[i]) * count;
      counts[to] += count;
    }
    for (int to = 0; to < 2; ++to) {
      for (std::size_t i = 0; i < 3 && counts[to] > 0; ++i) heaps[to][i] = static_cast<int>(std::lround(sums[to][i] / counts[to]));
    }
  }
  return {heaps[0], heaps[1]};
}

}  // namespace

Edging guessedEdging(const GridShape& shape, const std::vector<TileToGuess>& tiles) {
  Edging edging;
  edging.grid = shape.kind;
  const CellPatches patches(shape);
  std::vector<CellPatches::Seen> seen;
  for (const TileToGuess& one : tiles) seen.push_back(patches.at(one.pixels));
  Samples samples;
  for (const Rgb& colour : coloursOf(seen)) {
    edging.materials.push_back({freeWord(edging, colour), packed(colour)});
    samples.push_back({colour, static_cast<MaterialIndex>(samples.size())});
  }
  std::vector<Read> reads;
  std::vector<std::size_t> members;
  for (std::size_t i = 0; i < seen.size(); ++i) {
    if (seen[i].empty) continue;
    reads.push_back(readBy(samples, seen[i]));
    members.push_back(i);
  }
  if (reads.empty() || edging.materials.empty()) return edging;
  const Telling telling(reads, placesOf(shape.kind));
  edging.decides = telling.decides();
  for (std::size_t i = 0; i < reads.size(); ++i) {
    EdgingMember member;
    member.tile = tiles[members[i]].tile;
    tell(member, edging.decides, telling, reads[i]);
    edging.members.push_back(std::move(member));
  }
  return edging;
}

Edging guessedAnew(const Edging& now, const GridShape& shape, const std::vector<TileToGuess>& tiles) {
  const CellPatches patches(shape);
  std::map<TileId, CellPatches::Seen> seen;
  for (const TileToGuess& one : tiles) seen.emplace(one.tile, patches.at(one.pixels));
  const Samples samples = samplesOf(now, seen);
  std::vector<Read> reads;
  for (const auto& [of, one] : seen) reads.push_back(readBy(samples, one));
  const Telling telling(std::move(reads), placesOf(shape.kind));
  Edging anew = now;
  for (EdgingMember& member : anew.members) {
    const auto found = seen.find(member.tile);
    const bool fits = member.sides.empty() != sidesDecide(now.decides) && member.corners.empty() != cornersDecide(now.decides);
    if ((member.told && fits) || found == seen.end() || member.turn != Turn{}) continue;
    tell(member, now.decides, telling, readBy(samples, found->second));
  }
  // What lies turned shows what its tile shows straight.
  const auto grid = makeGrid(shape);
  std::erase_if(anew.members, [&](EdgingMember& member) {
    if (member.turn == Turn{} || member.told) return false;
    const auto straight = std::find_if(anew.members.begin(), anew.members.end(), [&](const EdgingMember& one) { return one.tile == member.tile && one.turn == Turn{}; });
    if (straight == anew.members.end()) return true;
    const EdgingShape turned = turnedShape(*grid, shapeOf(*straight), member.turn);
    member.middle = turned.middle;
    member.sides = turned.sides;
    member.corners = turned.corners;
    return false;
  });
  // What was told of places that no longer decide says nothing any more.
  std::erase_if(anew.members, [&](const EdgingMember& member) { return member.sides.empty() == sidesDecide(now.decides) || member.corners.empty() == cornersDecide(now.decides); });
  return anew;
}

Edging splitMaterial(const Edging& now, const GridShape& shape, const std::vector<TileToGuess>& tiles, MaterialIndex material) {
  if (material < 0 || material >= static_cast<int>(now.materials.size()) || now.materials.size() >= static_cast<std::size_t>(kMostMaterials)) return now;
  const CellPatches patches(shape);
  std::map<TileId, CellPatches::Seen> seen;
  for (const TileToGuess& one : tiles) seen.emplace(one.tile, patches.at(one.pixels));
  const Samples samples = samplesOf(now, seen);
  std::vector<Rgb> own;
  const auto take = [&](const CellPatch& one) {
    if (!one.clear && nearestOf(samples, one) == material) own.push_back(one.rgb);
  };
  for (const auto& [of, one] : seen) {
    take(one.middle);
    for (const CellPatch& corner : one.corners) take(corner);
    for (const CellPatch& side : one.sides) take(side);
  }
  const auto [first, second] = twoHeaps(own);
  if (apart(first, second) < kTwoThings) return now;
  Edging split = now;
  Material& kept = split.materials[static_cast<std::size_t>(material)];
  kept.also.clear();
  kept.colour = packed(first);
  split.materials.push_back({freeWord(split, second), packed(second)});
  // What somebody said of the one may now mean the other: it is guessed again.
  for (EdgingMember& member : split.members) {
    const auto shows = [&](const Places& places) { return std::find(places.begin(), places.end(), material) != places.end(); };
    if (member.middle == material || shows(member.sides) || shows(member.corners)) member.told = false;
  }
  return guessedAnew(split, shape, tiles);
}

}  // namespace uq
