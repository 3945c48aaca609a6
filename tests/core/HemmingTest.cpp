// What edgings bring along: rows beside a border, and what lies all around.
#include "core/edit/Hemming.h"

#include <gmock/gmock.h>

#include <ostream>

#include "core/AnyGrid.h"
#include "core/HemmedMap.h"
#include "core/SavedQuilt.h"
#include "core/edit/JoinLaying.h"
#include "core/edit/Rejoin.h"
#include "core/edit/ResizeMap.h"
#include "core/edit/Seams.h"
#include "core/edit/Selected.h"
#include "core/store/EdgingText.h"
#include "core/store/JsonText.h"

namespace uq::test {
namespace {

// What the face of all walls of a layer must look like when it is so many rows high. Knows nothing of how it is laid.
struct FaceKnown {
  const HemmedMap& on;
  LayerAt layer;
  int rows;
  std::unique_ptr<const Grid> grid = makeGrid(on.shape);

  // How many rows below its border a cell is; nothing where none stands above it.
  std::optional<int> row(CellPos cell) const {
    if (!on.bounds.contains(cell) || on.isWall(layer, cell)) return std::nullopt;
    CellPos at = cell;
    for (int i = 0; i < rows; ++i) {
      at = grid->across(at, (on.below() + placesOf(on.shape.kind) / 2) % placesOf(on.shape.kind));
      if (on.isWall(layer, at)) return i;
    }
    return std::nullopt;
  }
  int tile(CellPos cell) const {
    const auto own = row(cell);
    if (!own) return -1;
    const int sides = placesOf(on.shape.kind);
    const int facing = on.below() + sides / 2;
    const auto runs = [&](int by) {
      bool any = row(grid->across(cell, (facing + by + sides) % sides)).has_value();
      if (sides == 6) any = any || row(grid->across(cell, (facing + 2 * by + sides) % sides)).has_value();
      return any;
    };
    const bool left = runs(-1);
    const bool right = runs(1);
    const HemPiece piece = left && right ? HemPiece::middle : left ? HemPiece::right : right ? HemPiece::left : HemPiece::alone;
    const HemRow kind = *own + 1 == rows ? HemRow::foot : *own == 0 ? HemRow::top : HemRow::middle;
    return static_cast<int>(HemmedMap::faceTile(kind, piece));
  }
  int wrong(LayerAt hems, std::ostream* say = nullptr) const {
    int wrong = 0;
    for (int y = on.bounds.y0; y < on.bounds.y1; ++y) {
      for (int x = on.bounds.x0; x < on.bounds.x1; ++x) {
        if (on.isWall(hems, {x, y}) || on.tile(hems, {x, y}) == tile({x, y})) continue;
        ++wrong;
        if (say) *say << "at " << x << "," << y << " lies " << on.tile(hems, {x, y}) << ", not " << tile({x, y}) << "\n";
      }
    }
    return wrong;
  }
};

std::vector<CellPos> anyPath(CellRect within, int count) {
  std::vector<CellPos> cells;
  for (int i = 0; i < count; ++i) cells.push_back({*rc::gen::inRange(within.x0, within.x1), *rc::gen::inRange(within.y0, within.y1)});
  return cells;
}

}  // namespace

TEST(Hemming, WallsHaveTheirFaceWhateverWasLaidAndTakenAway) {
  for (const char* role : {"", "faces"}) {
    EXPECT_TRUE(rc::check(std::string("on a layer of role ") + role, [role] {
      HemmedMap on(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))));
      on.change(on.walls, [&](Edging& walls) { walls.hems[0].role = role; });
      const int rows = *rc::gen::inRange(1, 5);
      for (int i = 0; i < 6; ++i) {
        const Tool tool = *rc::gen::element(Tool::brush, Tool::brush, Tool::box, Tool::line);
        StrokePlan plan = on.plan(on.walls, tool, rows);
        plan.takesAway = i > 0 && *rc::gen::inRange(0, 3) == 0;
        plan.options.outlines = tool == Tool::box && *rc::gen::arbitrary<bool>();
        const auto path = anyPath(on.bounds, tool == Tool::brush ? *rc::gen::inRange(1, 4) : 2);
        RC_LOG() << gridName(on.shape.kind) << " rows " << rows << " tool " << static_cast<int>(tool) << (plan.takesAway ? " takes " : " lays ");
        for (const CellPos at : path) RC_LOG() << at.x << "," << at.y << " ";
        RC_LOG() << "\n";
        on.paint(plan, path);
        const auto hems = *role ? on.ofRole(role) : on.ground();
        RC_ASSERT(hems.has_value());
        RC_ASSERT((FaceKnown{on, on.ground(), rows}).wrong(*hems, &RC_LOG()) == 0);
      }
    }));
  }
}

