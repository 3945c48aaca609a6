// The workroom by keyboard alone.
#include <QApplication>
#include <QLineEdit>
#include <QMenu>
#include <QMenuBar>
#include <QToolButton>

#include "app/Story.h"
#include "app/stack/LayerCard.h"
#include "app/table/TableView.h"

namespace uq::test {

class ByKeys : public Story {
 protected:
  void SetUp() override {
    openDemo();
    room->canvas()->setFocus();
  }
  QWidget* part(const char* name) { return room->findChild<QWidget*>(QLatin1String(name)); }
  static QWidget* focus() { return QApplication::focusWidget(); }
  bool in(const char* name) { return focus() && (focus() == part(name) || part(name)->isAncestorOf(focus())); }
};

TEST_F(ByKeys, OneKeyGoesRoundThePanesAndEscLeadsToTheMap) {
  hand.click(room->table(), onTable("street", 24));
  room->canvas()->setFocus();
  for (const char* pane : {"tape", "table", "in-hand", "stack-cards", "layer-facts", "overview", "tabs"}) {
    hand.key(Qt::Key_F6);
    EXPECT_TRUE(in(pane)) << pane << ", but " << (focus() ? focus()->objectName().toStdString() : "nobody");
    hand.key(Qt::Key_Escape);
    EXPECT_TRUE(room->canvas()->hasFocus()) << "from " << pane;
    // Back to where one was, by the other way round the same.
    hand.key(Qt::Key_F6, Qt::ShiftModifier);
    hand.key(Qt::Key_F6);
    EXPECT_TRUE(room->canvas()->hasFocus());
    for (const char* again : {"tape", "table", "in-hand", "stack-cards", "layer-facts", "overview", "tabs"}) {
      hand.key(Qt::Key_F6);
      if (std::string(again) == pane) break;
    }
    EXPECT_TRUE(in(pane));
  }
  hand.key(Qt::Key_F6);
  EXPECT_TRUE(room->canvas()->hasFocus()) << "round again";
  // A folded pane is passed over.
  hand.key(Qt::Key_T, Qt::ShiftModifier);
  hand.key(Qt::Key_F6);
  hand.key(Qt::Key_F6);
  EXPECT_TRUE(in("stack-cards"));
}

TEST_F(ByKeys, LettersAndDigitsWorkFromCardsTabsAndButtons) {
  for (int panes : {1, 4, 7}) {
    room->canvas()->setFocus();
    for (int i = 0; i < panes - (panes > 2 ? 1 : 0); ++i) hand.key(Qt::Key_F6);
    ASSERT_FALSE(room->canvas()->hasFocus());
    const bool grid = session().desk().gridLines;
    hand.key(Qt::Key_G);
    EXPECT_NE(session().desk().gridLines, grid) << panes;
    hand.key(panes == 1 ? Qt::Key_4 : Qt::Key_3);
    EXPECT_EQ(session().desk().tool, panes == 1 ? Tool::fill : Tool::box) << panes;
    EXPECT_TRUE(room->canvas()->hasFocus());
  }
  // In a field they are letters.
  part("table-search")->setFocus();
  hand.type(QStringLiteral("g4"));
  EXPECT_EQ(static_cast<QLineEdit*>(part("table-search"))->text(), QStringLiteral("g4"));
}

TEST_F(ByKeys, ArrowsGoFromCardToCardAndEnterChooses) {
  while (!in("stack-cards")) hand.key(Qt::Key_F6);
  room->stack()->card(yard().layers.back()->id)->setFocus();
  hand.key(Qt::Key_Down);
  hand.key(Qt::Key_Down);
  auto* card = qobject_cast<LayerCard*>(focus());
  ASSERT_NE(card, nullptr) << "the Walker is passed on the way, or stopped at";
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().desk().activeAt().layer, card->layer());
}

TEST_F(ByKeys, EnterOnATabGoesThere) {
  session().verbs().maps.duplicate();
  const Id copy = session().desk().map;
  session().verbs().maps.goTo(yard().id);
  settle();
  room->tabs()->tab(copy)->setFocus();
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().desk().map, copy);
}

TEST_F(ByKeys, CardsKeepTabInside) {
  hand.key(Qt::Key_M, Qt::ControlModifier);
  QWidget* card = part("new-map-card");
  ASSERT_TRUE(card->isVisible());
  QWidget* first = focus();
  int stops = 0;
  do {
    hand.key(Qt::Key_Tab);
    ++stops;
    ASSERT_TRUE(card->isAncestorOf(focus())) << "after " << stops;
    EXPECT_TRUE(focus()->isVisible() && !focus()->visibleRegion().isEmpty()) << focus()->objectName().toStdString();
  } while (focus() != first && stops < 60);
  EXPECT_GE(stops, 5);
  EXPECT_LT(stops, 60);
  hand.key(Qt::Key_Tab, Qt::ShiftModifier);
  EXPECT_TRUE(card->isAncestorOf(focus()));
}

TEST_F(ByKeys, MenuEntriesHaveLettersOfTheirOwn) {
  for (QAction* top : room->menuBar()->actions()) {
    QString taken;
    for (QAction* entry : top->menu()->actions()) {
      if (entry->isSeparator()) continue;
      const qsizetype at = entry->text().indexOf(QLatin1Char('&'));
      if (at < 0) continue;  // a menu may have more entries than letters
      const QChar letter = entry->text()[at + 1].toLower();
      EXPECT_FALSE(taken.contains(letter)) << entry->text().toStdString();
      taken += letter;
    }
    EXPECT_GE(taken.size(), std::min<qsizetype>(2, top->menu()->actions().size())) << top->text().toStdString();
  }
}

TEST_F(ByKeys, APressIntoANumberSelectsIt) {
  auto* field = static_cast<QLineEdit*>(part("layer-opacity"));
  hand.click(field);
  EXPECT_EQ(field->selectedText(), field->text());
  hand.type(QStringLiteral("40"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().quilt().layer(session().desk().activeAt())->opacity, 40);
}

TEST_F(ByKeys, AHeldToolSpringsBackWhenTheKeysGoElsewhere) {
  hand.click(room->table(), onTable("street", 24));
  hand.key(Qt::Key_1);
  hand.hold(Qt::Key_5);
  hand.drag(room->canvas(), {onMap({10, 10}), onMap({12, 12})});
  ASSERT_EQ(session().desk().tool, Tool::select);
  part("table-search")->setFocus();
  EXPECT_EQ(session().desk().tool, Tool::brush);
  hand.letGo(Qt::Key_5);
}

TEST_F(ByKeys, EscWithNothingToDropNamesSelectFirst) {
  hand.key(Qt::Key_1);
  hand.moveTo(room->canvas(), onMap({10, 10}));
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(session().desk().tool, Tool::brush);
  EXPECT_EQ(room->canvas()->refusal(), QStringLiteral("Nothing to drop; Esc again chooses Select"));
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(session().desk().tool, Tool::select);
}

}  // namespace uq::test
