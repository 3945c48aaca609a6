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
      quilt_(std::move(loaded.opened.quilt)),
      painter_(std::move(loaded.pictures)),
      problems_(std::move(loaded.opened.problems)),
      kept_(std::move(loaded.kept)),
      cover_(painter_.pictures()) {
  if (kept_) {
    desk_ = readDesk(*kept_, quilt_);
  } else {
    desk_.map = quilt_.facts().opensWith;
    for (const auto& one : quilt_.maps()) {
      if (desk_.openMaps.size() < kTabsAtFirst) desk_.openMaps.push_back(one->id);
    }
    desk_ = validDesk(std::move(desk_), quilt_);
  }
  sheets_ = new SheetWork(this);
}

Session::~Session() {
  delete sheets_;
  packers_.waitForDone();
  // A large quilt and its history take a while to take apart.
  auto heavy = std::make_shared<
      std::tuple<Quilt, Quilt, UndoLine, std::optional<Stroke>, std::optional<Move>, std::optional<LastStroke>>>(
      std::move(saved_), std::move(quilt_), std::move(undoLine_), std::move(stroke_), std::move(moving_),
      std::move(last_));
  QThreadPool::globalInstance()->start([heavy = std::move(heavy)]() mutable { heavy.reset(); });
}

void Session::packOldSteps() {
  if (packs_) return;
  auto packing = undoLine_.toPack();
  if (!packing) return;
  packs_ = true;
  packers_.start([this, spill = spill_, packing = std::move(*packing)]() mutable {
    QMetaObject::invokeMethod(
        this,
        [this, packed = UndoLine::pack(std::move(packing), spill)]() mutable {
          packs_ = false;
          undoLine_.putPacked(std::move(packed));
          packOldSteps();
        },
        Qt::QueuedConnection);
  });
}

void Session::setQuilt(Quilt quilt) {
  quilt_ = std::move(quilt);
  asked_.clear();
  Q_EMIT quiltChanged();
  setDesk(desk_);
}

void Session::setDesk(Desk desk) {
  desk = validDesk(std::move(desk), quilt_);
  if (desk == desk_) return;
  // A lift is for the work at hand: forgotten on another layer, it would put what is laid there in the air.
  if (!(desk.landing() == desk_.landing()) && desk.lift == desk_.lift) desk.lift = 0;
  desk_ = std::move(desk);
  Q_EMIT deskChanged();
}

bool Session::mapStep(const QString& name, Quilt after, LayerAt active) {
  if (inStroke()) return false;
  for (const auto& one : quilt_.maps()) {
    const Map* then = after.map(one->id);
    const Error* damage = then && then->revision.is(one->revision) ? nullptr : store_->damage(one->id);
    if (!damage) continue;
    Q_EMIT failed(*damage);
    return false;
  }
  undoLine_.begin(name.toStdString(), active.map, quilt_, deskMark());
  const DeskMark mark(active, active.map == desk_.map ? desk_.selection() : CellSet());
  if (undoLine_.commit(after, mark)) packOldSteps();
  quilt_ = std::move(after);
  asked_.clear();
  Desk desk = desk_;
  desk.map = active.map;
  if (!active.layer.empty()) desk.activeLayer[desk.map] = active.layer;
  if (!(desk.landing() == desk_.landing())) desk.lift = 0;
  desk_ = validDesk(std::move(desk), quilt_);
  Q_EMIT quiltChanged();
  Q_EMIT deskChanged();
  return true;
}

void Session::addMap(const MapPlan& plan) {
  const MapAdded added = uq::addMap(quilt_, plan, ids_);
  if (!added.map.empty())
    mapStep(tr("New map %1").arg(QString::fromStdString(plan.name)), added.quilt, {added.map, {}});
}

void Session::duplicateMap() {
  if (!map()) return;
  const QString name = tr("Duplicate %1").arg(QString::fromStdString(map()->name));
  const MapAdded added = uq::duplicateMap(quilt_, desk_.map, ids_);
  mapStep(name, added.quilt, {added.map, {}});
}

void Session::renameMap(Id id, const QString& name) {
  const Map* renamed = quilt_.map(id);
  if (!renamed) return;
  mapStep(tr("Rename %1").arg(QString::fromStdString(renamed->name)), uq::renameMap(quilt_, id, name.toStdString()),
          desk_.landing().layer);
}

void Session::deleteMap(Id id) {
  const Map* gone = quilt_.map(id);
  if (!gone) return;
  // The next tab, else the one before, else any other map.
  Id next = desk_.map;
  if (id == desk_.map) {
    const auto tab = std::find(desk_.openMaps.begin(), desk_.openMaps.end(), id);
    next = tab + 1 != desk_.openMaps.end() ? *(tab + 1) : tab != desk_.openMaps.begin() ? *(tab - 1) : Id();
    for (const auto& other : quilt_.maps()) {
      if (next.empty() && other->id != id) next = other->id;
    }
  }
  const auto active = desk_.activeLayer.find(next);
  mapStep(tr("Delete %1").arg(QString::fromStdString(gone->name)), uq::deleteMap(quilt_, id),
          {next, active == desk_.activeLayer.end() ? Id() : active->second});
}

