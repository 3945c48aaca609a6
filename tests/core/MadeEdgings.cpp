#include "core/MadeEdgings.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <random>

namespace uq::test {

namespace {

using Places = std::vector<MaterialIndex>;

struct Shown {
  MaterialIndex middle = kNothingSeen;
  Places sides;
  Places corners;
};

class Making {
 public:
  Making(std::uint64_t seed, bool drawn) : random_(seed), drawn_(drawn) {}

  MadeEdging all() {
    chooseKind();
    chooseMaterials();
    std::vector<Shown> tiles = shownTiles();
    layOut(tiles);
    describe();
    return std::move(made_);
  }

 private:
  int below(int end) { return static_cast<int>(random_() % static_cast<std::uint64_t>(end)); }
  bool chance(int percent) { return below(100) < percent; }
  int count() const { return placesOf(made_.shape.kind); }

  void chooseKind() {
    const int which = below(10);
    const int small = 16 + 8 * below(3);
    if (which < 5) made_.shape = {GridKind::orthogonal, {small, small}};
    else if (which < 7) made_.shape = {GridKind::diamond, {64, 32}};
    else if (which < 9) made_.shape = {GridKind::hexagonalPointy, {32, 32}, 16};
    else made_.shape = {GridKind::hexagonalFlat, {32, 32}, 16};
    made_.truth.grid = made_.shape.kind;
    made_.truth.decides = kDecides[below(4)];
    const bool squares = made_.shape.kind == GridKind::orthogonal;
    if (squares && made_.truth.decides == Decides::sides && chance(30)) made_.set = MadeSet::platform;
    else if (count() == 4 && made_.truth.decides != Decides::path && made_.truth.decides != Decides::sides && chance(40)) made_.set = MadeSet::small;
    made_.arranged = chance(65);
    made_.outlined = chance(35);
  }

  void chooseMaterials() {
    int materials = 2;
    if (made_.set == MadeSet::full && made_.truth.decides == Decides::corners && count() == 4) materials = 2 + below(3);
    const bool withNothing = made_.set == MadeSet::platform || chance(30);
    const int drawn = withNothing ? std::max(1, materials - 1) : materials;
    for (int i = 0; i < drawn; ++i) made_.truth.materials.push_back({"material " + std::to_string(i + 1), colour(i)});
    first_ = 0;
    second_ = drawn > 1 ? 1 : kNothingSeen;
    for (int i = 0; i < drawn; ++i) all_.push_back(i);
    if (withNothing) all_.push_back(kNothingSeen);
    texture_ = below(3);
    softness_ = below(3);
  }

  // Colours that differ well, each with its own lightness.
  std::uint32_t colour(int index) {
    static constexpr std::array<std::array<int, 3>, 8> kColours = {{{96, 140, 72}, {60, 110, 160}, {190, 170, 120}, {120, 90, 70}, {150, 150, 160}, {200, 120, 80}, {70, 70, 90}, {230, 220, 200}}};
    if (index == 0) offset_ = below(8);
    const auto& base = kColours[static_cast<std::size_t>((offset_ + index * 3) % 8)];
    std::uint32_t rgb = 0;
    for (const int part : base) rgb = rgb << 8 | static_cast<std::uint32_t>(std::clamp(part + below(21) - 10, 0, 255));
    return rgb;
  }

  Shown plain(MaterialIndex material) const {
    Shown shown{material, {}, {}};
    if (sidesDecide(made_.truth.decides)) shown.sides.assign(static_cast<std::size_t>(count()), material);
    if (cornersDecide(made_.truth.decides)) shown.corners.assign(static_cast<std::size_t>(count()), material);
    return shown;
  }

  // What the tiles show, in the order of the usual layout: kGap where that has none.
  std::vector<Shown> shownTiles() {
    switch (made_.truth.decides) {
      case Decides::corners: return cornerTiles();
      case Decides::sides: return made_.set == MadeSet::platform ? platform() : sideTiles();
      case Decides::both: return made_.set == MadeSet::small ? nine() : blobTiles();
      case Decides::path: return sideTiles();
    }
    return {};
  }

