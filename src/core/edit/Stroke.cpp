#include "core/edit/Stroke.h"

#include <algorithm>
#include <cstdlib>

#include "core/edit/Laying.h"
#include "core/edit/Patchwork.h"
#include "core/edit/Region.h"
#include "core/edit/ResizeMap.h"
#include "core/edit/SwapTiles.h"
#include "core/edit/Turned.h"

namespace uq {

namespace {

const InHand kEraser{Block::of(Cell({1, 0}, {}))};

CellRect spanned(SidePos a, SidePos b) { return CellRect::around({a.u, a.v}, {b.u, b.v}); }

}  // namespace

class Stroke::Work {
 public:
  Work(Quilt before, StrokePlan plan) : before_(std::move(before)), plan_(std::move(plan)), now_(before_) {
    landing_.quilt = before_;
    const Map* map = before_.map(plan_.layer.map);
    if (!map || !before_.layer(plan_.layer)) {
      refusal_ = "This map has no layer to paint on";
      return;
    }
    patchwork_ = Patchwork::under(before_, map->id);
    grid_ = makeGrid(map->grid);
    plan_.hand = turnedFor(plan_.hand, *grid_);
    if (plan_.tool == Tool::erase) {
      plan_.takesAway = true;
      plan_.hand = kEraser;
    }
    if (plan_.takesAway && plan_.hand.empty()) plan_.hand = kEraser;
    if (plan_.hand.manner == Manner::mix && plan_.hand.members.empty()) plan_.hand.manner = Manner::asItIs;
    if (plan_.takesAway && plan_.hand.manner == Manner::mix) plan_.hand = kEraser;
    if (plan_.takesAway && plan_.tool != Tool::brush && plan_.hand.isOneTile()) plan_.hand = kEraser;
  }

  void moveTo(CellPos cell, bool even) {
    if (!grid_ || plan_.hand.empty()) return;
    if (!press_) press_ = cell;
    lastEven_ = even;
    if (goesByPath()) {
      brushTo(cell);
    } else if (plan_.tool != Tool::fill || !last_) {
      layAnew(cell, even);
    }
    last_ = cell;
  }

  void finish() {
    if (!std::exchange(putOff_, false)) return;
    const CellSet cells = std::exchange(cells_, {});
    lay(cells);
  }

  void refit(CellRect box) {
    if (grid_ && stretches() && press_) layStretch(box);
  }

  bool goesByPath() const { return (plan_.tool == Tool::brush || plan_.tool == Tool::erase) && !stretches(); }

  // What it would lay, where some of that lies beyond the map's edge; nothing else.
  std::optional<CellRect> beyond() const {
    const bool clips = plan_.takesAway || !plan_.within.empty() || plan_.tool == Tool::fill || !refusal_.empty();
    if (clips || !press_) return std::nullopt;
    CellRect wanted = footprint_.united(shape_.bounds());
    if (wanted.empty()) return std::nullopt;
    // The shape is worked out near the map only: farther off it goes on towards the hand.
    if (!goesByPath() && !stretches() && !lastEven_) {
      const CellRect hand = CellRect::around(*press_, *last_);
      const CellRect near = reach();
      if (hand.x0 < near.x0) wanted.x0 = std::min(wanted.x0, hand.x0);
      if (hand.y0 < near.y0) wanted.y0 = std::min(wanted.y0, hand.y0);
      if (hand.x1 > near.x1) wanted.x1 = std::max(wanted.x1, hand.x1);
      if (hand.y1 > near.y1) wanted.y1 = std::max(wanted.y1, hand.y1);
    }
    return wanted.intersected(patchwork_.bounds()) == wanted ? std::nullopt : std::optional(wanted);
  }

  Quilt before_;
  StrokePlan plan_;
  Quilt now_;
  Landing landing_;
  CellSet cells_;
  CellSet shape_;
  std::optional<CellRect> box_;
  CellSet keptCells_;
  std::string refusal_;

