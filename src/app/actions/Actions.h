// Actions: the commands of the action table as QActions of one window.
//
// Keys with Ctrl work in the whole window; single keys only where a widget hands its key presses to `handleKey` (canvas
// and Table), by their place on the keyboard. KeyBindings says which keys. `refresh` greys what cannot be done now and
// puts the reason in its tip.
#pragma once

#include <QAction>
#include <QMenuBar>
#include <QObject>
#include <map>
#include <optional>

#include "app/actions/ActionTable.h"

namespace uq {

class Actions : public QObject {
  Q_OBJECT

 public:
  explicit Actions(QWidget* window);

  QAction* action(ActionId id) const { return actions_.at(id); }
  void fill(QMenuBar& bar);
  // Says more behind the name of a row in its menu, until its keys are bound anew.
  void say(ActionId id, const QString& more);
  void refresh(const Situation& situation);
  // While no quilt is open.
  void refreshAlone(bool busy);
  // Draws the icons with the theme in force.
  void redrawIcons();

  // The command whose single key this is; nothing when there is none, or when it is switched off.
  std::optional<ActionId> actionFor(const QKeyEvent& event) const;
  // Triggers it; false when there is none.
  bool handleKey(const QKeyEvent& event);

 Q_SIGNALS:
  void triggered(uq::ActionId id);
  void opens(uq::Menu menu);  // about to be shown

 private:
  // Gives every action its keys.
  void bindKeys();

  std::map<ActionId, QAction*> actions_;
  std::map<ActionId, QString> names_;  // as they stand in menus
};

}  // namespace uq
