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

constexpr double kStops[] = {0.02, 0.03, 0.05, 0.07, 0.1, 0.15, 0.2, 0.25, 0.33, 0.5, 0.67, 0.75,
                             1,    1.25, 1.5,  2,    3,   4,    6,   8,    12,   16,  24,   32};
constexpr double kGridLinesFrom = 6;         // logical pixels a cell
constexpr double kMarksFrom = 14;            // logical pixels a cell
constexpr int kMapMargin = 24;               // logical pixels round a fitted map
constexpr int kRuler = 20;                   // logical pixels, how broad a ruler is
constexpr std::size_t kMostOutlined = 4096;  // parts of a block
constexpr int kTick = 40;                     // milliseconds between two looks at animated tiles
constexpr std::int64_t kMostCellsPlayed = 40'000;  // in sight; farther away nobody sees them move
constexpr double kMoveAfter = 4;             // logical pixels: a shorter drag moves nothing

}  // namespace

MapCanvas::MapCanvas(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("canvas"));
  setAccessibleName(tr("Map"));
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setAttribute(Qt::WA_OpaquePaintEvent);
  setMinimumSize(240, 180);
  connect(&ticks_, &QTimer::timeout, this, &MapCanvas::tick);
}

void MapCanvas::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  lit_ = {};
  book_.reset();
  views_.clear();
  shownMap_ = {};
  fits_ = true;
  drag_ = Drag::none;
  cursor_.reset();
  boxFrom_.reset();
  heldTool_.reset();
  if (session_) {
    book_ = std::make_unique<SwatchBook>(session_->painter().pictures(), [this] {
      QMetaObject::invokeMethod(this, qOverload<>(&MapCanvas::update), Qt::QueuedConnection);
    });
    connect(session_, &Session::quiltChanged, this, &MapCanvas::followMap);
    connect(session_, &Session::refused, this, &MapCanvas::say);
    connect(session_, &Session::deskChanged, this, [this] {
      followMap();
      if (session_->desk().map != shownMap_) {
        if (!shownMap_.empty()) views_[shownMap_] = view();
        cursor_.reset();
        boxFrom_.reset();
        const auto known = views_.find(session_->desk().map);
        showView(known == views_.end() ? View() : known->second);
      }
      update();
    });
  }
  followMap();
  fitMap();
  update();
}

const Map* MapCanvas::map() const { return session_ ? quilt().map(session_->desk().map) : nullptr; }

const Quilt& MapCanvas::quilt() const { return inPlan_ ? *inPlan_ : session_->quilt(); }

MapCanvas::View MapCanvas::view() const {
  const QPointF middle = QPointF(origin_) + QPointF(deviceSize().width(), deviceSize().height()) / 2;
  return {zoom_, middle / scale().zoom, fits_};
}

std::map<Id, MapCanvas::View> MapCanvas::views() const {
  std::map<Id, View> all = views_;
  if (!shownMap_.empty()) all[shownMap_] = view();
  return all;
}

void MapCanvas::setViews(std::map<Id, View> views) {
  views_ = std::move(views);
  const auto known = session_ ? views_.find(session_->desk().map) : views_.end();
  if (known != views_.end()) showView(known->second);
}

void MapCanvas::showView(const View& view) {
  if (view.whole || !(view.zoom > 0)) return fitMap();
  shownMap_ = session_->desk().map;
  zoom_ = std::clamp(view.zoom, kSmallestZoom, kLargestZoom);
  fits_ = false;
  centreOn(view.middle);
}

void MapCanvas::centreOn(QPointF pixel) {
  const QPointF half(deviceSize().width() / 2.0, deviceSize().height() / 2.0);
  // A file may say anything.
  const auto bounded = [](double x) { return std::clamp<double>(x, -kFarthestPixel, kFarthestPixel); };
  origin_ = (QPointF(bounded(pixel.x()), bounded(pixel.y())) * scale().zoom - half).toPoint();
  placedFor_ = size();
  fits_ = false;
  keepMapInSight();
  update();
  Q_EMIT viewChanged();
}

QRectF MapCanvas::seenPixels() const {
  const double ratio = scale().zoom;
  return {QPointF(origin_) / ratio, QSizeF(deviceSize()) / ratio};
}

int MapCanvas::liftShown() const {
  return inPlan_ || selects() || takesAway() ? 0 : session_->desk().lift;
}

PixelPos MapCanvas::plane() const {
  const TilesLayer* layer = map() ? quilt().layer(session_->desk().landing()) : nullptr;
  if (!layer) return {};
  const PixelPos at = map()->planeOf(*layer);
  return {at.x, at.y - liftShown()};
}

