#include "app/canvas/AllowanceView.h"

#include "app/look/Theme.h"
#include "core/edit/ResizeMap.h"

namespace uq {

namespace {

constexpr int kVeil = 150;  // of 255

SwatchBook::Options modest() {
  SwatchBook::Options options;
  options.budget = std::size_t{64} << 20;
  options.workers = 1;
  return options;
}

}  // namespace

AllowanceView::AllowanceView(SheetPictures pictures, std::function<void()> arrived)
    : book_(std::move(pictures), std::move(arrived), modest()) {}

void AllowanceView::show(const Quilt& quilt, const Map& map, std::vector<Run> runs) {
  CellRect all = map.bounds;
  for (const Shared<Layer>& layer : map.layers) all = all.united(layer->cells.usedBounds());
  isThere_ = !(all == map.bounds) && whyNoBounds(map, all).empty();
  if (!isThere_) return;
  const Quilt larger = withBounds(quilt, map.id, all);
  shown_ = *larger.map(map.id);
  (void)book_.show(larger, map.id, std::move(runs));
}

void AllowanceView::paint(QPainter& painter, const MapView& view, const QRect& part) {
  if (!isThere_) return;
  painter.save();
  const double ratio = view.ratio;
  const QRectF device(part.x() * ratio, part.y() * ratio, part.width() * ratio, part.height() * ratio);
  painter.scale(1 / ratio, 1 / ratio);
  (void)book_.paint(painter, view.scale(), view.window(), device.toAlignedRect().translated(view.origin));
  painter.restore();
  painter.save();
  painter.setClipRect(part, Qt::IntersectClip);
  painter.setPen(Qt::NoPen);
  const Plane plane(view, shown_->grid);
  const QPolygonF outline(plane.pointsOf(plane.grid().perimeter(shown_->bounds)));
  QColor veil = Theme::current().surround;
  veil.setAlpha(kVeil);
  painter.setBrush(veil);
  painter.drawPolygon(outline);
  painter.setBrush(QBrush(Theme::current().edge, Qt::BDiagPattern));
  painter.setOpacity(0.5);
  painter.drawPolygon(outline);
  painter.restore();
}

}  // namespace uq
