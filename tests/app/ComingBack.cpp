// What was painted and not saved comes back after a crash: gone on with by one press, or left for what was saved. Its
// picture "came-back" is one of docs/screenshots, as those of Portraits.
#include <QCheckBox>
#include <QLabel>
#include <QPushButton>

#include "app/CrashStory.h"
#include "core/ForwardingDisk.h"
#include "app/actions/SaveByItself.h"
#include "app/start/RecentCard.h"

namespace uq::test {

class ComingBack : public CrashStory {
 protected:
  void paint(CellPos from, CellPos to) {
    session().verbs().layers.choose(yard().layerNamed("Paving")->id);
    session().verbs().hand.take(Block::of(Cell({kChalkSlot, 10}, {})));
    session().verbs().layers.choose(yard().layerNamed("Paving")->id);
    hand.drag(room->canvas(), {onMap(from), onMap(to)});
  }
};

TEST_F(ComingBack, TheStartPageSaysWhatIsNotSaved) {
  const QString at = QString::fromStdString(folder());
  paint({20, 20}, {26, 20});
  waitForKeeping();
  crash();
  EXPECT_TRUE(RecentCard({at, QStringLiteral("Copperline"), QDateTime::currentDateTime(), {}}, nullptr)
                  .accessibleDescription()
                  .startsWith(QStringLiteral("1 step not saved, kept until ")));
  // Saved, it says when it was open.
  openDemo();
  hand.key(Qt::Key_Return);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  room.reset();
  room = std::make_unique<Workroom>();
  room->resize(1280, 800);
  hand.show(*room);
  auto* card = room->findChild<RecentCard*>();
  ASSERT_NE(card, nullptr);
  EXPECT_EQ(card->accessibleDescription(), QLocale().toString(QDate::currentDate(), QLocale::LongFormat));
}

TEST_F(ComingBack, OnePressGoesOnWithWhatWasNotSaved) {
  paint({20, 20}, {26, 20});
  paint({20, 22}, {26, 22});
  waitForKeeping();
  EXPECT_TRUE(session().beside().keeper->keptUntil());
  const Cell chalk({kChalkSlot, 10}, {});
  crash();
  openDemo();
  ASSERT_TRUE(strip()->isVisible());
  picture("came-back");
  EXPECT_THAT(room->findChild<QLabel*>(QStringLiteral("came-back-text"))->text().toStdString(),
              testing::HasSubstr("Copperline: 2 steps after the last save came back, until "));
  EXPECT_EQ(cellOn("Paving", {23, 20}), chalk);
  EXPECT_EQ(cellOn("Paving", {26, 22}), chalk);
  EXPECT_FALSE(session().isSaved());
  const int before = hand.actions();
  hand.key(Qt::Key_Return);
  EXPECT_EQ(hand.actions() - before, 1);
  EXPECT_FALSE(strip()->isVisible());
  EXPECT_TRUE(room->canvas()->hasFocus());
  // Saved, it is the quilt; and nothing is kept any more.
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved());
  waitForKeeping();
  EXPECT_FALSE(session().beside().keeper->keptUntil());
  close();
  openDemo();
  EXPECT_FALSE(strip()->isVisible());
  EXPECT_EQ(cellOn("Paving", {23, 20}), chalk);
}

TEST_F(ComingBack, TheWayBackGoesOnWhereItWas) {
  const Cell before = cellOn("Paving", {23, 20});
  const Cell below = cellOn("Paving", {23, 22});
  paint({20, 20}, {26, 20});
  waitForKeeping();
  paint({20, 22}, {26, 22});
  hand.key(Qt::Key_F2);
  hand.type(QStringLiteral("Setts"));
  hand.key(Qt::Key_Return);
  waitForKeeping();
  const std::size_t steps = session().undoLine().steps().size();
  const std::string last = session().undoLine().steps().back().name;
  crash();
  openDemo();
  hand.key(Qt::Key_Return);
  ASSERT_EQ(session().undoLine().steps().size(), steps);
  EXPECT_EQ(session().undoLine().steps().back().name, last);
  EXPECT_NE(yard().layerNamed("Setts"), nullptr);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_NE(yard().layerNamed("Paving"), nullptr);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(cellOn("Paving", {23, 22}), below);
  EXPECT_NE(cellOn("Paving", {23, 20}), before);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(cellOn("Paving", {23, 20}), before);
  EXPECT_TRUE(session().isSaved());
  hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_NE(cellOn("Paving", {23, 20}), before);
  EXPECT_FALSE(session().isSaved());
}

