#include "app/board/BoardView.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QToolButton>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "app/board/PieceMenu.h"
#include "app/board/Cord.h"
#include "app/maps/NewMapCard.h"
#include "app/look/Theme.h"
#include "core/edit/Seams.h"
#include "app/look/Widgets.h"

namespace uq {

namespace {

PixelSize pitchOf(const Map& map) { return map.grid.cell; }

}  // namespace

BoardView::BoardView(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("board"));
  setAccessibleName(tr("The Board: all maps as pieces on one cloth"));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  timer_.setInterval(0);
  connect(&timer_, &QTimer::timeout, this, &BoardView::drawNext);
  find_ = new QLineEdit(this);
  find_->setObjectName(QStringLiteral("board-find"));
  find_->setAccessibleName(tr("Find a piece by its name"));
  find_->setPlaceholderText(tr("A part of its name"));
  find_->installEventFilter(this);
  find_->hide();
  connect(find_, &QLineEdit::textEdited, this, [this] { findNext(0); });
  auto* strip = new QFrame(this);
  strip->setObjectName(QStringLiteral("board-tools"));
  makeCard(strip);
  tools_ = strip;
  auto* row = new QHBoxLayout(tools_);
  row->setContentsMargins(kGap / 2, kGap / 2, kGap / 2, kGap / 2);
  row->setSpacing(kGap / 2);
  auto* group = new QButtonGroup(this);
  const auto tool = [&](const char* name, Draws what, const QString& text, const QString& says) {
    auto* button = new QToolButton(tools_);
    button->setObjectName(QLatin1String(name));
    button->setText(text);
    button->setToolTip(says);
    button->setCheckable(true);
    button->setChecked(what == Draws::nothing);
    button->setFocusPolicy(Qt::TabFocus);
    group->addButton(button, static_cast<int>(what));
    row->addWidget(button);
  };
  tool("board-choose", Draws::nothing, tr("Choose"), tr("A drag on the cloth chooses the pieces in it"));
  tool("board-draw", Draws::map, tr("Draw a map"), tr("A drag on the cloth is a new map, sewn where it meets an edge · Ctrl+drag"));
  tool("board-chalk", Draws::chalk, tr("Chalk"), tr("A drag on the cloth plans a map: a name and a note · Ctrl+Shift+drag"));
  connect(group, &QButtonGroup::idClicked, this, [this](int what) {
    setDraws(static_cast<Draws>(what));
    setFocus(Qt::OtherFocusReason);
  });
}

BoardView::~BoardView() = default;

void BoardView::setSession(Session* session) {
  cord_.reset();
  lit_ = hovered_ = {};
  if (session_) session_->disconnect(this);
  session_ = session;
  pictures_.clear();
  sheet_.invalidateAll();
  laid_.clear();
  laidSeams_.clear();
  seamLines_.clear();
  find_->hide();
  if (card_) card_->hide();
  drawn_ = {};
  stitch_.reset();
  said_.clear();
  pieces_.clear();
  chosen_ = {};
  all_.clear();
  drag_ = Drag::none;
  fits_ = true;
  isPlaced_ = false;
  if (session_) {
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      if (change.any<Sheet>()) {
        for (auto& [map, picture] : pictures_) picture.most = 0;
        sheet_.invalidateAll();
      }
      if (change.any<Map>() || change.any<Sheet>() || change.any<Seam>() || change.any<ChalkPiece>()) follow();
      // Not in the middle of the change: putting it away goes to another map.
      if (cord_ && !cord_->isHeld()) QMetaObject::invokeMethod(this, &BoardView::dropLostCord, Qt::QueuedConnection);
      if (change.any<Doorway>()) {
        cords_.reset();
        update();
      }
    });
    connect(session_, &Session::refused, this, &BoardView::say);
    connect(session_, &Session::gestureEnded, this, [this] {
      drag_ = Drag::none;
      // Words that had no room may have some now.
      sheet_.invalidateAll();
      lines_.clear();
      stitch_.reset();
      said_.clear();
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
  cords_.reset();
  sewn_ = session_ ? *SewnMaps::of(session_->quilt()) : SewnMaps();
  followSheet();
  std::erase_if(pictures_, [this](const auto& one) { return !piece(one.first); });
  std::erase_if(all_, [this](Id map) { return !piece(map); });
  if (!piece(chosen_)) chosen_ = session_ && piece(session_->desk().map) ? session_->desk().map : Id();
  if (!chosen_.empty()) all_.insert(chosen_);
  // Later the view stays while pieces move under the hand.
  if (!isPlaced_) fit();
  if (isVisible() && session_) timer_.start();
  tellChoice();
  update();
}

void BoardView::choose(Id map) {
  if (!piece(map)) return;
  chosen_ = map;
  all_ = {map};
  // A seam of it that is wrong says why.
  QString wrong;
  for (const Id seam : seamsOf(session_->quilt(), map)) {
    if (const std::string& why = sewn_.whyWrong(seam); !why.empty()) wrong = QString::fromStdString(why);
  }
  say(wrong);
  setAccessibleDescription(wrong.isEmpty() ? nameOf(map) : tr("%1 · %2").arg(nameOf(map), wrong));
  tellChoice();
  update();
}

void BoardView::chooseAll(const std::set<Id>& pieces) {
  if (pieces.empty()) return;
  choose(*pieces.begin());
  all_ = pieces;
  tellChoice();
  bringIntoSight(chosen_);
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

void BoardView::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  placeTools();
  if (fits_) fit();
}

void BoardView::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  isFramed_ = false;
  placeTools();
  follow();
}

