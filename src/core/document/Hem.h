// Hem: what an edging brings along where one of its materials ends, on the material's own layer or on the layer of a role.
//
// Either rows of tiles beside one side — the face of a wall, the shadow at its foot, foam —, a row as long as the border runs, with
// ends and a middle; or all around, one cell wide, a material of another edging: walls round a floor, a kerb round paving, a
// hedge round lawn. A room is a floor with walls all around whose face is seen at their lower side.
//
// Tiles say in which row and at which end they lie; where one is missing the nearest there is lies there (edit/Hemming). Left and
// right are those of the picture; along a border that runs upright left is above.
// Invariants, kept by `whyNoHem`: a hem has tiles or an edging, never both; what lies inside, on cells of the material, needs a
// layer of its own. A value; cost of a copy: its tiles. Threads: any.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/document/TileId.h"
#include "core/grid/Turn.h"

namespace uq {

enum class HemRow { top, middle, foot };           // the first from the border, those between, the last
enum class HemPiece { left, middle, right, alone };  // in a row; alone: it goes on at neither end
inline constexpr HemRow kHemRows[] = {HemRow::top, HemRow::middle, HemRow::foot};
inline constexpr HemPiece kHemPieces[] = {HemPiece::left, HemPiece::middle, HemPiece::right, HemPiece::alone};
std::string_view hemRowName(HemRow row);  // "top"
std::string_view hemPieceName(HemPiece piece);
std::optional<HemRow> hemRowFromName(std::string_view name);
std::optional<HemPiece> hemPieceFromName(std::string_view name);

inline constexpr int kMostHemRows = 32;
inline constexpr std::size_t kMostHems = 64;  // of an edging
inline constexpr std::size_t kMostHemTiles = 1024;
inline constexpr int kMostHemWeight = 100;

struct HemTile {
  TileId tile;
  Turn turn;
  HemRow row = HemRow::middle;
  HemPiece piece = HemPiece::middle;
  int weight = 1;  // 1 .. kMostHemWeight: how often among tiles for the same place
  friend bool operator==(const HemTile&, const HemTile&) = default;
};

struct Hem {
  std::string name;  // "wall face"
  int material = 0;  // of the edging's list, along whose end it runs
  std::string role;  // of the layer on which it lies; empty: the material's own

  // Rows beside one side.
  int side = 0;            // of the cell that ends there (Grid::across)
  bool inside = false;     // on the material's cells, from the border inwards; else beyond it
  bool stands = false;     // only over cells on which ground lies
  bool follows = false;    // begins where the hem before it in the list ends: a shadow at the foot of a face
  int rows = 1;            // 1 .. kMostHemRows
  bool grows = false;      // how many rows may be said before it is laid, and is read from what lies there
  std::vector<HemTile> tiles{};

  // All around.
  Id around{};                   // an edging; empty: none, it is rows
  std::string aroundMaterial{};  // by its name there

  bool isAround() const { return !around.empty(); }
  friend bool operator==(const Hem&, const Hem&) = default;
};

// Why it is none, in words, in an edging of so many materials on cells with so many sides; empty when it is one.
std::string whyNoHem(const Hem& hem, std::size_t materials, int sides);

// Rows of pieces from a block of tiles as it lies in a sheet or in hand, row by row from the border: of one column the middle, of
// two the ends, of three left, middle and right, of four alone as well; more are further middles. Of rows the first is the top and
// the last the foot; of two these, of one all of them.
std::vector<HemTile> hemTilesOf(const std::vector<std::vector<std::optional<HemTile>>>& block);

}  // namespace uq
