// What of MapCanvas is painting: the map, and what lies over it.
#include "app/canvas/MapCanvas.h"

#include <QAccessible>
#include <QKeyEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/actions/KeyBindings.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/cells/CellReader.h"
#include "core/document/FrameTime.h"
#include "core/document/PlanView.h"
#include "core/edit/Turned.h"

namespace uq {

namespace {

constexpr double kGridLinesFrom = 6;               // logical pixels a cell
constexpr double kMarksFrom = 14;                  // logical pixels a cell
constexpr int kRuler = 20;                         // logical pixels, how broad a ruler is
constexpr double kFindingsFrom = 6;                // screen pixels a cell: smaller ones are not marked
constexpr std::size_t kMostJoints = 4096;          // in sight, of a layer
constexpr double kReach = 256;                     // logical pixels
constexpr int kTick = 40;                          // milliseconds between two looks at animated tiles
constexpr std::int64_t kMostCellsPlayed = 40'000;  // in sight; farther away nobody sees them move

}  // namespace

void MapCanvas::paintMap(QPainter& painter, const QRect& part) {
  const double ratio = devicePixelRatioF();
  const QRect window(origin_, deviceSize());
  const QRectF device(part.x() * ratio, part.y() * ratio, part.width() * ratio, part.height() * ratio);
  painter.save();
  painter.scale(1 / ratio, 1 / ratio);
  lastFrame_ = book_->paint(painter, scale(), window, device.toAlignedRect().translated(origin_));
  painter.restore();
  if (lastFrame_.late > 0) QMetaObject::invokeMethod(this, qOverload<>(&MapCanvas::update), Qt::QueuedConnection);
}

void MapCanvas::paintArrivals() {
  if (!book_) return;
  const QRect window(origin_, deviceSize());
  for (const QRect& rect : book_->arrivals(scale(), window)) {
    update(fromDevice(rect).toAlignedRect().adjusted(-1, -1, 1, 1));
  }
}

void MapCanvas::paintEvent(QPaintEvent* event) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(event->rect(), theme.surround);
  if (!map()) {
    paintEmpty(painter);
    return;
  }
  const auto grid = makeGrid(map()->grid);
  const QRectF mapRect = fromDevice(scale().toDevice(grid->pixelBounds(map()->bounds)));
  paintGround(painter, event->rect());
  paintMap(painter, event->rect());
  if (inFrame_) paintFrames(painter, event->rect());
  if (session_->desk().gridLines) {
    paintGrid(painter);
    paintTurnMarks(painter);
  }
  paintFindings(painter);
  paintOutline(painter);
  paintFrame(painter);
  paintSelection(painter);
  paintGhost(painter);
  paintJoints(painter);
  paintHandles(painter);
  if (!taken_.empty()) drawStitches(painter, fromDevice(scale().toDevice(taken_)), theme.madder, theme.paper);
  paintTag(painter);
  paintFirstHint(painter, mapRect);
  if (session_->desk().rulers && map()->grid.kind != GridKind::diamond) paintRulers(painter);
  overlay_ = overlay();
  Q_EMIT painted();
}

void MapCanvas::paintOutline(QPainter& painter) const {
  const Theme& theme = Theme::current();
  const Map& here = *map();
  const auto grid = makeGrid(here.grid);
  // The map itself lies where no layer is shifted.
  QPolygonF corners;
  for (const PixelPos at : grid->perimeter(here.bounds))
    corners << pointOf(at) - QPointF(planeShift()) / devicePixelRatioF();
  if (here.grid.kind == GridKind::orthogonal) {
    const QRectF rect = corners.boundingRect();
    drawStitches(painter, rect.adjusted(-1.5, -1.5, 1.5, 1.5), theme.ink, theme.paper);
  } else if (corners.size() <= 4) {
    drawStitches(painter, corners, theme.ink, theme.paper);
  } else {
    QVector<QLineF> seen;
    const QRectF sight = QRectF(rect()).adjusted(-64, -64, 64, 64);
    for (qsizetype i = 0; i < corners.size(); ++i) {
      const QLineF line(corners[i], corners[(i + 1) % corners.size()]);
      if (sight.contains(line.p1()) || sight.contains(line.p2())) seen << line;
    }
    drawStitchLines(painter, seen, theme.ink, theme.paper);
  }
}

