// What of SheetWork keeps up with pictures that other programs change: in the quilt's folder, and originals that a sheet
// follows.
#include <QFileInfo>
#include <QPointer>
#include <algorithm>

#include "app/workroom/KeptState.h"
#include "app/workroom/Session.h"
#include "app/workroom/SheetWork.h"
#include "core/sheets/TileMarks.h"
#include "core/store/Documents.h"

namespace uq {

namespace {
constexpr int kLookAfter = 120;  // milliseconds; programs write pictures in several goes
}

void SheetWork::watch() {
  timer_.setSingleShot(true);
  connect(&timer_, &QTimer::timeout, this, &SheetWork::startLook);
  const auto soon = [this] { timer_.start(kLookAfter); };
  connect(&watcher_, &QFileSystemWatcher::fileChanged, this, soon);
  connect(&watcher_, &QFileSystemWatcher::directoryChanged, this, soon);
  // Strokes change maps only, and never ask the disk.
  connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
    if (change.any<Sheet>()) follow();
  });
  follow();
  lookAround();
}

// Watches what the sheets of now are made of.
void SheetWork::follow() {
  const QString folder = QString::fromStdString(session_->folder());
  QStringList wanted;
  const QString sheets = folder + QStringLiteral("/sheets");
  wanted << (QFileInfo(sheets).isDir() ? sheets : folder);
  for (const auto& sheet : session_->quilt().sheets()) {
    if (sheet->isCollection()) {
      wanted << folder + QLatin1String("/sheets/") + QString::fromStdString(sheet->file);
      for (const CollectedPicture& one : sheet->collection) {
        if (wanted.size() < 512)
          wanted << folder + QLatin1Char('/') + QString::fromStdString(pictureFile(sheet.read(), one));
      }
    } else {
      wanted << folder + QLatin1Char('/') + QString::fromStdString(pictureFile(sheet.read()));
    }
    if (followsOriginal(sheet.read())) wanted << QString::fromStdString(sheet->follows);
  }
  const QStringList now = watcher_.files() + watcher_.directories();
  QStringList fresh;
  for (const QString& path : wanted) {
    if (!now.contains(path) && QFileInfo::exists(path)) fresh << path;
  }
  QStringList old;
  for (const QString& path : now) {
    if (!wanted.contains(path)) old << path;
  }
  if (!old.isEmpty()) watcher_.removePaths(old);
  if (!fresh.isEmpty()) watcher_.addPaths(fresh);
}

bool SheetWork::followsOriginal(const Sheet& sheet) const {
  return !sheet.follows.empty() && mayFollow(QString::fromStdString(session_->folder()),
                                             QString::fromStdString(sheet.follows));
}

void SheetWork::followOriginal(Id id, bool on) {
  const Sheet* sheet = session_->quilt().sheet(id);
  if (!sheet) return;
  QString path;
  if (on) path = cameFrom(id).isEmpty() ? QString::fromStdString(sheet->follows) : cameFrom(id);
  if (!path.isEmpty()) letFollow(QString::fromStdString(session_->folder()), path);
  change(tr("Facts of %1"), id, [&](Sheet& s) { s.follows = path.toStdString(); });
  follow();
  lookAround();
}

void SheetWork::moveTo(const QString& oldFolder) {
  letFollowLike(QString::fromStdString(session_->folder()), oldFolder);
  // What was known of the files is known of the old ones.
  stamps_.clear();
  gone_.clear();
  follow();
  lookAround();
}

