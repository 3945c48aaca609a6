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

Block Block::straightened() const {
  std::vector<Part> parts = parts_;
  for (Part& part : parts) part.cell = Cell(part.cell.tile(), Turn{});
  return Block(std::move(parts));
}

}  // namespace uq
