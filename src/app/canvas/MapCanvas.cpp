#include "app/canvas/MapCanvas.h"

#include <QAccessible>
#include <QKeyEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/actions/KeyBindings.h"
#include "app/canvas/Lens.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/cells/CellReader.h"
#include "core/document/FrameTime.h"
#include "core/document/PlanView.h"
#include "core/edit/MapFacts.h"
#include "core/edit/Region.h"
#include "core/edit/Turned.h"
#include "core/work/StepNames.h"

namespace uq {

namespace {

constexpr double kFrameReach = 6;  // logical pixels
constexpr int kCameraTick = 16;    // milliseconds
constexpr int kCameraSpeed = 160;  // map pixels a second

constexpr double kStops[] = {0.002, 0.003, 0.005, 0.007, 0.01, 0.015, 0.02, 0.03, 0.05, 0.07, 0.1, 0.15, 0.2, 0.25, 0.33, 0.5, 0.67, 0.75,
                             1,    1.25, 1.5,  2,    3,   4,    6,   8,    12,   16,  24,   32};
constexpr int kMapMargin = 24;                // logical pixels round a fitted map
constexpr std::size_t kMostForetold = 65536;  // parts of what is in hand
constexpr double kHandle = 9;                 // logical pixels, how near a handle is meant

// What the tag calls a stroke with the tool of the desk.
QString strokeTag(Session& session, bool takesAway, const Landing* landing = nullptr) {
  const Desk& desk = session.desk();
  return QString::fromStdString(strokeName(desk, session.quilt(), desk.tool, takesAway, landing));
}

}  // namespace

MapCanvas::MapCanvas(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("canvas"));
  setAccessibleName(tr("Map"));
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setAttribute(Qt::WA_OpaquePaintEvent);
  setMinimumSize(240, 180);
  connect(&cameraTimer_, &QTimer::timeout, this, &MapCanvas::stepCamera);
  connect(&ticks_, &QTimer::timeout, this, &MapCanvas::tick);
}

