// uquilt render --board, and render MAP --with-neighbours: pictures of several maps.
#pragma once

#include "cli/Commands.h"

namespace uq::cli {

// All pieces as they lie on the Board; a drawing where the output ends in .svg, else a PNG.
int renderBoard(const RenderOrder& order);
// One map, and what is sewn to it over at most `order.neighbours` seams.
int renderWithNeighbours(const RenderOrder& order);

}  // namespace uq::cli
