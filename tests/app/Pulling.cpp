// Another program changes the quilt's files while it is open: taken in by itself, asked about, or waited for.
#include <QDir>
#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QSignalSpy>

#include "app/Story.h"
#include "app/workroom/FolderWatch.h"

namespace uq::test {

class Pulling : public Story {
 protected:
  void SetUp() override { openDemo(); }

  // What a colleague saved in a clone of the quilt arrives in its folder.
  void pull(const std::function<Quilt(const Quilt&)>& change) {
    const QString clone = clone_.filePath(QStringLiteral("clone"));
    QDir(clone).removeRecursively();
    copyAll(QString::fromStdString(folder()), clone);
    auto opened = QuiltStore::open(realDisk(), clone.toStdString(), QuiltStore::Access::write);
    ASSERT_TRUE(opened);
    const auto saved = opened->store.save(change(opened->quilt));
    ASSERT_TRUE(saved);
    for (const std::string& path : saved->written) {
      const std::string bytes = *realDisk()->read(clone.toStdString() + "/" + path, 1 << 28);
      const std::string to = folder() + "/" + path;
      QDir().mkpath(QFileInfo(QString::fromStdString(to)).absolutePath());
      ASSERT_TRUE(writeWhole(*realDisk(), to, bytes));
    }
  }
  static Quilt painted(const Quilt& quilt, const char* layer, CellPos at, std::uint32_t chalk) {
    const Map& yard = *quilt.mapNamed("Depot Yard");
    LayerCells cells = *yard.layerNamed(layer);
    cells.lay(at, Cell({kChalkSlot, chalk}, {}), 0);
    return quilt.with({yard.id, yard.layerNamed(layer)->id}, std::move(cells));
  }
  void paintHere(const char* layer, CellPos at, std::uint32_t chalk) {
    session().quiltStep(QStringLiteral("Brush on %1").arg(QLatin1String(layer)), painted(session().quilt(), layer, at, chalk));
  }
  bool waitForTold(const std::function<void()>& what) {
    QSignalSpy told(session().beside().watch, &FolderWatch::told);
    what();
    return waitFor([&] { return told.count() > 0; });
  }
  QWidget* card() { return room->findChild<QWidget*>(QStringLiteral("join-card")); }

 private:
  static void copyAll(const QString& from, const QString& to) {
    QDir().mkpath(to);
    for (const QFileInfo& one : QDir(from).entryInfoList(QDir::AllEntries | QDir::NoDotAndDotDot)) {
      const QString there = to + QLatin1Char('/') + one.fileName();
      if (one.isDir()) copyAll(one.filePath(), there);
      if (one.isFile()) QFile::copy(one.filePath(), there);
    }
  }
  QTemporaryDir clone_;
};

TEST_F(Pulling, WhatAColleagueChangedComesInByItselfWhileOnePaints) {
  paintHere("Awnings", {20, 20}, 3);
  const int before = hand.actions();
  ASSERT_TRUE(waitForTold([&] { pull([](const Quilt& quilt) { return painted(quilt, "Paving", {1, 1}, 5); }); }));
  EXPECT_EQ(hand.actions(), before) << "without a press";
  EXPECT_EQ(cellOn("Paving", {1, 1}), Cell({kChalkSlot, 5}, {}));
  EXPECT_EQ(cellOn("Awnings", {20, 20}), Cell({kChalkSlot, 3}, {})) << "and what was done here stays";
  EXPECT_FALSE(card()->isVisible());
  EXPECT_EQ(session().undoLine().steps().back().name, "Taken in: Depot Yard");
  // Saving goes on.
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved());
  EXPECT_FALSE(room->notices()->isVisible()) << room->notices()->text().toStdString();
  const auto opened = QuiltStore::open(realDisk(), folder(), QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  const Map& yard = *opened->quilt.mapNamed("Depot Yard");
  EXPECT_EQ(yard.layerNamed("Paving")->cells.at({1, 1}), Cell({kChalkSlot, 5}, {}));
  EXPECT_EQ(yard.layerNamed("Awnings")->cells.at({20, 20}), Cell({kChalkSlot, 3}, {}));
}

TEST_F(Pulling, ALayerThatBothChangedIsAskedAboutByPictures) {
  paintHere("Paving", {20, 20}, 3);
  QSignalSpy asks(session().beside().watch, &FolderWatch::asks);
  pull([](const Quilt& quilt) { return painted(quilt, "Paving", {24, 20}, 5); });
  ASSERT_TRUE(waitFor([&] { return asks.count() > 0; }));
  ASSERT_TRUE(card()->isVisible());
  picture("changed-on-both-sides");
  EXPECT_THAT(room->findChild<QLabel*>(QStringLiteral("join-text"))->text().toStdString(),
              testing::HasSubstr("Paving on Depot Yard was changed here, and by another program"));
  const int before = hand.actions();
  hand.click(card()->findChild<QPushButton*>(QStringLiteral("join-both")));
  EXPECT_LE(hand.actions() - before, 2);
  EXPECT_FALSE(card()->isVisible());
  EXPECT_EQ(cellOn("Paving", {20, 20}), Cell({kChalkSlot, 3}, {}));
  EXPECT_EQ(cellOn("Paving (theirs)", {24, 20}), Cell({kChalkSlot, 5}, {}));
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved());
  EXPECT_FALSE(room->notices()->isVisible()) << room->notices()->text().toStdString();
}

TEST_F(Pulling, WhatIsHalfWrittenIsWaitedFor) {
  const std::string file = folder() + "/maps/depot-yard/map.json";
  const std::string whole = *realDisk()->read(file, 1 << 24);
  const Quilt before = session().quilt();
  ASSERT_TRUE(waitForTold([&] {
    ASSERT_TRUE(writeWhole(*realDisk(), file, "<<<<<<< ours\n" + whole.substr(0, whole.size() / 2)));
  }));
  EXPECT_EQ(session().quilt(), before) << "nothing is taken from a broken file";
  std::string other = whole;
  const auto at = other.find("\"Awnings\"");
  ASSERT_NE(at, std::string::npos);
  other.replace(at, 9, "\"Canopies\"");
  ASSERT_TRUE(waitForTold([&] { ASSERT_TRUE(writeWhole(*realDisk(), file, other)); }));
  EXPECT_TRUE(yard().layerNamed("Canopies"));
  EXPECT_TRUE(session().isSaved()) << "as it is in the folder";
}

}  // namespace uq::test
