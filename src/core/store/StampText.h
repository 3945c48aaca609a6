// The files of a stamp: stamp.json, and a .cells file for each block it holds, in side coordinates around the grip.
//
// The block for the landing layer is `tiles.cells`, those for further layers `part-1.cells`, …, members of a mix
// `mix-1.cells`, …; each has a `.lift.cells` beside it where something is lifted.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/base/Error.h"
#include "core/document/Quilt.h"

namespace uq {

inline constexpr std::size_t kMostStamps = 4096;

struct TextFile {
  std::string path;  // inside the quilt
  std::string text;
};

std::string stampFolder(const Stamp& stamp);
std::vector<TextFile> stampFiles(const Stamp& stamp, const Quilt& quilt);

// Reads a file inside the quilt; nothing where it does not exist.
using ReadFile = std::function<Result<std::optional<std::string>>(const std::string& path)>;

// The stamp in a folder; `quilt` gives out slots to sheets that it lacks.
Result<Stamp> readStamp(const std::string& folder, Quilt& quilt, const ReadFile& read);

}  // namespace uq
