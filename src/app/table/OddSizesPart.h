// OddSizesPart: the part of a collection's card that names pictures whose size differs from most, and offers what can
// become of them, each shown on the first of them.
#pragma once

#include <QWidget>
#include <vector>

#include "core/document/Sheet.h"

class QHBoxLayout;
class QLabel;

namespace uq {

class OddSizesPart : public QWidget {
  Q_OBJECT

 public:
  explicit OddSizesPart(QWidget* parent);

  // Takes the sheet as it is now; `sizes` of its pictures before they are fitted. Hidden where all are alike.
  void refresh(const Sheet& sheet, const std::vector<PixelSize>& sizes);

 Q_SIGNALS:
  void chosen(uq::OddSizes odd);

 private:
  QLabel* words_;
  QHBoxLayout* chips_;
  std::optional<Sheet> shown_;
};

}  // namespace uq