void MapCanvas::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  // It shows a cell of the quilt from before.
  if (lens_) lens_->deleteLater();
  lens_ = nullptr;
  session_ = session;
  lit_ = {};
  book_.reset();
  jointFinder_.reset();
  cameraTimer_.stop();
  views_.clear();
  shownMap_ = {};
  fits_ = true;
  drag_ = Drag::none;
  forecast_.reset();
  handlesGone_ = false;
  cursor_.reset();
  boxFrom_.reset();
  heldTool_.reset();
  if (session_) {
    book_ = std::make_unique<SwatchBook>(session_->painter().pictures(), [this] {
      QMetaObject::invokeMethod(this, &MapCanvas::paintArrivals, Qt::QueuedConnection);
    });
    jointFinder_ = std::make_unique<JointFinder>(session_->painter().pictures());
    connect(session_, &Session::quiltChanged, this, &MapCanvas::followMap);
    connect(session_, &Session::gestureMoved, this, [this] {
      followMap();
      const Gesture* gesture = session_->work().gesture();
      if (gesture && gesture->selected()) update();  // the selection went along
    });
    connect(session_, &Session::refused, this, &MapCanvas::say);
    connect(session_, &Session::gestureEnded, this, &MapCanvas::endDrag);
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

int MapCanvas::liftShown() const { return inPlan_ || selects() || takesAway() ? 0 : session_->desk().lift; }

PixelPos MapCanvas::plane() const {
  const Layer* layer = map() ? quilt().layer(session_->desk().landing()) : nullptr;
  if (!layer) return {};
  const PixelPos at = planeOn(*layer);
  return {at.x, at.y - liftShown()};
}

QPoint MapCanvas::planeShift() const { return deviceShift(plane(), scale()); }

Seeing MapCanvas::seeing() const {
  const Desk& desk = session_->desk();
  return {desk.hidden, desk.fadesOthers ? desk.landing().layer : Id(), desk.camera(), desk.othersShown,
          map() ? tintsFor(*map(), desk.tinting, desk.landing().layer) : std::map<Id, Colour>()};
}

PixelPos MapCanvas::planeOn(const Layer& layer) const {
  const PixelPos at = map()->planeOf(layer);
  const auto camera = session_->desk().camera();
  const PixelPos by = camera ? movedBy(layer.parallax, *camera) : PixelPos{};
  return {at.x + by.x, at.y + by.y};
}

std::optional<QRectF> MapCanvas::frameRect() const {
  const auto camera = session_ && map() ? session_->desk().camera() : std::nullopt;
  if (!camera) return std::nullopt;
  const PixelSize screen = screenOf(quilt(), *map());
  return fromDevice(scale().toDevice(PixelRect{camera->x, camera->y, screen.w, screen.h}));
}

QRectF MapCanvas::frameTab() const {
  const auto frame = frameRect();
  if (!frame) return {};
  const QSizeF size(fontMetrics().horizontalAdvance(frameText()) + 2 * kGap, fontMetrics().height() + 6);
  QRectF tab(frame->topLeft() - QPointF(0, size.height()), size);
  if (tab.top() < 2) tab.moveTop(std::max(2.0, frame->top() + 4));
  return tab;
}

QString MapCanvas::frameText() const {
  const PixelSize screen = screenOf(quilt(), *map());
  const PixelPos at = *session_->desk().camera();
  return tr("Screen %1 × %2 at %3, %4").arg(screen.w).arg(screen.h).arg(at.x).arg(at.y);
}

bool MapCanvas::isOnFrame(QPointF at) const {
  const auto frame = frameRect();
  if (!frame) return false;
  const bool near = frame->adjusted(-kFrameReach, -kFrameReach, kFrameReach, kFrameReach).contains(at);
  const bool inside = frame->adjusted(kFrameReach, kFrameReach, -kFrameReach, -kFrameReach).contains(at);
  return frameTab().contains(at) || (near && !inside);
}

void MapCanvas::playCamera(bool on) {
  if (on == cameraTimer_.isActive() || !map()) return;
  if (!on) return cameraTimer_.stop();
  Desk desk = session_->desk();
  desk.showsFrame = true;
  session_->setDesk(std::move(desk));
  cameraPlayed_.start();
  cameraTimer_.start(kCameraTick);
}

void MapCanvas::stepCamera() {
  if (!session_ || !map() || !session_->desk().showsFrame) return cameraTimer_.stop();
  const PixelRect all = makeGrid(map()->grid)->pixelBounds(map()->bounds);
  const PixelSize screen = screenOf(quilt(), *map());
  session_->verbs().maps.setCamera(cameraOnItsWay(all, screen, static_cast<int>(cameraPlayed_.elapsed() * kCameraSpeed / 1000)));
}

void MapCanvas::followMap() {
  forecast_.reset();
  const bool fromAbove =
      session_ && session_->map() && session_->desk().planView && hasPlan(session_->map()->grid.kind);
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
    const QPoint was = origin_;
    centreOn({box.x + box.w / 2.0 + by.x, box.y + box.h / 2.0 + by.y});
    if (planTurn_.map == shown.id && planTurn_.zoom == zoom_ && planTurn_.after == was) origin_ = planTurn_.before;
    planTurn_ = {shown.id, zoom_, was, origin_};
    Q_EMIT viewChanged();
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

void MapCanvas::showFullSize() {
  const double times = map() ? map()->shownTimes : 1;
  // Pressed again, as the game shows it, and back.
  setZoom(zoom_ == 1 ? times : 1, pointer_.value_or(QRectF(rect()).center()));
}

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
  const Stroke* stroke = strokeShown();
  const Landing* landing = stroke && !stroke->landing().layers.empty() ? &stroke->landing() : nullptr;
  const Layer* layer =
      landing ? landing->quilt.layer(landing->layers.front()) : session_->quilt().layer(session_->desk().landing());
  return layer ? Theme::current().thread(layer->thread) : Theme::current().ink;
}

CellSet MapCanvas::footprint() const {
  const auto cell = hoveredCell();
  CellSet cells;
  if (!cell) return cells;
  const Stroke* stroke = forecast();
  if (stroke && !stroke->cells().empty()) return stroke->cells();
  if (stroke && !stroke->shape().empty()) return stroke->shape();
  cells.insert(*cell);
  return cells;
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
  const Stroke* stroke = forecast();
  if (!stroke || stroke->plan().takesAway || stroke->landing().layers.empty()) return ghost;
  if (!stroke->plan().hand.others.empty() || stroke->cells().count() > kMostGhost) return ghost;
  const LayerAt at = stroke->landing().layers.front();
  const Layer* laid = stroke->quilt().layer(at);
  if (!laid) return ghost;
  ghost.layer = at.layer;
  stroke->cells().forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const CellPos cell{first.x + i, first.y};
      ghost.cells.push_back({cell, laid->cells.at(cell), inPlan_ ? 0 : laid->lifts.at(cell)});
    }
  });
  return ghost;
}

