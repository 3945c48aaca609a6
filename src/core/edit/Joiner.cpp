#include "core/edit/Joiner.h"

#include <algorithm>
#include <cstdlib>
#include <cstring>
#include <limits>
#include <set>

#include "core/cells/CellGather.h"
#include "core/edit/Chance.h"
#include "core/edit/ChunkWrites.h"
#include "core/edit/Meant.h"

namespace uq {

std::optional<Cell> cellOf(const Quilt& quilt, const TileId& tile, Turn turn) {
  const Sheet* sheet = quilt.sheet(tile.sheet);
  const auto slot = quilt.slots().find(tile.sheet);
  if (!sheet || !slot || !sheet->place(tile.tile)) return std::nullopt;
  return Cell({*slot, tile.tile}, turn);
}

std::optional<Cell> plainTile(const Quilt& quilt, const Edging& edging, MaterialIndex material) {
  std::optional<Cell> best;
  long most = -1;
  for (const EdgingMember& one : edging.members) {
    const auto cell = cellOf(quilt, one.tile, one.turn);
    if (!cell) continue;
    const auto own = [material](const std::vector<MaterialIndex>& places) { return std::count(places.begin(), places.end(), material); };
    const long shows = 100 * (one.middle == material ? 1 : 0) + own(one.sides) + own(one.corners);
    if (shows > most && shows > 0) most = shows, best = cell;
  }
  return best;
}

Joiner::Joiner(const Quilt& quilt, const Edging& edging, const Grid& grid)
    : edging_(edging), grid_(grid), places_(static_cast<std::size_t>(placesOf(grid.shape().kind))), hasNothing_(showsNothing(edging)), seed_(std::hash<Id>()(edging.id)) {
  std::array<std::array<bool, kCodes>, kCodes> draws{};  // a member of the first shows the second at a side
  for (const EdgingMember& one : edging.members) {
    const auto cell = cellOf(quilt, one.tile, one.turn);
    if (!cell) continue;
    members_.emplace_back(&one, *cell);
    // A tile with two meanings means the first.
    byCell_.try_emplace(cell->bits(), &one);
    for (const MaterialIndex side : one.sides) {
      if (side != one.middle) draws[index(one.middle)][index(side)] = runs_[index(one.middle)] = true;
    }
    for (const MaterialIndex a : one.corners) {
      for (const MaterialIndex b : one.corners) meets_[index(a)][index(b)] = true;
    }
  }
  for (MaterialIndex own = kNothingSeen; own < kMostMaterials; ++own) {
    for (MaterialIndex other = kNothingSeen; other < kMostMaterials; ++other) {
      const bool ownDraws = draws[index(own)][index(other)];
      const bool otherDraws = draws[index(other)][index(own)];
      // Of the two the one that the other's members draw.
      MaterialIndex seen = ownDraws ? other : own;
      if (ownDraws && otherDraws) seen = std::min(own, other);
      borders_[index(own)][index(other)] = seen;
      if (edging.decides != Decides::corners) meets_[index(own)][index(other)] = ownDraws || otherDraws;
    }
  }
  for (std::size_t parity = 0; parity < 4; ++parity) {
    const CellPos from{static_cast<int>(parity & 1), static_cast<int>(parity >> 1)};
    const auto way = [&](CellPos to) { return CellPos{to.x - from.x, to.y - from.y}; };
    Around& here = around_[parity];
    const auto outline = grid.outline(from);
    for (std::size_t i = 0; i < places_; ++i) {
      here.across.push_back(way(grid.across(from, static_cast<int>(i))));
      const auto beyond = grid.acrossCorner(from, static_cast<int>(i));
      here.acrossCorner.push_back(beyond ? std::optional(way(*beyond)) : std::nullopt);
      here.atCorner.emplace_back();
      CellCorner first{from, static_cast<int>(i)};
      for (const CellPos cell : grid.aroundCorner(from, static_cast<int>(i))) {
        here.atCorner.back().push_back(way(cell));
        const auto other = grid.outline(cell);
        // The corner of the other cell that lies nearest: outlines of toothed grids may differ by a pixel.
        const auto far = [&](const PixelPos& at) { return std::abs(at.x - outline[i].x) + std::abs(at.y - outline[i].y); };
        const auto nearest = std::min_element(other.begin(), other.end(), [&](const PixelPos& a, const PixelPos& b) { return far(a) < far(b); });
        first = std::min(first, CellCorner{cell, static_cast<int>(nearest - other.begin())});
      }
      here.canonical.push_back({way(first.cell), first.corner});
    }
  }
}

std::size_t Joiner::HashWant::operator()(const Want& want) const {
  std::uint64_t halves[2];
  std::memcpy(halves, want.places.data(), sizeof halves);
  return mixedBits(halves[0] ^ mixedBits(halves[1]));
}

const EdgingMember* Joiner::meantAt(const Seen& before, const EdgingMember& member, CellPos at) const {
  const int meant = before.meant(at);
  if (meant == 0) return &member;
  const auto [known, isNew] = meant_.try_emplace(meant);
  if (isNew) known->second = memberMeant(edging_, meant);
  return known->second ? &*known->second : &member;
}

std::optional<MaterialIndex> Joiner::materialOf(Cell cell) const {
  if (cell.empty()) return hasNothing_ ? std::optional(kNothingSeen) : std::nullopt;
  const EdgingMember* member = memberAt(cell);
  return member ? std::optional(member->middle) : std::nullopt;
}

std::int8_t Joiner::cornerLaid(CellPos at, std::size_t corner) const {
  const CellCorner& first = around(at).canonical[corner];
  return laidCorners_[static_cast<std::size_t>(first.corner)].at(on(at, first.cell));
}

void Joiner::layCorner(CellPos at, std::size_t corner, MaterialIndex material) {
  const CellCorner& first = around(at).canonical[corner];
  laidCorners_[static_cast<std::size_t>(first.corner)].set(on(at, first.cell), static_cast<std::int8_t>(material));
}

std::optional<MaterialIndex> Joiner::middleOf(Seen& before, CellPos at) const {
  const std::int8_t laid = laid_.at(at);
  if (laid != SparseBytes::kUnset) return laid;
  const Cell there = before.at(at);
  if (const EdgingMember* own = shown(before, there, at)) return own->middle;
  return there.empty() && hasNothing_ ? std::optional(kNothingSeen) : std::nullopt;
}

std::optional<MaterialIndex> Joiner::cornerOf(Seen& before, CellPos at, std::size_t corner) const {
  if (const std::int8_t laid = cornerLaid(at, corner); laid != SparseBytes::kUnset) return laid;
  const Cell there = before.at(at);
  if (const EdgingMember* own = shown(before, there, at)) return own->corners[corner];
  return there.empty() && hasNothing_ ? std::optional(kNothingSeen) : std::nullopt;
}

std::optional<MaterialIndex> Joiner::between(MaterialIndex a, MaterialIndex b) const {
  for (MaterialIndex third = kNothingSeen; third < static_cast<MaterialIndex>(edging_.materials.size()); ++third) {
    if (third != a && third != b && meet(a, third) && meet(third, b)) return third;
  }
  return std::nullopt;
}

// What comes where a material is taken away: *nothing* where the edging has it, else what lies around most.
MaterialIndex Joiner::ground(Seen& before, const CellSet& ring, MaterialIndex taken) const {
  if (hasNothing_) return kNothingSeen;
  std::array<int, kCodes> counts{};
  ring.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const auto material = middleOf(before, {first.x + i, first.y});
      if (material && *material != taken) ++counts[index(*material)];
    }
  });
  const auto most = std::max_element(counts.begin(), counts.end());
  if (*most > 0) return static_cast<MaterialIndex>(most - counts.begin()) - 1;
  return taken == 0 && edging_.materials.size() > 1 ? 1 : 0;
}

