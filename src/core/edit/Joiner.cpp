#include "core/edit/Joiner.h"

#include <algorithm>
#include <cstdlib>
#include <limits>
#include <set>

#include "core/edit/Chance.h"

namespace uq {

namespace {

std::optional<Cell> cellOf(const Quilt& quilt, const EdgingMember& member) {
  const Sheet* sheet = quilt.sheet(member.tile.sheet);
  const auto slot = quilt.slots().find(member.tile.sheet);
  if (!sheet || !slot || !sheet->place(member.tile.tile)) return std::nullopt;
  return Cell({*slot, member.tile.tile}, member.turn);
}

}  // namespace

std::optional<Cell> plainTile(const Quilt& quilt, const Edging& edging, MaterialIndex material) {
  std::optional<Cell> best;
  long most = -1;
  for (const EdgingMember& one : edging.members) {
    const auto cell = cellOf(quilt, one);
    if (!cell) continue;
    const auto own = [material](const std::vector<MaterialIndex>& places) { return std::count(places.begin(), places.end(), material); };
    const long shows = 100 * (one.middle == material ? 1 : 0) + own(one.sides) + own(one.corners);
    if (shows > most && shows > 0) most = shows, best = cell;
  }
  return best;
}

Joiner::Joiner(const Quilt& quilt, const Edging& edging, const Grid& grid)
    : edging_(edging), grid_(grid), places_(static_cast<std::size_t>(placesOf(grid.shape().kind))), hasNothing_(showsNothing(edging)) {
  for (const EdgingMember& one : edging.members) {
    const auto cell = cellOf(quilt, one);
    if (!cell) continue;
    members_.emplace_back(&one, *cell);
    // A tile with two meanings means the first.
    byCell_.try_emplace(cell->bits(), &one);
    for (const MaterialIndex side : one.sides) {
      if (side != one.middle) draws_[{one.middle, side}] = true;
    }
  }
  for (const CellPos from : {CellPos{0, 0}, CellPos{1, 0}, CellPos{0, 1}, CellPos{1, 1}}) {
    std::vector<std::vector<Corner>> corners;
    const auto outline = grid.outline(from);
    for (std::size_t corner = 0; corner < places_; ++corner) {
      std::vector<Corner> meeting;
      for (const CellPos cell : grid.aroundCorner(from, static_cast<int>(corner))) {
        const auto other = grid.outline(cell);
        // The corner of the other cell that lies nearest: outlines of toothed grids may differ by a pixel.
        const auto far = [&](const PixelPos& at) { return std::abs(at.x - outline[corner].x) + std::abs(at.y - outline[corner].y); };
        const auto nearest = std::min_element(other.begin(), other.end(), [&](const PixelPos& a, const PixelPos& b) { return far(a) < far(b); });
        meeting.push_back({{cell.x - from.x, cell.y - from.y}, static_cast<int>(nearest - other.begin())});
      }
      corners.push_back(std::move(meeting));
    }
    meets_.push_back(std::move(corners));
  }
}

const EdgingMember* Joiner::memberAt(Cell cell) const {
  const auto found = cell.empty() ? byCell_.end() : byCell_.find(cell.bits());
  return found == byCell_.end() ? nullptr : found->second;
}

std::optional<MaterialIndex> Joiner::materialOf(Cell cell) const {
  if (cell.empty()) return hasNothing_ ? std::optional(kNothingSeen) : std::nullopt;
  const EdgingMember* member = memberAt(cell);
  return member ? std::optional(member->middle) : std::nullopt;
}

Joiner::Corner Joiner::canonical(CellPos cell, int corner) const {
  const auto parity = static_cast<std::size_t>((cell.x & 1) + 2 * (cell.y & 1));
  Corner first{cell, corner};
  for (const Corner& one : meets_[parity][static_cast<std::size_t>(corner)]) {
    first = std::min(first, Corner{{cell.x + one.cell.x, cell.y + one.cell.y}, one.corner});
  }
  return first;
}

std::optional<MaterialIndex> Joiner::middleOf(const LayerCells& before, CellPos at) const {
  const auto laid = laid_.find(at);
  return laid != laid_.end() ? std::optional(laid->second) : materialOf(before.cells.at(at));
}

// What is seen at a place that two materials share: of the two the one that the other's members draw.
MaterialIndex Joiner::border(MaterialIndex own, MaterialIndex other) const {
  if (own == other) return own;
  const bool ownDraws = draws_.contains({own, other});
  const bool otherDraws = draws_.contains({other, own});
  if (ownDraws != otherDraws) return ownDraws ? other : own;
  return ownDraws ? std::min(own, other) : own;
}

// What comes where a material is taken away: *nothing* where the edging has it, else what lies around most.
MaterialIndex Joiner::ground(const Ask& ask) const {
  if (hasNothing_) return kNothingSeen;
  std::map<MaterialIndex, int> around;
  ask.cells.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      for (int corner = 0; corner < static_cast<int>(places_); ++corner) {
        for (const CellPos beside : grid_.aroundCorner({first.x + i, first.y}, corner)) {
          const auto material = ask.cells.contains(beside) ? std::nullopt : middleOf(ask.before, beside);
          if (material && *material != ask.material) ++around[*material];
        }
      }
    }
  });
  MaterialIndex best = ask.material == 0 && edging_.materials.size() > 1 ? 1 : 0;
  int most = 0;
  for (const auto& [material, count] : around) {
    if (count > most) most = count, best = material;
  }
  return best;
}

