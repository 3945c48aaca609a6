// What lies how far away: backdrops, parallax, the screen frame, and how layers look over one another.
#include <QCheckBox>
#include <QComboBox>
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QSlider>
#include <QToolButton>

#include "app/PaintingStory.h"
#include "app/look/ColourField.h"
#include "app/look/NumberField.h"
#include "app/maps/MapFactsCard.h"
#include "app/table/HangCard.h"
#include "core/edit/HangingPlace.h"
#include "core/edit/MapFacts.h"

namespace uq::test {

class Depths : public PaintingHand {
 protected:
  // A picture as somebody drew it: bands of one colour with a stripe.
  QString drawn(const QString& name, QSize size, QColor colour) {
    QImage picture(size, QImage::Format_ARGB32);
    picture.fill(colour);
    QPainter(&picture).fillRect(0, size.height() / 2, size.width() / 2, 4, colour.darker());
    const QString path = files_.filePath(name);
    EXPECT_TRUE(picture.save(path));
    return path;
  }
  std::vector<std::string> names() {
    std::vector<std::string> all;
    for (const Shared<Layer>& one : session().map()->layers) all.push_back(one->name);
    return all;
  }
  const Layer& named(const char* name) { return *session().map()->layerNamed(name); }
  LayerCard* card(const char* name) { return room->stack()->card(named(name).id); }
  void typeInto(const char* field, const QString& text) {
    auto* line = in<QLineEdit>(field);
    hand.click(line);
    line->selectAll();
    hand.type(text);
    hand.key(Qt::Key_Return);
  }
  void choose(const char* box, int index) {
    auto* choice = in<QComboBox>(box);
    choice->setCurrentIndex(index);
    Q_EMIT choice->activated(index);
    settle();
  }
  // Until so many backdrops hang there.
  void awaitHung(std::ptrdiff_t count) {
    EXPECT_TRUE(waitFor([&] {
      const std::vector<Shared<Layer>>& layers = session().map()->layers;
      return count == std::count_if(layers.begin(), layers.end(),
                                    [](const auto& one) { return one->kind == LayerKind::backdrop; });
    }));
    settle();
  }
  QRgb pixelAt(QPointF at) {
    const QImage picture = canvas()->grab().toImage();
    return picture.pixel((at * picture.devicePixelRatio()).toPoint());
  }

