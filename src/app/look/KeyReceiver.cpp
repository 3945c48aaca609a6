#include "app/look/KeyReceiver.h"

#include <QApplication>
#include <QEvent>
#include <QPointer>
#include <QWidget>

namespace uq {

namespace {

class KeyFilter : public QObject {
 public:
  using QObject::QObject;
  QPointer<QWidget> first;

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override {
    // Those to whom it is passed on do not have the keyboard.
    if (event->type() == QEvent::KeyPress && watched == QApplication::focusWidget()) {
      first = static_cast<QWidget*>(watched);
    }
    return false;
  }
};

QPointer<KeyFilter>& filter() {
  static QPointer<KeyFilter> filter;
  return filter;
}

}  // namespace

void watchKeys() {
  if (filter()) return;
  filter() = new KeyFilter(qApp);
  qApp->installEventFilter(filter());
}

bool wentFirstTo(const QWidget* widget) { return widget && filter() && filter()->first == widget; }

}  // namespace uq
