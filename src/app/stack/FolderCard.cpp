#include "app/stack/FolderCard.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QToolButton>
#include <algorithm>
#include <utility>

#include "app/look/Icons.h"
#include "app/look/NameField.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/stack/LayerCard.h"

namespace uq {

namespace {
constexpr int kHeight = 26;  // logical pixels
constexpr int kFold = 18;
}  // namespace

FolderCard::FolderCard(Id folder, int depth, QWidget* parent) : QFrame(parent), folder_(folder), depth_(depth) {
  setObjectName(QStringLiteral("folder-") + QString::fromStdString(folder.text()));
  setFixedHeight(kHeight);
  setFocusPolicy(Qt::TabFocus);
  fold_ = makeButton("fold-up");
  fold_->setFixedWidth(kFold);
  eye_ = makeButton("eye");
  next_ = makeButton("next-level");
  connect(fold_, &QToolButton::clicked, this, [this] { Q_EMIT foldPressed(folder_); });
  connect(eye_, &QToolButton::clicked, this, [this] { Q_EMIT eyePressed(folder_); });
  connect(next_, &QToolButton::clicked, this, [this] { Q_EMIT nextPressed(folder_); });
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(stackIndent(depth), 0, kGap / 2 + 2, 0);
  layout->setSpacing(0);
  layout->addWidget(fold_);
  layout->addStretch();
  layout->addWidget(next_);
  layout->addWidget(eye_);
}

QToolButton* FolderCard::makeButton(const char* name) {
  auto* button = new QToolButton(this);
  button->setObjectName(QLatin1String(name));
  button->setFocusPolicy(Qt::TabFocus);
  button->setFixedSize(24, 24);
  button->setIconSize({18, 18});
  button->setStyleSheet(QStringLiteral("QToolButton { padding: 2px; }"));
  return button;
}

int FolderCard::textLeft() const { return stackIndent(depth_) + kFold + 2; }

void FolderCard::present(const LayerFolder& folder, const Shown& shown) {
  const Theme& theme = Theme::current();
  name_ = QString::fromStdString(folder.name);
  shown_ = shown;
  const bool isLevel = folder.rise != 0;
  what_ = folder.rise > 0     ? tr("up %1 px").arg(folder.rise)
          : folder.rise < 0   ? tr("down %1 px").arg(-folder.rise)
          : shown.layers == 1 ? tr("1 layer")
                              : tr("%1 layers").arg(shown.layers);
  next_->setVisible(isLevel);
  next_->setIcon(icon(QStringLiteral("level-add"), theme.ink));
  next_->setToolTip(tr("Add the next level above %1").arg(name_));
  fold_->setIcon(icon(shown.foldedUp ? QStringLiteral("folded") : QStringLiteral("unfolded"), theme.ink));
  fold_->setToolTip(shown.foldedUp ? tr("Show the cards of %1").arg(name_) : tr("Fold the cards of %1 up").arg(name_));
  eye_->setIcon(icon(shown.hidden ? QStringLiteral("eye-shut") : QStringLiteral("eye-open"),
                     shown.hidden ? theme.softInk : theme.ink));
  eye_->setToolTip(shown.hidden ? tr("Show all of %1").arg(name_) : tr("Hide all of %1").arg(name_));
  for (QToolButton* one : {fold_, eye_, next_}) one->setAccessibleName(one->toolTip());
  setAccessibleName(tr("%1, %2").arg(name_, what_));
  setToolTip(tr("Paint on %1; a double click renames it, a drag moves all of it").arg(name_));
  update();
}

void FolderCard::offerItself(bool offers) {
  if (std::exchange(offers_, offers) != offers) update();
}

void FolderCard::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  const int left = stackIndent(depth_);
  if (hasFocus() || offers_) {
    painter.setPen(QPen(offers_ ? theme.madder : theme.woad, offers_ ? 2 : 1));
    painter.drawRect(rect().adjusted(left + 1, 1, -2, -2));
  }
  QFont font = painter.font();
  font.setBold(shown_.active);
  painter.setFont(font);
  painter.setPen(theme.ink);
  const int end = next_->isVisibleTo(this) ? next_->x() : eye_->x();
  const int room = end - textLeft() - 4;
  const QString name = painter.fontMetrics().elidedText(name_, Qt::ElideRight, room * 2 / 3);
  const int width = painter.fontMetrics().horizontalAdvance(name);
  painter.drawText(QRect(textLeft(), 0, width, height() - 4), Qt::AlignLeft | Qt::AlignVCenter, name);
  font.setBold(false);
  font.setPointSizeF(font.pointSizeF() * 0.88);
  painter.setFont(font);
  painter.setPen(theme.softInk);
  painter.drawText(QRect(textLeft() + width + 8, 0, room - width - 8, height() - 4), Qt::AlignLeft | Qt::AlignVCenter,
                   what_);
  drawStitchLine(painter, QLineF(left + 4, height() - 3.5, end - 4, height() - 3.5),
                 shown_.active ? theme.madder : theme.softInk, theme.panel);
}

void FolderCard::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  pressedAt_ = event->pos();
}

void FolderCard::mouseMoveEvent(QMouseEvent* event) {
  if (!(event->buttons() & Qt::LeftButton) || field_) return;
  if (!drags_ && (event->pos() - pressedAt_).manhattanLength() < QApplication::startDragDistance()) return;
  drags_ = true;
  Q_EMIT dragged(folder_, mapToParent(event->pos()));
}

void FolderCard::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  if (std::exchange(drags_, false)) {
    Q_EMIT dropped(folder_, mapToParent(event->pos()));
  } else if (!field_) {
    Q_EMIT chosen(folder_);
  }
}

void FolderCard::mouseDoubleClickEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) rename();
}

void FolderCard::rename() {
  if (field_) return;
  field_ = new NameField(name_, {textLeft() - 4, 1, eye_->x() - textLeft(), height() - 4}, this,
                         [this](const QString& name) { Q_EMIT renamed(folder_, name); });
  field_->setObjectName(QStringLiteral("level-name"));
  field_->setAccessibleName(tr("Name of the folder"));
  connect(field_, &NameField::closed, this, [this] {
    field_ = nullptr;
    Q_EMIT nameClosed();
  });
}

void FolderCard::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space) {
    Q_EMIT chosen(folder_);
  } else if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right) {
    if (shown_.foldedUp == (event->key() == Qt::Key_Right)) Q_EMIT foldPressed(folder_);
  } else if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
    goToCard(*this, event->key() == Qt::Key_Down);
  } else if (event->key() == Qt::Key_F2) {
    rename();
  } else {
    QFrame::keyPressEvent(event);
  }
}

}  // namespace uq
