// MaterialStrip: the edgings of the quilt on the Table, each with its materials as swatches. A press takes a material into the
// hand, with which one paints what lies somewhere, and its borders follow. Takes no room where there is none.
// Threads: the interface's.
#pragma once

#include <QFrame>
#include <QIcon>

#include "app/workroom/Session.h"

class QVBoxLayout;

namespace uq {

// The tile by which a material is seen, on its colour; so many logical pixels a side.
inline constexpr int kSwatchSide = 24;
QIcon swatchOf(Session& session, const Edging& edging, MaterialIndex material, double ratio);

class MaterialStrip : public QFrame {
  Q_OBJECT

 public:
  explicit MaterialStrip(QWidget* parent);

  void setSession(Session* session);  // nullptr: there is none

 Q_SIGNALS:
  void benchWanted(uq::Id edging);  // it is to be seen on the bench
  void handsFree();  // something was taken: the keys may go back to the map

 private:
  void refresh();
  void showHeld();
  void add(const Edging& edging, QVBoxLayout* into);

  Session* session_ = nullptr;
};

}  // namespace uq
