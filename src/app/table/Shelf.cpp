#include "app/table/Shelf.h"

#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/actions/KeyBindings.h"
#include "app/look/NameField.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/table/HandPicture.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/LaidStamps.h"

namespace uq {

namespace {
constexpr int kShelfPlace = 46;       // logical pixels
constexpr double kFaintStamp = 0.4;
constexpr int kUsualRows = 2;  // in sight; the wheel brings others
}  // namespace

Shelf::Shelf(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("shelf"));
  setAccessibleName(tr("Stamps"));
  setMouseTracking(true);
  setMinimumHeight(kShelfPlace + 4);
  refresh();
}

// What an open card tells when it goes is told to a whole shelf.
Shelf::~Shelf() { delete card_; }

void Shelf::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  scroll_ = 0;
  if (session_) {
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      if (change.facts || change.any<Sheet>() || change.any<Stamp>()) refresh();
      if (!change.arranged.empty()) update();
    });
    connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
      // Things are shown as they would lie on the map that is worked on.
      if (change.hand || change.map) update();
    });
  }
  refresh();
}

QSize Shelf::sizeHint() const {
  const int rows = (static_cast<int>(stamps_.size()) + columns() - 1) / columns();
  return {0, std::clamp(rows, 1, kUsualRows) * (kShelfPlace + 4)};
}

int Shelf::columns() const { return std::max(1, (width() + 4) / (kShelfPlace + 4)); }

QRectF Shelf::rectOf(std::size_t index) const {
  const int i = static_cast<int>(index);
  return QRectF((i % columns()) * (kShelfPlace + 4), (i / columns() - scroll_) * (kShelfPlace + 4), kShelfPlace, kShelfPlace);
}

void Shelf::refresh() {
  const std::vector<Id> before = std::exchange(stamps_, session_ ? shelfOrder(session_->quilt()) : std::vector<Id>());
  const int rows = (static_cast<int>(stamps_.size()) + columns() - 1) / columns();
  // What was just kept is brought into sight.
  const bool kept = !before.empty() && stamps_.size() == before.size() + 1;
  const auto isNew = [&](Id id) { return std::find(before.begin(), before.end(), id) == before.end(); };
  const auto fresh = kept ? std::find_if(stamps_.begin(), stamps_.end(), isNew) : stamps_.end();
  if (fresh != stamps_.end()) {
    const int row = static_cast<int>(fresh - stamps_.begin()) / columns();
    const int seen = std::max(1, height() / (kShelfPlace + 4));
    scroll_ = std::clamp(scroll_, row - seen + 1, row);
  }
  scroll_ = std::clamp(scroll_, 0, std::max(0, rows - std::max(1, height() / (kShelfPlace + 4))));
  update();
}

std::optional<std::size_t> Shelf::indexAt(QPointF at) const {
  for (std::size_t i = 0; i < stamps_.size(); ++i) {
    if (rectOf(i).contains(at)) return i;
  }
  return std::nullopt;
}

void Shelf::point(std::optional<std::size_t> index) {
  if (index == pointed_) return;
  pointed_ = index;
  const Stamp* stamp = index ? session_->quilt().stamp(stamps_[*index]) : nullptr;
  Q_EMIT pointedAt(stamp ? QString::fromStdString(stamp->name) : QString());
  update();
}