Joiner::Rim Joiner::rimOf(const CellSet& cells) const {
  CellGather ring;
  CellGather rim;
  for (std::size_t corner = 0; corner < places_; ++corner) {
    // Of the cells at a corner the first is the cell itself.
    for (std::size_t i = 1; i < around_[0].atCorner[corner].size(); ++i) {
      const auto step = [&](bool oddColumn, bool oddRow) { return around_[(oddColumn ? 1u : 0u) + (oddRow ? 2u : 0u)].atCorner[corner][i]; };
      cells.forEachWithoutNeighbour(step, cells.bounds(), [&](CellPos at) {
        rim.insert(at);
        ring.insert(on(at, around(at).atCorner[corner][i]));
      });
    }
  }
  return {ring.set(), cells.without(rim.set())};
}

CellSet Joiner::cellsAt(std::span<const CellCorner> corners) const {
  CellSet cells;
  for (const CellCorner& one : corners) {
    for (const CellPos way : around(one.cell).atCorner[static_cast<std::size_t>(one.corner)]) cells.insert(on(one.cell, way));
  }
  return cells;
}

void Joiner::link(CellPos a, CellPos b, bool joins) {
  const auto note = [&](CellPos at, std::size_t side) {
    const auto bit = static_cast<std::int8_t>(1 << side);
    const auto bits = [&](const SparseBytes& of) { return of.at(at) == SparseBytes::kUnset ? std::int8_t{0} : of.at(at); };
    linked_.set(at, static_cast<std::int8_t>(bits(linked_) | bit));
    joined_.set(at, static_cast<std::int8_t>(joins ? bits(joined_) | bit : bits(joined_) & ~bit));
  };
  for (std::size_t side = 0; side < places_; ++side) {
    if (across(a, side) != b) continue;
    note(a, side);
    note(b, (side + places_ / 2) % places_);
  }
}

