// BoardView: the Board, where all maps lie on one cloth as pieces with live pictures.
//
// Pieces are chosen, several at once by a frame or with Shift, and dragged, drawn to one another's edges by a line of
// stitches. Edges that belong together show the stitch, and letting go sews; Shift lays beside, Ctrl rips off, Alt is drawn
// to nothing. A double click, or Enter, opens a piece, its menu does everything else; letters find one by its name. Arrows go
// from piece to piece, Shift and arrows move the chosen ones. On bare cloth a drag chooses by a frame; with Ctrl, or the tool
// for it, it draws a new map, with Ctrl and Shift a chalk piece, which is cut by Enter and ticked by Space.
// Pictures come one after the other while nothing else happens; one that is out of date is shown until then. What is
// dragged is a gesture of Work, so Esc leaves no trace and letting go is one step. Threads: the interface's.
#pragma once

#include <QImage>
#include <QLineEdit>
#include <QTimer>
#include <QWidget>
#include <map>
#include <optional>

#include "app/actions/Actions.h"
#include "app/board/BoardSheet.h"
#include "app/canvas/MapEdges.h"
#include "app/canvas/MapView.h"
#include "app/workroom/Session.h"
#include "core/edit/Board.h"
#include "core/edit/DrawnPiece.h"
#include "core/edit/Stitch.h"

namespace uq {

// Logical pixels within which what is dragged or drawn on the Board meets an edge; and a shorter drag is none.
inline constexpr double kDrawnTo = 12;
inline constexpr double kDragAfter = 4;

class Cord;
class NameField;
class NewMapCard;

class BoardView : public QWidget {
  Q_OBJECT

 public:
  // What a drag on bare cloth does.
  enum class Draws { nothing, map, chalk };

  explicit BoardView(Actions* actions, QWidget* parent = nullptr);
  ~BoardView() override;

  void setSession(Session* session);
  // The piece that the keyboard is at; and all that are chosen, it among them.
  Id chosen() const { return chosen_; }
  const std::set<Id>& allChosen() const { return all_; }
  void choose(Id map);
  void chooseAll(const std::set<Id>& pieces);
  // Asks for a map that is to lie below the others; plans one in chalk there.
  void askForNew(Draws what);
  // All pieces in sight.
  void fit();
  // About the middle.
  void zoomBySteps(int steps) { zoomBy(steps, QRectF(rect()).center()); }
  // Where a piece's box lies on the widget; empty where there is none.
  QRectF pieceRect(Id map) const;
  // What is seen: its zoom, and the map pixel of a piece that lies under a point.
  double zoom() const { return view_.zoom; }
  QPointF mapPixelAt(Id map, QPointF at) const;
  // Whether pictures are still to come.
  bool isComing() const { return timer_.isActive() || (awaitsFrame_ && isVisible()); }
  // Where letting go of what is dragged sews, or why it cannot be.
  const std::optional<Stitch>& stitch() const { return stitch_; }
  // What is said at the pointer or beside the chosen piece.
  const QString& said() const { return said_; }
  Draws draws() const { return draws_; }
  // A way from that pin is to be made: the next press says where to.
  void takeCord(PinAt from);
  const Cord* cord() const { return cord_.get(); }  // nullptr while none is in hand
  // A doorway is shown before all others, and its pieces come into sight; empty: none is.
  void showDoorway(Id doorway);
  // Where the button of a pin lies on the widget; nothing where its piece is not there.
  std::optional<QPointF> buttonAt(PinAt pin) const;

