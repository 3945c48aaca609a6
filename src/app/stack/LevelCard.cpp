#include "app/stack/LevelCard.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QToolButton>

#include "app/look/Icons.h"
#include "app/look/NameField.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr int kHeight = 30;  // logical pixels
}

LevelCard::LevelCard(Id level, QWidget* parent) : QFrame(parent), level_(level) {
  setObjectName(QStringLiteral("level-") + QString::fromStdString(level.text()));
  setFixedHeight(kHeight);
  setFocusPolicy(Qt::TabFocus);
  next_ = new QToolButton(this);
  next_->setObjectName(QStringLiteral("next-level"));
  next_->setFocusPolicy(Qt::TabFocus);
  next_->setFixedSize(26, 26);
  next_->setIconSize({18, 18});
  next_->setStyleSheet(QStringLiteral("QToolButton { padding: 2px; }"));
  connect(next_, &QToolButton::clicked, this, [this] { Q_EMIT nextPressed(level_); });
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(0, 0, kGap / 2 + 2, 0);
  layout->addStretch();
  layout->addWidget(next_);
}

void LevelCard::present(const LayerFolder& level, bool active) {
  name_ = QString::fromStdString(level.name);
  rise_ = level.rise;
  active_ = active;
  next_->setIcon(icon(QStringLiteral("level-add"), Theme::current().ink));
  next_->setToolTip(tr("Add the next level above %1").arg(name_));
  next_->setAccessibleName(next_->toolTip());
  setAccessibleName(tr("%1, risen by %2 px").arg(name_).arg(rise_));
  setToolTip(tr("Paint on %1; a double click renames it").arg(name_));
  update();
}

void LevelCard::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  if (hasFocus()) {
    painter.setPen(theme.woad);
    painter.drawRect(rect().adjusted(0, 0, -1, -1));
  }
  QFont font = painter.font();
  font.setBold(active_);
  painter.setFont(font);
  painter.setPen(theme.ink);
  const int room = next_->x() - 6;
  const QString name = painter.fontMetrics().elidedText(name_, Qt::ElideRight, room * 2 / 3);
  const int width = painter.fontMetrics().horizontalAdvance(name);
  painter.drawText(QRect(4, 0, width, height() - 4), Qt::AlignLeft | Qt::AlignVCenter, name);
  font.setBold(false);
  font.setPointSizeF(font.pointSizeF() * 0.88);
  painter.setFont(font);
  painter.setPen(theme.softInk);
  const QString risen = rise_ >= 0 ? tr("up %1 px").arg(rise_) : tr("down %1 px").arg(-rise_);
  painter.drawText(QRect(width + 12, 0, room - width - 12, height() - 4), Qt::AlignLeft | Qt::AlignVCenter, risen);
  drawStitchLine(painter, QLineF(4, height() - 3.5, next_->x() - 4, height() - 3.5),
                 active_ ? theme.madder : theme.softInk, theme.panel);
}

void LevelCard::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) Q_EMIT chosen(level_);
}

void LevelCard::mouseDoubleClickEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) rename();
}

void LevelCard::rename() {
  if (field_) return;
  field_ = new NameField(name_, {0, 1, next_->x() - 4, height() - 4}, this,
                         [this](const QString& name) { Q_EMIT renamed(level_, name); });
  field_->setObjectName(QStringLiteral("level-name"));
  field_->setAccessibleName(tr("Name of the level"));
  connect(field_, &NameField::closed, this, [this] {
    field_ = nullptr;
    Q_EMIT nameClosed();
  });
}

void LevelCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space) {
    Q_EMIT chosen(level_);
  } else if (event->key() == Qt::Key_F2) {
    rename();
  } else {
    QFrame::keyPressEvent(event);
  }
}

}  // namespace uq