 private:
  bool swaps() const { return plan_.tool == Tool::fill && plan_.options.swaps && !plan_.takesAway && plan_.given.empty(); }
  bool stretches() const { return plan_.hand.manner == Manner::stretch; }
  bool mixes() const { return plan_.hand.manner == Manner::mix; }
  BoxShape boxShape() const { return plan_.box.value_or(usualBox(grid_->shape().kind)); }

  // The cells of a set that may be touched, and whether one may.
  CellSet allowed(const CellSet& cells) const {
    const CellSet here = patchwork_.among(cells);
    return plan_.within.empty() ? here : here.intersected(plan_.within);
  }
  bool mayTouch(CellPos cell) const {
    return patchwork_.contains(cell) && (plan_.within.empty() || plan_.within.contains(cell));
  }

  void planLaying(SidePos anchor, std::optional<CellRect> stretched = {}) {
    laying_ = layingFor({before_, *grid_, plan_.hand, plan_.takesAway, plan_.lift, anchor, stretched, plan_.seed,
                         careful_ ? plan_.covers : Covers()});
  }

  // Where the stroke lands, judged by these cells; false where it cannot.
  bool land(const CellSet& judged, std::function<bool(const Layer&)> wipes = {}) {
    landing_ = landingOf(before_, {plan_.layer, plan_.hand, plan_.obeys, plan_.takesAway, plan_.shut, plan_.covers, std::move(wipes)},
                         judged, IdSource(plan_.ids));
    now_ = landing_.quilt;
    refusal_ = landing_.refusal;
    return refusal_.empty();
  }

  // Whether a copy of the block would not lie whole on a layer, or something else would go for it.
  bool wipes(const Layer& layer, const CellSet& copy) const {
    LayerCells edited = layer;
    const Laying::Ask ask{0, &layer, copy, {}, [&] { return copy; }, true, [this](CellPos cell) { return mayTouch(cell); }};
    if (!laying_->lay(edited, ask).kept.empty()) return true;
    bool found = false;
    layer.cells.forEachPainted(copy.bounds(), [&](CellPos at, Cell cell) {
      found = found || (copy.contains(at) && edited.cells.at(at) != cell);
    });
    return found;
  }

  // Brush and Erase: the cells from the last place to this one, as broad as the tool.
  void brushTo(CellPos cell) {
    if (!laying_) {
      CellSet judged = brushed(*grid_, std::span(&cell, 1), plan_.options.width);
      if (!plan_.hand.isOneTile() && !mixes()) judged = CellSet(CellRect{cell.x, cell.y, cell.x + 1, cell.y + 1});
      careful_ = plan_.covers && !plan_.takesAway && !plan_.obeys && !covers(plan_.hand, plan_.covers);
      planLaying(grid_->toSide(*press_));
      if (careful_ && !plan_.hand.isOneTile() && !mixes()) {
        const CellSet copy = allowed(laying_->whole(judged));
        land(copy, [this, copy](const Layer& layer) { return wipes(layer, copy); });
      } else {
        land(allowed(judged));
      }
    }
    if (!refusal_.empty()) return;
    const std::vector<CellPos> line = nearMap(grid_->line(last_.value_or(cell), cell));
    const auto alike = laying_->alike();
    if (alike && plan_.options.width == 1 && !careful_ && plan_.hand.others.empty()) return brushSingle(line, *alike);
    const CellSet fresh = brushed(*grid_, line, plan_.options.width);
    shape_ = shape_.united(fresh);
    const CellSet whole = laying_->whole(fresh);
    footprint_ = footprint_.united(whole.bounds());
    lay(allowed(whole).without(cells_));
  }

