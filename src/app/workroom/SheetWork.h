// SheetWork: what the workroom does with a session's sheets beside the interface — bringing pictures in, keeping up
// with pictures that other programs change, and knowing what it costs time to know about them.
//
// Every change is one step of the session's undo line. Reading, decoding and measuring happen on other threads; a
// result is used only while the sheet it was made of is still the same. Pictures on the disk are watched: in the
// quilt's folder of sheets, and originals that a sheet follows.
#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QThreadPool>
#include <QTimer>
#include <functional>
#include <map>
#include <set>

#include "app/workroom/LongWork.h"
#include "core/edit/ArrangeSheets.h"
#include "core/sheets/SheetSearch.h"
#include "core/sheets/SheetTidy.h"
#include "raster/SheetIntake.h"

namespace uq {

class Session;

class SheetWork : public QObject {
  Q_OBJECT

 public:
  explicit SheetWork(Session* session);
  ~SheetWork() override;

  // Brings pictures in, as one step; `done` gets the new sheets and what could not be brought in.
  using WhenBrought = std::function<void(const std::vector<Id>& sheets, const Errors& problems)>;
  void bringIn(LongWork& work, const QStringList& paths, WhenBrought done);

  // Each is one step. Nothing happens, and false is returned, where a cut would leave no tile or too many.
  bool cut(Id sheet, const SheetCut& cut);
  void setCare(Id sheet, const PixelCare& care);
  void rename(Id sheet, const QString& name);
  void remove(Id sheet);
  void change(const QString& verb, Id sheet, const std::function<void(Sheet&)>& change);
  void changeTiles(const QString& verb, Id sheet, const std::set<std::uint32_t>& numbers,
                   const std::function<void(TileFacts&)>& change);
  void moveOnTable(Id sheet, const QString& pile, Id before);
  void makeFrames(Id sheet, const std::vector<std::uint32_t>& tiles, int milliseconds);
  void tidy(Id sheet, const TidyFinds& finds);
  // Keeps what tiles of a sheet, or with less than two of them all, join, as it is guessed from their pixels, as an edging; one
  // step. `why` says in words why nothing joins; empty where it was kept.
  struct Joined {
    Id edging;
    std::string why;
  };
  Joined joinTiles(Id sheet, const std::vector<std::uint32_t>& tiles);

  // Uses the picture at `path` for a sheet whose own is missing, or cannot be used; one step. `done` gets an Error or
  // none.
  void findPicture(LongWork& work, Id sheet, const QString& path, std::function<void(const Errors&)> done);
  // Looks for what may be tidied away, beside the interface.
  void lookForTidy(LongWork& work, Id sheet, std::function<void(const TidyFinds&)> done);

  // What measuring gave; nullptr until notesCame() says so, and where the sheet has no picture.
  const IntakeNotes* notes(Id sheet);
  // A sheet that shows the same at half the size, or at twice; empty when there is none.
  struct Scaled {
    Id sheet;
    bool thisIsTwice = false;
  };
  std::optional<Scaled> scaledTwin(Id sheet);
  // Follows the original of a sheet, the picture that it was brought in from or that it names already, or no longer; one
  // step. Only what was chosen here is followed: another machine's path is one more path that a file names.
  void followOriginal(Id sheet, bool on);
  bool followsOriginal(const Sheet& sheet) const;
  // The quilt was saved in another folder, which is its own from now on.
  void moveTo(const QString& oldFolder);
  // Where a sheet's picture came from, while that is remembered; empty otherwise.
  QString cameFrom(Id sheet) const;

  const TileColours* colours(const Sheet& sheet);
  // How often tiles are laid on the session's map, and on all maps.
  const TileUses& usesHere();
  const TileUses& usesEverywhere();

  // Pictures in the quilt's folder of sheets that no sheet uses.
  const QStringList& loosePictures() const { return loose_; }
  // Whether the folder was looked at since the quilt was opened, and nobody is looking just now.
  bool hasLooked() const { return looked_ && !looks_; }
  // Looks at the folder now instead of when it is told.
  void lookAround() { timer_.start(0); }

 Q_SIGNALS:
  void notesCame(uq::Id sheet);
  void loosePicturesChanged();
  // In words: what another program changed, or took away.
  void told(const QString& what);

 private:
  struct Found {
    PictureChange change;
    Sheet before;  // as it was looked at
    std::vector<std::pair<std::string, PictureBytes>> files;  // inside the quilt, as read
  };
  using Stamps = std::map<std::string, Disk::Stamp>;  // by path
  struct Look {
    std::string folder;  // of the quilt
    std::vector<Found> found;
    std::set<std::string> gone;  // pictures, inside the quilt
    Errors problems;
    QStringList loose;
    Stamps stamps;  // of files as they were looked at last
  };
  static Look lookAt(Quilt quilt, const std::shared_ptr<Disk>& disk, const std::string& folder,
                     SheetPictures pictures, Stamps stamps, bool isFirst);
  // One step; true when nothing spoke against it.
  [[nodiscard]] bool madeStep(const QString& name, Quilt after);
  // Adds what was taken in, as one step.
  void add(Intake intake, const QStringList& paths, const QString& what, const WhenBrought& done);
  void watch();
  void follow();
  void startLook();
  void take(Look look);
  QString toldOf(const PictureChange& change) const;

  Session* session_;
  QFileSystemWatcher watcher_;
  QTimer timer_;
  QThreadPool pool_;
  bool looks_ = false;
  bool looked_ = false;  // once, at least
  bool looksAgain_ = false;
  Stamps stamps_;  // of the last look
  std::set<std::string> gone_;
  QStringList loose_;
  std::map<Id, IntakeNotes> notes_;
  std::set<Id> measuring_;
  std::map<Id, QString> cameFrom_;
  std::map<Id, std::pair<Revision, TileColours>> colours_;
  std::pair<Revision, TileUses> usesHere_;
  std::vector<Revision> usesOf_;
  TileUses usesEverywhere_;
  IdSource ids_ = IdSource::fromSystem();
};

}  // namespace uq
