// JointRound: the way from one loose joint of a map to the next, nearest layer first.
//
// The whole map is looked through beside the interface, once; the round begins anew when the map or its sheets changed.
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

 Q_SIGNALS:
  void said(const QString& text);

 private:
  void go(Session& session);

  MapCanvas* canvas_;
  LongWork* work_;
  Quilt of_;  // as it was looked through
  Id map_;
  std::vector<MapCanvas::JointAt> found_;
  std::size_t next_ = 0;
};

}  // namespace uq
