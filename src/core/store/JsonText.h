// Reading and writing Json as text.
//
// Reading is one bounded pass (no recursion, no trust): at most 64 deep, a million values, strings of a megabyte, no
// name twice in an object, valid UTF-8; each value remembers its line. Writing is canonical: fields in the order given,
// two spaces a level, one thing a line — an object or list of nothing but plain values stays on one line inside a list,
// and a list of numbers always does.
#pragma once

#include <string>
#include <string_view>

#include "core/base/Error.h"
#include "core/base/Json.h"

namespace uq {

inline constexpr int kDeepestJson = 64;
inline constexpr std::size_t kMostJsonValues = 1'000'000;
inline constexpr std::size_t kLongestJsonString = std::size_t{1} << 20;  // bytes

// Whether bytes are valid UTF-8 (RFC 3629).
bool isUtf8(std::string_view text);

// `file` is named in the Error.
Result<Json> readJson(std::string_view text, const std::string& file);

// Ends with a line feed.
std::string writeJson(const Json& json);
// On one line, without a line feed.
std::string writeJsonLine(const Json& json);

}  // namespace uq