// Along the way where that is known; else round the cells as they touch, which closes a ring.
void Joiner::layLinks(const Ask& ask) {
  if (ask.takesAway) {
    ask.cells.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        for (int side = 0; side < static_cast<int>(places_); ++side) link({first.x + i, first.y}, grid_.across({first.x + i, first.y}, side), false);
      }
    });
    return;
  }
  if (ask.joints) {
    for (const auto& [a, b] : *ask.joints) link(a, b, true);
    return;
  }
  if (!ask.way.empty()) {
    for (const CellPos at : ask.way) {
      if (last_ && *last_ != at) link(*last_, at, true);
      last_ = at;
    }
    return;
  }
  std::set<CellPos> left;
  ask.cells.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) left.insert({first.x + i, first.y});
  });
  while (!left.empty()) {
    std::vector<CellPos> run{*left.begin()};
    left.erase(left.begin());
    const auto goOn = [&](CellPos at) -> std::optional<CellPos> {
      for (int side = 0; side < static_cast<int>(places_); ++side) {
        if (const CellPos next = grid_.across(at, side); left.erase(next) > 0) return next;
      }
      return std::nullopt;
    };
    while (const auto next = goOn(run.back())) {
      link(run.back(), *next, true);
      run.push_back(*next);
    }
    // Both ways from where it began, and round.
    CellPos back = run.front();
    while (const auto next = goOn(back)) {
      link(back, *next, true);
      back = *next;
    }
    if (run.size() > 3 && back == run.front()) link(run.back(), run.front(), true);
  }
}

void Joiner::layPlaces(Seen& before, const Ask& ask, MaterialIndex laid, const Rim& rim) {
  if (edging_.decides == Decides::path) layLinks(ask);
  ask.cells.forEachStretch([&](CellPos first, int count) { laid_.set(first, count, static_cast<std::int8_t>(laid)); });
  if (edging_.decides != Decides::corners) return;
  ask.cells.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      for (std::size_t corner = 0; corner < places_; ++corner) layCorner({first.x + i, first.y}, corner, laid);
    }
  });
  for (const CellCorner& one : ask.corners) layCorner(one.cell, static_cast<std::size_t>(one.corner), laid);
  if (!ask.takesAway || !ask.corners.empty()) return;
  // A corner of a cell that stays whole stays.
  rim.ring.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const CellPos beside{first.x + i, first.y};
      const std::int8_t own = laid_.at(beside);
      const EdgingMember* member = shownAt(before, beside);
      const bool wasWhole = member && std::all_of(member->corners.begin(), member->corners.end(), [&](MaterialIndex one) { return one == ask.material; });
      if (own != SparseBytes::kUnset ? own != ask.material : !wasWhole) continue;
      for (std::size_t corner = 0; corner < places_; ++corner) layCorner(beside, corner, ask.material);
    }
  });
}

