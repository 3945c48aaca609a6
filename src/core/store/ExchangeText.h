// Exchange: a quilt and its maps as the JSON that a game, or any other program, reads.
//
// Unlike the quilt's own files it says everything that a reader would otherwise have to work out: sizes in pixels, where the box of
// a cell lies, which turn a picture is drawn in, in which order layers are drawn and how each is laid. Cells outside the bounds of a
// map are no part of it. docs/exchange.md and docs/exchange.schema.json describe it; a change of meaning is a new major version.
//
// A cell is a number, 0 where nothing lies: sheet << 22 | tile << 4 | turn. A sheet's number comes of its code (A is 1, Z 26, AA 27),
// which it keeps, so numbers are the same from export to export. The same quilt gives the same bytes.
// Cost: the text, of which cells are spelt by all cores. Threads: any.
#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <string>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

inline constexpr int kExchangeMajor = 1;
inline constexpr int kExchangeMinor = 1;

// How cells are spelt: as rows of numbers, as pairs of how many and which, or packed: all rows as little-endian numbers of 32 bits,
// Zstandard (RFC 8878), Base64 (RFC 4648).
enum class CellsAs { plain, runs, packed };
std::string_view cellsAsName(CellsAs as);
std::optional<CellsAs> cellsAsFromName(std::string_view name);

// The number by which exported cells call each sheet of a quilt; those whose code gives none that is free get the next free ones.
std::map<Id, std::uint32_t> exchangeNumbers(const Quilt& quilt);

// The numbers by which an export calls what lies on cells. For one quilt, which must live as long.
class ExchangeCells {
 public:
  explicit ExchangeCells(const Quilt& quilt);
  // 0 where nothing lies, or a tile of a sheet that is no more there.
  std::uint32_t numberOf(Cell cell) const {
    if (cell.empty()) return 0;
    const TileRef tile = cell.tile();
    const std::uint32_t sheet = bySlot_[tile.slot];
    return sheet == 0 ? 0 : sheet << 22 | tile.number << 4 | cell.turn().code();
  }

 private:
  std::vector<std::uint32_t> bySlot_;
};

// What is drawn together, and how it is laid over what is behind it (MapPainter's runs, in words of the exchange).
struct ExchangeStep {
  std::vector<std::size_t> layers;  // by their place in the map; of several, by depth: row by row of boxes
  bool byDepth = false;
  PixelPos offset;                 // map pixels
  std::vector<PixelPos> shifts{};  // of each layer besides; empty: none
  int opacity = 100;               // per cent
  Blend blend = Blend::normal;
  Colour tint = kNoTint;
};

// The picture of a backdrop as large as it hangs.
struct ExchangeBackdrop {
  std::string picture;  // path in the export; empty: there is none
  PixelSize size;       // map pixels
};

struct ExchangeMapParts {
  std::vector<ExchangeStep> drawing;                // what the game shows, farthest first
  PixelRect picture;                                // map pixels that all of that may cover
  std::map<std::size_t, ExchangeBackdrop> backdrops{};  // by layer
  std::string chalk{};                              // picture of the chalk, one colour beside the other; empty: none lies there
  CellsAs cells = CellsAs::plain;
  bool withCells = true;
  bool wholeMap = false;  // each layer's area is all of the map
};

// Paths of the files in an export.
std::string exchangeFile(const Map& map);
std::string exchangePicture(const Sheet& sheet);

std::string exchangeQuiltText(const Quilt& quilt);
// The text of a map piece by piece, some megabytes at a time; an Error of `add` ends it, and is what comes back.
using TextPiece = std::function<Result<void>(std::string_view)>;
Result<void> giveExchangeMap(const Quilt& quilt, const Map& map, const ExchangeMapParts& parts, const TextPiece& add);
std::string exchangeMapText(const Quilt& quilt, const Map& map, const ExchangeMapParts& parts);
// What a template is filled with: all that the map's text says, what the quilt's says under `quilt`, and what is needed first: `columns`,
// `rows`, `pixelWidth`, `pixelHeight`, and the `file` name of the map without an ending.
Result<Json> templateData(const Quilt& quilt, const Map& map, const ExchangeMapParts& parts);

}  // namespace uq
