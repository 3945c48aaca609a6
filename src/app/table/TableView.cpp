#include "app/table/TableView.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>
#include <cstdlib>

#include "app/look/Icons.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/workroom/SheetWork.h"
#include "core/document/FrameTime.h"

namespace uq {

namespace {

constexpr double kSmallest = 0.05;
constexpr double kLargest = 8;
constexpr int kWidestFitted = 512;    // pixels of a picture; wider ones are scrolled sideways
constexpr double kSmallestLined = 6;  // logical pixels of a cell between which lines are drawn
constexpr int kTick = 40;             // milliseconds
constexpr double kCarriedFrom = 4;    // logical pixels from which a press becomes a drag

QString sizeText(PixelSize size) {
  return size.w == size.h ? QString::number(size.w) : QStringLiteral("%1 × %2").arg(size.w).arg(size.h);
}

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
    connect(session_, &Session::quiltChanged, this, &TableView::layOut);
    connect(session_, &Session::deskChanged, this, &TableView::layOut);
    connect(&session_->sheets(), &SheetWork::loosePicturesChanged, this, &TableView::layOut);
  }
  fitWidth();
  layOut();
}

void TableView::layOut() {
  layout_ = {};
  if (session_) {
    layout_ = layOutTable(session_->quilt(), session_->desk().foldedPiles, session_->sheets().loosePictures(), zoom_,
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
  if (on->tileCount() > 0) reveal(id, on->numberAt(0));
  if (const TableItem* item = layout_.of(id)) {
    scroll_.setY(item->heading.top() - kTableHeading - kGap);
    clampScroll();
    update();
  }
}

void TableView::showCutOf(std::optional<Id> id) {
  if (cutOf_ == id) return;
  const bool wasShown = cutOf_.has_value();
  cutOf_ = id;
  picking_.reset();
  const Sheet* on = id ? sheet(*id) : nullptr;
  if (on) {
    // As large as there is room for, so that every joint can be judged; afterwards as before, if nobody zoomed
    // meanwhile.
    if (!wasShown) zoomBefore_ = zoom_;
    const double room = (width() - 2.0 * kGap) / on->pictureSize.w;
    zoom_ = zoomShown_ = std::clamp(std::max(zoomBefore_, std::min(room, 3.0)), kSmallest, kLargest);
    layOut();
    revealSheet(*id);
  } else if (wasShown && zoom_ == zoomShown_) {
    zoom_ = zoomBefore_;
    layOut();
  }
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

void TableView::point(std::optional<Spot> spot) {
  if (spot == pointed_) return;
  pointed_ = spot;
  Q_EMIT pointedAt(pointed_ ? textOf(*pointed_) : QString());
  update();
}

void TableView::takeChosen(bool byKeys, bool gathers) {
  const Sheet& from = *sheet(chosen_->from.sheet);
  const auto slot = session_->quilt().slots().find(from.id);
  const std::vector<Spot> spots = spotsOf(*chosen_);
  if (!slot || spots.empty()) return;
  const int wide = from.columns();
  const auto at = [wide](std::uint32_t cell) {
    return CellPos{static_cast<int>(cell) % wide, static_cast<int>(cell) / wide};
  };
  CellRect area = CellRect::around(at(chosen_->from.cell), at(chosen_->to.cell));
  // Held by the cell nearest to the middle.
  const int gripX = area.x0 + (area.width() - 1) / 2;
  const int gripY = area.y0 + (area.height() - 1) / 2;
  // Rows and columns of a sheet are laid as rows and columns of the map, whatever its grid.
  const auto grid = makeGrid(session_->map() ? session_->map()->grid : GridShape());
  std::vector<Block::Part> parts;
  numbers_.clear();
  for (const Spot& spot : spots) {
    numbers_.push_back(from.numberAt(spot.cell));
    const CellPos place = at(spot.cell);
    parts.push_back({grid->toSide({place.x - gripX, place.y - gripY}), Cell({*slot, from.numberAt(spot.cell)}, {})});
  }
  taken_ = Block(std::move(parts));
  if (gathers) {
    for (const Block::Part& part : taken_.parts()) session_->gather(Block::of(part.cell));
  } else {
    session_->take(taken_);
  }
  if (gathers) return Q_EMIT gathered();
  Q_EMIT taken(byKeys);
}

void TableView::paintHeading(QPainter& painter, const TableItem& item) const {
  const Theme& theme = Theme::current();
  const QRectF place = toWidget(item.heading);
  const QRectF line = place.adjusted(0, 0, 0, -3);
  const bool isCarried =
      carried_ && carried_->moved && carried_->sheet == item.sheet && item.kind == TableItem::Kind::sheet;
  painter.setPen(isCarried ? theme.madder : theme.softInk);
  QFont plain = font();
  const auto elided = [&](const QString& text) {
    return QFontMetrics(painter.font()).elidedText(text, Qt::ElideRight, static_cast<int>(place.width()));
  };
  if (item.kind == TableItem::Kind::pile) {
    painter.fillRect(place.adjusted(-kGap / 2.0, 0, kGap / 2.0, 0), theme.panel);
    const QString arrow = item.folded ? QStringLiteral("▸ ") : QStringLiteral("▾ ");
    plain.setBold(true);
    painter.setFont(plain);
    painter.setPen(theme.ink);
    painter.drawText(place, Qt::AlignLeft | Qt::AlignVCenter, arrow + QString::fromStdString(item.name));
    plain.setBold(false);
    painter.setFont(plain);
    return;
  }
  if (item.kind == TableItem::Kind::loose) {
    painter.setPen(theme.woad);
    painter.drawText(place, Qt::AlignLeft | Qt::AlignVCenter,
                     elided(tr("New, not cut: %1 — click to cut it").arg(QString::fromStdString(item.name))));
    return;
  }
  const Sheet& one = *sheet(item.sheet);
  QString text =
      one.id == chalk().id
          ? tr("Chalk · fills any cell")
          : QString::fromStdString(one.name) + QStringLiteral(" · ") +
                (one.isCollection() ? tr("%n picture(s)", nullptr, one.tileCount())
                                    : tr("%1 px · %2 tiles").arg(sizeText(one.cut.cell)).arg(one.tileCount()));
  painter.drawText(line, Qt::AlignLeft | Qt::AlignBottom, elided(text));
}

void TableView::paintCut(QPainter& painter, const Sheet& one, const QRectF& place) const {
  const Theme& theme = Theme::current();
  // What the cut leaves over is hatched; borders and gaps lie under a veil.
  const PixelSize cells = cellsOf(one.cut, one.pictureSize);
  if (cells.w < 1 || cells.h < 1) return;
  const auto rectOf = [&](std::uint32_t cell) {
    const PixelRect r = one.cellRect(cell);
    return QRectF(place.left() + r.x * zoom_, place.top() + r.y * zoom_, r.w * zoom_, r.h * zoom_);
  };
  const QRectF first = rectOf(0);
  const QRectF last = rectOf(static_cast<std::uint32_t>(cells.w * cells.h - 1));
  const QRectF covered(first.topLeft(), last.bottomRight());
  QPainterPath outside;
  outside.addRect(place);
  QPainterPath inside;
  inside.addRect(covered);
  const PixelSize rest = restOf(one.cut, one.pictureSize);
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing, false);
  QColor veil = theme.surround;
  veil.setAlpha(120);
  painter.fillPath(outside.subtracted(inside), veil);
  const double border = one.cut.border * zoom_;
  if (rest.w > 0)
    painter.fillRect(
        QRectF(covered.right() + border, place.top(), place.right() - covered.right() - border, place.height()),
        QBrush(theme.weld, Qt::BDiagPattern));
  if (rest.h > 0)
    painter.fillRect(
        QRectF(place.left(), covered.bottom() + border, place.width(), place.bottom() - covered.bottom() - border),
        QBrush(theme.weld, Qt::BDiagPattern));
  painter.restore();
  if (std::min(one.cut.cell.w, one.cut.cell.h) * zoom_ < 4) return;
  QVector<QLineF> lines;
  for (int column = 0; column <= cells.w; ++column) {
    const double x = column < cells.w ? rectOf(static_cast<std::uint32_t>(column)).left() : covered.right();
    lines << QLineF(x, covered.top(), x, covered.bottom());
    if (column > 0 && column < cells.w && one.cut.gap > 0)
      lines << QLineF(x - one.cut.gap * zoom_, covered.top(), x - one.cut.gap * zoom_, covered.bottom());
  }
  for (int row = 0; row <= cells.h; ++row) {
    const double y = row < cells.h ? rectOf(static_cast<std::uint32_t>(row * cells.w)).top() : covered.bottom();
    lines << QLineF(covered.left(), y, covered.right(), y);
    if (row > 0 && row < cells.h && one.cut.gap > 0)
      lines << QLineF(covered.left(), y - one.cut.gap * zoom_, covered.right(), y - one.cut.gap * zoom_);
  }
  // Of a large sheet only what is in sight.
  const QRectF sight = QRectF(rect()).adjusted(-2, -2, 2, 2);
  QVector<QLineF> seen;
  for (const QLineF& line : lines) {
    const QLineF part(
        std::clamp(line.x1(), sight.left(), sight.right()), std::clamp(line.y1(), sight.top(), sight.bottom()),
        std::clamp(line.x2(), sight.left(), sight.right()), std::clamp(line.y2(), sight.top(), sight.bottom()));
    const bool across = line.y1() == line.y2() ? part.y1() == line.y1() : part.x1() == line.x1();
    if (across && part.length() > 0) seen << part;
  }
  drawStitchLines(painter, seen, theme.madder, theme.paper, 1);
}

void TableView::paintSheet(QPainter& painter, const TableItem& item) {
  const Theme& theme = Theme::current();
  const Sheet& one = *sheet(item.sheet);
  const QRectF place = toWidget(item.picture);
  const QRectF seen = place.intersected(rect());
  if (seen.isEmpty()) return;
  painter.fillRect(seen, theme.surround.lighter(150));
  const QImage picture = session_->painter().pictures().picture(one);
  if (picture.isNull()) {
    painter.fillRect(seen, theme.paper);
    painter.fillRect(seen, QBrush(theme.edge, Qt::BDiagPattern));
    painter.setPen(theme.weld);
    painter.drawText(place, Qt::AlignCenter | Qt::TextWordWrap,
                     tr("The picture %1 is missing. Click to point to it.").arg(QString::fromStdString(one.picture)));
    return;
  }
  const double deviceZoom = zoom_ * devicePixelRatioF();
  const QImage half = halves_.at(one.id, picture, deviceZoom);
  const double scale = static_cast<double>(half.width()) / picture.width();
  // Only what is in sight is scaled.
  const QRectF source((seen.left() - place.left()) / zoom_ * scale, (seen.top() - place.top()) / zoom_ * scale,
                      seen.width() / zoom_ * scale, seen.height() / zoom_ * scale);
  painter.setRenderHint(QPainter::SmoothPixmapTransform, deviceZoom < scale);
  painter.drawImage(seen, half, source);
  if (cutOf_ == one.id && !one.isCollection()) paintCut(painter, one, place);
  // The cut, as thin lines between tiles, and cloth over what is not offered.
  QColor line = theme.paper;
  line.setAlpha(90);
  const bool lined = std::min(one.cut.cell.w, one.cut.cell.h) * zoom_ >= kSmallestLined && cutOf_ != one.id;
  if (!one.isCollection() && lined && one.tileCount() > 0) {
    for (int column = 1; column < one.columns(); ++column) {
      const double x = cellRect({one.id, static_cast<std::uint32_t>(column)}).left();
      if (x >= seen.left() && x <= seen.right()) painter.fillRect(QRectF(x, seen.top(), 1, seen.height()), line);
    }
    for (int row = 1; row < one.rows(); ++row) {
      const double y = cellRect({one.id, static_cast<std::uint32_t>(row * one.columns())}).top();
      if (y >= seen.top() && y <= seen.bottom()) painter.fillRect(QRectF(seen.left(), y, seen.width(), 1), line);
    }
  }
  for (const auto& [number, facts] : one.tiles) {
    const auto cell = facts.frames.empty() ? std::nullopt : one.cellOf(number);
    if (!cell) continue;
    const QRectF box = cellRect({one.id, *cell});
    const auto frame = ticks_.isActive() ? one.place(frameAt(facts.frames, played_.elapsed())) : std::nullopt;
    if (frame) {
      painter.fillRect(box, theme.surround.lighter(150));
      painter.drawImage(box, picture, QRectF(frame->x, frame->y, frame->w, frame->h));
    }
    // A small mark says that a tile moves.
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme.lamp);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.drawPolygon(
        QPolygonF({box.topRight() + QPointF(-8, 2), box.topRight() + QPointF(-2, 5), box.topRight() + QPointF(-8, 8)}));
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setBrush(Qt::NoBrush);
  }
  const auto cover = [&](std::uint32_t number) {
    const auto cell = one.cellOf(number);
    if (cell) painter.fillRect(cellRect({one.id, *cell}), theme.cloth);
  };
  for (const std::uint32_t number : one.places->dropped) cover(number);
  for (const auto& [number, twin] : one.places->twins) cover(number);
}

// The cell of the map under the foot of a tile that is larger than it.
void TableView::paintFoot(QPainter& painter, const Spot& spot) const {
  const Sheet& on = *sheet(spot.sheet);
  const Map* map = session_->map();
  if (!map || on.id == chalk().id) return;
  const PixelRect tile = on.cellRect(spot.cell);
  const PixelSize cell = map->grid.cell;
  if (tile.w <= cell.w && tile.h <= cell.h) return;
  const auto grid = makeGrid(map->grid);
  const PixelRect place = standing(*grid, {0, 0}, {tile.w, tile.h}, on.stanceOf(on.numberAt(spot.cell)));
  const QRectF box = cellRect(spot);
  QPolygonF foot;
  for (const PixelPos corner : grid->outline({0, 0})) {
    foot << QPointF(box.left() + (corner.x - place.x) * zoom_, box.top() + (corner.y - place.y) * zoom_);
  }
  drawStitches(painter, foot, Theme::current().woad, Theme::current().paper, 1.5);
}

void TableView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.cloth);
  if (!session_) {
    painter.setPen(theme.softInk);
    painter.drawText(rect().adjusted(16, 16, -16, -16), Qt::AlignCenter | Qt::TextWordWrap,
                     tr("The tile sheets of a quilt lie here."));
    return;
  }
  for (const TableItem& item : layout_.items) {
    const QRectF all = toWidget(item.heading.united(item.picture.isEmpty() ? item.heading : item.picture));
    if (!all.intersects(rect())) continue;
    paintHeading(painter, item);
    if (item.kind == TableItem::Kind::sheet) paintSheet(painter, item);
  }
  if (session_->quilt().sheets().empty() && session_->sheets().loosePictures().isEmpty()) {
    const QRectF below = QRectF(rect()).adjusted(16, layout_.size.height() - scroll_.y() + 16, -16, -16);
    painter.setPen(theme.softInk);
    painter.drawText(below, Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap,
                     tr("Drop pictures here: a tile sheet, many single pictures, or a folder. They are cut at once.\n\n"
                        "Plan with Chalk meanwhile: what is painted stays."));
  }
  const auto mark = [&](const Chosen& chosen) {
    const QRectF area = cellRect(chosen.from).united(cellRect(chosen.to));
    drawStitches(painter, area, theme.madder, theme.paper);
  };
  const bool stillHeld = chosen_ && session_->desk().inHand.block == taken_;
  if (stillHeld && layout_.of(chosen_->from.sheet)) mark(*chosen_);
  if (dragging_) {
    mark(*dragging_);
  } else if (pointed_ && layout_.of(pointed_->sheet)) {
    paintFoot(painter, *pointed_);
    painter.setPen(QPen(theme.ink, 1));
    const QRectF box = cellRect(*pointed_);
    painter.drawRect(box.adjusted(-1.5, -1.5, 1.5, 1.5));
    painter.setPen(QPen(theme.paper, 2));
    painter.drawRect(box);
  }
  if (carried_ && carried_->moved) {
    const auto [pile, before] = landing(carried_->at);
    const TableItem* next = layout_.of(before);
    double y = next ? toWidget(next->heading).top() : toWidget(QRectF(0, layout_.size.height(), 0, 0)).top();
    for (const TableItem& item : layout_.items) {
      if (!next && item.kind == TableItem::Kind::sheet && sheet(item.sheet)->origin.pile == pile)
        y = toWidget(item.picture).bottom() + 3;
    }
    drawStitchLine(painter, {kGap, y, width() - double{kGap}, y}, theme.madder, theme.paper);
  }
  if (hasFocus()) {
    painter.setPen(QPen(theme.woad, 2));
    painter.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

void TableView::resizeEvent(QResizeEvent*) {
  if (fitted_ || scroll_.isNull()) fitWidth();
  layOut();
}

bool TableView::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    const auto* help = static_cast<QHelpEvent*>(event);
    const TableItem* item = itemAt(help->pos(), true);
    if (item && item->kind == TableItem::Kind::sheet && item->sheet != chalk().id) {
      QToolTip::showText(help->globalPos(), tr("Click for the sheet's cut and facts, drag to move it"), this,
                         toWidget(item->heading).toRect());
    } else {
      QToolTip::hideText();
    }
    return true;
  }
  return QWidget::event(event);
}

