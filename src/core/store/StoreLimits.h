// StoreLimits: how much of a quilt's folder is read, and small helpers that the store's own files share.
#pragma once

#include <cstddef>
#include <cstdint>
#include <functional>
#include <string>
#include <string_view>

namespace uq {

inline constexpr std::int64_t kLargestDocument = std::int64_t{64} << 20;  // bytes
inline constexpr std::int64_t kLargestCells = std::int64_t{512} << 20;
inline constexpr std::int64_t kLargestPictureFile = std::int64_t{512} << 20;
inline constexpr std::size_t kMostNames = 100'000;  // in one folder

// Tells whether bytes changed by accident or by another program, not by malice. Only within one run of the program.
inline std::uint64_t hashOf(std::string_view bytes) { return std::hash<std::string_view>()(bytes); }

// "maps/yard/map.json" → "maps/yard"; of a path without folders empty.
inline std::string folderOf(const std::string& path) {
  const auto slash = path.rfind('/');
  return slash == std::string::npos ? std::string() : path.substr(0, slash);
}

// The last part of a path.
inline std::string nameOf(const std::string& path) {
  const auto end = path.find_last_not_of('/');
  if (end == std::string::npos) return path;
  return path.substr(path.find_last_of('/', end) + 1, end - path.find_last_of('/', end));
}

}  // namespace uq