void Joiner::link(CellPos a, CellPos b, bool joins) {
  for (std::size_t side = 0; side < places_; ++side) {
    if (grid_.across(a, static_cast<int>(side)) != b) continue;
    links_[{a, static_cast<int>(side)}] = joins;
    links_[{b, static_cast<int>((side + places_ / 2) % places_)}] = joins;
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

void Joiner::layPlaces(const Ask& ask, MaterialIndex laid) {
  const auto forEach = [&](const auto& visit) {
    ask.cells.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) visit(CellPos{first.x + i, first.y});
    });
  };
  if (edging_.decides == Decides::path) layLinks(ask);
  forEach([&](CellPos at) { laid_[at] = laid; });
  if (edging_.decides != Decides::corners) return;
  forEach([&](CellPos at) {
    for (int corner = 0; corner < static_cast<int>(places_); ++corner) laidCorners_[canonical(at, corner)] = laid;
  });
  if (!ask.takesAway) return;
  // A corner of a cell that stays whole stays.
  forEach([&](CellPos at) {
    for (int corner = 0; corner < static_cast<int>(places_); ++corner) {
      for (const CellPos beside : grid_.aroundCorner(at, corner)) {
        const auto own = laid_.find(beside);
        const EdgingMember* member = memberAt(ask.before.cells.at(beside));
        const bool wasWhole = member && std::all_of(member->corners.begin(), member->corners.end(), [&](MaterialIndex one) { return one == ask.material; });
        const bool staysWhole = own != laid_.end() ? own->second == ask.material : wasWhole;
        if (staysWhole && !ask.cells.contains(beside)) laidCorners_[canonical(at, corner)] = ask.material;
      }
    }
  });
}

