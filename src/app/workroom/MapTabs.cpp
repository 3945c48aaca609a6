#include "app/workroom/MapTabs.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QToolButton>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

MapTabs::MapTabs(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("tabs"));
  setFixedHeight(38);
  undo_ = new QToolButton(this);
  undo_->setObjectName(QStringLiteral("back-button"));
  undo_->setFocusPolicy(Qt::TabFocus);
  connect(undo_, &QToolButton::clicked, this, &MapTabs::undoPressed);
  layout_ = new QHBoxLayout(this);
  layout_->setContentsMargins(kGap, 3, kGap, 5);
  layout_->setSpacing(kGap);
  layout_->addStretch();
  layout_->addWidget(undo_);
  refresh();
}

void MapTabs::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  if (session_) {
    connect(session_, &Session::quiltChanged, this, &MapTabs::refresh);
    connect(session_, &Session::deskChanged, this, &MapTabs::refresh);
  }
  refresh();
}

void MapTabs::refresh() {
  const std::size_t count = session_ ? session_->quilt().maps().size() : 0;
  while (tabs_.size() > count) {
    delete tabs_.back();
    tabs_.pop_back();
  }
  while (tabs_.size() < count) {
    auto* tab = new QToolButton(this);
    tab->setFocusPolicy(Qt::TabFocus);
    const std::size_t index = tabs_.size();
    connect(tab, &QToolButton::clicked, this, [this, index] {
      Desk desk = session_->desk();
      desk.map = session_->quilt().maps()[index]->id;
      session_->setDesk(std::move(desk));
    });
    layout_->insertWidget(static_cast<int>(index), tab);
    tabs_.push_back(tab);
  }
  for (std::size_t i = 0; i < count; ++i) {
    const Map& map = session_->quilt().maps()[i].read();
    const QString name = QString::fromStdString(map.name);
    const bool saved = session_->isSaved(map);
    tabs_[i]->setObjectName(QStringLiteral("tab-") + QString::fromStdString(map.folder));
    tabs_[i]->setText(saved ? name : tr("%1 •").arg(name));
    tabs_[i]->setAccessibleName(saved ? tr("Map %1").arg(name) : tr("Map %1, not saved").arg(name));
    QFont font = tabs_[i]->font();
    font.setBold(map.id == session_->desk().map);
    tabs_[i]->setFont(font);
  }
  update();
  // Within a stroke there is nothing to go back to, but the button must not flicker.
  if (session_ && session_->inStroke()) return;
  const auto plan = session_ ? session_->undoLine().planBack(session_->desk().map, session_->quilt()) : std::nullopt;
  undo_->setVisible(plan.has_value());
  if (plan) {
    undo_->setText(tr("Back: “%1”").arg(QString::fromStdString(plan->names.front())));
    undo_->setToolTip(translated(actionRow(ActionId::undo).tip));
    undo_->setAccessibleName(undo_->text());
  }
}

void MapTabs::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.panel);
  painter.fillRect(QRect(0, height() - 1, width(), 1), theme.edge);
  for (std::size_t i = 0; i < tabs_.size(); ++i) {
    const QRectF tab = QRectF(tabs_[i]->geometry()).adjusted(.5, .5, -.5, -.5);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(theme.edge);
    const bool active = session_->quilt().maps()[i]->id == session_->desk().map;
    painter.setBrush(active ? theme.paper : theme.panel);
    painter.drawRoundedRect(tab, kCorner, kCorner);
    painter.setRenderHint(QPainter::Antialiasing, false);
    if (active) {
      drawStitchLine(painter, QLineF(tab.left() + 8, tab.bottom() - 1, tab.right() - 8, tab.bottom() - 1), theme.madder,
                     theme.paper);
    }
  }
}

}  // namespace uq
