#include "app/workroom/Session.h"

#include <QPointer>
#include <algorithm>
#include <tuple>

#include "app/workroom/Clipboard.h"
#include "app/workroom/FolderWatch.h"
#include "app/workroom/KeptState.h"
#include "app/workroom/SheetWork.h"
#include "app/workroom/WorkKeeper.h"
#include "core/store/KeptReading.h"
#include "core/work/KeptSteps.h"
#include "core/document/PlanView.h"
#include "core/edit/Selected.h"
#include "core/sheets/TileMarks.h"
#include "core/store/DeskText.h"
#include "core/store/Documents.h"
#include "raster/Blend.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr std::size_t kTabsAtFirst = 8;
constexpr QSize kCameBackPicture(280, 180);
constexpr int kMostCopiedPixels = 16'000'000;  // of the picture for other programs

// As it was kept, else with a tab for each of the first maps.
Desk firstDesk(const Quilt& quilt, const std::optional<Json>& kept) {
  if (kept) return readDesk(*kept, quilt);
  Desk desk;
  desk.map = quilt.facts().opensWith;
  for (const auto& one : quilt.maps()) {
    if (desk.openMaps.size() < kTabsAtFirst) desk.openMaps.push_back(one->id);
  }
  return desk;
}

// Sheets of an older version have no marks yet, by which their tiles are recognised.
Quilt marked(Quilt quilt, const SheetPictures& pictures) {
  for (const auto& sheet : std::vector(quilt.sheets())) {
    const QImage picture = sheet->marks->tiles.empty() ? pictures.picture(sheet.read()) : QImage();
    if (picture.isNull()) continue;
    Sheet now = sheet.read();
    now.marks = Shared(marksOf(now, viewOf(picture)));
    quilt = quilt.with(std::move(now));
  }
  return quilt;
}

// Puts what was kept of a quilt aside; where that fails, the error says so.
void putWorkAside(Disk& disk, const std::string& folder, Error& error) {
  if (const auto put = putAside(disk, WorkKeeper::placeFor(folder)); !put) error.kept = put.error().text();
}

// The quilt as it was kept after its last save; nothing, and why is told, where that cannot be read or lies on files that
// are others now: then it is put aside.
std::optional<KeptBack> comeBack(const std::shared_ptr<Disk>& disk, const std::string& folder, const Kept& kept,
                                 QuiltStore::Opened& opened, Progress& progress) {
  const auto aside = [&](Error error) {
    putWorkAside(*disk, folder, error);
    opened.problems.push_back(std::move(error));
    return std::nullopt;
  };
  const std::vector<std::string> changed = changedSince(*disk, folder, kept);
  if (!changed.empty()) {
    return aside(Error{Error::Cause::changedOutside, "it was saved or changed after the work on it was kept",
                       joined(folder, changed.front()), 0, "It is shown as it is; what was kept lies aside",
                       "‘uquilt recover --list’ names it"});
  }
  auto back = readKept(disk, folder, kept, opened, &progress);
  if (!back) return progress.isCancelled() ? std::nullopt : aside(back.error());
  if (!back->whole) putWorkAside(*disk, folder, back->problems.front());
  return std::move(*back);
}

// The quilt is as it was, but more or less of it is saved.
QuiltChange savedOnly() {
  QuiltChange change;
  change.steps = true;
  return change;
}

}  // namespace

class Session::Ears final : public Work::Listener {
 public:
  explicit Ears(Session& session) : session_(session) {}

  void quiltChanged(const QuiltChange& change) override {
    if (!session_.inGesture()) session_.packOldSteps();
    Q_EMIT session_.quiltChanged(change);
  }
  void deskChanged(const DeskChange& change) override { Q_EMIT session_.deskChanged(change); }
  void gestureMoved() override { Q_EMIT session_.gestureMoved(); }
  void gestureEnded() override {
    Q_EMIT session_.gestureEnded();
    // Not within the event that ended it.
    QMetaObject::invokeMethod(&session_, &Session::doWaiting, Qt::QueuedConnection);
  }
  void refused(const std::string& why) override { Q_EMIT session_.refused(QString::fromStdString(why)); }
  void failed(const Error& error) override { Q_EMIT session_.failed(error); }
  void asksFarther(const std::string& question) override {
    Q_EMIT session_.asksFarther(QString::fromStdString(question));
  }