bool MapCanvas::isEven() const { return shift_; }

Strokes::Ask MapCanvas::strokeAt(CellPos cell) const {
  Strokes::Ask ask;
  ask.takesAway = drag_ == Drag::stroke ? dragTakesAway_ : takesAway();
  const Tool tool = session_->desk().tool;
  const bool stretches = session_->desk().inHand.manner == Manner::stretch;
  const bool byPath = (tool == Tool::brush && !stretches) || tool == Tool::erase;
  if (byPath && shift_ && session_->work().lastPoint()) {
    ask.path = {*session_->work().lastPoint(), cell};
  } else {
    ask.path = {cell};
  }
  ask.even = !byPath && tool != Tool::fill && shift_;
  ask.everywhere = tool == Tool::fill && shift_;
  return ask;
}

const Stroke* MapCanvas::forecast() const {
  const auto cell = hoveredCell();
  if (!cell || selects() || drag_ != Drag::none || session_->inGesture() || isOverStretch()) return nullptr;
  const bool away = takesAway();
  if (!whyNoStroke(session_->work(), away).empty()) return nullptr;
  if (session_->desk().inHand.parts().size() > kMostForetold) return nullptr;
  const bool same = forecast_ && forecastAway_ == away && forecastEven_ == shift_;
  const bool fills = session_->desk().tool == Tool::fill;
  const bool here = forecastAt_ == *cell || (fills && forecast_ && forecast_->shape().contains(*cell));
  if (!same || !here) {
    forecast_.emplace(session_->verbs().strokes.tryOut(strokeAt(*cell)));
    forecastAt_ = *cell;
    forecastAway_ = away;
    forecastEven_ = shift_;
  }
  return &*forecast_;
}

const Stroke* MapCanvas::strokeShown() const { return session_->verbs().strokes.stroke() ? session_->verbs().strokes.stroke() : forecast(); }

