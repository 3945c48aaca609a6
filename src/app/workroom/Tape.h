// Tape: the row of tools under the canvas, numbers first.
#pragma once

#include <QWidget>

#include "app/actions/Actions.h"

namespace uq {

class Tape : public QWidget {
  Q_OBJECT

 public:
  explicit Tape(Actions* actions, QWidget* parent = nullptr);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  Actions* actions_;
  std::map<ActionId, QWidget*> buttons_;
};

}  // namespace uq