  Shown byCorners(Places corners) const {
    Shown shown{kNothingSeen, {}, std::move(corners)};
    int most = 0;
    for (const MaterialIndex one : all_) {
      const auto times = static_cast<int>(std::count(shown.corners.begin(), shown.corners.end(), one));
      if (times > most) most = times, shown.middle = one;
    }
    return shown;
  }

  std::vector<Shown> cornerTiles() {
    const int places = count();
    const auto kinds = static_cast<int>(all_.size());
    std::vector<Shown> tiles;
    if (places == 4 && kinds == 2) {
      // Four by four, each fitting the ones beside it: points of a small round map on which each pattern comes once.
      static const int kPoints = roundMap();
      columns_ = 4;
      const auto point = [](int x, int y) { return kPoints >> (y % 4 * 4 + x % 4) & 1; };
      for (int y = 0; y < 4; ++y) {
        for (int x = 0; x < 4; ++x) {
          const Places corners = {all_[static_cast<std::size_t>(point(x, y))], all_[static_cast<std::size_t>(point(x + 1, y))],
                                  all_[static_cast<std::size_t>(point(x + 1, y + 1))], all_[static_cast<std::size_t>(point(x, y + 1))]};
          tiles.push_back(byCorners(corners));
        }
      }
      if (made_.set == MadeSet::small) {
        std::erase_if(tiles, [](const Shown& one) { return one.corners[0] == one.corners[2] && one.corners[1] == one.corners[3] && one.corners[0] != one.corners[1]; });
      }
      return tiles;
    }
    int patterns = 1;
    for (int i = 0; i < places; ++i) patterns *= kinds;
    columns_ = places == 4 ? 9 : 8;
    for (int pattern = 0; pattern < patterns; ++pattern) {
      Places corners;
      for (int i = 0, rest = pattern; i < places; ++i, rest /= kinds) corners.push_back(all_[static_cast<std::size_t>(rest % kinds)]);
      tiles.push_back(byCorners(corners));
    }
    return tiles;
  }

  static int roundMap() {
    for (int points = 0; points < 1 << 16; ++points) {
      int seen = 0;
      const auto point = [points](int x, int y) { return points >> (y % 4 * 4 + x % 4) & 1; };
      for (int y = 0; y < 4; ++y) {
        for (int x = 0; x < 4; ++x) seen |= 1 << (point(x, y) | point(x + 1, y) << 1 | point(x + 1, y + 1) << 2 | point(x, y + 1) << 3);
      }
      if (seen == 0xffff) return points;
    }
    return 0;
  }

  std::vector<Shown> sideTiles() {
    const int places = count();
    std::vector<Shown> tiles;
    if (places == 4) {
      // Columns by what is left and right, rows by what is above and below: neighbours fit.
      static constexpr int kRound[] = {0, 0, 1, 1, 0};
      columns_ = 4;
      for (int y = 0; y < 4; ++y) {
        for (int x = 0; x < 4; ++x) {
          Shown shown = plain(first_);
          const std::array<int, 4> joined = {kRound[y], kRound[x + 1], kRound[y + 1], kRound[x]};
          for (std::size_t i = 0; i < 4; ++i) shown.sides[i] = joined[i] != 0 ? first_ : second_;
          tiles.push_back(shown);
        }
      }
    } else {
      columns_ = 8;
      for (int pattern = 0; pattern < 1 << places; ++pattern) {
        Shown shown = plain(first_);
        for (int i = 0; i < places; ++i) shown.sides[static_cast<std::size_t>(i)] = pattern >> i & 1 ? first_ : second_;
        tiles.push_back(shown);
      }
    }
    if (second_ != kNothingSeen) tiles.push_back(plain(second_));
    return tiles;
  }

