#include "core/edit/EdgingCoverage.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/edit/Pattern.h"

namespace uq {

namespace {

constexpr std::size_t kMostWithParts = 1024;  // missing shapes for which parts are looked for

using Pair = std::pair<MaterialIndex, MaterialIndex>;

bool shows(const std::vector<MaterialIndex>& places, MaterialIndex material) { return std::find(places.begin(), places.end(), material) != places.end(); }

// As it is wanted: what does not decide may be anything.
EdgingShape asWanted(const Edging& edging, EdgingShape shape) {
  if (edging.decides == Decides::corners) shape.middle = kAnything;
  if (edging.decides != Decides::path) return shape;
  for (MaterialIndex& side : shape.sides) side = side == shape.middle ? side : kAnything;
  return shape;
}

class Needs {
 public:
  explicit Needs(const Edging& edging) : edging_(edging), places_(static_cast<std::size_t>(placesOf(edging.grid))) {
    switch (edging.decides) {
      case Decides::corners: byCorners(); break;
      case Decides::path: byPath(); break;
      case Decides::sides:
      case Decides::both: bySides(); break;
    }
  }
  const std::set<EdgingShape>& shapes() const { return shapes_; }

 private:
  void add(EdgingShape shape) {
    if (!isNothing(shape)) shapes_.insert(asWanted(edging_, std::move(shape)));
  }

  void byCorners() {
    std::set<Pair> pairs;
    for (const EdgingMember& one : edging_.members) {
      for (const MaterialIndex a : one.corners) {
        for (const MaterialIndex b : one.corners) pairs.emplace(std::min(a, b), std::max(a, b));
      }
    }
    for (const auto& [a, b] : pairs) {
      for (unsigned bits = 0; bits < 1u << places_; ++bits) {
        EdgingShape shape{kAnything, {}, std::vector<MaterialIndex>(places_, a)};
        for (std::size_t i = 0; i < places_; ++i) {
          if (bits >> i & 1u) shape.corners[i] = b;
        }
        add(std::move(shape));
      }
    }
  }

  void byPath() {
    std::set<MaterialIndex> run;
    for (const EdgingMember& one : edging_.members) {
      if (shows(one.sides, one.middle) && one.middle != kNothingSeen && !std::all_of(one.sides.begin(), one.sides.end(), [&](MaterialIndex side) { return side == one.middle; })) run.insert(one.middle);
    }
    for (const MaterialIndex path : run) {
      for (unsigned bits = 0; bits < 1u << places_; ++bits) {
        EdgingShape shape{path, std::vector<MaterialIndex>(places_, kAnything), {}};
        for (std::size_t i = 0; i < places_; ++i) {
          if (bits >> i & 1u) shape.sides[i] = path;
        }
        add(std::move(shape));
      }
    }
  }

  void bySides() {
    std::set<Pair> drawn;  // the first shows the second at a side
    for (const EdgingMember& one : edging_.members) {
      add({one.middle, std::vector<MaterialIndex>(places_, one.middle), cornersOf(one.middle)});
      for (const MaterialIndex side : one.sides) {
        if (side != one.middle && one.middle != kNothingSeen) drawn.emplace(one.middle, side);
      }
    }
    for (const auto& [own, other] : drawn) {
      for (unsigned bits = 0; bits < 1u << places_; ++bits) {
        EdgingShape shape{own, std::vector<MaterialIndex>(places_, own), cornersOf(own)};
        for (std::size_t i = 0; i < places_; ++i) {
          if (bits >> i & 1u) shape.sides[i] = other;
        }
        if (edging_.decides == Decides::both) withCorners(std::move(shape), other);
        else add(std::move(shape));
      }
    }
  }

  // Beside a side that shows the other a corner does, too; of four-sided cells one between two own sides may.
  void withCorners(EdgingShape shape, MaterialIndex other) {
    std::vector<std::size_t> free;
    for (std::size_t i = 0; i < places_; ++i) {
      const bool isFree = shape.sides[i] == shape.middle && shape.sides[(i + places_ - 1) % places_] == shape.middle;
      if (!isFree) shape.corners[i] = other;
      else if (places_ == 4) free.push_back(i);
    }
    for (unsigned bits = 0; bits < 1u << free.size(); ++bits) {
      EdgingShape one = shape;
      for (std::size_t i = 0; i < free.size(); ++i) {
        if (bits >> i & 1u) one.corners[free[i]] = other;
      }
      add(std::move(one));
    }
  }

  std::vector<MaterialIndex> cornersOf(MaterialIndex material) const {
    return std::vector<MaterialIndex>(edging_.decides == Decides::both ? places_ : 0, material);
  }

