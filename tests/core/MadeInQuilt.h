// MadeInQuilt: a made sheet of joining tiles as a sheet of a small quilt, so that what joins can be laid.
#pragma once

#include "core/MadeEdgings.h"
#include "core/Support.h"
#include "core/sheets/EdgingGuess.h"

namespace uq::test {

struct MadeInQuilt {
  MadeEdging made;
  Quilt quilt = smallQuilt();
  IdSource ids{11};
  Id sheet;
  Edging truth;  // its members are tiles of the sheet

  explicit MadeInQuilt(MadeEdging from, TurnsAllowed turns = {}) : made(std::move(from)), truth(made.truth) {
    Sheet cut;
    cut.id = ids.next();
    cut.name = "made";
    cut.file = "made";
    cut.code = "MD";
    cut.picture = "made.png";
    cut.cut.cell = made.shape.cell;
    cut.pictureSize = {made.columns * made.shape.cell.w, made.rows * made.shape.cell.h};
    cut.turns = turns;
    sheet = cut.id;
    quilt = quilt.with(cut);
    (void)quilt.slotFor(sheet, "MD");
    for (EdgingMember& one : truth.members) one.tile.sheet = sheet;
  }
  std::vector<TileToGuess> tiles() const {
    std::vector<TileToGuess> all;
    for (std::uint32_t i = 0; i < static_cast<std::uint32_t>(made.columns * made.rows); ++i) all.push_back({{sheet, i}, {made.view(), made.place(i)}});
    return all;
  }
};

}  // namespace uq::test
