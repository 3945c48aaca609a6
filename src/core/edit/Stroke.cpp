#include "core/edit/Stroke.h"

#include <algorithm>
#include <bit>
#include <cstdlib>

#include "core/cells/CellReader.h"
#include "core/edit/Chance.h"
#include "core/edit/Region.h"
#include "core/edit/Turned.h"

namespace uq {

namespace {

constexpr int kFewCells = 48;  // of a chunk: laid one by one
const InHand kEraser{Block::of(Cell({1, 0}, {}))};

CellRect spanned(SidePos a, SidePos b) { return CellRect::around({a.u, a.v}, {b.u, b.v}); }

// Calls visit for each cell of a set inside one chunk.
template <class Visit>
void forEachBit(ChunkPos at, const ChunkRows& rows, Visit&& visit) {
  for (int y = 0; y < kChunkSide; ++y) {
    for (std::uint64_t row = rows[static_cast<std::size_t>(y)]; row != 0; row &= row - 1) {
      const int x = std::countr_zero(row);
      visit(CellPos{at.cx * kChunkSide + x, at.cy * kChunkSide + y}, static_cast<std::size_t>(y * kChunkSide + x));
    }
  }
}

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
    bounds_ = map->bounds;
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
    const bool byPath = (plan_.tool == Tool::brush || plan_.tool == Tool::erase) && !stretches();
    if (byPath) {
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
  bool stretches() const { return plan_.hand.manner == Manner::stretch; }
  bool mixes() const { return plan_.hand.manner == Manner::mix; }
  BoxShape boxShape() const { return plan_.box.value_or(usualBox(grid_->shape().kind)); }

  // The cells of a set that may be touched.
  CellSet allowed(const CellSet& cells) const {
    const CellRect all = cells.bounds();
    const bool inside = all.intersected(bounds_) == all;
    const CellSet here = inside ? cells : cells.intersected(CellSet(all.intersected(bounds_)));
    return plan_.within.empty() ? here : here.intersected(plan_.within);
  }

  // Where the stroke lands, judged by these cells; false where it cannot.
  bool land(const CellSet& judged) {
    landing_ = landingOf(before_, {plan_.layer, plan_.hand, plan_.obeys, plan_.takesAway, plan_.shut, plan_.covers},
                         judged, IdSource(plan_.ids));
    now_ = landing_.quilt;
    refusal_ = landing_.refusal;
    return refusal_.empty();
  }

  // Brush and Erase: the cells from the last place to this one, as broad as the tool.
  void brushTo(CellPos cell) {
    const bool first = !pattern_;
    if (first) {
      pattern_.emplace(before_, *grid_, plan_.hand, grid_->toSide(*press_), plan_.seed);
      if (mixes()) mixing_.emplace(before_, *grid_, plan_.hand, plan_.seed);
      CellSet judged = brushed(*grid_, std::span(&cell, 1), plan_.options.width);
      if (!plan_.hand.isOneTile() && !mixes()) judged = CellSet(CellRect{cell.x, cell.y, cell.x + 1, cell.y + 1});
      land(allowed(judged));
      careful_ = !plan_.takesAway && !plan_.obeys && !covers(plan_.hand, plan_.covers);
    }
    if (!refusal_.empty()) return;
    const std::vector<CellPos> line = nearMap(grid_->line(last_.value_or(cell), cell));
    if (plan_.options.width == 1 && !careful_ && !mixes() && plan_.hand.others.empty() && pattern_->everywhere(0)) {
      return brushSingle(line);
    }
    CellSet fresh = brushed(*grid_, line, plan_.options.width);
    shape_ = shape_.united(fresh);
    if (!mixes() && !pattern_->everywhere(0)) {
      // Of a block the whole copies that are crossed.
      CellSet copies;
      fresh.forEachStretch([&](CellPos from, int count) {
        for (int i = 0; i < count; ++i) {
          const SidePos at = grid_->toSide({from.x + i, from.y});
          if (copies.contains({from.x + i, from.y})) continue;
          for (const SidePos place : pattern_->copyUnder(at)) copies.insert(grid_->fromSide(place));
        }
      });
      fresh = copies;
    }
    lay(allowed(fresh).without(cells_));
  }

  // One tile, one cell broad: the stroke that is made most, without sets of cells for each move.
  void brushSingle(const std::vector<CellPos>& line) {
    const Layer* old = now_.layer(landing_.layers.front());
    if (!old) return;
    const Laid laid = plan_.takesAway ? Laid{} : *pattern_->everywhere(0);
    Laying layer{old->cells, old->lifts};
    const int lift = liftOf(laid);
    bool changes = false;
    for (const CellPos cell : line) {
      shape_.insert(cell);
      const bool may = bounds_.contains(cell) && (plan_.within.empty() || plan_.within.contains(cell));
      if (!may) continue;
      cells_.insert(cell);
      // Comparing the layers afterwards would take as long as all the rest.
      if (layer.cells.at(cell) == laid.cell && layer.lifts.at(cell) == lift) continue;
      changes = true;
      put(layer, cell, laid);
    }
    if (!changes) return;
    Layer next = *old;
    next.cells = std::move(layer.cells);
    next.lifts = std::move(layer.lifts);
    now_ = now_.with(landing_.layers.front(), std::move(next));
  }

  // Shapes are worked out as far as they reach the map; their outlines need the cells beside it.
  CellRect reach() const { return bounds_.grown(kWidths[4] + 1); }
  // Of a line those cells from which something on the map can be reached; a block may reach far.
  std::vector<CellPos> nearMap(std::vector<CellPos> line) const {
    if (!plan_.hand.isOneTile() && !mixes()) return line;
    std::erase_if(line, [near = reach()](CellPos at) { return !near.contains(at); });
    return line;
  }

  // Why a shape between two cells is more than can be laid at once; empty when it is not.
  std::string whyTooWide(CellPos a, CellPos b) const {
    const CellRect around = CellRect::around(a, b);
    const CellRect span = around.grown(std::max(around.width(), around.height())).intersected(bounds_);
    return isTooWide(bounds_) && isTooWide(span) ? "That is more than can be laid at once: draw a smaller part" : "";
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
    if (stretches()) return stretchTo(cell, even);
    SidePos anchor = grid_->toSide(*press_);
    switch (plan_.tool) {
      case Tool::line: {
        const CellPos end = even ? snappedLineEnd(*grid_, *press_, cell) : cell;
        const std::vector<CellPos> line = nearMap(grid_->line(*press_, end));
        shape_ = brushed(*grid_, line, 1);
        break;
      }
      case Tool::box: {
        const CellPos end = even ? equalBoxEnd(*grid_, *press_, cell, boxShape()) : cell;
        shape_ = boxOf(*grid_, *press_, end, boxShape(), reach());
        if (plan_.options.outlines) shape_ = outlineOf(*grid_, shape_);
        // Copies begin at the corner, wherever the pointer went.
        const SidePos far = grid_->toSide(end);
        anchor = {std::min(anchor.u, far.u), std::min(anchor.v, far.v)};
        break;
      }
      case Tool::oval:
        shape_ = even        ? roundOf(*grid_, *press_, cell, reach())
                 : plan_.box ? ovalIn(*grid_, *press_, cell, *plan_.box, reach())
                             : ovalOf(*grid_, *press_, cell, reach());
        if (plan_.options.outlines) shape_ = outlineOf(*grid_, shape_);
        anchor = [&] {
          const SidePos far = grid_->toSide(cell);
          return SidePos{std::min(anchor.u, far.u), std::min(anchor.v, far.v)};
        }();
        break;
      default:
        shape_ = plan_.given.empty() ? regionOf(before_, regionAsk(cell), cell) : plan_.given;
        anchor = grid_->toSide({bounds_.x0, bounds_.y0});
    }
    const CellRect extent = plan_.hand.wholeExtent();
    anchor = anchor - SidePos{extent.x0, extent.y0};
    pattern_.emplace(before_, *grid_, plan_.hand, anchor, plan_.seed);
    if (mixes()) mixing_.emplace(before_, *grid_, plan_.hand, plan_.seed);
    CellSet cells = shape_;
    if (plan_.tool == Tool::line && !mixes() && !pattern_->everywhere(0)) {
      CellSet copies;
      pattern_.emplace(before_, *grid_, plan_.hand, grid_->toSide(*press_), plan_.seed);
      shape_.forEachStretch([&](CellPos from, int count) {
        for (int i = 0; i < count; ++i) {
          for (const SidePos place : pattern_->copyUnder(grid_->toSide({from.x + i, from.y}))) {
            copies.insert(grid_->fromSide(place));
          }
        }
      });
      cells = copies;
    }
    cells = allowed(cells);
    if (!land(cells)) return;
    const bool alike = !mixes() && pattern_->everywhere(0) && plan_.hand.others.empty();
    if (plan_.mostLaid > 0 && !alike && cells.count() > plan_.mostLaid) {
      putOff_ = true;
      cells_ = cells;
      return;
    }
    lay(cells);
  }

  RegionAsk regionAsk(CellPos cell) const {
    RegionAsk ask;
    ask.layer = plan_.layer;
    ask.asSeen = plan_.options.asSeen.value_or(usuallyAsSeen(before_, plan_.layer, cell));
    ask.everywhere = plan_.everywhere;
    ask.onlyThis = plan_.options.onlyThis;
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
    pattern_.emplace(before_, *grid_, plan_.hand, SidePos{box.x0, box.y0}, plan_.seed);
    pattern_->stretchOver(box);
    const CellSet cells = allowed(shape_);
    if (land(cells)) lay(cells);
  }

  // Lays what is in hand on cells that may be touched, on all its layers.
  void lay(const CellSet& cells) {
    if (cells.empty()) return;
    for (std::size_t part = 0; part < landing_.layers.size(); ++part) {
      const Layer* layer = now_.layer(landing_.layers[part]);
      if (!layer) continue;
      Laying edited{layer->cells, layer->lifts};
      if (part == 0 && mixes()) {
        throwOver(edited, cells);
      } else {
        const auto everywhere = pattern_->everywhere(part);
        if (everywhere && !(careful_ && part == 0)) {
          layOne(edited, plan_.takesAway ? Laid{} : *everywhere, cells);
          cells_ = cells_.united(cells);
        } else {
          layEach(edited, part, cells);
        }
      }
      now_ = now_.with(landing_.layers[part], std::move(edited.cells), std::move(edited.lifts));
    }
  }

  struct Laying {
    CellGrid cells;
    NumberGrid lifts;
  };

  int liftOf(const Laid& laid) const { return laid.cell.empty() ? 0 : std::min(laid.lift + plan_.lift, kMostLift); }

  void put(Laying& layer, CellPos at, const Laid& laid) const {
    layer.cells.set(at, laid.cell);
    const int lift = liftOf(laid);
    if (lift != 0 || !layer.lifts.empty()) layer.lifts.set(at, lift);
  }

  void layOne(Laying& layer, const Laid& laid, const CellSet& cells) const {
    layer.cells.fill(cells, laid.cell);
    const int lift = liftOf(laid);
    if (lift != 0 || !layer.lifts.empty()) layer.lifts.fill(cells, lift);
  }

  void layEach(Laying& layer, std::size_t part, const CellSet& cells) {
    CellSet touched;
    cells.forEachChunk([&](ChunkPos at, const ChunkRows* rows) {
      ChunkRows laidRows{};
      static const ChunkRows kAll = [] {
        ChunkRows all;
        all.fill(~std::uint64_t{0});
        return all;
      }();
      CellReader there(layer.cells);
      writeChunk(layer, at, rows ? *rows : kAll, [&](CellPos cell) -> std::optional<Laid> {
        auto laid = pattern_->at(part, grid_->toSide(cell));
        if (!laid) return std::nullopt;
        if (plan_.takesAway) laid = Laid{};
        if (careful_ && part == 0 && keeps(before_.layer(landing_.layers[part]), cell, *laid)) {
          keptCells_.insert(cell);
          return std::nullopt;
        }
        laidRows[static_cast<std::size_t>(cell.y - at.cy * kChunkSide)] |= std::uint64_t{1}
                                                                           << (cell.x - at.cx * kChunkSide);
        return laid;
      });
      for (int y = 0; y < kChunkSide; ++y) {
        std::uint64_t row = laidRows[static_cast<std::size_t>(y)];
        while (row != 0) {
          const int x = std::countr_zero(row);
          const int count = std::countr_one(row >> x);
          touched.insert({at.cx * kChunkSide + x, at.cy * kChunkSide + y}, count);
          row &= ~bitsOf(x, x + count);
        }
      }
    });
    cells_ = cells_.united(touched);
  }

  // Whether what lies on a cell stays, since it covers and what would be laid does not.
  bool keeps(const Layer* layer, CellPos at, const Laid& laid) {
    if (!layer || laid.cell.empty()) return false;
    const Cell there = layer->cells.at(at);
    return !there.empty() && coversCell(there) && !coversCell(laid.cell);
  }
  bool coversCell(Cell cell) {
    const auto [known, isNew] = covering_.try_emplace(cell.tile(), false);
    if (isNew) known->second = !plan_.covers || plan_.covers(cell.tile());
    return known->second;
  }

  // Calls `what` for each cell of a chunk's rows, and lays what it says.
  template <class What>
  void writeChunk(Laying& layer, ChunkPos at, const ChunkRows& rows, What&& what) const {
    int count = 0;
    for (const std::uint64_t row : rows) count += std::popcount(row);
    if (count <= kFewCells) {
      forEachBit(at, rows, [&](CellPos cell, std::size_t) {
        if (const auto laid = what(cell)) put(layer, cell, *laid);
      });
      return;
    }
    ChunkCells cells = layer.cells.chunk(at).cells();
    const bool hadLifts = !layer.lifts.empty();
    forEachBit(at, rows, [&](CellPos cell, std::size_t index) {
      const std::optional<Laid> laid = what(cell);
      if (!laid) return;
      cells[index] = laid->cell;
      const int lift = liftOf(*laid);
      if (lift != 0 || hadLifts) layer.lifts.set(cell, lift);
    });
    layer.cells.setChunk(at, cells);
  }

  // A mix: one throw a cell, one after another.
  void throwOver(Laying& layer, const CellSet& cells) {
    const bool brushes = plan_.tool == Tool::brush;
    const bool looksAtRim = std::any_of(plan_.hand.members.begin(), plan_.hand.members.end(),
                                        [](const MixMember& member) { return member.keepsOffRim; });
    const CellSet rim = looksAtRim ? outlineOf(*grid_, brushes ? allowed(shape_) : cells) : CellSet();
    const Layer* old = before_.layer(landing_.layers.front());
    Mixing::Around around;
    around.cell = [&](SidePos at) { return layer.cells.at(grid_->fromSide(at)); };
    CellSet laid;
    around.free = [&](SidePos at) {
      const CellPos cell = grid_->fromSide(at);
      if (!bounds_.contains(cell) || (!plan_.within.empty() && !plan_.within.contains(cell))) return false;
      if (laid.contains(cell) || cells_.contains(cell)) return false;
      return brushes || cells.contains(cell);
    };
    const int sides = grid_->turnOrder();
    cells.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        const CellPos cell{first.x + i, first.y};
        if (laid.contains(cell)) continue;
        around.atRim = looksAtRim && rim.contains(cell);
        around.beside.clear();
        if (plan_.hand.neverAlike) {
          for (int side = 0; side < sides; ++side) around.beside.push_back(grid_->toSide(grid_->across(cell, side)));
        }
        mixing_->throwAt(grid_->toSide(cell), around, [&](SidePos place, Laid one) {
          const CellPos at = grid_->fromSide(place);
          if (careful_ && keeps(old, at, one)) {
            keptCells_.insert(at);
            return;
          }
          put(layer, at, one);
          laid.insert(at);
        });
      }
    });
    // A cell that the throw left alone is thrown for, too.
    cells_ = cells_.united(laid).united(cells);
  }

  std::unique_ptr<const Grid> grid_;
  CellRect bounds_;
  std::optional<CellPos> press_;
  std::optional<CellPos> last_;
  std::optional<Pattern> pattern_;
  std::optional<Mixing> mixing_;
  bool careful_ = false;
  bool putOff_ = false;
  std::map<TileRef, bool> covering_;
};

Stroke::Stroke(Quilt before, StrokePlan plan) : work_(std::make_unique<Work>(std::move(before), std::move(plan))) {}
Stroke::~Stroke() = default;
Stroke::Stroke(Stroke&&) noexcept = default;
Stroke& Stroke::operator=(Stroke&&) noexcept = default;

void Stroke::moveTo(CellPos cell, bool even) { work_->moveTo(cell, even); }
void Stroke::finish() { work_->finish(); }
void Stroke::refit(CellRect box) { work_->refit(box); }
const StrokePlan& Stroke::plan() const { return work_->plan_; }
const Quilt& Stroke::before() const { return work_->before_; }
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
  plan.layer = desk.landing();
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
