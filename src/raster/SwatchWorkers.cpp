#include "raster/SwatchWorkers.h"

#include <algorithm>

#include "raster/Swatch.h"

namespace uq {

SwatchWorkers::SwatchWorkers(const SheetPictures& pictures, int count, std::function<void()> arrived)
    : arrived_(std::move(arrived)) {
  for (int i = 0; i < count; ++i) {
    threads_.emplace_back([this, pictures] { work(pictures); });
  }
}

SwatchWorkers::~SwatchWorkers() {
  {
    const std::lock_guard lock(mutex_);
    ends_ = true;
    wanted_.clear();
    for (const auto& job : running_) job->stop = true;
  }
  wake_.notify_all();
  for (std::thread& thread : threads_) thread.join();
}

void SwatchWorkers::want(Jobs jobs) {
  {
    const std::lock_guard lock(mutex_);
    for (const auto& running : running_) {
      const auto same = [&](const auto& job) { return job->isLike(*running); };
      if (std::none_of(jobs.begin(), jobs.end(), same)) running->stop = true;
    }
    std::erase_if(jobs, [&](const auto& job) {
      return std::any_of(running_.begin(), running_.end(),
                         [&](const auto& running) { return !running->stop && running->isLike(*job); });
    });
    wanted_.assign(jobs.begin(), jobs.end());
  }
  wake_.notify_all();
}

SwatchWorkers::Jobs SwatchWorkers::takeDone() {
  const std::lock_guard lock(mutex_);
  return std::exchange(done_, {});
}

bool SwatchWorkers::isIdle() {
  const std::lock_guard lock(mutex_);
  return wanted_.empty() && running_.empty() && done_.empty();
}

void SwatchWorkers::work(const SheetPictures& pictures) {
  MapPainter painter(pictures);
  std::unique_lock lock(mutex_);
  while (true) {
    wake_.wait(lock, [this] { return ends_ || !wanted_.empty(); });
    if (ends_) return;
    const std::shared_ptr<SwatchJob> job = wanted_.front();
    wanted_.pop_front();
    running_.push_back(job);
    lock.unlock();
    const MadeFrom& from = job->from;
    job->picture = Swatch::settled(
        painter.drawRun(from.quilt(), from.map(), from.run(), {job->zoom}, rectOf(job->place), nullptr, &job->stop));
    lock.lock();
    std::erase(running_, job);
    if (job->stop) continue;
    done_.push_back(job);
    lock.unlock();
    arrived_();
    lock.lock();
  }
}

}  // namespace uq
