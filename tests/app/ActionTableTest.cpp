#include <QGuiApplication>
#include <QKeySequence>
#include <QProcess>
#include <QWidget>
#include <map>
#include <set>

#include "app/actions/ActionTable.h"
#include "app/actions/KeyBindings.h"
#include "app/actions/KeyLabels.h"
#include "app/actions/PhysicalKeys.h"
#include "app/look/Icons.h"
#include "core/work/EditReading.h"

namespace uq {

TEST(ActionTable, NamesKeysAndWordsAreEachGivenOnce) {
  std::set<std::string> names;
  std::set<std::string> keys;
  std::set<std::string> texts;
  std::set<ActionId> ids;
  for (const ActionRow& row : actionTable()) {
    EXPECT_TRUE(ids.insert(row.id).second) << row.name;
    EXPECT_TRUE(names.insert(row.name).second) << row.name;
    EXPECT_TRUE(texts.insert(row.text).second) << row.text;
    EXPECT_NE(std::string(row.tip), "") << row.name;
    if (row.gesture || !*row.keys) continue;
    const QKeySequence sequence(QLatin1String(row.keys), QKeySequence::PortableText);
    EXPECT_EQ(sequence.count(), 1) << row.name;
    EXPECT_TRUE(keys.insert(sequence.toString().toStdString()).second)
        << row.keys << " is given to " << row.name << " too";
  }
}

TEST(ActionTable, EveryRowCanBeReached) {
  for (const ActionRow& row : actionTable()) {
    if (row.gesture) continue;
    // What has no menu is a tool or an option on the tape, and those have icons; or it has a key.
    EXPECT_TRUE(row.menu != Menu::none || *row.icon || *row.keys) << row.name;
    EXPECT_EQ(&actionRow(row.id), &row);
  }
}

TEST(ActionTable, EveryIconThatIsNamedIsDrawnInTheThemesInk) {
  int icons = 0;
  for (const ActionRow& row : actionTable()) {
    if (!*row.icon) continue;
    ++icons;
    for (const int size : {16, 24, 48}) {
      const QImage drawn = icon(QLatin1String(row.icon), Qt::red).pixmap(size, size).toImage();
      int inked = 0;
      for (int y = 0; y < drawn.height(); ++y) {
        for (int x = 0; x < drawn.width(); ++x) inked += drawn.pixelColor(x, y).alpha() > 80 ? 1 : 0;
      }
      EXPECT_GT(inked, size) << row.name << " at " << size;
    }
  }
  EXPECT_GT(icons, 30);
}

TEST(ActionTable, SingleKeysActOnlyOnCanvasAndTable) {
  for (const ActionRow& row : actionTable()) {
    if (row.gesture || !*row.keys) continue;
    const QKeySequence keys(QLatin1String(row.keys), QKeySequence::PortableText);
    const bool withControl = std::string(row.keys).find("Ctrl") != std::string::npos;
    EXPECT_FALSE(KeyBindings::isSingle(keys) && row.actsIn == ActsIn::anywhere) << row.name;
    EXPECT_FALSE(withControl && row.actsIn == ActsIn::canvas) << row.name;
  }
}

TEST(PhysicalKeys, GoByTheirPlaceOnTheKeyboard) {
  // On a French keyboard the key left of W's place is labelled A, and stands where Q does here.
  const QKeyEvent event(QEvent::KeyPress, Qt::Key_A, Qt::NoModifier, scanCodeOf(Qt::Key_Q), 0, 0);
  EXPECT_EQ(physicalKey(event), Qt::Key_Q);
  const QKeyEvent plain(QEvent::KeyPress, Qt::Key_A, Qt::NoModifier);
  EXPECT_EQ(physicalKey(plain), Qt::Key_A);
  EXPECT_EQ(scanCodeOf(Qt::Key_Escape), 0u);
}

TEST(KeyLabels, AreReadFromAnX11KeyboardAndLearntElsewhere) {
  KeyLabels& labels = KeyLabels::shared();
  const QKeySequence shiftQ(static_cast<int>(Qt::Key_Q) | static_cast<int>(Qt::ShiftModifier));
  const bool x11 = QGuiApplication::platformName() == QLatin1String("xcb");
  EXPECT_EQ(labels.text(shiftQ), QStringLiteral("Shift+Q"));
  if (x11) {
    ASSERT_EQ(QProcess::execute(QStringLiteral("setxkbmap"), {QStringLiteral("fr")}), 0);
    labels.readKeyboard();
  } else {
    QKeyEvent pressed(QEvent::KeyPress, Qt::Key_A, Qt::NoModifier, scanCodeOf(Qt::Key_Q), 0, 0);
    QWidget somewhere;
    QCoreApplication::sendEvent(&somewhere, &pressed);
  }
  EXPECT_EQ(labels.text(shiftQ), QStringLiteral("Shift+A"));
  EXPECT_EQ(labels.text(QKeySequence(Qt::Key_1)), QStringLiteral("1"));
  EXPECT_EQ(KeyBindings::shared().text(ActionId::turnLeft), QStringLiteral("A")) << "acts by its place";
  EXPECT_EQ(KeyBindings::shared().text(ActionId::selectAll), QStringLiteral("Ctrl+A")) << "acts by its label";
  if (x11) {
    ASSERT_EQ(QProcess::execute(QStringLiteral("setxkbmap"), {QStringLiteral("us")}), 0);
    labels.readKeyboard();
  } else {
    QKeyEvent pressed(QEvent::KeyPress, Qt::Key_Q, Qt::NoModifier, scanCodeOf(Qt::Key_Q), 0, 0);
    QWidget somewhere;
    QCoreApplication::sendEvent(&somewhere, &pressed);
  }
  EXPECT_EQ(labels.text(shiftQ), QStringLiteral("Shift+Q"));
}

// Whatever an action changes of a quilt, a list of edits can change without a window.
TEST(ActionTable, ListsOfEditsReachWhatActionsChange) {
  // A step and what it says, or why there is none.
  struct Listed {
    std::vector<std::pair<const char*, const char*>> fields;
    const char* none = nullptr;
  };
  const std::map<std::string, Listed> steps = {
      {"throw-again", {{{"paint", "seed"}}}},
      {"cut-cells", {{{"take", "allLayers"}, {"delete", "allLayers"}}}},
      {"fill-cells", {{{"box", "from"}, {"fill", "at"}}}},
      {"move-cells-farther", {{{"toLayer", "to"}}}},
      {"move-cells-nearer", {{{"toLayer", "to"}}}},
      {"delete-cells", {{{"delete", "joins"}}}},
      {"duplicate-cells", {{{"take", "allLayers"}, {"stamp", "at"}}}},
      {"new-map", {{{"newMap", "grid"}}}},
      {"rename-map", {{{"renameMap", "name"}}}},
      {"duplicate-map", {{{"copyMap", "name"}}}},
      {"delete-map", {{{"deleteMap", "map"}}}},
      {"open-with-map", {{{"map", "opensWith"}}}},
      {"tidy-board", {{{"tidyBoard", "do"}}}},
      {"wraps-across", {{{"wrap", "way"}, {"rip", "map"}}}},
      {"wraps-down", {{{"wrap", "way"}, {"rip", "map"}}}},
      {"begin-here", {{{"begin", "pin"}}}},
      {"cut-to-used", {{{"resize", "toUsed"}}}},
      {"drop-allowance", {{{"resize", "dropsAllowance"}}}},
      {"insert-columns", {{{"resize", "insertColumns"}}}},
      {"insert-rows", {{{"resize", "insertRows"}}}},
      {"remove-columns", {{{"resize", "removeColumns"}}}},
      {"remove-rows", {{{"resize", "removeRows"}}}},
      {"add-layer", {{{"addLayer", "role"}}}},
      {"duplicate-layer", {{{"copyLayer", "name"}}}},
      {"rename-layer", {{{"layer", "name"}}}},
      {"move-layer-nearer", {{{"moveLayer", "index"}}}},
      {"move-layer-farther", {{{"moveLayer", "index"}}}},
      {"merge-layer-down", {{{"mergeLayer", "layer"}}}},
      {"keep-stamp", {{{"keep", "name"}}}},
      {"add-pins-layer", {{{"pin", "at"}, {"pin", "edge"}}}},
      {"hang-sheet", {{{"addBackdrop", "sheet"}}}},
      {"strip-covered-cells", {{{"stripCovered", "layer"}}}},
      {"delete-layer", {{{"deleteLayer", "layer"}}}},
      {"put-layers-in-folder", {{{"fold", "layers"}}}},
      {"take-folder-away", {{{"unfold", "folder"}}}},
      {"add-level", {{{"level", "rise"}}}},
      {"rename-level", {{{"folder", "name"}}}},
      {"delete-level", {{{"deleteFolder", "folder"}}}},
      {"join-anew", {{{"joinAnew", "layer"}, {"select", "all"}}}},
      {"turn-left", {{{"turn", "way"}}}},
      {"undo-step", {{}, "a list has no line of steps: nothing of it counts where one is refused"}},
      {"redo-step", {{}, "likewise"}},
      {"list-steps", {{}, "likewise"}},
      {"join-these", {{}, "uquilt edging guess --keep does it"}},
      {"lay-what-belongs", {{{"select", "from"}, {"closeJoints", "layer"}}}},
      {"lay-all-that-belongs", {{{"closeJoints", "layer"}}}},
  };
  int named = 0;
  for (const ActionRow& row : actionTable()) {
    // A gesture is the tool's, whose strokes are steps of the same names; see kStrokeSteps.
    if (!row.changesQuilt || row.gesture) continue;
    const auto step = steps.find(row.name);
    if (step == steps.end()) {
      ADD_FAILURE() << row.name << " changes the quilt, and no step is named for it";
      continue;
    }
    ++named;
    EXPECT_TRUE(step->second.none || !step->second.fields.empty()) << row.name;
    for (const auto& [what, field] : step->second.fields) EXPECT_TRUE(hasMeaning(what, field)) << row.name << ": " << what << ", " << field;
  }
  EXPECT_GE(named, 30);
}

}  // namespace uq
