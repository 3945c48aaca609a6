// JointRound: the way from one loose joint of a map to the next, nearest layer first, and what belongs there being laid.
//
// The whole map is looked through beside the interface, once; the round begins anew when the map or its sheets changed
// otherwise than by closing a joint.
#pragma once

#include <QObject>
#include <vector>

#include "app/canvas/MapCanvas.h"
#include "app/workroom/LongWork.h"

namespace uq {

class JointRound : public QObject {
  Q_OBJECT

 public:
  JointRound(MapCanvas* canvas, LongWork* work) : QObject(canvas), canvas_(canvas), work_(work) {}

  // Goes to the next one, or says that there is none.
  void next(Session& session);
  // Lays what belongs at the one that was gone to, and goes to the next; goes to the first one where none was.
  void close(Session& session);
  // Lays what belongs at all of them, on all layers that take a stroke; of selected cells only where some are selected.
  // One step.
  void closeAll(Session& session);

 Q_SIGNALS:
  void said(const QString& text);

 private:
  void go(Session& session);
  // Whether what was found is still what is there.
  bool isAsFound(const Session& session) const;
  void goOnWith(Session& session, const MapCanvas::JointAt& closed);
  bool mayLook(const Session& session);

  MapCanvas* canvas_;
  LongWork* work_;
  Quilt of_;  // as it was looked through
  Id map_;
  std::vector<MapCanvas::JointAt> found_;
  std::size_t next_ = 0;
  bool isAtOne_ = false;  // the one before next_ is lit
};

}  // namespace uq
