// Seams: painting over one is painting on one large map and cutting it; and what edits leave of them.
#include "core/edit/Seams.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include <algorithm>

#include "core/Ground.h"
#include "core/SavedQuilt.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/MapFacts.h"

namespace uq::test {

using testing::HasSubstr;
using testing::IsEmpty;
using testing::SizeIs;

namespace {

// A ground, and the same cells cut into maps that are sewn where they were cut.
struct Cut {
  Ground whole;
  Quilt quilt;
  LayerAt at;  // on the map from which it is painted
  struct Part {
    LayerAt layer;
    CellRect cells;  // of the whole
    CellPos by;
  };
  std::vector<Part> parts;

  Cell cell(const Quilt& painted, CellPos pos) const {
    for (const Part& part : parts) {
      if (part.cells.contains(pos)) return painted.layer(part.layer)->cells.at({pos.x - part.by.x, pos.y - part.by.y});
    }
    return {};
  }
};

int evenBetween(int least, int most) { return 2 * *rc::gen::inRange((least + 1) / 2, most / 2 + 1); }

// Cuts at a column, at a row, or both; each part has cells of its own, as far off as the grid allows.
Cut cutUp(Ground ground) {
  ground.scatter();
  const CellRect all = ground.bounds();
  std::vector<int> columns{all.x0, all.x1};
  std::vector<int> rows{all.y0, all.y1};
  const int ways = *rc::gen::inRange(1, 4);
  if (ways & 1) columns.insert(columns.begin() + 1, *rc::gen::inRange(all.x0 + 1, all.x1));
  if (ways & 2) rows.insert(rows.begin() + 1, *rc::gen::inRange(all.y0 + 1, all.y1));
  Cut cut{ground, ground.quilt.without<Map>(ground.at.map), {}, {}};
  IdSource ids(31);
  for (std::size_t y = 0; y + 1 < rows.size(); ++y) {
    for (std::size_t x = 0; x + 1 < columns.size(); ++x) {
      const CellRect cells{columns[x], rows[y], columns[x + 1], rows[y + 1]};
      const bool first = cut.parts.empty();
      const CellPos by = first ? CellPos{} : CellPos{evenBetween(-200, 200), evenBetween(-200, 200)};
      Map map = *ground.quilt.map(ground.at.map);
      map.id = freshId(cut.quilt, ids);
      map.name = "Part " + std::to_string(cut.parts.size());
      map.folder = "part-" + std::to_string(cut.parts.size());
      map.bounds = {cells.x0 - by.x, cells.y0 - by.y, cells.x1 - by.x, cells.y1 - by.y};
      for (Shared<Layer>& layer : map.layers) {
        layer.edit([&](Layer& one) {
          const Layer from = one;
          static_cast<LayerCells&>(one) = {};
          from.forEachLaid(CellSet(cells), [&](CellPos pos, const Laid& laid) { one.lay(CellPos{pos.x - by.x, pos.y - by.y}, laid); });
          if (!first) one.id = ids.next();
        });
      }
      const LayerAt at{map.id, map.layerNamed("Sheds")->id};
      cut.quilt = cut.quilt.with(std::move(map));
      cut.parts.push_back({at, cells, by});
    }
  }
  for (std::size_t i = 0; i < cut.parts.size(); ++i) {
    for (std::size_t j = i + 1; j < cut.parts.size(); ++j) {
      const Cut::Part& a = cut.parts[i];
      const Cut::Part& b = cut.parts[j];
      if (!edgesMeet(ground.grid->shape().kind, a.cells, b.cells)) continue;
      const Sewing done = sewn(cut.quilt, a.layer.map, b.layer.map, {b.by.x - a.by.x, b.by.y - a.by.y}, ids);
      RC_ASSERT(done.why == "");
      cut.quilt = done.quilt;
    }
  }
  cut.at = cut.parts.front().layer;
  return cut;
}

InHand anyHand(const Ground& ground) {
  const GridKind kind = ground.grid->shape().kind;
  switch (*rc::gen::inRange(0, 5)) {
    case 0: return InHand(Block::of(ground.tile(3)), kind);
    case 1: {
      std::vector<Block::Part> parts;
      for (int i = *rc::gen::inRange(2, 6); i > 0; --i) {
        parts.push_back({{*rc::gen::inRange(0, 3), *rc::gen::inRange(0, 3)}, ground.tile(20 + static_cast<std::uint32_t>(i))});
      }
      return InHand(Block(std::move(parts)), kind);
    }
    case 2: return mixOf(ground, {4, 5, 6});
    case 3: {
      InHand mix = mixOf(ground, {4, 5});
      mix.members.push_back({Block({{{0, 0}, ground.tile(7)}, {{1, 0}, ground.tile(8)}})});
      mix.neverAlike = *rc::gen::arbitrary<bool>();
      return mix;
    }
    default: return platform(ground);
  }
}

StrokePlan anyPlan(const Ground& ground) {
  const Tool tool = *rc::gen::element(Tool::brush, Tool::erase, Tool::line, Tool::box, Tool::oval, Tool::fill);
  StrokePlan plan = ground.plan(tool, anyHand(ground));
  plan.options.width = *rc::gen::element(1, 1, 3, 5);
  plan.options.outlines = *rc::gen::arbitrary<bool>();
  plan.options.throughCorners = *rc::gen::arbitrary<bool>();
  plan.takesAway = *rc::gen::inRange(0, 5) == 0;
  plan.seed = *rc::gen::arbitrary<std::uint64_t>();
  return plan;
}

}  // namespace

RC_GTEST_PROP(Seams, PaintingOverThemIsPaintingOnOneMapAndCuttingIt, ()) {
  const Cut cut = cutUp(anyGround());
  const Ground& whole = cut.whole;
  StrokePlan plan = anyPlan(whole);
  std::vector<CellPos> path;
  for (int i = *rc::gen::inRange(1, 5); i > 0; --i) path.push_back({*rc::gen::inRange(-12, 12), *rc::gen::inRange(-10, 11)});
  const Quilt once = stroked(whole.quilt, plan, path);
  plan.layer = cut.at;
  Stroke stroke(cut.quilt, plan);
  for (const CellPos cell : path) stroke.moveTo(cell);
  for (int y = whole.bounds().y0; y < whole.bounds().y1; ++y) {
    for (int x = whole.bounds().x0; x < whole.bounds().x1; ++x) {
      if (!(cut.cell(stroke.quilt(), {x, y}) == whole.cell(once, {x, y}))) {
        RC_FAIL("cell " + std::to_string(x) + ", " + std::to_string(y) + " with tool " + std::to_string(static_cast<int>(plan.tool)));
      }
    }
  }
  // Nothing beside the maps, and on no other layer.
  for (const Cut::Part& part : cut.parts) {
    const Map& now = *stroke.quilt().map(part.layer.map);
    RC_ASSERT(now.layers.size() == cut.quilt.map(part.layer.map)->layers.size());
    stroke.quilt().layer(part.layer)->forEachLaid([&](CellPos pos, const Laid&) { RC_ASSERT(now.bounds.contains(pos)); });
  }
}

RC_GTEST_PROP(Seams, AFillGoesRoundWhatWraps, ()) {
  Ground ground = anyGround();
  Map map = *ground.quilt.map(ground.at.map);
  map.bounds = {-8, -6, 8, 8};
  ground.quilt = ground.quilt.with(map);
  ground.scatter();
  IdSource ids(5);
  const int ways = *rc::gen::inRange(1, 4);
  for (const bool down : {false, true}) {
    if (ways & (down ? 2 : 1)) ground.quilt = wrapped(ground.quilt, map.id, down, ids).quilt;
  }
  RC_ASSERT(wraps(ground.quilt, map.id, false) == ((ways & 1) != 0));
  const CellPos start{*rc::gen::inRange(-8, 8), *rc::gen::inRange(-6, 8)};
  StrokePlan plan = ground.plan(Tool::fill, InHand(Block::of(ground.tile(9)), map.grid.kind));
  plan.options.asSeen = false;
  plan.options.alike = Alike::tile;
  const Quilt filled = stroked(ground.quilt, plan, {start});
  // From cell to cell, round the ends.
  const auto held = [&](CellPos pos) {
    const Cell cell = ground.cell(ground.quilt, pos);
    return cell.empty() ? TileRef{} : cell.tile();
  };
  std::set<CellPos> found;
  std::vector<CellPos> open{start};
  while (!open.empty()) {
    CellPos pos = open.back();
    open.pop_back();
    if (ways & 1) pos.x = -8 + (pos.x + 8 + 16) % 16;
    if (ways & 2) pos.y = -6 + (pos.y + 6 + 14) % 14;
    if (!map.bounds.contains(pos) || held(pos) != held(start) || !found.insert(pos).second) continue;
    for (int side = 0; side < ground.grid->turnOrder(); ++side) open.push_back(ground.grid->across(pos, side));
  }
  for (int y = -6; y < 8; ++y) {
    for (int x = -8; x < 8; ++x) {
      const Cell expected = found.contains({x, y}) ? ground.tile(9) : ground.cell(ground.quilt, {x, y});
      RC_ASSERT(ground.cell(filled, {x, y}) == expected);
    }
  }
}

// What goes over an edge comes in at the other.
RC_GTEST_PROP(Seams, AStrokeGoesRoundWhatWraps, ()) {
  Ground ground = anyGround();
  Map map = *ground.quilt.map(ground.at.map);
  map.bounds = {-8, -6, 8, 8};
  ground.quilt = ground.quilt.with(map);
  IdSource ids(5);
  const bool down = *rc::gen::arbitrary<bool>();
  const Sewing done = wrapped(ground.quilt, map.id, down, ids);
  RC_ASSERT(done.why == "");
  StrokePlan plan = ground.plan(*rc::gen::element(Tool::brush, Tool::line, Tool::box, Tool::oval, Tool::erase),
                                InHand(Block::of(ground.tile(2)), map.grid.kind));
  plan.options.width = *rc::gen::element(1, 3);
  const std::vector<CellPos> path{{*rc::gen::inRange(-8, 8), *rc::gen::inRange(-6, 8)},
                                  {*rc::gen::inRange(-14, 14), *rc::gen::inRange(-12, 14)}};
  const Quilt round = stroked(done.quilt, plan, path);
  // On a map three times as large, then laid on one another.
  Ground wide = ground;
  Map larger = map;
  larger.bounds = down ? CellRect{-8, -20, 8, 22} : CellRect{-24, -6, 24, 8};
  wide.quilt = wide.quilt.with(larger);
  const Quilt far = stroked(wide.quilt, plan, path);
  for (int y = -6; y < 8; ++y) {
    for (int x = -8; x < 8; ++x) {
      bool laid = false;
      for (const int times : {-1, 0, 1}) {
        laid = laid || !ground.cell(far, {x + (down ? 0 : 16 * times), y + (down ? 14 * times : 0)}).empty();
      }
      RC_ASSERT(ground.cell(round, {x, y}).empty() == !laid);
    }
  }
}

namespace {

// Maps of one grid, some sewn.
Quilt anySewn(IdSource& ids) {
  Quilt quilt = smallQuilt();
  const GridShape grid = nearestShape(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))), {32, 32});
  for (int n = *rc::gen::inRange(2, 6); n > 0; --n) {
    quilt = addMap(quilt, {"Plot " + std::to_string(n), grid, *rc::gen::inRange(2, 9), *rc::gen::inRange(2, 9)}, ids).quilt;
  }
  return quilt;
}

