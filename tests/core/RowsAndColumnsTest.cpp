// Rows and columns come in and go, and everything that stands on cells goes with them.
#include "core/edit/RowsAndColumns.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include <cmath>

#include "core/AnyGrid.h"
#include "core/Support.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/MapFacts.h"
#include "core/edit/ResizeMap.h"
#include "core/work/Verbs.h"
#include "core/work/Work.h"

namespace uq::test {

namespace {

using Which = CellLines::Which;
using testing::HasSubstr;

const Map& yardIn(const Quilt& quilt) { return *quilt.mapNamed("Yard"); }

CellLines anyLines(int farthest, int most) {
  const int count = *rc::gen::inRange(1, most + 1);
  return {*rc::gen::element(Which::columns, Which::rows), *rc::gen::inRange(-farthest, farthest),
          *rc::gen::arbitrary<bool>() ? count : -count};
}

// What a person would do with a table: cell by cell.
std::map<std::pair<int, int>, Cell> plainly(const CellGrid& cells) {
  std::map<std::pair<int, int>, Cell> all;
  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    const CellRect area = chunk.at.cells();
    for (int y = 0; y < kChunkSide; ++y) {
      for (int x = 0; x < kChunkSide; ++x) {
        if (!chunk.cell(x, y).empty()) all[{area.x0 + x, area.y0 + y}] = chunk.cell(x, y);
      }
    }
  });
  return all;
}

std::map<std::pair<int, int>, Cell> moved(const CellLines& lines, const std::map<std::pair<int, int>, Cell>& all) {
  std::map<std::pair<int, int>, Cell> then;
  for (const auto& [at, cell] : all) {
    auto [x, y] = at;
    int& along = lines.which == Which::columns ? x : y;
    if (lines.count < 0 && along >= lines.at && along < lines.at - lines.count) continue;
    if (along >= lines.at) along += lines.count;
    then[{x, y}] = cell;
  }
  return then;
}

CellGrid anyPainted() {
  CellGrid cells;
  const auto some = [] { return *rc::gen::inRange(-150, 150); };
  for (int n = *rc::gen::inRange(0, 40); n > 0; --n) {
    const Cell cell({1, static_cast<std::uint32_t>(*rc::gen::inRange(1, 4))}, {});
    const int x = some();
    const int y = some();
    const int large = *rc::gen::inRange(0, 10) == 0 ? 90 : 3;
    cells.fill({x, y, x + large, y + large}, cell);
  }
  return cells;
}

Quilt yardOnAnyGrid() {
  Quilt quilt = smallQuilt();
  Map yard = yardIn(quilt);
  yard.grid = anyGrid();
  quilt = quilt.with(std::move(yard));
  for (int n = *rc::gen::inRange(0, 5); n > 0; --n) quilt = *editOf(quilt);
  return quilt.mapNamed("Yard") ? quilt : smallQuilt();
}

// Nobody is told.
struct Deaf : Work::Listener {
  std::string why;
  void refused(const std::string& said) override { why = said; }
};

// Work on the Yard.
struct Working {
  Deaf deaf;
  Work work;
  Verbs verbs{work};
  explicit Working(const Quilt& quilt)
      : work(
            quilt,
            [&] {
              Desk desk;
              desk.map = quilt.mapNamed("Yard")->id;
              desk.activeLayer[desk.map] = quilt.mapNamed("Yard")->layers.front()->id;
              return desk;
            }(),
            [](Id) { return nullptr; }) {
    work.tell(deaf);
  }
};

}  // namespace

RC_GTEST_PROP(RowsAndColumns, MoveCellsAsAPlainTableWould, ()) {
  const CellGrid cells = anyPainted();
  const CellLines lines = anyLines(170, *rc::gen::element(3, 70, 200));
  RC_ASSERT(plainly(whereTo(lines, cells)) == moved(lines, plainly(cells)));
  CellSet set;
  cells.forEachPainted(cells.usedBounds(), [&](CellPos at, Cell) { set.insert(at); });
  CellSet then;
  whereTo(lines, cells).forEachPainted({-600, -600, 600, 600}, [&](CellPos at, Cell) { then.insert(at); });
  RC_ASSERT(whereTo(lines, set) == then);
}

RC_GTEST_PROP(RowsAndColumns, ComeInAndGoAgainForTheSameBytes, ()) {
  const Quilt quilt = yardOnAnyGrid();
  const Map map = yardIn(quilt);
  const bool columns = *rc::gen::arbitrary<bool>();
  const int first = columns ? map.bounds.x0 : map.bounds.y0;
  const int size = columns ? map.bounds.width() : map.bounds.height();
  const CellLines lines{columns ? Which::columns : Which::rows, first + *rc::gen::inRange(0, size + 1),
                        *rc::gen::inRange(1, 90)};
  const Id only = *rc::gen::arbitrary<bool>() ? Id() : map.layers.front()->id;
  const Quilt with = withLines(quilt, map.id, lines, only);
  RC_ASSERT(with.map(map.id)->bounds == (only.empty() ? whereTo(lines, map.bounds) : map.bounds));
  RC_ASSERT(paintedIn(*with.map(map.id), lines.undone(), only) == 0);
  if (!whyNoLines(*with.map(map.id), lines.undone(), only).empty()) return;  // beyond the edge, of one layer
  RC_ASSERT(bytes(withLines(with, map.id, lines.undone(), only)) == bytes(quilt));
}

