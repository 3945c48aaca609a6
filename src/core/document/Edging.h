// Edging: a set of tiles that join by themselves, told by what each of them shows, never by tables of neighbours.
//
// It has materials, and members: tiles with the material that each shows at its middle and at the places that decide —
// along its sides, at its corners, at both, or, of a path, along the sides over which it runs on. Two tiles suit one
// another where they show the same at the place that they share. People paint what lies somewhere; which member lies
// there follows (edit/Joining). *Nothing* is a material, too: a place at which nothing is seen.
//
// The cells of maps stay the truth: an edging refers to tiles and changes none; without it every map is as it is. Tiles,
// or sheets, that are not there make a member mean nothing.
//
// Places go clockwise in the order of the grid's sides and corners (Grid::across, Grid::aroundCorner).
// What it brings along where a material ends are its hems (Hem.h).
// Invariants, kept by `whyNoEdging`: a place's material is kNothingSeen or one of the list; lists that decide have one entry for each
// side or corner, others none. A value; cost of a copy: its members.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/document/Hem.h"
#include "core/document/TileId.h"
#include "core/grid/Grid.h"
#include "core/grid/Turn.h"

namespace uq {

// Which places of a tile decide what fits beside it. A path joins over the sides that a stroke crossed, and over no others.
enum class Decides { sides, corners, both, path };
inline constexpr Decides kDecides[] = {Decides::sides, Decides::corners, Decides::both, Decides::path};
std::string_view decidesName(Decides decides);  // "sides"
std::optional<Decides> decidesFromName(std::string_view name);
inline bool sidesDecide(Decides decides) { return decides != Decides::corners; }
inline bool cornersDecide(Decides decides) { return decides == Decides::corners || decides == Decides::both; }

// A material by its place in the list of its edging.
using MaterialIndex = int;
inline constexpr MaterialIndex kNothingSeen = -1;
inline constexpr int kMostMaterials = 32;
inline constexpr std::size_t kMostMembersOfEdging = 4096;
inline constexpr std::size_t kMostEdgings = 1024;
inline constexpr int kMostMemberWeight = 100;
inline constexpr std::size_t kMostAlso = 32;

struct Material {
  std::string name;            // never empty, never "nothing"; no two of an edging are called alike
  std::uint32_t colour = 0;    // 0xRRGGBB, by which it is told apart at a glance
  std::vector<std::uint32_t> also = {};  // further colours in which it is drawn, by which a guess made anew knows it; at most kMostAlso
  friend bool operator==(const Material&, const Material&) = default;
};

struct EdgingMember {
  TileId tile;
  Turn turn;  // as it lies when it shows this
  MaterialIndex middle = kNothingSeen;
  std::vector<MaterialIndex> sides;    // where sides decide
  std::vector<MaterialIndex> corners;  // where corners decide
  int weight = 1;                      // 1 .. kMostMemberWeight: how often among members that show the same
  bool told = false;                   // by a person: a guess made anew keeps it as it is
  friend bool operator==(const EdgingMember&, const EdgingMember&) = default;
};

struct Edging {
  Id id;
  std::string name;
  std::string file;  // slug: edgings/<file>.json
  GridKind grid = GridKind::orthogonal;  // it joins on all grids of that family
  Decides decides = Decides::corners;
  std::vector<Material> materials;
  std::vector<EdgingMember> members;
  std::vector<Hem> hems;
  Json::Object extra;  // fields that this version does not know
  Revision revision;
  friend bool operator==(const Edging&, const Edging&) = default;
};

// How many sides, and corners, a cell has there.
int placesOf(GridKind grid);
// "canal", "nothing"; and back, nothing for one that the edging does not have.
std::string materialName(const Edging& edging, MaterialIndex material);
std::optional<MaterialIndex> materialNamed(const Edging& edging, std::string_view name);
// Whether *nothing* is shown by a member at any place.
bool showsNothing(const Edging& edging);
// Why it is no edging, in words; empty when it is one.
std::string whyNoEdging(const Edging& edging);

}  // namespace uq
