#include "core/work/HandVerbs.h"

#include <algorithm>
#include <utility>

#include "core/edit/Edgings.h"
#include "core/edit/LaidStamps.h"
#include "core/edit/Selected.h"
#include "core/edit/Turned.h"
#include "core/work/StepNames.h"
#include "core/work/Strokes.h"

namespace uq {

namespace {

// What one takes is to be laid.
void readyTool(Desk& desk) {
  if (desk.tool == Tool::erase || desk.tool == Tool::select) desk.tool = Tool::brush;
}

// Whether a tile shows nothing at all.
bool isBlank(const Quilt& quilt, TileRef tile) {
  const Sheet* sheet = tile.slot == kChalkSlot ? nullptr : quilt.sheetAt(tile.slot);
  const auto cell = sheet ? sheet->cellOf(tile.number) : std::nullopt;
  return cell && *cell < sheet->marks->tiles.size() && sheet->marks->tiles[*cell] == 0;
}

// See-through tiles of a block wipe nothing out: they stay behind where there is something else to hold.
InHand withoutBlanks(const Quilt& quilt, InHand thing) {
  return thing.changed([&](const Block& block) {
    std::vector<Block::Part> seen;
    for (const Block::Part& part : block.parts()) {
      if (!isBlank(quilt, part.cell.tile())) seen.push_back(part);
    }
    return seen.empty() || seen.size() == block.parts().size() ? block : Block(std::move(seen));
  });
}

// A block as it is laid while stretches are chosen; what was kept stays as it was kept.
InHand asChosen(const Desk& desk, InHand thing) {
  const bool isBlock = thing.stamp.empty() && thing.manner == Manner::asItIs && thing.parts().size() > 1;
  return desk.stretches && isBlock ? thing.inManner(Manner::stretch) : thing;
}

constexpr const char* kTooMuchToHold = "More than a million cells cannot be held at once";

}  // namespace

void HandVerbs::take(InHand thing) {
  if (awaitedPartner_ && thing.isOneTile()) return setPartner(*awaitedPartner_, thing.parts().front().cell.tile());
  awaitedPartner_.reset();
  heldBefore_.reset();
  // A stamp stays what it was kept as.
  if (thing.stamp.empty()) thing = withoutBlanks(work_.quilt(), std::move(thing));
  Desk desk = work_.desk();
  desk.lift = 0;
  readyTool(desk);
  desk = landingFor(std::move(desk), work_.quilt(), thing, work_.covers());
  desk.hold(asChosen(desk, std::move(thing)));
  work_.setDesk(std::move(desk));
}

void HandVerbs::takeCell(Id layer, CellPos at) {
  const Layer* from = work_.quilt().layer({work_.desk().map, layer});
  const auto [cell, lift] = from ? from->laidAt(at) : Laid();
  if (cell.empty()) return;
  if (awaitedPartner_) return setPartner(*awaitedPartner_, cell.tile());
  heldBefore_.reset();
  Desk desk = work_.desk();
  InHand taken(Block::of(cell), gridHere());
  // Where materials are painted what lies there is taken for what it shows.
  const bool isMaterial = desk.joined.contains(layer);
  const auto of = isMaterial ? materialOfTile(work_.quilt(), gridHere(), cell, desk.inHand.edging) : std::nullopt;
  if (of) {
    InHand material = materialInHand(work_.quilt(), *of->edging, of->material);
    if (!material.empty()) taken = std::move(material);
  }
  desk.hold(std::move(taken));
  readyTool(desk);
  desk.activeLayer[desk.map] = layer;
  desk.obeysLayer = false;
  work_.setDesk(std::move(desk));
  setLift(lift);  // what lies above its layer is gone on with at its height
}

void HandVerbs::takeCells(const CellSet& cells, bool allSeen, bool cuts) {
  if (!work_.map() || work_.gesture()) return;
  Desk asked = work_.desk();
  asked.options.allLayers = allSeen;
  if (allSeen) asked.locked.clear();
  const std::vector<LayerAt> layers = layersOfVerb(asked, work_.quilt());
  const LayerAt landing = work_.desk().activeAt();
  auto copy = copyOf(work_.quilt(), layers, landing, cells);
  if (!copy || copy->empty()) return work_.refuse(copy ? "Nothing to take here" : kTooMuchToHold);
  // The layer on which its own block lay is the active one then.
  Id active = landing.layer;
  for (const LayerAt at : layers) {
    const auto block = copy->others.empty() ? std::nullopt : copyOf(work_.quilt(), at, cells);
    if (block && *block == copy->block && work_.quilt().layer(at)->role == copy->role) active = at.layer;
  }
  if (cuts) {
    if (!takesChange(work_, layers)) return;
    const std::string name = verbName(work_.desk(), work_.quilt(), "Cut");
    if (!work_.make({name, clearCells(work_.quilt(), layers, cells), landing})) return;
  }
  heldBefore_.reset();
  awaitedPartner_.reset();
  Desk desk = work_.desk();
  desk.lift = 0;
  desk.tool = Tool::brush;
  desk.obeysLayer = false;
  if (!active.empty()) desk.activeLayer[desk.map] = active;
  desk.hold(asChosen(desk, std::move(*copy)));
  work_.setDesk(std::move(desk));
}

void HandVerbs::takeSelected() {
  const CellSet cells = work_.desk().selection();
  if (cells.empty()) return;
  if (const auto laid = laidOn(work_.quilt(), work_.desk().map, work_.desk().selectedStamp, cells)) {
    take(work_.quilt().stamp(laid->stamp)->held);
  } else {
    takeCells(cells, true, false);
  }
  if (work_.desk().tool == Tool::select) return;  // nothing was there
  Desk desk = work_.desk();
  desk.select({});
  work_.setDesk(std::move(desk));
}

void HandVerbs::duplicateSelected() {
  const Desk& now = work_.desk();
  auto hand = copyOf(work_.quilt(), selectedOf(now, work_.quilt()), now.activeAt());
  if (!hand || hand->empty()) return work_.refuse(hand ? "Nothing is painted there on this layer" : kTooMuchToHold);
  const InHand before = heldBefore_.value_or(now.inHand);
  Desk desk = now;
  desk.inHand = std::move(*hand);
  desk.tool = Tool::brush;
  desk.lift = 0;
  desk.select({});
  heldBefore_ = before;
  work_.setDesk(std::move(desk));
}

void HandVerbs::gather(const Block& more) {
  if (more.empty()) return;
  if (work_.desk().inHand.empty()) return take(more);
  change(work_.desk().inHand.gathering(more));
  Desk desk = work_.desk();
  readyTool(desk);
  work_.setDesk(std::move(desk));
}

void HandVerbs::change(InHand changed) {
  Desk desk = work_.desk();
  // It takes its own place among what was held.
  const auto own = std::find(desk.held.begin(), desk.held.end(), desk.inHand);
  if (own != desk.held.end()) *own = changed;
  desk.inHand = std::move(changed);
  work_.setDesk(std::move(desk));
}

void HandVerbs::turn(Turning turning) {
  if (!work_.map()) return;
  const Quilt& quilt = work_.quilt();
  const InHand& hand = work_.desk().inHand;
  std::string why;
  const auto ask = [&](const Block& block) {
    if (why.empty()) why = whyNoTurning(quilt, block, turning);
    return block;
  };
  (void)hand.changed(ask);
  if (!why.empty()) return work_.refuse(why);
  const auto grid = makeGrid(work_.map()->grid);
  InHand turned = hand.changed([&](const Block& block) { return turnedBlock(quilt, *grid, block, turning); });
  // The ends go round with the block.
  StretchEnds& ends = turned.ends;
  switch (turning) {
    case Turning::mirrorAcross: std::swap(ends.left, ends.right); break;
    case Turning::mirrorDown: std::swap(ends.top, ends.bottom); break;
    case Turning::right:
      ends = {ends.bottom, ends.top, ends.left, ends.right, ends.stepDown, ends.stepAcross, ends.shuffles};
      break;
    case Turning::left:
      ends = {ends.top, ends.bottom, ends.right, ends.left, ends.stepDown, ends.stepAcross, ends.shuffles};
      break;
  }
  Desk desk = work_.desk();
  desk.inHand = std::move(turned);
  work_.setDesk(std::move(desk));
}

void HandVerbs::straighten() {
  Desk desk = work_.desk();
  desk.inHand = desk.inHand.changed([](const Block& block) { return block.straightened(); });
  desk.inHand.turnsByChance = false;
  work_.setDesk(std::move(desk));
}

void HandVerbs::setManner(Manner manner) {
  if (work_.desk().inHand.empty()) return;
  InHand hand = work_.desk().inHand.inManner(manner);
  hand.edging = {};
  change(std::move(hand));
  Desk desk = work_.desk();
  desk.stretches = manner == Manner::stretch;
  work_.setDesk(std::move(desk));
}

void HandVerbs::setJoins() {
  const InHand& hand = work_.desk().inHand;
  if (hand.joins() || !hand.isOneTile() || !work_.map()) return;
  const auto of = materialOfTile(work_.quilt(), work_.map()->grid.kind, hand.parts().front().cell);
  if (!of) return;
  InHand joined = materialInHand(work_.quilt(), *of->edging, of->material);
  if (!joined.empty()) change(std::move(joined));
}

void HandVerbs::setChance(bool on) {
  InHand hand = work_.desk().inHand;
  hand.turnsByChance = on;
  change(std::move(hand));
}

void HandVerbs::setRows(int rows) {
  InHand hand = work_.desk().inHand;
  hand.rows = std::clamp(rows, 1, kMostHemRows);
  change(std::move(hand));
}

void HandVerbs::setLift(int lift) {
  Desk desk = work_.desk();
  desk.lift = std::clamp(lift, 0, kMostLift);
  work_.setDesk(std::move(desk));
}

void HandVerbs::paste(InHand thing) {
  if (thing.empty()) return;
  const InHand before = heldBefore_.value_or(work_.desk().inHand);
  awaitedPartner_.reset();
  Desk desk = work_.desk();
  desk.lift = 0;
  desk.tool = Tool::brush;
  desk = landingFor(std::move(desk), work_.quilt(), thing, work_.covers());
  // Where it came from is no place to keep inside.
  desk.select({});
  desk.hold(std::move(thing));
  heldBefore_ = before;
  work_.setDesk(std::move(desk));
}

void HandVerbs::dropPaste() {
  if (!heldBefore_) return;
  Desk desk = work_.desk();
  desk.inHand = std::move(*heldBefore_);
  heldBefore_.reset();
  work_.setDesk(std::move(desk));
}

void HandVerbs::dropWork() {
  if (work_.gesture()) return work_.drop();
  if (awaitedPartner_) return awaitPartner({});
  if (holdsPaste()) return dropPaste();
  Desk desk = work_.desk();
  if (!desk.selection().empty()) {
    desk.select({});
  } else if (desk.tool != Tool::select) {
    // With nothing to drop it says what a second one would do.
    const Escaped now{work_.gesturesBegun(), desk.tool, desk.map};
    if (std::exchange(escaped_, now) != now) return work_.refuse("Nothing to drop; Esc again chooses Select");
    desk.tool = Tool::select;
  }
  escaped_.reset();
  work_.setDesk(std::move(desk));
}

void HandVerbs::awaitPartner(std::optional<int> side) {
  if (awaitedPartner_ == side) return;
  awaitedPartner_ = side;
  work_.tellOfDesk();
}

void HandVerbs::setPartner(int side, std::optional<TileRef> partner) {
  awaitedPartner_.reset();
  const InHand& hand = work_.desk().inHand;
  const bool one = work_.map() && hand.parts().size() == 1;
  const TileRef tile = one ? hand.parts().front().cell.tile() : TileRef{};
  const Sheet* sheet = work_.quilt().sheetAt(tile.slot);
  if (!sheet || tile.slot == kChalkSlot) return;
  if (partner && partner->slot != tile.slot) {
    work_.refuse("Another side is a tile of the same sheet");
    return work_.tellOfDesk();
  }
  const int order = makeGrid(work_.map()->grid)->turnOrder();
  work_.step("Other side of " + sheet->tileName(tile.number), withPartner(work_.quilt(), tile, order, side, partner));
  work_.tellOfDesk();
}

}  // namespace uq
