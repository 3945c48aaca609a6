#include "app/canvas/Rulers.h"

#include <QCoreApplication>
#include <QStringList>
#include <algorithm>
#include <array>
#include <cmath>

#include "app/canvas/MapEdges.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

namespace {

constexpr double kRulerBeside = 12;   // between a slanted map's side, where its edge is taken hold of, and the ruler
constexpr double kLeastBetween = 40;  // between numbers
constexpr double kRulerInSight = 90;  // how far a slanted ruler stays within the sight
constexpr double kLeastOn = 6;  // where a column or row is narrower, none is taken out
constexpr double kKnobRadius = 7;     // radius
constexpr std::array kBothWays = {CellLines::Which::columns, CellLines::Which::rows};

QString ofRulers(const char* text, int count = -1) {
  return QCoreApplication::translate("uq::Rulers", text, nullptr, count);
}

double dot(QPointF a, QPointF b) { return QPointF::dotProduct(a, b); }

QPointF unit(QPointF way) {
  const double length = std::hypot(way.x(), way.y());
  return length > 0 ? way / length : QPointF(1, 0);
}

// 1, 2, 5, 10, … lines, so that numbers stand far enough apart.
int numberStep(double side) {
  for (int tens = 1; tens < kFarthestCell; tens *= 10) {
    for (const int step : {tens, 2 * tens, 5 * tens}) {
      if (step * side >= kLeastBetween) return step;
    }
  }
  return kFarthestCell;
}

}  // namespace

Rulers::Rulers(const Plane& plane, CellRect bounds) : plane_(plane), bounds_(bounds) {}

Rulers::Scale Rulers::scaleOf(Which which) const {
  const bool columns = which == Which::columns;
  Scale scale;
  scale.first = columns ? bounds_.x0 : bounds_.y0;
  scale.count = columns ? bounds_.width() : bounds_.height();
  if (!isSlanted()) {
    const CellPos corner{bounds_.x0, bounds_.y0};
    const QRectF here = plane_.cellRect(corner);
    // Far on, since places are rounded to whole pixels; an even number, since every second row or column may be
    // shifted.
    const int far = std::max(2, scale.count / 2 * 2);
    const QRectF last =
        plane_.cellRect(columns ? CellPos{corner.x + far, corner.y} : CellPos{corner.x, corner.y + far});
    scale.begin = columns ? QPointF(here.left(), kRulerBreadth) : QPointF(kRulerBreadth, here.top());
    scale.step = columns ? QPointF((last.left() - here.left()) / far, 0) : QPointF(0, (last.top() - here.top()) / far);
    scale.out = columns ? QPointF(0, -1) : QPointF(-1, 0);
    scale.breadth = kRulerBreadth;
    return scale;
  }
  const auto corners = plane_.pointsOf(plane_.grid().perimeter(bounds_));  // from the topmost clockwise
  const QPointF top = corners.at(0);
  const QPointF across = (corners.at(1) - top) / bounds_.width();
  const QPointF down = (corners.at(3) - top) / bounds_.height();
  scale.step = columns ? across : down;
  scale.out = -unit(columns ? down : across);
  // As broad as the others, measured straight across.
  QPointF normal(-scale.step.y(), scale.step.x());
  normal = unit(normal);
  if (dot(normal, scale.out) < 0) normal = -normal;
  const double leans = std::max(0.2, dot(normal, scale.out));
  scale.breadth = kRulerBreadth / leans;
  scale.begin = top + scale.out * (kRulerBeside / leans);
  const QSizeF half = QSizeF(plane_.view().size) / 2;
  const double reach = std::abs(normal.x()) * half.width() + std::abs(normal.y()) * half.height() - kRulerInSight;
  const double beyond = dot(scale.begin - QPointF(half.width(), half.height()), normal) - reach;
  if (beyond > 0) scale.begin -= scale.out * (beyond / leans);
  return scale;
}

QPointF Rulers::along(const Scale& scale, QPointF at) {
  const QPointF way = at - scale.begin;
  const double area = scale.step.x() * scale.out.y() - scale.step.y() * scale.out.x();
  if (std::abs(area) < 1e-9) return {-1, -1};
  return {(way.x() * scale.out.y() - way.y() * scale.out.x()) / area,
          (scale.step.x() * way.y() - scale.step.y() * way.x()) / area};
}

bool Rulers::isOn(const Scale& scale, QPointF at) {
  const QPointF place = along(scale, at);
  return place.y() >= 0 && place.y() < scale.breadth && place.x() >= -0.5 && place.x() <= scale.count + 0.5;
}

bool Rulers::isOn(QPointF at) const {
  // Those that run along the widget's ends do so over all of them.
  if (!isSlanted()) return at.x() < kRulerBreadth || at.y() < kRulerBreadth;
  if (isOnSwitch(at)) return true;
  return std::any_of(kBothWays.begin(), kBothWays.end(), [&](Which which) { return isOn(scaleOf(which), at); });
}