QString MapCanvas::tagText() const {
  if (!map()) return {};
  const auto cell = hoveredCell();
  if (drag_ == Drag::select || drag_ == Drag::take || boxFrom_) {
    const CellSet cells = spanned();
    const CellRect all = cells.bounds();
    const QString size = tr("%1 × %2 = %3 cells").arg(all.width()).arg(all.height()).arg(cells.count());
    if (drag_ != Drag::take) return size;
    return (ctrl_ ? tr("Cut %1") : shift_ ? tr("Take %1 of all layers") : tr("Take %1")).arg(size);
  }
  if (!refusal_.isEmpty() && cell && drag_ == Drag::none) return refusal_;
  if (const Layer* hung = drag_ == Drag::hang || drag_ == Drag::none ? hangs() : nullptr;
      hung && (cell || drag_ == Drag::hang)) {
    const QString name = QString::fromStdString(hung->name);
    if (drag_ == Drag::none) return tr("Drag moves %1").arg(name);
    const QString place = tr("%1 at %2, %3").arg(name).arg(hung->offset.x).arg(hung->offset.y);
    return hungTo_.empty() ? place : tr("%1 · %2").arg(place, QString::fromStdString(hungTo_));
  }
  const Stroke* stroke = strokeShown();
  if (drag_ == Drag::stroke || drag_ == Drag::refit) return stroke ? strokeText(*stroke) : QString();
  if (!cell || drag_ != Drag::none || space_) return {};
  const CellSet& selected = session_->desk().selection();
  if (selects()) {
    const Layer* layer = session_->quilt().layer(session_->desk().landing());
    if (selected.contains(*cell) && layer) {
      return session_->desk().options.allLayers ? tr("Move on all layers")
                                                : tr("Move on %1").arg(QString::fromStdString(layer->name));
    }
    const SelectBy by = session_->desk().options.selectBy;
    if (by == SelectBy::touching || by == SelectBy::everywhere) {
      return tr("%1 · %n cell(s)", nullptr, static_cast<int>(alike(*cell).count())).arg(strokeTag(*session_, false));
    }
    return strokeTag(*session_, false);
  }
  const QString reason = whyNothing();
  if (!reason.isEmpty()) return reason;
  if (isOverStretch()) return tr("Drag an end to fit it anew · , and . change its look");
  QStringList parts{strokeTag(*session_, takesAway(), stroke ? &stroke->landing() : nullptr)};
  if (const QString height = heightText(*cell); !height.isEmpty()) parts << height;
  const Tool tool = session_->desk().tool;
  if (stroke && tool == Tool::fill) {
    parts << tr("%n cell(s)", nullptr, static_cast<int>(stroke->cells().count()));
  }
  const auto grid = makeGrid(map()->grid);
  const bool lays = tool != Tool::erase && !takesAway();
  if (const int count = lays ? withoutOtherSide(*grid, session_->desk().inHand.block) : 0; count > 0) {
    parts << (count == 1 ? tr("1 tile has no other side") : tr("%1 tiles have no other side").arg(count));
  }
  if (const std::vector<JointAt> loose = lays ? hoveredJoints() : std::vector<JointAt>(); !loose.empty()) {
    const TileRef tile = loose.front().joint.between;
    const Sheet* sheet = session_->quilt().sheetAt(tile.slot);
    const QString name = sheet ? QString::fromStdString(sheet->tileName(tile.number)) : QString();
    parts << tr("%n side(s) loose, %1 belongs there", nullptr, static_cast<int>(loose.size())).arg(name);
  }
  return parts.join(QStringLiteral(" · "));
}

// What a stroke under way does; shapes say how large they are.
QString MapCanvas::strokeText(const Stroke& stroke) const {
  if (!stroke.refusal().empty()) return QString::fromStdString(stroke.refusal());
  const Tool tool = stroke.plan().tool;
  const bool byPath = (tool == Tool::brush || tool == Tool::erase) && !stroke.stretchBox();
  const qint64 kept = stroke.kept();
  const QString keeps = kept > 0 ? tr("%n kept", nullptr, static_cast<int>(kept)) : QString();
  if (byPath || tool == Tool::fill) return keeps;
  const auto grid = makeGrid(map()->grid);
  CellRect all = stroke.shape().bounds();
  if (stroke.stretchBox()) all = *stroke.stretchBox();
  const bool asSeen = session_->desk().box.value_or(usualBox(map()->grid.kind)) == BoxShape::asSeen;
  QString size = tr("%1 × %2").arg(all.width()).arg(all.height());
  if (tool == Tool::line && !stroke.stretchBox()) {
    size.clear();
  } else if (asSeen && !stroke.stretchBox() && map()->grid.kind != GridKind::orthogonal) {
    // Rows of shifted cells are not equally long.
    const CellSet& cells = stroke.shape();
    const CellRect row{all.x0, all.y0, all.x1, all.y0 + 1};
    const CellRect next{all.x0, all.y0 + 1, all.x1, all.y0 + 2};
    const auto first = cells.intersected(CellSet(row)).count();
    const auto second = cells.intersected(CellSet(next)).count();
    if (all.height() > 1 && first != second) size = tr("%1/%2 × %3").arg(first).arg(second).arg(all.height());
  }
  QStringList parts{strokeTag(*session_, stroke.plan().takesAway, &stroke.landing())};
  const QString count = tr("%n cell(s)", nullptr, static_cast<int>(stroke.shape().count()));
  parts << (size.isEmpty() ? count : tr("%1 = %2").arg(size, count));
  if (!keeps.isEmpty()) parts << keeps;
  return parts.join(QStringLiteral(" · "));
}

