// Opening, saving, leaving, and what happens when files are broken.
#include <sys/fsuid.h>
#include <unistd.h>
#include <QApplication>
#include <QDir>
#include <QDropEvent>
#include <QFileDialog>
#include <QLineEdit>
#include <QSignalSpy>
#include <QMimeData>
#include <QPushButton>

#include <filesystem>
#include <fstream>

#include "app/Story.h"
#include "app/workroom/FolderWatch.h"

namespace uq::test {

using testing::HasSubstr;

class Files : public Story {
 protected:
  void paintOne() {
    hand.click(room->table(), onTable("street", 24));
    hand.click(room->canvas(), onMap({20, 20}));
  }
  void answer(const char* button) {
    hand.inDialog(QStringLiteral("unsaved-question"), [this, button](QWidget& dialog) {
      picture("unsaved-question", &dialog);
      hand.click(dialog.findChild<QPushButton*>(QLatin1String(button)));
    });
  }
  void enterFolder(const QString& folder) {
    hand.inDialog(QStringLiteral("folder-dialog"), [this, folder](QWidget& dialog) {
      picture("folder-dialog", &dialog);
      auto* field = dialog.findChild<QLineEdit*>(QStringLiteral("fileNameEdit"));
      field->setFocus();
      field->selectAll();
      hand.type(folder);
      hand.key(Qt::Key_Return);
    });
  }
  // The demo's id of Depot Yard, as its file says.
  std::string yardId() {
    const std::string map = read("maps/depot-yard/map.json");
    const std::string field = "\"id\": \"";
    return map.substr(map.find(field) + field.size(), Id::kLength);
  }
  std::string notice() { return room->notices()->text().toStdString(); }
  std::string read(const std::string& file) {
    std::ifstream stream(folder() + "/" + file, std::ios::binary);
    return {std::istreambuf_iterator<char>(stream), {}};
  }
  void write(const std::string& file, const std::string& bytes) {
    std::ofstream(folder() + "/" + file, std::ios::binary) << bytes;
  }
};

TEST_F(Files, AnEmptyFolderThatIsThereWillDoToSaveIn) {
  openDemo();
  QTemporaryDir there;
  const QString empty = there.filePath(QStringLiteral("new home"));
  ASSERT_TRUE(QDir().mkpath(empty));
  enterFolder(empty);
  choose(ActionId::saveQuiltAs);
  awaitWork();
  EXPECT_EQ(session().folder(), empty.toStdString());
  EXPECT_TRUE(QFile::exists(empty + QStringLiteral("/quilt.json")));
}

TEST_F(Files, LeavingWithUnsavedChangesAsks) {
  openDemo();
  paintOne();
  answer("go-on");
  EXPECT_FALSE(room->close());
  answer("save-first");
  EXPECT_FALSE(room->close());  // not before it is saved
  awaitWork();
  EXPECT_FALSE(room->isVisible());
  room.reset();
  openDemo();
  EXPECT_EQ(cellOn("Paving", {20, 20}), Cell(tile("street", 24), {}));
  hand.click(room->canvas(), onMap({21, 20}), Qt::LeftButton, Qt::ControlModifier);
  answer("leave-unsaved");
  EXPECT_TRUE(room->close());
  room.reset();
  openDemo();
  EXPECT_FALSE(cellOn("Paving", {21, 20}).empty());
  EXPECT_TRUE(room->close());  // nothing to ask
}

// As at the end of the desktop's session, which waits for the answer.
TEST_F(Files, ClosingAllWaitsForWhatIsSaved) {
  openDemo();
  paintOne();
  answer("go-on");
  EXPECT_FALSE(Workroom::closeAll());
  EXPECT_TRUE(room->isVisible());
  answer("save-first");
  EXPECT_TRUE(Workroom::closeAll());
  EXPECT_FALSE(room->isVisible());
  room.reset();
  openDemo();
  EXPECT_EQ(cellOn("Paving", {20, 20}), Cell(tile("street", 24), {}));
  EXPECT_TRUE(Workroom::closeAll()) << "nothing to ask";
}

TEST_F(Files, SaveAsMakesAWholeQuiltElsewhereAndGoesOnThere) {
  openDemo();
  paintOne();
  const std::string before = read("maps/depot-yard/paving.cells");
  const QString elsewhere = QString::fromStdString(folder() + "-evening");
  enterFolder(elsewhere);
  hand.key(Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
  awaitWork();
  EXPECT_EQ(notice(), "");
  EXPECT_EQ(session().store().folder(), elsewhere.toStdString());
  EXPECT_TRUE(session().isSaved());
  EXPECT_EQ(read("maps/depot-yard/paving.cells"), before);  // the old one is as it was
  hand.click(room->canvas(), onMap({21, 20}));
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  room.reset();
  room = std::make_unique<Workroom>();
  room->openQuilt(elsewhere);
  awaitWork();
  EXPECT_TRUE(room->session()->problems().empty());  // pictures came along
  EXPECT_EQ(cellOn("Paving", {21, 20}), Cell(tile("street", 24), {}));
}

TEST_F(Files, OpensAnotherQuiltByItsFolder) {
  const std::string other = folder() + "-other";
  std::filesystem::copy(folder(), other, std::filesystem::copy_options::recursive);
  openDemo();
  enterFolder(QString::fromStdString(other));
  hand.key(Qt::Key_O, Qt::ControlModifier | Qt::ShiftModifier);
  awaitWork();
  EXPECT_EQ(session().store().folder(), other);
}

TEST_F(Files, AFolderThatIsNoQuiltLeavesTheOpenOneAlone) {
  openDemo();
  room->openQuilt(QDir::tempPath());
  awaitWork();
  EXPECT_THAT(notice(), HasSubstr("there is no quilt here"));
  EXPECT_EQ(session().store().folder(), folder());
}

TEST_F(Files, AnEmptyWindowSaysWhatToDo) {
  room = std::make_unique<Workroom>();
  room->resize(1280, 800);
  hand.show(*room);
  EXPECT_FALSE(room->actions()->action(ActionId::saveQuilt)->isEnabled());
  EXPECT_TRUE(room->actions()->action(ActionId::openQuilt)->isEnabled());
  hand.key(Qt::Key_A);  // letters find nothing to act on
  hand.click(room->canvas(), QPointF(100, 100));
  picture("empty");
}

TEST_F(Files, DroppingAQuiltsFolderOpensIt) {
  room = std::make_unique<Workroom>();
  hand.show(*room);
  QMimeData data;
  data.setUrls({QUrl::fromLocalFile(QString::fromStdString(folder()))});
  QDragEnterEvent enter(QPoint(50, 50), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(room.get(), &enter);
  EXPECT_TRUE(enter.isAccepted());
  QDropEvent drop(QPointF(50, 50), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(room.get(), &drop);
  awaitWork();
  ASSERT_NE(room->session(), nullptr);
  EXPECT_EQ(session().store().folder(), folder());
}

TEST_F(Files, ASecondWindowOnOneQuiltMayLookButNotSave) {
  openDemo();
  Workroom second;
  second.openQuilt(QString::fromStdString(folder()));
  awaitWork(second);
  EXPECT_TRUE(second.session()->store().readOnly());
  EXPECT_EQ(second.session()->problems().front().cause, Error::Cause::inUse);
  EXPECT_THAT(second.session()->problems().front().text(), HasSubstr("has this quilt open"));
}

TEST_F(Files, ASecondWindowFollowsWhatIsSavedAndIsWorkedInOnceTheFirstIsClosed) {
  openDemo();
  Workroom second;
  second.openQuilt(QString::fromStdString(folder()));
  awaitWork(second);
  const auto there = [&](CellPos at) { return second.session()->map()->layerNamed("Paving")->cells.at(at); };
  // One action: the first saves.
  paintOne();
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(waitFor([&] { return there({20, 20}) == Cell(tile("street", 24), {}); }));
  EXPECT_TRUE(second.session()->isSaved()) << "it is what lies there";
  // Nothing is changed there meanwhile, by no way, and it says why.
  QSignalSpy refused(second.session(), &Session::refused);
  const Quilt before = second.session()->quilt();
  second.session()->verbs().maps.rename(second.session()->map()->id, "Yard at noon");
  second.session()->work().undo();
  EXPECT_TRUE(second.session()->quilt() == before);
  ASSERT_EQ(refused.count(), 2);
  EXPECT_THAT(refused.front().front().toString().toStdString(), HasSubstr("has this quilt open"));
  QSignalSpy took(second.session()->beside().watch, &FolderWatch::tookOver);
  room->close();
  room.reset();
  // Nothing has to be pressed for that.
  ASSERT_TRUE(waitFor([&] { return took.count() > 0; }));
  EXPECT_EQ(second.notices()->text(), QString());
  second.session()->verbs().maps.rename(second.session()->map()->id, "Yard at night");
  ASSERT_FALSE(second.session()->isSaved());
  second.actions()->action(ActionId::saveQuilt)->trigger();
  awaitWork(second);
  EXPECT_TRUE(second.session()->isSaved());
  EXPECT_FALSE(second.session()->store().readOnly());
  EXPECT_THAT(read("maps/yard-at-night/map.json"), HasSubstr("Yard at night"));
}

TEST_F(Files, AMissingPictureIsNamedAndItsTilesStay) {
  std::filesystem::remove(folder() + "/sheets/yard.png");
  openDemo();
  EXPECT_THAT(notice(), HasSubstr("sheets/yard.png: it does not exist"));
  EXPECT_THAT(notice(), HasSubstr("stay where they are painted"));
  EXPECT_FALSE(cellOn("Sheds & trams", {5, 3}).empty());
  picture("missing-picture");
  paintOne();
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved());
  EXPECT_FALSE(std::filesystem::exists(folder() + "/sheets/yard.png"));
}

TEST_F(Files, ABrokenPictureIsNamedAndNotOverwritten) {
  write("sheets/rails.png", "this is no picture");
  openDemo();
  EXPECT_THAT(notice(), HasSubstr("sheets/rails.png: the picture cannot be read"));
  paintOne();
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_EQ(read("sheets/rails.png"), "this is no picture");
}

TEST_F(Files, ACutOffLayerIsShownButItsMapTakesNoStroke) {
  const std::string cut = read("maps/depot-yard/paving.cells").substr(0, 1500);
  write("maps/depot-yard/paving.cells", cut);
  openDemo();
  EXPECT_THAT(notice(), HasSubstr("maps/depot-yard/paving.cells, line "));
  EXPECT_THAT(notice(), HasSubstr("cut off"));
  EXPECT_FALSE(cellOn("Paving", {0, 0}).empty());
  hand.click(room->table(), onTable("street", 24));
  const Quilt before = session().quilt();
  hand.click(room->canvas(), onMap({20, 20}));
  EXPECT_EQ(session().quilt(), before);
  EXPECT_THAT(room->canvas()->tagText().toStdString(), HasSubstr("cannot be changed"));
  picture("cut-off");
  // A new map beside it touches nothing of it, but its own layers cannot be changed.
  session().verbs().layers.add({1, {}});
  EXPECT_EQ(session().quilt(), before);
  session().verbs().maps.add(proposedMap(session().quilt(), session().map(), nullptr));
  EXPECT_EQ(session().quilt().maps().size(), 2u);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_EQ(read("maps/depot-yard/paving.cells"), cut);
  enterFolder(QString::fromStdString(folder() + "-copy"));
  hand.key(Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_THAT(notice(), HasSubstr("a copy would lose them"));
}

TEST_F(Files, BrokenJsonIsNamedWithItsLine) {
  const std::string broken = read("maps/depot-yard/map.json").substr(0, 150);
  write("maps/depot-yard/map.json", broken);
  openDemo();
  EXPECT_THAT(notice(), HasSubstr("maps/depot-yard/map.json, line 8: "));
  EXPECT_EQ(session().map(), nullptr);
  hand.key(Qt::Key_F);
  hand.click(room->canvas(), QPointF(100, 100));
  EXPECT_EQ(read("maps/depot-yard/map.json"), broken);
}

TEST_F(Files, EveryDamageIsNamedOnTheScreenAndTheRestOpens) {
  namespace fs = std::filesystem;
  const auto replaced = [this](const char* file, const char* from, const char* to) {
    std::string text = read(file);
    text.replace(text.find(from), std::string_view(from).size(), to);
    write(file, text);
  };
  replaced("maps/depot-yard/rails.cells", "cells 1\n", "cells 1\nA 1 2\n");
  replaced("sheets/street.json", "\"version\": \"1.14\"", "\"version\": \"2.0\"");
  fs::create_directory(folder() + "/maps/loft");
  write("maps/loft/map.json", std::string(200'000, '['));
  fs::create_directory_symlink("/", folder() + "/maps/elsewhere");
  // A picture of 60,000 × 60,000 pixels, of which only the header is there.
  std::string png = read("sheets/yard.png");
  png.replace(16, 8, std::string("\0\0\xea\x60\0\0\xea\x60", 8));
  write("sheets/yard.png", png);
  openDemo();
  picture("damages");
  EXPECT_THAT(notice(), HasSubstr("sheets/street.json"));
  EXPECT_THAT(notice(), HasSubstr("newer version"));
  EXPECT_THAT(notice(), HasSubstr("maps/depot-yard/rails.cells, line 2"));
  EXPECT_THAT(notice(), HasSubstr("maps/loft/map.json, line 1"));
  EXPECT_THAT(notice(), HasSubstr("maps/elsewhere: it is a link"));
  EXPECT_THAT(notice(), HasSubstr("sheets/yard.png"));
  EXPECT_FALSE(cellOn("Paving", {0, 0}).empty());
}

TEST_F(Files, ASheetThatIsGoneLeavesLabelledPlaceholders) {
  std::filesystem::remove(folder() + "/sheets/rails.json");
  openDemo();
  EXPECT_THAT(notice(), HasSubstr("is not in this quilt"));
  EXPECT_THAT(notice(), HasSubstr("178 cells painted with it are kept"));
  const std::string rails = read("maps/depot-yard/rails.cells");
  paintOne();
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_EQ(read("maps/depot-yard/rails.cells"), rails);
}

TEST_F(Files, WhatAnotherProgramWroteIsNotOverwritten) {
  openDemo();
  paintOne();
  const std::string pulled = "cells 1\nend\n";
  write("maps/depot-yard/paving.cells", pulled);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_THAT(notice(), HasSubstr("another program wrote this file"));
  EXPECT_EQ(read("maps/depot-yard/paving.cells"), pulled);
  EXPECT_FALSE(session().isSaved());
  EXPECT_EQ(cellOn("Paving", {20, 20}), Cell(tile("street", 24), {}));
}

TEST_F(Files, APlaceThatTakesNoFolderIsRefusedInWords) {
  openDemo();
  paintOne();
  enterFolder(QString::fromStdString(folder() + "/quilt.json/evening"));
  hand.key(Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
  awaitWork();
  EXPECT_THAT(notice(), HasSubstr("quilt.json/evening: a part of its path is no folder"));
  EXPECT_FALSE(session().isSaved());
  EXPECT_EQ(session().store().folder(), folder());
}

TEST_F(Files, AFolderWithoutWritePermissionCanBeLookedAtAndSavedElsewhere) {
  namespace fs = std::filesystem;
  fs::permissions(fs::path(folder()).parent_path(), fs::perms(0755));
  for (const auto& entry : fs::recursive_directory_iterator(folder())) {
    fs::permissions(entry.path(), entry.is_directory() ? fs::perms(0555) : fs::perms(0444));
  }
  fs::permissions(folder(), fs::perms(0555));
  // The superuser may write everywhere: look at the files as nobody in particular.
  const bool superuser = geteuid() == 0;
  if (superuser) setfsuid(65534);
  openDemo();
  EXPECT_THAT(notice(), HasSubstr("can be looked at, but not saved here"));
  EXPECT_THAT(notice(), HasSubstr("or save the quilt somewhere else"));
  paintOne();
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_THAT(notice(), HasSubstr("not saved here"));
  EXPECT_FALSE(session().isSaved());
  EXPECT_FALSE(fs::exists(folder() + "/.urban-quilt"));
  if (superuser) setfsuid(0);
  picture("no-permission");
  const QString elsewhere = QString::fromStdString(folder() + "-mine");
  enterFolder(elsewhere);
  hand.key(Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved());
  fs::permissions(folder(), fs::perms(0755));
  for (const auto& entry : fs::recursive_directory_iterator(folder())) fs::permissions(entry.path(), fs::perms(0755));
}

TEST_F(Files, TwoMapsHaveTabsAndEachItsOwnUndo) {
  std::filesystem::copy(folder() + "/maps/depot-yard", folder() + "/maps/ferry-street",
                        std::filesystem::copy_options::recursive);
  std::string map = read("maps/ferry-street/map.json");
  const auto replace = [&](const std::string& from, const std::string& to) {
    map.replace(map.find(from), from.size(), to);
  };
  replace("Depot Yard", "Ferry Street");
  replace(yardId(), "abcdefghijkl");
  write("maps/ferry-street/map.json", map);
  openDemo();
  EXPECT_TRUE(session().problems().empty());
  paintOne();
  hand.click(room->findChild<QWidget*>(QStringLiteral("tab-ferry-street")));
  EXPECT_EQ(session().map()->name, "Ferry Street");
  EXPECT_FALSE(room->actions()->action(ActionId::undo)->isEnabled());
  EXPECT_EQ(room->actions()->action(ActionId::undo)->toolTip(), QStringLiteral("Nothing was done on this map yet"));
  hand.click(room->canvas(), onMap({3, 3}));
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(cellOn("Paving", {20, 20}), Cell(tile("street", 24), {}));  // Depot Yard is untouched
  picture("two-maps");
  hand.key(Qt::Key_PageDown, Qt::ControlModifier);
  EXPECT_EQ(session().map()->name, "Depot Yard");
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(session().isSaved());
}

}  // namespace uq::test