std::pair<std::string, Id> TableView::landing(QPointF at) const {
  const QPointF point = atContents(at);
  std::string pile;
  for (const TableItem& item : layout_.items) {
    if (item.kind == TableItem::Kind::loose || item.sheet == chalk().id) continue;
    if (item.kind == TableItem::Kind::pile) {
      if (point.y() < item.heading.top()) break;
      pile = item.name;
      continue;
    }
    pile = sheet(item.sheet)->origin.pile;
    const double middle = (item.heading.top() + item.picture.bottom()) / 2;
    if (point.y() < middle) return {pile, item.sheet};
  }
  return {pile, {}};
}

void TableView::mousePressEvent(QMouseEvent* event) {
  if (!session_) return;
  if (event->button() == Qt::MiddleButton) pan_ = event->position();
  if (event->button() != Qt::LeftButton) return;
  const QPointF at = event->position();
  if (const TableItem* item = itemAt(at, true)) {
    if (item->kind == TableItem::Kind::pile) {
      Desk desk = session_->desk();
      if (!desk.foldedPiles.erase(item->name)) desk.foldedPiles.insert(item->name);
      session_->setDesk(std::move(desk));
    } else if (item->kind == TableItem::Kind::loose) {
      Q_EMIT looseChosen(QString::fromStdString(item->name));
    } else if (item->sheet != chalk().id) {
      carried_ = Carried{item->sheet, at, at, false};
    }
    return;
  }
  const TableItem* item = itemAt(at, false);
  if (!item) return;
  const Sheet& on = *sheet(item->sheet);
  const QImage picture = session_->painter().pictures().picture(on);
  if (picture.isNull()) {
    Q_EMIT pictureWanted(on.id);
    return;
  }
  if (picking_ && picking_->sheet == on.id) {
    const QPointF inside = (atContents(at) - item->picture.topLeft()) / zoom_;
    const QPoint pixel(static_cast<int>(inside.x()), static_cast<int>(inside.y()));
    const Picking picking = *std::exchange(picking_, std::nullopt);
    unsetCursor();
    if (picture.rect().contains(pixel)) picking.picked(picture.pixel(pixel) & 0xffffffu);
    return;
  }
  if (const auto spot = spotAt(at)) dragging_ = Chosen{*spot, *spot};
  update();
}