 private:
  Session& session_;
};

Result<Session::Loaded> Session::load(const std::string& folder, Progress& progress, std::shared_ptr<Disk> disk,
                                      const std::function<void(Loaded)>& early) {
  const std::optional<Json> kept = keptState(QString::fromStdString(folder));
  std::optional<SheetPictures> pictures;  // all sheets are read before the first map is seen
  Errors broken;
  const auto picturesOf = [&](const Quilt& quilt) {
    if (!pictures) pictures = SheetPictures::load(quilt, broken);
    return *pictures;
  };
  Onlooker onlooker;
  if (early) {
    onlooker.first = [&](const Quilt& quilt) { return validDesk(firstDesk(quilt, kept), quilt).map; };
    onlooker.see = [&](QuiltSight sight) {
      const SheetPictures seen = picturesOf(sight.quilt);
      sight.quilt = marked(std::move(sight.quilt), seen);
      early({folder, std::move(sight), {}, std::nullopt, seen, kept, disk});
    };
  }
  const auto keptWork = keptAt(*disk, WorkKeeper::placeFor(folder));
  const bool mayComeBack = keptWork && *keptWork;
  // What was kept is seen whole or not at all.
  auto opened = QuiltStore::open(disk, folder, QuiltStore::Access::write, &progress,
                                 mayComeBack ? Onlooker() : onlooker);
  if (!opened) return fail(opened.error());
  std::optional<Quilt> cameBack;
  std::vector<std::string> line;
  // Who only looks on leaves alone what is kept for somebody else.
  const bool looksOn = opened->store.readOnly() && opened->store.readOnly()->cause == Error::Cause::inUse;
  if (!keptWork) {
    Error unreadable = keptWork.error();
    if (!looksOn) putWorkAside(*disk, folder, unreadable);
    opened->problems.push_back(std::move(unreadable));
  } else if (mayComeBack && !looksOn) {
    line = lineTexts(*disk, **keptWork);
    if (auto back = comeBack(disk, folder, **keptWork, *opened, progress)) {
      cameBack = std::move(back->quilt);
      if (!back->whole) line.clear();
      opened->problems.insert(opened->problems.end(), back->problems.begin(), back->problems.end());
    }
  }
  if (progress.isCancelled()) return fail(Error::Cause::cancelled, "opening was cancelled", folder);
  const SheetPictures seen = picturesOf(opened->quilt);
  const bool sameSheets = cameBack && cameBack->sheets() == opened->quilt.sheets();
  Errors problems = std::move(opened->problems);
  problems.insert(problems.end(), broken.begin(), broken.end());
  QuiltSight all{marked(std::move(opened->quilt), seen), {}};
  Loaded loaded{folder, std::move(all), std::move(problems), std::move(opened->store), seen, kept, std::move(disk)};
  if (cameBack) {
    Loaded::CameBack back{loaded.sight.quilt, (*keptWork)->facts};
    if (sameSheets) {
      for (const Shared<Sheet>& sheet : back.saved.sheets()) cameBack = cameBack->with(sheet.read());
    } else {
      loaded.pictures = SheetPictures::load(*cameBack, broken);
    }
    loaded.sight.quilt = marked(std::move(*cameBack), loaded.pictures);
    StepsRead steps = readSteps(line, (*keptWork)->line, loaded.sight.quilt);
    back.steps = std::move(steps.steps);
    back.takenBack = std::move(steps.takenBack);
    back.isLineWhole = steps.whole;
    const auto pictureOf = [&](const Quilt& quilt) {
      const Map* map = quilt.map(validDesk(firstDesk(quilt, kept), quilt).map);
      MapPainter painter(loaded.pictures);
      return map ? smallPicture(painter, quilt, *map, kCameBackPicture).picture : QImage();
    };
    back.now = pictureOf(loaded.sight.quilt);
    back.then = pictureOf(back.saved);
    loaded.cameBack = std::move(back);
  }
  return loaded;
}

