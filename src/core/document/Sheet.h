// Sheet: a tile sheet — one picture cut into tiles, or a collection of pictures, each of them a tile.
//
// The core knows a sheet's cut and what is said of its tiles. Its pixels it only carries: the bytes of the picture's
// file as they were read or brought in, so that a picture that nobody saved yet is part of the quilt's value like
// everything else, and undo and save need no care of their own. Decoding is the raster's work.
//
// A tile number names a tile for good; TilePlaces says where it stands. The pictures of a collection are laid out on
// one imagined picture, so that whoever draws needs to know nothing of collections.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/base/Shared.h"
#include "core/document/TilePlaces.h"
#include "core/grid/Stance.h"

namespace uq {

inline constexpr int kLargestPictureSide = 1 << 15;  // pixels, each way
inline constexpr int kLargestBorder = 4096;          // pixels; gaps and offsets, too

// How a picture is cut, in picture pixels: what is left out at the left and the top, a border round the rest, then
// cells with a gap between them.
struct SheetCut {
  PixelSize cell{32, 32};
  int border = 0;
  int gap = 0;
  PixelPos offset;
  friend bool operator==(const SheetCut&, const SheetCut&) = default;
};

// The same thing seen from its sides: the tile that shows it turned by as many steps to the right as its place says,
// first the one that is not turned. 4 places on squares and diamonds, 6 on hexagons; at least two of them hold a tile.
using Facing = std::vector<std::optional<std::uint32_t>>;

// What a tile does to somebody walking, at first coarse.
enum class Footing { open, solid, overhead };

// One picture of an animated tile.
struct Frame {
  std::uint32_t tile = 0;
  int milliseconds = 100;  // 1 .. kLongestFrame
  friend bool operator==(const Frame&, const Frame&) = default;
};
inline constexpr int kLongestFrame = 60'000;
using Frames = std::vector<Frame>;
inline constexpr std::size_t kMostFrames = 256;

// What a sheet says of one tile, by its number.
struct TileFacts {
  std::string name;  // may be empty
  std::vector<std::string> tags;
  std::optional<Stance> stance;    // else the sheet's
  std::optional<Footing> footing;  // else the sheet's
  Frames frames;                   // empty: it stands still
  std::string belongs;             // the role of the layers for which it is meant; empty: nobody said
  bool keep = false;               // Tidy leaves it alone
  Json::Object extra;              // fields that this version does not know
  // Whether nothing is said.
  bool empty() const { return *this == TileFacts(); }
  friend bool operator==(const TileFacts&, const TileFacts&) = default;
};

// Where a sheet belongs and comes from; texts may be empty.
struct SheetOrigin {
  std::string pile;  // the theme with which it lies on the Table
  std::string from;
  std::string by;
  std::string licence;
  std::optional<bool> maySell;  // with a game; empty: nobody said
  friend bool operator==(const SheetOrigin&, const SheetOrigin&) = default;
};

// What may be done with a sheet's tiles when they are laid.
struct TurnsAllowed {
  bool turn = true;
  bool mirrorAcross = true;
  bool mirrorDown = true;
  friend bool operator==(const TurnsAllowed&, const TurnsAllowed&) = default;
};

// What becomes of pictures of a collection whose size differs from that of the others.
enum class OddSizes {
  asTheyAre,
  padded,   // all become as large as the largest: smaller ones get see-through pixels beside and above them
  cropped,  // all become as small as the smallest: larger ones are cut, at both sides and at the top
  scaled    // each becomes the usual size by a whole factor
};
std::string_view oddSizesName(OddSizes odd);
std::optional<OddSizes> oddSizesFromName(std::string_view name);

// What is done with the pixels of a sheet's picture each time it is read; the file stays as it came.
struct PixelCare {
  std::optional<std::uint32_t> seeThrough;  // 0xRRGGBB: this colour becomes see-through
  int shrink = 1;                           // whole factor by which it is made smaller, 1 .. kMostShrink
  int enlarge = 1;                          // how large a drawing of lines (SVG) is made, 1 .. kMostShrink
  bool closesRims = false;                  // half-see-through pixels become solid or vanish
  OddSizes odd = OddSizes::asTheyAre;       // of a collection
  friend bool operator==(const PixelCare&, const PixelCare&) = default;
};
inline constexpr int kMostShrink = 16;

using PictureBytes = Shared<std::string>;  // of a picture file; blank where it is missing

// One picture of a collection, and the tile it is.
struct CollectedPicture {
  std::uint32_t number = 0;
  std::string file;  // name in the sheet's own folder
  PixelSize size;
  PictureBytes source;
  PixelPos at;            // on the imagined picture; see layOutCollection
  Json::Object extra{};  // fields that this version does not know
  friend bool operator==(const CollectedPicture&, const CollectedPicture&) = default;
};

// The marks by which pictures and tiles are recognised when a picture was changed by another program: equal marks,
// equal pixels, but for an accident of one in 2^64.
struct SheetMarks {
  std::uint64_t picture = 0;         // of the file's bytes; 0: not known
  std::vector<std::uint64_t> tiles;  // by cell of the cut, or as collected; 0 for a tile with nothing on it
  friend bool operator==(const SheetMarks&, const SheetMarks&) = default;
};

struct Sheet {
  Id id;
  std::string name;
  std::string file;       // slug: sheets/<file>.json
  std::string code;       // capital letters by which .cells files call the sheet
  std::string picture;    // file name of the picture, beside the JSON; empty for a collection
  PixelSize pictureSize;  // after `care`
  PictureBytes source;
  SheetCut cut;
  PixelCare care;
  Stance stance;                    // of all tiles that say nothing else
  Footing footing = Footing::open;  // likewise
  TurnsAllowed turns;
  SheetOrigin origin;
  std::string follows;  // path of a picture outside the quilt that this one is a copy of; may be empty
  std::map<std::uint32_t, TileFacts> tiles;  // only those of which something is said
  std::vector<Facing> facings;               // no tile stands in two
  std::vector<CollectedPicture> collection;  // by number; empty where one picture is cut
  Shared<TilePlaces> places;
  Shared<SheetMarks> marks;
  Json::Object extra;  // fields that this version does not know
  Revision revision;