const Map& anyMapOf(const Quilt& quilt) { return quilt.maps()[*rc::gen::inRange<std::size_t>(0, quilt.maps().size())].read(); }

std::size_t wrongSeams(const Quilt& quilt) {
  const SewnMaps sewnMaps(quilt);
  return static_cast<std::size_t>(std::count_if(quilt.seams().begin(), quilt.seams().end(),
                                                [&](const auto& seam) { return !sewnMaps.whyWrong(seam->id).empty(); }));
}

}  // namespace

RC_GTEST_PROP(Seams, AreRightOrNamedWhateverIsDoneToTheMaps, ()) {
  IdSource ids(77);
  Quilt quilt = anySewn(ids);
  std::vector<Quilt> past;
  for (int i = *rc::gen::inRange(1, 25); i > 0; --i) {
    past.push_back(quilt);
    const Map map = anyMapOf(quilt);
    const Map other = anyMapOf(quilt);
    Quilt next = quilt;
    switch (*rc::gen::inRange(0, 8)) {
      case 0:
      case 1:
      case 2: {
        const CellRect& a = map.bounds;
        const CellRect& b = other.bounds;
        const CellPos right{a.x1 - b.x0, a.y0 - b.y0 + *rc::gen::inRange(-3, 3)};
        const CellPos below{a.x0 - b.x0 + *rc::gen::inRange(-3, 3), a.y1 - b.y0};
        next = map.id == other.id ? wrapped(quilt, map.id, *rc::gen::arbitrary<bool>(), ids).quilt
                                  : sewn(quilt, map.id, other.id, *rc::gen::element(right, below), ids).quilt;
        break;
      }
      case 3:
        next = resized(quilt, map.id, {{}, {}, false, {*rc::gen::inRange(-2, 3), *rc::gen::inRange(-2, 3), *rc::gen::inRange(-2, 3), *rc::gen::inRange(-2, 3)}, {}, {}, false, NewRoom::empty}).quilt;
        break;
      case 4: next = renameMap(quilt, map.id, map.name + "a"); break;
      case 5:
        if (quilt.maps().size() > 2) next = deleteMap(quilt, map.id);
        break;
      case 6: next = duplicateMaps(quilt, {map.id, other.id}, ids).quilt; break;
      default:
        if (!quilt.seams().empty()) next = ripped(quilt, {quilt.seams().front()->id});
    }
    const SeamsKept kept = withSeamsKept(quilt, next);
    RC_ASSERT(kept.quilt.seams().size() + kept.opened.size() == next.seams().size());
    quilt = *rc::gen::inRange(0, 6) == 0 ? past[*rc::gen::inRange<std::size_t>(0, past.size())] : kept.quilt;
    RC_ASSERT(wrongSeams(quilt) == 0u);
    // No two maps lie on one cell.
    for (const auto& one : quilt.maps()) {
      const auto patches = Patchwork::across(quilt, one->id).patches();
      RC_ASSERT(patches.front().map == one->id);
      RC_ASSERT(patches.front().by == CellPos());
      for (std::size_t a = 0; a < patches.size(); ++a) {
        for (std::size_t b = a + 1; b < patches.size(); ++b) RC_ASSERT(patches[a].cells.intersected(patches[b].cells).empty());
      }
    }
  }
}

