// uquilt links: how the maps of a quilt hang together, as sentences, or as one JSON object (docs/links.md).
#pragma once

#include <string>

namespace uq::cli {

// Exit codes as all commands have them: 0 everything opens, 1 something is broken or missing.
int links(const std::string& quilt, bool json);

}  // namespace uq::cli
