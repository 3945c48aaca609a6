// Watch: how long an event of the window has to wait while something goes on beside it.
#pragma once

#include <QElapsedTimer>
#include <QTimer>
#include <algorithm>
#include <ctime>

namespace uq::bench {

// Ticks every millisecond, and keeps the longest time between two ticks, and the longest that this thread computed
// between two: where only the first is long, the machine gave the thread no time.
class Watch {
 public:
  Watch() {
    since_.start();
    computed_ = computed();
    QObject::connect(&timer_, &QTimer::timeout, [this] { look(); });
    timer_.setTimerType(Qt::PreciseTimer);
    timer_.start(1);
  }
  double worst() {
    look();
    return worst_;
  }
  double worstComputed() const { return worstComputed_; }

 private:
  static double computed() {
    timespec time{};
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &time);
    return static_cast<double>(time.tv_sec) * 1e3 + static_cast<double>(time.tv_nsec) / 1e6;
  }
  void look() {
    worst_ = std::max(worst_, static_cast<double>(since_.nsecsElapsed()) / 1e6);
    worstComputed_ = std::max(worstComputed_, computed() - computed_);
    since_.start();
    computed_ = computed();
  }

  QTimer timer_;
  QElapsedTimer since_;
  double computed_ = 0;
  double worst_ = 0;
  double worstComputed_ = 0;
};

}  // namespace uq::bench