void TableView::mouseMoveEvent(QMouseEvent* event) {
  if (!session_) return;
  if (pan_) {
    scroll_ += *pan_ - event->position();
    pan_ = event->position();
    clampScroll();
    update();
  } else if (carried_) {
    carried_->at = event->position();
    carried_->moved = carried_->moved || (carried_->at - carried_->from).manhattanLength() >= kCarriedFrom;
    if (carried_->moved) setCursor(Qt::ClosedHandCursor);
    update();
  } else if (dragging_) {
    dragging_->to = spotAt(event->position(), dragging_->from.sheet).value_or(dragging_->to);
    point(dragging_->to);
    update();
  } else {
    point(spotAt(event->position()));
  }
}

void TableView::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() == Qt::MiddleButton) pan_.reset();
  if (event->button() != Qt::LeftButton) return;
  if (carried_) {
    const Carried carried = *std::exchange(carried_, std::nullopt);
    unsetCursor();
    if (!carried.moved) {
      Q_EMIT sheetChosen(carried.sheet);
    } else {
      const auto [pile, before] = landing(event->position());
      if (before != carried.sheet) session_->sheets().moveOnTable(carried.sheet, QString::fromStdString(pile), before);
    }
    update();
    return;
  }
  if (!dragging_) return;
  const Chosen chosen = *std::exchange(dragging_, std::nullopt);
  const Sheet& on = *sheet(chosen.from.sheet);
  const auto slot = session_->quilt().slots().find(on.id);
  const TileRef dragged{slot.value_or(0), on.numberAt(chosen.from.cell)};
  const bool left = !rect().contains(event->position().toPoint());
  if (!left || !slot || !dropTaker_ || !dropTaker_(dragged, event->globalPosition().toPoint())) {
    chosen_ = chosen;
    takeChosen(false, event->modifiers().testFlag(Qt::ShiftModifier));
  }
  update();
}

