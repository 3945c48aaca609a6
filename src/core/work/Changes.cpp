#include "core/work/Changes.h"

namespace uq {

namespace {

// The parts of one list that the other lacks or has otherwise.
template <class Part>
void compare(const std::vector<Shared<Part>>& before, const std::vector<Shared<Part>>& after, std::set<Id>& others) {
  std::map<Id, const Shared<Part>*> old;
  for (const Shared<Part>& part : before) old.emplace(part->id, &part);
  for (const Shared<Part>& part : after) {
    const auto was = old.find(part->id);
    if (was == old.end() || !(*was->second == part)) others.insert(part->id);
    if (was != old.end()) old.erase(was);
  }
  for (const auto& [id, part] : old) others.insert(id);
}

void compareMaps(const Map& before, const Map& after, QuiltChange& change) {
  bool sameLayers = before.layers.size() == after.layers.size();
  for (const Shared<Layer>& layer : after.layers) {
    const Layer* was = before.layer(layer->id);
    if (!was || !was->sameAs(layer.read())) change.painted.insert(layer->id);
  }
  for (std::size_t i = 0; sameLayers && i < after.layers.size(); ++i) {
    Layer was = before.layers[i].read();
    static_cast<LayerCells&>(was) = after.layers[i].read();
    sameLayers = was == after.layers[i].read();
  }
  Map was = before;
  was.layers = after.layers;
  if (!sameLayers || !(was == after)) change.arranged.insert(after.id);
}

}  // namespace

QuiltChange changeOf(const Quilt& before, const Quilt& after) {
  QuiltChange change;
  change.facts = !(before.sharedFacts() == after.sharedFacts());
  PartKinds::forEach([&]<class Part>() {
    compare(before.all<Part>(), after.all<Part>(), change.parts[PartKinds::numberOf<Part>()]);
  });
  for (const Id id : change.parts[PartKinds::numberOf<Map>()]) {
    const Map* was = before.map(id);
    const Map* is = after.map(id);
    if (was && is) {
      compareMaps(*was, *is, change);
    } else {
      change.arranged.insert(id);
      for (const Shared<Layer>& layer : (is ? is : was)->layers) change.painted.insert(layer->id);
    }
  }
  return change;
}

DeskChange changeOf(const Desk& before, const Desk& after) {
  const auto other = [&](auto... field) { return ((!(before.*field == after.*field)) || ...); };
  DeskChange change;
  change.map = other(&Desk::map, &Desk::openMaps, &Desk::onBoard);
  change.layer = other(&Desk::activeLayer, &Desk::alsoChosen);
  change.hand = other(&Desk::inHand, &Desk::held, &Desk::joined);
  change.tool = other(&Desk::tool, &Desk::options, &Desk::obeysLayer, &Desk::leads, &Desk::lift, &Desk::box, &Desk::newRoom,
                      &Desk::linesOfLayer);
  change.selection = other(&Desk::selections) || other(&Desk::chosenPins);
  change.sight = other(&Desk::hidden, &Desk::locked, &Desk::gridLines, &Desk::showsJoints, &Desk::fadesOthers,
                       &Desk::othersShown, &Desk::tinting, &Desk::showsCovered, &Desk::showsHoles, &Desk::foldedUp,
                       &Desk::showsFrame, &Desk::showsAllowance, &Desk::cameras, &Desk::rulers, &Desk::planView);
  change.table = other(&Desk::foldedPiles, &Desk::playsFrames);
  return change;
}

}  // namespace uq
