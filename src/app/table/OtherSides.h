// OtherSides: the tiles that show the one in hand from its other sides — three on four-sided cells, five on hexagons.
//
// A tile dropped on a place, or taken after the place was pressed, becomes that side; Delete or a right click takes it
// away. Shown for a single tile of a sheet on maps whose pictures cannot be turned.
#pragma once

#include <QWidget>

#include "app/workroom/Session.h"

class QLabel;
class QToolButton;

namespace uq {

class OtherSides : public QWidget {
  Q_OBJECT

 public:
  explicit OtherSides(QWidget* parent = nullptr);

  void setSession(Session* session) { session_ = session; }
  void refresh();
  // Makes a tile the side whose place is under a point of the screen; false when none is.
  bool drop(TileRef tile, QPoint global);
  // The place of the side turned to the right by `steps`; nullptr when it is not shown.
  QToolButton* place(int steps) const;

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  QImage pictureOf(TileRef tile) const;

  Session* session_ = nullptr;
  QLabel* label_;
  std::vector<QToolButton*> places_;  // turned by 1, 2, …
};

}  // namespace uq
