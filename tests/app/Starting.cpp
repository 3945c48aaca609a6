// From the start page to the first saved map, with the mouse and without; and back to where one left off.
#include <QApplication>
#include <QDir>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QProcess>
#include <QPushButton>
#include <QSignalSpy>
#include <csignal>

#include "app/Story.h"
#include "app/actions/KeyBindings.h"
#include "app/start/RecentCard.h"
#include "app/workroom/KeptState.h"

namespace uq::test {

namespace {

// Whether a process handles a signal, by what the kernel tells of it (proc(5)).
bool isCaught(qint64 process, int signal) {
  QFile file(QStringLiteral("/proc/%1/status").arg(process));
  if (!file.open(QIODevice::ReadOnly)) return false;
  for (const QByteArray& line : file.readAll().split('\n')) {
    if (line.startsWith("SigCgt:")) return line.mid(7).trimmed().toULongLong(nullptr, 16) >> (signal - 1) & 1;
  }
  return false;
}

}  // namespace

class Starting : public Story {
 protected:
  void SetUp() override {
    QDir(stateFolder()).removeRecursively();
    QDir(StartPage::quiltsFolder()).removeRecursively();
    openNothing();
  }

  const Map& onlyMap() { return session().quilt().maps().front().read(); }
  template <class Widget>
  Widget* on(QWidget* place, const char* name) {
    auto* found = place->findChild<Widget*>(QLatin1String(name));
    EXPECT_NE(found, nullptr) << name;
    return found;
  }
};

TEST_F(Starting, TheFirstMapOfANewUser) {
  picture("start-empty");
  EXPECT_EQ(room->session(), nullptr);
  hand.click(on<QPushButton>(room->startPage(), "start-new"));
  hand.type(QStringLiteral("Tallow Lanes"));
  picture("new-quilt");
  hand.key(Qt::Key_Return);
  awaitWork();
  ASSERT_NE(room->session(), nullptr);
  ASSERT_TRUE(room->newMapCard()->isVisible());
  hand.type(QStringLiteral("Lamp Square"));
  picture("new-map-card");
  hand.key(Qt::Key_Return);
  EXPECT_EQ(onlyMap().name, "Lamp Square");
  EXPECT_EQ(onlyMap().bounds, (CellRect{0, 0, 48, 32}));
  hand.click(room->table(), onTable("Chalk", 10));
  hand.drag(room->canvas(), {onMap({4, 4}), onMap({9, 4})});
  picture("first-stroke");
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  EXPECT_TRUE(session().isSaved());
  report("the first map of a new user");
  EXPECT_LE(hand.actions(), 12);
  const std::string where = session().store().folder();
  EXPECT_EQ(QString::fromStdString(where), StartPage::quiltsFolder() + QStringLiteral("/tallow-lanes"));
  room.reset();
  const auto opened = QuiltStore::open(realDisk(), where, QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  EXPECT_EQ(opened->quilt.facts().name, "Tallow Lanes");
  const Map& map = *opened->quilt.mapNamed("Lamp Square");
  EXPECT_EQ(map.layers[0]->cells.at({9, 4}), Cell({kChalkSlot, 10}, {}));
}

TEST_F(Starting, TheSameWithoutAMouse) {
  hand.key(Qt::Key_N, Qt::ControlModifier);
  hand.type(QStringLiteral("Tallow Lanes"));
  hand.key(Qt::Key_Return);
  awaitWork();
  hand.type(QStringLiteral("Lamp Square"));
  hand.key(Qt::Key_Return);
  ASSERT_EQ(session().quilt().maps().size(), 1u);
  hand.key(Qt::Key_T);
  ASSERT_TRUE(room->spread()->hasFocus());
  hand.key(Qt::Key_Right);
  hand.key(Qt::Key_Return);
  EXPECT_EQ(session().desk().inHand.block, Block::of(Cell({kChalkSlot, 0}, {})));
  ASSERT_TRUE(room->canvas()->cellCursor());
  const CellPos at = *room->canvas()->cellCursor();
  for (int i = 0; i < 3; ++i) hand.key(Qt::Key_Right, Qt::ShiftModifier);
  hand.key(Qt::Key_Down, Qt::ShiftModifier);
  picture("box-by-keys");
  hand.key(Qt::Key_Return);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  report("the first map by keyboard alone");
  EXPECT_TRUE(session().isSaved());
  int painted = 0;
  for (int y = -1; y < 4; ++y) {
    for (int x = -1; x < 6; ++x) painted += onlyMap().layers[0]->cells.at({at.x + x, at.y + y}).empty() ? 0 : 1;
  }
  EXPECT_EQ(painted, 8);
  EXPECT_EQ(room->canvas()->accessibleDescription().toStdString(),
            "Cell " + std::to_string(at.x + 3) + ", " + std::to_string(at.y + 1) + ": white chalk on Ground");
}

TEST_F(Starting, OneGoesOnWhereOneLeftOff) {
  room->openQuilt(QString::fromStdString(folder()));
  awaitWork();
  hand.click(room->table(), onTable("yard", 130));
  hand.click(room->stack()->card(yard().layerNamed("Sheds & trams")->id));
  hand.key(Qt::Key_0);
  hand.wheel(room->canvas(), QPointF(300, 300), 2, Qt::ControlModifier);
  Story::choose(ActionId::rulers);
  const Desk desk = session().desk();
  const MapCanvas::View view = room->canvas()->view();
  room.reset();
  openNothing();
  picture("start-page");
  auto* recent = on<RecentCard>(room->startPage(), "recent-0");
  EXPECT_EQ(recent->quilt().name, QStringLiteral("Copperline"));
  EXPECT_FALSE(QImage(recent->quilt().picture).isNull());
  hand.click(recent);
  awaitWork();
  EXPECT_TRUE(session().desk() == desk);
  EXPECT_EQ(room->canvas()->zoom(), view.zoom);
  EXPECT_NEAR(room->canvas()->view().middle.x(), view.middle.x(), 1);
  EXPECT_NEAR(room->canvas()->view().middle.y(), view.middle.y(), 1);
  EXPECT_TRUE(session().isSaved()) << "how one works is no part of the quilt";
}

TEST_F(Starting, AQuiltCanBeTakenOffTheList) {
  room->openQuilt(QString::fromStdString(folder()));
  awaitWork();
  room.reset();
  openNothing();
  auto* recent = on<RecentCard>(room->startPage(), "recent-0");
  recent->setFocus();
  hand.key(Qt::Key_Delete);
  settle();
  EXPECT_EQ(room->startPage()->findChild<RecentCard*>(QStringLiteral("recent-0")), nullptr);
  EXPECT_TRUE(on<QWidget>(room->startPage(), "start-empty")->isVisible());
  EXPECT_TRUE(QFile::exists(QString::fromStdString(folder()) + QStringLiteral("/quilt.json")));
}

TEST_F(Starting, TheDemoIsACopy) {
  hand.click(on<QPushButton>(room->startPage(), "start-demo"));
  awaitWork();
  EXPECT_EQ(session().quilt().facts().name, "Copperline");
  EXPECT_EQ(QString::fromStdString(session().store().folder()),
            StartPage::quiltsFolder() + QStringLiteral("/copperline"));
  EXPECT_TRUE(session().problems().empty());
  EXPECT_FALSE(session().painter().pictures().picture(session().quilt().sheets().front().read()).isNull());
  EXPECT_FALSE(session().store().readOnly());
  room.reset();
  openNothing();
  hand.click(on<QPushButton>(room->startPage(), "start-demo"));
  awaitWork();
  EXPECT_EQ(QString::fromStdString(session().store().folder()),
            StartPage::quiltsFolder() + QStringLiteral("/copperline-2"));
}

TEST_F(Starting, ThePageShowsWhatOneCanDoAndTheDemosMaps) {
  auto* pictures = on<StartPictures>(room->startPage(), "");
  QSignalSpy drawn(pictures, &StartPictures::drawn);
  ASSERT_TRUE(waitFor([&] { return drawn.count() > 0; }));
  for (int i = 0; i < StartPictures::kCanDo; ++i) {
    EXPECT_TRUE(on<PictureCard>(room->startPage(), ("can-do-" + std::to_string(i)).c_str())->hasPicture()) << i;
  }
  picture("start-with-pictures");
  settle();
  auto* row = on<PictureCard>(room->startPage(), "demo-map-Lantern Row");
  ASSERT_TRUE(row && row->hasPicture());
  row->setFocus();
  ASSERT_TRUE(row->hasFocus());
  hand.key(Qt::Key_Return);
  awaitWork();
  ASSERT_TRUE(room->session()) << room->notices()->text().toStdString();
  EXPECT_EQ(session().map()->name, "Lantern Row");
  EXPECT_EQ(QString::fromStdString(session().store().folder()),
            StartPage::quiltsFolder() + QStringLiteral("/copperline"));
}

TEST_F(Starting, AQuiltThatAColleagueChangedIsShownAsItIsNow) {
  room->openQuilt(QString::fromStdString(folder()));
  awaitWork();
  room.reset();
  // Somebody else paints the whole yard over.
  auto opened = QuiltStore::open(realDisk(), folder(), QuiltStore::Access::write);
  ASSERT_TRUE(opened);
  const Map& map = *opened->quilt.mapNamed("Depot Yard");
  LayerCells over;
  over.cells.fill(map.bounds, Cell({kChalkSlot, 10}, {}));
  ASSERT_TRUE(opened->store.save(opened->quilt.with({map.id, map.layerNamed("Awnings")->id}, over)));
  const QString kept = recentQuilts().front().picture;
  QFile old(kept);
  ASSERT_TRUE(old.open(QIODevice::ReadWrite));
  ASSERT_TRUE(old.setFileTime(QDateTime::currentDateTime().addSecs(-60), QFileDevice::FileModificationTime));
  old.close();
  opened = fail(Error{});
  openNothing();
  auto* card = on<RecentCard>(room->startPage(), "recent-0");
  const QImage before = card->grab().toImage();
  QSignalSpy drawn(on<StartPictures>(room->startPage(), ""), &StartPictures::drawn);
  ASSERT_TRUE(waitFor([&] { return drawn.count() > 0; }));
  EXPECT_NE(card->grab().toImage(), before);
}

TEST_F(Starting, AFolderThatIsInUseIsRefusedInWords) {
  hand.click(on<QPushButton>(room->startPage(), "start-new"));
  auto* where = on<QLineEdit>(room->startPage(), "quilt-folder");
  auto* begin = on<QPushButton>(room->startPage(), "begin-quilt");
  auto* why = on<QLabel>(room->startPage(), "quilt-refusal");
  where->setFocus();
  where->selectAll();
  hand.type(QString::fromStdString(folder()));
  EXPECT_FALSE(begin->isEnabled());
  EXPECT_TRUE(why->text().contains(QStringLiteral("something in that folder already"))) << why->text().toStdString();
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(begin->isVisible());
  EXPECT_EQ(room->session(), nullptr);
}

TEST_F(Starting, AnotherQuiltGetsAWindowOfItsOwn) {
  room->openQuilt(QString::fromStdString(folder()));
  awaitWork();
  hand.key(Qt::Key_N, Qt::ControlModifier);
  settle();
  Workroom* second = nullptr;
  for (QWidget* window : QApplication::topLevelWidgets()) {
    auto* other = qobject_cast<Workroom*>(window);
    if (other && other != room.get()) second = other;
  }
  ASSERT_NE(second, nullptr);
  EXPECT_EQ(second->session(), nullptr);
  EXPECT_TRUE(on<QLineEdit>(second->startPage(), "quilt-name")->isVisible());
  EXPECT_EQ(session().quilt().facts().name, "Copperline");
  second->close();
  settle();
}

// Told to end by the system, the program closes its windows like a hand does; where nothing is unsaved, it goes.
TEST_F(Starting, SigtermClosesTheWindow) {
  QProcess process;
  process.start(QStringLiteral(UQ_WORKROOM), {});
  ASSERT_TRUE(process.waitForStarted());
  // Before it is up a signal ends it the plain way.
  ASSERT_TRUE(waitFor([&] { return isCaught(process.processId(), SIGTERM); }));
  process.terminate();
  ASSERT_TRUE(process.waitForFinished());
  EXPECT_EQ(process.exitStatus(), QProcess::NormalExit);
  EXPECT_EQ(process.exitCode(), 0);
}

}  // namespace uq::test
