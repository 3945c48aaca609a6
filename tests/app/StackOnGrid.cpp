// The Stack on every grid: a level above the ground, its layers in a folder, the Walker between them, what is hidden and
// what is left open, from the first press to the saved file.
#include <QLabel>
#include <QScrollArea>
#include <QToolButton>

#include "app/PaintingStory.h"
#include "app/stack/FolderCard.h"

namespace uq::test {

class StackOnGrid : public PaintingHand, public testing::WithParamInterface<std::tuple<GridKind, bool>> {
 protected:
  void SetUp() override {
    PaintingHand::SetUp();
    const auto [kind, shift] = GetParam();
    makeGround(kind, shift);
  }
  std::vector<std::string> stack() { return stackOf(siding()); }
  Id layer(const char* name) { return siding().layerNamed(name)->id; }
  template <class Card>
  Card* seen(Card* card) {
    in<QScrollArea>("stack-cards")->ensureWidgetVisible(card);
    settle();
    return card;
  }
  LayerCard* card(const char* name) { return seen(room->stack()->card(layer(name))); }
  FolderCard* head(const char* name) {
    for (const LayerFolder& one : siding().folders) {
      if (one.name == name) return seen(room->stack()->folderCard(one.id));
    }
    return nullptr;
  }
  void trigger(ActionId id) {
    Story::choose(id);
    settle();
  }
};

TEST_P(StackOnGrid, ALevelIsBuiltFoldedLookedThroughAndSaved) {
  // The ground, all of it.
  hand.click(room->table(), onTable("street", 24));
  hand.click(card("Ground"));
  hand.key(Qt::Key_4);
  hand.click(canvas(), onMap({4, 4}));
  const CellRect bounds = siding().bounds;
  EXPECT_EQ(siding().layerNamed("Ground")->cells.tally(bounds).begin()->second,
            std::int64_t{bounds.width()} * bounds.height());
  // A level above it, with one cell on it.
  hand.key(Qt::Key_L, Qt::ControlModifier);
  ASSERT_EQ(siding().folders.size(), 1u);
  const std::string floor = active();
  const int rise = siding().folders[0].rise;
  EXPECT_EQ(rise, siding().grid.cell.h);
  hand.key(Qt::Key_1);
  hand.click(room->table(), onTable("street", 25));
  hand.click(card(floor.c_str()));
  hand.click(canvas(), onMap({6, 6}));
  EXPECT_FALSE(siding().layerNamed(floor)->cells.at({6, 6}).empty()) << "pressed where the ghost stands, at height";
  // Its layer goes into a folder on the level: the rise stays, and nothing looks otherwise.
  hand.key(Qt::Key_5);
  hand.moveTo(canvas(), onMap({1, 1}));
  const QImage before = canvas()->grab().toImage();
  hand.key(Qt::Key_G, Qt::ControlModifier);
  hand.type(QStringLiteral("Walks"));
  hand.key(Qt::Key_Return);
  hand.moveTo(canvas(), onMap({1, 1}));
  EXPECT_EQ(stack().back().substr(0, 9), "Level 1/W") << stack().back();
  EXPECT_EQ(siding().riseOf(*siding().layerNamed(floor)), rise);
  EXPECT_EQ(canvas()->grab().toImage(), before);
  // The level is hidden as a whole, and shown again.
  hand.click(head("Level 1")->findChild<QToolButton*>(QStringLiteral("eye")));
  EXPECT_NE(canvas()->grab().toImage(), before);
  hand.click(head("Level 1")->findChild<QToolButton*>(QStringLiteral("eye")));
  hand.moveTo(canvas(), onMap({1, 1}));
  EXPECT_EQ(canvas()->grab().toImage(), before);
  // A piece of ground is taken away in front of the raised tile: a gap between the levels.
  hand.click(card("Ground"));
  const CellPos below{6, 6};
  session().verbs().selection.removeCell(layer("Ground"), below);
  trigger(ActionId::holes);
  EXPECT_TRUE(canvas()->holesInSight().contains(below));
  EXPECT_FALSE(canvas()->holesInSight().contains({0, 0})) << "the ground is whole elsewhere";
  trigger(ActionId::holes);
  // The Walker goes between the level and the ground.
  EXPECT_EQ(siding().walkerPlace(), siding().layers.size()) << "in front of the nearest ground";
  session().verbs().layers.setWalker(layer("Ground"));
  EXPECT_EQ(siding().walkerPlace(), 1u);
  // All of it comes back from the file.
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  const Map saved = siding();
  const auto again = QuiltStore::open(realDisk(), folder(), QuiltStore::Access::read);
  ASSERT_TRUE(again);
  EXPECT_THAT(again->problems, testing::IsEmpty());
  const Map& map = *again->quilt.mapNamed("Siding");
  EXPECT_EQ(map.folders, saved.folders);
  EXPECT_EQ(map.walkerPlace(), 1u);
  // And step by step everything goes back to the bare ground.
  for (int i = 0; i < 20 && !siding().folders.empty(); ++i) undo();
  EXPECT_TRUE(siding().folders.empty());
}

TEST_P(StackOnGrid, WhatIsCoveredIsStrippedAndNobodySeesIt) {
  hand.click(room->table(), onTable("street", 24));
  hand.click(card("Ground"));
  hand.key(Qt::Key_4);
  hand.click(canvas(), onMap({4, 4}));
  hand.click(card("Things"));
  hand.key(Qt::Key_3);
  hand.drag(canvas(), {onMap({6, 6}), onMap({9, 9})});
  hand.key(Qt::Key_5);
  hand.click(card("Ground"));
  hand.moveTo(canvas(), onMap({1, 1}));
  const QImage before = canvas()->grab().toImage();
  trigger(ActionId::coveredCells);
  const CellSet covered = canvas()->coveredInSight();
  trigger(ActionId::coveredCells);
  const bool square = std::get<0>(GetParam()) == GridKind::orthogonal;
  EXPECT_EQ(covered.empty(), !square) << "the tile hides a square cell, and reaches beyond any other";
  if (covered.empty()) return;
  EXPECT_EQ(covered, CellSet({6, 6, 10, 10}));
  trigger(ActionId::stripCovered);
  hand.moveTo(canvas(), onMap({1, 1}));
  EXPECT_EQ(canvas()->grab().toImage(), before);
  EXPECT_TRUE(siding().layerNamed("Ground")->cells.at({7, 7}).empty());
  undo();
  EXPECT_FALSE(siding().layerNamed("Ground")->cells.at({7, 7}).empty());
}

INSTANTIATE_TEST_SUITE_P(Every, StackOnGrid,
                         testing::Combine(testing::ValuesIn(kGridKinds), testing::Values(false, true)),
                         [](const auto& one) {
                           std::string name(gridName(std::get<0>(one.param)));
                           std::replace(name.begin(), name.end(), '-', '_');
                           return name + (std::get<1>(one.param) ? "_odd" : "_even");
                         });

}  // namespace uq::test