QPoint MapCanvas::planeShift() const { return deviceShift(plane(), scale()); }

Seeing MapCanvas::seeing() const {
  const Desk& desk = session_->desk();
  return {desk.hidden, desk.fadesOthers ? desk.landing().layer : Id()};
}

void MapCanvas::followMap() {
  const bool fromAbove = session_ && session_->map() && session_->desk().planView && hasPlan(session_->map()->grid.kind);
  const bool turned = fromAbove != inPlan_.has_value();
  // The cell in the middle stays there.
  std::optional<CellPos> middle;
  if (turned && map() && map()->id == shownMap_ && !fits_) middle = cellAt(QRectF(rect()).center());
  inPlan_.reset();
  if (fromAbove) inPlan_ = inPlan(session_->quilt(), session_->desk().map);
  followFrames();
  if (!map()) return update();
  const Map& shown = *map();
  const auto changed = book_->show(quilt(), shown.id, runsOf(shown, seeing()));
  if (middle) {
    const PixelRect box = makeGrid(shown.grid)->cellBox(*middle);
    const PixelPos by = plane();
    centreOn({box.x + box.w / 2.0 + by.x, box.y + box.h / 2.0 + by.y});
  } else if (turned && shown.id == shownMap_) {
    fitMap();
  }
  if (!changed) return update();
  const auto grid = makeGrid(shown.grid);
  for (const PixelRect& pixels : *changed) {
    const QRect device = deviceTouchedBy(pixels, *grid, scale()).intersected(QRect(origin_, deviceSize()));
    if (!device.isEmpty()) update(fromDevice(device).toAlignedRect().adjusted(-1, -1, 1, 1));
  }
}

QSize MapCanvas::deviceSize() const { return (QSizeF(size()) * devicePixelRatioF()).toSize(); }

QPoint MapCanvas::devicePoint(QPointF at) const {
  const QPointF device = at * devicePixelRatioF();
  return origin_ + QPoint(static_cast<int>(std::floor(device.x())), static_cast<int>(std::floor(device.y())));
}

QRectF MapCanvas::fromDevice(const QRect& device) const {
  const double ratio = devicePixelRatioF();
  return {(device.x() - origin_.x()) / ratio, (device.y() - origin_.y()) / ratio, device.width() / ratio,
          device.height() / ratio};
}

QRectF MapCanvas::cellRect(CellPos cell) const {
  if (!map()) return {};
  return fromDevice(scale().toDevice(makeGrid(map()->grid)->cellBox(cell)).translated(planeShift()));
}

CellPos MapCanvas::cellAt(QPointF at) const {
  if (!map()) return {};
  return makeGrid(map()->grid)->cellAt(scale().toMap(devicePoint(at) - planeShift()));
}

std::optional<CellPos> MapCanvas::hoveredCell() const {
  if (cursor_) return cursor_;
  if (!pointer_ || !map()) return std::nullopt;
  const CellPos cell = cellAt(*pointer_);
  return map()->bounds.contains(cell) ? std::optional(cell) : std::nullopt;
}

void MapCanvas::setZoom(double zoom, QPointF about) {
  if (!map()) return;
  zoom = std::clamp(zoom, kSmallestZoom, kLargestZoom);
  const QPointF device = about * devicePixelRatioF();
  const QPointF map = (QPointF(origin_) + device) / scale().zoom;
  zoom_ = zoom;
  fits_ = false;
  origin_ = (map * scale().zoom - device).toPoint();
  keepMapInSight();
  update();
  Q_EMIT viewChanged();
}

void MapCanvas::zoomBySteps(int steps, std::optional<QPointF> about) {
  double next = zoom_;
  for (; steps > 0; --steps) {
    const auto stop = std::upper_bound(std::begin(kStops), std::end(kStops), next * 1.001);
    next = stop == std::end(kStops) ? kLargestZoom : *stop;
  }
  for (; steps < 0; ++steps) {
    const auto stop = std::lower_bound(std::begin(kStops), std::end(kStops), next * 0.999);
    next = stop == std::begin(kStops) ? kSmallestZoom : *(stop - 1);
  }
  setZoom(next, about.value_or(QRectF(rect()).center()));
}

