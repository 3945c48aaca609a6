// MapPainter: draws any rectangle of a map at any zoom, in the grid's draw order.
//
// Layer by layer from the farthest, each in the order of its grid, or row by row of the grid (see drawsByDepth); a
// picture larger than its cell reaches over its neighbours, so every cell is drawn whose picture meets the rectangle.
// Any part of a drawing has the same pixels as that part of the whole. Nearest neighbour above 100 %, area average
// below, averaged colours below kColoursBelow device pixels a cell; tiles without a picture are drawn as labelled
// placeholders. Keeps scaled tiles between calls; not for several threads at once. Cost: the cells in the rectangle
// times the layers.
#pragma once

#include <QImage>
#include <atomic>
#include <optional>
#include <set>
#include <vector>

#include "raster/ColourPlane.h"
#include "raster/Run.h"

namespace uq {

class MapPainter {
 public:
  explicit MapPainter(SheetPictures pictures) : kit_{TileArt(std::move(pictures)), {}, {}} {}

  const SheetPictures& pictures() const { return kit_.art.pictures(); }

  // Draws what lies in `device` (absolute device pixels) into a picture of that size, transparent where nothing is.
  QImage draw(const Quilt& quilt, const Map& map, const std::vector<Run>& runs, ViewScale scale, const QRect& device,
              const GhostCells* ghost = nullptr);

  // The layers of one run, neither shifted nor faded. The null picture when nothing is there, or when `stop` was set
  // meanwhile.
  QImage drawRun(const Quilt& quilt, const Map& map, const Run& run, ViewScale scale, const QRect& device,
                 const GhostCells* ghost = nullptr, const std::atomic<bool>* stop = nullptr);

  // A run at one pixel for step × step cells, sampled; see sampledColours.
  QImage sample(const Quilt& quilt, const Map& map, const Run& run, CellRect blocks, int step);

  // The map pixels, before the layer's offset, in which one layer looks different in two states of a quilt that have
  // the same sheets and the same grid: for each chunk that differs, what the old and the new pictures cover.
  std::vector<PixelRect> changes(const Quilt& before, const Quilt& after, LayerAt at);

 private:
  void prepare(const Quilt& quilt, const Map& map);
  void drawTiles(QImage& target, const Quilt& quilt, const Map& map, const std::vector<const TilesLayer*>& layers,
                 ViewScale scale, const QRect& device, const GhostCells* ghost, const std::atomic<bool>* stop);

  DrawingKit kit_;
};

// The size in map pixels at which a cell's tile is drawn; the map's cell size for a placeholder.
PixelSize drawnSize(const Quilt& quilt, const Map& map, Cell cell);

// The tile whose opaque pixel is topmost under a map pixel, among the layers that are not hidden, each at its offset.
struct PickedTile {
  Id layer;
  CellPos at;
  Cell cell;
};
// All tiles with an opaque pixel there, the topmost first.
std::vector<PickedTile> tilesAt(const Quilt& quilt, const Map& map, const SheetPictures& pictures,
                                const std::set<Id>& hidden, PixelPos at);
std::optional<PickedTile> topmostAt(const Quilt& quilt, const Map& map, const SheetPictures& pictures,
                                    const std::set<Id>& hidden, PixelPos at);

}  // namespace uq
