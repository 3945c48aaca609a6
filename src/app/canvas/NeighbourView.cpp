#include "app/canvas/NeighbourView.h"

#include <algorithm>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/document/PlanView.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr double kStitchBreadth = 3;           // logical pixels
constexpr int kVeilOfNeighbours = 105;         // of 255
constexpr std::size_t kMostBooks = 12;         // with swatches of their own
constexpr QSize kSmallNeighbour(256, 256);     // device pixels of the others
constexpr int kMostTimes = 20;                  // that what repeats is seen again, each way
constexpr std::size_t kMostNeighbours = 2048;  // in one frame
constexpr std::uint64_t kKeptFrames = 200;     // a book out of sight is kept for so many frames

SwatchBook::Options slight() {
  SwatchBook::Options options;
  options.budget = std::size_t{32} << 20;
  options.workers = 1;
  options.patience = std::chrono::microseconds(1'500);
  options.patienceAnew = std::chrono::microseconds(4'000);
  return options;
}

}  // namespace

bool NeighbourView::follow() {
  const Map* map = scene_.map();
  const bool was = !canvas_.isPlain();
  canvas_ = map ? Patchwork::across(scene_.session().quilt(), map->id) : Patchwork();
  fromAbove_.clear();
  findStitches();
  if (canvas_.isPlain()) {
    books_.clear();
    small_.clear();
    known_.clear();
    return was;
  }
  std::map<Id, Revision> now;
  for (const Patch& patch : canvas_.patches()) {
    // The map itself is seen again only where the canvas repeats.
    if (patch.map == map->id && !canvas_.period().any()) continue;
    if (const Map* one = scene_.session().quilt().map(patch.map)) now[patch.map] = one->revision;
  }
  std::erase_if(books_, [&](const auto& one) { return !now.contains(one.first.first); });
  const bool same = was && std::equal(now.begin(), now.end(), known_.begin(), known_.end(), [](const auto& a, const auto& b) {
    return a.first == b.first && a.second.is(b.second);
  });
  known_ = std::move(now);
  return !same;
}

void NeighbourView::findStitches() {
  const Map* map = scene_.map();
  const auto same = [](const Patch& a, const Patch& b) { return a.map == b.map && a.cells == b.cells && a.by == b.by; };
  const std::vector<Patch>& now = canvas_.patches();
  const bool known = std::equal(now.begin(), now.end(), stitched_.begin(), stitched_.end(), same);
  if (known && fromAboveFound_ == scene_.isFromAbove() && period_ == canvas_.period()) return;
  stitched_ = now;
  fromAboveFound_ = scene_.isFromAbove();
  period_ = canvas_.period();
  stitches_.clear();
  if (!map || canvas_.isPlain()) return;
  const Quilt& quilt = scene_.session().quilt();
  const SewnMaps sewn(quilt);
  for (const Shared<Seam>& seam : quilt.seams()) {
    if (!seam->joins(map->id) || !sewn.whyWrong(seam->id).empty()) continue;
    const bool first = seam->map == map->id;
    Map other = *quilt.map(first ? seam->other : seam->map);
    other.grid.plan = map->grid.plan;
    const CellPos by = first ? seam->by : CellPos{-seam->by.x, -seam->by.y};
    const std::vector<StitchSide> sides = stitchOf(*map, other, by);
    stitches_.insert(stitches_.end(), sides.begin(), sides.end());
  }
}

void NeighbourView::paintStitches(QPainter& painter, const Plane& ground) const {
  QVector<QLineF> lines;
  const QRectF sight = QRectF(QPointF(), ground.view().size).adjusted(-8, -8, 8, 8);
  for (const StitchSide& side : stitches_) {
    const QLineF line(ground.pointOf(side.from), ground.pointOf(side.to));
    if (QRectF(line.p1(), line.p2()).normalized().adjusted(-1, -1, 1, 1).intersects(sight)) lines << line;
  }
  if (!lines.isEmpty()) drawStitchLines(painter, lines, Theme::current().madder, Theme::current().paper, kStitchBreadth);
}

std::optional<Patch> NeighbourView::at(CellPos canvas) const {
  if (canvas_.isPlain() || canvas_.patches().front().cells.contains(canvas)) return std::nullopt;
  return canvas_.at(canvas);
}

PixelPos NeighbourView::placeOf(const Patch& patch) const {
  const Map& home = *scene_.map();
  Map other = *scene_.session().quilt().map(patch.map);
  other.grid.plan = home.grid.plan;
  return pixelStep(home, other, patch.by);
}

const Quilt& NeighbourView::quiltFor(Id map) {
  if (!scene_.isFromAbove()) return scene_.session().quilt();
  const auto known = fromAbove_.find(map);
  if (known != fromAbove_.end()) return known->second;
  return fromAbove_.emplace(map, inPlan(scene_.session().quilt(), map)).first->second;
}

void NeighbourView::paint(QPainter& painter, const MapView& view, const QRectF& part) {
  missing_ = 0;
  if (canvas_.isPlain() || !scene_.map()) return;
  ++frame_;
  const Plane ground(view, scene_.map()->grid);
  // What repeats goes on for so long that it is large enough to be seen.
  const CellRect& all = canvas_.bounds();
  const Period& period = canvas_.period();
  CellRect near = ground.cellsInSight().grown(1);
  if (period.across > 0) near.x0 = std::max(near.x0, all.x0 - kMostTimes * period.across), near.x1 = std::min(near.x1, all.x1 + kMostTimes * period.across);
  if (period.down > 0) near.y0 = std::max(near.y0, all.y0 - kMostTimes * period.down), near.y1 = std::min(near.y1, all.y1 + kMostTimes * period.down);
  std::vector<Patch> seen = canvas_.meeting(near);
  std::erase_if(seen, [&](const Patch& one) { return one.cells == canvas_.patches().front().cells; });
  if (seen.size() > kMostNeighbours) seen.resize(kMostNeighbours);
  // Those of which most is in sight have swatches of their own.
  std::vector<std::pair<double, std::size_t>> sizes;
  const QRectF window(QPointF(), view.size);
  for (std::size_t i = 0; i < seen.size(); ++i) {
    const QRectF box = view.rectOf(ground.grid().pixelBounds(seen[i].cells)).intersected(window);
    sizes.emplace_back(-box.width() * box.height(), i);
  }
  std::sort(sizes.begin(), sizes.end());
  std::vector<bool> large(seen.size());
  for (std::size_t i = 0; i < std::min(sizes.size(), kMostBooks); ++i) large[sizes[i].second] = true;
  painter.save();
  painter.setClipRect(part, Qt::IntersectClip);
  for (std::size_t i = 0; i < seen.size(); ++i) paintOne(painter, view, part, seen[i], large[i]);
  painter.restore();
  std::erase_if(books_, [&](const auto& one) { return one.second.frame + kKeptFrames < frame_; });
}

void NeighbourView::paintOne(QPainter& painter, const MapView& view, const QRectF& part, const Patch& patch, bool large) {
  const Theme& theme = Theme::current();
  const Quilt& quilt = quiltFor(patch.map);
  const Map& map = *quilt.map(patch.map);
  const PixelPos at = placeOf(patch);
  const Plane plane(view, map.grid, at);
  const QPolygonF outline(plane.pointsOf(plane.grid().perimeter(map.bounds)));
  if (!outline.boundingRect().intersects(part)) return;
  painter.setPen(Qt::NoPen);
  painter.setBrush(map.cloth ? QColor::fromRgb(*map.cloth | 0xff000000u) : theme.surround.lighter(118));
  painter.drawPolygon(outline);
  const Seeing seeing{scene_.desk().hidden, {}, {}, kFaint, {}};
  if (large) {
    Shown& shown = books_[{patch.map, patch.by}];
    if (!shown.book) shown.book = std::make_unique<SwatchBook>(scene_.session().painter().pictures(), arrived_, slight());
    shown.frame = frame_;
    (void)shown.book->show(quilt, map.id, runsOf(map, seeing));
    painter.save();
    const double ratio = view.ratio;
    painter.scale(1 / ratio, 1 / ratio);
    const QRect window = view.window().translated(-plane.shift());
    const QRectF device(part.x() * ratio, part.y() * ratio, part.width() * ratio, part.height() * ratio);
    const auto frame = shown.book->paint(painter, view.scale(), window, device.toAlignedRect().translated(window.topLeft()));
    missing_ += frame.substitutes;
    if (frame.late > 0) arrived_();
    painter.restore();
  } else {
    Small& small = small_[patch.map];
    if (!small.revision.is(map.revision) || small.picture.isNull()) {
      const SmallPicture drawn = smallPicture(scene_.session().painter(), quilt, map, kSmallNeighbour, seeing);
      small = {map.revision, drawn.picture, drawn.covers};
    }
    const PixelRect& covers = small.covers;
    painter.drawImage(view.rectOf({covers.x + at.x, covers.y + at.y, covers.w, covers.h}), small.picture);
  }
  QColor veil = theme.surround;
  veil.setAlpha(kVeilOfNeighbours);
  painter.setPen(Qt::NoPen);
  painter.setBrush(veil);
  painter.drawPolygon(outline);
  painter.setBrush(Qt::NoBrush);
}

}  // namespace uq
