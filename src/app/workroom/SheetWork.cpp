#include "app/workroom/SheetWork.h"

#include <QFileInfo>
#include <QPointer>
#include <algorithm>
#include <set>

#include "app/workroom/Session.h"
#include "core/sheets/TileMarks.h"
#include "core/store/Documents.h"
#include "raster/Blend.h"
#include "core/edit/Edgings.h"
#include "raster/SheetGuess.h"

namespace uq {

namespace {

constexpr qint64 kMeasuredAtOnce = 1 << 19;  // pixels that are measured while one waits

std::vector<std::string> texts(const QStringList& list) {
  std::vector<std::string> all;
  for (const QString& one : list) all.push_back(one.toStdString());
  return all;
}

PixelSize usualCell(const Session& session) { return session.map() ? session.map()->grid.cell : PixelSize{}; }

}  // namespace

SheetWork::SheetWork(Session* session) : QObject(session), session_(session) {
  pool_.setMaxThreadCount(1);
  watch();
}

SheetWork::~SheetWork() { pool_.waitForDone(); }

bool SheetWork::madeStep(const QString& name, Quilt after) {
  return session_->work().make({name.toStdString(), std::move(after), session_->desk().activeAt()}).has_value();
}

void SheetWork::bringIn(LongWork& work, const QStringList& paths, WhenBrought done) {
  const QString what = paths.size() == 1 ? QFileInfo(paths.front()).fileName()
                                         : tr("%n picture(s)", nullptr, static_cast<int>(paths.size()));
  work.start<Result<Intake>>(
      LongWork::Kind::bringIn, tr("Bringing in %1…").arg(what),
      [paths = texts(paths), usual = usualCell(*session_), disk = session_->disk()](Progress& progress) {
        return takeIn(paths, usual, *disk, progress);
      },
      [self = QPointer(this), paths, what, done = std::move(done)](Result<Intake> intake) {
        if (!self) return;
        if (!intake) return done({}, {intake.error()});
        // Nothing is put under the hand of somebody who paints.
        self->session_->whenHandsFree(
            [self, paths, what, done, came = std::make_shared<Intake>(std::move(*intake))] {
              if (self) self->add(std::move(*came), paths, what, done);
            });
      });
}

void SheetWork::add(Intake intake, const QStringList& paths, const QString& what, const WhenBrought& done) {
  Session& session = *session_;
  const QString inside = QString::fromStdString(session.folder()) + QStringLiteral("/sheets/");
  Quilt quilt = session.quilt();
  std::vector<Id> sheets;
  std::set<Id> loose;
  Errors problems = std::move(intake.problems);
  for (IntakeDraft& draft : intake.drafts) {
    // A picture that lies in the quilt's folder already stays the file it is.
    const bool isLoose = paths.size() == 1 && paths.front().startsWith(inside) && !draft.sheet.isCollection() &&
                         QFileInfo(paths.front()).fileName() == QString::fromStdString(draft.pictureName);
    if (isLoose) draft.sheet.picture = draft.pictureName;
    const SheetAdded added = addSheet(quilt, std::move(draft.sheet), draft.pictureName, ids_);
    if (added.sheet.empty()) {
      problems.push_back(Error{Error::Cause::tooLarge, "a quilt holds at most 1,022 sheets", draft.pictureName, 0,
                               "The sheets before it came in", "Take sheets away that are not used"});
      break;
    }
    quilt = added.quilt;
    sheets.push_back(added.sheet);
    if (isLoose) loose.insert(added.sheet);
    session.painter().pictures().set(*quilt.sheet(added.sheet), std::move(draft.picture));
    notes_[added.sheet] = std::move(draft.notes);
  }
  if (!sheets.empty() && !madeStep(tr("Bring in %1").arg(what), std::move(quilt))) return done({}, problems);
  for (const Id id : sheets) {
    const Sheet& sheet = *session.quilt().sheet(id);
    if (loose.contains(id)) {
      session.sawPicture(pictureFile(sheet), &sheet.source.read());
    } else if (paths.size() == 1 && !sheet.isCollection()) {
      cameFrom_[id] = QFileInfo(paths.front()).absoluteFilePath();
    }
  }
  lookAround();
  done(sheets, problems);
}

bool SheetWork::cut(Id id, const SheetCut& cut) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (!sheet || sheet->isCollection()) return false;
  const PixelSize cells = cellsOf(cut, sheet->pictureSize);
  if (cells.w < 1 || cells.h < 1 || std::int64_t{cells.w} * cells.h > std::int64_t{kLastTileNumber} + 1) return false;
  if (cut == sheet->cut) return true;
  Sheet fresh = *sheet;
  fresh.cut = cut;
  fresh.places = {};
  const QImage picture = session_->painter().pictures().picture(*sheet);
  SheetMarks marks = picture.isNull() ? SheetMarks() : marksOf(fresh, viewOf(picture));
  const std::set<std::uint32_t> inUse =
      numbersInUse(*sheet, usesEverywhere(), session_->quilt().slots().find(id).value_or(0));
  session_->quiltStep(tr("Cut %1 anew").arg(QString::fromStdString(sheet->name)),
                      cutAnew(session_->quilt(), id, cut, std::move(marks), inUse));
  return true;
}

