// MapCanvas: the map under the hand.
//
// Shows the active map at any zoom, with grid lines, the map's edge in stitches, and — before every press — the ghost
// of what the press would do, outlined in the landing layer's thread, with a tag that names tool and layer or says why
// nothing will happen. Turns hand movements into the session's strokes and takes; holds nothing but the view.
//
// The view is an absolute position in device pixels (ViewScale), so scrolling copies exact pixels. The map itself comes
// out of a SwatchBook: a frame copies, and an edit repaints only the rectangle in which the map differs.
#pragma once

#include <QElapsedTimer>
#include <QTimer>
#include <QWidget>
#include <optional>

#include "app/actions/Actions.h"
#include "app/workroom/Session.h"
#include "raster/JointFinder.h"
#include "raster/SwatchBook.h"

namespace uq {

class Lens;

class MapCanvas : public QWidget {
  Q_OBJECT

 public:
  explicit MapCanvas(Actions* actions, QWidget* parent = nullptr);

  void setSession(Session* session);  // may be nullptr: nothing is open

  // Logical pixels for one map pixel.
  double zoom() const { return zoom_; }
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
  QRectF seenPixels() const;
  // Moves the view so that a map pixel lies in the middle.
  void centreOn(QPointF pixel);

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
  struct JointAt {
    Id layer;
    LooseJoint joint;
  };
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
  static constexpr std::int64_t kMostGhost = 4096;  // cells; of more only the outline is shown
  enum class Drag { none, stroke, pan, select, move, take, refit, frame, hang };
  enum class Selecting { anew, more, less };

  ViewScale scale() const { return {zoom_ * devicePixelRatioF()}; }
  QSize deviceSize() const;
  QPoint devicePoint(QPointF at) const;
  QRectF fromDevice(const QRect& device) const;
  void scrollBy(QPointF logical);
  void keepMapInSight();
  // Tells the book what is to be shown, and repaints where that looks different.
  void followMap();
  void showView(const View& view);
  // By how many device pixels the landing layer lies off the map's own place, and where device pixel 0, 0 of it is.
  QPoint planeShift() const;
  // The landing layer's plane in map pixels, and how far above its layer the next stroke is shown.
  PixelPos plane() const;
  // Where a layer's plane is drawn: with what the camera moves it by.
  PixelPos planeOn(const Layer& layer) const;
  // What the player's screen shows, on the widget; its tab; and whether a point is where it can be taken hold of.
  QRectF frameTab() const;
  QString frameText() const;
  bool isOnFrame(QPointF at) const;
  void paintFrame(QPainter& painter) const;
  void stepCamera();
  int liftShown() const;
  // "7, 12, up 1": where the next stroke lies, where that is not on the ground; else empty.
  QString heightText(CellPos cell) const;
  QString strokeText(const Stroke& stroke) const;
  QPoint planeOrigin() const { return origin_ - planeShift(); }
  Seeing seeing() const;
  void moveCursor(int dx, int dy, bool extends);
  void useCursor(bool takesAway);
  void describeCursor();
  void paintMap(QPainter& painter, const QRect& part);
  // Repaints where workers handed something in.
  void paintArrivals();
  // What ghost and tag cover, in logical pixels; and repainting that, before and after.
  QRect overlay() const;
  void updateOverlay();
  bool takesAway() const;
  bool selects() const;
  // Boxes have equal sides, lines run straight, Fill fills everywhere.
  bool isEven() const;
  // What a press at a cell would do, and with what outcome; nullptr where nothing can be foretold.
  Strokes::Ask strokeAt(CellPos cell) const;
  const Stroke* forecast() const;
  // The stroke under way, else the foretold one.
  const Stroke* strokeShown() const;
  // The handles of a stretch that can be fitted anew, and which one is at a point.
  struct Handle {
    QPointF at;
    int across = 0;  // -1 the left end, 1 the right one
    int down = 0;
  };
  std::vector<Handle> handles() const;
  // Whether the pointer is over a stretch whose handles are shown: its ghost would hide them.
  bool isOverStretch() const;
  std::optional<Handle> handleAt(QPointF at) const;
  void moveHandle(QPointF at);
  // The gesture of the drag has ended, by the hand or by something else: what the button still does moves nothing.
  void endDrag();
  // To the tool before the held one, once its key is up.
  void springBack();
  void followModifiers(Qt::KeyboardModifiers modifiers);
  void pressToTake(QPointF at);
  void releaseToTake(const QMouseEvent& event);
  void openLens(std::optional<CellPos> at, bool withVerbs);
  // The cells that are the same as one, for Select.
  CellSet alike(CellPos at) const;
  QPointF tagAnchor() const;
  // Why the press would do nothing here; empty when it would.
  QString whyNothing() const;
  void pressToSelect(const QMouseEvent& event);
  void moveToSelect(QPointF at);
  void releaseToSelect();
  // The cells that the drag under way, or the box of the keyboard, spans.
  CellSet spanned() const;
  GhostCells ghost() const;
  // What the press would cover.
  CellSet footprint() const;
  // Where a map pixel's upper left corner lies on the widget, on the plane of the landing layer.
  QPointF pointOf(PixelPos pixel) const;
  // The sides between cells of a set and others, as far as they are in sight.
  QVector<QLineF> bordersOf(const CellSet& cells) const;
  void paintOutline(QPainter& painter) const;
  // The box around a set of cells, in logical pixels.
  QRectF boxAround(const CellSet& cells) const;
  void paintGround(QPainter& painter, const QRectF& part) const;
  void paintCellOutlines(QPainter& painter, CellRect seen) const;
  QRectF tagRect(const QString& text) const;
  void paintPlumbLine(QPainter& painter, const CellSet& cells, const QVector<QLineF>& outline) const;
  void paintGrid(QPainter& painter) const;
  // Marks tiles that show another side than the one they are turned to, for want of a partner.
  void paintTurnMarks(QPainter& painter) const;
  void paintRulers(QPainter& painter) const;
  void paintSelection(QPainter& painter) const;
  // Draws the frames of animated tiles over what the swatches show of them.
  void paintFrames(QPainter& painter, const QRect& part);
  void followFrames();
  void tick();
  void paintGhost(QPainter& painter);
  // The quilt as the foretold stroke leaves it, over the present one.
  void paintOutcome(QPainter& painter, const Stroke& stroke);
  void paintHandles(QPainter& painter) const;
  void paintShape(QPainter& painter) const;
  void paintJoints(QPainter& painter) const;
  // The layer that a drag would move, a backdrop that is active, seen and not locked; nullptr where there is none.
  const Layer* hangs() const;
  void dragBackdrop(QPointF to);
  void paintFindings(QPainter& painter) const;
  std::vector<JointAt> hoveredJoints() const;
  std::vector<JointAt> jointsInSight() const;
  // The quilt on which the ghost lies.
  Quilt ghostBase() const;
  void paintTag(QPainter& painter) const;
  // What to do first on a map on which nothing is painted.
  void paintFirstHint(QPainter& painter, const QRectF& place) const;
  void paintEmpty(QPainter& painter) const;
  QColor landingThread() const;
  void showCursor();
  void say(const QString& refusal);

