// PinsText: the pins of a layer as the document in which they stand, beside their map's (maps/yard/pins.pins.json), and back.
//
// They have a file of their own for each layer, so that a stroke on a map with very many pins neither writes nor compares
// them. Written by id, one field a line. docs/format.md and docs/format.schema.json describe the document.
#pragma once

#include "core/base/Error.h"
#include "core/base/Json.h"
#include "core/document/Quilt.h"

namespace uq {

inline constexpr std::string_view kPinsEnding = ".pins.json";
std::string pinsFile(const Map& map, const Layer& layer);

Json pinsDocument(const Pins& pins);
// Pins of one id are told apart (OwnIds.h); refuses more than kMostPins.
Result<Pins> readPinsDocument(const Json& json, const std::string& file);

// The same of a file's text, or of why there is none.
Result<Pins> readPins(const Result<std::string>& text, const std::string& file);

// An end of a way, or where the player begins: "map" and "pin".
Json pinAtJson(const PinAt& at);
PinAt readPinAt(const Json& json, const std::string& file, class Fields& outer);

}  // namespace uq
