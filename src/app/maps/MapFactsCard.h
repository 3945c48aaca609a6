// MapFactsCard: what is said of a map in the game, as sentences — the cloth behind its layers, what the screen shows,
// and the name that players read, drawn in the screen as they see it.
#pragma once

#include <vector>

#include "app/look/Card.h"
#include "app/workroom/Session.h"
#include "core/edit/SizeFindings.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace uq {

class ColourField;
class NumberField;

class MapFactsCard : public Card {
  Q_OBJECT

 public:
  explicit MapFactsCard(QWidget* parent);

  void setSession(Session* session);
  void open();

 Q_SIGNALS:
  void closed();
  void cellsWanted();  // another size of cells

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  class Preview;

  void refresh();
  // Sizes that do not agree, each with a button that mends it. While the card is open a row stays where it is: one that is
  // mended says so, and no press meets another button than the one that was seen.
  void refreshFindings();
  void close();

  Session* session_ = nullptr;
  QLabel* name_;
  QLineEdit* title_;
  ColourField* cloth_;
  NumberField* width_;
  NumberField* height_;
  QCheckBox* differs_;
  NumberField* times_;
  QComboBox* camera_;
  QComboBox* seen_;
  QPushButton* cells_;
  QCheckBox* grows_;
  struct Row {
    QLabel* text;
    QPushButton* mend;
  };
  std::vector<Row> rows_;
  std::vector<std::string> listed_;  // what the rows say
  std::vector<SizeFinding> findings_;
  QLabel* told_;
  QPushButton* cut_;  // where strips at the edges hold no tile
  Preview* preview_;
};

}  // namespace uq
