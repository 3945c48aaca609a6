// The one door for steps, and gestures: what may come in, what waits, and what is left when something is dropped.
#include "core/work/Strokes.h"

#include <gmock/gmock.h>

#include "core/Support.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/store/CellsText.h"

namespace uq::test {
namespace {

using testing::ElementsAre;
using testing::HasSubstr;

class WorkDoor : public testing::Test {
 protected:
  WorkDoor() {
    Desk desk;
    desk.map = quilt.mapNamed("Yard")->id;
    desk.activeLayer[desk.map] = sheds().layer;
    desk.hold(InHand(Block::of(tileOf(quilt, "street", 3)), GridKind::orthogonal));
    work.emplace(quilt, desk, [this](Id map) { return map == damaged ? &damage : nullptr; });
  }
  LayerAt sheds() const { return layerOf(quilt, "Yard", "Sheds"); }
  Quilt painted(CellPos at, const char* layer = "Sheds") const {
    const CellChange one{at, tileOf(quilt, "rails", 3)};
    return layCells(work ? work->quilt() : quilt, layerOf(quilt, "Yard", layer), std::span(&one, 1));
  }
  Stroke stroke() const { return Stroke(work->quilt(), planOf(work->desk(), work->quilt(), false)); }
  void setDesk(const std::function<void(Desk&)>& change) {
    Desk desk = work->desk();
    change(desk);
    work->setDesk(std::move(desk));
  }
  std::string refusal(Work::Made made) {
    const Quilt before = work->quilt();
    const auto result = work->make(std::move(made));
    EXPECT_FALSE(result);
    EXPECT_EQ(work->quilt(), before);
    return result ? "" : result.error().text();
  }
  std::size_t steps() const { return work->undoLine().steps().size(); }

