#include "app/canvas/MapCanvas.h"

#include <QPaintEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/actions/KeyBindings.h"
#include "app/canvas/CameraFrame.h"
#include "app/canvas/Lens.h"
#include "app/canvas/MapEdges.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/edit/Camera.h"
#include "core/edit/MapFacts.h"

namespace uq {

namespace {

constexpr int kCameraTick = 16;    // milliseconds
constexpr int kCameraSpeed = 160;  // map pixels a second

}  // namespace

MapCanvas::MapCanvas(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("canvas"));
  setAccessibleName(tr("Map"));
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setAttribute(Qt::WA_OpaquePaintEvent);
  setMinimumSize(240, 180);
  connect(&cameraTimer_, &QTimer::timeout, this, &MapCanvas::stepCamera);
}

void MapCanvas::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  // It shows a cell of the quilt from before.
  if (lens_) lens_->deleteLater();
  lens_ = nullptr;
  session_ = session;
  lit_ = {};
  book_.reset();
  allowance_.reset();
  played_.reset();
  neighbours_.reset();
  forecast_.reset();
  scene_.reset();
  cameraTimer_.stop();
  views_.clear();
  shownMap_ = {};
  fits_ = true;
  drag_ = Drag::none;
  handlesGone_ = false;
  cursor_.reset();
  boxFrom_.reset();
  heldTool_.forget();
  if (session_) {
    scene_ = std::make_unique<Scene>(*session_);
    forecast_ = std::make_unique<Forecast>(*scene_);
    neighbours_ = std::make_unique<NeighbourView>(*scene_, [this] {
      QMetaObject::invokeMethod(this, qOverload<>(&MapCanvas::update), Qt::QueuedConnection);
    });
    played_ = std::make_unique<PlayedTiles>(*scene_, [this] { return isVisible() ? sight() : MapView(); });
    book_ = std::make_unique<SwatchBook>(session_->painter().pictures(), [this] {
      QMetaObject::invokeMethod(this, &MapCanvas::paintArrivals, Qt::QueuedConnection);
    });
    connect(played_.get(), &PlayedTiles::changed, this,
            [this](const QRect& part) { part.isEmpty() ? update() : update(part); });
    connect(session_, &Session::quiltChanged, this, &MapCanvas::followMap);
    connect(session_, &Session::gestureMoved, this, [this] {
      followMap();
      const Gesture* gesture = session_->work().gesture();
      if (gesture && gesture->selected()) update();  // the selection went along
    });
    connect(session_, &Session::refused, this, &MapCanvas::say);
    connect(session_, &Session::gestureEnded, this, &MapCanvas::endDrag);
    connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
      // What is in hand and selected is no part of the picture of the map.
      if (change.map || change.layer || change.sight || change.table) followDesk();
      // What was pressed on another map places and moves nothing here.
      if (change.map && (drag_ == Drag::pins || drag_ == Drag::pinFrame)) drag_ = Drag::none;
      if (change.map || change.selection) showArrival();
      if (change.map || change.layer || change.sight || change.table) return;
      forecast_->forget();
      update();
    });
  }
  followMap();
  fitMap();
  update();
}

const Map* MapCanvas::map() const { return scene_ ? scene_->map() : nullptr; }

const Quilt& MapCanvas::quilt() const { return scene_->quilt(); }

MapView MapCanvas::sight() const {
  MapView view = view_;
  view.size = size();
  view.ratio = devicePixelRatioF();
  return view;
}

void MapCanvas::look(const MapView& view, bool wholeMap) {
  view_ = view;
  fits_ = wholeMap;
  update();
  Q_EMIT viewChanged();
}

MapCanvas::View MapCanvas::view() const { return {view_.zoom, sight().middle(), fits_}; }

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
  view_.zoom = std::clamp(view.zoom, kSmallestZoom, kLargestZoom);
  centreOn(view.middle);
}

void MapCanvas::centreOn(QPointF pixel) {
  MapView next = sight();
  next.centreOn(pixel);
  look(keptInSight(next));
}

