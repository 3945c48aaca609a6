#include "app/stack/LayerCard.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QToolButton>
#include <utility>

#include "app/look/Icons.h"
#include "app/look/NameField.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr int kThread = 9;  // width of the thread, logical pixels
constexpr QSize kThumbnail(44, 32);
constexpr int kIndent = 14;  // logical pixels
}  // namespace

LayerCard::LayerCard(Id layer, bool onLevel, QWidget* parent)
    : QFrame(parent), layer_(layer), indent_(onLevel ? kIndent : 0) {
  setObjectName(QStringLiteral("card-") + QString::fromStdString(layer.text()));
  setFixedHeight(46);
  setFocusPolicy(Qt::TabFocus);
  eye_ = makeToggle(QStringLiteral("eye"));
  lock_ = makeToggle(QStringLiteral("lock"));
  connect(eye_, &QToolButton::clicked, this, [this] { Q_EMIT eyePressed(layer_); });
  connect(lock_, &QToolButton::clicked, this, [this] { Q_EMIT lockPressed(layer_); });
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, kGap / 2, 0);
  layout->setSpacing(0);
  layout->addStretch();
  layout->addWidget(eye_);
  layout->addWidget(lock_);
}

QToolButton* LayerCard::makeToggle(const QString& name) {
  auto* button = new QToolButton(this);
  button->setObjectName(name);
  button->setFocusPolicy(Qt::TabFocus);
  button->setFixedSize(28, 28);
  button->setIconSize({18, 18});
  button->setStyleSheet(QStringLiteral("QToolButton { padding: 2px; }"));
  return button;
}

void LayerCard::present(const TilesLayer& layer, bool active, bool hidden, bool locked) {
  const Theme& theme = Theme::current();
  name_ = QString::fromStdString(layer.name);
  role_ = QString::fromStdString(layer.role);
  thread_ = layer.thread;
  active_ = active;
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
  setToolTip(tr("Paint on %1").arg(name_));
  update();
}

void LayerCard::setThumbnail(const QImage& picture) {
  thumbnail_ = picture;
  update();
}

void LayerCard::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Theme& theme = Theme::current();
  const QRectF card = QRectF(rect()).adjusted(indent_ + 1, 1, -1, -1);
  painter.setPen(QPen(active_ ? theme.madder : hasFocus() ? theme.woad : theme.edge, active_ ? 2 : 1));
  painter.setBrush(theme.paper);
  painter.drawRoundedRect(card, kCorner, kCorner);
  const QRectF thread(card.left() + 1, card.top() + 1, kThread, card.height() - 2);
  drawThread(painter, thread, thread_);

  const QRectF picture(thread.right() + kGap, (height() - kThumbnail.height()) / 2.0, kThumbnail.width(),
                       kThumbnail.height());
  painter.fillRect(picture, theme.surround.lighter(150));
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

  const qreal left = picture.right() + kGap;
  const qreal width = eye_->x() - left - kGap / 2;
  QFont font = painter.font();
  font.setBold(active_);
  painter.setFont(font);
  painter.setPen(hidden_ ? theme.softInk : theme.ink);
  const QRectF upper(left, 5, width, height() / 2.0 - 4);
  painter.drawText(upper, Qt::AlignLeft | Qt::AlignVCenter,
                   painter.fontMetrics().elidedText(name_, Qt::ElideRight, static_cast<int>(width)));
  font.setBold(false);
  font.setPointSizeF(font.pointSizeF() * 0.88);
  painter.setFont(font);
  painter.setPen(theme.softInk);
  painter.drawText(QRectF(left, height() / 2.0, width, height() / 2.0 - 5), Qt::AlignLeft | Qt::AlignVCenter, role_);
}

void LayerCard::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  pressedAt_ = event->pos();
  Q_EMIT chosen(layer_);
}

void LayerCard::mouseMoveEvent(QMouseEvent* event) {
  if (!(event->buttons() & Qt::LeftButton) || field_) return;
  if (!drags_ && (event->pos() - pressedAt_).manhattanLength() < QApplication::startDragDistance()) return;
  drags_ = true;
  Q_EMIT dragged(layer_, mapToParent(event->pos()));
}

void LayerCard::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton && std::exchange(drags_, false)) {
    Q_EMIT dropped(layer_, mapToParent(event->pos()));
  }
}

void LayerCard::mouseDoubleClickEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) rename();
}

void LayerCard::rename() {
  if (field_) return;
  const int left = indent_ + kThread + kThumbnail.width() + 2 * kGap;
  field_ = new NameField(name_, {left, 8, eye_->x() - left - 2, height() - 16}, this,
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
  } else if (event->key() == Qt::Key_F2) {
    rename();
  } else {
    QFrame::keyPressEvent(event);
  }
}

}  // namespace uq
