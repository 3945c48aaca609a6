// F1 finds help and actions by the words that people use; keys can be seen and changed.
#include <QApplication>
#include <QCheckBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTreeWidget>

#include "app/Story.h"
#include "app/actions/KeyBindings.h"
#include "app/help/HelpPages.h"
#include "app/help/KeysPage.h"

namespace uq::test {

class Helping : public Story {
 protected:
  void SetUp() override { openDemo(); }
  ~Helping() override { KeyBindings::shared().resetAll(); }

  FindBox* box() { return room->findChild<FindBox*>(QStringLiteral("find-box")); }
  QString found(int row = 0) {
    const auto* item = box()->findChild<QListWidget*>(QStringLiteral("find-list"))->item(row);
    return item ? item->text() : QString();
  }
  QString text() { return box()->findChild<QLabel*>(QStringLiteral("find-text"))->text(); }
  KeysPage* page() { return room->findChild<KeysPage*>(QStringLiteral("keys-page")); }
  QString said() { return page()->findChild<QLabel*>(QStringLiteral("keys-said"))->text(); }
  void askForKeys(const char* of, const char* find) {
    auto* field = page()->findChild<QLineEdit*>(QStringLiteral("keys-filter"));
    field->setFocus();
    field->selectAll();
    hand.type(QLatin1String(find));
    auto* tree = page()->findChild<QTreeWidget*>(QStringLiteral("keys-list"));
    EXPECT_EQ(tree->currentItem()->text(0).toStdString(), of);
    hand.click(page()->findChild<QPushButton*>(QStringLiteral("keys-change")));
  }
};

TEST_F(Helping, AnActionIsFoundByAnotherWordAndDone) {
  hand.key(Qt::Key_F1);
  hand.type(QStringLiteral("minimap"));
  picture("find-box");
  EXPECT_EQ(found(), QStringLiteral("The overview"));
  auto* field = box()->findChild<QLineEdit*>(QStringLiteral("find-field"));
  field->selectAll();
  hand.type(QStringLiteral("dim curr"));
  EXPECT_EQ(found(), QStringLiteral("Fade the other layers  (Z)"));
  EXPECT_FALSE(session().desk().fadesOthers);
  hand.key(Qt::Key_Return);
  settle();
  EXPECT_FALSE(box()->isVisible());
  EXPECT_TRUE(session().desk().fadesOthers);
  report("finding an action by another word and doing it, twice");
}

TEST_F(Helping, TheWordsThatPeopleUseLeadToAPage) {
  const std::pair<const char*, const char*> words[] = {{"collision", "Solid, open, overhead"},
                                                       {"walkable", "Solid, open, overhead"},
                                                       {"door", "Pins, doorways and loose threads"},
                                                       {"resize", "Making a map larger or smaller"},
                                                       {"terrain", "Ground that joins by itself"},
                                                       {"test", "Trying a map"},
                                                       {"export", "Getting maps into a game"},
                                                       {"game", "Getting maps into a game"},
                                                       {"lost work", "Work that was not saved"}};
  hand.key(Qt::Key_F1);
  auto* field = box()->findChild<QLineEdit*>(QStringLiteral("find-field"));
  auto* list = box()->findChild<QListWidget*>(QStringLiteral("find-list"));
  for (const auto& [word, title] : words) {
    field->selectAll();
    hand.type(QLatin1String(word));
    bool found = false;
    for (int row = 0; row < std::min(6, list->count()); ++row) {
      found = found || list->item(row)->text() == QLatin1String(title);
    }
    EXPECT_TRUE(found) << word << " leads to " << this->found().toStdString();
  }
}

TEST_F(Helping, TheListOfStepsClosesByEscAndByItsOwnKey) {
  hand.click(room->table(), onTable("street", 24));
  hand.click(room->canvas(), onMap({10, 10}));
  auto* list = room->findChild<QListWidget*>(QStringLiteral("step-list"));
  for (const bool byEsc : {true, false}) {
    Story::choose(ActionId::listSteps);
    ASSERT_TRUE(list->isVisible());
    EXPECT_TRUE(list->findChild<QLabel*>(QStringLiteral("step-list-hint"))->text().endsWith(QStringLiteral("closes this list")));
    byEsc ? hand.key(Qt::Key_Escape) : hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::AltModifier);
    EXPECT_FALSE(list->isVisible()) << byEsc;
  }
  EXPECT_FALSE(session().isSaved()) << "nothing was gone back to";
}

TEST_F(Helping, WhatCannotBeDoneSaysWhy) {
  hand.key(Qt::Key_F1);
  hand.type(QStringLiteral("paste"));
  int row = 0;
  while (!found(row).startsWith(QStringLiteral("Paste"))) ASSERT_FALSE(found(row++).isEmpty());
  box()->findChild<QListWidget*>(QStringLiteral("find-list"))->setCurrentRow(row);
  EXPECT_TRUE(text().contains(QStringLiteral("Not now: Nothing was copied yet"))) << text().toStdString();
  hand.key(Qt::Key_Return);
  EXPECT_TRUE(box()->isVisible());
}

TEST_F(Helping, ARefusalLeadsToItsPage) {
  toggleLock(session(), yard().layerNamed("Paving")->id);
  hand.click(room->table(), onTable("street", 24));
  hand.moveTo(room->canvas(), onMap({20, 20}));
  hand.key(Qt::Key_F1);
  EXPECT_EQ(found(), QStringLiteral("“… is locked”"));
  hand.key(Qt::Key_Escape);
  toggleLock(session(), yard().layerNamed("Paving")->id);
  Desk desk = session().desk();
  desk.select(CellSet({0, 0, 3, 3}));
  session().setDesk(desk);
  hand.moveTo(room->canvas(), onMap({21, 20}));
  EXPECT_EQ(room->canvas()->tagText(), QStringLiteral("Outside the selection"));
  hand.key(Qt::Key_F1);
  EXPECT_EQ(found(), QStringLiteral("“Outside the selection”"));
}