TEST(Seams, SayWhatDiffersWhereMapsCannotBeSewn) {
  IdSource ids(3);
  Quilt quilt = smallQuilt();
  const Map yard = *quilt.mapNamed("Yard");
  const Map loft = *quilt.mapNamed("Loft");
  EXPECT_THAT(sewn(quilt, yard.id, loft.id, {30, 0}, ids).why, HasSubstr("do not meet"));
  EXPECT_THAT(sewn(quilt, yard.id, loft.id, {10, 0}, ids).why, HasSubstr("do not meet"));
  EXPECT_EQ(sewn(quilt, yard.id, loft.id, {16, 0}, ids).why, "");
  Map slanted = loft;
  slanted.grid = nearestShape(GridKind::diamond, {64, 32});
  EXPECT_THAT(sewn(quilt.with(slanted), yard.id, loft.id, {16, 0}, ids).why, HasSubstr("only maps of one grid"));
  Map small = loft;
  small.grid.cell = {16, 16};
  EXPECT_THAT(sewn(quilt.with(small), yard.id, loft.id, {16, 0}, ids).why, HasSubstr("16 × 16 px"));
  const Quilt sideOn = withSeen(quilt, loft.id, Seen::sideOn);
  EXPECT_EQ(sewn(sideOn, yard.id, loft.id, {16, 0}, ids).why, "Yard is seen from above, Loft side on: sewn maps are seen the same way");
  EXPECT_EQ(sewn(withSeen(sideOn, yard.id, Seen::sideOn), yard.id, loft.id, {16, 0}, ids).why, "");
  Map rows = loft;
  rows.grid = nearestShape(GridKind::staggered, {64, 32});
  Map under = yard;
  under.grid = rows.grid;
  const Quilt staggered = quilt.with(rows).with(under);
  EXPECT_THAT(sewn(staggered, yard.id, loft.id, {16, 1}, ids).why, HasSubstr("half a cell off"));
  EXPECT_EQ(sewn(staggered, yard.id, loft.id, {16, 2}, ids).why, "");
  EXPECT_THAT(wrapped(staggered, loft.id, true, ids).why, HasSubstr("one row more to wrap"));
  EXPECT_EQ(wrapped(staggered, loft.id, false, ids).why, "");
}

