// What is in hand as JSON: how desks, the clipboard and lists of edits spell it (docs/format.md, "What is in hand").
//
// A tile is spelt by its sheet, its number, its turn's code and its lift; a sheet by its id, or by its file name where
// people write and read. Reading takes either, and bounds everything it takes; what is spelt wrong is refused, never
// taken for something else.
#pragma once

#include <map>

#include "core/base/Error.h"
#include "core/base/Json.h"
#include "core/document/InHand.h"
#include "core/document/Quilt.h"

namespace uq {

class Fields;

inline constexpr std::size_t kMostSpeltParts = 180'000;  // of one block; a JSON text holds a million values

enum class SheetsBy { id, file };

// What a stamp's document spells alike, whose blocks lie in files of cells beside it: the ends of a stretch; and grid,
// role, manner and rules.
Json endsJson(const StretchEnds& ends);
StretchEnds readEnds(Fields& ends);
void readHandFacts(Fields& fields, InHand& hand);

Json handJson(const InHand& hand, const Quilt& quilt, SheetsBy by);

// What sheets are called besides by their id, file or name.
using SheetNames = std::map<std::string, SheetSlot>;

// An Error says which sheet or number is not known; nothing is half read.
Result<InHand> handFromJson(const Json& json, const Quilt& quilt, const SheetNames& names = {});

// One tile, as [sheet, number], with its turn's code and its lift where they are not 0.
Result<Block::Part> tileFromJson(const Json::Array& fields, const Quilt& quilt, const SheetNames& names = {});

}  // namespace uq