void Shelf::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  if (stamps_.empty()) {
    painter.setPen(theme.softInk);
    painter.drawText(rect(), Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap,
                     tr("Stamps: %1 keeps what is in hand here").arg(KeyBindings::shared().text(ActionId::keepStamp)));
    return;
  }
  for (std::size_t i = 0; i < stamps_.size(); ++i) {
    const QRectF box = rectOf(i);
    const Stamp* stamp = session_->quilt().stamp(stamps_[i]);
    if (!stamp || box.bottom() < 0 || box.top() > height()) continue;
    painter.fillRect(box, theme.paper);
    const bool held = session_->desk().inHand.stamp == stamp->id;
    painter.setPen(QPen(held ? theme.madder : theme.edge, held ? 2 : 1));
    painter.drawRect(box.adjusted(.5, .5, -.5, -.5));
    // One for another kind of cells is drawn on its own, faint.
    const Map* map = session_->map();
    const bool fits = !map || stamp->held.isOneTile() || areOfOneFamily(stamp->held.grid, map->grid.kind);
    painter.setOpacity(fits ? 1 : kFaintStamp);
    drawHand(painter, *session_, stamp->held, box.adjusted(3, 3, -3, -3), devicePixelRatioF());
    painter.setOpacity(1);
    if (pointed_ == i) {
      painter.setPen(QPen(carries_ ? theme.madder : theme.ink, 2));
      painter.drawRect(box.adjusted(1, 1, -1, -1));
    }
  }
}

void Shelf::mousePressEvent(QMouseEvent* event) {
  const auto index = indexAt(event->position());
  if (!index) return;
  if (event->button() == Qt::LeftButton) pressed_ = index;
  if (event->button() == Qt::RightButton) openCard(*index);
}

void Shelf::mouseMoveEvent(QMouseEvent* event) {
  const auto index = indexAt(event->position());
  if (pressed_ && index && *index != *pressed_) carries_ = true;
  if (carries_) setCursor(Qt::DragMoveCursor);
  point(index);
}

void Shelf::mouseReleaseEvent(QMouseEvent* event) {
  const auto pressed = std::exchange(pressed_, std::nullopt);
  const bool carried = std::exchange(carries_, false);
  unsetCursor();
  const auto index = indexAt(event->position());
  if (!pressed || event->button() != Qt::LeftButton) return;
  const Id stamp = stamps_[*pressed];
  if (carried) {
    // Dropped beside the shelf, as on a tile that is found, it stays.
    if (!rect().contains(event->position().toPoint())) return;
    // Dropped on one before it, it lies before that; on one after it, behind.
    const bool forth = index && *index > *pressed;
    const std::size_t before = index ? *index + (forth ? 1 : 0) : stamps_.size();
    session_->verbs().stamps.move(stamp, before < stamps_.size() ? stamps_[before] : Id());
  } else if (index == pressed) {
    session_->verbs().hand.take(session_->quilt().stamp(stamp)->held);
  }
}

void Shelf::mouseDoubleClickEvent(QMouseEvent* event) {
  const auto index = indexAt(event->position());
  if (index && event->button() == Qt::LeftButton) rename(*index);
}

void Shelf::rename(std::size_t index) {
  const Id id = stamps_[index];
  const Stamp* stamp = session_->quilt().stamp(id);
  QRect place = rectOf(index).toRect();
  place.setWidth(std::max(140, place.width()));
  place.setHeight(26);
  if (place.right() > width()) place.moveRight(width());
  auto* field = new NameField(QString::fromStdString(stamp->name), place, this,
                              [this, id](const QString& name) { session_->verbs().stamps.rename(id, name.toStdString()); });
  field->setObjectName(QStringLiteral("stamp-name"));
}

