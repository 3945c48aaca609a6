// Grid: the cell geometry of a map.
//
// Tools, drawing and files ask a Grid; nothing outside core/grid knows a formula. A GridShape is the saved value, a
// Grid the object that computes with it; making one costs an allocation, every call is constant time unless it says
// otherwise.
//
// Cells are stored as columns and rows (CellPos). Shapes that move — blocks, the clipboard — are kept in side
// coordinates (SidePos), in which neighbours are constant vectors, so that they never shear on grids with shifted rows.
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Error.h"
#include "core/grid/CellPos.h"
#include "core/grid/Pixels.h"
#include "core/grid/Turn.h"

namespace uq {

enum class GridKind { orthogonal, diamond, staggered, hexagonalPointy, hexagonalFlat };
inline constexpr GridKind kGridKinds[] = {GridKind::orthogonal, GridKind::diamond, GridKind::staggered,
                                          GridKind::hexagonalPointy, GridKind::hexagonalFlat};

inline constexpr int kSmallestCell = 2;   // pixels, each way
inline constexpr int kLargestCell = 512;  // pixels, each way

// On slanted and hexagonal grids the cell is the box around a diamond or hexagon. The rows of staggered and pointy
// hexagonal grids are shifted by half a cell where (row & 1) != firstShift, the columns of flat ones likewise.
struct GridShape {
  GridKind kind = GridKind::orthogonal;
  PixelSize cell{32, 32};
  int side = 0;             // of hexagons: the length in pixels of the upright (pointy) or level (flat) sides; else 0
  bool firstShift = false;  // only where rows or columns are shifted
  bool plan = false;        // diamonds seen from above, as squares (PlanGrid); never saved
  friend constexpr bool operator==(const GridShape&, const GridShape&) = default;
};

// Cells that follow one another in the draw order at constant steps.
struct DrawRow {
  CellPos first;
  int dx = 1;
  int dy = 0;
  int count = 0;

  CellPos at(int i) const { return {first.x + dx * i, first.y + dy * i}; }
};

class Grid {
 public:
  virtual ~Grid() = default;

  const GridShape& shape() const { return shape_; }

  // Steps in a full turn of pictures and arrangements, and sides of a cell: 4 or 6.
  virtual int turnOrder() const = 0;

  // The one cell that owns map pixel `at`.
  virtual CellPos cellAt(PixelPos at) const = 0;

  // The box around a cell's outline, in map pixels.
  virtual PixelRect cellBox(CellPos cell) const = 0;

  // The corners of a cell's outline in map pixels, clockwise from the upper left or the topmost one.
  virtual std::vector<PixelPos> outline(CellPos cell) const = 0;

  // The cell beyond side `side` of a cell, which runs from corner `side` of its outline to the next one;
  // 0 .. outline().size() - 1. Which cell that is depends on x and y only by whether they are odd.
  virtual CellPos across(CellPos cell, int side) const = 0;

  // The cells that meet at corner `corner` of a cell's outline, the cell itself first, then clockwise around the corner:
  // four of four-sided cells, three of hexagons.
  std::vector<CellPos> aroundCorner(CellPos cell, int corner) const;
  // Of four-sided cells the one that touches a cell at that corner only; of hexagons there is none.
  std::optional<CellPos> acrossCorner(CellPos cell, int corner) const;

  // The cell that an arrow key leads to: dx, dy is one of (±1, 0), (0, ±1). On diamonds the keys go along the grid.
  virtual CellPos stepped(CellPos cell, int dx, int dy) const { return {cell.x + dx, cell.y + dy}; }

  // The outline of a rectangle of cells in map pixels, clockwise.
  virtual std::vector<PixelPos> perimeter(CellRect cells) const = 0;

  // How cells lie on average: cell (x, y) near origin + x * column + y * row, in map pixels. Exact on squares and
  // diamonds; for drawing many cells as one picture.
  struct Lattice {
    double originX, originY, columnX, columnY, rowX, rowY;
  };
  virtual Lattice lattice() const = 0;

  // The map pixels that the cells of `cells` cover.
  virtual PixelRect pixelBounds(CellRect cells) const = 0;

  // The smallest rectangle of cells that holds every cell whose box meets `pixels`.
  virtual CellRect cellsMeeting(PixelRect pixels) const = 0;

  // Where a picture of `size` map pixels stands when it lies on `cell`: its rectangle in map pixels.
  virtual PixelRect seat(CellPos cell, PixelSize size) const = 0;

  // Calls `draw` for each cell of `cells` in the order in which one layer is drawn, farthest first, row by row.
  virtual void inDrawOrder(CellRect cells, const std::function<void(const DrawRow&)>& draw) const = 0;

  virtual SidePos toSide(CellPos cell) const = 0;
  virtual CellPos fromSide(SidePos side) const = 0;

  // Where an offset from the grip goes when the arrangement is turned about the grip.
  virtual SidePos turned(SidePos offset, Turn turn) const = 0;

  // The turn that comes nearest to `turn` and in which a picture can be drawn exactly. Pictures of slanted cells can only
  // be mirrored across, those of hexagons also turned by half.
  virtual Turn pictureTurn(Turn turn) const = 0;
  // The same with its steps counted in quarters, as pictures are turned.
  Turn drawnTurn(Turn turn) const {
    const Turn exact = pictureTurn(turn);
    return {exact.mirror, static_cast<std::uint8_t>(turnOrder() == 6 ? exact.steps * 2 / 3 : exact.steps)};
  }

  // The cells from `from` to `to`, both included, each touching the one before by side or corner. Depends only on the
  // difference, so moving a line never changes its shape. Cost: its length.
  virtual std::vector<CellPos> line(CellPos from, CellPos to) const = 0;
  // The same through sides only. On hexagons there is no other way.
  virtual std::vector<CellPos> sideLine(CellPos from, CellPos to) const;

 protected:
  explicit Grid(const GridShape& shape) : shape_(shape) {}

 private:
  GridShape shape_;
};

// Whether an arrangement of cells made on one grid keeps its shape on the other: squares with squares, diamonds with
// staggered diamonds, hexagons with those that point the same way.
bool areOfOneFamily(GridKind a, GridKind b);

// What people call the cells of a grid: "squares".
std::string_view cellsCalled(GridKind kind);

// Why there is no such grid, in words; empty when there is. Cells are 2 to 512 pixels; diamonds are even both ways;
// hexagons are even across their shift, and what the side leaves of the other measure is even and not nothing.
std::string whyNoGrid(const GridShape& shape);

// The shape of that kind that comes nearest to cells of `cell` pixels.
GridShape nearestShape(GridKind kind, PixelSize cell);

// Shapes of that kind that suit tiles of `tile` pixels, the likeliest first, each with the reason in words: the tile's own
// size, or the nearest to it that can be; half as high as wide where tiles stand up from slanted cells; hexagons whose
// six sides have nearly one length. No shape twice.
struct ShapeOffer {
  GridShape shape;
  std::string reason;
};
std::vector<ShapeOffer> offeredShapes(GridKind kind, PixelSize tile);

// The grid of a shape for which whyNoGrid has nothing to say.
std::unique_ptr<const Grid> makeGrid(const GridShape& shape);

// The name a grid kind has in files, and back. A name that this version does not know is an Error.
std::string_view gridName(GridKind kind);
Result<GridKind> gridKindFromName(std::string_view name);

}  // namespace uq