TEST(Seams, OfMapsThatAreSeenOtherwiseLaterAreWrongAndSaySo) {
  IdSource ids(3);
  const Quilt quilt = smallQuilt();
  const Id yard = quilt.mapNamed("Yard")->id;
  const Id loft = quilt.mapNamed("Loft")->id;
  const Quilt together = sewn(quilt, yard, loft, {16, 0}, ids).quilt;
  EXPECT_TRUE(SewnMaps::of(together)->hangTogether(yard, loft));
  const Quilt apart = withSeen(together, loft, Seen::sideOn);
  EXPECT_FALSE(SewnMaps::of(apart)->hangTogether(yard, loft)) << "nothing is painted over to it";
  EXPECT_THAT(SewnMaps::of(apart)->whyWrong(apart.seams().front()->id), HasSubstr("seen the same way"));
}

TEST(Seams, GoAlongWithAnEdgeThatMovesAndOpenWhereTheyCannot) {
  IdSource ids(3);
  const Quilt plain = smallQuilt();
  const Id yard = plain.mapNamed("Yard")->id;
  const Id loft = plain.mapNamed("Loft")->id;
  const Quilt quilt = sewn(plain, yard, loft, {16, 0}, ids).quilt;
  ASSERT_THAT(quilt.seams(), SizeIs(1));
  const SeamsKept wider = withSeamsKept(quilt, withBounds(quilt, yard, {-7, -4, 20, 8}));
  EXPECT_THAT(wider.opened, IsEmpty());
  EXPECT_EQ(wider.quilt.seams().front()->by, (CellPos{20, 0}));
  // Cut so short that the edges have no cell in common any more.
  const SeamsKept cut = withSeamsKept(quilt, withBounds(quilt, yard, {-4, -4, 16, 0}));
  EXPECT_THAT(cut.opened, testing::ElementsAre("Yard ~ Loft"));
  EXPECT_THAT(cut.quilt.seams(), IsEmpty());
  const SeamsKept gone = withSeamsKept(quilt, deleteMap(quilt, loft));
  EXPECT_THAT(gone.opened, testing::ElementsAre("Yard ~ Loft"));
}

