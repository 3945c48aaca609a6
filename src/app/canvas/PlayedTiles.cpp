#include "app/canvas/PlayedTiles.h"

#include <set>

#include "app/look/Theme.h"
#include "core/document/FrameTime.h"

namespace uq {

namespace {

constexpr int kTick = 40;                          // milliseconds between two looks
constexpr std::int64_t kMostCellsPlayed = 40'000;  // in sight

}  // namespace

PlayedTiles::PlayedTiles(const Scene& scene, std::function<MapView()> view) : scene_(scene), view_(std::move(view)) {
  connect(&ticks_, &QTimer::timeout, this, &PlayedTiles::look);
}

void PlayedTiles::follow() {
  const bool plays = scene_.desk().playsFrames && scene_.map() && hasFrames(scene_.quilt());
  if (!plays) {
    if (ticks_.isActive()) Q_EMIT changed({});
    ticks_.stop();
    now_.reset();
    painter_.reset();
    return;
  }
  if (ticks_.isActive()) return;
  if (!painter_) painter_ = std::make_unique<MapPainter>(scene_.session().painter().pictures());
  since_.start();
  ticks_.start(kTick);
}

std::vector<PixelRect> PlayedTiles::places(const Map& map) const {
  std::vector<PixelRect> all;
  const std::set<TileRef> animated = animatedTiles(scene_.quilt());
  const QRectF seen = view_().seenPixels();
  const PixelRect pixels{static_cast<int>(seen.x()) - 1, static_cast<int>(seen.y()) - 1,
                         static_cast<int>(seen.width()) + 3, static_cast<int>(seen.height()) + 3};
  const CellRect within = makeGrid(map.grid)->cellsMeeting(pixels).intersected(map.bounds);
  if (std::int64_t{within.width()} * within.height() > kMostCellsPlayed) return all;
  for (const Shared<Layer>& layer : map.layers) {
    if (scene_.desk().hidden.contains(layer->id)) continue;
    const PixelPos plane = scene_.placeOf(layer.read());
    layer->cells.forEachPainted(within, [&](CellPos at, Cell cell) {
      if (!animated.contains(cell.tile())) return;
      PixelRect place = scene_.session().painter().placeOf(scene_.quilt(), map, at, cell, layer->lifts.at(at));
      place.x += plane.x;
      place.y += plane.y;
      // Neighbours in a row are drawn in one go.
      if (!all.empty() && all.back().y == place.y && all.back().h == place.h && all.back().right() == place.x) {
        all.back().w += place.w;
      } else {
        all.push_back(place);
      }
    });
  }
  return all;
}

void PlayedTiles::look() {
  const Map* here = scene_.map();
  const MapView view = view_();
  if (!here || view.size.isEmpty()) return;
  std::vector<PixelRect> moving = places(*here);
  Quilt now = inFrame(scene_.quilt(), since_.elapsed());
  const bool same = now_ && moving == places_ && now_->sheets() == now.sheets() && now_->maps() == now.maps();
  if (same) return;
  places_ = std::move(moving);
  now_ = std::move(now);
  for (const PixelRect& rect : places_) Q_EMIT changed(view.rectOf(rect).toAlignedRect());
}

void PlayedTiles::paint(QPainter& painter, const MapView& view, const QRect& part,
                        const std::function<void(const QRectF&)>& paintGround) const {
  const Map* shown = now_ ? now_->map(scene_.desk().map) : nullptr;
  if (!shown) return;
  const std::vector<Run> runs = scene_.runs(*shown);
  for (const PixelRect& rect : places_) {
    const QRect device = view.scale().toDevice(rect);
    const QRectF place = view.fromDevice(device);
    if (!place.intersects(part)) continue;
    QImage picture = painter_->draw(*now_, *shown, runs, view.scale(), device);
    picture.setDevicePixelRatio(view.ratio);
    painter.fillRect(place, Theme::current().surround);
    paintGround(place);
    painter.drawImage(place.topLeft(), picture);
  }
}

}  // namespace uq
