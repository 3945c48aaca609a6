// Story: what the storyboards share — a copy of the demo to work on, the workroom on the screen, and a hand.
#pragma once

#include <QTemporaryDir>
#include <memory>

#include "app/Hand.h"
#include "app/workroom/Workroom.h"

namespace uq::test {

class Story : public testing::Test {
 protected:
  // Of the demo's maps most stories need but the first, Depot Yard.
  enum class Demo { yard, whole };
  explicit Story(Demo demo = Demo::yard);
  ~Story() override;

  // Opens a window on its start page.
  void openNothing();
  // Opens the workroom on the copy of the demo.
  void openDemo();
  void close();
  // Waits until what is being opened or saved is done.
  void awaitWork() { awaitWork(*room); }
  static void awaitWork(Workroom& workroom);
  std::string folder() const { return folder_; }

  Session& session() { return *room->session(); }
  const Map& yard() { return *session().quilt().mapNamed("Depot Yard"); }
  Cell cellOn(const char* layer, CellPos at) { return yard().layerNamed(layer)->cells.at(at); }
  TileRef tile(const char* sheet, std::uint32_t number);

  // The sheet of that name; nullptr where there is none.
  const Sheet* named(const char* name) {
    for (const auto& sheet : session().quilt().sheets()) {
      if (sheet->name == name) return &sheet.read();
    }
    return nullptr;
  }
  // The part of the window of that object name.
  template <class Widget>
  Widget* part(const char* name) {
    return room->findChild<Widget*>(QLatin1String(name));
  }

  // Points on the widgets.
  QPointF onTable(const char* sheet, std::uint32_t number);  // scrolls there first
  QPointF onMap(CellPos cell) { return room->canvas()->cellRect(cell).center(); }

  // Chooses an action as a person does: in the menu bar, else by its button, else by its key.
  void choose(ActionId id);

  // Keeps a picture of the window where UQ_PICTURES says, for people; else does nothing.
  void picture(const char* name, QWidget* of = nullptr);  // the workroom unless told otherwise
  // What the canvas shows, once nothing is missing from it.
  QImage shown();
  // Says how many actions the job took.
  void report(const char* job);

  std::shared_ptr<Disk> disk = realDisk();  // what the workroom opens and saves with
  Hand hand;
  std::unique_ptr<Workroom> room;

 private:
  QTemporaryDir scratch_;
  std::string folder_;
};

}  // namespace uq::test
