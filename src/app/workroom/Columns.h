// Columns: the room between tabs and foot line — Table, map and Stack beside one another.
//
// The map has what the others leave. Seams between them are dragged; a press on one folds the column beside it to a slim
// strip that says what it is, and a press on the strip brings it back as wide as it was. With the map alone both are
// gone. Until somebody drags them they are as wide as suits the window. How wide they are, and which are folded, is kept
// as JSON with the quilt's desk.
#pragma once

#include <array>

#include "app/look/Panes.h"

class QAbstractButton;

namespace uq {

class Columns : public Panes {
  Q_OBJECT

 public:
  enum class Side { table, stack };

  explicit Columns(QWidget* parent);

  // Where the parts belong; a column's part is made with its column as parent, and put there once.
  QWidget* column(Side side) const { return columns_[index(side)].holder; }
  void put(Side side, QWidget* part);
  void putMap(QWidget* map);

  bool isFolded(Side side) const { return columns_[index(side)].folded; }
  void fold(Side side, bool on);
  bool showsMapAlone() const { return alone_; }
  void showMapAlone(bool on);

  Json kept() const;
  // Takes what kept() gave; what makes no sense is left as it is.
  void use(const Json& kept);

 protected:
  void resizeEvent(QResizeEvent* event) override;

 Q_SIGNALS:
  void folded();  // a column was folded or brought back

 private:
  struct Column {
    QWidget* holder = nullptr;  // of the part, or of its strip
    QWidget* part = nullptr;
    QAbstractButton* strip = nullptr;
    int width = 0;  // logical pixels, while it is not folded; 0: as suits the window
    bool folded = false;
  };
  static std::size_t index(Side side) { return static_cast<std::size_t>(side); }
  int widthOf(Side side) const;
  void remember();
  void arrange();

  std::array<Column, 2> columns_;
  bool alone_ = false;
};

}  // namespace uq