void Shelf::openCard(std::size_t index) {
  const Id id = stamps_[index];
  const Stamp* stamp = session_->quilt().stamp(id);
  auto* card = new QFrame(this, Qt::Popup);
  card->setAttribute(Qt::WA_DeleteOnClose);
  card->setObjectName(QStringLiteral("stamp-card"));
  makeCard(card);
  auto* layout = new QVBoxLayout(card);
  layout->addWidget(makeTitle(QString::fromStdString(stamp->name), card));
  auto* uses = makeSoftLabel(card);
  uses->setObjectName(QStringLiteral("stamp-uses"));
  const std::vector<LaidStamp> laid = session_->verbs().stamps.places(id, StampVerbs::Places::all);
  uses->setText(tr("Lies on the maps %n time(s).", nullptr, static_cast<int>(laid.size())));
  layout->addWidget(uses);
  const auto add = [&](const char* name, const QString& text, bool can, const std::function<void()>& deed) {
    auto* button = new QPushButton(text, card);
    button->setObjectName(QLatin1String(name));
    button->setEnabled(can);
    connect(button, &QPushButton::clicked, this, [card, deed] {
      card->close();
      deed();
    });
    layout->addWidget(button);
    return button;
  };
  const Desk& desk = session_->desk();
  const bool bySelection = desk.tool == Tool::select && !desk.selection().empty();
  const bool can = bySelection || (!desk.inHand.empty() && !(desk.inHand == stamp->held));
  add("stamp-rename", tr("Rename…"), true, [this, index] { rename(index); });
  auto* with = makeSoftLabel(card);
  with->setText(bySelection          ? tr("Correct it with what is selected:")
                : desk.inHand.empty() ? tr("To correct it, take or select what it should be:")
                                      : tr("Correct it with what is in hand:"));
  layout->addWidget(with);
  for (const auto& [name, text, places] : corrections(laid)) {
    QPushButton* button = add(name, text, can, [this, id, places = places] {
      session_->verbs().stamps.correct(id, places);
    });
    // What would change with it is shown while it is pointed at.
    CellSet cells;
    for (const LaidStamp& one : session_->verbs().stamps.places(id, places)) {
      if (one.map == desk.map) cells = cells.united(cellsOf(session_->quilt(), one).all);
    }
    shown_[button] = cells;
    button->installEventFilter(this);
    connect(button, &QObject::destroyed, this, [this, button] { shown_.erase(button); });
  }
  connect(card, &QObject::destroyed, this, [this] { Q_EMIT showsCells({}); });
  add("stamp-delete", tr("Delete"), true, [this, id] { session_->verbs().stamps.remove(id); });
  card->adjustSize();
  card->move(mapToGlobal(rectOf(index).bottomLeft().toPoint()));
  card->show();
  card_ = card;
}

std::vector<Shelf::Correction> Shelf::corrections(const std::vector<LaidStamp>& laid) const {
  std::set<Id> maps;
  for (const LaidStamp& one : laid) maps.insert(one.map);
  const auto here = std::count_if(laid.begin(), laid.end(),
                                  [&](const LaidStamp& one) { return one.map == session_->desk().map; });
  const auto all = static_cast<std::ptrdiff_t>(laid.size());
  std::vector<Correction> ways;
  const QString many = maps.size() > 1 ? tr("and all %1 that lie on %2 maps").arg(all).arg(maps.size())
                       : all > 1       ? tr("and all %1 that lie there").arg(all)
                                       : tr("and the one that lies there");
  if (all > 0) ways.push_back({"stamp-correct-all", many, StampVerbs::Places::all});
  if (here > 0 && here < all) {
    ways.push_back({"stamp-correct-here", tr("and the %n on this map", nullptr, static_cast<int>(here)),
                    StampVerbs::Places::here});
  }
  ways.push_back({"stamp-correct", all > 0 ? tr("only the stamp") : tr("the stamp"), StampVerbs::Places::none});
  return ways;
}

bool Shelf::eventFilter(QObject* watched, QEvent* event) {
  const auto shown = shown_.find(watched);
  if (shown != shown_.end()) {
    const bool on = event->type() == QEvent::Enter || event->type() == QEvent::FocusIn;
    const bool off = event->type() == QEvent::Leave || event->type() == QEvent::FocusOut;
    if (on) Q_EMIT showsCells(shown->second);
    if (off) Q_EMIT showsCells({});
  }
  return QWidget::eventFilter(watched, event);
}

void Shelf::wheelEvent(QWheelEvent* event) {
  scroll_ += event->angleDelta().y() < 0 ? 1 : -1;
  refresh();
  point(indexAt(event->position()));
  event->accept();
}

void Shelf::leaveEvent(QEvent*) { point(std::nullopt); }

void Shelf::resizeEvent(QResizeEvent*) { refresh(); }

}  // namespace uq