QString MapCanvas::heightText(CellPos cell) const {
  const Layer* layer = session_->quilt().layer(session_->desk().landing());
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
  const QString reason = QString::fromStdString(whyNoStroke(session_->work(), takesAway()));
  if (!reason.isEmpty()) return reason;
  const Stroke* stroke = forecast();
  if (stroke && !stroke->refusal().empty()) return QString::fromStdString(stroke->refusal());
  const CellSet& selected = session_->desk().selection();
  const bool outside = !selected.empty() && stroke && stroke->cells().empty();
  return outside ? tr("Outside the selection") : QString();
}

std::vector<MapCanvas::Handle> MapCanvas::handles() const {
  std::vector<Handle> all;
  const auto box = session_ && map() && !handlesGone_ ? session_->verbs().strokes.stretchBox() : std::nullopt;
  if (!box || box->empty()) return all;
  const auto grid = makeGrid(map()->grid);
  // The middle of the edge beyond which the next cell would be.
  const auto at = [&](int u, int v, int outU, int outV) {
    const PixelRect in = grid->cellBox(grid->fromSide({u, v}));
    const PixelRect out = grid->cellBox(grid->fromSide({u + outU, v + outV}));
    const PixelPos middle{(2 * in.x + in.w + 2 * out.x + out.w) / 4, (2 * in.y + in.h + 2 * out.y + out.h) / 4};
    return pointOf(middle);
  };
  const int u = (box->x0 + box->x1 - 1) / 2;
  const int v = (box->y0 + box->y1 - 1) / 2;
  const InHand& stretch = *session_->verbs().strokes.stretchLaid();
  const bool wide = !widthsOf(stretch).most;
  const bool tall = !heightsOf(stretch).most;
  if (wide) all.push_back({at(box->x0, v, -1, 0), -1, 0});
  if (wide) all.push_back({at(box->x1 - 1, v, 1, 0), 1, 0});
  if (tall) all.push_back({at(u, box->y0, 0, -1), 0, -1});
  if (tall) all.push_back({at(u, box->y1 - 1, 0, 1), 0, 1});
  if (wide && tall) all.push_back({at(box->x1 - 1, box->y1 - 1, 1, 1), 1, 1});
  return all;
}

bool MapCanvas::isOverStretch() const {
  const auto cell = hoveredCell();
  const auto box = session_ && map() && !handlesGone_ ? session_->verbs().strokes.stretchBox() : std::nullopt;
  if (!cell || !box) return false;
  const SidePos at = makeGrid(map()->grid)->toSide(*cell);
  return box->contains({at.u, at.v});
}

std::optional<MapCanvas::Handle> MapCanvas::handleAt(QPointF at) const {
  for (const Handle& handle : handles()) {
    if ((handle.at - at).manhattanLength() <= kHandle) return handle;
  }
  return std::nullopt;
}

CellSet MapCanvas::alike(CellPos at) const {
  RegionAsk ask;
  const Desk& desk = session_->desk();
  ask.layer = desk.landing();
  ask.everywhere = desk.options.selectBy == SelectBy::everywhere;
  ask.onlyThis = desk.options.onlyThis;
  ask.through = desk.options.throughCorners ? Through::corners : Through::sides;
  ask.asSeen = desk.options.asSeen.value_or(usuallyAsSeen(session_->quilt(), ask.layer, at));
  ask.hidden = desk.hidden;
  ask.hand = &desk.inHand;
  return regionOf(session_->quilt(), ask, at);
}

void MapCanvas::setLit(CellSet cells) {
  if (cells == lit_) return;
  lit_ = std::move(cells);
  update();
}

QRectF MapCanvas::boxAround(const CellSet& cells) const {
  const CellRect bounds = cells.bounds();
  if (bounds.empty()) return {};
  const PixelRect pixels = makeGrid(map()->grid)->pixelBounds(bounds);
  return fromDevice(scale().toDevice(pixels).translated(planeShift()));
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

}  // namespace uq
