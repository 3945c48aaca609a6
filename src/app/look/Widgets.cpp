#include "app/look/Widgets.h"

#include <QAction>

#include "app/look/Theme.h"

namespace uq {

void makeCard(QFrame* frame) {
  const Theme& theme = Theme::current();
  frame->setStyleSheet(QStringLiteral("#%1 { background: %2; border: 1px solid %3; border-radius: %4px; }")
                           .arg(frame->objectName(), theme.paper.name(), theme.edge.name())
                           .arg(kCorner));
}

QLabel* makeTitle(const QString& text, QWidget* parent) {
  auto* label = new QLabel(text, parent);
  QFont font = label->font();
  font.setBold(true);
  label->setFont(font);
  return label;
}

QLabel* makeSoftLabel(QWidget* parent) {
  auto* label = new QLabel(parent);
  label->setWordWrap(true);
  QPalette palette = label->palette();
  palette.setColor(QPalette::WindowText, Theme::current().softInk);
  label->setPalette(palette);
  return label;
}

QToolButton* makeActionButton(QAction* action, const QString& text, QWidget* parent) {
  auto* button = new QToolButton(parent);
  button->setObjectName(action->objectName() + QStringLiteral("-button"));
  button->setFocusPolicy(Qt::TabFocus);
  button->setIcon(action->icon());
  button->setIconSize({18, 18});
  button->setText(text);
  button->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  const auto follow = [button, action] {
    button->setEnabled(action->isEnabled());
    button->setToolTip(action->toolTip());
    button->setAccessibleName(action->text().section(QLatin1Char('\t'), 0, 0));
  };
  QObject::connect(action, &QAction::changed, button, follow);
  QObject::connect(button, &QToolButton::clicked, action, &QAction::trigger);
  follow();
  return button;
}

}  // namespace uq