TEST(Hemming, ReadsTheHeightFromTheMapWhereWallsAreMended) {
  HemmedMap on(GridKind::orthogonal);
  on.paint(on.plan(on.walls, Tool::box, 3), {{2, 2}, {6, 4}});
  ASSERT_EQ(on.tile({4, 7}), static_cast<int>(HemmedMap::faceTile(HemRow::foot, HemPiece::middle)));
  // A piece of the lowest row goes, with another height in hand: the border above it is as high as that was.
  StrokePlan takes = on.plan(on.walls, Tool::brush, 5);
  takes.takesAway = true;
  on.paint(takes, {{4, 4}});
  EXPECT_EQ(on.tile({4, 4}), static_cast<int>(HemmedMap::faceTile(HemRow::top, HemPiece::alone)));
  EXPECT_EQ(on.tile({4, 6}), static_cast<int>(HemmedMap::faceTile(HemRow::foot, HemPiece::middle)));
  EXPECT_EQ(on.tile({4, 7}), -1);
  // What is laid anew has the height in hand.
  on.paint(on.plan(on.walls, Tool::brush, 5), {{9, 3}});
  EXPECT_EQ(on.tile({9, 8}), static_cast<int>(HemmedMap::faceTile(HemRow::foot, HemPiece::alone)));
}

TEST(Hemming, LeavesWhatStandsThere) {
  HemmedMap on(GridKind::orthogonal);
  const Cell door = tileOf(on.quilt, "rails", 3);
  LayerCells cells = *on.quilt.layer(on.ground());
  cells.cells.set({4, 4}, door);
  on.quilt = on.quilt.with(on.ground(), cells);
  on.paint(on.plan(on.walls, Tool::line, 3), {{2, 2}, {6, 2}});
  EXPECT_EQ(on.at({4, 4}), door);
  EXPECT_EQ(on.tile({4, 5}), static_cast<int>(HemmedMap::faceTile(HemRow::foot, HemPiece::middle)));
  StrokePlan takes = on.plan(on.walls, Tool::line);
  takes.takesAway = true;
  on.paint(takes, {{2, 2}, {6, 2}});
  EXPECT_EQ(on.at({4, 4}), door);
  EXPECT_EQ(on.tile({4, 5}), -1) << "a door does not end the face";
}

TEST(Hemming, LaysAShadowAtTheFootOfTheFace) {
  HemmedMap on(GridKind::orthogonal);
  on.change(on.walls, [&](Edging& walls) {
    Hem shadow{"shadow", 0, "shadows"};
    shadow.side = on.below();
    shadow.follows = true;
    shadow.tiles = {{{on.sheet, HemmedMap::kShadow}, {}}};
    walls.hems.push_back(shadow);
  });
  on.paint(on.plan(on.walls, Tool::line, 3), {{2, 2}, {6, 2}});
  const auto shadows = on.ofRole("shadows");
  ASSERT_TRUE(shadows.has_value());
  for (int y = 0; y < 10; ++y) EXPECT_EQ(on.tile(*shadows, {4, y}), y == 6 ? static_cast<int>(HemmedMap::kShadow) : -1) << y;
  on.paint(on.plan(on.walls, Tool::line, 1), {{2, 2}, {6, 2}});
  for (int y = 0; y < 10; ++y) EXPECT_EQ(on.tile(*shadows, {4, y}), y == 4 ? static_cast<int>(HemmedMap::kShadow) : -1) << y;
}

namespace {

// A floor with walls all around that have their face where they stand on floor.
void makeRooms(HemmedMap& on) {
  on.change(on.walls, [&](Edging& walls) { walls.hems[0].stands = true; });
  on.change(on.floor, [&](Edging& floor) {
    Hem around{"walls", 0, "walls"};
    around.around = on.walls;
    around.aroundMaterial = "Walls";
    floor.hems = {around};
  });
}

}  // namespace

