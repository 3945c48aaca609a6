#include "app/table/TableView.h"

#include <QResizeEvent>
#include <algorithm>
#include <cmath>
#include <cstdlib>

#include "app/look/Theme.h"
#include "app/workroom/SheetWork.h"
#include "core/document/FrameTime.h"
#include "core/edit/TableFor.h"

namespace uq {

namespace {

constexpr double kSmallest = 0.05;
constexpr double kLargest = 8;
constexpr int kWidestFitted = 512;    // pixels of a picture; wider ones are scrolled sideways
constexpr int kTick = 40;             // milliseconds

}  // namespace

TableView::TableView(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("table"));
  setAccessibleName(tr("Table with the quilt's tile sheets"));
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(200, 160);
  connect(&halves_, &SheetHalves::came, this, qOverload<>(&TableView::update));
  connect(&ticks_, &QTimer::timeout, this, qOverload<>(&TableView::update));
}

void TableView::setSession(Session* session) {
  if (session_) {
    session_->disconnect(this);
    session_->sheets().disconnect(this);
  }
  session_ = session;
  pointed_.reset();
  dragging_.reset();
  chosen_.reset();
  carried_.reset();
  cutOf_.reset();
  picking_.reset();
  if (session_) {
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      if (change.facts || change.any<Sheet>()) layOut();
      if (!change.arranged.empty()) update();
    });
    connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
      if (change.map) lieForMap();
      if (change.table) layOut();
      if (change.hand || change.map) update();
    });
    connect(&session_->sheets(), &SheetWork::loosePicturesChanged, this, &TableView::layOut);
  }
  mapLain_ = {};
  fitWidth();
  lieForMap();
}

// Where one goes to another map, what belongs to it comes to the top; within a map nothing moves.
void TableView::lieForMap() {
  const Map* map = session_ ? session_->map() : nullptr;
  const Id id = map ? map->id : Id();
  if (id == mapLain_ && !id.empty()) return;
  mapLain_ = id;
  used_ = map ? sheetsUsedOn(session_->quilt(), *map) : std::set<Id>();
  const std::vector<Id> before = order_;
  layOut();
  if (order_ == before) return;
  scroll_ = {};
  clampScroll();
  update();
}

void TableView::layOut() {
  layout_ = {};
  if (session_) {
    order_ = tableOrderFor(session_->quilt(), session_->map(), used_);
    layout_ = layOutTable(session_->quilt(), order_, session_->desk().foldedPiles, session_->sheets().loosePictures(), zoom_,
                          width());
    const auto isGone = [this](const Spot& spot) {
      const Sheet* on = sheet(spot.sheet);
      return !on || spot.cell >= static_cast<std::uint32_t>(on->tileCount());
    };
    if (pointed_ && isGone(*pointed_)) pointed_.reset();
    if (chosen_ && (isGone(chosen_->from) || isGone(chosen_->to))) chosen_.reset();
    if (dragging_ && (isGone(dragging_->from) || isGone(dragging_->to))) dragging_.reset();
  }
  const bool plays = session_ && session_->desk().playsFrames && hasFrames(session_->quilt());
  if (plays && !ticks_.isActive()) {
    played_.start();
    ticks_.start(kTick);
  } else if (!plays) {
    ticks_.stop();
  }
  clampScroll();
  update();
}

QRectF TableView::tileRect(Id id, std::uint32_t number) const {
  const Sheet* on = sheet(id);
  const auto cell = on ? on->cellOf(number) : std::nullopt;
  return cell ? cellRect({id, *cell}) : QRectF();
}

QRectF TableView::tileRect(const std::string& name, std::uint32_t number) const {
  for (const TableItem& item : layout_.items) {
    if (item.kind == TableItem::Kind::sheet && sheet(item.sheet)->name == name) return tileRect(item.sheet, number);
  }
  return {};
}

QRectF TableView::headingRect(Id id) const {
  const TableItem* item = layout_.of(id);
  return item ? toWidget(item->heading) : QRectF();
}

QRectF TableView::pileRect(const std::string& pile) const {
  for (const TableItem& item : layout_.items) {
    if (item.kind == TableItem::Kind::pile && item.name == pile) return toWidget(item.heading);
  }
  return {};
}