Session::Session(Loaded loaded)
    : disk_(std::move(loaded.disk)),
      folder_(std::move(loaded.folder)),
      store_(loaded.store ? std::make_shared<QuiltStore>(std::move(*loaded.store)) : nullptr),
      damaged_(std::move(loaded.sight.damaged)),
      saved_(loaded.cameBack ? loaded.cameBack->saved : loaded.sight.quilt),
      painter_(std::move(loaded.pictures)),
      cover_(painter_.pictures()),
      work_(loaded.sight.quilt, firstDesk(loaded.sight.quilt, loaded.kept), [this](Id map) { return damage(map); }, looks()),
      ears_(std::make_unique<Ears>(*this)),
      problems_(std::move(loaded.problems)),
      kept_(std::move(loaded.kept)) {
  work_.arrive(loaded.sight.quilt, std::move(loaded.sight.coming));
  work_.tell(*ears_);
  lookOnOrWork();
  if (loaded.cameBack) work_.undoLine().comeBack(std::move(loaded.cameBack->steps), std::move(loaded.cameBack->takenBack));
  beside_.cameBack = std::move(loaded.cameBack);
  sheets_ = new SheetWork(this);
  beside_.keeper = new WorkKeeper(*this);
  beside_.watch = new FolderWatch(*this);
}

Session::~Session() {
  delete beside_.watch;
  delete beside_.keeper;
  delete sheets_;
  work_.forgetWaiting();
  packers_.waitForDone();
  // A large quilt and its history take a while to take apart.
  auto heavy = std::make_shared<std::tuple<Quilt, Work>>(std::move(saved_), std::move(work_));
  QThreadPool::globalInstance()->start([heavy = std::move(heavy)]() mutable { heavy.reset(); });
}

TileLooks Session::looks() {
  const auto ask = [this](bool (CellCover::*what)(const Quilt&, const GridShape&, TileRef)) {
    return [this, what](const Quilt& quilt, const GridShape& shape, TileRef tile) {
      return (cover_.*what)(quilt, shape, tile);
    };
  };
  return {ask(&CellCover::covers), ask(&CellCover::hides), ask(&CellCover::keepsIn), ask(&CellCover::fills)};
}

void Session::lookOnOrWork() {
  looksOn_.reset();
  if (store_ && store_->readOnly() && store_->readOnly()->cause == Error::Cause::inUse) {
    looksOn_ = Error{Error::Cause::inUse, store_->readOnly()->reason, {}, 0, {}, {}};
  }
  work_.onlyLook(looksOn_);
}

void Session::endLookingOn() {
  lookOnOrWork();
  std::erase_if(problems_, [](const Error& one) { return one.cause == Error::Cause::inUse; });
  Q_EMIT quiltChanged(savedOnly());
}

const Error* Session::damage(Id map) const {
  if (store_) return store_->damage(map);
  const auto found = damaged_.find(map);
  return found == damaged_.end() ? nullptr : &found->second;
}

void Session::arrive(Loaded more) {
  arriving_ = std::move(more);
  QMetaObject::invokeMethod(this, &Session::doWaiting, Qt::QueuedConnection);
  takeIn();
}

void Session::takeIn() {
  if (!arriving_ || inGesture()) return;
  Loaded more = std::move(*arriving_);
  arriving_.reset();
  if (more.store) store_ = std::make_shared<QuiltStore>(std::move(*more.store));
  lookOnOrWork();
  damaged_ = std::move(more.sight.damaged);
  problems_ = std::move(more.problems);
  saved_ = more.sight.quilt;
  work_.arrive(std::move(more.sight.quilt), std::move(more.sight.coming));
  if (!isComing()) Q_EMIT readWhole();
}

