// NewMapCard: what is asked of somebody who wants a map, in four lines — its name, its grid, its cells, its size.
//
// Every line is filled already, and says where its value comes from. Beside them the map is drawn as it will be, with
// the player's screens on it.
#pragma once

#include <map>
#include <optional>

#include "app/look/Card.h"
#include "core/edit/ArrangeMaps.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QToolButton;

namespace uq {

class NumberField;

class NewMapCard : public Card {
  Q_OBJECT

 public:
  explicit NewMapCard(QWidget* parent);

  // Shows the card in the middle of its parent. `like` and `sheet` as for proposedMap.
  void open(const Quilt& quilt, const Map* like, const Sheet* sheet);
  // Filled with a plan, `from` says where its values come from. With a neighbour's name it also asks how many of that map's
  // last columns or rows (`rows`) are carried over.
  struct Beside {
    QString name;
    bool rows = false;
  };
  void open(const Quilt& quilt, const MapPlan& proposed, const QString& from, const std::optional<Beside>& beside);
  MapPlan plan() const;
  // How many columns or rows are carried over.
  int carried() const;

 Q_SIGNALS:
  void planned(const uq::MapPlan& plan);
  void closed();  // with or without a plan

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  class Preview;

  // Shows what is proposed.
  void fill();
  void chooseGrid(GridKind kind);
  void refresh();
  void refreshOffers(const MapPlan& plan);
  void take();
  void close();
  void moveToMiddle();

  QLineEdit* name_;
  NumberField* cellWidth_;
  NumberField* cellHeight_;
  QWidget* sideWords_;
  NumberField* side_;
  std::vector<QPushButton*> offers_;  // cells that would do, each with the reason
  std::vector<QLabel*> reasons_;
  std::vector<GridShape> offered_;
  PixelSize tile_;  // of the sheet in hand; else 0 × 0
  NumberField* width_;
  NumberField* height_;
  std::map<GridKind, QToolButton*> grids_;
  GridKind kind_ = GridKind::orthogonal;
  QWidget* carryWords_;
  NumberField* carry_;
  QLabel* carryFrom_;
  QLabel* gridName_;
  QComboBox* seen_;
  QLabel* cellHint_;
  QLabel* sizeHint_;
  QLabel* figures_;
  QLabel* refusal_;
  QPushButton* make_;
  Preview* preview_;
  PixelSize screen_;
  MapPlan proposed_;
  QString cellFrom_;
  QString sizeFrom_;
};

}  // namespace uq
