// Tape: the row of tools under the canvas, numbers first, and the options of the active tool at its right.
#pragma once

#include <QWidget>

#include "app/actions/Actions.h"

class QLabel;

namespace uq {

class NumberField;
class Session;

class Tape : public QWidget {
  Q_OBJECT

 public:
  explicit Tape(Actions* actions, QWidget* parent = nullptr);

  // Shows the options that matter for the tool and the map of a session, which may be nullptr.
  void refresh(Session* session);

 Q_SIGNALS:
  void handsFree();  // an option was set by Enter: the keys may go back to the map

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  Actions* actions_;
  Session* session_ = nullptr;
  std::map<ActionId, QWidget*> buttons_;
  QWidget* boxes_;
  std::vector<QWidget*> lifts_;
  NumberField* lift_;
};

}  // namespace uq
