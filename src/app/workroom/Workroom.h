// Workroom: the window — Table and what is in hand on the left, the map in the middle over the tape, the Stack on the
// right, the foot line below; or the start page, while no quilt is open. Joins panels, actions and session; decides
// nothing that the core could. Several windows may be open, each with a quilt of its own.
#pragma once

#include <QMainWindow>
#include <memory>

#include "app/actions/Actions.h"
#include "app/canvas/MapCanvas.h"
#include "app/help/FindBox.h"
#include "app/help/KeysPage.h"
#include "app/maps/MapFactsCard.h"
#include "app/board/BoardView.h"
#include "app/bench/EdgingBench.h"
#include "app/maps/CellCard.h"
#include "app/maps/SizeCard.h"
#include "app/maps/MapList.h"
#include "app/maps/NewMapCard.h"
#include "app/stack/Overview.h"
#include "app/stack/StackPanel.h"
#include "app/start/StartPage.h"
#include "app/exports/ExportPage.h"
#include "app/film/FilmView.h"
#include "app/table/ExportCard.h"
#include "app/table/HangCard.h"
#include "app/table/InHandPanel.h"
#include "app/table/OtherSides.h"
#include "app/table/SheetCard.h"
#include "app/table/TablePanel.h"
#include "app/table/TableView.h"
#include "app/table/TidyCard.h"
#include "app/workroom/CameBackStrip.h"
#include "app/workroom/FootLine.h"
#include "app/workroom/JointRound.h"
#include "app/workroom/MapTabs.h"
#include "app/workroom/NoticeStrip.h"
#include "app/workroom/PaneKeys.h"
#include "app/workroom/ProgressStrip.h"
#include "app/workroom/Session.h"
#include "app/workroom/StepList.h"
#include "app/workroom/Tape.h"

class QMenuBar;
class QStackedWidget;

namespace uq {

class Columns;
class JoinCard;
class Panes;
class RolesCard;
class ThreadRound;
class ThreadsCard;
class WaysPanel;
struct LooseThread;
struct MapImport;
struct MapImportAsk;

class Workroom : public QMainWindow {
  Q_OBJECT

 public:
  explicit Workroom(std::shared_ptr<Disk> disk = realDisk());
  ~Workroom() override;

  // Opens the quilt in a folder, beside the interface, in place of the present one; asks first where that has unsaved
  // changes. Where there is no quilt the reason is shown, and the present one stays. Ends with work().ended().
  void openQuilt(const QString& folder);
  // Writes a new quilt without maps into a folder, opens it, and asks for its first map.
  void newQuilt(const QString& name, const QString& folder);
  // Brings pictures or folders of them in, beside the interface, and opens the card of the first new sheet.
  void bringIn(const QStringList& paths);
  // Opens a copy of the demo, in the folder where new quilts lie; on a map of that name, if one is said.
  void openDemo(const QString& map = {});
  // Closes all windows as a hand does, with all that is asked then, and waits for what is saved; false where one stays.
  static bool closeAll();

  Session* session() const { return session_.get(); }  // nullptr when nothing is open
  MapCanvas* canvas() const { return canvas_; }
  BoardView* board() const { return board_; }
  TableView* table() const { return panel_->table(); }
  TablePanel* tablePanel() const { return panel_; }
  // The Table as it lies over the map, while T has spread it.
  TableView* spread() const { return spread_; }
  SheetCard* sheetCard() const { return sheetCard_; }
  EdgingBench* bench() const { return bench_; }
  ExportPage* exportPage() const { return exportPage_; }
  FilmView* film() const { return film_; }
  TidyCard* tidyCard() const { return tidyCard_; }
  ExportCard* exportCard() const { return exportCard_; }
  StackPanel* stack() const { return stack_; }
  Actions* actions() const { return actions_; }
  NoticeStrip* notices() const { return notices_; }
  MapTabs* tabs() const { return tabs_; }
  Columns* columns() const { return columns_; }
  // Beside the tabs, in one row; QMainWindow would have it alone.
  QMenuBar* menuBar() const { return menus_; }
  StartPage* startPage() const { return start_; }
  NewMapCard* newMapCard() const { return newMap_; }
  LongWork& work() { return work_; }

  QSize sizeHint() const override { return {1280, 800}; }

