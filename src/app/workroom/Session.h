// Session: one open quilt and the work on it — the quilt's present value, the desk, the undo line and the store.
//
// The one place in the application that holds state which outlives a gesture. Widgets read it, ask it to do things, and
// show what it says when a signal comes. All computation is in the core; this joins its parts.
#pragma once

#include <QObject>
#include <QThreadPool>
#include <memory>
#include <optional>

#include "app/actions/ActionTable.h"
#include "app/workroom/LongWork.h"
#include "app/workroom/SpillFile.h"
#include "core/base/Id.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/LookAlikes.h"
#include "core/edit/Covered.h"
#include "core/edit/Folders.h"
#include "core/edit/Stroke.h"
#include "core/edit/SwapTiles.h"
#include "core/store/QuiltStore.h"
#include "core/work/Work.h"
#include "raster/CellCover.h"
#include "raster/MapPainter.h"

namespace uq {

class SheetWork;

class Session : public QObject {
  Q_OBJECT

 public:
  // A quilt as read, with its pictures.
  struct Loaded {
    QuiltStore::Opened opened;
    SheetPictures pictures;
    std::optional<Json> kept;  // the desk of the last time, as deskJson made it
    std::shared_ptr<Disk> disk;
  };
  // Reads the quilt in `folder`, and what is remembered of its desk, on any thread.
  static Result<Loaded> load(const std::string& folder, Progress& progress, std::shared_ptr<Disk> disk);

  // What could not be read is in `problems()`.
  explicit Session(Loaded loaded);
  ~Session() override;

  const Quilt& quilt() const { return work_.quilt(); }
  const Desk& desk() const { return work_.desk(); }
  const UndoLine& undoLine() const { return work_.undoLine(); }
  const QuiltStore& store() const { return *store_; }
  // What was remembered of this quilt when it was opened.
  const std::optional<Json>& kept() const { return kept_; }
  MapPainter& painter() { return painter_; }
  const Map* map() const { return quilt().map(desk().map); }  // nullptr when the quilt has none
  const Errors& problems() const { return problems_; }
  bool isSaved() const { return !inStroke() && quilt() == saved_; }
  bool isSaved(const Map& map) const { return saved_.map(map.id) && *saved_.map(map.id) == map; }
  Situation situation() const {
    return {quilt(), desk(), undoLine(), isSaved(), inStroke(), false, holdsPaste(), whyNoPaste(), whyNoThrow()};
  }

  // The desk; emits deskChanged when something changed.
  void setDesk(Desk desk);
  // Makes a layer the active one, which is obeyed until something is taken.
  void chooseLayer(Id layer);
  // Takes into the hand, readies Brush, and goes to the layer where such a thing belongs.
  void take(InHand thing);
  // A block that was put together for the desk's map.
  void take(Block block) { take(InHand(std::move(block), map() ? map()->grid.kind : GridKind::orthogonal)); }
  // Takes the topmost opaque tile at a map pixel and goes to its layer; `behind` how many tiles it goes behind, round
  // and round. In the plan view at a pixel of that. What it covers on the map; empty when there is none.
  PixelRect takeFromMap(PixelPos at, int behind = 0);
  // What that would take: the part of the map it covers, or the cell; nothing where there is none.
  PixelRect pictureToTake(PixelPos at, int behind = 0);
  std::optional<Cell> cellToTake(PixelPos at, int behind = 0);
  // Takes the stamp that lies around a cell of the active layer, whole; false where there is none.
  bool takeStampAt(CellPos at);
  // Takes what lies on these cells: of the active layer, or of all that are seen; `cuts` empties them, in one step.
  void takeCells(const CellSet& cells, bool allSeen, bool cuts);
  // Takes the tile of one cell of a layer and goes to that layer.
  void takeCell(Id layer, CellPos at);
  // Adds to what is in hand: the tiles then are a mix.
  void gather(const Block& more);
  // Changes what is in hand to something that is still the same thing: turned, in another manner.
  void changeHand(InHand changed);
  void turnHand(Turning turning);
  void straightenHand();
  void setManner(Manner manner);
  void setChance(bool on);