SheetWork::Look SheetWork::lookAt(Quilt quilt, const std::shared_ptr<Disk>& disk, const std::string& folder,
                                  SheetPictures pictures, Stamps stamps, bool isFirst) {
  Look look;
  look.folder = folder;
  std::set<std::string> used;
  // The bytes of a file that is not as it was looked at last; nothing where it is, or cannot be read.
  const auto freshBytes = [&](const std::string& path, const PictureBytes& known,
                              bool& isGone) -> std::optional<PictureBytes> {
    const auto stamp = disk->stamp(path);
    const auto before = stamps.find(path);
    // What was never there is not gone: a new sheet's picture is written by the next save.
    isGone = stamp && !*stamp && before != stamps.end();
    if (!stamp || !*stamp) return std::nullopt;
    if (before != stamps.end() && before->second == **stamp) return std::nullopt;
    auto bytes = disk->read(path, std::int64_t{1} << 29);
    if (!bytes) {
      look.problems.push_back(bytes.error());
      return std::nullopt;
    }
    stamps[path] = **stamp;
    if (*bytes == known.read()) return std::nullopt;
    return PictureBytes(std::move(*bytes));
  };
  for (const auto& sheet : quilt.sheets()) {
    Sheet fresh = sheet.read();
    Found found;
    found.before = sheet.read();
    bool changed = false;
    const auto lookOne = [&](const std::string& inside, PictureBytes& source, const std::string& path,
                             bool isOriginal) {
      bool isGone = false;
      auto bytes = freshBytes(path, source, isGone);
      if (isGone && !isOriginal && !source.isBlank()) look.gone.insert(inside);
      if (!bytes) return;
      source = std::move(*bytes);
      changed = true;
      if (!isOriginal) found.files.emplace_back(inside, source);
    };
    if (sheet->isCollection()) {
      for (CollectedPicture& one : fresh.collection) {
        const std::string inside = pictureFile(sheet.read(), one);
        lookOne(inside, one.source, joined(folder, inside), false);
      }
    } else {
      const std::string inside = pictureFile(sheet.read());
      used.insert(sheet->picture);
      lookOne(inside, fresh.source, joined(folder, inside), false);
      if (!sheet->follows.empty() && mayFollow(QString::fromStdString(folder), QString::fromStdString(sheet->follows)))
        lookOne(inside, fresh.source, sheet->follows, true);
    }
    // Somebody may have written it while the quilt was not open.
    const bool since = isFirst && sheet->marks->picture != 0 && !sheet->source.isBlank() &&
                       sheet->marks->picture != sourceMark(sheet.read());
    if (!changed && !since) continue;
    auto now = refreshed(std::move(fresh), pictures);
    if (!now) {
      // What could not be read when the quilt was opened was said then.
      if (changed) look.problems.push_back(std::move(now.error()).keeping("The picture from before is shown"));
      continue;
    }
    if (sheet->isCollection()) {
      found.change = changedCollection(sheet.read(), std::move(*now));
    } else if (sheet->marks->tiles.empty()) {
      found.change.sheet = std::move(*now);
    } else {
      found.change = changedPicture(sheet.read(), std::move(*now));
    }
    look.found.push_back(std::move(found));
  }
  const auto entries = disk->list(joined(folder, "sheets"), 100'000);
  if (entries) {
    for (const Disk::Entry& entry : *entries) {
      const bool loose = entry.kind == Disk::Kind::file && isPictureName(entry.name) && !entry.name.starts_with('.') &&
                         !used.contains(entry.name);
      if (loose) look.loose << QString::fromStdString(entry.name);
    }
  }
  look.stamps = std::move(stamps);
  return look;
}

void SheetWork::startLook() {
  looksAgain_ = looks_;
  if (looks_) return;
  looks_ = true;
  pool_.start([this, quilt = session_->quilt(), disk = session_->disk(), folder = session_->folder(),
               pictures = session_->painter().pictures(), stamps = stamps_,
               isFirst = !std::exchange(looked_, true)] {
    Look look = lookAt(quilt, disk, folder, pictures, stamps, isFirst);
    QMetaObject::invokeMethod(
        this,
        [this, look = std::move(look)]() mutable {
          session_->whenHandsFree([self = QPointer(this), look = std::move(look)]() mutable {
            if (!self) return;
            self->looks_ = false;
            self->take(std::move(look));
            if (self->looksAgain_) self->timer_.start(kLookAfter);
          });
        },
        Qt::QueuedConnection);
  });
}

QString SheetWork::toldOf(const PictureChange& change) const {
  const QString name = QString::fromStdString(change.sheet.name);
  QStringList parts;
  if (!change.changed.empty()) {
    // On how many maps what changed can be seen.
    int maps = 0;
    const auto slot = session_->quilt().slots().find(change.sheet.id).value_or(0);
    for (const auto& map : session_->quilt().maps()) {
      const TileUses uses = usesWithin(map.read());
      maps += std::any_of(change.changed.begin(), change.changed.end(), [&](std::uint32_t number) {
        return uses.contains({slot, number});
      });
    }
    const QString tiles = tr("%n tile(s) changed", nullptr, static_cast<int>(change.changed.size()));
    parts << (maps > 0 ? tr("%1 on %n map(s)", nullptr, maps).arg(tiles) : tr("%1, none of them on a map").arg(tiles));
  }
  if (!change.moved.empty()) parts << tr("%n moved", nullptr, static_cast<int>(change.moved.size()));
  if (!change.added.empty()) parts << tr("%n new", nullptr, static_cast<int>(change.added.size()));
  if (!change.gone.empty()) parts << tr("%n gone", nullptr, static_cast<int>(change.gone.size()));
  return tr("%1: %2.").arg(
      name, parts.isEmpty() ? tr("its picture was written again, no tile differs") : parts.join(QStringLiteral(", ")));
}

void SheetWork::take(Look look) {
  // The quilt was saved in another folder meanwhile; what lies in the old one is none of its business.
  if (look.folder != session_->folder()) {
    looked_ = false;
    return timer_.start(kLookAfter);
  }
  stamps_ = std::move(look.stamps);
  if (look.loose != loose_) {
    loose_ = look.loose;
    Q_EMIT loosePicturesChanged();
  }
  for (const std::string& path : look.gone) {
    if (gone_.contains(path)) continue;
    session_->sawPicture(path, nullptr);
    Q_EMIT told(
        tr("%1 was deleted. Its tiles are kept, and the next save writes it again.").arg(QString::fromStdString(path)));
  }
  gone_ = std::move(look.gone);
  for (const Error& problem : look.problems) Q_EMIT session_->failed(problem);
  for (Found& found : look.found) {
    const Sheet* now = session_->quilt().sheet(found.change.sheet.id);
    if (!now || !sameMaking(*now, found.before)) {
      // It changed here meanwhile: looked at again as it is now.
      stamps_.clear();
      if (now) timer_.start(kLookAfter);
      continue;
    }
    const QString what = toldOf(found.change);
    const QString name = QString::fromStdString(now->name);
    if (!madeStep(tr("New picture for %1").arg(name),
                  session_->quilt().with(withPictureOf(*now, found.change.sheet)))) {
      continue;
    }
    for (const auto& [path, bytes] : found.files) session_->sawPicture(path, &bytes.read());
    notes_.erase(found.change.sheet.id);
    Q_EMIT told(what);
  }
  follow();
}

}  // namespace uq
