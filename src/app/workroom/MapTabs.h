// MapTabs: a tab for each open map, the active one with stitches under it, a dot where it is not saved.
//
// A click goes to the map, a middle click takes the tab away, a double click renames the map in place.
#pragma once

#include <QWidget>
#include <vector>

#include "app/actions/Actions.h"
#include "app/workroom/Session.h"

class QHBoxLayout;
class QToolButton;

namespace uq {

class NameField;

class MapTabs : public QWidget {
  Q_OBJECT

 public:
  explicit MapTabs(Actions* actions, QWidget* parent = nullptr);

  void setSession(Session* session);
  QToolButton* undoButton() const { return undo_; }
  // The tab of an open map; nullptr when it has none.
  QToolButton* tab(Id map) const;
  // Opens a field over the name of the map that is worked on; Enter takes what is typed, Esc leaves it.
  void rename();

 Q_SIGNALS:
  void undoPressed();
  void handsFree();  // the field was closed

 protected:
  void paintEvent(QPaintEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void refresh();

  Session* session_ = nullptr;
  QHBoxLayout* layout_;
  std::vector<QToolButton*> tabs_;
  QToolButton* more_;
  QToolButton* undo_;
  NameField* field_ = nullptr;
};

}  // namespace uq
