// TableView: the surface on which the quilt's sheets lie, to zoom and pan like a map.
//
// A click takes a tile into the hand, a drag over several takes a block; what was taken stays marked by stitches. The
// arrows move a tile cursor, with Shift they draw a block, Enter takes it. Chalk and the sheets lie under one another
// in the quilt's order, at one scale.
#pragma once

#include <QWidget>
#include <functional>
#include <optional>

#include "app/actions/Actions.h"
#include "app/workroom/Session.h"

namespace uq {

class TableView : public QWidget {
  Q_OBJECT

 public:
  explicit TableView(Actions* actions, QWidget* parent = nullptr);

  void setSession(Session* session);

  // Where a tile lies on the widget; empty when the sheet has no such tile.
  QRectF tileRect(const std::string& sheet, std::uint32_t number) const;
  // Scrolls so that the tile can be seen.
  void reveal(const std::string& sheet, std::uint32_t number);
  double zoom() const { return zoom_; }

  // Is told a tile that was dragged off the Table, and where on the screen it was let go; says whether that was a place
  // for it. Else the drag takes a block, as one that ends on the Table does.
  void setDropTaker(std::function<bool(TileRef, QPoint)> taker) { dropTaker_ = std::move(taker); }

  QSize sizeHint() const override { return {280, 400}; }

 Q_SIGNALS:
  // The name and number of the tile under the pointer or cursor; empty when there is none.
  void pointedAt(const QString& tile);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void leaveEvent(QEvent* event) override;

 private:
  // A tile's place on the Table: which sheet, which column and row of its cut.
  struct Spot {
    std::size_t sheet = 0;
    int column = 0;
    int row = 0;
    friend bool operator==(const Spot&, const Spot&) = default;
  };
  struct Chosen {
    Spot from;
    Spot to;  // on the same sheet
    CellRect area() const { return CellRect::around({from.column, from.row}, {to.column, to.row}); }
  };

  // Chalk, then the quilt's sheets as they came in, which is the order of their codes. There are none while nothing is
  // open.
  void followSheets();
  std::size_t sheetCount() const { return session_ ? order_.size() + 1 : 0; }
  const Sheet& sheet(std::size_t index) const {
    return index == 0 ? chalk() : session_->quilt().sheets()[order_[index - 1]].read();
  }
  // In Table units: pixels of the sheets, before zoom and scroll.
  QRectF sheetRect(std::size_t index) const;
  QRectF spotRect(std::size_t sheet, CellRect area) const;
  QSizeF contents() const;
  QRectF toWidget(const QRectF& table) const;
  std::optional<Spot> spotAt(QPointF at, std::optional<std::size_t> onSheet = {}) const;
  void setZoom(double zoom, QPointF about);
  void fitWidth();
  void clampScroll();
  void point(std::optional<Spot> spot);
  void takeChosen();

  Session* session_ = nullptr;
  std::vector<std::size_t> order_;  // indices of the quilt's sheets
  Actions* actions_;
  double zoom_ = 0.5;
  QPointF scroll_;
  bool fitted_ = false;
  std::optional<Spot> pointed_;
  std::optional<Chosen> dragging_;
  std::optional<Chosen> chosen_;
  std::function<bool(TileRef, QPoint)> dropTaker_;
  Block taken_;  // what was in hand when `chosen_` was taken
  std::optional<QPointF> pan_;
};

}  // namespace uq