std::optional<RulerPlace> Rulers::placeAt(QPointF at) const {
  for (const Which which : kBothWays) {
    const Scale scale = scaleOf(which);
    if (isOnSwitch(at) || !isOn(scale, at)) continue;
    const double line = along(scale, at).x();
    const double side = std::hypot(scale.step.x(), scale.step.y());
    const int nearest = std::clamp(static_cast<int>(std::lround(line)), 0, scale.count);
    const int on = static_cast<int>(std::floor(line));
    const bool between =
        side < kLeastOn || std::abs(line - nearest) * side <= std::clamp(side / 4, 1.5, kKnobRadius);
    if (between || on < 0 || on >= scale.count) return RulerPlace{which, false, scale.first + nearest};
    return RulerPlace{which, true, scale.first + on};
  }
  return std::nullopt;
}

int Rulers::reached(const RulerPlace& from, QPointF at) const {
  const Scale scale = scaleOf(from.which);
  const double line = std::clamp(along(scale, at).x(), -1e6, 1e6);
  return scale.first + static_cast<int>(from.removes ? std::floor(line) : std::lround(line));
}

QRectF Rulers::switchRect() const {
  if (!isSlanted()) return {0, 0, kRulerBreadth, kRulerBreadth};
  const Scale columns = scaleOf(Which::columns);
  const Scale rows = scaleOf(Which::rows);
  // Above the corner where both begin.
  const QPointF between = (columns.begin + columns.out * columns.breadth + rows.begin + rows.out * rows.breadth) / 2;
  return QRectF(between.x() - kRulerBreadth / 2, between.y() - kRulerBreadth, kRulerBreadth, kRulerBreadth);
}

void Rulers::paintSwitch(QPainter& painter, bool ofLayer) const {
  const Theme& theme = Theme::current();
  const QRectF at = switchRect();
  painter.setPen(QPen(theme.edge, 1));
  painter.setBrush(theme.panel);
  painter.drawRect(at);
  // One layer of three, or all of them.
  for (int i = 0; i < 3; ++i) {
    const bool changes = !ofLayer || i == 1;
    painter.setPen(QPen(changes ? theme.madder : theme.edge, 2));
    const double y = at.top() + 6 + 4 * i;
    painter.drawLine(QPointF(at.left() + 5, y), QPointF(at.right() - 5, y));
  }
}

void Rulers::paintNumber(QPainter& painter, Which which, QPointF at, int number) const {
  const QString text = QString::number(number);
  if (isSlanted()) {
    painter.drawText(QRectF(at.x() - 30, at.y() - kRulerBreadth / 2, 60, kRulerBreadth), Qt::AlignCenter, text);
  } else if (which == Which::columns) {
    painter.drawText(QRectF(at.x() + 3, 0, 60, kRulerBreadth - 3), Qt::AlignLeft | Qt::AlignVCenter, text);
  } else {
    painter.save();
    painter.translate(0, at.y() + 3);
    painter.rotate(90);
    painter.drawText(QRectF(0, -kRulerBreadth + 2, 60, kRulerBreadth - 3), Qt::AlignLeft | Qt::AlignVCenter, text);
    painter.restore();
  }
}

void Rulers::paintScale(QPainter& painter, Which which, std::optional<CellPos> hovered) const {
  const Theme& theme = Theme::current();
  const Scale scale = scaleOf(which);
  const QPointF out = scale.out * scale.breadth;
  const double side = std::hypot(scale.step.x(), scale.step.y());
  const QRectF sight(QPointF(), plane_.view().size);
  const auto pointAt = [&](double line) { return scale.begin + scale.step * line; };
  // As far beyond both ends as a number has room.
  const double more = kRulerBreadth / 2 / std::max(1.0, side);
  QPolygonF band{pointAt(-more), pointAt(scale.count + more), pointAt(scale.count + more) + out, pointAt(-more) + out};
  if (!isSlanted()) {
    const bool columns = which == Which::columns;
    band =
        QPolygonF(columns ? QRectF(0, 0, sight.width(), kRulerBreadth) : QRectF(0, 0, kRulerBreadth, sight.height()));
  }
  painter.setPen(isSlanted() ? QPen(theme.edge, 1) : QPen(Qt::NoPen));
  painter.setBrush(theme.panel);
  painter.drawPolygon(band);
  painter.setBrush(Qt::NoBrush);
  const int step = numberStep(side);
  for (int i = 0; i <= scale.count; i += step) {
    const QPointF at = pointAt(i);
    if (!sight.adjusted(-80, -80, 80, 80).contains(at + out / 2)) continue;
    painter.setPen(QPen(theme.softInk, 1));
    painter.drawLine(at, at + unit(out) * 6);
    paintNumber(painter, which, isSlanted() ? at + out * 0.55 : at, i);
  }
  if (hovered) {
    const int line = (which == Which::columns ? hovered->x : hovered->y) - scale.first;
    painter.setPen(QPen(theme.madder, 3, Qt::SolidLine, Qt::FlatCap));
    const QPointF inner = scale.out * 1.5;
    painter.drawLine(pointAt(line) + inner, pointAt(line + 1) + inner);
  }
  if (isSlanted()) return;
  painter.setPen(QPen(theme.edge, 1));
  if (which == Which::columns)
    painter.drawLine(QPointF(0, kRulerBreadth + 0.5), QPointF(sight.width(), kRulerBreadth + 0.5));
  if (which == Which::rows)
    painter.drawLine(QPointF(kRulerBreadth + 0.5, 0), QPointF(kRulerBreadth + 0.5, sight.height()));
}

