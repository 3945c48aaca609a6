#include "raster/ColourPlane.h"

#include <algorithm>
#include <cmath>
#include <span>

#include "core/cells/CellReader.h"
#include "raster/NearChunks.h"

namespace uq {

namespace {

constexpr int kBandRows = 128;        // cells: a band of a wide map stays in the processor's cache
// The weights of one pixel sum to this. Down they are coarse, so that sums of rows keep to 16 bits: rows are most work.
constexpr std::uint32_t kOneAcross = 4096;
constexpr std::uint32_t kOneDown = 256;

// What lies under device pixels first .. first + n - 1 along one axis: for each, a stretch of cells and their weights.
struct Shares {
  struct Share {
    int from = 0;
    int count = 0;
    std::size_t weight = 0;  // where its weights begin
  };
  std::vector<Share> pixels;
  std::vector<std::uint32_t> weights;

  // `size` is the device pixels of a cell. Depends on absolute positions only.
  Shares(int first, int n, double size, std::uint32_t one) {
    pixels.reserve(static_cast<std::size_t>(n));
    for (int i = first; i < first + n; ++i) {
      const double left = i / size;
      const double right = (i + 1) / size;
      Share share{static_cast<int>(std::floor(left)), 0, weights.size()};
      share.count = std::max(1, static_cast<int>(std::ceil(right)) - share.from);
      std::uint32_t sum = 0;
      for (int c = share.from; c < share.from + share.count; ++c) {
        const double overlap = std::max(0.0, std::min(right, c + 1.0) - std::max(left, double(c)));
        weights.push_back(static_cast<std::uint32_t>(std::lround(overlap / (right - left) * one)));
        sum += weights.back();
      }
      const auto widest = std::max_element(weights.begin() + static_cast<std::ptrdiff_t>(share.weight), weights.end());
      *widest += one - sum;
      pixels.push_back(share);
    }
  }
  int begin() const { return pixels.front().from; }
  int end() const { return pixels.back().from + pixels.back().count; }
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
    const NearChunks near(layer, map_.bounds, grid_.pixelBounds(plane.rect), farthest_, kit_.reach, kit_.art,
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
  void paintRow(Plane& plane, const NearChunks::Near& near, int y) {
    const CellRect all = near.chunk.at.cells();
    const bool inside = y >= plane.rect.y0 && y < plane.rect.y1;
    QRgb* row = inside ? plane.row(y) - plane.rect.x0 : nullptr;
    std::span<const QRgb> known;  // of the last cell's slot
    std::uint32_t slot = ~0u;
    for (int x = near.cells.x0; x < near.cells.x1; ++x) {
      const Cell cell = near.chunk.cell(x - all.x0, y - all.y0);
      if (cell.empty()) continue;
      const TileRef tile = cell.tile();
      if (tile.slot != slot) known = kit_.colours.known(slot = tile.slot);
      QRgb colour = tile.number < known.size() ? known[tile.number] : CellColours::kUnknown;
      if (colour == CellColours::kUnknown) {
        colour = kit_.colours.of(cell, kit_.art, grid_);
        known = kit_.colours.known(slot);
      }
      if (colour == CellColours::kPatched) {
        paintCell(plane, {x, y}, cell, 255);
      } else if (inside && x >= plane.rect.x0 && x < plane.rect.x1) {
        row[x] = qAlpha(colour) == 255 ? colour : over(colour, row[x]);
      }
    }
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

// One row of device pixels: the rows of cells under it summed up, then the cells under each pixel.
void averageRow(QRgb* target, Plane& plane, const Shares& across, const Shares& down, const Shares::Share& share,
                std::vector<std::uint16_t>& sums) {
  const auto width = static_cast<std::size_t>(plane.rect.width());
  sums.assign(width * 4, 0);
  for (int i = 0; i < share.count; ++i) {
    const auto weight = static_cast<std::uint16_t>(down.weights[share.weight + static_cast<std::size_t>(i)]);
    // Channel by channel as they lie, blue first, which compilers make wide steps of. 255 × 256 is the most.
    const auto* channels = reinterpret_cast<const std::uint8_t*>(plane.row(share.from + i));
    std::uint16_t* sum = sums.data();
    for (std::size_t c = 0; c < width * 4; ++c) sum[c] = static_cast<std::uint16_t>(sum[c] + weight * channels[c]);
  }
  for (const Shares::Share& pixel : across.pixels) {
    std::uint32_t channels[4] = {};
    for (int i = 0; i < pixel.count; ++i) {
      const std::uint32_t weight = across.weights[pixel.weight + static_cast<std::size_t>(i)];
      const std::uint16_t* sum = &sums[4 * static_cast<std::size_t>(pixel.from - plane.rect.x0 + i)];
      for (int c = 0; c < 4; ++c) channels[c] += weight * (sum[c] >> 4);
    }
    // Sums of 8 + 8 - 4 + 12 bits; half is added so that white stays white.
    const auto channel = [&](int c) { return (channels[c] + (1u << 15)) >> 16; };
    *target++ = channel(3) << 24 | channel(2) << 16 | channel(1) << 8 | channel(0);
  }
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

void drawColours(QImage& target, const Map& map, const std::vector<const Layer*>& layers,
                 ViewScale scale, const QRect& device, DrawingKit& kit, const GhostCells* ghost,
                 const std::atomic<bool>* stop) {
  const auto grid = makeGrid(map.grid);
  const PixelSize cell = map.grid.cell;
  const Shares across(device.x(), device.width(), cell.w * scale.zoom, kOneAcross);
  const Shares down(device.y(), device.height(), cell.h * scale.zoom, kOneDown);
  PlanePainter painter(map, *grid, kit, ghost);
  std::vector<std::uint16_t> sums;
  Plane plane;
  for (std::size_t y = 0; y < down.pixels.size();) {
    if (stop && stop->load(std::memory_order_relaxed)) return;
    std::size_t end = y;
    const int top = down.pixels[y].from;
    while (end < down.pixels.size() && down.pixels[end].from + down.pixels[end].count <= top + kBandRows) ++end;
    end = std::max(end, y + 1);
    const Shares::Share& last = down.pixels[end - 1];
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
  QImage picture(blocks.width(), blocks.height(), QImage::Format_ARGB32_Premultiplied);
  picture.fill(Qt::transparent);
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
