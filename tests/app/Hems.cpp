// What comes along with materials, by hand: rooms, walls of a height, fences, ponds, roads; and how it is said on the bench.
#include <QLineEdit>
#include <QMenu>
#include <QToolButton>

#include "app/Story.h"
#include "app/bench/HemRows.h"
#include "app/table/TablePanel.h"
#include "core/edit/Edgings.h"
#include "core/edit/Joiner.h"

namespace uq::test {

class Hems : public Story {
 public:
  Hems() : Story(Demo::whole) {}

 protected:
  void SetUp() override { openDemo(); }
  QToolButton* swatch(const char* name) {
    auto* button = part<QToolButton>(name);
    EXPECT_TRUE(button) << name;
    return button;
  }
  const Map& map() { return *session().map(); }
  Cell at(const char* layer, CellPos cell) { return map().layerNamed(layer)->cells.at(cell); }
  MaterialIndex material(const char* edging, const char* layer, CellPos cell) {
    const auto grid = makeGrid(map().grid);
    const Joiner joiner(session().quilt(), *edgingNamed(session().quilt(), edging), *grid);
    return joiner.materialOf(at(layer, cell)).value_or(kAnything);
  }
  int materialOf(const char* edging, const char* name) { return *materialNamed(*edgingNamed(session().quilt(), edging), name); }
  void openMap(const char* name) {
    const Map* wanted = session().quilt().mapNamed(name);
    session().verbs().maps.goTo(wanted->id);
    settle();
  }
  // A press-drag-release with each tool is one action; so is a key.
  int since(const std::function<void()>& job) {
    const int before = hand.actions();
    job();
    return hand.actions() - before;
  }
};

TEST_F(Hems, ARoadAPondAndAFenceWithAGapAreFewActions) {
  hand.click(part<QToolButton>("tape-width-3"));
  EXPECT_LE(since([&] {
              hand.click(swatch("material-street-ground-1"));
              hand.drag(room->canvas(), {onMap({3, 20}), onMap({12, 20}), onMap({12, 15})});
            }),
            2);
  report("a road three cells wide with a bend: two actions");
  for (const int x : {11, 12, 13}) EXPECT_EQ(material("Street ground", "Paving", {x, 17}), materialOf("Street ground", "slabs")) << x;
  hand.click(part<QToolButton>("tape-width-1"));
  EXPECT_EQ(material("Street ground", "Paving", {12, 17}), materialOf("Street ground", "slabs"));
  EXPECT_EQ(material("Street ground", "Paving", {7, 20}), materialOf("Street ground", "slabs"));
  hand.key(Qt::Key_3);
  EXPECT_LE(since([&] {
              hand.click(swatch("material-street-ground-3"));
              hand.drag(room->canvas(), {onMap({34, 8}), onMap({37, 11})});
            }),
            2);
  report("a pond: two actions");
  EXPECT_EQ(material("Street ground", "Paving", {35, 9}), materialOf("Street ground", "canal"));
  EXPECT_FALSE(at("Rails", {35, 8}).empty()) << "foam along its upper bank";
  hand.key(Qt::Key_1);
  session().verbs().layers.choose(map().layerNamed("Sheds & trams")->id);
  EXPECT_LE(since([&] {
              hand.click(swatch("material-hedge-0"));
              hand.drag(room->canvas(), {onMap({14, 20}), onMap({18, 20}), onMap({18, 23}), onMap({14, 23}), onMap({14, 20})});
              hand.hold(Qt::Key_Control);
              hand.click(room->canvas(), onMap({16, 23}), Qt::LeftButton, Qt::ControlModifier);
              hand.letGo(Qt::Key_Control);
            }),
            5);
  report("a fence with a gap: three presses");
  const Sheet* trim = named("trim");
  const auto sides = [&](CellPos cell) { return static_cast<int>(at("Sheds & trams", cell).tile().number) - 16; };
  ASSERT_TRUE(trim);
  EXPECT_EQ(sides({18, 20}), 0b1100) << "a corner";
  EXPECT_EQ(sides({15, 23}), 0b1000) << "an end at the gap";
  EXPECT_EQ(sides({17, 23}), 0b0010);
  EXPECT_TRUE(at("Sheds & trams", {16, 23}).empty());
  picture("road-pond-fence");
}

TEST_F(Hems, APlatformIsTwoActions) {
  openMap("Lantern Row");
  EXPECT_LE(since([&] {
              hand.click(swatch("material-hedge-0"));
              hand.drag(room->canvas(), {onMap({4, 3}), onMap({9, 3})});
            }),
            2);
  report("a platform: two actions");
  const Layer& layer = *session().quilt().layer(session().desk().activeAt());
  const auto shape = [&](int x) { return static_cast<int>(layer.cells.at({x, 3}).tile().number) - 16; };
  EXPECT_EQ(shape(4), 0b0010) << "its left end";
  for (int x = 5; x < 9; ++x) EXPECT_EQ(shape(x), 0b1010);
  EXPECT_EQ(shape(9), 0b1000) << "its right end";
}

// Half a cell: the material comes to the corner nearest to the pointer, along the way of the hand, and goes again.
TEST_F(Hems, HalfACellIsOneCorner) {
  EXPECT_FALSE(part<QToolButton>("tape-width-half")->isVisible()) << "nothing in hand has corners";
  hand.click(swatch("material-street-ground-1"));
  const std::string home = map().name;
  openMap("Roof Market");
  EXPECT_FALSE(part<QToolButton>("tape-width-half")->isVisible()) << "what is in hand is for cells of another form";
  openMap(home.c_str());
  hand.click(part<QToolButton>("tape-width-half"));
  EXPECT_TRUE(part<QToolButton>("tape-width-half")->isChecked());
  EXPECT_FALSE(part<QToolButton>("tape-width-1")->isChecked());
  const LayerAt paving{map().id, map().layerNamed("Paving")->id};
  const LayerCells before = *session().quilt().layer(paving);
  const auto grid = makeGrid(map().grid);
  const Edging ground = *edgingNamed(session().quilt(), "Street ground");
  const auto shows = [&](CellPos at, std::size_t place) {
    const Joiner joiner(session().quilt(), ground, *grid);
    const EdgingMember* member = joiner.memberAt(session().quilt().layer(paving)->cells.at(at));
    return member ? member->corners[place] : kAnything;
  };
  // Where setts lie all around.
  const MaterialIndex setts = materialOf("Street ground", "setts");
  const auto isPlain = [&](CellPos around) {
    for (int y = around.y - 2; y <= around.y + 2; ++y) {
      for (int x = around.x - 2; x <= around.x + 4; ++x) {
        for (std::size_t corner = 0; corner < 4; ++corner) {
          if (shows({x, y}, corner) != setts) return false;
        }
      }
    }
    return true;
  };
  CellPos cell{4, 4};
  while (!isPlain(cell) && cell.y < 26) cell.x < 34 ? ++cell.x : (cell.x = 4, ++cell.y);
  ASSERT_TRUE(isPlain(cell));
  const auto corner = [&](CellPos of) { return (onMap(of) + onMap({of.x - 1, of.y - 1})) / 2 + QPointF(2, 2); };
  hand.click(room->canvas(), corner(cell));
  const int slabs = materialOf("Street ground", "slabs");
  EXPECT_EQ(shows(cell, 0), slabs);
  EXPECT_EQ(shows({cell.x - 1, cell.y}, 1), slabs);
  EXPECT_EQ(shows({cell.x - 1, cell.y - 1}, 2), slabs);
  EXPECT_EQ(shows({cell.x, cell.y - 1}, 3), slabs);
  EXPECT_NE(shows(cell, 2), slabs) << "its other corners are left alone";
  hand.drag(room->canvas(), {corner(cell), corner({cell.x + 2, cell.y})});
  EXPECT_EQ(shows({cell.x + 1, cell.y}, 0), slabs);
  EXPECT_EQ(shows({cell.x + 1, cell.y}, 1), slabs);
  picture("half-a-cell");
  // A broader brush is a whole cell again; a thinner one half.
  hand.key(Qt::Key_Period);
  EXPECT_TRUE(part<QToolButton>("tape-width-1")->isChecked());
  hand.key(Qt::Key_Comma);
  EXPECT_TRUE(part<QToolButton>("tape-width-half")->isChecked());
  hand.hold(Qt::Key_Control);
  hand.drag(room->canvas(), {corner(cell), corner({cell.x + 2, cell.y})}, Qt::LeftButton, Qt::ControlModifier);
  hand.letGo(Qt::Key_Control);
  EXPECT_NE(shows({cell.x + 1, cell.y}, 0), slabs);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(LayerCells(*session().quilt().layer(paving)).cells == before.cells);
}

TEST_F(Hems, ARoomIsOneBoxOfFloorAndAWallTakenAwayIsAnOpening) {
  openMap("Signal Loft");
  const CellRect was = map().bounds;
  // A clean floor to build on.
  MapPlan plan;
  plan.name = "Attic";
  plan.grid = map().grid;
  plan.width = 16;
  plan.height = 12;
  session().verbs().maps.add(plan);
  settle();
  ASSERT_EQ(map().name, "Attic");
  ASSERT_NE(map().bounds, was);
  EXPECT_LE(since([&] {
              hand.click(swatch("material-loft-floor-0"));
              hand.key(Qt::Key_3);
              hand.drag(room->canvas(), {onMap({3, 3}), onMap({10, 8})});
            }),
            3);
  report("a room: three actions");
  const Layer* walls = map().layerNamed("walls");
  ASSERT_TRUE(walls);
  EXPECT_EQ(materialOf("Loft walls", "wall"), material("Loft walls", "walls", {2, 2}));
  EXPECT_EQ(at("walls", {6, 3}).tile().number, 7u) << "the back wall's face";
  EXPECT_TRUE(at("walls", {6, 5}).empty());
  EXPECT_TRUE(at("walls", {6, 10}).empty()) << "no face below the front wall: nothing lies there to stand on";
  picture("room-of-one-box");
  // One press of Undo takes all of it back.
  const Quilt made = session().quilt();
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_FALSE(map().layerNamed("walls"));
  hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(session().quilt(), made);
  hand.key(Qt::Key_1);
  session().verbs().layers.choose(map().layerNamed("walls")->id);
  hand.click(swatch("material-loft-walls-0"));
  hand.click(room->canvas(), onMap({6, 2}), Qt::LeftButton, Qt::ControlModifier);
  EXPECT_TRUE(at("walls", {6, 2}).empty());
  EXPECT_TRUE(at("walls", {6, 3}).empty());
  EXPECT_EQ(at("walls", {5, 3}).tile().number, 8u) << "the face ends on the right";
  EXPECT_EQ(at("walls", {7, 3}).tile().number, 6u);
  picture("room-with-an-opening");
}

TEST_F(Hems, TheHeightOfWallsIsSaidBeforeTheyAreLaid) {
  openMap("Signal Loft");
  session().verbs().layers.choose(map().layerNamed("walls")->id);
  hand.click(swatch("material-loft-walls-0"));
  hand.moveTo(room->canvas(), onMap({5, 5}));
  EXPECT_TRUE(room->canvas()->tagText().contains(QStringLiteral("1 row high"))) << room->canvas()->tagText().toStdString();
  hand.key(Qt::Key_PageUp);
  hand.key(Qt::Key_PageUp);
  EXPECT_TRUE(room->canvas()->tagText().contains(QStringLiteral("3 rows high"))) << room->canvas()->tagText().toStdString();
  picture("walls-three-rows-high");
  EXPECT_LE(since([&] { hand.drag(room->canvas(), {onMap({4, 4}), onMap({6, 4})}); }), 1);
  report("walls of a height, once the material is in hand: one drag");
  EXPECT_EQ(material("Loft walls", "walls", {5, 4}), 0);
  EXPECT_FALSE(at("walls", {5, 7}).empty());
  EXPECT_TRUE(at("walls", {5, 8}).empty());
  hand.key(Qt::Key_PageDown);
  EXPECT_TRUE(room->canvas()->tagText().contains(QStringLiteral("2 rows high")));
  EXPECT_EQ(session().desk().lift, 0) << "nothing is lifted meanwhile";
}

TEST_F(Hems, WallsThreeHighRoundAHouseAreTwoActionsWhereTheEdgingSaysSo) {
  openMap("Signal Loft");
  session().verbs().layers.choose(map().layerNamed("walls")->id);
  Edging tall = *edgingNamed(session().quilt(), "Loft walls");
  tall.hems[0].rows = 3;
  session().quiltStep(QStringLiteral("Tall walls"), withEdging(session().quilt(), tall));
  hand.key(Qt::Key_3);
  Desk desk = session().desk();
  desk.options.outlines = true;
  session().setDesk(desk);
  settle();
  EXPECT_LE(since([&] {
              hand.click(swatch("material-loft-walls-0"));
              hand.drag(room->canvas(), {onMap({3, 3}), onMap({8, 8})});
            }),
            2);
  report("walls three high round a house: two actions");
  for (const int y : {4, 5, 6}) EXPECT_EQ(at("walls", {5, y}).tile().number, 7u) << y;
  EXPECT_NE(at("walls", {5, 7}).tile().number, 7u);
  EXPECT_EQ(material("Loft walls", "walls", {5, 8}), 0);
}

TEST_F(Hems, WhereMaterialsArePaintedARightClickTakesTheMaterial) {
  session().verbs().layers.choose(map().layerNamed("Paving")->id);
  hand.click(room->canvas(), onMap({26, 3}), Qt::RightButton);
  EXPECT_FALSE(session().desk().inHand.joins()) << "tiles were painted here last";
  auto* joins = part<QToolButton>("manner-joins");
  ASSERT_TRUE(joins->isEnabled()) << "but the tile says that it joins";
  hand.click(joins);
  ASSERT_TRUE(session().desk().inHand.joins());
  EXPECT_EQ(session().desk().inHand.material, materialOf("Street ground", "lawn"));
  EXPECT_TRUE(joins->isChecked());
  EXPECT_FALSE(part<QToolButton>("manner-as-it-is")->isChecked());
  hand.click(room->canvas(), onMap({20, 9}));
  EXPECT_EQ(material("Street ground", "Paving", {20, 9}), materialOf("Street ground", "lawn"));
  hand.click(room->canvas(), onMap({10, 29}), Qt::RightButton);
  ASSERT_TRUE(session().desk().inHand.joins());
  EXPECT_EQ(session().desk().inHand.material, materialOf("Street ground", "canal"));
  hand.moveTo(room->canvas(), onMap({11, 29}));
  EXPECT_TRUE(room->canvas()->tagText().contains(QStringLiteral("canal"))) << room->canvas()->tagText().toStdString();
  // As it is, its tile is laid as any other, and then tiles are taken again.
  hand.click(part<QToolButton>("manner-as-it-is"));
  EXPECT_FALSE(session().desk().inHand.joins());
  hand.click(room->canvas(), onMap({11, 29}));
  hand.click(room->canvas(), onMap({26, 3}), Qt::RightButton);
  EXPECT_FALSE(session().desk().inHand.joins());
  // M goes round all manners, joining among them.
  for (int i = 0; i < 3; ++i) hand.key(Qt::Key_M);
  EXPECT_TRUE(session().desk().inHand.joins());
  hand.key(Qt::Key_M);
  EXPECT_FALSE(session().desk().inHand.joins());
}

// By keyboard alone: what it was on goes, and it stays on the list.
TEST_F(Hems, TheKeyboardStaysOnWhatIsBroughtAlong) {
  openMap("Signal Loft");
  hand.click(part<QToolButton>("edging-loft-floor"));
  const auto floor = [&]() -> const Edging& { return *edgingNamed(session().quilt(), "Loft floor"); };
  ASSERT_EQ(floor().hems.size(), 1u);
  hand.click(part<QLineEdit>("bench-hem-0-name"));
  part<QLineEdit>("bench-hem-0-name")->selectAll();
  hand.type(QStringLiteral(" "));
  hand.key(Qt::Key_Tab);
  EXPECT_EQ(part<QLineEdit>("bench-hem-0-name")->text(), QStringLiteral("walls")) << "a name of nothing is none";
  EXPECT_TRUE(part<QToolButton>("bench-hem-0-gone")->hasFocus());
  hand.key(Qt::Key_Space);
  EXPECT_TRUE(floor().hems.empty());
  EXPECT_TRUE(part<QToolButton>("bench-hem-add")->hasFocus());
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(floor().hems.size(), 1u);
}

TEST_F(Hems, WhatIsInHandIsBroughtAlongFromTheBench) {
  hand.click(room->table(), onTable("trim", 0));
  hand.drag(room->table(), {onTable("trim", 8), onTable("trim", 11)});
  const InHand held = session().desk().inHand;
  ASSERT_EQ(held.parts().size(), 4u);
  hand.click(part<QToolButton>("edging-hedge"));
  ASSERT_TRUE(room->bench()->isVisible());
  const auto hedge = [&]() -> const Edging& { return *edgingNamed(session().quilt(), "Hedge"); };
  hand.click(part<QToolButton>("bench-hem-add"));
  ASSERT_EQ(hedge().hems.size(), 1u);
  EXPECT_EQ(hedge().hems[0].tiles.size(), 4u);
  EXPECT_EQ(hedge().hems[0].tiles[3].piece, HemPiece::alone);
  EXPECT_EQ(hedge().hems[0].side, 2);
  EXPECT_GT(room->bench()->patch()->patch()->map().layers.size(), 0u);
  picture("bench-with-a-hem");
  auto* name = part<QLineEdit>("bench-hem-0-name");
  ASSERT_TRUE(name);
  hand.click(name);
  name->selectAll();
  hand.type(QStringLiteral("roots"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(hedge().hems[0].name, "roots");
  // On the material itself it needs a layer of its own.
  const auto choose = [&](const char* button, const QString& text) {
    for (QAction* action : part<QToolButton>(button)->menu()->actions()) {
      if (action->text() == text) return action->trigger();
    }
    ADD_FAILURE() << text.toStdString();
  };
  choose("bench-hem-0-place", QStringLiteral("on hedge, from its bottom"));
  EXPECT_TRUE(hedge().hems[0].inside);
  EXPECT_FALSE(hedge().hems[0].role.empty());
  choose("bench-hem-0-role", QStringLiteral("same layer"));
  EXPECT_FALSE(hedge().hems[0].role.empty()) << "refused in words";
  // The material in hand of something else comes all around.
  hand.key(Qt::Key_Escape);
  hand.click(swatch("material-street-ground-2"));
  hand.click(part<QToolButton>("edging-hedge"));
  hand.click(part<QToolButton>("bench-hem-add"));
  EXPECT_EQ(hedge().hems.size(), 1u) << "lawn covers the ground and never ends";
  hand.key(Qt::Key_Escape);
  hand.click(swatch("material-loft-walls-0"));
  hand.click(part<QToolButton>("edging-hedge"));
  hand.click(part<QToolButton>("bench-hem-add"));
  ASSERT_EQ(hedge().hems.size(), 2u);
  EXPECT_EQ(hedge().hems[1].aroundMaterial, "wall");
  hand.click(part<QToolButton>("bench-hem-1-gone"));
  hand.click(part<QToolButton>("bench-hem-0-gone"));
  EXPECT_TRUE(hedge().hems.empty());
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(hedge().hems.size(), 1u);
}

}  // namespace uq::test
