#include "raster/SwatchBook.h"

#include <algorithm>
#include <cmath>
#include <condition_variable>
#include <deque>
#include <mutex>
#include <thread>
#include <tuple>

#include "core/edit/MapFacts.h"
#include "raster/BlankPicture.h"

namespace uq {

namespace {

using Clock = std::chrono::steady_clock;

constexpr int kSketchSide = 256;  // pixels of a sketch, at most
constexpr int kHopeless = 8;      // times the patience of a frame

QRect rectOf(std::pair<int, int> place) {
  return {place.first * kSwatchSide, place.second * kSwatchSide, kSwatchSide, kSwatchSide};
}

// How long a swatch may take to draw: measured on a slow machine, dense layers, with tiles and with colours.
std::chrono::nanoseconds likelyCost(const Map& map, const Run& run, ViewScale scale, const QRect& device) {
  if (run.backdrop) return std::chrono::nanoseconds(std::int64_t{device.width()} * device.height() * 2);
  const double w = device.width() / (map.grid.cell.w * scale.zoom);
  const double h = device.height() / (map.grid.cell.h * scale.zoom);
  const double cells = w * h * static_cast<double>(run.layers.size());
  const bool colours = drawsColours(*makeGrid(map.grid), scale);
  return std::chrono::nanoseconds(static_cast<std::int64_t>(cells * (colours ? 4 : 40)));
}

std::vector<PixelRect> shifted(std::vector<PixelRect> rects, PixelPos by) {
  for (PixelRect& rect : rects) rect = {rect.x + by.x, rect.y + by.y, rect.w, rect.h};
  return rects;
}

// Calls f for each place whose swatch meets a device rectangle.
template <class F>
void forEachPlace(const QRect& device, F&& f) {
  if (device.isEmpty()) return;
  const int right = floorDiv(device.right(), kSwatchSide);
  const int bottom = floorDiv(device.bottom(), kSwatchSide);
  for (int y = floorDiv(device.top(), kSwatchSide); y <= bottom; ++y) {
    for (int x = floorDiv(device.left(), kSwatchSide); x <= right; ++x) f(std::pair(x, y));
  }
}

}  // namespace

struct SwatchBook::Swatch {
  QImage picture;  // null where nothing is painted
  QRect dirty;     // absolute device pixels that miss an edit
  std::uint64_t used = 0;

  std::size_t bytes() const { return sizeof(Swatch) + static_cast<std::size_t>(picture.sizeInBytes()); }
};

struct SwatchBook::Level {
  std::map<Place, Swatch> swatches;
};

struct SwatchBook::RunBook {
  Run run;
  std::map<double, Level> levels;  // by zoom
  // The whole run, sampled: pixel 0, 0 stands for block (blocks.x0, blocks.y0) of step × step cells.
  QImage sketch;
  CellRect blocks;
  int step = 1;
};

struct SwatchBook::MapBook {
  Id id;
  Quilt quilt;  // what the swatches show, apart from their dirty rectangles
  std::vector<std::unique_ptr<RunBook>> runs;
  std::vector<RunBook*> shown;
  std::vector<Run> runsShown;

  const Map& map() const { return *quilt.map(id); }
};

struct SwatchBook::Job {
  Id map;
  Run run;
  double zoom = 1;
  Place place;
  Quilt quilt;
  QImage picture;
  std::atomic<bool> stop{false};

  bool isFor(Id m, const Run& r, double z, Place p) const {
    return map == m && zoom == z && place == p && run.drawsAs(r);
  }
};

// The threads that draw what is wanted, in the order in which it is wanted.
class SwatchBook::Workers {
 public:
  Workers(const SheetPictures& pictures, int count, std::function<void()> arrived) : arrived_(std::move(arrived)) {
    for (int i = 0; i < count; ++i) {
      threads_.emplace_back([this, pictures] { work(pictures); });
    }
  }
  ~Workers() {
    {
      const std::lock_guard lock(mutex_);
      ends_ = true;
      wanted_.clear();
      for (const auto& job : running_) job->stop = true;
    }
    wake_.notify_all();
    for (std::thread& thread : threads_) thread.join();
  }

