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
#include <string_view>
#include <vector>

#include "core/base/Error.h"
#include "core/grid/CellPos.h"
#include "core/grid/Pixels.h"
#include "core/grid/Turn.h"

namespace uq {

enum class GridKind { orthogonal };

inline constexpr int kSmallestCell = 2;   // pixels, each way
inline constexpr int kLargestCell = 512;  // pixels, each way

struct GridShape {
  GridKind kind = GridKind::orthogonal;
  PixelSize cell{32, 32};
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

  // Steps in a full turn of pictures and arrangements: 4 or 6.
  virtual int turnOrder() const = 0;

  // The one cell that owns map pixel `at`.
  virtual CellPos cellAt(PixelPos at) const = 0;

  // The box around a cell's outline, in map pixels.
  virtual PixelRect cellBox(CellPos cell) const = 0;

  // The corners of a cell's outline in map pixels, clockwise from the upper left one.
  virtual std::vector<PixelPos> outline(CellPos cell) const = 0;

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

  // The cells from `from` to `to`, both included, each touching the one before by side or corner. Depends only on the
  // difference, so moving a line never changes its shape. Cost: its length.
  virtual std::vector<CellPos> line(CellPos from, CellPos to) const = 0;

 protected:
  explicit Grid(const GridShape& shape) : shape_(shape) {}

 private:
  GridShape shape_;
};

// The grid of a shape whose cell is within kSmallestCell and kLargestCell.
std::unique_ptr<const Grid> makeGrid(const GridShape& shape);

// The name a grid kind has in files, and back. A name that this version does not know is an Error.
std::string_view gridName(GridKind kind);
Result<GridKind> gridKindFromName(std::string_view name);

}  // namespace uq
