// ProgressStrip: the left end of the foot line while long work runs: what it is, how far, and Cancel. Takes no room
// from the canvas, so that nothing moves under the hand. Work that ends within kShownAfter never shows it.
#pragma once

#include <QFrame>
#include <QTimer>

#include "app/workroom/LongWork.h"

class QLabel;
class QProgressBar;
class QToolButton;

namespace uq {

class ProgressStrip : public QFrame {
  Q_OBJECT

 public:
  static constexpr int kShownAfter = 300;  // milliseconds

  explicit ProgressStrip(LongWork* work, QWidget* parent = nullptr);

 Q_SIGNALS:
  void shown();

 private:
  void refresh();

  LongWork* work_;
  QLabel* label_;
  QProgressBar* bar_;
  QToolButton* cancel_;
  QTimer timer_;
};

}  // namespace uq
