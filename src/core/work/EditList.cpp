#include "core/work/EditList.h"

#include <algorithm>
#include <array>

#include "core/edit/ArrangeLayers.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/Covered.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Region.h"
#include "core/edit/Rejoin.h"
#include "core/edit/Seams.h"
#include "core/edit/Selected.h"
#include "core/edit/SwapTiles.h"
#include "core/edit/Turned.h"
#include "core/sheets/CloseJoints.h"
#include "core/store/HandText.h"
#include "core/work/EditArranging.h"
#include "core/work/Gesture.h"

namespace uq {

namespace {

constexpr std::pair<const char*, SwapIn> kSwaps[] = {
    {"selection", SwapIn::selection}, {"layer", SwapIn::layer}, {"map", SwapIn::map}, {"allMaps", SwapIn::allMaps}};
constexpr std::pair<const char*, Turning> kTurnings[] = {{"left", Turning::left},
                                                         {"right", Turning::right},
                                                         {"across", Turning::mirrorAcross},
                                                         {"down", Turning::mirrorDown}};
constexpr std::pair<const char*, BoxShape> kBoxes[] = {{"asSeen", BoxShape::asSeen},
                                                       {"alongTheGrid", BoxShape::alongTheGrid}};
constexpr std::size_t kMostPlaces = 1 << 20;
constexpr std::size_t kMostJoints = 10'000;  // that are closed in a round

class Doing : private EditArranging {
 public:
  // `careful`: each step is held against the rules, so that the one that breaks them can be named.
  Doing(Quilt quilt, const EditLooks& looks, std::string file, const StepRules& rules, bool careful)
      : EditArranging(std::move(quilt), std::move(file)), looks_(looks), rules_(rules), careful_(careful) {}

  Result<EditsDone> list(const Json& json) {
    const Json* document = json.find("document");
    const auto* kind = document ? document->as<std::string>() : nullptr;
    const Json* version = json.find("version");
    const auto* number = version ? version->as<std::int64_t>() : nullptr;
    const Json* steps = json.find("steps");
    const auto* list = steps ? steps->as<Json::Array>() : nullptr;
    if ((document && (!kind || *kind != "edits")) || !number || !list) {
      return refusal(Error::Cause::broken, "this is no list of edits: it has no \"version\" and \"steps\"", json.line);
    }
    if (*number < 1) return refusal(Error::Cause::broken, "there is no version " + std::to_string(*number), version->line);
    if (*number > 1) return refusal(Error::Cause::newer, "it was written for a newer version", version->line);
    if (list->size() > kMostEdits) return refusal(Error::Cause::tooLarge, "it holds more than 100,000 steps", steps->line);
    if (const Json::Field* stray = strayIn(json, {"document", "version", "seed", "steps"})) {
      return refusal(Error::Cause::broken, "“" + stray->first + "” means nothing in a list of edits", stray->second.line);
    }
    seed_ = static_cast<std::uint64_t>(integer(json, "seed", 0));
    EditsDone done;
    for (std::size_t i = 0; i < list->size() && !error_; ++i) {
      step_ = i;
      EditDone one;
      const Quilt before = quilt_;
      step((*list)[i], one);
      quilt_ = withSeamsKept(before, std::move(quilt_)).quilt;
      if (auto why = careful_ && !error_ ? whyNoStep(before, quilt_, rules_) : std::nullopt) refuse(*why, (*list)[i]);
      done.steps.push_back(std::move(one));
    }
    if (error_) return fail(*error_);
    done.quilt = std::move(quilt_);
    return done;
  }

 private:
  // Refuses numbers for which a sheet has no tile.
  void areThere(const InHand& hand, const Json& at) {
    hand.forEachCell([&](Cell cell) {
      const Sheet* sheet = quilt_.sheetAt(cell.tile().slot);
      if (!sheet || sheet->place(cell.tile().number)) return;
      refuse("“" + sheet->name + "” has no tile " + std::to_string(cell.tile().number), at);
    });
  }

