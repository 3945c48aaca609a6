// MapPainter: draws any rectangle of a map at any zoom, in the map's draw order.
//
// Run by run from the farthest; inside a run layer by layer, or by depth: row by row of the grid, so that the foot of
// what is drawn decides, then its rise, then the stack (see Run.h). A picture larger than its cell reaches over its
// neighbours, so every cell is drawn whose picture meets the rectangle; one that stands on several cells is drawn in
// strips, each with its front cell. Any part of a drawing has the same pixels as that part of the whole. Nearest
// neighbour above 100 %, area average below, averaged colours below kColoursBelow device pixels a cell; tiles without a
// picture are drawn as labelled placeholders. Keeps scaled tiles between calls; not for several threads at once. Cost:
// the cells in the rectangle times the layers.
#pragma once

#include <QImage>
#include <QPainter>
#include <atomic>
#include <optional>
#include <set>
#include <vector>

#include "raster/ColourPlane.h"
#include "raster/Run.h"

namespace uq {

// A tile found under a map pixel.
struct PickedTile {
  Id layer;
  CellPos at;
  Cell cell;
};

// Qt's name for the operator of a blend.
QPainter::CompositionMode modeOf(Blend blend);

class MapPainter {
 public:
  explicit MapPainter(SheetPictures pictures) : kit_{TileArt(std::move(pictures)), {}, {}, {}} {}

  const SheetPictures& pictures() const { return kit_.art.pictures(); }
  SheetPictures& pictures() { return kit_.art.pictures(); }

  // Draws what lies in `device` (absolute device pixels) into a picture of that size, transparent where nothing is.
  QImage draw(const Quilt& quilt, const Map& map, const std::vector<Run>& runs, ViewScale scale, const QRect& device,
              const GhostCells* ghost = nullptr);

  // The same laid over what is there, which blended layers need.
  void drawOver(QImage& below, const Quilt& quilt, const Map& map, const std::vector<Run>& runs, ViewScale scale,
                const QRect& device, const GhostCells* ghost = nullptr);

  // The layers of one run, without the run's offset and opacity. The null picture when nothing is there, or when `stop`
  // was set meanwhile.
  QImage drawRun(const Quilt& quilt, const Map& map, const Run& run, ViewScale scale, const QRect& device,
                 const GhostCells* ghost = nullptr, const std::atomic<bool>* stop = nullptr);

  // A run at one pixel for step × step cells, sampled; see sampledColours.
  QImage sample(const Quilt& quilt, const Map& map, const Run& run, CellRect blocks, int step);

  // The map pixels, where the layer's plane is not shifted, in which one layer looks different in two states of a quilt
  // that have the same sheets and the same grid: for each chunk that differs, what the old and the new pictures cover.
  std::vector<PixelRect> changes(const Quilt& before, const Quilt& after, LayerAt at);

  // All tiles with an opaque pixel at a map pixel, among the layers that are not hidden, the topmost first. Chalk and
  // tiles without a picture fill their cell. Cost: the cells within the sheets' largest overhang, times the layers.
  std::vector<PickedTile> tilesAt(const Quilt& quilt, const Map& map, const std::set<Id>& hidden, PixelPos at);
  std::optional<PickedTile> topmostAt(const Quilt& quilt, const Map& map, const std::set<Id>& hidden, PixelPos at);

  // Where a tile on a cell is drawn, where its layer's plane is not shifted, lifted by so many map pixels.
  PixelRect placeOf(const Quilt& quilt, const Map& map, CellPos at, Cell cell, int lift = 0);
  // What a ghost changes on the map: its own pictures, and those in front of it that are drawn faint.
  PixelRect areaOf(const Quilt& quilt, const Map& map, const std::vector<Run>& runs, const GhostCells& ghost);
  // All device pixels on which a tile of a run may be seen, before the run's offset.
  QRect boundsOf(const Quilt& quilt, const Map& map, const Run& run, ViewScale scale);
  // The map with all that reaches beyond its cells, so that nothing is cut: at least the map's pixel bounds. Cost: the
  // chunks of the layers, and a look at the cells near the map's edge.
  PixelRect extentOf(const Quilt& quilt, const Map& map, const std::vector<Run>& runs);

 private:
  void prepare(const Quilt& quilt, const Map& map);
  void drawTiles(QImage& target, const Map& map, const Run& run, ViewScale scale, const QRect& device,
                 const GhostCells* ghost, const std::atomic<bool>* stop);
  QImage sampledBackdrop(const Quilt& quilt, const Map& map, const Backdrop& backdrop, CellRect blocks, int step);
  PixelRect placeOf(const Grid& grid, CellPos at, Cell cell, int lift);

  DrawingKit kit_;
};

}  // namespace uq
