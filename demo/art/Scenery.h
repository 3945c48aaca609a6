// Scenery: what the demo's maps are made of, and one function for each map that draws its sheets and lays it out.
#pragma once

#include <optional>

#include "art/Sheets.h"
#include "core/document/Quilt.h"

namespace uq::art {

// A sheet to be added to the quilt, with what its tiles stand on.
struct MadeSheet {
  std::string name;
  std::string code;
  PixelSize cell;
  Stance stance;
  DrawnSheet drawn;
  std::vector<Facing> facings;
  std::map<unsigned, Stance> stances;  // of tiles that stand otherwise
};

// A layer of a map under way: tiles by the index of their sheet in the scenery.
struct MadeLayer {
  std::string name;
  std::string role;
  int colour = 0;  // of its thread
  std::string level;  // empty: on the ground
  struct Laid {
    CellPos at;
    std::size_t sheet = 0;
    unsigned number = 0;
    bool mirrored = false;
    int lift = 0;
  };
  std::vector<Laid> laid;
  // Of a backdrop: the index of its sheet; it repeats across.
  std::optional<std::size_t> hung{};
  bool repeatsDown = false;
  Parallax parallax{};
  PixelPos offset{};
  Blend blend = Blend::normal;
  int opacity = 100;

  void lay(CellPos at, std::size_t sheet, unsigned number, bool mirrored = false, int lift = 0) {
    laid.push_back({at, sheet, number, mirrored, lift});
  }
};

struct Scenery {
  std::string name;
  GridShape grid;
  CellRect bounds;
  std::vector<MadeSheet> sheets;
  std::vector<MadeLayer> layers;                    // farthest first
  std::vector<std::pair<std::string, int>> levels;  // name and rise
  Seen seen = Seen::fromAbove;
};

Scenery quayside();
Scenery roofMarket();
Scenery wardBoard();
Scenery canalLocks();
Scenery lanternRow();

}  // namespace uq::art
