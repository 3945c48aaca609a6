#include "raster/ColourPlane.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <span>

#include "core/cells/CellReader.h"
#include "raster/BlankPicture.h"
#include "raster/NearChunks.h"

namespace uq {

namespace {

constexpr int kBandRows = 128;       // cells: a band of a wide map stays in the processor's cache
constexpr std::uint32_t kOne = 256;  // what the weights of a pixel's rows sum up to: so sums of rows keep to 16 bits

// The rows of cells that lie under device pixels first .. first + n - 1: for each, from which on, and their weights.
struct Rows {
  struct Share {
    int from = 0;
    int count = 0;
    std::size_t weight = 0;  // where its weights begin
  };
  std::vector<Share> pixels;
  std::vector<std::uint32_t> weights;

  // `size` is the device pixels of a cell. Depends on absolute positions only.
  Rows(int first, int n, double size) {
    pixels.reserve(static_cast<std::size_t>(n));
    for (int i = first; i < first + n; ++i) {
      const double top = i / size;
      const double bottom = (i + 1) / size;
      Share share{static_cast<int>(std::floor(top)), 0, weights.size()};
      share.count = std::max(1, static_cast<int>(std::ceil(bottom)) - share.from);
      std::uint32_t sum = 0;
      for (int c = share.from; c < share.from + share.count; ++c) {
        const double overlap = std::max(0.0, std::min(bottom, c + 1.0) - std::max(top, double(c)));
        weights.push_back(static_cast<std::uint32_t>(std::lround(overlap / (bottom - top) * kOne)));
        sum += weights.back();
      }
      const auto largest = std::max_element(weights.begin() + static_cast<std::ptrdiff_t>(share.weight), weights.end());
      *largest += kOne - sum;
      pixels.push_back(share);
    }
  }
};

// Where pixels first .. first + n begin and the last one ends, in cells: the column, and how far into it.
struct Edges {
  struct Edge {
    int column = 0;
    float inside = 0;  // 0 up to 1
  };
  std::vector<Edge> edges;
  float each;  // pixels a cell

  Edges(int first, int n, double size) : each(static_cast<float>(size)) {
    edges.reserve(static_cast<std::size_t>(n) + 1);
    for (int i = first; i <= first + n; ++i) {
      const double at = i / size;
      edges.push_back({static_cast<int>(std::floor(at)), static_cast<float>(at - std::floor(at))});
    }
  }
  int begin() const { return edges.front().column; }
  int end() const { return edges.back().column + (edges.back().inside > 0 ? 1 : 0); }
};

// One pixel a cell of the cells in `rect`.
struct Plane {
  CellRect rect;
  std::vector<QRgb> pixels;

  QRgb* row(int y) {
    return pixels.data() + static_cast<std::size_t>(y - rect.y0) * static_cast<std::size_t>(rect.width());
  }
  void lay(CellPos at, QRgb colour) {
    if (!rect.contains(at)) return;
    QRgb& below = row(at.y)[at.x - rect.x0];
    below = over(colour, below);
  }
};

class PlanePainter {
 public:
  PlanePainter(const Map& map, const Grid& grid, DrawingKit& kit, const GhostCells* ghost)
      : map_(map), grid_(grid), kit_(kit), ghost_(ghost), farthest_(ChunkReach::farthest(kit.art, grid)) {}

  // False when nothing of the layer lies in the plane.
  bool paint(Plane& plane, const Layer& layer) {
    const NearChunks near(layer, map_.bounds, grid_.pixelBounds(plane.rect), farthest_, kit_.reach, kit_.art, grid_);
    const CellRect cells = near.cells();
    for (int y = cells.y0; y < cells.y1; ++y) {
      for (int x = cells.x0; x < cells.x1;) {
        const NearChunks::Near& one = near.of({x, y});
        const int end = one.chunk.at.cells().x1;
        if (!one.cells.empty() && y >= one.cells.y0 && y < one.cells.y1) paintRow(plane, one, y);
        x = end;
      }
    }
    if (!ghost_ || ghost_->layer != layer.id) return !cells.empty();
    for (const auto& [at, cell, lift] : ghost_->cells) paintCell(plane, at, cell, kGhostOpacity);
    return true;
  }

