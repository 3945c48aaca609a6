#include "core/check/Checks.h"

#include <algorithm>

#include "core/edit/SewnMaps.h"

namespace uq {

// One line for each <Name>Check.cpp of this folder, written by the build.
#define UQ_CHECK(name) extern const Check k##name##Check;
#include "core/check/AllChecks.inc"
#undef UQ_CHECK

const std::vector<const Check*>& allChecks() {
  static const std::vector<const Check*> all = {
#define UQ_CHECK(name) &k##name##Check,
#include "core/check/AllChecks.inc"
#undef UQ_CHECK
  };
  return all;
}

std::vector<std::string_view> allKinds() {
  std::vector<std::string_view> kinds;
  for (const Check* check : allChecks()) kinds.insert(kinds.end(), check->kinds.begin(), check->kinds.end());
  return kinds;
}

void Checks::lookAtMaps(const Quilt& quilt, Progress* progress) {
  std::erase_if(known_, [&](const auto& one) { return !quilt.map(one.first); });
  const std::vector<const Check*>& checks = allChecks();
  for (const Shared<Map>& map : quilt.maps()) {
    if (progress && progress->isCancelled()) break;
    Known& known = known_[map->id];
    if (!known.threads.empty() && known.map.is(map->revision) && known.beside == beside_) continue;
    known = {map->revision, beside_, std::vector<std::vector<LooseThread>>(checks.size())};
    for (std::size_t i = 0; i < checks.size(); ++i) {
      if (checks[i]->ofMap) checks[i]->ofMap(quilt, map.read(), known.threads[i]);
    }
  }
}

void Checks::lookAtSeams(const Quilt& quilt, Progress* progress) {
  if (quilt.seams().empty()) return knownSeams_.clear();
  const auto sewn = SewnMaps::of(quilt);
  const std::vector<const Check*>& checks = allChecks();
  std::map<Id, KnownSeam> now;
  for (const Shared<Seam>& seam : quilt.seams()) {
    const Map* map = quilt.map(seam->map);
    const Map* other = quilt.map(seam->other);
    if (!map || !other || !sewn->whyWrong(seam->id).empty()) continue;
    if (progress && progress->isCancelled()) break;
    const CellPos by = !seam->wraps() ? seam->by : seam->by == kWrapsDown ? CellPos{0, map->bounds.height()} : CellPos{map->bounds.width(), 0};
    const auto was = knownSeams_.find(seam->id);
    const bool isKnown = was != knownSeams_.end() && was->second.map.is(map->revision) && was->second.other.is(other->revision) &&
                         was->second.by == by && was->second.beside == beside_;
    if (isKnown) {
      now[seam->id] = std::move(was->second);
      continue;
    }
    KnownSeam known{map->revision, other->revision, by, beside_, std::vector<std::vector<LooseThread>>(checks.size())};
    const SeamSight sight{quilt, seam.read(), *map, *other, by, joints_ ? joints_(quilt, map->grid) : nullptr};
    for (std::size_t i = 0; i < checks.size(); ++i) {
      if (checks[i]->ofSeam) checks[i]->ofSeam(sight, known.threads[i]);
    }
    now[seam->id] = std::move(known);
  }
  knownSeams_ = std::move(now);
}

Checked Checks::of(const Quilt& quilt, Progress* progress) {
  if (!(sheets_ == quilt.sheets()) || !(edgings_ == quilt.edgings()) || !(facts_ == quilt.sharedFacts())) {
    ++beside_;
    sheets_ = quilt.sheets();
    edgings_ = quilt.edgings();
    facts_ = quilt.sharedFacts();
  }
  lookAtMaps(quilt, progress);
  lookAtSeams(quilt, progress);
  const std::vector<const Check*>& checks = allChecks();
  Checked all;
  for (std::size_t i = 0; i < checks.size(); ++i) {
    std::vector<LooseThread> found;
    for (const Shared<Map>& map : quilt.maps()) {
      const auto known = known_.find(map->id);
      if (known != known_.end() && !known->second.threads.empty())
        found.insert(found.end(), known->second.threads[i].begin(), known->second.threads[i].end());
    }
    for (const Shared<Seam>& seam : quilt.seams()) {
      const auto known = knownSeams_.find(seam->id);
      if (known != knownSeams_.end()) found.insert(found.end(), known->second.threads[i].begin(), known->second.threads[i].end());
    }
    if (checks[i]->ofQuilt && !(progress && progress->isCancelled())) checks[i]->ofQuilt(quilt, found);
    for (LooseThread& one : found) {
      const bool isSilenced = quilt.facts().silenced.contains(std::string(one.kind));
      if (isSilenced) ++all.silenced[std::string(one.kind)];
      else all.threads.push_back(std::move(one));
    }
  }
  return all;
}

}  // namespace uq
