// Hand: the mouse and keyboard of the storyboards.
//
// Each call is a movement that a person makes, and is sent as real events: to the window through Qt's own entry for
// window-system events offscreen, through the X server's test extension in a real window. Counts what was done: a
// click, drag, chord, key, wheel turn or typed field is one action; moving the pointer is none. After each call its
// events have been handled.
#pragma once

#include <QPointF>
#include <QPointer>
#include <QString>
#include <QWidget>
#include <functional>
#include <memory>
#include <vector>

namespace uq::test {

class Hand {
 public:
  Hand();
  ~Hand();

  // Shows a window and waits until it is on the screen and active.
  void show(QWidget& window);

  void moveTo(QWidget* widget, QPointF at);
  void click(QWidget* widget, QPointF at, Qt::MouseButton button = Qt::LeftButton,
             Qt::KeyboardModifiers modifiers = {});
  // In the middle of a widget.
  void click(QWidget* widget);
  void doubleClick(QWidget* widget);
  void doubleClick(QWidget* widget, QPointF at);
  // Presses at the first point and releases at the last.
  void drag(QWidget* widget, const std::vector<QPointF>& path, Qt::MouseButton button = Qt::LeftButton,
            Qt::KeyboardModifiers modifiers = {});
  // The halves of a drag, for what happens in between; together one action.
  void press(QWidget* widget, QPointF at, Qt::MouseButton button = Qt::LeftButton,
             Qt::KeyboardModifiers modifiers = {});
  void release(QWidget* widget, QPointF at, Qt::MouseButton button = Qt::LeftButton,
               Qt::KeyboardModifiers modifiers = {});
  void key(Qt::Key key, Qt::KeyboardModifiers modifiers = {});
  // The halves of a key, for what happens in between; together one action.
  void hold(Qt::Key key);
  void letGo(Qt::Key key);
  void wheel(QWidget* widget, QPointF at, int notches, Qt::KeyboardModifiers modifiers = {});
  void type(const QString& text);
  // Files that are dragged in from another program and let go over a widget.
  void drop(QWidget* widget, QPointF at, const QStringList& paths);

  // Does something in the next dialog of that object name, as soon as it is on the screen.
  void inDialog(const QString& name, std::function<void(QWidget&)> act);

  int actions() const { return actions_; }

 private:
  class Device;
  class OffscreenDevice;
  class XDevice;
  std::unique_ptr<Device> device_;
  std::unique_ptr<QObject> strangers_;
  QPointer<QWidget> shown_;
  int actions_ = 0;
};

// Waits for a condition that the event loop will bring about; false after five seconds.
bool waitFor(const std::function<bool()>& condition);

// Lets everything that is posted or due be handled.
void settle();

}  // namespace uq::test