void MapCanvas::fitMap() {
  if (!map() || width() <= 2 * kMapMargin) return;
  const PixelRect all = session_->painter().extentOf(quilt(), *map(), runsOf(*map(), seeing()));
  const double fit = std::min((width() - 2.0 * kMapMargin) / all.w, (height() - 2.0 * kMapMargin) / all.h);
  zoom_ = std::clamp(fit, kSmallestZoom, kLargestZoom);
  const QRect device = scale().toDevice(all);
  origin_ = device.center() - QRect(QPoint(), deviceSize()).center();
  fits_ = true;
  shownMap_ = session_->desk().map;
  update();
  Q_EMIT viewChanged();
}

void MapCanvas::fitSelection() {
  if (!session_ || session_->desk().selection().empty()) return;
  const PixelRect cells = makeGrid(map()->grid)->pixelBounds(session_->desk().selection().bounds());
  const double fit = std::min((width() - 2.0 * kMapMargin) / cells.w, (height() - 2.0 * kMapMargin) / cells.h);
  zoom_ = std::clamp(fit, kSmallestZoom, kLargestZoom);
  const QPointF shift = QPointF(planeShift()) / scale().zoom;
  centreOn(QPointF(cells.x + cells.w / 2.0, cells.y + cells.h / 2.0) + shift);
}

void MapCanvas::showFullSize() { setZoom(1, pointer_.value_or(QRectF(rect()).center())); }

void MapCanvas::scrollBy(QPointF logical) {
  origin_ += (logical * devicePixelRatioF()).toPoint();
  fits_ = false;
  keepMapInSight();
  update();
  Q_EMIT viewChanged();
}

void MapCanvas::keepMapInSight() {
  if (!map()) return;
  const QRect all = scale().toDevice(makeGrid(map()->grid)->pixelBounds(map()->bounds));
  const QSize seen = deviceSize();
  const int margin = static_cast<int>(64 * devicePixelRatioF());
  origin_.setX(std::clamp(origin_.x(), all.left() - seen.width() + margin, all.right() - margin));
  origin_.setY(std::clamp(origin_.y(), all.top() - seen.height() + margin, all.bottom() - margin));
}

bool MapCanvas::takesAway() const {
  if (!session_ || selects()) return false;
  if (drag_ == Drag::stroke) return dragTakesAway_;
  return session_->desk().tool == Tool::erase || (ctrl_ && !KeyBindings::shared().buttonsExchanged());
}

bool MapCanvas::selects() const { return session_ && session_->desk().tool == Tool::select; }

QColor MapCanvas::landingThread() const {
  const TilesLayer* layer = session_->quilt().layer(session_->desk().landing());
  return layer ? Theme::current().thread(layer->thread) : Theme::current().ink;
}

CellSet MapCanvas::footprint() const {
  const auto cell = hoveredCell();
  CellSet cells;
  if (!cell) return cells;
  const Block& held = session_->desk().inHand;
  if (selects() || session_->desk().tool == Tool::erase || held.empty()) {
    cells.insert(*cell);
    return cells;
  }
  const auto grid = makeGrid(map()->grid);
  const SidePos grip = grid->toSide(*cell);
  if (held.parts().size() <= kMostOutlined) {
    for (const Block::Part& part : held.parts()) cells.insert(grid->fromSide(grip + part.at));
    return cells;
  }
  // Of a very large block only its extent.
  const CellRect extent = held.extent();
  return boxOf(*grid, grid->fromSide(grip + SidePos{extent.x0, extent.y0}),
               grid->fromSide(grip + SidePos{extent.x1 - 1, extent.y1 - 1}));
}

QPointF MapCanvas::pointOf(PixelPos pixel) const {
  const auto device = [&](int at) { return static_cast<int>(std::floor(at * scale().zoom)); };
  return fromDevice(QRect(QPoint(device(pixel.x), device(pixel.y)) + planeShift(), QSize(1, 1))).topLeft();
}

QVector<QLineF> MapCanvas::bordersOf(const CellSet& cells) const {
  QVector<QLineF> lines;
  const auto grid = makeGrid(map()->grid);
  const CellRect seen = grid->cellsMeeting(scale().covering(QRect(planeOrigin(), deviceSize()))).grown(1);
  if (map()->grid.kind == GridKind::orthogonal) {
    const auto corner = [this](CellPos at) { return cellRect(at).topLeft(); };
    for (const CellSet::Border& border : cells.borders(seen)) lines << QLineF(corner(border.from), corner(border.to));
    return lines;
  }
  const int sides = grid->turnOrder();
  for (int side = 0; side < sides; ++side) {
    const auto step = [&](bool oddColumn, bool oddRow) {
      const CellPos at{oddColumn ? 1 : 0, oddRow ? 1 : 0};
      const CellPos to = grid->across(at, side);
      return CellPos{to.x - at.x, to.y - at.y};
    };
    cells.forEachWithoutNeighbour(step, seen, [&](CellPos at) {
      const std::vector<PixelPos> corners = grid->outline(at);
      lines << QLineF(pointOf(corners[static_cast<std::size_t>(side)]),
                      pointOf(corners[static_cast<std::size_t>((side + 1) % sides)]));
    });
  }
  return lines;
}