namespace {

std::string linksText(const std::string& seams) {
  return "{\n  \"document\": \"links\",\n  \"version\": \"1.10\",\n  \"seams\": [" + seams + "]\n}\n";
}
std::string seamBy(const char* id, Id map, Id other, int x, int y) {
  return "{\"id\": \"" + std::string(id) + "\", \"map\": \"" + map.text() + "\", \"other\": \"" + other.text() + "\", \"at\": [" +
         std::to_string(x) + ", " + std::to_string(y) + "]}";
}

}  // namespace

TEST(Seams, AreSavedReadAndTakenAwayWithTheirFile) {
  Saved saved;
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  IdSource ids(3);
  const Id yard = opened->quilt.mapNamed("Yard")->id;
  const Id loft = opened->quilt.mapNamed("Loft")->id;
  Quilt quilt = sewn(opened->quilt, yard, loft, {16, 0}, ids).quilt;
  quilt = wrapped(quilt, yard, true, ids).quilt;
  ASSERT_THAT(quilt.seams(), SizeIs(2));
  ASSERT_TRUE(opened->store.save(quilt));
  auto again = saved.open();
  ASSERT_TRUE(again);
  EXPECT_THAT(again->problems, IsEmpty());
  EXPECT_TRUE(again->quilt.seams() == quilt.seams());
  // What a later version says there stays.
  std::string& text = saved.file("links.json");
  text.replace(text.find("\"seams\""), 0, "\"bridges\": [1, 2],\n  ");
  again = saved.open();
  ASSERT_TRUE(again);
  ASSERT_TRUE(again->store.save(ripped(again->quilt, {quilt.seams().front()->id})));
  EXPECT_THAT(saved.file("links.json"), HasSubstr("\"bridges\""));
  again = saved.open();
  ASSERT_TRUE(again);
  EXPECT_THAT(again->quilt.seams(), SizeIs(1));
}

