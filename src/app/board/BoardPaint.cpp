#include <QPainter>
#include <algorithm>

#include "app/board/BoardView.h"
#include "app/look/Stitches.h"
#include "app/look/Tag.h"
#include "app/look/Theme.h"
#include "app/maps/NewMapCard.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr int kLeastPicture = 64;   // device pixels
constexpr int kMostPicture = 1024;  // likewise
constexpr double kNamesFrom = 24;   // logical pixels that a piece is wide
constexpr double kSizesFrom = 90;   // likewise
constexpr int kWeave = 8;           // logical pixels between threads of the cloth
constexpr double kPaper = 3;        // logical pixels of paper round a piece
constexpr double kSeam = 3;         // logical pixels that a stitch is broad

// Whether two maps look alike wherever they lie: no layer is looked at.
bool looksAlike(const Map& a, const Map& b) {
  const auto same = [](const Shared<Layer>& one, const Shared<Layer>& other) { return one->revision.is(other->revision); };
  return a.grid == b.grid && a.bounds == b.bounds && a.folders == b.folders && a.order == b.order && a.cloth == b.cloth &&
         std::equal(a.layers.begin(), a.layers.end(), b.layers.begin(), b.layers.end(), same);
}

}  // namespace

int BoardView::mostFor(const Piece& piece) const {
  const QRectF on = pieceRect(piece.map);
  if (!on.intersects(QRectF(rect()))) return 0;
  // By powers of two, so that zooming asks for few.
  const double wanted = std::max(on.width(), on.height()) * devicePixelRatioF();
  int most = kLeastPicture;
  while (most < wanted && most < kMostPicture) most *= 2;
  return most;
}

void BoardView::drawNext() {
  if (!session_ || !isVisible()) return timer_.stop();
  for (const Piece& one : pieces_) {
    const Map* map = session_->quilt().map(one.map);
    const int most = mostFor(one);
    Picture& known = pictures_[one.map];
    if (!map || most == 0) continue;
    // Also where nothing came of it: asked again, nothing would once more.
    const bool good = known.most >= most && known.most <= 4 * most && looksAlike(known.map, *map);
    if (good) continue;
    const SmallPicture small = smallPicture(session_->painter(), session_->quilt(), *map, {most, most});
    known = {small.picture, small.covers, *map, most};
    return update();
  }
  timer_.stop();
  Q_EMIT pictured();
}

void BoardView::paintCloth(QPainter& painter) const {
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.cloth);
  QColor thread = theme.edge;
  thread.setAlpha(60);
  painter.setPen(QPen(thread, 1));
  for (int x = 0; x < width(); x += kWeave) painter.drawLine(x, 0, x, height());
}

void BoardView::paintChalk(QPainter& painter, const Piece& piece) const {
  const Theme& theme = Theme::current();
  const ChalkPiece& planned = *chalk(piece.map);
  const QRectF box = sight().rectOf(piece.covers);
  if (!box.adjusted(-40, -40, 40, 40).intersects(QRectF(rect()))) return;
  painter.setRenderHint(QPainter::Antialiasing, false);
  QColor rubbed = theme.paper;
  rubbed.setAlpha(90);
  painter.fillRect(box, rubbed);
  const bool isChosen = all_.contains(piece.map);
  const QColor line = isChosen ? (piece.map == chosen_ ? theme.madder : theme.woad) : theme.softInk;
  painter.setPen(QPen(line, isChosen ? 2.5 : 1.5, Qt::DashLine));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(box);
  if (box.width() < kNamesFrom || box.height() < 18) return;
  painter.save();
  painter.setClipRect(box.adjusted(2, 2, -2, -2), Qt::IntersectClip);
  const QRectF room = box.adjusted(8, 6, -8, -6);
  QFont font = painter.font();
  font.setItalic(true);
  font.setBold(true);
  font.setStrikeOut(planned.done);
  painter.setFont(font);
  painter.setPen(theme.ink);
  const QFontMetrics metrics(font);
  const QString name = (planned.done ? QString(QChar(0x2713)) + QLatin1Char(' ') : QString()) + QString::fromStdString(planned.name);
  painter.drawText(room, Qt::AlignLeft | Qt::AlignTop, metrics.elidedText(name, Qt::ElideRight, static_cast<int>(room.width())));
  font.setBold(false);
  font.setStrikeOut(false);
  painter.setFont(font);
  painter.setPen(theme.softInk);
  painter.drawText(room.adjusted(0, metrics.height() + 2, 0, 0), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                   QString::fromStdString(planned.note));
  painter.restore();
}

void BoardView::paintPiece(QPainter& painter, const Piece& piece) const {
  const Theme& theme = Theme::current();
  const Map& map = *session_->quilt().map(piece.map);
  const MapView view = sight();
  const QRectF box = view.rectOf(piece.covers);
  if (!box.adjusted(-40, -40, 40, 40).intersects(QRectF(rect()))) return;
  const Plane plane(view, map.grid, piece.at);
  const QPolygonF outline(plane.pointsOf(plane.grid().perimeter(map.bounds)));
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(theme.paper, 2 * kPaper, Qt::SolidLine, Qt::FlatCap, Qt::MiterJoin));
  painter.setBrush(theme.surround);
  painter.drawPolygon(outline);
  const auto picture = pictures_.find(piece.map);
  if (picture != pictures_.end() && !picture->second.image.isNull()) {
    const PixelRect& covers = picture->second.covers;
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(view.rectOf({covers.x + piece.at.x, covers.y + piece.at.y, covers.w, covers.h}),
                      picture->second.image);
  }
  painter.setBrush(Qt::NoBrush);
  if (all_.contains(piece.map)) {
    drawStitches(painter, outline, piece.map == chosen_ ? theme.madder : theme.woad, theme.paper, 3);
  } else {
    painter.setPen(QPen(theme.edge, 1));
    painter.drawPolygon(outline);
  }
  if (box.width() < kNamesFrom) return;
  const QString name = QString::fromStdString(map.name);
  QFont font = painter.font();
  font.setBold(true);
  painter.setFont(font);
  painter.setPen(theme.ink);
  const QFontMetrics metrics(font);
  const double wide = std::max(box.width(), 60.0);
  painter.drawText(QRectF(box.left(), box.top() - metrics.height() - kPaper - 2, wide, metrics.height()),
                   Qt::AlignLeft | Qt::AlignVCenter, metrics.elidedText(name, Qt::ElideRight, static_cast<int>(wide)));
  font.setBold(false);
  painter.setFont(font);
  if (box.width() < kSizesFrom) return;
  painter.setPen(theme.softInk);
  painter.drawText(QRectF(box.left(), box.bottom() + kPaper + 2, wide, metrics.height()),
                   Qt::AlignLeft | Qt::AlignVCenter, tr("%1 × %2").arg(map.bounds.width()).arg(map.bounds.height()));
}

