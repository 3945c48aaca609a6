// Panes: widgets side by side, or one above the other, parted by seams that can be dragged.
//
// A seam is kPaneSeam wide, shows three stitches where it can be taken, and runs as a line of stitches from end to end
// while the pointer is on it. A press on it that is let go without a drag is told: the columns of the workroom fold by
// it.
#pragma once

#include <QSplitter>

#include "core/base/Json.h"

namespace uq {

inline constexpr int kPaneSeam = 6;  // logical pixels

class Panes : public QSplitter {
  Q_OBJECT

 public:
  Panes(Qt::Orientation orientation, QWidget* parent);

  // How much room each pane has, to be kept; and taking that again. What makes no sense is left as it is.
  Json keptSizes() const;
  void useSizes(const Json& kept);

 Q_SIGNALS:
  void seamPressed(int index);  // of the seam, from 1 on: the one before the pane of that index

 protected:
  QSplitterHandle* createHandle() override;
};

}  // namespace uq