GhostCells MapCanvas::ghost() const {
  GhostCells ghost{session_->desk().landing().layer, {}};
  const auto cell = hoveredCell();
  if (!cell || selects() || takesAway() || drag_ != Drag::none || !session_->whyNoStroke(false).isEmpty()) return ghost;
  const auto grid = makeGrid(map()->grid);
  for (const Block::Part& part : session_->desk().inHand.parts()) {
    const CellPos at = grid->fromSide(grid->toSide(*cell) + part.at);
    const CellSet& selected = session_->desk().selection();
    const bool free = selected.empty() || selected.contains(at);
    if (free && map()->bounds.contains(at)) {
      ghost.cells.push_back({at, part.cell, inPlan_ ? 0 : std::min(part.lift + session_->desk().lift, kMostLift)});
    }
  }
  return ghost;
}

QString MapCanvas::tagText() const {
  if (!map()) return {};
  if (drag_ == Drag::select || boxFrom_) {
    const CellSet cells = spanned();
    const CellRect all = cells.bounds();
    return tr("%1 × %2 = %3 cells").arg(all.width()).arg(all.height()).arg(cells.count());
  }
  const auto cell = hoveredCell();
  if (!cell || drag_ != Drag::none || space_) return {};
  if (!refusal_.isEmpty()) return refusal_;
  const CellSet& selected = session_->desk().selection();
  if (selects()) {
    const TilesLayer* layer = session_->quilt().layer(session_->desk().landing());
    return selected.contains(*cell) && layer ? tr("Move on %1").arg(QString::fromStdString(layer->name))
                                             : session_->strokeName(false);
  }
  const QString reason = whyNothing();
  if (!reason.isEmpty()) return reason;
  QStringList parts{session_->strokeName(takesAway())};
  if (const QString height = heightText(*cell); !height.isEmpty()) parts << height;
  const auto grid = makeGrid(map()->grid);
  const bool lays = session_->desk().tool == Tool::brush && !takesAway();
  if (const int count = lays ? withoutOtherSide(*grid, session_->desk().inHand) : 0; count > 0) {
    parts << (count == 1 ? tr("1 tile has no other side") : tr("%1 tiles have no other side").arg(count));
  }
  return parts.join(QStringLiteral(" · "));
}

QString MapCanvas::heightText(CellPos cell) const {
  const TilesLayer* layer = session_->quilt().layer(session_->desk().landing());
  const Map& whole = *session_->map();
  const int level = layer ? whole.levelOf(*layer) : 0;
  const int lift = selects() || takesAway() ? 0 : session_->desk().lift;
  if (level == 0 && lift == 0) return {};
  QString text = tr("%1, %2").arg(cell.x - whole.bounds.x0).arg(cell.y - whole.bounds.y0);
  if (level > 0) text += tr(", up %1").arg(level);
  if (level < 0) text += tr(", down %1").arg(-level);
  if (lift > 0) text += tr(", lifted %1 px").arg(lift);
  return text;
}

QString MapCanvas::refusal() const {
  if (!map() || !hoveredCell()) return {};
  return refusal_.isEmpty() ? whyNothing() : refusal_;
}

QString MapCanvas::whyNothing() const {
  if (selects()) return {};
  const QString reason = session_->whyNoStroke(takesAway());
  if (!reason.isEmpty()) return reason;
  const CellSet& selected = session_->desk().selection();
  const bool outside = !selected.empty() && selected.intersected(footprint()).empty();
  return outside ? tr("Outside the selection") : QString();
}

CellSet MapCanvas::spanned() const {
  const auto grid = makeGrid(map()->grid);
  const CellRect bounds = map()->bounds;
  const auto inside = [&](CellPos at) {
    return CellPos{std::clamp(at.x, bounds.x0, bounds.x1 - 1), std::clamp(at.y, bounds.y0, bounds.y1 - 1)};
  };
  const BoxShape shape = session_->desk().box.value_or(usualBox(grid->shape().kind));
  if (boxFrom_ && cursor_) return boxOf(*grid, *boxFrom_, *cursor_, shape).intersected(CellSet(bounds));
  // A drag that begins or ends beyond the map's edge reaches to the edge.
  return boxOf(*grid, inside(pressed_), inside(dragged_), shape).intersected(CellSet(bounds));
}

