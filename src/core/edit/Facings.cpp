#include "core/edit/Facings.h"

#include <algorithm>

namespace uq {

namespace {

std::ptrdiff_t placeOf(const Facing& facing, std::uint32_t number) {
  return std::find(facing.begin(), facing.end(), std::optional(number)) - facing.begin();
}

}  // namespace

Quilt withPartner(const Quilt& quilt, TileRef tile, int order, int side, std::optional<TileRef> partner) {
  const Sheet* sheet = tile.slot == kChalkSlot ? nullptr : quilt.sheetAt(tile.slot);
  if (!sheet || side <= 0 || side >= order || partner == tile || (partner && partner->slot != tile.slot)) return quilt;
  Sheet next = *sheet;
  if (partner) {
    for (Facing& facing : next.facings) std::replace(facing.begin(), facing.end(), std::optional(partner->number), {});
  }
  auto own = std::find_if(next.facings.begin(), next.facings.end(), [&](const Facing& facing) {
    return static_cast<int>(facing.size()) == order &&
           placeOf(facing, tile.number) < static_cast<std::ptrdiff_t>(facing.size());
  });
  if (own == next.facings.end()) {
    // It may stand among the sides of another grid's family.
    for (Facing& facing : next.facings) std::replace(facing.begin(), facing.end(), std::optional(tile.number), {});
    next.facings.emplace_back(static_cast<std::size_t>(order));
    next.facings.back().front() = tile.number;
    own = std::prev(next.facings.end());
  }
  Facing& facing = *own;
  const auto at = static_cast<std::size_t>((placeOf(facing, tile.number) + side) % order);
  facing[at] = partner ? std::optional(partner->number) : std::nullopt;
  std::erase_if(next.facings, [](const Facing& one) {
    return std::count(one.begin(), one.end(), std::nullopt) + 1 >= static_cast<std::ptrdiff_t>(one.size());
  });
  return quilt.with(std::move(next));
}

std::optional<TileRef> partnerOf(const Quilt& quilt, TileRef tile, int order, int side) {
  const Sheet* sheet = quilt.sheetAt(tile.slot);
  const Facing* facing = sheet ? sheet->facingOf(tile.number) : nullptr;
  if (!facing || static_cast<int>(facing->size()) != order) return std::nullopt;
  const auto& partner = (*facing)[static_cast<std::size_t>((placeOf(*facing, tile.number) + side) % order)];
  return partner ? std::optional(TileRef{tile.slot, *partner}) : std::nullopt;
}

}  // namespace uq
