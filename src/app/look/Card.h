// Card: a frame with controls that lies over the map for a while. Tab goes round inside it; Esc closes it (where it has
// nothing of its own to drop).
#pragma once

#include <QFrame>

namespace uq {

class Card : public QFrame {
  Q_OBJECT

 public:
  using QFrame::QFrame;

 protected:
  bool focusNextPrevChild(bool next) override;
  // Lies over all of its parent above the tape, at least so large.
  void coverMap(QSize least);
};

}  // namespace uq
