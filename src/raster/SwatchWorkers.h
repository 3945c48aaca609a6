// SwatchWorkers: the threads that draw swatches, in the order in which they are wanted.
//
// Each job holds a value of all that it draws, so nothing is shared with whoever paints meanwhile. What is wanted is
// said anew for each frame: jobs under way that are still wanted go on, others stop early. Threads: any one thread
// asks; `arrived` is called on a worker's.
#pragma once

#include <atomic>
#include <condition_variable>
#include <deque>
#include <functional>
#include <memory>
#include <mutex>
#include <thread>
#include <utility>
#include <vector>

#include "raster/MadeFrom.h"

namespace uq {

inline constexpr int kSwatchSide = 512;  // device pixels

using SwatchPlace = std::pair<int, int>;  // column and row, counted from device pixel 0, 0

inline QRect rectOf(SwatchPlace place) {
  return {place.first * kSwatchSide, place.second * kSwatchSide, kSwatchSide, kSwatchSide};
}

struct SwatchJob {
  MadeFrom from;
  double zoom = 1;
  SwatchPlace place;
  QImage picture;  // once it was drawn; null where nothing is painted
  std::atomic<bool> stop{false};

  bool isLike(const SwatchJob& other) const {
    return from.mapId() == other.from.mapId() && zoom == other.zoom && place == other.place &&
           from.run().drawsAs(other.from.run());
  }
};

class SwatchWorkers {
 public:
  using Jobs = std::vector<std::shared_ptr<SwatchJob>>;

  SwatchWorkers(const SheetPictures& pictures, int count, std::function<void()> arrived);
  ~SwatchWorkers();  // stops what is under way and waits for it
  SwatchWorkers(const SwatchWorkers&) = delete;
  SwatchWorkers& operator=(const SwatchWorkers&) = delete;

  // What is wanted from now on, the most wanted first.
  void want(Jobs jobs);
  // What was drawn since it was asked last.
  Jobs takeDone();
  bool isIdle();

 private:
  void work(const SheetPictures& pictures);

  std::function<void()> arrived_;
  std::mutex mutex_;
  std::condition_variable wake_;
  std::deque<std::shared_ptr<SwatchJob>> wanted_;
  Jobs running_;
  Jobs done_;
  bool ends_ = false;
  std::vector<std::thread> threads_;
};

}  // namespace uq
