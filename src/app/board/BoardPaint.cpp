#include <QElapsedTimer>
#include <QEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>
#include <utility>

#include "app/board/BoardView.h"
#include "app/look/Stitches.h"
#include "app/look/Tag.h"
#include "app/look/Theme.h"
#include "app/board/Cord.h"
#include "app/maps/NewMapCard.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr int kLeastPicture = 64;   // device pixels
constexpr int kMostPicture = 1024;  // likewise
constexpr double kNamesFrom = 24;   // logical pixels that a piece is wide
constexpr double kLeastWords = 60;  // logical pixels that a name has, at least
constexpr qint64 kPatience = 2;     // milliseconds in which pictures are drawn, before something else may happen
constexpr double kSizesFrom = 90;   // likewise
constexpr int kWeave = 8;           // logical pixels between threads of the cloth
constexpr std::size_t kManyPieces = 64;
constexpr int kStrip = 16;          // logical pixels
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
  const QRectF on = sight().rectOf(piece.covers);
  if (!on.intersects(QRectF(rect()))) return 0;
  // By powers of two, so that zooming asks for few.
  const double wanted = std::max(on.width(), on.height()) * devicePixelRatioF();
  int most = kLeastPicture;
  while (most < wanted && most < kMostPicture) most *= 2;
  return most;
}

QString BoardView::wordsOf(const Piece& piece) const {
  const Map* map = session_->quilt().map(piece.map);
  if (map) return tr("%1\n%2 × %3").arg(nameOf(piece.map)).arg(map->bounds.width()).arg(map->bounds.height());
  const ChalkPiece* planned = chalk(piece.map);
  return planned ? nameOf(piece.map) + QString::fromStdString(planned->note) + QLatin1Char(planned->done ? '1' : '0') : QString();
}

QRectF BoardView::areaOf(const Piece& piece) const {
  QRectF area = sight().rectOf(piece.covers);
  const auto picture = pictures_.find(piece.map);
  if (picture != pictures_.end()) {
    const PixelRect& covers = picture->second.covers;
    area = area.united(sight().rectOf({covers.x + piece.at.x, covers.y + piece.at.y, covers.w, covers.h}));
  }
  return area.adjusted(-8, -32, kLeastWords + 8, 32);
}

void BoardView::followSheet() {
  std::map<Id, const std::pair<Piece, QString>*> before;
  for (const auto& one : laid_) before[one.first.map] = &one;
  std::vector<std::pair<Piece, QString>> now;
  for (const Piece& piece : pieces_) {
    now.emplace_back(piece, wordsOf(piece));
    const auto was = before.find(piece.map);
    if (was != before.end() && *was->second == now.back()) {
      before.erase(was);
      continue;
    }
    sheet_.invalidate(sight(), areaOf(piece));
  }
  // Where they were, and those that went.
  for (const auto& [map, one] : before) sheet_.invalidate(sight(), areaOf(one->first));
  const std::vector<Shared<Seam>> seams = session_ ? session_->quilt().seams() : std::vector<Shared<Seam>>();
  const bool orderChanged = now.size() != laid_.size();
  if (!(seams == laidSeams_) || orderChanged) sheet_.invalidateAll();
  laid_ = std::move(now);
  laidSeams_ = seams;
}

