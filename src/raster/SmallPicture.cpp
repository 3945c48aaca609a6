#include "raster/SmallPicture.h"

#include <algorithm>

namespace uq {

namespace {

// The map with every n-th cell each way, n × n cells as one.
Map thinned(const Map& map, int n) {
  Map thin = map;
  const CellRect from = map.bounds;
  thin.bounds = {0, 0, ceilDiv(from.width(), n), ceilDiv(from.height(), n)};
  for (Shared<TilesLayer>& layer : thin.layers) {
    const CellGrid cells = layer->cells;
    CellGrid few;
    for (int y = 0; y < thin.bounds.y1; ++y) {
      for (int x = 0; x < thin.bounds.x1; ++x) few.set({x, y}, cells.at({from.x0 + x * n, from.y0 + y * n}));
    }
    layer.edit([&](TilesLayer& one) {
      one.cells = std::move(few);
      one.offset = {one.offset.x / n, one.offset.y / n};
    });
  }
  return thin;
}

}  // namespace

SmallPicture smallPicture(MapPainter& painter, const Quilt& quilt, const Map& map, QSize most, const Seeing& seeing) {
  const PixelRect whole = makeGrid(map.grid)->pixelBounds(map.bounds);
  const double fit =
      std::min(static_cast<double>(most.width()) / whole.w, static_cast<double>(most.height()) / whole.h);
  const int side = std::max({1, most.width(), most.height()});
  const int n = std::max(1, ceilDiv(std::max(map.bounds.width(), map.bounds.height()), side));
  const Map& drawn = n == 1 ? map : thinned(map, n);
  const ViewScale scale{std::clamp(fit * n, kSmallestZoom, 1.0)};
  const QRect device = scale.toDevice(makeGrid(drawn.grid)->pixelBounds(drawn.bounds));
  QImage picture = painter.draw(quilt, drawn, runsOf(drawn, seeing), scale, device);
  if (picture.width() > most.width() || picture.height() > most.height()) {
    picture = picture.scaled(most, Qt::KeepAspectRatio, Qt::SmoothTransformation);
  }
  return {picture, static_cast<double>(picture.width()) / whole.w};
}

SmallPicture smallPicture(MapPainter& painter, const Quilt& quilt, const Map& map, const TilesLayer& layer,
                          QSize most) {
  Map alone = map;
  TilesLayer clear = layer;
  clear.offset = {};
  clear.opacity = 100;
  alone.layers = {Shared(std::move(clear))};
  return smallPicture(painter, quilt, alone, most);
}

}  // namespace uq
