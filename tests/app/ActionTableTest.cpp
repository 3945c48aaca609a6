#include <QGuiApplication>
#include <QKeySequence>
#include <QProcess>
#include <QWidget>
#include <set>

#include "app/actions/ActionTable.h"
#include "app/actions/KeyBindings.h"
#include "app/actions/KeyLabels.h"
#include "app/actions/PhysicalKeys.h"
#include "app/look/Icons.h"

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

}  // namespace uq