  // Makes one step of an edit of the quilt that concerns no layer; where that may not be, says why.
  void quiltStep(const QString& name, Quilt after) { (void)madeStep(name, std::move(after), desk().landing()); }
  // The same; true when nothing spoke against it.
  [[nodiscard]] bool madeQuiltStep(const QString& name, Quilt after) {
    return madeStep(name, std::move(after), desk().landing());
  }
  // Calls `what` now, or right after the gesture under way and a save have ended: what comes from elsewhere changes nothing
  // under the hand, nor what is being written. Forgotten when the session goes.
  void whenHandsFree(std::function<void()> what);
  SheetWork& sheets() { return *sheets_; }
  const std::shared_ptr<Disk>& disk() const { return disk_; }
  // A picture as it was read from the quilt's folder just now, so that saving knows it. Nothing may be being saved.
  void sawPicture(const std::string& path, const std::string& bytes) { store_->sawPicture(path, bytes); }
  // Somebody deleted a picture that the quilt holds: it is to be saved again.
  void lostPicture(const std::string& path);

  // The maps. Each is one step; a new or copied map is gone to, and gets a tab.
  void addMap(const MapPlan& plan);
  void duplicateMap();
  void renameMap(Id map, const QString& name);
  void deleteMap(Id map);
  // Gives the desk's map cells of that size, or the nearest its grid allows; one step.
  void setCell(PixelSize cell);
  // Makes the desk's map the one that the quilt opens with at first, or no longer; one step.
  void setOpeningMap();
  // Goes to a map, which gets a tab; takes one's tab away.
  void goTo(Id map);
  void closeTab(Id map);

  // The layers of the desk's map. Each is one step; a new or copied layer becomes the active one. `index` counts from
  // the farthest.
  void addLayer(StackPlace place);
  void duplicateLayer();
  void deleteLayer();
  void renameLayer(Id layer, const QString& name);
  // To the neighbouring place, `by` places nearer; or anywhere.
  void moveLayer(Id layer, int by);
  void moveLayer(Id layer, StackPlace to);
  // Layers that show the pictures of sheets, each behind all others, or one at a place; one for pins; and the active
  // layer made one with that behind it.
  void hangBackdrops(const std::vector<Id>& sheets, std::size_t index = 0);
  void addPins(std::size_t index);
  void mergeDown();
  // Puts the chosen layers in a folder, moves one, takes the active layer's away without what is in it; folds its cards
  // up in the Stack or shows them; shuts the eyes of all in it, or opens them where all are shut.
  void foldLayers();
  void moveFolder(Id folder, StackPlace to);
  void unfold();
  void foldUp(Id folder);
  void toggleFolderEye(Id folder);
  // What the tiles hide on the cells of the desk's map, which there must be.
  Hiding hiding();
  // Takes the cells of the active layer away that nearer ones hide.
  void stripCovered();
  // Draws the Walker right in front of a layer.
  void setWalker(Id behind);
  // Chooses a layer beside the active one, or no longer.
  void alsoChoose(Id layer);
  // The active layer and those chosen beside it, farthest first.
  std::vector<LayerAt> chosenLayers() const;
  // Changes what is said of the chosen layers: one step. Between beginChange and endChange, as while a bar is dragged,
  // each change takes the place of the one before, and all are one step.
  using LayerEdit = std::function<Quilt(const Quilt&, LayerAt)>;
  void changeLayers(const QString& what, const LayerEdit& edit);
  void beginChange(const QString& what);
  void endChange();
  // Changes what is said of the desk's map: one step.
  void changeMap(const QString& what, Quilt after);
  // Moves the screen frame as near to a place as the camera goes there.
  void setCamera(PixelPos at);
  void setNote(LayerAt layer, const QString& note);

  // The levels of the desk's map, and how it is drawn. Each is one step. A new level comes above that of the active
  // layer, and its layer becomes the active one; rise and order are those of the active layer's level, the order else
  // that of the map.
  void addLevel();
  void deleteLevel();
  void renameLevel(Id level, const QString& name);
  void setRise(int rise);
  void setDrawOrder(DrawOrder order);
  // The innermost folder, or level, of the active layer; nullptr where it lies in none.
  const LayerFolder* level() const;

  // By how many map pixels the next stroke lies above its layer; 0 again when another layer is chosen or something else
  // is taken.
  void setLift(int lift);

  // The other sides of the tile in hand: which tile shows it turned by so many steps to the right. Each is one step.
  // While one is awaited, the next tile that is taken becomes it instead of coming into the hand.
  void setPartner(int side, std::optional<TileRef> partner);
  void awaitPartner(std::optional<int> side);
  std::optional<int> awaitedPartner() const { return awaitedPartner_; }

