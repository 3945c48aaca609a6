// Session: one open quilt and the work on it, with what a window needs beside: signals, threads and files.
//
// What is worked on is a Work of the core, and what can be done with it are its Verbs; this tells widgets what happened,
// packs old steps, saves and copies beside the interface, and knows which tile lies under the pointer. The one place in
// the application that holds state which outlives a gesture.
// A session may begin before all of a large quilt was read: the maps that are there can be painted on, the others and
// the store arrive() later, and until then nothing is saved.
// Threads: that of the interface.
#pragma once

#include <QImage>
#include <QObject>
#include <QThreadPool>
#include <functional>
#include <map>
#include <memory>
#include <optional>

#include "app/actions/ActionTable.h"
#include "app/workroom/LongWork.h"
#include "app/workroom/SpillFile.h"
#include "core/store/KeptWork.h"
#include "core/store/QuiltStore.h"
#include "core/work/Verbs.h"
#include "core/work/Work.h"
#include "raster/CellCover.h"
#include "raster/MapPainter.h"

namespace uq {

class SheetWork;
class FolderWatch;
class WorkKeeper;

class Session : public QObject {
  Q_OBJECT

 public:
  // A quilt as read, with its pictures.
  struct Loaded {
    std::string folder;
    QuiltSight sight;
    Errors problems;
    std::optional<QuiltStore> store;  // nothing while maps are still being read
    SheetPictures pictures;
    std::optional<Json> kept;  // the desk of the last time, as deskJson made it
    std::shared_ptr<Disk> disk;
    // Where work came back that was kept before a crash: that quilt is the one in sight, and this is what is saved.
    struct CameBack {
      Quilt saved;
      KeptFacts facts;
      QImage now{};  // the map that was worked on, as it was kept and as it is saved
      QImage then{};
      std::vector<Step> steps{};  // the way back, oldest first, and forth again; the session takes both
      std::vector<UndoLine::Group> takenBack{};
      bool isLineWhole = true;    // else the oldest of them could not be read
    };
    std::optional<CameBack> cameBack{};
  };
  // Reads the quilt in `folder`, and what is remembered of its desk, on any thread. `early` is called there with what
  // can be shown of a large quilt before all is read: first once the map is there on which the desk was.
  static Result<Loaded> load(const std::string& folder, Progress& progress, std::shared_ptr<Disk> disk,
                             const std::function<void(Loaded)>& early = {});

  // What could not be read is in `problems()`.
  explicit Session(Loaded loaded);
  ~Session() override;

  // References into these live until the next signal.
  const Quilt& quilt() const { return work_.quilt(); }
  const Desk& desk() const { return work_.desk(); }
  const UndoLine& undoLine() const { return work_.undoLine(); }
  const Map* map() const { return work_.map(); }  // nullptr when the quilt has none
  const std::string& folder() const { return folder_; }
  const QuiltStore& store() const { return *store_; }  // once all was read
  // True while maps are still being read.
  bool isComing() const { return !store_; }
  // Takes in a later reading of the same quilt, now or when the gesture under way has ended.
  void arrive(Loaded more);
  // What is remembered of this quilt: as it was when it was opened, or when it was left.
  std::optional<Json>& kept() { return kept_; }
  MapPainter& painter() { return painter_; }
  const Errors& problems() const { return problems_; }
  // What goes on beside the work: all of it lives as long as the session.
  struct Beside {
    WorkKeeper* keeper = nullptr;                // keeps what is not saved yet
    FolderWatch* watch = nullptr;                // sees that other programs change the quilt's files
    std::optional<Loaded::CameBack> cameBack{};  // work that was kept before a crash
  };
  const Beside& beside() const { return beside_; }
  bool isSaved() const { return !inGesture() && quilt() == saved_; }
  bool isSaved(const Map& map) const { return saved_.map(map.id) && *saved_.map(map.id) == map; }
  bool inGesture() const { return work_.gesture() != nullptr; }
  Situation situation() const;

  // What is done by hand. Signals tell what came of it.
  Work& work() { return work_; }
  Verbs& verbs() { return verbs_; }
  void setDesk(Desk desk) { work_.setDesk(std::move(desk)); }

