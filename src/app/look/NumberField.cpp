#include "app/look/NumberField.h"

#include <QApplication>
#include <QFocusEvent>
#include <QKeyEvent>
#include <QMetaMethod>
#include <QMouseEvent>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <utility>

#include "core/base/Arithmetic.h"

namespace uq {

NumberField::NumberField(const QString& name, double least, double most, int decimals, QWidget* parent)
    : QLineEdit(parent), value_(least), least_(least), most_(most), decimals_(decimals) {
  setAccessibleName(name);
  setToolTip(tr("%1: a number or a sum, like 23*16 or +5").arg(name));
  setAlignment(Qt::AlignRight);
  setMaxLength(100);
  const int digits = static_cast<int>(std::max(spelt(least).size(), spelt(most).size()));
  setFixedWidth(fontMetrics().horizontalAdvance(QLatin1Char('0')) * std::clamp(digits, 3, 5) + 18);
  connect(this, &QLineEdit::editingFinished, this, [this] { take(typed()); });
}

QString NumberField::spelt(double value) const { return QString::number(value, 'f', decimals_); }

void NumberField::setValue(double value) {
  value_ = value;
  setText(spelt(value));
}

double NumberField::typed() const {
  const auto value = computed(text().toStdString(), value_);
  if (!value) return value_;
  const double unit = std::pow(10, decimals_);
  const double rounded = std::round(*value * unit) / unit;
  return rounded < least_ || rounded > most_ ? value_ : rounded;
}

void NumberField::take(double value) {
  const bool changed = value != value_;
  setValue(value);
  if (changed) Q_EMIT valueChanged(value);
}

void NumberField::wheelEvent(QWheelEvent* event) {
  if (!hasFocus() || event->angleDelta().y() == 0) return event->ignore();
  take(std::clamp(typed() + (event->angleDelta().y() > 0 ? 1 : -1), least_, most_));
  event->accept();
}

void NumberField::keyPressEvent(QKeyEvent* event) {
  const bool up = event->key() == Qt::Key_Up;
  if (!up && event->key() != Qt::Key_Down) return QLineEdit::keyPressEvent(event);
  const int step = event->modifiers() & Qt::ShiftModifier ? 10 : 1;
  take(std::clamp(typed() + (up ? step : -step), least_, most_));
  selectAll();
}

void NumberField::focusInEvent(QFocusEvent* event) {
  cameByPress_ = event->reason() == Qt::MouseFocusReason;
  QLineEdit::focusInEvent(event);
}

void NumberField::mousePressEvent(QMouseEvent* event) {
  mayDrag_ = std::exchange(cameByPress_, false) && event->button() == Qt::LeftButton;
  pressedAt_ = event->pos();
  pressedValue_ = value_;
  QLineEdit::mousePressEvent(event);
}

void NumberField::mouseMoveEvent(QMouseEvent* event) {
  if (!mayDrag_ || !(event->buttons() & Qt::LeftButton)) return QLineEdit::mouseMoveEvent(event);
  const int across = event->pos().x() - pressedAt_.x();
  if (!drags_ && std::abs(across) < QApplication::startDragDistance()) return;
  if (!std::exchange(drags_, true)) {
    deselect();
    setCursor(Qt::SizeHorCursor);
    Q_EMIT dragBegan();
  }
  const double by = decimals_ > 0 ? across / 100.0 : std::trunc(across / 2.0);
  const double unit = std::pow(10, decimals_);
  const double to = std::clamp(std::round((pressedValue_ + by) * unit) / unit, least_, most_);
  if (isSignalConnected(QMetaMethod::fromSignal(&NumberField::dragBegan))) {
    take(to);
  } else {
    setText(spelt(to));
  }
}

void NumberField::mouseReleaseEvent(QMouseEvent* event) {
  const bool first = std::exchange(mayDrag_, false);
  if (!std::exchange(drags_, false)) {
    QLineEdit::mouseReleaseEvent(event);
    // The first press means the whole number.
    if (first) selectAll();
    return;
  }
  unsetCursor();
  take(typed());
  Q_EMIT dragEnded();
  clearFocus();
}

}  // namespace uq