void MapCanvas::followFrames() {
  const bool plays = session_ && session_->desk().playsFrames && map() && hasFrames(quilt());
  if (!plays) {
    if (ticks_.isActive()) update();
    ticks_.stop();
    inFrame_.reset();
    framePainter_.reset();
    return;
  }
  if (ticks_.isActive()) return;
  if (!framePainter_) framePainter_ = std::make_unique<MapPainter>(session_->painter().pictures());
  played_.start();
  ticks_.start(kTick);
}

void MapCanvas::tick() {
  const Map* here = map();
  if (!here || !isVisible()) return;
  const std::set<TileRef> animated = animatedTiles(quilt());
  // Neighbours in a row are drawn in one go.
  std::vector<PixelRect> moving;
  const auto grid = makeGrid(here->grid);
  const QRectF seen = seenPixels();
  const PixelRect pixels{static_cast<int>(seen.x()) - 1, static_cast<int>(seen.y()) - 1,
                         static_cast<int>(seen.width()) + 3, static_cast<int>(seen.height()) + 3};
  const CellRect within = grid->cellsMeeting(pixels).intersected(here->bounds);
  if (std::int64_t{within.width()} * within.height() <= kMostCellsPlayed) {
    for (const Shared<Layer>& layer : here->layers) {
      if (session_->desk().hidden.contains(layer->id)) continue;
      const PixelPos plane = planeOn(layer.read());
      layer->cells.forEachPainted(within, [&](CellPos at, Cell cell) {
        if (!animated.contains(cell.tile())) return;
        PixelRect place = session_->painter().placeOf(quilt(), *here, at, cell, layer->lifts.at(at));
        place.x += plane.x;
        place.y += plane.y;
        if (!moving.empty() && moving.back().y == place.y && moving.back().h == place.h &&
            moving.back().right() == place.x) {
          moving.back().w += place.w;
        } else {
          moving.push_back(place);
        }
      });
    }
  }
  Quilt now = inFrame(quilt(), played_.elapsed());
  const bool same =
      inFrame_ && moving == moving_ && inFrame_->sheets() == now.sheets() && inFrame_->maps() == now.maps();
  if (same) return;
  moving_ = std::move(moving);
  inFrame_ = std::move(now);
  for (const PixelRect& rect : moving_) update(fromDevice(scale().toDevice(rect)).toAlignedRect());
}

void MapCanvas::paintFrames(QPainter& painter, const QRect& part) {
  const Map* shown = inFrame_->map(session_->desk().map);
  if (!shown) return;
  const std::vector<Run> runs = runsOf(*shown, seeing());
  for (const PixelRect& rect : moving_) {
    const QRect device = scale().toDevice(rect);
    const QRectF place = fromDevice(device);
    if (!place.intersects(part)) continue;
    QImage picture = framePainter_->draw(*inFrame_, *shown, runs, scale(), device);
    picture.setDevicePixelRatio(devicePixelRatioF());
    painter.fillRect(place, Theme::current().surround);
    paintGround(painter, place);
    painter.drawImage(place.topLeft(), picture);
  }
}

void MapCanvas::paintSelection(QPainter& painter) const {
  const Theme& theme = Theme::current();
  if (!lit_.empty()) {
    const QVector<QLineF> borders = bordersOf(lit_);
    painter.setPen(QPen(theme.lamp, 3));
    painter.drawLines(borders);
    painter.setPen(QPen(theme.ink, 1));
    painter.drawLines(borders);
  }
  const CellSet& selected = session_->desk().selection();
  if (!selected.empty()) drawStitchLines(painter, bordersOf(selected), theme.ink, theme.paper);
  if (drag_ == Drag::select && session_->desk().options.selectBy == SelectBy::outline) {
    QPolygonF way;
    for (const PixelPos at : way_) way << pointOf(at);
    if (way.size() > 1) drawStitches(painter, way, theme.madder, theme.paper);
  }
  if (drag_ != Drag::select && drag_ != Drag::take && !(boxFrom_ && cursor_)) return;
  const bool less = drag_ == Drag::select && selecting_ == Selecting::less;
  drawStitchLines(painter, bordersOf(spanned()), less ? theme.weld : theme.madder, theme.paper);
}

