// What comes back from other threads after something else was done: it never undoes that, and Cancel is seen.
#include <QFileDialog>
#include <QImage>
#include <QSignalSpy>
#include <QToolButton>
#include <filesystem>

#include "app/HeldDisk.h"
#include "app/PaintingStory.h"
#include "app/canvas/Lens.h"
#include "app/workroom/KeptState.h"
#include "app/workroom/SheetWork.h"

namespace uq::test {

class Meanwhile : public PaintingHand {
 protected:
  Meanwhile() { disk = held; }

  const Sheet& street() {
    for (const auto& sheet : session().quilt().sheets()) {
      if (sheet->name == "street") return sheet.read();
    }
    static const Sheet none;
    return none;
  }
  QString file(const char* name) { return files_.filePath(QLatin1String(name)); }
  // The street's picture with a stroke across.
  QString redrawn(const QString& path) {
    QImage picture(QString::fromStdString(folder() + "/sheets/street.png"));
    for (int x = 0; x < picture.width(); ++x) picture.setPixel(x, 5, 0xff00ff00u);
    EXPECT_TRUE(picture.save(path, "PNG"));
    return path;
  }
  bool shows(QRgb colour) { return session().painter().pictures().picture(street()).pixel(3, 5) == colour; }

  std::shared_ptr<HeldDisk> held = std::make_shared<HeldDisk>();
  QTemporaryDir files_;
};

TEST_F(Meanwhile, ACutMadeDuringALookKeepsItsPlaces) {
  ASSERT_TRUE(waitFor([&] { return session().sheets().hasLooked(); }));
  held->hold("street.png");
  redrawn(QString::fromStdString(folder()) + QStringLiteral("/sheets/street.png"));
  session().sheets().lookAround();
  settle();
  SheetCut cut = street().cut;
  cut.cell = {64, 64};
  ASSERT_TRUE(session().sheets().cut(street().id, cut));
  const auto places = street().places;
  held->letGo();
  ASSERT_TRUE(waitFor([&] { return shows(0xff00ff00u); }));
  EXPECT_EQ(street().cut, cut);
  EXPECT_EQ(street().places, places);
}

TEST_F(Meanwhile, ASheetTakenAwayWhileItsPictureIsReadStaysAway) {
  const Id id = street().id;
  const QString found = redrawn(file("found.png"));
  held->hold("found.png");
  session().sheets().findPicture(room->work(), id, found, [](const Errors&) {});
  session().sheets().remove(id);
  held->letGo();
  awaitWork();
  settle();
  EXPECT_FALSE(session().quilt().sheet(id));
}

TEST_F(Meanwhile, WhatWasSaidOfASheetWhileItsPictureWasReadStaysSaid) {
  const QString found = redrawn(file("found.png"));
  held->hold("found.png");
  session().sheets().findPicture(room->work(), street().id, found, [](const Errors&) {});
  session().sheets().change(QStringLiteral("Facts of %1"), street().id, [](Sheet& sheet) { sheet.origin.by = "Mira"; });
  held->letGo();
  awaitWork();
  ASSERT_TRUE(waitFor([&] { return shows(0xff00ff00u); }));
  EXPECT_EQ(street().origin.by, "Mira");
}

TEST_F(Meanwhile, CancelIsSeenByWhatCameOfIt) {
  LongWork work;
  std::optional<bool> cancelled;
  work.start<int>(
      LongWork::Kind::look, QStringLiteral("Looking"),
      [](Progress& progress) {
        while (!progress.isCancelled()) std::this_thread::yield();
        return 7;
      },
      [&](int) { cancelled = work.isCancelled(); });
  work.cancel();
  QSignalSpy ended(&work, &LongWork::ended);
  ASSERT_TRUE(ended.wait());
  EXPECT_EQ(cancelled, true);
  work.start<int>(
      LongWork::Kind::look, QStringLiteral("Looking"), [](Progress&) { return 7; },
      [&](int) { cancelled = work.isCancelled(); });
  QSignalSpy again(&work, &LongWork::ended);
  ASSERT_TRUE(again.wait());
  EXPECT_EQ(cancelled, false);
}

TEST_F(Meanwhile, TheLensGoesWithItsQuilt) {
  const std::string other = folder() + "-other";
  std::filesystem::copy(folder(), other, std::filesystem::copy_options::recursive);
  canvas()->setFocus();
  hand.moveTo(canvas(), onMap({4, 4}));
  hand.key(Qt::Key_V);
  ASSERT_TRUE(canvas()->lens());
  canvas()->lens()->hide();
  room->openQuilt(QString::fromStdString(other));
  awaitWork();
  settle();
  EXPECT_EQ(session().store().folder(), other);
  EXPECT_FALSE(canvas()->lens());
  canvas()->setFocus();
  hand.moveTo(canvas(), onMap({6, 6}));
  hand.key(Qt::Key_V);
  EXPECT_TRUE(canvas()->lens() && canvas()->lens()->isVisible());
}

// After Save as, the new folder is the one that is watched.
TEST_F(Meanwhile, PicturesOfTheNewFolderAreFollowedAfterSaveAs) {
  ASSERT_TRUE(waitFor([&] { return session().sheets().hasLooked(); }));
  const std::string other = folder() + "-new";
  session().saveAs(room->work(), other, [](const Result<QuiltStore::Saved>& saved) { EXPECT_TRUE(saved); });
  awaitWork();
  ASSERT_TRUE(waitFor([&] { return session().sheets().hasLooked(); }));
  settle();
  redrawn(QString::fromStdString(other) + QStringLiteral("/sheets/street.png"));
  EXPECT_TRUE(waitFor([&] { return shows(0xff00ff00u); }));
  EXPECT_FALSE(shows(0));
}

// A look at the old folder that is still under way says nothing of the new one.
TEST_F(Meanwhile, ALookAtTheOldFolderChangesNothingAfterSaveAs) {
  ASSERT_TRUE(waitFor([&] { return session().sheets().hasLooked(); }));
  const QString old = QString::fromStdString(folder()) + QStringLiteral("/sheets/street.png");
  held->hold(old.toStdString());
  redrawn(old);
  session().sheets().lookAround();
  settle();
  ASSERT_TRUE(waitFor([&] { return !session().sheets().hasLooked(); }));
  session().saveAs(room->work(), folder() + "-new", [](const Result<QuiltStore::Saved>& saved) { EXPECT_TRUE(saved); });
  awaitWork();
  held->letGo();
  ASSERT_TRUE(waitFor([&] { return session().sheets().hasLooked(); }));
  EXPECT_FALSE(shows(0xff00ff00u));
  EXPECT_TRUE(session().isSaved());
}

// A quilt from elsewhere names a picture of this machine: it is read when somebody here chooses so, and not before.
TEST_F(Meanwhile, AnOriginalIsFollowedOnlyWhereThatWasChosen) {
  const QString original = redrawn(file("original.png"));
  session().sheets().change(QStringLiteral("Facts of %1"), street().id,
                            [&](Sheet& sheet) { sheet.follows = original.toStdString(); });
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  close();
  openDemo();
  ASSERT_TRUE(waitFor([&] { return session().sheets().hasLooked(); }));
  settle();
  EXPECT_FALSE(session().sheets().followsOriginal(street()));
  EXPECT_FALSE(shows(0xff00ff00u));
  session().sheets().followOriginal(street().id, true);
  EXPECT_TRUE(waitFor([&] { return shows(0xff00ff00u); }));
  EXPECT_TRUE(session().sheets().followsOriginal(street()));
}

// More cells than a text of them can hold go from the map to the hand all the same.
TEST_F(Meanwhile, ALargeCopyIsPasted) {
  MapPlan plan;
  plan.name = "Large";
  plan.width = plan.height = 500;
  session().verbs().maps.add(plan);
  settle();
  session().verbs().hand.take(Block::of(Cell(tile("street", 24), {})));
  session().verbs().selection.selectAll();
  session().verbs().selection.fill();
  hand.key(Qt::Key_C, Qt::ControlModifier);
  hand.key(Qt::Key_V, Qt::ControlModifier);
  EXPECT_EQ(session().desk().inHand.parts().size(), 250'000u);
  EXPECT_TRUE(session().verbs().hand.holdsPaste());
}

}  // namespace uq::test
