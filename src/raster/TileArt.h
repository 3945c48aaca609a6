// TileArt: the tiles of a quilt's sheets, turned and at the size in which they are to be drawn.
//
// Keeps what it made — turned pictures, halved ones to make small ones from, pictures at exact sizes — until a sheet
// changes or it holds more than kMostArtBytes. Tiles without a picture are drawn as labelled placeholders.
// Invariant: equal cells of one state of the sheets always give the same pixels. Not for several threads at once; each
// that draws has its own, sharing the sheets' pictures. Cost: a look-up, once a tile was used at a size.
#pragma once

#include <array>
#include <unordered_map>
#include <vector>

#include "core/document/Quilt.h"
#include "raster/Blend.h"
#include "core/grid/Stance.h"
#include "raster/SheetPictures.h"

namespace uq {

inline constexpr std::size_t kMostArtBytes = std::size_t{64} << 20;

class TileArt {
 public:
  explicit TileArt(SheetPictures pictures) : pictures_(std::move(pictures)) {}

  const SheetPictures& pictures() const { return pictures_; }
  SheetPictures& pictures() { return pictures_; }

  // Makes ready for the tiles of `quilt`, which must stay as it is while they are drawn. True when a sheet changed
  // since the call before, so that what was computed from sizes and colours no longer holds. Ends all references given
  // out before.
  bool follow(const Quilt& quilt);

  // Makes ready for tiles on cells of that shape. True when it changed, so that references given out before end.
  bool setShape(const GridShape& shape);

  // One tile as a cell turns it.
  class Tile {
   public:
    // Map pixels; 0 × 0 for a placeholder or chalk, which take the cell's size.
    PixelSize size() const { return size_; }
    bool takesCellSize() const { return straight_.pixels == nullptr; }
    // At 100 %; empty where it takes the cell's size.
    const PixelView& straight() const { return straight_; }
    // As the turned picture stands.
    const Stance& stance() const { return stance_; }

   private:
    friend class TileArt;
    struct Sized {
      QImage image;
      PixelView view;
    };
    std::uint32_t bits_ = 0;
    PixelSize size_;
    PixelView straight_;
    Stance stance_;
    QImage kept_;  // the pixels of straight_
    std::vector<QImage> halves_;
    std::vector<Sized> sized_;
  };

  // Valid until follow().
  Tile& tile(Cell cell);

  // The sizes and stances that tiles of the quilt's sheets have, each once a sheet.
  struct Standing {
    PixelSize size;
    Stance stance;
    friend bool operator==(const Standing&, const Standing&) = default;
  };
  template <class Visit>
  void forEachStanding(Visit&& visit) const {
    for (const Slot& slot : slots_) {
      for (const Standing& one : slot.standings) visit(one);
    }
  }
  // Whether any tile stands on several cells.
  bool hasWide() const { return hasWide_; }

  // The tile at exactly w × h device pixels: area average below its size, nearest neighbour above. Valid until the next
  // call for the same tile or follow().
  const PixelView& sized(Tile& tile, int w, int h);

 private:
  struct Slot {
    bool known = false;
    Revision revision;
    const Sheet* sheet = nullptr;
    QImage picture;
    std::vector<Standing> standings;
  };

  Tile made(Cell cell) const;
  QImage made(Tile& tile, QSize size);

  SheetPictures pictures_;
  GridShape shape_;
  std::vector<Slot> slots_;
  bool hasWide_ = false;
  std::unordered_map<std::uint32_t, Tile> tiles_;
  std::array<Tile*, 4096> recent_{};  // by a hash of the cell
  std::size_t bytes_ = 0;
};

// A cell with the turn in which its picture is drawn, in quarters; see Grid::drawnTurn.
inline Cell asDrawn(Cell cell, const Grid& grid) {
  return cell.empty() ? cell : Cell(cell.tile(), grid.drawnTurn(cell.turn()));
}

}  // namespace uq
