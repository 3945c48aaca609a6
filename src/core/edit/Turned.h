// Turning what is held: the arrangement about its grip, and each picture to its other side.
//
// A picture that cannot be turned exactly on a grid — one of slanted cells, or by a sixth — changes to its facing
// partner, the tile that shows the same thing from that side (Sheet::facings). One without a partner keeps its picture,
// mirrored or turned by half where that comes nearest, and remembers the turn; so four quarters or six sixths to the
// right are the identity, with partners, without, and with some.
#pragma once

#include "core/cells/Block.h"
#include "core/document/InHand.h"
#include "core/document/Quilt.h"

namespace uq {

// A cell turned. Of the spellings that mean the same side of one thing the result is always the same one: from the
// partner that is the fewest steps back.
Cell turnedCell(const Quilt& quilt, const Grid& grid, Cell cell, Turn turn);

// A thing that was put together on one grid as it is held over another: turns that the other does not have come nearest.
InHand turnedFor(const InHand& hand, const Grid& grid);

// The block turned about its grip. Cost: its parts.
Block turnedBlock(const Quilt& quilt, const Grid& grid, const Block& block, Turning turning);

// Why a block may not be turned so, in words: a sheet of it forbids that, and its tile has no partner that shows the
// other side; empty when it may.
std::string whyNoTurning(const Quilt& quilt, const Block& block, Turning turning);

// How many of a block's parts show another side than the one they are turned to.
int withoutOtherSide(const Grid& grid, const Block& block);

}  // namespace uq