// Too far back, then the power went: forth again it goes.
TEST_F(ComingBack, WhatWasTakenBackIsLaidBackAgain) {
  paint({20, 20}, {26, 20});
  paint({20, 22}, {26, 22});
  paint({20, 24}, {26, 24});
  const Cell laid = cellOn("Paving", {23, 24});
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  waitForKeeping();
  crash();
  openDemo();
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().undoLine().steps().size(), 1u);
  hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(cellOn("Paving", {23, 22}), laid);
  EXPECT_NE(cellOn("Paving", {23, 24}), laid);
  hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(cellOn("Paving", {23, 24}), laid);
  EXPECT_EQ(session().undoLine().steps().size(), 3u);
}

TEST_F(ComingBack, ToSaveByItselfIsOfferedUntilItIsSo) {
  paint({20, 20}, {26, 20});
  waitForKeeping();
  crash();
  openDemo();
  auto* offer = strip()->findChild<QCheckBox*>(QStringLiteral("came-back-by-itself"));
  ASSERT_TRUE(offer->isVisible());
  hand.click(offer, QPointF(10, offer->height() / 2.0));
  hand.click(strip()->findChild<QPushButton*>(QStringLiteral("came-back-go-on")));
  EXPECT_EQ(savesWhen(), SavesWhen::eachMinutes);
  waitForKeeping();
  crash();
  openDemo();
  ASSERT_TRUE(strip()->isVisible());
  EXPECT_FALSE(strip()->findChild<QWidget*>(QStringLiteral("came-back-by-itself"))->isVisible());
  toggleSaves(SavesWhen::never);
}

TEST_F(ComingBack, TheFootSaysWhatIsSavedAndWhatIsKept) {
  auto* foot = room->findChild<QLabel*>(QStringLiteral("foot-kept"));
  EXPECT_EQ(foot->text(), QStringLiteral("saved"));
  const int wide = foot->width();
  paint({20, 20}, {26, 20});
  EXPECT_EQ(foot->text(), QStringLiteral("not saved"));
  waitForKeeping();
  EXPECT_THAT(foot->text().toStdString(), testing::MatchesRegex("kept [0-9][0-9]:[0-9][0-9], not saved"));
  EXPECT_EQ(foot->width(), wide) << "nothing jumps";
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_EQ(foot->text(), QStringLiteral("saved"));
}

TEST_F(ComingBack, AsDoesThatOfAQuiltInAFolderThatMayNotBeWritten) {
  // Nothing may be written in the quilt's folder; the person's own state is elsewhere.
  class ShutDisk : public ForwardingDisk {
   public:
    explicit ShutDisk(std::string folder) : folder_(std::move(folder)) {}
    Result<std::unique_ptr<Lock>> lock(const std::string& path) override {
      if (path.starts_with(folder_)) return fail(Error::Cause::notPermitted, "nothing may be written here", path);
      return ForwardingDisk::lock(path);
    }

   private:
    std::string folder_;
  };
  room.reset();
  disk = std::make_shared<ShutDisk>(folder());
  openDemo();
  ASSERT_TRUE(session().store().readOnly());
  EXPECT_EQ(room->findChild<QLabel*>(QStringLiteral("foot-kept"))->text(), QStringLiteral("read only"));
  paint({20, 20}, {26, 20});
  waitForKeeping();
  crash();
  openDemo();
  ASSERT_TRUE(strip()->isVisible());
  EXPECT_EQ(cellOn("Paving", {23, 20}), Cell({kChalkSlot, 10}, {}));
}

