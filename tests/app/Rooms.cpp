// The room that the map has, and that nothing jumps.
#include <QColorDialog>
#include <QComboBox>
#include <QLabel>
#include <QMenuBar>
#include <QToolButton>

#include "app/Story.h"
#include "app/table/HandPreview.h"
#include "app/workroom/Columns.h"
#include "core/edit/ArrangeLayers.h"

namespace uq::test {

class Rooms : public Story {
 protected:
  explicit Rooms(Demo demo = Demo::yard) : Story(demo) {}
  QWidget* part(const char* name) { return room->findChild<QWidget*>(QLatin1String(name)); }
  QRect placeOf(QWidget* widget) { return {widget->mapTo(room.get(), QPoint()), widget->size()}; }
  // The canvas's share of the window, in per cent.
  double share() {
    const QSize canvas = room->canvas()->size();
    return 100.0 * canvas.width() * canvas.height() / (room->width() * room->height());
  }
  void resizeTo(int wide, int high) {
    room->resize(wide, high);
    settle();
    ASSERT_EQ(room->size(), QSize(wide, high));
  }
  QWidget* seam(QSplitter* panes, int index) { return panes->handle(index); }
  // Over the window, since the seam goes along.
  void dragSeam(QSplitter* panes, int index, QPointF by) {
    const QPointF from = QRectF(placeOf(seam(panes, index))).center();
    hand.drag(room.get(), {from, from + by / 2, from + by});
  }
};

TEST_F(Rooms, MenusStayWhereTheyAreFromTheStartPageOn) {
  openNothing();
  const QRect start = placeOf(room->menuBar());
  EXPECT_EQ(start.left(), 0);
  room->openQuilt(QString::fromStdString(folder()));
  awaitWork();
  settle();
  EXPECT_EQ(placeOf(room->menuBar()).topLeft(), start.topLeft());
}

TEST_F(Rooms, TheMapHasMoreThanHalfOfEveryWindow) {
  openDemo();
  hand.click(room->table(), onTable("street", 24));
  resizeTo(1280, 800);
  EXPECT_GE(share(), 58);
  resizeTo(1024, 700);
  EXPECT_GE(share(), 50);
  picture("small");
}

TEST_F(Rooms, ColumnsFoldByAPressOnTheirSeamAndComeBackAsWideAsTheyWere) {
  openDemo();
  Columns* columns = room->columns();
  const int wide = room->canvas()->width();
  dragSeam(columns, 1, QPointF(60, 0));
  EXPECT_NEAR(room->canvas()->width(), wide - 60, 2) << "dragged, it is a division";
  EXPECT_FALSE(columns->isFolded(Columns::Side::table));
  hand.click(seam(columns, 1));
  EXPECT_TRUE(columns->isFolded(Columns::Side::table));
  EXPECT_GT(room->canvas()->width(), wide + 150);
  hand.click(seam(columns, 2));
  EXPECT_TRUE(columns->isFolded(Columns::Side::stack));
  EXPECT_GT(share(), 80);
  picture("folded");
  // Remembered, and a press on what is left brings it back.
  close();
  openDemo();
  columns = room->columns();
  ASSERT_TRUE(columns->isFolded(Columns::Side::table));
  ASSERT_TRUE(columns->isFolded(Columns::Side::stack));
  settle();
  hand.click(part("strip-table"));
  hand.click(part("strip-stack"));
  EXPECT_NEAR(room->canvas()->width(), wide - 60, 2);
}

TEST_F(Rooms, KeysFoldTheColumnsAndOneShowsTheMapAlone) {
  openDemo();
  room->canvas()->setFocus();
  const QSize before = room->canvas()->size();
  hand.key(Qt::Key_T, Qt::ShiftModifier);
  EXPECT_TRUE(room->columns()->isFolded(Columns::Side::table));
  hand.key(Qt::Key_L, Qt::ShiftModifier);
  EXPECT_TRUE(room->columns()->isFolded(Columns::Side::stack));
  hand.key(Qt::Key_T, Qt::ShiftModifier);
  hand.key(Qt::Key_L, Qt::ShiftModifier);
  EXPECT_EQ(room->canvas()->size(), before);
  hand.click(room->table(), onTable("street", 24));
  hand.key(Qt::Key_O);
  settle();
  EXPECT_EQ(room->canvas()->size(), room->size());
  hand.moveTo(room->canvas(), onMap({20, 20}));
  picture("alone");
  // Everything goes on: tools, undo, saving by their keys.
  hand.click(room->canvas(), onMap({20, 20}));
  hand.key(Qt::Key_2);
  EXPECT_EQ(session().desk().tool, Tool::erase);
  EXPECT_FALSE(session().isSaved());
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(session().isSaved());
  hand.key(Qt::Key_O);
  settle();
  EXPECT_EQ(room->canvas()->size(), before);
  // A search needs the Table.
  hand.key(Qt::Key_O);
  hand.key(Qt::Key_F, Qt::ControlModifier);
  settle();
  EXPECT_TRUE(part("table-search")->hasFocus());
  EXPECT_EQ(room->canvas()->size(), before);
}

TEST_F(Rooms, DivisionsInsideThePanelsAreDraggedAndRemembered) {
  openDemo();
  auto* stack = room->findChild<QSplitter*>(QStringLiteral("stack-panes"));
  auto* table = room->findChild<QSplitter*>(QStringLiteral("table-panes"));
  const int cards = stack->sizes()[0];
  const int shelf = table->sizes()[0];
  dragSeam(stack, 1, QPointF(0, -80));
  dragSeam(table, 1, QPointF(0, 50));
  EXPECT_NEAR(stack->sizes()[0], cards - 80, 2);
  EXPECT_NEAR(table->sizes()[0], shelf + 50, 2);
  close();
  openDemo();
  EXPECT_NEAR(room->findChild<QSplitter*>(QStringLiteral("stack-panes"))->sizes()[0], cards - 80, 2);
  EXPECT_NEAR(room->findChild<QSplitter*>(QStringLiteral("table-panes"))->sizes()[0], shelf + 50, 2);
}

TEST_F(Rooms, TheTapeIsOneLineAndFoldsWhatHasNoRoom) {
  openDemo();
  const int high = part("tape")->height();
  resizeTo(1024, 700);
  for (const Qt::Key tool : {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4, Qt::Key_5, Qt::Key_6, Qt::Key_7}) {
    room->canvas()->setFocus();
    hand.key(tool);
    EXPECT_EQ(part("tape")->height(), high);
  }
  hand.key(Qt::Key_5);
  // In the narrowest window something is folded away, and works there.
  room->resize(room->minimumSizeHint());
  settle();
  ASSERT_TRUE(part("tape-more")->isVisible());
  EXPECT_EQ(part("tape")->height(), high);
  auto* all = room->findChild<QToolButton*>(QStringLiteral("all-layers-button"));
  ASSERT_FALSE(all->isVisible());
  hand.click(part("tape-more"));
  ASSERT_TRUE(all->isVisible());
  hand.click(all);
  EXPECT_TRUE(session().desk().options.allLayers);
}

class RoomsOfAll : public Rooms {
 protected:
  RoomsOfAll() : Rooms(Demo::whole) {}
};

TEST_F(RoomsOfAll, EightLayersAreInSightWithTheSentences) {
  openDemo();
  resizeTo(1280, 800);
  const Id id = session().quilt().mapNamed("Lantern Row")->id;
  session().work().step("Without pins", deleteLayer(session().quilt(), {id, session().quilt().map(id)->layers.back()->id}));
  const Map* row = session().quilt().map(id);
  ASSERT_EQ(row->layers.size(), 8u);
  session().verbs().maps.goTo(row->id);
  settle();
  auto* area = part("stack-cards");
  for (const Shared<Layer>& layer : row->layers) {
    LayerCard* card = room->stack()->card(layer->id);
    const QRect at(card->mapTo(area, QPoint()), card->size());
    EXPECT_TRUE(area->rect().contains(at)) << layer->name;
  }
  EXPECT_GT(part("layer-note")->visibleRegion().boundingRect().height(), 10);
  // One after the other, none of them moves.
  for (const Shared<Layer>& layer : row->layers) {
    LayerCard* card = room->stack()->card(layer->id);
    const QRect before = placeOf(card);
    hand.click(card, QPointF(card->width() / 2.0, 10));
    EXPECT_EQ(session().desk().activeAt().layer, layer->id);
    EXPECT_EQ(placeOf(card), before) << layer->name;
  }
}

TEST_F(RoomsOfAll, TabsNeverWidenTheWindow) {
  openDemo();
  session().verbs().maps.rename(session().desk().map, std::string(190, 'w'));
  settle();
  resizeTo(1024, 700);
  EXPECT_LE(room->minimumSizeHint().width(), 1024);
  EXPECT_GE(share(), 50);
  // A step that can be taken back moves no tab.
  QWidget* first = room->tabs()->tab(session().desk().openMaps.front());
  const QRect before = placeOf(first);
  session().verbs().layers.setNote(session().desk().activeAt(), std::string(100, 'n'));
  settle();
  EXPECT_EQ(placeOf(first), before);
}

TEST_F(Rooms, OnlyTheNeedleAddsALayerAndBelowTheWalkerItComesBelow) {
  openDemo();
  const std::size_t before = yard().layers.size();
  const std::size_t walker = yard().walkerPlace();
  auto* below = part(("needle-" + std::to_string(walker)).c_str());
  ASSERT_NE(below, nullptr);
  hand.click(below, QPointF(8, below->height() / 2.0));
  EXPECT_EQ(yard().layers.size(), before) << "beside the mark";
  hand.click(below);
  ASSERT_EQ(yard().layers.size(), before + 1);
  EXPECT_EQ(yard().walkerPlace(), walker + 1) << "the new layer is behind the Walker";
  EXPECT_EQ(yard().layers[walker]->id, session().desk().activeAt().layer);
  hand.click(part("needle-walker"));
  ASSERT_EQ(yard().layers.size(), before + 2);
  EXPECT_EQ(yard().walkerPlace(), walker + 1) << "the new layer is in front of it";
  EXPECT_EQ(yard().layers[walker + 1]->id, session().desk().activeAt().layer);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(yard().walkerPlace(), walker);
}

TEST_F(Rooms, AnUprightDragOnTheBarMovesTheCard) {
  openDemo();
  const Id rails = yard().layerNamed("Rails")->id;
  LayerCard* card = room->stack()->card(rails);
  const QPointF bar = card->parallaxPoint(100);
  hand.drag(card, {bar, bar + QPointF(0, 20), bar + QPointF(1, 60)});
  EXPECT_EQ(yard().layers.front()->id, rails);
  EXPECT_EQ(yard().layers.front()->parallax, Parallax{});
  card = room->stack()->card(rails);
  hand.drag(card, {card->parallaxPoint(100), card->parallaxPoint(130), card->parallaxPoint(150)});
  EXPECT_NEAR(yard().layers.front()->parallax.across, 150, 3);
}

TEST_F(Rooms, TheWheelChangesOnlyWhatHasTheKeyboard) {
  openDemo();
  for (const char* name : {"layer-blend", "layer-role", "others-slider", "layer-opacity"}) {
    EXPECT_NE(part(name)->focusPolicy(), Qt::WheelFocus) << name << ": the wheel would give it the keyboard";
    hand.wheel(part(name), QRectF(part(name)->rect()).center(), -1);
  }
  EXPECT_TRUE(session().isSaved());
  EXPECT_FALSE(session().desk().fadesOthers);
  part("others-slider")->setFocus();
  hand.wheel(part("others-slider"), QRectF(part("others-slider")->rect()).center(), -1);
  EXPECT_TRUE(session().desk().fadesOthers);
}

TEST_F(Rooms, ABlendIsSeenWhileItIsChosenAndMayBeLeft) {
  openDemo();
  auto* blend = room->findChild<QComboBox*>(QStringLiteral("layer-blend"));
  const auto now = [this] { return session().quilt().layer(session().desk().activeAt())->blend; };
  hand.click(blend);
  hand.key(Qt::Key_Down);
  EXPECT_EQ(now(), Blend::multiply);
  hand.key(Qt::Key_Down);
  EXPECT_EQ(now(), Blend::screen);
  hand.key(Qt::Key_Escape);
  settle();
  EXPECT_EQ(now(), Blend::normal);
  EXPECT_TRUE(session().isSaved());
  EXPECT_FALSE(session().undoLine().planBack(session().desk().map, session().quilt()));
  hand.click(blend);
  hand.key(Qt::Key_Down);
  hand.key(Qt::Key_Down);
  hand.key(Qt::Key_Return);
  settle();
  EXPECT_EQ(now(), Blend::screen);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(now(), Blend::normal) << "one step";
}

TEST_F(Rooms, ATintIsPickedFromAllColours) {
  openDemo();
  hand.click(part("layer-tint"));
  hand.inDialog(QStringLiteral("colour-dialog"), [](QWidget& dialog) {
    dynamic_cast<QColorDialog&>(dialog).setCurrentColor(QColor(18, 52, 86));
    dynamic_cast<QColorDialog&>(dialog).accept();
  });
  hand.click(part("colour-any"));
  settle();
  EXPECT_EQ(session().quilt().layer(session().desk().activeAt())->tint, 0x123456u);
}

TEST_F(Rooms, WidthsAreTypedForBrushEraseAndLine) {
  openDemo();
  for (const Qt::Key tool : {Qt::Key_1, Qt::Key_2, Qt::Key_6}) {
    room->canvas()->setFocus();
    hand.key(tool);
    ASSERT_TRUE(part("tape-width")->isVisible());
  }
  hand.click(part("tape-width"));
  hand.type(QStringLiteral("20"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().desk().options.width, 21) << "of an even number the next one";
  EXPECT_TRUE(room->canvas()->hasFocus());
  hand.click(room->table(), onTable("street", 24));
  hand.key(Qt::Key_6);
  hand.drag(room->canvas(), {onMap({12, 12}), onMap({30, 12})});
  EXPECT_EQ(cellOn("Paving", {20, 12 - 10}).tile(), tile("street", 24));
  EXPECT_EQ(cellOn("Paving", {20, 12 + 10}).tile(), tile("street", 24));
  EXPECT_NE(cellOn("Paving", {20, 12 + 11}).tile(), tile("street", 24));
  // A block says how many copies come.
  hand.drag(room->table(), {onTable("street", 24), onTable("street", 25)});
  hand.key(Qt::Key_1);
  hand.moveTo(room->canvas(), onMap({20, 15}));
  EXPECT_TRUE(room->canvas()->tagText().contains(QStringLiteral("copies"))) << room->canvas()->tagText().toStdString();
}

TEST_F(Rooms, APressMeantForTheSpreadTableNeverReachesTheMap) {
  openDemo();
  hand.click(room->canvas(), QPointF(3, 3));
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  const Quilt before = session().quilt();
  hand.key(Qt::Key_T);
  ASSERT_TRUE(room->spread()->isVisible());
  room->spread()->reveal("street", 24);
  settle();
  // Twice where one press is enough.
  hand.doubleClick(room->spread(), room->spread()->tileRect("street", 24).center());
  EXPECT_FALSE(room->spread()->isVisible());
  EXPECT_EQ(session().quilt(), before);
  // With Shift it stays, take after take.
  hand.key(Qt::Key_T);
  hand.click(room->spread(), room->spread()->tileRect("street", 25).center(), Qt::LeftButton, Qt::ShiftModifier);
  hand.click(room->spread(), room->spread()->tileRect("street", 26).center(), Qt::LeftButton, Qt::ShiftModifier);
  EXPECT_TRUE(room->spread()->isVisible());
  EXPECT_EQ(session().desk().inHand.members.size(), 3u);
  hand.key(Qt::Key_T);
  EXPECT_FALSE(room->spread()->isVisible());
}

TEST_F(Rooms, WeightsOfAMixAreTyped) {
  openDemo();
  hand.click(room->table(), onTable("street", 0));
  hand.click(room->table(), onTable("street", 1), Qt::LeftButton, Qt::ShiftModifier);
  hand.click(part("manner-mix"));
  ASSERT_EQ(session().desk().inHand.members.size(), 2u);
  auto* preview = room->findChild<HandPreview*>(QStringLiteral("hand-preview"));
  hand.doubleClick(preview, preview->memberRect(1).center());
  hand.type(QStringLiteral("12"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().desk().inHand.members[1].weight, 12);
  EXPECT_EQ(session().desk().inHand.members[0].weight, 1);
}

TEST_F(Rooms, TheTableKeepsItsScaleAndPlace) {
  openDemo();
  // Far down, at some scale of one's own.
  hand.wheel(room->table(), QPointF(60, 60), 1, Qt::ControlModifier);
  const double zoom = room->table()->zoom();
  const QPointF tile = onTable("rails", 5);
  hand.click(room->table(), tile);
  EXPECT_EQ(room->table()->tileRect("rails", 5).center(), tile) << "what is in hand takes its room from below";
  hand.key(Qt::Key_K);
  settle();
  ASSERT_EQ(session().quilt().stamps().size(), 1u);
  EXPECT_EQ(room->table()->mapToGlobal(room->table()->tileRect("rails", 5).center()), room->table()->mapToGlobal(tile));
  choose(ActionId::sheetCard);
  settle();
  EXPECT_EQ(room->table()->zoom(), zoom);
  EXPECT_EQ(room->table()->tileRect("rails", 5).center(), tile) << "a card moves nothing";
}

TEST_F(Rooms, ANoticeLiesOverTheMapAndMovesNothing) {
  openDemo();
  resizeTo(1280, 800);
  QWidget* watched[] = {room->canvas(), room->table(), room->tabs(), part("tape"), part("stack-cards")};
  std::vector<QRect> before;
  for (QWidget* one : watched) before.push_back(placeOf(one));
  room->notices()->tell({QStringLiteral("The picture street.png is missing."), QStringLiteral("Point to it on the Table.")});
  settle();
  ASSERT_TRUE(room->notices()->isVisible());
  for (std::size_t i = 0; i < before.size(); ++i) EXPECT_EQ(placeOf(watched[i]), before[i]) << i;
  EXPECT_TRUE(placeOf(room->canvas()).contains(placeOf(room->notices())));
  hand.click(room->notices()->findChild<QWidget*>(QStringLiteral("notice-close")));
  EXPECT_FALSE(room->notices()->isVisible());
}

TEST_F(Rooms, ColumnsSuitAWideWindowUntilTheyAreDragged) {
  openDemo();
  resizeTo(1280, 800);
  const int narrow = placeOf(room->table()).width();
  resizeTo(2560, 1400);
  EXPECT_GT(placeOf(room->table()).width(), narrow + 40);
  EXPECT_GE(share(), 58);
  resizeTo(1280, 800);
  EXPECT_EQ(placeOf(room->table()).width(), narrow);
}

}  // namespace uq::test
