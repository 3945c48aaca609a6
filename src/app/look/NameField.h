// NameField: a field laid over a name to change it. Enter, and leaving the field, take what is typed; Esc leaves the name
// as it was. It closes by itself, once.
#pragma once

#include <QLineEdit>
#include <functional>

namespace uq {

class NameField : public QLineEdit {
  Q_OBJECT

 public:
  // Opens at `place` with everything selected. `take` is called with a new name that is not empty and not the old one;
  // before that `closed` says that the field is gone.
  NameField(const QString& name, const QRect& place, QWidget* parent, std::function<void(const QString&)> take);

  // Closes it and leaves the name as it was.
  void drop() { close(false); }

 Q_SIGNALS:
  void closed();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  void close(bool takes);

  QString name_;
  std::function<void(const QString&)> take_;
  bool isClosed_ = false;
};

}  // namespace uq