 protected:
  void changeEvent(QEvent* event) override;
  void closeEvent(QCloseEvent* event) override;
  // What no control took: letters, digits and Esc of the workroom, Enter on a button.
  void keyPressEvent(QKeyEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  QWidget* buildHead();
  QWidget* buildLeft(QWidget* column);
  QWidget* buildBoard();
  void buildOverMap(QWidget* middle);
  QWidget* buildWorkroom();
  // Creates a quilt in a folder and opens it.
  void exportMap();
  // Asks for files, and makes a map of them; what is not recognised is asked about.
  void importMap();
  void importMap(const QStringList& files);
  void importMap(const MapImportAsk& ask);
  void takeImported(const MapImport& read, const Quilt& base);
  void create(const QString& name, std::function<Result<Quilt>(Progress&)> quilt, const QString& folder,
              const std::function<void()>& then);
  // The first free folder for a quilt of that name, beside the others.
  static QString freeFolder(const QString& name);
  // What is remembered of the open quilt: desk, window and views; and its picture on the start page, which takes a look
  // at the whole map.
  void keepDesk();
  void keepState();
  void useState();
  void askForMap(const Sheet* sheet = nullptr);
  void chooseFiles();
  void hideCards();
  // One card at a time lies over the map.
  template <class Card>
  void showCard(Card* card, Id sheet) {
    hideCards();
    if (session_->desk().onBoard) session_->verbs().maps.showBoard(false);  // a card lies over the map
    card->open(sheet);
  }
  void tidy(Id sheet);
  void findPicture(Id sheet);
  void hang(const QStringList& paths);
  void hangNext(QStringList paths, std::vector<Id> brought, QStringList failures);
  // `byKeys`: the keyboard goes on with a cell cursor afterwards.
  void spreadTable(bool on, bool byKeys = false);
  // The sheet of what is in hand; empty where that is Chalk, or nothing.
  Id sheetInHand() const;
  // Joins the tiles that are chosen on a sheet, or all of it, and shows them on the bench.
  void join(Id sheet);
  // Joins what is selected, or all of the active layer, anew; the first time it lights and counts what that would change.
  void joinAnew();
  // Lifts the next strokes by so many steps.
  void lift(int steps);
  void turn(Turning turning);
  void nextManner();
  void stepOption(int steps);
  void deleteMap();
  // The tool is Pins: copying, deleting and so on are about pins.
  bool onPins() const;
  // Takes a cord from the chosen pin, or from the cell at the pointer, where a spot is made.
  void leadFrom();
  void showThread(const LooseThread& thread);
  void showSession();
  // The Board or the map, as the desk says.
  void followBoard();
  // Nothing but the map, or all that was there; `on` as it is now where nothing is said.
  void showMapAlone(bool on);
  // Gives back the session that was there.
  std::unique_ptr<Session> adopt(std::unique_ptr<Session> session);
  // While a large quilt is read: shows it as soon as its first map is there, then what has come since.
  void seeEarly(Session::Loaded loaded);
  // Back to the quilt that was there before one that is still being read.
  void leaveEarly();
  void tellProblems();
  // Gives up what came back after a crash, for the quilt as it was saved.
  void lookAtSaved();
  void refresh();
  Situation situation() const;
  void act(ActionId id);
  void goToMap(int steps);
  std::size_t activeIndex() const;  // of the active layer, from the farthest
  // Whether leaving the open quilt loses nothing that somebody wants.
  bool mayGo() const;
  // Calls `next` once the quilt may be left: when long work has ended, and unsaved changes were saved or given up.
  void leaveThen(std::function<void()> next);
  // Calls `next` when all is saved.
  void save(const std::function<void()>& next = {});
  // Saves where that can be done now without a word.
  void saveUnasked();
  void saveAs();
  void chooseQuilt();
  void report(const Error& error);
  // `proposed`: the folder that is in the field already.
  QString askForFolder(const QString& title, const QString& button, bool toSave, const QString& proposed = {});
  static bool isPacked(const QString& path);
  // Asks whether a file that is there may go.
  bool mayReplace(const QString& path);
  void pack();
  void choosePacked();
  // Asks for a folder, and opens what is in a packed quilt there.
  void openPacked(const QString& path);

  std::shared_ptr<Disk> disk_;
  std::unique_ptr<Session> session_;
  std::unique_ptr<Session> before_;  // the session to go back to, as long as session_ is still being read
  LongWork work_;
  std::optional<Quilt> givenUp_;  // unsaved work of which the user said that it may go
  bool isFresh_ = true;           // no quilt was opened here yet
  bool leaves_ = false;           // everything was asked: the window closes
  Actions* actions_;
  QStackedWidget* pages_;
  QWidget* room_;
  QMenuBar* menus_;
  Columns* columns_;
  Panes* leftPanes_;
  StartPage* start_;
  Tape* tape_ = nullptr;
  NewMapCard* newMap_;
  MapList* maps_;
  FindBox* find_;
  KeysPage* keysPage_;
  MapTabs* tabs_;
  NoticeStrip* notices_;
  CameBackStrip* cameBack_;
  bool toldOfReturn_ = false;  // what came back was shown
  JoinCard* joinCard_;
  TablePanel* panel_;
  TableView* spread_;
  bool spreadUsed_ = false;  // something was taken from it while its key was down
  RolesCard* rolesCard_ = nullptr;
  MapFactsCard* mapFacts_;
  SizeCard* sizeCard_;
  CellCard* cellCard_;
  HangCard* hangCard_;
  JointRound* joints_ = nullptr;
  ThreadRound* round_ = nullptr;
  ThreadsCard* threads_ = nullptr;
  bool spreadHeld_ = false;  // its key is down
  SheetCard* sheetCard_;
  EdgingBench* bench_;
  Exports* exports_ = nullptr;
  ExportPage* exportPage_ = nullptr;
  FilmView* film_ = nullptr;
  std::pair<LayerAt, CellSet> joinsAnew_;  // lit, and told
  TidyCard* tidyCard_;
  ExportCard* exportCard_;
  InHandPanel* inHand_;
  MapCanvas* canvas_;
  BoardView* board_;
  WaysPanel* ways_;
  Panes* boardPanes_;
  StackPanel* stack_;
  Overview* overview_;
  StepList* steps_;
  FootLine* foot_ = nullptr;  // made last
  bool overTable_ = false;
  bool deskMoved_ = true;  // the desk or the view, since they were kept
  PaneKeys paneKeys_;
};

}  // namespace uq
