// MaterialStrip: the edgings of the quilt on the Table, each with its materials as swatches. A press takes a material into the
// hand, with which one paints what lies somewhere, and its borders follow. Takes no room where there is none.
// Threads: the interface's.
#pragma once

#include <QFrame>

#include "app/workroom/Session.h"

class QVBoxLayout;

namespace uq {

class MaterialStrip : public QFrame {
  Q_OBJECT

 public:
  explicit MaterialStrip(QWidget* parent);

  void setSession(Session* session);  // nullptr: there is none

 Q_SIGNALS:
  void handsFree();  // something was taken: the keys may go back to the map

 private:
  void refresh();
  void showHeld();
  void add(const Edging& edging, QVBoxLayout* into);

  Session* session_ = nullptr;
};

}  // namespace uq