TEST(Seams, ThatAreWrongAreKeptToldAndNotPaintedAcross) {
  Saved saved;
  auto opened = saved.open();
  ASSERT_TRUE(opened);
  const Id yard = opened->quilt.mapNamed("Yard")->id;
  const Id loft = opened->quilt.mapNamed("Loft")->id;
  struct Wrong {
    const char* what;
    std::string seams;
    const char* said;
    std::size_t reached;  // maps on the canvas of the yard
  };
  const Id gone = *Id::parse("gonegonegone");
  for (const Wrong& one : {
           Wrong{"gone", seamBy("aaaaaaaaaaab", yard, gone, 16, 0), "a map that is not in this quilt", 1},
           Wrong{"far", seamBy("aaaaaaaaaaab", yard, loft, 4000000, 0), "do not meet", 1},
           Wrong{"twice", seamBy("aaaaaaaaaaab", yard, loft, 16, 0) + ", " + seamBy("aaaaaaaaaaac", loft, yard, -16, 0), "are sewn twice", 2},
           Wrong{"round", seamBy("aaaaaaaaaaab", yard, loft, 16, 0) + ", " + seamBy("aaaaaaaaaaac", loft, yard, 10, 0), "at two places", 2},
           Wrong{"on itself", "{\"id\": \"aaaaaaaaaaab\", \"map\": \"" + yard.text() + "\", \"wraps\": \"across\"}, " + seamBy("aaaaaaaaaaac", yard, loft, 16, 0), "claim the same cells", 1}}) {
    saved.disk->files[kFolder + "/links.json"] = linksText(one.seams);
    auto read = saved.open();
    ASSERT_TRUE(read) << one.what;
    ASSERT_THAT(read->problems, SizeIs(1)) << one.what;
    EXPECT_THAT(read->problems[0].text(), HasSubstr(one.said)) << one.what;
    EXPECT_EQ(Patchwork::across(read->quilt, yard).patches().size(), one.reached) << one.what;
    // Nothing dropped.
    const std::string before = saved.file("links.json");
    ASSERT_TRUE(read->store.save(renameMap(read->quilt, loft, "Attic"))) << one.what;
    EXPECT_EQ(saved.file("links.json"), before) << one.what;
  }
  for (const char* broken : {"{\"id\": \"aaaaaaaaaaab\"}", "17", "{\"id\": \"aaaaaaaaaaab\", \"map\": \"aaaaaaaaaaac\", \"wraps\": \"round\"}"}) {
    saved.disk->files[kFolder + "/links.json"] = linksText(broken);
    auto read = saved.open();
    ASSERT_TRUE(read) << broken;
    EXPECT_THAT(read->problems, SizeIs(1)) << broken;
    EXPECT_THAT(read->quilt.seams(), IsEmpty()) << broken;
    const std::string before = saved.file("links.json");
    ASSERT_TRUE(read->store.save(renameMap(read->quilt, loft, "Attic"))) << broken;
    EXPECT_EQ(saved.file("links.json"), before) << broken;
  }
}