void BoardView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  paintCloth(painter);
  if (!session_) return;
  for (const Piece& one : pieces_) {
    if (one.chalk) paintChalk(painter, one);
  }
  for (const Piece& one : pieces_) {
    if (!one.chalk) paintPiece(painter, one);
  }
  paintSeams(painter);
  for (const BoardLine& line : lines_) {
    const QRectF on = sight().rectOf({line.from.x, line.from.y, line.to.x - line.from.x, line.to.y - line.from.y});
    drawStitchLine(painter, QLineF(on.topLeft(), on.bottomRight()), theme.woad, theme.paper, 2);
  }
  if (pieces_.empty()) {
    painter.setPen(theme.softInk);
    painter.drawText(rect().adjusted(40, 40, -40, -40), Qt::AlignCenter | Qt::TextWordWrap,
                     tr("Nothing lies here yet.\nDrag with Ctrl to draw the first map, with Ctrl and Shift to plan one in chalk."));
  }
  const bool asks = card_->isVisible();
  if (drag_ == Drag::draw || asks) {
    const QRectF drawn = sight().rectOf(asks ? drawn_.at : frame_);
    painter.setPen(QPen(theme.madder, 2, Qt::DashLine));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(drawn);
  }
  if (drag_ == Drag::frame) drawStitches(painter, sight().rectOf(frame_), theme.madder, theme.paper);
  if (drag_ == Drag::edge && wraps_) paintWrap(painter);
  if (!said_.isEmpty()) paintSaid(painter);
}

void BoardView::paintSeams(QPainter& painter) {
  const Theme& theme = Theme::current();
  const MapView view = sight();
  for (const Shared<Seam>& shared : session_->quilt().seams()) {
    const Seam& seam = shared.read();
    const Map* map = session_->quilt().map(seam.map);
    const Map* other = session_->quilt().map(seam.other);
    const Piece* lies = piece(seam.map);
    if (!map || !other || !lies || !whyNotSewable(*map, *other).empty()) continue;
    SeamLines& known = seamLines_[seam.id];
    if (!(known.seam == seam) || known.map != map->bounds || known.other != other->bounds) {
      known = {seam, map->bounds, other->bounds, stitchOf(*map, *other, seam.by)};
    }
    const Plane plane(view, map->grid, lies->at);
    QVector<QLineF> lines;
    for (const StitchSide& side : known.sides) {
      const QLineF line(plane.pointOf(side.from), plane.pointOf(side.to));
      if (QRectF(line.p1(), line.p2()).normalized().adjusted(-4, -4, 4, 4).intersects(QRectF(rect()))) lines << line;
    }
    const bool isWrong = !sewn_.whyWrong(seam.id).empty();
    const bool isNew = stitch_ && stitch_->why.empty() && seam.joins(stitch_->other) && seam.joins(stitch_->map);
    drawStitchLines(painter, lines, isWrong ? theme.weld : theme.madder, theme.paper, isNew ? 2 * kSeam : kSeam);
  }
}

void BoardView::paintWrap(QPainter& painter) const {
  const Map* map = session_->quilt().map(chosen_);
  const Piece* one = piece(chosen_);
  if (!map || !one) return;
  const Plane plane(sight(), map->grid, one->at);
  QVector<QLineF> lines;
  for (const StitchSide& side : stitchOf(*map, *map, held_.top || held_.bottom ? kWrapsDown : kWrapsAcross)) {
    lines << QLineF(plane.pointOf(side.from), plane.pointOf(side.to));
  }
  drawStitchLines(painter, lines, Theme::current().madder, Theme::current().paper, 2 * kSeam);
}

void BoardView::paintSaid(QPainter& painter) const {
  const Theme& theme = Theme::current();
  const QFontMetrics metrics(painter.font());
  const double wide = std::min(width() - 16.0, metrics.horizontalAdvance(said_) + 18.0);
  const QPointF from = drag_ == Drag::pieces || drag_ == Drag::edge ? last_ + QPointF(14, 18) : pieceRect(chosen_).center();
  QRectF place(from, QSizeF(wide, metrics.height() + 8.0));
  place.moveLeft(std::clamp(place.left(), 8.0, std::max(8.0, width() - 8 - place.width())));
  place.moveTop(std::clamp(place.top(), 8.0, std::max(8.0, height() - 8 - place.height())));
  const bool sews = stitch_ && stitch_->why.empty();
  drawTag(painter, place, metrics.elidedText(said_, Qt::ElideRight, static_cast<int>(wide) - 12), sews ? theme.madder : theme.weld);
}

}  // namespace uq
