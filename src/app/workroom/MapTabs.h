// MapTabs: a tab for each open map, the active one with stitches under it, a dot where it is not saved.
//
// A click goes to the map, a middle click takes the tab away, a double click renames the map in place. However many maps
// are open, and whatever they are called, the row is never wider than the window: long names are cut short, shorter where
// many tabs share the row, and where that is not enough, they are scrolled by the wheel, and to the active one by
// themselves. The button that takes the last step back has its place whether there is a step or not.
#pragma once

#include <QWidget>
#include <set>
#include <vector>

#include "app/actions/Actions.h"
#include "app/workroom/Session.h"

class QHBoxLayout;
class QScrollArea;
class QToolButton;

namespace uq {

class NameField;

class MapTabs : public QWidget {
  Q_OBJECT

 public:
  explicit MapTabs(Actions* actions, QWidget* parent = nullptr);

  void setSession(Session* session);
  QToolButton* boardTab() const { return board_; }
  // The tab of an open map; nullptr when it has none.
  QToolButton* tab(Id map) const;
  // Opens a field over the name of the map that is worked on; Enter takes what is typed, Esc leaves it.
  void rename();

 Q_SIGNALS:
  void undoPressed();
  void handsFree();  // the field was closed

 protected:
  void paintEvent(QPaintEvent* event) override;
  void changeEvent(QEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void refresh();
  // Whether all names have room, as long as they are shown at most.
  bool namesFit(int room) const;
  static void keepWidth(QToolButton& tab, const QString& text);
  static void paintTab(QPainter& painter, const QRectF& tab, bool active);
  void paintTabs();
  void fitStrip();
  void showActive();

  Session* session_ = nullptr;
  QScrollArea* scroll_;
  QWidget* strip_;  // holds the tabs
  QHBoxLayout* layout_;
  std::set<Id> unsaved_;
  Id shown_;  // the active map, to which the tabs were scrolled
  std::vector<QToolButton*> tabs_;
  QToolButton* board_;
  QToolButton* more_;
  QToolButton* undo_;
  NameField* field_ = nullptr;
};

}  // namespace uq
