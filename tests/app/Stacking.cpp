// The Stack: layers are added, named, copied, reordered and deleted, and each is one step back.
#include <QComboBox>
#include <QLineEdit>

#include "app/Story.h"
#include "core/edit/LayerFacts.h"

namespace uq::test {

using testing::ElementsAre;

class Stacking : public Story {
 protected:
  void SetUp() override { openDemo(); }

  std::vector<std::string> names() {
    std::vector<std::string> names;
    for (const Shared<Layer>& layer : yard().layers) names.push_back(layer->name);
    return names;
  }
  std::string active() { return session().quilt().layer(session().desk().activeAt())->name; }
  LayerCard* card(const char* layer) { return room->stack()->card(yard().layerNamed(layer)->id); }
  Needle* needle(int index) { return room->stack()->findChild<Needle*>(QStringLiteral("needle-%1").arg(index)); }
  void undo() { hand.key(Qt::Key_Z, Qt::ControlModifier); }
};

TEST_F(Stacking, ANeedleAddsALayerReadyToPaintOn) {
  const Quilt before = session().quilt();
  hand.click(room->table(), onTable("street", 24));
  hand.click(needle(2));
  EXPECT_THAT(names(), ElementsAre("Paving", "Rails", "Things", "Sheds & trams", "Awnings"));
  EXPECT_EQ(active(), "Things");
  hand.click(room->canvas(), onMap({20, 20}));
  EXPECT_EQ(cellOn("Things", {20, 20}), Cell(tile("street", 24), {}));
  picture("added-layer");
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  const auto id = yard().layerNamed("Things")->id;
  close();
  openDemo();
  ASSERT_NE(yard().layer(id), nullptr);
  EXPECT_EQ(cellOn("Things", {20, 20}), Cell(tile("street", 24), {}));
  report("adding a layer and painting on it");
}

TEST_F(Stacking, AddingIsOneStepAndUndoBringsTheActiveLayerBack) {
  const Quilt before = session().quilt();
  const std::string was = active();
  hand.click(needle(0));
  EXPECT_EQ(names().front(), "Things") << "behind the ground that the map has";
  undo();
  EXPECT_EQ(session().quilt(), before);
  EXPECT_EQ(active(), was);
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Stacking, ADoubleClickRenamesInPlace) {
  hand.doubleClick(card("Rails"));
  auto* field = room->stack()->findChild<QLineEdit*>(QStringLiteral("layer-name"));
  ASSERT_NE(field, nullptr);
  hand.type(QStringLiteral("Tracks"));
  picture("renaming");
  hand.key(Qt::Key_Return);
  EXPECT_THAT(names(), ElementsAre("Paving", "Tracks", "Sheds & trams", "Awnings"));
  EXPECT_EQ(session().undoLine().steps().back().name, "Rename Rails");
  hand.doubleClick(card("Tracks"));
  hand.type(QStringLiteral("Nothing"));
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(names()[1], "Tracks");
}

TEST_F(Stacking, ACardIsDraggedToItsPlace) {
  const QPointF grip(100, 23);
  const QPointF above = QPointF(card("Awnings")->pos() - card("Paving")->pos()) + QPointF(100, 2);
  hand.drag(card("Paving"), {grip, grip + QPointF(0, -20), above});
  EXPECT_THAT(names(), ElementsAre("Rails", "Sheds & trams", "Awnings", "Paving"));
  undo();
  EXPECT_THAT(names(), ElementsAre("Paving", "Rails", "Sheds & trams", "Awnings"));
}

TEST_F(Stacking, ANumberMovesALayerToItsPlace) {
  hand.click(card("Paving"));
  auto* place = room->stack()->findChild<QLineEdit*>(QStringLiteral("layer-place"));
  EXPECT_EQ(place->text(), QStringLiteral("1"));
  const auto put = [&](const char* text) {
    hand.doubleClick(place);
    hand.type(QLatin1String(text));
    hand.key(Qt::Key_Return);
  };
  put("3");
  EXPECT_THAT(names(), ElementsAre("Rails", "Sheds & trams", "Paving", "Awnings"));
  put("99");
  EXPECT_THAT(names(), ElementsAre("Rails", "Sheds & trams", "Awnings", "Paving"));
  EXPECT_EQ(place->text(), QStringLiteral("4")) << "there is no farther";
  undo();
  undo();
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Stacking, TheKeyboardMovesCopiesAndDeletes) {
  hand.click(card("Rails"));
  hand.key(Qt::Key_Up, Qt::ControlModifier);
  EXPECT_THAT(names(), ElementsAre("Paving", "Sheds & trams", "Rails", "Awnings"));
  hand.key(Qt::Key_Down, Qt::ControlModifier);
  hand.key(Qt::Key_Down, Qt::ControlModifier);
  EXPECT_THAT(names(), ElementsAre("Rails", "Paving", "Sheds & trams", "Awnings"));
  EXPECT_FALSE(room->actions()->action(ActionId::layerFarther)->isEnabled());
  Story::choose(ActionId::duplicateLayer);
  EXPECT_EQ(active(), "Rails copy");
  Story::choose(ActionId::deleteLayer);
  EXPECT_EQ(active(), "Rails");
  for (int i = 0; i < 5; ++i) undo();
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Stacking, WhatIsKnownOfALayerIsChangedInItsSentences) {
  const Quilt before = session().quilt();
  hand.click(card("Rails"));
  const auto field = [this](const char* name) { return room->stack()->findChild<QLineEdit*>(QLatin1String(name)); };
  const auto rails = [this]() -> const Layer& { return *yard().layerNamed("Rails"); };
  const auto put = [&](const char* name, const char* text) {
    hand.doubleClick(field(name));
    hand.type(QLatin1String(text));
    hand.key(Qt::Key_Return);
  };
  put("layer-offset-x", "4*16");
  EXPECT_EQ(rails().offset, (PixelPos{64, 0}));
  EXPECT_TRUE(room->canvas()->hasFocus()) << "after Enter the keys belong to the map again";
  put("layer-offset-y", "-8");
  put("layer-opacity", "50");
  put("layer-note", "one tile wide");
  EXPECT_EQ(rails().offset, (PixelPos{64, -8}));
  EXPECT_EQ(rails().opacity, 50);
  EXPECT_EQ(rails().note, "one tile wide");
  auto* role = room->stack()->findChild<QComboBox*>(QStringLiteral("layer-role"));
  EXPECT_EQ(role->count(), 6);
  role->setFocus();
  hand.key(Qt::Key_Down);
  EXPECT_EQ(rails().role, "things");
  picture("layer-sentences");
  report("offset, opacity, note and role of a layer");
  put("layer-opacity", "900");
  EXPECT_EQ(rails().opacity, 50);
  EXPECT_EQ(field("layer-opacity")->text(), QStringLiteral("50"));
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  close();
  openDemo();
  EXPECT_EQ(rails().offset, (PixelPos{64, -8}));
  EXPECT_EQ(rails().opacity, 50);
  EXPECT_EQ(rails().note, "one tile wide");
  EXPECT_EQ(rails().role, "things");
}

TEST_F(Stacking, AShiftedLayerIsPaintedWhereItLies) {
  hand.click(room->table(), onTable("street", 24));
  hand.click(card("Rails"));
  session().verbs().layers.change("Shift",
                         [](const Quilt& quilt, LayerAt at) { return withOffset(quilt, at, {10, 6}); });
  settle();
  const QPointF at = onMap({20, 20});
  hand.click(room->canvas(), at);
  EXPECT_EQ(cellOn("Rails", {20, 20}), Cell(tile("street", 24), {}));
  // Its pixels are there, and a right click finds it there.
  hand.click(card("Paving"));
  const QRectF plain = room->canvas()->cellRect({20, 20});
  EXPECT_NEAR(at.x() - plain.center().x(), 10 * room->canvas()->zoom(), 1);
  hand.click(room->canvas(), at, Qt::RightButton);
  EXPECT_EQ(active(), "Rails");
}

TEST_F(Stacking, ANoteThatWasBegunIsKeptWhenAnotherCardIsChosen) {
  hand.click(card("Rails"));
  auto* note = room->stack()->findChild<QLineEdit*>(QStringLiteral("layer-note"));
  hand.click(note);
  hand.type(QStringLiteral("mind the points"));
  hand.click(card("Awnings"));
  EXPECT_EQ(yard().layerNamed("Rails")->note, "mind the points");
  EXPECT_EQ(yard().layerNamed("Awnings")->note, "");
  EXPECT_EQ(note->text(), QString());
}

TEST_F(Stacking, ANoteThatWasBegunIsKeptWhenAnotherMapIsChosen) {
  session().verbs().maps.duplicate();
  const Id copy = session().desk().map;
  session().verbs().maps.goTo(yard().id);
  hand.click(card("Rails"));
  hand.click(room->stack()->findChild<QLineEdit*>(QStringLiteral("layer-note")));
  hand.type(QStringLiteral("mind the points"));
  hand.key(Qt::Key_PageDown, Qt::ControlModifier);
  EXPECT_EQ(session().desk().map, copy);
  EXPECT_EQ(yard().layerNamed("Rails")->note, "mind the points");
  EXPECT_EQ(session().map()->layerNamed("Rails")->note, "");
}

TEST_F(Stacking, TheOverviewShowsAndMovesTheView) {
  auto* overview = room->findChild<Overview*>(QStringLiteral("overview"));
  hand.key(Qt::Key_0);
  hand.drag(overview, {overview->placeOf({200, 200}), overview->placeOf({1200, 800})});
  EXPECT_NEAR(room->canvas()->seenPixels().center().x(), 1200, 8);
  EXPECT_NEAR(room->canvas()->seenPixels().center().y(), 800, 8);
  overview->setFocus();
  const double before = room->canvas()->seenPixels().center().x();
  hand.key(Qt::Key_Left);
  EXPECT_LT(room->canvas()->seenPixels().center().x(), before - 50);
  picture("overview");
}

TEST_F(Stacking, AMapWithoutLayersOffersTheFirst) {
  for (int i = 0; i < 4; ++i) Story::choose(ActionId::deleteLayer);
  EXPECT_THAT(names(), ElementsAre());
  EXPECT_EQ(room->actions()->action(ActionId::deleteLayer)->toolTip(), QStringLiteral("This map has no layer"));
  picture("no-layers");
  hand.click(needle(0));
  EXPECT_THAT(names(), ElementsAre("Ground"));
  EXPECT_EQ(yard().layers.front()->role, "ground");
}

}  // namespace uq::test
