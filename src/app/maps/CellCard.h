// CellCard: other cells for the open map: how large, whether the cells stay or how far they reach, and the sizes that
// suit the tiles in hand.
//
// What it says is shown on the canvas at once (TrialCard). Threads: the interface's.
#pragma once

#include <vector>

#include "app/maps/TrialCard.h"
#include "core/grid/Grid.h"

class QComboBox;

namespace uq {

class NumberField;

class CellCard : public TrialCard {
  Q_OBJECT

 public:
  explicit CellCard(QWidget* parent);

  // For the open map, with offers for the tiles of `sheet` (the empty id: none); nothing where it cannot be changed,
  // and why is told.
  void open(Id sheet);

 private:
  void offerFor(const Sheet* sheet, const GridShape& now);
  void follow();

  NumberField* width_;
  NumberField* height_;
  QComboBox* keeps_;
  std::vector<QPushButton*> offers_;
  std::vector<PixelSize> offered_;
};

}  // namespace uq