MapView MapCanvas::keptInSight(MapView view) const {
  if (map()) view.keepInSight(makeGrid(map()->grid)->pixelBounds(map()->bounds));
  return view;
}

Plane MapCanvas::plane() const { return scene_->landingPlane(sight(), forecast_->lift(takesAway())); }

Pointing MapCanvas::pointing() const {
  using Doing = Pointing::Doing;
  Pointing pointing;
  pointing.cell = hoveredCell();
  if (pointer_ && !cursor_ && pointing.cell) pointing.corner = cornerAt(*pointer_);
  pointing.doing = drag_ == Drag::none     ? Doing::nothing
                   : drag_ == Drag::stroke ? Doing::stroking
                   : drag_ == Drag::refit  ? Doing::refitting
                                           : Doing::other;
  pointing.takesAway = takesAway();
  pointing.even = shift_;
  pointing.looksAround = space_;
  pointing.onStretch = isOverStretch();
  return pointing;
}

std::optional<QRectF> MapCanvas::frameRect() const {
  return scene_ ? CameraFrame(*scene_, sight()).rect() : std::nullopt;
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
  session_->verbs().maps.setCamera(
      cameraOnItsWay(all, screen, static_cast<int>(cameraPlayed_.elapsed() * kCameraSpeed / 1000)));
}

void MapCanvas::followDesk() {
  followMap();
  if (session_->desk().map != shownMap_) {
    if (!shownMap_.empty()) views_[shownMap_] = view();
    cursor_.reset();
    boxFrom_.reset();
    const auto known = views_.find(session_->desk().map);
    showView(known == views_.end() ? View() : known->second);
  }
  update();
}

void MapCanvas::followMap() {
  if (!scene_) return update();
  forecast_->forget();
  std::optional<CellPos> middle;
  if (map() && map()->id == shownMap_ && !fits_) middle = cellAt(QRectF(rect()).center());
  const bool turned = scene_->follow();
  const bool beyond = neighbours_->follow();
  played_->follow();
  if (!map()) return update();
  const Map& shown = *map();
  const auto changed = book_->show(quilt(), shown.id, scene_->runs(shown));
  followAllowance();
  if (turned && middle) {
    turnPlan(*middle);
  } else if (turned && shown.id == shownMap_) {
    fitMap();
  }
  if (!changed || allowance_ || beyond) return update();
  const MapView view = sight();
  const auto grid = makeGrid(shown.grid);
  for (const PixelRect& pixels : *changed) updateDevice(deviceTouchedBy(pixels, *grid, view.scale()));
}

void MapCanvas::followAllowance() {
  if (!map() || (drag_ != Drag::edge && !session_->desk().showsAllowance)) return allowance_.reset();
  if (!allowance_) {
    allowance_ = std::make_unique<AllowanceView>(session_->painter().pictures(), [this] {
      QMetaObject::invokeMethod(this, qOverload<>(&MapCanvas::update), Qt::QueuedConnection);
    });
  }
  allowance_->show(quilt(), *map(), scene_->runs(*map()));
}

void MapCanvas::turnPlan(CellPos middle) {
  const PixelRect box = makeGrid(map()->grid)->cellBox(middle);
  const Layer* layer = scene_->landing();
  const PixelPos by = layer ? scene_->placeOf(*layer) : PixelPos{};
  const int lift = layer ? forecast_->lift(takesAway()) : 0;
  const QPoint was = view_.origin;
  centreOn({box.x + box.w / 2.0 + by.x, box.y + box.h / 2.0 + by.y - lift});
  const bool back = planTurn_.map == map()->id && planTurn_.zoom == view_.zoom && planTurn_.after == was;
  if (back) view_.origin = planTurn_.before;
  planTurn_ = {map()->id, view_.zoom, was, view_.origin};
  Q_EMIT viewChanged();
}

void MapCanvas::updateDevice(const QRect& device) {
  const MapView view = sight();
  const QRect seen = device.intersected(view.window());
  if (!seen.isEmpty()) update(view.fromDevice(seen).toAlignedRect().adjusted(-1, -1, 1, 1));
}

