// Ways that lead nowhere, one way only, or to where nobody can arrive.
#include <map>
#include <set>

#include "core/check/LooseThread.h"
#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"
#include "core/edit/Seams.h"
#include "core/edit/Standing.h"

namespace uq {

namespace {

constexpr std::string_view kDead = "dead doorway";
constexpr std::string_view kNoWayBack = "no way back";
constexpr std::string_view kArrival = "arrival";
constexpr std::string_view kDisagree = "ends that disagree";
constexpr std::string_view kItself = "doorway to itself";
constexpr std::string_view kTwice = "doubled doorway";
constexpr std::string_view kSewn = "edge that leads is sewn";

class DoorwayRound {
 public:
  DoorwayRound(const Quilt& quilt, Check::Threads& threads) : quilt_(quilt), threads_(threads) {
    for (const Shared<Doorway>& doorway : quilt.doorways()) leaving_[doorway->from].insert(doorway->to);
  }

  void look(const Doorway& doorway) {
    const Pin* from = quilt_.pin(doorway.from);
    const Pin* to = quilt_.pin(doorway.to);
    if (!from || !to) return tellDead(doorway, from, to);
    if (doorway.from == doorway.to) {
      return tell(kItself, doorway, doorway.from, called(doorway) + " leads to itself", LooseThread::Mend::takeWayOut, "Take it out");
    }
    if (!told_.insert({doorway.from, doorway.to}).second) {
      tell(kTwice, doorway, doorway.from, called(doorway) + " is there twice", LooseThread::Mend::takeWayOut, "Take one out");
    }
    lookAtEdge(doorway, doorway.from, *from);
    if (doorway.back) lookAtEdge(doorway, doorway.to, *to);
    lookAtArrival(doorway, doorway.to, doorway.arriving);
    if (doorway.back) return lookAtArrival(doorway, doorway.from, *doorway.back);
    const auto other = leaving_.find(doorway.to);
    const bool leadsOn = other != leaving_.end();
    const bool leadsBack = leadsOn && other->second.contains(doorway.from);
    if (leadsOn && !leadsBack) {
      tell(kDisagree, doorway, doorway.from,
           called(doorway) + " ends at “" + pinText(*to) + "”, which leads on to somewhere else");
    } else if (!leadsBack && !doorway.meantSo) {
      tell(kNoWayBack, doorway, doorway.from, called(doorway) + " has no way back", LooseThread::Mend::makeWayBack, "Lead back, too");
    }
  }

 private:
  void tell(std::string_view kind, const Doorway& doorway, PinAt at, std::string text,
            LooseThread::Mend mend = LooseThread::Mend::nothing, std::string mendText = {}) {
    const Map* map = quilt_.map(at.map);
    const Pin* pin = quilt_.pin(at);
    threads_.push_back({kind, map ? map->id : Id(), pin ? std::optional(middleOf(*pin, map->bounds)) : std::nullopt, doorway.id,
                        std::move(text), mend, std::move(mendText)});
  }

  // "The way from “Gate” to Lantern Row"
  std::string called(const Doorway& doorway) const {
    return "The way from “" + pinText(*quilt_.pin(doorway.from)) + "” to " + quilt_.map(doorway.to.map)->name;
  }

  void tellDead(const Doorway& doorway, const Pin* from, const Pin* to) {
    const PinAt left = from ? doorway.from : to ? doorway.to : doorway.from.map.empty() ? doorway.to : doorway.from;
    const PinAt gone = from ? doorway.to : doorway.from;
    const std::string what = quilt_.map(gone.map) ? "to a spot that is gone" : "to a map that is gone";
    const Pin* stays = from ? from : to;
    std::string text = stays ? "“" + pinText(*stays) + "” on " + quilt_.map(left.map)->name + " leads " + what : "A doorway leads " + what;
    if (!stays) text += ", from a spot that is gone";
    tell(kDead, doorway, left, std::move(text), LooseThread::Mend::takeWayOut, "Take the doorway out");
  }

  // Who walks out over a stitch is on the next map, and never comes to the doorway.
  void lookAtEdge(const Doorway& doorway, PinAt at, const Pin& pin) {
    const std::string sewn = pin.edge ? sewnAlong(quilt_, at.map, *pin.edge) : std::string();
    if (!sewn.empty()) tell(kSewn, doorway, at, "“" + pinText(pin) + "” on " + quilt_.map(at.map)->name + " leads away, but is sewn to " + sewn);
  }

  void lookAtArrival(const Doorway& doorway, PinAt at, Heading facing) {
    const Map& map = *quilt_.map(at.map);
    const auto standing = standing_.try_emplace(at.map, quilt_, map).first;
    const Pin& pin = *quilt_.pin(at);
    const CellPos cell = middleOf(pin, map.bounds);
    const std::string where = "“" + pinText(pin) + "” on " + map.name;
    if (!map.bounds.contains(cell)) return tell(kArrival, doorway, at, "Who arrives at " + where + " is outside the map");
    if (!standing->second.canStand(cell)) return tell(kArrival, doorway, at, "Who arrives at " + where + " stands in something solid");
    if (!sideOf(map.grid.kind, facing)) {
      return tell(kArrival, doorway, at, "Nobody can face " + std::string(headingName(facing)) + " at " + where, LooseThread::Mend::turnArrival,
                  "Face the nearest way");
    }
    const std::vector<Heading> open = standing->second.openSides(cell);
    if (!open.empty() && std::find(open.begin(), open.end(), facing) == open.end()) {
      tell(kArrival, doorway, at, "Who arrives at " + where + " faces " + std::string(headingName(facing)) + ", where nobody can go on",
           LooseThread::Mend::turnArrival, "Face an open side");
    }
  }

  const Quilt& quilt_;
  Check::Threads& threads_;
  std::map<PinAt, std::set<PinAt>> leaving_;
  std::set<std::pair<PinAt, PinAt>> told_;  // ends of those that were looked at
  std::map<Id, Standing> standing_;
};

void lookAtDoorways(const Quilt& quilt, Check::Threads& threads) {
  DoorwayRound round(quilt, threads);
  for (const Shared<Doorway>& doorway : quilt.doorways()) round.look(doorway.read());
}

}  // namespace

extern const Check kDoorwaysCheck;
const Check kDoorwaysCheck{{kDead, kNoWayBack, kArrival, kDisagree, kItself, kTwice, kSewn}, nullptr, lookAtDoorways};

}  // namespace uq
