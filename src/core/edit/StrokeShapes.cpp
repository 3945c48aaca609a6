#include <algorithm>
#include <cstdlib>

#include "core/edit/StrokeWork.h"
#include "core/edit/SwapTiles.h"

namespace uq {

namespace {

CellRect spanned(SidePos a, SidePos b) { return CellRect::around({a.u, a.v}, {b.u, b.v}); }

}  // namespace

std::string Stroke::Work::whyTooWide(CellPos a, CellPos b) const {
  const CellRect around = CellRect::around(a, b);
  const CellRect span = around.grown(std::max(around.width(), around.height())).intersected(patchwork_.bounds());
  return isTooWide(patchwork_.bounds()) && isTooWide(span)
             ? "That is more than can be laid at once: draw a smaller part"
             : "";
}

void Stroke::Work::layAnew(CellPos cell, bool even) {
  now_ = before_;
  cells_ = {};
  keptCells_ = {};
  putOff_ = false;
  refusal_.clear();
  if (plan_.tool == Tool::fill) {
    if (plan_.given.empty()) refusal_ = whyNoRegion(before_, regionAsk(cell));
  } else {
    refusal_ = whyTooWide(*press_, cell);
  }
  if (!refusal_.empty()) {
    shape_ = {};
    box_.reset();
    return;
  }
  if (swaps()) return swapAt(cell);
  if (stretches()) return stretchTo(cell, even);
  planLaying(drawShape(cell, even));
  const CellSet whole = plan_.tool == Tool::line ? laying_->whole(shape_) : shape_;
  footprint_ = whole.bounds();
  const CellSet cells = allowed(whole);
  if (!land(cells)) return;
  const bool alike = laying_->alike() && plan_.hand.others.empty();
  if (plan_.mostLaid > 0 && !alike && cells.count() > plan_.mostLaid) {
    putOff_ = true;
    cells_ = cells;
    return;
  }
  lay(cells);
}

void Stroke::Work::swapAt(CellPos cell) {
  const Layer* layer = before_.layer(plan_.layer);
  const Cell pressed = layer->cells.at(cell);
  shape_ = {};
  if (!plan_.hand.isOneTile()) {
    refusal_ = "Swap lays one tile: take one";
  } else if (pressed.empty()) {
    refusal_ = "Nothing lies here on " + layer->name + " that could be swapped";
  } else {
    plan_.obeys = true;
    shape_ = regionOf(before_, regionAsk(cell), cell);
    if (!land(shape_)) return;
    const TileRef to = plan_.hand.parts().front().cell.tile();
    std::vector<TileRef> alike = kinOf(before_, &plan_.hand, pressed.tile(), plan_.options.alike);
    const auto other = std::find_if(alike.begin(), alike.end(), [to](TileRef tile) { return tile != to; });
    if (other != alike.end()) {
      const TileRef from = *other;
      now_ = swapTiles(now_, {from, to, SwapIn::selection, plan_.layer, shape_, std::move(alike)}).quilt;
    }
    cells_ = shape_;
    if (now_ == before_) refusal_ = "This is the tile in hand already";
  }
}

SidePos Stroke::Work::drawShape(CellPos cell, bool even) {
  const SidePos from = grid_->toSide(*press_);
  // Copies begin at the corner, wherever the pointer went.
  const CellRect extent = plan_.hand.wholeExtent();
  const auto cornerWith = [&](CellPos end) {
    const SidePos far = grid_->toSide(end);
    return SidePos{std::min(from.u, far.u), std::min(from.v, far.v)} - SidePos{extent.x0, extent.y0};
  };
  switch (plan_.tool) {
    case Tool::line: {
      const CellPos end = even ? snappedLineEnd(*grid_, *press_, cell) : cell;
      shape_ = brushed(*grid_, nearMap(grid_->line(*press_, end)), plan_.options.width);
      return from;
    }
    case Tool::box: {
      const CellPos end = even ? equalBoxEnd(*grid_, *press_, cell, boxShape()) : cell;
      shape_ = boxOf(*grid_, *press_, end, boxShape(), reach());
      if (plan_.options.outlines) shape_ = outlineOf(*grid_, shape_);
      return cornerWith(end);
    }
    case Tool::oval:
      shape_ = even        ? roundOf(*grid_, *press_, cell, reach())
               : plan_.box ? ovalIn(*grid_, *press_, cell, *plan_.box, reach())
                           : ovalOf(*grid_, *press_, cell, reach());
      if (plan_.options.outlines) shape_ = outlineOf(*grid_, shape_);
      return cornerWith(cell);
    default: {
      shape_ = plan_.given.empty() ? regionOf(before_, regionAsk(cell), cell) : plan_.given;
      const CellRect all = patchwork_.bounds();
      return grid_->toSide({all.x0, all.y0}) - SidePos{extent.x0, extent.y0};
    }
  }
}

RegionAsk Stroke::Work::regionAsk(CellPos cell) const {
  RegionAsk ask;
  ask.layer = plan_.layer;
  const auto patch = patchwork_.at(cell);
  const auto partner = patch ? partnerOn(before_, plan_.layer, patch->map) : std::nullopt;
  const bool usually = patch && (!partner || usuallyAsSeen(before_, *partner, patch->onMap(cell)));
  ask.asSeen = !swaps() && plan_.options.asSeen.value_or(usually);
  ask.acrossSeams = !patchwork_.isPlain();
  ask.closed = closedIds();
  ask.everywhere = plan_.everywhere || swaps();
  ask.alike = plan_.options.alike;
  ask.through = plan_.options.throughCorners ? Through::corners : Through::sides;
  ask.within = plan_.within;
  ask.hidden = plan_.hidden;
  ask.hand = &plan_.hand;
  return ask;
}

void Stroke::Work::stretchTo(CellPos cell, bool even) {
  const SidePos from = grid_->toSide(*press_);
  const CellRect own = plan_.hand.wholeExtent();
  if (grid_->turnOrder() == 6 && own.width() > 1 && own.height() > 1) {
    refusal_ = "On hexagons a stretch runs along one way only";
    return;
  }
  const StretchSizes across = widthsOf(plan_.hand);
  const StretchSizes down = heightsOf(plan_.hand);
  const auto fitted = [](int wanted, int size, const StretchSizes& sizes) {
    return sizes.most ? size : std::max(wanted, sizes.least);
  };
  switch (plan_.tool) {
    case Tool::brush: {
      // A click lays it as it is held; a drag draws it as far as it can go each way.
      SidePos far = grid_->toSide(cell);
      if (even) far = grid_->toSide(snappedLineEnd(*grid_, *press_, cell));
      const CellRect wanted = spanned(from, far);
      const bool click = far == from;
      const int w = click ? own.width() : fitted(wanted.width(), own.width(), across);
      const int h = click ? own.height() : fitted(wanted.height(), own.height(), down);
      const int x = far.u < from.u ? from.u - w + 1 : from.u;
      const int y = far.v < from.v ? from.v - h + 1 : from.v;
      if (click) return layStretch({from.u + own.x0, from.v + own.y0, from.u + own.x1, from.v + own.y1});
      return layStretch({x, y, x + w, y + h});
    }
    case Tool::line: {
      const SidePos far = grid_->toSide(cell);
      const bool wide = std::abs(far.u - from.u) >= std::abs(far.v - from.v);
      const SidePos end = wide ? SidePos{far.u, from.v + own.height() - 1} : SidePos{from.u + own.width() - 1, far.v};
      return layStretch(spanned(from, end));
    }
    case Tool::box: {
      const CellPos end = even ? equalBoxEnd(*grid_, *press_, cell, BoxShape::alongTheGrid) : cell;
      return layStretch(spanned(from, grid_->toSide(end)));
    }
    case Tool::fill: {
      shape_ = plan_.given.empty() ? regionOf(before_, regionAsk(cell), cell) : plan_.given;
      const CellRect all = shape_.bounds();
      const CellRect box = spanned(grid_->toSide({all.x0, all.y0}), grid_->toSide({all.x1 - 1, all.y1 - 1}));
      if (box.count() != shape_.count() || box != sideBoundsOf(*grid_, shape_)) {
        refusal_ = "A stretch fills rectangles only, and this region is none";
        return;
      }
      return layStretch(box);
    }
    default: refusal_ = "A stretch has corners: draw it with Box";
  }
}

void Stroke::Work::layStretch(CellRect box) {
  now_ = before_;
  cells_ = {};
  box_ = box;
  shape_ = boxOf(*grid_, grid_->fromSide({box.x0, box.y0}), grid_->fromSide({box.x1 - 1, box.y1 - 1}),
                 BoxShape::alongTheGrid, reach());
  refusal_ = whyTooWide(grid_->fromSide({box.x0, box.y0}), grid_->fromSide({box.x1 - 1, box.y1 - 1}));
  if (refusal_.empty()) refusal_ = whyNoStretch(plan_.hand, box.width(), box.height());
  if (!refusal_.empty()) return;
  planLaying({box.x0, box.y0}, box);
  const CellSet cells = allowed(shape_);
  if (land(cells)) lay(cells);
}

}  // namespace uq
