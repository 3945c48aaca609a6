#include "app/table/HandPicture.h"

#include <algorithm>
#include <cmath>

#include "app/look/Theme.h"

namespace uq {

std::optional<HandPicture> pictureOf(Session& session, const InHand& hand, const QRectF& room) {
  if (hand.empty()) return std::nullopt;
  HandPicture picture;
  if (session.map() && areOfOneFamily(session.map()->grid.kind, hand.grid)) {
    picture.map = *session.map();
  } else if (session.map() && hand.isOneTile()) {
    picture.map = *session.map();
  } else {
    picture.map.grid = nearestShape(hand.grid, session.map() ? session.map()->grid.cell : PixelSize{32, 32});
  }
  const auto grid = makeGrid(picture.map.grid);
  std::vector<std::pair<int, Block>> blocks{{0, hand.block}};
  for (const HandPart& part : hand.others) blocks.emplace_back(part.above, part.block);
  std::stable_sort(blocks.begin(), blocks.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  picture.map.folders.clear();
  picture.map.layers.clear();
  picture.map.bounds = {};
  for (const auto& [above, block] : blocks) {
    Layer layer;
    layer.id = IdSource(picture.map.layers.size() + 1).next();
    for (const Block::Part& part : block.parts()) {
      layer.cells.set(grid->fromSide(part.at), part.cell);
      if (part.lift > 0) layer.lifts.set(grid->fromSide(part.at), part.lift);
    }
    picture.map.bounds = picture.map.bounds.united(layer.cells.usedBounds());
    picture.map.layers.push_back(Shared(std::move(layer)));
  }
  picture.pixels = session.painter().extentOf(session.quilt(), picture.map, runsOf(picture.map));
  double fit = std::min({room.width() / picture.pixels.w, room.height() / picture.pixels.h, 2.0});
  if (fit >= 1) fit = std::floor(fit);
  picture.scale = fit;
  const QSizeF size(picture.pixels.w * fit, picture.pixels.h * fit);
  picture.corner =
      QPointF(std::round(room.center().x() - size.width() / 2), std::round(room.center().y() - size.height() / 2));
  return picture;
}

namespace {

void drawOne(QPainter& painter, Session& session, const InHand& hand, const QRectF& room, double ratio) {
  const auto shown = pictureOf(session, hand, room);
  if (!shown) return;
  const ViewScale scale{shown->scale * ratio};
  QImage image =
      session.painter().draw(session.quilt(), shown->map, runsOf(shown->map), scale, scale.toDevice(shown->pixels));
  image.setDevicePixelRatio(ratio);
  // Squares lie on the colour of an empty map; other cells show their own shape.
  if (shown->map.grid.kind == GridKind::orthogonal) {
    painter.fillRect(QRectF(shown->corner, image.deviceIndependentSize()), Theme::current().surround.lighter(150));
  }
  painter.drawImage(shown->corner, image);
}

}  // namespace

void drawHand(QPainter& painter, Session& session, const InHand& hand, const QRectF& room, double ratio) {
  if (hand.manner != Manner::mix) return drawOne(painter, session, hand, room, ratio);
  // Four members at most, in the corners.
  std::size_t shown = 0;
  for (const MixMember& member : hand.members) {
    if (member.block.empty() || shown >= 4) continue;
    const QSizeF half = room.size() / 2;
    const QPointF at(static_cast<double>(shown % 2) * half.width(), static_cast<double>(shown / 2) * half.height());
    drawOne(painter, session, InHand(member.block, hand.grid), QRectF(room.topLeft() + at, half).adjusted(1, 1, -1, -1),
            ratio);
    ++shown;
  }
}

}  // namespace uq