void Rulers::paint(QPainter& painter, std::optional<CellPos> hovered, bool ofLayer) const {
  painter.save();
  QFont font = painter.font();
  font.setPointSizeF(font.pointSizeF() * 0.85);
  painter.setFont(font);
  painter.setRenderHint(QPainter::Antialiasing, isSlanted());
  paintScale(painter, Which::rows, hovered);
  paintScale(painter, Which::columns, hovered);
  paintSwitch(painter, ofLayer);
  painter.restore();
}

void Rulers::paintLines(QPainter& painter, const LinesDrag& drag) const {
  const auto lines = drag.lines();
  if (!lines) return;
  const Theme& theme = Theme::current();
  const bool comes = lines->count > 0;
  const bool can = drag.refusal().empty();
  const QColor thread = !can ? theme.softInk : comes ? theme.woad : theme.weld;
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  const auto shape = [&](CellRect cells) { return QPolygonF(plane_.pointsOf(plane_.grid().perimeter(cells))); };
  const CellRect band = lines->within(bounds_);
  if (can && drag.shifts()) {
    // What moves by half a cell.
    CellRect behind = bounds_;
    (lines->areColumns() ? behind.x0 : behind.y0) = comes ? lines->at : lines->at - lines->count;
    if (!behind.empty()) {
      QColor veil = theme.lamp;
      veil.setAlpha(60);
      painter.setPen(Qt::NoPen);
      painter.setBrush(veil);
      painter.drawPolygon(shape(behind));
    }
  }
  QColor fill = thread;
  fill.setAlpha(comes ? 90 : 200);
  painter.setPen(QPen(thread, 2));
  painter.setBrush(QBrush(fill, comes ? Qt::SolidPattern : Qt::BDiagPattern));
  painter.drawPolygon(shape(band));
  if (comes) {
    // The guide: where the map is parted.
    CellRect before = bounds_;
    (lines->areColumns() ? before.x0 : before.y0) = lines->at;
    (lines->areColumns() ? before.x1 : before.y1) = lines->at + 1;
    const QPolygonF one = shape(before);
    if (one.size() == 4) {
      // Clockwise from the upper left, or the topmost: the side where the first of them begins.
      drawStitchLine(painter, lines->areColumns() ? QLineF(one[0], one[3]) : QLineF(one[0], one[1]), theme.ink,
                     theme.paper, 3);
    }
  }
  const Scale scale = scaleOf(lines->which);
  const double line = comes ? lines->at - scale.first : lines->at - scale.first - lines->count / 2.0;
  const QPointF knob = scale.begin + scale.step * line + scale.out * (scale.breadth / 2);
  painter.setPen(QPen(theme.paper, 1));
  painter.setBrush(thread);
  painter.drawEllipse(knob, kKnobRadius, kKnobRadius);
  painter.setPen(QPen(theme.paper, 2));
  painter.drawLine(knob - QPointF(4, 0), knob + QPointF(4, 0));
  if (comes) painter.drawLine(knob - QPointF(0, 4), knob + QPointF(0, 4));
  painter.restore();
}

QString wordsOf(const LinesDrag& drag, const Map& map, const Desk& desk) {
  const auto lines = drag.lines();
  if (!lines) return {};
  if (const std::string why = drag.refusal(); !why.empty()) return QString::fromStdString(why);
  const int corner = lines->areColumns() ? map.bounds.x0 : map.bounds.y0;
  const int from = lines->at - corner;
  const int count = std::abs(lines->count);
  QStringList parts;
  if (lines->count > 0) {
    parts << (lines->areColumns() ? ofRulers("Insert %n column(s) before %1", count)
                                  : ofRulers("Insert %n row(s) before %1", count))
                 .arg(from);
  } else if (count == 1) {
    parts << (lines->areColumns() ? ofRulers("Remove column %1") : ofRulers("Remove row %1")).arg(from);
  } else {
    parts << (lines->areColumns() ? ofRulers("Remove columns %1 to %2") : ofRulers("Remove rows %1 to %2"))
                 .arg(from)
                 .arg(from + count - 1);
  }
  if (drag.painted() > 0) parts << ofRulers("%n painted cell(s) go with it", static_cast<int>(drag.painted()));
  const Layer* only = desk.linesOfLayer ? map.layer(desk.activeAt().layer) : nullptr;
  parts << (only ? ofRulers("on %1 alone").arg(QString::fromStdString(only->name)) : ofRulers("on all layers"));
  if (drag.shifts()) {
    parts << (lines->areColumns() ? ofRulers("what follows moves half a cell down")
                                  : ofRulers("what follows moves half a cell across"));
  } else if (evenLines(map.grid.kind, lines->which) > 1) {
    parts << ofRulers("Ctrl: one by one");
  }
  return parts.join(QStringLiteral(" · "));
}

}  // namespace uq