QRect MapCanvas::overlay() const {
  const CellSet cells = footprint();
  QRectF area = boxAround(cells);
  if (const Stroke* stroke = session_ ? session_->verbs().strokes.stroke() : nullptr) area = area.united(boxAround(stroke->shape()));
  if (cells.empty() && area.isEmpty()) {
    const QString text = tagText();
    return text.isEmpty() ? QRect() : tagRect(text).toAlignedRect().adjusted(-4, -4, 4, 4);
  }
  if (const GhostCells shown = ghost(); !shown.cells.empty()) {
    const Quilt base = ghostBase();
    const Map& here = *base.map(session_->desk().map);
    const PixelRect drawn = session_->painter().areaOf(base, here, runsOf(here, seeing()), shown);
    area = area.united(fromDevice(scale().toDevice(drawn)));
  }
  if (const Stroke* stroke = forecast(); stroke && !stroke->plan().hand.others.empty()) {
    // What lies on further layers may reach farther.
    area.adjust(-kReach, -kReach, kReach, kReach);
  }
  // Down to the ground under what is raised, and up to it from what is sunk.
  const Layer* layer = quilt().layer(session_->desk().landing());
  if (const int height = layer ? map()->riseOf(*layer) + liftShown() : 0; height != 0) {
    const QPointF down(0, deviceShift({0, height}, scale()).y() / devicePixelRatioF());
    area = area.united(boxAround(cells).translated(down));
  }
  if (const QString text = tagText(); !text.isEmpty()) area = area.united(tagRect(text));
  return area.toAlignedRect().adjusted(-4, -4, 4, 4);
}

void MapCanvas::updateOverlay() {
  const QRect now = overlay();
  update(overlay_);
  update(now);
  overlay_ = overlay_.united(now);
}

void MapCanvas::paintFirstHint(QPainter& painter, const QRectF& place) const {
  const std::vector<Shared<Layer>>& layers = map()->layers;
  const bool blank = std::all_of(layers.begin(), layers.end(), [](const auto& one) { return one->cells.empty(); });
  if (!blank || !session_->desk().inHand.empty() || drag_ != Drag::none) return;
  painter.setPen(Theme::linen().paper);
  painter.drawText(place.intersected(QRectF(rect())).adjusted(24, 24, -24, -24), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("Click a tile on the Table, then drag here.\n%1 finds everything else.")
                       .arg(KeyBindings::shared().text(ActionId::findHelp)));
}

void MapCanvas::paintEmpty(QPainter& painter) const {
  if (!session_) return;
  painter.setPen(Theme::linen().paper);
  painter.drawText(rect().adjusted(40, 40, -40, -40), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("This quilt has no map yet.\n\nMap > New map… (%1), or the + above, makes one.")
                       .arg(KeyBindings::shared().text(ActionId::newMap)));
}

void MapCanvas::paintGround(QPainter& painter, const QRectF& part) const {
  const auto grid = makeGrid(map()->grid);
  const QColor ground = map()->cloth ? QColor::fromRgb(*map()->cloth | 0xff000000u) : Theme::current().surround.lighter(118);
  if (map()->grid.kind == GridKind::orthogonal) {
    const QRectF place = fromDevice(scale().toDevice(grid->pixelBounds(map()->bounds)));
    painter.fillRect(place.intersected(part), ground);
    return;
  }
  QPolygonF corners;
  const QPointF off = QPointF(planeShift()) / devicePixelRatioF();
  for (const PixelPos at : grid->perimeter(map()->bounds)) corners << pointOf(at) - off;
  painter.save();
  painter.setClipRect(part, Qt::IntersectClip);
  painter.setPen(Qt::NoPen);
  painter.setBrush(ground);
  painter.drawPolygon(corners);
  painter.restore();
}

void MapCanvas::paintCellOutlines(QPainter& painter, CellRect seen) const {
  const auto grid = makeGrid(map()->grid);
  const int sides = grid->turnOrder();
  QVector<QLineF> lines;
  // Each side is shared by two cells: half of them are enough.
  for (int y = seen.y0; y < seen.y1; ++y) {
    for (int x = seen.x0; x < seen.x1; ++x) {
      const std::vector<PixelPos> corners = grid->outline({x, y});
      for (int side = 0; side < sides / 2; ++side) {
        lines << QLineF(pointOf(corners[static_cast<std::size_t>(side)]),
                        pointOf(corners[static_cast<std::size_t>(side) + 1]));
      }
    }
  }
  const Theme& theme = Theme::current();
  QColor dark = theme.ink;
  QColor light = theme.paper;
  dark.setAlpha(70);
  light.setAlpha(60);
  const double hair = 1 / devicePixelRatioF();
  painter.setPen(QPen(dark, hair));
  painter.drawLines(lines);
  painter.translate(0, hair);
  painter.setPen(QPen(light, hair));
  painter.drawLines(lines);
  painter.translate(0, -hair);
}