TEST(Hemming, MakesARoomOfOneBoxOfFloor) {
  for (const GridKind kind : kGridKinds) {
    SCOPED_TRACE(gridName(kind));
    HemmedMap on(kind);
    makeRooms(on);
    on.paint(on.plan(on.floor, Tool::box, 2), {{5, 5}, {9, 10}});
    const auto walls = on.ofRole("walls");
    ASSERT_TRUE(walls.has_value());
    const auto grid = makeGrid(on.shape);
    const FaceKnown face{on, *walls, 2};
    for (int y = 0; y < 16; ++y) {
      for (int x = 0; x < 16; ++x) {
        bool besideFloor = false;
        for (int corner = 0; corner < placesOf(kind); ++corner) {
          for (const CellPos one : grid->aroundCorner({x, y}, corner)) besideFloor = besideFloor || on.isFloor(one);
        }
        const CellPos at{x, y};
        EXPECT_EQ(on.isWall(*walls, at), besideFloor && !on.isFloor(at)) << x << ", " << y;
        if (on.isWall(*walls, at)) continue;
        EXPECT_EQ(on.tile(*walls, at) >= 0, on.isFloor(at) && face.row(at).has_value()) << x << ", " << y;
      }
    }
  }
}

// Over a stitch, too: what has been laid by then is what walls stand on.
TEST(Hemming, MakesARoomAcrossAStitch) {
  HemmedMap on(GridKind::orthogonal);
  makeRooms(on);
  on.quilt = withBounds(on.quilt, on.map, {0, 0, 8, 16}, NewRoom::empty);
  const MapAdded right = addMap(on.quilt, {"Annex", on.shape, 8, 16}, on.ids);
  on.quilt = sewn(right.quilt, on.map, right.map, {8, 0}, on.ids).quilt;
  on.paint(on.plan(on.floor, Tool::box, 2), {{5, 5}, {10, 10}});
  const LayerAt walls = *on.ofRole("walls");
  EXPECT_TRUE(on.isWall(walls, {4, 8}));
  EXPECT_EQ(on.tile(walls, {7, 5}), static_cast<int>(HemmedMap::faceTile(HemRow::top, HemPiece::middle)));
  const Map& annex = *on.quilt.map(right.map);
  const auto found = std::find_if(annex.layers.begin(), annex.layers.end(), [](const Shared<Layer>& one) { return one->role == "walls"; });
  ASSERT_NE(found, annex.layers.end());
  EXPECT_EQ((*found)->cells.at({2, 5}).tile().number, HemmedMap::faceTile(HemRow::top, HemPiece::right));
  EXPECT_EQ((*found)->cells.at({3, 8}).tile().number, 0b0101u);
}

// What is laid stays inside what may be touched, the walls around it too.
TEST(Hemming, KeepsInsideTheSelection) {
  HemmedMap on(GridKind::orthogonal);
  makeRooms(on);
  on.paint(on.plan(on.floor, Tool::box, 2), {{4, 4}, {9, 9}});
  const Quilt before = on.quilt;
  StrokePlan plan = on.plan(on.floor, Tool::box, 2);
  plan.within = CellSet(CellRect{8, 5, 13, 8});
  on.paint(plan, {{6, 2}, {14, 12}});
  for (const Shared<Layer>& layer : on.quilt.map(on.map)->layers) {
    for (int y = 0; y < 16; ++y) {
      for (int x = 0; x < 16; ++x) {
        if (plan.within.contains({x, y})) continue;
        EXPECT_EQ(layer->cells.at({x, y}), before.layer({on.map, layer->id})->cells.at({x, y})) << x << ", " << y;
      }
    }
  }
}

