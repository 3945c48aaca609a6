// KeptParts: a part of the quilt on one side of a step, as bytes that lean on what it is on the other side.
//
// Of a map its document and the chunks of cells that differ are written, of other parts what makes them up. Whoever
// reads a part has the other side at hand; for KeptSteps alone, whose form is this program's own. Cost: linear in what
// differs. Threads: any.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/document/Quilt.h"
#include "core/store/JsonText.h"

namespace uq {

// One step as it was read: what is said of it, and texts that belong to it, by number.
struct KeptRecord {
  Json said;
  std::vector<std::string_view> texts;
};

// What is written of a change, and where its texts go.
struct KeptWriting {
  Json::Object said;
  std::vector<std::string>& texts;
  const Quilt& slots;  // knows the sheets of all cells

  void add(const char* field, std::string text);
};

// `beside` is the part on the other side; nullptr where it is not there.
void writePart(const QuiltFacts& part, const QuiltFacts* beside, KeptWriting& to);
void writePart(const Map& part, const Map* beside, KeptWriting& to);
void writePart(const Sheet& part, const Sheet* beside, KeptWriting& to);
void writePart(const Stamp& part, const Stamp* beside, KeptWriting& to);
void writePart(const Seam& part, const Seam* beside, KeptWriting& to);
void writePart(const Edging& part, const Edging* beside, KeptWriting& to);
void writePart(const Target& part, const Target* beside, KeptWriting& to);
void writePart(const ChalkPiece& part, const ChalkPiece* beside, KeptWriting& to);
void writePart(const Doorway& part, const Doorway* beside, KeptWriting& to);

// Nothing where it cannot be read. `slots` gets slots for sheets that only the step knows.
std::optional<QuiltFacts> readPart(KindTag<QuiltFacts>, const Json& said, const KeptRecord& record,
                                   const QuiltFacts* beside, Quilt& slots);
std::optional<Map> readPart(KindTag<Map>, const Json& said, const KeptRecord& record, const Map* beside, Quilt& slots);
std::optional<Sheet> readPart(KindTag<Sheet>, const Json& said, const KeptRecord& record, const Sheet* beside,
                              Quilt& slots);
std::optional<Stamp> readPart(KindTag<Stamp>, const Json& said, const KeptRecord& record, const Stamp* beside,
                              Quilt& slots);
std::optional<Seam> readPart(KindTag<Seam>, const Json& said, const KeptRecord& record, const Seam* beside,
                             Quilt& slots);
std::optional<Edging> readPart(KindTag<Edging>, const Json& said, const KeptRecord& record, const Edging* beside, Quilt& slots);
std::optional<Target> readPart(KindTag<Target>, const Json& said, const KeptRecord& record, const Target* beside, Quilt& slots);
std::optional<ChalkPiece> readPart(KindTag<ChalkPiece>, const Json& said, const KeptRecord& record,
                                   const ChalkPiece* beside, Quilt& slots);
std::optional<Doorway> readPart(KindTag<Doorway>, const Json& said, const KeptRecord& record,
                                   const Doorway* beside, Quilt& slots);

// What a record says, field by field; what is not there, or of another kind, is `otherwise`, empty, or an empty list.
std::int64_t keptWhole(const Json& json, std::string_view field, std::int64_t otherwise = -1);
std::string keptText(const Json& json, std::string_view field);
Id keptId(const Json& json, std::string_view field);
const Json::Array& keptList(const Json& json, std::string_view field);
// Whole numbers that may be cells', as many as come `each` time; nothing where one is none.
std::optional<std::vector<int>> keptNumbers(const Json::Array& list, std::size_t each);

}  // namespace uq
