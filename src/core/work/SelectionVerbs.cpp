#include "core/work/SelectionVerbs.h"

#include "core/edit/LaidStamps.h"

#include "core/cells/CellShapes.h"
#include "core/edit/LayCells.h"
#include "core/edit/Region.h"
#include "core/edit/Rejoin.h"
#include "core/edit/Selected.h"
#include "core/work/StepNames.h"
#include "core/work/Strokes.h"

namespace uq {

// A laid stamp goes as it is, so that it is found again.
bool SelectionVerbs::joins() const { return work_.desk().options.joinsMet && work_.desk().selectedStamp.empty(); }

bool SelectionVerbs::mayHoldAll() const {
  if (!work_.map()) return false;
  if (!isTooWide(work_.map()->bounds)) return true;
  work_.refuse("This map is too large for that: select a part of it by hand");
  return false;
}

void SelectionVerbs::step(std::string_view verb, const std::function<Quilt()>& edit, std::optional<CellSet> selection) {
  if (work_.gesture() || !takesChange(work_, selectedOf(work_.desk(), work_.quilt()).at())) return;
  const std::string name = verbName(work_.desk(), work_.quilt(), verb);
  Quilt after = edit();
  if (joins()) after = joinedWhereChanged(work_.quilt(), after, work_.desk().map);
  (void)work_.make({name, std::move(after), work_.desk().activeAt(), selection ? std::move(selection) : std::optional(work_.desk().selection())});
}

void SelectionVerbs::select(const CellSet& cells, Selecting how) {
  if (cells.empty()) return work_.refuse("That is more than can be selected at once: select a smaller part");
  Desk desk = work_.desk();
  switch (how) {
    case Selecting::anew: desk.select(cells); break;
    case Selecting::more: desk.select(desk.selection().united(cells)); break;
    case Selecting::less: desk.select(desk.selection().without(cells)); break;
  }
  work_.setDesk(std::move(desk));
}

CellSet SelectionVerbs::alike(CellPos at) const {
  const Desk& desk = work_.desk();
  RegionAsk ask;
  ask.layer = desk.activeAt();
  ask.everywhere = desk.options.selectBy == SelectBy::everywhere;
  ask.alike = desk.options.alike;
  ask.through = desk.options.throughCorners ? Through::corners : Through::sides;
  ask.asSeen = desk.options.asSeen.value_or(usuallyAsSeen(work_.quilt(), ask.layer, at));
  ask.hidden = desk.hidden;
  ask.hand = &desk.inHand;
  return regionOf(work_.quilt(), ask, at);
}

CellSet SelectionVerbs::boxed(CellPos from, CellPos to) const {
  if (!work_.map()) return {};
  const auto grid = makeGrid(work_.map()->grid);
  const CellRect bounds = work_.map()->bounds;
  const CellRect around = CellRect::around(from, to);
  if (isTooWide(bounds) && isTooWide(around.grown(around.width()).intersected(bounds))) return {};
  return boxOf(*grid, from, to, work_.desk().box.value_or(usualBox(grid->shape().kind)), bounds);
}

void SelectionVerbs::selectAll() {
  if (!mayHoldAll()) return;
  Desk desk = work_.desk();
  desk.tool = Tool::select;
  desk.select(CellSet(work_.map()->bounds));
  work_.setDesk(std::move(desk));
}

bool SelectionVerbs::selectStampAt(CellPos at) {
  const Map* map = work_.map();
  if (!map || work_.gesture()) return false;
  auto laid = laidStampAt(work_.quilt(), work_.desk().activeAt(), at);
  for (std::size_t i = map->layers.size(); i-- > 0 && !laid;) {
    if (!work_.desk().hidden.contains(map->layers[i]->id)) {
      laid = laidStampAt(work_.quilt(), {map->id, map->layers[i]->id}, at);
    }
  }
  if (!laid) return false;
  Desk desk = work_.desk();
  desk.select(cellsOf(work_.quilt(), *laid).all, laid->stamp);
  if (!desk.hidden.contains(laid->layers.front())) desk.activeLayer[desk.map] = laid->layers.front();
  work_.setDesk(std::move(desk));
  return true;
}

void SelectionVerbs::grow() {
  if (!work_.map()) return;
  Desk desk = work_.desk();
  const CellSet more = grown(*makeGrid(work_.map()->grid), desk.selection());
  desk.select(more.intersected(CellSet(more.bounds().intersected(work_.map()->bounds))));
  work_.setDesk(std::move(desk));
}

void SelectionVerbs::shrink() {
  if (!work_.map()) return;
  Desk desk = work_.desk();
  CellSet less = shrunk(*makeGrid(work_.map()->grid), desk.selection());
  if (less.empty()) return work_.refuse("Nothing would be left of the selection");
  desk.select(std::move(less));
  work_.setDesk(std::move(desk));
}

void SelectionVerbs::invert() {
  if (!mayHoldAll()) return;
  Desk desk = work_.desk();
  desk.tool = Tool::select;
  desk.select(CellSet(work_.map()->bounds).without(desk.selection()));
  work_.setDesk(std::move(desk));
}

std::optional<InHand> SelectionVerbs::copied() const {
  const Desk& desk = work_.desk();
  auto hand = copyOf(work_.quilt(), selectedOf(desk, work_.quilt()), desk.activeAt());
  if (hand && !hand->empty()) return hand;
  work_.refuse(hand ? "Nothing is painted there on this layer" : "More than a million cells cannot be held at once");
  return std::nullopt;
}

void SelectionVerbs::remove() {
  step("Delete", [this] {
    return clearCells(work_.quilt(), selectedOf(work_.desk(), work_.quilt()));
  });
}

void SelectionVerbs::cut() {
  step("Cut", [this] {
    return clearCells(work_.quilt(), selectedOf(work_.desk(), work_.quilt()));
  });
}

void SelectionVerbs::nudge(SidePos by) {
  if (!work_.map()) return;
  const auto edit = [this, by] {
    return moveCells(work_.quilt(), selectedOf(work_.desk(), work_.quilt()), by);
  };
  step("Move", edit, movedSelection(*work_.map(), work_.desk().selection(), by));
}

void SelectionVerbs::turn(Turning turning) {
  const Quilt& quilt = work_.quilt();
  const CellSet& selection = work_.desk().selection();
  if (!work_.map() || selection.empty()) return;
  const SelectedCells selected = selectedOf(work_.desk(), quilt);
  for (const auto& [at, cells] : selected.layers) {
    const auto block = copyOf(quilt, at, cells);
    const std::string why = block ? whyNoTurning(quilt, *block, turning) : "More than a million cells are too many";
    if (!why.empty()) return work_.refuse(why);
  }
  const TurnedCells turned = turnCells(quilt, selected, turning, turnGrip_);
  turnGrip_ = turned.grip;
  step("Turn", [&] { return turned.quilt; }, turned.selected);
}

void SelectionVerbs::fill() {
  if (work_.desk().selection().empty()) return;
  if (const std::string why = whyNoStroke(work_, false, Tool::fill); !why.empty()) return work_.refuse(why);
  Strokes::Ask ask;
  ask.given = work_.desk().selection();
  ask.path = {{ask.given.bounds().x0, ask.given.bounds().y0}};
  ask.tool = Tool::fill;
  Strokes(work_).begin(ask);
  (void)work_.finish();
}

void SelectionVerbs::toLayer(int steps) {
  const Map* here = work_.map();
  const auto index = here ? here->layerIndex(work_.desk().activeAt().layer) : std::nullopt;
  const auto wanted = static_cast<std::ptrdiff_t>(index.value_or(0)) + steps;
  if (!index || wanted < 0 || wanted >= static_cast<std::ptrdiff_t>(here->layers.size())) {
    return work_.refuse(steps > 0 ? "This is the nearest layer" : "This is the farthest layer");
  }
  toLayer(here->layers[static_cast<std::size_t>(wanted)]->id);
}

void SelectionVerbs::toLayer(Id layer) {
  const LayerAt from = work_.desk().activeAt();
  const LayerAt to{from.map, layer};
  const Layer* target = work_.quilt().layer(to);
  if (!target || from.layer == layer || work_.desk().selection().empty()) return;
  const std::vector<LayerAt> both{from, to};
  if (!takesChange(work_, both)) return;
  work_.step("Move to " + target->name, moveToLayer(work_.quilt(), from, layer, work_.desk().selection()), to);
}

void SelectionVerbs::beginMove() {
  SelectedCells selected = selectedOf(work_.desk(), work_.quilt());
  if (work_.gesture() || work_.desk().selection().empty() || !takesChange(work_, selected.at())) return;
  (void)work_.begin(verbName(work_.desk(), work_.quilt(), "Move"),
                    Gesture::moving(work_.quilt(), std::move(selected), joins()));
}

void SelectionVerbs::moveBy(SidePos by) {
  Gesture* gesture = work_.gesture();
  if (!gesture || gesture->kind() != Gesture::Kind::move) return;
  gesture->moveBy(by);
  work_.show();
}

void SelectionVerbs::removeCell(Id layer, CellPos at) {
  const LayerAt place{work_.desk().map, layer};
  const Layer* on = work_.quilt().layer(place);
  if (!on || !takesChange(work_, std::span(&place, 1))) return;
  const CellChange gone{at, Cell()};
  work_.step("Delete on " + on->name, layCells(work_.quilt(), place, std::span(&gone, 1)));
}

void SelectionVerbs::moveCell(Id layer, CellPos at, Id to) {
  const std::vector<LayerAt> both{{work_.desk().map, layer}, {work_.desk().map, to}};
  const Layer* target = work_.quilt().layer(both.back());
  if (!target || !takesChange(work_, both)) return;
  const CellSet one({at.x, at.y, at.x + 1, at.y + 1});
  work_.step("Move to " + target->name, moveToLayer(work_.quilt(), both.front(), to, one), both.back());
}

SwapAsk SelectionVerbs::swapAsk(TileRef from, TileRef to, SwapIn in) const {
  return {from, to, in, work_.desk().activeAt(), work_.desk().selection()};
}

std::int64_t SelectionVerbs::swap(TileRef from, TileRef to, SwapIn in) {
  if (work_.gesture()) return 0;
  const SwapAsk ask = swapAsk(from, to, in);
  const bool onOne = in == SwapIn::selection || in == SwapIn::layer;
  if (onOne && !takesChange(work_, std::span(&ask.at, 1))) return 0;
  Swapped swapped = swapTiles(work_.quilt(), ask);
  if (swapped.cells == 0) {
    work_.refuse("That tile lies nowhere there");
    return 0;
  }
  const Sheet* sheet = work_.quilt().sheetAt(from.slot);
  const std::string name = "Swap " + (sheet ? sheet->tileName(from.number) : "a tile");
  const auto made = work_.make({name, std::move(swapped.quilt), work_.desk().activeAt()});
  return made ? swapped.cells : 0;
}

}  // namespace uq