bool BoardView::makeExact(const Piece& piece) {
  const auto known = pictures_.find(piece.map);
  if (known == pictures_.end() || known->second.image.isNull()) return false;
  Picture& picture = known->second;
  const PixelRect& covers = picture.covers;
  const QRectF on = sight().rectOf({covers.x + piece.at.x, covers.y + piece.at.y, covers.w, covers.h});
  const QSize size = (on.size() * devicePixelRatioF()).toSize();
  // What is larger than its picture is scaled as it is painted.
  const bool isLarger = size.width() > picture.image.width() || size.height() > picture.image.height();
  if (size.isEmpty() || isLarger || picture.exact.size() == size) return false;
  picture.exact = picture.image.scaled(size, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
  return true;
}

void BoardView::drawNext() {
  if (!session_ || !isVisible()) return timer_.stop();
  if (!isFramed_) {
    // The first frame and the first pictures in one turn would be a long one.
    awaitsFrame_ = true;
    return timer_.stop();
  }
  QElapsedTimer since;
  since.start();
  QRectF changed;
  const auto show = [&](const Piece& one) {
    const QRectF area = areaOf(one);
    sheet_.invalidate(sight(), area);
    changed = changed.united(area);
  };
  bool more = false;
  for (const Piece& one : pieces_) {
    const Map* map = session_->quilt().map(one.map);
    const int most = mostFor(one);
    if (!map || most == 0) continue;
    if (since.elapsed() >= kPatience) {
      more = true;
      break;
    }
    Picture& known = pictures_[one.map];
    // Also where nothing came of it: asked again, nothing would once more.
    const bool good = known.most >= most && known.most <= 4 * most && looksAlike(known.map, *map);
    if (!good) {
      const SmallPicture small = smallPicture(session_->painter(), session_->quilt(), *map, {most, most});
      known = {small.picture, small.covers, *map, most};
    }
    if (makeExact(one) || !good) show(one);
  }
  if (!changed.isEmpty()) update(changed.toAlignedRect());
  if (more) return;
  timer_.stop();
  Q_EMIT pictured();
}

void BoardView::paintCloth(QPainter& painter, const QRectF& part) const {
  const Theme& theme = Theme::current();
  QColor thread = theme.edge;
  thread.setAlpha(60);
  // The weave goes along with the cloth. Drawn as a strip that is laid row upon row: long upright lines take ten times as long.
  const double ratio = devicePixelRatioF();
  const double off = std::fmod(view_.origin.x() / ratio, kWeave);
  QPixmap strip((QSizeF(part.width(), kStrip) * ratio).toSize().expandedTo({1, 1}));
  strip.setDevicePixelRatio(ratio);
  strip.fill(theme.cloth);
  QVector<QLineF> threads;
  for (double x = std::floor((part.left() + off) / kWeave) * kWeave - off; x < part.right(); x += kWeave) {
    threads << QLineF(x - part.left(), 0, x - part.left(), kStrip);
  }
  QPainter weaver(&strip);
  weaver.setPen(QPen(thread, 1));
  weaver.drawLines(threads);
  weaver.end();
  painter.drawTiledPixmap(part, strip);
}

void BoardView::paintChalk(QPainter& painter, const Piece& piece, const QRectF& part) const {
  const Theme& theme = Theme::current();
  const ChalkPiece& planned = *chalk(piece.map);
  const QRectF box = sight().rectOf(piece.covers);
  if (!box.adjusted(-4, -4, 4, 4).intersects(part)) return;
  painter.setRenderHint(QPainter::Antialiasing, false);
  QColor rubbed = theme.paper;
  rubbed.setAlpha(90);
  painter.fillRect(box, rubbed);
  painter.setPen(QPen(theme.softInk, 1.5, Qt::DashLine));
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

void BoardView::paintPiece(QPainter& painter, const Piece& piece, const QRectF& part) {
  const Theme& theme = Theme::current();
  const Map& map = *session_->quilt().map(piece.map);
  const MapView view = sight();
  const QRectF box = view.rectOf(piece.covers);
  if (!areaOf(piece).intersects(part)) return;
  if (map.grid.kind == GridKind::orthogonal) {
    painter.fillRect(box.adjusted(-kPaper, -kPaper, kPaper, kPaper), theme.paper);
    painter.fillRect(box, theme.surround);
  } else {
    const Plane plane(view, map.grid, piece.at);
    const QPolygonF outline(plane.pointsOf(plane.grid().perimeter(map.bounds)));
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme.paper, 2 * kPaper, Qt::SolidLine, Qt::FlatCap, Qt::MiterJoin));
    painter.setBrush(theme.surround);
    painter.drawPolygon(outline);
    painter.setPen(QPen(theme.edge, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolygon(outline);
    painter.setRenderHint(QPainter::Antialiasing, false);
  }
  const auto picture = pictures_.find(piece.map);
  if (picture != pictures_.end() && !picture->second.image.isNull()) {
    const PixelRect& covers = picture->second.covers;
    const QRectF on = view.rectOf({covers.x + piece.at.x, covers.y + piece.at.y, covers.w, covers.h});
    const bool isExact = picture->second.exact.size() == (on.size() * view.ratio).toSize();
    // Until it is scaled to this zoom, roughly.
    painter.setRenderHint(QPainter::SmoothPixmapTransform, on.width() * view.ratio > picture->second.image.width());
    painter.drawImage(on, isExact ? picture->second.exact : picture->second.image);
  }
}

void BoardView::paintWords(QPainter& painter, const QRectF& part) const {
  const Theme& theme = Theme::current();
  const MapView view = sight();
  QFont bold = painter.font();
  bold.setBold(true);
  const QFontMetrics metrics(bold);
  const double high = metrics.height();
  std::vector<std::pair<const Piece*, QRectF>> seen;
  for (const Piece& piece : pieces_) {
    const QRectF box = view.rectOf(piece.covers);
    // Words come with the picture: those of all pieces at once would make the first frame wait.
    const bool isComing = !piece.chalk && box.intersects(QRectF(rect())) && !pictures_.contains(piece.map);
    if (!isComing) seen.emplace_back(&piece, box);
  }
  const auto wideOf = [](const QRectF& box) { return std::max(box.width(), kLeastWords); };
  // Sizes where they fit: names of others come first.
  painter.setPen(theme.softInk);
  for (const auto& [piece, box] : seen) {
    const QRectF below(box.left(), box.bottom() + kPaper + 2, wideOf(box), high);
    if (piece->chalk || box.width() < kSizesFrom || !below.intersects(part)) continue;
    const bool fits = std::none_of(seen.begin(), seen.end(), [&, of = piece](const auto& other) {
      return other.first != of && other.second.adjusted(-kPaper, -high - 2 * kPaper, kPaper, kPaper).intersects(below);
    });
    const Map& map = *session_->quilt().map(piece->map);
    if (fits) painter.drawText(below, Qt::AlignLeft | Qt::AlignVCenter, tr("%1 × %2").arg(map.bounds.width()).arg(map.bounds.height()));
  }
  painter.setFont(bold);
  painter.setPen(theme.ink);
  for (const auto& [piece, box] : seen) {
    const QRectF above(box.left(), box.top() - high - kPaper - 2, wideOf(box), high);
    if (piece->chalk || box.width() < kNamesFrom || !above.intersects(part)) continue;
    painter.drawText(above, Qt::AlignLeft | Qt::AlignVCenter, metrics.elidedText(nameOf(piece->map), Qt::ElideRight, static_cast<int>(above.width())));
  }
}

void BoardView::paintChosen(QPainter& painter, const Piece& piece) const {
  const Theme& theme = Theme::current();
  const QColor thread = piece.map == chosen_ ? theme.madder : theme.woad;
  const Map* map = session_->quilt().map(piece.map);
  if (!map) {
    drawStitches(painter, sight().rectOf(piece.covers), thread, theme.paper, 3);
    return;
  }
  painter.setRenderHint(QPainter::Antialiasing);
  const Plane plane(sight(), map->grid, piece.at);
  drawStitches(painter, QPolygonF(plane.pointsOf(plane.grid().perimeter(map->bounds))), thread, theme.paper, 3);
  painter.setRenderHint(QPainter::Antialiasing, false);
}

void BoardView::paintSheet(QPainter& painter, const QRectF& part) {
  paintCloth(painter, part);
  for (const Piece& one : pieces_) {
    if (one.chalk) paintChalk(painter, one, part);
  }
  // What is under the hand lies on top.
  const auto isHeld = [this](const Piece& one) { return drag_ == Drag::pieces && all_.contains(one.map); };
  for (const bool held : {false, true}) {
    for (const Piece& one : pieces_) {
      if (!one.chalk && isHeld(one) == held) paintPiece(painter, one, part);
    }
  }
  for (const Shared<Seam>& seam : session_->quilt().seams()) paintSeam(painter, seam.read(), part, kSeam);
  paintWords(painter, part);
}

void BoardView::paintEvent(QPaintEvent*) {
  const bool isFirst = !std::exchange(isFramed_, true);
  if (std::exchange(awaitsFrame_, false)) timer_.start();
  QPainter painter(this);
  const Theme& theme = Theme::current();
  if (!session_) return paintCloth(painter, rect());
  if (isFirst && pieces_.size() > kManyPieces) {
    // The window is drawn anew in this turn as well: many pieces follow in the next one.
    paintCloth(painter, rect());
    return update();
  }
  sheet_.paint(painter, sight(), [this](QPainter& on, const QRectF& part) { paintSheet(on, part); });
  for (const Piece& one : pieces_) {
    if (all_.contains(one.map)) paintChosen(painter, one);
  }
  if (stitch_ && stitch_->why.empty()) {
    for (const Shared<Seam>& seam : session_->quilt().seams()) {
      if (seam->joins(stitch_->other) && seam->joins(stitch_->map)) paintSeam(painter, seam.read(), rect(), 2 * kSeam);
    }
  }
  for (const BoardLine& line : lines_) {
    const QRectF on = sight().rectOf({line.from.x, line.from.y, line.to.x - line.from.x, line.to.y - line.from.y});
    drawStitchLine(painter, QLineF(on.topLeft(), on.bottomRight()), theme.woad, theme.paper, 2);
  }
  if (pieces_.empty()) {
    painter.setPen(theme.softInk);
    painter.drawText(rect().adjusted(40, 40, -40, -40), Qt::AlignCenter | Qt::TextWordWrap,
                     tr("Nothing lies here yet.\nDrag with Ctrl to draw the first map, with Ctrl and Shift to plan one in chalk."));
  }
  const bool asks = card_ && card_->isVisible();
  if (drag_ == Drag::draw || asks) {
    const QRectF drawn = sight().rectOf(asks ? drawn_.at : frame_);
    painter.setPen(QPen(theme.madder, 2, Qt::DashLine));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(drawn);
  }
  if (drag_ == Drag::frame) drawStitches(painter, sight().rectOf(frame_), theme.madder, theme.paper);
  if (drag_ == Drag::edge && wraps_) paintWrap(painter);
  paintCords(painter);
  if (!said_.isEmpty()) paintSaid(painter);
}

void BoardView::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  if (event->type() != QEvent::PaletteChange && event->type() != QEvent::FontChange) return;
  sheet_.invalidateAll();
  update();
}

void BoardView::paintSeam(QPainter& painter, const Seam& seam, const QRectF& part, double breadth) {
  const Theme& theme = Theme::current();
  const Map* map = session_->quilt().map(seam.map);
  const Map* other = session_->quilt().map(seam.other);
  const Piece* lies = piece(seam.map);
  if (!map || !other || !lies || !areaOf(*lies).intersects(part) || !whyNotSewable(*map, *other).empty()) return;
  SeamLines& known = seamLines_[seam.id];
  if (!(known.seam == seam) || known.map != map->bounds || known.other != other->bounds) {
    known = {seam, map->bounds, other->bounds, stitchOf(*map, *other, seam.by)};
  }
  const Plane plane(sight(), map->grid, lies->at);
  QVector<QLineF> lines;
  for (const StitchSide& side : known.sides) {
    const QLineF line(plane.pointOf(side.from), plane.pointOf(side.to));
    if (QRectF(line.p1(), line.p2()).normalized().adjusted(-4, -4, 4, 4).intersects(part)) lines << line;
  }
  const bool isWrong = !sewn_.whyWrong(seam.id).empty();
  if (!lines.isEmpty()) drawStitchLines(painter, lines, isWrong ? theme.weld : theme.madder, theme.paper, breadth);
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
  const QPointF from = cord_ ? QPointF((width() - wide) / 2, 8)
                       : drag_ == Drag::pieces || drag_ == Drag::edge ? last_ + QPointF(14, 18) : pieceRect(chosen_).center();
  QRectF place(from, QSizeF(wide, metrics.height() + 8.0));
  place.moveLeft(std::clamp(place.left(), 8.0, std::max(8.0, width() - 8 - place.width())));
  place.moveTop(std::clamp(place.top(), 8.0, std::max(8.0, height() - 8 - place.height())));
  const bool sews = stitch_ && stitch_->why.empty();
  drawTag(painter, place, metrics.elidedText(said_, Qt::ElideRight, static_cast<int>(wide) - 12), sews ? theme.madder : theme.weld);
}

}  // namespace uq