  // Takes the topmost opaque tile at a map pixel and goes to its layer; `behind` how many tiles it goes behind, round
  // and round. In the plan view at a pixel of that. What it covers on the map; empty when there is none.
  PixelRect takeFromMap(PixelPos at, int behind = 0);
  // What that would take: the cell, and the part of the map that it covers; nothing where there is none.
  struct ToTake {
    Cell cell;
    PixelRect covers;
  };
  std::optional<ToTake> toTake(PixelPos at, int behind = 0);

  // Copied cells are held for the whole program, and as text and picture on the desktop's clipboard.
  void copySelected(bool cuts = false);
  void paste();

  // Makes one step of an edit of the quilt that concerns no layer; where that may not be, says why. Who goes on only
  // where nothing spoke against it asks Work::make.
  void quiltStep(const QString& name, Quilt after) {
    work_.step(name.toStdString(), std::move(after));
  }
  // Calls `what` now, or right after the gesture under way and a save have ended: what comes from elsewhere changes
  // nothing under the hand, nor what is being written. Forgotten when the session goes.
  void whenHandsFree(std::function<void()> what);

  SheetWork& sheets() { return *sheets_; }
  const std::shared_ptr<Disk>& disk() const { return disk_; }
  // Save the quilt as it is now, beside the interface; painting goes on meanwhile. `done` is called in the end, if the
  // session still is there. Saving as moves the session to the new folder.
  using WhenSaved = std::function<void(const Result<QuiltStore::Saved>&)>;
  void save(LongWork& work, WhenSaved done);
  void saveAs(LongWork& work, const std::string& folder, WhenSaved done);

 Q_SIGNALS:
  // All of the quilt that can be read is there now.
  void readWhole();
  // As Work::Listener.
  void quiltChanged(const QuiltChange& change);
  void deskChanged(const DeskChange& change);
  void gestureMoved();
  void gestureEnded();
  void asksFarther(const QString& question);
  void failed(const Error& error);
  void refused(const QString& why);

 private:
  // Why nothing can be pasted, of what the tool is about; empty where it can.
  QString whyNoPaste() const;
  class Ears;  // listens to the work
  friend class SheetWork;
  friend class WorkKeeper;
  friend class FolderWatch;

  // For those that go on beside the work.
  // A picture as it was read from the quilt's folder just now, so that saving knows it; nullptr where somebody deleted
  // one that the quilt holds, which then is to be saved again. Nothing may be being saved.
  void sawPicture(const std::string& path, const std::string* bytes);
  // Takes in what another program saved, `there`, as one step that makes the quilt what came of both. False, and nothing
  // happened, where that may not be now.
  [[nodiscard]] bool takeIn(const QString& name, Quilt joined, QuiltStore::Reread reread, Quilt there);
  struct Picked {
    PickedTile tile;
    PixelRect covers;
  };
  std::optional<Picked> picked(PixelPos at, int behind);
  TileLooks looks();
  // False, and why is said, where nothing was copied.
  [[nodiscard]] bool copied();
  void doWaiting();
  void takeIn();
  const Error* damage(Id map) const;
  // Looks on where somebody else has the quilt open, until nobody has it any more.
  void lookOnOrWork();
  // Nobody else has it open any more.
  void endLookingOn();
  [[nodiscard]] bool mayWrite(const WhenSaved& done);
  // Packs old steps of the undo line, one by one, on another thread.
  void packOldSteps();

  std::shared_ptr<Disk> disk_;
  std::string folder_;
  std::shared_ptr<QuiltStore> store_;   // a save in progress holds it, too; null while maps are being read
  std::map<Id, Error> damaged_;         // maps, as long as there is no store to ask
  std::optional<Error> looksOn_;        // why nothing may be changed, while somebody else has it open
  std::optional<Loaded> arriving_;      // waits for the gesture under way to end
  Quilt saved_;                         // as on the disk
  MapPainter painter_;
  CellCover cover_;
  Work work_;
  Verbs verbs_{work_};
  std::unique_ptr<Ears> ears_;
  Errors problems_;
  std::optional<Json> kept_;
  std::shared_ptr<Spill> spill_ = std::make_shared<SpillFile>();
  bool packs_ = false;
  QThreadPool packers_;
  bool saving_ = false;
  SheetWork* sheets_ = nullptr;    // a child
  Beside beside_;                  // likewise
};

}  // namespace uq
