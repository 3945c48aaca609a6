#include "core/edit/Stitch.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>

#include "core/edit/Seams.h"

namespace uq {

namespace {

const Piece* pieceOf(const std::vector<Piece>& pieces, Id map) {
  const auto found = std::find_if(pieces.begin(), pieces.end(), [map](const Piece& one) { return one.map == map; });
  return found == pieces.end() ? nullptr : &*found;
}

bool near(const PixelRect& a, const PixelRect& b, int reach) {
  return a.x - reach < b.right() && b.x - reach < a.right() && a.y - reach < b.bottom() && b.y - reach < a.bottom();
}

// Whether two boxes touch along a side, but for `reach`.
bool sidesNear(const PixelRect& a, const PixelRect& b, int reach) {
  const auto apart = [reach](int one, int other) { return std::abs(one - other) <= reach; };
  const bool beside = (apart(a.right(), b.x) || apart(b.right(), a.x)) && a.y < b.bottom() && b.y < a.bottom();
  const bool below = (apart(a.bottom(), b.y) || apart(b.bottom(), a.y)) && a.x < b.right() && b.x < a.right();
  return beside || below;
}

// The best step at which `other` meets one edge of the map, for a place of its pixel 0, 0; `best` is kept where it is better.
struct Best {
  CellPos by;
  PixelPos off;  // from where it is held
  int score = 0;
  bool found = false;
  std::string why;  // why edges that are near cannot be sewn there, where none can
};

void tryEdges(const Map& map, const Map& other, PixelPos held, int reach, Best& best) {
  const CellRect& a = map.bounds;
  const CellRect& b = other.bounds;
  struct Edge {
    bool upright;  // the step along it goes down
    int across;
  };
  for (const Edge edge : {Edge{true, a.x1 - b.x0}, Edge{true, a.x0 - b.x1}, Edge{false, a.y1 - b.y0}, Edge{false, a.y0 - b.y1}}) {
    const auto stepAt = [&](int along) { return edge.upright ? CellPos{edge.across, along} : CellPos{along, edge.across}; };
    const PixelPos from = pixelStep(map, other, stepAt(0));
    const PixelPos to = pixelStep(map, other, stepAt(2));
    const double x = (to.x - from.x) / 2.0;
    const double y = (to.y - from.y) / 2.0;
    const double far = ((held.x - from.x) * x + (held.y - from.y) * y) / (x * x + y * y);
    const int nearest = static_cast<int>(std::lround(std::clamp(far, -1e6, 1e6)));
    const int first = edge.upright ? a.y0 - b.y0 : a.x0 - b.x0;
    const int last = edge.upright ? a.y1 - b.y1 : a.x1 - b.x1;
    for (const int along : std::array{nearest, nearest - 1, nearest + 1, first, last}) {
      const CellPos by = stepAt(along);
      const CellRect there{b.x0 + by.x, b.y0 + by.y, b.x1 + by.x, b.y1 + by.y};
      if (!edgesMeet(map.grid.kind, a, there)) continue;
      const std::string why = whyNoStep(map, other, by);
      const PixelPos at = pixelStep(map, other, by);
      const PixelPos off{at.x - held.x, at.y - held.y};
      const int apart = std::max(std::abs(off.x), std::abs(off.y));
      // Rows that do not interlock lie off by half a cell already.
      if (!why.empty() && apart <= reach + std::max(map.grid.cell.w, map.grid.cell.h) / 2) best.why = why;
      if (!why.empty()) continue;
      const bool flush = along == first || along == last;
      const int score = apart + (flush ? 0 : reach);
      if (apart > reach || (best.found && best.score <= score)) continue;
      best = {by, off, score, true, {}};
    }
  }
}

}  // namespace

std::optional<Stitch> stitchNear(const Quilt& quilt, const std::vector<Piece>& pieces, const std::set<Id>& moved, PixelPos by,
                                 int reach) {
  std::optional<Stitch> found;
  int score = 0;
  std::optional<Stitch> refused;
  for (const Piece& held : pieces) {
    const Map* other = moved.contains(held.map) ? quilt.map(held.map) : nullptr;
    if (!other) continue;
    const PixelRect covers{held.covers.x + by.x, held.covers.y + by.y, held.covers.w, held.covers.h};
    for (const Piece& stays : pieces) {
      const Map* map = moved.contains(stays.map) ? nullptr : quilt.map(stays.map);
      if (!map || !near(covers, stays.covers, reach)) continue;
      if (std::string why = whyNotSewable(*map, *other); !why.empty()) {
        if (sidesNear(covers, stays.covers, reach)) refused = Stitch{map->id, other->id, {}, by, std::move(why)};
        continue;
      }
      Best best;
      tryEdges(*map, *other, {held.at.x + by.x - stays.at.x, held.at.y + by.y - stays.at.y}, reach, best);
      if (!best.found && !best.why.empty()) refused = Stitch{map->id, other->id, {}, by, best.why};
      if (!best.found || (found && score <= best.score)) continue;
      score = best.score;
      found = Stitch{map->id, other->id, best.by, {by.x + best.off.x, by.y + best.off.y}, {}};
    }
  }
  return found ? found : refused;
}

Quilt sewnAt(const Quilt& quilt, const std::set<Id>& moved, Stitch& stitch, IdSource& ids, const std::set<Id>& fixed) {
  const Quilt laid = withPiecesMoved(withPlacesSaid(quilt, fixed), moved, stitch.move, fixed);
  Sewing first = sewn(laid, stitch.map, stitch.other, stitch.by, ids);
  stitch.why = first.why;
  if (!stitch.why.empty()) return quilt;
  Quilt done = std::move(first.quilt);
  // Wherever else edges meet, too.
  const std::vector<Piece> pieces = piecesOf(done);
  for (const Piece& held : pieces) {
    const Map* other = moved.contains(held.map) ? done.map(held.map) : nullptr;
    if (!other) continue;
    for (const Piece& stays : pieces) {
      const Map* map = moved.contains(stays.map) ? nullptr : done.map(stays.map);
      const bool same = stays.map == stitch.map && held.map == stitch.other;
      if (!map || same || !near(held.covers, stays.covers, 1) || !whyNotSewable(*map, *other).empty()) continue;
      Best best;
      tryEdges(*map, *other, {held.at.x - stays.at.x, held.at.y - stays.at.y}, 0, best);
      if (!best.found) continue;
      Sewing more = sewn(done, map->id, other->id, best.by, ids);
      if (more.why.empty()) done = std::move(more.quilt);
    }
  }
  return done;
}

std::vector<StitchSide> seamOnBoard(const Quilt& quilt, const std::vector<Piece>& pieces, const Seam& seam) {
  const Map* map = quilt.map(seam.map);
  const Map* other = quilt.map(seam.other);
  const Piece* piece = pieceOf(pieces, seam.map);
  if (!map || !other || !piece || !whyNotSewable(*map, *other).empty()) return {};
  std::vector<StitchSide> sides = stitchOf(*map, *other, seam.by);
  for (StitchSide& side : sides) {
    side.from = {side.from.x + piece->at.x, side.from.y + piece->at.y};
    side.to = {side.to.x + piece->at.x, side.to.y + piece->at.y};
  }
  return sides;
}

}  // namespace uq
