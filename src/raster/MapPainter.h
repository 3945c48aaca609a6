// MapPainter: draws any rectangle of a map at any zoom, in the grid's draw order.
//
// Layer by layer from the farthest, each in the order of its grid; a picture larger than its cell reaches over its
// neighbours, so cells within the largest overhang of the rectangle are drawn too. Any part of a drawing has the same
// pixels as that part of the whole. Nearest neighbour above 100 %, area average below; tiles without a picture are
// drawn as labelled placeholders. Keeps scaled tiles between calls. Cost: the cells in the rectangle times the layers.
#pragma once

#include <QImage>
#include <set>
#include <unordered_map>
#include <vector>

#include "raster/SheetPictures.h"
#include "raster/ViewScale.h"

namespace uq {

// A stroke that is shown but not laid: drawn in its layer, in draw order, at 80 %.
struct GhostCells {
  Id layer;
  std::vector<std::pair<CellPos, Cell>> cells;
};

class MapPainter {
 public:
  explicit MapPainter(SheetPictures pictures) : pictures_(std::move(pictures)) {}

  const SheetPictures& pictures() const { return pictures_; }

  // Draws what lies in `device` (absolute device pixels) into a picture of that size, transparent where nothing is.
  QImage draw(const Quilt& quilt, const Map& map, ViewScale scale, const QRect& device, const std::set<Id>& hidden,
              const GhostCells* ghost = nullptr);

 private:
  struct Key {
    std::uint32_t cell;
    int w;
    int h;
    friend bool operator==(const Key&, const Key&) = default;
  };
  struct KeyHash {
    std::size_t operator()(const Key& key) const {
      return std::hash<std::uint64_t>{}((std::uint64_t{key.cell} << 32) ^ (std::uint64_t(key.w) << 16) ^
                                        static_cast<std::uint64_t>(key.h));
    }
  };

  const QImage& scaled(const Quilt& quilt, Cell cell, QSize size);

  SheetPictures pictures_;
  std::unordered_map<Key, QImage, KeyHash> scaled_;
};

// The size in map pixels at which a cell's tile is drawn; the map's cell size for a placeholder.
PixelSize drawnSize(const Quilt& quilt, const Map& map, Cell cell);

// How far, in map pixels each way, pictures of the quilt's sheets may reach beyond a cell of the map.
PixelSize overhang(const Quilt& quilt, const Map& map);

// The tile whose opaque pixel is topmost under a map pixel, among the layers that are not hidden.
struct PickedTile {
  Id layer;
  CellPos at;
  Cell cell;
};
std::optional<PickedTile> topmostAt(const Quilt& quilt, const Map& map, const SheetPictures& pictures,
                                    const std::set<Id>& hidden, PixelPos at);

}  // namespace uq