  Quilt quilt = smallQuilt();
  Id damaged;
  Error damage{Error::Cause::broken, "it is cut off", "maps/yard/paving.cells", 3, {}, {}};
  std::optional<Work> work;
};

TEST_F(WorkDoor, AStepComesInAndIsTakenBack) {
  const Quilt after = painted({1, 1});
  const auto made = work->make({"Paint", after, sheds()});
  ASSERT_TRUE(made && *made);
  EXPECT_EQ(work->quilt(), after);
  work->undo();
  EXPECT_EQ(work->quilt(), quilt);
  const auto nothing = work->make({"Paint", quilt, sheds()});
  ASSERT_TRUE(nothing);
  EXPECT_FALSE(*nothing) << "nothing changed";
}

TEST_F(WorkDoor, WhereOneOnlyLooksNothingChangesAndNothingIsTakenBack) {
  work->step("Rename", renameLayer(work->quilt(), sheds(), "Halls"));
  const Quilt before = work->quilt();
  work->onlyLook(Error{Error::Cause::inUse, "mira has this quilt open", {}, 0, {}, {}});
  work->step("Rename", renameLayer(work->quilt(), sheds(), "Barns"));
  work->step("Name", work->quilt().with([&] {
    QuiltFacts facts = before.facts();
    facts.name = "Tallow Lanes";
    return facts;
  }()));
  work->undo();
  work->returnTo(0);
  EXPECT_TRUE(work->quilt() == before);
  EXPECT_EQ(whyNoStroke(*work, false, {}), "mira has this quilt open");
  work->onlyLook({});
  work->undo();
  EXPECT_FALSE(work->quilt() == before);
}

TEST_F(WorkDoor, DamageAndLocksAreKept) {
  damaged = sheds().map;
  EXPECT_THAT(refusal({"Paint", painted({1, 1}), sheds()}), HasSubstr("cut off"));
  EXPECT_FALSE(work->begin("Shift", Gesture::changing(quilt))) << "by a bar as well";
  const Quilt elsewhere = renameLayer(quilt, layerOf(quilt, "Loft", quilt.mapNamed("Loft")->layers[0]->name.c_str()), "Floor");
  EXPECT_TRUE(work->make({"Rename", elsewhere, sheds()}));
  damaged = {};
  setDesk([this](Desk& desk) { desk.locked.insert(sheds().layer); });
  EXPECT_THAT(refusal({"Paint", painted({1, 1}), sheds()}), HasSubstr("Sheds is locked"));
  EXPECT_TRUE(work->make({"Paint", painted({1, 1}, "Paving"), sheds()}));
  EXPECT_TRUE(work->make({"Rename", renameLayer(work->quilt(), sheds(), "Depot"), sheds()})) << "what lies there stays";
}

TEST_F(WorkDoor, WorkBeginsBeforeAllMapsAreThere) {
  const LayerAt floor = layerOf(quilt, "Loft", quilt.mapNamed("Loft")->layers[0]->name.c_str());
  const CellChange one{{2, 2}, tileOf(quilt, "rails", 5)};
  const Quilt whole = layCells(quilt, floor, std::span(&one, 1));
  work->arrive(quilt, {floor.map});
  EXPECT_THAT(refusal({"Paint", whole, floor}), HasSubstr("still being read"));
  QuiltFacts facts = quilt.facts();
  facts.name = "Another";
  EXPECT_THAT(refusal({"Name", quilt.with(facts), sheds()}), HasSubstr("still being opened"));
  EXPECT_THAT(refusal({"Delete", quilt.without<Sheet>(quilt.sheets().front()->id), sheds()}), HasSubstr("opened"));
  ASSERT_TRUE(work->make({"Paint", painted({1, 1}), sheds()}));
  ASSERT_TRUE(work->begin("Brush", Gesture::painting(stroke())));
  work->gesture()->follow({{2, 2}});
  work->show();
  ASSERT_TRUE(work->finish());
  ASSERT_NE(work->lastStroke(), nullptr);
  const Quilt mine = work->quilt();

  work->arrive(whole, {});
  EXPECT_EQ(*work->quilt().map(floor.map), *whole.map(floor.map));
  EXPECT_EQ(*work->quilt().map(sheds().map), *mine.map(sheds().map)) << "painted meanwhile";
  EXPECT_EQ(work->lastStroke(), nullptr) << "it would lay the quilt back without the map";
  work->undo();
  work->undo();
  EXPECT_EQ(work->quilt(), whole);
  ASSERT_TRUE(work->make({"Paint", work->quilt().with(facts), floor}));
}

TEST_F(WorkDoor, WhatItsOwnReaderWouldRefuseIsNotMade) {
  EXPECT_THAT(refusal({"Rename", renameLayer(quilt, sheds(), std::string(1001, 'x')), sheds()}), HasSubstr("1000"));
  EXPECT_THAT(refusal({"Role", withRole(quilt, sheds(), std::string(1001, 'x')), sheds()}), HasSubstr("1000"));
  const CellChange sixth{{1, 1}, tileOf(quilt, "street", 3, Turn{false, 5})};
  EXPECT_THAT(refusal({"Paint", layCells(quilt, sheds(), std::span(&sixth, 1)), sheds()}), HasSubstr("turned"));
  Layer far = *quilt.layer(sheds());
  far.cells.set({kFarthestCell, 0}, tileOf(quilt, "street", 1));
  EXPECT_THAT(refusal({"Paint", quilt.with(sheds(), far), sheds()}), HasSubstr("farther"));
  Sheet large = quilt.sheets().front().read();
  large.pictureSize = {10'000, 8'000};
  large.cut.cell = {16, 16};
  EXPECT_THAT(refusal({"Cut", quilt.with(large), sheds()}), HasSubstr("262,144"));
  Map map = *quilt.map(sheds().map);
  for (int i = 0; i < 4096; ++i) {
    Layer more = *quilt.layer(sheds());
    more.id = IdSource(static_cast<std::uint64_t>(i) + 100).next();
    more.file = "more-" + std::to_string(i);
    map.layers.emplace_back(std::move(more));
  }
  EXPECT_THAT(refusal({"Many", quilt.with(map), sheds()}), HasSubstr("4096"));
}

TEST_F(WorkDoor, NothingComesInUnderAGestureAndWhatCameWaits) {
  std::vector<std::string> order;
  ASSERT_TRUE(work->begin("Brush", Gesture::painting(stroke())));
  work->gesture()->follow({{1, 1}});
  work->show();
  EXPECT_NE(work->quilt(), quilt);
  EXPECT_THAT(refusal({"Paint", painted({5, 5}), sheds()}), HasSubstr("under the hand"));
  EXPECT_FALSE(work->begin("Move", Gesture::changing(quilt)));
  EXPECT_FALSE(work->undoLine().planBack(sheds().map, work->quilt()));
  work->whenFree([&] { order.push_back("first"); });
  work->whenFree([&] { order.push_back("second"); });
  EXPECT_FALSE(work->takeWaiting()) << "not yet";
  work->gesture()->follow({{3, 1}});
  const auto made = work->finish();
  ASSERT_TRUE(made && *made);
  EXPECT_EQ(work->undoLine().steps().back().name, "Brush on Sheds");
  // What comes now keeps its place behind those that wait.
  work->whenFree([&] { order.push_back("third"); });
  while (const auto next = work->takeWaiting()) next();
  EXPECT_THAT(order, ElementsAre("first", "second", "third"));
  EXPECT_EQ(work->quilt().layer(sheds())->cells.at({3, 1}), tileOf(quilt, "street", 3));
}

TEST_F(WorkDoor, ADroppedGestureLeavesQuiltAndSelection) {
  const CellSet selected(CellRect{0, 0, 3, 3});
  setDesk([&](Desk& desk) { desk.select(selected); });
  ASSERT_TRUE(work->begin("Move", Gesture::moving(quilt, {std::vector{layerOf(quilt, "Yard", "Paving")}, selected})));
  work->gesture()->moveBy({2, 1});
  work->show();
  EXPECT_NE(work->quilt(), quilt);
  EXPECT_NE(work->desk().selection(), selected);
  work->drop();
  EXPECT_EQ(work->quilt(), quilt);
  EXPECT_EQ(work->desk().selection(), selected);
  EXPECT_EQ(steps(), 0u);
  // Moved and ended, it is one step that brings the selection back, too.
  ASSERT_TRUE(work->begin("Move", Gesture::moving(quilt, {std::vector{layerOf(quilt, "Yard", "Paving")}, selected})));
  for (const SidePos by : {SidePos{1, 0}, SidePos{2, 0}, SidePos{2, 1}}) work->gesture()->moveBy(by);
  ASSERT_TRUE(work->finish());
  EXPECT_EQ(steps(), 1u);
  EXPECT_TRUE(work->desk().selection().contains({4, 3}));
  work->undo();
  EXPECT_EQ(work->desk().selection(), selected);
}

TEST_F(WorkDoor, AGestureThatComesToNoGoodIsDropped) {
  ASSERT_TRUE(work->begin("Rename", Gesture::changing(quilt)));
  work->gesture()->become(renameLayer(quilt, sheds(), std::string(2000, 'x')));
  const auto made = work->finish();
  ASSERT_FALSE(made);
  EXPECT_EQ(work->quilt(), quilt);
  EXPECT_EQ(steps(), 0u);
  EXPECT_FALSE(work->undoLine().inGesture());
}

}  // namespace
}  // namespace uq::test
