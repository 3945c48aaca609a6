// Maps going out to the game, by hand: targets with their samples, again with one key, a form of one's own, a command after saving.
#include <QAction>
#include <QApplication>
#include <QDir>
#include <QFileInfo>
#include <QLineEdit>
#include <QMenu>
#include <QPlainTextEdit>
#include <QTest>
#include <QToolButton>
#include <set>

#include "app/Story.h"
#include "app/exports/ExportPage.h"
#include "app/look/Theme.h"
#include "core/edit/Targets.h"

namespace uq::test {

class Exporting : public Story {
 public:
  Exporting() : Story(Demo::whole) {}

 protected:
  void SetUp() override { openDemo(); }
  int since(const std::function<void()>& job) {
    const int before = hand.actions();
    job();
    return hand.actions() - before;
  }
  QString file(const char* path) { return QString::fromStdString(folder()) + QLatin1Char('/') + QLatin1String(path); }
  QByteArray bytesOf(const char* path) {
    QFile read(file(path));
    return read.open(QIODevice::ReadOnly) ? read.readAll() : QByteArray();
  }
  const Target& target(const char* name) { return *targetNamed(session().quilt(), name); }
  template <class Widget>
  Widget* of(const char* what, const char* name) {
    return part<Widget>((std::string("target-") + what + "-" + target(name).id.text()).c_str());
  }
  void paintOne() {
    hand.key(Qt::Key_Escape);
    hand.click(room->table(), onTable("street", 24));
    hand.click(room->canvas(), onMap({20, 20}));
    ASSERT_FALSE(session().isSaved());
  }
};

TEST_F(Exporting, ASetGoesOutInFourActionsAndAgainByOneKey) {
  EXPECT_LE(since([&] {
              choose(ActionId::exportTargets);
              picture("export-first");
              hand.click(part<QToolButton>("export-new-json"));
              EXPECT_TRUE(of<QLabel>("file", "Maps for the game")->text().endsWith(QStringLiteral("depot-yard.json")));
              hand.click(of<QToolButton>("write", "Maps for the game"));
            }),
            4);
  awaitWork();
  report("a set exported the first time: four actions");
  for (const char* one : {"exports/maps-for-the-game/quilt.json", "exports/maps-for-the-game/maps/depot-yard.json", "exports/maps-for-the-game/sheets/street.png"}) EXPECT_TRUE(QFileInfo::exists(file(one))) << one;
  paintOne();
  const QByteArray was = bytesOf("exports/maps-for-the-game/maps/depot-yard.json");
  const auto then = QFileInfo(file("exports/maps-for-the-game/maps/canal-locks.json")).lastModified();
  EXPECT_LE(since([&] { hand.key(Qt::Key_E, Qt::ControlModifier); }), 1);
  awaitWork();
  report("the set exported again: one key");
  EXPECT_NE(bytesOf("exports/maps-for-the-game/maps/depot-yard.json"), was);
  EXPECT_EQ(QFileInfo(file("exports/maps-for-the-game/maps/canal-locks.json")).lastModified(), then) << "what has not changed is not written";
  // What goes along with the quilt goes away with Undo, and is saved.
  EXPECT_TRUE(targetNamed(session().quilt(), "Maps for the game"));
  choose(ActionId::saveQuilt);
  awaitWork();
  EXPECT_TRUE(QFileInfo::exists(file("targets/maps-for-the-game.json")));
}

TEST_F(Exporting, AFormOfOnesOwnIsSetUpFromTheGalleryInSixActions) {
  EXPECT_LE(since([&] {
              choose(ActionId::exportTargets);
              hand.click(part<QToolButton>("export-new-own"));
              hand.click(part<QToolButton>("form-begin-lua"));
              hand.click(part<QToolButton>("form-write"));
            }),
            6);
  awaitWork();
  report("an own form set up from the gallery");
  picture("export-form");
  EXPECT_TRUE(bytesOf("exports/own-form/depot-yard.lua").contains("name = \"Depot Yard\"")) << bytesOf("exports/own-form/depot-yard.lua").left(300).toStdString();
  auto* text = part<QPlainTextEdit>("form-text");
  auto* result = part<QPlainTextEdit>("form-result");
  EXPECT_TRUE(result->toPlainText().contains(QStringLiteral("Depot Yard")));
  // What is wrong is said with its line; what came of it before stays.
  text->setFocus();
  text->moveCursor(QTextCursor::Start);
  hand.type(QStringLiteral("{{#layers}}"));
  const auto words = [&] { return part<QLabel>("form-words")->text(); };
  EXPECT_TRUE(QTest::qWaitFor([&] { return words().contains(QStringLiteral("line 1")); })) << words().toStdString();
  EXPECT_EQ(text->extraSelections().size(), 1);
  picture("export-form-wrong");
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(QTest::qWaitFor([&] { return words().startsWith(QStringLiteral("The beginning")); })) << words().toStdString();
  // What is typed is kept as one step when it is left.
  text->moveCursor(QTextCursor::End);
  hand.type(QStringLiteral("-- end"));
  hand.click(part<QToolButton>("form-back"));
  EXPECT_TRUE(QString::fromStdString(target("Own form").text).endsWith(QStringLiteral("-- end")));
  EXPECT_TRUE(part<QToolButton>("export-new-json")->isVisible());
}

TEST_F(Exporting, CardsSayWhatComesOutWhereAndWhatIsLost) {
  choose(ActionId::exportTargets);
  for (const char* form : {"export-new-json", "export-new-png", "export-new-csv", "export-new-sheet", "export-new-links", "export-new-svg", "export-new-ora"}) {
    hand.click(part<QToolButton>(form));
  }
  EXPECT_EQ(session().quilt().all<Target>().size(), 7u);
  picture("export-cards");
  EXPECT_TRUE(of<QLabel>("words", "Tables")->text().contains(QStringLiteral("doorways"))) << of<QLabel>("words", "Tables")->text().toStdString();
  EXPECT_FALSE(of<QLabel>("words", "Maps for the game")->isVisible()) << "JSON holds all";
  EXPECT_EQ(of<QToolButton>("folder", "Tables")->text(), QStringLiteral("exports/tables"));
  hand.click(part<QToolButton>("export-all"));
  awaitWork();
  for (const char* one : {"exports/tables/depot-yard/paving.csv", "exports/pictures/depot-yard.png", "exports/packed-sheets/street.png", "exports/packed-sheets/street.json", "exports/links/links.json", "exports/outlines/board.svg",
                          "exports/outlines/depot-yard.svg", "exports/layered-pictures/depot-yard.ora"}) {
    EXPECT_TRUE(QFileInfo::exists(file(one))) << one;
  }
  // A map that goes loses its files, after being named.
  const std::string gone = session().quilt().mapNamed("Canal Locks")->name;
  session().quiltStep(QStringLiteral("Delete"), session().quilt().without<Map>(session().quilt().mapNamed("Canal Locks")->id));
  EXPECT_TRUE(of<QLabel>("words", "Pictures")->text().contains(QStringLiteral("Canal Locks is gone"))) << of<QLabel>("words", "Pictures")->text().toStdString();
  EXPECT_TRUE(QFileInfo::exists(file("exports/pictures/canal-locks.png")));
  hand.click(part<QToolButton>("export-all"));
  awaitWork();
  EXPECT_FALSE(QFileInfo::exists(file("exports/pictures/canal-locks.png")));
  EXPECT_FALSE(QFileInfo::exists(file("exports/tables/canal-locks")));
  // By the key alone it is named first, too.
  session().quiltStep(QStringLiteral("Delete"), session().quilt().without<Map>(session().quilt().mapNamed("Lantern Row")->id));
  hand.key(Qt::Key_Escape);
  session().quiltStep(QStringLiteral("Delete"), session().quilt().without<Map>(session().quilt().mapNamed("Ward Board")->id));
  hand.key(Qt::Key_E, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(QFileInfo::exists(file("exports/pictures/ward-board.png")));
  hand.key(Qt::Key_E, Qt::ControlModifier);
  awaitWork();
  EXPECT_FALSE(QFileInfo::exists(file("exports/pictures/ward-board.png")));
  EXPECT_FALSE(QFileInfo::exists(file("exports/pictures/lantern-row.png")));
  choose(ActionId::exportTargets);
  // Esc leads back to the map.
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(room->exportPage()->isVisible());
  EXPECT_TRUE(room->canvas()->hasFocus());
}

TEST_F(Exporting, AFolderOutsideIsKeptOnThisMachineOnly) {
  choose(ActionId::exportTargets);
  hand.click(part<QToolButton>("export-new-links"));
  QTemporaryDir game;
  hand.inDialog(QStringLiteral("target-folder-dialog"), [&](QWidget& dialog) {
    auto* name = dialog.findChild<QLineEdit*>();
    name->setText(game.path());
    QMetaObject::invokeMethod(&dialog, "accept");
  });
  hand.click(of<QToolButton>("folder", "Links"));
  EXPECT_TRUE(target("Links").folder.empty()) << "no quilt says where on a disk something is written";
  hand.click(of<QToolButton>("write", "Links"));
  awaitWork();
  EXPECT_TRUE(QFileInfo::exists(game.filePath(QStringLiteral("links.json"))));
  // It is known the next time, and not to somebody else's machine.
  choose(ActionId::saveQuilt);
  awaitWork();
  EXPECT_FALSE(bytesOf("targets/links.json").contains(game.path().toUtf8()));
  // A folder that is gone, such as a drive that is not there, is said and not made anew.
  ASSERT_TRUE(game.remove());
  hand.click(of<QToolButton>("write", "Links"));
  awaitWork();
  EXPECT_FALSE(QFileInfo::exists(game.path()));
  // The quilt's own folders are refused.
  hand.inDialog(QStringLiteral("target-folder-dialog"), [&](QWidget& dialog) {
    dialog.findChild<QLineEdit*>()->setText(file("maps"));
    QMetaObject::invokeMethod(&dialog, "accept");
  });
  hand.click(of<QToolButton>("folder", "Links"));
  EXPECT_TRUE(room->notices()->text().contains(QStringLiteral("the quilt keeps its own files")));
}

TEST_F(Exporting, ACommandIsRunAfterSavingWithTheChangedMaps) {
  choose(ActionId::exportTargets);
  hand.click(part<QLineEdit>("export-command"));
  hand.type(QStringLiteral("printf '<%s>\\n'"));
  hand.key(Qt::Key_Return);
  paintOne();
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  choose(ActionId::exportTargets);
  auto* output = part<QPlainTextEdit>("export-output");
  EXPECT_TRUE(QTest::qWaitFor([&] { return output->toPlainText().contains(QStringLiteral("<Depot Yard>")); })) << output->toPlainText().toStdString();
  EXPECT_EQ(output->toPlainText().count(QLatin1Char('<')), 1);
  picture("export-command");
  // One that fails is told, and the work is saved all the same.
  hand.click(part<QLineEdit>("export-command"));
  part<QLineEdit>("export-command")->selectAll();
  hand.type(QStringLiteral("echo no room >&2; exit 7; true"));
  hand.key(Qt::Key_Return);
  hand.key(Qt::Key_Escape);
  hand.click(room->canvas(), onMap({22, 20}));
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(QTest::qWaitFor([&] { return room->notices()->text().contains(QStringLiteral("code 7")); })) << room->notices()->text().toStdString();
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Exporting, TheKeyboardAloneSetsATargetUp) {
  choose(ActionId::exportTargets);
  const auto focus = [] { return QApplication::focusWidget() ? QApplication::focusWidget()->objectName().toStdString() : std::string("nowhere"); };
  EXPECT_EQ(focus(), "export-new-json");
  hand.key(Qt::Key_Space);
  const std::string id = target("Maps for the game").id.text();
  EXPECT_EQ(focus(), "target-write-" + id);
  hand.key(Qt::Key_Space);
  awaitWork();
  EXPECT_TRUE(QFileInfo::exists(file("exports/maps-for-the-game/quilt.json")));
  EXPECT_EQ(focus(), "target-write-" + id);
  // Icons follow the theme.
  const auto inked = [&] { return part<QToolButton>("export-all")->icon().pixmap(16, 16).toImage(); };
  const QImage linen = inked();
  applyTheme(*qobject_cast<QApplication*>(QApplication::instance()), Theme::indigo());
  settle();
  EXPECT_NE(inked(), linen);
  applyTheme(*qobject_cast<QApplication*>(QApplication::instance()), Theme::linen());
  settle();
  // One sees where the keys are.
  const auto look = [&] { return of<QToolButton>("write", "Maps for the game")->grab().toImage(); };
  const QImage with = look();
  hand.key(Qt::Key_Tab);
  EXPECT_NE(look(), with);
  // Tab goes round, through all that can be changed, and never gets stuck.
  std::set<std::string> seen;
  for (int i = 0; i < 40; ++i) {
    hand.key(Qt::Key_Tab);
    seen.insert(focus());
    EXPECT_TRUE(room->exportPage()->isAncestorOf(QApplication::focusWidget())) << focus();
  }
  for (const std::string& one : {"target-name-" + id, "target-cells-" + id, "target-maps-" + id, "target-folder-" + id, "target-write-" + id, std::string("export-all"), std::string("export-command"), std::string("export-new-own"), std::string("export-page-close")}) {
    EXPECT_TRUE(seen.contains(one)) << one;
  }
  hand.key(Qt::Key_Escape);
  EXPECT_TRUE(room->canvas()->hasFocus());
}

}  // namespace uq::test
