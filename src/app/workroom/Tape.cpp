#include "app/workroom/Tape.h"

#include <QHBoxLayout>
#include <QPainter>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"

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
