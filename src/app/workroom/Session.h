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
#include "core/edit/Stroke.h"
#include "core/history/UndoLine.h"
#include "core/store/QuiltStore.h"
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

  const Quilt& quilt() const { return quilt_; }
  const Desk& desk() const { return desk_; }
  const UndoLine& undoLine() const { return undoLine_; }
  const QuiltStore& store() const { return *store_; }
  // What was remembered of this quilt when it was opened.
  const std::optional<Json>& kept() const { return kept_; }
  MapPainter& painter() { return painter_; }
  const Map* map() const { return quilt_.map(desk_.map); }  // nullptr when the quilt has none
  const Errors& problems() const { return problems_; }
  bool isSaved() const { return !inStroke() && quilt_ == saved_; }
  bool isSaved(const Map& map) const { return saved_.map(map.id) && *saved_.map(map.id) == map; }
  Situation situation() const {
    return {quilt_, desk_, undoLine_, isSaved(), inStroke(), false, holdsPaste(), whyNoPaste()};
  }

  // The desk. Each emits deskChanged when something changed.
  void setDesk(Desk desk);
  // Takes into the hand and readies Brush.
  void take(Block block);
  // Takes the topmost opaque tile at a map pixel and goes to its layer; `behind` how many tiles it goes behind, round
  // and round. In the plan view at a pixel of that. What it covers on the map; empty when there is none.
  PixelRect takeFromMap(PixelPos at, int behind = 0);
  void turnHand(Turning turning);
  void straightenHand();

  // Makes one step of an edit of the quilt that concerns no layer; false where nothing may be changed here.
  bool quiltStep(const QString& name, Quilt after) { return mapStep(name, std::move(after), desk_.landing()); }
  SheetWork& sheets() { return *sheets_; }
  const std::shared_ptr<Disk>& disk() const { return disk_; }
  // A picture as it was read from the quilt's folder just now, so that saving knows it. Nothing may be being saved.
  void sawPicture(const std::string& path, const std::string& bytes) { store_->sawPicture(path, bytes); }
  // Somebody deleted a picture that the quilt holds: it is to be saved again.
  void lostPicture(const std::string& path);
  // Whether the quilt is being saved.
  bool isStoreBusy() const { return saving_; }

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
  void addLayer(std::size_t index);
  void duplicateLayer();
  void deleteLayer();
  void renameLayer(Id layer, const QString& name);
  void moveLayer(Id layer, std::size_t index);
  // What is said of the active layer. Each change is one step.
  void setRole(const QString& role);
  void setOffset(PixelPos offset);
  void setOpacity(int percent);
  void setNote(LayerAt layer, const QString& note);

  // The levels of the desk's map, and how it is drawn. Each is one step. A new level comes above that of the active
  // layer, and its layer becomes the active one; rise and order are those of the active layer's level, the order else
  // that of the map.
  void addLevel();
  void deleteLevel();
  void renameLevel(Id level, const QString& name);
  void setRise(int rise);
  void setDrawOrder(DrawOrder order);
  // The level of the active layer; nullptr on the ground.
  const LayerFolder* level() const;

  // By how many map pixels the next stroke lies above its layer; 0 again when another layer is chosen or something else
  // is taken.
  void setLift(int lift);

  // The other sides of the tile in hand: which tile shows it turned by so many steps to the right. Each is one step.
  // While one is awaited, the next tile that is taken becomes it instead of coming into the hand.
  void setPartner(int side, std::optional<TileRef> partner);
  void awaitPartner(std::optional<int> side);
  std::optional<int> awaitedPartner() const { return awaitedPartner_; }

  // What can be done with the selected cells of the active layer. Each is one step; nothing happens, and the reason is
  // said, where the layer takes no change. Copied cells are held for the whole program.
  void selectAll();
  void deleteSelected();
  void copySelected();
  void cutSelected();
  void nudgeSelected(SidePos by);
  // Takes what was copied into the hand; dropPaste gives back what was held before.
  void paste();
  void dropPaste();
  // What Esc does: drops the stroke, else the paste, else the selection; else chooses Select.
  void dropWork();
  bool holdsPaste() const { return heldBefore_.has_value(); }
  static const Block& copied();
  // Why what was copied cannot be taken here; empty when it can.
  QString whyNoPaste() const;

  // Moving the selected cells, from press to release.
  void beginMove();
  void moveSelected(SidePos by);

  // Why a stroke would do nothing now; empty when it would land.
  QString whyNoStroke(bool takesAway) const;
  // "Brush on Paving": what a stroke is called, on the tag and in the undo line.
  QString strokeName(bool takesAway) const;

  // A stroke from press to release, on the active layer; endStroke and dropStroke end a move, too.
  // Only cells `within` are touched, and selected ones; an empty set does not count.
  void beginStroke(bool takesAway, CellPos at, CellSet within = {});
  void moveStroke(CellPos to);
  void endStroke();
  void dropStroke();
  bool inStroke() const { return stroke_ || moving_; }

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
  void deskChanged();
  void asksFarther(const QString& question);
  void failed(const Error& error);
  void refused(const QString& why);

 private:
  void setQuilt(Quilt quilt);
  void follow(const Result<UndoLine::Outcome>& outcome);
  // Packs old steps of the undo line, one by one, on another thread.
  void packOldSteps();
  DeskMark deskMark() const { return {desk_.landing(), desk_.selection()}; }
  // Makes one step of an edit of the desk's map, after which `active` is the active layer. False where nothing may be
  // changed here.
  bool mapStep(const QString& name, Quilt after, Id active) {
    return mapStep(name, std::move(after), {desk_.map, active});
  }
  // The same for an edit of the quilt, after which another map may be worked on. The step is made in that map's tab.
  bool mapStep(const QString& name, Quilt after, LayerAt active);
  QString onLayer(const QString& verb) const;
  // Makes one step of an edit of the active layer.
  void step(const QString& verb, const std::function<Quilt()>& edit, std::optional<CellSet> selection = {});
  // True when the plan may be carried out now; asks otherwise.
  bool confirmed(const UndoLine::Plan& plan, bool back);

  std::shared_ptr<Disk> disk_;
  std::shared_ptr<QuiltStore> store_;  // a save in progress holds it, too
  Quilt saved_;                        // as on the disk
  Quilt quilt_;
  Desk desk_;
  UndoLine undoLine_;
  MapPainter painter_;
  Errors problems_;
  std::optional<Json> kept_;
  std::optional<Stroke> stroke_;
  struct Move {
    Quilt before;
    CellSet selection;
  };
  std::optional<Move> moving_;
  struct Held {
    Block block;
    GridKind grid;
  };
  std::optional<Held> heldBefore_;  // what a paste put aside
  std::shared_ptr<Spill> spill_ = std::make_shared<SpillFile>();
  bool packs_ = false;
  QThreadPool packers_;
  IdSource ids_ = IdSource::fromSystem();
  std::optional<int> awaitedPartner_;
  bool saving_ = false;
  SheetWork* sheets_ = nullptr;  // a child
  std::vector<std::uint64_t> asked_;  // the steps that were named in a question
};

}  // namespace uq
