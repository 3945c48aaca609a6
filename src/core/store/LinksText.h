// LinksText: what joins maps, as the one document in which all of it stands (links.json), and back.
//
// Seams and doorways are written by id. What this version does not know is kept and written again. Nothing is said here of whether a
// seam is right, or whether a doorway leads anywhere; see SewnMaps and core/check. docs/format.md and docs/format.schema.json describe the document.
#pragma once

#include "core/base/Error.h"
#include "core/base/Json.h"
#include "core/document/Quilt.h"

namespace uq {

struct Links {
  std::vector<Seam> seams;
  std::vector<Doorway> doorways;
  Json::Object extra;
};
Links linksOf(const Quilt& quilt);

Json linksDocument(const Links& links);
// Those of one id are told apart (OwnIds.h); refuses more than kMostSeams or kMostDoorways.
Result<Links> readLinksDocument(const Json& json, const std::string& file);

// One of them.
Json seamJson(const Seam& seam);
Result<Seam> readSeam(const Json& json, const std::string& file);
Json doorwayJson(const Doorway& doorway);
Result<Doorway> readDoorway(const Json& json, const std::string& file);

}  // namespace uq