QRectF MapCanvas::cellRect(CellPos cell) const { return map() ? plane().cellRect(cell) : QRectF(); }

CellPos MapCanvas::cellAt(QPointF at) const { return map() ? plane().cellAt(at) : CellPos{}; }

std::optional<CellPos> MapCanvas::hoveredCell() const {
  if (cursor_) return cursor_;
  if (!pointer_ || !map()) return std::nullopt;
  if ((drag_ == Drag::none || drag_ == Drag::lines) && isOnRuler(*pointer_)) return std::nullopt;
  return reached(cellAt(*pointer_));
}

void MapCanvas::setZoom(double zoom, QPointF about) {
  if (!map()) return;
  MapView next = sight();
  next.zoomTo(zoom, about);
  look(keptInSight(next));
}

void MapCanvas::zoomBySteps(int steps, std::optional<QPointF> about) {
  setZoom(zoomStop(view_.zoom, steps), about.value_or(QRectF(rect()).center()));
}

void MapCanvas::fitMap() {
  if (!map() || width() <= 2 * kMapMargin) return;
  MapView next = sight();
  next.fit(session_->painter().extentOf(quilt(), *map(), scene_->runs(*map())));
  shownMap_ = session_->desk().map;
  look(next, true);
}

void MapCanvas::fitSelection() {
  if (!session_ || session_->desk().selection().empty()) return;
  const PixelRect cells = makeGrid(map()->grid)->pixelBounds(session_->desk().selection().bounds());
  view_.zoom = sight().fittingZoom(cells);
  const QPointF shift = QPointF(plane().shift()) / sight().scale().zoom;
  centreOn(QPointF(cells.x + cells.w / 2.0, cells.y + cells.h / 2.0) + shift);
}

void MapCanvas::showFullSize() {
  const double times = map() ? map()->shownTimes : 1;
  // Pressed again, as the game shows it, and back.
  setZoom(zoom() == 1 ? times : 1, pointer_.value_or(QRectF(rect()).center()));
}

void MapCanvas::scrollBy(QPointF logical) {
  MapView next = sight();
  next.scrollBy(logical);
  look(keptInSight(next));
}

void MapCanvas::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  const QSize before = view_.size;
  if (fits_) {
    fitMap();
  } else {
    // What is in the middle stays there.
    MapView next = sight();
    const QSizeF grown = QSizeF(next.size - before) * next.ratio;
    next.origin -= QPointF(grown.width() / 2, grown.height() / 2).toPoint();
    view_ = keptInSight(next);
  }
  view_.size = size();
}

bool MapCanvas::takesAway() const {
  if (!session_ || selects()) return false;
  if (drag_ == Drag::stroke) return dragTakesAway_;
  return uq::takesAway(session_->work(), ctrl_, KeyBindings::shared().buttonsExchanged());
}

std::vector<StretchHandle> MapCanvas::handles() const {
  return map() && !handlesGone_ ? stretchHandles(*scene_, plane()) : std::vector<StretchHandle>();
}

bool MapCanvas::isOverStretch() const {
  const auto cell = hoveredCell();
  return cell && map() && !handlesGone_ && isOnStretch(*scene_, *cell);
}

