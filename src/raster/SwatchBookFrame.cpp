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
constexpr double kMostComposed = 2;  // times the zoom: at larger ones there is too much to put together

// What covers a device rectangle at a zoom `ratio` times as large.
QRect atOtherZoom(const QRect& device, double ratio) {
  const auto floored = [](double at) { return static_cast<int>(std::floor(at)); };
  const QPoint first(floored(device.x() * ratio), floored(device.y() * ratio));
  const QPoint last(floored((device.x() + device.width()) * ratio), floored((device.y() + device.height()) * ratio));
  return {first, last};
}

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
  return [&run, scale, place, origin, pixels, best, bestZoom](QPainter& painter, const QRect&) {
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

SwatchBook::Composed SwatchBook::composed(const MapBook& book, ViewScale scale, const QRect& window,
                                          const std::vector<Lay>& lays) {
  Composed best;
  int most = 0;
  for (const auto& [zoom, level] : book.shown.front()->levels) {
    const double ratio = zoom / scale.zoom;
    if (ratio == 1 || ratio > kMostComposed || level.swatches.empty()) continue;
    std::vector<QRect> bounds;
    for (const RunBook* run : book.shown)
      bounds.push_back(painter_.boundsOf(run->made.quilt(), run->map(), run->run(), {zoom}));
    const auto isThere = [&](const QRect& there) {
      for (std::size_t i = 0; i < book.shown.size(); ++i) {
        const RunBook& run = *book.shown[i];
        const auto own = run.levels.find(zoom);
        if (own == run.levels.end()) return false;
        bool all = true;
        forEachPlace(there.translated(-run.run().shift({zoom})).intersected(bounds[i]), [&](Place place) {
          const auto found = own->second.swatches.find(place);
          all = all && found != own->second.swatches.end() && found->second.dirty.isEmpty();
        });
        if (!all) return false;
      }
      return true;
    };
    Composed one{zoom, {}};
    int count = 0;
    for (const Lay& lay : lays) {
      if (lay.standsIn.isEmpty() || !isThere(atOtherZoom(lay.standsIn.translated(window.topLeft()), ratio))) continue;
      one.region += lay.standsIn;
      ++count;
    }
    const bool nearer = std::abs(std::log(ratio)) < std::abs(std::log(best.zoom / scale.zoom));
    if (count > most || (count > 0 && count == most && nearer)) {
      best = std::move(one);
      most = count;
    }
  }
  return best;
}

SwatchBook::Draw SwatchBook::drawComposed(const MapBook& book, ViewScale scale, const QRect& window,
                                          const Composed& composed) {
  return [&book, scale, window, composed](QPainter& painter, const QRect& strip) {
    const QRect here = composed.region.boundingRect().intersected(strip);
    if (here.isEmpty()) return;
    const double ratio = composed.zoom / scale.zoom;
    const QRect there = atOtherZoom(here.translated(window.topLeft()), ratio);
    QImage picture = blankPicture(there.size());
    if (picture.isNull()) return;
    QPainter onto(&picture);
    for (const RunBook* run : book.shown) {
      const QPoint shift = run->run().shift({composed.zoom});
      const Level& level = run->levels.at(composed.zoom);
      onto.setOpacity(run->run().alpha() / 255.0);
      forEachPlace(there.translated(-shift), [&](Place place) {
        const auto found = level.swatches.find(place);
        const bool shows = found != level.swatches.end() && !found->second.picture.isNull();
        if (shows) onto.drawImage(rectOf(place).topLeft() + shift - there.topLeft(), found->second.picture);
      });
    }
    onto.end();
    painter.save();
    painter.setClipRegion(composed.region, Qt::IntersectClip);
    painter.drawImage(QRectF(there.x() / ratio - window.x(), there.y() / ratio - window.y(), there.width() / ratio,
                             there.height() / ratio),
                      picture);
    painter.restore();
  };
}

void SwatchBook::drawAll(QPainter& painter, const std::vector<Lay>& lays, const QRect& part, bool inStrips) {
  QImage picture = inStrips ? blankPicture(part.size()) : QImage();
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
  const bool inStrips = scaled >= kManyScaled && !blends;
  const QRect inWindow = part.intersected(window).translated(-window.topLeft());
  if (const Composed all = inStrips ? composed(book, scale, window, lays) : Composed(); !all.region.isEmpty()) {
    std::erase_if(lays, [&](const Lay& lay) {
      return !lay.standsIn.isEmpty() && QRegion(lay.standsIn).subtracted(all.region).isEmpty();
    });
    const QRegion others = QRegion(inWindow).subtracted(all.region);
    lays.insert(lays.begin(), Lay{[others](QPainter& onto, const QRect&) {
                  onto.save();
                  onto.setClipRegion(others, Qt::IntersectClip);
                }});
    lays.push_back({[](QPainter& onto, const QRect&) { onto.restore(); }});
    lays.push_back({drawComposed(book, scale, window, all)});
  }
  drawAll(painter, lays, inWindow, inStrips);
  // What has just arrived elsewhere is still to be painted.
  for (const Arrived& one : arrived_) frame.substitutes += placeInWindow(one, scale, window).isEmpty() ? 0 : 1;
  request(book, scale, window);
  keepWithinBudget();
  return frame;
}

}  // namespace uq
