#include "app/bench/CandidateFan.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QToolButton>
#include <algorithm>

#include "app/look/Theme.h"
#include "app/look/Widgets.h"

namespace uq {

namespace {

constexpr int kPicture = 40;  // logical pixels
constexpr int kColumns = 8;
constexpr int kBeside = 6;

QIcon pictureOf(Session& session, const EdgingMember& member, double ratio) {
  const auto slot = session.quilt().slots().find(member.tile.sheet);
  QPixmap pixmap((QSizeF(kPicture, kPicture) * ratio).toSize());
  pixmap.setDevicePixelRatio(ratio);
  pixmap.fill(Theme::current().surround);
  QPainter painter(&pixmap);
  const auto picture = slot ? session.painter().pictures().turned(session.quilt(), Cell({*slot, member.tile.tile}, member.turn)) : std::nullopt;
  if (picture) {
    const QSizeF size = QSizeF(picture->size()).scaled(kPicture, kPicture, Qt::KeepAspectRatio);
    painter.drawImage(QRectF({(kPicture - size.width()) / 2, (kPicture - size.height()) / 2}, size), *picture);
  }
  return QIcon(pixmap);
}

}  // namespace

CandidateFan::CandidateFan(QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("candidates"));
  setAccessibleName(tr("Tiles that might lie here"));
  makeCard(this);
  hide();
}

void CandidateFan::open(Session& session, const std::vector<const EdgingMember*>& candidates, const EdgingMember* lies, const QRect& spot, const Words& words) {
  offers_.clear();
  for (const EdgingMember* one : candidates) {
    offers_.push_back({one->tile, one->turn, pictureOf(session, *one, devicePixelRatioF()), words(*one), one == lies});
  }
  spot_ = spot;
  layOut(std::min(kFew, offers_.size()));
  show();
  raise();
}

void CandidateFan::layOut(std::size_t count) {
  qDeleteAll(findChildren<QToolButton*>(QString(), Qt::FindDirectChildrenOnly));
  delete layout();
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(kGap / 2, kGap / 2, kGap / 2, kGap / 2);
  grid->setSpacing(2);
  int at = 0;
  const auto place = [&](QToolButton* button) {
    grid->addWidget(button, at / kColumns, at % kColumns);
    button->installEventFilter(this);
    button->show();
    ++at;
  };
  for (std::size_t i = 0; i < count; ++i) {
    const Offer& offer = offers_[i];
    auto* button = new QToolButton(this);
    button->setObjectName(QStringLiteral("candidate-%1").arg(i));
    button->setIconSize({kPicture, kPicture});
    button->setIcon(offer.icon);
    button->setCheckable(true);
    button->setChecked(offer.lies);
    button->setToolTip(offer.words);
    button->setAccessibleName(offer.words);
    connect(button, &QToolButton::clicked, this, [this, tile = offer.tile, turn = offer.turn] {
      hide();
      Q_EMIT taken(tile, turn);
    });
    place(button);
  }
  if (count < offers_.size()) {
    auto* more = makePlainButton("candidates-more", this);
    more->setText(offers_.size() < kMost ? tr("All %1").arg(offers_.size()) : tr("%1 more").arg(offers_.size() - count));
    more->setToolTip(tr("More tiles, the likeliest first"));
    connect(more, &QToolButton::clicked, this, [this] { layOut(offers_.size()); }, Qt::QueuedConnection);
    at = (at + kColumns - 1) / kColumns * kColumns;
    grid->addWidget(more, at / kColumns, 0, 1, kColumns, Qt::AlignLeft);
    more->installEventFilter(this);
    more->show();
  }
  grid->activate();
  resize(sizeHint());
  const QRect room = parentWidget()->rect().adjusted(kGap, kGap, -kGap, -kGap);
  QPoint corner(spot_.center().x() - width() / 2, spot_.bottom() + kBeside);
  if (corner.y() + height() > room.bottom()) corner.setY(spot_.top() - kBeside - height());
  corner.setX(std::clamp(corner.x(), room.left(), std::max(room.left(), room.right() - width())));
  corner.setY(std::max(corner.y(), room.top()));
  move(corner);
  if (auto* first = findChild<QToolButton*>(QStringLiteral("candidate-0"))) first->setFocus(Qt::OtherFocusReason);
}

bool CandidateFan::eventFilter(QObject* watched, QEvent* event) {
  auto* button = qobject_cast<QToolButton*>(watched);
  if (button && (event->type() == QEvent::Enter || event->type() == QEvent::FocusIn)) Q_EMIT pointedAt(button->toolTip());
  if (button && event->type() == QEvent::KeyPress) {
    // Left and right go on and back; a row down is as many on as there are columns.
    const QList<QToolButton*> all = findChildren<QToolButton*>();
    const auto here = all.indexOf(button);
    const auto go = [&](qsizetype by) {
      if (here + by >= 0 && here + by < all.size()) all[here + by]->setFocus(Qt::TabFocusReason);
      else if (by > 1) all.back()->setFocus(Qt::TabFocusReason);
      return true;
    };
    switch (static_cast<QKeyEvent*>(event)->key()) {
      case Qt::Key_Left: return go(-1);
      case Qt::Key_Right: return go(1);
      case Qt::Key_Up: return go(-kColumns);
      case Qt::Key_Down: return go(kColumns);
      case Qt::Key_Return:
      case Qt::Key_Enter: button->click(); return true;
      default: break;
    }
  }
  return QFrame::eventFilter(watched, event);
}

void CandidateFan::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) hide();
  else QFrame::keyPressEvent(event);
}

void CandidateFan::hideEvent(QHideEvent*) { Q_EMIT closed(); }

}  // namespace uq