void MapCanvas::paintGrid(QPainter& painter) const {
  const auto grid = makeGrid(map()->grid);
  const PixelSize cell = map()->grid.cell;
  if (std::min(cell.w, cell.h) * zoom_ < kGridLinesFrom) return;
  const CellRect bounds = map()->bounds;
  const CellRect seen = grid->cellsMeeting(scale().covering(QRect(planeOrigin(), deviceSize()))).intersected(bounds);
  if (map()->grid.kind != GridKind::orthogonal) return paintCellOutlines(painter, seen);
  // Two tones, so that a line shows on dark and on light ground.
  const Theme& theme = Theme::current();
  QColor dark = theme.ink;
  QColor light = theme.paper;
  dark.setAlpha(46);
  light.setAlpha(40);
  const double hair = 1 / devicePixelRatioF();
  const QRectF area = cellRect({seen.x0, seen.y0}).united(cellRect({seen.x1 - 1, seen.y1 - 1}));
  for (int x = std::max(seen.x0, bounds.x0 + 1); x < seen.x1; ++x) {
    const double left = cellRect({x, seen.y0}).left();
    painter.fillRect(QRectF(left - hair, area.top(), hair, area.height()), dark);
    painter.fillRect(QRectF(left, area.top(), hair, area.height()), light);
  }
  for (int y = std::max(seen.y0, bounds.y0 + 1); y < seen.y1; ++y) {
    const double top = cellRect({seen.x0, y}).top();
    painter.fillRect(QRectF(area.left(), top - hair, area.width(), hair), dark);
    painter.fillRect(QRectF(area.left(), top, area.width(), hair), light);
  }
}

void MapCanvas::paintTurnMarks(QPainter& painter) const {
  const auto grid = makeGrid(map()->grid);
  const PixelSize cell = map()->grid.cell;
  if (map()->grid.kind == GridKind::orthogonal || std::min(cell.w, cell.h) * zoom_ < kMarksFrom) return;
  const Theme& theme = Theme::current();
  for (const Shared<Layer>& layer : map()->layers) {
    if (session_->desk().hidden.contains(layer->id)) continue;
    const QPoint shift = deviceShift(planeOn(layer.read()), scale());
    const QRect window = QRect(origin_, deviceSize()).translated(-shift);
    const CellRect seen = grid->cellsMeeting(scale().covering(window)).intersected(map()->bounds);
    CellReader reader(layer->cells);
    for (int y = seen.y0; y < seen.y1; ++y) {
      for (int x = seen.x0; x < seen.x1; ++x) {
        const Cell at = reader.at({x, y});
        if (at.empty() || at.turn() == Turn{} || grid->pictureTurn(at.turn()) == at.turn()) continue;
        const QRectF box = fromDevice(scale().toDevice(grid->cellBox({x, y})).translated(shift));
        const QPointF middle(box.center().x(), box.bottom() - 9);
        const QPolygonF mark{{middle + QPointF(0, -5), middle + QPointF(5, 4), middle + QPointF(-5, 4)}};
        painter.setPen(QPen(theme.ink, 1));
        painter.setBrush(theme.weld);
        painter.drawPolygon(mark);
        painter.setBrush(Qt::NoBrush);
      }
    }
  }
}

