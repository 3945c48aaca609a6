// What of BoardView is asked and planned: menus, names, finding, and what is drawn on the cloth.
#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QToolButton>
#include <algorithm>

#include "app/actions/KeyBindings.h"
#include "app/board/BoardView.h"
#include "app/board/PieceMenu.h"
#include "app/look/NameField.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/maps/NewMapCard.h"

namespace uq {

namespace {

constexpr int kRoomBelow = 320;  // map pixels between all pieces and a new one
constexpr double kNearBy = 60;  // logical pixels within which the menu finds an edge to sew to

const Sheet* sheetInHand(const Session& session) {
  const Block& held = session.desk().inHand.block;
  const SheetSlot slot = held.empty() ? kChalkSlot : held.parts().front().cell.tile().slot;
  return slot == kChalkSlot ? nullptr : session.quilt().sheetAt(slot);
}

}  // namespace

const ChalkPiece* BoardView::chalk(Id piece) const { return session_ ? session_->quilt().listed<ChalkPiece>(piece) : nullptr; }

QString BoardView::nameOf(Id piece) const {
  const Map* map = session_ ? session_->quilt().map(piece) : nullptr;
  const ChalkPiece* planned = chalk(piece);
  return map ? QString::fromStdString(map->name) : planned ? QString::fromStdString(planned->name) : QString();
}

void BoardView::setDraws(Draws what) {
  draws_ = what;
  const char* names[] = {"board-choose", "board-draw", "board-chalk"};
  tools_->findChild<QToolButton*>(QLatin1String(names[static_cast<int>(what)]))->setChecked(true);
  setCursor(what == Draws::nothing ? Qt::ArrowCursor : Qt::CrossCursor);
}

void BoardView::takeDrawn(const PixelRect& at, Draws what) {
  if (!session_ || std::min(at.w, at.h) * sight().zoom < kDragAfter) return;
  if (what == Draws::chalk) {
    const Id made = session_->verbs().maps.addChalk(at);
    if (!made.empty()) choose(made);
    return;
  }
  askFor(drawnPiece(session_->quilt(), at, session_->map(), sheetInHand(*session_), static_cast<int>(kDrawnTo / sight().zoom)));
}

void BoardView::askForNew(Draws what) {
  if (!session_) return;
  const Map* like = session_->map();
  const PixelRect size = like ? makeGrid(like->grid)->pixelBounds(like->bounds) : PixelRect{0, 0, 1536, 1024};
  const PixelRect all = boxAround(pieces_);
  const PixelRect below{all.x, all.empty() ? 0 : all.bottom() + kRoomBelow, size.w, size.h};
  if (what == Draws::map) return askFor(drawnPiece(session_->quilt(), below, like, sheetInHand(*session_), 0));
  const Id made = session_->verbs().maps.addChalk(below);
  if (made.empty()) return;
  choose(made);
  bringIntoSight(made);
}

void BoardView::cut(Id piece) {
  askFor(cutPiece(session_->quilt(), piece, session_->map(), sheetInHand(*session_), static_cast<int>(kDrawnTo / sight().zoom)));
}

void BoardView::makeDrawnCard() {
  card_ = new NewMapCard(this);
  card_->setObjectName(QStringLiteral("drawn-map-card"));
  connect(card_, &NewMapCard::planned, this, [this](const MapPlan& plan) {
    if (const Id made = session_->verbs().maps.addDrawn(drawn_, plan, card_->carried()); !made.empty()) choose(made);
  });
  connect(card_, &NewMapCard::closed, this, [this] {
    setFocus(Qt::OtherFocusReason);
    update();
  });
}

void BoardView::askFor(const DrawnPiece& drawn) {
  if (!card_) makeDrawnCard();
  drawn_ = drawn;
  const Map* beside = session_->quilt().map(drawn.beside);
  const Map* like = beside ? beside : session_->map();
  const bool rows = drawn.edge == DrawnPiece::Edge::top || drawn.edge == DrawnPiece::Edge::bottom;
  std::optional<NewMapCard::Beside> carries;
  if (beside) carries = NewMapCard::Beside{QString::fromStdString(beside->name), rows};
  card_->open(session_->quilt(), drawn.plan, like ? tr("as %1").arg(QString::fromStdString(like->name)) : tr("a plain start"), carries);
  update();
}

HeldEdge BoardView::edgeUnder(QPointF at) const {
  const Map* map = session_ ? session_->quilt().map(chosen_) : nullptr;
  const Piece* one = piece(chosen_);
  if (!map || !one || all_.size() != 1) return {};
  HeldEdge edge = edgeAt(Plane(sight(), map->grid, one->at), map->bounds, at);
  // A corner is of both edges, so of neither.
  const bool corner = (edge.left || edge.right) && (edge.top || edge.bottom);
  return corner ? HeldEdge() : edge;
}

void BoardView::dragEdge(QPointF at) {
  const Map* map = session_->quilt().map(chosen_);
  const Piece* one = piece(chosen_);
  if (!map || !one) return;
  const CellPos cell = Plane(sight(), map->grid, one->at).cellAt(at);
  const CellRect& own = map->bounds;
  const double side = std::min(map->grid.cell.w, map->grid.cell.h) * sight().zoom;
  const int reach = std::max(1, static_cast<int>(kDrawnTo / side));
  const bool across = held_.left || held_.right;
  const int far = held_.left ? own.x1 - 1 - cell.x : held_.right ? cell.x - own.x0 : held_.top ? own.y1 - 1 - cell.y : cell.y - own.y0;
  const int along = across ? cell.y : cell.x;
  const bool beside = across ? along >= own.y0 && along < own.y1 : along >= own.x0 && along < own.x1;
  wraps_ = beside && std::abs(far) < reach;
  say(wraps_ ? tr("Letting go sews %1 to itself: it wraps").arg(nameOf(chosen_)) : tr("Onto the opposite edge, and the map wraps"));
  update();
}

void BoardView::placeTools() {
  tools_->adjustSize();
  tools_->move(kGap, height() - tools_->height() - kGap);
}

void BoardView::openChalkMenu(QPoint at) {
  auto* menu = new QMenu(this);
  menu->setObjectName(QStringLiteral("chalk-menu"));
  menu->setAttribute(Qt::WA_DeleteOnClose);
  const auto add = [&](const char* name, const QString& text, const std::function<void()>& does) {
    QAction* row = menu->addAction(text);
    row->setObjectName(QLatin1String(name));
    connect(row, &QAction::triggered, this, does);
    return row;
  };
  const Id one = chosen_;
  add("chalk-cut", tr("Cut it: make the map…"), [this, one] { cut(one); });
  add("chalk-rename", tr("Rename…"), [this] { rename(); })->setShortcut(Qt::Key_F2);
  add("chalk-note", tr("Note…"), [this, one] {
    const ChalkPiece* piece = chalk(one);
    if (!piece) return;
    const QRect on = pieceRect(one).toAlignedRect();
    const QRect place = QRect(on.left(), on.top() + 24, std::max(260, on.width()), 28).intersected(rect());
    auto* field = new NameField(QString::fromStdString(piece->note), place, this, [this, one](const QString& note) {
      if (const ChalkPiece* now = chalk(one)) session_->verbs().maps.sayChalk(one, now->name, note.toStdString());
    });
    field->setObjectName(QStringLiteral("chalk-note-field"));
    keepKeysHere(*field);
  });
  QAction* done = add("chalk-done", tr("Done"), [this] { session_->verbs().maps.tick(all_); });
  done->setCheckable(true);
  done->setChecked(chalk(one)->done);
  done->setShortcut(Qt::Key_Space);
  menu->addSeparator();
  add("chalk-duplicate", tr("Duplicate"), [this] { chooseAll(session_->verbs().maps.duplicate(all_)); });
  add("chalk-delete", tr("Delete"), [this] { removeChosen(); })->setShortcut(Qt::Key_Delete);
  menu->popup(at);
}

void BoardView::openMenu(QPoint at) {
  if (!piece(chosen_)) return;
  if (chalk(chosen_)) return openChalkMenu(at);
  PieceAsks asks;
  asks.open = [this] { open(chosen_); };
  asks.rename = [this] { rename(); };
  asks.size = [this] { openThen(ActionId::mapSize); };
  asks.exportMap = [this] { openThen(ActionId::exportMap); };
  asks.remove = [this] { removeChosen(); };
  asks.choose = [this](const std::set<Id>& copies) { chooseAll(copies); };
  asks.reach = static_cast<int>(kNearBy / sight().zoom);
  pieceMenu(this, *session_, chosen_, all_, asks)->popup(at);
}

void BoardView::removeChosen() {
  if (!session_ || !piece(chosen_) || all_.empty()) return;
  const QString what = all_.size() == 1 ? nameOf(*all_.begin()) : tr("%n piece(s)", nullptr, static_cast<int>(all_.size()));
  deletePieces(*session_, all_);
  if (!piece(chosen_) || pieces_.empty()) return;
  say(tr("%1 was deleted · %2 brings it back").arg(what, KeyBindings::shared().text(ActionId::undo)));
}

void BoardView::rename() {
  if (!session_ || !piece(chosen_)) return;
  bringIntoSight(chosen_);
  const QRect on = pieceRect(chosen_).toAlignedRect();
  const QRect place = QRect(on.left(), on.top() - 30, std::max(160, on.width()), 28).intersected(rect());
  auto* field = new NameField(nameOf(chosen_), place, this, [this, id = chosen_](const QString& name) {
    MapVerbs& maps = session_->verbs().maps;
    const ChalkPiece* planned = chalk(id);
    planned ? maps.sayChalk(id, name.toStdString(), planned->note) : maps.rename(id, name.toStdString());
  });
  field->setObjectName(QStringLiteral("piece-name"));
  keepKeysHere(*field);
}

void BoardView::find(const QString& text) {
  if (!session_ || pieces_.empty()) return;
  foundFrom_ = chosen_;
  find_->setGeometry((width() - 260) / 2, 12, 260, find_->sizeHint().height());
  find_->setText(text);
  find_->show();
  find_->setFocus(Qt::OtherFocusReason);
  find_->end(false);
  findNext(0);
}

void BoardView::findNext(int steps) {
  const QString wanted = find_->text().trimmed();
  std::vector<Id> found;
  for (const Piece& one : pieces_) {
    if (!wanted.isEmpty() && nameOf(one.map).contains(wanted, Qt::CaseInsensitive)) found.push_back(one.map);
  }
  if (found.empty()) return say(wanted.isEmpty() ? QString() : tr("No piece has that in its name."));
  const auto here = std::find(found.begin(), found.end(), chosen_);
  const int count = static_cast<int>(found.size());
  const int at = here == found.end() ? 0 : static_cast<int>(here - found.begin()) + steps;
  choose(found[static_cast<std::size_t>((at % count + count) % count)]);
  say(count == 1 ? QString() : tr("%n piece(s) have that in their names; arrows go on", nullptr, count));
  bringIntoSight(chosen_);
}

bool BoardView::eventFilter(QObject* watched, QEvent* event) {
  if (watched != find_) return QWidget::eventFilter(watched, event);
  const auto leave = [this] {
    find_->hide();
    say({});
    setFocus(Qt::OtherFocusReason);
  };
  if (event->type() == QEvent::FocusOut && find_->isVisible()) find_->hide();
  if (event->type() != QEvent::KeyPress) return false;
  switch (static_cast<QKeyEvent*>(event)->key()) {
    case Qt::Key_Up: findNext(-1); return true;
    case Qt::Key_Down: findNext(1); return true;
    case Qt::Key_Return:
    case Qt::Key_Enter: leave(); return true;
    case Qt::Key_Escape:
      leave();
      choose(foundFrom_);
      bringIntoSight(foundFrom_);
      return true;
    default: return false;
  }
}

void BoardView::openThen(ActionId action) {
  if (!piece(chosen_)) return;
  open(chosen_);
  actions_->action(action)->trigger();
}

void BoardView::contextMenuEvent(QContextMenuEvent* event) {
  // A right press is told by itself.
  if (!session_ || drag_ != Drag::none || event->reason() == QContextMenuEvent::Mouse) return;
  openMenu(mapToGlobal(pieceRect(chosen_).center().toPoint()));
}

void BoardView::keepKeysHere(NameField& field) {
  // Once it is gone, or what had the keyboard before would have it.
  connect(&field, &NameField::closed, this, [this] { setFocus(Qt::OtherFocusReason); }, Qt::QueuedConnection);
}

void BoardView::openMenuAt(QPointF at) {
  const auto hit = pieceAt(session_->quilt(), pieces_, cloth(at));
  if (!hit) return;
  if (!all_.contains(*hit)) all_ = {*hit};
  chosen_ = *hit;
  update();
  openMenu(mapToGlobal(at.toPoint()));
}

}  // namespace uq
