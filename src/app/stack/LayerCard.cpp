#include "app/stack/LayerCard.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QToolButton>
#include <algorithm>
#include <cmath>
#include <utility>

#include "app/look/Icons.h"
#include "app/look/NameField.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/stack/FolderCard.h"

namespace uq {

namespace {
constexpr int kCardHeight = 34;  // logical pixels
constexpr int kThread = 9;   // width of the thread
constexpr QSize kThumbnail(42, 25);
constexpr int kIndent = 14;  // logical pixels
constexpr int kMostIndents = 4;
constexpr int kBarEnd = 200;  // hundredths, at the right end of the bar
constexpr int kBarReach = 6;  // logical pixels from the foot that take hold of the bar
constexpr int kBarSnap = 4;   // hundredths around 0 and 1 that become just that
constexpr double kBright = 0.42;  // of pictures that show better on something dark

// How bright a picture is on average, 0 to 1, where it shows anything.
double brightnessOf(const QImage& picture) {
  double sum = 0;
  double weight = 0;
  for (int y = 0; y < picture.height(); ++y) {
    for (int x = 0; x < picture.width(); ++x) {
      const QColor colour = picture.pixelColor(x, y);
      sum += (0.299 * colour.redF() + 0.587 * colour.greenF() + 0.114 * colour.blueF()) * colour.alphaF();
      weight += colour.alphaF();
    }
  }
  return weight > 0 ? sum / weight : 1;
}
}  // namespace

int stackIndent(int depth) { return kIndent * std::min(depth, kMostIndents); }

void goToCard(QWidget& from, bool down) {
  QLayout* all = from.parentWidget()->layout();
  const int step = down ? 1 : -1;
  for (int i = all->indexOf(&from) + step; i >= 0 && i < all->count(); i += step) {
    // The Walker has arrows of its own, and is reached by Tab.
    QWidget* card = all->itemAt(i)->widget();
    if (qobject_cast<LayerCard*>(card) || qobject_cast<FolderCard*>(card)) return card->setFocus(Qt::TabFocusReason);
  }
}

LayerCard::LayerCard(Id layer, int depth, QWidget* parent)
    : QFrame(parent), layer_(layer), indent_(stackIndent(depth)) {
  setObjectName(QStringLiteral("card-") + QString::fromStdString(layer.text()));
  setFixedHeight(kCardHeight);
  setFocusPolicy(Qt::TabFocus);
  eye_ = makeToggle(QStringLiteral("eye"));
  lock_ = makeToggle(QStringLiteral("lock"));
  eye_->installEventFilter(this);
  connect(eye_, &QToolButton::clicked, this, [this] {
    if (!std::exchange(alone_, false)) Q_EMIT eyePressed(layer_);
  });
  connect(lock_, &QToolButton::clicked, this, [this] { Q_EMIT lockPressed(layer_); });
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, 3, kBarReach - 1);
  layout->setSpacing(0);
  layout->addStretch();
  layout->addWidget(eye_);
  layout->addWidget(lock_);
}

bool LayerCard::eventFilter(QObject* watched, QEvent* event) {
  if (watched == eye_ && event->type() == QEvent::MouseButtonDblClick) {
    alone_ = true;
    Q_EMIT aloneWanted(layer_);
  }
  return QFrame::eventFilter(watched, event);
}

QToolButton* LayerCard::makeToggle(const QString& name) {
  auto* button = new QToolButton(this);
  button->setObjectName(name);
  button->setFocusPolicy(Qt::TabFocus);
  button->setFixedSize(22, 22);
  button->setIconSize({16, 16});
  button->setStyleSheet(QStringLiteral("QToolButton { padding: 1px; }"));
  return button;
}

