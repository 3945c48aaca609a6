#include "core/document/Sheet.h"

#include <algorithm>

namespace uq {

namespace {

int cellsAlong(int picture, int border, int cell, int gap) {
  return std::max(0, (picture - 2 * border + gap) / (cell + gap));
}

}  // namespace

int Sheet::columns() const { return cellsAlong(pictureSize.w, cut.border, cut.cell.w, cut.gap); }
int Sheet::rows() const { return cellsAlong(pictureSize.h, cut.border, cut.cell.h, cut.gap); }

std::optional<PixelRect> Sheet::place(std::uint32_t number) const {
  if (number >= static_cast<std::uint32_t>(tileCount())) return std::nullopt;
  const int column = static_cast<int>(number) % columns();
  const int row = static_cast<int>(number) / columns();
  return PixelRect{cut.border + column * (cut.cell.w + cut.gap), cut.border + row * (cut.cell.h + cut.gap), cut.cell.w,
                   cut.cell.h};
}

const Stance& Sheet::stanceOf(std::uint32_t number) const {
  const auto said = tiles.find(number);
  return said != tiles.end() && said->second.stance ? *said->second.stance : stance;
}

const Facing* Sheet::facingOf(std::uint32_t number) const {
  for (const Facing& facing : facings) {
    if (std::find(facing.begin(), facing.end(), std::optional(number)) != facing.end()) return &facing;
  }
  return nullptr;
}

std::string Sheet::tileName(std::uint32_t number) const {
  const auto said = tiles.find(number);
  return said != tiles.end() && !said->second.name.empty() ? said->second.name : name + " " + std::to_string(number);
}

}  // namespace uq
