// Targets: what is done with the targets of a quilt (core/document/Target.h). Values in, values out; any thread.
#pragma once

#include "core/document/Quilt.h"

namespace uq {

const Target* targetNamed(const Quilt& quilt, std::string_view name);

// A target of its own name and file; the quilt as it was, and no id, where it would be none.
struct TargetAdded {
  Quilt quilt;
  Id target;
};
TargetAdded addTarget(const Quilt& quilt, Target target, IdSource& ids);

// The maps that go out with it, as the quilt lists them.
std::vector<const Map*> mapsOf(const Quilt& quilt, const Target& target);

// What a target of a form begins with: a name that nobody has, and a folder inside the quilt's.
Target newTarget(const Quilt& quilt, TargetForm form);

}  // namespace uq
