// SheetCard: everything about one sheet — how it is cut, what its pixels need, what its tiles are and where it comes
// from.
//
// Opens by itself beside the Table when a picture comes in, with the cut already made: there is nothing to confirm.
// Every control acts at once and is one step. While it is open the Table shows the cut over the picture.
#pragma once

#include <vector>

#include "app/look/Card.h"
#include "app/workroom/SheetWork.h"

class QCheckBox;
class QComboBox;
class QHBoxLayout;
class QLabel;
class QLineEdit;
class QToolButton;
class QVBoxLayout;

namespace uq {

class NumberField;
class OddSizesPart;
class PiecesPart;
class Session;
class TableView;

class SheetCard : public Card {
  Q_OBJECT

 public:
  // Lies over the left edge of `parent`, and works on what `table` shows.
  SheetCard(TableView* table, QWidget* parent);

  void setSession(Session* session);
  void open(Id sheet);
  std::optional<Id> sheet() const { return isVisible() ? std::optional(sheet_) : std::nullopt; }

 Q_SIGNALS:
  void closed();
  void newMapWanted(uq::Id sheet);
  void tidyWanted(uq::Id sheet);
  void joinWanted(uq::Id sheet);
  void exportWanted(uq::Id sheet);
  void said(const QString& text);
  // What was painted with an older cut; see PiecesPart.
  void placeWanted(uq::TileRef tile);
  void showsCells(const uq::CellSet& cells);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  NumberField* number(const char* object, const QString& name, int least, int most);
  QLineEdit* textField(const char* object, const QString& name, const QString& hint);
  QWidget* buildCut();
  QWidget* buildPixels();
  QWidget* buildFooting();
  QWidget* buildFacts();
  QWidget* buildTiles();
  QWidget* buildFoot();
  void refresh();
  void refreshCut(const Sheet& sheet);
  void refreshPixels(const Sheet& sheet);
  void refreshFacts(const Sheet& sheet);
  void refreshTiles(const Sheet& sheet);
  void refreshBelongs(const Sheet& sheet, const std::vector<std::uint32_t>& tiles);
  void useCut();
  void setStance();
  // What the tiles chosen on the sheet, or all of them, are to somebody walking.
  void setFooting(Footing footing);
  std::set<std::uint32_t> chosen() const;
  QString agreement(const Sheet& sheet) const;
  // How many times as large as the map's cells the tiles are, where that is a whole factor by which they can be shrunk;
  // else 1.
  int timesTheCells(const Sheet& sheet) const;
  // On how much the sheet is used, before it is taken away.
  QString usedText() const;
  void place();

  TableView* table_;
  Session* session_ = nullptr;
  Id sheet_;
  QLineEdit* name_;
  QWidget* cut_;
  QHBoxLayout* chips_;
  QLabel* reason_;
  NumberField* cellW_;
  NumberField* cellH_;
  NumberField* border_;
  NumberField* gap_;
  NumberField* offsetX_;
  NumberField* offsetY_;
  PiecesPart* pieces_;
  QLabel* agreement_;
  QToolButton* mapCell_;
  QToolButton* newMap_;
  OddSizesPart* odd_;
  QWidget* pixels_;
  QToolButton* shrink_;
  QToolButton* rims_;
  QToolButton* seeThrough_;
  QToolButton* pick_;
  QLabel* twice_;
  QWidget* scale_;  // of a drawing of lines
  NumberField* enlarge_;
  QLabel* footingText_;
  std::vector<QToolButton*> footings_;  // in the order of Footing, called as their icons
  QLineEdit* pile_;
  QLineEdit* from_;
  QLineEdit* by_;
  QLineEdit* licence_;
  QComboBox* sell_;
  QCheckBox* turn_;
  QCheckBox* mirrorAcross_;
  QCheckBox* mirrorDown_;
  QToolButton* usualTurns_;
  QCheckBox* follow_;
  QToolButton* remove_;
  NumberField* seatX_;
  NumberField* seatY_;
  NumberField* footW_;
  NumberField* footH_;
  QLabel* tilesTitle_;
  QLineEdit* tileName_;
  QLineEdit* tags_;
  QComboBox* belongs_;
  QCheckBox* keep_;
  QToolButton* animate_;
  NumberField* frameTime_;
  std::vector<CutProposal> shown_;  // on the chips
};

}  // namespace uq
