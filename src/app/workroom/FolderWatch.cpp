#include "app/workroom/FolderWatch.h"

#include <QDir>
#include <QDirIterator>
#include <QPointer>
#include <algorithm>

#include "app/workroom/Session.h"
#include "core/store/Documents.h"

namespace uq {

namespace {

constexpr int kLookAfter = 300;   // ms: other programs write in several goes
constexpr int kAgainAfter = 1000;  // ms
constexpr int kTakeOverEvery = 1000;  // ms
constexpr int kMostTries = 20;
constexpr int kMostWatched = 2000;  // files and folders
constexpr qsizetype kMostNamed = 4;

// A quilt with the pictures of another one, where sheets differ in nothing else.
Quilt withPicturesOf(const Quilt& here, Quilt there) {
  for (const Shared<Sheet>& shared : std::vector(there.sheets())) {
    const Sheet* mine = here.sheet(shared->id);
    if (!mine || *mine == shared.read()) continue;
    Sheet same = shared.read();
    same.source = mine->source;
    same.pictureSize = mine->pictureSize;
    same.marks = mine->marks;
    const std::size_t count = std::min(same.collection.size(), mine->collection.size());
    for (std::size_t i = 0; i < count; ++i) same.collection[i].source = mine->collection[i].source;
    if (same == *mine) there = there.with(*mine);
  }
  return there;
}

}  // namespace

FolderWatch::FolderWatch(Session& session) : session_(session) {
  worker_.setMaxThreadCount(1);
  timer_.setSingleShot(true);
  connect(&timer_, &QTimer::timeout, this, &FolderWatch::look);
  const auto soon = [this] {
    tries_ = 0;
    timer_.start(kLookAfter);
  };
  connect(&watcher_, &QFileSystemWatcher::directoryChanged, this, soon);
  connect(&watcher_, &QFileSystemWatcher::fileChanged, this, soon);
  waitsForOthers_.setInterval(kTakeOverEvery);
  connect(&waitsForOthers_, &QTimer::timeout, this, &FolderWatch::tryToTakeOver);
  waitsForOthers_.start();
  follow();
}

FolderWatch::~FolderWatch() { stop(); }

void FolderWatch::stop() {
  const bool pending = timer_.isActive() || looks_;
  timer_.stop();
  if (progress_) progress_->cancel();
  worker_.waitForDone();
  if (pending) timer_.start(kAgainAfter);
}

void FolderWatch::follow() {
  const QString folder = QString::fromStdString(session_.folder());
  QStringList wanted{folder};
  for (const char* part : {"maps", "sheets", "stamps", "edgings"}) {
    const QString below = folder + QLatin1Char('/') + QLatin1String(part);
    if (!QFileInfo(below).isDir()) continue;
    wanted << below;
    QDirIterator all(below, {QStringLiteral("*.json"), QStringLiteral("*.cells"), QStringLiteral("*.tiles")},
                     QDir::Files | QDir::Dirs | QDir::NoDotAndDotDot, QDirIterator::Subdirectories);
    while (all.hasNext() && wanted.size() < kMostWatched) wanted << all.next();
    QDirIterator folders(below, QDir::Dirs | QDir::NoDotAndDotDot);
    while (folders.hasNext() && wanted.size() < kMostWatched) wanted << folders.next();
  }
  for (const std::string_view document : {kQuiltFile, kLinksFile, kPlanFile}) {
    const QString file = folder + QLatin1Char('/') + QString::fromStdString(std::string(document));
    if (document == kQuiltFile || QFileInfo::exists(file)) wanted << file;
  }
  const QStringList now = watcher_.files() + watcher_.directories();
  QStringList fresh;
  QStringList old;
  std::copy_if(wanted.begin(), wanted.end(), std::back_inserter(fresh), [&](const QString& one) { return !now.contains(one); });
  std::copy_if(now.begin(), now.end(), std::back_inserter(old), [&](const QString& one) { return !wanted.contains(one); });
  if (!old.isEmpty()) watcher_.removePaths(old);
  if (!fresh.isEmpty()) watcher_.addPaths(fresh);
}

void FolderWatch::look() {
  if (session_.isComing() || waiting_) return;
  if (looks_ || session_.saving_) {
    again_ = true;
    return timer_.start(kAgainAfter);
  }
  looks_ = true;
  again_ = false;
  progress_ = std::make_shared<Progress>();
  worker_.start([this, progress = progress_, store = session_.store_, saved = session_.saved_,
                 pictures = session_.painter().pictures()]() mutable {
    Result<std::optional<Look>> result = std::optional<Look>();
    if (store->isChanged()) {
      auto reread = store->readAgain(*progress);
      if (!reread) {
        result = fail(reread.error());
      } else {
        Quilt quilt = withPicturesOf(saved, reread->read.quilt);
        for (const Shared<Sheet>& sheet : quilt.sheets()) {
          if (progress->isCancelled() || !pictures.picture(sheet.read()).isNull()) continue;
          if (auto picture = decodeSheet(sheet.read())) pictures.set(sheet.read(), std::move(*picture));
        }
        result = std::optional(Look{std::move(*reread), std::move(quilt)});
      }
    }
    const bool cancelled = progress->isCancelled();
    QMetaObject::invokeMethod(
        this,
        [this, cancelled, result = std::make_shared<Result<std::optional<Look>>>(std::move(result))] {
          looks_ = false;
          if (cancelled) {
            timer_.start(kAgainAfter);
          } else {
            came(std::move(*result));
          }
        },
        Qt::QueuedConnection);
  });
}

void FolderWatch::tryToTakeOver() {
  if (session_.isComing() || looks_ || session_.saving_) return;
  if (!session_.looksOn_) return waitsForOthers_.stop();
  looks_ = true;
  progress_ = std::make_shared<Progress>();
  worker_.start([this, store = session_.store_] {
    const bool isMine = store->takeOver().has_value();
    QMetaObject::invokeMethod(
        this,
        [this, isMine] {
          looks_ = false;
          if (!isMine) return;
          session_.endLookingOn();
          Q_EMIT tookOver();
          lookSoon();  // at what they saved last
        },
        Qt::QueuedConnection);
  });
}

void FolderWatch::came(Result<std::optional<Look>> look) {
  if (!look) return tryAgain(look.error());
  follow();
  if (!*look) {
    tries_ = 0;
    return;
  }
  // What was broken before is no news.
  for (const Error& problem : (*look)->reread.read.problems) {
    const Errors& known = session_.problems();
    const auto same = [&](const Error& one) { return one.text() == problem.text(); };
    if (std::none_of(known.begin(), known.end(), same)) return tryAgain(problem);
  }
  tries_ = 0;
  session_.whenHandsFree([self = QPointer(this), look = std::make_shared<Look>(std::move(**look))] {
    if (self) self->join(std::move(*look));
  });
}

void FolderWatch::tryAgain(const Error& why) {
  if (++tries_ < kMostTries) {
    if (tries_ == 1) Q_EMIT told(tr("Files of this quilt are being changed by another program…"));
    return timer_.start(kAgainAfter);
  }
  Q_EMIT failed(Error(why)
                    .keeping("What is here stays as it is, and can be saved in another folder")
                    .advising("Mend the file; it is taken in by itself then"));
}

void FolderWatch::join(Look look) {
  const std::vector<BothChanged> asks_ = bothChanged(session_.saved_, session_.quilt(), look.quilt);
  waiting_ = std::move(look);
  asked_ = asks_;
  if (asks_.empty()) return answer({});
  Q_EMIT asks(asks_);
}

void FolderWatch::answer(const std::vector<Side>& sides) {
  if (!waiting_) return;
  Look look = std::move(*waiting_);
  waiting_.reset();
  // Who paints meanwhile may change one more part; that is kept as it is here, and theirs as a copy where that can be.
  const auto choose = [&](const BothChanged& what) {
    for (std::size_t i = 0; i < asked_.size() && i < sides.size(); ++i) {
      if (asked_[i].part == what.part && asked_[i].layer == what.layer && asked_[i].what == what.what) return sides[i];
    }
    return what.mayBoth ? Side::both : Side::here;
  };
  const Joined done = joined(session_.saved_, session_.quilt(), look.quilt, choose, session_.work().ids());
  QStringList names;
  for (const std::string& name : done.taken) {
    if (names.size() < kMostNamed) names << QString::fromStdString(name);
  }
  if (done.taken.size() > kMostNamed) names << tr("%n more", nullptr, static_cast<int>(done.taken.size()) - static_cast<int>(kMostNamed));
  const QString all = names.join(QStringLiteral(", "));
  if (!session_.takeIn(tr("Taken in: %1").arg(all), done.quilt, std::move(look.reread), look.quilt)) {
    return timer_.start(kAgainAfter);
  }
  follow();
  if (!all.isEmpty()) Q_EMIT told(tr("Taken in what another program changed: %1. Ctrl+Z takes it back.").arg(all));
}

}  // namespace uq
