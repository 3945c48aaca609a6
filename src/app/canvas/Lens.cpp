#include "app/canvas/Lens.h"

#include <QGuiApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QScreen>
#include <QToolButton>
#include <QVBoxLayout>

#include "app/look/Icons.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"

namespace uq {

namespace {

constexpr int kPicture = 36;  // logical pixels

QToolButton* makeSmallButton(const QString& iconName, const QString& tip, QWidget* parent) {
  auto* button = new QToolButton(parent);
  button->setIcon(icon(iconName, Theme::current().ink));
  button->setToolTip(tip);
  button->setAccessibleName(tip);
  button->setAutoRaise(true);
  button->setIconSize({18, 18});
  return button;
}

// The thread of a layer, as a short seam.
QPixmap seam(const Layer& layer, double ratio) {
  QPixmap pixmap((QSizeF(6, kPicture) * ratio).toSize());
  pixmap.setDevicePixelRatio(ratio);
  pixmap.fill(Qt::transparent);
  QPainter painter(&pixmap);
  painter.fillRect(QRectF(0, 0, 6, kPicture), Theme::current().thread(layer.thread));
  painter.setPen(Theme::current().ink);
  painter.drawRect(QRectF(.5, .5, 5, kPicture - 1));
  return pixmap;
}

}  // namespace

Lens::Lens(Actions* actions, QWidget* parent) : QFrame(parent, Qt::Popup), actions_(actions) {
  setObjectName(QStringLiteral("lens"));
  setAccessibleName(tr("What lies on this cell"));
  makeCard(this);
  setFrameShape(QFrame::StyledPanel);
}

void Lens::open(Session* session, CellPos at, QPoint near, bool withVerbs) {
  session_ = session;
  at_ = at;
  build(withVerbs);
  adjustSize();
  QPoint corner = near + QPoint(14, 14);
  if (const QScreen* screen = QGuiApplication::screenAt(near)) {
    const QRect room = screen->availableGeometry();
    if (corner.x() + width() > room.right()) corner.setX(near.x() - width() - 14);
    if (corner.y() + height() > room.bottom()) corner.setY(std::max(room.top(), room.bottom() - height()));
  }
  move(corner);
  show();
  if (auto* first = findChild<QPushButton*>()) first->setFocus();
}

void Lens::act(const std::function<void()>& what) {
  hide();
  what();
}

QPixmap Lens::pictureOf(Cell cell) const {
  const double ratio = devicePixelRatioF();
  QPixmap pixmap((QSizeF(kPicture, kPicture) * ratio).toSize());
  pixmap.setDevicePixelRatio(ratio);
  pixmap.fill(Theme::current().surround.lighter(140));
  QPainter painter(&pixmap);
  const QRectF inside(2, 2, kPicture - 4, kPicture - 4);
  if (cell.empty()) {
    pixmap.fill(Theme::current().panel);
  } else if (cell.tile().slot == kChalkSlot) {
    painter.fillRect(inside, QColor::fromRgb(chalkColour(cell.tile().number) | 0xff000000u));
  } else if (const auto picture = session_->painter().pictures().turned(session_->quilt(), cell)) {
    const QSizeF size = QSizeF(picture->size()).scaled(inside.size(), Qt::KeepAspectRatio);
    painter.drawImage(QRectF(inside.center() - QPointF(size.width() / 2, size.height() / 2), size), *picture);
  }
  return pixmap;
}

void Lens::addLayer(const Layer& layer, const QString& level) {
  const Id id = layer.id;
  const Cell cell = layer.cells.at(at_);
  const Desk& desk = session_->desk();
  auto* line = new QWidget(this);
  line->setObjectName(QStringLiteral("lens-line"));
  auto* row = new QHBoxLayout(line);
  row->setContentsMargins(0, 2, 0, 2);
  row->setSpacing(kGap / 2);
  auto* thread = new QLabel(line);
  thread->setPixmap(seam(layer, devicePixelRatioF()));
  auto* picture = new QLabel(line);
  picture->setPixmap(pictureOf(cell));
  QString what = tr("empty");
  if (!cell.empty()) {
    const Sheet* sheet = session_->quilt().sheetAt(cell.tile().slot);
    what = sheet ? QString::fromStdString(sheet->tileName(cell.tile().number)) : tr("tile %1").arg(cell.tile().number);
    if (const int lift = layer.lifts.at(at_); lift > 0) what += tr(", lifted %1 px").arg(lift);
  }
  QString name = QString::fromStdString(layer.name);
  if (!level.isEmpty()) name += QStringLiteral(" · ") + level;
  if (desk.hidden.contains(id)) name += tr(" (hidden)");
  if (desk.locked.contains(id)) name += tr(" (locked)");
  const CellRect here{at_.x, at_.y, at_.x + 1, at_.y + 1};
  if (!coveredCells(session_->quilt(), {session_->map()->id, id}, here, session_->verbs().layers.hiding()).empty()) {
    what += tr(", hidden by a nearer layer");
  }
  auto* go =
      new QPushButton(QString(name + QLatin1Char('\n') + what).replace(QLatin1String("&"), QLatin1String("&&")), line);
  go->setObjectName(QStringLiteral("lens-go"));
  go->setFlat(true);
  go->setMinimumWidth(190);
  go->setStyleSheet(QStringLiteral("text-align: left; padding: 2px 6px;"));
  go->setToolTip(tr("Make %1 the active layer").arg(QString::fromStdString(layer.name)));
  QFont font = go->font();
  font.setBold(id == desk.activeAt().layer);
  go->setFont(font);
  connect(go, &QPushButton::clicked, this, [this, id] { act([this, id] { session_->verbs().layers.choose(id); }); });
  row->addWidget(thread);
  row->addWidget(picture);
  row->addWidget(go, 1);
  const std::vector<Shared<Layer>>& layers = session_->map()->layers;
  const std::size_t index = *session_->map()->layerIndex(id);
  const auto addButton = [&](const char* objectName, const QString& iconName, const QString& tip, bool can,
                             const std::function<void()>& deed) {
    auto* button = makeSmallButton(iconName, tip, line);
    button->setObjectName(QLatin1String(objectName));
    button->setEnabled(can);
    connect(button, &QToolButton::clicked, this, [this, deed] { act(deed); });
    row->addWidget(button);
  };
  const bool any = !cell.empty();
  addButton("lens-take", QStringLiteral("take"), tr("Take it into the hand"), any,
            [this, id] { session_->verbs().hand.takeCell(id, at_); });
  addButton("lens-nearer", QStringLiteral("layer-nearer"), tr("Move it to the next layer nearer"),
            any && index + 1 < layers.size(), [this, id, index] {
              session_->verbs().selection.moveCell(id, at_, session_->map()->layers[index + 1]->id);
            });
  addButton(
      "lens-farther", QStringLiteral("layer-farther"), tr("Move it to the next layer farther"), any && index > 0,
      [this, id, index] { session_->verbs().selection.moveCell(id, at_, session_->map()->layers[index - 1]->id); });
  addButton("lens-delete", QStringLiteral("delete"), tr("Delete it"), any,
            [this, id] { session_->verbs().selection.removeCell(id, at_); });
  lines_->addWidget(line);
}

// What is listed above is drawn in front of the Walker, what is below behind.
void Lens::addWalker() {
  auto* label = makeSoftLabel(this);
  label->setObjectName(QStringLiteral("lens-walker"));
  label->setText(tr("Walker: above in front, below behind"));
  label->setContentsMargins(0, 2, 0, 2);
  lines_->addWidget(label);
}

// Swapping the active layer's tile for what is in hand, with what that would change.
void Lens::addSwaps(TileRef tile) {
  const InHand& hand = session_->desk().inHand;
  if (!hand.isOneTile() || hand.parts().front().cell.tile() == tile) return;
  const TileRef to = hand.parts().front().cell.tile();
  const Sheet* sheet = session_->quilt().sheetAt(to.slot);
  const QString name = sheet ? QString::fromStdString(sheet->tileName(to.number)) : tr("what is in hand");
  auto* title = makeSoftLabel(this);
  title->setText(tr("Swap it for %1").arg(name));
  title->setContentsMargins(0, kGap, 0, 0);
  lines_->addWidget(title);
  auto* row = new QHBoxLayout;
  row->setSpacing(kGap / 2);
  const std::pair<SwapIn, QString> ways[] = {{SwapIn::selection, tr("selection")},
                                             {SwapIn::layer, tr("layer")},
                                             {SwapIn::map, tr("map")},
                                             {SwapIn::allMaps, tr("all maps")}};
  for (const auto& [in, where] : ways) {
    if (in == SwapIn::selection && session_->desk().selection().empty()) continue;
    const std::int64_t count = countSwap(session_->quilt(), session_->verbs().selection.swapAsk(tile, to, in));
    auto* button = new QPushButton(tr("%1: %2").arg(where).arg(count), this);
    button->setObjectName(QStringLiteral("lens-swap-%1").arg(static_cast<int>(in)));
    button->setEnabled(count > 0);
    connect(button, &QPushButton::clicked, this, [this, tile, to, in = in] {
      act([this, tile, to, in] { session_->verbs().selection.swap(tile, to, in); });
    });
    row->addWidget(button);
  }
  auto* holder = new QWidget(this);
  holder->setLayout(row);
  row->setContentsMargins(0, 0, 0, 0);
  lines_->addWidget(holder);
}

void Lens::addPins() {
  const auto choose = [this](Id pin) {
    Desk desk = session_->desk();
    desk.tool = Tool::pins;
    session_->setDesk(std::move(desk));
    if (pin.empty()) session_->verbs().pins.place(CellRect::around(at_, at_));
    else session_->verbs().pins.choose({pin});
  };
  const std::vector<Id> pins = pinsOn(*session_->map(), at_, session_->desk().hidden);
  for (const Id pin : pins) {
    const std::vector<Id> ways = doorwaysOf(session_->quilt(), PinAt{session_->map()->id, pin});
    const QString words = QString::fromStdString(ways.empty() ? pinText(*session_->map()->pin(pin))
                                                              : doorwayText(session_->quilt(), *session_->quilt().listed<Doorway>(ways.front())));
    auto* line = new QPushButton(fontMetrics().elidedText(words, Qt::ElideRight, 420).replace(QLatin1String("&"), QLatin1String("&&")), this);
    line->setObjectName(QStringLiteral("lens-pin"));
    line->setFlat(true);
    line->setStyleSheet(QStringLiteral("text-align: left; padding: 2px 6px;"));
    line->setToolTip(tr("Choose this pin"));
    connect(line, &QPushButton::clicked, this, [this, choose, pin] { act([choose, pin] { choose(pin); }); });
    lines_->addWidget(line);
  }
  auto* door = new QPushButton(translated(actionRow(ActionId::leadFrom).text), this);
  door->setObjectName(QStringLiteral("lens-door"));
  door->setToolTip(tr("A way begins on this cell: the Board comes, with a cord in hand"));
  const Id first = pins.empty() ? Id() : pins.front();
  connect(door, &QPushButton::clicked, this, [this, choose, first] {
    act([this, choose, first] {
      choose(first);
      actions_->action(ActionId::leadFrom)->trigger();
    });
  });
  lines_->addSpacing(kGap / 2);
  lines_->addWidget(door, 0, Qt::AlignLeft);
}

void Lens::build(bool withVerbs) {
  qDeleteAll(findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly));
  delete layout();
  lines_ = new QVBoxLayout(this);
  lines_->setContentsMargins(kGap + 2, kGap, kGap + 2, kGap);
  lines_->setSpacing(0);
  const Map& map = *session_->map();
  auto* title = makeTitle(tr("Cell %1, %2").arg(at_.x - map.bounds.x0).arg(at_.y - map.bounds.y0), this);
  lines_->addWidget(title);
  TileRef top;
  std::size_t place = map.layers.size();
  for (auto one = map.layers.rbegin(); one != map.layers.rend(); ++one) {
    if (place-- == map.walkerPlace()) addWalker();
    const LayerFolder* level = map.layerFolder((*one)->folder);
    addLayer(one->read(), level ? QString::fromStdString(level->name) : QString());
    const Cell cell = (*one)->cells.at(at_);
    const bool active = (*one)->id == session_->desk().activeAt().layer;
    if (!cell.empty() && (top == TileRef{} || active)) top = cell.tile();
  }
  if (map.layers.empty()) {
    auto* none = makeSoftLabel(this);
    none->setText(tr("This map has no layer"));
    lines_->addWidget(none);
  }
  if (!(top == TileRef{})) addSwaps(top);
  addPins();
  if (!withVerbs || session_->desk().selection().empty()) return;
  auto* holder = new QWidget(this);
  auto* row = new QHBoxLayout(holder);
  row->setContentsMargins(0, kGap, 0, 0);
  row->setSpacing(kGap / 2);
  for (const ActionId id : {ActionId::cutCells, ActionId::copyCells, ActionId::deleteCells, ActionId::selectionNearer,
                            ActionId::selectionFarther}) {
    auto* button = new QPushButton(translated(actionRow(id).text), holder);
    button->setObjectName(QStringLiteral("lens-") + QLatin1String(actionRow(id).name));
    button->setEnabled(actions_->action(id)->isEnabled());
    button->setToolTip(actions_->action(id)->toolTip());
    connect(button, &QPushButton::clicked, this, [this, id] { act([this, id] { actions_->action(id)->trigger(); }); });
    row->addWidget(button);
  }
  lines_->addWidget(holder);
}

void Lens::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape || actions_->actionFor(*event) == ActionId::showLens) {
    hide();
    return;
  }
  if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
    focusNextPrevChild(event->key() == Qt::Key_Down);
    return;
  }
  QFrame::keyPressEvent(event);
}

}  // namespace uq
