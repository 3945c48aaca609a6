// LayAcross: laying over seams, onto the layers of every map that lies under the hand.
//
// On each map the stroke lands on the partner of the layer on which it lands at home: the one of its role (partnerOn),
// made where there is none, as a landing would. Where one thing comes to lie everywhere, each map gets its cells. Else
// what lies around is brought together on the canvas, laid as on one large map, and given back to the maps: so a block
// or a member of a mix that lies across a stitch is whole, and comes out as it would on one map.
//
// Cost: the cells laid and, where it is no one thing, those of the box around them. One stroke's helper, on its thread.
#pragma once

#include <map>
#include <set>

#include "core/edit/Laying.h"
#include "core/edit/Patchwork.h"

namespace uq {

// Why nothing of a stroke goes to the maps that are sewn to that of a layer, by map, in words: they may not be changed, or
// the partner of the layer is hidden or locked there.
std::map<Id, std::string> closedMaps(const Quilt& quilt, LayerAt layer, const std::set<Id>& shut,
                                     const std::map<Id, std::string>& unchangeable);

// Makes the partner of a layer on a map that has none: of its role and name, as far from the ground. The quilt as it is, and
// no layer, where that cannot be.
struct PartnerMade {
  Quilt quilt;
  std::optional<LayerAt> layer;
};
PartnerMade withPartner(const Quilt& quilt, LayerAt layer, Id map, IdSource& ids);

class LayAcross {
 public:
  // `margin`: how many cells off what is in hand may reach from a cell. `ids`: a seed for layers that are made.
  LayAcross(Patchwork patchwork, std::set<Id> shut, bool takesAway, int margin, std::uint64_t ids)
      : patchwork_(std::move(patchwork)), shut_(std::move(shut)), takesAway_(takesAway), margin_(margin), ids_(ids) {}

  // Lays on the layer `home` of `now` and its partners. `ask` is of the canvas, its `before` is not looked at; `alike`: one
  // thing comes to lie on all cells, whatever lies there.
  Quilt lay(Quilt now, const Quilt& before, LayerAt home, Laying& laying, const Laying::Ask& ask, bool alike,
            Laying::Touched& touched);
  // The maps under the hand as if they were one: within a box, the layers of the map `home` hold what lies on their partners.
  Quilt asOneMap(const Quilt& quilt, Id home, CellRect box) const;
  // Cells of a layer of such a one map, given back to the maps that they are of.
  Quilt givenBack(Quilt now, const LayerCells& canvas, LayerAt home, const CellSet& cells);
  // The partner of a layer on a map, made in `now` where there is none; nothing where nothing can land there.
  std::optional<LayerAt> partner(Quilt& now, LayerAt home, Id map);

 private:
  std::optional<LayerAt> partnerThere(const Quilt& quilt, LayerAt home, Id map) const;
  LayerCells together(const Quilt& quilt, LayerAt home, CellRect box) const;

  Patchwork patchwork_;
  std::set<Id> shut_;
  bool takesAway_;
  int margin_;
  std::uint64_t ids_;
  std::map<std::pair<Id, Id>, LayerAt> made_;  // by layer at home, and map
};

}  // namespace uq
