// Chalk: plain planning colours, always there as tiles before any sheet is.
//
// A built-in sheet of sixteen colours. It has an id and a code like any sheet, so cells refer to it and files name it,
// but it belongs to the program: no quilt lists or saves it, and its slot is always kChalkSlot. A chalk tile has no
// picture of its own: it fills its cell, whatever the map's grid and cell size are.
#pragma once

#include <cstdint>

#include "core/cells/Cell.h"
#include "core/document/Sheet.h"

namespace uq {

inline constexpr SheetSlot kChalkSlot = kLastSlot;
inline constexpr std::uint32_t kChalkColours = 16;

// Cut into 8 × 2 tiles of 32 × 32 pixels, which is how it lies on the Table.
const Sheet& chalk();

// 0xRRGGBB; `number` is 0 .. kChalkColours - 1.
std::uint32_t chalkColour(std::uint32_t number);

}  // namespace uq
