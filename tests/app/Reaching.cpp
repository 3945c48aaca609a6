// For everybody: names for those who cannot see, room for longer words, windows small and large.
#include <QAbstractButton>
#include <QAccessible>
#include <QApplication>
#include <QLabel>
#include <QScrollArea>
#include <QTranslator>

#include "app/Story.h"

namespace uq::test {

namespace {

// Every text, 40 % longer. What is to be filled in stays.
class LongWords : public QTranslator {
 public:
  bool isEmpty() const override { return false; }
  QString translate(const char*, const char* text, const char*, int) const override {
    const QString plain = QString::fromUtf8(text);
    if (plain.startsWith(QLatin1Char('<'))) return plain;
    return plain + QString((plain.size() * 2 + 4) / 5, QLatin1Char('w'));
  }
};

// The controls of a window that somebody can reach.
std::vector<QWidget*> controlsOf(QWidget* window) {
  std::vector<QWidget*> controls;
  for (QWidget* widget : window->findChildren<QWidget*>()) {
    const bool reached = widget->focusPolicy() != Qt::NoFocus && widget->isVisible() && widget->window() == window;
    // What belongs to a control of Qt's own speaks through it.
    const bool inner = widget->objectName().startsWith(QLatin1String("qt_")) || widget->inherits("QMenuBar") ||
                       widget->inherits("QHeaderView") || widget->inherits("QComboBoxPrivateContainer");
    if (reached && !inner) controls.push_back(widget);
  }
  return controls;
}

std::string spokenName(QWidget* widget) {
  QAccessibleInterface* spoken = QAccessible::queryAccessibleInterface(widget);
  return spoken ? spoken->text(QAccessible::Name).toStdString() : std::string();
}

void expectNames(QWidget* window) {
  std::map<std::string, QString> names;
  for (QWidget* widget : controlsOf(window)) {
    const std::string name = spokenName(widget);
    const char* className = widget->metaObject()->className();
    EXPECT_FALSE(name.empty()) << widget->objectName().toStdString() << " " << className;
    EXPECT_NE(name, className);
    EXPECT_EQ(name.find("uq::"), std::string::npos) << name;
    EXPECT_TRUE(names.emplace(name, widget->objectName()).second)
        << name << " is the name of two controls of " << window->objectName().toStdString();
  }
  EXPECT_GE(names.size(), 2u) << window->objectName().toStdString();
}

// Nothing is cut: words have their room, and lie inside their window.
void expectRoom(QWidget* window, const char* when) {
  for (QWidget* widget : window->findChildren<QWidget*>()) {
    if (!widget->isVisible() || widget->window() != window) continue;
    const auto* label = qobject_cast<QLabel*>(widget);
    const bool words = qobject_cast<QAbstractButton*>(widget) || (label && !label->wordWrap());
    if (!words || widget->sizePolicy().horizontalPolicy() == QSizePolicy::Ignored) continue;
    EXPECT_GE(widget->width() + 1, widget->minimumSizeHint().width())
        << when << ": " << widget->objectName().toStdString() << " " << (label ? label->text().toStdString() : "");
    const QRect place(widget->mapTo(window, QPoint()), widget->size());
    if (!qobject_cast<QScrollArea*>(widget->parentWidget() ? widget->parentWidget()->parentWidget() : nullptr)) {
      EXPECT_LE(place.right(), window->width()) << when << ": " << widget->objectName().toStdString();
    }
  }
}

}  // namespace

class Reaching : public Story {
 protected:
  QWidget* part(const char* name) { return room->findChild<QWidget*>(QLatin1String(name)); }
};

TEST_F(Reaching, EveryControlHasANameOfItsOwn) {
  openNothing();
  expectNames(room.get());
  hand.key(Qt::Key_N, Qt::ControlModifier);
  expectNames(room.get());
  room.reset();
  openDemo();
  expectNames(room.get());
  hand.key(Qt::Key_M, Qt::ControlModifier);
  expectNames(room.get());
  hand.key(Qt::Key_Escape);
  for (const auto& [action, name] :
       {std::pair(ActionId::findHelp, "find-box"), std::pair(ActionId::listKeys, "keys-page"),
        std::pair(ActionId::listMaps, "map-list")}) {
    Story::choose(action);
    settle();
    ASSERT_TRUE(part(name)->isVisible());
    expectNames(part(name));
    part(name)->hide();
  }
  for (QAction* action : room->findChildren<QAction*>()) {
    EXPECT_FALSE(action->text().isEmpty() && !action->isSeparator() && !action->menu())
        << action->objectName().toStdString();
  }
}

TEST_F(Reaching, LongerWordsHaveTheirRoom) {
  LongWords longer;
  QApplication::installTranslator(&longer);
  openNothing();
  hand.key(Qt::Key_N, Qt::ControlModifier);
  expectRoom(room.get(), "start page");
  picture("long-start");
  room.reset();
  openDemo();
  hand.click(room->table(), onTable("street", 24));
  hand.moveTo(room->canvas(), onMap({20, 20}));
  expectRoom(room.get(), "workroom");
  picture("long-workroom");
  room->resize(1024, 700);
  settle();
  EXPECT_EQ(room->size(), QSize(1024, 700));
  expectRoom(room.get(), "small workroom");
  hand.key(Qt::Key_M, Qt::ControlModifier);
  settle();
  expectRoom(room.get(), "new map");
  picture("long-small");
  hand.key(Qt::Key_Escape);
  Story::choose(ActionId::listKeys);
  settle();
  expectRoom(part("keys-page"), "keys");
  part("keys-page")->hide();
  room.reset();
  QApplication::removeTranslator(&longer);
}

TEST_F(Reaching, ASmallWindowAndALargeOneShowEverything) {
  openDemo();
  for (const QSize size : {QSize(1024, 700), QSize(3840, 2160)}) {
    room->resize(size);
    settle();
    EXPECT_EQ(room->size(), size);
    expectRoom(room.get(), "workroom");
    EXPECT_GE(room->canvas()->width(), 430);
    EXPECT_TRUE(QRectF(room->canvas()->rect())
                    .contains(room->canvas()->cellRect({0, 0}).united(room->canvas()->cellRect({47, 31}))));
  }
}

}  // namespace uq::test
