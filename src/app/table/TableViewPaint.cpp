// What of TableView paints.
#include "app/table/TableView.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <cstdlib>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/SheetWork.h"
#include "core/edit/TableFor.h"
#include "core/document/FrameTime.h"

namespace uq {

namespace {

constexpr double kSmallestLined = 6;  // logical pixels of a cell between which lines are drawn

}  // namespace

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

// Cloth lies thinly over what does not fit the cells of the map.
void TableView::paintVeil(QPainter& painter, const TableItem& item) const {
  const Map* map = session_->map();
  const Sheet& one = *sheet(item.sheet);
  if (!map || one.id == chalk().id || used_.contains(one.id) || fitsMap(one, *map)) return;
  QColor veil = Theme::current().cloth;
  veil.setAlpha(150);
  painter.fillRect(toWidget(item.picture).intersected(rect()), veil);
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

// The tiles of a mix in hand, each with how often it was gathered.
void TableView::paintGathered(QPainter& painter) const {
  const InHand& hand = session_->desk().inHand;
  if (hand.manner != Manner::mix) return;
  const Theme& theme = Theme::current();
  QFont bold = font();
  bold.setBold(true);
  painter.setFont(bold);
  for (const MixMember& member : hand.members) {
    const auto& parts = member.block.parts();
    if (parts.empty()) continue;
    QRectF area;
    for (const Block::Part& part : parts) {
      const TileRef tile = part.cell.tile();
      const Sheet* own = tile.slot == kChalkSlot ? &chalk() : session_->quilt().sheetAt(tile.slot);
      const auto cell = own && layout_.of(own->id) ? own->cellOf(tile.number) : std::nullopt;
      if (cell) area = area.united(cellRect({own->id, *cell}));
    }
    if (area.isEmpty() || !area.intersects(rect())) continue;
    drawStitches(painter, area, theme.madder, theme.paper, 1.5);
    const QString weight = QString::number(member.weight);
    const QFontMetrics metrics(bold);
    const QRectF badge(area.left(), area.top(), metrics.horizontalAdvance(weight) + 6, metrics.height());
    painter.fillRect(badge, theme.madder);
    painter.setPen(theme.paper);
    painter.drawText(badge, Qt::AlignCenter, weight);
  }
  painter.setFont(font());
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
    if (item.kind != TableItem::Kind::sheet) continue;
    paintSheet(painter, item);
    paintVeil(painter, item);
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
  paintGathered(painter);
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

}  // namespace uq