  // What can be done with the selected cells of the active layer, or of all seen ones (ToolOptions::allLayers). Each
  // is one step; nothing happens, and the reason is said, where a layer takes no change. Copied cells are held for the
  // whole program, and as text and picture on the desktop's clipboard.
  void selectAll();
  void growSelection();
  void shrinkSelection();
  void invertSelection();
  void deleteSelected();
  void copySelected();
  void cutSelected();
  void nudgeSelected(SidePos by);
  void turnSelected(Turning turning);
  // Lays what is in hand on the selected cells.
  void fillSelected();
  // Moves the selected cells to the next layer nearer (1) or farther (-1), or to any; the layer becomes the active one.
  void selectedToLayer(int steps);
  void selectedToLayer(Id layer);
  // Takes a copy of the selected cells into the hand, beside what was copied.
  void duplicateSelected();
  // Takes what was copied into the hand; dropPaste gives back what was held before.
  void paste();
  void dropPaste();
  // What Esc does: drops the stroke, else the paste, else the selection; else chooses Select.
  void dropWork();
  bool holdsPaste() const { return heldBefore_.has_value(); }
  static const InHand& copied();
  // Why what was copied cannot be taken here; empty when it can.
  QString whyNoPaste() const;

  // Moving the selected cells, from press to release.
  void beginMove();
  void moveSelected(SidePos by);

  // Single cells of any layer, as the Lens does it; each one step.
  void deleteCell(Id layer, CellPos at);
  void moveCell(Id layer, CellPos at, Id to);
  // One tile becomes another; one step. How many cells that were.
  std::int64_t swap(TileRef from, TileRef to, SwapIn in);
  SwapAsk swapAsk(TileRef from, TileRef to, SwapIn in) const;

  // The stamps. Each is one step. What is in hand is kept under a name of its own, and then is that stamp.
  void keepStamp();
  void correctStamp(Id stamp);
  void renameStamp(Id stamp, const QString& name);
  void deleteStamp(Id stamp);
  void moveStamp(Id stamp, Id before);

  // Why a stroke would do nothing now; empty when it would land. `tool`: where not the desk's.
  QString whyNoStroke(bool takesAway, std::optional<Tool> tool = {}) const;
  // "Brush on Paving": what a stroke is called, on the tag and in the undo line. `landing`: where it lands, if that is
  // not the active layer.
  QString strokeName(bool takesAway, const Landing* landing = nullptr, std::optional<Tool> tool = {}) const;
  // Whether a tile covers its cell on the desk's map.
  Covers covers();

  // A stroke as it would be made now along a path, without making it; its seed is that of the next one.
  struct StrokeAsk {
    bool takesAway = false;
    bool even = false;        // equal sides, straight ways
    bool everywhere = false;  // all such cells of the layer
    std::vector<CellPos> path;
    CellSet within{};
    CellSet given{};
    std::optional<Tool> tool{};  // other than the desk's
  };
  Stroke tryOut(const StrokeAsk& ask);

  // A stroke from press to release; endStroke and dropStroke end a move, too. A path of several cells is pressed at the
  // first one. Only selected cells are touched, and those of `within`; an empty set does not count.
  void beginStroke(const StrokeAsk& ask);
  void moveStroke(CellPos to, bool even = false);
  void endStroke();
  void dropStroke();
  bool inStroke() const { return work_.gesture() != nullptr; }
  const Stroke* stroke() const { return work_.gesture() ? work_.gesture()->stroke() : nullptr; }

  // Where the last stroke ended, on the desk's map, for the next one to go on from.
  std::optional<CellPos> lastPoint() const;
  // The last stroke as a list of edits that repeats it on the quilt before it, while nothing else was done.
  struct Repeated {
    Quilt before;
    Json list;
  };
  std::optional<Repeated> lastStroke() const;
  // Another outcome of chance: for the selection, else for the last stroke. One step.
  void throwAgain();
  QString whyNoThrow() const;

  // The stretch that was laid last or recognised, while nothing else was done: its box in side coordinates. Refitting
  // it is a stroke.
  std::optional<CellRect> stretchBox() const;
  const InHand* stretchLaid() const;
  void beginRefit();
  void refit(CellRect box);
  // Puts the next look-alike in the place of a part of that stretch; while it is dragged as part of the stroke, else as a
  // step. Says so where no kept mix has one.
  void stepLookAlike(StretchPart part, int steps);
  // Finds a stamp or what is in hand, laid as a stretch around a cell; false where there is none.
  bool recogniseStretch(CellPos at);

