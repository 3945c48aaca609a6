// TargetText: a target as the document in which it stands, targets/<file>.json, and back; docs/format.md describes it.
//
// A text of one's own is written line by line, so that two versions of it can be told apart as those of any text.
#pragma once

#include "core/base/Error.h"
#include "core/base/Json.h"
#include "core/document/Target.h"

namespace uq {

std::string targetFile(const Target& target);
Json targetDocument(const Target& target);
// Without `file`, which is the name of the file.
Result<Target> readTargetDocument(const Json& json, const std::string& file);

}  // namespace uq
