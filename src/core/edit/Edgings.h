// Edgings: the edits that keep, change and take away edgings. No map is touched by any of them. Threads: any.
#pragma once

#include <string>

#include "core/document/Quilt.h"

namespace uq {

struct EdgingAdded {
  Quilt quilt;
  Id edging;  // empty where it is none (whyNoEdging)
};
// With an id, a name and a file name of its own.
EdgingAdded addEdging(const Quilt& quilt, Edging edging, const std::string& name, IdSource& ids);
// By its name, else its file's; nullptr where there is none.
const Edging* edgingNamed(const Quilt& quilt, std::string_view name);

}  // namespace uq
