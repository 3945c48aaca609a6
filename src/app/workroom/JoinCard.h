// JoinCard: asks about parts that both this window and another program changed, one after the other, by pictures of both
// with the cells stitched that differ: as it is here, as it is there, or both.
#pragma once

#include <vector>

#include "app/look/Card.h"
#include "core/edit/JoinQuilts.h"

class QLabel;
class QPushButton;

namespace uq {

class Session;

class JoinCard : public Card {
  Q_OBJECT

 public:
  explicit JoinCard(QWidget* parent);

  // `there` is the quilt as the other program saved it. Both live until answered() or the session goes.
  void open(Session& session, const Quilt& there, const std::vector<BothChanged>& what);

 Q_SIGNALS:
  void answered(const std::vector<uq::Side>& sides);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void showOne(std::size_t index);
  void choose(Side side);
  // A map or layer of either quilt, with the cells stitched in which they differ.
  QPixmap pictureOf(const Quilt& quilt, const Quilt& other, const BothChanged& what);

  Session* session_ = nullptr;
  Quilt there_;
  std::vector<BothChanged> what_;
  std::vector<Side> sides_;
  QLabel* words_;
  QLabel* here_;
  QLabel* theirs_;
  QPushButton* takeHere_;
  QPushButton* takeThere_;
  QPushButton* takeBoth_;
};

}  // namespace uq
