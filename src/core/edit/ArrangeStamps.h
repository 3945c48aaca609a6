// Keeping what is in hand as a stamp, and naming, ordering, correcting and deleting stamps.
//
// Nothing changes where there is no such stamp.
#pragma once

#include "core/base/Id.h"
#include "core/document/Quilt.h"

namespace uq {

struct StampKept {
  Quilt quilt;
  Id stamp;  // empty when nothing was in hand
};

// Keeps a thing under a free name: `name`, else that of its first tile. It lies last on the Table.
StampKept keepStamp(const Quilt& quilt, const InHand& hand, const std::string& name, IdSource& ids);

// Makes a stamp what is in hand now: how one corrects it. Its name stays.
Quilt correctStamp(const Quilt& quilt, Id stamp, const InHand& hand);

// Not the empty name.
Quilt renameStamp(const Quilt& quilt, Id stamp, const std::string& name);
Quilt deleteStamp(const Quilt& quilt, Id stamp);

// The stamps in the order in which they lie on the Table.
std::vector<Id> shelfOrder(const Quilt& quilt);
// Lays a stamp before another one, or last.
Quilt movedOnShelf(const Quilt& quilt, Id stamp, Id before);

}  // namespace uq
