#include "app/workroom/Session.h"

#include <QPointer>
#include <QThreadPool>
#include <algorithm>
#include <tuple>

#include "app/workroom/KeptState.h"
#include "app/workroom/SheetWork.h"
#include "core/document/PlanView.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/Facings.h"
#include "core/edit/Landing.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Levels.h"
#include "core/sheets/TileMarks.h"
#include "core/store/DeskText.h"
#include "core/store/Documents.h"
#include "raster/Blend.h"

namespace uq {

namespace {
constexpr std::size_t kTabsAtFirst = 8;

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
}

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
      work_(loaded.opened.quilt, firstDesk(loaded),
            [this](Id map) { return store_->damage(map); }),
      painter_(std::move(loaded.pictures)),
      problems_(std::move(loaded.opened.problems)),
      kept_(std::move(loaded.kept)),
      cover_(painter_.pictures()) {
  sheets_ = new SheetWork(this);
}

Session::~Session() {
  delete sheets_;
  work_.forgetWaiting();
  packers_.waitForDone();
  // A large quilt and its history take a while to take apart.
  auto heavy = std::make_shared<std::tuple<Quilt, Work, std::optional<LastStroke>>>(std::move(saved_), std::move(work_),
                                                                                    std::move(last_));
  QThreadPool::globalInstance()->start([heavy = std::move(heavy)]() mutable { heavy.reset(); });
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

void Session::showGesture() {
  const bool desk = work_.show();
  asked_.clear();
  Q_EMIT quiltChanged();
  if (desk) Q_EMIT deskChanged();
}

void Session::gestureHasEnded() {
  packOldSteps();
  asked_.clear();
  Q_EMIT gestureEnded();
  Q_EMIT quiltChanged();
  Q_EMIT deskChanged();
  // Not within the event that ended it.
  QMetaObject::invokeMethod(this, &Session::doWaiting, Qt::QueuedConnection);
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

void Session::tellRefusal(const Error& error) {
  const bool atCursor = error.cause == Error::Cause::inUse || error.cause == Error::Cause::notPermitted;
  if (!atCursor || !error.file.empty()) {
    Q_EMIT failed(error);
  } else {
    Q_EMIT refused(QString::fromStdString(error.reason));
  }
}

bool Session::begin(const QString& name, Gesture gesture) {
  // A bar whose card is gone cannot say that it was let go.
  if (gesture.kind() != Gesture::Kind::change) changes_ = false;
  const auto begun = work_.begin(name.toStdString(), std::move(gesture));
  if (!begun) tellRefusal(begun.error());
  return begun.has_value();
}

void Session::setDesk(Desk desk) {
  if (work_.setDesk(std::move(desk))) Q_EMIT deskChanged();
}

bool Session::madeStep(const QString& name, Quilt after, LayerAt active, std::optional<CellSet> selected) {
  const auto made = work_.make({name.toStdString(), std::move(after), active, std::move(selected)});
  if (!made) {
    tellRefusal(made.error());
    return false;
  }
  if (*made) packOldSteps();
  asked_.clear();
  Q_EMIT quiltChanged();
  Q_EMIT deskChanged();
  return true;
}

void Session::addMap(const MapPlan& plan) {
  const MapAdded added = uq::addMap(quilt(), plan, ids_);
  if (!added.map.empty())
    mapStep(tr("New map %1").arg(QString::fromStdString(plan.name)), added.quilt, {added.map, {}});
}

void Session::duplicateMap() {
  if (!map()) return;
  const QString name = tr("Duplicate %1").arg(QString::fromStdString(map()->name));
  const MapAdded added = uq::duplicateMap(quilt(), desk().map, ids_);
  mapStep(name, added.quilt, {added.map, {}});
}

void Session::renameMap(Id id, const QString& name) {
  const Map* renamed = quilt().map(id);
  if (!renamed) return;
  mapStep(tr("Rename %1").arg(QString::fromStdString(renamed->name)), uq::renameMap(quilt(), id, name.toStdString()),
          desk().landing().layer);
}

void Session::deleteMap(Id id) {
  const Map* gone = quilt().map(id);
  if (!gone) return;
  // The next tab, else the one before, else any other map.
  Id next = desk().map;
  if (id == desk().map) {
    const auto tab = std::find(desk().openMaps.begin(), desk().openMaps.end(), id);
    next = tab + 1 != desk().openMaps.end() ? *(tab + 1) : tab != desk().openMaps.begin() ? *(tab - 1) : Id();
    for (const auto& other : quilt().maps()) {
      if (next.empty() && other->id != id) next = other->id;
    }
  }
  const auto active = desk().activeLayer.find(next);
  mapStep(tr("Delete %1").arg(QString::fromStdString(gone->name)), uq::deleteMap(quilt(), id),
          {next, active == desk().activeLayer.end() ? Id() : active->second});
}

void Session::setCell(PixelSize cell) {
  if (!map()) return;
  quiltStep(tr("Cells of %1").arg(QString::fromStdString(map()->name)), withCell(quilt(), desk().map, cell));
}

void Session::setOpeningMap() {
  if (!map()) return;
  const bool is = quilt().facts().opensWith == desk().map;
  mapStep(is ? tr("Open with any map") : tr("Open with %1").arg(QString::fromStdString(map()->name)),
          withOpeningMap(quilt(), desk().map), desk().landing());
}

void Session::goTo(Id id) {
  if (!quilt().map(id)) return;
  endStroke();
  Desk desk = this->desk();
  desk.map = id;
  setDesk(std::move(desk));
}

void Session::closeTab(Id id) {
  if (desk().openMaps.size() < 2) return;
  endStroke();
  Desk desk = this->desk();
  const auto tab = std::find(desk.openMaps.begin(), desk.openMaps.end(), id);
  if (tab == desk.openMaps.end()) return;
  if (id == desk.map) desk.map = tab + 1 != desk.openMaps.end() ? *(tab + 1) : *(tab - 1);
  desk.openMaps.erase(tab);
  setDesk(std::move(desk));
}

void Session::setLift(int lift) {
  Desk desk = this->desk();
  desk.lift = std::clamp(lift, 0, kMostLift);
  setDesk(std::move(desk));
}

void Session::awaitPartner(std::optional<int> side) {
  if (awaitedPartner_ == side) return;
  awaitedPartner_ = side;
  Q_EMIT deskChanged();
}

void Session::setPartner(int side, std::optional<TileRef> partner) {
  awaitedPartner_.reset();
  const bool one = map() && desk().inHand.parts().size() == 1;
  const TileRef tile = one ? desk().inHand.parts().front().cell.tile() : TileRef{};
  const Sheet* sheet = quilt().sheetAt(tile.slot);
  if (!sheet || tile.slot == kChalkSlot) return;
  if (partner && partner->slot != tile.slot) {
    Q_EMIT refused(tr("Another side is a tile of the same sheet"));
    Q_EMIT deskChanged();
    return;
  }
  const int order = makeGrid(map()->grid)->turnOrder();
  mapStep(tr("Other side of %1").arg(QString::fromStdString(sheet->tileName(tile.number))),
          withPartner(quilt(), tile, order, side, partner), desk().landing());
  Q_EMIT deskChanged();
}

bool Session::confirmed(const UndoLine::Plan& plan, bool back) {
  if (!plan.reachesFarther || asked_ == plan.steps) return true;
  asked_ = plan.steps;
  QStringList names;
  for (const std::string& name : plan.names) names << tr("“%1”").arg(QString::fromStdString(name));
  const QString list = names.join(tr(", "));
  Q_EMIT asksFarther(back ? tr("Undo would take back together: %1. Undo again to do it.").arg(list)
                          : tr("Redo would lay back together: %1. Redo again to do it.").arg(list));
  return false;
}

void Session::follow(const Result<void>& went) {
  if (!went) {
    Q_EMIT failed(went.error());
    return;
  }
  asked_.clear();
  Q_EMIT quiltChanged();
  Q_EMIT deskChanged();
}

void Session::undo() {
  const auto plan = undoLine().planBack(desk().map, quilt());
  if (plan && confirmed(*plan, true)) follow(work_.takeBack(*plan));
}

void Session::redo() {
  const auto plan = undoLine().planForth(desk().map, quilt());
  if (plan && confirmed(*plan, false)) follow(work_.layBack(*plan));
}

void Session::returnTo(std::uint64_t step) {
  endStroke();
  const UndoLine::Plan plan = undoLine().planReturn(step);
  if (!plan.steps.empty()) follow(work_.takeBack(plan));
}

void Session::lostPicture(const std::string& path) {
  for (const auto& sheet : saved_.sheets()) {
    if (sheet->isCollection() || pictureFile(sheet.read()) != path) continue;
    Sheet lost = sheet.read();
    lost.source = {};
    saved_ = saved_.with(std::move(lost));
    break;
  }
  Q_EMIT quiltChanged();
}

void Session::save(LongWork& work, WhenSaved done) {
  endStroke();
  saving_ = true;
  work.start<Result<QuiltStore::Saved>>(
      LongWork::Kind::save, tr("Saving %1…").arg(QString::fromStdString(quilt().facts().name)),
      [store = store_, quilt = quilt()](Progress& progress) { return store->save(quilt, &progress); },
      [session = QPointer(this), quilt = quilt(), done = std::move(done)](Result<QuiltStore::Saved> saved) {
        if (!session) return;
        session->saving_ = false;
        if (saved) session->saved_ = quilt;
        Q_EMIT session->quiltChanged();
        done(saved);
        if (session) session->doWaiting();
      });
}

void Session::saveAs(LongWork& work, const std::string& folder, WhenSaved done) {
  endStroke();
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
        Q_EMIT session->quiltChanged();
        done(QuiltStore::Saved{});
      });
}

}  // namespace uq