void LayerCard::present(const Layer& layer, const Shown& shown) {
  const auto [place, active, also, hidden, locked] = shown;
  const Theme& theme = Theme::current();
  name_ = QString::fromStdString(layer.name);
  role_ = QString::fromStdString(layer.role);
  if (layer.kind == LayerKind::backdrop && layer.role != "backdrop") role_ = tr("%1, backdrop").arg(role_);
  if (!layer.inGame) role_ = tr("%1 · not in the game").arg(role_);
  thread_ = layer.thread;
  place_ = QString::number(place);
  active_ = active;
  also_ = also;
  parallax_ = layer.parallax;
  inGame_ = layer.inGame;
  hidden_ = hidden;
  eye_->setIcon(
      icon(hidden ? QStringLiteral("eye-shut") : QStringLiteral("eye-open"), hidden ? theme.softInk : theme.ink));
  lock_->setIcon(
      icon(locked ? QStringLiteral("lock-shut") : QStringLiteral("lock-open"), locked ? theme.ink : theme.faintInk()));
  eye_->setToolTip(hidden ? tr("Show %1").arg(name_) : tr("Hide %1").arg(name_));
  lock_->setToolTip(locked ? tr("Unlock %1").arg(name_) : tr("Lock %1 against strokes").arg(name_));
  eye_->setAccessibleName(eye_->toolTip());
  lock_->setAccessibleName(lock_->toolTip());
  setAccessibleName(active ? tr("Layer %1, active").arg(name_) : tr("Layer %1").arg(name_));
  setToolTip(layer.holdsTiles() ? tr("Paint on %1").arg(name_) : name_);
  update();
}

void LayerCard::setThumbnail(const QImage& picture) {
  thumbnail_ = picture;
  bright_ = brightnessOf(picture);
  update();
}

void LayerCard::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Theme& theme = Theme::current();
  const QRectF card = QRectF(rect()).adjusted(indent_ + 1, 1, -1, -1);
  painter.setPen(QPen(active_ || also_ ? theme.madder : hasFocus() ? theme.woad : theme.edge, active_ ? 2 : 1));
  painter.setBrush(theme.paper);
  painter.drawRoundedRect(card, kCorner, kCorner);
  const QRectF thread(card.left() + 1, card.top() + 1, kThread, card.height() - 2);
  drawThread(painter, thread, thread_);

  const QRectF picture(thread.right() + kGap / 2, 2 + (height() - kBarReach - 2 - kThumbnail.height()) / 2.0, kThumbnail.width(),
                       kThumbnail.height());
  // On what it stands out from.
  const QColor light = theme.paper.lightness() > theme.ink.lightness() ? theme.paper : theme.softInk;
  painter.fillRect(picture, bright_ > kBright ? theme.surround.darker(130) : light);
  if (!thumbnail_.isNull()) {
    painter.setOpacity(hidden_ ? 0.35 : 1);
    const QSizeF fitted = QSizeF(thumbnail_.size()).scaled(picture.size(), Qt::KeepAspectRatio);
    QRectF place(QPointF(), fitted);
    place.moveCenter(picture.center());
    painter.drawImage(place, thumbnail_);
    painter.setOpacity(1);
  }
  painter.setPen(theme.edge);
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(picture);

  const qreal left = picture.right() + kGap / 2 + 2;
  const qreal width = eye_->x() - left;
  QFont font = painter.font();
  font.setBold(active_);
  painter.setFont(font);
  painter.setPen(hidden_ ? theme.softInk : theme.ink);
  const QRectF upper(left, 1, width, 15);
  painter.drawText(upper, Qt::AlignLeft | Qt::AlignVCenter,
                   painter.fontMetrics().elidedText(name_, Qt::ElideRight, static_cast<int>(width)));
  font.setBold(false);
  font.setPointSizeF(font.pointSizeF() * 0.88);
  painter.setFont(font);
  painter.setPen(theme.softInk);
  painter.drawText(QRectF(left, 15, width, 12), Qt::AlignLeft | Qt::AlignVCenter,
                   painter.fontMetrics().elidedText(role_, Qt::ElideRight, static_cast<int>(width)));
  // Its place from the farthest, small in the corner of its picture.
  const QRectF corner(picture.left(), picture.top(), painter.fontMetrics().horizontalAdvance(place_) + 6,
                      painter.fontMetrics().height() - 2);
  painter.fillRect(corner, theme.paper);
  painter.setPen(theme.edge);
  painter.drawRect(corner);
  painter.setPen(theme.ink);
  painter.drawText(corner, Qt::AlignCenter, place_);

  const QRectF bar = parallaxBar();
  painter.setPen(QPen(theme.edge, 1));
  painter.drawLine(bar.bottomLeft(), bar.bottomRight());
  const double one = parallaxPoint(100).x();
  painter.drawLine(QPointF(one, bar.top()), QPointF(one, bar.bottom()));
  const double to = parallaxPoint(parallax_.across).x();
  painter.setPen(QPen(parallax_ == Parallax{} ? theme.softInk : theme.madder, 2));
  painter.drawLine(QPointF(one, bar.bottom()), QPointF(to, bar.bottom()));
  painter.setPen(Qt::NoPen);
  painter.setBrush(parallax_ == Parallax{} ? theme.softInk : theme.madder);
  painter.drawEllipse(QPointF(to, bar.bottom()), 2.6, 2.6);
}