std::optional<EdgingShape> Joiner::wantedAt(const LayerCells& before, CellPos at) const {
  const Cell there = before.cells.at(at);
  const EdgingMember* own = memberAt(there);
  const auto laid = laid_.find(at);
  const bool isLaid = laid != laid_.end();
  const bool isClear = there.empty() && hasNothing_;
  if (!isLaid && !own && !isClear) return std::nullopt;
  EdgingShape wanted;
  if (edging_.decides == Decides::corners) {
    for (std::size_t i = 0; i < places_; ++i) {
      const auto corner = laidCorners_.find(canonical(at, static_cast<int>(i)));
      wanted.corners.push_back(corner != laidCorners_.end() ? corner->second : own ? own->corners[i] : isClear ? kNothingSeen : kAnything);
    }
    return wanted;
  }
  wanted.middle = isLaid ? laid->second : own ? own->middle : kNothingSeen;
  if (edging_.decides == Decides::path) {
    for (std::size_t i = 0; i < places_; ++i) {
      const auto link = links_.find({at, static_cast<int>(i)});
      const MaterialIndex other = own && own->middle != wanted.middle && own->sides[i] != wanted.middle ? own->sides[i] : kAnything;
      if (link != links_.end()) wanted.sides.push_back(link->second ? wanted.middle : kAnything);
      else wanted.sides.push_back(own && own->middle == wanted.middle ? own->sides[i] : other);
    }
    return wanted;
  }
  std::vector<MaterialIndex> beside;
  for (std::size_t i = 0; i < places_; ++i) {
    const auto other = middleOf(before, grid_.across(at, static_cast<int>(i)));
    // Beyond what is known things go on as they are.
    beside.push_back(other ? *other : own && !isLaid ? own->sides[i] : wanted.middle);
    wanted.sides.push_back(border(wanted.middle, beside.back()));
  }
  if (edging_.decides == Decides::sides) return wanted;
  for (std::size_t i = 0; i < places_; ++i) {
    const MaterialIndex before1 = wanted.sides[(i + places_ - 1) % places_];
    const MaterialIndex after = wanted.sides[i];
    MaterialIndex shown = before1 != wanted.middle ? before1 : after;
    if (before1 != wanted.middle && after != wanted.middle) shown = std::max(before1, after);
    if (before1 == wanted.middle && after == wanted.middle) {
      const auto across = grid_.acrossCorner(at, static_cast<int>(i));
      const auto other = across ? middleOf(before, *across) : std::nullopt;
      shown = other ? border(wanted.middle, *other) : wanted.middle;
    }
    wanted.corners.push_back(shown);
  }
  return wanted;
}

bool Joiner::isShown(const EdgingMember* member, Cell cell, const EdgingShape& wanted) const {
  if (member) return costOf(edging_, *member, wanted) == 0;
  return cell.empty() && hasNothing_ && isNothing(wanted);
}

std::vector<const EdgingMember*> Joiner::nearest(const EdgingShape& wanted, std::size_t most) const {
  std::vector<std::pair<int, const EdgingMember*>> all;
  for (const auto& [member, cell] : members_) all.emplace_back(costOf(edging_, *member, wanted), member);
  std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  std::vector<const EdgingMember*> found;
  for (std::size_t i = 0; i < std::min(most, all.size()); ++i) found.push_back(all[i].second);
  return found;
}

std::optional<Cell> Joiner::chosen(const EdgingShape& wanted, CellPos at) {
  if (isShown(nullptr, Cell(), wanted)) return Cell();
  const auto [known, isNew] = known_.try_emplace(wanted);
  if (isNew) {
    int least = std::numeric_limits<int>::max();
    for (const auto& [member, cell] : members_) {
      const int cost = costOf(edging_, *member, wanted);
      if (cost > least) continue;
      if (cost < least) known->second.clear();
      least = cost;
      known->second.emplace_back(cell, member->weight);
    }
  }
  if (known->second.empty()) return std::nullopt;
  int total = 0;
  for (const auto& [cell, weight] : known->second) total += weight;
  auto left = static_cast<int>(pick(thrown(std::hash<Id>()(edging_.id), grid_.toSide(at)), static_cast<std::size_t>(total)));
  for (const auto& [cell, weight] : known->second) {
    if ((left -= weight) < 0) return cell;
  }
  return known->second.front().first;
}

CellSet Joiner::lay(LayerCells& onto, const Ask& ask) {
  layPlaces(ask, ask.takesAway ? ground(ask) : ask.material);
  CellSet around = ask.cells;
  const auto addAround = [&](CellPos at) {
    for (int corner = 0; corner < static_cast<int>(places_); ++corner) {
      for (const CellPos beside : grid_.aroundCorner(at, corner)) around.insert(beside);
    }
  };
  ask.cells.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) addAround({first.x + i, first.y});
  });
  CellSet beside;
  around.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const CellPos at{first.x + i, first.y};
      const bool isLaid = ask.cells.contains(at);
      if (!isLaid && !ask.may(at)) continue;
      const auto wanted = wantedAt(ask.before, at);
      if (!wanted) continue;
      const Cell now = onto.cells.at(at);
      if (!isLaid && isShown(memberAt(now), now, *wanted)) continue;
      const auto next = chosen(*wanted, at);
      if (!next || *next == now) continue;
      onto.lay(at, Laid{*next, 0});
      if (!isLaid) beside.insert(at);
    }
  });
  return beside;
}

}  // namespace uq