QString Session::whyNoPaste() const {
  if (desk().tool != Tool::pins) return whyNothingCopied(quilt());
  return verbs_.pins.hasCopied() ? QString() : tr("No pin was copied yet");
}

Situation Session::situation() const {
  const auto why = [](const std::string& text) { return QString::fromStdString(text); };
  return {quilt(),     desk(), undoLine(),
          isSaved(),   inGesture(), false,
          verbs_.hand.holdsPaste(), whyNoPaste(), why(verbs_.strokes.whyNoThrow())};
}

void Session::packOldSteps() {
  if (packs_) return;
  auto packing = work_.undoLine().toPack();
  if (!packing) return;
  packs_ = true;
  packers_.start([this, spill = spill_, packing = std::move(*packing)]() mutable {
    QMetaObject::invokeMethod(
        this,
        [this, packed = UndoLine::pack(std::move(packing), spill)]() mutable {
          packs_ = false;
          work_.undoLine().putPacked(std::move(packed));
          packOldSteps();
        },
        Qt::QueuedConnection);
  });
}

void Session::doWaiting() {
  QPointer self(this);
  takeIn();
  while (self && !saving_ && !isComing()) {
    const std::function<void()> what = work_.takeWaiting();
    if (!what) return;
    what();
  }
}

void Session::whenHandsFree(std::function<void()> what) {
  work_.whenFree(std::move(what));
  doWaiting();
}

std::optional<Session::Picked> Session::picked(PixelPos at, int behind) {
  if (!map()) return std::nullopt;
  const Quilt shown = desk().planView ? inPlan(quilt(), desk().map) : quilt();
  const Map& shownMap = *shown.map(desk().map);
  const std::vector<PickedTile> tiles = painter_.tilesAt(shown, shownMap, desk().hidden, at);
  if (tiles.empty()) return std::nullopt;
  const PickedTile& tile = tiles[static_cast<std::size_t>(behind) % tiles.size()];
  const Layer& layer = *shownMap.layer(tile.layer);
  const PixelPos plane = shownMap.planeOf(layer);
  const PixelRect place = painter_.placeOf(shown, shownMap, tile.at, tile.cell, layer.lifts.at(tile.at));
  return Picked{tile, {place.x + plane.x, place.y + plane.y, place.w, place.h}};
}

std::optional<Session::ToTake> Session::toTake(PixelPos at, int behind) {
  const auto found = picked(at, behind);
  return found ? std::optional(ToTake{found->tile.cell, found->covers}) : std::nullopt;
}

PixelRect Session::takeFromMap(PixelPos at, int behind) {
  const auto found = picked(at, behind);
  if (!found) return {};
  verbs_.hand.takeCell(found->tile.layer, found->tile.at);
  return found->covers;
}

bool Session::copied() {
  auto hand = verbs_.selection.copied();
  if (!hand) return false;
  // The picture of the cells, for other programs.
  Map part = *map();
  part.bounds = desk().selection().bounds();
  const std::vector<LayerAt> layers = layersOfVerb(desk(), quilt());
  std::erase_if(part.layers, [&](const Shared<Layer>& layer) {
    return std::none_of(layers.begin(), layers.end(), [&](LayerAt at) { return at.layer == layer->id; });
  });
  const PixelRect pixels = painter_.extentOf(quilt(), part, runsOf(part));
  const bool isSmall = std::int64_t{pixels.w} * pixels.h <= kMostCopiedPixels;
  const ViewScale asItIs{1};
  putOnClipboard(std::move(*hand), quilt(),
                 isSmall ? painter_.draw(quilt(), part, runsOf(part), asItIs, asItIs.toDevice(pixels)) : QImage());
  work_.tellOfDesk();
  return true;
}

void Session::copySelected(bool cuts) {
  if (copied() && cuts) verbs_.selection.cut();
}