void SheetWork::setCare(Id id, const PixelCare& care) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (!sheet || sheet->care == care) return;
  Sheet fresh = *withCare(session_->quilt(), id, care, sheet->pictureSize).sheet(id);
  SheetPictures pictures = session_->painter().pictures();
  auto done = refreshed(std::move(fresh), pictures);
  if (!done) {
    Q_EMIT session_->failed(done.error());
    return;
  }
  session_->quiltStep(tr("Pixels of %1").arg(QString::fromStdString(sheet->name)),
                      session_->quilt().with(std::move(*done)));
}

void SheetWork::rename(Id sheet, const QString& name) {
  change(tr("Rename %1"), sheet, [&](Sheet& s) { s.name = name.trimmed().toStdString(); });
}

void SheetWork::remove(Id id) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (!sheet) return;
  session_->quiltStep(tr("Take %1 away").arg(QString::fromStdString(sheet->name)), deleteSheet(session_->quilt(), id));
}

void SheetWork::change(const QString& verb, Id id, const std::function<void(Sheet&)>& change) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (sheet)
    session_->quiltStep(verb.arg(QString::fromStdString(sheet->name)), changedSheet(session_->quilt(), id, change));
}

void SheetWork::changeTiles(const QString& verb, Id id, const std::set<std::uint32_t>& numbers,
                            const std::function<void(TileFacts&)>& change) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (!sheet || numbers.empty()) return;
  const QString what = numbers.size() == 1 ? QString::fromStdString(sheet->tileName(*numbers.begin()))
                                           : tr("%n tile(s)", nullptr, static_cast<int>(numbers.size()));
  session_->quiltStep(verb.arg(what), changedTiles(session_->quilt(), id, numbers, change));
}

void SheetWork::moveOnTable(Id sheet, const QString& pile, Id before) {
  const Sheet* moved = session_->quilt().sheet(sheet);
  if (!moved) return;
  session_->quiltStep(tr("Move %1 on the Table").arg(QString::fromStdString(moved->name)),
                      movedOnTable(session_->quilt(), sheet, pile.toStdString(), before));
}

void SheetWork::makeFrames(Id sheet, const std::vector<std::uint32_t>& tiles, int milliseconds) {
  if (tiles.empty()) return;
  Frames frames;
  for (const std::uint32_t tile : tiles) {
    if (frames.size() < kMostFrames) frames.push_back({tile, milliseconds});
  }
  if (frames.size() < 2) frames.clear();
  changeTiles(tr("Animate %1"), sheet, {tiles.front()}, [&](TileFacts& facts) { facts.frames = frames; });
}

void SheetWork::tidy(Id id, const TidyFinds& finds) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (!sheet || finds.empty()) return;
  session_->quiltStep(tr("Tidy %1").arg(QString::fromStdString(sheet->name)),
                      session_->quilt().with(tidied(*sheet, finds)));
}

