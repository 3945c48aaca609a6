#include "core/document/Hem.h"

#include <algorithm>

namespace uq {

namespace {

constexpr std::string_view kRowNames[] = {"top", "middle", "foot"};
constexpr std::string_view kPieceNames[] = {"left", "middle", "right", "alone"};

template <class Value, std::size_t N>
std::optional<Value> valueNamed(const std::string_view (&names)[N], std::string_view name) {
  const auto found = std::find(std::begin(names), std::end(names), name);
  return found == std::end(names) ? std::nullopt : std::optional(static_cast<Value>(found - std::begin(names)));
}

HemPiece pieceOf(std::size_t column, std::size_t columns) {
  if (columns == 1) return HemPiece::middle;
  if (columns == 4 && column == 3) return HemPiece::alone;
  const std::size_t last = columns == 4 ? 2 : columns - 1;
  return column == 0 ? HemPiece::left : column == last ? HemPiece::right : HemPiece::middle;
}

}  // namespace

std::string_view hemRowName(HemRow row) { return kRowNames[static_cast<std::size_t>(row)]; }
std::string_view hemPieceName(HemPiece piece) { return kPieceNames[static_cast<std::size_t>(piece)]; }
std::optional<HemRow> hemRowFromName(std::string_view name) { return valueNamed<HemRow>(kRowNames, name); }
std::optional<HemPiece> hemPieceFromName(std::string_view name) { return valueNamed<HemPiece>(kPieceNames, name); }

std::string whyNoHem(const Hem& hem, std::size_t materials, int sides) {
  const std::string called = "the hem “" + hem.name + "” ";
  if (hem.name.empty()) return "a hem needs a name";
  if (hem.material < 0 || static_cast<std::size_t>(hem.material) >= materials) return called + "runs along a material that is not in the list";
  if (hem.isAround()) {
    if (hem.tiles.empty() && !hem.aroundMaterial.empty()) return {};
    return called + (hem.tiles.empty() ? "does not say which material lies all around" : "has tiles and lies all around, too");
  }
  if (hem.side < 0 || hem.side >= sides) return called + "lies beside a side that cells do not have";
  if (hem.rows < 1 || hem.rows > kMostHemRows) return called + "has from 1 to 32 rows";
  if (hem.inside && hem.role.empty()) return called + "lies on the material and needs a layer of its own";
  if (hem.tiles.empty() || hem.tiles.size() > kMostHemTiles) return called + "has from 1 to 1,024 tiles";
  for (const HemTile& one : hem.tiles) {
    if (one.weight < 1 || one.weight > kMostHemWeight) return called + "has a tile whose weight is not from 1 to 100";
    if (!Turn::isCode(one.turn.code(), sides == 6 ? 6 : 4)) return called + "has a tile that is turned as its grid does not turn";
  }
  return {};
}

std::vector<HemTile> hemTilesOf(const std::vector<std::vector<std::optional<HemTile>>>& block) {
  std::vector<HemTile> tiles;
  for (std::size_t y = 0; y < block.size(); ++y) {
    const bool isFirst = y == 0;
    const bool isLast = y + 1 == block.size();
    for (std::size_t x = 0; x < block[y].size(); ++x) {
      if (!block[y][x]) continue;
      HemTile one = *block[y][x];
      one.row = isFirst && isLast ? HemRow::middle : isFirst ? HemRow::top : isLast ? HemRow::foot : HemRow::middle;
      one.piece = pieceOf(x, block[y].size());
      tiles.push_back(one);
    }
  }
  return tiles;
}

}  // namespace uq
