// SwatchBook: the drawn pieces of maps, kept so that a frame only copies.
//
// A run is drawn in swatches of kSwatchSide × kSwatchSide device pixels, each at the exact zoom, at places counted from
// absolute device pixel 0, 0. paint() lays the swatches in sight; those that are missing are drawn at once as long as a
// frame may take, and by workers otherwise, the nearest to the middle first, then a ring around what is in sight.
// Meanwhile their place shows what the window showed last, or the nearest other zoom that is there, else a sampled sketch
// of the whole map, never nothing; such frames are put together by several threads. An edit repairs the rectangle in which
// swatches differ: at once where they are in sight, at the latest when they come into sight elsewhere.
//
// What a swatch was made from is one value (MadeFrom), compared as a whole: a change marks as dirty what it touches,
// and all swatches that stay right stay, when the map grows or is cut, too.
//
// Invariants: what paint() lays as whole is the present map, pixel for pixel what MapPainter draws. Swatches in sight
// are never dropped; others are, the longest unused first, once all hold more than the budget.
// Threads: the book belongs to one; its workers get values of their own and hand whole pictures back. A worker whose
// swatch is no longer wanted stops early.
#pragma once

#include <QPainter>
#include <chrono>
#include <functional>
#include <map>
#include <memory>

#include "raster/MapPainter.h"

namespace uq {

class SwatchWorkers;
struct Swatch;
struct SwatchJob;

class SwatchBook {
 public:
  struct Options {
    std::size_t budget = std::size_t{256} << 20;  // bytes of pixels
    int workers = 0;                              // 0: one fewer than the machine has processors, 1 .. 8
    // Drawing time that a frame may take itself, and the first frame of a map or of other runs.
    std::chrono::microseconds patience{6'000};
    std::chrono::microseconds patienceAnew{30'000};
    // A larger repair is left to the workers, while the swatch shows what it showed.
    std::chrono::microseconds longestRepair{20'000};
  };

  // `arrived` is called on a worker's thread when it handed something in that the next paint() will show.
  SwatchBook(SheetPictures pictures, std::function<void()> arrived) : SwatchBook(pictures, arrived, Options()) {}
  SwatchBook(SheetPictures pictures, std::function<void()> arrived, Options options);
  ~SwatchBook();
  SwatchBook(const SwatchBook&) = delete;
  SwatchBook& operator=(const SwatchBook&) = delete;

  // What is to be shown from now on: a map of the quilt, in these runs. Returns the map pixels in which it looks
  // different from what this map was shown as before; nothing when all of it may.
  std::optional<std::vector<PixelRect>> show(const Quilt& quilt, Id map, std::vector<Run> runs);

  // How well the window can be shown after a paint(), whatever part of it was painted.
  struct Frame {
    int swatches = 0;     // in sight
    int substitutes = 0;  // of which others stood in, until workers hand them in
    int late = 0;         // of which still miss an edit; they are repaired in the frames that follow
    bool whole() const { return substitutes == 0 && late == 0; }
  };

  // Lays what lies in `part` of `window` (both in absolute device pixels) with the window's upper left at the painter's
  // 0, 0; one unit of the painter is one device pixel.
  Frame paint(QPainter& painter, ViewScale scale, const QRect& window, const QRect& part);

  // Where in the window something that workers handed in waits to be painted. Each place is told once. All of the
  // window where they handed in what is of no use any more, so that the next paint() asks anew.
  QRegion arrivals(ViewScale scale, const QRect& window);

  std::size_t bytes() const { return bytes_; }
  // How many swatches were drawn so far, whole or in part.
  std::uint64_t made() const { return made_; }
  // False while workers have something to do.
  bool isIdle() const;

 private:
  using Clock = std::chrono::steady_clock;
  struct Level;
  struct RunBook;
  struct MapBook;

  using Place = std::pair<int, int>;  // column and row of a swatch

  RunBook& bookOf(MapBook& book, const Quilt& quilt, Id map, const Run& run);
  void forget(MapBook& book, const std::function<bool(RunBook&)>& gone);
  // Takes a run to the quilt as it is now, and adds where it looks different; false where all of it may.
  bool follow(RunBook& run, const Quilt& quilt, std::vector<PixelRect>& changed);
  static void markChanged(const Grid& grid, RunBook& run, const std::vector<PixelRect>& changed);
  void collect();
  bool keep(SwatchJob& job);
  bool repair(RunBook& run, ViewScale scale, Place place, Swatch& swatch);
  // By run, what of the window is hidden from it: by whole swatches, nearer, that nothing shines through.
  std::vector<QRegion> hiddenBehind(const MapBook& book, ViewScale scale, const QRect& window) const;
  bool isForWorkers(const RunBook& run, ViewScale scale, const Swatch& swatch) const;
  // One thing of a frame, drawn on the window's pixels within a strip of it; by several threads at once, each on a strip
  // of its own.
  using Draw = std::function<void(QPainter& painter, const QRect& strip)>;
  struct Lay {
    Draw draw;
    QRect standsIn{};  // of the window, where it stands in for a swatch that is missing
  };
  Draw substitute(const RunBook& run, ViewScale scale, const QRect& place, QPoint origin) const;
  // What the window showed last, all runs together: where much is missing it is scaled once, not run by run.
  struct LastFrame {
    QImage picture;
    double zoom = 0;
    QRect window;
  };
  // Leaves out of `lays`, in `part` of the window, what the last frame can stand in for, and adds that.
  void standIn(std::vector<Lay>& lays, ViewScale scale, const QRect& window, const QRect& part) const;
  void keepFrame(QImage picture, ViewScale scale, const QRect& window, const QRect& part);
  // Draws all of them in turn, in `part` of the window; put together beforehand they are given back.
  static QImage drawAll(QPainter& painter, const std::vector<Lay>& lays, const QRect& part, bool together);
  // How long what is missing of a frame is likely to take.
  std::chrono::nanoseconds likelyCostOf(const MapBook& book, ViewScale scale, const QRect& window, const QRect& part);
  void request(const MapBook& map, ViewScale scale, const QRect& window);
  void keepWithinBudget();

  MapPainter painter_;
  Options options_;
  std::map<Id, std::unique_ptr<MapBook>> maps_;
  MapBook* shown_ = nullptr;
  struct Arrived {
    const RunBook* run;
    double zoom;
    Place place;
  };
  // What of the window it covers; nothing where it is not shown.
  QRect placeInWindow(const Arrived& one, ViewScale scale, const QRect& window) const;
  std::vector<Arrived> arrived_;  // of runs of any map
  bool useless_ = false;          // something was handed in and not kept
  std::size_t bytes_ = 0;
  std::uint64_t made_ = 0;
  std::uint64_t frame_ = 0;
  bool repaired_ = false;  // in this frame
  bool anew_ = false;      // the next frame shows something else than the one before
  std::optional<LastFrame> last_;
  int keepsFrames_ = 0;  // how many more, after one in which much was missing
  Clock::time_point deadline_;
  std::unique_ptr<SwatchWorkers> workers_;
};

}  // namespace uq