TEST_F(ComingBack, WhatWasSavedIsLookedAtAndTheRestLiesAside) {
  const Cell before = cellOn("Paving", {23, 20});
  paint({20, 20}, {26, 20});
  waitForKeeping();
  crash();
  openDemo();
  ASSERT_TRUE(strip()->isVisible());
  hand.click(strip()->findChild<QPushButton*>(QStringLiteral("came-back-saved")));
  awaitWork();
  ASSERT_TRUE(room->session());
  EXPECT_FALSE(strip()->isVisible());
  EXPECT_EQ(cellOn("Paving", {23, 20}), before);
  EXPECT_TRUE(session().isSaved());
  EXPECT_FALSE(session().store().readOnly()) << "its lock went with the session before";
  const QStringList kept = QDir(keptFolder()).entryList(QDir::Dirs | QDir::NoDotAndDotDot);
  ASSERT_EQ(kept.size(), 1);
  EXPECT_TRUE(kept.front().endsWith(QStringLiteral(".aside-1")));
}

TEST_F(ComingBack, WhatAnotherProgramSavedSinceIsNeverCovered) {
  paint({20, 20}, {26, 20});
  waitForKeeping();
  crash();
  {
    auto opened = QuiltStore::open(realDisk(), folder(), QuiltStore::Access::write);
    ASSERT_TRUE(opened);
    const Map& map = *opened->quilt.mapNamed("Depot Yard");
    LayerCells cells = *map.layerNamed("Paving");
    cells.lay(CellPos{1, 1}, Cell({kChalkSlot, 3}, {}), 0);
    ASSERT_TRUE(opened->store.save(opened->quilt.with({map.id, map.layerNamed("Paving")->id}, cells)));
  }
  openDemo();
  EXPECT_FALSE(strip()->isVisible());
  EXPECT_EQ(cellOn("Paving", {1, 1}), Cell({kChalkSlot, 3}, {}));
  EXPECT_NE(cellOn("Paving", {23, 20}), Cell({kChalkSlot, 10}, {}));
  EXPECT_THAT(room->notices()->text().toStdString(), testing::HasSubstr("what was kept lies aside"));
}

TEST_F(ComingBack, WhoLeavesWithoutSavingMeantIt) {
  paint({20, 20}, {26, 20});
  waitForKeeping();
  hand.inDialog(QStringLiteral("unsaved-question"), [this](QWidget& dialog) {
    hand.click(dialog.findChild<QPushButton*>(QStringLiteral("leave-unsaved")));
  });
  close();
  EXPECT_FALSE(room);
  openDemo();
  EXPECT_FALSE(strip()->isVisible());
  EXPECT_TRUE(session().isSaved());
}

TEST_F(ComingBack, WhoOnlyLooksOnLeavesWhatIsKeptAlone) {
  paint({20, 20}, {26, 20});
  waitForKeeping();
  const std::string place = WorkKeeper::placeFor(folder());
  {
    // A second window, which does not get the lock.
    Workroom other;
    other.openQuilt(QString::fromStdString(folder()));
    awaitWork(other);
    ASSERT_TRUE(other.session());
    EXPECT_TRUE(other.session()->store().readOnly());
    EXPECT_FALSE(other.session()->beside().cameBack);
  }
  const auto kept = keptAt(*realDisk(), place);
  ASSERT_TRUE(kept);
  EXPECT_TRUE(*kept) << "it is still there for the first one";
}

TEST_F(ComingBack, SavedByItselfNothingIsKeptAndNothingIsAsked) {
  paint({20, 20}, {26, 20});
  auto* saves = room->findChild<SaveByItself*>();
  ASSERT_TRUE(saves);
  Q_EMIT saves->due();
  awaitWork();
  EXPECT_TRUE(session().isSaved());
  // Not within a stroke, and not while both states are looked at.
  hand.press(room->canvas(), onMap({30, 20}));
  Q_EMIT saves->due();
  EXPECT_FALSE(room->work().isRunning());
  hand.release(room->canvas(), onMap({31, 20}));
  EXPECT_FALSE(session().isSaved());
  waitForKeeping();
  crash();
  openDemo();
  ASSERT_TRUE(strip()->isVisible());
  Q_EMIT room->findChild<SaveByItself*>()->due();
  EXPECT_FALSE(room->work().isRunning());
}

}  // namespace uq::test