  // One tile, one cell broad: the stroke that is made most, without sets of cells for each move.
  void brushSingle(const std::vector<CellPos>& line, const Laid& laid) {
    const Layer* old = now_.layer(landing_.layers.front());
    if (!old) return;
    LayerCells edited = *old;
    bool changes = false;
    for (const CellPos cell : line) {
      shape_.insert(cell);
      if (!mayTouch(cell)) continue;
      cells_.insert(cell);
      // Comparing the layers afterwards would take as long as all the rest.
      if (edited.laidAt(cell) == laid) continue;
      changes = true;
      edited.lay(cell, laid);
    }
    if (!changes) return;
    Layer next = *old;
    static_cast<LayerCells&>(next) = std::move(edited);
    now_ = now_.with(landing_.layers.front(), std::move(next));
  }

  // Shapes are worked out as far as they reach the map; their outlines need the cells beside it.
  CellRect reach() const { return patchwork_.bounds().grown(kBroadest + 1); }
  // Of a line those cells from which something on the map can be reached; a block may reach far.
  std::vector<CellPos> nearMap(std::vector<CellPos> line) const {
    if (!plan_.hand.isOneTile() && !mixes()) return line;
    std::erase_if(line, [near = reach()](CellPos at) { return !near.contains(at); });
    return line;
  }

  // Why a shape between two cells is more than can be laid at once; empty when it is not.
  std::string whyTooWide(CellPos a, CellPos b) const {
    const CellRect around = CellRect::around(a, b);
    const CellRect span = around.grown(std::max(around.width(), around.height())).intersected(patchwork_.bounds());
    return isTooWide(patchwork_.bounds()) && isTooWide(span)
               ? "That is more than can be laid at once: draw a smaller part"
               : "";
  }