// A layer that is locked keeps what lies there, and hinders no stroke on another.
TEST(Hemming, LeavesALockedLayerAsItIs) {
  HemmedMap on(GridKind::orthogonal);
  on.change(on.walls, [&](Edging& walls) { walls.hems[0].role = "faces"; });
  on.paint(on.plan(on.walls, Tool::line, 3), {{2, 2}, {6, 2}});
  const LayerAt faces = *on.ofRole("faces");
  const LayerCells before = *on.quilt.layer(faces);
  StrokePlan plan = on.plan(on.walls, Tool::line, 3);
  plan.shut = {faces.layer};
  on.paint(plan, {{2, 8}, {6, 8}});
  EXPECT_TRUE(on.isWall(on.ground(), {4, 8}));
  EXPECT_EQ(static_cast<const LayerCells&>(*on.quilt.layer(faces)), before);
}

TEST(Hemming, OpensARoomWhereAPieceOfWallIsTakenAway) {
  HemmedMap on(GridKind::orthogonal);
  makeRooms(on);
  on.paint(on.plan(on.floor, Tool::box, 2), {{5, 5}, {9, 10}});
  const LayerAt walls = *on.ofRole("walls");
  StrokePlan takes = on.plan(on.walls, Tool::brush);
  takes.layer = walls;
  takes.takesAway = true;
  on.paint(takes, {{7, 4}});
  EXPECT_EQ(on.tile(walls, {7, 4}), -1);
  EXPECT_EQ(on.tile(walls, {7, 5}), -1);
  EXPECT_EQ(on.tile(walls, {7, 6}), -1);
  EXPECT_EQ(on.tile(walls, {6, 5}), static_cast<int>(HemmedMap::faceTile(HemRow::top, HemPiece::right)));
  EXPECT_EQ(on.tile(walls, {8, 6}), static_cast<int>(HemmedMap::faceTile(HemRow::foot, HemPiece::left)));
  EXPECT_EQ(on.tile(walls, {6, 4}), 0b1000) << "the wall ends, and goes on to the left only";
  EXPECT_EQ(on.tile(walls, {8, 4}), 0b0010);
  // A room laid against it becomes one with it, and the walls between them go.
  on.paint(on.plan(on.floor, Tool::box, 2), {{9, 7}, {13, 9}});
  EXPECT_EQ(on.tile(walls, {10, 8}), -1);
  EXPECT_TRUE(on.isWall(walls, {10, 6}));
  EXPECT_TRUE(on.isWall(walls, {14, 8}));
  // Floor taken away takes its walls along, and what is left is closed.
  StrokePlan floorGoes = on.plan(on.floor, Tool::box);
  floorGoes.takesAway = true;
  on.paint(floorGoes, {{10, 5}, {13, 12}});
  EXPECT_TRUE(on.isWall(walls, {10, 8}));
  EXPECT_EQ(on.tile(walls, {14, 8}), -1);
  EXPECT_EQ(on.tile(walls, {12, 6}), -1);
}

TEST(Hemming, ComesAlongWhereWallsAreMovedOrJoinedAnew) {
  HemmedMap on(GridKind::orthogonal);
  on.change(on.walls, [&](Edging& walls) { walls.hems[0].role = "faces"; });
  on.paint(on.plan(on.walls, Tool::line, 3), {{2, 2}, {6, 2}});
  const LayerAt faces = *on.ofRole("faces");
  const Quilt before = on.quilt;
  const Quilt moved = moveCells(before, SelectedCells(std::vector{on.ground()}, CellSet(CellRect{2, 2, 7, 3})), {3, 4});
  on.quilt = joinedWhereChanged(before, moved, on.map);
  EXPECT_EQ(on.tile(faces, {4, 3}), -1) << "where it lay";
  EXPECT_EQ(on.tile(faces, {7, 7}), static_cast<int>(HemmedMap::faceTile(HemRow::top, HemPiece::middle)));
  // Taken away by hand, it is laid by joining anew; a second time nothing is left to do.
  on.quilt = on.quilt.with(faces, LayerCells());
  EXPECT_TRUE(joinFindings(on.quilt, on.ground()).hems.empty()) << "somebody may want none";
  QuiltRejoined anew = rejoinedWithHems(on.quilt, on.ground(), CellSet(on.bounds));
  EXPECT_EQ(anew.changed.count(), 10) << "two rows as the hem says";
  on.quilt = anew.quilt;
  EXPECT_EQ((FaceKnown{on, on.ground(), 2}).wrong(faces), 0);
  EXPECT_TRUE(rejoinedWithHems(on.quilt, on.ground(), CellSet(on.bounds)).changed.empty());
  EXPECT_TRUE(joinFindings(on.quilt, on.ground()).hems.empty());
  // A piece that is not the right one there is found.
  LayerCells odd = *on.quilt.layer(faces);
  odd.lay(CellPos{7, 7}, Laid{Cell({*on.quilt.slots().find(on.sheet), HemmedMap::faceTile(HemRow::foot, HemPiece::left)}, {}), 0});
  on.quilt = on.quilt.with(faces, odd);
  EXPECT_TRUE(joinFindings(on.quilt, on.ground()).hems.contains({7, 7}));
  EXPECT_TRUE(joinFindings(rejoinedWithHems(on.quilt, on.ground(), CellSet(on.bounds)).quilt, on.ground()).hems.empty());
}

