// EdgeDrag: an edge or corner of the desk's map in the hand, from press to release.
//
// Where another map is sewn to an edge, that map's edge goes along and the seam stays; taken alone, the seam opens.
// One gesture of Work: what it shows is what letting go there would leave, and dropping it leaves no trace. The hand gives
// the cell that it is over; the edge follows along the grid's own axes.
// Cost of a move: the new room that is filled, and a count of the chunks that the edge newly goes over.
// Threads: those of the Work.
#pragma once

#include <cstdint>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/edit/ResizeMap.h"
#include "core/work/Work.h"

namespace uq {

class EdgeDrag {
 public:
  // `work` must live as long.
  explicit EdgeDrag(Work& work) : work_(work) {}

  // Takes hold of an edge at a cell beyond it; false, and the listener was told why, where the map cannot be changed.
  [[nodiscard]] bool take(const HeldEdge& edge, CellPos at);
  // True until the gesture has ended, by whomever.
  bool isHeld() const { return held_ && began_ == work_.gesturesBegun() && work_.gesture(); }
  // `screens`: to whole screens of the player; `alone`: the opposite edge goes as far the other way, but where another map
  // is sewn to the edge, this map's edge alone moves.
  void dragTo(CellPos at, bool screens, bool alone);
  // What is laid in new room from now on; the desk remembers it.
  void setRoom(NewRoom room);
  NewRoom room() const { return work_.desk().newRoom; }
  // Lets go: one step.
  void leave();

  const HeldEdge& edge() const { return edge_; }
  // Whether there is new room in it.
  bool grows() const { return grows_; }
  // What the map as it is shown cuts off, and brings back, of painted cells.
  std::int64_t cut() const { return cut_; }
  std::int64_t broughtBack() const { return broughtBack_; }
  // What would lie outside then, other than painted cells; see leftOutside.
  const std::vector<std::string>& outside() const { return outside_; }
  // The other maps that are sewn to what moves, by name; and whether their seams open.
  const std::string& sewn() const { return sewnTo_; }
  bool opens() const { return !sewnTo_.empty() && alone_; }
  // Other seams that cannot stay then.
  const std::vector<std::string>& opened() const { return opened_; }
  // Why the edge goes no farther; empty while it does.
  const std::string& refusal() const { return refusal_; }

 private:
  struct Along {
    Id seam;
    Id map;
    HeldEdge edge;  // of that map
    PaintedCount count;
  };
  void show();
  // The maps whose edges lie on what is held.
  std::vector<Along> along() const;
  // Their bounds, once the held edge lies there.
  static std::set<Id> seamsOf(const std::vector<Along>& along);
  static CellRect movedAlong(const Along& other, const Map& map, const CellRect& from, const CellRect& to);

  Work& work_;
  bool held_ = false;
  std::uint64_t began_ = 0;
  HeldEdge edge_;
  CellPos from_;
  EdgeWay way_;
  std::optional<PaintedCount> count_;
  std::vector<Along> along_;
  std::string sewnTo_;
  bool alone_ = false;
  std::vector<std::string> opened_;
  bool grows_ = false;
  std::int64_t cut_ = 0;
  std::int64_t broughtBack_ = 0;
  CellSet selected_;  // when it was taken
  std::vector<std::string> outside_;
  std::string refusal_;
};

}  // namespace uq
