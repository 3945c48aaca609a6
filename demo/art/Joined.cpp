#include "art/Joined.h"

#include <algorithm>
#include <array>

#include "art/Sheets.h"
#include "core/edit/Edgings.h"

namespace uq::art {

namespace {

const Sheet& sheetCalled(const Quilt& quilt, const std::string& name) {
  const auto found = std::find_if(quilt.sheets().begin(), quilt.sheets().end(), [&](const auto& one) { return one->name == name; });
  if (found == quilt.sheets().end()) qFatal("there is no sheet %s", name.c_str());
  return found->read();
}

std::vector<int> numbersIn(const std::string& text) {
  std::vector<int> all;
  for (std::size_t i = 0; i < text.size(); ++i) {
    if (text[i] >= '1' && text[i] <= '6') all.push_back(text[i] - '1');
  }
  return all;
}

bool begins(const std::string& text, const std::string& with) { return text.rfind(with, 0) == 0; }

EdgingMember plainMember(const Edging& edging, const TileId& tile, MaterialIndex material) {
  const auto places = static_cast<std::size_t>(placesOf(edging.grid));
  EdgingMember member{tile, {}, material, {}, {}};
  if (sidesDecide(edging.decides)) member.sides.assign(places, material);
  if (cornersDecide(edging.decides)) member.corners.assign(places, material);
  return member;
}

// Grounds at the corners of cells.
Edging street(const Quilt& quilt) {
  const Sheet& sheet = sheetCalled(quilt, "street");
  Edging edging;
  edging.decides = Decides::corners;
  edging.materials = {{"setts", 0x6b7689}, {"slabs", 0xb9b3a5}, {"lawn", 0x61795a}, {"canal", 0x2f6b74}};
  const Ground grounds[] = {Ground::setts, Ground::slabs, Ground::lawn, Ground::canal};
  for (MaterialIndex i = 0; i < 4; ++i) {
    for (int look = 0; look < kLookAlikes; ++look) edging.members.push_back(plainMember(edging, {sheet.id, groundTile(grounds[i], look)}, i));
  }
  for (EdgingMember& one : edging.members) one.weight = 20;
  for (const auto& [number, material] : {std::pair(settsLid(), 0), std::pair(settsStain(), 0), std::pair(slabsGrating(), 1), std::pair(canalLilies(), 3)}) {
    edging.members.push_back(plainMember(edging, {sheet.id, number}, material));
  }
  for (MaterialIndex over = 0; over < 4; ++over) {
    for (MaterialIndex under = 0; under < 4; ++under) {
      if (over == under || !hasBorder(grounds[over], grounds[under])) continue;
      for (int code = 1; code < 15; ++code) {
        const std::array<bool, 4> corners = {(code & 1) != 0, (code & 2) != 0, (code & 4) != 0, (code & 8) != 0};
        EdgingMember member = plainMember(edging, {sheet.id, borderTile(grounds[over], grounds[under], corners)}, under);
        for (std::size_t i = 0; i < 4; ++i) member.corners[i] = corners[i] ? over : under;
        if (std::count(corners.begin(), corners.end(), true) > 2) member.middle = over;
        edging.members.push_back(std::move(member));
      }
    }
  }
  return edging;
}

// Along the sides that a tile's name says.
Edging rails(const Quilt& quilt) {
  const Sheet& sheet = sheetCalled(quilt, "rails");
  Edging edging;
  edging.decides = Decides::path;
  edging.materials = {{"rails", 0x3a4256}};
  const std::array<std::pair<const char*, std::size_t>, 4> ways = {{{"north", 0}, {"east", 1}, {"south", 2}, {"west", 3}}};
  for (const auto& [number, facts] : sheet.tiles) {
    const std::string& name = facts.name;
    EdgingMember member{{sheet.id, number}, {}, 0, std::vector<MaterialIndex>(4, kNothingSeen), {}};
    const bool crosses = name.find("crossing") != std::string::npos;
    if (crosses || name.find("across") != std::string::npos) member.sides[1] = member.sides[3] = 0;
    if (crosses || name.find("down") != std::string::npos) member.sides[0] = member.sides[2] = 0;
    // A buffer stop stands at the end that it is called by.
    const bool isEnd = begins(name, "buffer stop");
    for (const auto& [way, side] : ways) {
      const bool isNamed = name.find(way) != std::string::npos;
      // Of a turnout the line that branches off goes to the second; it runs into the first, which runs there anyway.
      if (isNamed) member.sides[isEnd ? (side + 2) % 4 : side] = 0;
    }
    const bool isRare = name.find(", ") != std::string::npos && !begins(name, "turnout");
    member.weight = isRare ? 1 : 5;
    edging.members.push_back(std::move(member));
  }
  return edging;
}

// Water whose banks run along the sides that a tile's name says.
Edging banked(const Quilt& quilt, const char* sheetName, GridKind grid, const char* water, const char* banks, const char* shore, const char* shoreName) {
  const Sheet& sheet = sheetCalled(quilt, sheetName);
  Edging edging;
  edging.grid = grid;
  edging.decides = Decides::sides;
  edging.materials = {{"canal", 0x2f6b74}, {shoreName, 0x8fa46f}};
  for (const auto& [number, facts] : sheet.tiles) {
    const std::string& name = facts.name;
    const TileId tile{sheet.id, number};
    if (begins(name, shore)) edging.members.push_back(plainMember(edging, tile, 1));
    if (!begins(name, water)) continue;
    const std::size_t from = name.find(banks);
    EdgingMember member = plainMember(edging, tile, 0);
    for (const int side : from == std::string::npos ? std::vector<int>() : numbersIn(name.substr(from))) member.sides[static_cast<std::size_t>(side)] = 1;
    edging.members.push_back(std::move(member));
  }
  return edging;
}

// The quay on diamonds: its coping runs along the sides that a tile's name says, the first being the lower right one.
Edging quay(const Quilt& quilt) {
  const Sheet& sheet = sheetCalled(quilt, "quay");
  Edging edging;
  edging.grid = GridKind::diamond;
  edging.decides = Decides::sides;
  edging.materials = {{"quay", 0xb9b3a5}, {"canal", 0x2f6b74}};
  for (const auto& [number, facts] : sheet.tiles) {
    const std::string& name = facts.name;
    const TileId tile{sheet.id, number};
    const bool isFitted = name.find("ladder") != std::string::npos || name.find("ring") != std::string::npos || name.find("drain") != std::string::npos || name.find("lilies") != std::string::npos;
    if (isFitted) continue;
    if (begins(name, "canal ")) edging.members.push_back(plainMember(edging, tile, 1));
    if (!begins(name, "quay slabs ")) continue;
    EdgingMember member = plainMember(edging, tile, 0);
    const std::size_t from = name.find("edge");
    for (const int edge : from == std::string::npos ? std::vector<int>() : numbersIn(name.substr(from))) member.sides[static_cast<std::size_t>((edge + 1) % 4)] = 1;
    edging.members.push_back(std::move(member));
  }
  return edging;
}

// A way one cell wide, from side to side as its tiles' names say.
Edging way(const Quilt& quilt, const char* sheetName, GridKind grid, const std::string& called, std::uint32_t colour) {
  const Sheet& sheet = sheetCalled(quilt, sheetName);
  Edging edging;
  edging.grid = grid;
  edging.decides = Decides::path;
  edging.materials = {{called, colour}};
  for (const auto& [number, facts] : sheet.tiles) {
    const std::string& name = facts.name;
    const bool isEnd = begins(name, called + ", end ");
    if (!isEnd && !(begins(name, called + " ") && name.find('-') != std::string::npos)) continue;
    EdgingMember member{{sheet.id, number}, {}, 0, std::vector<MaterialIndex>(6, kNothingSeen), {}};
    for (const int side : numbersIn(name.substr(called.size()))) member.sides[static_cast<std::size_t>(side)] = 0;
    edging.members.push_back(std::move(member));
  }
  return edging;
}

// Pieces of one row: left, middle, right and alone follow one another from a number, in so many look-alikes.
std::vector<HemTile> rowOf(const Sheet& sheet, unsigned first, unsigned looks) {
  std::vector<HemTile> tiles;
  for (unsigned i = 0; i < 4 * looks; ++i) tiles.push_back({{sheet.id, first + i}, {}, HemRow::middle, kHemPieces[i % 4]});
  return tiles;
}

// Kerb stones where lawn ends below, and foam where the canal laps against what lies above it.
void hemStreet(const Quilt& quilt, Edging& edging) {
  const Sheet& sheet = sheetCalled(quilt, "trim");
  Hem kerb{"kerb", *materialNamed(edging, "lawn"), "tracks"};
  kerb.side = 2;
  kerb.inside = true;
  kerb.tiles = rowOf(sheet, trim::kerb, 2);
  Hem foam{"foam", *materialNamed(edging, "canal"), "tracks"};
  foam.side = 0;
  foam.inside = true;
  foam.tiles = rowOf(sheet, trim::foam, 2);
  edging.hems = {kerb, foam};
}

// One tile for every set of four sides, from a number on.
Edging byMask(const Sheet& sheet, const char* material, std::uint32_t colour, unsigned first, Decides decides) {
  Edging edging;
  edging.decides = decides;
  edging.materials = {{material, colour}};
  for (unsigned sides = 0; sides < 16; ++sides) {
    EdgingMember member{{sheet.id, first + sides}, {}, 0, {}, {}};
    for (int i = 0; i < 4; ++i) member.sides.push_back(sides >> i & 1 ? 0 : kNothingSeen);
    edging.members.push_back(std::move(member));
  }
  return edging;
}

// Walls of a room: their tops join, and their papered face is seen below them where they stand on boards.
Edging loftWalls(const Quilt& quilt) {
  const Sheet& sheet = sheetCalled(quilt, "loft");
  Edging edging = byMask(sheet, "wall", 0x3a4256, wallTop(0), Decides::sides);
  Hem face{"face", 0, ""};
  face.side = 2;
  face.stands = true;
  face.grows = true;
  face.tiles = {{{sheet.id, 6}, {}, HemRow::middle, HemPiece::left}, {{sheet.id, 7}, {}, HemRow::middle, HemPiece::middle}, {{sheet.id, 8}, {}, HemRow::middle, HemPiece::right}};
  edging.hems = {face};
  return edging;
}

// Boards with walls all around: a room.
Edging loftFloor(const Quilt& quilt, Id walls) {
  const Sheet& sheet = sheetCalled(quilt, "loft");
  Edging edging;
  edging.decides = Decides::sides;
  edging.materials = {{"boards", 0xa0563f}};
  for (std::uint32_t look = 0; look < 3; ++look) edging.members.push_back(plainMember(edging, {sheet.id, look}, 0));
  Hem around{"walls", 0, "walls"};
  around.around = walls;
  around.aroundMaterial = "wall";
  edging.hems = {around};
  return edging;
}

}  // namespace

Quilt withEdgings(Quilt quilt) {
  IdSource ids(20261130);
  const auto add = [&](const char* name, Edging edging) {
    const EdgingAdded added = addEdging(quilt, std::move(edging), name, ids);
    if (added.edging.empty()) qFatal("%s is no edging", name);
    quilt = added.quilt;
    return added.edging;
  };
  Edging ground = street(quilt);
  hemStreet(quilt, ground);
  add("Street ground", std::move(ground));
  add("Rails", rails(quilt));
  add("Quay", quay(quilt));
  add("Ward canal", banked(quilt, "wards", GridKind::hexagonalPointy, "canal ", "banks", "park ", "park"));
  add("Lock canal", banked(quilt, "meadows", GridKind::hexagonalFlat, "canal ", "bank ", "meadow ", "meadow"));
  add("Towpath", way(quilt, "meadows", GridKind::hexagonalFlat, "path", 0xb9b3a5));
  add("Rose line", way(quilt, "lines", GridKind::hexagonalPointy, "rose line", 0xa2627c));
  add("Canal line", way(quilt, "lines", GridKind::hexagonalPointy, "canal line", 0x2f6b74));
  add("Hedge", byMask(sheetCalled(quilt, "trim"), "hedge", 0x61795a, trim::hedge, Decides::path));
  const Id walls = add("Loft walls", loftWalls(quilt));
  add("Loft floor", loftFloor(quilt, walls));
  add("Copper line", way(quilt, "lines", GridKind::hexagonalPointy, "copper line", 0xc77b4a));
  return quilt;
}

}  // namespace uq::art