  void take(const Json& step) {
    if (const Json* hand = step.find("hand")) {
      auto read = handFromJson(*hand, quilt_);
      if (!read) return refuse(read.error(), *hand);
      hand_ = std::move(*read);
      return areThere(hand_, *hand);
    }
    if (const Json* tile = step.find("tile")) {
      const auto* fields = tile->as<Json::Array>();
      auto part = tileFromJson(fields ? *fields : Json::Array(), quilt_);
      if (!part) return refuse(part.error(), *tile);
      hand_ = InHand(Block({*part}), quilt_.map(at_.map) ? quilt_.map(at_.map)->grid.kind : GridKind::orthogonal);
      return areThere(hand_, *tile);
    }
    if (const std::string name = text(step, "stamp"); !name.empty()) {
      const auto stamp = std::find_if(quilt_.stamps().begin(), quilt_.stamps().end(), [&](const auto& one) {
        return one->name == name || one->file == name || one->id.text() == name;
      });
      if (stamp == quilt_.stamps().end()) return lacks("there is no stamp “" + name + "”", step);
      hand_ = (*stamp)->held;
    }
  }

  // What nobody can see of a layer goes.
  void stripCovered(const Json& step, EditDone& done) {
    const GridShape shape = quilt_.map(at_.map)->grid;
    const auto asked = [&](const LooksOn& one) { return [this, &one, shape](TileRef tile) { return one(quilt_, shape, tile); }; };
    const TileLooks& looks = looks_.tiles;
    if (!looks.hides || !looks.keepsIn || !looks.covers || !looks.fills) return refuse("what is covered is seen by pictures, and there are none here", step);
    const CellSet covered = coveredCells(quilt_, at_, quilt_.map(at_.map)->bounds, {asked(looks.hides), asked(looks.keepsIn), asked(looks.covers), asked(looks.fills)});
    done.cells = covered.count();
    quilt_ = clearCells(quilt_, at_, covered);
  }

  // What belongs at loose joints of a layer, on the selected cells or everywhere.
  void closeLoose(const Json& step, EditDone& done) {
    const Map& map = *quilt_.map(at_.map);
    JointBook* book = looks_.joints ? looks_.joints(quilt_, map.grid) : nullptr;
    if (!book) return refuse("what belongs beside what is seen by pictures, and there are none here", step);
    const auto chosen = selected_.find(at_.map);
    Closed closed = closeJoints(*book, map, *map.layerIndex(at_.layer), map.bounds, chosen == selected_.end() ? CellSet() : chosen->second, kMostJoints);
    done.cells = closed.cells;
    quilt_ = quilt_.with(std::move(closed.map));
  }

  // The selected cells, or all of the layer's map.
  void joinAnew(EditDone& done) {
    const auto chosen = selected_.find(at_.map);
    const bool isChosen = chosen != selected_.end() && !chosen->second.empty();
    const CellSet cells = isChosen ? chosen->second : CellSet(quilt_.map(at_.map)->bounds);
    QuiltRejoined anew = rejoinedWithHems(quilt_, at_, cells, [&](CellPos cell) { return !isChosen || cells.contains(cell); });
    done.cells = anew.changed.count();
    quilt_ = std::move(anew.quilt);
  }

  void step(const Json& step, EditDone& done) {
    const std::string what = text(step, "do");
    if (error_ || !makesSense(step, what)) return;
    if (ofMaps(step, what, done) || ofArranging(step, what, done)) return;
    goTo(step);
    take(step);
    if (error_) return;
    const std::string where = quilt_.layer(at_)->name + " of " + quilt_.map(at_.map)->name;
    done.what = what + " on " + where;
    if (const auto tool = valueIn(kStrokeSteps, what)) return stroke(step, *tool, done);
    if (what == "stamp") return stroke(step, Tool::brush, done);
    if (what == "stretch") return stroke(step, Tool::box, done);
    const bool lays = what != "select" && what != "keep" && what != "take";
    if (lays && what != "swap" && !flag(step, "allLayers") && !quilt_.layer(at_)->holdsTiles()) {
      return refuse("“" + quilt_.layer(at_)->name + "” is no layer for tiles", step);
    }
    if (what == "swap") return swap(step, done);
    if (what == "select") return select(step, done);
    if (what == "keep") return keep(step, done);
    const Quilt before = quilt_;
    if (what == "joinAnew") return joinAnew(done);
    if (what == "stripCovered") return stripCovered(step, done);
    if (what == "closeJoints") return closeLoose(step, done);
    selected(step, what, done);
    if (flag(step, "joins")) quilt_ = joinedWhereChanged(before, quilt_, at_.map);
  }