void MapCanvas::pressToSelect(const QMouseEvent& event) {
  pressed_ = dragged_ = cellAt(event.position());
  pressedAt_ = event.position();
  const bool more = event.modifiers() & Qt::ShiftModifier;
  selecting_ = more ? Selecting::more : ctrl_ ? Selecting::less : Selecting::anew;
  const bool inside = session_->desk().selection().contains(pressed_);
  drag_ = inside && selecting_ == Selecting::anew ? Drag::move : Drag::select;
}

void MapCanvas::moveToSelect(QPointF at) {
  dragged_ = cellAt(at);
  if (drag_ == Drag::select) return update();
  const bool far = (at - pressedAt_).manhattanLength() >= kMoveAfter;
  if (!session_->inStroke() && far) session_->beginMove();
  const auto grid = makeGrid(map()->grid);
  session_->moveSelected(grid->toSide(dragged_) - grid->toSide(pressed_));
}

void MapCanvas::releaseToSelect() {
  // A press inside the selection that never moved selects that cell, like one outside.
  if (drag_ == Drag::move && session_->inStroke()) return session_->endStroke();
  if (drag_ == Drag::move) dragged_ = pressed_;
  const CellSet cells = spanned();
  Desk desk = session_->desk();
  switch (selecting_) {
    case Selecting::anew: desk.select(cells); break;
    case Selecting::more: desk.select(desk.selection().united(cells)); break;
    case Selecting::less: desk.select(desk.selection().without(cells)); break;
  }
  session_->setDesk(std::move(desk));
}

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
  paintOutline(painter);
  paintSelection(painter);
  paintGhost(painter);
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
  const PixelRect pixels{static_cast<int>(seen.x()) - 1, static_cast<int>(seen.y()) - 1, static_cast<int>(seen.width()) + 3,
                         static_cast<int>(seen.height()) + 3};
  const CellRect within = grid->cellsMeeting(pixels).intersected(here->bounds);
  if (std::int64_t{within.width()} * within.height() <= kMostCellsPlayed) {
    for (const Shared<TilesLayer>& layer : here->layers) {
      if (session_->desk().hidden.contains(layer->id)) continue;
      const PixelPos plane = here->planeOf(layer.read());
      layer->cells.forEachPainted(within, [&](CellPos at, Cell cell) {
        if (!animated.contains(cell.tile())) return;
        PixelRect place = session_->painter().placeOf(quilt(), *here, at, cell, layer->lifts.at(at));
        place.x += plane.x;
        place.y += plane.y;
        if (!moving.empty() && moving.back().y == place.y && moving.back().h == place.h && moving.back().right() == place.x) {
          moving.back().w += place.w;
        } else {
          moving.push_back(place);
        }
      });
    }
  }
  Quilt now = inFrame(quilt(), played_.elapsed());
  const bool same = inFrame_ && moving == moving_ && inFrame_->sheets() == now.sheets() && inFrame_->maps() == now.maps();
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

void MapCanvas::setLit(CellSet cells) {
  if (cells == lit_) return;
  lit_ = std::move(cells);
  update();
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
  if (drag_ != Drag::select && !(boxFrom_ && cursor_)) return;
  const bool less = drag_ == Drag::select && selecting_ == Selecting::less;
  drawStitchLines(painter, bordersOf(spanned()), less ? theme.weld : theme.madder, theme.paper);
}

