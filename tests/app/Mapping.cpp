// Maps of a quilt: made, found, renamed, copied, closed and deleted, each a step back.
#include <QApplication>
#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QToolButton>

#include "app/Story.h"
#include "app/look/NumberField.h"

namespace uq::test {

using testing::ElementsAre;

class Mapping : public Story {
 protected:
  void SetUp() override { openDemo(); }

  std::vector<std::string> names() {
    std::vector<std::string> names;
    for (const auto& map : session().quilt().maps()) names.push_back(map->name);
    return names;
  }
  std::string here() { return session().map() ? session().map()->name : ""; }
  void make(const char* name) {
    hand.key(Qt::Key_M, Qt::ControlModifier);
    hand.type(QLatin1String(name));
    hand.key(Qt::Key_Return);
  }
  template <class Widget>
  Widget* in(const char* name) {
    return room->findChild<Widget*>(QLatin1String(name));
  }
};

TEST_F(Mapping, TheCardFollowsTheMapAndTheSheetInHandAndTakesSums) {
  hand.key(Qt::Key_M, Qt::ControlModifier);
  NewMapCard* card = room->newMapCard();
  EXPECT_EQ(card->plan().width, 48);
  EXPECT_EQ(card->plan().grid.cell, (PixelSize{32, 32}));
  hand.doubleClick(in<NumberField>("map-width"));
  hand.type(QStringLiteral("448/32*2"));
  EXPECT_EQ(in<QLabel>("map-figures")->text().toStdString(),
            "28 × 32 cells = 896 × 1024 px = 2.0 × 3.6 screens of 448 × 288");
  picture("new-map-as-another");
  hand.doubleClick(in<NumberField>("cell-width"));
  hand.type(QStringLiteral("600"));
  EXPECT_EQ(card->plan().grid.cell.w, 32) << "what a cell cannot be leaves it as it was";
  in<QComboBox>("new-map-seen")->setFocus();
  hand.key(Qt::Key_Down);
  hand.click(in<QPushButton>("make-map"));
  EXPECT_THAT(names(), ElementsAre("Depot Yard", "Map"));
  EXPECT_EQ(session().map()->seen, Seen::sideOn);
  EXPECT_EQ(session().map()->bounds, (CellRect{0, 0, 28, 32}));
  report("a map of two screens across");
}

TEST_F(Mapping, WhatIsTypedOnTheCardNeverReachesTheMap) {
  const Quilt before = session().quilt();
  const Desk desk = session().desk();
  hand.key(Qt::Key_M, Qt::ControlModifier);
  hand.type(QStringLiteral("12 wsgq"));
  EXPECT_TRUE(session().desk() == desk);
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(room->newMapCard()->isVisible());
  EXPECT_TRUE(room->canvas()->hasFocus());
  EXPECT_EQ(session().quilt(), before);
  EXPECT_TRUE(session().desk() == desk);
}

TEST_F(Mapping, ANewMapGoesAndComesBackWithItsTab) {
  const Quilt before = session().quilt();
  make("Ferry Street");
  EXPECT_EQ(here(), "Ferry Street");
  EXPECT_NE(room->tabs()->tab(session().desk().map), nullptr);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), before);
  EXPECT_EQ(here(), "Depot Yard");
  EXPECT_FALSE(room->actions()->action(ActionId::listSteps)->isEnabled());
  EXPECT_EQ(session().desk().openMaps.size(), 1u);
}

