// MaterialStrip: the edgings of the quilt on the Table, each with its materials as swatches. A press takes a material into the
// hand, with which one paints what lies somewhere, and its borders follow. Those of the map in sight come first; many are scrolled
// through. Takes no room where there is none.
// Threads: the interface's.
#pragma once

#include <QFrame>
#include <QIcon>

#include "app/workroom/Session.h"

class QScrollArea;
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
  QSize sizeHint() const override;

 Q_SIGNALS:
  void benchWanted(uq::Id edging);  // it is to be seen on the bench
  void handsFree();  // something was taken: the keys may go back to the map

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  void fit();
  void refresh();
  void showHeld();
  void add(const Edging& edging, QVBoxLayout* into);

  Session* session_ = nullptr;
  QScrollArea* scroll_;
  QWidget* list_ = nullptr;
  int wanted_ = 0;  // high, in logical pixels
};

}  // namespace uq