TEST_F(Helping, NonsenseFindsNothingInWords) {
  hand.key(Qt::Key_F1);
  hand.type(QStringLiteral("qzxwv"));
  EXPECT_EQ(found(), QString());
  EXPECT_TRUE(text().contains(QStringLiteral("Nothing was found")));
}

TEST_F(Helping, EveryPageAndEveryActionIsFoundByItsTitle) {
  hand.key(Qt::Key_F1);
  auto* field = box()->findChild<QLineEdit*>(QStringLiteral("find-field"));
  for (const HelpPage& page : helpPages()) {
    field->setText(helpText(page.title));
    EXPECT_EQ(found(), helpText(page.title)) << page.name;
    // And by each other word, however far down.
    for (const QString& word : helpText(page.words).split(QLatin1Char(' '))) {
      field->setText(word);
      bool there = false;
      for (int row = 0; !found(row).isEmpty(); ++row) there = there || found(row) == helpText(page.title);
      EXPECT_TRUE(there) << page.name << " by " << word.toStdString();
    }
  }
  for (const ActionRow& row : actionTable()) {
    field->setText(translated(row.text));
    EXPECT_TRUE(found().startsWith(translated(row.text))) << row.name << ": " << found().toStdString();
  }
}

TEST_F(Helping, KeysAreChangedAndWhatTheyWereForIsNamed) {
  hand.key(Qt::Key_F1, Qt::ControlModifier);
  ASSERT_TRUE(page()->isVisible());
  picture("keys-page");
  askForKeys("Grid lines", "grid lines");
  hand.key(Qt::Key_W);
  EXPECT_TRUE(said().contains(QStringLiteral("W is the key of “Next layer nearer”"))) << said().toStdString();
  picture("keys-conflict", page());
  hand.key(Qt::Key_W);
  EXPECT_EQ(KeyBindings::shared().text(ActionId::gridLines), QStringLiteral("W"));
  EXPECT_TRUE(KeyBindings::shared().keys(ActionId::nearerLayer).isEmpty());
  page()->close();
  room->activateWindow();
  room->canvas()->setFocus();
  const Desk before = session().desk();
  hand.key(Qt::Key_W);
  EXPECT_NE(session().desk().gridLines, before.gridLines);
  EXPECT_EQ(session().desk().activeAt(), before.activeAt());
  hand.key(Qt::Key_G);
  EXPECT_NE(session().desk().gridLines, before.gridLines) << "G means nothing now";
  EXPECT_TRUE(room->actions()->action(ActionId::gridLines)->text().endsWith(QStringLiteral("\tW")));
  KeyBindings::shared().resetAll();
  EXPECT_EQ(KeyBindings::shared().text(ActionId::nearerLayer), QStringLiteral("W"));
}

TEST_F(Helping, AKeyThatWouldActWhileTypingIsRefused) {
  hand.key(Qt::Key_F1, Qt::ControlModifier);
  askForKeys("Save", "save");
  hand.key(Qt::Key_P);
  EXPECT_TRUE(said().contains(QStringLiteral("would act while you type"))) << said().toStdString();
  hand.key(Qt::Key_P, Qt::ControlModifier | Qt::AltModifier);
  EXPECT_EQ(KeyBindings::shared().text(ActionId::saveQuilt), QStringLiteral("Ctrl+Alt+P"));
  askForKeys("Save", "save");
  hand.key(Qt::Key_Backspace);
  EXPECT_TRUE(KeyBindings::shared().keys(ActionId::saveQuilt).isEmpty());
}

TEST_F(Helping, SingleLettersCanBeSwitchedOff) {
  hand.key(Qt::Key_F1, Qt::ControlModifier);
  hand.click(page()->findChild<QCheckBox*>(QStringLiteral("keys-letters")), QPointF(10, 10));
  EXPECT_FALSE(KeyBindings::shared().lettersAct());
  page()->close();
  room->activateWindow();
  room->canvas()->setFocus();
  const Desk before = session().desk();
  hand.key(Qt::Key_G);
  hand.key(Qt::Key_2);
  EXPECT_TRUE(session().desk() == before);
  hand.key(Qt::Key_Escape);
  hand.key(Qt::Key_Escape);
  EXPECT_EQ(session().desk().tool, Tool::select) << "Esc is no letter";
}

TEST_F(Helping, TheButtonsCanBeExchanged) {
  KeyBindings::shared().setButtonsExchanged(true);
  hand.click(room->table(), onTable("street", 24));
  const Cell lid(tile("street", 24), {});
  hand.click(room->canvas(), onMap({20, 20}));
  EXPECT_EQ(cellOn("Paving", {20, 20}), lid);
  hand.click(room->canvas(), onMap({20, 20}), Qt::RightButton);
  EXPECT_TRUE(cellOn("Paving", {20, 20}).empty());
  hand.click(room->canvas(), onMap({21, 20}), Qt::LeftButton, Qt::ControlModifier);
  EXPECT_NE(session().desk().inHand.block, Block::of(lid));
  EXPECT_FALSE(cellOn("Paving", {21, 20}).empty());
}

}  // namespace uq::test