QRectF TableView::looseRect(const QString& picture) const {
  for (const TableItem& item : layout_.items) {
    if (item.kind == TableItem::Kind::loose && item.name == picture.toStdString()) return toWidget(item.heading);
  }
  return {};
}

void TableView::reveal(const std::string& name, std::uint32_t number) {
  if (!session_) return;
  if (name == chalk().name) return reveal(chalk().id, number);
  for (const auto& one : session_->quilt().sheets()) {
    if (one->name == name) return reveal(one->id, number);
  }
}

void TableView::reveal(Id id, std::uint32_t number) {
  const Sheet* on = sheet(id);
  if (!on) return;
  if (session_->desk().foldedPiles.contains(on->origin.pile)) {
    Desk desk = session_->desk();
    desk.foldedPiles.erase(on->origin.pile);
    session_->setDesk(std::move(desk));
  }
  const QRectF tile = tileRect(id, number);
  if (tile.isEmpty()) return;
  if (tile.bottom() > height()) scroll_.ry() += tile.bottom() - height() + kGap;
  if (tile.top() < 0) scroll_.ry() += tile.top() - kTableHeading;
  if (tile.right() > width()) scroll_.rx() += tile.right() - width() + kGap;
  if (tile.left() < 0) scroll_.rx() += tile.left() - kGap;
  clampScroll();
  update();
}

void TableView::revealSheet(Id id) {
  const Sheet* on = sheet(id);
  if (!on) return;
  // The Table keeps its place as long as some of the sheet is in sight.
  const TableItem* shown = layout_.of(id);
  if (shown && toWidget(shown->picture).intersects(QRectF(rect()).adjusted(0, 0, 0, -kTableHeading))) return;
  if (on->tileCount() > 0) reveal(id, on->numberAt(0));
  if (const TableItem* item = layout_.of(id)) {
    scroll_.setY(item->heading.top() - kTableHeading - kGap);
    clampScroll();
    update();
  }
}

void TableView::showCutOf(std::optional<Id> id) {
  if (cutOf_ == id) return;
  cutOf_ = id;
  picking_.reset();
  const Sheet* on = id ? sheet(*id) : nullptr;
  if (on) revealSheet(*id);
  update();
}

void TableView::pickColour(Id id, std::function<void(std::uint32_t)> picked) {
  picking_ = Picking{id, std::move(picked)};
  revealSheet(id);
  setCursor(Qt::CrossCursor);
}

std::vector<std::uint32_t> TableView::chosenOn(Id id) const {
  std::vector<std::uint32_t> numbers;
  const Sheet* on = sheet(id);
  if (!on || !chosen_ || chosen_->from.sheet != id) return numbers;
  // After another cut these are no longer the tiles on those cells.
  for (const std::uint32_t number : numbers_) {
    if (on->offers(number)) numbers.push_back(number);
  }
  return numbers;
}

QRectF TableView::cellRect(const Spot& spot) const {
  const TableItem* item = layout_.of(spot.sheet);
  const Sheet* on = sheet(spot.sheet);
  if (!item || !on || spot.cell >= static_cast<std::uint32_t>(on->tileCount())) return {};
  const PixelRect rect = on->cellRect(spot.cell);
  const QRectF scaled(rect.x * zoom_, rect.y * zoom_, rect.w * zoom_, rect.h * zoom_);
  return toWidget(scaled.translated(item->picture.topLeft()));
}

const TableItem* TableView::itemAt(QPointF at, bool onHeading) const {
  const QPointF point = atContents(at);
  for (const TableItem& item : layout_.items) {
    if ((onHeading ? item.heading : item.picture).contains(point)) return &item;
  }
  return nullptr;
}

