#include "app/look/WheelGuard.h"

#include <QAbstractSlider>
#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QPointer>
#include <QScrollBar>

namespace uq {

namespace {

class WheelGuard : public QObject {
 public:
  using QObject::QObject;

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override {
    if (event->type() != QEvent::Wheel && event->type() != QEvent::Polish) return false;
    auto* widget = qobject_cast<QWidget*>(watched);
    if (!widget) return false;
    // Else the wheel itself would give it the keyboard.
    if (event->type() == QEvent::Polish) {
      if (widget->focusPolicy() == Qt::WheelFocus) widget->setFocusPolicy(Qt::StrongFocus);
      return false;
    }
    const bool changes = qobject_cast<QComboBox*>(watched) || qobject_cast<QAbstractSpinBox*>(watched) ||
                         (qobject_cast<QAbstractSlider*>(watched) && !qobject_cast<QScrollBar*>(watched));
    const auto* focus = QApplication::focusWidget();
    if (!changes || (focus && (focus == widget || widget->isAncestorOf(focus)))) return false;
    event->ignore();
    return true;
  }
};

}  // namespace

void guardTheWheel() {
  static QPointer<WheelGuard> guard;
  if (guard) return;
  guard = new WheelGuard(qApp);
  qApp->installEventFilter(guard);
}

}  // namespace uq
