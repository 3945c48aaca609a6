#include "core/edit/StrokeWork.h"

#include <algorithm>

#include "core/edit/JoinLaying.h"
#include "core/edit/Turned.h"

namespace uq {

namespace {

const InHand kEraser{Block::of(Cell({1, 0}, {}))};

}  // namespace

Stroke::Work::Work(Quilt before, StrokePlan plan) : before_(std::move(before)), plan_(std::move(plan)), now_(before_) {
  landing_.quilt = before_;
  const Map* map = before_.map(plan_.layer.map);
  if (!map || !before_.layer(plan_.layer)) {
    refusal_ = "This map has no layer to paint on";
    return;
  }
  grid_ = makeGrid(map->grid);
  plan_.hand = turnedFor(plan_.hand, *grid_);
  if (plan_.tool == Tool::erase) {
    plan_.takesAway = true;
    if (!plan_.hand.joins()) plan_.hand = kEraser;
  }
  if (plan_.takesAway && plan_.hand.empty()) plan_.hand = kEraser;
  const Edging* edging = plan_.hand.joins() ? before_.edging(plan_.hand.edging) : nullptr;
  if (edging) {
    plan_.hand.others = hemParts(before_, *edging, plan_.hand.material, *map, plan_.takesAway);
  }
  if (plan_.hand.manner == Manner::mix && plan_.hand.members.empty()) plan_.hand.manner = Manner::asItIs;
  if (plan_.takesAway && plan_.hand.manner == Manner::mix) plan_.hand = kEraser;
  if (plan_.takesAway && plan_.tool != Tool::brush && plan_.hand.isOneTile()) plan_.hand = kEraser;
  const bool alone = plan_.options.onlyThisMap || plan_.everywhere || !plan_.within.empty() || swaps();
  if (!alone) closed_ = closedMaps(before_, plan_.layer, plan_.shut, plan_.unchangeable);
  patchwork_ = alone ? Patchwork::under(before_, map->id) : Patchwork::across(before_, map->id, closedIds());
  if (patchwork_.isPlain()) return;
  // Hems reach as far as they are high.
  const int hems = edging && !edging->hems.empty() ? kMostHemRows + 2 : 0;
  const int margin = hems + 2 * std::max(plan_.hand.wholeExtent().width(), plan_.hand.wholeExtent().height()) + 2;
  across_.emplace(patchwork_, plan_.shut, plan_.takesAway, margin, plan_.ids);
}

std::set<Id> Stroke::Work::mapsLaidOn() const {
  std::set<Id> maps;
  const CellRect all = cells_.bounds();
  for (const Patch& patch : patchwork_.meeting(all)) {
    const CellRect common = patch.cells.intersected(all);
    const bool isLaid = common == all || !cells_.intersected(CellSet(common)).empty();
    if (!maps.contains(patch.map) && isLaid) maps.insert(patch.map);
  }
  return maps;
}

Laid Stroke::Work::laidAt(CellPos canvas) const {
  const auto patch = patchwork_.at(canvas);
  if (!patch || landing_.layers.empty()) return {};
  const auto at = partnerOn(now_, landing_.layers.front(), patch->map);
  const Layer* layer = at ? now_.layer(*at) : nullptr;
  return layer ? layer->laidAt(patch->onMap(canvas)) : Laid();
}

std::string Stroke::Work::stopsAt() const {
  if (closed_.empty() || !grid_) return {};
  const CellSet wanted = shape_.united(footprint_.empty() ? CellSet() : CellSet(footprint_.intersected(reach())));
  // A fill stands at the stitch, where it would go on.
  CellRect near = plan_.tool == Tool::fill ? wanted.bounds().grown(1) : wanted.bounds();
  if (last_) near = near.united(CellRect::around(*last_, *last_));
  for (const Patch& patch : Patchwork::across(before_, plan_.layer.map).meeting(near)) {
    const auto why = closed_.find(patch.map);
    if (why != closed_.end()) return why->second;
  }
  return {};
}

void Stroke::Work::moveTo(const StrokeMove& move) {
  const auto& [cell, even, corner] = move;
  if (!grid_ || plan_.hand.empty()) return;
  if (!press_) press_ = cell;
  lastEven_ = even;
  if (goesByPath() && laysCorners(before_, plan_.layer.map, plan_.tool, plan_.options, plan_.hand)) {
    cornersTo({cell, corner});
  } else if (goesByPath()) {
    brushTo(cell);
  } else if (plan_.tool != Tool::fill || !last_) {
    layAnew(cell, even);
  }
  last_ = cell;
}

void Stroke::Work::finish() {
  if (!std::exchange(putOff_, false)) return;
  const CellSet cells = std::exchange(cells_, {});
  lay(cells);
}

void Stroke::Work::refit(CellRect box) {
  if (grid_ && stretches() && press_) layStretch(box);
}

std::optional<CellRect> Stroke::Work::beyond() const {
  const bool clips = plan_.takesAway || !plan_.within.empty() || plan_.tool == Tool::fill || !refusal_.empty();
  if (clips || !press_) return std::nullopt;
  CellRect wanted = footprint_.united(shape_.bounds());
  if (wanted.empty()) return std::nullopt;
  const auto common = patchwork_.among(CellSet(wanted.intersected(reach())));
  if (!patchwork_.isPlain() && common.bounds() == wanted && common.count() == wanted.count()) return std::nullopt;
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

CellRect Stroke::Work::besideSewn(CellRect to) const {
  const CellRect own = before_.map(plan_.layer.map)->bounds;
  const Patchwork all = Patchwork::across(before_, plan_.layer.map);
  if (all.period().across > 0) to.x0 = own.x0, to.x1 = own.x1;
  if (all.period().down > 0) to.y0 = own.y0, to.y1 = own.y1;
  for (const Patch& patch : all.patches()) {
    if (patch.map == plan_.layer.map || patch.cells.intersected(to).empty()) continue;
    if (patch.cells.x0 >= own.x1) to.x1 = std::min(to.x1, patch.cells.x0);
    else if (patch.cells.x1 <= own.x0) to.x0 = std::max(to.x0, patch.cells.x1);
    else if (patch.cells.y0 >= own.y1) to.y1 = std::min(to.y1, patch.cells.y0);
    else to.y0 = std::max(to.y0, patch.cells.y1);
  }
  return to;
}

std::set<Id> Stroke::Work::closedIds() const {
  std::set<Id> ids;
  for (const auto& [map, why] : closed_) ids.insert(map);
  return ids;
}

CellSet Stroke::Work::allowed(const CellSet& cells) const {
  const CellSet here = patchwork_.among(cells);
  return plan_.within.empty() ? here : here.intersected(plan_.within);
}

bool Stroke::Work::mayTouch(CellPos cell) const {
  return patchwork_.contains(cell) && (plan_.within.empty() || plan_.within.contains(cell));
}

void Stroke::Work::planLaying(SidePos anchor, std::optional<CellRect> stretched) {
  laying_ = layingFor({before_, *grid_, plan_.hand, plan_.takesAway, plan_.lift, anchor, stretched, plan_.seed,
                       plan_.options.joinsMet, [this](CellPos cell) { return isGround(cell); }, careful_ ? plan_.covers : Covers()});
}

bool Stroke::Work::isGround(CellPos cell) const {
  const auto patch = patchwork_.at(cell);
  const Map* map = patch ? seen_.map(patch->map) : nullptr;
  return map && hasGround(*map, patch->onMap(cell));
}

bool Stroke::Work::land(const CellSet& judged, std::function<bool(const Layer&)> wipes) {
  landing_ = landingOf(before_, {plan_.layer, plan_.hand, plan_.obeys, plan_.takesAway, plan_.shut, plan_.covers, std::move(wipes)},
                       judged, IdSource(plan_.ids));
  now_ = landing_.quilt;
  refusal_ = landing_.refusal;
  return refusal_.empty();
}

bool Stroke::Work::wipes(const Layer& layer, const CellSet& copy) const {
  LayerCells edited = layer;
  const Laying::Ask ask{0, &layer, copy, {}, [&] { return copy; }, true, [this](CellPos cell) { return mayTouch(cell); }};
  if (!laying_->lay(edited, ask).kept.empty()) return true;
  bool found = false;
  layer.cells.forEachPainted(copy.bounds(), [&](CellPos at, Cell cell) {
    found = found || (copy.contains(at) && edited.cells.at(at) != cell);
  });
  return found;
}

void Stroke::Work::brushTo(CellPos cell) {
  if (!laying_) {
    CellSet judged = brushed(*grid_, std::span(&cell, 1), plan_.options.width);
    if (!plan_.hand.isOneTile() && !mixes() && !plan_.hand.joins()) judged = CellSet(CellRect{cell.x, cell.y, cell.x + 1, cell.y + 1});
    careful_ = !plan_.hand.joins() && plan_.covers && !plan_.takesAway && !plan_.obeys && !covers(plan_.hand, plan_.covers);
    planLaying(grid_->toSide(*press_));
    if (careful_ && !plan_.hand.isOneTile() && !mixes()) {
      const CellSet copy = allowed(laying_->whole(judged));
      land(copy, [this, copy](const Layer& layer) { return wipes(layer, copy); });
    } else {
      land(allowed(judged));
    }
  }
  if (!refusal_.empty()) return;
  // What joins goes through sides.
  const CellPos from = last_.value_or(cell);
  const std::vector<CellPos> line = nearMap(plan_.hand.joins() ? grid_->sideLine(from, cell) : grid_->line(from, cell));
  const auto alike = laying_->alike();
  if (alike && plan_.options.width == 1 && !careful_ && plan_.hand.others.empty()) return brushSingle(line, *alike);
  const CellSet fresh = brushed(*grid_, line, plan_.options.width);
  shape_ = shape_.united(fresh);
  const CellSet whole = laying_->whole(fresh);
  footprint_ = footprint_.united(whole.bounds());
  if (!plan_.hand.joins()) return lay(allowed(whole).without(cells_));
  way_ = plan_.options.width == 1 ? line : std::vector<CellPos>();
  lay(allowed(whole));
}

void Stroke::Work::cornersTo(const CellCorner& corner) {
  const auto around = [&](const std::vector<CellCorner>& corners) {
    CellSet cells;
    for (const CellCorner& one : corners) {
      for (const CellPos at : grid_->aroundCorner(one.cell, one.corner)) cells.insert(at);
    }
    return cells;
  };
  if (!laying_) {
    planLaying(grid_->toSide(*press_));
    land(allowed(around({corner})));
  }
  if (!refusal_.empty()) return;
  corners_ = lastCorner_ ? cornersBetween(*grid_, *lastCorner_, corner) : std::vector{corner};
  lastCorner_ = corner;
  // A corner is laid where one of its cells may be touched.
  std::erase_if(corners_, [&](const CellCorner& one) { return allowed(around({one})).empty(); });
  const CellSet cells = around(corners_);
  shape_ = shape_.united(cells);
  footprint_ = footprint_.united(allowed(cells).bounds());
  if (!corners_.empty()) lay(allowed(cells));
}

void Stroke::Work::brushSingle(const std::vector<CellPos>& line, const Laid& laid) {
  const LayerAt home = landing_.layers.front();
  if (!now_.layer(home)) return;
  Patch own{home.map, {}, {}};
  LayerAt onto = home;
  LayerCells edited;
  bool changes = false;
  const auto put = [&] {
    if (!std::exchange(changes, false)) return;
    Layer next = *now_.layer(onto);
    static_cast<LayerCells&>(next) = std::move(edited);
    now_ = now_.with(onto, std::move(next));
  };
  for (const CellPos cell : line) {
    shape_.insert(cell);
    if (!mayTouch(cell)) continue;
    if (!own.cells.contains(cell)) {
      put();
      own = *patchwork_.at(cell);
      const auto partner = across_ ? across_->partner(now_, home, own.map) : std::optional(home);
      onto = partner.value_or(LayerAt());
      if (partner) edited = *now_.layer(onto);
    }
    if (onto.layer.empty()) continue;
    cells_.insert(cell);
    const CellPos there = own.onMap(cell);
    // Comparing the layers afterwards would take as long as all the rest.
    if (edited.laidAt(there) == laid) continue;
    changes = true;
    edited.lay(there, laid);
  }
  put();
}

std::vector<CellPos> Stroke::Work::nearMap(std::vector<CellPos> line) const {
  if (!plan_.hand.isOneTile() && !mixes()) return line;
  std::erase_if(line, [near = reach()](CellPos at) { return !near.contains(at); });
  return line;
}

void Stroke::Work::lay(const CellSet& cells) {
  if (cells.empty()) return;
  CellSet all;
  for (std::size_t part = 0; part < landing_.layers.size(); ++part) {
    const LayerAt at = landing_.layers[part];
    const Layer* layer = now_.layer(at);
    if (!layer) continue;
    const bool brushes = plan_.tool == Tool::brush;
    const Laying::Ask ask{part,
                          before_.layer(at),
                          cells,
                          cells_,
                          [&] { return brushes ? allowed(shape_) : cells; },
                          brushes,
                          [this](CellPos cell) { return mayTouch(cell); },
                          way_,
                          part > 0 && at == landing_.layers.front(),
                          corners_};
    Laying::Touched touched;
    if (part > 0 || plan_.hand.joins()) seen_ = now_;
    if (across_) {
      const bool alike = laying_->alike() && plan_.hand.others.empty() && !careful_;
      now_ = across_->lay(std::move(now_), before_, at, *laying_, ask, alike, touched);
    } else {
      LayerCells edited = *layer;
      touched = laying_->lay(edited, ask);
      now_ = now_.with(at, std::move(edited));
    }
    all = all.united(touched.cells);
    if (!touched.beside.empty()) all = all.united(touched.beside);
    cells_ = cells_.united(all);
    keptCells_ = keptCells_.united(touched.kept);
  }
  layHems(all);
}

void Stroke::Work::layHems(const CellSet& touched) {
  const auto brought = laying_->bringsAlong();
  const Id home = plan_.layer.map;
  const CellSet here = allowed(touched);
  if (brought.empty() || here.empty()) return;
  // Hems reach as far as they are high.
  const CellRect box = here.bounds().grown(kMostHemRows + 2);
  const Quilt before = across_ ? across_->asOneMap(before_, home, box) : before_;
  for (const Edging* edging : brought) {
    for (const LayerAt& at : landing_.layers) {
      if (at.map != home) continue;
      const Quilt now = across_ ? across_->asOneMap(now_, home, box) : now_;
      HemsMended mended = withHemsMended(before, now, at, *edging, here, [this](CellPos cell) { return mayTouch(cell); });
      cells_ = cells_.united(mended.changed);
      if (!across_) {
        now_ = std::move(mended.quilt);
        continue;
      }
      for (const Shared<Layer>& layer : mended.quilt.map(home)->layers) {
        const Layer* was = now.layer({home, layer->id});
        if (was && !was->sameAs(layer.read())) now_ = across_->givenBack(std::move(now_), layer.read(), {home, layer->id}, mended.changed);
      }
    }
  }
}

}  // namespace uq