void BoardView::mousePressEvent(QMouseEvent* event) {
  if (!session_ || drag_ != Drag::none) return;
  say({});
  pressed_ = last_ = event->position();
  button_ = event->button();
  if (cord_ && event->button() == Qt::LeftButton) {
    moveCord(pressed_);
    return dropCord(true);
  }
  if (event->button() == Qt::MiddleButton) {
    drag_ = Drag::pan;
    return;
  }
  if (event->button() != Qt::LeftButton) return;
  if (const auto end = endUnder(pressed_)) {
    cord_ = std::make_unique<Cord>(*session_, *session_->quilt().listed<Doorway>(end->doorway), end->end);
    lit_ = end->doorway;
    drag_ = Drag::cord;
    return update();
  }
  lit_ = {};
  const auto hit = pieceAt(session_->quilt(), pieces_, cloth(pressed_));
  const bool more = event->modifiers() & Qt::ShiftModifier;
  const bool ctrl = event->modifiers() & Qt::ControlModifier;
  drawing_ = ctrl ? (more ? Draws::chalk : Draws::map) : draws_;
  held_ = hit || drawing_ != Draws::nothing ? HeldEdge() : edgeUnder(pressed_);
  if (held_.any()) {
    drag_ = Drag::edge;
    return dragEdge(pressed_);
  }
  if (!hit && drawing_ != Draws::nothing) {
    drag_ = Drag::draw;
    frame_ = {};
    return update();
  }
  if (!hit) {
    if (!more) all_ = {};
    tellChoice();
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
  tellChoice();
  drag_ = Drag::pieces;
  update();
}

void BoardView::mouseMoveEvent(QMouseEvent* event) {
  if (!session_) return;
  const QPointF at = event->position();
  switch (drag_) {
    case Drag::none: {
      if (cord_) return moveCord(at);
      hover(at);
      if (endUnder(at)) return setCursor(Qt::PointingHandCursor);
      const HeldEdge edge = draws_ == Draws::nothing ? edgeUnder(at) : HeldEdge();
      const Map* map = session_->quilt().map(chosen_);
      setCursor(draws_ != Draws::nothing ? Qt::CrossCursor : edge.any() ? cursorOf(edge, map->grid.kind) : Qt::ArrowCursor);
      return;
    }
    case Drag::edge: dragEdge(at); break;
    case Drag::cord:
      if (cord_ && (cord_->target() || (at - pressed_).manhattanLength() >= kDragAfter)) moveCord(at);
      return;
    case Drag::pan:
      view_ = sight();
      view_.scrollBy(last_ - at);
      fits_ = false;
      timer_.start();
      Q_EMIT viewChanged();
      break;
    case Drag::draw:
    case Drag::frame: {
      const PixelPos a = cloth(pressed_);
      const PixelPos b = cloth(at);
      frame_ = {std::min(a.x, b.x), std::min(a.y, b.y), std::abs(a.x - b.x) + 1, std::abs(a.y - b.y) + 1};
      break;
    }
    case Drag::pieces:
      if (!session_->inGesture() && (at - pressed_).manhattanLength() < kDragAfter) return;
      dragTo(at, event->modifiers());
      break;
  }
  last_ = at;
  update();
}

void BoardView::dragTo(QPointF at, Qt::KeyboardModifiers held) {
  const double zoom = sight().zoom;
  const PixelPos by{qRound((at.x() - pressed_.x()) / zoom), qRound((at.y() - pressed_.y()) / zoom)};
  MapVerbs::PieceDrag how;
  how.reach = held & Qt::AltModifier ? -1 : static_cast<int>(kDrawnTo / zoom);
  how.sews = !(held & Qt::ShiftModifier);
  how.rips = held & Qt::ControlModifier;
  MapVerbs::Dragged dragged = session_->verbs().maps.dragPieces(all_, by, how);
  lines_ = std::move(dragged.lines);
  stitch_ = std::move(dragged.stitch);
  said_ = !stitch_ ? QString() : stitch_->why.empty() ? tr("Letting go sews; Shift lays it beside") : QString::fromStdString(stitch_->why);
}

void BoardView::mouseReleaseEvent(QMouseEvent* event) {
  if (session_ && event->button() == Qt::RightButton && drag_ == Drag::none) return openMenuAt(event->position());
  if (drag_ != Drag::none && event->button() != button_) return;
  const Drag ended = std::exchange(drag_, Drag::none);
  if (!session_) return;
  if (ended == Drag::pieces && session_->inGesture()) (void)session_->work().finish();
  if (ended == Drag::frame) {
    for (const Id map : piecesIn(pieces_, frame_)) all_.insert(map);
    if (!all_.empty() && !all_.contains(chosen_)) chosen_ = *all_.begin();
    tellChoice();
    frame_ = {};
  }
  if (ended == Drag::cord && cord_) {
    // A press that never moved shows the doorway.
    cord_->target() ? dropCord(true) : putCordAway();
  }
  if (ended == Drag::edge) {
    say({});
    const bool down = held_.top || held_.bottom;
    if (std::exchange(wraps_, false) && !wraps(session_->quilt(), chosen_, down)) session_->verbs().maps.wrap(chosen_, down);
  }
  if (ended == Drag::draw) takeDrawn(std::exchange(frame_, {}), drawing_);
  lines_.clear();
  stitch_.reset();
  update();
}

void BoardView::mouseDoubleClickEvent(QMouseEvent* event) {
  if (cord_) return;
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
  if (steps > 0 && under && !cord_ && !chalk(*under) && drag_ == Drag::none && pieceRect(*under).contains(QRectF(rect()))) {
    choose(*under);
    Q_EMIT zoomedInto(*under);
  }
}

QPointF BoardView::mapPixelAt(Id map, QPointF at) const {
  const Piece* one = piece(map);
  const PixelPos pixel = cloth(at);
  return one ? QPointF(pixel.x - one->at.x, pixel.y - one->at.y) : QPointF();
}

void BoardView::open(Id map) {
  if (chalk(map)) return cut(map);
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
  if (moves && piece(chosen_) && !all_.empty()) {
    const PixelSize pitch = map ? pitchOf(*map) : PixelSize{32, 32};
    session_->verbs().maps.movePieces(all_, {dx * pitch.w, dy * pitch.h});
  } else if (const auto next = pieceBeside(pieces_, chosen_, dx, dy)) {
    choose(*next);
  }
  bringIntoSight(chosen_);
  update();
}

void BoardView::say(const QString& what) {
  if (said_ == what) return;
  said_ = what;
  setAccessibleDescription(what);
  update();
}

void BoardView::keyPressEvent(QKeyEvent* event) {
  if (cordKey(*event)) return;
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
    case Qt::Key_F:
      if (event->modifiers() == Qt::NoModifier) return fit();
      break;
    case Qt::Key_Insert: return askForNew(Draws::chalk);
    case Qt::Key_F2: return rename();
    case Qt::Key_Space:
      if (chalk(chosen_)) session_->verbs().maps.tick(all_);
      return;
    case Qt::Key_Delete:
      return removeChosen();
    case Qt::Key_Menu: return openMenu(mapToGlobal(pieceRect(chosen_).center().toPoint()));
    case Qt::Key_Plus:
    case Qt::Key_Equal: return zoomBy(1, QRectF(rect()).center());
    case Qt::Key_Minus: return zoomBy(-1, QRectF(rect()).center());
    case Qt::Key_Escape:
      if (drag_ == Drag::draw || drag_ == Drag::frame || drag_ == Drag::edge) {
        drag_ = Drag::none;
        say({});
        frame_ = {};
        update();
      } else if (draws_ != Draws::nothing) {
        setDraws(Draws::nothing);
      } else if (session_ && session_->inGesture()) {
        session_->work().drop();
      } else if (!chosen_.empty()) {
        choose(chosen_);
      }
      return;
    default: break;
  }
  const bool plain = !(event->modifiers() & ~(Qt::ShiftModifier | Qt::KeypadModifier));
  const QString typed = event->text();
  if (plain && !typed.isEmpty() && typed.front().isLetterOrNumber()) return find(typed);
  if (!actions_->handleKey(*event)) QWidget::keyPressEvent(event);
}

}  // namespace uq