std::optional<TableView::Spot> TableView::spotAt(QPointF at, std::optional<Id> onSheet) const {
  const TableItem* item = onSheet ? layout_.of(*onSheet) : itemAt(at, false);
  if (!item || item->kind != TableItem::Kind::sheet) return std::nullopt;
  const Sheet& on = *sheet(item->sheet);
  if (on.tileCount() == 0) return std::nullopt;
  const QPointF inside = (atContents(at) - item->picture.topLeft()) / zoom_;
  if (onSheet && !on.isCollection()) {  // a drag that leaves the sheet goes on along its edge
    const PixelRect first = on.cellRect(0);
    const auto along = [](double position, int from, int pitch, int count) {
      return std::clamp(static_cast<int>(std::floor((position - from) / pitch)), 0, count - 1);
    };
    const int column = along(inside.x(), first.x, on.cut.cell.w + on.cut.gap, on.columns());
    const int row = along(inside.y(), first.y, on.cut.cell.h + on.cut.gap, on.rows());
    return Spot{on.id, static_cast<std::uint32_t>(row * on.columns() + column)};
  }
  const auto cell = on.cellAt({static_cast<int>(std::floor(inside.x())), static_cast<int>(std::floor(inside.y()))});
  if (!cell || (!onSheet && !on.offers(on.numberAt(*cell)))) return std::nullopt;
  return Spot{on.id, *cell};
}

std::vector<TableView::Spot> TableView::spotsOf(const Chosen& chosen) const {
  const Sheet& on = *sheet(chosen.from.sheet);
  const int wide = on.columns();
  const auto at = [wide](std::uint32_t cell) {
    return CellPos{static_cast<int>(cell) % wide, static_cast<int>(cell) / wide};
  };
  const CellRect area = CellRect::around(at(chosen.from.cell), at(chosen.to.cell));
  std::vector<Spot> spots;
  for (int row = area.y0; row < area.y1; ++row) {
    for (int column = area.x0; column < area.x1; ++column) {
      const auto cell = static_cast<std::uint32_t>(row * wide + column);
      if (on.offers(on.numberAt(cell))) spots.push_back({on.id, cell});
    }
  }
  return spots;
}

void TableView::setZoom(double zoom, QPointF about) {
  if (!session_) return;
  // Headings keep their size, so the point is held on its sheet, not on the Table.
  const TableItem* on = itemAt(about, false);
  if (!on) on = itemAt(about, true);
  if (!on && !layout_.items.empty()) on = &layout_.items.front();
  const QPointF held = on ? (atContents(about) - on->picture.topLeft()) / zoom_ : QPointF();
  const Id id = on ? on->sheet : Id();
  zoom_ = std::clamp(zoom, kSmallest, kLargest);
  fitted_ = false;
  layOut();
  if (const TableItem* now = layout_.of(id)) scroll_ = now->picture.topLeft() + held * zoom_ - about;
  clampScroll();
  update();
}

void TableView::fitWidth() {
  if (!session_) return;
  int widest = chalk().pictureSize.w;
  for (const auto& one : session_->quilt().sheets()) {
    widest = std::max(widest, std::min(kWidestFitted, one->pictureSize.w));
  }
  const double room = std::min(width(), 420) - 2.0 * kGap;
  zoom_ = std::clamp(room / widest, kSmallest, 2.0);
  scroll_ = {};
  fitted_ = true;
}

void TableView::clampScroll() {
  scroll_.setX(std::clamp(scroll_.x(), 0.0, std::max(0.0, layout_.size.width() - width())));
  scroll_.setY(std::clamp(scroll_.y(), 0.0, std::max(0.0, layout_.size.height() - height())));
}

QString TableView::textOf(const Spot& spot) const {
  const Sheet& on = *sheet(spot.sheet);
  const std::uint32_t number = on.numberAt(spot.cell);
  QStringList parts;
  parts
      << tr("%1 — %2 %3").arg(QString::fromStdString(on.tileName(number)), QString::fromStdString(on.name)).arg(number);
  if (on.id == chalk().id) return parts.front();
  switch (on.footingOf(number)) {
    case Footing::open: break;
    case Footing::solid: parts << tr("solid"); break;
    case Footing::overhead: parts << tr("overhead"); break;
  }
  const TileFacts& facts = on.factsOf(number);
  if (!facts.frames.empty()) parts << tr("animated");
  for (const std::string& tag : facts.tags) parts << QString::fromStdString(tag);
  return parts.join(QStringLiteral(" · "));
}

void TableView::resizeEvent(QResizeEvent* event) {
  // Another height, as when a panel below comes, moves nothing.
  if (event->oldSize().width() != width() && (fitted_ || scroll_.isNull())) {
    const double before = zoom_;
    const QPointF at = scroll_;
    fitWidth();
    scroll_ = at * (zoom_ / before);
  }
  layOut();
}

}  // namespace uq