  // Line, Box, Oval, Fill and stretches: the whole shape.
  void layAnew(CellPos cell, bool even) {
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

  // Every cell like the pressed one becomes the tile in hand, turned and lifted as it was.
  void swapAt(CellPos cell) {
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

  // Works out the shape of the tool; where the grip of a copy lies then.
  SidePos drawShape(CellPos cell, bool even) {
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

  RegionAsk regionAsk(CellPos cell) const {
    RegionAsk ask;
    ask.layer = plan_.layer;
    ask.asSeen = !swaps() && plan_.options.asSeen.value_or(usuallyAsSeen(before_, plan_.layer, cell));
    ask.everywhere = plan_.everywhere || swaps();
    ask.alike = plan_.options.alike;
    ask.through = plan_.options.throughCorners ? Through::corners : Through::sides;
    ask.within = plan_.within;
    ask.hidden = plan_.hidden;
    ask.hand = &plan_.hand;
    return ask;
  }

  void stretchTo(CellPos cell, bool even) {
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

  void layStretch(CellRect box) {
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

  // Lays what is in hand on cells that may be touched, on all its layers.
  void lay(const CellSet& cells) {
    if (cells.empty()) return;
    for (std::size_t part = 0; part < landing_.layers.size(); ++part) {
      const LayerAt at = landing_.layers[part];
      const Layer* layer = now_.layer(at);
      if (!layer) continue;
      LayerCells edited = *layer;
      const bool brushes = plan_.tool == Tool::brush;
      const Laying::Ask ask{part,
                            before_.layer(at),
                            cells,
                            cells_,
                            [&] { return brushes ? allowed(shape_) : cells; },
                            brushes,
                            [this](CellPos cell) { return mayTouch(cell); }};
      Laying::Touched touched = laying_->lay(edited, ask);
      cells_ = cells_.united(touched.cells);
      keptCells_ = keptCells_.united(touched.kept);
      now_ = now_.with(at, std::move(edited));
    }
  }

  std::unique_ptr<const Grid> grid_;
  Patchwork patchwork_;
  std::optional<CellPos> press_;
  std::optional<CellPos> last_;
  std::unique_ptr<Laying> laying_;
  CellRect footprint_;  // around all that would be laid, beyond the map's edge too
  bool careful_ = false;
  bool putOff_ = false;
  bool lastEven_ = false;
};

Stroke::Stroke(Quilt before, StrokePlan plan) : work_(std::make_unique<Work>(before, std::move(plan))), before_(std::move(before)) {}
Stroke::~Stroke() = default;
Stroke::Stroke(Stroke&&) noexcept = default;
Stroke& Stroke::operator=(Stroke&&) noexcept = default;

void Stroke::moveTo(CellPos cell, bool even) {
  const Map* map = before_.map(work_->plan_.layer.map);
  if (!map || !map->growsAsPainted) return work_->moveTo(cell, even);
  // A shape is drawn from the first place to the last; what it grew by in between is taken back.
  const bool byPath = work_->goesByPath();
  if (!byPath && moves_.size() > 1) moves_.pop_back();
  moves_.emplace_back(cell, even);
  if (!byPath && work_->before_.map(map->id)->bounds != map->bounds) {
    work_ = std::make_unique<Work>(before_, work_->plan_);
    for (const auto& [at, evenly] : moves_) work_->moveTo(at, evenly);
  } else {
    work_->moveTo(cell, even);
  }
  grow();
}
void Stroke::finish() { work_->finish(); }
void Stroke::refit(CellRect box) {
  work_->refit(box);
  grow();
}

void Stroke::grow() {
  const Map* map = before_.map(work_->plan_.layer.map);
  if (!map || !map->growsAsPainted) return;
  // What is cut off at the old edge may reach beyond the new one, too.
  while (const auto wanted = work_->beyond()) {
    const Map& now = *work_->before_.map(map->id);
    const CellRect to = grownToHold(before_, now, *wanted);
    if (to == now.bounds) return;
    const auto box = work_->box_;
    auto larger = std::make_unique<Work>(withBounds(work_->before_, map->id, to), work_->plan_);
    for (const auto& [cell, even] : moves_) larger->moveTo(cell, even);
    if (box && larger->box_ != box) larger->refit(*box);
    work_ = std::move(larger);
  }
}

bool Stroke::reachesBeyond() const { return work_->beyond().has_value(); }
const StrokePlan& Stroke::plan() const { return work_->plan_; }
const Quilt& Stroke::before() const { return before_; }
const Quilt& Stroke::quilt() const { return work_->now_; }
const Landing& Stroke::landing() const { return work_->landing_; }
const CellSet& Stroke::cells() const { return work_->cells_; }
const CellSet& Stroke::shape() const { return work_->shape_; }
std::optional<CellRect> Stroke::stretchBox() const { return work_->box_; }
std::int64_t Stroke::kept() const { return work_->keptCells_.count(); }
const std::string& Stroke::refusal() const { return work_->refusal_; }

StrokePlan planOf(const Desk& desk, const Quilt&, bool takesAway) {
  StrokePlan plan;
  plan.tool = desk.tool;
  plan.options = desk.options;
  plan.box = desk.box;
  plan.takesAway = takesAway || desk.tool == Tool::erase;
  plan.hand = desk.inHand;
  plan.layer = desk.activeAt();
  plan.obeys = desk.obeysLayer;
  plan.within = desk.selection();
  plan.lift = desk.lift;
  plan.shut = desk.hidden;
  plan.shut.insert(desk.locked.begin(), desk.locked.end());
  plan.hidden = desk.hidden;
  return plan;
}

StrokePlan layingOn(LayerAt layer, InHand hand) {
  StrokePlan plan;
  plan.hand = std::move(hand);
  plan.layer = layer;
  plan.obeys = true;
  return plan;
}

StrokePlan takingAway(LayerAt layer, InHand hand) {
  StrokePlan plan = layingOn(layer, std::move(hand));
  plan.takesAway = true;
  return plan;
}

Quilt stroked(const Quilt& before, const StrokePlan& plan, const std::vector<CellPos>& path) {
  Stroke stroke(before, plan);
  for (const CellPos cell : path) stroke.moveTo(cell);
  return stroke.quilt();
}

}  // namespace uq