  // Undo and redo in the tab of the desk's map. Where more than one step would go, the first call only asks, by
  // `asksFarther`, and a second one does it.
  void undo();
  void redo();
  // Takes the whole quilt back to just after a step, as one group that one redo lays back; 0 is before the first.
  void returnTo(std::uint64_t step);

  // Save the quilt as it is now, beside the interface; painting goes on meanwhile. `done` is called in the end, if the
  // session still is there. Saving as moves the session to the new folder.
  using WhenSaved = std::function<void(const Result<QuiltStore::Saved>&)>;
  void save(LongWork& work, WhenSaved done);
  void saveAs(LongWork& work, const std::string& folder, WhenSaved done);

 Q_SIGNALS:
  void quiltChanged();
  // A stroke, move or change has ended, by whatever: what a hand still does belongs to no gesture any more.
  void gestureEnded();
  void deskChanged();
  void asksFarther(const QString& question);
  void failed(const Error& error);
  void refused(const QString& why);

 private:
  // Whether a set of all cells of the desk's map can be worked with; says why not.
  bool mayHoldAll();
  // Shows the gesture under way; says that it has ended, and makes what waited for that.
  void showGesture();
  void gestureHasEnded();
  void doWaiting();
  // Begins a gesture, or says why not.
  bool begin(const QString& name, Gesture gesture);
  // After steps were taken back or laid back.
  void follow(const Result<void>& went);
  // Packs old steps of the undo line, one by one, on another thread.
  void packOldSteps();
  void tellRefusal(const Error& error);
  // What the change under way makes of the quilt before it.
  void changeTo(Quilt now);
  // Makes one step of an edit of the desk's map, after which `active` is the active layer; where that may not be, says
  // why.
  void mapStep(const QString& name, Quilt after, Id active) {
    (void)madeStep(name, std::move(after), {desk().map, active});
  }
  void mapStep(const QString& name, Quilt after, LayerAt active) { (void)madeStep(name, std::move(after), active); }
  // The same for an edit of the quilt, after which another map may be worked on. The step is made in that map's tab.
  // True when nothing spoke against it.
  [[nodiscard]] bool madeStep(const QString& name, Quilt after, LayerAt active,
                              std::optional<CellSet> selected = {});
  struct Picked {
    PickedTile tile;
    PixelRect covers;
  };
  std::optional<Picked> picked(PixelPos at, int behind);
  QString onLayer(const QString& verb) const;
  void nextChance();
  StrokePlan plan(const StrokeAsk& ask);
  bool lastStands() const;
  // Why a layer takes no change, said at the cursor; true when it does take it.
  bool takesChange(std::span<const LayerAt> layers);
  // Makes one step of an edit of the active layer.
  void step(const QString& verb, const std::function<Quilt()>& edit, std::optional<CellSet> selection = {});
  // True when the plan may be carried out now; asks otherwise.
  bool confirmed(const UndoLine::Plan& plan, bool back);

  std::shared_ptr<Disk> disk_;
  std::shared_ptr<QuiltStore> store_;  // a save in progress holds it, too
  Quilt saved_;                        // as on the disk
  Work work_;
  MapPainter painter_;
  Errors problems_;
  std::optional<Json> kept_;
  // The last stroke, as long as the quilt is as it left it: for another throw, and for the handles of a stretch.
  struct LastStroke {
    Quilt before;
    StrokePlan plan;
    Gesture::Moves moves;
    std::optional<CellRect> box;
    Quilt after;
  };
  std::optional<LastStroke> last_;
  std::optional<std::pair<Id, CellPos>> lastPoint_;
  CellCover cover_;
  bool changes_ = false;  // between beginChange and endChange, also when the gesture has ended meanwhile
  std::optional<InHand> heldBefore_;  // what a paste put aside
  std::shared_ptr<Spill> spill_ = std::make_shared<SpillFile>();
  bool packs_ = false;
  QThreadPool packers_;
  IdSource ids_ = IdSource::fromSystem();
  std::uint64_t seed_ = 0;  // of the next stroke
  std::uint64_t idSeed_ = 0;
  std::optional<int> awaitedPartner_;
  std::optional<TurnGrip> turnGrip_;  // of the last turn of a selection
  bool saving_ = false;
  SheetWork* sheets_ = nullptr;       // a child
  std::vector<std::uint64_t> asked_;  // the steps that were named in a question
};

}  // namespace uq