  void stroke(const Json& step, Tool tool, EditDone& done) {
    if (!step.find("places")) return press(step, tool, pathOf(step, tool), 0, done);
    std::int64_t cells = 0;
    std::uint64_t number = 0;
    for (const StrokeMove& place : placesIn(step, "places")) {
      press(step, tool, {place}, number++, done);
      cells += done.cells;
      if (error_) return;
    }
    done.cells = cells;
  }

  std::vector<StrokeMove> placesIn(const Json& step, const char* field) {
    std::vector<StrokeMove> all;
    const Json* places = step.find(field);
    const auto* list = places ? places->as<Json::Array>() : nullptr;
    if (!list || list->empty() || list->size() > kMostPlaces) {
      refuse("\"" + std::string(field) + "\" is a list of places", places ? *places : step);
      return all;
    }
    for (const Json& one : *list) {
      const auto* fields = one.as<Json::Array>();
      const bool saysCorner = isHalf(step) && fields && fields->size() == 3;
      const auto place = numbers(one, saysCorner ? 3 : 2);
      if (!place) return {};
      const int corner = saysCorner ? (*place)[2] : 0;
      const int corners = placesOf(quilt_.map(at_.map)->grid.kind);
      if (corner < 0 || corner >= corners) refuse("a corner is a number from 0 to " + std::to_string(corners - 1), one);
      all.push_back({{(*place)[0], (*place)[1]}, false, corner});
    }
    return all;
  }

  // "width": 0.5, which is half a cell: one corner.
  static bool isHalf(const Json& step) {
    const Json* width = step.find("width");
    const auto* cells = width ? width->as<Json::Number>() : nullptr;
    return cells && cells->text == "0.5";
  }

  std::vector<StrokeMove> pathOf(const Json& step, Tool tool) {
    if (step.find("path")) return placesIn(step, "path");
    if (step.find("at") || tool == Tool::fill || text(step, "do") == "stamp") {
      const auto at = cell(step, "at");
      return at ? std::vector{StrokeMove{*at}} : std::vector<StrokeMove>();
    }
    const auto from = cell(step, "from");
    const auto to = cell(step, "to");
    return from && to ? std::vector{StrokeMove{*from}, StrokeMove{*to}} : std::vector<StrokeMove>();
  }

  // One press, drag and release; `number` tells those of one step apart.
  void press(const Json& step, Tool tool, const std::vector<StrokeMove>& path, std::uint64_t number, EditDone& done) {
    if (!quilt_.layer(at_)->holdsTiles()) return refuse("“" + quilt_.layer(at_)->name + "” is no layer for tiles", step);
    StrokePlan plan;
    plan.tool = tool;
    plan.hand = hand_;
    plan.layer = at_;
    plan.obeys = !flag(step, "lands");
    plan.takesAway = flag(step, "takesAway") || tool == Tool::erase;
    plan.options.halfCell = isHalf(step);
    if (!plan.options.halfCell) plan.options.width = bounded(step, "width", 1, kBroadest, 1);
    plan.options.outlines = flag(step, "outline");
    plan.options.throughCorners = flag(step, "corners");
    plan.options.onlyThisMap = flag(step, "onlyThisMap");
    plan.options.joinsMet = flag(step, "joins");
    plan.options.alike = alike(step);
    plan.options.swaps = flag(step, "swaps");
    if (step.find("asSeen")) plan.options.asSeen = flag(step, "asSeen");
    plan.box = boxes(step);
    plan.everywhere = flag(step, "everywhere");
    plan.lift = bounded(step, "lift", 0, kMostLift, 0);
    plan.seed = static_cast<std::uint64_t>(integer(step, "seed", static_cast<std::int64_t>(seed_ + step_ + 1))) + number;
    plan.ids = static_cast<std::uint64_t>(integer(step, "ids", static_cast<std::int64_t>(seed_ + step_ + 1))) + number;
    if (!flag(step, "anywhere")) plan.within = selected_.count(at_.map) ? selected_[at_.map] : CellSet();
    if (looks_.tiles.covers) {
      plan.covers = [this, shape = quilt_.map(at_.map)->grid](TileRef tile) { return looks_.tiles.covers(quilt_, shape, tile); };
    }
    if (!isWidth(plan.options.width)) {
      return refuse("\"width\" is an odd number from 1 to 31, or 0.5", step);
    }
    if (plan.options.halfCell && !error_ && !Stroke::laysCorners(quilt_, at_.map, tool, plan.options, plan.hand))
      return refuse("Half a cell is for a material whose corners decide", step);
    if (plan.hand.empty() && !plan.takesAway)
      return refuse("it says no tile, hand or stamp, and no step before it did", step);
    const GridKind grid = quilt_.map(at_.map)->grid.kind;
    if (!plan.takesAway && !plan.hand.isOneTile() && !areOfOneFamily(plan.hand.grid, grid)) {
      return refuse("what is in hand was put together from " + std::string(cellsCalled(plan.hand.grid)) +
                        ", and these are " + std::string(cellsCalled(grid)),
                    step);
    }
    if (plan.hand.manner != Manner::stretch && text(step, "do") == "stretch")
      plan.hand = plan.hand.inManner(Manner::stretch);
    if (error_) return;
    const bool even = flag(step, "even");
    Gesture gesture = Gesture::painting(Stroke(quilt_, std::move(plan)));
    for (StrokeMove move : path) {
      move.even = even;
      gesture.follow(move);
    }
    const Stroke& stroke = *gesture.stroke();
    if (const Json* box = step.find("fitted")) {
      const auto sides = numbers(*box, 4);
      if (!sides) return;
      if (!stroke.stretchBox()) return refuse("\"fitted\" means nothing where no stretch is laid", *box);
      gesture.refit({(*sides)[0], (*sides)[1], (*sides)[2], (*sides)[3]});
    }
    if (!stroke.refusal().empty()) return refuse(stroke.refusal(), step);
    done.cells = stroke.cells().count();
    quilt_ = gesture.quilt();
  }

