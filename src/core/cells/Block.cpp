#include "core/cells/Block.h"

#include <algorithm>
#include <map>

namespace uq {

Block Block::of(Cell cell) { return Block({{{0, 0}, cell}}); }

Block::Block(std::vector<Part> parts) {
  std::map<SidePos, Part> places;
  for (const Part& part : parts) places[part.at] = part;
  for (const auto& [at, part] : places) {
    if (!part.cell.empty()) parts_.push_back(part);
  }
}

CellRect Block::extent() const {
  CellRect extent;
  for (const Part& part : parts_) {
    extent = extent.united({part.at.u, part.at.v, part.at.u + 1, part.at.v + 1});
  }
  return extent;
}

Block Block::fitted(CellRect from, CellRect to) const {
  std::vector<Part> fitted;
  for (int v = to.y0; v < to.y1; ++v) {
    for (int u = to.x0; u < to.x1; ++u) {
      const SidePos like{std::clamp(u, from.x0, from.x1 - 1), std::clamp(v, from.y0, from.y1 - 1)};
      const auto at = std::lower_bound(parts_.begin(), parts_.end(), like,
                                       [](const Part& part, SidePos place) { return part.at < place; });
      if (at != parts_.end() && at->at == like) fitted.push_back({{u, v}, at->cell, at->lift});
    }
  }
  return Block(std::move(fitted));
}

Block Block::straightened() const {
  std::vector<Part> parts = parts_;
  for (Part& part : parts) part.cell = Cell(part.cell.tile(), Turn{});
  return Block(std::move(parts));
}

}  // namespace uq
