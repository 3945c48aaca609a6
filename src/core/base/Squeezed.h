// Squeezed: bytes made smaller, with a sum that tells whether they are whole (Zstandard, RFC 8878).
//
// For what this program alone reads again. Quick rather than small. Cost: linear in the bytes. Threads: any.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace uq {

std::string squeezed(std::string_view bytes);
// Nothing where they are damaged, cut off, or would become more than `most` bytes.
std::optional<std::string> unsqueezed(std::string_view bytes, std::size_t most);

}  // namespace uq
