// uquilt pack and uquilt unpack: a quilt into one file, and out of it into a folder.
#pragma once

#include <string>

namespace uq::cli {

// Writes the quilt's packed file; `output` empty: beside its folder, with its folder's name.
int pack(const std::string& quilt, const std::string& output);
// Opens a packed file into a folder, which must be empty or not exist; empty: one of the file's name in the current one.
int unpack(const std::string& file, const std::string& folder);

}  // namespace uq::cli
