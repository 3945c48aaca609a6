#include "app/Hand.h"

#include <xcb/xcb.h>
#include <xcb/xtest.h>

#include <QApplication>
#include <QDialog>
#include <QDragEnterEvent>
#include <QKeyEvent>
#include <QMimeData>
#include <QUrl>
#include <QPointer>
#include <QScrollArea>
#include <QTest>
#include <QWheelEvent>
#include <QWindow>
#include <cstdlib>

#include "app/actions/PhysicalKeys.h"

namespace uq::test {

namespace {

QPoint inWindow(QWidget* widget, QPointF at) { return widget->mapTo(widget->window(), at.toPoint()); }

// A dialog that no story expects would wait for ever: closes it and fails the test.
class StrangerWatch : public QObject {
 public:
  StrangerWatch() { qApp->installEventFilter(this); }
  bool eventFilter(QObject* object, QEvent* event) override {
    auto* dialog = qobject_cast<QDialog*>(object);
    if (event->type() != QEvent::Show || !dialog || expected.removeOne(dialog->objectName())) return false;
    ADD_FAILURE() << "a dialog that nobody expected: " << dialog->objectName().toStdString();
    QMetaObject::invokeMethod(dialog, &QDialog::reject, Qt::QueuedConnection);
    return false;
  }
  QStringList expected;
};

// Runs an act once, when a dialog of that name has been shown.
class DialogWatch : public QObject {
 public:
  DialogWatch(QString name, std::function<void(QWidget&)> act) : name_(std::move(name)), act_(std::move(act)) {
    qApp->installEventFilter(this);
  }
  bool eventFilter(QObject* object, QEvent* event) override {
    auto* widget = qobject_cast<QWidget*>(object);
    if (event->type() != QEvent::WindowActivate || !widget || !widget->isWindow() || widget->objectName() != name_) {
      return false;
    }
    qApp->removeEventFilter(this);
    const QPointer<QWidget> dialog(widget);
    QMetaObject::invokeMethod(
        this,
        [this, dialog] {
          if (dialog) act_(*dialog);
          deleteLater();
        },
        Qt::QueuedConnection);
    return false;
  }

 private:
  QString name_;
  std::function<void(QWidget&)> act_;
};

}  // namespace

bool waitFor(const std::function<bool()>& condition) { return QTest::qWaitFor(condition, 5000); }

void settle() {
  QApplication::sendPostedEvents();
  QApplication::processEvents();
  QApplication::processEvents();
}

class Hand::Device {
 public:
  virtual ~Device() = default;
  virtual void move(QWidget* widget, QPoint at, Qt::MouseButton held, Qt::KeyboardModifiers modifiers) = 0;
  virtual void button(QWidget* widget, QPoint at, Qt::MouseButton button, bool down,
                      Qt::KeyboardModifiers modifiers) = 0;
  virtual void key(Qt::Key key, Qt::KeyboardModifiers modifiers) = 0;
  virtual void wheel(QWidget* widget, QPoint at, int notches, Qt::KeyboardModifiers modifiers) = 0;
  virtual void hold(Qt::KeyboardModifiers modifiers, bool down) = 0;
};

class Hand::OffscreenDevice : public Device {
 public:
  void move(QWidget* widget, QPoint at, Qt::MouseButton, Qt::KeyboardModifiers modifiers) override {
    QTest::mouseEvent(QTest::MouseMove, widget->window()->windowHandle(), Qt::NoButton, modifiers, at);
  }
  void button(QWidget* widget, QPoint at, Qt::MouseButton button, bool down, Qt::KeyboardModifiers modifiers) override {
    QWindow* window = widget->window()->windowHandle();
    if (down) {
      QTest::mousePress(window, button, modifiers, at);
    } else {
      QTest::mouseRelease(window, button, modifiers, at);
    }
  }
  void key(Qt::Key key, Qt::KeyboardModifiers modifiers) override {
    QWindow* window = QApplication::activeWindow()->windowHandle();
    const quint32 scan = scanCodeOf(key);
    if (scan == 0 || (modifiers & Qt::ControlModifier)) {
      QTest::keyClick(window, key, modifiers);
      return;
    }
    const QString text = modifiers & Qt::ShiftModifier ? QString(QChar(key)) : QString(QChar(key)).toLower();
    for (const auto type : {QEvent::KeyPress, QEvent::KeyRelease}) {
      QKeyEvent event(type, key, modifiers, scan, 0, 0, text);
      QApplication::sendEvent(window, &event);
    }
  }
  void wheel(QWidget* widget, QPoint at, int notches, Qt::KeyboardModifiers modifiers) override {
    QWheelEvent event(at, widget->window()->mapToGlobal(at), {}, QPoint(0, notches * 120), Qt::NoButton, modifiers,
                      Qt::NoScrollPhase, false);
    QApplication::sendEvent(widget->window()->windowHandle(), &event);
  }
  void hold(Qt::KeyboardModifiers, bool) override {}
};

class Hand::XDevice : public Device {
 public:
  XDevice() : connection_(xcb_connect(nullptr, nullptr)) {
    root_ = xcb_setup_roots_iterator(xcb_get_setup(connection_)).data->root;
  }
  ~XDevice() override { xcb_disconnect(connection_); }

