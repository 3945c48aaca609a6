// What lies there taken for laid, and joined anew.
#include <algorithm>

#include "core/edit/Joiner.h"
#include "core/edit/Meant.h"

namespace uq {

// Which corner of a cell beside another one of the other's is.
std::size_t Joiner::cornerOn(CellPos beside, CellPos at, std::size_t corner) const {
  const CellCorner& first = around(at).canonical[corner];
  for (std::size_t own = 0; own < places_; ++own) {
    const CellCorner& same = around(beside).canonical[own];
    if (on(beside, same.cell) == on(at, first.cell) && same.corner == first.corner) return own;
  }
  return corner;
}

MaterialIndex Joiner::rememberedAtCorner(Seen& before, CellPos at, std::size_t corner, MaterialIndex middle) const {
  for (const CellPos way : around(at).atCorner[corner]) {
    const CellPos beside = on(at, way);
    const EdgingMember* member = beside == at ? nullptr : shownAt(before, beside);
    if (!member || member->middle != middle || middleOf(before, beside) != middle) continue;
    const bool isLaid = laid_.at(beside) != SparseBytes::kUnset;
    const auto remembers = [&](CellPos beyond) { return !middleOf(before, beyond) && (!isLaid || !before.at(beyond).empty()); };
    const std::size_t after = cornerOn(beside, at, corner);
    const std::size_t side = (after + places_ - 1) % places_;
    if (member->sides[side] != middle && remembers(across(beside, side))) return member->sides[side];
    if (member->sides[after] != middle && remembers(across(beside, after))) return member->sides[after];
    const auto& opposite = around(beside).acrossCorner[after];
    const bool wasInner = member->sides[side] == middle && member->sides[after] == middle && member->corners[after] != middle;
    if (wasInner && opposite && remembers(on(beside, *opposite))) return member->corners[after];
  }
  return middle;
}

MaterialIndex Joiner::mostAtCorner(Seen& before, CellPos at, std::size_t corner, const CellSet& cells) const {
  std::array<int, kCodes> counts{};
  bool isClear = false;
  for (const CellPos way : around(at).atCorner[corner]) {
    const CellPos beside = on(at, way);
    if (!cells.contains(beside)) continue;
    const Cell there = before.at(beside);
    isClear = isClear || (there.empty() && hasNothing_);
    const EdgingMember* member = shownAt(before, beside);
    if (!member) continue;
    ++counts[index(member->corners[cornerOn(beside, at, corner)])];
  }
  const auto most = std::max_element(counts.begin(), counts.end());
  if (*most > 0) return static_cast<MaterialIndex>(most - counts.begin()) - 1;
  return isClear ? kNothingSeen : kAnything;
}

void Joiner::takeForLaid(Seen& before, const CellSet& cells, const std::function<bool(CellPos)>& may, bool isNew) {
  cells.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const CellPos at{first.x + i, first.y};
      const EdgingMember* shown = shownAt(before, at);
      const auto own = shown ? std::optional(shown->middle) : materialOf(before.at(at));
      if (!own) continue;
      if (edging_.decides != Decides::path) {
        if (isNew) laid_.set(at, static_cast<std::int8_t>(*own));
        for (std::size_t corner = 0; corner < places_ && edging_.decides == Decides::corners; ++corner) {
          if (cornerLaid(at, corner) != SparseBytes::kUnset) continue;
          const MaterialIndex most = mostAtCorner(before, at, corner, cells);
          if (most != kAnything) layCorner(at, corner, most);
        }
        continue;
      }
      const EdgingMember* member = shown;
      for (std::size_t side = 0; side < places_; ++side) {
        const CellPos beyond = across(at, side);
        const Cell there = before.at(beyond);
        const EdgingMember* other = shownAt(before, beyond);
        if (!other && !(there.empty() && hasNothing_)) continue;  // something else stands there, to which it may lead
        const std::size_t facing = (side + places_ / 2) % places_;
        const bool runsHere = member && member->sides[side] == member->middle;
        const bool runsThere = other && other->sides[facing] == other->middle;
        if (!may(beyond) || (!runsHere && !runsThere)) continue;
        link(at, beyond, member && other && member->middle == other->middle);
      }
    }
  });
}

CellSet Joiner::mend(LayerCells& onto, const CellSet& cells, const std::function<bool(CellPos)>& may, bool isNew) {
  const LayerCells was = onto;
  Seen before(was);
  takeForLaid(before, cells, may, isNew);
  return layWanted(before, onto, rimOf(cells).ring.united(cells), may, true);
}

CellSet Joiner::layMeant(LayerCells& onto) {
  CellSet changed;
  if (onto.meant.empty()) return changed;
  const LayerCells was = onto;
  was.meant.cells().forEachPainted(was.meant.cells().usedBounds(), [&](CellPos at, Cell number) {
    const EdgingMember* own = memberAt(was.cells.at(at));
    const auto meant = own ? memberMeant(edging_, NumberGrid::numberOf(number)) : std::nullopt;
    if (!meant) return;
    EdgingShape wanted = shapeOf(*meant);
    // Where corners decide the middle says nothing.
    if (edging_.decides == Decides::corners) wanted.middle = kAnything;
    const int now = costOf(edging_, *own, wanted);
    const auto best = nearest(wanted, 1);
    if (best.empty() || costOf(edging_, *best.front(), wanted) >= now) return;
    const auto cell = std::find_if(members_.begin(), members_.end(), [&](const auto& one) { return one.first == best.front(); });
    onto.lay(at, Laid{cell->second, 0});
    if (costOf(edging_, *best.front(), wanted) > 0) onto.meant.set(at, NumberGrid::numberOf(number));
    changed.insert(at);
  });
  return changed;
}

}  // namespace uq