// Where what was laid meets what it has no border with, what both have one with comes between.
void Joiner::layBetween(Seen& before, const Ask& ask, MaterialIndex laid, CellSet& ring) {
  if (edging_.decides == Decides::path) return;
  CellSet more;
  const auto touch = [&](CellPos at) {
    for (std::size_t corner = 0; corner < places_; ++corner) {
      for (const CellPos way : around(at).atCorner[corner]) more.insert(on(at, way));
    }
  };
  ring.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const CellPos at{first.x + i, first.y};
      if (!ask.may(at)) continue;
      if (edging_.decides != Decides::corners) {
        const auto own = middleOf(before, at);
        bool besides = false;
        for (std::size_t side = 0; side < places_; ++side) besides = besides || ask.cells.contains(across(at, side));
        const auto third = own && !meet(laid, *own) && (besides || edging_.decides == Decides::both) ? between(laid, *own) : std::nullopt;
        if (!third) continue;
        laid_.set(at, static_cast<std::int8_t>(*third));
        touch(at);
        continue;
      }
      for (std::size_t corner = 0; corner < places_; ++corner) {
        const auto own = cornerOf(before, at, corner);
        const auto third = own && !meet(laid, *own) ? between(laid, *own) : std::nullopt;
        if (!third) continue;
        layCorner(at, corner, *third);
        for (const CellPos way : around(at).atCorner[corner]) more.insert(on(at, way));
      }
    }
  });
  if (!more.empty()) ring = ring.united(more.without(ask.cells));
}

std::optional<Joiner::Want> Joiner::wanted(Seen& before, CellPos at) const {
  const Cell there = before.at(at);
  const EdgingMember* own = shown(before, there, at);
  const std::int8_t laid = laid_.at(at);
  const bool isLaid = laid != SparseBytes::kUnset;
  const bool isClear = there.empty() && hasNothing_;
  if (!isLaid && !own && !isClear) return std::nullopt;
  Want want;
  want.places.fill(kAnything);
  std::int8_t* sides = want.places.data() + 1;
  std::int8_t* corners = want.places.data() + 7;
  const auto byte = [](MaterialIndex one) { return static_cast<std::int8_t>(one); };
  if (edging_.decides == Decides::corners) {
    for (std::size_t i = 0; i < places_; ++i) {
      const std::int8_t corner = cornerLaid(at, i);
      corners[i] = corner != SparseBytes::kUnset ? corner : own ? byte(own->corners[i]) : isClear ? byte(kNothingSeen) : byte(kAnything);
    }
    return want;
  }
  const MaterialIndex middle = isLaid ? laid : own ? own->middle : kNothingSeen;
  want.places[0] = byte(middle);
  if (edging_.decides == Decides::path) {
    const std::int8_t known = linked_.at(at);
    for (std::size_t i = 0; i < places_; ++i) {
      if (!runs(middle)) sides[i] = byte(middle);
      else if (known != SparseBytes::kUnset && known >> i & 1) sides[i] = joined_.at(at) >> i & 1 ? byte(middle) : byte(kAnything);
      else if (own && (own->middle == middle || own->sides[i] != middle)) sides[i] = byte(own->sides[i]);
    }
    return want;
  }
  // Towards what is not known a cell goes on as it is; one that was laid only towards another thing, not towards an empty place.
  const auto goesOn = [&](CellPos beyond) { return own && own->middle == middle && (!isLaid || !before.at(beyond).empty()) ? own : nullptr; };
  std::array<bool, 6> known{};
  for (std::size_t i = 0; i < places_; ++i) {
    const CellPos beyond = across(at, i);
    const auto other = middleOf(before, beyond);
    known[i] = other.has_value();
    const EdgingMember* as = other ? nullptr : goesOn(beyond);
    sides[i] = byte(other ? border(middle, *other) : as ? as->sides[i] : middle);
  }
  if (edging_.decides == Decides::sides) return want;
  for (std::size_t i = 0; i < places_; ++i) {
    const MaterialIndex side = sides[(i + places_ - 1) % places_];
    const MaterialIndex after = sides[i];
    MaterialIndex shown = side != middle ? side : after;
    if (side != middle && after != middle) shown = std::max(side, after);
    if (side == middle && after == middle) {
      const auto& beyond = around(at).acrossCorner[i];
      const auto other = beyond ? middleOf(before, on(at, *beyond)) : std::nullopt;
      const EdgingMember* as = beyond && !other ? goesOn(on(at, *beyond)) : nullptr;
      const bool wasInner = as && as->sides[i] == middle && as->sides[(i + places_ - 1) % places_] == middle;
      shown = other ? border(middle, *other) : wasInner ? as->corners[i] : middle;
      const bool knowsAll = known[i] && known[(i + places_ - 1) % places_] && (!beyond || other);
      if (shown == middle && !knowsAll) shown = rememberedAtCorner(before, at, i, middle);
    }
    corners[i] = byte(shown);
  }
  return want;
}