QString MapCanvas::tagText() const {
  if (!map()) return {};
  if (const auto along = rulers(); along && pointer_ && drag_ == Drag::none && along->isOnSwitch(*pointer_)) {
    return session_->desk().linesOfLayer ? tr("Rows and columns of the active layer alone · press: of all layers")
                                         : tr("Rows and columns of all layers · press: of the active one alone");
  }
  if (session_->verbs().lines.lines()) return wordsOf(session_->verbs().lines, *map(), session_->desk());
  if (offersGrowth_) return tr("Beyond the edge nothing was laid · Enter: the map grows as you paint");
  if (drag_ == Drag::edge) return wordsOf(session_->verbs().edge, quilt(), *map());
  if (drag_ == Drag::select || drag_ == Drag::take || boxFrom_) {
    const CellSet cells = spanned();
    const CellRect all = cells.bounds();
    const QString size = tr("%1 × %2 = %3 cells").arg(all.width()).arg(all.height()).arg(cells.count());
    if (drag_ != Drag::take) return size;
    return (ctrl_ ? tr("Cut %1") : shift_ ? tr("Take %1 of all layers") : tr("Take %1")).arg(size);
  }
  const auto cell = hoveredCell();
  if (!refusal_.isEmpty() && cell && drag_ == Drag::none) return refusal_;
  if (const Layer* hung = drag_ == Drag::hang || drag_ == Drag::none ? hangs() : nullptr;
      hung && (cell || drag_ == Drag::hang)) {
    const QString name = QString::fromStdString(hung->name);
    if (drag_ == Drag::none) return tr("Drag moves %1").arg(name);
    const QString place = tr("%1 at %2, %3").arg(name).arg(hung->offset.x).arg(hung->offset.y);
    return hungTo_.empty() ? place : tr("%1 · %2").arg(place, QString::fromStdString(hungTo_));
  }
  return pins() ? pinWords() : forecast_->words(pointing());
}

QString MapCanvas::refusal() const {
  if (!map() || !hoveredCell()) return {};
  return refusal_.isEmpty() ? forecast_->whyNothing(pointing()) : refusal_;
}

std::vector<MapCanvas::JointAt> MapCanvas::joints() const {
  return map() ? overlay().joints() : std::vector<JointAt>();
}

CellSet MapCanvas::coveredInSight() const { return map() ? overlay().covered() : CellSet(); }

CellSet MapCanvas::holesInSight() const { return map() ? overlay().holes() : CellSet(); }

void MapCanvas::setLit(CellSet cells) {
  if (cells == lit_) return;
  lit_ = std::move(cells);
  update();
}

void MapCanvas::paintMap(QPainter& painter, const QRect& part) {
  const MapView view = sight();
  const double ratio = view.ratio;
  const QRectF device(part.x() * ratio, part.y() * ratio, part.width() * ratio, part.height() * ratio);
  painter.save();
  painter.scale(1 / ratio, 1 / ratio);
  lastFrame_ = book_->paint(painter, view.scale(), view.window(), device.toAlignedRect().translated(view.origin));
  painter.restore();
  if (lastFrame_.late > 0) QMetaObject::invokeMethod(this, qOverload<>(&MapCanvas::update), Qt::QueuedConnection);
}

void MapCanvas::paintArrivals() {
  if (!book_) return;
  const MapView view = sight();
  for (const QRect& rect : book_->arrivals(view.scale(), view.window())) {
    update(view.fromDevice(rect).toAlignedRect().adjusted(-1, -1, 1, 1));
  }
}

void MapCanvas::paintEvent(QPaintEvent* event) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(event->rect(), theme.surround);
  if (!map()) return paintEmpty(painter);
  const MapView view = sight();
  const Overlay over = overlay();
  const Desk& desk = session_->desk();
  if (allowance_) allowance_->paint(painter, view, event->rect());
  over.paintGround(painter, event->rect());
  paintMap(painter, event->rect());
  lastFrame_.substitutes += neighbours_->missing();
  played_->paint(painter, view, event->rect(), [&](const QRectF& part) { over.paintGround(painter, part); });
  if (desk.gridLines) {
    over.paintGrid(painter);
    over.paintTurnMarks(painter);
  }
  over.paintFindings(painter);
  over.paintOutline(painter);
  paintPinsOver(painter);
  CameraFrame(*scene_, view).paint(painter);
  paintSelection(painter);
  over.paintGhost(painter, [&] { paintSelection(painter); });
  over.paintJoints(painter);
  over.paintSight(painter);
  if (drag_ == Drag::none || drag_ == Drag::refit) over.paintHandles(painter, handles());
  if (const auto along = rulers()) {
    along->paint(painter, hoveredCell(), desk.linesOfLayer);
    along->paintLines(painter, session_->verbs().lines);
  }
  if (!taken_.empty()) drawStitches(painter, view.rectOf(taken_), theme.madder, theme.paper);
  if (const QString text = tagText(); !text.isEmpty()) {
    const Stroke* under = forecast_->underWay();
    const bool lands =
        under ? under->refusal().empty() : refusal_.isEmpty() && forecast_->whyNothing(pointing()).isEmpty();
    over.paintTag(painter, tagRect(over, text), text, lands);
  }
  paintWhereItLeads(painter);
  paintFirstHint(painter, view.rectOf(over.landing().grid().pixelBounds(map()->bounds)));
  overlay_ = overlayArea();
  Q_EMIT painted();
}