void SheetWork::lookForTidy(LongWork& work, Id id, std::function<void(const TidyFinds&)> done) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (!sheet) return;
  const auto slot = session_->quilt().slots().find(id).value_or(0);
  work.start<TidyFinds>(
      LongWork::Kind::look, tr("Looking through %1…").arg(QString::fromStdString(sheet->name)),
      [sheet = *sheet, picture = session_->painter().pictures().picture(*sheet), uses = usesEverywhere(),
       slot](Progress& progress) {
        progress.expect(sheet.tileCount());
        return picture.isNull() ? TidyFinds() : findToTidy(sheet, viewOf(picture), uses, slot, &progress);
      },
      [self = QPointer(this), &work, done = std::move(done)](const TidyFinds& finds) {
        if (self && !work.isCancelled()) done(finds);
      });
}

void SheetWork::findPicture(LongWork& work, Id id, const QString& path, std::function<void(const Errors&)> done) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (!sheet || sheet->isCollection()) return;
  work.start<Result<PictureChange>>(
      LongWork::Kind::bringIn, tr("Reading %1…").arg(QFileInfo(path).fileName()),
      [sheet = *sheet, path = path.toStdString(), disk = session_->disk(),
       pictures = session_->painter().pictures()](Progress& progress) mutable -> Result<PictureChange> {
        auto bytes = disk->read(path, std::int64_t{1} << 29);
        if (!bytes) return fail(bytes.error());
        Sheet fresh = sheet;
        fresh.source = PictureBytes(std::move(*bytes));
        auto now = refreshed(std::move(fresh), pictures, &progress);
        if (!now) return fail(now.error());
        if (sheet.marks->tiles.empty()) return PictureChange{std::move(*now), {}, {}, {}, {}};
        PictureChange change = changedPicture(sheet, *now);
        return change;
      },
      [self = QPointer(this), &work, looked = *sheet, path, done = std::move(done)](Result<PictureChange> change) {
        if (!self) return;
        if (!change) return done({change.error()});
        self->session_->whenHandsFree([self, &work, looked, path, done, change = *change] {
          if (!self) return;
          const Sheet* now = self->session_->quilt().sheet(looked.id);
          if (!now) {
            return done({Error{Error::Cause::notFound, "the sheet was taken away while its picture was read",
                               looked.name, 0, "Nothing was changed", {}}});
          }
          // It was cut anew meanwhile: read once more, as it is now.
          if (!sameMaking(*now, looked) && !work.isRunning()) return self->findPicture(work, looked.id, path, done);
          if (!sameMaking(*now, looked)) {
            return done({Error{Error::Cause::other, "the sheet was cut anew while its picture was read", looked.name, 0,
                               "Nothing was changed", "Point to the picture again"}});
          }
          const QString name = QString::fromStdString(now->name);
          const QString what = self->toldOf(change);
          if (self->madeStep(tr("Find the picture of %1").arg(name),
                             self->session_->quilt().with(withPictureOf(*now, change.sheet)))) {
            Q_EMIT self->told(what);
          }
          done({});
        });
      });
}

const IntakeNotes* SheetWork::notes(Id id) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (!sheet || id == chalk().id) return nullptr;
  const auto known = notes_.find(id);
  const QImage picture = session_->painter().pictures().picture(*sheet);
  if (picture.isNull()) return nullptr;
  // A cut changes nothing about what was measured; another picture does.
  if (known != notes_.end()) return &known->second;
  const PixelSize usual = usualCell(*session_);
  if (qint64{picture.width()} * picture.height() <= kMeasuredAtOnce) {
    return &(notes_[id] = notesOn(*sheet, picture, usual));
  }
  if (!measuring_.insert(id).second) return nullptr;
  pool_.start([this, sheet = *sheet, picture, usual] {
    IntakeNotes fresh = notesOn(sheet, picture, usual);
    QMetaObject::invokeMethod(
        this,
        [this, id = sheet.id, fresh = std::move(fresh)]() mutable {
          measuring_.erase(id);
          notes_[id] = std::move(fresh);
          Q_EMIT notesCame(id);
        },
        Qt::QueuedConnection);
  });
  return nullptr;
}

