// BoardPicture: several maps in one picture: all pieces as they lie on the Board, or a map with what is sewn to it.
//
// Each map is drawn as its own picture would be, with all that reaches beyond its cells, at its place. Cost: the pixels of
// the maps. Threads: any, one at a time.
#pragma once

#include <string>
#include <vector>

#include "core/edit/Board.h"
#include "core/edit/SewnMaps.h"
#include "raster/MapPainter.h"

namespace uq {

// A map at a place, in map pixels.
struct PlacedMap {
  Id map;
  PixelPos at;  // of its map pixel 0, 0
};

// All maps on the Board; chalk pieces are none.
std::vector<PlacedMap> placedOnBoard(const Quilt& quilt);
// A map at 0, 0 and those that are reached over at most so many seams, where it wraps itself again, too; it lies on top.
std::vector<PlacedMap> placedAround(const Quilt& quilt, Id map, int seams);

// The device pixels that they cover, names above them included where `named`.
QRect deviceExtent(MapPainter& painter, const Quilt& quilt, const std::vector<PlacedMap>& maps, ViewScale scale, bool named);

// The device pixels of the whole Board, with room around.
QRect boardExtent(MapPainter& painter, const Quilt& quilt, ViewScale scale);

// The maps in one picture, later ones on earlier ones; transparent where none lies.
QImage drawTogether(MapPainter& painter, const Quilt& quilt, const std::vector<PlacedMap>& maps, ViewScale scale,
                    const QRect& part);

// The Board: cloth, pieces, stitches, names, the cords of all ways with numbered buttons, and chalk pieces in dashes.
QImage boardPicture(MapPainter& painter, const Quilt& quilt, ViewScale scale);
// The same as a drawing (SVG) that holds a picture of each piece, and says stitches and names as lines and text.
std::string boardDrawing(MapPainter& painter, const Quilt& quilt, ViewScale scale);

}  // namespace uq
