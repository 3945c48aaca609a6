#include "raster/MapPainter.h"

#include <QPainter>
#include <algorithm>

namespace uq {

namespace {

constexpr std::size_t kMostScaledTiles = 20'000;
constexpr double kGhostOpacity = 0.8;

// A tile without a picture: a hatched box with its number, readable on any art.
QImage placeholder(QSize size, Cell cell) {
  QImage picture(size, QImage::Format_ARGB32_Premultiplied);
  picture.fill(QColor(230, 220, 200, 170));
  QPainter painter(&picture);
  painter.fillRect(picture.rect(), QBrush(QColor(58, 66, 86, 90), Qt::BDiagPattern));
  painter.setPen(QColor(27, 32, 48));
  painter.drawRect(picture.rect().adjusted(0, 0, -1, -1));
  if (size.width() >= 16 && size.height() >= 12) {
    QFont font = painter.font();
    font.setPixelSize(std::clamp(size.height() / 3, 8, 24));
    painter.setFont(font);
    painter.drawText(picture.rect(), Qt::AlignCenter, QString::number(cell.tile().number));
  }
  return picture;
}

PixelSize turnedSize(PixelSize size, Turn turn) { return turn.steps % 2 == 1 ? PixelSize{size.h, size.w} : size; }

PixelRect grownBy(PixelRect rect, PixelSize margin) {
  return {rect.x - margin.w, rect.y - margin.h, rect.w + 2 * margin.w, rect.h + 2 * margin.h};
}

}  // namespace

PixelSize drawnSize(const Quilt& quilt, const Map& map, Cell cell) {
  const Sheet* sheet = quilt.sheetAt(cell.tile().slot);
  const auto place = sheet ? sheet->place(cell.tile().number) : std::nullopt;
  return turnedSize(place ? PixelSize{place->w, place->h} : map.grid.cell, cell.turn());
}

PixelSize overhang(const Quilt& quilt, const Map& map) {
  int largest = 0;
  for (const auto& sheet : quilt.sheets()) largest = std::max({largest, sheet->cut.cell.w, sheet->cut.cell.h});
  return {std::max(0, largest - map.grid.cell.w), std::max(0, largest - map.grid.cell.h)};
}

const QImage& MapPainter::scaled(const Quilt& quilt, Cell cell, QSize size) {
  const Key key{cell.bits(), size.width(), size.height()};
  if (const auto found = scaled_.find(key); found != scaled_.end()) return found->second;
  if (scaled_.size() >= kMostScaledTiles) scaled_.clear();
  QImage picture;
  if (auto pixels = pictures_.turned(quilt, cell)) {
    const bool larger = size.width() > pixels->width() || size.height() > pixels->height();
    picture =
        pixels->size() == size
            ? *pixels
            : pixels->scaled(size, Qt::IgnoreAspectRatio, larger ? Qt::FastTransformation : Qt::SmoothTransformation)
                  .convertToFormat(QImage::Format_ARGB32_Premultiplied);
  } else {
    picture = placeholder(size, cell);
  }
  return scaled_.emplace(key, std::move(picture)).first->second;
}

QImage MapPainter::draw(const Quilt& quilt, const Map& map, ViewScale scale, const QRect& device,
                        const std::set<Id>& hidden, const GhostCells* ghost) {
  QImage picture(device.size(), QImage::Format_ARGB32_Premultiplied);
  picture.fill(Qt::transparent);
  const auto grid = makeGrid(map.grid);
  const CellRect cells =
      grid->cellsMeeting(grownBy(scale.covering(device), overhang(quilt, map))).intersected(map.bounds);
  QPainter painter(&picture);
  const auto drawCell = [&](CellPos at, Cell cell) {
    const QRect target = scale.toDevice(grid->seat(at, drawnSize(quilt, map, cell)));
    if (!target.intersects(device)) return;
    painter.drawImage(target.topLeft() - device.topLeft(), scaled(quilt, cell, target.size()));
  };
  for (const Shared<TilesLayer>& layer : map.layers) {
    if (hidden.contains(layer->id)) continue;
    std::map<CellPos, Cell> ghosts;
    if (ghost && ghost->layer == layer->id) ghosts.insert(ghost->cells.begin(), ghost->cells.end());
    if (layer->cells.empty() && ghosts.empty()) continue;
    grid->inDrawOrder(cells, [&](CellPos at) {
      const Cell cell = layer->cells.at(at);
      if (!cell.empty()) drawCell(at, cell);
      const auto preview = ghosts.find(at);
      if (preview == ghosts.end()) return;
      painter.setOpacity(kGhostOpacity);
      drawCell(at, preview->second);
      painter.setOpacity(1);
    });
  }
  return picture;
}

std::optional<PickedTile> topmostAt(const Quilt& quilt, const Map& map, const SheetPictures& pictures,
                                    const std::set<Id>& hidden, PixelPos at) {
  const auto grid = makeGrid(map.grid);
  const CellRect near = grid->cellsMeeting(grownBy({at.x, at.y, 1, 1}, overhang(quilt, map))).intersected(map.bounds);
  for (auto nearest = map.layers.rbegin(); nearest != map.layers.rend(); ++nearest) {
    const TilesLayer& layer = nearest->read();
    if (hidden.contains(layer.id)) continue;
    std::optional<PickedTile> last;
    grid->inDrawOrder(near, [&](CellPos place) {
      const Cell cell = layer.cells.at(place);
      if (cell.empty()) return;
      const PixelRect seat = grid->seat(place, drawnSize(quilt, map, cell));
      if (!seat.contains(at)) return;
      const auto pixels = pictures.turned(quilt, cell);
      if (!pixels || qAlpha(pixels->pixel(at.x - seat.x, at.y - seat.y)) != 0) last = PickedTile{layer.id, place, cell};
    });
    if (last) return last;
  }
  return std::nullopt;
}

}  // namespace uq
