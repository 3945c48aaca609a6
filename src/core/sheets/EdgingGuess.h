// EdgingGuess: what the tiles of a sheet are likely to join, guessed from their pixels.
//
// Each tile is looked at in small patches: its middle, near each corner, and at the middle of each side, by the median of
// what is drawn there, so that outlines and textures count for little. Patches of much the same colour are one material,
// and see-through ones are *nothing*. Which places decide is what explains the patches best: by corners a tile's middle is
// what most of its corners show, and a side what both its ends show; by sides a corner shows what a side beside it shows;
// by both a corner may differ while its sides do not; of a path no corner ever shows the path.
//
// The guess is a beginning: people correct it where it is wrong. Tiles on which nothing is drawn are no members.
// Cost: the pixels of the patches of each tile, and each pair of colours that differ. Threads: any.
#pragma once

#include <vector>

#include "core/document/Edging.h"
#include "core/sheets/TileSides.h"

namespace uq {

struct TileToGuess {
  TileId tile;
  TilePixels pixels;  // its picture, which may be larger than a cell: it stands on it as pictures do
};

// An edging without id, file and name; members in the order of the tiles, unturned. Without any material, and no members,
// where the tiles show nothing that could join.
Edging guessedEdging(const GridShape& shape, const std::vector<TileToGuess>& tiles);

// The members guessed anew with the materials and what decides as they are, and all that was told held fast: what is drawn at
// told places is known to be that. `tiles` are the members' own; those that are not among them stay as they are.
Edging guessedAnew(const Edging& now, const GridShape& shape, const std::vector<TileToGuess>& tiles);
// The same with a material taken for two, by the two colours in which it is drawn most; as it is where that is one.
Edging splitMaterial(const Edging& now, const GridShape& shape, const std::vector<TileToGuess>& tiles, MaterialIndex material);

}  // namespace uq
