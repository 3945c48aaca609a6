#include "app/board/BoardView.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr int kLeastPicture = 64;   // device pixels
constexpr int kMostPicture = 1024;  // likewise
constexpr double kDrawnTo = 8;      // logical pixels within which a dragged piece is drawn to an edge
constexpr double kDragAfter = 4;    // logical pixels: a shorter drag moves nothing
constexpr double kNamesFrom = 24;   // logical pixels that a piece is wide
constexpr double kSizesFrom = 90;   // likewise
constexpr int kWeave = 8;           // logical pixels between threads of the cloth
constexpr double kPaper = 3;        // logical pixels of paper round a piece

PixelSize pitchOf(const Map& map) { return map.grid.cell; }

}  // namespace

BoardView::BoardView(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("board"));
  setAccessibleName(tr("The Board: all maps as pieces on one cloth"));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  timer_.setInterval(0);
  connect(&timer_, &QTimer::timeout, this, &BoardView::drawNext);
}

void BoardView::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  pictures_.clear();
  pieces_.clear();
  chosen_ = {};
  all_.clear();
  drag_ = Drag::none;
  fits_ = true;
  isPlaced_ = false;
  if (session_) {
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      if (change.any<Map>() || change.any<Sheet>()) follow();
    });
    connect(session_, &Session::gestureEnded, this, [this] {
      drag_ = Drag::none;
      lines_.clear();
      update();
    });
  }
  follow();
}

MapView BoardView::sight() const {
  MapView view = view_;
  view.size = size();
  view.ratio = devicePixelRatioF();
  return view;
}

const Piece* BoardView::piece(Id map) const {
  const auto found = std::find_if(pieces_.begin(), pieces_.end(), [map](const Piece& one) { return one.map == map; });
  return found == pieces_.end() ? nullptr : &*found;
}

void BoardView::follow() {
  pieces_ = session_ ? piecesOf(session_->quilt()) : std::vector<Piece>();
  std::erase_if(pictures_, [this](const auto& one) { return !piece(one.first); });
  std::erase_if(all_, [this](Id map) { return !piece(map); });
  if (!piece(chosen_)) chosen_ = session_ && piece(session_->desk().map) ? session_->desk().map : Id();
  if (!chosen_.empty()) all_.insert(chosen_);
  // Later the view stays while pieces move under the hand.
  if (!isPlaced_) fit();
  if (isVisible() && session_) timer_.start();
  update();
}

void BoardView::choose(Id map) {
  if (!piece(map)) return;
  chosen_ = map;
  all_ = {map};
  setAccessibleDescription(QString::fromStdString(session_->quilt().map(map)->name));
  update();
}

void BoardView::fit() {
  fits_ = true;
  const PixelRect all = boxAround(pieces_);
  if (all.empty() || size().isEmpty()) return;
  view_ = sight();
  // With room for the names above, and the sizes below.
  const int room = std::max(64, std::max(all.w, all.h) / 16);
  view_.fit({all.x - room / 2, all.y - room, all.w + room, all.h + 2 * room});
  isPlaced_ = isVisible();
  timer_.start();
  Q_EMIT viewChanged();
  update();
}

QRectF BoardView::pieceRect(Id map) const {
  const Piece* one = piece(map);
  return one ? sight().rectOf(one->covers) : QRectF();
}

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
    const bool good = known.most >= most && known.most <= 4 * most && known.revision.is(map->revision);
    if (good) continue;
    const SmallPicture small = smallPicture(session_->painter(), session_->quilt(), *map, {most, most});
    known = {small.picture, small.covers, map->revision, most};
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
  for (const Piece& one : pieces_) paintPiece(painter, one);
  for (const BoardLine& line : lines_) {
    const QRectF on = sight().rectOf({line.from.x, line.from.y, line.to.x - line.from.x, line.to.y - line.from.y});
    drawStitchLine(painter, QLineF(on.topLeft(), on.bottomRight()), theme.woad, theme.paper, 2);
  }
  if (drag_ == Drag::frame) drawStitches(painter, sight().rectOf(frame_), theme.madder, theme.paper);
}

void BoardView::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  if (fits_) fit();
}

void BoardView::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  follow();
}

void BoardView::mousePressEvent(QMouseEvent* event) {
  if (!session_ || drag_ != Drag::none) return;
  pressed_ = last_ = event->position();
  if (event->button() == Qt::MiddleButton) {
    drag_ = Drag::pan;
    return;
  }
  if (event->button() != Qt::LeftButton) return;
  const auto hit = pieceAt(session_->quilt(), pieces_, cloth(pressed_));
  const bool more = event->modifiers() & Qt::ShiftModifier;
  if (!hit) {
    if (!more) all_ = {};
    drag_ = Drag::frame;
    frame_ = {};
    return update();
  }
  if (more) {
    all_.insert(*hit);
  } else if (!all_.contains(*hit)) {
    all_ = {*hit};
  }
  chosen_ = *hit;
  drag_ = Drag::pieces;
  update();
}

