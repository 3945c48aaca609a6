#include "core/cells/Block.h"

#include <algorithm>

namespace uq {

Block Block::of(Cell cell) { return Block({{{0, 0}, cell}}); }

Block::Block(std::vector<Part> parts) {
  const auto byPlace = [](const Part& a, const Part& b) { return a.at < b.at; };
  std::stable_sort(parts.begin(), parts.end(), byPlace);
  Held held;
  for (auto part = parts.begin(); part != parts.end();) {
    const auto next = std::upper_bound(part, parts.end(), *part, byPlace);
    const Part& last = *std::prev(next);
    if (!last.cell.empty()) held.parts.push_back(last);
    part = next;
  }
  for (const Part& part : held.parts) {
    held.extent = held.extent.united({part.at.u, part.at.v, part.at.u + 1, part.at.v + 1});
    const SheetSlot slot = part.cell.tile().slot;
    const auto place = std::lower_bound(held.slots.begin(), held.slots.end(), slot);
    if (place == held.slots.end() || *place != slot) held.slots.insert(place, slot);
  }
  if (!held.parts.empty()) held_ = Shared(std::move(held));
}

Block Block::fitted(CellRect from, CellRect to) const {
  std::vector<Part> fitted;
  for (int v = to.y0; v < to.y1; ++v) {
    for (int u = to.x0; u < to.x1; ++u) {
      const SidePos like{std::clamp(u, from.x0, from.x1 - 1), std::clamp(v, from.y0, from.y1 - 1)};
      const auto at = std::lower_bound(parts().begin(), parts().end(), like,
                                       [](const Part& part, SidePos place) { return part.at < place; });
      if (at != parts().end() && at->at == like) fitted.push_back({{u, v}, at->cell, at->lift});
    }
  }
  return Block(std::move(fitted));
}

Block Block::straightened() const {
  std::vector<Part> straight = parts();
  for (Part& part : straight) part.cell = Cell(part.cell.tile(), Turn{});
  return Block(std::move(straight));
}

}  // namespace uq