void MapCanvas::paintRulers(QPainter& painter) const {
  const Theme& theme = Theme::current();
  const CellRect bounds = map()->bounds;
  QFont font = painter.font();
  font.setPointSizeF(font.pointSizeF() * 0.85);
  painter.setFont(font);
  const auto hovered = hoveredCell();
  const QRectF first = cellRect({bounds.x0, bounds.y0});
  // Numbers stand at least 40 pixels apart, at 1, 2, 5, 10, … cells.
  const auto stepFor = [](double cell) {
    for (int tens = 1;; tens *= 10) {
      for (const int step : {tens, 2 * tens, 5 * tens}) {
        if (step * cell >= 40) return step;
      }
    }
  };
  const auto ruler = [&](bool across) {
    const double cell = across ? first.width() : first.height();
    const QRectF strip = across ? QRectF(0, 0, width(), kRuler) : QRectF(0, 0, kRuler, height());
    painter.fillRect(strip, theme.panel);
    const int step = stepFor(cell);
    const int count = across ? bounds.width() : bounds.height();
    for (int i = 0; i <= count; i += step) {
      const QRectF at = cellRect(across ? CellPos{bounds.x0 + i, bounds.y0} : CellPos{bounds.x0, bounds.y0 + i});
      const double from = across ? at.left() : at.top();
      if (from < -200 || from > (across ? width() : height())) continue;
      painter.fillRect(across ? QRectF(from, kRuler - 6, 1, 6) : QRectF(kRuler - 6, from, 6, 1), theme.softInk);
      painter.setPen(theme.softInk);
      const QString number = QString::number(i);
      if (across) {
        painter.drawText(QRectF(from + 3, 0, 60, kRuler - 3), Qt::AlignLeft | Qt::AlignVCenter, number);
      } else {
        painter.save();
        painter.translate(0, from + 3);
        painter.rotate(90);
        painter.drawText(QRectF(0, -kRuler + 2, 60, kRuler - 3), Qt::AlignLeft | Qt::AlignVCenter, number);
        painter.restore();
      }
    }
    if (hovered) {
      const QRectF at = cellRect(*hovered);
      painter.fillRect(
          across ? QRectF(at.left(), kRuler - 3, at.width(), 3) : QRectF(kRuler - 3, at.top(), 3, at.height()),
          theme.madder);
    }
    painter.fillRect(across ? QRectF(0, kRuler, width(), 1) : QRectF(kRuler, 0, 1, height()), theme.edge);
  };
  ruler(false);
  ruler(true);
  painter.fillRect(QRectF(0, 0, kRuler, kRuler), theme.panel);
}

void MapCanvas::paintGhost(QPainter& painter) {
  if (drag_ == Drag::stroke || drag_ == Drag::refit) return paintShape(painter);
  if (isOverStretch()) return;
  const CellSet cells = footprint();
  if (cells.empty() || drag_ != Drag::none || space_) return;
  const Stroke* stroke = forecast();
  if (stroke && !stroke->plan().hand.others.empty() && !stroke->plan().takesAway) paintOutcome(painter, *stroke);
  const GhostCells shown = ghost();
  if (!shown.cells.empty()) {
    // With the layer that the press would make.
    const Quilt base = ghostBase();
    const Map& here = *base.map(session_->desk().map);
    const std::vector<Run> runs = runsOf(here, seeing());
    const PixelRect area = session_->painter().areaOf(base, here, runs, shown);
    const QRect part = scale().toDevice(area).adjusted(-1, -1, 1, 1).intersected(QRect(origin_, deviceSize()));
    if (!part.isEmpty()) {
      QImage picture = session_->painter().draw(base, here, runs, scale(), part, &shown);
      picture.setDevicePixelRatio(devicePixelRatioF());
      const QRectF place = fromDevice(part);
      painter.fillRect(place, Theme::current().surround);
      paintGround(painter, place);
      painter.drawImage(place.topLeft(), picture);
      // What was drawn over the map goes over the ghost, too.
      painter.save();
      painter.setClipRect(place, Qt::IntersectClip);
      if (session_->desk().gridLines) paintGrid(painter);
      paintOutline(painter);
      paintSelection(painter);
      painter.restore();
    }
  }
  const bool lands = whyNothing().isEmpty();
  const QVector<QLineF> outline = bordersOf(cells);
  paintPlumbLine(painter, cells, outline);
  // An ink edge under the thread, so that yellow shows on light ground.
  painter.setPen(QPen(Theme::current().ink, 4));
  painter.drawLines(outline);
  drawStitchLines(painter, outline, lands ? landingThread() : Theme::current().softInk, Theme::current().paper);
}

