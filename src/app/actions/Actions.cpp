#include "app/actions/Actions.h"

#include <QMenu>
#include <QWidget>

#include "app/actions/PhysicalKeys.h"
#include "app/look/Icons.h"
#include "app/look/Theme.h"
#include "app/look/ThemeChoice.h"

namespace uq {

namespace {

QKeySequence keysOf(const ActionRow& row) { return QKeySequence(QLatin1String(row.keys), QKeySequence::PortableText); }

}  // namespace

Actions::Actions(QWidget* window) : QObject(window) {
  for (const ActionRow& row : actionTable()) {
    if (row.gesture) continue;
    auto* action = new QAction(translated(row.text), this);
    action->setObjectName(QLatin1String(row.name));
    const QKeySequence keys = keysOf(row);
    if (row.actsIn == ActsIn::anywhere) {
      action->setShortcut(keys);
      window->addAction(action);
    } else if (!keys.isEmpty()) {
      // Shown in menus, but never a shortcut of the whole window.
      action->setText(action->text() + QLatin1Char('\t') + keys.toString(QKeySequence::NativeText));
    }
    const bool toggles = row.id == ActionId::gridLines || row.id == ActionId::brush || row.id == ActionId::erase ||
                         row.id == ActionId::select || row.id == ActionId::linen || row.id == ActionId::indigo ||
                         row.id == ActionId::asDesktop;
    action->setCheckable(toggles);
    connect(action, &QAction::triggered, this, [this, id = row.id] { Q_EMIT triggered(id); });
    actions_.emplace(row.id, action);
  }
  redrawIcons();
}

void Actions::redrawIcons() {
  for (const ActionRow& row : actionTable()) {
    if (!row.gesture && *row.icon) {
      actions_.at(row.id)->setIcon(icon(QLatin1String(row.icon), Theme::current().ink));
    }
  }
}

void Actions::fill(QMenuBar& bar) const {
  for (Menu place : {Menu::quilt, Menu::edit, Menu::map, Menu::layers, Menu::view}) {
    QMenu* menu = bar.addMenu(menuText(place));
    menu->setToolTipsVisible(true);
    for (const ActionRow& row : actionTable()) {
      if (row.menu == place) menu->addAction(actions_.at(row.id));
    }
  }
}

void Actions::refresh(const Situation& situation) {
  for (const ActionRow& row : actionTable()) {
    if (row.gesture) continue;
    QAction* action = actions_.at(row.id);
    const QString reason = row.when(situation);
    action->setEnabled(reason.isEmpty());
    const QString keys = keysOf(row).toString(QKeySequence::NativeText);
    const QString tip = translated(row.tip) + (keys.isEmpty() ? QString() : QStringLiteral(" (%1)").arg(keys));
    action->setToolTip(reason.isEmpty() ? tip : reason);
  }
  action(ActionId::gridLines)->setChecked(situation.desk.gridLines);
  action(ActionId::linen)->setChecked(themeChoice() == ThemeChoice::linen);
  action(ActionId::indigo)->setChecked(themeChoice() == ThemeChoice::indigo);
  action(ActionId::asDesktop)->setChecked(themeChoice() == ThemeChoice::asDesktop);
  action(ActionId::brush)->setChecked(situation.desk.tool == Tool::brush);
  action(ActionId::erase)->setChecked(situation.desk.tool == Tool::erase);
  action(ActionId::select)->setChecked(situation.desk.tool == Tool::select);
}

bool Actions::handleKey(const QKeyEvent& event) {
  const auto modifiers = event.modifiers() & ~Qt::KeypadModifier;
  const QKeySequence pressed(static_cast<int>(physicalKey(event)) | static_cast<int>(modifiers));
  for (const ActionRow& row : actionTable()) {
    if (row.gesture || row.actsIn != ActsIn::canvas || keysOf(row) != pressed) continue;
    QAction* found = actions_.at(row.id);
    if (!found->isEnabled()) return true;
    found->trigger();
    return true;
  }
  return false;
}

}  // namespace uq
