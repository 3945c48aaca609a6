// PlanText: the plan of a world, all chalk pieces, as the one document in which it stands (plan.json), and back.
//
// They are written by id. What this version does not know is kept and written again. docs/format.md and
// docs/format.schema.json describe the document.
#pragma once

#include "core/base/Error.h"
#include "core/base/Json.h"
#include "core/document/Quilt.h"

namespace uq {

struct WorldPlan {
  std::vector<ChalkPiece> pieces;
  Json::Object extra;
};
WorldPlan planOf(const Quilt& quilt);

Json planDocument(const WorldPlan& plan);
// Refuses two pieces of one id, and more than kMostChalkPieces.
Result<WorldPlan> readPlanDocument(const Json& json, const std::string& file);

// One of them.
Json chalkJson(const ChalkPiece& piece);
Result<ChalkPiece> readChalkPiece(const Json& json, const std::string& file);

}  // namespace uq