  // What is wanted from now on. Running jobs that are not among it are stopped; those that are go on.
  void want(std::vector<std::shared_ptr<Job>> jobs) {
    {
      const std::lock_guard lock(mutex_);
      const auto same = [](const Job& a) {
        return [&a](const std::shared_ptr<Job>& b) { return b->isFor(a.map, a.run, a.zoom, a.place); };
      };
      for (const auto& job : running_) {
        if (std::none_of(jobs.begin(), jobs.end(), same(*job))) job->stop = true;
      }
      std::erase_if(jobs, [&](const auto& job) {
        return std::any_of(running_.begin(), running_.end(),
                           [&](const auto& running) { return !running->stop && same(*job)(running); });
      });
      wanted_.assign(jobs.begin(), jobs.end());
    }
    wake_.notify_all();
  }

  std::vector<std::shared_ptr<Job>> takeDone() {
    const std::lock_guard lock(mutex_);
    return std::exchange(done_, {});
  }

  bool isIdle() {
    const std::lock_guard lock(mutex_);
    return wanted_.empty() && running_.empty() && done_.empty();
  }

 private:
  void work(const SheetPictures& pictures) {
    MapPainter painter(pictures);
    std::unique_lock lock(mutex_);
    while (true) {
      wake_.wait(lock, [this] { return ends_ || !wanted_.empty(); });
      if (ends_) return;
      const std::shared_ptr<Job> job = wanted_.front();
      wanted_.pop_front();
      running_.push_back(job);
      lock.unlock();
      if (const Map* map = job->quilt.map(job->map)) {
        job->picture =
            painter.drawRun(job->quilt, *map, job->run, {job->zoom}, rectOf(job->place), nullptr, &job->stop);
      }
      lock.lock();
      std::erase(running_, job);
      if (job->stop) continue;
      done_.push_back(job);
      lock.unlock();
      arrived_();
      lock.lock();
    }
  }

