// StackPanel: the layers of the map, nearest on top, and what the active one is, in sentences.
#pragma once

#include <QFrame>
#include <QTimer>
#include <vector>

#include "app/actions/Actions.h"
#include "app/stack/FolderCard.h"
#include "app/stack/LayerCard.h"
#include "app/stack/LayerSentences.h"
#include "app/stack/PinSentences.h"
#include "app/stack/Needle.h"
#include "app/stack/WalkerCard.h"
#include "app/workroom/Session.h"
#include "core/edit/StackRows.h"

class QLabel;
class QScrollArea;
class QSlider;
class QToolButton;
class QVBoxLayout;

namespace uq {

class Panes;

class StackPanel : public QWidget {
  Q_OBJECT

 public:
  explicit StackPanel(QWidget* parent = nullptr);

  void setSession(Session* session);
  // The card of a layer; nullptr when it has none.
  LayerCard* card(Id layer) const;
  // The head of a folder; nullptr when it has none.
  FolderCard* folderCard(Id folder) const;
  WalkerCard* walkerCard() const { return walker_; }
  // Opens the field for the name of the active layer, or of its folder.
  void renameActive();
  void renameLevel();
  // Cards, sentences and what is put below, in this order.
  Panes* panes() const { return panes_; }
  QWidget* cards() const;
  QWidget* sentences() const { return facts_; }
  // Adds a part under the sentences; once.
  void putBelow(QWidget* widget);
  // Draws everything with the theme in force.
  void redraw() { refresh(); }

 Q_SIGNALS:
  void leadWanted();  // a way from the chosen pin is to be made
  void handsFree();  // a field was closed: the keys belong to the canvas again

 private:
  void refresh();
  void rebuild(const Map& map);
  void redrawThumbnails();
  void showActive();
  void choose(Id layer);
  LayerCard* makeCard(const StackRow& row);
  FolderCard* makeHead(const StackRow& row);
  Needle* makeNeedle(StackPlace place, BesideWalker beside, const QString& name);
  void offerKinds(StackPlace place, BesideWalker beside, QPoint at);
  Id farthestIn(Id folder) const;
  // The row nearest to a place in the list of cards, without what is dragged, and whether it is over its lower half.
  struct Gap {
    std::size_t row;
    bool lowerHalf;
  };
  std::optional<Gap> gapAt(Id dragged, QPoint at) const;
  void showDropLine(Id dragged, QPoint at);
  void hideDropLine();
  void drop(Id dragged, QPoint at);

  Session* session_ = nullptr;
  QVBoxLayout* cardsLayout_;
  std::vector<LayerCard*> cards_;  // nearest first, as the rest
  std::vector<FolderCard*> heads_;
  std::vector<StackRow> rows_;
  std::vector<QWidget*> rowCards_;  // of each row
  std::vector<Needle*> needles_;    // above each row, and below the last
  WalkerCard* walker_ = nullptr;
  std::size_t walkerPlace_ = 0;
  QFrame* dropLine_;
  std::map<Id, Revision> drawn_;  // which revision each thumbnail shows
  QLabel* empty_;
  Panes* panes_;
  QScrollArea* area_;
  Id shownActive_;
  QSlider* others_;
  QToolButton* heights_;
  LayerSentences* facts_;
  PinSentences* pin_;  // in their place while a pin is chosen
  QTimer thumbnailTimer_;  // so that a stroke never waits for a thumbnail
};

// Shuts or opens a layer's eye, or its lock.
void toggleEye(Session& session, Id layer);
void toggleLock(Session& session, Id layer);
// Hides all other layers of the map; shows all where they were hidden already.
void showAlone(Session& session, Id layer);

}  // namespace uq