void Session::setCell(PixelSize cell) {
  if (!map()) return;
  quiltStep(tr("Cells of %1").arg(QString::fromStdString(map()->name)), withCell(quilt_, desk_.map, cell));
}

void Session::setOpeningMap() {
  if (!map()) return;
  const bool is = quilt_.facts().opensWith == desk_.map;
  mapStep(is ? tr("Open with any map") : tr("Open with %1").arg(QString::fromStdString(map()->name)),
          withOpeningMap(quilt_, desk_.map), desk_.landing());
}

void Session::goTo(Id id) {
  if (!quilt_.map(id)) return;
  endStroke();
  Desk desk = desk_;
  desk.map = id;
  setDesk(std::move(desk));
}

void Session::closeTab(Id id) {
  if (desk_.openMaps.size() < 2) return;
  endStroke();
  Desk desk = desk_;
  const auto tab = std::find(desk.openMaps.begin(), desk.openMaps.end(), id);
  if (tab == desk.openMaps.end()) return;
  if (id == desk.map) desk.map = tab + 1 != desk.openMaps.end() ? *(tab + 1) : *(tab - 1);
  desk.openMaps.erase(tab);
  setDesk(std::move(desk));
}

void Session::setLift(int lift) {
  Desk desk = desk_;
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
  const bool one = map() && desk_.inHand.parts().size() == 1;
  const TileRef tile = one ? desk_.inHand.parts().front().cell.tile() : TileRef{};
  const Sheet* sheet = quilt_.sheetAt(tile.slot);
  if (!sheet || tile.slot == kChalkSlot) return;
  if (partner && partner->slot != tile.slot) {
    Q_EMIT refused(tr("Another side is a tile of the same sheet"));
    Q_EMIT deskChanged();
    return;
  }
  const int order = makeGrid(map()->grid)->turnOrder();
  mapStep(tr("Other side of %1").arg(QString::fromStdString(sheet->tileName(tile.number))),
          withPartner(quilt_, tile, order, side, partner), desk_.landing());
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

void Session::follow(const Result<UndoLine::Outcome>& outcome) {
  if (!outcome) {
    Q_EMIT failed(outcome.error());
    return;
  }
  const bool mapsCame = outcome->quilt.maps().size() != quilt_.maps().size();
  setQuilt(outcome->quilt);
  Desk desk = desk_;
  // Where maps came or went, one goes to where the step was made.
  if (mapsCame && quilt_.map(outcome->desk.active.map)) desk.map = outcome->desk.active.map;
  if (outcome->desk.active.map == desk.map) {
    desk.activeLayer[desk.map] = outcome->desk.active.layer;
    desk.select(outcome->desk.selection);
  }
  setDesk(std::move(desk));
}

void Session::undo() {
  const auto plan = undoLine_.planBack(desk_.map, quilt_);
  if (plan && confirmed(*plan, true)) follow(undoLine_.takeBack(*plan, desk_.map, quilt_));
}

void Session::redo() {
  const auto plan = undoLine_.planForth(desk_.map, quilt_);
  if (plan && confirmed(*plan, false)) follow(undoLine_.layBack(*plan, quilt_));
}

void Session::returnTo(std::uint64_t step) {
  endStroke();
  const UndoLine::Plan plan = undoLine_.planReturn(step);
  if (!plan.steps.empty()) follow(undoLine_.takeBack(plan, desk_.map, quilt_));
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
      LongWork::Kind::save, tr("Saving %1…").arg(QString::fromStdString(quilt_.facts().name)),
      [store = store_, quilt = quilt_](Progress& progress) { return store->save(quilt, &progress); },
      [session = QPointer(this), quilt = quilt_, done = std::move(done)](Result<QuiltStore::Saved> saved) {
        if (!session) return;
        session->saving_ = false;
        if (saved) session->saved_ = quilt;
        Q_EMIT session->quiltChanged();
        done(saved);
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
      LongWork::Kind::save, tr("Saving %1…").arg(QString::fromStdString(quilt_.facts().name)),
      [quilt = quilt_, folder](Progress& progress) { return QuiltStore::create(realDisk(), folder, quilt, &progress); },
      [session = QPointer(this), quilt = quilt_, done = std::move(done)](Result<QuiltStore::Opened> created) {
        if (!session) return;
        session->saving_ = false;
        if (!created) return done(fail(created.error()));
        session->store_ = std::make_shared<QuiltStore>(std::move(created->store));
        session->saved_ = quilt;
        Q_EMIT session->quiltChanged();
        done(QuiltStore::Saved{});
      });
}

}  // namespace uq