  std::vector<Shown> platform() {
    columns_ = 3;
    std::vector<Shown> tiles;
    for (const auto& [left, right] : {std::pair(false, true), std::pair(true, true), std::pair(true, false)}) {
      Shown shown = plain(first_);
      shown.sides = {kNothingSeen, right ? first_ : kNothingSeen, kNothingSeen, left ? first_ : kNothingSeen};
      tiles.push_back(shown);
    }
    return tiles;
  }

  // Sides as said; a corner beside a side that shows the other shows it, too.
  Shown blob(const std::vector<bool>& sides, const std::vector<bool>& corners) const {
    const auto places = static_cast<std::size_t>(count());
    Shown shown = plain(first_);
    for (std::size_t i = 0; i < places; ++i) {
      if (!sides[i]) shown.sides[i] = second_;
      // Corner i lies between side i − 1 and side i.
      if (!corners[i] || !sides[i] || !sides[(i + places - 1) % places]) shown.corners[i] = second_;
    }
    return shown;
  }

  std::vector<Shown> blobTiles() {
    const int places = count();
    std::vector<Shown> tiles;
    columns_ = 8;
    for (int sides = 0; sides < 1 << places; ++sides) {
      for (int corners = 0; corners < (places == 4 ? 16 : 1); ++corners) {
        std::vector<bool> joined;
        std::vector<bool> filled;
        bool isOwn = true;
        for (int i = 0; i < places; ++i) {
          const bool side = sides >> i & 1;
          const bool before = sides >> ((i + places - 1) % places) & 1;
          const bool corner = places == 4 ? corners >> i & 1 : true;
          // A corner that its sides decide has one way only.
          if (places == 4 && !(side && before) && corner) isOwn = false;
          joined.push_back(side);
          filled.push_back(corner);
        }
        if (isOwn) tiles.push_back(blob(joined, filled));
      }
    }
    if (second_ != kNothingSeen) tiles.push_back(plain(second_));
    return tiles;
  }

  // Three by three, and beside them the four inner corners, two by two.
  std::vector<Shown> nine() {
    std::vector<Shown> tiles;
    columns_ = 5;
    for (int y = 0; y < 3; ++y) {
      for (int x = 0; x < 5; ++x) {
        if (x < 3) {
          tiles.push_back(blob({y > 0, x < 2, y < 2, x > 0}, {true, true, true, true}));
        } else if (y < 2) {
          std::vector<bool> corners(4, true);
          // The corner that is missing lies outwards of the four.
          corners[static_cast<std::size_t>(y == 0 ? (x == 3 ? 2 : 3) : (x == 3 ? 1 : 0))] = false;
          tiles.push_back(blob({true, true, true, true}, corners));
        } else {
          tiles.push_back(second_ == kNothingSeen || x == 4 ? Shown{} : plain(second_));
        }
      }
    }
    return tiles;
  }

  static bool isGap(const Shown& shown) {
    const auto isNothing = [](const Places& places) { return std::all_of(places.begin(), places.end(), [](MaterialIndex one) { return one == kNothingSeen; }); };
    return shown.middle == kNothingSeen && isNothing(shown.sides) && isNothing(shown.corners);
  }

  void layOut(std::vector<Shown>& tiles) {
    if (!made_.arranged) {
      for (int gaps = static_cast<int>(tiles.size()) / 8; gaps > 0; --gaps) tiles.push_back({});
      std::shuffle(tiles.begin(), tiles.end(), random_);
    }
    made_.columns = columns_;
    made_.rows = (static_cast<int>(tiles.size()) + columns_ - 1) / columns_;
    const PixelSize cell = made_.shape.cell;
    made_.pixels.assign(static_cast<std::size_t>(made_.columns * cell.w * made_.rows * cell.h), 0);
    for (std::size_t i = 0; i < tiles.size(); ++i) {
      if (isGap(tiles[i])) continue;
      if (drawn_) draw(static_cast<std::uint32_t>(i), tiles[i]);
      made_.truth.members.push_back({{{}, static_cast<std::uint32_t>(i)}, {}, tiles[i].middle, tiles[i].sides, tiles[i].corners, 1});
    }
  }

