// Edgings: the edits that keep, change and take away edgings. No map is touched by any of them. Threads: any.
#pragma once

#include <optional>
#include <string>

#include "core/document/Quilt.h"

namespace uq {

struct EdgingAdded {
  Quilt quilt;
  Id edging;  // empty where it is none (whyNoEdging)
};
// With an id, a name and a file name of its own.
EdgingAdded addEdging(const Quilt& quilt, Edging edging, const std::string& name, IdSource& ids);
// The grid of the quilt's maps on which a sheet's tiles lie as cells, of that kind where one is said; else the nearest there is.
GridShape gridOfSheet(const Quilt& quilt, const Sheet& sheet, std::optional<GridKind> kind = std::nullopt);
// A material of it in hand; nothing in hand where no member shows it.
InHand materialInHand(const Quilt& quilt, const Edging& edging, MaterialIndex material);
// By its name, else its file's; nullptr where there is none.
const Edging* edgingNamed(const Quilt& quilt, std::string_view name);

}  // namespace uq
