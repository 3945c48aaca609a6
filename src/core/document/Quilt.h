// Quilt: the whole project as one value.
//
// Maps, sheets, stamps and the quilt's own facts are Shared parts: copying a quilt is cheap, and a kept copy never
// changes. An edit takes a part out, changes it and puts it back with `with`, which draws a new revision for what
// really changed — and only for that, so putting an equal part back gives an equal quilt with all revisions kept.
//
// Invariants: ids are unique; references between parts are ids; every sheet has a slot. Slots are given out in order
// and never given to another sheet; they are no part of the saved quilt, and a sheet that is missing keeps its slot.
// Chalk (see Chalk.h) can be asked for like any sheet, and is never among sheets().
//
// Threads: one quilt belongs to one thread at a time; a copy may go to another thread and be read and edited there, since
// shared parts are never changed in place. What map(), layer(), sheet() and stamp() point to lives until this quilt is
// assigned to, edited or dropped; copies keep their own. Hold a copy, or ids, across an edit.
#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/base/Shared.h"
#include "core/document/Chalk.h"
#include "core/document/PartKinds.h"

namespace uq {

// Which sheet a cell's slot stands for while the quilt is open.
class SheetSlots {
 public:
  // The slot of a sheet, given out now if it has none; nothing when all 1022 are taken.
  std::optional<SheetSlot> slotFor(Id sheet, std::string_view code);

  std::optional<SheetSlot> find(Id sheet) const;
  // Whether a sheet has this slot.
  bool has(SheetSlot slot) const { return slot == kChalkSlot || (slot >= 1 && slot <= count()); }
  // The sheet of a slot, and the code by which the quilt's files called it. has(slot) must hold.
  Id sheet(SheetSlot slot) const { return slot == kChalkSlot ? chalk().id : entries_[slot - 1].sheet; }
  const std::string& code(SheetSlot slot) const { return slot == kChalkSlot ? chalk().code : entries_[slot - 1].code; }
  // Slots 1 .. count() are given out, and Chalk's.
  SheetSlot count() const { return static_cast<SheetSlot>(entries_.size()); }

  friend bool operator==(const SheetSlots&, const SheetSlots&) = default;

 private:
  struct Entry {
    Id sheet;
    std::string code;
    friend bool operator==(const Entry&, const Entry&) = default;
  };
  std::vector<Entry> entries_;
};

// What a layer may be for, as long as a quilt says nothing else.
inline const std::vector<std::string> kPlainRoles = {"ground", "things", "in front", "backdrop", "pins"};

// What belongs to the quilt as a whole.
struct QuiltFacts {
  Id id;
  std::string name;
  std::vector<std::string> roles = kPlainRoles;  // what layers may be for, in the order in which they are offered
  PixelSize screen{480, 270};                    // what the player's screen shows, in map pixels
  TurnsAllowed turns;                            // of the tiles of sheets that are brought in
  std::map<std::string, std::string> silenced;   // kinds of loose threads that are not told, each with the reason
  PinAt start;                                   // where the player begins; empty: nowhere yet
  Id opensWith;                                  // the map that somebody sees first; empty: the first by name
  std::vector<Id> table;                         // sheets as they lie on the Table; others follow by code
  std::vector<Id> shelf;                         // stamps as they lie on the Table; others follow by name
  Json::Object extra;                            // fields that this version does not know
  Json::Object linksExtra;                       // likewise of the document of all links
  Json::Object planExtra;                        // and of that of the plan
  Revision revision;
  friend bool operator==(const QuiltFacts&, const QuiltFacts&) = default;
};

// What lies in the quilt's folder and could not be read: its names and ids are nobody else's. No part of the saved quilt.
struct TakenNames {
  // Of a kind of parts: folders, or files without endings.
  template <class Part>
  const std::vector<std::string>& names() const {
    return byKind[PartKinds::numberOf<Part>()];
  }

  std::array<std::vector<std::string>, PartKinds::kCount> byKind;
  std::set<Id> ids;
};

struct LayerAt {
  Id map;
  Id layer;
  friend constexpr bool operator==(const LayerAt&, const LayerAt&) = default;
};

class Quilt {
 public:
  Quilt() = default;
  explicit Quilt(QuiltFacts facts) : facts_(std::move(facts)) {}

