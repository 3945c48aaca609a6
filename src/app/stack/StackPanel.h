// StackPanel: the layers of the map, nearest on top, and what the active one is, in sentences.
#pragma once

#include <QFrame>
#include <QTimer>
#include <vector>

#include "app/actions/Actions.h"
#include "app/stack/LayerCard.h"
#include "app/stack/LayerSentences.h"
#include "app/stack/LevelCard.h"
#include "app/stack/Needle.h"
#include "app/workroom/Session.h"

class QLabel;
class QScrollArea;
class QSlider;
class QVBoxLayout;

namespace uq {

class StackPanel : public QWidget {
  Q_OBJECT

 public:
  explicit StackPanel(QWidget* parent = nullptr);

  void setSession(Session* session);
  // The card of a layer; nullptr when it has none.
  LayerCard* card(Id layer) const;
  // The head of a level; nullptr when it has none.
  LevelCard* levelCard(Id level) const;
  // Opens the field for the name of the active layer, or of its level.
  void renameActive();
  void renameLevel();
  // Adds a part under the sentences.
  void putBelow(QWidget* widget);
  // Draws everything with the theme in force.
  void redraw() { refresh(); }

 Q_SIGNALS:
  void handsFree();  // a field was closed: the keys belong to the canvas again

 private:
  void refresh();
  void rebuild(const Map& map);
  void redrawThumbnails();
  void showActive();
  void choose(Id layer);
  Id farthestOn(Id level) const;
  // How many of the other cards lie above a place in the list of cards.
  std::size_t cardsAbove(Id dragged, QPoint at) const;
  void showDropLine(Id dragged, QPoint at);
  void drop(Id dragged, QPoint at);

  Session* session_ = nullptr;
  QVBoxLayout* cardsLayout_;
  std::vector<LayerCard*> cards_;  // nearest first
  std::vector<LevelCard*> levels_;
  std::vector<std::pair<Id, Id>> built_;  // layer and level of each card
  std::vector<Needle*> needles_;          // above each card, and below the last
  QFrame* dropLine_;
  std::map<Id, Revision> drawn_;  // which revision each thumbnail shows
  QLabel* nearest_;
  QLabel* farthest_;
  QLabel* empty_;
  QScrollArea* area_;
  Id shownActive_;
  QSlider* others_;
  LayerSentences* facts_;
  QTimer thumbnailTimer_;  // so that a stroke never waits for a thumbnail
};

// Shuts or opens a layer's eye, or its lock.
void toggleEye(Session& session, Id layer);
void toggleLock(Session& session, Id layer);
// Hides all other layers of the map; shows all where they were hidden already.
void showAlone(Session& session, Id layer);

}  // namespace uq
