// PackedQuilt: a quilt in one file, `.quilt`: a zip of its folder, to be sent or put away.
//
// The same quilt gives the same bytes, on every machine. It is opened into a folder: read by the quilt's own readers out
// of the zip (PackedDisk), then written like any new quilt, whole or not at all.
// Cost: that of writing and reading all files. Memory: the zip, and one file. Any thread.
#pragma once

#include <memory>
#include <string>

#include "core/base/Progress.h"
#include "core/store/Disk.h"
#include "core/store/QuiltStore.h"

namespace uq {

inline constexpr std::string_view kPackedEnding = ".quilt";

// The bytes of the packed quilt. Pictures that are missing stay missing. Of a quilt that could not be read whole a packed
// one would lack what is on the disk: notWhole() says so.
Result<std::string> packed(const Quilt& quilt, Progress* progress = nullptr);

// The quilt in the packed one at `path`, with what could not be read of it; an Error where none of it can be shown.
struct Unpacked {
  Quilt quilt;
  Errors problems;
};
Result<Unpacked> unpacked(Disk& disk, const std::string& path, Progress* progress = nullptr);

}  // namespace uq