  QTemporaryDir files_;
};

TEST_F(Depths, FourBackdropsAreHungAndSetToDepth) {
  makeGround();
  const QStringList paths{drawn(QStringLiteral("a-roofs.png"), {256, 128}, QColor(90, 60, 90)),
                          drawn(QStringLiteral("b-towers.png"), {256, 128}, QColor(120, 130, 160)),
                          drawn(QStringLiteral("c-hills.png"), {256, 128}, QColor(160, 150, 170)),
                          drawn(QStringLiteral("d-sky.png"), {256, 128}, QColor(200, 170, 160))};
  const int job = actionsOf([&] {
    hand.drop(canvas(), canvas()->rect().center(), paths);
    ASSERT_TRUE(in<HangCard>("hang-card")->isVisible());
    picture("hang-or-cut");
    hand.click(in<QToolButton>("hang-as-backdrop"));
    awaitHung(4);
  });
  EXPECT_LE(job, 9);
  EXPECT_EQ(names(), (std::vector<std::string>{"d-sky", "c-hills", "b-towers", "a-roofs", "Ground", "Things"}));
  // Each moves half as far as the one in front of it.
  EXPECT_EQ(named("a-roofs").parallax.across, 50);
  EXPECT_EQ(named("b-towers").parallax.across, 25);
  EXPECT_EQ(named("d-sky").parallax.across, 6);
  EXPECT_TRUE(named("d-sky").backdrop.repeatsAcross);
  report("four backdrops hung and set to depth");
  // One step takes all of them away again, and what was brought in stays on the Table.
  undo();
  EXPECT_EQ(names(), (std::vector<std::string>{"Ground", "Things"}));
  hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  const auto saved = QuiltStore::open(realDisk(), folder(), QuiltStore::Access::read);
  ASSERT_TRUE(saved);
  EXPECT_THAT(saved->problems, testing::IsEmpty());
  const Map& again = *saved->quilt.mapNamed("Siding");
  ASSERT_EQ(again.layers.size(), 6u);
  EXPECT_EQ(again.layers[0]->kind, LayerKind::backdrop);
  EXPECT_TRUE(saved->quilt.sheet(again.layers[0]->backdrop.sheet));
}

TEST_F(Depths, ADroppedPictureMayBeCutInstead) {
  makeGround();
  const QStringList one{drawn(QStringLiteral("wall.png"), {64, 64}, QColor(90, 60, 90))};
  hand.drop(canvas(), canvas()->rect().center(), one);
  hand.key(Qt::Key_1);
  awaitWork();
  EXPECT_EQ(names(), (std::vector<std::string>{"Ground", "Things"}));
  EXPECT_TRUE(std::any_of(session().quilt().sheets().begin(), session().quilt().sheets().end(),
                          [](const auto& sheet) { return sheet->name == "wall"; }));
  hand.drop(canvas(), canvas()->rect().center(), one);
  ASSERT_TRUE(in<HangCard>("hang-card")->isVisible());
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(in<HangCard>("hang-card")->isVisible());
  EXPECT_TRUE(canvas()->hasFocus());
}

TEST_F(Depths, ACardsFootIsDraggedAndTheFrameShowsItAtOnce) {
  makeGround();
  hand.drop(canvas(), canvas()->rect().center(), {drawn(QStringLiteral("sky.png"), {64, 64}, QColor(200, 170, 160))});
  hand.key(Qt::Key_2);
  awaitHung(1);
  settle();
  const std::size_t before = steps();
  LayerCard* sky = card("sky");
  hand.drag(sky, {sky->parallaxPoint(50), sky->parallaxPoint(80), sky->parallaxPoint(20)});
  EXPECT_NEAR(named("sky").parallax.across, 20, 2);
  EXPECT_EQ(steps(), before + 1) << "one step for all of the drag";
  typeInto("layer-moves-across", QStringLiteral("0.1*3"));
  EXPECT_EQ(named("sky").parallax.across, 30);
  undo();
  undo();
  EXPECT_EQ(named("sky").parallax.across, 50);
  // The frame moves, and the sky with it; the ground stays where it is.
  hand.click(room->table(), onTable("street", 24));
  hand.click(card("Ground"));
  hand.click(canvas(), onMap({3, 3}));
  hand.key(Qt::Key_B);
  ASSERT_TRUE(canvas()->frameRect());
  EXPECT_TRUE(session().desk().showsFrame);
  const Quilt quilt = session().quilt();
  const QPointF hold = canvas()->frameRect()->topLeft() + QPointF(1, 40);
  hand.drag(canvas(), {hold, hold + QPointF(60, 30) * canvas()->zoom()});
  EXPECT_EQ(session().desk().camera(), (PixelPos{60, 30}));
  EXPECT_EQ(session().quilt(), quilt) << "looking changes nothing";
  picture("screen-frame");
  // It stops at the map's edge.
  const QPointF again = canvas()->frameRect()->topLeft() + QPointF(1, 40);
  hand.drag(canvas(), {again, again + QPointF(9000, 9000)});
  const PixelSize screen = screenOf(session().quilt(), siding());
  EXPECT_EQ(session().desk().camera(), (PixelPos{24 * 32 - screen.w, 16 * 32 - screen.h}));
  // By itself it goes along the edges.
  hand.key(Qt::Key_B, Qt::ShiftModifier);
  EXPECT_TRUE(waitFor([&] { return session().desk().camera() != (PixelPos{24 * 32 - screen.w, 16 * 32 - screen.h}); }));
  hand.key(Qt::Key_B, Qt::ShiftModifier);
  EXPECT_FALSE(canvas()->playsCamera());
  hand.key(Qt::Key_B);
  EXPECT_FALSE(canvas()->frameRect());
}

TEST_F(Depths, AStrokeLandsWhereTheGhostIsWhileTheCameraLooks) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.click(card("Things"));
  typeInto("layer-moves-across", QStringLiteral("2"));
  canvas()->setFocus();
  Desk desk = session().desk();
  desk.showsFrame = true;
  session().setDesk(desk);
  session().verbs().maps.setCamera({96, 0});
  // The layer is drawn 96 pixels further to the left.
  hand.click(canvas(), onMap({5, 5}));
  int laid = 0;
  CellPos where;
  siding().layerNamed("Things")->cells.forEachPainted(siding().bounds, [&](CellPos cell, Cell) {
    ++laid;
    where = cell;
  });
  EXPECT_EQ(laid, 1);
  EXPECT_EQ(where, (CellPos{5, 5})) << "cells are counted on the layer's own plane";
}