  Session* session_ = nullptr;
  Actions* actions_;
  double zoom_ = 1;
  QPoint origin_;     // absolute device pixel at the widget's upper left
  QSize placedFor_;   // the widget's size for which origin_ was chosen
  bool fits_ = true;  // the whole map is kept in sight while the window changes its size
  Id shownMap_;       // the map that the view was fitted to first

  std::optional<Quilt> inPlan_;  // while the plan view is shown
  // Where the view was when the plan view was turned on or off last, and where that put it: turned again, it goes back.
  struct PlanTurn {
    Id map;
    double zoom = 1;
    QPoint before;
    QPoint after;
  };
  PlanTurn planTurn_;

  std::unique_ptr<SwatchBook> book_;
  SwatchBook::Frame lastFrame_;
  QRect overlay_;  // as painted last

  std::map<Id, View> views_;  // of the maps that are not shown

  std::optional<CellPos> cursor_;
  std::optional<CellPos> boxFrom_;  // where Shift and the arrows began a box that ends at the cursor
  // A tool key that is down, the tool before it, and whether the mouse was used meanwhile.
  struct HeldTool {
    int key = 0;
    Tool before = Tool::brush;
    bool used = false;
    bool isUp = false;    // it was let go
    bool sprung = false;  // and the tool before it came back
    quint64 upAt = 0;   // then, in milliseconds of the window system
  };
  std::optional<HeldTool> heldTool_;

  // Where a tile was taken last, and how many behind the topmost; a click there again takes the next one.
  mutable std::optional<Stroke> forecast_;
  mutable CellPos forecastAt_;
  mutable bool forecastAway_ = false;
  mutable bool forecastEven_ = false;
  mutable std::unique_ptr<JointFinder> jointFinder_;
  std::optional<Handle> handle_;  // that is dragged
  mutable StretchPart lastPart_;  // of the stretch that is or was dragged
  bool handlesGone_ = false;      // something else was pressed since the stretch was laid
  std::vector<PixelPos> way_;     // of an outline drawn by hand, in map pixels
  Lens* lens_ = nullptr;
  std::optional<QPointF> takenAt_;
  PixelRect taken_;  // what was taken, while the button is down
  int behind_ = 0;

  QTimer cameraTimer_;
  QElapsedTimer cameraPlayed_;
  PixelPos hungFrom_;   // where the dragged backdrop hung
  std::string hungTo_;  // what it was drawn to
  PixelPos cameraFrom_;  // where the frame was when it was taken hold of
  CellSet lit_;
  // While animated tiles are played: when that began, where in sight they lie, and what draws them.
  QTimer ticks_;
  QElapsedTimer played_;
  std::vector<PixelRect> moving_;
  std::unique_ptr<MapPainter> framePainter_;
  std::optional<Quilt> inFrame_;
  std::optional<QPointF> pointer_;
  QPointF lastPan_;
  Drag drag_ = Drag::none;
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
