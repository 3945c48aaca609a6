// SheetSearch: finding tiles by words.
//
// Words are separated by spaces, and a tile is found when every one of them says something of it: part of its name, a
// tag, its sheet's name or pile, its number (exactly, or with # before it), its Footing (open, solid, overhead), a
// colour (red, … or #rrggbb), "used" (on the map that is looked at), "animated". Small and capital letters are the
// same. Cost: a few nanoseconds a tile; texts are compared only for sheets and for tiles of which something is said.
#pragma once

#include <functional>
#include <string_view>

#include "core/sheets/TileColours.h"
#include "core/sheets/TileUses.h"

namespace uq {

struct SheetHit {
  Id sheet;
  std::uint32_t number = 0;
  friend bool operator==(const SheetHit&, const SheetHit&) = default;
};

// What a search may need to know besides the quilt. Either may be null; then nothing is found by it.
struct SearchHelp {
  std::function<const TileColours*(const Sheet&)> colours;
  const TileUses* uses = nullptr;
};

// Tiles that are offered, sheet by sheet in the order of `sheets` (Chalk is searched too, where it is among them),
// tiles named exactly so first; at most `most`. An empty search finds nothing.
std::vector<SheetHit> searchSheets(const Quilt& quilt, const std::vector<Id>& sheets, std::string_view text,
                                   const SearchHelp& help, std::size_t most);

}  // namespace uq
