// SizeCard: the size of the open map, typed as people write sizes, with the sides that give or take chosen on a picture.
//
// What it says is shown on the canvas at once (TrialCard). Threads: the interface's.
#pragma once

#include "app/maps/TrialCard.h"
#include "core/edit/ResizeMap.h"

class QComboBox;
class QLineEdit;

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

class SizeCard : public TrialCard {
  Q_OBJECT

 public:
  explicit SizeCard(QWidget* parent);

  // For the open map; nothing where it cannot be changed, and why is told.
  void open();

 private:
  void follow();

  std::optional<PaintedCount> count_;
  QLineEdit* across_;
  QLineEdit* down_;
  SidePicture* sides_;
  QComboBox* room_;
};

}  // namespace uq