  const Edging& edging_;
  std::size_t places_;
  std::set<EdgingShape> shapes_;
};

// How a tile may lie on the grid, itself straight first.
std::vector<Turn> turnsOfTile(const Quilt& quilt, const Grid& grid, const TileId& tile) {
  std::vector<Turn> turns{Turn{}};
  const auto slot = quilt.slots().find(tile.sheet);
  if (!slot) return turns;
  for (const Cell cell : turnsOf(quilt, grid, Cell({*slot, tile.tile}, Turn{}))) {
    const bool isItself = cell.tile() == TileRef{*slot, tile.tile};
    if (isItself && std::find(turns.begin(), turns.end(), cell.turn()) == turns.end()) turns.push_back(cell.turn());
  }
  return turns;
}

}  // namespace

int EdgingCoverage::byTurning() const {
  return static_cast<int>(std::count_if(missing.begin(), missing.end(), [](const MissingShape& one) { return one.turned.has_value(); }));
}

int EdgingCoverage::fromParts() const {
  return static_cast<int>(std::count_if(missing.begin(), missing.end(), [](const MissingShape& one) { return !one.parts.empty(); }));
}

std::vector<TileId> partsFor(const Edging& edging, const EdgingShape& shape) {
  const auto places = static_cast<std::size_t>(placesOf(edging.grid));
  std::vector<TileId> parts;
  for (std::size_t i = 0; i < places; ++i) {
    const std::size_t before = (i + places - 1) % places;
    const std::size_t after = (i + 1) % places;
    const auto suits = [&](const EdgingMember& one) {
      if (one.turn != Turn{} || (shape.middle != kAnything && one.middle != shape.middle)) return false;
      const auto same = [](const std::vector<MaterialIndex>& shown, const std::vector<MaterialIndex>& wanted, std::size_t at, MaterialIndex path) {
        // Where a path does not run anything else will do.
        return wanted[at] == kAnything ? shown[at] != path : shown[at] == wanted[at];
      };
      if (sidesDecide(edging.decides) && !(same(one.sides, shape.sides, before, shape.middle) && same(one.sides, shape.sides, i, shape.middle))) return false;
      if (!cornersDecide(edging.decides)) return true;
      if (!same(one.corners, shape.corners, i, kAnything)) return false;
      // By corners what lies between two of them is drawn up to the middle of the side.
      return edging.decides == Decides::both || (same(one.corners, shape.corners, before, kAnything) && same(one.corners, shape.corners, after, kAnything));
    };
    const auto found = std::find_if(edging.members.begin(), edging.members.end(), suits);
    if (found == edging.members.end()) return {};
    parts.push_back(found->tile);
  }
  return parts;
}

EdgingCoverage coverageOf(const Quilt& quilt, const Edging& edging, const Grid& grid) {
  std::set<EdgingShape> there;
  std::map<EdgingShape, EdgingMember> turned;
  for (const EdgingMember& one : edging.members) {
    there.insert(asWanted(edging, shapeOf(one)));
    if (one.turn != Turn{}) continue;
    for (const Turn turn : turnsOfTile(quilt, grid, one.tile)) {
      EdgingMember lying = one;
      const EdgingShape shape = turnedShape(grid, shapeOf(one), turn);
      lying.turn = turn;
      lying.sides = shape.sides;
      lying.corners = shape.corners;
      lying.told = false;
      turned.try_emplace(asWanted(edging, shape), std::move(lying));
    }
  }
  EdgingCoverage coverage;
  const std::vector<Turn> allowed = edging.members.empty() ? std::vector<Turn>{Turn{}} : turnsOfTile(quilt, grid, edging.members.front().tile);
  std::set<EdgingShape> pictures;
  const Needs needs(edging);
  for (const EdgingShape& needed : needs.shapes()) {
    ++coverage.needed;
    if (there.contains(needed)) continue;
    const auto found = turned.find(needed);
    if (found != turned.end()) {
      coverage.missing.push_back({needed, found->second, {}});
      continue;
    }
    const bool isLookedFor = coverage.missing.size() < kMostWithParts;
    coverage.missing.push_back({needed, std::nullopt, isLookedFor ? partsFor(edging, needed) : std::vector<TileId>()});
    EdgingShape first = needed;
    for (const Turn turn : allowed) first = std::min(first, turnedShape(grid, needed, turn));
    pictures.insert(std::move(first));
  }
  coverage.pictures = static_cast<int>(pictures.size());
  return coverage;
}

Edging withTurned(const Edging& edging, const EdgingCoverage& coverage) {
  Edging with = edging;
  for (const MissingShape& one : coverage.missing) {
    if (one.turned && with.members.size() < kMostMembersOfEdging) with.members.push_back(*one.turned);
  }
  return with;
}

}  // namespace uq