  const QuiltFacts& facts() const { return facts_.read(); }
  // All parts of a kind (see PartKinds.h), by name.
  template <class Part>
  const std::vector<Shared<Part>>& all() const {
    return std::get<std::vector<Shared<Part>>>(parts_);
  }
  const std::vector<Shared<Map>>& maps() const { return all<Map>(); }
  const std::vector<Shared<Sheet>>& sheets() const { return all<Sheet>(); }
  const std::vector<Shared<Stamp>>& stamps() const { return all<Stamp>(); }
  const std::vector<Shared<Seam>>& seams() const { return all<Seam>(); }  // by id, since they have no names
  const std::vector<Shared<ChalkPiece>>& chalkPieces() const { return all<ChalkPiece>(); }
  const std::vector<Shared<Edging>>& edgings() const { return all<Edging>(); }
  const std::vector<Shared<Doorway>>& doorways() const { return all<Doorway>(); }      // by id
  const SheetSlots& slots() const { return slots_; }

  // nullptr when there is none. Of the listed parts only: Chalk is not among them.
  template <class Part>
  const Part* listed(Id id) const;
  // The same, and Chalk, which every quilt has and none lists.
  template <class Part>
  const Part* part(Id id) const {
    if constexpr (std::is_same_v<Part, Sheet>) return sheet(id);
    else return listed<Part>(id);
  }
  const Map* map(Id id) const { return listed<Map>(id); }
  const Map* mapNamed(std::string_view name) const;  // by name or folder
  const Layer* layer(LayerAt at) const;
  const Sheet* sheet(Id id) const;
  const Sheet* sheetAt(SheetSlot slot) const;
  const Pin* pin(PinAt at) const;
  const Stamp* stamp(Id id) const { return listed<Stamp>(id); }
  const Edging* edging(Id id) const { return listed<Edging>(id); }

  // The quilt with this part put in place of the one with its id, or added. A sheet gets a slot; where all 1022 are
  // taken the quilt is returned as it was.
  Quilt with(QuiltFacts facts) const;
  template <class Part>
  Quilt with(Part part) const;
  // Nothing changes where there is no such map or layer; cells only on layers of tiles.
  Quilt with(LayerAt at, Layer layer) const;
  Quilt with(LayerAt at, LayerCells cells) const;
  // Nothing changes where there is none. A sheet that goes leaves its slot, and its tiles as placeholders.
  template <class Part>
  Quilt without(Id id) const;

  // A part put back with the revision it has: what undo does. Unlike `with`, draws none.
  Quilt restoring(const Shared<QuiltFacts>& facts) const;
  template <class Part>
  Quilt restoring(const Shared<Part>& part) const;
  const Shared<QuiltFacts>& sharedFacts() const { return facts_; }

  const TakenNames& taken() const { return taken_.read(); }
  void setTaken(TakenNames taken) { taken_ = Shared(std::move(taken)); }
  // Whether anything in the quilt has this id, or had it when the quilt was read.
  bool knows(Id id) const;

  // A slot for a sheet that may be missing; nothing when all are taken.
  std::optional<SheetSlot> slotFor(Id sheet, std::string_view code) { return slots_.slotFor(sheet, code); }

  // The same content; slots apart.
  friend bool operator==(const Quilt& a, const Quilt& b) {
    return a.facts_ == b.facts_ && a.parts_ == b.parts_;
  }

 private:
  Shared<QuiltFacts> facts_;
  PartKinds::Lists parts_;
  SheetSlots slots_;
  Shared<TakenNames> taken_;
};

template <class Part>
const Part* Quilt::listed(Id id) const {
  for (const Shared<Part>& part : all<Part>()) {
    if (part->id == id) return &part.read();
  }
  return nullptr;
}

// An id that nothing in the quilt has, also where the source gave it out before.
Id freshId(const Quilt& quilt, IdSource& ids);

// A file name for something called `name`: lower-case ASCII letters, digits and single hyphens, 1 to 60 characters,
// never one of `taken`.
std::string slugFor(std::string_view name, const std::vector<std::string>& taken);

}  // namespace uq