void BoardView::mouseMoveEvent(QMouseEvent* event) {
  if (!session_) return;
  const QPointF at = event->position();
  switch (drag_) {
    case Drag::none: return;
    case Drag::pan:
      view_ = sight();
      view_.scrollBy(last_ - at);
      fits_ = false;
      timer_.start();
      Q_EMIT viewChanged();
      break;
    case Drag::frame: {
      const PixelPos a = cloth(pressed_);
      const PixelPos b = cloth(at);
      frame_ = {std::min(a.x, b.x), std::min(a.y, b.y), std::abs(a.x - b.x) + 1, std::abs(a.y - b.y) + 1};
      break;
    }
    case Drag::pieces: {
      if (!session_->inGesture() && (at - pressed_).manhattanLength() < kDragAfter) return;
      const double zoom = sight().zoom;
      const PixelPos by{qRound((at.x() - pressed_.x()) / zoom), qRound((at.y() - pressed_.y()) / zoom)};
      const auto reach = event->modifiers() & Qt::AltModifier ? -1 : static_cast<int>(kDrawnTo / zoom);
      lines_ = session_->verbs().maps.dragPieces(all_, by, reach);
      break;
    }
  }
  last_ = at;
  update();
}

void BoardView::mouseReleaseEvent(QMouseEvent*) {
  const Drag ended = std::exchange(drag_, Drag::none);
  if (!session_) return;
  if (ended == Drag::pieces && session_->inGesture()) (void)session_->work().finish();
  if (ended == Drag::frame) {
    for (const Id map : piecesIn(pieces_, frame_)) all_.insert(map);
    if (!all_.empty() && !all_.contains(chosen_)) chosen_ = *all_.begin();
    frame_ = {};
  }
  lines_.clear();
  update();
}

void BoardView::mouseDoubleClickEvent(QMouseEvent* event) {
  const auto hit = session_ ? pieceAt(session_->quilt(), pieces_, cloth(event->position())) : std::nullopt;
  if (hit && event->button() == Qt::LeftButton) open(*hit);
}

void BoardView::wheelEvent(QWheelEvent* event) {
  const QPoint angle = event->angleDelta();
  if (event->modifiers() & Qt::ControlModifier) {
    if (angle.y() != 0) zoomBy(angle.y() > 0 ? 1 : -1, event->position());
  } else {
    view_ = sight();
    view_.scrollBy(event->modifiers() & Qt::ShiftModifier ? QPointF(-angle.y(), 0) / 2 : -QPointF(angle) / 2);
    fits_ = false;
    timer_.start();
    Q_EMIT viewChanged();
  }
  update();
  event->accept();
}

void BoardView::zoomBy(int steps, QPointF about) {
  view_ = sight();
  view_.zoomTo(zoomStop(view_.zoom, steps), about);
  fits_ = false;
  timer_.start();
  Q_EMIT viewChanged();
  update();
  // A piece that fills the view is gone into.
  const auto under = session_ ? pieceAt(session_->quilt(), pieces_, cloth(about)) : std::nullopt;
  if (steps > 0 && under && drag_ == Drag::none && pieceRect(*under).contains(QRectF(rect()))) open(*under);
}

void BoardView::open(Id map) {
  choose(map);
  Q_EMIT opened(map);
}

void BoardView::bringIntoSight(Id map) {
  const QRectF on = pieceRect(map);
  if (on.isEmpty() || QRectF(rect()).contains(on)) return;
  const Piece& one = *piece(map);
  view_ = sight();
  view_.centreOn({one.covers.x + one.covers.w / 2.0, one.covers.y + one.covers.h / 2.0});
  fits_ = false;
  timer_.start();
  Q_EMIT viewChanged();
}

void BoardView::step(int dx, int dy, bool moves) {
  if (!session_) return;
  const Map* map = session_->quilt().map(chosen_);
  if (moves && map && !all_.empty()) {
    const PixelSize pitch = pitchOf(*map);
    session_->verbs().maps.movePieces(all_, {dx * pitch.w, dy * pitch.h});
  } else if (const auto next = pieceBeside(pieces_, chosen_, dx, dy)) {
    choose(*next);
  }
  bringIntoSight(chosen_);
  update();
}

void BoardView::keyPressEvent(QKeyEvent* event) {
  const bool shift = event->modifiers() & Qt::ShiftModifier;
  switch (event->key()) {
    case Qt::Key_Left: return step(-1, 0, shift);
    case Qt::Key_Right: return step(1, 0, shift);
    case Qt::Key_Up: return step(0, -1, shift);
    case Qt::Key_Down: return step(0, 1, shift);
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (piece(chosen_)) open(chosen_);
      return;
    case Qt::Key_F: return fit();
    case Qt::Key_Plus:
    case Qt::Key_Equal: return zoomBy(1, QRectF(rect()).center());
    case Qt::Key_Minus: return zoomBy(-1, QRectF(rect()).center());
    case Qt::Key_Escape:
      if (session_ && session_->inGesture()) {
        session_->work().drop();
      } else if (!chosen_.empty()) {
        choose(chosen_);
      }
      return;
    default:
      if (!actions_->handleKey(*event)) QWidget::keyPressEvent(event);
  }
}

}  // namespace uq