// Tops of walls alone are pasted: their faces come, and end where the walls do.
TEST(Hemming, ComesAlongWithABlockThatIsPasted) {
  for (const char* role : {"", "faces"}) {
    EXPECT_TRUE(rc::check(std::string("on a layer of role ") + role, [role] {
      HemmedMap on(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))));
      on.change(on.walls, [&](Edging& walls) { walls.hems[0].role = role; });
      on.paint(on.plan(on.walls, Tool::line, 2), {{1, 1}, {*rc::gen::inRange(2, 6), 1}});
      const Quilt walled = on.quilt;
      const auto grid = makeGrid(on.shape);
      std::vector<Block::Part> tops;
      for (int x = 0; x < 3; ++x) tops.push_back({grid->toSide({x, 0}) - grid->toSide({0, 0}), on.at({1 + x, 1})});
      std::erase_if(tops, [](const Block::Part& part) { return part.cell.empty(); });
      StrokePlan plan = layingOn(on.ground(), InHand(Block(tops), on.shape.kind));
      plan.options.joinsMet = true;
      const CellPos to{*rc::gen::inRange(2, 12), *rc::gen::inRange(6, 11)};
      on.paint(plan, {to});
      const LayerAt faces = *role ? *on.ofRole(role) : on.ground();
      RC_ASSERT((FaceKnown{on, on.ground(), 2}).wrong(faces) == 0);
      RC_ASSERT(on.isWall(on.ground(), to));
    }));
  }
}

// Three tops of walls in hand, to be joined where they are laid.
StrokePlan tops(const HemmedMap& on) {
  const auto grid = makeGrid(on.shape);
  std::vector<Block::Part> parts;
  const Cell alone({*on.quilt.slots().find(on.sheet), 0}, {});
  for (int x = 0; x < 3; ++x) parts.push_back({grid->toSide({x, 0}) - grid->toSide({0, 0}), alone});
  StrokePlan plan = layingOn(on.ground(), InHand(Block(parts), on.shape.kind));
  plan.options.joinsMet = true;
  return plan;
}

// Two maps that are sewn come out as one would, walls and faces, on all grids.
TEST(Hemming, GoesOverStitchesAsOnOneMap) {
  for (const char* role : {"", "faces"}) {
    EXPECT_TRUE(rc::check(std::string("on a layer of role ") + role, [role] {
      const GridKind kind = *rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds)));
      HemmedMap whole(kind);
      HemmedMap halves(kind);
      for (HemmedMap* on : {&whole, &halves}) on->change(on->walls, [&](Edging& walls) { walls.hems[0].role = role; });
      halves.quilt = withBounds(halves.quilt, halves.map, {0, 0, 8, 16}, NewRoom::empty);
      const MapAdded right = addMap(halves.quilt, {"Annex", halves.shape, 8, 16}, halves.ids);
      const Sewing joined = sewn(right.quilt, halves.map, right.map, {8, 0}, halves.ids);
      halves.quilt = joined.quilt;
      RC_ASSERT(halves.quilt.seams().size() == 1u);
      const int rows = *rc::gen::inRange(1, 4);
      for (int i = 0; i < 5; ++i) {
        const Tool tool = *rc::gen::element(Tool::brush, Tool::box, Tool::line);
        const bool takesAway = i > 0 && *rc::gen::inRange(0, 3) == 0;
        std::vector<CellPos> path = anyPath(whole.bounds, 2);
        path[0].x %= 8;
        const bool pastes = *rc::gen::inRange(0, 3) == 0;
        for (HemmedMap* on : {&whole, &halves}) {
          StrokePlan plan = pastes ? tops(*on) : on->plan(on->walls, tool, rows);
          plan.takesAway = takesAway && !pastes;
          on->paint(plan, pastes ? std::vector{path[0]} : path);
        }
        const Map& left = *halves.quilt.map(halves.map);
        const Map& beyond = *halves.quilt.map(right.map);
        for (const Shared<Layer>& layer : whole.quilt.map(whole.map)->layers) {
          const auto half = [&](const Map& map) -> const Layer* {
            const auto found = std::find_if(map.layers.begin(), map.layers.end(), [&](const Shared<Layer>& one) { return one->role == layer->role; });
            return found == map.layers.end() ? nullptr : &found->read();
          };
          for (int y = 0; y < 16; ++y) {
            for (int x = 0; x < 16; ++x) {
              const Layer* here = half(x < 8 ? left : beyond);
              const Cell cell = here ? here->cells.at({x < 8 ? x : x - 8, y}) : Cell();
              RC_ASSERT(cell == layer->cells.at({x, y}));
            }
          }
        }
      }
    }));
  }
}

