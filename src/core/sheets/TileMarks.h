// Marks of pixels: numbers by which tiles and pictures are recognised when a picture was changed by another program,
// and twins are found.
//
// 64-bit FNV-1a (Fowler, Noll, Vo), over whole 32-bit pixels; docs/format.md defines them, for they are saved. Equal
// pixels give equal marks; different ones give different marks but for an accident. Cost: one multiplication a pixel.
#pragma once

#include <cstdint>
#include <string_view>

#include "core/base/PixelView.h"
#include "core/base/Progress.h"
#include "core/document/Sheet.h"

namespace uq {

// Of the bytes of a file. Never 0.
std::uint64_t markOf(std::string_view bytes);

// Of a part of a picture, which must lie inside it; 0 when all of it is see-through.
std::uint64_t markOf(const PixelView& picture, const PixelRect& part);
// Of the same part mirrored across.
std::uint64_t mirroredMarkOf(const PixelView& picture, const PixelRect& part);

// The marks of a sheet whose picture that is. Cells that reach beyond the picture have the mark 0. Where `progress` is
// cancelled, the marks that were not made are 0.
SheetMarks marksOf(const Sheet& sheet, const PixelView& picture, Progress* progress = nullptr);

// The mark of what a sheet's picture was read from: of one file, or of all files of a collection together.
std::uint64_t sourceMark(const Sheet& sheet);

}  // namespace uq