TEST_F(Depths, SeveralCardsAreChangedTogether) {
  makeGround();
  hand.click(card("Ground"));
  hand.click(card("Things"), QPointF(60, 14), Qt::LeftButton, Qt::ControlModifier);
  EXPECT_EQ(session().verbs().layers.chosen().size(), 2u);
  const std::size_t before = steps();
  typeInto("layer-opacity", QStringLiteral("60"));
  EXPECT_EQ(named("Ground").opacity, 60);
  EXPECT_EQ(named("Things").opacity, 60);
  EXPECT_EQ(steps(), before + 1);
  choose("layer-blend", 1);
  EXPECT_EQ(named("Things").blend, Blend::multiply);
  EXPECT_EQ(named("Ground").blend, Blend::multiply);
  hand.click(in<QCheckBox>("layer-in-game"));
  EXPECT_FALSE(named("Ground").inGame);
  undo();
  undo();
  undo();
  EXPECT_EQ(named("Ground").opacity, 100);
  EXPECT_EQ(named("Things").blend, Blend::normal);
  // A click on a card chooses it alone.
  hand.click(card("Ground"));
  EXPECT_EQ(session().verbs().layers.chosen().size(), 1u);
}

TEST_F(Depths, TheOtherLayersAreSeenFaintOrGone) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.key(Qt::Key_4);
  hand.click(canvas(), onMap({5, 5}));
  hand.click(card("Things"));
  hand.moveTo(canvas(), {4, 4});
  const QPointF at = onMap({5, 5});
  const QRgb seen = pixelAt(at);
  auto* slider = in<QSlider>("others-slider");
  slider->setValue(30);
  settle();
  const QRgb faint = pixelAt(at);
  EXPECT_NE(faint, seen);
  slider->setValue(0);
  settle();
  EXPECT_NE(pixelAt(at), faint);
  slider->setValue(100);
  settle();
  EXPECT_EQ(pixelAt(at), seen);
  // Alone by a double press on its eye, and back.
  auto* eye = card("Ground")->findChild<QToolButton*>(QStringLiteral("eye"));
  hand.doubleClick(eye);
  EXPECT_EQ(session().desk().hidden, (std::set<Id>{named("Things").id}));
  hand.doubleClick(eye);
  EXPECT_TRUE(session().desk().hidden.empty());
  EXPECT_EQ(session().undoLine().steps().back().name, "Fill on Ground") << "seeing is no step";
}

TEST_F(Depths, AWrongOrderIsRepairedByOneDrag) {
  makeGround();
  hand.drop(canvas(), canvas()->rect().center(), {drawn(QStringLiteral("a.png"), {64, 64}, Qt::gray),
                                                  drawn(QStringLiteral("b.png"), {64, 64}, Qt::blue)});
  hand.key(Qt::Key_2);
  awaitHung(2);
  ASSERT_EQ(names(), (std::vector<std::string>{"b", "a", "Ground", "Things"}));
  LayerCard* b = card("b");
  const QPointF top = card("a")->mapTo(b->parentWidget(), QPoint(60, 2));
  const int job = actionsOf([&] {
    hand.drag(b, {QPointF(60, 14), b->mapFrom(b->parentWidget(), top.toPoint()) + QPointF(0, 0)});
  });
  EXPECT_EQ(job, 1);
  EXPECT_EQ(names(), (std::vector<std::string>{"a", "b", "Ground", "Things"}));
}

TEST_F(Depths, BackgroundAndFrameAreMadeToAgreeByTwoActions) {
  makeGround();
  hand.drop(canvas(), canvas()->rect().center(), {drawn(QStringLiteral("sky.png"), {64, 64}, QColor(200, 170, 160))});
  hand.key(Qt::Key_2);
  awaitHung(1);
  const PixelSize screen = screenOf(session().quilt(), siding());
  EXPECT_NE(hungSize(session().quilt(), siding(), named("sky").backdrop)->h, screen.h);
  choose("backdrop-fit", 2);
  EXPECT_EQ(hungSize(session().quilt(), siding(), named("sky").backdrop)->h, screen.h);
  choose("backdrop-repeats", 0);
  EXPECT_FALSE(named("sky").backdrop.repeatsAcross);
  // Hung once, it says how much of the screen it leaves bare.
  const auto told = in<QLabel>("layer-sentences")->text();
  EXPECT_TRUE(told.contains(QStringLiteral("px before the east edge"))) << told.toStdString();
}