 private:
  void paintRow(Plane& plane, const NearChunks::Near& near, int y) {
    const CellRect all = near.chunk.at.cells();
    const auto cells = near.chunk.row(y - all.y0);
    // Known colours of the plane's own cells are most of the work; anything else is done cell by cell.
    const bool inside = y >= plane.rect.y0 && y < plane.rect.y1;
    const int from = std::max(near.cells.x0, plane.rect.x0);
    const int to = inside ? std::min(near.cells.x1, plane.rect.x1) : from;
    for (int x = near.cells.x0; x < std::min(from, near.cells.x1); ++x)
      paintCell(plane, {x, y}, cells[at(x, all)], 255);
    std::uint32_t slot = ~0u;
    std::span<const QRgb> known;  // of the last cell's slot
    const Cell* cell = cells.data() + (from - all.x0);
    QRgb* pixel = to > from ? plane.row(y) + (from - plane.rect.x0) : nullptr;
    for (int x = from; x < to; ++x, ++cell, ++pixel) {
      if (cell->empty()) continue;
      const TileRef tile = cell->tile();
      if (tile.slot != slot) known = kit_.colours.known(slot = tile.slot);
      const QRgb colour = tile.number < known.size() ? known[tile.number] : CellColours::kUnknown;
      if (qAlpha(colour) == 255) {
        *pixel = colour;
      } else if (colour != CellColours::kUnknown && colour != CellColours::kPatched) {
        *pixel = over(colour, *pixel);
      } else {
        paintCell(plane, {x, y}, *cell, 255);
        known = kit_.colours.known(slot);
      }
    }
    for (int x = std::max(to, near.cells.x0); x < near.cells.x1; ++x) paintCell(plane, {x, y}, cells[at(x, all)], 255);
  }
  static std::size_t at(int x, CellRect chunk) { return static_cast<std::size_t>(x - chunk.x0); }

  void paintCell(Plane& plane, CellPos at, Cell cell, unsigned opacity) {
    if (cell.empty()) return;
    const QRgb colour = kit_.colours.of(cell, kit_.art, grid_);
    if (colour != CellColours::kPatched) {
      plane.lay(at, scaledBy(colour, opacity));
      return;
    }
    for (const CellColours::Patch& patch : kit_.colours.patches(cell, kit_.art, grid_)) {
      plane.lay({at.x + patch.at.x, at.y + patch.at.y}, scaledBy(patch.colour, opacity));
    }
  }