  void move(QWidget* widget, QPoint at, Qt::MouseButton, Qt::KeyboardModifiers) override { warp(widget, at); }
  void button(QWidget* widget, QPoint at, Qt::MouseButton button, bool down, Qt::KeyboardModifiers) override {
    warp(widget, at);
    const int number = button == Qt::LeftButton ? 1 : button == Qt::MiddleButton ? 2 : 3;
    fake(down ? XCB_BUTTON_PRESS : XCB_BUTTON_RELEASE, static_cast<quint8>(number));
    await(down ? QEvent::MouseButtonPress : QEvent::MouseButtonRelease);
  }
  void key(Qt::Key key, Qt::KeyboardModifiers modifiers) override {
    hold(modifiers, true);
    fake(XCB_KEY_PRESS, codeOf(key));
    await(QEvent::ShortcutOverride);
    fake(XCB_KEY_RELEASE, codeOf(key));
    await(QEvent::KeyRelease);
    hold(modifiers, false);
  }
  void wheel(QWidget* widget, QPoint at, int notches, Qt::KeyboardModifiers) override {
    warp(widget, at);
    for (int i = 0; i < std::abs(notches); ++i) {
      const quint8 number = notches > 0 ? 4 : 5;
      fake(XCB_BUTTON_PRESS, number);
      fake(XCB_BUTTON_RELEASE, number);
      await(QEvent::Wheel);
    }
  }
  void hold(Qt::KeyboardModifiers modifiers, bool down) override {
    const std::pair<Qt::KeyboardModifier, quint8> codes[] = {
        {Qt::ControlModifier, 37}, {Qt::ShiftModifier, 50}, {Qt::AltModifier, 64}};
    for (const auto& [modifier, code] : codes) {
      if (!(modifiers & modifier)) continue;
      fake(down ? XCB_KEY_PRESS : XCB_KEY_RELEASE, code);
      await(down ? QEvent::KeyPress : QEvent::KeyRelease);
    }
  }

 private:
  // Sees every event that reaches a window of ours.
  class Watch : public QObject {
   public:
    Watch() { qApp->installEventFilter(this); }
    bool eventFilter(QObject* object, QEvent* event) override {
      if (object->isWindowType() || event->type() == QEvent::ShortcutOverride) ++seen[event->type()];
      return false;
    }
    std::map<QEvent::Type, int> seen;
  };

  void fake(quint8 type, quint8 detail, QPoint at = {}) {
    watch_.seen.clear();
    xcb_test_fake_input(connection_, type, detail, XCB_CURRENT_TIME, root_, static_cast<qint16>(at.x()),
                        static_cast<qint16>(at.y()), 0);
    xcb_flush(connection_);
  }
  void await(QEvent::Type type) {
    if (!waitFor([&] { return watch_.seen[type] > 0; })) qWarning("the X server sent no event of type %d", type);
    settle();
  }
  void warp(QWidget* widget, QPoint at) {
    const QPoint global = widget->window()->mapToGlobal(at);
    if (QCursor::pos() == global) return;
    fake(XCB_MOTION_NOTIFY, 0, global);
    await(QEvent::MouseMove);
  }
  static quint8 codeOf(Qt::Key key) {
    switch (key) {
      case Qt::Key_Escape: return 9;
      case Qt::Key_Tab: return 23;
      case Qt::Key_Return: return 36;
      case Qt::Key_Space: return 65;
      case Qt::Key_F1: return 67;
      case Qt::Key_F2: return 68;
      default: return static_cast<quint8>(scanCodeOf(key));
    }
  }

