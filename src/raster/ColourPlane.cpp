#include "raster/ColourPlane.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>
#include <span>

#include "core/cells/CellReader.h"
#include "raster/BlankPicture.h"
#include "raster/NearChunks.h"

namespace uq {

namespace {

constexpr int kBandRows = 128;       // cells: a band of a wide map stays in the processor's cache
constexpr int kNarrow = 3;           // a margin of less than a third of the plane
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
    const PixelRect pixels = grid_.pixelBounds(plane.rect);
    const NearChunks near(layer, map_.bounds, pixels, farthest_, isNarrow(pixels) ? nullptr : &kit_.reach, kit_.art,
                          grid_);
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
  // The colours of a layer's tiles in turn; neighbours are mostly of one sheet.
  class Known {
   public:
    explicit Known(const CellColours& colours) : colours_(colours) {}
    QRgb of(Cell cell) {
      const TileRef tile = cell.tile();
      if (tile.slot != slot_) known_ = colours_.known(slot_ = tile.slot);
      return tile.number < known_.size() ? known_[tile.number] : CellColours::kUnknown;
    }
    void learnt() { slot_ = ~0u; }  // another colour was found
    static bool isFlat(QRgb colour) { return colour != CellColours::kUnknown && colour != CellColours::kPatched; }

   private:
    const CellColours& colours_;
    std::uint32_t slot_ = ~0u;
    std::span<const QRgb> known_;
  };

  // A row of cells of a chunk, by map column.
  struct CellRow {
    std::array<Cell, kChunkSide> cells;
    int x0;
    int y;
    Cell at(int x) const { return cells[static_cast<std::size_t>(x - x0)]; }
  };

  void paintRow(Plane& plane, const NearChunks::Near& near, int y) {
    const CellRect all = near.chunk.at.cells();
    const CellRow row{near.chunk.row(y - all.y0), all.x0, y};
    const bool inside = y >= plane.rect.y0 && y < plane.rect.y1;
    const int from = std::clamp(plane.rect.x0, near.cells.x0, near.cells.x1);
    const int to = inside ? std::clamp(plane.rect.x1, from, near.cells.x1) : from;
    Known known(kit_.colours);
    paintBeyond(plane, row, near.cells.x0, from, known);
    QRgb* pixel = to > from ? plane.row(y) + (from - plane.rect.x0) : nullptr;
    for (int x = from; x < to; ++x, ++pixel) {
      const Cell cell = row.at(x);
      if (cell.empty()) continue;
      const QRgb colour = known.of(cell);
      if (qAlpha(colour) == 255) {
        *pixel = colour;
      } else if (Known::isFlat(colour)) {
        *pixel = over(colour, *pixel);
      } else {
        paintCell(plane, {x, y}, cell, 255);
        known.learnt();
      }
    }
    paintBeyond(plane, row, to, near.cells.x1, known);
  }
  // Cells outside the plane: only what covers more than its cell reaches it.
  void paintBeyond(Plane& plane, const CellRow& row, int from, int to, Known& known) {
    for (int x = from; x < to; ++x) {
      const Cell cell = row.at(x);
      if (cell.empty() || Known::isFlat(known.of(cell))) continue;
      paintCell(plane, {x, row.y}, cell, 255);
      known.learnt();
    }
  }
  // True where all that the farthest reach adds to the plane is little.
  bool isNarrow(const PixelRect& plane) const {
    const PixelRect all = farthest_.around(plane);
    return (std::int64_t{all.w} * all.h - std::int64_t{plane.w} * plane.h) * kNarrow < std::int64_t{plane.w} * plane.h;
  }

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
  std::vector<std::uint16_t> rows;   // by cell and channel: the rows under a pixel, up to 255 × kOne
  std::vector<std::int32_t> pixels;  // by pixel and channel
};

#if defined(__x86_64__) && !defined(__SANITIZE_ADDRESS__)
#define UQ_WIDE_STEPS __attribute__((target_clones("avx2", "default")))
#else
#define UQ_WIDE_STEPS  // a sanitizer is not yet there when the loader chooses
#endif

// Adds a row of cells to the sums, or begins them with it, channel by channel as they lie. 255 × 256 is the most.
UQ_WIDE_STEPS void beginSums(std::uint16_t* sums, const std::uint8_t* channels, std::size_t n, std::uint16_t weight) {
  for (std::size_t c = 0; c < n; ++c) sums[c] = static_cast<std::uint16_t>(weight * channels[c]);
}
UQ_WIDE_STEPS void addToSums(std::uint16_t* sums, const std::uint8_t* channels, std::size_t n, std::uint16_t weight) {
  for (std::size_t c = 0; c < n; ++c) sums[c] = static_cast<std::uint16_t>(sums[c] + weight * channels[c]);
}

// One row of device pixels: the rows of cells under it are summed up, then for each pixel the cells across it, those at
// its edges by what lies inside.
__attribute__((noinline)) void averageRow(QRgb* target, Plane& plane, const Edges& across, const Rows& down,
                                          const Rows::Share& share, Sums& sums) {
  const auto width = static_cast<std::size_t>(plane.rect.width());
  sums.rows.resize((width + 2) * 4);
  std::fill_n(sums.rows.begin() + static_cast<std::ptrdiff_t>(width * 4), 8, std::uint16_t{0});  // beyond the last edge
  for (int i = 0; i < share.count; ++i) {
    const auto weight = static_cast<std::uint16_t>(down.weights[share.weight + static_cast<std::size_t>(i)]);
    const auto* channels = reinterpret_cast<const std::uint8_t*>(plane.row(share.from + i));
    (i == 0 ? beginSums : addToSums)(sums.rows.data(), channels, width * 4, weight);
  }

  const std::uint16_t* first = sums.rows.data();
  const auto cell = [&](int column) {
    Words two;  // the next cell's, too, since that loads faster
    std::memcpy(&two, first + 4 * static_cast<std::size_t>(column - plane.rect.x0), sizeof two);
    return reinterpret_cast<Counts>(__builtin_shufflevector(two, Words{}, 0, 8, 1, 9, 2, 10, 3, 11));
  };
  const auto before = [&](const Edges::Edge& edge) {  // what of an edge's cell lies to the left
    const Floats part = __builtin_convertvector(reinterpret_cast<Ints>(cell(edge.column)), Floats) * edge.inside;
    return reinterpret_cast<Counts>(__builtin_convertvector(part, Ints));
  };
  const auto n = across.edges.size() - 1;
  sums.pixels.resize(n * 4);
  const float scale = across.each / kOne;
  int column = across.edges.front().column;
  Counts left = before(across.edges.front());
  for (std::size_t i = 0; i < n; ++i) {
    Counts sum = -left;
    for (; column < across.edges[i + 1].column; ++column) sum += cell(column);
    left = before(across.edges[i + 1]);
    sum += left;
    const Floats mean = __builtin_convertvector(reinterpret_cast<Ints>(sum), Floats) * scale + 0.5f;
    Ints rounded = __builtin_convertvector(mean, Ints);
    // No channel above its alpha, whatever was rounded.
    const Ints alpha = __builtin_shufflevector(rounded, rounded, 3, 3, 3, 3);
    rounded = rounded > alpha ? alpha : rounded;
    std::memcpy(&sums.pixels[4 * i], &rounded, sizeof rounded);
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