// What lies above the ground hangs on a line over the cells that it is above.
void MapCanvas::paintPlumbLine(QPainter& painter, const CellSet& cells, const QVector<QLineF>& outline) const {
  const Layer* layer = quilt().layer(session_->desk().landing());
  const int height = layer ? map()->riseOf(*layer) + liftShown() : 0;
  if (height == 0 || cells.empty()) return;
  const QPointF down(0, deviceShift({0, height}, scale()).y() / devicePixelRatioF());
  const Theme& theme = Theme::current();
  QVector<QLineF> ground;
  for (const QLineF& line : outline) ground << line.translated(down);
  QColor faint = theme.paper;
  faint.setAlpha(150);
  painter.setPen(QPen(faint, 1));
  painter.drawLines(ground);
  const QPointF middle = boxAround(cells).center();
  const QLineF plumb(middle, middle + down);
  painter.setPen(QPen(theme.ink, 3));
  painter.drawLine(plumb);
  painter.setPen(QPen(landingThread(), 1));
  painter.drawLine(plumb);
  painter.setBrush(landingThread());
  painter.setPen(theme.ink);
  painter.drawEllipse(plumb.p2(), 3, 3);
  painter.setBrush(Qt::NoBrush);
}

Quilt MapCanvas::ghostBase() const {
  const Stroke* stroke = forecast();
  if (!stroke || !stroke->landing().makesLayer) return quilt();
  return inPlan_ ? inPlan(stroke->landing().quilt, session_->desk().map) : stroke->landing().quilt;
}

void MapCanvas::paintOutcome(QPainter& painter, const Stroke& stroke) {
  if (stroke.cells().count() > kMostGhost) return;
  const Quilt after = inPlan_ ? inPlan(stroke.quilt(), session_->desk().map) : stroke.quilt();
  const Map& here = *after.map(session_->desk().map);
  const std::vector<Run> runs = runsOf(here, seeing());
  PixelRect area;
  for (const LayerAt at : stroke.landing().layers) {
    const Layer* layer = after.layer(at);
    if (!layer) continue;
    GhostCells own{at.layer, {}};
    stroke.cells().forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i)
        own.cells.push_back({{first.x + i, first.y}, layer->cells.at({first.x + i, first.y}), 0});
    });
    area = area.united(session_->painter().areaOf(after, here, runs, own));
  }
  const QRect part = scale().toDevice(area).adjusted(-1, -1, 1, 1).intersected(QRect(origin_, deviceSize()));
  if (part.isEmpty()) return;
  QImage picture = session_->painter().draw(after, here, runs, scale(), part);
  picture.setDevicePixelRatio(devicePixelRatioF());
  painter.save();
  painter.setOpacity(kGhostOpacity / 255.0);
  painter.drawImage(fromDevice(part).topLeft(), picture);
  painter.restore();
}

// A shape that cannot be laid is struck through; one too large to be laid while it is drawn shows its outline.
void MapCanvas::paintShape(QPainter& painter) const {
  const Stroke* stroke = session_->verbs().strokes.stroke();
  if (!stroke) return;
  const Theme& theme = Theme::current();
  const bool refused = !stroke->refusal().empty();
  const bool takesAway = stroke->plan().takesAway;
  const bool shapes = stroke->plan().tool != Tool::brush && stroke->plan().tool != Tool::erase;
  if (!refused && !(shapes && (takesAway || stroke->cells().count() > kMostGhost))) return;
  const QVector<QLineF> outline = bordersOf(stroke->shape());
  painter.setPen(QPen(theme.ink, 4));
  painter.drawLines(outline);
  drawStitchLines(painter, outline, refused ? theme.weld : landingThread(), theme.paper);
  if (!refused) return;
  const QRectF box = boxAround(stroke->shape());
  const QLineF strike(box.topLeft(), box.bottomRight());
  painter.setPen(QPen(theme.ink, 4));
  painter.drawLine(strike);
  drawStitchLines(painter, {strike}, theme.weld, theme.paper);
}

void MapCanvas::paintHandles(QPainter& painter) const {
  if (drag_ != Drag::none && drag_ != Drag::refit) return;
  const Theme& theme = Theme::current();
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  for (const Handle& handle : handles()) {
    painter.setPen(QPen(theme.ink, 1.5));
    painter.setBrush(theme.paper);
    QPolygonF diamond{handle.at + QPointF(0, -6), handle.at + QPointF(6, 0), handle.at + QPointF(0, 6),
                      handle.at + QPointF(-6, 0)};
    painter.drawPolygon(diamond);
    painter.setPen(Qt::NoPen);
    painter.setBrush(landingThread());
    painter.drawEllipse(handle.at, 2.2, 2.2);
  }
  painter.restore();
}

