// LinksText: what joins maps, as the one document in which all of it stands (links.json), and back.
//
// Seams are written by id. What this version does not know is kept and written again. Nothing is said here of whether a
// seam is right; see SewnMaps. docs/format.md and docs/format.schema.json describe the document.
#pragma once

#include "core/base/Error.h"
#include "core/base/Json.h"
#include "core/document/Quilt.h"

namespace uq {

struct Links {
  std::vector<Seam> seams;
  Json::Object extra;
};
Links linksOf(const Quilt& quilt);

Json linksDocument(const Links& links);
// Refuses two seams of one id, and more than kMostSeams.
Result<Links> readLinksDocument(const Json& json, const std::string& file);

// One of them.
Json seamJson(const Seam& seam);
Result<Seam> readSeam(const Json& json, const std::string& file);

}  // namespace uq
