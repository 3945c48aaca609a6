// Actions: the commands of the action table as QActions of one window.
//
// Keys with Ctrl work in the whole window; single keys only where a widget hands its key presses to `handleKey` (canvas
// and Table), by their place on the keyboard. `refresh` greys what cannot be done now and puts the reason in its tip.
#pragma once

#include <QAction>
#include <QMenuBar>
#include <QObject>
#include <map>

#include "app/actions/ActionTable.h"

namespace uq {

class Actions : public QObject {
  Q_OBJECT

 public:
  explicit Actions(QWidget* window);

  QAction* action(ActionId id) const { return actions_.at(id); }
  void fill(QMenuBar& bar) const;
  void refresh(const Situation& situation);
  // Draws the icons with the theme in force.
  void redrawIcons();

  // Triggers the command whose single key this is; false when there is none.
  bool handleKey(const QKeyEvent& event);

 Q_SIGNALS:
  void triggered(uq::ActionId id);

 private:
  std::map<ActionId, QAction*> actions_;
};

}  // namespace uq
