// TableView: the surface on which the quilt's sheets lie, to zoom and pan like a map.
//
// A click takes a tile into the hand, a drag over several takes a block; what was taken stays marked by stitches. The
// arrows move a tile cursor, with Shift they draw a block, Enter takes it. Sheets lie in piles (see TableLayout): a
// click on a pile's name folds it, a click on a sheet's heading opens its card, a drag of the heading moves the sheet.
// Pictures are drawn from halves made beside the interface, so large ones pan like small ones.
#pragma once

#include <QElapsedTimer>
#include <QTimer>
#include <QWidget>
#include <functional>
#include <memory>
#include <optional>
#include <set>

#include "app/actions/Actions.h"
#include "app/table/SheetHalves.h"
#include "app/table/TableLayout.h"
#include "app/workroom/Session.h"

namespace uq {

class TableView : public QWidget {
  Q_OBJECT

 public:
  explicit TableView(Actions* actions, QWidget* parent = nullptr);

  void setSession(Session* session);

  // Where a tile lies on the widget; empty when the sheet has no such tile, or lies in a folded pile.
  QRectF tileRect(const std::string& sheet, std::uint32_t number) const;
  QRectF tileRect(Id sheet, std::uint32_t number) const;
  QRectF headingRect(Id sheet) const;
  QRectF pileRect(const std::string& pile) const;
  QRectF looseRect(const QString& picture) const;
  // Scrolls so that the tile can be seen, unfolding its pile.
  void reveal(const std::string& sheet, std::uint32_t number);
  void reveal(Id sheet, std::uint32_t number);
  void revealSheet(Id sheet);
  double zoom() const { return zoom_; }
  // The sheets as they lie here, for the map that is worked on.
  const std::vector<Id>& order() const { return order_; }

  // Marks a sheet whose cut is being decided: its cut is shown in stitches, and what it leaves over.
  void showCutOf(std::optional<Id> sheet);
  // The next click on that sheet's picture picks a colour, which `picked` is told.
  void pickColour(Id sheet, std::function<void(std::uint32_t)> picked);
  // The tiles that were chosen last on a sheet, by number, row by row; empty where others were.
  std::vector<std::uint32_t> chosenOn(Id sheet) const;

  // Is told a tile that was dragged off the Table, and where on the screen it was let go; says whether that was a place
  // for it. Else the drag takes a block, as one that ends on the Table does.
  void setDropTaker(std::function<bool(TileRef, QPoint)> taker) { dropTaker_ = std::move(taker); }

  QSize sizeHint() const override { return {280, 400}; }

 Q_SIGNALS:
  // What the tile under the pointer or cursor is; empty when there is none.
  void pointedAt(const QString& tile);
  void taken(bool byKeys);
  void gathered();  // beside what is in hand
  void sheetChosen(uq::Id sheet);
  void looseChosen(const QString& picture);
  void pictureWanted(uq::Id sheet);  // of a sheet whose picture is missing

 protected:
  bool event(QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void leaveEvent(QEvent* event) override;

 private:
  // A tile's place: which sheet, which cell of its cut.
  struct Spot {
    Id sheet;
    std::uint32_t cell = 0;
    friend bool operator==(const Spot&, const Spot&) = default;
  };
  struct Chosen {
    Spot from;
    Spot to;  // on the same sheet
  };

  void layOut();
  const Sheet* sheet(Id id) const { return session_ ? session_->quilt().sheet(id) : nullptr; }
  QPointF atContents(QPointF at) const { return at + scroll_; }
  QRectF toWidget(const QRectF& contents) const { return contents.translated(-scroll_); }
  QRectF cellRect(const Spot& spot) const;  // on the widget
  const TableItem* itemAt(QPointF at, bool onHeading) const;
  std::optional<Spot> spotAt(QPointF at, std::optional<Id> onSheet = {}) const;
  std::vector<Spot> spotsOf(const Chosen& chosen) const;
  void setZoom(double zoom, QPointF about);
  void fitWidth();
  void clampScroll();
  void point(std::optional<Spot> spot);
  QString textOf(const Spot& spot) const;
  // With `gathers` it is added to what is in hand.
  void takeChosen(bool byKeys = false, bool gathers = false);
  void moveCursor(int dx, int dy, bool extends);
  void paintSheet(QPainter& painter, const TableItem& item);
  void paintVeil(QPainter& painter, const TableItem& item) const;
  void lieForMap();
  void paintCut(QPainter& painter, const Sheet& sheet, const QRectF& place) const;
  void paintHeading(QPainter& painter, const TableItem& item) const;
  void paintFoot(QPainter& painter, const Spot& spot) const;
  void paintGathered(QPainter& painter) const;
  // Where a heading that is dragged would be laid: its pile, and before which sheet.
  std::pair<std::string, Id> landing(QPointF at) const;

  Session* session_ = nullptr;
  Actions* actions_;
  TableLayout layout_;
  SheetHalves halves_;
  double zoom_ = 0.5;
  QPointF scroll_;
  bool fitted_ = false;
  Id mapLain_;           // the map for which the Table lies
  std::set<Id> used_;    // sheets of which it had tiles when one came to it
  std::vector<Id> order_;
  std::optional<Id> cutOf_;
  struct Picking {
    Id sheet;
    std::function<void(std::uint32_t)> picked;
  };
  std::optional<Picking> picking_;
  std::optional<Spot> pointed_;
  std::optional<Chosen> dragging_;
  std::optional<Chosen> chosen_;
  struct Carried {
    Id sheet;
    QPointF from;
    QPointF at;
    bool moved = false;
  };
  std::optional<Carried> carried_;  // a sheet by its heading
  std::function<bool(TileRef, QPoint)> dropTaker_;
  std::vector<std::uint32_t> numbers_;  // the tiles of `chosen_`
  Block taken_;                         // what was in hand when `chosen_` was taken
  std::optional<QPointF> pan_;
  QTimer ticks_;  // while animated tiles are played
  QElapsedTimer played_;
};

}  // namespace uq