QRect MapCanvas::overlay() const {
  const CellSet cells = footprint();
  if (cells.empty()) return {};
  QRectF area = boxAround(cells);
  const Map& here = *map();
  if (const GhostCells shown = ghost(); !shown.cells.empty()) {
    const PixelRect drawn = session_->painter().areaOf(quilt(), here, runsOf(here, seeing()), shown);
    area = area.united(fromDevice(scale().toDevice(drawn)));
  }
  // Down to the ground under what is raised, and up to it from what is sunk.
  const TilesLayer* layer = quilt().layer(session_->desk().landing());
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
  const std::vector<Shared<TilesLayer>>& layers = map()->layers;
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

QRectF MapCanvas::boxAround(const CellSet& cells) const {
  const CellRect bounds = cells.bounds();
  if (bounds.empty()) return {};
  const PixelRect pixels = makeGrid(map()->grid)->pixelBounds(bounds);
  return fromDevice(scale().toDevice(pixels).translated(planeShift()));
}

void MapCanvas::paintGround(QPainter& painter, const QRectF& part) const {
  const auto grid = makeGrid(map()->grid);
  const QColor ground = Theme::current().surround.lighter(118);
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
  for (const Shared<TilesLayer>& layer : map()->layers) {
    if (session_->desk().hidden.contains(layer->id)) continue;
    const QPoint shift = deviceShift(map()->planeOf(layer.read()), scale());
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
  const CellSet cells = footprint();
  if (cells.empty() || drag_ != Drag::none || space_) return;
  const GhostCells shown = ghost();
  if (!shown.cells.empty()) {
    const Map& here = *map();
    const std::vector<Run> runs = runsOf(here, seeing());
    const PixelRect area = session_->painter().areaOf(quilt(), here, runs, shown);
    const QRect part = scale().toDevice(area).adjusted(-1, -1, 1, 1).intersected(QRect(origin_, deviceSize()));
    if (!part.isEmpty()) {
      QImage picture = session_->painter().draw(quilt(), here, runs, scale(), part, &shown);
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
  const TilesLayer* layer = quilt().layer(session_->desk().landing());
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

QRectF MapCanvas::tagRect(const QString& text) const {
  const QRectF beside = boxAround(footprint());
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
  const bool lands = refusal_.isEmpty() && whyNothing().isEmpty();
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

void MapCanvas::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  if (fits_) {
    fitMap();
  } else {
    // What is in the middle stays there.
    const QSizeF grown = QSizeF(size() - placedFor_) * devicePixelRatioF();
    origin_ -= QPointF(grown.width() / 2, grown.height() / 2).toPoint();
    keepMapInSight();
  }
  placedFor_ = size();
}

bool MapCanvas::event(QEvent* event) {
  // Esc and letters belong to the canvas while it has the focus, and function keys that act on it.
  if (event->type() == QEvent::ShortcutOverride) {
    const auto& key = *static_cast<QKeyEvent*>(event);
    const bool plain = !(key.modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
    const bool isFunction = key.key() >= Qt::Key_F1 && key.key() <= Qt::Key_F35;
    if (plain && (!isFunction || actions_->actionFor(key))) event->accept();
  }
  return QWidget::event(event);
}

void MapCanvas::showCursor() {
  setCursor(drag_ == Drag::pan ? Qt::ClosedHandCursor : space_ ? Qt::OpenHandCursor : Qt::ArrowCursor);
}

void MapCanvas::say(const QString& refusal) {
  refusal_ = refusal;
  update();
}

void MapCanvas::mousePressEvent(QMouseEvent* event) {
  pointer_ = event->position();
  cursor_.reset();
  boxFrom_.reset();
  if (heldTool_) heldTool_->used = true;
  if (!map() || drag_ != Drag::none) return;
  ctrl_ = event->modifiers() & Qt::ControlModifier;
  const bool left = event->button() == Qt::LeftButton;
  const bool right = event->button() == Qt::RightButton;
  // As the user wants it: right takes and Ctrl+left takes away, or the other way round.
  const bool exchanged = KeyBindings::shared().buttonsExchanged();
  const bool takes = exchanged ? left && ctrl_ && !selects() : right;
  const bool lays = left || (exchanged && right && !selects());
  const bool pans = event->button() == Qt::MiddleButton || (left && space_);
  dragButton_ = event->button();
  if (pans) {
    drag_ = Drag::pan;
    lastPan_ = event->position();
    showCursor();
  } else if (takes) {
    behind_ = takenAt_ == event->position() ? behind_ + 1 : 0;
    takenAt_ = event->position();
    taken_ = hoveredCell() ? session_->takeFromMap(scale().toMap(devicePoint(event->position())), behind_) : PixelRect();
    if (hoveredCell() && taken_.empty()) say(tr("Nothing to take here"));
  } else if (left && selects()) {
    if (hoveredCell()) pressToSelect(*event);
  } else if (lays && hoveredCell()) {
    dragTakesAway_ = right || takesAway();
    session_->beginStroke(dragTakesAway_, *hoveredCell());
    if (session_->inStroke()) drag_ = Drag::stroke;
  }
  update();
}

void MapCanvas::mouseMoveEvent(QMouseEvent* event) {
  const auto before = hoveredCell();
  // A canvas that moves under a resting pointer is no movement of the hand.
  if (pointer_ != event->position()) cursor_.reset();
  if (takenAt_ != event->position()) takenAt_.reset();
  if (!cursor_) boxFrom_.reset();
  pointer_ = event->position();
  ctrl_ = event->modifiers() & Qt::ControlModifier;
  if (!map()) return;
  if (drag_ == Drag::pan) {
    scrollBy(lastPan_ - event->position());
    lastPan_ = event->position();
  } else if (drag_ == Drag::stroke) {
    session_->moveStroke(cellAt(event->position()));
  } else if (drag_ == Drag::select || drag_ == Drag::move) {
    moveToSelect(event->position());
  }
  if (hoveredCell() != before) {
    refusal_.clear();
    updateOverlay();
  }
  Q_EMIT hovered();
}

void MapCanvas::mouseReleaseEvent(QMouseEvent* event) {
  if (!taken_.empty() && event->button() == dragButton_) {
    taken_ = {};
    update();
  }
  if (drag_ == Drag::none || event->button() != dragButton_) return;
  if (drag_ == Drag::stroke && session_) session_->endStroke();
  if ((drag_ == Drag::select || drag_ == Drag::move) && session_) releaseToSelect();
  drag_ = Drag::none;
  showCursor();
  update();
}

void MapCanvas::wheelEvent(QWheelEvent* event) {
  const QPoint angle = event->angleDelta();
  if (event->modifiers() & Qt::ControlModifier) {
    const int steps = angle.y() > 0 ? 1 : angle.y() < 0 ? -1 : 0;
    if (steps != 0) zoomBySteps(steps, event->position());
  } else {
    const QPointF by = event->pixelDelta().isNull() ? QPointF(angle) / 2 : QPointF(event->pixelDelta());
    const bool sideways = event->modifiers() & Qt::ShiftModifier;
    scrollBy(sideways && by.x() == 0 ? QPointF(-by.y(), 0) : -by);
  }
  event->accept();
}

void MapCanvas::keyPressEvent(QKeyEvent* event) {
  const bool shift = event->modifiers() & Qt::ShiftModifier;
  const auto arrow = [&](int dx, int dy) {
    if (cursor_ && drag_ == Drag::none) {
      moveCursor(dx, dy, shift);
    } else if (selects() && !session_->desk().selection().empty() && drag_ == Drag::none) {
      const auto grid = makeGrid(map()->grid);
      const CellRect selected = session_->desk().selection().bounds();
      const CellPos first{selected.x0, selected.y0};
      session_->nudgeSelected(grid->toSide(grid->stepped(first, dx, dy)) - grid->toSide(first));
    } else if (map()) {
      const PixelSize cell = map()->grid.cell;
      scrollBy(QPointF(dx * cell.w, dy * cell.h) * zoom_);
    }
  };
  if (event->key() == Qt::Key_Control) ctrl_ = true;
  if (event->key() == Qt::Key_Space && !event->isAutoRepeat()) space_ = true;
  switch (event->key()) {
    case Qt::Key_Control:
    case Qt::Key_Space: break;
    case Qt::Key_Left: arrow(-1, 0); break;
    case Qt::Key_Right: arrow(1, 0); break;
    case Qt::Key_Up: arrow(0, -1); break;
    case Qt::Key_Down: arrow(0, 1); break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (cursor_ && drag_ == Drag::none) useCursor(event->modifiers() & Qt::ControlModifier);
      break;
    case Qt::Key_Escape:
      // A drag that spans a selection is the canvas's own.
      if (drag_ == Drag::select) {
        drag_ = Drag::none;
        break;
      }
      if (boxFrom_) {
        boxFrom_.reset();
        break;
      }
      actions_->handleKey(*event);
      if ((drag_ == Drag::stroke || drag_ == Drag::move) && !session_->inStroke()) drag_ = Drag::none;
      break;
    default: {
      const auto action = actions_->actionFor(*event);
      const bool isTool = action == ActionId::brush || action == ActionId::erase || action == ActionId::select;
      if (isTool && session_ && !event->isAutoRepeat()) heldTool_ = HeldTool{event->key(), session_->desk().tool};
      if (isTool && event->isAutoRepeat()) break;
      if (!actions_->handleKey(*event)) QWidget::keyPressEvent(event);
    }
  }
  showCursor();
  update();
}

void MapCanvas::keyReleaseEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Control) ctrl_ = false;
  if (event->key() == Qt::Key_Space && !event->isAutoRepeat()) space_ = false;
  if (heldTool_ && heldTool_->key == event->key() && !event->isAutoRepeat()) {
    const HeldTool held = *std::exchange(heldTool_, std::nullopt);
    if (held.used && session_ && drag_ == Drag::none) {
      Desk desk = session_->desk();
      desk.tool = held.before;
      session_->setDesk(std::move(desk));
    }
  }
  showCursor();
  update();
  QWidget::keyReleaseEvent(event);
}

void MapCanvas::leaveEvent(QEvent*) {
  pointer_.reset();
  refusal_.clear();
  updateOverlay();
  Q_EMIT hovered();
}

void MapCanvas::focusInEvent(QFocusEvent* event) {
  const bool byTab = event->reason() == Qt::TabFocusReason || event->reason() == Qt::BacktabFocusReason;
  if (byTab && map()) {
    // Where the pointer was, else in the middle of what is seen of the map.
    const CellRect bounds = map()->bounds;
    const CellPos middle = cellAt(QRectF(rect()).center());
    cursor_ = hoveredCell().value_or(
        CellPos{std::clamp(middle.x, bounds.x0, bounds.x1 - 1), std::clamp(middle.y, bounds.y0, bounds.y1 - 1)});
    describeCursor();
    Q_EMIT hovered();
  }
  update();
  QWidget::focusInEvent(event);
}

void MapCanvas::moveCursor(int dx, int dy, bool extends) {
  const CellRect bounds = map()->bounds;
  if (extends && !boxFrom_) boxFrom_ = cursor_;
  if (!extends) boxFrom_.reset();
  const CellPos next = makeGrid(map()->grid)->stepped(*cursor_, dx, dy);
  cursor_ = CellPos{std::clamp(next.x, bounds.x0, bounds.x1 - 1), std::clamp(next.y, bounds.y0, bounds.y1 - 1)};
  refusal_.clear();
  // The cursor stays in sight.
  const QRectF cell = cellRect(*cursor_).adjusted(-8, -8, 8, 8);
  QPointF by;
  if (cell.right() > width()) by.rx() = cell.right() - width();
  if (cell.left() < 0) by.rx() = cell.left();
  if (cell.bottom() > height()) by.ry() = cell.bottom() - height();
  if (cell.top() < 0) by.ry() = cell.top();
  if (!by.isNull()) scrollBy(by);
  describeCursor();
  update();
  Q_EMIT hovered();
}

void MapCanvas::useCursor(bool takesAway) {
  if (!boxFrom_) boxFrom_ = cursor_;
  const CellSet spanned = this->spanned();
  const CellRect cells = spanned.bounds();
  boxFrom_.reset();
  if (selects()) {
    Desk desk = session_->desk();
    desk.select(takesAway ? desk.selection().without(spanned) : spanned);
    session_->setDesk(std::move(desk));
  } else {
    takesAway = takesAway || session_->desk().tool == Tool::erase;
    if (const QString why = session_->whyNoStroke(takesAway); !why.isEmpty()) return say(why);
    // Forth along one row and back along the next, so that the stroke covers the box.
    session_->beginStroke(takesAway, {cells.x0, cells.y0}, spanned);
    for (int y = cells.y0; y < cells.y1; ++y) {
      const bool forth = (y - cells.y0) % 2 == 0;
      session_->moveStroke({forth ? cells.x0 : cells.x1 - 1, y});
      session_->moveStroke({forth ? cells.x1 - 1 : cells.x0, y});
    }
    session_->endStroke();
  }
  describeCursor();
}

void MapCanvas::describeCursor() {
  const Map& here = *map();
  QStringList tiles;
  for (auto nearest = here.layers.rbegin(); nearest != here.layers.rend(); ++nearest) {
    const Cell cell = (*nearest)->cells.at(*cursor_);
    if (cell.empty()) continue;
    const Sheet* sheet = session_->quilt().sheetAt(cell.tile().slot);
    const QString name =
        sheet ? QString::fromStdString(sheet->tileName(cell.tile().number)) : tr("tile %1").arg(cell.tile().number);
    tiles << tr("%1 on %2").arg(name, QString::fromStdString((*nearest)->name));
  }
  setAccessibleDescription(tr("Cell %1, %2: %3")
                               .arg(cursor_->x - here.bounds.x0)
                               .arg(cursor_->y - here.bounds.y0)
                               .arg(tiles.isEmpty() ? tr("empty") : tiles.join(tr(", "))));
  QAccessibleEvent told(this, QAccessible::DescriptionChanged);
  QAccessible::updateAccessibility(&told);
}

void MapCanvas::focusOutEvent(QFocusEvent* event) {
  cursor_.reset();
  boxFrom_.reset();
  heldTool_.reset();
  space_ = false;
  ctrl_ = false;
  showCursor();
  update();
  QWidget::focusOutEvent(event);
}

}  // namespace uq
