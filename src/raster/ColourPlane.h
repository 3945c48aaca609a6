// ColourPlane: draws a map shown so small that a cell is less than kColoursBelow device pixels.
//
// Each cell is its tile's averaged colour, layer over layer, one pixel a cell; that picture is then averaged over each
// device pixel's exact area. Any part of a drawing has the same pixels as that part of the whole. Cost: about 5 ns
// for a cell and layer, and as much for a device pixel.
#pragma once

#include <atomic>

#include "core/document/Quilt.h"
#include "raster/BackdropArt.h"
#include "raster/CellColours.h"
#include "raster/ChunkReach.h"
#include "raster/GhostCells.h"
#include "raster/ViewScale.h"

namespace uq {

// What drawing keeps between calls.
struct DrawingKit {
  TileArt art;
  ChunkReach reach;
  CellColours colours;
  BackdropArt backdrops{};
};

// True when a map is drawn by colours at this zoom. Only maps of squares are: one cell there is one pixel of a plane.
bool drawsColours(const Grid& grid, ViewScale scale);

// The device pixels that may show anything of what pictures cover in map pixels. Averages take in one pixel more each
// way, and colours whole cells.
QRect deviceTouchedBy(const PixelRect& pixels, const Grid& grid, ViewScale scale);

// Draws `layers`, farthest first, into `target`, whose upper left is absolute device pixel `device`. Stops early, with
// the rest undrawn, once `stop` is set.
void drawColours(QImage& target, const Map& map, const std::vector<const Layer*>& layers,
                 ViewScale scale, const QRect& device, DrawingKit& kit, const GhostCells* ghost,
                 const std::atomic<bool>* stop);

// The same map at one pixel for `step` × `step` cells, each the colour of one cell in their middle: what is shown where
// nothing better is ready. Pixel 0, 0 stands for the block (blocks.x0, blocks.y0). Cost: the blocks times the layers.
QImage sampledColours(const Map& map, const std::vector<const Layer*>& layers, CellRect blocks, int step,
                      DrawingKit& kit);

}  // namespace uq