std::vector<MapCanvas::JointAt> MapCanvas::hoveredJoints() const {
  const Stroke* stroke = forecast();
  if (!stroke || stroke->cells().empty()) return {};
  const CellRect box = stroke->cells().bounds().grown(1);
  if (std::int64_t{box.width()} * box.height() > kMostGhost) return {};
  const Quilt after = stroke->quilt();
  const Map* here = after.map(session_->desk().map);
  if (!here) return {};
  JointBook& book = jointFinder_->bookFor(after, here->grid);
  std::vector<JointAt> marked;
  for (std::size_t i = 0; i < here->layers.size(); ++i) {
    const Id layer = here->layers[i]->id;
    const std::vector<LayerAt>& laid = stroke->landing().layers;
    if (std::find(laid.begin(), laid.end(), LayerAt{here->id, layer}) == laid.end()) continue;
    for (const LooseJoint& joint : looseJoints(book, *here, i, box, kMostGhost)) {
      const bool own = stroke->cells().contains(joint.cell) ||
                       stroke->cells().contains(book.sides().grid().across(joint.cell, joint.side));
      if (own) marked.push_back({layer, joint});
    }
  }
  return marked;
}

std::vector<MapCanvas::JointAt> MapCanvas::jointsInSight() const {
  const Map& here = *session_->map();
  const PixelSize cell = here.grid.cell;
  if (std::min(cell.w, cell.h) * zoom_ < kGridLinesFrom) return {};
  JointBook& book = jointFinder_->bookFor(session_->quilt(), here.grid);
  const auto shown = makeGrid(map()->grid);
  std::vector<JointAt> marked;
  for (std::size_t i = 0; i < here.layers.size(); ++i) {
    const Id layer = here.layers[i]->id;
    if (session_->desk().hidden.contains(layer)) continue;
    const QPoint shift = deviceShift(planeOn(map()->layers[i].read()), scale());
    const CellRect seen = shown->cellsMeeting(scale().covering(QRect(origin_, deviceSize()).translated(-shift)));
    for (const LooseJoint& joint : looseJoints(book, here, i, seen, kMostJoints)) marked.push_back({layer, joint});
  }
  return marked;
}

std::vector<MapCanvas::JointAt> MapCanvas::joints() const {
  if (!map() || session_->inGesture()) return {};
  std::vector<JointAt> marked = hoveredJoints();
  if (session_->desk().showsJoints) {
    for (const JointAt& one : jointsInSight()) marked.push_back(one);
  }
  return marked;
}

CellSet MapCanvas::coveredInSight() const {
  const bool shows = map() && session_->desk().showsCovered && !session_->inGesture();
  const Layer* layer = shows ? session_->quilt().layer(session_->desk().landing()) : nullptr;
  if (!layer || map()->grid.cell.h * zoom_ < kFindingsFrom) return {};
  const QPoint shift = deviceShift(planeOn(*map()->layer(layer->id)), scale());
  const auto shown = makeGrid(map()->grid);
  const CellRect seen = shown->cellsMeeting(scale().covering(QRect(origin_, deviceSize()).translated(-shift)));
  return coveredCells(session_->quilt(), session_->desk().landing(), seen, session_->verbs().layers.hiding());
}

CellSet MapCanvas::holesInSight() const {
  const bool shows = map() && session_->desk().showsHoles && !session_->inGesture();
  if (!shows || map()->grid.cell.h * zoom_ < kFindingsFrom) return {};
  const CellRect seen = makeGrid(map()->grid)->cellsMeeting(scale().covering(QRect(origin_, deviceSize())));
  return holes(session_->quilt(), session_->desk().map, seen, session_->desk().hidden, session_->verbs().layers.hiding());
}

void MapCanvas::paintFindings(QPainter& painter) const {
  const Theme& theme = Theme::current();
  const auto grid = makeGrid(map()->grid);
  const auto mark = [&](const CellSet& cells, QPoint shift, const QColor& colour, Qt::BrushStyle hatch) {
    QPainterPath path;
    cells.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        QPolygonF outline;
        for (const PixelPos at : grid->outline({first.x + i, first.y})) {
          outline << fromDevice(scale().toDevice(PixelRect{at.x, at.y, 1, 1}).translated(shift)).topLeft();
        }
        path.addPolygon(outline);
        path.closeSubpath();
      }
    });
    QColor wash = colour;
    wash.setAlpha(70);
    painter.fillPath(path, wash);
    painter.fillPath(path, QBrush(colour, hatch));
  };
  if (const CellSet covered = coveredInSight(); !covered.empty()) {
    const Layer& layer = *map()->layer(session_->desk().landing().layer);
    mark(covered, deviceShift(planeOn(layer), scale()), theme.woad, Qt::BDiagPattern);
  }
  if (const CellSet open = holesInSight(); !open.empty()) mark(open, {}, theme.madder, Qt::FDiagPattern);
}