 Q_SIGNALS:
  void opened(uq::Id map);
  // Gone into by zooming: the map is to be shown as it is seen here.
  void zoomedInto(uq::Id map);
  void viewChanged();
  // Other pieces are chosen than before.
  void choiceChanged();
  // The cord that began at a pin was dropped, or put away.
  void cordGone(uq::PinAt from);
  void pictured();  // all pictures in sight are there

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  void changeEvent(QEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  enum class Drag { none, pan, frame, pieces, draw, edge, cord };
  struct Picture {
    QImage image;
    PixelRect covers;   // map pixels
    Map map;            // as it shows it
    int most = 0;       // pixels, as it was drawn
    QImage exact{};     // as large as it was last seen
  };

  MapView sight() const;
  const Piece* piece(Id map) const;
  void follow();
  // Says on the sheet what of the pieces looks different.
  void followSheet();
  // How large the picture of a piece should be; 0 where it is out of sight.
  int mostFor(const Piece& piece) const;
  // Draws the next picture that is missing, too coarse or out of date; none is left then.
  void drawNext();
  // What lies on the sheet, within a part of the widget.
  void paintSheet(QPainter& painter, const QRectF& part);
  void paintCloth(QPainter& painter, const QRectF& part) const;
  void paintPiece(QPainter& painter, const Piece& piece, const QRectF& part);
  void paintSeam(QPainter& painter, const Seam& seam, const QRectF& part, double breadth);
  // Names over all pieces, and sizes where they fit.
  void paintWords(QPainter& painter, const QRectF& part) const;
  void paintChosen(QPainter& painter, const Piece& piece) const;
  // Where a piece is seen, with its words and all that reaches beyond it.
  QRectF areaOf(const Piece& piece) const;
  // What is written at a piece: changed, it is painted anew.
  QString wordsOf(const Piece& piece) const;
  // Scales a picture to what is seen of it; false where there is nothing to do.
  bool makeExact(const Piece& piece);
  void paintWrap(QPainter& painter) const;
  void paintSaid(QPainter& painter) const;
  void paintCords(QPainter& painter) const;
  void moveCord(QPointF at);
  // Where it is: the way is made; else nothing is.
  void dropCord(bool leads);
  bool cordKey(const QKeyEvent& event);
  void putCordAway();
  // Puts it away where what it hangs on is gone.
  void dropLostCord();
  const std::vector<LaidCord>& laidCords() const;
  // Whether its cord is drawn: it is of a piece that is chosen or pointed at, or shown itself.
  bool showsCord(const LaidCord& cord) const;
  // The end of a cord whose button lies at a point, and its doorway, if a press takes it: one of a chosen piece.
  struct CordEnd {
    Id doorway;
    PinAt end;
  };
  std::optional<CordEnd> endUnder(QPointF at) const;
  void hover(QPointF at);
  void tellChoice();
  void say(const QString& what);
  void dragTo(QPointF at, Qt::KeyboardModifiers held);
  void open(Id map);
  void openThen(ActionId action);
  void openMenuAt(QPointF at);
  void keepKeysHere(NameField& field);
  void openMenu(QPoint at);
  void openChalkMenu(QPoint at);
  void setDraws(Draws what);
  // What was drawn is a chalk piece, or asks for its map.
  void takeDrawn(const PixelRect& at, Draws what);
  void makeDrawnCard();
  void askFor(const DrawnPiece& drawn);
  void cut(Id chalk);
  // The edge of the chosen piece right outside which a point lies; dragged onto the opposite one the map wraps.
  HeldEdge edgeUnder(QPointF at) const;
  void dragEdge(QPointF at);
  void placeTools();
  const ChalkPiece* chalk(Id piece) const;
  QString nameOf(Id piece) const;
  void paintChalk(QPainter& painter, const Piece& piece, const QRectF& part) const;
  void rename();
  void removeChosen();
  // Opens the field that finds a piece, with what was typed so far; goes to the next one that has it in its name.
  void find(const QString& text);
  void findNext(int steps);
  void step(int dx, int dy, bool moves);
  void bringIntoSight(Id map);
  void zoomBy(int steps, QPointF about);
  PixelPos cloth(QPointF at) const { return sight().pixelAt(at); }

  Actions* actions_;
  Session* session_ = nullptr;
  MapView view_;
  bool fits_ = true;       // all pieces are kept in sight while the window changes its size
  bool isPlaced_ = false;  // the view was chosen once for this quilt
  std::vector<Piece> pieces_;
  Id chosen_;
  std::set<Id> all_;
  Drag drag_ = Drag::none;
  Qt::MouseButton button_ = Qt::NoButton;  // that began the drag
  QPointF pressed_;
  QPointF last_;
  PixelRect frame_;
  std::vector<BoardLine> lines_;  // of edges that meet while pieces are dragged
  std::optional<Stitch> stitch_;
  QString said_;
  QLineEdit* find_;
  QWidget* tools_;
  NewMapCard* card_ = nullptr;  // from the first time it is asked
  DrawnPiece drawn_;  // what the card asks about
  Draws draws_ = Draws::nothing;
  Draws drawing_ = Draws::nothing;  // by the drag under way
  HeldEdge held_;                   // of the chosen piece
  bool wraps_ = false;              // letting go of it sews it to its opposite
  Id foundFrom_;  // the piece that was chosen before it was looked for
  struct SeamLines {
    Seam seam;
    CellRect map;
    CellRect other;
    std::vector<StitchSide> sides;  // from map pixel 0, 0 of its map
  };
  std::map<Id, SeamLines> seamLines_;
  SewnMaps sewn_;
  std::unique_ptr<Cord> cord_;  // in hand
  mutable std::optional<std::vector<LaidCord>> cords_;  // until a piece or doorway changes
  Id lit_;      // the doorway that is shown before the others
  Id hovered_;  // the piece at the pointer
  std::set<Id> toldChoice_;
  BoardSheet sheet_;
  std::vector<std::pair<Piece, QString>> laid_;  // as they are on the sheet
  std::vector<Shared<Seam>> laidSeams_;
  std::map<Id, Picture> pictures_;
  QTimer timer_;  // until all pictures are there
  bool isFramed_ = false;     // painted since it was shown
  bool awaitsFrame_ = false;  // pictures are drawn then
};

}  // namespace uq
