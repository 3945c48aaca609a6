// The pictures of docs/screenshots, each the end of a small story. To make them anew:
//   UQ_PICTURES=docs/screenshots tests/in-virtual-display build/release/bin/app_tests --gtest_filter='Portraits.*'
#include "app/Story.h"

namespace uq::test {

class Portraits : public Story {
 protected:
  void SetUp() override { openDemo(); }
};

TEST_F(Portraits, ATreeIsHeldOverTheYard) {
  MapCanvas* canvas = room->canvas();
  // The tree is three by three tiles on the yard sheet.
  hand.drag(room->table(), {onTable("yard", 7 * 14 + 10), onTable("yard", 9 * 14 + 12)});
  EXPECT_EQ(session().desk().inHand.parts().size(), 9u);
  hand.key(Qt::Key_W);
  hand.key(Qt::Key_W);
  hand.moveTo(canvas, onMap({30, 12}));
  hand.key(Qt::Key_0);
  hand.moveTo(canvas, onMap({28, 13}));
  EXPECT_EQ(canvas->tagText(), QStringLiteral("Brush on Sheds & trams"));
  picture("workroom");
}

TEST_F(Portraits, TheWholeYardAtOnce) {
  hand.click(room->canvas(), onMap({28, 9}), Qt::RightButton);
  hand.moveTo(room->canvas(), onMap({10, 20}));
  EXPECT_EQ(room->canvas()->tagText(), QStringLiteral("Brush on Sheds & trams"));
  picture("whole-map");
}

TEST_F(Portraits, ATramIsSelectedByNight) {
  room->actions()->action(ActionId::indigo)->trigger();
  hand.drag(room->table(), {onTable("yard", 7 * 14 + 10), onTable("yard", 9 * 14 + 12)});
  hand.click(room->stack()->card(yard().layerNamed("Sheds & trams")->id));
  hand.key(Qt::Key_5);
  hand.drag(room->canvas(), {onMap({25, 8}), onMap({29, 10})});
  hand.moveTo(room->canvas(), onMap({27, 9}));
  hand.key(Qt::Key_0);
  EXPECT_EQ(session().desk().selection(), CellSet({25, 8, 30, 11}));
  hand.moveTo(room->canvas(), onMap({28, 9}));
  EXPECT_EQ(room->canvas()->tagText(), QStringLiteral("Move on Sheds & trams"));
  picture("workroom-indigo");
  room->actions()->action(ActionId::linen)->trigger();
}

}  // namespace uq::test