  // The material that a tile shows at a place of its cell, from 0 to 1 each way.
  struct Point {
    double x, y;
  };
  std::vector<Point> cornersOfCell() const {
    std::vector<Point> corners;
    for (const PixelPos at : makeGrid(made_.shape)->outline({0, 0})) {
      const PixelRect box = makeGrid(made_.shape)->cellBox({0, 0});
      corners.push_back({double(at.x - box.x), double(at.y - box.y)});
    }
    return corners;
  }

  // How much each corner counts at a place: along a side its two ends alone (mean value coordinates; Floater, 2003).
  static std::vector<double> weights(const std::vector<Point>& corners, Point at) {
    const std::size_t n = corners.size();
    std::vector<double> distance(n);
    std::vector<double> half(n);
    for (std::size_t i = 0; i < n; ++i) distance[i] = std::max(1e-6, std::hypot(corners[i].x - at.x, corners[i].y - at.y));
    for (std::size_t i = 0; i < n; ++i) {
      const Point a{corners[i].x - at.x, corners[i].y - at.y};
      const Point b{corners[(i + 1) % n].x - at.x, corners[(i + 1) % n].y - at.y};
      const double angle = std::atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y);
      half[i] = std::tan(std::min(std::abs(angle), std::numbers::pi - 1e-6) / 2);
    }
    std::vector<double> all(n);
    double sum = 0;
    for (std::size_t i = 0; i < n; ++i) sum += all[i] = (half[(i + n - 1) % n] + half[i]) / distance[i];
    for (double& one : all) one /= sum;
    return all;
  }

  MaterialIndex shownAt(const Shown& shown, const std::vector<Point>& corners, Point at, double wobble) const {
    const std::size_t n = corners.size();
    const std::vector<double> share = weights(corners, at);
    if (made_.truth.decides == Decides::corners) {
      MaterialIndex best = shown.corners[0];
      double most = -1;
      for (const MaterialIndex one : all_) {
        double sum = one == all_.front() ? wobble : 0;
        for (std::size_t i = 0; i < n; ++i) sum += shown.corners[i] == one ? share[i] : 0;
        if (sum > most) most = sum, best = one;
      }
      return best;
    }
    const Point middle{made_.shape.cell.w / 2.0, made_.shape.cell.h / 2.0};
    // How near to each side, 1 on it and 0 in the middle.
    std::vector<double> near(n);
    for (std::size_t i = 0; i < n; ++i) {
      const Point a = corners[i];
      const Point b = corners[(i + 1) % n];
      const double length = std::hypot(b.x - a.x, b.y - a.y);
      const auto off = [&](Point p) { return ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length; };
      near[i] = 1 - off(at) / off(middle);
    }
    if (made_.truth.decides == Decides::path) {
      const double radius = 0.42 + wobble;
      const double dx = (at.x - middle.x) / middle.x;
      const double dy = (at.y - middle.y) / middle.y;
      if (shown.middle == second_) return second_;
      if (std::hypot(dx, dy) < radius) return first_;
      for (std::size_t i = 0; i < n; ++i) {
        if (shown.sides[i] != first_) continue;
        const Point out{(corners[i].x + corners[(i + 1) % n].x) / 2 - middle.x, (corners[i].y + corners[(i + 1) % n].y) / 2 - middle.y};
        const double along = ((at.x - middle.x) * out.x + (at.y - middle.y) * out.y) / (out.x * out.x + out.y * out.y);
        const double aside = std::abs((at.x - middle.x) * out.y - (at.y - middle.y) * out.x) / (out.x * out.x + out.y * out.y);
        if (along > 0 && aside < 0.4 + wobble) return first_;
      }
      return second_;
    }
    constexpr double kBand = 0.55;
    for (std::size_t i = 0; i < n; ++i) {
      if (shown.sides[i] != shown.middle && near[i] > kBand + wobble) return shown.sides[i];
    }
    if (made_.truth.decides == Decides::both) {
      for (std::size_t i = 0; i < n; ++i) {
        if (shown.corners[i] != shown.middle && near[i] > kBand + wobble && near[(i + n - 1) % n] > kBand + wobble) return shown.corners[i];
      }
    }
    return shown.middle;
  }