  xcb_connection_t* connection_;
  xcb_window_t root_;
  Watch watch_;
};

Hand::Hand() : strangers_(std::make_unique<StrangerWatch>()) {
  if (QGuiApplication::platformName() == QLatin1String("xcb")) {
    device_ = std::make_unique<XDevice>();
  } else {
    device_ = std::make_unique<OffscreenDevice>();
  }
}

Hand::~Hand() = default;

void Hand::show(QWidget& window) {
  shown_ = &window;
  window.show();
  (void)QTest::qWaitForWindowExposed(&window);
  // Without a window manager nobody else gives the focus.
  window.activateWindow();
  (void)QTest::qWaitForWindowActive(&window);
  settle();
}

void Hand::moveTo(QWidget* widget, QPointF at) {
  device_->move(widget, inWindow(widget, at), Qt::NoButton, {});
  settle();
}

void Hand::press(QWidget* widget, QPointF at, Qt::MouseButton button, Qt::KeyboardModifiers modifiers) {
  ++actions_;
  device_->move(widget, inWindow(widget, at), Qt::NoButton, modifiers);
  device_->hold(modifiers, true);
  device_->button(widget, inWindow(widget, at), button, true, modifiers);
  settle();
}

void Hand::release(QWidget* widget, QPointF at, Qt::MouseButton button, Qt::KeyboardModifiers modifiers) {
  device_->button(widget, inWindow(widget, at), button, false, modifiers);
  device_->hold(modifiers, false);
  settle();
}

void Hand::click(QWidget* widget, QPointF at, Qt::MouseButton button, Qt::KeyboardModifiers modifiers) {
  drag(widget, {at}, button, modifiers);
}

void Hand::click(QWidget* widget) {
  // What is scrolled through is scrolled into sight first.
  for (QWidget* over = widget->parentWidget(); over; over = over->parentWidget()) {
    if (auto* area = qobject_cast<QScrollArea*>(over)) area->ensureWidgetVisible(widget, 0, 0);
  }
  click(widget, QRectF(widget->rect()).center());
}

void Hand::doubleClick(QWidget* widget) { doubleClick(widget, QRectF(widget->rect()).center()); }

void Hand::doubleClick(QWidget* widget, QPointF where) {
  ++actions_;
  const QPoint at = inWindow(widget, where);
  QTest::mouseDClick(widget->window()->windowHandle(), Qt::LeftButton, {}, at);
  settle();
}

void Hand::drag(QWidget* widget, const std::vector<QPointF>& path, Qt::MouseButton button,
                Qt::KeyboardModifiers modifiers) {
  press(widget, path.front(), button, modifiers);
  for (const QPointF& at : path) {
    device_->move(widget, inWindow(widget, at), button, modifiers);
    settle();
  }
  release(widget, path.back(), button, modifiers);
}

namespace {

void sendHalf(QEvent::Type type, Qt::Key key) {
  QKeyEvent event(type, key, Qt::NoModifier, scanCodeOf(key), 0, 0, QString(QChar(key)).toLower());
  QApplication::sendEvent(QApplication::activeWindow()->windowHandle(), &event);
  settle();
}

}  // namespace

void Hand::key(Qt::Key key, Qt::KeyboardModifiers modifiers) {
  ++actions_;
  // There is no window manager to hand the focus back when a dialog closes.
  if (!QApplication::activeWindow() && shown_) {
    shown_->activateWindow();
    (void)QTest::qWaitForWindowActive(shown_);
  }
  device_->key(key, modifiers);
  settle();
}

void Hand::hold(Qt::Key key) {
  ++actions_;
  sendHalf(QEvent::KeyPress, key);
}

void Hand::letGo(Qt::Key key) { sendHalf(QEvent::KeyRelease, key); }

void Hand::wheel(QWidget* widget, QPointF at, int notches, Qt::KeyboardModifiers modifiers) {
  ++actions_;
  device_->hold(modifiers, true);
  device_->wheel(widget, inWindow(widget, at), notches, modifiers);
  device_->hold(modifiers, false);
  settle();
}

void Hand::type(const QString& text) {
  ++actions_;
  // While a popup is open, keys go to what has the focus in it.
  QWidget* popup = QApplication::activePopupWidget();
  QTest::keyClicks(popup && popup->focusWidget() ? popup->focusWidget() : QApplication::focusWidget(), text);
  settle();
}

void Hand::drop(QWidget* widget, QPointF at, const QStringList& paths) {
  ++actions_;
  QMimeData data;
  QList<QUrl> urls;
  for (const QString& path : paths) urls << QUrl::fromLocalFile(path);
  data.setUrls(urls);
  // Through the window, which finds out who of its widgets takes it.
  QWindow* window = widget->window()->windowHandle();
  const QPoint point = inWindow(widget, at);
  QDragEnterEvent enter(point, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(window, &enter);
  if (!enter.isAccepted()) return settle();
  QDragMoveEvent move(point, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(window, &move);
  QDropEvent dropped(point, Qt::CopyAction, &data, Qt::NoButton, Qt::NoModifier);
  QApplication::sendEvent(window, &dropped);
  settle();
}

void Hand::inDialog(const QString& name, std::function<void(QWidget&)> act) {
  static_cast<StrangerWatch&>(*strangers_).expected << name;
  new DialogWatch(name, std::move(act));
}

}  // namespace uq::test
