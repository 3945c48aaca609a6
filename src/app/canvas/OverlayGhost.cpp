#include "app/canvas/Overlay.h"
#include "app/canvas/Rulers.h"

#include <QGuiApplication>

#include "app/look/Stitches.h"
#include "app/look/Tag.h"
#include "app/look/Theme.h"

namespace uq {

namespace {

constexpr double kOthersReach = 256;  // logical pixels: as far as what is in hand for further layers may reach

// A picture of a part of the screen, as many device pixels large.
void drawPart(QPainter& painter, QImage picture, const MapView& view, const QRect& part) {
  picture.setDevicePixelRatio(view.ratio);
  painter.drawImage(view.fromDevice(part).topLeft(), picture);
}

// An ink edge under the thread, so that yellow shows on light ground.
void drawEdged(QPainter& painter, const QVector<QLineF>& lines, const QColor& thread) {
  painter.setPen(QPen(Theme::current().ink, 4));
  painter.drawLines(lines);
  drawStitchLines(painter, lines, thread, Theme::current().paper);
}

}  // namespace

QColor Overlay::thread() const {
  const Layer* layer = forecast_.landing(pointing_);
  return layer ? Theme::current().thread(layer->thread) : Theme::current().ink;
}

QPointF Overlay::down() const {
  const int height = scene_.heightOfLanding(forecast_.lift(pointing_.takesAway));
  return {0, deviceShift({0, height}, view_.scale()).y() / view_.ratio};
}

QRectF Overlay::ghostArea() const {
  const CellSet cells = forecast_.footprint(pointing_);
  QRectF area = landing_.boxAround(cells);
  if (const Stroke* now = forecast_.underWay()) area = area.united(landing_.boxAround(now->shape()));
  if (cells.empty() && area.isEmpty()) return {};
  if (const GhostCells shown = forecast_.ghost(pointing_); !shown.cells.empty()) {
    const Quilt base = forecast_.ghostBase(pointing_);
    const Map& here = *base.map(desk().map);
    area = area.united(view_.rectOf(scene_.session().painter().areaOf(base, here, scene_.runs(here), shown)));
  }
  if (const Stroke* foretold = forecast_.stroke(pointing_); foretold && !foretold->plan().hand.others.empty()) {
    area.adjust(-kOthersReach, -kOthersReach, kOthersReach, kOthersReach);
  }
  // Down to the ground under what is raised, and up to it from what is sunk.
  if (const QPointF by = down(); !by.isNull()) area = area.united(landing_.boxAround(cells).translated(by));
  return area;
}

void Overlay::paintGhost(QPainter& painter, const std::function<void()>& paintMore) const {
  using Doing = Pointing::Doing;
  if (pointing_.doing == Doing::stroking || pointing_.doing == Doing::refitting) return paintShape(painter);
  if (pointing_.onStretch || pointing_.doing != Doing::nothing || pointing_.looksAround) return;
  const CellSet cells = forecast_.footprint(pointing_);
  if (cells.empty()) return;
  const Stroke* foretold = forecast_.stroke(pointing_);
  if (foretold && !foretold->plan().hand.others.empty() && !foretold->plan().takesAway)
    paintOutcome(painter, *foretold);
  paintOver(painter, paintMore);
  const bool lands = forecast_.whyNothing(pointing_).isEmpty();
  const QVector<QLineF> outline = landing_.bordersOf(cells);
  paintPlumbLine(painter, cells, outline);
  drawEdged(painter, outline, lands ? thread() : Theme::current().softInk);
}

void Overlay::paintOver(QPainter& painter, const std::function<void()>& paintMore) const {
  const GhostCells shown = forecast_.ghost(pointing_);
  if (shown.cells.empty()) return;
  const Quilt base = forecast_.ghostBase(pointing_);
  const Map& here = *base.map(desk().map);
  const std::vector<Run> runs = scene_.runs(here);
  MapPainter& maps = scene_.session().painter();
  const PixelRect area = maps.areaOf(base, here, runs, shown);
  const QRect part = view_.scale().toDevice(area).adjusted(-1, -1, 1, 1).intersected(view_.window());
  if (part.isEmpty()) return;
  const QImage picture = maps.draw(base, here, runs, view_.scale(), part, &shown);
  const QRectF place = view_.fromDevice(part);
  painter.fillRect(place, Theme::current().surround);
  paintGround(painter, place);
  drawPart(painter, picture, view_, part);
  painter.save();
  painter.setClipRect(place, Qt::IntersectClip);
  if (desk().gridLines) paintGrid(painter);
  paintOutline(painter);
  paintMore();
  painter.restore();
}

// What lies above the ground hangs on a line over the cells that it is above.
void Overlay::paintPlumbLine(QPainter& painter, const CellSet& cells, const QVector<QLineF>& outline) const {
  const QPointF by = down();
  if (by.isNull() || cells.empty()) return;
  const Theme& theme = Theme::current();
  QVector<QLineF> ground;
  for (const QLineF& line : outline) ground << line.translated(by);
  QColor faint = theme.paper;
  faint.setAlpha(150);
  painter.setPen(QPen(faint, 1));
  painter.drawLines(ground);
  const QPointF middle = landing_.boxAround(cells).center();
  const QLineF plumb(middle, middle + by);
  painter.setPen(QPen(theme.ink, 3));
  painter.drawLine(plumb);
  painter.setPen(QPen(thread(), 1));
  painter.drawLine(plumb);
  painter.setBrush(thread());
  painter.setPen(theme.ink);
  painter.drawEllipse(plumb.p2(), 3, 3);
  painter.setBrush(Qt::NoBrush);
}

void Overlay::paintOutcome(QPainter& painter, const Stroke& stroke) const {
  if (stroke.cells().count() > kMostGhost) return;
  const Quilt after = scene_.asShown(stroke.quilt());
  const Map& here = *after.map(desk().map);
  const std::vector<Run> runs = scene_.runs(here);
  MapPainter& maps = scene_.session().painter();
  PixelRect area;
  for (const LayerAt at : stroke.landing().layers) {
    const Layer* layer = after.layer(at);
    if (!layer) continue;
    GhostCells own{at.layer, {}};
    stroke.cells().forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i)
        own.cells.push_back({{first.x + i, first.y}, layer->cells.at({first.x + i, first.y}), 0});
    });
    area = area.united(maps.areaOf(after, here, runs, own));
  }
  const QRect part = view_.scale().toDevice(area).adjusted(-1, -1, 1, 1).intersected(view_.window());
  if (part.isEmpty()) return;
  painter.save();
  painter.setOpacity(kGhostOpacity / 255.0);
  drawPart(painter, maps.draw(after, here, runs, view_.scale(), part), view_, part);
  painter.restore();
}

