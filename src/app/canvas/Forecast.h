// Forecast: what a press would do, before it is pressed: the ghost, the words of the tag, why nothing would happen,
// which joints would be loose.
//
// A function of the scene and of what the hand does over it (Pointing); a canvas asks anew at each move. The stroke
// that was tried out is kept until the cell, the hand's keys or the session change, so asking again costs nothing.
// Cost: that of the stroke over one cell (see Stroke.h), and of looking for joints around it. Threads: the interface's.
#pragma once

#include <QCoreApplication>
#include <QString>
#include <memory>
#include <optional>
#include <vector>

#include "app/canvas/Scene.h"
#include "raster/JointFinder.h"

namespace uq {

// What the hand does over a canvas.
struct Pointing {
  enum class Doing { nothing, stroking, refitting, other };  // "other": any drag that lays nothing

  std::optional<CellPos> cell;  // under the pointer, or the cell cursor; only within the map
  int corner = 0;               // of that cell, nearest to the pointer; see StrokeMove
  Doing doing = Doing::nothing;
  bool takesAway = false;
  bool even = false;         // Shift is down: straight ways, equal sides, Fill everywhere
  bool looksAround = false;  // Space is down: a press would move the view
  bool onStretch = false;    // over a stretch whose handles are shown
};

// Of more cells only the outline is shown.
inline constexpr std::int64_t kMostGhost = 4096;

class Forecast {
  Q_DECLARE_TR_FUNCTIONS(uq::Forecast)

 public:
  // `scene` must live as long.
  explicit Forecast(const Scene& scene);

  // The session changed.
  void forget() { tried_.reset(); }

  // The stroke as a press would make it; nullptr where nothing can be foretold. Good until the next call.
  const Stroke* stroke(const Pointing& pointing);
  // The stroke under way, else the foretold one.
  const Stroke* strokeShown(const Pointing& pointing);
  // The stroke under way; nullptr while there is none.
  const Stroke* underWay() const { return scene_.session().verbs().strokes.stroke(); }

  // The cells that the press would cover; the pointed one where nothing can be foretold.
  CellSet footprint(const Pointing& pointing);
  // What would lie there, to be drawn over `ghostBase`; no cells where only the outline is shown.
  GhostCells ghost(const Pointing& pointing);
  // The quilt on which the ghost lies: with the layer that the press would make.
  Quilt ghostBase(const Pointing& pointing);
  // The layer on which it would land; nullptr where there is none. Good until the next call.
  const Layer* landing(const Pointing& pointing);
  // By how much what is laid is raised above its layer, in map pixels.
  int lift(bool takesAway) const;

  // Why the press would do nothing; empty when it would do something.
  QString whyNothing(const Pointing& pointing);
  // What the tag says: of the stroke under way, or of what the press would do. Empty when there is nothing to say.
  QString words(const Pointing& pointing);

  struct JointAt {
    Id layer;
    LooseJoint joint;
  };
  // The joints that the press would leave loose, and those of all layers in sight.
  std::vector<JointAt> joints(const Pointing& pointing);
  std::vector<JointAt> jointsInSight(const MapView& view);

 private:
  // No press lays anything.
  bool selects() const { return scene_.desk().tool == Tool::select || scene_.desk().tool == Tool::pins; }
  QString strokeName(bool takesAway, const Landing* landing = nullptr) const;
  QString wordsOfStroke(const Stroke& stroke) const;
  // Which other maps it goes over a stitch to, and why it stops at one.
  QString reached(const Stroke& stroke) const;
  QString wordsOfSelecting(CellPos cell) const;
  QString wordsOfPress(const Pointing& pointing);
  // "7, 12, up 1": where the stroke would lie, where that is not on the ground; else empty.
  QString height(CellPos cell, bool takesAway) const;
  // How many cells beside what is laid change with it; empty where what is in hand does not join.
  static QString mended(const Stroke& stroke);

  const Scene& scene_;
  JointFinder joints_;
  // What was tried out, and for what.
  std::optional<Stroke> tried_;
  CellPos triedAt_;
  int triedCorner_ = 0;
  bool triedAway_ = false;
  bool triedEven_ = false;
};

}  // namespace uq
