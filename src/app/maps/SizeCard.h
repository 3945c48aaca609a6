// SizeCard: the size of the open map, typed as people write sizes, with the sides that give or take chosen on a picture.
//
// What it says is shown on the canvas at once, as one gesture: Enter makes it a step, Esc leaves no trace. Where something
// else ends the gesture the card closes. Threads: the interface's.
#pragma once

#include "app/look/Card.h"
#include "app/workroom/Session.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace uq {

// Which of the two sides of an axis move.
enum class SideChoice { before, both, behind };

// A small map on whose sides one clicks, or goes by arrows, to choose which give or take.
class SidePicture : public QWidget {
  Q_OBJECT

 public:
  explicit SidePicture(QWidget* parent);

  SideChoice across() const { return across_; }
  SideChoice down() const { return down_; }
  void choose(SideChoice across, SideChoice down);

 Q_SIGNALS:
  void chosen();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  SideChoice across_ = SideChoice::behind;
  SideChoice down_ = SideChoice::behind;
};

class SizeCard : public Card {
  Q_OBJECT

 public:
  explicit SizeCard(QWidget* parent);

  void setSession(Session* session);
  // For the open map; nothing where it cannot be changed, and why is told.
  void open();

 Q_SIGNALS:
  void closed();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  bool holds() const;
  void follow();
  void leave(bool makes);

  Session* session_ = nullptr;
  std::uint64_t gesture_ = 0;
  std::optional<PaintedCount> count_;
  QLabel* title_;
  QLineEdit* across_;
  QLineEdit* down_;
  SidePicture* sides_;
  QComboBox* room_;
  QLabel* told_;
  QPushButton* resize_;
};

}  // namespace uq
