// What can be told about a picture's pixels at intake, and what could be done about it: rims that are half see-through,
// art whose pixels are drawn larger than one, a colour that was meant to be see-through.
//
// Cost: one pass over the pixels.
#pragma once

#include <optional>

#include "core/base/PixelView.h"
#include "core/document/Sheet.h"

namespace uq {

struct PictureFindings {
  bool hasClear = false;                    // some pixel is see-through
  std::int64_t rims = 0;                    // half-see-through pixels; 0 where they are of one or two strengths only
  int enlarged = 1;                         // every art pixel is a block of so many pixels each way, 1 .. kMostShrink
  bool isSmooth = false;                    // painted, not set pixel by pixel: neighbours often differ by a trace
  std::optional<std::uint32_t> background;  // 0xRRGGBB of a picture without see-through pixels: what its edges are
  friend bool operator==(const PictureFindings&, const PictureFindings&) = default;
};

PictureFindings findingsOf(const PixelView& picture);

// Whether `large` shows the same as `small` at exactly twice its size each way: the averages of its blocks of 2 × 2
// pixels differ from it by no more than kMostTwiceDifference a channel, on the whole.
bool isTwice(const PixelView& large, const PixelView& small);
inline constexpr int kMostTwiceDifference = 10;

}  // namespace uq