  std::uint32_t textured(MaterialIndex material, int x, int y) const {
    if (material == kNothingSeen) return 0;
    const std::uint32_t base = made_.truth.materials[static_cast<std::size_t>(material)].colour;
    // The same at the same place of each cell, so that what is alike goes on over a side.
    std::uint32_t hash = static_cast<std::uint32_t>(x * 73856093 ^ y * 19349663 ^ material * 83492791);
    hash ^= hash >> 13;
    hash *= 0x5bd1e995u;
    const int rough = static_cast<int>(hash >> 24 & 31) - 16;
    const int by = texture_ == 0 ? 0 : texture_ == 1 ? rough : (x + y) % 8 < 2 ? -18 : 4;
    std::uint32_t pixel = 0xff;
    for (int shift = 16; shift >= 0; shift -= 8) pixel = pixel << 8 | static_cast<std::uint32_t>(std::clamp(static_cast<int>(base >> shift & 255) + by, 0, 255));
    return pixel;
  }

  void draw(std::uint32_t tile, const Shown& shown) {
    const PixelSize cell = made_.shape.cell;
    const PixelRect at = made_.place(tile);
    const std::vector<Point> corners = cornersOfCell();
    const auto grid = makeGrid(made_.shape);
    const PixelRect box = grid->cellBox({0, 0});
    const int stride = made_.columns * cell.w;
    const auto wobbleAt = [&](int x, int y) {
      // Nothing at the sides, so that tiles still fit.
      const double in = std::min({x, y, cell.w - 1 - x, cell.h - 1 - y}) < 2 ? 0 : 1;
      return in * softness_ * 0.03 * std::sin(x * 1.7 + y * 0.9 + tile);
    };
    const auto materialAt = [&](int x, int y) { return shownAt(shown, corners, {x + 0.5, y + 0.5}, wobbleAt(x, y)); };
    const auto isInside = [&](int x, int y) {
      return x >= 0 && y >= 0 && x < cell.w && y < cell.h && grid->cellAt({box.x + x, box.y + y}) == CellPos{0, 0};
    };
    for (int y = 0; y < cell.h; ++y) {
      for (int x = 0; x < cell.w; ++x) {
        if (!isInside(x, y)) continue;
        const MaterialIndex material = materialAt(x, y);
        std::uint32_t pixel = textured(material, x, y);
        const bool isRim = made_.outlined && material != kNothingSeen &&
                           ((isInside(x + 1, y) && materialAt(x + 1, y) != material) || (isInside(x, y + 1) && materialAt(x, y + 1) != material));
        if (isRim) pixel = 0xff201c1a;
        made_.pixels[static_cast<std::size_t>((at.y + y) * stride + at.x + x)] = pixel;
      }
    }
  }

  void describe() {
    made_.called = std::string(made_.set == MadeSet::full ? "full " : made_.set == MadeSet::small ? "small " : "platform ") +
                   std::string(decidesName(made_.truth.decides)) + " on " + std::string(gridName(made_.shape.kind)) + ", " +
                   std::to_string(all_.size()) + " materials" + (showsNothing(made_.truth) ? " with nothing" : "") +
                   (made_.arranged ? ", arranged" : ", shuffled") + (made_.outlined ? ", outlined" : "");
  }

  MadeEdging made_;
  std::mt19937_64 random_;
  bool drawn_;
  std::vector<MaterialIndex> all_;  // nothing among them where it is one
  MaterialIndex first_ = 0;
  MaterialIndex second_ = 1;
  int columns_ = 4;
  int texture_ = 0;
  int softness_ = 0;
  int offset_ = 0;
};

}  // namespace

MadeEdging madeEdging(std::uint64_t seed, bool drawn) { return Making(seed, drawn).all(); }

}  // namespace uq::test
