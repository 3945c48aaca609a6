// PiecesPart: the part of a sheet's card that says what was painted with an older cut of it, and puts that right.
//
// Shown only while there is such a thing. Where it is certain which tile was meant, one press lays those tiles, and while
// the button is pointed at, their cells are lit; the rest is counted, and gone to one by one.
#pragma once

#include <QWidget>

#include "core/cells/CellSet.h"
#include "core/edit/OldPieces.h"

class QLabel;
class QToolButton;

namespace uq {

class Session;

class PiecesPart : public QWidget {
  Q_OBJECT

 public:
  explicit PiecesPart(QWidget* parent);

  // Takes the sheet as it is now. Counts only where it has retired tiles.
  void refresh(Session* session, Id sheet);

 Q_SIGNALS:
  void placeWanted(uq::TileRef tile);        // the next one of it on the map that is worked on
  void showsCells(const uq::CellSet& cells);  // of that map; empty: none any more

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  Session* session_ = nullptr;
  Id sheet_;
  OldPieces pieces_;
  std::size_t next_ = 0;  // of those that are unsure
  QToolButton* meant_;
  QLabel* unsure_;
  QToolButton* show_;
};

}  // namespace uq
