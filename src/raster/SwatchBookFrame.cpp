// What of SwatchBook paints a frame.
#include <cmath>

#include "core/base/InShares.h"
#include "raster/BlankPicture.h"
#include "raster/SwatchBookParts.h"

namespace uq {

namespace {

constexpr int kHopeless = 8;  // times the patience of a frame
// From so many places on that others stand in for, a frame is drawn in strips, of so many rows at least.
constexpr int kManyScaled = 8;
constexpr std::size_t kLeastStrip = 64;

}  // namespace

std::vector<QRegion> SwatchBook::hiddenBehind(const MapBook& book, ViewScale scale, const QRect& window) const {
  std::vector<QRegion> hidden(book.shown.size());
  for (std::size_t i = book.shown.size(); i-- > 1;) {
    hidden[i - 1] = hidden[i];
    const Run& run = book.shown[i]->run();
    const auto level = book.shown[i]->levels.find(scale.zoom);
    const bool covers = run.alpha() == 255 && run.blend == Blend::normal && level != book.shown[i]->levels.end();
    if (!covers) continue;
    const QPoint shift = run.shift(scale);
    forEachPlace(window.translated(-shift), [&](Place place) {
      const auto found = level->second.swatches.find(place);
      if (found != level->second.swatches.end() && found->second.hides()) {
        hidden[i - 1] += rectOf(place).translated(shift).intersected(window);
      }
    });
  }
  return hidden;
}

SwatchBook::Lay SwatchBook::laySubstitute(const RunBook& run, ViewScale scale, const QRect& place,
                                          QPoint origin) const {
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
  return [&run, scale, place, origin, pixels, best, bestZoom](QPainter& painter) {
    painter.save();
    painter.setClipRect(place.translated(-origin), Qt::IntersectClip);
    const auto drawSketch = [&](const QRect& where) { run.sketch.draw(painter, run.made, scale, where, origin); };
    if (!best) drawSketch(place);
    const double ratio = best ? scale.zoom / bestZoom : 1;
    forEachPlace(best ? ViewScale{bestZoom}.toDevice(pixels) : QRect(), [&](Place one) {
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
    painter.restore();
  };
}

void SwatchBook::layAll(QPainter& painter, const std::vector<Lay>& lays, const QRect& part, bool inStrips) {
  QImage picture = inStrips ? blankPicture(part.size()) : QImage();
  if (picture.isNull()) {
    for (const Lay& lay : lays) lay(painter);
  } else {
    uchar* const bits = picture.bits();
    (void)inShares(static_cast<std::size_t>(picture.height()), kLeastStrip, [&](std::size_t from, std::size_t to) {
      QImage strip(bits + static_cast<std::ptrdiff_t>(from) * picture.bytesPerLine(), picture.width(),
                   static_cast<int>(to - from), picture.bytesPerLine(), picture.format());
      QPainter onStrip(&strip);
      onStrip.translate(-part.x(), -part.y() - static_cast<int>(from));
      for (const Lay& lay : lays) lay(onStrip);
      return true;
    });
  }
  painter.setOpacity(1);
  painter.setCompositionMode(QPainter::CompositionMode_SourceOver);
  if (!picture.isNull()) painter.drawImage(part.topLeft(), picture);
}

std::chrono::nanoseconds SwatchBook::likelyCostOf(const MapBook& book, ViewScale scale, const QRect& window,
                                                  const QRect& part) {
  std::chrono::nanoseconds cost{0};
  for (RunBook* run : book.shown) {
    const QRect map = painter_.boundsOf(run->made.quilt(), run->map(), run->run(), scale);
    const QRect seen = part.intersected(window).translated(-run->run().shift(scale)).intersected(map);
    const Level& level = run->levels[scale.zoom];
    forEachPlace(seen, [&](Place place) {
      if (!level.swatches.contains(place)) cost += likelyCost(run->map(), run->run(), scale, rectOf(place));
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
  const std::vector<QRegion> hidden = hiddenBehind(book, scale, window);
  std::vector<Lay> lays;
  int scaled = 0;
  for (std::size_t i = 0; i < book.shown.size(); ++i) {
    RunBook* run = book.shown[i];
    const QRect map = painter_.boundsOf(run->made.quilt(), run->map(), run->run(), scale);
    const QPoint shift = run->run().shift(scale);
    const QPoint origin = window.topLeft() - shift;
    const QRect inSight = window.translated(-shift).intersected(map);
    const QRect seen = part.translated(-shift).intersected(inSight);
    lays.push_back([run](QPainter& onto) {
      onto.setOpacity(run->run().alpha() / 255.0);
      onto.setCompositionMode(modeOf(run->run().blend));
    });
    Level& level = run->levels[scale.zoom];
    forEachPlace(inSight, [&](Place place) {
      const QRect inWindow = rectOf(place).intersected(inSight).translated(shift);
      if (!hidden[i].isEmpty() && QRegion(inWindow).subtracted(hidden[i]).isEmpty()) return;
      ++frame.swatches;
      auto found = level.swatches.find(place);
      if (!rectOf(place).intersects(seen)) {
        const bool missing = found == level.swatches.end() || isForWorkers(*run, scale, found->second);
        if (missing) ++frame.substitutes;
        if (!missing && !found->second.dirty.isEmpty()) ++frame.late;
        return;
      }
      if (found == level.swatches.end() &&
          Clock::now() + likelyCost(run->map(), run->run(), scale, rectOf(place)) < deadline_) {
        Swatch made{painter_.drawRun(run->made.quilt(), run->map(), run->run(), scale, rectOf(place)), {}, 0};
        made.settle();
        bytes_ += made.bytes();
        ++made_;
        found = level.swatches.emplace(place, std::move(made)).first;
      }
      const QRect at = rectOf(place);
      if (found == level.swatches.end()) {
        ++frame.substitutes;
        ++scaled;
        lays.push_back(laySubstitute(*run, scale, at.intersected(seen), origin));
        return;
      }
      Swatch& swatch = found->second;
      swatch.used = frame_;
      if (isForWorkers(*run, scale, swatch)) {
        ++frame.substitutes;
      } else if (!repair(*run, scale, place, swatch)) {
        ++frame.late;
      }
      if (swatch.picture.isNull()) return;
      const QRect shown = at.intersected(seen);
      lays.push_back([&swatch, to = shown.topLeft() - origin, from = shown.translated(-at.topLeft())](QPainter& onto) {
        onto.drawImage(to, swatch.picture, from);
      });
    });
  }
  // What is blended needs what lies behind the map.
  const bool blends = std::any_of(book.shown.begin(), book.shown.end(),
                                  [](const RunBook* run) { return run->run().blend != Blend::normal; });
  layAll(painter, lays, part.intersected(window).translated(-window.topLeft()), scaled >= kManyScaled && !blends);
  // What has just arrived elsewhere is still to be painted.
  for (const Arrived& one : arrived_) frame.substitutes += placeInWindow(one, scale, window).isEmpty() ? 0 : 1;
  request(book, scale, window);
  keepWithinBudget();
  return frame;
}

}  // namespace uq