  bool isCollection() const { return !collection.empty(); }
  int columns() const;  // of the cut; a collection has one row
  int rows() const;
  // Cells of the cut, or pictures.
  int tileCount() const { return columns() * rows(); }

  // Where the tile stands in the picture; nothing for a number that nothing was ever cut for.
  std::optional<PixelRect> place(std::uint32_t number) const;
  // A cell of the cut, or a picture of the collection.
  PixelRect cellRect(std::uint32_t cell) const;
  // The tile on that cell.
  std::uint32_t numberAt(std::uint32_t cell) const;
  // The cell on which the tile stands; nothing for twins, retired and unknown ones.
  std::optional<std::uint32_t> cellOf(std::uint32_t number) const;
  // The cell of the cut at a pixel of the picture; nothing in a border or gap.
  std::optional<std::uint32_t> cellAt(PixelPos at) const;
  // Whether the tile can be taken from the Table: it stands on a cell and was not dropped.
  bool offers(std::uint32_t number) const;
  // The tile whose pixels a number shows: itself, but for dropped twins.
  TilePlaces::Twin shows(std::uint32_t number) const;
  // One more than the greatest number there is.
  std::uint32_t endOfNumbers() const;

  const Stance& stanceOf(std::uint32_t number) const;
  Footing footingOf(std::uint32_t number) const;
  // The facing in which a tile stands; nullptr when in none.
  const Facing* facingOf(std::uint32_t number) const;
  // nullptr when the tile stands still.
  const Frames* framesOf(std::uint32_t number) const;
  const TileFacts& factsOf(std::uint32_t number) const;

  // The tile's own name, else the sheet's name and the number.
  std::string tileName(std::uint32_t number) const;

  friend bool operator==(const Sheet&, const Sheet&) = default;
};

// "A", "B", … "Z", "AA", …: the code after `count` others.
std::string sheetCode(int count);

// True for one to three capital letters.
bool isSheetCode(std::string_view text);

// How many cells a cut gives of a picture, each way.
PixelSize cellsOf(const SheetCut& cut, PixelSize picture);

// The size that most pictures have, of several the smallest.
PixelSize usualSize(const std::vector<PixelSize>& sizes);
// The sizes of the pictures of a collection once those that differ were treated so; nothing where that cannot be done:
// a size is no whole multiple or part of the usual one.
std::optional<std::vector<PixelSize>> fittedSizes(const std::vector<PixelSize>& sizes, OddSizes odd);

// Lays the pictures of a collection out in rows, in the order of their numbers; sets `at` and the sheet's pictureSize.
// Rows are kUsualTableWidth pixels wide, wider only for a wider picture or where the picture would be higher than wide.
void layOutCollection(Sheet& sheet);
inline constexpr int kUsualTableWidth = 384;

}  // namespace uq