TEST_F(Mapping, EveryMapIsFoundByAPartOfItsName) {
  for (const char* name : {"Ferry Street", "Lantern Row", "Signal Loft"}) make(name);
  hand.key(Qt::Key_W, Qt::ControlModifier);
  EXPECT_EQ(session().desk().openMaps.size(), 3u);
  hand.key(Qt::Key_O, Qt::ControlModifier);
  picture("maps");
  hand.type(QStringLiteral("loft"));
  hand.key(Qt::Key_Return);
  settle();
  EXPECT_EQ(here(), "Signal Loft");
  EXPECT_EQ(session().desk().openMaps.size(), 4u);
  hand.key(Qt::Key_O, Qt::ControlModifier);
  hand.type(QStringLiteral("harbour"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(here(), "Signal Loft");
  if (QWidget* popup = QApplication::activePopupWidget()) popup->hide();
}

TEST_F(Mapping, ADoubleClickOnATabRenames) {
  hand.doubleClick(room->tabs()->tab(yard().id));
  hand.type(QStringLiteral("Tram Depot"));
  hand.key(Qt::Key_Return);
  EXPECT_THAT(names(), ElementsAre("Tram Depot"));
  EXPECT_TRUE(room->canvas()->hasFocus());
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(QFile::exists(QString::fromStdString(folder()) + QStringLiteral("/maps/tram-depot/map.json")));
  EXPECT_FALSE(QFile::exists(QString::fromStdString(folder()) + QStringLiteral("/maps/depot-yard/map.json")));
  hand.doubleClick(room->tabs()->tab(session().desk().map));
  hand.type(QStringLiteral("Nothing"));
  hand.key(Qt::Key_Escape);
  EXPECT_THAT(names(), ElementsAre("Tram Depot"));
}

TEST_F(Mapping, NoStrokeAndNoOtherTabMovesATab) {
  make("Ferry Street");
  const Id ferry = session().desk().map;
  const auto place = [&](Id map) { return room->tabs()->tab(map)->geometry(); };
  const QRect yardWas = place(yard().id);
  const QRect ferryWas = place(ferry);
  hand.click(room->tabs()->tab(yard().id));
  settle();
  EXPECT_EQ(place(ferry), ferryWas) << "the active one is bold";
  ASSERT_TRUE(session().isSaved(yard()));
  hand.click(room->table(), onTable("street", 24));
  hand.click(room->canvas(), onMap({20, 20}));
  settle();
  ASSERT_FALSE(session().isSaved(yard()));
  EXPECT_EQ(place(ferry), ferryWas) << "of one that is not saved";
  EXPECT_EQ(place(yard().id), yardWas);
}

TEST_F(Mapping, ADeletedMapComesBackFromWhereOneIs) {
  make("Ferry Street");
  const Quilt before = session().quilt();
  hand.click(room->tabs()->tab(yard().id));
  Story::choose(ActionId::deleteMap);
  EXPECT_THAT(names(), ElementsAre("Ferry Street"));
  EXPECT_EQ(here(), "Ferry Street");
  EXPECT_EQ(in<QLabel>("foot-hands")->text(), QStringLiteral("Depot Yard was deleted. Ctrl+Z brings it back."));
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), before);
  EXPECT_EQ(here(), "Depot Yard");
}

TEST_F(Mapping, EvenTheLastMapCanGoAndComeBack) {
  const Quilt before = session().quilt();
  Story::choose(ActionId::deleteMap);
  settle();
  EXPECT_THAT(names(), ElementsAre());
  picture("no-map");
  EXPECT_FALSE(room->actions()->action(ActionId::deleteMap)->isEnabled());
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), before);
  EXPECT_EQ(here(), "Depot Yard");
}

TEST_F(Mapping, EachMapKeepsItsView) {
  make("Ferry Street");
  hand.click(room->tabs()->tab(yard().id));
  hand.key(Qt::Key_0);
  hand.wheel(room->canvas(), QPointF(300, 300), -3);
  const MapCanvas::View view = room->canvas()->view();
  hand.key(Qt::Key_PageDown, Qt::ControlModifier);
  EXPECT_EQ(here(), "Ferry Street");
  EXPECT_TRUE(room->canvas()->view().whole);
  hand.key(Qt::Key_PageUp, Qt::ControlModifier);
  EXPECT_EQ(room->canvas()->zoom(), view.zoom);
  EXPECT_NEAR(room->canvas()->view().middle.y(), view.middle.y(), 1);
}

TEST_F(Mapping, AMiddleClickClosesATab) {
  make("Ferry Street");
  auto* tab = room->tabs()->tab(yard().id);
  hand.click(tab, QPointF(tab->rect().center()), Qt::MiddleButton);
  EXPECT_EQ(session().desk().openMaps.size(), 1u);
  EXPECT_EQ(here(), "Ferry Street");
  EXPECT_THAT(names(), ElementsAre("Depot Yard", "Ferry Street"));
  EXPECT_FALSE(room->actions()->action(ActionId::closeMap)->isEnabled());
}

}  // namespace uq::test