QRectF LayerCard::parallaxBar() const {
  const double left = indent_ + 1 + kThread + kGap;
  return {left, height() - 7.0, width() - left - kGap, 4};
}

QPointF LayerCard::parallaxPoint(int hundredths) const {
  const QRectF bar = parallaxBar();
  return {bar.left() + bar.width() * std::min(hundredths, kBarEnd) / kBarEnd, bar.bottom()};
}

void LayerCard::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  pressedAt_ = event->pos();
  if (event->modifiers() & Qt::ControlModifier) return Q_EMIT alsoChosen(layer_);
  onBar_ = event->position().y() >= height() - kBarReach - 4 &&
           parallaxBar().adjusted(-4, -6, 4, 8).contains(event->position());
  if (!onBar_ || !also_) Q_EMIT chosen(layer_);
}

void LayerCard::mouseMoveEvent(QMouseEvent* event) {
  if (!(event->buttons() & Qt::LeftButton) || field_) return;
  const QPoint by = event->pos() - pressedAt_;
  const bool moves = by.manhattanLength() >= QApplication::startDragDistance();
  if (onBar_ && !dragsBar_ && moves) {
    // The bar goes sideways; an upright drag means the card.
    onBar_ = dragsBar_ = std::abs(by.x()) >= std::abs(by.y());
    if (dragsBar_) Q_EMIT parallaxTaken(layer_);
  }
  if (onBar_) {
    if (!dragsBar_) return;
    const QRectF bar = parallaxBar();
    const double share = std::clamp((event->position().x() - bar.left()) / bar.width(), 0.0, 1.0);
    int hundredths = static_cast<int>(std::lround(share * kBarEnd));
    for (const int mark : {0, 100}) {
      if (std::abs(hundredths - mark) <= kBarSnap) hundredths = mark;
    }
    return Q_EMIT parallaxDragged(layer_, hundredths);
  }
  if (!drags_ && !moves) return;
  drags_ = true;
  Q_EMIT dragged(layer_, mapToParent(event->pos()));
}

void LayerCard::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton && std::exchange(onBar_, false)) {
    if (std::exchange(dragsBar_, false)) Q_EMIT parallaxLeft(layer_);
    return;
  }
  if (event->button() == Qt::LeftButton && std::exchange(drags_, false)) {
    Q_EMIT dropped(layer_, mapToParent(event->pos()));
  }
}

void LayerCard::mouseDoubleClickEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) rename();
}

void LayerCard::rename() {
  if (field_) return;
  const int left = indent_ + kThread + kThumbnail.width() + kGap;
  field_ = new NameField(name_, {left, 4, eye_->x() - left - 2, height() - 12}, this,
                         [this](const QString& name) { Q_EMIT renamed(layer_, name); });
  field_->setObjectName(QStringLiteral("layer-name"));
  field_->setAccessibleName(tr("Name of the layer"));
  connect(field_, &NameField::closed, this, [this] {
    field_ = nullptr;
    Q_EMIT nameClosed();
  });
}

void LayerCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space) {
    Q_EMIT chosen(layer_);
  } else if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
    goToCard(*this, event->key() == Qt::Key_Down);
  } else if (event->key() == Qt::Key_F2) {
    rename();
  } else {
    QFrame::keyPressEvent(event);
  }
}

}  // namespace uq