EdgingShape Joiner::shapeFor(const Want& want) const {
  const auto list = [&](std::size_t from, bool decides) {
    return decides ? std::vector<MaterialIndex>(want.places.begin() + static_cast<std::ptrdiff_t>(from), want.places.begin() + static_cast<std::ptrdiff_t>(from + places_)) : std::vector<MaterialIndex>();
  };
  return {want.places[0], list(1, sidesDecide(edging_.decides)), list(7, cornersDecide(edging_.decides))};
}

std::optional<EdgingShape> Joiner::wantedAt(const LayerCells& before, CellPos at) const {
  Seen reader(before);
  const auto want = wanted(reader, at);
  return want ? std::optional(shapeFor(*want)) : std::nullopt;
}

std::vector<const EdgingMember*> Joiner::nearest(const EdgingShape& wanted, std::size_t most) const {
  std::vector<std::pair<int, const EdgingMember*>> all;
  for (const auto& [member, cell] : members_) all.emplace_back(costOf(edging_, *member, wanted), member);
  std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  std::vector<const EdgingMember*> found;
  for (std::size_t i = 0; i < std::min(most, all.size()); ++i) found.push_back(all[i].second);
  return found;
}

bool Joiner::isNothingWanted(const Want& want) const {
  return hasNothing_ && std::all_of(want.places.begin(), want.places.end(), [](std::int8_t one) { return one == kNothingSeen || one == kAnything; });
}

const Joiner::Known& Joiner::knownFor(const Want& want) {
  const auto [known, isNew] = known_.try_emplace(want);
  if (!isNew) return known->second;
  Known& found = known->second;
  if (isNothingWanted(want)) {
    found = {{{Cell(), 1}}, 1, 0};
    return found;
  }
  const EdgingShape shape = shapeFor(want);
  found.cost = std::numeric_limits<int>::max();
  for (const auto& [member, cell] : members_) {
    const int cost = costOf(edging_, *member, shape);
    if (cost > found.cost) continue;
    if (cost < found.cost) found = {{}, 0, cost};
    found.cells.emplace_back(cell, member->weight);
    found.weights += member->weight;
  }
  return found;
}

std::optional<Cell> Joiner::chosen(const Known& known, CellPos at) const {
  if (known.cells.empty()) return std::nullopt;
  if (known.cells.size() == 1) return known.cells.front().first;
  auto left = static_cast<int>(pick(thrown(seed_, grid_.toSide(at)), static_cast<std::size_t>(known.weights)));
  for (const auto& [cell, weight] : known.cells) {
    if ((left -= weight) < 0) return cell;
  }
  return known.cells.front().first;
}

