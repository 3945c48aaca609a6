// Rejoin: cells of a layer joined anew by whatever edgings their tiles belong to: after they were pasted, moved or taken away,
// or because somebody wants it.
//
// What lies there counts; tiles that are no edging's stay, and what is joined as it should be stays as it is, look-alikes and all.
// Cost: the cells, for each edging of the grid's family whose tiles are met. Threads: any.
#pragma once

#include <functional>

#include "core/cells/CellSet.h"
#include "core/document/Quilt.h"

namespace uq {

struct Rejoined {
  LayerCells cells;
  CellSet changed;
};
// `may`: whether a cell may be touched at all; cells outside the map's bounds may not.
// `isNew`: they were laid there just now; see Joiner::mend.
Rejoined rejoined(const Quilt& quilt, LayerAt at, const CellSet& cells, const std::function<bool(CellPos)>& may = {}, bool isNew = false);

// The same, with what the edgings bring along: laid where it belongs, on all layers that there are.
struct QuiltRejoined {
  Quilt quilt;
  CellSet changed;  // on any layer
};
QuiltRejoined rejoinedWithHems(const Quilt& quilt, LayerAt at, const CellSet& cells, const std::function<bool(CellPos)>& may = {});

// What an edit changed on the layers of a map, joined where it lies now and where it lay before. Layers on which more than `most`
// cells changed stay as the edit left them.
Quilt joinedWhereChanged(const Quilt& before, const Quilt& after, Id map, std::int64_t most = 1 << 20);

// Wherever a tile of an edging stands in for a shape, on any map, what shows better what was meant lies there now. Cost: the stand-ins.
Quilt withStandInsMended(const Quilt& quilt, const Edging& edging);

// How joining anew would leave a layer: cells that would change, and those that show less well what belongs there than they would
// with the shape that is missing; and cells, on any layer, on which lies what is brought along and does not
// belong there as it is. What was never brought along is not missed.
struct JoinFindings {
  CellSet wrong;
  CellSet standIns;
  CellSet hems;
};
JoinFindings joinFindings(const Quilt& quilt, LayerAt at);

}  // namespace uq