// Any sequence of what can be done to a map's size: each cell, lift, selected cell and hung picture is where the plain
// model says, and undo of each is the same bytes.
RC_GTEST_PROP(RowsAndColumns, InAnySequenceLeaveEverythingWhereItBelongs, ()) {
  Quilt start = yardOnAnyGrid();
  IdSource ids(9);
  LayerAdded hung = addBackdrop(start, yardIn(start).id, 0, start.sheets().front()->id, ids);
  start = withOffset(hung.quilt, {yardIn(start).id, hung.layer}, {17, 9});
  Working on(start);
  const Id map = on.work.desk().map;
  Desk desk = on.work.desk();
  CellSet selected;
  for (int n = 0; n < 6; ++n) selected.insert({*rc::gen::inRange(-4, 16), *rc::gen::inRange(-4, 8)});
  desk.selections[map] = selected;
  on.work.setDesk(desk);
  std::vector<std::map<std::pair<int, int>, Cell>> model;
  std::vector<std::map<std::pair<int, int>, Cell>> lifts;
  for (const Shared<Layer>& layer : on.work.map()->layers) {
    model.push_back(plainly(layer->cells));
    lifts.push_back(plainly(layer->lifts.cells()));
  }
  CellRect bounds = on.work.map()->bounds;
  std::vector<std::string> before;
  for (int n = *rc::gen::inRange(1, 7); n > 0; --n) {
    const std::string was = bytes(on.work.quilt());
    const auto steps = on.work.undoLine().steps().size();
    if (*rc::gen::inRange(0, 3) == 0) {
      const CellRect to =
          moved(bounds, {*rc::gen::inRange(-5, 6), *rc::gen::inRange(-5, 6), *rc::gen::inRange(-5, 6), 0});
      if (whyNoBounds(*on.work.map(), to).empty()) bounds = to;
      on.verbs.maps.resize(to);
    } else {
      const CellLines lines = anyLines(25, 6);
      if (on.verbs.maps.whyNoLines(lines).empty()) {
        bounds = whereTo(lines, bounds);
        for (auto& cells : model) cells = moved(lines, cells);
        for (auto& numbers : lifts) numbers = moved(lines, numbers);
        CellSet then;
        selected.forEachStretch([&](CellPos at, int count) {
          for (int x = at.x; x < at.x + count; ++x) {
            if (const auto to = whereTo(lines, CellPos{x, at.y})) then.insert(*to);
          }
        });
        selected = then;
      }
      on.verbs.maps.changeLines(lines);
    }
    // What comes to lie outside is selected no more, until the step is taken back.
    selected = selected.intersected(CellSet(bounds));
    if (on.work.undoLine().steps().size() > steps) before.push_back(was);
  }
  RC_ASSERT(on.work.map()->bounds == bounds);
  RC_ASSERT(on.work.desk().selection() == selected);
  for (std::size_t i = 0; i < model.size(); ++i) {
    RC_ASSERT(plainly(on.work.map()->layers[i]->cells) == model[i]);
    RC_ASSERT(plainly(on.work.map()->layers[i]->lifts.cells()) == lifts[i]);
  }
  while (!before.empty()) {
    on.work.undo();
    RC_ASSERT(bytes(on.work.quilt()) == before.back());
    before.pop_back();
  }
}

TEST(RowsAndColumns, TakeAlongWhatStandsOnCells) {
  Quilt quilt = smallQuilt();
  IdSource ids(9);
  const Id yard = yardIn(quilt).id;
  const LayerAdded hung = addBackdrop(quilt, yard, 0, quilt.sheets().front()->id, ids);
  const PixelSize cell = yardIn(quilt).grid.cell;
  quilt = withOffset(hung.quilt, {yard, hung.layer}, {5 * cell.w + 3, 2 * cell.h + 1});
  Working on(quilt);
  Desk desk = on.work.desk();
  on.verbs.hand.take(Block::of(tileOf(quilt, "street", 3)));
  desk = on.work.desk();
  desk.selections.clear();
  on.work.setDesk(desk);
  on.verbs.strokes.begin(on.verbs.strokes.askAt({7, 7}, false, false));
  ASSERT_TRUE(on.work.finish());
  desk = on.work.desk();
  desk.selections[yard] = CellSet(CellRect{3, 2, 6, 4});
  on.work.setDesk(desk);
  on.verbs.maps.changeLines({Which::columns, 4, 2});
  EXPECT_EQ(on.work.quilt().layer({yard, hung.layer})->offset, (PixelPos{7 * cell.w + 3, 2 * cell.h + 1}));
  EXPECT_EQ(on.work.desk().selection(), CellSet(CellRect{3, 2, 4, 4}).united(CellSet(CellRect{6, 2, 8, 4})));
  EXPECT_EQ(on.work.lastPoint(), (CellPos{9, 7}));
  EXPECT_EQ(on.work.undoLine().steps().back().name, "Insert 2 columns in Yard");
  on.verbs.maps.changeLines({Which::rows, 5, -3});
  EXPECT_EQ(on.work.lastPoint(), std::nullopt);
  EXPECT_EQ(on.work.undoLine().steps().back().name, "Remove 3 rows of Yard");
}

