// TemplateText: a form of one's own: a text in the Mustache language, filled with what an export says (ExchangeText.h).
//
// Mustache (mustache.github.io, its manual of 2010) has no loops of its own, no partials here and nothing that computes, so a template
// always ends. For what a list needs in other languages each of its items knows its `index` (from 0), and whether it is the `first` or
// the `last`; an item that is no object is its `value`. Beside a list of numbers, or of rows of them, stands its text with commas: for
// `cells` it is `cellsText`, of a row `text`. docs/exchange.md explains it to those who write templates.
//
// Cost: the text, and the data some times over: a map of 1,000 × 1,000 cells in plain rows takes about 200 MB while it is filled.
// Threads: any.
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/base/Error.h"
#include "core/base/Json.h"

namespace uq {

inline constexpr std::size_t kLongestTemplate = std::size_t{1} << 18;      // bytes
inline constexpr int kDeepestTemplate = 64;                                 // sections in one another
inline constexpr std::size_t kMostFilled = std::size_t{256} << 20;          // bytes that come of one

// How {{what is filled in}} is written; {{{this}}} is always written as it is.
enum class Escaping { none, xml, c };
std::string_view escapingName(Escaping escaping);
std::optional<Escaping> escapingFromName(std::string_view name);

// A text as it may stand in XML.
std::string escapedXml(const std::string& text);
// What suits files with such an ending: ".xml" XML, ".lua" as in C.
Escaping escapingFor(std::string_view ending);

// The Error names `file` and the line of what is wrong, or says that too much comes of it.
Result<std::string> filledTemplate(std::string_view text, const Json& data, Escaping escaping, const std::string& file);

// Where something goes that a template names: a path inside a folder. The Error says why it is none: it is empty, leaves the folder, or
// holds what a file's name cannot.
Result<std::string> nameInside(const std::string& name);

}  // namespace uq
