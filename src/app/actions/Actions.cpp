#include "app/actions/Actions.h"

#include <QMenu>
#include <QWidget>

#include "app/actions/KeyBindings.h"
#include "app/actions/PhysicalKeys.h"
#include "app/actions/SaveByItself.h"
#include "app/look/Icons.h"
#include "app/look/Theme.h"
#include "app/look/ThemeChoice.h"
#include "core/edit/Seams.h"

namespace uq {

namespace {

// Whether what an action switches is on; nothing for one that switches nothing.
std::optional<bool> isOn(ActionId id, const Desk& desk, const Quilt& quilt) {
  const Map* map = quilt.map(desk.map);
  switch (id) {
    case ActionId::openWithMap: return map && quilt.facts().opensWith == map->id;
    case ActionId::gridLines: return desk.gridLines;
    case ActionId::looseJoints: return desk.showsJoints;
    case ActionId::screenFrame: return desk.showsFrame;
    case ActionId::showAllowance: return desk.showsAllowance;
    case ActionId::coveredCells: return desk.showsCovered;
    case ActionId::holes: return desk.showsHoles;
    case ActionId::colourByHeight: return desk.tinting == Tinting::byHeight;
    case ActionId::fadeOthers: return desk.fadesOthers;
    case ActionId::rulers: return desk.rulers;
    case ActionId::linesOfLayer: return desk.linesOfLayer;
    case ActionId::goToBoard: return desk.onBoard;
    case ActionId::wrapsAcross: return map && wraps(quilt, map->id, false);
    case ActionId::wrapsDown: return map && wraps(quilt, map->id, true);
    case ActionId::boxAlongGrid: return map && desk.box.value_or(usualBox(map->grid.kind)) == BoxShape::alongTheGrid;
    case ActionId::planView: return desk.planView;
    case ActionId::saveEachMinutes: return savesWhen() == SavesWhen::eachMinutes;
    case ActionId::saveOnLeaving: return savesWhen() == SavesWhen::onLeaving;
    case ActionId::linen: return themeChoice() == ThemeChoice::linen;
    case ActionId::indigo: return themeChoice() == ThemeChoice::indigo;
    case ActionId::asDesktop: return themeChoice() == ThemeChoice::asDesktop;
    case ActionId::outlinesOnly: return desk.options.outlines;
    case ActionId::throughCorners: return desk.options.throughCorners;
    case ActionId::onlyThisMap: return desk.options.onlyThisMap;
    case ActionId::onlyThisTile: return desk.options.alike == Alike::tile;
    case ActionId::sameStamp: return desk.options.alike == Alike::stamp;
    case ActionId::wholePile: return desk.options.alike == Alike::pile;
    case ActionId::swapTiles: return desk.options.swaps;
    case ActionId::regionsAsSeen: return desk.options.asSeen.value_or(false);
    case ActionId::selectByBox: return desk.options.selectBy == SelectBy::box;
    case ActionId::selectByOutline: return desk.options.selectBy == SelectBy::outline;
    case ActionId::selectTouching: return desk.options.selectBy == SelectBy::touching;
    case ActionId::selectEverywhere: return desk.options.selectBy == SelectBy::everywhere;
    case ActionId::allLayers: return desk.options.allLayers;
    case ActionId::joinsMet: return desk.options.joinsMet;
    case ActionId::turnByChance: return desk.inHand.turnsByChance;
    default: {
      const auto tool = toolOf(id);
      return tool ? std::optional(desk.tool == *tool) : std::nullopt;
    }
  }
}

// The text with a letter by which it is chosen in its menu: the first of a word if that is free, else any.
QString withLetter(const QString& text, QString& taken) {
  for (const bool first : {true, false}) {
    for (int i = 0; i < text.size(); ++i) {
      const QChar letter = text[i].toLower();
      const bool begins = i == 0 || text[i - 1] == QLatin1Char(' ');
      if (!letter.isLetter() || (first && !begins) || taken.contains(letter)) continue;
      taken += letter;
      return text.left(i) + QLatin1Char('&') + text.mid(i);
    }
  }
  return text;
}

}  // namespace

Actions::Actions(QWidget* window) : QObject(window) {
  for (const ActionRow& row : actionTable()) {
    if (row.gesture) continue;
    auto* action = new QAction(this);
    action->setObjectName(QLatin1String(row.name));
    window->addAction(action);
    action->setCheckable(isOn(row.id, {}, {}).has_value());
    connect(action, &QAction::triggered, this, [this, id = row.id] { Q_EMIT triggered(id); });
    actions_.emplace(row.id, action);
  }
  bindKeys();
  connect(&KeyBindings::shared(), &KeyBindings::changed, this, &Actions::bindKeys);
  redrawIcons();
}

void Actions::bindKeys() {
  const KeyBindings& bindings = KeyBindings::shared();
  std::map<Menu, QString> taken;
  for (const ActionRow& row : actionTable()) {
    if (row.gesture) continue;
    QAction* action = actions_.at(row.id);
    const QKeySequence keys = bindings.keys(row.id);
    const QString plain = translated(row.text);
    action->setText(row.menu == Menu::none ? plain : withLetter(plain, taken[row.menu]));
    // Keys that act only on canvas and Table are shown in menus, but are never a shortcut of the whole window.
    if (row.actsIn == ActsIn::anywhere) {
      action->setShortcut(keys);
    } else if (!keys.isEmpty() && (bindings.lettersAct() || !KeyBindings::isSingle(keys))) {
      action->setText(action->text() + QLatin1Char('\t') + bindings.text(row.id));
    }
    names_[row.id] = action->text();
  }
}

void Actions::say(ActionId id, const QString& more) {
  const QStringList parts = names_.at(id).split(QLatin1Char('\t'));
  QString text = parts.front() + (more.isEmpty() ? QString() : QStringLiteral(" · ") + more);
  if (parts.size() > 1) text += QLatin1Char('\t') + parts.back();
  actions_.at(id)->setText(text);
}

void Actions::redrawIcons() {
  for (const ActionRow& row : actionTable()) {
    if (!row.gesture && *row.icon) {
      actions_.at(row.id)->setIcon(icon(QLatin1String(row.icon), Theme::current().ink));
    }
  }
}

void Actions::fill(QMenuBar& bar) {
  for (Menu place : {Menu::quilt, Menu::edit, Menu::map, Menu::layers, Menu::view, Menu::check, Menu::help}) {
    QMenu* menu = bar.addMenu(menuText(place));
    menu->setToolTipsVisible(true);
    connect(menu, &QMenu::aboutToShow, this, [this, place] { Q_EMIT opens(place); });
    for (const ActionRow& row : actionTable()) {
      if (row.menu != place) continue;
      if (row.opensGroup()) menu->addSeparator();
      menu->addAction(actions_.at(row.id));
    }
  }
}

void Actions::refresh(const Situation& situation) {
  for (const ActionRow& row : actionTable()) {
    if (row.gesture) continue;
    QAction* action = actions_.at(row.id);
    QString reason = row.when(situation);
    if (reason.isEmpty() && situation.desk.onBoard && !row.worksOnBoard()) {
      reason = translated(QT_TRANSLATE_NOOP("actions", "The Board is shown: open a map first"));
    }
    action->setEnabled(reason.isEmpty());
    const QString keys = KeyBindings::shared().text(row.id);
    const QString tip = translated(row.tip) + (keys.isEmpty() ? QString() : QStringLiteral(" (%1)").arg(keys));
    action->setToolTip(reason.isEmpty() ? tip : reason);
  }
  for (const auto& [id, action] : actions_) {
    if (const auto on = isOn(id, situation.desk, situation.quilt)) action->setChecked(*on);
  }
}

void Actions::refreshAlone(bool busy) {
  for (const auto& [id, action] : actions_) {
    const ActionRow& row = actionRow(id);
    const bool waits = busy && (id == ActionId::newQuilt || id == ActionId::openQuilt);
    action->setEnabled(row.worksAlone() && !waits);
    action->setToolTip(waits ? translated(QT_TRANSLATE_NOOP("actions", "A quilt is still being opened or saved"))
                       : row.worksAlone() ? translated(row.tip)
                                          : translated(QT_TRANSLATE_NOOP("actions", "No quilt is open")));
    if (const auto on = isOn(id, {}, {})) action->setChecked(*on);
  }
}

std::optional<ActionId> Actions::actionFor(const QKeyEvent& event) const {
  const auto modifiers = event.modifiers() & ~Qt::KeypadModifier;
  const QKeySequence pressed(static_cast<int>(physicalKey(event)) | static_cast<int>(modifiers));
  const KeyBindings& bindings = KeyBindings::shared();
  if (!bindings.lettersAct() && KeyBindings::isSingle(pressed)) return std::nullopt;
  for (const ActionRow& row : actionTable()) {
    const bool can = !row.gesture && row.actsIn == ActsIn::canvas;
    if (can && bindings.keys(row.id) == pressed) return row.id;
  }
  return std::nullopt;
}

bool Actions::handleKey(const QKeyEvent& event) {
  const auto id = actionFor(event);
  if (id && actions_.at(*id)->isEnabled()) actions_.at(*id)->trigger();
  return id.has_value();
}

}  // namespace uq
