// FormLosses: what an open form cannot hold of a map, in words, so that nobody finds it out in the game.
//
// Only what the map has is told. Cost: a count of the tiles that lie on its layers.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

enum class Form { json, csv, png, ora };
inline constexpr Form kForms[] = {Form::json, Form::csv, Form::png, Form::ora};
std::string_view formName(Form form);  // "json"
std::optional<Form> formFromName(std::string_view name);

// "3 doorways", "rises", …: each a part of a sentence that says they have no place there.
std::vector<std::string> formLosses(const Quilt& quilt, const Map& map, Form form);
// "CSV of Depot Yard has no place for rises and 3 doorways"; empty where nothing is lost.
std::string lossesInWords(const Quilt& quilt, const Map& map, Form form);

}  // namespace uq