TEST_F(Depths, ARaisedLayerIsAddedAndFilledByThreeActions) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  const int job = actionsOf([&] {
    hand.key(Qt::Key_L, Qt::ControlModifier);
    hand.key(Qt::Key_4);
    hand.click(canvas(), onMap({5, 5}));
  });
  EXPECT_EQ(job, 3);
  const Layer& raised = *session().quilt().layer(session().desk().activeAt());
  EXPECT_GT(siding().riseOf(raised), 0);
  EXPECT_EQ(raised.cells.tally(siding().bounds).size(), 1u);
}

TEST_F(Depths, AThingIsMovedToTheLayerAboveByOneAction) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.click(card("Ground"));
  hand.click(canvas(), onMap({5, 5}));
  hand.key(Qt::Key_5);
  hand.drag(canvas(), {onMap({4, 4}), onMap({6, 6})});
  EXPECT_EQ(actionsOf([&] { hand.key(Qt::Key_W, Qt::ShiftModifier); }), 1);
  EXPECT_TRUE(at("Ground", {5, 5}).empty());
  EXPECT_EQ(at("Things", {5, 5}).tile(), tile("street", 24));
}

TEST_F(Depths, ARoleOfOnesOwnIsTypedAndKnownOnEveryMap) {
  makeGround();
  auto* role = in<QComboBox>("layer-role");
  hand.click(role, QPointF(12, 10));
  role->lineEdit()->selectAll();
  hand.type(QStringLiteral("deadly"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(named("Ground").role, "deadly");
  EXPECT_EQ(session().quilt().facts().roles.back(), "deadly");
  session().verbs().maps.goTo(yard().id);
  settle();
  EXPECT_GE(role->findText(QStringLiteral("deadly")), 0);
  session().verbs().maps.goTo(siding().id);
  undo();
  EXPECT_EQ(named("Ground").role, "ground");
}

TEST_F(Depths, WhatIsSaidOfTheMapIsSeenInItsScreen) {
  makeGround();
  Story::choose(ActionId::mapFacts);
  settle();
  auto* facts = in<MapFactsCard>("map-facts");
  ASSERT_TRUE(facts->isVisible());
  hand.type(QStringLiteral("The Siding"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(siding().title, "The Siding");
  hand.click(in<ColourField>("map-cloth"));
  auto* colour = in<QToolButton>("colour-3");
  ASSERT_TRUE(colour);
  hand.click(colour);
  EXPECT_EQ(siding().cloth, Colour{0xc98f86});
  picture("map-facts");
  typeInto("screen-width", QStringLiteral("20*16"));
  EXPECT_EQ(session().quilt().facts().screen.w, 320) << "of all maps";
  hand.click(in<QCheckBox>("screen-differs"));
  typeInto("screen-height", QStringLiteral("200"));
  EXPECT_EQ(siding().screen, (PixelSize{320, 200}));
  typeInto("map-shown-times", QStringLiteral("3"));
  EXPECT_EQ(siding().shownTimes, 3);
  in<QComboBox>("map-seen")->setFocus();
  hand.key(Qt::Key_Down);
  EXPECT_EQ(siding().seen, Seen::sideOn);
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(facts->isVisible());
  EXPECT_EQ(QColor(pixelAt(onMap({5, 5}))), QColor(0xc9, 0x8f, 0x86)) << "the cloth behind an empty map";
}

TEST_F(Depths, LayersOfPinsAndBackdropsTakeNoStrokeAndSayWhy) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  Story::choose(ActionId::addPins);
  settle();
  EXPECT_EQ(named("Pins").kind, LayerKind::pins);
  hand.click(card("Pins"));
  hand.moveTo(canvas(), onMap({5, 5}));
  EXPECT_EQ(tag(), "Pins is for pins: no tiles lie on it");
  const Quilt before = session().quilt();
  hand.click(canvas(), onMap({5, 5}));
  EXPECT_EQ(session().quilt(), before);
}

TEST_F(Depths, TwoLayersBecomeOne) {
  makeGround();
  hand.click(room->table(), onTable("street", 24));
  hand.click(card("Things"));
  hand.click(canvas(), onMap({5, 5}));
  hand.key(Qt::Key_Down, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(names(), (std::vector<std::string>{"Ground"}));
  EXPECT_EQ(at("Ground", {5, 5}).tile(), tile("street", 24));
  EXPECT_EQ(active(), "Ground");
  undo();
  EXPECT_EQ(names(), (std::vector<std::string>{"Ground", "Things"}));
}

}  // namespace uq::test
