#include "core/edit/LayAcross.h"

#include <algorithm>

#include "core/edit/ArrangeLayers.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Region.h"

namespace uq {

std::map<Id, std::string> closedMaps(const Quilt& quilt, LayerAt layer, const std::set<Id>& shut,
                                     const std::map<Id, std::string>& unchangeable) {
  std::map<Id, std::string> closed;
  if (quilt.seams().empty()) return closed;
  const Patchwork all = Patchwork::across(quilt, layer.map);
  for (const Patch& patch : all.patches()) {
    if (patch.map == layer.map) continue;
    const Map& map = *quilt.map(patch.map);
    if (const auto why = unchangeable.find(patch.map); why != unchangeable.end()) {
      closed[patch.map] = map.name + ": " + why->second;
      continue;
    }
    const auto partner = partnerOn(quilt, layer, patch.map);
    if (!partner || !shut.contains(partner->layer)) continue;
    closed[patch.map] = quilt.layer(*partner)->name + " is hidden or locked on " + map.name + ": nothing goes over the stitch";
  }
  return closed;
}

PartnerMade withPartner(const Quilt& quilt, LayerAt layer, Id map, IdSource& ids) {
  const Map* from = quilt.map(layer.map);
  const Map* to = quilt.map(map);
  const Layer* like = quilt.layer(layer);
  if (!from || !to || !like) return {quilt, std::nullopt};
  const std::size_t index = std::min(*from->layerIndex(like->id), to->layers.size());
  LayerAdded added = addLayer(quilt, map, index, ids, like->role);
  const LayerAt made{map, added.layer};
  if (!added.quilt.layer(made)) return {quilt, std::nullopt};
  return {renameLayer(added.quilt, made, like->name), made};
}

std::optional<LayerAt> LayAcross::partner(Quilt& now, LayerAt home, Id map) {
  const auto usable = [&](LayerAt at) { return shut_.contains(at.layer) ? std::nullopt : std::optional(at); };
  if (home.map == map) return home;
  const auto made = made_.find({home.layer, map});
  if (made != made_.end() && now.layer(made->second)) return made->second;
  if (const auto there = partnerOn(now, home, map)) return usable(*there);
  if (takesAway_) return std::nullopt;
  // The same layer, however often a stroke is laid anew.
  IdSource ids(ids_ + std::hash<Id>()(map) + 31 * std::hash<Id>()(home.layer));
  PartnerMade added = withPartner(now, home, map, ids);
  if (!added.layer) return std::nullopt;
  now = std::move(added.quilt);
  return made_[{home.layer, map}] = *added.layer;
}

std::optional<LayerAt> LayAcross::partnerThere(const Quilt& quilt, LayerAt home, Id map) const {
  if (map == home.map) return home;
  const auto made = made_.find({home.layer, map});
  return made != made_.end() ? std::optional(made->second) : partnerOn(quilt, home, map);
}

LayerCells LayAcross::together(const Quilt& quilt, LayerAt home, CellRect box) const {
  LayerCells all;
  for (const Patch& patch : patchwork_.meeting(box)) {
    const auto at = partnerThere(quilt, home, patch.map);
    const Layer* layer = at ? quilt.layer(*at) : nullptr;
    if (!layer) continue;
    const CellRect common = patch.cells.intersected(box);
    const CellPos by = patch.by;
    const CellRect own{common.x0 - by.x, common.y0 - by.y, common.x1 - by.x, common.y1 - by.y};
    layer->forEachLaid(CellSet(own), [&](CellPos cell, const Laid& laid) {
      const CellPos canvas{cell.x + by.x, cell.y + by.y};
      all.lay(canvas, laid);
      if (const int meant = layer->meant.empty() ? 0 : layer->meant.at(cell); meant != 0) all.meant.set(canvas, meant);
    });
  }
  return all;
}

Quilt LayAcross::lay(Quilt now, const Quilt& before, LayerAt home, Laying& laying, const Laying::Ask& ask, bool alike,
                     Laying::Touched& touched) {
  CellSet cells = ask.cells;
  std::map<Id, LayerAt> onto;
  for (const Patch& patch : patchwork_.meeting(cells.bounds())) {
    if (onto.contains(patch.map)) continue;
    if (const auto at = partner(now, home, patch.map)) {
      onto[patch.map] = *at;
    } else {
      cells = cells.without(CellSet(patch.cells));
    }
  }
  if (alike) {
    patchwork_.forEachPatch(cells, [&](const Patch& patch, const CellSet& own) {
      const auto at = onto.find(patch.map);
      if (at == onto.end()) return;
      LayerCells edited = *now.layer(at->second);
      (void)laying.lay(edited, {ask.part, nullptr, own, {}, [&] { return own; }, false, ask.may});
      now = now.with(at->second, std::move(edited));
    });
    touched = {cells, {}};
    return now;
  }
  const CellRect box = cells.bounds().grown(margin_);
  LayerCells canvas = together(now, home, box);
  Layer was;
  static_cast<LayerCells&>(was) = together(before, home, box);
  const auto may = [&](CellPos cell) {
    if (!ask.may(cell)) return false;
    const auto patch = patchwork_.at(cell);
    return patch && partner(now, home, patch->map).has_value();
  };
  touched = laying.lay(canvas, {ask.part, &was, cells, ask.laid, ask.shape, ask.reaches, may, ask.way, ask.onLanding, ask.corners});
  return givenBack(std::move(now), canvas, home, touched.cells.united(touched.beside));
}

Quilt LayAcross::asOneMap(const Quilt& quilt, Id home, CellRect box) const {
  Map one = *quilt.map(home);
  one.bounds = box;
  for (Shared<Layer>& layer : one.layers) {
    if (!layer->holdsTiles()) continue;
    LayerCells all = together(quilt, {home, layer->id}, box);
    layer.edit([&](Layer& edited) { static_cast<LayerCells&>(edited) = std::move(all); });
  }
  return quilt.with(std::move(one));
}

Quilt LayAcross::givenBack(Quilt now, const LayerCells& canvas, LayerAt home, const CellSet& cells) {
  patchwork_.forEachPatch(cells, [&](const Patch& patch, const CellSet& own) {
    const auto at = partner(now, home, patch.map);
    if (!at) return;
    LayerCells edited = *now.layer(*at);
    own.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        const CellPos cell{first.x + i, first.y};
        const CellPos there{cell.x + patch.by.x, cell.y + patch.by.y};
        edited.lay(cell, canvas.laidAt(there));
        if (const int meant = canvas.meant.empty() ? 0 : canvas.meant.at(there); meant != 0) edited.meant.set(cell, meant);
      }
    });
    now = now.with(*at, std::move(edited));
  });
  return now;
}

}  // namespace uq