void TableView::wheelEvent(QWheelEvent* event) {
  const QPoint angle = event->angleDelta();
  if (event->modifiers() & Qt::ControlModifier) {
    setZoom(zoom_ * (angle.y() > 0 ? 1.25 : 0.8), event->position());
  } else {
    const bool sideways = event->modifiers() & Qt::ShiftModifier;
    scroll_ -= sideways && angle.x() == 0 ? QPointF(angle.y(), 0) / 2 : QPointF(angle) / 2;
    clampScroll();
    update();
  }
  event->accept();
}

void TableView::moveCursor(int dx, int dy, bool extends) {
  std::vector<Id> order;
  for (const TableItem& item : layout_.items) {
    if (item.kind == TableItem::Kind::sheet && sheet(item.sheet)->tileCount() > 0) order.push_back(item.sheet);
  }
  if (order.empty()) return;
  const bool begins = !pointed_ || !layout_.of(pointed_->sheet);
  Spot spot = begins ? Spot{order.front(), 0} : *pointed_;
  if (extends && !dragging_) dragging_ = Chosen{spot, spot};
  if (!extends) dragging_.reset();
  const Sheet* on = sheet(spot.sheet);
  int column = static_cast<int>(spot.cell) % on->columns();
  int row = static_cast<int>(spot.cell) / on->columns();
  if (!begins) {
    // A collection has one row; up and down lead out of it.
    column = std::clamp(column + dx, 0, on->columns() - 1);
    row += dy;
  }
  // Over the last row the cursor goes on to the next sheet.
  const auto index = std::find(order.begin(), order.end(), spot.sheet) - order.begin();
  const auto beyond = index + (row >= on->rows() ? 1 : row < 0 ? -1 : 0);
  if (beyond != index && !extends && beyond >= 0 && beyond < static_cast<std::ptrdiff_t>(order.size())) {
    on = sheet(order[static_cast<std::size_t>(beyond)]);
    row = beyond > index ? 0 : on->rows() - 1;
    column = std::min(column, on->columns() - 1);
  }
  row = std::clamp(row, 0, on->rows() - 1);
  spot = {on->id, static_cast<std::uint32_t>(row * on->columns() + column)};
  if (dragging_) dragging_->to = spot;
  point(spot);
  reveal(on->id, on->numberAt(spot.cell));
}

void TableView::keyPressEvent(QKeyEvent* event) {
  if (!session_) return QWidget::keyPressEvent(event);
  const bool extends = event->modifiers() & Qt::ShiftModifier;
  switch (event->key()) {
    case Qt::Key_Left: moveCursor(-1, 0, extends); break;
    case Qt::Key_Right: moveCursor(1, 0, extends); break;
    case Qt::Key_Up: moveCursor(0, -1, extends); break;
    case Qt::Key_Down: moveCursor(0, 1, extends); break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (pointed_) {
        chosen_ = dragging_ ? *dragging_ : Chosen{*pointed_, *pointed_};
        dragging_.reset();
        takeChosen(true);
      }
      break;
    case Qt::Key_Escape:
      if (picking_) {
        picking_.reset();
        unsetCursor();
        break;
      }
      [[fallthrough]];
    default:
      if (!actions_->handleKey(*event)) QWidget::keyPressEvent(event);
  }
  update();
}

void TableView::leaveEvent(QEvent*) {
  if (!dragging_) point(std::nullopt);
}

}  // namespace uq
