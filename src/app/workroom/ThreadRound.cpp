#include "app/workroom/ThreadRound.h"

#include <QCoreApplication>
#include <QPointer>
#include <QThreadPool>

#include "raster/JointFinder.h"

namespace uq {

namespace {

constexpr int kAfterChange = 250;  // milliseconds

}  // namespace

ThreadRound::ThreadRound(QObject* parent) : QObject(parent) {
  timer_.setSingleShot(true);
  timer_.setInterval(kAfterChange);
  connect(&timer_, &QTimer::timeout, this, &ThreadRound::look);
}

ThreadRound::~ThreadRound() {
  if (progress_) progress_->cancel();
}

void ThreadRound::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  if (progress_) progress_->cancel();
  session_ = session;
  checks_ = std::make_shared<Checks>();
  pictured_.clear();
  looks_ = again_ = hasLooked_ = false;
  checked_ = {};
  timer_.stop();
  Q_EMIT looked();
  if (!session_) return;
  connect(session_, &Session::quiltChanged, &timer_, qOverload<>(&QTimer::start));
  timer_.start();
}

void ThreadRound::look() {
  if (!session_) return;
  if (looks_) {
    again_ = true;
    return;
  }
  if (session_->inGesture() || session_->isComing()) return timer_.start();
  // Copies of the pictures, for the other thread, are taken again where the sheets changed.
  if (pictured_ != session_->quilt().sheets()) {
    pictured_ = session_->quilt().sheets();
    auto joints = std::make_shared<JointFinder>(session_->painter().pictures());
    checks_ = std::make_shared<Checks>([joints](const Quilt& quilt, const GridShape& shape) { return &joints->bookFor(quilt, shape); });
  }
  looks_ = true;
  progress_ = std::make_shared<Progress>();
  QThreadPool::globalInstance()->start([self = QPointer(this), checks = checks_, progress = progress_, quilt = session_->quilt()] {
    auto found = std::make_shared<Checked>(checks->of(quilt, progress.get()));
    if (progress->isCancelled()) return;
    QMetaObject::invokeMethod(
        qApp,
        [self, checks, found] {
          if (!self || self->checks_ != checks) return;
          self->looks_ = false;
          self->hasLooked_ = true;
          self->checked_ = std::move(*found);
          if (std::exchange(self->again_, false)) self->timer_.start();
          Q_EMIT self->looked();
        },
        Qt::QueuedConnection);
  });
}

}  // namespace uq
