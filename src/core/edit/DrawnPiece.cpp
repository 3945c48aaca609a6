#include "core/edit/DrawnPiece.h"

#include <algorithm>

#include "core/edit/LayAcross.h"
#include "core/edit/ResizeMap.h"
#include "core/edit/Stitch.h"

namespace uq {

namespace {

using Edge = DrawnPiece::Edge;

int cellsIn(int pixels, int pitch) { return std::clamp((pixels + pitch / 2) / pitch, 1, kFarthestCell); }

void fit(MapPlan& plan, const PixelRect& at) {
  const PixelSize pitch = cellsPitch(plan.grid);
  // Diamonds are as many cells along both sides as their box is high.
  const bool isDiamond = plan.grid.kind == GridKind::diamond;
  plan.width = isDiamond ? cellsIn((at.w + at.h) / 2, (plan.grid.cell.w + plan.grid.cell.h) / 2) : cellsIn(at.w, pitch.w);
  plan.height = isDiamond ? plan.width : cellsIn(at.h, pitch.h);
}

// The quilt with a map of that plan whose box begins where the rectangle does.
MapAdded placed(const Quilt& quilt, const MapPlan& plan, const PixelRect& at, IdSource& ids) {
  MapAdded added = addMap(withPlacesSaid(quilt), plan, ids);
  const Map* made = added.quilt.map(added.map);
  if (!made) return added;
  Map map = *made;
  const PixelRect box = makeGrid(map.grid)->pixelBounds(map.bounds);
  map.onBoard = PixelPos{at.x - box.x, at.y - box.y};
  added.quilt = added.quilt.with(std::move(map));
  return added;
}

// The step at which a map of that plan lies at the edge.
CellPos stepTo(const DrawnPiece& drawn, const Map& beside, const MapPlan& plan) {
  switch (drawn.edge) {
    case Edge::left: return {beside.bounds.x0 - plan.width, drawn.along};
    case Edge::right: return {beside.bounds.x1, drawn.along};
    case Edge::top: return {drawn.along, beside.bounds.y0 - plan.height};
    case Edge::bottom: return {drawn.along, beside.bounds.y1};
  }
  return {};
}

bool isUpright(Edge edge) { return edge == Edge::left || edge == Edge::right; }

// Copies the last columns or rows at the edge of `from` onto the first ones of the map that lies there.
Quilt carriedOver(Quilt quilt, Id from, Id to, Edge edge, CellPos by, int count, IdSource& ids) {
  const Map source = *quilt.map(from);
  const Map target = *quilt.map(to);
  const int most = isUpright(edge) ? std::min(source.bounds.width(), target.bounds.width())
                                   : std::min(source.bounds.height(), target.bounds.height());
  count = std::min(count, most);
  if (count < 1) return quilt;
  CellRect strip = source.bounds;
  CellPos on;
  switch (edge) {
    case Edge::left: strip.x1 = strip.x0 + count; on = {-count, 0}; break;
    case Edge::right: strip.x0 = strip.x1 - count; on = {count, 0}; break;
    case Edge::top: strip.y1 = strip.y0 + count; on = {0, -count}; break;
    case Edge::bottom: strip.y0 = strip.y1 - count; on = {0, count}; break;
  }
  for (const Shared<Layer>& layer : source.layers) {
    if (!layer->holdsTiles()) continue;
    std::vector<std::pair<CellPos, Laid>> laid;
    layer->forEachLaid(CellSet(strip), [&](CellPos at, const Laid& one) {
      const CellPos own{at.x + on.x - by.x, at.y + on.y - by.y};
      if (target.bounds.contains(own)) laid.emplace_back(own, one);
    });
    if (laid.empty()) continue;
    auto partner = partnerOn(quilt, {from, layer->id}, to);
    if (!partner) {
      PartnerMade made = withPartner(quilt, {from, layer->id}, to, ids);
      if (!made.layer) continue;
      quilt = std::move(made.quilt);
      partner = made.layer;
    }
    LayerCells edited = *quilt.layer(*partner);
    for (const auto& [at, one] : laid) edited.lay(at, one);
    quilt = quilt.with(*partner, std::move(edited));
  }
  return quilt;
}

}  // namespace

DrawnPiece drawnPiece(const Quilt& quilt, const PixelRect& at, const Map* like, const Sheet* sheet, int reach) {
  DrawnPiece drawn;
  drawn.at = at;
  IdSource ids(1);
  // Of all maps the one at whose edge it would lie nearest, made of that map's cells.
  int nearest = reach + 1;
  const std::vector<Piece> pieces = piecesOf(quilt);
  for (const Shared<Map>& map : quilt.maps()) {
    const auto lies = std::find_if(pieces.begin(), pieces.end(), [&](const Piece& one) { return one.map == map->id; });
    const int off = reach + std::max(map->grid.cell.w, map->grid.cell.h);
    const PixelRect& covers = lies->covers;
    const bool isNear = at.x - off < covers.right() && covers.x - off < at.right() && at.y - off < covers.bottom() &&
                        covers.y - off < at.bottom();
    if (!isNear) continue;
    MapPlan plan = proposedMap(quilt, &map.read(), nullptr);
    fit(plan, at);
    if (!whyNoMap(plan).empty()) continue;
    const MapAdded tried = placed(quilt, plan, at, ids);
    const auto stitch = stitchNear(tried.quilt, piecesOf(tried.quilt), {tried.map}, {}, reach);
    if (!stitch || !stitch->why.empty() || stitch->map != map->id) continue;
    const int far = std::max(std::abs(stitch->move.x), std::abs(stitch->move.y));
    if (far >= nearest) continue;
    nearest = far;
    drawn.plan = plan;
    drawn.beside = map->id;
    const CellRect& own = map->bounds;
    const CellPos by = stitch->by;
    drawn.edge = by.x == own.x1 ? Edge::right : by.x + plan.width == own.x0 ? Edge::left : by.y == own.y1 ? Edge::bottom : Edge::top;
    drawn.along = isUpright(drawn.edge) ? by.y : by.x;
  }
  if (!drawn.beside.empty()) return drawn;
  drawn.plan = proposedMap(quilt, like, sheet);
  fit(drawn.plan, at);
  return drawn;
}

DrawnPiece cutPiece(const Quilt& quilt, Id chalk, const Map* like, const Sheet* sheet, int reach) {
  const ChalkPiece* piece = quilt.listed<ChalkPiece>(chalk);
  if (!piece) return {};
  DrawnPiece drawn = drawnPiece(quilt, piece->at, like, sheet, reach);
  drawn.chalk = chalk;
  drawn.plan.name = piece->name;
  for (int n = 2; quilt.mapNamed(drawn.plan.name); ++n) drawn.plan.name = piece->name + " " + std::to_string(n);
  return drawn;
}

MapAdded addDrawn(const Quilt& quilt, const DrawnPiece& drawn, const MapPlan& plan, int carried, IdSource& ids,
                  std::string* unsewn) {
  std::string told;
  std::string& why = unsewn ? *unsewn : told;
  MapAdded added = placed(quilt, plan, drawn.at, ids);
  if (added.map.empty()) return {quilt, {}};
  added.quilt = added.quilt.without<ChalkPiece>(drawn.chalk);
  const Map* beside = added.quilt.map(drawn.beside);
  if (!beside) return added;
  Stitch stitch{drawn.beside, added.map, stepTo(drawn, *beside, plan), {}, {}};
  why = whyNotSewable(*beside, *added.quilt.map(added.map));
  if (!why.empty()) return added;
  // To where the seam says, so that other edges that meet there are found.
  Map there = *added.quilt.map(added.map);
  const auto pieces = piecesOf(added.quilt);
  const auto piece = std::find_if(pieces.begin(), pieces.end(), [&](const Piece& one) { return one.map == drawn.beside; });
  const PixelPos step = pixelStep(*beside, there, stitch.by);
  there.onBoard = PixelPos{piece->at.x + step.x, piece->at.y + step.y};
  Quilt sewnTo = sewnAt(added.quilt.with(there), {added.map}, stitch, ids);
  why = stitch.why;
  if (!why.empty()) return added;
  added.quilt = carriedOver(std::move(sewnTo), drawn.beside, added.map, drawn.edge, stitch.by, carried, ids);
  return added;
}

std::string freeChalkName(const Quilt& quilt) {
  const auto taken = [&](const std::string& name) {
    return quilt.mapNamed(name) || std::any_of(quilt.chalkPieces().begin(), quilt.chalkPieces().end(),
                                               [&](const Shared<ChalkPiece>& one) { return one->name == name; });
  };
  std::string name = "Place";
  for (int n = 2; taken(name); ++n) name = "Place " + std::to_string(n);
  return name;
}

Quilt withChalk(const Quilt& quilt, const PixelRect& at, IdSource& ids, Id* made) {
  ChalkPiece piece;
  piece.id = freshId(quilt, ids);
  piece.name = freeChalkName(quilt);
  const auto within = [](int value) { return std::clamp(value, -kFarthestOnBoard, kFarthestOnBoard); };
  piece.at = {within(at.x), within(at.y), std::clamp(at.w, 1, kLargestChalkPiece), std::clamp(at.h, 1, kLargestChalkPiece)};
  if (made) *made = piece.id;
  return quilt.with(std::move(piece));
}

Quilt withChalkSaid(const Quilt& quilt, Id chalk, const std::string& name, const std::string& note, bool done) {
  const ChalkPiece* known = quilt.listed<ChalkPiece>(chalk);
  if (!known) return quilt;
  ChalkPiece piece = *known;
  piece.name = name;
  piece.note = note;
  piece.done = done;
  return quilt.with(std::move(piece));
}

}  // namespace uq
