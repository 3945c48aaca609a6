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

// A quilt of which one map takes a while to read, opened as far as its other one.
class OpeningEarly : public LongWorkStories {
 protected:
  OpeningEarly() {
    auto opened = QuiltStore::open(realDisk(), folder(), QuiltStore::Access::write);
    EXPECT_TRUE(opened);
    Map wide = *opened->quilt.mapNamed("Depot Yard");
    IdSource ids = IdSource::fromSystem();
    wide.id = ids.next();
    wide.name = "Wide Yard";
    wide.folder = "wide-yard";
    wide.bounds = {0, 0, kWide, kWide};
    wide.folders.clear();
    Layer layer = wide.layers[0].read();
    layer.id = ids.next();
    layer.folder = {};
    const SheetSlot street = *opened->quilt.slots().find(sheetNamed(opened->quilt, "street"));
    for (int y = 0; y < kWide; ++y) {
      for (int x = 0; x < kWide; ++x) {
        layer.cells.set({x, y}, Cell({street, static_cast<std::uint32_t>((x * 7 + y * 13) % 23)}, {}));
      }
    }
    cells_ = "wide-yard/" + layer.file + ".cells";
    wide.layers = {Shared(std::move(layer))};
    EXPECT_TRUE(opened->store.save(opened->quilt.with(std::move(wide))));
  }
  static Id sheetNamed(const Quilt& quilt, std::string_view file) {
    for (const auto& sheet : quilt.sheets()) {
      if (sheet->file == file) return sheet->id;
    }
    return {};
  }
  // Until the first map shows.
  void openEarly(const std::string& path) {
    held->hold(cells_);
    QSignalSpy painted(room->canvas(), &MapCanvas::painted);
    const Session* before = room->session();
    room->openQuilt(QString::fromStdString(path));
    while (room->session() == before) ASSERT_TRUE(painted.wait(60'000));
    ASSERT_TRUE(session().isComing());
    settle();
  }
  const Map& wide() { return *session().quilt().mapNamed("Wide Yard"); }
  QToolButton* cancelButton() { return room->findChild<QToolButton*>(QStringLiteral("progress-cancel")); }

  static constexpr int kWide = 1400;
  std::string cells_;  // the file that takes a while
};

TEST_F(OpeningEarly, TheFirstMapIsPaintedOnWhileTheOthersAreRead) {
  openNothing();
  openEarly(folder());
  EXPECT_EQ(session().map()->name, "Depot Yard");
  EXPECT_TRUE(session().isSaved());
  paint({20, 20});
  paint({21, 20});
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  const Cell laid(tile("street", 24), {});
  EXPECT_EQ(cellOn("Paving", {20, 20}), laid);
  picture("opening-early");
  // What was painted is not given up by a slip of the hand.
  QSignalSpy shown(room->findChild<ProgressStrip*>(), &ProgressStrip::shown);
  ASSERT_TRUE(cancelButton()->isVisible() || shown.wait());
  EXPECT_FALSE(cancelButton()->isEnabled());
  // The other map says why it is empty, and takes nothing.
  hand.key(Qt::Key_PageDown, Qt::ControlModifier);
  ASSERT_EQ(session().map()->name, "Wide Yard");
  hand.click(room->canvas(), onMap({10, 10}));
  picture("still-read");
  EXPECT_THAT(room->canvas()->refusal().toStdString(), HasSubstr("still being read"));
  EXPECT_TRUE(wide().layers[0]->cells.empty());
  hand.key(Qt::Key_S, Qt::ControlModifier);
  EXPECT_FALSE(session().isSaved());

  held->letGo();
  awaitWork();
  EXPECT_FALSE(session().isComing());
  EXPECT_EQ(wide().layers[0]->cells.at({3, 5}).tile().number, (3u * 7 + 5 * 13) % 23);
  EXPECT_EQ(cellOn("Paving", {20, 20}), laid);
  EXPECT_FALSE(session().isSaved());
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved());
  EXPECT_EQ(pavedOnDisk({20, 20}), laid);
  EXPECT_GT(std::filesystem::file_size(folder() + "/maps/wide-yard/" + wide().layers[0]->file + ".cells"), 4u << 20);
}

TEST_F(OpeningEarly, AStrokeUnderTheHandEndsBeforeTheOthersArrive) {
  openNothing();
  openEarly(folder());
  hand.click(room->table(), onTable("street", 24));
  hand.press(room->canvas(), onMap({20, 20}));
  held->letGo();
  awaitWork();
  EXPECT_TRUE(wide().layers[0]->cells.empty());
  hand.moveTo(room->canvas(), onMap({24, 20}));
  hand.release(room->canvas(), onMap({24, 20}));
  settle();
  EXPECT_FALSE(wide().layers[0]->cells.empty());
  EXPECT_EQ(cellOn("Paving", {24, 20}), Cell(tile("street", 24), {}));
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(session().isSaved());
}

TEST_F(OpeningEarly, CancellingGoesBackToWhatWasOpen) {
  const std::string other = folder() + "-other";
  std::filesystem::copy(folder(), other, std::filesystem::copy_options::recursive);
  openDemo();
  paint({20, 20});
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  openEarly(other);
  cancel();
  EXPECT_EQ(session().folder(), folder());
  held->letGo();
  awaitWork();
  EXPECT_EQ(session().folder(), folder());
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_NE(cellOn("Paving", {20, 20}), Cell(tile("street", 24), {})) << "with the steps that were made on it";
}

TEST_F(OpeningEarly, ClosingWhatIsNotChangedStopsTheReading) {
  openNothing();
  openEarly(folder());
  QSignalSpy closed(room->windowHandle(), &QWindow::visibleChanged);
  EXPECT_FALSE(room->close());
  held->letGo();
  ASSERT_TRUE(closed.wait());
  EXPECT_FALSE(room->isVisible());
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