TEST(Seams, StopAStrokeWhereTheOtherMapMayNotBeChanged) {
  Cut cut = [] {
    Ground ground(GridKind::orthogonal);
    const Map whole = *ground.quilt.map(ground.at.map);
    Cut made{ground, ground.quilt, ground.at, {}};
    IdSource ids(31);
    MapAdded east = duplicateMap(ground.quilt, whole.id, ids);
    made.quilt = sewn(east.quilt, whole.id, east.map, {18, 0}, ids).quilt;
    made.parts = {{ground.at, whole.bounds, {}}, {{east.map, made.quilt.map(east.map)->layerNamed("Sheds")->id}, {9, -7, 27, 8}, {18, 0}}};
    return made;
  }();
  StrokePlan plan = cut.whole.plan(Tool::brush, InHand(Block::of(cut.whole.tile(3)), GridKind::orthogonal));
  const std::vector<CellPos> path{{7, 0}, {12, 0}};
  EXPECT_FALSE(cut.cell(stroked(cut.quilt, plan, path), {11, 0}).empty());
  const auto refused = [&](const StrokePlan& one, const char* why) {
    Stroke stroke(cut.quilt, one);
    for (const CellPos cell : path) stroke.moveTo(cell);
    EXPECT_TRUE(cut.cell(stroke.quilt(), {11, 0}).empty()) << why;
    EXPECT_FALSE(cut.cell(stroke.quilt(), {8, 0}).empty()) << why;
    EXPECT_THAT(stroke.stopsAt(), HasSubstr(why));
  };
  StrokePlan locked = plan;
  locked.shut.insert(cut.parts[1].layer.layer);
  refused(locked, "Sheds is hidden or locked on Yard copy");
  StrokePlan damaged = plan;
  damaged.unchangeable[cut.parts[1].layer.map] = "it was not read whole";
  refused(damaged, "it was not read whole");
  StrokePlan alone = plan;
  alone.options.onlyThisMap = true;
  Stroke stroke(cut.quilt, alone);
  for (const CellPos cell : path) stroke.moveTo(cell);
  EXPECT_TRUE(cut.cell(stroke.quilt(), {11, 0}).empty());
  EXPECT_EQ(stroke.stopsAt(), "");
}

// A layer that is missing on the other map is made there, by its role.
TEST(Seams, MakeTheLayerThatIsMissingThere) {
  Ground ground(GridKind::orthogonal);
  IdSource ids(31);
  Quilt quilt = renameLayer(ground.quilt, ground.at, "Sheds");
  const MapAdded bare = addMap(quilt, {"Bare", ground.grid->shape(), 6, 15}, ids);
  Map map = *bare.quilt.map(bare.map);
  map.layers.erase(map.layers.begin() + 1);
  quilt = sewn(bare.quilt.with(map), ground.at.map, bare.map, {9, -7}, ids).quilt;
  ASSERT_THAT(quilt.map(bare.map)->layers, SizeIs(1));
  const std::string role = quilt.layer(ground.at)->role;
  ASSERT_NE(role, map.layers.front()->role);
  const Quilt painted = stroked(quilt, ground.plan(Tool::brush, InHand(Block::of(ground.tile(3)), GridKind::orthogonal)), {{7, 0}, {12, 0}});
  const Map& after = *painted.map(bare.map);
  ASSERT_THAT(after.layers, SizeIs(2));
  EXPECT_EQ(after.layers.back()->role, role);
  EXPECT_EQ(after.layers.back()->name, "Sheds");
  EXPECT_FALSE(after.layers.back()->cells.at({3, 7}).empty());
}

}  // namespace uq::test