// A shape that cannot be laid is struck through; one too large to be laid while it is drawn shows its outline.
void Overlay::paintShape(QPainter& painter) const {
  const Stroke* stroke = forecast_.underWay();
  if (!stroke) return;
  const Theme& theme = Theme::current();
  const bool refused = !stroke->refusal().empty();
  const bool takesAway = stroke->plan().takesAway;
  const bool shapes = stroke->plan().tool != Tool::brush && stroke->plan().tool != Tool::erase;
  if (!refused && !(shapes && (takesAway || stroke->cells().count() > kMostGhost))) return;
  drawEdged(painter, landing_.bordersOf(stroke->shape()), refused ? theme.weld : thread());
  if (!refused) return;
  const QRectF box = landing_.boxAround(stroke->shape());
  drawEdged(painter, {QLineF(box.topLeft(), box.bottomRight())}, theme.weld);
}

void Overlay::paintHandles(QPainter& painter, const std::vector<StretchHandle>& handles) const {
  const Theme& theme = Theme::current();
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  for (const StretchHandle& handle : handles) {
    painter.setPen(QPen(theme.ink, 1.5));
    painter.setBrush(theme.paper);
    painter.drawPolygon(QPolygonF{handle.at + QPointF(0, -6), handle.at + QPointF(6, 0), handle.at + QPointF(0, 6),
                                  handle.at + QPointF(-6, 0)});
    painter.setPen(Qt::NoPen);
    painter.setBrush(thread());
    painter.drawEllipse(handle.at, 2.2, 2.2);
  }
  painter.restore();
}

namespace {

constexpr qsizetype kTagLine = 64;  // letters

// A long tag goes on in another line where it has a dot between two parts.
QString inLines(const QString& text) {
  const QString dot = QStringLiteral(" · ");
  QStringList lines{QString()};
  for (const QString& part : text.split(dot)) {
    QString& line = lines.back();
    const bool fits = line.isEmpty() || line.size() + dot.size() + part.size() <= kTagLine;
    if (fits) {
      line += (line.isEmpty() ? QString() : dot) + part;
    } else {
      lines << part;
    }
  }
  return lines.join(QLatin1Char('\n'));
}

}  // namespace

QRectF Overlay::tagRect(const QString& text, QPointF anchor, bool besideAnchor) const {
  QRectF beside = landing_.boxAround(forecast_.footprint(pointing_));
  const bool large = beside.width() > view_.size.width() / 3.0 || beside.height() > view_.size.height() / 3.0;
  if (besideAnchor || large || beside.isEmpty()) beside = QRectF(anchor - QPointF(16, 16), QSizeF(16, 16));
  const QFontMetrics metrics(QGuiApplication::font());
  const QSizeF size = metrics.size(0, inLines(text)) + QSize(18, 8);
  QRectF tag(beside.bottomRight() + QPointF(8, 8), size);
  if (tag.right() > view_.size.width() - 4) tag.moveRight(std::max(size.width() + 4, beside.left() - 8));
  if (tag.bottom() > view_.size.height() - 4) tag.moveBottom(beside.top() - 8);
  // A hand that drags may be far beyond the widget.
  return movedInto(tag, QRectF(QPointF(), view_.size).adjusted(4, 4, -4, -4));
}

void Overlay::paintSight(QPainter& painter) const {
  if (!scene_.isFromAbove()) return;
  const Theme& theme = Theme::current();
  const QString text = QCoreApplication::translate("canvas", "Plan view · P leaves it");
  const QFontMetrics metrics(QGuiApplication::font());
  const double beside = kGap + (desk().rulers ? kRulerBreadth : 0);
  const QRectF place(beside, beside, metrics.horizontalAdvance(text) + 18, metrics.height() + 8);
  painter.fillRect(place, theme.paper);
  drawStitches(painter, place, theme.woad, theme.paper);
  painter.setPen(theme.ink);
  painter.drawText(place, Qt::AlignCenter, text);
}

void Overlay::paintTag(QPainter& painter, const QRectF& place, const QString& text, bool lands) const {
  drawTag(painter, place, inLines(text), lands ? thread() : Theme::current().weld);
}

}  // namespace uq
