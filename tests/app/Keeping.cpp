// The Stack without a mouse, and what is told of a whole map: folders and the Walker by keys, dead strips, the size in the
// game, and cards that are changed together.
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QToolButton>

#include "app/PaintingStory.h"
#include "app/canvas/Lens.h"
#include "app/look/NumberField.h"
#include "app/maps/MapFactsCard.h"
#include "app/stack/FolderCard.h"
#include "core/edit/MapFacts.h"

namespace uq::test {

class Keeping : public PaintingHand {
 protected:
  Id layer(const char* name) { return siding().layerNamed(name)->id; }
  LayerCard* card(const char* name) { return room->stack()->card(layer(name)); }
  FolderCard* head() { return room->stack()->folderCard(siding().folders.front().id); }
  QString foot() { return part<QLabel>("foot-scale")->text(); }
};

TEST_F(Keeping, AFolderIsWorkedByKeysAlone) {
  makeGround();
  hand.click(card("Things"));
  hand.key(Qt::Key_G, Qt::ControlModifier);
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(siding().folders.front().name, "Folder") << "Esc leaves the name that it came with";
  head()->setFocus();
  hand.key(Qt::Key_F2);
  hand.type(QStringLiteral("Depot"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(siding().folders.front().name, "Depot");
  head()->setFocus();
  hand.key(Qt::Key_Left);
  EXPECT_EQ(card("Things"), nullptr) << "folded up";
  EXPECT_TRUE(session().desk().foldedUp.contains(siding().folders.front().id));
  hand.key(Qt::Key_Left);
  EXPECT_EQ(card("Things"), nullptr) << "and stays so";
  head()->setFocus();
  hand.key(Qt::Key_Right);
  ASSERT_NE(card("Things"), nullptr);
  hand.click(card("Ground"));
  head()->setFocus();
  hand.key(Qt::Key_Return);
  EXPECT_EQ(active(), "Things") << "the farthest in it";
  EXPECT_TRUE(head()->accessibleName().contains(QStringLiteral("1 layer")));
  // Out of the folder and it is gone; back, and it is there again.
  canvas()->setFocus();
  hand.key(Qt::Key_G, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_TRUE(siding().folders.empty());
  undo();
  EXPECT_EQ(siding().folders.size(), 1u);
}

TEST_F(Keeping, ARiseMakesAFolderALevelAndZeroAFolderAgain) {
  makeGround();
  hand.click(card("Things"));
  hand.key(Qt::Key_G, Qt::ControlModifier);
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(head()->findChild<QToolButton*>(QStringLiteral("next-level"))->isVisible());
  const auto rise = [&](const char* text) {
    auto* field = in<NumberField>("level-rise");
    hand.doubleClick(field);
    hand.type(QLatin1String(text));
    hand.key(Qt::Key_Return);
  };
  rise("24");
  EXPECT_EQ(siding().riseOf(*siding().layerNamed("Things")), 24);
  EXPECT_TRUE(head()->findChild<QToolButton*>(QStringLiteral("next-level"))->isVisible());
  EXPECT_TRUE(head()->accessibleName().contains(QStringLiteral("up 24 px")));
  rise("0");
  EXPECT_FALSE(head()->findChild<QToolButton*>(QStringLiteral("next-level"))->isVisible());
  // By dragging it is one step, whatever it passes.
  auto* field = in<NumberField>("level-rise");
  canvas()->setFocus();
  const std::size_t before = steps();
  const QPointF grip = QRectF(field->rect()).center();
  hand.drag(field, {grip, grip + QPointF(14, 0), grip + QPointF(40, 0)});
  EXPECT_EQ(siding().folders.front().rise, 20);
  EXPECT_EQ(steps(), before + 1);
}

TEST_F(Keeping, TheWalkerGoesThroughTheLayersByKeys) {
  makeGround();
  EXPECT_EQ(siding().walkerPlace(), 2u) << "in front of the things";
  WalkerCard* walker = room->stack()->walkerCard();
  walker->setFocus();
  hand.key(Qt::Key_Down);
  EXPECT_EQ(siding().walkerPlace(), 1u);
  walker = room->stack()->walkerCard();
  EXPECT_TRUE(walker->accessibleName().contains(QStringLiteral("in front of Ground and behind Things")));
  walker->setFocus();
  hand.key(Qt::Key_Down);
  EXPECT_EQ(siding().walkerPlace(), 1u) << "never behind everything";
  walker->setFocus();
  hand.key(Qt::Key_Space);
  EXPECT_EQ(session().desk().tinting, Tinting::byWalker);
  // A layer that goes takes the place with it: it is the usual one again.
  canvas()->setFocus();
  hand.click(card("Ground"));
  Story::choose(ActionId::deleteLayer);
  settle();
  EXPECT_EQ(siding().walkerPlace(), 1u);
  undo();
  EXPECT_EQ(siding().walkerPlace(), 1u);
}

TEST_F(Keeping, DeadStripsAndTheSizeInTheGameAreTold) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.click(card("Ground"));
  hand.key(Qt::Key_3);
  hand.drag(canvas(), {onMap({0, 0}), onMap({20, 14})});
  EXPECT_EQ(deadStrips(siding()), (DeadStrips{0, 3, 0, 1}));
  hand.key(Qt::Key_Return, Qt::AltModifier);
  auto* facts = in<MapFactsCard>("map-facts");
  ASSERT_TRUE(facts->isVisible());
  QString told;
  for (const QLabel* label : facts->findChildren<QLabel*>()) told += label->text() + QLatin1Char('\n');
  EXPECT_TRUE(told.contains(QStringLiteral("3 columns at the east edge hold no tile."))) << told.toStdString();
  EXPECT_TRUE(told.contains(QStringLiteral("1 row at the lower edge holds no tile."))) << told.toStdString();
  picture("dead-strips");
  auto* times = in<NumberField>("map-shown-times");
  hand.doubleClick(times);
  hand.type(QStringLiteral("3"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(siding().shownTimes, 3);
  // One press mends it.
  const CellRect before = siding().bounds;
  hand.click(in<QPushButton>("map-cut"));
  EXPECT_EQ(siding().bounds, moved(before, {0, 0, -3, -1}));
  EXPECT_FALSE(in<QPushButton>("map-cut")->isVisible());
  hand.key(Qt::Key_Escape);
  canvas()->setFocus();
  hand.key(Qt::Key_0);
  EXPECT_EQ(canvas()->zoom(), 1);
  EXPECT_TRUE(foot().contains(QStringLiteral("in the game × 3"))) << foot().toStdString();
  hand.key(Qt::Key_0);
  EXPECT_EQ(canvas()->zoom(), 3);
  EXPECT_TRUE(foot().contains(QStringLiteral("as in the game"))) << foot().toStdString();
  hand.key(Qt::Key_0);
  EXPECT_EQ(canvas()->zoom(), 1);
  report("dead strips read, and a map looked at as large as the game");
}

TEST_F(Keeping, CardsChosenTogetherAreChangedTogetherInOneStep) {
  makeGround();
  hand.click(card("Ground"));
  hand.click(card("Things"), QPointF(100, 20), Qt::LeftButton, Qt::ControlModifier);
  const std::size_t before = steps();
  auto* opacity = in<NumberField>("layer-opacity");
  hand.doubleClick(opacity);
  hand.type(QStringLiteral("100/4"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(siding().layerNamed("Ground")->opacity, 25);
  EXPECT_EQ(siding().layerNamed("Things")->opacity, 25);
  EXPECT_EQ(steps(), before + 1);
  // And put in one folder, in the order in which they lie.
  canvas()->setFocus();
  hand.key(Qt::Key_G, Qt::ControlModifier);
  hand.key(Qt::Key_Escape);
  ASSERT_EQ(siding().folders.size(), 1u);
  for (const Shared<Layer>& one : siding().layers) EXPECT_EQ(one->folder, siding().folders.front().id);
  EXPECT_EQ(siding().layers[0]->name, "Ground");
  undo();
  undo();
  EXPECT_EQ(siding().layerNamed("Ground")->opacity, 100);
  EXPECT_TRUE(siding().folders.empty());
}

TEST_F(Keeping, TheLensTellsWhatIsHiddenAndWhereTheWalkerIs) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.click(card("Ground"));
  hand.click(canvas(), onMap({4, 4}));
  hand.click(card("Things"));
  hand.click(canvas(), onMap({4, 4}));
  hand.click(canvas(), onMap({4, 4}), Qt::MiddleButton);
  QStringList told;
  for (const QPushButton* one : canvas()->lens()->findChildren<QPushButton*>(QStringLiteral("lens-go"))) {
    told << one->text();
  }
  ASSERT_EQ(told.size(), 2);
  EXPECT_FALSE(told[0].contains(QStringLiteral("hidden by a nearer layer"))) << told[0].toStdString();
  EXPECT_TRUE(told[1].contains(QStringLiteral("hidden by a nearer layer"))) << told[1].toStdString();
  EXPECT_NE(canvas()->lens()->findChild<QLabel*>(QStringLiteral("lens-walker")), nullptr);
  picture("lens-hidden", canvas()->lens());
}

}  // namespace uq::test
