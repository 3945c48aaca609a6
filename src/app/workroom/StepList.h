// StepList: everything that was done to the quilt, by name, the newest on top; a click goes back to just after a step.
// Esc, a press elsewhere and the key that opened it close it.
#pragma once

#include <QListWidget>

#include "app/workroom/Session.h"

class QLabel;

namespace uq {

class StepList : public QListWidget {
  Q_OBJECT

 public:
  explicit StepList(QWidget* parent);

  // Opens as a popup below a point, with the steps of the session, which must outlive it.
  void open(Session* session, QPoint below);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void choose(QListWidgetItem* item);

  Session* session_ = nullptr;
  QLabel* hint_;  // how it is closed
};

}  // namespace uq
