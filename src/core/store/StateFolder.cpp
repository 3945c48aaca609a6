#include "core/store/StateFolder.h"

#include <charconv>
#include <cstdint>
#include <cstdlib>
#include <filesystem>

#include "core/store/Disk.h"

namespace uq {

std::string stateFolderPath() {
  const char* home = std::getenv("XDG_STATE_HOME");
  if (home && *home == '/') return joined(home, "urban-quilt");
  const char* user = std::getenv("HOME");
  return joined(user ? user : "/", ".local/state/urban-quilt");
}

std::string keptName(std::string_view folder) {
  // FNV-1a (Fowler, Noll, Vo).
  std::uint64_t hash = 0xcbf29ce484222325u;
  for (const char one : folder) hash = (hash ^ static_cast<unsigned char>(one)) * 0x100000001b3u;
  char name[17];
  return std::string(name, std::to_chars(name, name + 16, hash, 16).ptr);
}

std::string canonicalPath(const std::string& path) {
  std::error_code error;
  std::string whole = std::filesystem::weakly_canonical(std::filesystem::absolute(path, error), error).string();
  while (whole.size() > 1 && whole.back() == '/') whole.pop_back();
  return whole;
}

}  // namespace uq
