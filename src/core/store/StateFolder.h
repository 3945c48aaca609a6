// StateFolder: where on this machine things of a person are kept that are no part of a quilt (XDG Base Directory Specification).
#pragma once

#include <string>
#include <string_view>

namespace uq {

// $XDG_STATE_HOME/urban-quilt, else ~/.local/state/urban-quilt.
std::string stateFolderPath();

// What is kept of a quilt's folder is called so: its path as a number, in every run of the program the same.
std::string keptName(std::string_view folder);

// A path as it really lies, links followed, without a slash at its end.
std::string canonicalPath(const std::string& path);

}  // namespace uq
