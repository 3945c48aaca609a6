// What of EditList writes: a stroke as a step that repeats it.
#include <algorithm>

#include "core/store/HandText.h"
#include "core/work/EditList.h"
#include "core/work/EditReading.h"

namespace uq {

Json stepOf(const Quilt& before, const StrokePlan& plan, const std::vector<StrokeMove>& moves,
            std::optional<CellRect> stretchBox) {
  const auto tool =
      std::find_if(std::begin(kStrokeSteps), std::end(kStrokeSteps), [&](const auto& one) { return one.second == plan.tool; });
  Json::Object step{{"do", tool->first}, {"map", plan.layer.map.text()}, {"layer", plan.layer.layer.text()}};
  step.emplace_back("hand", handJson(plan.hand, before, SheetsBy::id));
  Json::Array path;
  const bool halves = Stroke::laysCorners(before, plan.layer.map, plan.tool, plan.options, plan.hand);
  for (const StrokeMove& move : moves) {
    Json::Array place{move.cell.x, move.cell.y};
    if (halves) place.push_back(move.corner);
    path.push_back(std::move(place));
  }
  step.emplace_back("path", std::move(path));
  if (!moves.empty() && moves.back().even) step.emplace_back("even", true);
  if (halves) step.emplace_back("width", Json::Number{"0.5"});
  else if (plan.options.width != 1) step.emplace_back("width", plan.options.width);
  if (plan.options.outlines) step.emplace_back("outline", true);
  if (plan.options.throughCorners) step.emplace_back("corners", true);
  if (plan.options.onlyThisMap) step.emplace_back("onlyThisMap", true);
  if (plan.options.joinsMet && !plan.hand.isOneTile() && plan.hand.stamp.empty() && !before.edgings().empty()) step.emplace_back("joins", true);
  if (plan.options.alike != Alike::mix) {
    const auto is = [&](const auto& one) { return one.first == plan.options.alike; };
    step.emplace_back("alike", std::find_if(kAlikes.begin(), kAlikes.end(), is)->second);
  }
  if (plan.options.swaps) step.emplace_back("swaps", true);
  if (plan.options.asSeen) step.emplace_back("asSeen", *plan.options.asSeen);
  if (plan.box) step.emplace_back("boxes", *plan.box == BoxShape::asSeen ? "asSeen" : "alongTheGrid");
  if (plan.everywhere) step.emplace_back("everywhere", true);
  if (plan.takesAway && plan.tool != Tool::erase) step.emplace_back("takesAway", true);
  if (!plan.obeys) step.emplace_back("lands", true);
  if (plan.lift != 0) step.emplace_back("lift", plan.lift);
  if (stretchBox) {
    step.emplace_back("fitted", Json::Array{stretchBox->x0, stretchBox->y0, stretchBox->x1, stretchBox->y1});
  }
  step.emplace_back("seed", static_cast<std::int64_t>(plan.seed));
  step.emplace_back("ids", static_cast<std::int64_t>(plan.ids));
  // Options of other tools mean nothing there.
  std::erase_if(step, [&](const Json::Field& field) { return !hasMeaning(tool->first, field.first); });
  return step;
}

Json editList(std::vector<Json> steps) {
  return Json::Object{{"document", "edits"}, {"version", 1}, {"steps", Json::Array(std::move(steps))}};
}

}  // namespace uq
