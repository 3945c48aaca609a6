// MadeShapes: pictures for shapes that an edging lacks, cut together of parts of tiles that it has (EdgingCoverage.h).
//
// Each part is what lies nearest to its corner of the cell. The pictures come as one sheet, named as made, with pile, maker, licence
// and what else is known of where the tiles came from. Cost: the pixels of the pictures. Threads: as pixelsOf.
#pragma once

#include <QImage>

#include "core/edit/EdgingCoverage.h"
#include "raster/SheetPictures.h"

namespace uq {

struct MadeShapes {
  Sheet sheet;  // for addSheet, which names it; no picture where nothing can be made
  QImage picture;
  std::vector<EdgingMember> members;  // their tiles by number; the sheet has no id yet
};

// All shapes that are missing and whose parts are there. Tiles whose pictures are not as large as the cut of the first one's sheet are
// no parts.
MadeShapes madeShapes(const Quilt& quilt, const SheetPictures& pictures, const Edging& edging, const Grid& grid);

}  // namespace uq