void Session::paste() {
  auto thing = takenFromClipboard(quilt());
  if (!thing) {
    Q_EMIT refused(QString::fromStdString(thing.error().reason));
    return;
  }
  verbs_.hand.paste(std::move(*thing));
}

void Session::sawPicture(const std::string& path, const std::string* bytes) {
  beside_.watch->stop();
  if (bytes) {
    if (store_) store_->sawPicture(path, *bytes);
    return;
  }
  for (const auto& sheet : saved_.sheets()) {
    if (sheet->isCollection() || pictureFile(sheet.read()) != path) continue;
    Sheet lost = sheet.read();
    lost.source = {};
    saved_ = saved_.with(std::move(lost));
    break;
  }
  Q_EMIT quiltChanged(savedOnly());
}

bool Session::takeIn(const QString& name, Quilt joined, QuiltStore::Reread reread, Quilt there) {
  if (inGesture() || saving_ || !store_) return false;
  // Only what is here counts as taken in: else a save would put the files back as they were. Who looks on sees it, too.
  work_.onlyLook({});
  const auto made = work_.make({name.toStdString(), std::move(joined), desk().activeAt()});
  work_.onlyLook(looksOn_);
  if (!made) return false;
  reread.read.quilt = there;
  store_->take(std::move(reread));
  saved_ = std::move(there);
  Q_EMIT quiltChanged(savedOnly());
  return true;
}

// With nothing under the hand, and all of the quilt there; else says why not.
bool Session::mayWrite(const WhenSaved& done) {
  (void)work_.finish();
  takeIn();
  beside_.watch->stop();
  if (!isComing()) return true;
  done(fail(Error{Error::Cause::inUse, "the quilt is still being opened", folder_, 0, "Nothing was saved",
                  "Save it again in a moment"}));
  return false;
}

void Session::save(LongWork& work, WhenSaved done) {
  if (!mayWrite(done)) return;
  saving_ = true;
  work.start<Result<QuiltStore::Saved>>(
      LongWork::Kind::save, tr("Saving %1…").arg(QString::fromStdString(quilt().facts().name)),
      [store = store_, quilt = quilt()](Progress& progress) { return store->save(quilt, &progress); },
      [session = QPointer(this), quilt = quilt(), done = std::move(done)](Result<QuiltStore::Saved> saved) {
        if (!session) return;
        session->saving_ = false;
        if (saved) session->saved_ = quilt;
        session->beside_.watch->follow();
        Q_EMIT session->quiltChanged(savedOnly());
        done(saved);
        if (session) session->doWaiting();
      });
}

void Session::saveAs(LongWork& work, const std::string& folder, WhenSaved done) {
  if (!mayWrite(done)) return;
  if (!store_->isWhole()) {
    done(fail(notWhole(folder_)));
    return;
  }
  saving_ = true;
  work.start<Result<QuiltStore::Opened>>(
      LongWork::Kind::save, tr("Saving %1…").arg(QString::fromStdString(quilt().facts().name)),
      [quilt = quilt(), folder, disk = disk_](Progress& progress) {
        return QuiltStore::create(disk, folder, quilt, &progress);
      },
      [session = QPointer(this), quilt = quilt(), done = std::move(done)](Result<QuiltStore::Opened> created) {
        if (!session) return;
        session->saving_ = false;
        QMetaObject::invokeMethod(session, &Session::doWaiting, Qt::QueuedConnection);
        if (!created) return done(fail(created.error()));
        const QString old = QString::fromStdString(session->folder_);
        session->store_ = std::make_shared<QuiltStore>(std::move(created->store));
        session->folder_ = session->store_->folder();
        session->saved_ = quilt;
        session->sheets_->moveTo(old);
        session->beside_.watch->follow();
        session->beside_.keeper->moveTo(session->folder_);
        Q_EMIT session->quiltChanged(savedOnly());
        done(QuiltStore::Saved{});
      });
}

}  // namespace uq
