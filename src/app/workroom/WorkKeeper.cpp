#include "app/workroom/WorkKeeper.h"

#include <QDir>
#include <QElapsedTimer>
#include <QLocale>
#include <algorithm>

#include "app/workroom/KeptState.h"
#include "app/workroom/Session.h"
#include "core/work/KeptSteps.h"

namespace uq {

namespace {

constexpr int kKeepAfter = 1500;  // ms after a step
constexpr const char* kAloneFile = "lock";
constexpr qint64 kShare = 20;     // keeping takes at most one part in so many of the time

}  // namespace

std::string WorkKeeper::placeFor(const std::string& folder) {
  return keptPlace(stateFolder().toStdString(), QDir(QString::fromStdString(folder)).absolutePath().toStdString());
}

QString WorkKeeper::untilText(const KeptFacts& facts) {
  const QDateTime until = QDateTime::fromSecsSinceEpoch(facts.until);
  return until.date() == QDate::currentDate() ? until.time().toString(QStringLiteral("HH:mm"))
                                              : QLocale().toString(until, QLocale::ShortFormat);
}

WorkKeeper::WorkKeeper(Session& session)
    : session_(session), work_(std::make_shared<KeptWork>(session.disk(), placeFor(session.folder()))) {
  worker_.setMaxThreadCount(1);
  timer_.setSingleShot(true);
  connect(&timer_, &QTimer::timeout, this, &WorkKeeper::keep);
  connect(&session_, &Session::quiltChanged, this, &WorkKeeper::follow);
  connect(&session_, &Session::gestureEnded, this, &WorkKeeper::follow);
  if (const auto& back = session_.beside_.cameBack) {
    stepsSaved_ = static_cast<std::int64_t>(session_.undoLine().steps().size()) - back->facts.steps;
    // What came back is kept by this run from now on.
    timer_.start(kKeepAfter);
  }
}

WorkKeeper::~WorkKeeper() {
  worker_.waitForDone();
  // Whoever left the quilt was asked.
  if (mayKeep()) (void)work_->drop();
  if (!alone_) return;
  const std::string place = placeFor(session_.folder());
  (void)session_.disk()->remove(joined(place, kAloneFile));
  (void)session_.disk()->removeFolder(place);
}

bool WorkKeeper::mayKeep() {
  if (stopped_ || !session_.store_) return false;
  const auto readOnly = session_.store_->readOnly();
  if (!readOnly || alone_) return true;
  // Who has it open elsewhere keeps it there.
  if (readOnly->cause == Error::Cause::inUse) return false;
  const std::string place = placeFor(session_.folder());
  Disk& disk = *session_.disk();
  if (!disk.makeFolder(place)) return false;
  auto alone = disk.lock(joined(place, kAloneFile));
  if (alone) alone_ = std::move(*alone);
  return alone_ != nullptr;
}

void WorkKeeper::follow() {
  if (stopped_ || session_.inGesture() || timer_.isActive()) return;
  if (session_.isSaved()) stepsSaved_ = static_cast<std::int64_t>(session_.undoLine().steps().size());
  if (session_.isSaved() && !until_ && !keeps_) return;
  timer_.start(static_cast<int>(std::max<qint64>(kKeepAfter, lastTook_ * kShare)));
}

void WorkKeeper::keepSoon() {
  timer_.stop();
  keep();
}

void WorkKeeper::keep() {
  if (!mayKeep()) return;
  if (session_.inGesture() || keeps_) {
    again_ = true;
    if (!keeps_) timer_.start(kKeepAfter);
    return;
  }
  Q_EMIT keeps();
  keeps_ = true;
  again_ = false;
  const auto steps = static_cast<std::int64_t>(session_.undoLine().steps().size());
  const KeptFacts facts{session_.folder(), session_.quilt().facts().name,
                        std::max<std::int64_t>(steps - stepsSaved_, 1),
                        QDateTime::currentSecsSinceEpoch()};
  const bool isSaved = session_.isSaved();
  worker_.start([this, work = work_, saved = session_.saved_, now = session_.quilt(), facts, isSaved,
                 line = lineToKeep(session_.undoLine(), work_->keptOfLine())] {
    QElapsedTimer took;
    took.start();
    auto done = work->keep(saved, now, facts, {line.ids, line.fresh, [&] { return stepsText(line, now); }});
    QMetaObject::invokeMethod(
        this,
        [this, done = std::move(done), took = took.elapsed(), facts, isSaved] {
          keeps_ = false;
          lastTook_ = took;
          if (!done) {
            // Said once: painting goes on, and saving says what is wrong with a disk.
            if (!std::exchange(told_, true)) Q_EMIT failed(done.error());
            return;
          }
          told_ = false;
          until_ = isSaved ? std::nullopt : std::optional(QDateTime::fromSecsSinceEpoch(facts.until));
          Q_EMIT kept();
          if (again_ || !(session_.isSaved() == isSaved)) follow();
        },
        Qt::QueuedConnection);
  });
}

void WorkKeeper::moveTo(const std::string& folder) {
  worker_.waitForDone();
  // The store is the new one by now: only what was kept here goes.
  if (until_ || session_.beside_.cameBack) (void)work_->drop();
  work_ = std::make_shared<KeptWork>(session_.disk(), placeFor(folder));
  until_.reset();
  follow();
}

void WorkKeeper::putAside() {
  timer_.stop();
  stopped_ = true;
  worker_.waitForDone();
  if (const auto aside = uq::putAside(*session_.disk(), placeFor(session_.folder())); !aside) Q_EMIT failed(aside.error());
}

}  // namespace uq
