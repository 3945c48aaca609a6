// Tidy: what of a sheet is blank, stray, double or unused, found and listed before anything happens.
//
// Tidying never touches a map or a pixel. A twin that goes shows the tile it equals; blank, stray and unused tiles are
// only offered no longer. Tiles that were marked to be kept are never found. Cost: the marks, one more look at the
// pixels for mirrored twins and strays.
#pragma once

#include <set>
#include <vector>

#include "core/base/PixelView.h"
#include "core/base/Progress.h"
#include "core/sheets/TileUses.h"

namespace uq {

inline constexpr int kMostStrayPixels = 4;

struct TidyFinds {
  std::vector<std::uint32_t> blank;
  std::vector<std::uint32_t> stray;                 // at most kMostStrayPixels pixels are not see-through
  std::map<std::uint32_t, TilePlaces::Twin> twins;  // the later of two that are equal, and the earlier
  std::vector<std::uint32_t> unused;   // on no map, in no frames and no facing, and nothing is said of them
  std::vector<std::uint32_t> retired;  // for looking at only: they are drawn somewhere, or are gone already
  bool empty() const { return blank.empty() && stray.empty() && twins.empty() && unused.empty(); }
  friend bool operator==(const TidyFinds&, const TidyFinds&) = default;
};

// `picture` is the sheet's, `slot` the sheet's in the quilt that `uses` counts. A tile stands in one list only, in this
// order. Where `progress` is cancelled, some are missing.
TidyFinds findToTidy(const Sheet& sheet, const PixelView& picture, const TileUses& uses, SheetSlot slot,
                     Progress* progress = nullptr);

// The sheet without what was found.
Sheet tidied(Sheet sheet, const TidyFinds& finds);

}  // namespace uq