void MapCanvas::paintJoints(QPainter& painter) const {
  const std::vector<JointAt> marked = joints();
  if (marked.empty()) return;
  const Theme& theme = Theme::current();
  const auto grid = makeGrid(session_->map()->grid);
  const auto shown = makeGrid(map()->grid);
  QVector<QLineF> lines;
  for (const auto& [on, joint] : marked) {
    const Layer* layer = ghostBase().layer({map()->id, on});
    const QPoint shift = layer ? deviceShift(planeOn(*layer), scale()) : QPoint();
    const auto corner = [&](PixelPos at) {
      return fromDevice(scale().toDevice(PixelRect{at.x, at.y, 1, 1}).translated(shift)).topLeft();
    };
    // In the plan view the same side lies elsewhere.
    const CellPos beyond = grid->across(joint.cell, joint.side);
    const std::vector<PixelPos> corners = shown->outline(joint.cell);
    for (std::size_t side = 0; side < corners.size(); ++side) {
      if (shown->across(joint.cell, static_cast<int>(side)) != beyond) continue;
      lines << QLineF(corner(corners[side]), corner(corners[(side + 1) % corners.size()]));
    }
  }
  painter.setPen(QPen(theme.ink, 4));
  painter.drawLines(lines);
  drawStitchLines(painter, lines, theme.weld, theme.paper);
}

void MapCanvas::paintFrame(QPainter& painter) const {
  const auto frame = frameRect();
  if (!frame) return;
  const Theme& theme = Theme::current();
  QPainterPath beyond;
  beyond.addRect(QRectF(rect()));
  beyond.addRect(*frame);
  QColor shade = theme.surround;
  shade.setAlpha(150);
  painter.fillPath(beyond, shade);
  drawStitches(painter, frame->adjusted(-1.5, -1.5, 1.5, 1.5), theme.madder, theme.paper);
  const QRectF tab = frameTab();
  painter.fillRect(tab, theme.madder);
  painter.setPen(theme.paper);
  painter.drawText(tab, Qt::AlignCenter, frameText());
}

QPointF MapCanvas::tagAnchor() const {
  const auto cell = hoveredCell();
  return cell ? cellRect(*cell).bottomRight() : pointer_.value_or(QPointF());
}

QRectF MapCanvas::tagRect(const QString& text) const {
  QRectF beside = boxAround(footprint());
  const bool large = beside.width() > width() / 3.0 || beside.height() > height() / 3.0;
  if (drag_ != Drag::none || large || beside.isEmpty()) beside = QRectF(tagAnchor() - QPointF(16, 16), QSizeF(16, 16));
  const QSizeF size(fontMetrics().horizontalAdvance(text) + 18, fontMetrics().height() + 8);
  QRectF tag(beside.bottomRight() + QPointF(8, 8), size);
  if (tag.right() > width() - 4) tag.moveRight(std::max(size.width() + 4, beside.left() - 8));
  if (tag.bottom() > height() - 4) tag.moveBottom(beside.top() - 8);
  return tag;
}

void MapCanvas::paintTag(QPainter& painter) const {
  const QString text = tagText();
  if (text.isEmpty()) return;
  const Theme& theme = Theme::current();
  const Stroke* under = session_->verbs().strokes.stroke();
  const bool lands = under ? under->refusal().empty() : refusal_.isEmpty() && whyNothing().isEmpty();
  const QRectF tag = tagRect(text);
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(theme.ink, 3));
  painter.setBrush(theme.paper);
  painter.drawRoundedRect(tag.adjusted(.5, .5, -.5, -.5), kCorner, kCorner);
  painter.setPen(QPen(lands ? landingThread() : theme.weld, 2));
  painter.drawRoundedRect(tag.adjusted(.5, .5, -.5, -.5), kCorner, kCorner);
  painter.setPen(theme.ink);
  painter.drawText(tag, Qt::AlignCenter, text);
  painter.restore();
}

}  // namespace uq
