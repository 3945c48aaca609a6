// Edgings: the edits that keep, change and take away edgings. No map is touched by any of them. Threads: any.
#pragma once

#include <optional>
#include <string>

#include "core/document/EdgingShape.h"
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
// With an edging changed; where a material of it was given another name, what other edgings lay all around with it follows.
// Where its tiles stand in for shapes that it has now, on any map, these lie there.
Quilt withEdging(const Quilt& quilt, Edging edging);
// With two materials taken for one: it keeps the name of the first, is known by the colours of both, and comes to lie where
// that was in the list; those after the other move up. What was told stays told.
Edging mergedMaterials(const Edging& edging, MaterialIndex keep, MaterialIndex gone);
// With a tile held to show a shape, as a person told; it shows what it showed before no longer, and what was not asked
// (kAnything) it goes on showing. Nothing changes where the tile is no member.
Edging toldMember(const Edging& edging, const TileId& tile, Turn turn, const EdgingShape& shape);
// A material of it in hand; nothing in hand where no member shows it.
InHand materialInHand(const Quilt& quilt, const Edging& edging, MaterialIndex material);
// Of which edging of the grid's family a tile shows which material in its middle; the edging asked for is looked at first. Nothing
// where it joins by no edging, or shows *nothing*. Cost: the members of all edgings.
struct MaterialOfTile {
  const Edging* edging = nullptr;
  MaterialIndex material = 0;
};
std::optional<MaterialOfTile> materialOfTile(const Quilt& quilt, GridKind grid, Cell cell, Id first = {});
// How many rows what a material in hand brings along has, where that may be said (Hem::grows): the face of a wall, or of walls
// that lie all around; nothing where it may not.
std::optional<int> rowsInHand(const Quilt& quilt, const InHand& hand);
// By its name, else its file's; nullptr where there is none.
const Edging* edgingNamed(const Quilt& quilt, std::string_view name);

}  // namespace uq
