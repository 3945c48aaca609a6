// SizeText: how large somebody wants a map along one axis, as they write it.
//
//   64         so many cells            +5, -2         so many more, or fewer
//   2*23       factors are multiplied   1920 px        as many cells as cover so many pixels
//   3 screens  as many as cover so many screens of the player; 1.5 screens, + 1 screen
//
// A unit may be shortened to its beginning. Spaces do not matter.
#pragma once

#include <string>
#include <string_view>

namespace uq {

struct SizeMeant {
  int cells = 0;
  std::string why = {};  // why it means nothing, in words; empty where it does
};
// `now`: cells that there are; `cell`: map pixels that one more adds; `screen`: map pixels of a screen.
SizeMeant sizeMeant(std::string_view text, int now, int cell, int screen);

}  // namespace uq
