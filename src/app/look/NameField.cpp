#include "app/look/NameField.h"

#include <QKeyEvent>
#include <utility>

namespace uq {

namespace {
constexpr int kLongestName = 200;  // characters
}

NameField::NameField(const QString& name, const QRect& place, QWidget* parent,
                     std::function<void(const QString&)> take)
    : QLineEdit(name, parent), name_(name), take_(std::move(take)) {
  setMaxLength(kLongestName);
  setGeometry(place);
  selectAll();
  show();
  setFocus();
  connect(this, &QLineEdit::returnPressed, this, [this] { close(true); });
}

void NameField::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) return close(false);
  QLineEdit::keyPressEvent(event);
  // What is beneath has its own meaning of Enter.
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) event->accept();
}

void NameField::focusOutEvent(QFocusEvent* event) {
  QLineEdit::focusOutEvent(event);
  close(true);
}

void NameField::close(bool takes) {
  if (std::exchange(isClosed_, true)) return;
  const QString name = text().trimmed();
  hide();
  deleteLater();
  Q_EMIT closed();
  if (takes && !name.isEmpty() && name != name_) take_(name);
}

}  // namespace uq