std::optional<Joiner::Next> Joiner::nextAt(Seen& before, Next now, CellPos at, bool keeps) {
  const auto want = wanted(before, at);
  if (!want) return std::nullopt;
  const Known& known = knownFor(*want);
  const bool isShown = keeps && known.cost == 0 && std::any_of(known.cells.begin(), known.cells.end(), [&](const auto& one) { return one.first == now.cell; });
  const auto cell = isShown ? std::optional(now.cell) : chosen(known, at);
  if (!cell) return std::nullopt;
  const Next next{*cell, known.cost > 0 ? meantOf(edging_, shapeFor(*want)) : 0};
  return next == now ? std::nullopt : std::optional(next);
}

CellSet Joiner::layWanted(Seen& before, LayerCells& onto, const CellSet& cells, const std::function<bool(CellPos)>& may, bool keeps) {
  CellGather changed;
  cells.forEachChunk([&](ChunkPos chunk, const ChunkRows* rows) {
    std::vector<std::pair<CellPos, int>> meant;
    const bool hadMeant = !onto.meant.empty();
    writeChunk(onto, chunk, rows ? *rows : kWholeChunk, [&](CellPos at) -> std::optional<Laid> {
      if (may && !may(at)) return std::nullopt;
      const Next was{onto.cells.at(at), hadMeant ? onto.meant.at(at) : 0};
      const auto next = nextAt(before, was, at, keeps);
      if (!next) return std::nullopt;
      changed.insert(at);
      if (hadMeant || next->meant != 0) meant.emplace_back(at, next->meant);
      return next->cell == was.cell ? std::nullopt : std::optional(Laid{next->cell, 0});
    });
    for (const auto& [at, number] : meant) onto.meant.set(at, number);
  });
  return changed.set();
}

CellSet Joiner::lay(LayerCells& onto, const Ask& ask) {
  Seen before(ask.before);
  Rim rim = rimOf(ask.cells);
  if (!ask.corners.empty()) rim.ring = cellsAt(ask.corners);
  // A path joins inside a set, too.
  if (edging_.decides == Decides::path) rim.inner = {};
  const MaterialIndex laid = ask.takesAway ? ground(before, rim.ring, ask.material) : ask.material;
  layPlaces(before, ask, laid, rim);
  layBetween(before, ask, laid, rim.ring);
  (void)layWanted(before, onto, ask.cells.without(rim.inner), {}, false);
  CellSet beside = layWanted(before, onto, rim.ring, ask.may, true);
  if (rim.inner.empty()) return beside;
  // All that lies around these was laid: they want the same.
  Want want;
  want.places.fill(kAnything);
  const auto byte = static_cast<std::int8_t>(laid);
  if (edging_.decides != Decides::corners) std::fill_n(want.places.begin() + 1, places_, byte), want.places[0] = byte;
  if (cornersDecide(edging_.decides)) std::fill_n(want.places.begin() + 7, places_, byte);
  const Known& known = knownFor(want);
  const int meant = known.cost > 0 && !known.cells.empty() ? meantOf(edging_, shapeFor(want)) : 0;
  if (known.cells.size() == 1) {
    onto.lay(rim.inner, Laid{known.cells.front().first, 0});
    if (meant != 0) onto.meant.fill(rim.inner, meant);
    return beside;
  }
  rim.inner.forEachChunk([&](ChunkPos at, const ChunkRows* rows) {
    writeChunk(onto, at, rows ? *rows : kWholeChunk, [&](CellPos cell) -> std::optional<Laid> {
      const auto next = chosen(known, cell);
      return next ? std::optional(Laid{*next, 0}) : std::nullopt;
    });
  });
  if (meant != 0) onto.meant.fill(rim.inner, meant);
  return beside;
}

}  // namespace uq
