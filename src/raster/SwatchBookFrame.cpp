// What of SwatchBook paints a frame.
#include <cmath>

#include "core/base/InShares.h"
#include "raster/BlankPicture.h"
#include "raster/SwatchBookParts.h"

namespace uq {

namespace {

constexpr int kHopeless = 8;             // times the patience of a frame
constexpr int kManyScaled = 8;           // places that others stand in for: much is missing
constexpr std::size_t kFewRuns = 3;      // are scaled as fast one by one
constexpr int kFramesKept = 30;          // after one in which much was missing: a zoom step seldom comes alone
constexpr double kFarthestZoom = 8;      // times, from a frame that stands in
constexpr std::size_t kLeastStrip = 64;  // rows of a frame that a thread of its own puts together

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

SwatchBook::Draw SwatchBook::substitute(const RunBook& run, ViewScale scale, const QRect& place, QPoint origin) const {
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
    forEachPlace(ViewScale{zoom}.toDevice(pixels), [&, &swatches = level.swatches](Place one) {
      ++all;
      const auto found = swatches.find(one);
      there += found != swatches.end() && found->second.dirty.isEmpty() ? 1 : 0;
    });
    const double rank = (there == all ? 100 : 10.0 * there / all) - distance;
    if (there > 0 && (!best || rank > bestRank)) {
      best = &level;
      bestZoom = zoom;
      bestRank = rank;
    }
  }
  return [&run, scale, place, origin, pixels, best, bestZoom](QPainter& painter, const QRect& strip) {
    painter.save();
    painter.setClipRect(place.translated(-origin).intersected(strip), Qt::IntersectClip);
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

void SwatchBook::standIn(std::vector<Lay>& lays, ViewScale scale, const QRect& window, const QRect& part) const {
  const double ratio = scale.zoom / last_->zoom;
  if (ratio > kFarthestZoom || ratio < 1 / kFarthestZoom) return;
  const QRectF all(last_->window.x() * ratio - window.x(), last_->window.y() * ratio - window.y(),
                   last_->window.width() * ratio, last_->window.height() * ratio);
  const QRect covered = all.toAlignedRect().adjusted(1, 1, -1, -1).intersected(part);
  QRegion region;
  for (const Lay& lay : lays) region += lay.standsIn.intersected(covered);
  if (region.isEmpty()) return;
  // Run by run only what the last frame does not reach; then that is laid over all else.
  std::vector<Lay> others;
  for (Lay& lay : lays) {
    if (lay.standsIn.isEmpty()) {
      others.push_back(std::move(lay));
      continue;
    }
    for (const QRect& rest : QRegion(lay.standsIn).subtracted(covered)) {
      others.push_back({[draw = lay.draw, rest](QPainter& painter, const QRect& strip) {
        if (const QRect own = rest.intersected(strip); !own.isEmpty()) draw(painter, own);
      }});
    }
  }
  lays = std::move(others);
  lays.push_back({[region, all, picture = last_->picture](QPainter& painter, const QRect&) {
    painter.save();
    painter.setOpacity(1);
    painter.setCompositionMode(QPainter::CompositionMode_Source);
    painter.setClipRegion(region, Qt::IntersectClip);
    painter.drawImage(all, picture);
    painter.restore();
  }});
}

void SwatchBook::keepFrame(QImage picture, ViewScale scale, const QRect& window, const QRect& part) {
  if (part.size() == window.size()) {
    last_ = LastFrame{std::move(picture), scale.zoom, window};
  } else if (last_ && last_->zoom == scale.zoom && last_->window == window) {
    QPainter onto(&last_->picture);
    onto.setCompositionMode(QPainter::CompositionMode_Source);
    onto.drawImage(part.topLeft(), picture);
  }
}

QImage SwatchBook::drawAll(QPainter& painter, const std::vector<Lay>& lays, const QRect& part, bool together) {
  QImage picture = together ? blankPicture(part.size()) : QImage();
  if (picture.isNull()) {
    for (const Lay& lay : lays) lay.draw(painter, part);
  } else {
    uchar* const bits = picture.bits();
    (void)inShares(static_cast<std::size_t>(picture.height()), kLeastStrip, [&](std::size_t from, std::size_t to) {
      QImage strip(bits + static_cast<std::ptrdiff_t>(from) * picture.bytesPerLine(), picture.width(),
                   static_cast<int>(to - from), picture.bytesPerLine(), picture.format());
      QPainter onStrip(&strip);
      const QRect own(part.x(), part.y() + static_cast<int>(from), strip.width(), strip.height());
      onStrip.translate(-own.topLeft());
      for (const Lay& lay : lays) lay.draw(onStrip, own);
      return true;
    });
  }
  painter.setOpacity(1);
  painter.setCompositionMode(QPainter::CompositionMode_SourceOver);
  if (!picture.isNull()) painter.drawImage(part.topLeft(), picture);
  return picture;
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
  // On the move what is missing is soon out of sight: the last frame stands in, and the hand comes first.
  const bool moves = keepsFrames_ > 0 && part.contains(window);
  deadline_ = Clock::now() + (anew ? options_.patienceAnew : moves ? options_.patience / 2 : options_.patience);
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
    lays.push_back({[run](QPainter& onto, const QRect&) {
      onto.setOpacity(run->run().alpha() / 255.0);
      onto.setCompositionMode(modeOf(run->run().blend));
    }});
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
        const QRect missing = at.intersected(seen);
        lays.push_back({substitute(*run, scale, missing, origin), missing.translated(-origin)});
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
      lays.push_back({[&swatch, to = shown.topLeft() - origin, from = shown.translated(-at.topLeft())](
                          QPainter& onto, const QRect&) { onto.drawImage(to, swatch.picture, from); }});
    });
  }
  // What is blended needs what lies behind the map.
  const bool blends = std::any_of(book.shown.begin(), book.shown.end(),
                                  [](const RunBook* run) { return run->run().blend != Blend::normal; });
  const bool many = scaled >= kManyScaled && book.shown.size() > kFewRuns;
  if (many) {
    keepsFrames_ = kFramesKept;
  } else if (part.contains(window)) {
    keepsFrames_ = std::max(0, keepsFrames_ - 1);  // a part alone, as where something arrived, is no further frame
  }
  const bool together = keepsFrames_ > 0 && !blends;
  const QRect inWindow = part.intersected(window).translated(-window.topLeft());
  if (!together) last_.reset();
  if (many && last_) standIn(lays, scale, window, inWindow);
  if (QImage picture = drawAll(painter, lays, inWindow, together); !picture.isNull())
    keepFrame(std::move(picture), scale, window, inWindow);
  // What has just arrived elsewhere is still to be painted.
  for (const Arrived& one : arrived_) frame.substitutes += placeInWindow(one, scale, window).isEmpty() ? 0 : 1;
  request(book, scale, window);
  keepWithinBudget();
  return frame;
}

}  // namespace uq
