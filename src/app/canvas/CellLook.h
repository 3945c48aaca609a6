// CellLook: a small live picture of what lies about one cell of any map, so near that single cells can be told apart.
//
// It is shown beside the pointer where a way leads: over the Board while a cord is in hand, and at a doorway. The picture is
// drawn again only where the map, the sheets or the cell are other ones. Threads: the interface's.
#pragma once

#include <QImage>
#include <QPainter>
#include <optional>

#include "app/canvas/MapView.h"
#include "app/workroom/Session.h"

namespace uq {

class CellLook {
 public:
  static constexpr QSize kSize{264, 200};  // logical pixels

  // A place for it beside a point, within `room`, above it or below.
  static QRectF placeBeside(QPointF at, const QRectF& room, bool above);

  // What lies about the cell, pins and all, the cell stitched round and a needle in it that points the way one faces. Paints
  // nothing where there is no such map. `ratio`: screen pixels a logical one.
  void paint(QPainter& painter, Session& session, Id map, CellPos cell, Heading facing, const QRectF& place, double ratio);

 private:
  struct Drawn {
    Revision map;
    std::vector<Shared<Sheet>> sheets;
    CellPos cell;
    double ratio = 0;
    std::uint32_t theme = 0;
  };
  void draw(Session& session, const Map& map, CellPos cell, const MapView& view);

  std::optional<Drawn> drawn_;
  QImage picture_;
};

}  // namespace uq