  std::function<void()> arrived_;
  std::mutex mutex_;
  std::condition_variable wake_;
  std::deque<std::shared_ptr<Job>> wanted_;
  std::vector<std::shared_ptr<Job>> running_;
  std::vector<std::shared_ptr<Job>> done_;
  bool ends_ = false;
  std::vector<std::thread> threads_;
};

SwatchBook::SwatchBook(SheetPictures pictures, std::function<void()> arrived, Options options)
    : painter_(pictures), options_(options) {
  const int workers = options.workers > 0 ? options.workers : static_cast<int>(std::thread::hardware_concurrency()) - 1;
  workers_ = std::make_unique<Workers>(pictures, std::clamp(workers, 1, 8), std::move(arrived));
}

SwatchBook::~SwatchBook() = default;

bool SwatchBook::isIdle() const { return workers_->isIdle(); }

namespace {

bool sameSheets(const Quilt& a, const Quilt& b) {
  return std::equal(a.sheets().begin(), a.sheets().end(), b.sheets().begin(), b.sheets().end(),
                    [](const auto& one, const auto& other) {
                      return one.sameAs(other) || (one->id == other->id && one->revision.is(other->revision));
                    });
}

// Whether two states of a map have all in common that a swatch depends on, besides the layers of its run.
bool alike(const Quilt& a, const Quilt& b, Id id) {
  const Map* one = a.map(id);
  const Map* other = b.map(id);
  return one && other && one->grid == other->grid && one->bounds == other->bounds && sameSheets(a, b);
}

}  // namespace

std::optional<std::vector<PixelRect>> SwatchBook::show(const Quilt& quilt, Id id, std::vector<Run> runs) {
  auto& slot = maps_[id];
  if (!slot) slot = std::make_unique<MapBook>();
  MapBook& book = *slot;
  const bool otherMap = std::exchange(shown_, &book) != &book;
  const Map& map = *quilt.map(id);
  const Map* before = book.quilt.map(id);
  book.id = id;

  std::vector<PixelRect> changed;
  bool allChanged = otherMap || !before;
  const auto forget = [&](auto&& gone) {
    std::erase_if(book.runs, [&](const std::unique_ptr<RunBook>& run) {
      if (!gone(*run)) return false;
      std::erase_if(arrived_, [&](const Arrived& one) { return one.run == run.get(); });
      for (const auto& [zoom, level] : run->levels) {
        for (const auto& [place, swatch] : level.swatches) bytes_ -= swatch.bytes();
      }
      std::erase(book.shown, run.get());
      return true;
    });
  };
  if (!before || !alike(book.quilt, quilt, id)) {
    forget([](const RunBook&) { return true; });
    allChanged = true;
    book.quilt = quilt;
  } else if (!(screenOf(book.quilt, *before) == screenOf(quilt, map))) {
    forget([](const RunBook& run) { return run.run.backdrop.has_value(); });
    allChanged = true;
    book.quilt = quilt;
  } else if (!before->revision.is(map.revision)) {
    std::map<Id, std::vector<PixelRect>> byLayer;
    for (const Shared<Layer>& layer : map.layers) {
      const Layer* old = before->layer(layer->id);
      if (!old || old->revision.is(layer->revision)) continue;
      byLayer[layer->id] = painter_.changes(book.quilt, quilt, {id, layer->id});
    }
    forget([&](const RunBook& run) {
      return std::any_of(run.run.layers.begin(), run.run.layers.end(),
                         [&](Id layer) { return !map.layer(layer) || !before->layer(layer); });
    });
    book.quilt = quilt;
    const auto grid = makeGrid(map.grid);
    for (const auto& run : book.runs) {
      for (std::size_t i = 0; i < run->run.layers.size(); ++i) {
        const auto& rects = byLayer[run->run.layers[i]];
        if (rects.empty()) continue;
        markChanged(*grid, *run, shifted(rects, run->run.shiftOf(i)));
        refreshSketch(book, *run, &rects);
      }
    }
    for (const auto& [of, rects] : byLayer) {
      for (const PixelRect& at : shifted(rects, map.planeOf(*map.layer(of)))) changed.push_back(at);
    }
  } else {
    book.quilt = quilt;
  }

  // What the same layers looked like at another rise or in another order never comes back but by undo.
  forget([&](const RunBook& kept) {
    return std::any_of(runs.begin(), runs.end(),
                       [&](const Run& run) { return run.layers == kept.run.layers && !run.drawsAs(kept.run); });
  });
  std::vector<RunBook*> shown;
  for (const Run& run : runs) shown.push_back(&bookOf(book, run));
  allChanged = allChanged || runs != book.runsShown || shown != book.shown;
  book.shown = std::move(shown);
  book.runsShown = std::move(runs);
  anew_ = anew_ || allChanged;
  if (allChanged) return std::nullopt;
  return changed;
}

SwatchBook::RunBook& SwatchBook::bookOf(MapBook& map, const Run& run) {
  const auto found =
      std::find_if(map.runs.begin(), map.runs.end(), [&](const auto& book) { return book->run.drawsAs(run); });
  if (found != map.runs.end()) {
    (*found)->run = run;
    return **found;
  }
  map.runs.push_back(std::make_unique<RunBook>());
  map.runs.back()->run = run;
  refreshSketch(map, *map.runs.back(), nullptr);
  return *map.runs.back();
}

void SwatchBook::refreshSketch(MapBook& book, RunBook& run, const std::vector<PixelRect>* changed) {
  const Map& map = book.map();
  const CellRect bounds = map.bounds;
  const auto blocksOf = [&run](CellRect cells) {
    return CellRect{floorDiv(cells.x0, run.step), floorDiv(cells.y0, run.step), ceilDiv(cells.x1, run.step),
                    ceilDiv(cells.y1, run.step)};
  };
  if (!changed) {
    run.step = 1;
    while (std::max(bounds.width(), bounds.height()) / run.step > kSketchSide) run.step *= 2;
    run.blocks = blocksOf(bounds);
    run.sketch = painter_.sample(book.quilt, map, run.run, run.blocks, run.step);
    return;
  }
  const auto grid = makeGrid(map.grid);
  CellRect blocks;
  for (const PixelRect& pixels : *changed) {
    blocks = blocks.united(blocksOf(grid->cellsMeeting(pixels).intersected(bounds)).intersected(run.blocks));
  }
  if (blocks.empty()) return;
  QPainter painter(&run.sketch);
  painter.setCompositionMode(QPainter::CompositionMode_Source);
  painter.drawImage(blocks.x0 - run.blocks.x0, blocks.y0 - run.blocks.y0,
                    painter_.sample(book.quilt, map, run.run, blocks, run.step));
}

void SwatchBook::markChanged(const Grid& grid, RunBook& run, const std::vector<PixelRect>& changed) {
  for (auto& [zoom, level] : run.levels) {
    for (const PixelRect& pixels : changed) {
      const QRect device = deviceTouchedBy(pixels, grid, {zoom});
      const auto mark = [&](Place place, Swatch& swatch) {
        const QRect part = device.intersected(rectOf(place));
        if (!part.isEmpty()) swatch.dirty = swatch.dirty.united(part);
      };
      const auto columns = std::int64_t{device.width()} / kSwatchSide + 2;
      const auto rows = std::int64_t{device.height()} / kSwatchSide + 2;
      if (columns * rows > static_cast<std::int64_t>(level.swatches.size())) {
        for (auto& [place, swatch] : level.swatches) mark(place, swatch);
      } else {
        forEachPlace(device, [&](Place place) {
          const auto found = level.swatches.find(place);
          if (found != level.swatches.end()) mark(place, found->second);
        });
      }
    }
  }
}

void SwatchBook::collect() {
  for (const auto& job : workers_->takeDone()) useless_ = !keep(*job) || useless_;
}

// Takes over what a worker drew; false where it shows what is no more.
bool SwatchBook::keep(Job& job) {
  const auto at = maps_.find(job.map);
  if (at == maps_.end()) return false;
  MapBook& book = *at->second;
  const auto run =
      std::find_if(book.runs.begin(), book.runs.end(), [&](const auto& one) { return one->run.drawsAs(job.run); });
  const Map* then = job.quilt.map(job.map);
  if (run == book.runs.end() || !alike(job.quilt, book.quilt, job.map)) return false;
  const bool sameScreen = screenOf(job.quilt, *then) == screenOf(book.quilt, book.map());
  if (job.run.backdrop && !sameScreen) return false;
  ++made_;
  Swatch swatch{std::move(job.picture), {}, frame_};
  const auto grid = makeGrid(book.map().grid);
  // Edits since the worker began.
  for (std::size_t i = 0; i < job.run.layers.size(); ++i) {
    const Layer* old = then->layer(job.run.layers[i]);
    const Layer* now = book.map().layer(job.run.layers[i]);
    if (!old || !now) return false;
    if (old->revision.is(now->revision)) continue;
    const auto changed = painter_.changes(job.quilt, book.quilt, {job.map, now->id});
    for (const PixelRect& pixels : shifted(changed, job.run.shiftOf(i))) {
      swatch.dirty = swatch.dirty.united(deviceTouchedBy(pixels, *grid, {job.zoom}).intersected(rectOf(job.place)));
    }
  }
  auto [place, isNew] = (*run)->levels[job.zoom].swatches.try_emplace(job.place);
  if (!isNew) {
    if (place->second.dirty.isEmpty()) return true;
    bytes_ -= place->second.bytes();
  }
  place->second = std::move(swatch);
  bytes_ += place->second.bytes();
  arrived_.push_back({run->get(), job.zoom, job.place});
  return true;
}

QRect SwatchBook::placeInWindow(const Arrived& one, ViewScale scale, const QRect& window) const {
  const bool isShown = shown_ && std::find(shown_->shown.begin(), shown_->shown.end(), one.run) != shown_->shown.end();
  if (!isShown || one.zoom != scale.zoom) return {};
  return rectOf(one.place).translated(one.run->run.shift(scale)).intersected(window);
}

QRegion SwatchBook::arrivals(ViewScale scale, const QRect& window) {
  collect();
  if (std::exchange(useless_, false)) return window;
  QRegion region;
  for (const Arrived& one : std::exchange(arrived_, {})) region += placeInWindow(one, scale, window);
  return region;
}

bool SwatchBook::isForWorkers(const MapBook& book, const RunBook& run, ViewScale scale, const Swatch& swatch) const {
  return !swatch.dirty.isEmpty() && likelyCost(book.map(), run.run, scale, swatch.dirty) > options_.longestRepair;
}

// Draws what a swatch misses; false when the frame has no time left for it. One a frame always has.
bool SwatchBook::repair(MapBook& book, RunBook& run, ViewScale scale, Place place, Swatch& swatch) {
  if (swatch.dirty.isEmpty()) return true;
  const auto end = Clock::now() + likelyCost(book.map(), run.run, scale, swatch.dirty);
  if (end > deadline_ && repaired_) return false;
  repaired_ = true;
  ++made_;
  const QRect part = swatch.dirty;
  QImage fresh = painter_.drawRun(book.quilt, book.map(), run.run, scale, part);
  swatch.dirty = {};
  if (swatch.picture.isNull() && fresh.isNull()) return true;
  bytes_ -= swatch.bytes();
  if (swatch.picture.isNull()) {
    swatch.picture = blankPicture({kSwatchSide, kSwatchSide});
  }
  bytes_ += swatch.bytes();
  QPainter painter(&swatch.picture);
  painter.setCompositionMode(QPainter::CompositionMode_Source);
  const QRect inside = part.translated(-rectOf(place).topLeft());
  if (fresh.isNull()) {
    painter.fillRect(inside, Qt::transparent);
  } else {
    painter.drawImage(inside.topLeft(), fresh);
  }
  return true;
}

void SwatchBook::drawSubstitute(QPainter& painter, const MapBook& book, RunBook& run, ViewScale scale,
                                const QRect& place, QPoint origin) {
  painter.save();
  painter.setClipRect(place.translated(-origin), Qt::IntersectClip);
  const PixelRect pixels = scale.covering(place);
  // The level that covers the place, the nearest zoom first; one that covers a part of it is better than none.
  const Level* best = nullptr;
  double bestZoom = 0;
  double bestRank = 0;
  for (const auto& [zoom, level] : run.levels) {
    if (zoom == scale.zoom || level.swatches.empty()) continue;
    const double distance = std::abs(std::log(zoom / scale.zoom));
    // At a much larger zoom there are too many swatches to look at.
    if (zoom / scale.zoom > 4) continue;
    int there = 0;
    int all = 0;
    forEachPlace(ViewScale{zoom}.toDevice(pixels), [&](Place one) {
      ++all;
      const auto found = level.swatches.find(one);
      there += found != level.swatches.end() && found->second.dirty.isEmpty() ? 1 : 0;
    });
    const double rank = (there == all ? 100 : 10.0 * there / all) - distance;
    if (there > 0 && (!best || rank > bestRank)) {
      best = &level;
      bestZoom = zoom;
      bestRank = rank;
    }
  }
  const auto drawSketch = [&](const QRect& where) {
    if (where.isEmpty()) return;
    painter.save();
    painter.setClipRect(where.translated(-origin), Qt::IntersectClip);
    const auto grid = makeGrid(book.map().grid);
    if (book.map().grid.kind != GridKind::orthogonal) {
      // As the cells lie on average.
      const Grid::Lattice at = grid->lattice();
      const double step = run.step * scale.zoom;
      painter.setTransform(QTransform(at.columnX * step, at.columnY * step, at.rowX * step, at.rowY * step,
                                      at.originX * scale.zoom - origin.x(), at.originY * scale.zoom - origin.y()),
                           true);
      painter.drawImage(run.blocks.x0, run.blocks.y0, run.sketch);
      painter.restore();
      return;
    }
    const PixelRect blocks = grid->pixelBounds(
        {run.blocks.x0 * run.step, run.blocks.y0 * run.step, run.blocks.x1 * run.step, run.blocks.y1 * run.step});
    // Only the pixels that show: a sketch is scaled by thousands at large zooms.
    const double px = double{scale.zoom} * blocks.w / run.sketch.width();
    const double py = double{scale.zoom} * blocks.h / run.sketch.height();
    const QRectF seen = QRectF(where).translated(-blocks.x * scale.zoom, -blocks.y * scale.zoom);
    const QRectF source(seen.x() / px, seen.y() / py, seen.width() / px, seen.height() / py);
    painter.drawImage(QRectF(where.translated(-origin)), run.sketch, source);
    painter.restore();
  };
  if (!best) {
    drawSketch(place);
  } else {
    const double ratio = scale.zoom / bestZoom;
    forEachPlace(ViewScale{bestZoom}.toDevice(pixels), [&](Place one) {
      const QRect at = rectOf(one);
      const QRectF target(at.x() * ratio - origin.x(), at.y() * ratio - origin.y(), at.width() * ratio,
                          at.height() * ratio);
      const auto found = best->swatches.find(one);
      if (found == best->swatches.end() || !found->second.dirty.isEmpty()) {
        drawSketch(target.translated(origin).toAlignedRect().intersected(place));
      } else if (!found->second.picture.isNull()) {
        painter.drawImage(target, found->second.picture);
      }
    });
  }
  painter.restore();
}

std::chrono::nanoseconds SwatchBook::likelyCostOf(const MapBook& book, ViewScale scale, const QRect& window,
                                                  const QRect& part) {
  std::chrono::nanoseconds cost{0};
  for (RunBook* run : book.shown) {
    const QRect map = painter_.boundsOf(book.quilt, book.map(), run->run, scale);
    const QRect seen = part.intersected(window).translated(-run->run.shift(scale)).intersected(map);
    const Level& level = run->levels[scale.zoom];
    forEachPlace(seen, [&](Place place) {
      if (!level.swatches.contains(place)) cost += likelyCost(book.map(), run->run, scale, rectOf(place));
    });
  }
  return cost;
}

SwatchBook::Frame SwatchBook::paint(QPainter& painter, ViewScale scale, const QRect& window, const QRect& part) {
  Frame frame;
  if (!shown_) return frame;
  ++frame_;
  repaired_ = false;
  const bool anew = std::exchange(anew_, false);
  deadline_ = Clock::now() + (anew ? options_.patienceAnew : options_.patience);
  collect();
  MapBook& book = *shown_;
  if (part.contains(window)) useless_ = false;
  std::erase_if(arrived_, [&](const Arrived& one) { return part.contains(placeInWindow(one, scale, window)); });
  // A picture that would take many times as long gains nothing from the few swatches drawn here: sketches come at once.
  if (anew && likelyCostOf(book, scale, window, part) > kHopeless * options_.patienceAnew) deadline_ = Clock::now();
  for (RunBook* run : book.shown) {
    const QRect map = painter_.boundsOf(book.quilt, book.map(), run->run, scale);
    const QPoint shift = run->run.shift(scale);
    const QPoint origin = window.topLeft() - shift;
    const QRect inSight = window.translated(-shift).intersected(map);
    const QRect seen = part.translated(-shift).intersected(inSight);
    painter.setOpacity(run->run.alpha() / 255.0);
    painter.setCompositionMode(modeOf(run->run.blend));
    Level& level = run->levels[scale.zoom];
    forEachPlace(inSight, [&](Place place) {
      ++frame.swatches;
      auto found = level.swatches.find(place);
      if (!rectOf(place).intersects(seen)) {
        const bool missing = found == level.swatches.end() || isForWorkers(book, *run, scale, found->second);
        if (missing) ++frame.substitutes;
        if (!missing && !found->second.dirty.isEmpty()) ++frame.late;
        return;
      }
      if (found == level.swatches.end() &&
          Clock::now() + likelyCost(book.map(), run->run, scale, rectOf(place)) < deadline_) {
        Swatch made{painter_.drawRun(book.quilt, book.map(), run->run, scale, rectOf(place)), {}, 0};
        bytes_ += made.bytes();
        ++made_;
        found = level.swatches.emplace(place, std::move(made)).first;
      }
      const QRect at = rectOf(place);
      if (found == level.swatches.end()) {
        ++frame.substitutes;
        drawSubstitute(painter, book, *run, scale, at.intersected(seen), origin);
        return;
      }
      Swatch& swatch = found->second;
      swatch.used = frame_;
      if (isForWorkers(book, *run, scale, swatch)) {
        ++frame.substitutes;
      } else if (!repair(book, *run, scale, place, swatch)) {
        ++frame.late;
      }
      if (swatch.picture.isNull()) return;
      const QRect shown = at.intersected(seen);
      painter.drawImage(shown.topLeft() - origin, swatch.picture, shown.translated(-at.topLeft()));
    });
  }
  painter.setOpacity(1);
  painter.setCompositionMode(QPainter::CompositionMode_SourceOver);
  // What has just arrived elsewhere is still to be painted.
  for (const Arrived& one : arrived_) frame.substitutes += placeInWindow(one, scale, window).isEmpty() ? 0 : 1;
  request(book, scale, window);
  keepWithinBudget();
  return frame;
}

void SwatchBook::request(const MapBook& book, ViewScale scale, const QRect& window) {
  std::vector<std::tuple<std::int64_t, RunBook*, Place>> missing;
  const QRect around = window.adjusted(-kSwatchSide, -kSwatchSide, kSwatchSide, kSwatchSide);
  const auto count = [](const QRect& device) {
    std::size_t places = 0;
    forEachPlace(device, [&](Place) { ++places; });
    return places;
  };
  // Never so much ahead that it would push out what is in sight.
  std::size_t all = 0;
  for (const RunBook* run : book.shown) {
    const QRect map = painter_.boundsOf(book.quilt, book.map(), run->run, scale);
    all += count(around.translated(-run->run.shift(scale)).intersected(map)) * kSwatchSide * kSwatchSide * sizeof(QRgb);
  }
  const bool ahead = all < options_.budget - options_.budget / 8;
  for (RunBook* run : book.shown) {
    Level& level = run->levels[scale.zoom];
    const QRect map = painter_.boundsOf(book.quilt, book.map(), run->run, scale);
    const QRect seen = window.translated(-run->run.shift(scale));
    forEachPlace((ahead ? around.translated(-run->run.shift(scale)) : seen).intersected(map), [&](Place place) {
      if (const auto found = level.swatches.find(place); found != level.swatches.end()) {
        found->second.used = frame_;
        if (!isForWorkers(book, *run, scale, found->second)) return;
      }
      const QRect at = rectOf(place);
      const QPoint off = at.center() - seen.center();
      const std::int64_t distance = std::int64_t{off.x()} * off.x() + std::int64_t{off.y()} * off.y();
      missing.emplace_back(at.intersects(seen) ? distance : distance + (std::int64_t{1} << 40), run, place);
    });
  }
  std::stable_sort(missing.begin(), missing.end(),
                   [](const auto& a, const auto& b) { return std::get<0>(a) < std::get<0>(b); });
  std::vector<std::shared_ptr<Job>> jobs;
  for (const auto& [distance, run, place] : missing) {
    auto job = std::make_shared<Job>();
    job->map = book.id;
    job->run = run->run;
    job->zoom = scale.zoom;
    job->place = place;
    job->quilt = book.quilt;
    jobs.push_back(std::move(job));
  }
  workers_->want(std::move(jobs));
}

void SwatchBook::keepWithinBudget() {
  if (bytes_ <= options_.budget) return;
  struct Old {
    std::uint64_t used;
    Level* level;
    Place place;
  };
  std::vector<Old> olds;
  for (auto& [id, book] : maps_) {
    for (auto& run : book->runs) {
      for (auto& [zoom, level] : run->levels) {
        for (auto& [place, swatch] : level.swatches) {
          if (swatch.used != frame_) olds.push_back({swatch.used, &level, place});
        }
      }
    }
  }
  std::sort(olds.begin(), olds.end(), [](const Old& a, const Old& b) { return a.used < b.used; });
  // A little more than needed, so that the next swatch does not sort everything again.
  const std::size_t enough = options_.budget - options_.budget / 16;
  for (const Old& old : olds) {
    if (bytes_ <= enough) break;
    const auto found = old.level->swatches.find(old.place);
    bytes_ -= found->second.bytes();
    old.level->swatches.erase(found);
  }
  for (auto& [id, book] : maps_) {
    for (auto& run : book->runs) {
      std::erase_if(run->levels, [](const auto& one) { return one.second.swatches.empty(); });
    }
  }
}

}  // namespace uq
