// MapCanvas: the map under the hand.
//
// Shows the active map at any zoom, with grid lines, the map's edge in stitches, and — before every press — the ghost
// of what the press would do, outlined in the landing layer's thread, with a tag that names tool and layer or says why
// nothing will happen. The widget keeps the events: it turns hand movements into the session's strokes and takes. What
// is shown is a Scene, where it lies a MapView, what a press would do a Forecast, and what is painted over it an
// Overlay.
//   MapCanvas.cpp       the view, what is told, painting
//   MapCanvasHand.cpp   the mouse
//   MapCanvasKeys.cpp   the keyboard and its cell cursor
//
// The map itself comes out of a SwatchBook: a frame copies, and an edit repaints only the rectangle in which the map
// differs.
#pragma once

#include <QElapsedTimer>
#include <QTimer>
#include <QWidget>
#include <optional>

#include "app/actions/Actions.h"
#include "app/canvas/AllowanceView.h"
#include "app/canvas/CellLook.h"
#include "app/canvas/Forecast.h"
#include "app/canvas/HeldTool.h"
#include "app/canvas/Overlay.h"
#include "app/canvas/PlayedTiles.h"
#include "app/canvas/Rulers.h"
#include "app/canvas/Scene.h"
#include "core/work/Press.h"
#include "raster/SwatchBook.h"

namespace uq {

class Lens;

class MapCanvas : public QWidget {
  Q_OBJECT

 public:
  explicit MapCanvas(Actions* actions, QWidget* parent = nullptr);

  void setSession(Session* session);  // may be nullptr: nothing is open

  // Logical pixels for one map pixel.
  double zoom() const { return view_.zoom; }
  void setZoom(double zoom, QPointF about);
  void zoomBySteps(int steps, std::optional<QPointF> about = {});
  void fitMap();
  void fitSelection();
  // 100 %; where that is so already, as large as the game shows the map.
  void showFullSize();

  // What part of a map is shown, as it is kept for each map: the map pixel in the middle, or the whole map.
  struct View {
    double zoom = 1;
    QPointF middle;
    bool whole = true;
  };
  View view() const;
  // The views of all maps that were looked at; those of maps that are not shown now are used when they are.
  std::map<Id, View> views() const;
  void setViews(std::map<Id, View> views);

  // What is shown: the session's map, in the plan view as seen from above.
  const Map* map() const;  // nullptr when there is none
  const Quilt& quilt() const;

  // The map pixels in sight.
  QRectF seenPixels() const { return sight().seenPixels(); }
  // Moves the view so that a map pixel lies in the middle.
  void centreOn(QPointF pixel);

  // Those of the stretch that was laid last, on this widget; none where none are shown.
  std::vector<StretchHandle> handles() const;
  // Lights cells, such as those of a tile that is pointed at on the Table; none when empty.
  void setLit(CellSet cells);
  const CellSet& lit() const { return lit_; }

  // The cell cursor, by which the keyboard paints: it is there from when the canvas was entered by Tab until the mouse
  // moves.
  std::optional<CellPos> cellCursor() const { return cursor_; }

  // Where a cell lies on the widget, and the cell under a point.
  QRectF cellRect(CellPos cell) const;
  CellPos cellAt(QPointF at) const;
  std::optional<CellPos> hoveredCell() const;
  // What the tag says now; empty when there is none.
  QString tagText() const;
  // The second press of a double click, of which the first one went to what lay over the map, is not for the map.
  void ignoreSecondPress();
  // Why the press would do nothing at the pointer, or what was refused there; empty when nothing was.
  QString refusal() const;
  // Whether a stretch is being dragged, or was laid and nothing else was pressed since: its parts can take other looks.
  bool holdsStretch() const;
  // Steps the look-alikes of the end that is, or was, dragged.
  void stepLookAlike(int steps);
  // What the player's screen shows, on the widget, while that is shown.
  std::optional<QRectF> frameRect() const;
  // Moves the camera over the map by itself, or stops it.
  void playCamera(bool on);
  bool playsCamera() const { return cameraTimer_.isActive(); }
  // Fans out what lies on a cell, layer by layer; of the cell under the pointer or the cursor where none is given.
  void showLens() { openLens(hoveredCell(), selects()); }
  Lens* lens() const { return lens_; }
  // The loose joints that are marked now: of what the press would lay, and of all layers in sight while they are shown.
  using JointAt = Forecast::JointAt;
  std::vector<JointAt> joints() const;
  // The cells in sight that are marked: those of the active layer that nearer ones hide, and holes. While no stroke is
  // made, and at a scale where cells can be told apart.
  CellSet coveredInSight() const;
  CellSet holesInSight() const;
  // How well the last repaint could show the map; see SwatchBook. What it lacked follows by itself.
  const SwatchBook::Frame& lastFrame() const { return lastFrame_; }