  std::optional<BoxShape> boxes(const Json& step) {
    const std::string name = text(step, "boxes");
    const auto shape = valueIn(kBoxes, name);
    if (!shape && step.find("boxes")) refuse("\"boxes\" is asSeen or alongTheGrid", step);
    return shape;
  }

  Alike alike(const Json& step) {
    const std::string name = text(step, "alike");
    const auto named = std::find_if(kAlikes.begin(), kAlikes.end(), [&](const auto& one) { return name == one.second; });
    if (named != kAlikes.end()) return named->first;
    if (step.find("alike")) refuse("\"alike\" is tile, mix, stamp or pile", step);
    return flag(step, "onlyThis") ? Alike::tile : Alike::mix;
  }

  void swap(const Json& step, EditDone& done) {
    const auto named = [&](const char* name) {
      const Json* found = step.find(name);
      const auto* fields = found ? found->as<Json::Array>() : nullptr;
      const auto part = tileFromJson(fields ? *fields : Json::Array(), quilt_);
      if (!part) refuse(part.error(), step);
      if (part && name == std::string_view("to")) areThere(InHand(Block({*part})), step);
      return part ? part->cell.tile() : TileRef{};
    };
    const std::string in = text(step, "in");
    const auto where = in.empty() ? std::optional(SwapIn::map) : valueIn(kSwaps, in);
    if (!where) return refuse("\"in\" is selection, layer, map or allMaps", step);
    Swapped swapped = swapTiles(quilt_, {named("from"), named("to"), *where, at_, selected_[at_.map]});
    if (error_) return;
    done.cells = swapped.cells;
    quilt_ = std::move(swapped.quilt);
  }

  void select(const Json& step, EditDone& done) {
    const Map& map = *quilt_.map(at_.map);
    const auto grid = makeGrid(map.grid);
    CellSet cells;
    if (step.find("like")) {
      const auto at = cell(step, "like");
      if (!at) return;
      RegionAsk ask;
      ask.layer = at_;
      ask.everywhere = flag(step, "everywhere");
      ask.alike = alike(step);
      ask.asSeen = flag(step, "asSeen", usuallyAsSeen(quilt_, at_, *at));
      ask.hand = &hand_;
      if (const std::string why = whyNoRegion(quilt_, ask); !why.empty()) return refuse(why, step);
      cells = regionOf(quilt_, ask, *at);
    } else if (step.find("from")) {
      const auto from = cell(step, "from");
      const auto to = cell(step, "to");
      if (!from || !to) return;
      const BoxShape shape = boxes(step).value_or(usualBox(map.grid.kind));
      if (isTooWide(map.bounds) && isTooWide(CellRect::around(*from, *to).intersected(map.bounds))) {
        return refuse("that is more than can be selected at once", step);
      }
      cells = boxOf(*grid, *from, *to, shape, map.bounds);
    } else if (flag(step, "all")) {
      if (isTooWide(map.bounds)) return refuse("that is more than can be selected at once", step);
      cells = CellSet(map.bounds);
    }
    if (error_) return;
    CellSet& selected = selected_[at_.map];
    selected = flag(step, "more") ? selected.united(cells) : flag(step, "less") ? selected.without(cells) : cells;
    done.cells = selected.count();
  }

