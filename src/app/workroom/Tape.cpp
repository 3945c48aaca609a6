#include "app/workroom/Tape.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QToolButton>

#include "app/look/NumberField.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"
#include "core/document/PlanView.h"

namespace uq {

Tape::Tape(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("tape"));
  setFixedHeight(46);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(kGap, 9, kGap, 3);
  layout->setSpacing(kGap / 2);
  for (ActionId id : {ActionId::brush, ActionId::erase, ActionId::select}) {
    const ActionRow& row = actionRow(id);
    auto* button = makeActionButton(actions->action(id),
                                    QStringLiteral("%1  %2").arg(QLatin1String(row.keys), translated(row.text)), this);
    buttons_[id] = button;
    layout->addWidget(button);
    connect(actions->action(id), &QAction::toggled, this, qOverload<>(&Tape::update));
  }
  layout->addStretch();
  boxes_ = makeActionButton(actions->action(ActionId::boxAlongGrid), translated(actionRow(ActionId::boxAlongGrid).text),
                            this);
  static_cast<QToolButton*>(boxes_)->setCheckable(true);
  layout->addWidget(boxes_);
  auto* lifted = makeSoftLabel(this);
  lifted->setText(tr("lifted"));
  lifted->setWordWrap(false);
  lift_ = new NumberField(tr("How far strokes lie above their layer, in pixels"), 0, kMostLift, 0, this);
  lift_->setObjectName(QStringLiteral("tape-lift"));
  connect(lift_, &NumberField::valueChanged, this, [this](double value) {
    if (session_) session_->setLift(static_cast<int>(value));
  });
  connect(lift_, &QLineEdit::returnPressed, this, &Tape::handsFree);
  auto* pixels = makeSoftLabel(this);
  pixels->setText(tr("px"));
  pixels->setWordWrap(false);
  QToolButton* higher = makeActionButton(actions->action(ActionId::liftHigher), {}, this);
  QToolButton* lower = makeActionButton(actions->action(ActionId::liftLower), {}, this);
  for (QToolButton* button : {higher, lower}) button->setToolButtonStyle(Qt::ToolButtonIconOnly);
  lifts_ = {lifted, lift_, pixels, higher, lower};
  for (QWidget* part : lifts_) layout->addWidget(part);
  refresh(nullptr);
}

void Tape::refresh(Session* session) {
  session_ = session;
  const Map* map = session ? session->map() : nullptr;
  const bool selects = map && session->desk().tool == Tool::select;
  const bool brushes = map && session->desk().tool == Tool::brush;
  boxes_->setVisible(selects && map->grid.kind != GridKind::orthogonal);
  if (map) {
    const BoxShape box = session->desk().box.value_or(usualBox(map->grid.kind));
    static_cast<QToolButton*>(boxes_)->setChecked(box == BoxShape::alongTheGrid);
  }
  const bool rises = brushes && (hasPlan(map->grid.kind) || !map->folders.empty() || session->desk().lift > 0);
  for (QWidget* part : lifts_) part->setVisible(rises);
  if (map && !(lift_->hasFocus() && lift_->isModified())) lift_->setValue(session->desk().lift);
}

void Tape::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.panel);
  // The marks of a measuring tape along its upper edge.
  for (int x = 0, i = 0; x < width(); x += 8, ++i) {
    painter.fillRect(QRect(x, 0, 1, i % 10 == 0 ? 8 : i % 5 == 0 ? 6 : 4), theme.edge);
  }
  for (const auto& [id, button] : buttons_) {
    if (!actions_->action(id)->isChecked()) continue;
    const QRect place = button->geometry();
    painter.fillRect(place, theme.paper);
    drawStitchLine(painter, QLineF(place.left() + 6, place.bottom() + .5, place.right() - 6, place.bottom() + .5),
                   theme.madder, theme.paper);
  }
}

}  // namespace uq