TEST(RowsAndColumns, TakeTheScreenFrameAlong) {
  const Id yard = yardIn(smallQuilt()).id;
  Working on(withCameraFree(smallQuilt(), yard, true));
  const PixelSize cell = on.work.map()->grid.cell;
  for (const auto& [at, moves] : {std::pair(5, 2), std::pair(2, 0)}) {
    Desk desk = on.work.desk();
    desk.cameras[yard] = {at * cell.w + 3, cell.h + 1};
    on.work.setDesk(desk);
    on.verbs.maps.changeLines({Which::columns, 4, 2});
    EXPECT_EQ(on.work.desk().cameras.at(yard), (PixelPos{(at + moves) * cell.w + 3, cell.h + 1}));
  }
}

TEST(RowsAndColumns, OfOneLayerLeaveTheMapAndTheOthersAsTheyAre) {
  Working on(smallQuilt());
  Desk desk = on.work.desk();
  desk.linesOfLayer = true;
  on.work.setDesk(desk);
  const Map before = *on.work.map();
  on.verbs.maps.changeLines({Which::rows, 0, 2});
  const Map after = *on.work.map();
  EXPECT_EQ(after.bounds, before.bounds);
  EXPECT_FALSE(after.layers.front()->cells == before.layers.front()->cells);
  EXPECT_EQ(after.layers.back(), before.layers.back());
}

TEST(RowsAndColumns, ThatCannotBeSayWhyAndChangeNothing) {
  Working on(smallQuilt());
  Desk desk = on.work.desk();
  const std::string before = bytes(on.work.quilt());
  const CellRect bounds = on.work.map()->bounds;
  const std::pair<CellLines, const char*> cases[] = {
      {{Which::columns, 0, 0}, "At least one"},
      {{Which::columns, bounds.x1 + 1, 1}, "no such columns"},
      {{Which::rows, bounds.y0 - 1, 1}, "no such rows"},
      {{Which::rows, bounds.y1 - 1, -2}, "not so many rows"},
      {{Which::columns, bounds.x0, -bounds.width()}, "at least one cell"},
      {{Which::columns, 0, 600'000}, "16,777,216 pixels"},
      {{Which::rows, 0, std::numeric_limits<int>::max()}, "1,048,576"},
      {{Which::rows, 0, std::numeric_limits<int>::min()}, "1,048,576"}};
  for (const auto& [lines, why] : cases) {
    on.verbs.maps.changeLines(lines);
    EXPECT_THAT(on.deaf.why, HasSubstr(why));
    EXPECT_EQ(bytes(on.work.quilt()), before);
  }
  IdSource ids(9);
  const LayerAdded hung =
      addBackdrop(on.work.quilt(), on.work.desk().map, 0, on.work.quilt().sheets().front()->id, ids);
  EXPECT_THAT(whyNoLines(*hung.quilt.map(on.work.desk().map), {Which::columns, 0, 1}, hung.layer),
              HasSubstr("has no cells"));
  desk.locked.insert(on.work.map()->layers.back()->id);
  on.work.setDesk(desk);
  on.verbs.maps.changeLines({Which::columns, 0, 1});
  EXPECT_THAT(on.deaf.why, HasSubstr("“Awnings” is locked"));
  EXPECT_EQ(bytes(on.work.quilt()), before);
}

TEST(RowsAndColumns, StayInStepByTwoWhereRowsAreShifted) {
  for (const GridKind kind : kGridKinds) {
    const bool rows = kind == GridKind::staggered || kind == GridKind::hexagonalPointy;
    EXPECT_EQ(evenLines(kind, Which::rows), rows ? 2 : 1);
    EXPECT_EQ(evenLines(kind, Which::columns), kind == GridKind::hexagonalFlat ? 2 : 1);
    // By so many everything behind moves the same way.
    const auto grid = makeGrid(nearestShape(kind, {32, 32}));
    for (const Which which : {Which::columns, Which::rows}) {
      const CellLines lines{which, 3, evenLines(kind, which)};
      const auto way = [&](CellPos cell) {
        const PixelRect from = grid->cellBox(cell);
        const PixelRect to = grid->cellBox(*whereTo(lines, cell));
        return std::pair(to.x - from.x, to.y - from.y);
      };
      EXPECT_EQ(way({3, 3}), way({4, 8}));
    }
  }
}

}  // namespace uq::test