  QSize sizeHint() const override { return {800, 600}; }

 Q_SIGNALS:
  void hovered();      // the cell under the pointer changed
  void viewChanged();  // zoom or position
  void painted();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void keyReleaseEvent(QKeyEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  bool event(QEvent* event) override;

 private:
  enum class Drag { none, stroke, pan, select, move, take, refit, frame, hang, edge, lines, pins, pinFrame };

  // The view as it is now, and changing it.
  MapView sight() const;
  void look(const MapView& view, bool wholeMap = false);
  void scrollBy(QPointF logical);
  MapView keptInSight(MapView view) const;
  void showView(const View& view);
  // Tells the book what is to be shown, and repaints where that looks different.
  void followMap();
  void followDesk();
  // Shows what lies outside the map's edges, where that is wanted or an edge is dragged.
  void followAllowance();
  // The plan view was turned on or off: the cell in the middle stays there.
  void turnPlan(CellPos middle);
  void stepCamera();

  // The plane of the active layer, on which the hand works; there is a map.
  Plane plane() const;
  Pointing pointing() const;
  Overlay overlay() const { return {*scene_, sight(), *forecast_, pointing(), *neighbours_}; }
  bool takesAway() const;
  bool selects() const { return session_ && session_->desk().tool == Tool::select; }
  bool pins() const { return session_ && session_->desk().tool == Tool::pins; }
  // The layer that a drag would move, a backdrop that is active, seen and not locked; nullptr where there is none.
  const Layer* hangs() const;
  bool isOverStretch() const;
  // The cells that the drag under way, or the box of the keyboard, spans.
  CellSet spanned() const;
  bool spans() const { return drag_ == Drag::select || drag_ == Drag::take || (boxFrom_ && cursor_); }
  // The edge of the map that is held, or that a press at a point would take hold of.
  HeldEdge edgeUnder(QPointF at) const;
  // While they are shown.
  std::optional<Rulers> rulers() const;
  bool isOnRuler(QPointF at) const;
  // What is pointed at on them.
  void followRulers();
  // On which the map's own edges lie; there is a map.
  Plane ground() const { return {sight(), map()->grid}; }
  // Within the map's bounds.
  CellPos inside(CellPos at) const;

  // Beyond the map's edges. Whether strokes go there; a cell of the map, or of one that is sewn to it while they do.
  bool paintsBeyond() const;
  std::optional<CellPos> reached(CellPos cell) const;
  // Goes to the map whose cell lies there, with nothing of the picture moving; false where none does.
  bool openBeyond(CellPos at);
  // The same by a second press, which takes back what the first one laid.
  bool openBeyondTwice(QPointF at);
  // Whether a stroke that ended there, pressed beyond the edge, made a step.
  void noteBeyond(bool made);

  // Painting. What ghost and tag cover, in logical pixels; and repainting that, before and after.
  void paintMap(QPainter& painter, const QRect& part);
  void paintSelection(QPainter& painter) const;
  void paintPinsOver(QPainter& painter) const;
  void paintFirstHint(QPainter& painter, const QRectF& place) const;
  void paintEmpty(QPainter& painter) const;
  QRect overlayArea() const;
  QRectF tagRect(const Overlay& over, const QString& text) const;
  void updateOverlay();
  void updateDevice(const QRect& device);
  // Repaints where workers handed something in.
  void paintArrivals();

  // The hand.
  Press pressAt(QPointF at, Qt::MouseButton button) const;
  void press(QPointF at, Qt::MouseButton button);
  void pressToRefit(const StretchHandle& handle);
  void pressToHang();
  void pressToResize(QPointF at);
  void dragLines(QPointF at);
  // Of the cell under a point the corner nearest to it, where a brush of half a cell would tell; else 0.
  int cornerAt(QPointF at) const;
  void pressToStroke(CellPos at, bool takesAway);
  void pressToTake(QPointF at);
  void releaseToTake();
  void pressToSelect(QPointF at, Selecting how);
  void moveToSelect(QPointF at);
  void releaseToSelect();
  // The pin that is seen there, on whichever level.
  Id pinUnder(QPointF at) const;
  // The edge, as a place that leads, that a cell right outside the map stands for with the tool Pins.
  std::optional<MapEdge> edgeToLead(CellPos at) const;
  void pressToPins(QPointF point, CellPos at);
  void releaseToPins(Drag ended, QPointF at, bool alt);
  SidePos pinsDragged() const;
  QString pinWords() const;
  // Where the doorway that is pointed at leads, and where the look at it comes to lie on the widget.
  struct Led {
    PinAt to;
    Heading facing;
    QRectF place;
  };
  std::optional<Led> whereItLeads() const;
  void paintWhereItLeads(QPainter& painter);
  void useCursorOnPins();
  // Brings the pin into sight that was arrived at last.
  void showArrival();
  void moveStroke(QPointF at);
  void dragBackdrop(QPointF to);
  // The gesture of the drag has ended, by the hand or by something else: what the button still does moves nothing.
  void endDrag();
  // To the tool before the held one, once its key is up.
  void springBack();
  void followModifiers(Qt::KeyboardModifiers modifiers);
  void openLens(std::optional<CellPos> at, bool withVerbs);
  void showCursor();
  void say(const QString& refusal);

  // The keyboard.
  void arrow(int dx, int dy, bool extends);
  void escape(const QKeyEvent& event);
  void moveCursor(int dx, int dy, bool extends);
  void useCursor(bool ctrl);
  void paintByCursor(const CellSet& cells, CellPos from, bool takesAway);
  void describeCursor();

  Session* session_ = nullptr;
  Actions* actions_;
  std::unique_ptr<Scene> scene_;  // these three while there is a session
  std::unique_ptr<Forecast> forecast_;
  std::unique_ptr<PlayedTiles> played_;
  MapView view_;      // its size is the one for which it was chosen
  bool fits_ = true;  // the whole map is kept in sight while the window changes its size
  Id shownMap_;       // the map that the view was fitted to first

  // Where the view was when the plan view was turned on or off last, and where that put it: turned again, it goes back.
  struct PlanTurn {
    Id map;
    double zoom = 1;
    QPoint before;
    QPoint after;
  };
  PlanTurn planTurn_;

  std::unique_ptr<SwatchBook> book_;
  std::unique_ptr<NeighbourView> neighbours_;
  std::optional<std::uint64_t> madeBeyond_;   // the step of the last press beyond the edge
  std::unique_ptr<AllowanceView> allowance_;  // while it is shown
  SwatchBook::Frame lastFrame_;
  QRect overlay_;  // as painted last

  std::map<Id, View> views_;  // of the maps that are not shown

  std::optional<CellPos> cursor_;
  std::optional<CellPos> boxFrom_;  // where Shift and the arrows began a box that ends at the cursor
  HeldTool heldTool_;

  std::optional<StretchHandle> handle_;  // that is dragged
  StretchPart lastPart_;                 // of the stretch that is or was dragged
  bool handlesGone_ = false;             // something else was pressed since the stretch was laid
  std::vector<PixelPos> way_;            // of an outline drawn by hand, in map pixels
  Lens* lens_ = nullptr;
  std::optional<CellLook> look_;  // since it was shown first
  // Where a tile was taken last, and how many behind the topmost; a click there again takes the next one.
  std::optional<QPointF> takenAt_;
  PixelRect taken_;  // what was taken, while the button is down
  int behind_ = 0;

  QTimer cameraTimer_;
  QElapsedTimer cameraPlayed_;
  PixelPos hungFrom_;    // where the dragged backdrop hung
  std::string hungTo_;   // what it was drawn to
  PixelPos cameraFrom_;  // where the frame was when it was taken hold of
  CellSet lit_;
  std::optional<QPointF> pointer_;
  QPointF lastPan_;
  Drag drag_ = Drag::none;
  bool ignoresSecond_ = false;  // of a double click
  bool offersGrowth_ = false;   // something was to be laid beyond the edge just now
  QPointF offeredAt_;           // on the widget; the pointer may be beyond it
  Qt::MouseButton dragButton_ = Qt::NoButton;
  bool dragTakesAway_ = false;
  Selecting selecting_ = Selecting::anew;
  CellPos pressed_;  // the cell where a drag with Select began
  QPointF pressedAt_;
  CellPos dragged_;  // and where it is
  bool space_ = false;
  bool ctrl_ = false;
  bool shift_ = false;
  QString refusal_;  // shown on the tag until the pointer moves on
};

}  // namespace uq
