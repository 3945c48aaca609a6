// Lens: what lies on one cell, layer by layer, fanned out beside it.
//
// A line for each layer of the map, nearest on top: its thread, its picture there, and what it is. A click goes to the
// layer; buttons take the tile into the hand, move it to the next layer, delete it, and swap it for what is in hand. Pins
// there are said with where they lead, and a way can be begun from the cell.
// With Select the verbs of the selection stand at its foot. Closes by Esc, by a press elsewhere, and after an act.
#pragma once

#include <QFrame>

#include "app/actions/Actions.h"
#include "app/workroom/Session.h"

class QVBoxLayout;

namespace uq {

class Lens : public QFrame {
  Q_OBJECT

 public:
  explicit Lens(Actions* actions, QWidget* parent);

  // Shows what lies on a cell, near a point of the screen; `withVerbs`: what can be done to the selection, too.
  void open(Session* session, CellPos at, QPoint near, bool withVerbs);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void build(bool withVerbs);
  void addLayer(const Layer& layer, const QString& level);
  void addWalker();
  void addSwaps(TileRef tile);
  // The pins on the cell, and a way from it.
  void addPins();
  QPixmap pictureOf(Cell cell) const;
  // Closes, then does it.
  void act(const std::function<void()>& what);

  Actions* actions_;
  Session* session_ = nullptr;
  CellPos at_;
  QVBoxLayout* lines_ = nullptr;
};

}  // namespace uq
