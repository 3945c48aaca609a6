#include "raster/SwatchBook.h"

#include <algorithm>
#include <cmath>
#include <thread>
#include <tuple>

#include "core/edit/MapFacts.h"
#include "raster/BlankPicture.h"
#include "raster/SwatchBookParts.h"

namespace uq {

// How long a swatch may take to draw: measured on a slow machine, dense layers, with tiles and with colours.
std::chrono::nanoseconds likelyCost(const Map& map, const Run& run, ViewScale scale, const QRect& device) {
  if (run.backdrop) return std::chrono::nanoseconds(std::int64_t{device.width()} * device.height() * 2);
  const double w = device.width() / (map.grid.cell.w * scale.zoom);
  const double h = device.height() / (map.grid.cell.h * scale.zoom);
  const double cells = w * h * static_cast<double>(run.layers.size());
  const bool colours = drawsColours(*makeGrid(map.grid), scale);
  return std::chrono::nanoseconds(static_cast<std::int64_t>(cells * (colours ? 4 : 40)));
}

SwatchBook::SwatchBook(SheetPictures pictures, std::function<void()> arrived, Options options)
    : painter_(pictures), options_(options) {
  const int workers = options.workers > 0 ? options.workers : static_cast<int>(std::thread::hardware_concurrency()) - 1;
  workers_ = std::make_unique<SwatchWorkers>(pictures, std::clamp(workers, 1, 8), std::move(arrived));
}

SwatchBook::~SwatchBook() = default;

bool SwatchBook::isIdle() const { return workers_->isIdle(); }

void SwatchBook::forget(MapBook& book, const std::function<bool(RunBook&)>& gone) {
  std::erase_if(book.runs, [&](const std::unique_ptr<RunBook>& run) {
    if (!gone(*run)) return false;
    std::erase_if(arrived_, [&](const Arrived& one) { return one.run == run.get(); });
    for (const auto& [zoom, level] : run->levels) {
      for (const auto& [place, swatch] : level.swatches) bytes_ -= swatch.bytes();
    }
    std::erase(book.shown, run.get());
    return true;
  });
}

std::optional<std::vector<PixelRect>> SwatchBook::show(const Quilt& quilt, Id id, std::vector<Run> runs) {
  auto& slot = maps_[id];
  if (!slot) slot = std::make_unique<MapBook>();
  MapBook& book = *slot;
  const bool otherMap = std::exchange(shown_, &book) != &book;
  const Map& map = *quilt.map(id);

  std::vector<PixelRect> changed;
  forget(book, [&](RunBook& kept) {
    const std::vector<Id>& layers = kept.run().layers;
    // What the same layers looked like at another rise or in another order never comes back but by undo.
    return std::any_of(layers.begin(), layers.end(), [&](Id layer) { return !map.layer(layer); }) ||
           std::any_of(runs.begin(), runs.end(),
                       [&](const Run& run) { return run.layers == layers && !run.drawsAs(kept.run()); });
  });
  forget(book, [&](RunBook& kept) { return !follow(kept, quilt, changed); });

  std::vector<RunBook*> shown;
  for (const Run& run : runs) shown.push_back(&bookOf(book, quilt, id, run));
  const MapBook::Around around{map.bounds, map.grid, screenOf(quilt, map), map.cloth};
  const bool allChanged = otherMap || book.around != around || runs != book.runsShown || shown != book.shown;
  book.around = around;
  book.shown = std::move(shown);
  book.runsShown = std::move(runs);
  anew_ = anew_ || allChanged;
  if (allChanged || !changed.empty()) last_.reset();
  if (allChanged) return std::nullopt;
  return changed;
}

bool SwatchBook::follow(RunBook& run, const Quilt& quilt, std::vector<PixelRect>& changed) {
  MadeFrom now(quilt, run.made.mapId(), run.run());
  const auto stale = run.made.staleIn(now, painter_);
  if (!stale) return false;
  const bool sameBounds = run.map().bounds == now.map().bounds;
  run.made = std::move(now);
  if (!sameBounds) run.sketch.make(painter_, run.made);
  if (stale->empty()) return true;
  markChanged(*makeGrid(run.map().grid), run, stale->drawn);
  if (sameBounds) run.sketch.repair(painter_, run.made, stale->laid);
  const PixelPos by{run.run().offset.x + run.run().moved.x, run.run().offset.y + run.run().moved.y};
  for (const PixelRect& rect : stale->drawn) changed.push_back({rect.x + by.x, rect.y + by.y, rect.w, rect.h});
  return true;
}

SwatchBook::RunBook& SwatchBook::bookOf(MapBook& book, const Quilt& quilt, Id map, const Run& run) {
  const auto found =
      std::find_if(book.runs.begin(), book.runs.end(), [&](const auto& one) { return one->run().drawsAs(run); });
  if (found != book.runs.end()) {
    (*found)->made = MadeFrom(quilt, map, run);
    return **found;
  }
  book.runs.push_back(std::make_unique<RunBook>(MadeFrom(quilt, map, run)));
  book.runs.back()->sketch.make(painter_, book.runs.back()->made);
  return *book.runs.back();
}

void SwatchBook::markChanged(const Grid& grid, RunBook& run, const std::vector<PixelRect>& changed) {
  for (auto& [zoom, ofZoom] : run.levels) {
    Level& level = ofZoom;
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
bool SwatchBook::keep(SwatchJob& job) {
  const auto at = maps_.find(job.from.mapId());
  if (at == maps_.end()) return false;
  MapBook& book = *at->second;
  const auto run = std::find_if(book.runs.begin(), book.runs.end(),
                                [&](const auto& one) { return one->run().drawsAs(job.from.run()); });
  if (run == book.runs.end()) return false;
  // Edits since the worker began.
  const auto stale = job.from.staleIn((*run)->made, painter_);
  if (!stale) return false;
  ++made_;
  Swatch swatch{std::move(job.picture), {}, frame_};
  const auto grid = makeGrid((*run)->map().grid);
  for (const PixelRect& pixels : stale->drawn) {
    swatch.dirty = swatch.dirty.united(deviceTouchedBy(pixels, *grid, {job.zoom}).intersected(rectOf(job.place)));
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
  return rectOf(one.place).translated(one.run->run().shift(scale)).intersected(window);
}

QRegion SwatchBook::arrivals(ViewScale scale, const QRect& window) {
  collect();
  if (std::exchange(useless_, false)) return window;
  QRegion region;
  for (const Arrived& one : std::exchange(arrived_, {})) region += placeInWindow(one, scale, window);
  return region;
}

bool SwatchBook::isForWorkers(const RunBook& run, ViewScale scale, const Swatch& swatch) const {
  return !swatch.dirty.isEmpty() && likelyCost(run.map(), run.run(), scale, swatch.dirty) > options_.longestRepair;
}

// Draws what a swatch misses; false when the frame has no time left for it. One a frame always has.
bool SwatchBook::repair(RunBook& run, ViewScale scale, Place place, Swatch& swatch) {
  if (swatch.dirty.isEmpty()) return true;
  const auto end = Clock::now() + likelyCost(run.map(), run.run(), scale, swatch.dirty);
  if (end > deadline_ && repaired_) return false;
  repaired_ = true;
  ++made_;
  const QRect part = swatch.dirty;
  QImage fresh = painter_.drawRun(run.made.quilt(), run.map(), run.run(), scale, part);
  swatch.dirty = {};
  if (swatch.picture.isNull() && fresh.isNull()) return true;
  bytes_ -= swatch.bytes();
  if (swatch.picture.isNull()) {
    swatch.picture = blankPicture({kSwatchSide, kSwatchSide});
  }
  bytes_ += swatch.bytes();
  swatch.open();
  QPainter painter(&swatch.picture);
  painter.setCompositionMode(QPainter::CompositionMode_Source);
  const QRect inside = part.translated(-rectOf(place).topLeft());
  if (fresh.isNull()) {
    painter.fillRect(inside, Qt::transparent);
  } else {
    painter.drawImage(inside.topLeft(), fresh);
  }
  painter.end();
  swatch.settle();
  return true;
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
    const QRect map = painter_.boundsOf(run->made.quilt(), run->map(), run->run(), scale);
    all +=
        count(around.translated(-run->run().shift(scale)).intersected(map)) * kSwatchSide * kSwatchSide * sizeof(QRgb);
  }
  const bool ahead = all < options_.budget - options_.budget / 8;
  for (RunBook* run : book.shown) {
    Level& level = run->levels[scale.zoom];
    const QRect map = painter_.boundsOf(run->made.quilt(), run->map(), run->run(), scale);
    const QRect seen = window.translated(-run->run().shift(scale));
    forEachPlace((ahead ? around.translated(-run->run().shift(scale)) : seen).intersected(map), [&](Place place) {
      if (const auto found = level.swatches.find(place); found != level.swatches.end()) {
        found->second.used = frame_;
        if (!isForWorkers(*run, scale, found->second)) return;
      }
      const QRect at = rectOf(place);
      const QPoint off = at.center() - seen.center();
      const std::int64_t distance = std::int64_t{off.x()} * off.x() + std::int64_t{off.y()} * off.y();
      missing.emplace_back(at.intersects(seen) ? distance : distance + (std::int64_t{1} << 40), run, place);
    });
  }
  std::stable_sort(missing.begin(), missing.end(),
                   [](const auto& a, const auto& b) { return std::get<0>(a) < std::get<0>(b); });
  SwatchWorkers::Jobs jobs;
  for (const auto& [distance, run, place] : missing) {
    auto job = std::make_shared<SwatchJob>();
    job->from = run->made;
    job->zoom = scale.zoom;
    job->place = place;
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
