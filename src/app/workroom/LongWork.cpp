#include "app/workroom/LongWork.h"

namespace uq {

LongWork::~LongWork() {
  if (!thread_.joinable()) return;
  if (progress_) progress_->cancel();
  thread_.join();
}

void LongWork::cancel() {
  if (!progress_ || !mayCancel_) return;
  progress_->cancel();
  Q_EMIT cancelled();
}

void LongWork::keepOn() {
  if (isRunning() && !isCancelled()) mayCancel_ = false;
}

void LongWork::run(Kind kind, const QString& title, std::function<std::function<void()>(Progress&)> work) {
  Q_ASSERT(!isRunning());
  progress_ = std::make_shared<Progress>();
  mayCancel_ = true;
  kind_ = kind;
  title_ = title;
  if (thread_.joinable()) thread_.join();
  thread_ = std::thread([this, progress = progress_, work = std::move(work)] {
    // Dropped by Qt, unused, when this is gone by then.
    QMetaObject::invokeMethod(
        this,
        [this, finish = work(*progress)] {
          wasCancelled_ = progress_->isCancelled();
          progress_.reset();
          finish();
          Q_EMIT ended();
        },
        Qt::QueuedConnection);
  });
  Q_EMIT began();
}

}  // namespace uq
