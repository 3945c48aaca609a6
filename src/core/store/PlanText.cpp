#include "core/store/PlanText.h"

#include <algorithm>
#include <set>

#include "core/store/Documents.h"
#include "core/store/Fields.h"

namespace uq {

WorldPlan planOf(const Quilt& quilt) {
  WorldPlan plan{{}, quilt.facts().planExtra};
  for (const Shared<ChalkPiece>& piece : quilt.all<ChalkPiece>()) plan.pieces.push_back(piece.read());
  std::sort(plan.pieces.begin(), plan.pieces.end(), [](const ChalkPiece& a, const ChalkPiece& b) { return a.id < b.id; });
  return plan;
}

Json chalkJson(const ChalkPiece& piece) {
  Json::Object object{{"id", piece.id.text()}, {"name", piece.name}};
  if (!piece.note.empty()) object.emplace_back("note", piece.note);
  if (piece.done) object.emplace_back("done", true);
  append(object, {{"at", Json::Array{piece.at.x, piece.at.y}}, {"size", Json::Array{piece.at.w, piece.at.h}}});
  append(object, piece.extra);
  return object;
}

Result<ChalkPiece> readChalkPiece(const Json& json, const std::string& file) {
  Fields fields(json, file);
  ChalkPiece piece;
  piece.id = fields.id("id");
  piece.name = fields.text("name");
  piece.note = fields.textIfAny("note", kLongestNote);
  piece.done = fields.flagIfAny("done");
  const auto at = fields.numbers("at", 2, -kFarthestOnBoard, kFarthestOnBoard);
  const auto size = fields.numbers("size", 2, 1, kLargestChalkPiece);
  piece.at = {at[0], at[1], size[0], size[1]};
  piece.extra = fields.rest();
  return checked(fields, std::move(piece));
}

Json planDocument(const WorldPlan& plan) {
  Json::Object object = documentBegun("plan");
  Json::Array pieces;
  for (const ChalkPiece& piece : plan.pieces) pieces.push_back(chalkJson(piece));
  object.emplace_back("pieces", std::move(pieces));
  append(object, plan.extra);
  return object;
}

Result<WorldPlan> readPlanDocument(const Json& json, const std::string& file) {
  Fields fields(json, file);
  fields.document("plan");
  WorldPlan plan;
  std::set<Id> known;
  for (const Json& one : fields.listIfAny("pieces", kMostChalkPieces)) {
    auto piece = readChalkPiece(one, file);
    if (!piece) return fail(piece.error());
    if (!known.insert(piece->id).second) fields.refuse("two chalk pieces have the id " + piece->id.text(), one.line);
    plan.pieces.push_back(std::move(*piece));
  }
  std::sort(plan.pieces.begin(), plan.pieces.end(), [](const ChalkPiece& a, const ChalkPiece& b) { return a.id < b.id; });
  plan.extra = fields.rest();
  return checked(fields, std::move(plan));
}

}  // namespace uq
