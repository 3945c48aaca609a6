#include "app/Story.h"

#include <QApplication>
#include <QDir>
#include <QMenu>
#include <QMenuBar>
#include <QPainter>
#include <QScreen>
#include <QToolButton>
#include <QSignalSpy>
#include <QWindow>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <sstream>

#include "app/actions/KeyBindings.h"

namespace uq::test {

namespace {

// Takes out of a text file what begins with `first`, to the end of the next `last`.
void withoutPart(const std::string& path, const std::string& first, const std::string& last) {
  std::stringstream text;
  text << std::ifstream(path).rdbuf();
  std::string all = text.str();
  const std::size_t from = all.find(first);
  ASSERT_NE(from, std::string::npos) << path;
  all.erase(from, all.find(last, from) + last.size() - from);
  std::ofstream(path) << all;
}

}  // namespace

Story::Story(Demo demo) {
  folder_ = scratch_.filePath(QStringLiteral("copperline")).toStdString();
  namespace fs = std::filesystem;
  const fs::path from = UQ_SOURCE_DIR "/demo/copperline";
  fs::create_directories(folder_);
  for (const fs::directory_entry& one : fs::directory_iterator(from)) {
    const std::string name = one.path().filename().string();
    if (name == ".urban-quilt") continue;  // left by somebody who opened the demo itself
    if (demo == Demo::yard && (name == "stamps" || name == "maps" || name == "links.json" || name == "plan.json")) continue;
    fs::copy(one.path(), fs::path(folder_) / name, fs::copy_options::recursive);
  }
  if (demo == Demo::whole) return;
  fs::create_directories(folder_ + "/maps");
  fs::copy(from / "maps" / "depot-yard", folder_ + "/maps/depot-yard");
  // Its ways would lead nowhere: it comes without pins.
  fs::remove(folder_ + "/maps/depot-yard/pins.pins.json");
  withoutPart(folder_ + "/maps/depot-yard/map.json", ",\n    {\"id\": \"xy53s2vokqwj\"", "}");
  withoutPart(folder_ + "/quilt.json", "  \"start\": {", "},\n");
}

Story::~Story() = default;

void Story::openNothing() {
  room = std::make_unique<Workroom>(disk);
  room->resize(1280, 800);
  hand.show(*room);
}

void Story::openDemo() {
  openNothing();
  room->openQuilt(QString::fromStdString(folder_));
  awaitWork();
  ASSERT_NE(room->session(), nullptr);
  settle();
}

void Story::awaitWork(Workroom& workroom) {
  if (!workroom.work().isRunning()) return;
  QSignalSpy ended(&workroom.work(), &LongWork::ended);
  ASSERT_TRUE(ended.wait(60'000));
}

void Story::close() {
  room->close();
  settle();
  room.reset();
}

namespace {

// The menus to open, from the menu bar's on, until the one that holds an action.
bool wayTo(const QList<QAction*>& entries, QAction* wanted, std::vector<QAction*>& way) {
  for (QAction* entry : entries) {
    way.push_back(entry);
    if (entry == wanted || (entry->menu() && wayTo(entry->menu()->actions(), wanted, way))) return true;
    way.pop_back();
  }
  return false;
}

}  // namespace

void Story::choose(ActionId id) {
  QAction* action = room->actions()->action(id);
  std::vector<QAction*> way;
  ASSERT_TRUE(action->isEnabled()) << action->text().toStdString() << ": " << action->toolTip().toStdString();
  if (!wayTo(room->menuBar()->actions(), action, way)) {
    const auto buttons = room->findChildren<QToolButton*>();
    const auto button = std::find_if(buttons.begin(), buttons.end(), [action](const QToolButton* one) {
      return one->objectName() == action->objectName() + QStringLiteral("-button") && one->isVisible();
    });
    if (button != buttons.end()) return hand.click(*button);
    const QKeySequence keys = KeyBindings::shared().keys(id);
    ASSERT_FALSE(keys.isEmpty()) << "no menu, button or key for " << action->text().toStdString();
    room->canvas()->setFocus();
    return hand.key(keys[0].key(), keys[0].keyboardModifiers());
  }
  QWidget* on = room->menuBar();
  QRect at = room->menuBar()->actionGeometry(way.front());
  for (std::size_t i = 0; i + 1 < way.size(); ++i) {
    hand.click(on, QRectF(at).center());
    QMenu* menu = way[i]->menu();
    ASSERT_TRUE(waitFor([&] { return menu->isVisible(); })) << way[i]->text().toStdString();
    on = menu;
    at = menu->actionGeometry(way[i + 1]);
  }
  hand.click(on, QRectF(at).center());
  settle();
}

TileRef Story::tile(const char* sheet, std::uint32_t number) {
  if (chalk().name == sheet) return {kChalkSlot, number};
  for (const auto& one : session().quilt().sheets()) {
    if (one->name == sheet) return {*session().quilt().slots().find(one->id), number};
  }
  ADD_FAILURE() << "there is no sheet " << sheet;
  return {1, 0};
}

QPointF Story::onTable(const char* sheet, std::uint32_t number) {
  room->table()->reveal(sheet, number);
  settle();
  return room->table()->tileRect(sheet, number).center();
}

namespace {

// What the screen shows where a widget is, with whatever lies over it.
QPixmap onScreen(const QWidget& widget) {
  const QRect place(widget.mapToGlobal(QPoint()), widget.size());
  return widget.screen()->grabWindow(0, place.x(), place.y(), place.width(), place.height());
}

}  // namespace

void Story::picture(const char* name, QWidget* of) {
  const QString folder = qEnvironmentVariable("UQ_PICTURES");
  if (folder.isEmpty()) return;
  QDir().mkpath(folder);
  const QString path = QStringLiteral("%1/%2.png").arg(folder, QLatin1String(name));
  settle();
  // Of a map all of it, with nothing that stands in for what is still being drawn.
  if (room && room->session() && room->session()->map() && room->canvas()->isVisible()) {
    (void)shown();
    room->canvas()->update();  // what was grabbed is not on the screen yet
  }
  settle();
  // In a real window what the screen shows, else what the widgets draw.
  const bool real = QGuiApplication::platformName() == QLatin1String("xcb");
  QWidget* widget = of ? of : room.get();
  QPixmap shot = real ? onScreen(*widget) : widget->grab();
  // What lies over the window is no part of it.
  for (QWidget* over : QApplication::topLevelWidgets()) {
    const bool lies = !real && !of && over != widget && over->isVisible() && over->parentWidget() == widget;
    if (lies) QPainter(&shot).drawPixmap(over->pos() - widget->mapToGlobal(QPoint()), over->grab());
  }
  ASSERT_TRUE(shot.save(path));
  std::printf("picture: %s\n", qPrintable(path));
}

QImage Story::shown() {
  MapCanvas* canvas = room->canvas();
  while (true) {
    QSignalSpy painted(canvas, &MapCanvas::painted);
    QImage picture = canvas->grab().toImage();
    if (canvas->lastFrame().whole()) return picture;
    // The next repaint comes when a worker hands something in.
    if (!painted.wait()) {
      ADD_FAILURE() << "the canvas never shows the whole map";
      return picture;
    }
  }
}

void Story::report(const char* job) {
  RecordProperty("actions", hand.actions());
  std::printf("%s: %d actions\n", job, hand.actions());
}

}  // namespace uq::test
