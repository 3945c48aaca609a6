// Heading: the way somebody faces who stands on a cell, as one of eight points of the compass of the screen.
//
// A grid has as many headings as its cells have sides: squares the four upright and level ones, diamonds the four slanted
// ones, hexagons six. What a file or a person says may be a heading that the grid does not have; `sideOf` tells. Side k of
// a cell is that of Grid::across. Values; every call is constant time.
#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "core/grid/Grid.h"

namespace uq {

// Clockwise from the top of the screen.
enum class Heading { north, northEast, east, southEast, south, southWest, west, northWest };
inline constexpr int kHeadings = 8;

std::string_view headingName(Heading heading);  // "north-east"
std::optional<Heading> headingFromName(std::string_view name);

// The headings of a grid, in the order of the sides of its cells.
const std::vector<Heading>& headingsOf(GridKind kind);
// The side of a cell that a heading looks across; nothing where the grid has no such heading.
std::optional<int> sideOf(GridKind kind, Heading heading);
// The grid's heading that comes nearest to one, clockwise where two are as near.
Heading nearestHeading(GridKind kind, Heading heading);
// The next one of the grid, clockwise for +1, against it for -1.
Heading turnedHeading(GridKind kind, Heading heading, int by);
constexpr Heading opposite(Heading heading) { return static_cast<Heading>((static_cast<int>(heading) + kHeadings / 2) % kHeadings); }

}  // namespace uq
