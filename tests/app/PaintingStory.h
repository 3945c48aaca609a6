// What the stories about painting share: a map to paint on, and looks at what came of it.
#pragma once

#include "app/Story.h"
#include "core/work/EditList.h"
#include "core/store/JsonText.h"

namespace uq::test {

class PaintingHand : public Story {
 protected:
  void SetUp() override { openDemo(); }
  // The map that most jobs are done on: empty Chalk ground on squares.
  void makeGround(GridKind kind = GridKind::orthogonal, bool firstShift = false) {
    MapPlan plan;
    plan.name = "Siding";
    plan.width = 24;
    plan.height = 16;
    plan.grid = nearestShape(kind, {32, 32});
    if (kind != GridKind::orthogonal && kind != GridKind::diamond) plan.grid.firstShift = firstShift;
    session().verbs().maps.add(plan);
    settle();
    hand.key(Qt::Key_F);
  }
  const Map& siding() { return *session().quilt().mapNamed("Siding"); }
  Cell at(const char* layer, CellPos cell) { return siding().layerNamed(layer)->cells.at(cell); }
  std::string active() { return session().quilt().layer(session().desk().activeAt())->name; }
  std::string tag() { return room->canvas()->tagText().toStdString(); }
  MapCanvas* canvas() { return room->canvas(); }
  template <class Widget>
  Widget* in(const char* name) {
    return room->findChild<Widget*>(QLatin1String(name));
  }
  // The layers of a map, farthest first, each behind the folders around it: "Street/Rails".
  static std::vector<std::string> stackOf(const Map& map) {
    std::vector<std::string> lines;
    for (const Shared<Layer>& one : map.layers) {
      std::string line;
      for (const Id id : map.foldersAround(one->folder)) line += map.layerFolder(id)->name + "/";
      lines.push_back(line + one->name);
    }
    return lines;
  }
  std::size_t steps() { return session().undoLine().steps().size(); }
  void undo() { hand.key(Qt::Key_Z, Qt::ControlModifier); }
  // The last stroke as a list of edits, done without a window, gives the same quilt.
  void expectTheSameFromItsList(const char* what) {
    const auto stroke = session().verbs().strokes.last();
    ASSERT_TRUE(stroke) << what;
    const auto text = readJson(writeJson(stroke->list), "list");
    ASSERT_TRUE(text) << what;
    const Covers covers = session().work().covers();
    const auto done = doEdits(
        stroke->before, *text, [&](const Quilt&, const GridShape&, TileRef tile) { return covers(tile); }, "list");
    ASSERT_TRUE(done) << what << ": " << done.error().text();
    EXPECT_EQ(done->quilt, session().quilt()) << what;
  }
  // What a list of edits makes of a quilt, without a window; nothing, and told, where it cannot be done.
  std::optional<Quilt> doneFrom(const Quilt& before, const char* steps) {
    const auto list = readJson(std::string(R"({"document": "edits", "version": 1, "steps": [)") + steps + "]}", "list");
    if (!list) ADD_FAILURE() << list.error().text();
    if (!list) return std::nullopt;
    const Covers covers = session().work().covers();
    const auto done = doEdits(
        before, *list, [&](const Quilt&, const GridShape&, TileRef tile) { return covers(tile); }, "list");
    if (!done) ADD_FAILURE() << done.error().text();
    return done ? std::optional(done->quilt) : std::nullopt;
  }
  // The job as somebody would write it down in a list of edits gives the same quilt.
  void expectTheSameFrom(const Quilt& before, const char* steps, const char* what) {
    EXPECT_EQ(doneFrom(before, steps), session().quilt()) << what;
  }
  int actionsOf(const std::function<void()>& job) {
    const int before = hand.actions();
    job();
    return hand.actions() - before;
  }
};

}  // namespace uq::test
