// Opening and saving that takes a while: painting goes on, and everything can be cancelled.
#include <QSignalSpy>
#include <QToolButton>
#include <QWindow>

#include <filesystem>
#include <fstream>

#include "app/HeldDisk.h"
#include "app/Story.h"
#include "core/store/CellsText.h"

namespace uq::test {

using testing::HasSubstr;

class LongWorkStories : public Story {
 protected:
  LongWorkStories() { disk = held; }

  void paint(CellPos at) {
    hand.click(room->table(), onTable("street", 24));
    hand.click(room->canvas(), onMap(at));
  }
  std::string paving() {
    std::ifstream stream(folder() + "/maps/depot-yard/paving.cells", std::ios::binary);
    return {std::istreambuf_iterator<char>(stream), {}};
  }
  Cell pavedOnDisk(CellPos at) {
    Quilt quilt = session().quilt();
    return readCells(paving(), quilt, 4, "paving.cells").cells.at(at);
  }
  // Clicks Cancel on the strip, which shows itself once the work has taken a while.
  void cancel() {
    auto* button = room->findChild<QToolButton*>(QStringLiteral("progress-cancel"));
    QSignalSpy shown(room->findChild<ProgressStrip*>(), &ProgressStrip::shown);
    ASSERT_TRUE(button->isVisible() || shown.wait());
    picture("progress");
    hand.click(button);
  }

  std::shared_ptr<HeldDisk> held = std::make_shared<HeldDisk>();
};

TEST_F(LongWorkStories, PaintingGoesOnWhileTheQuiltIsSaved) {
  openDemo();
  paint({20, 20});
  held->hold();
  hand.key(Qt::Key_S, Qt::ControlModifier);
  ASSERT_TRUE(room->work().isRunning());
  EXPECT_EQ(room->actions()->action(ActionId::saveQuilt)->toolTip(),
            QStringLiteral("A quilt is still being opened or saved"));
  paint({21, 20});
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  paint({22, 20});
  held->letGo();
  awaitWork();
  const Cell laid(tile("street", 24), {});
  EXPECT_EQ(pavedOnDisk({20, 20}), laid);
  EXPECT_NE(pavedOnDisk({22, 20}), laid) << "laid after the save began";
  EXPECT_EQ(cellOn("Paving", {22, 20}), laid);
  EXPECT_FALSE(session().isSaved());
  EXPECT_TRUE(room->isWindowModified());
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_EQ(pavedOnDisk({22, 20}), laid);
  EXPECT_TRUE(session().isSaved());
}

TEST_F(LongWorkStories, CancellingASaveLeavesTheOldQuilt) {
  openDemo();
  const std::string before = paving();
  paint({20, 20});
  held->hold();
  hand.key(Qt::Key_S, Qt::ControlModifier);
  cancel();
  held->letGo();
  awaitWork();
  EXPECT_THAT(room->notices()->text().toStdString(), HasSubstr("saving was cancelled"));
  EXPECT_THAT(room->notices()->text().toStdString(), HasSubstr("your work is still in the window"));
  EXPECT_EQ(paving(), before);
  EXPECT_FALSE(session().isSaved());
  EXPECT_FALSE(room->findChild<QWidget*>(QStringLiteral("progress"))->isVisible());
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved());
}

TEST_F(LongWorkStories, CancellingAnOpeningKeepsThePresentQuilt) {
  const std::string other = folder() + "-other";
  std::filesystem::copy(folder(), other, std::filesystem::copy_options::recursive);
  openDemo();
  paint({20, 20});
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  held->hold();
  room->openQuilt(QString::fromStdString(other));
  cancel();
  held->letGo();
  awaitWork();
  EXPECT_EQ(session().store().folder(), folder());
  EXPECT_EQ(room->notices()->text(), QString());
  paint({21, 20});
  EXPECT_FALSE(session().isSaved());
}

TEST_F(LongWorkStories, ClosingWhileSavingWaitsForTheSave) {
  openDemo();
  paint({20, 20});
  held->hold();
  hand.key(Qt::Key_S, Qt::ControlModifier);
  EXPECT_FALSE(room->close());
  QSignalSpy closed(room->windowHandle(), &QWindow::visibleChanged);
  held->letGo();
  ASSERT_TRUE(closed.wait());
  EXPECT_FALSE(room->isVisible());
  EXPECT_EQ(pavedOnDisk({20, 20}), Cell(tile("street", 24), {}));
}

}  // namespace uq::test
