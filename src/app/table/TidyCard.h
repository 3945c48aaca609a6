// TidyCard: what of a sheet may go, listed with where it lies before anything happens.
//
// One line a kind — blank, stray, double, unused — each taken or left on its own; the tiles themselves below it, and a
// click on one keeps it. Nothing goes before Tidy is pressed; maps look the same afterwards.
#pragma once

#include <vector>

#include "app/look/Card.h"
#include "app/workroom/SheetWork.h"

class QCheckBox;
class QLabel;
class QToolButton;

namespace uq {

class Session;

class TidyCard : public Card {
  Q_OBJECT

 public:
  explicit TidyCard(QWidget* parent);

  void setSession(Session* session);
  void open(Id sheet, const TidyFinds& finds);

  // What would go now.
  TidyFinds chosen() const;

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  class Tiles;
  struct Kind {
    QCheckBox* wanted;
    Tiles* tiles;
    std::vector<std::uint32_t> TidyFinds::*list;  // nullptr: twins
  };
  void refresh();
  void place();

  Session* session_ = nullptr;
  Id sheet_;
  TidyFinds finds_;
  QLabel* title_;
  QLabel* retired_;
  Tiles* retiredTiles_;
  QLabel* nothing_;
  std::vector<Kind> kinds_;
  QToolButton* tidy_;
};

}  // namespace uq