std::optional<SheetWork::Scaled> SheetWork::scaledTwin(Id id) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (!sheet || sheet->isCollection()) return std::nullopt;
  for (const auto& other : session_->quilt().sheets()) {
    if (other->id == id || other->isCollection()) continue;
    const bool twice =
        sheet->pictureSize.w == 2 * other->pictureSize.w && sheet->pictureSize.h == 2 * other->pictureSize.h;
    const bool half =
        other->pictureSize.w == 2 * sheet->pictureSize.w && other->pictureSize.h == 2 * sheet->pictureSize.h;
    if (!twice && !half) continue;
    const QImage mine = session_->painter().pictures().picture(*sheet);
    const QImage its = session_->painter().pictures().picture(other.read());
    if (mine.isNull() || its.isNull()) continue;
    if (twice ? isTwice(viewOf(mine), viewOf(its)) : isTwice(viewOf(its), viewOf(mine)))
      return Scaled{other->id, twice};
  }
  return std::nullopt;
}

QString SheetWork::cameFrom(Id sheet) const {
  const auto found = cameFrom_.find(sheet);
  return found == cameFrom_.end() ? QString() : found->second;
}

const TileColours* SheetWork::colours(const Sheet& sheet) {
  auto& [revision, colours] = colours_[sheet.id];
  if (colours.empty() || !revision.is(sheet.revision)) {
    const QImage picture = session_->painter().pictures().picture(sheet);
    colours = picture.isNull() ? TileColours() : coloursOf(sheet, viewOf(picture));
    revision = sheet.revision;
  }
  return &colours;
}

const TileUses& SheetWork::usesHere() {
  const Map* map = session_->map();
  if (!map) {
    usesHere_ = {};
  } else if (usesHere_.second.empty() || !usesHere_.first.is(map->revision)) {
    usesHere_ = {map->revision, usesWithin(*map)};
  }
  return usesHere_.second;
}

const TileUses& SheetWork::usesEverywhere() {
  std::vector<Revision> now;
  for (const auto& map : session_->quilt().maps()) now.push_back(map->revision);
  for (const auto& edging : session_->quilt().edgings()) now.push_back(edging->revision);
  const bool same = std::equal(now.begin(), now.end(), usesOf_.begin(), usesOf_.end(),
                               [](Revision a, Revision b) { return a.is(b); });
  if (!same || now.empty()) {
    usesEverywhere_ = usesIn(session_->quilt());
    usesOf_ = std::move(now);
  }
  return usesEverywhere_;
}

SheetWork::Joined SheetWork::joinTiles(Id id, const std::vector<std::uint32_t>& numbers) {
  const Quilt& quilt = session_->quilt();
  const Sheet* sheet = quilt.sheet(id);
  if (!sheet) return {{}, "The sheet is gone"};
  const Map* map = session_->map();
  const GridShape shape = map && map->grid.cell == sheet->cut.cell ? map->grid : gridOfSheet(quilt, *sheet);
  std::vector<TileId> tiles;
  for (const std::uint32_t number : numbers) tiles.push_back({id, number});
  const SheetPictures& pictures = session_->painter().pictures();
  Edging guess = tiles.size() < 2 ? guessedFromSheet(quilt, pictures, *sheet, shape) : guessedFromTiles(quilt, pictures, tiles, shape);
  if (guess.members.size() < 2 || guess.materials.empty()) return {{}, "Nothing on " + sheet->name + " looks as if it joined"};
  // Joined already, they are seen again as they are.
  const auto tilesOf = [](const Edging& edging) {
    std::set<TileId> all;
    for (const EdgingMember& one : edging.members) all.insert(one.tile);
    return all;
  };
  const std::set<TileId> asked = tilesOf(guess);
  for (const Shared<Edging>& one : quilt.edgings()) {
    if (areOfOneFamily(one->grid, guess.grid) && tilesOf(one.read()) == asked) return {one->id, {}};
  }
  EdgingAdded added = addEdging(quilt, std::move(guess), sheet->name, session_->work().ids());
  if (added.edging.empty()) return {{}, "What was guessed of " + sheet->name + " cannot be kept"};
  const std::string name = added.quilt.edging(added.edging)->name;
  session_->work().step("Join the tiles of " + name, std::move(added.quilt));
  // A step may have been refused, in words of its own.
  if (!session_->quilt().edging(added.edging)) return {{}, "Nothing was kept"};
  return {added.edging, {}};
}

}  // namespace uq
