// Hostile quilts, opened, painted on and saved by the window: what lies outside stays as it is.
#include <filesystem>

#include "app/PaintingStory.h"
#include "core/HostileQuilts.h"

namespace uq::test {

class OpeningHostile : public PaintingHand {
 protected:
  OpeningHostile() { std::filesystem::create_directories(scratch_); }
  ~OpeningHostile() override { std::filesystem::remove_all(scratch_); }

  std::string scratch_ = std::filesystem::temp_directory_path() / ("uq-opening-" + std::to_string(::getpid()));
};

TEST_F(OpeningHostile, NothingOutsideChangesAndTheWindowStays) {
  const HostileQuilts all = makeHostileQuilts(scratch_);
  const auto treasures = treasuresOf(all);
  int opened = 0;
  for (const std::string& folder : all.folders) {
    SCOPED_TRACE(folder);
    // What is left unsaved is given up, so that the next one can be opened.
    if (room->session() && !session().isSaved()) {
      hand.inDialog(QStringLiteral("unsaved-question"), [this](QWidget& dialog) {
        hand.click(dialog.findChild<QWidget*>(QStringLiteral("leave-unsaved")));
      });
    }
    room->openQuilt(QString::fromStdString(folder));
    awaitWork();
    settle();
    ASSERT_TRUE(room->session());
    if (session().store().folder() != folder) {
      EXPECT_FALSE(room->notices()->text().isEmpty()) << "refused in words";
      continue;
    }
    ++opened;
    (void)room->grab();
    if (session().map()) {
      const auto& sheets = session().quilt().sheets();
      const SheetSlot slot = sheets.empty() ? kChalkSlot : *session().quilt().slots().find(sheets.front()->id);
      session().verbs().hand.take(Block::of(Cell({slot, 1}, {})));
      hand.key(Qt::Key_F);
      hand.click(canvas(), canvas()->rect().center());
      hand.key(Qt::Key_4);
      hand.moveTo(canvas(), canvas()->rect().center() + QPoint(5, 5));
      (void)canvas()->grab();
      hand.key(Qt::Key_1);
      if (!session().quilt().stamps().empty()) session().verbs().hand.take(session().quilt().stamps().front()->held);
      hand.moveTo(canvas(), canvas()->rect().center() + QPoint(9, 9));
      (void)room->grab();
      hand.key(Qt::Key_A, Qt::ControlModifier);
    }
    hand.key(Qt::Key_S, Qt::ControlModifier);
    awaitWork();
    settle();
  }
  EXPECT_GT(opened, 20);
  EXPECT_EQ(treasuresOf(all), treasures);
}

}  // namespace uq::test