  void selected(const Json& step, const std::string& what, EditDone& done) {
    CellSet& selected = selected_[at_.map];
    if (selected.empty()) return refuse("nothing is selected", step);
    std::vector<LayerAt> layers{at_};
    if (flag(step, "allLayers")) {
      layers.clear();
      for (const Shared<Layer>& layer : quilt_.map(at_.map)->layers) layers.push_back({at_.map, layer->id});
    }
    done.cells = selected.count();
    if (what == "take") {
      auto copy = copyOf(quilt_, layers, at_, selected);
      if (!copy || copy->empty()) return refuse(copy ? "nothing lies there" : "that is too much to hold", step);
      hand_ = std::move(*copy);
    } else if (what == "delete") {
      quilt_ = clearCells(quilt_, layers, selected);
    } else if (what == "move") {
      const Json* by = step.find("by");
      const auto way = by ? numbers(*by, 2) : std::nullopt;
      if (!way) return refuse("\"by\" is a step of two numbers, in side coordinates", step);
      const SidePos steps{(*way)[0], (*way)[1]};
      Gesture gesture = Gesture::moving(quilt_, {layers, selected});
      gesture.moveBy(steps);
      quilt_ = gesture.quilt();
      selected = *gesture.selected();
    } else if (what == "turn") {
      const auto turning = valueIn(kTurnings, text(step, "way"));
      if (!turning) return refuse("\"way\" is left, right, across or down", step);
      for (const LayerAt at : layers) {
        const auto block = copyOf(quilt_, at, selected);
        const std::string why = block ? whyNoTurning(quilt_, *block, *turning) : "that is too much to turn";
        if (!why.empty()) return refuse(why, step);
      }
      TurnedCells turned = turnCells(quilt_, {layers, selected}, *turning, turnGrip_);
      turnGrip_ = turned.grip;
      quilt_ = std::move(turned.quilt);
      selected = std::move(turned.selected);
    } else {
      const Layer* to = quilt_.map(at_.map)->layerNamed(text(step, "to"));
      if (!to || to->id == at_.layer) return lacks("\"to\" is the name of another layer", step);
      if (!to->holdsTiles()) return refuse("“" + to->name + "” is no layer for tiles", step);
      quilt_ = moveToLayer(quilt_, at_, to->id, selected);
    }
  }

  void keep(const Json& step, EditDone& done) {
    if (hand_.empty()) return refuse("it says no tile or hand, and no step before it did", step);
    IdSource ids = idsOf(step);
    StampKept kept = keepStamp(quilt_, hand_, text(step, "name"), ids);
    done.what = "keep " + kept.quilt.stamp(kept.stamp)->name;
    quilt_ = std::move(kept.quilt);
    hand_ = quilt_.stamp(kept.stamp)->held;
  }

  const EditLooks& looks_;
  const StepRules& rules_;
  bool careful_;
  std::optional<TurnGrip> turnGrip_;
  InHand hand_;
  std::map<Id, CellSet> selected_;
};

}  // namespace

Result<EditsDone> doEdits(const Quilt& quilt, const Json& list, const EditLooks& looks, const std::string& file,
                          const StepRules& rules) {
  // The rules hold for what comes of a list; which step broke them is looked for only where one did.
  auto done = Doing(quilt, looks, file, rules, false).list(list);
  if (!done) return done;
  const auto why = whyNoStep(quilt, done->quilt, rules);
  if (!why) return done;
  auto named = Doing(quilt, looks, file, rules, true).list(list);
  return named ? Result<EditsDone>(fail(Error(*why).in(file))) : named;
}

}  // namespace uq