void MapCanvas::paintSelection(QPainter& painter) const {
  const Theme& theme = Theme::current();
  const Plane here = plane();
  if (!lit_.empty()) {
    const QVector<QLineF> borders = here.bordersOf(lit_);
    painter.setPen(QPen(theme.lamp, 3));
    painter.drawLines(borders);
    painter.setPen(QPen(theme.ink, 1));
    painter.drawLines(borders);
  }
  const CellSet& selected = session_->desk().selection();
  if (!selected.empty()) drawStitchLines(painter, here.bordersOf(selected), theme.ink, theme.paper);
  if (drag_ == Drag::select && session_->desk().options.selectBy == SelectBy::outline && way_.size() > 1) {
    drawStitches(painter, QPolygonF(here.pointsOf(way_)), theme.madder, theme.paper);
  }
  if (!spans()) return;
  const bool less = drag_ == Drag::select && selecting_ == Selecting::less;
  drawStitchLines(painter, here.bordersOf(spanned()), less ? theme.weld : theme.madder, theme.paper);
}

QRectF MapCanvas::tagRect(const Overlay& over, const QString& text) const {
  const auto cell = hoveredCell();
  const QPointF anchor = cell ? cellRect(*cell).bottomRight() : pointer_.value_or(offeredAt_);
  return over.tagRect(text, anchor, drag_ != Drag::none || !cell);
}

QRect MapCanvas::overlayArea() const {
  if (!map()) return {};
  const Overlay over = overlay();
  QRectF area = over.ghostArea();
  if (const QString text = tagText(); !text.isEmpty()) area = area.united(tagRect(over, text));
  if (const auto led = whereItLeads()) area = area.united(led->place);
  return area.isEmpty() ? QRect() : area.toAlignedRect().adjusted(-4, -4, 4, 4);
}

void MapCanvas::updateOverlay() {
  const QRect now = overlayArea();
  update(overlay_);
  update(now);
  overlay_ = overlay_.united(now);
}

void MapCanvas::paintFirstHint(QPainter& painter, const QRectF& place) const {
  const std::vector<Shared<Layer>>& layers = map()->layers;
  const bool blank = std::all_of(layers.begin(), layers.end(), [](const auto& one) { return one->cells.empty(); });
  const bool comes = session_->work().coming().contains(map()->id);
  if (!comes && (!blank || !session_->desk().inHand.empty() || drag_ != Drag::none)) return;
  painter.setPen(Theme::linen().paper);
  painter.drawText(place.intersected(QRectF(rect())).adjusted(24, 24, -24, -24), Qt::AlignCenter | Qt::TextWordWrap,
                   comes ? tr("This map is still being read.")
                         : tr("Click a tile on the Table, then drag here.\n%1 finds everything else.")
                               .arg(KeyBindings::shared().text(ActionId::findHelp)));
}

void MapCanvas::paintEmpty(QPainter& painter) const {
  if (!session_) return;
  painter.setPen(Theme::linen().paper);
  painter.drawText(rect().adjusted(40, 40, -40, -40), Qt::AlignCenter | Qt::TextWordWrap,
                   tr("This quilt has no map yet.\n\nMap > New map… (%1), or the + above, makes one.")
                       .arg(KeyBindings::shared().text(ActionId::newMap)));
}

}  // namespace uq
