#include "app/workroom/Session.h"

#include <QPointer>
#include <algorithm>
#include <tuple>

#include "app/workroom/Clipboard.h"
#include "app/workroom/KeptState.h"
#include "app/workroom/SheetWork.h"
#include "core/document/PlanView.h"
#include "core/edit/Selected.h"
#include "core/sheets/TileMarks.h"
#include "core/store/DeskText.h"
#include "core/store/Documents.h"
#include "raster/Blend.h"

namespace uq {

namespace {

constexpr std::size_t kTabsAtFirst = 8;
constexpr int kMostCopiedPixels = 16'000'000;  // of the picture for other programs

// As it was kept, else with a tab for each of the first maps.
Desk firstDesk(const Session::Loaded& loaded) {
  const Quilt& quilt = loaded.opened.quilt;
  if (loaded.kept) return readDesk(*loaded.kept, quilt);
  Desk desk;
  desk.map = quilt.facts().opensWith;
  for (const auto& one : quilt.maps()) {
    if (desk.openMaps.size() < kTabsAtFirst) desk.openMaps.push_back(one->id);
  }
  return desk;
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

Result<Session::Loaded> Session::load(const std::string& folder, Progress& progress, std::shared_ptr<Disk> disk) {
  auto opened = QuiltStore::open(disk, folder, QuiltStore::Access::write, &progress);
  if (!opened) return fail(opened.error());
  auto pictures = SheetPictures::load(opened->quilt, opened->problems);
  // Sheets of an older version have no marks yet, by which their tiles are recognised.
  for (const auto& sheet : std::vector(opened->quilt.sheets())) {
    const QImage picture = sheet->marks->tiles.empty() ? pictures.picture(sheet.read()) : QImage();
    if (picture.isNull()) continue;
    Sheet marked = sheet.read();
    marked.marks = Shared(marksOf(marked, viewOf(picture)));
    opened->quilt = opened->quilt.with(std::move(marked));
  }
  return Loaded{std::move(*opened), std::move(pictures), keptState(QString::fromStdString(folder)), std::move(disk)};
}

Session::Session(Loaded loaded)
    : disk_(std::move(loaded.disk)),
      store_(std::make_shared<QuiltStore>(std::move(loaded.opened.store))),
      saved_(loaded.opened.quilt),
      painter_(std::move(loaded.pictures)),
      cover_(painter_.pictures()),
      work_(loaded.opened.quilt, firstDesk(loaded), [this](Id map) { return store_->damage(map); }, looks()),
      ears_(std::make_unique<Ears>(*this)),
      problems_(std::move(loaded.opened.problems)),
      kept_(std::move(loaded.kept)) {
  work_.tell(*ears_);
  sheets_ = new SheetWork(this);
}

Session::~Session() {
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

Situation Session::situation() const {
  const auto why = [](const std::string& text) { return QString::fromStdString(text); };
  return {quilt(),     desk(), undoLine(),
          isSaved(),   inGesture(), false,
          verbs_.hand.holdsPaste(), whyNothingCopied(quilt()), why(verbs_.strokes.whyNoThrow())};
}

bool Session::madeQuiltStep(const QString& name, Quilt after) {
  return work_.make({name.toStdString(), std::move(after), desk().activeAt()}).has_value();
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
  while (self && !saving_) {
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

PixelRect Session::pictureToTake(PixelPos at, int behind) {
  const auto found = picked(at, behind);
  return found ? found->covers : PixelRect();
}

std::optional<Cell> Session::cellToTake(PixelPos at, int behind) {
  const auto found = picked(at, behind);
  return found ? std::optional(found->tile.cell) : std::nullopt;
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

void Session::copySelected() { (void)copied(); }

void Session::cutSelected() {
  if (copied()) verbs_.selection.cut();
}

void Session::paste() {
  auto thing = takenFromClipboard(quilt());
  if (!thing) {
    Q_EMIT refused(QString::fromStdString(thing.error().reason));
    return;
  }
  verbs_.hand.paste(std::move(*thing));
}

void Session::lostPicture(const std::string& path) {
  for (const auto& sheet : saved_.sheets()) {
    if (sheet->isCollection() || pictureFile(sheet.read()) != path) continue;
    Sheet lost = sheet.read();
    lost.source = {};
    saved_ = saved_.with(std::move(lost));
    break;
  }
  Q_EMIT quiltChanged(savedOnly());
}

void Session::save(LongWork& work, WhenSaved done) {
  (void)work_.finish();
  saving_ = true;
  work.start<Result<QuiltStore::Saved>>(
      LongWork::Kind::save, tr("Saving %1…").arg(QString::fromStdString(quilt().facts().name)),
      [store = store_, quilt = quilt()](Progress& progress) { return store->save(quilt, &progress); },
      [session = QPointer(this), quilt = quilt(), done = std::move(done)](Result<QuiltStore::Saved> saved) {
        if (!session) return;
        session->saving_ = false;
        if (saved) session->saved_ = quilt;
        Q_EMIT session->quiltChanged(savedOnly());
        done(saved);
        if (session) session->doWaiting();
      });
}

void Session::saveAs(LongWork& work, const std::string& folder, WhenSaved done) {
  (void)work_.finish();
  if (!store_->isWhole()) {
    done(fail(Error{Error::Cause::notPermitted, "parts of this quilt could not be read, and a copy would lose them",
                    store_->folder(), 0, "Nothing was written", "Mend the files that were named, or copy the folder"}));
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
        const QString old = QString::fromStdString(session->store_->folder());
        session->store_ = std::make_shared<QuiltStore>(std::move(created->store));
        session->saved_ = quilt;
        session->sheets_->moveTo(old);
        Q_EMIT session->quiltChanged(savedOnly());
        done(QuiltStore::Saved{});
      });
}

}  // namespace uq