  const Map& map_;
  const Grid& grid_;
  DrawingKit& kit_;
  const GhostCells* ghost_;
  Reach farthest_;
};

// The four channels of a pixel in one register, by the compilers' extension.
using Words = std::uint16_t __attribute__((vector_size(16)));
using Counts = std::uint32_t __attribute__((vector_size(16)));
using Ints = std::int32_t __attribute__((vector_size(16)));
using Floats = float __attribute__((vector_size(16)));

struct Sums {
  std::vector<std::uint16_t> rows;     // by cell and channel: the rows under a pixel, up to 255 × kOne
  std::vector<std::uint32_t> columns;  // by cell and channel: all cells before it, modulo 2^32
  std::vector<std::int32_t> pixels;    // by pixel and channel
};

// One row of device pixels: the rows of cells under it are summed up, then all cells from left to right. Of two edges
// of a pixel that tells what lies between them.
__attribute__((noinline)) void averageRow(QRgb* target, Plane& plane, const Edges& across, const Rows& down,
                                          const Rows::Share& share, Sums& sums) {
  const auto width = static_cast<std::size_t>(plane.rect.width());
  sums.rows.assign((width + 1) * 4, 0);
  for (int i = 0; i < share.count; ++i) {
    const auto weight = static_cast<std::uint16_t>(down.weights[share.weight + static_cast<std::size_t>(i)]);
    // Channel by channel as they lie, blue first, which compilers make wide steps of. 255 × 256 is the most.
    const auto* channels = reinterpret_cast<const std::uint8_t*>(plane.row(share.from + i));
    std::uint16_t* sum = sums.rows.data();
    for (std::size_t c = 0; c < width * 4; ++c) sum[c] = static_cast<std::uint16_t>(sum[c] + weight * channels[c]);
  }

  sums.columns.resize((width + 2) * 4);
  Counts all{};
  std::uint32_t* column = sums.columns.data();
  for (std::size_t x = 0; x <= width; ++x, column += 4) {
    std::memcpy(column, &all, sizeof all);
    Words two{};  // the next cell's, too, since that loads faster
    if (x < width) std::memcpy(&two, &sums.rows[4 * x], sizeof two);
    all += reinterpret_cast<Counts>(__builtin_shuffle(two, Words{}, Words{0, 8, 1, 9, 2, 10, 3, 11}));
  }
  std::memcpy(column, &all, sizeof all);

  const auto before = [&](const Edges::Edge& edge) {
    const std::uint32_t* at = &sums.columns[4 * static_cast<std::size_t>(edge.column - plane.rect.x0)];
    Counts here;
    Counts next;
    std::memcpy(&here, at, sizeof here);
    std::memcpy(&next, at + 4, sizeof next);
    const Floats part = __builtin_convertvector(reinterpret_cast<Ints>(next - here), Floats) * edge.inside;
    return here + reinterpret_cast<Counts>(__builtin_convertvector(part, Ints));
  };
  const auto n = across.edges.size() - 1;
  sums.pixels.resize(n * 4);
  const float scale = across.each / kOne;
  Counts left = before(across.edges.front());
  for (std::size_t i = 0; i < n; ++i) {
    const Counts right = before(across.edges[i + 1]);
    const Floats mean = __builtin_convertvector(reinterpret_cast<Ints>(right - left), Floats) * scale + 0.5f;
    Ints rounded = __builtin_convertvector(mean, Ints);
    // No channel above its alpha, whatever was rounded.
    const Ints alpha = __builtin_shuffle(rounded, Ints{3, 3, 3, 3});
    rounded = rounded > alpha ? alpha : rounded;
    std::memcpy(&sums.pixels[4 * i], &rounded, sizeof rounded);
    left = right;
  }
  auto* bytes = reinterpret_cast<std::uint8_t*>(target);
  const std::int32_t* channel = sums.pixels.data();
  for (std::size_t c = 0; c < n * 4; ++c) bytes[c] = static_cast<std::uint8_t>(channel[c]);
}

}  // namespace

bool drawsColours(const Grid& grid, ViewScale scale) {
  if (grid.shape().kind != GridKind::orthogonal) return false;
  const PixelSize cell = grid.shape().cell;
  return std::min(cell.w, cell.h) * scale.zoom < kColoursBelow;
}

QRect deviceTouchedBy(const PixelRect& pixels, const Grid& grid, ViewScale scale) {
  const PixelRect whole = drawsColours(grid, scale) ? grid.pixelBounds(grid.cellsMeeting(pixels)) : pixels;
  return scale.toDevice(whole).adjusted(-1, -1, 1, 1);
}

void drawColours(QImage& target, const Map& map, const std::vector<const Layer*>& layers, ViewScale scale,
                 const QRect& device, DrawingKit& kit, const GhostCells* ghost, const std::atomic<bool>* stop) {
  const auto grid = makeGrid(map.grid);
  const PixelSize cell = map.grid.cell;
  const Edges across(device.x(), device.width(), cell.w * scale.zoom);
  const Rows down(device.y(), device.height(), cell.h * scale.zoom);
  PlanePainter painter(map, *grid, kit, ghost);
  Sums sums;
  Plane plane;
  for (std::size_t y = 0; y < down.pixels.size();) {
    if (stop && stop->load(std::memory_order_relaxed)) return;
    std::size_t end = y;
    const int top = down.pixels[y].from;
    while (end < down.pixels.size() && down.pixels[end].from + down.pixels[end].count <= top + kBandRows) ++end;
    end = std::max(end, y + 1);
    const Rows::Share& last = down.pixels[end - 1];
    plane.rect = {across.begin(), top, across.end(), last.from + last.count};
    plane.pixels.assign(static_cast<std::size_t>(plane.rect.width()) * static_cast<std::size_t>(plane.rect.height()),
                        0);
    bool painted = false;
    for (const Layer* layer : layers) painted = painter.paint(plane, *layer) || painted;
    for (std::size_t row = y; painted && row < end; ++row) {
      averageRow(reinterpret_cast<QRgb*>(target.scanLine(static_cast<int>(row))), plane, across, down, down.pixels[row],
                 sums);
    }
    y = end;
  }
}

QImage sampledColours(const Map& map, const std::vector<const Layer*>& layers, CellRect blocks, int step,
                      DrawingKit& kit) {
  QImage picture = blankPicture({blocks.width(), blocks.height()});
  const auto grid = makeGrid(map.grid);
  const auto colourOf = [&](Cell cell) {
    const QRgb colour = kit.colours.of(cell, kit.art, *grid);
    if (colour != CellColours::kPatched) return colour;
    for (const CellColours::Patch& patch : kit.colours.patches(cell, kit.art, *grid)) {
      if (patch.at == CellPos{0, 0}) return patch.colour;
    }
    return QRgb{0};
  };
  // The nearest layer first, down to the first that hides what lies below.
  std::vector<CellReader> readers;
  for (auto nearest = layers.rbegin(); nearest != layers.rend(); ++nearest) readers.emplace_back((*nearest)->cells);
  for (int y = blocks.y0; y < blocks.y1; ++y) {
    auto* row = reinterpret_cast<QRgb*>(picture.scanLine(y - blocks.y0));
    for (int x = blocks.x0; x < blocks.x1; ++x, ++row) {
      const CellPos at{x * step + step / 2, y * step + step / 2};
      if (!map.bounds.contains(at)) continue;
      for (auto reader = readers.begin(); reader != readers.end() && qAlpha(*row) < 255; ++reader) {
        if (const Cell cell = reader->at(at); !cell.empty()) *row = over(*row, colourOf(cell));
      }
    }
  }
  return picture;
}

}  // namespace uq
