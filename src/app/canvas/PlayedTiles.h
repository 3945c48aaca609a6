// PlayedTiles: the animated tiles in sight, played over what the swatches show of them.
//
// Nothing is drawn anew while no frame changes. Farther away than kMostCellsPlayed cells nobody sees them move, and
// they rest. Cost of a look: the painted cells in sight. Threads: the interface's.
#pragma once

#include <QElapsedTimer>
#include <QPainter>
#include <QTimer>
#include <functional>
#include <memory>
#include <optional>
#include <vector>

#include "app/canvas/Scene.h"

namespace uq {

class PlayedTiles : public QObject {
  Q_OBJECT

 public:
  // `scene` must live as long; `view` tells what is in sight, of no size while nothing is, and is asked at each
  // look.
  PlayedTiles(const Scene& scene, std::function<MapView()> view);

  // Plays or rests, as the scene is now.
  void follow();
  // Draws the present frames within a part of the widget; `paintGround` paints what lies under the map.
  void paint(QPainter& painter, const MapView& view, const QRect& part,
             const std::function<void(const QRectF&)>& paintGround) const;

 Q_SIGNALS:
  // A part of the widget looks different; all of it where that is empty.
  void changed(const QRect& part);

 private:
  void look();
  std::vector<PixelRect> places(const Map& map) const;

  const Scene& scene_;
  std::function<MapView()> view_;
  QTimer ticks_;
  QElapsedTimer since_;
  std::vector<PixelRect> places_;  // in map pixels
  std::unique_ptr<MapPainter> painter_;
  std::optional<Quilt> now_;
};

}  // namespace uq