TEST(Hemming, IsReadAsItWasWritten) {
  HemmedMap on(GridKind::hexagonalPointy);
  makeRooms(on);
  on.change(on.walls, [&](Edging& walls) {
    Hem inside{"kerb", 0, "kerbs"};
    inside.inside = true;
    inside.tiles = {{{on.sheet, 3}, Turn::fromCode(2), HemRow::foot, HemPiece::alone, 7}};
    walls.hems.push_back(inside);
  });
  for (const Id id : {on.walls, on.floor}) {
    const Edging& edging = *on.quilt.edging(id);
    const std::string text = writeJson(edgingDocument(edging));
    const auto parsed = readJson(text, "edgings/x.json");
    ASSERT_TRUE(parsed) << text;
    const auto read = readEdgingDocument(*parsed, "edgings/x.json");
    ASSERT_TRUE(read) << read.error().reason;
    EXPECT_THAT(read->hems, testing::ElementsAreArray(edging.hems));
  }
}

TEST(Hemming, RefusesWhatIsNone) {
  HemmedMap on(GridKind::orthogonal);
  Edging walls = *on.quilt.edging(on.walls);
  EXPECT_EQ(whyNoEdging(walls), "");
  const auto why = [&](const std::function<void(Hem&)>& change) {
    Edging other = walls;
    change(other.hems.front());
    return whyNoEdging(other);
  };
  EXPECT_THAT(why([](Hem& hem) { hem.name.clear(); }), testing::HasSubstr("name"));
  EXPECT_THAT(why([](Hem& hem) { hem.side = 4; }), testing::HasSubstr("side"));
  EXPECT_THAT(why([](Hem& hem) { hem.rows = 33; }), testing::HasSubstr("rows"));
  EXPECT_THAT(why([](Hem& hem) { hem.material = 1; }), testing::HasSubstr("material"));
  EXPECT_THAT(why([](Hem& hem) { hem.inside = true; }), testing::HasSubstr("layer"));
  EXPECT_THAT(why([](Hem& hem) { hem.tiles.clear(); }), testing::HasSubstr("tiles"));
  EXPECT_THAT(why([](Hem& hem) { hem.follows = true; }), testing::HasSubstr("follows"));
  EXPECT_THAT(why([&](Hem& hem) { hem.around = on.floor, hem.aroundMaterial = "Floor"; }), testing::HasSubstr("all around"));
}

TEST(Hemming, TakesItsPiecesFromABlock) {
  std::vector<std::vector<std::optional<HemTile>>> block(3, std::vector<std::optional<HemTile>>(4));
  std::uint32_t number = 0;
  for (auto& row : block) {
    for (auto& one : row) one = HemTile{{{}, number++}, {}};
  }
  const auto tiles = hemTilesOf(block);
  ASSERT_EQ(tiles.size(), 12u);
  for (std::size_t i = 0; i < 12; ++i) {
    EXPECT_EQ(tiles[i].row, kHemRows[i / 4]);
    EXPECT_EQ(tiles[i].piece, kHemPieces[i % 4]);
  }
}

}  // namespace uq::test
