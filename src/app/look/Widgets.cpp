#include "app/look/Widgets.h"

#include <QAction>

namespace uq {

void makeCard(QFrame* frame) { frame->setProperty("card", true); }

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
  label->setProperty("soft", true);
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
    button->setIcon(action->icon());
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
