#include "cli/PackCommand.h"

#include <filesystem>
#include <iostream>

#include "cli/Commands.h"
#include "core/store/PackedQuilt.h"

namespace uq::cli {

namespace {

int refused(const Error& error, ExitCode code) {
  std::cerr << error.text() << "\n";
  return code;
}

}  // namespace

int pack(const std::string& quilt, const std::string& output) {
  const std::string folder = quiltFolder(quilt);
  const auto opened = QuiltStore::open(realDisk(), folder, QuiltStore::Access::read);
  if (!opened) return refused(opened.error(), kNotOpened);
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  if (!opened->store.isWhole()) return refused(notWhole(folder), kNotWritten);
  const auto bytes = packed(opened->quilt);
  if (!bytes) return refused(bytes.error(), kNotWritten);
  std::error_code error;
  const std::string whole = std::filesystem::weakly_canonical(std::filesystem::absolute(folder, error), error).string();
  const std::string path = output.empty() ? whole + std::string(kPackedEnding) : output;
  if (const auto written = writeWhole(*realDisk(), path, *bytes); !written) return refused(written.error(), kNotWritten);
  std::cout << path << ": " << opened->quilt.facts().name << ", " << bytes->size() << " bytes\n";
  return opened->problems.empty() ? kFine : kProblems;
}

int unpack(const std::string& file, const std::string& folder) {
  std::error_code error;
  const std::string path = std::filesystem::absolute(file, error).string();
  const auto read = unpacked(*realDisk(), path);
  if (!read) return refused(read.error(), kNotOpened);
  for (const Error& problem : read->problems) std::cerr << problem.text() << "\n";
  const std::string to = folder.empty() ? std::filesystem::path(path).stem().string() : folder;
  const auto made = QuiltStore::create(realDisk(), to, read->quilt);
  if (!made) return refused(made.error(), kNotWritten);
  std::cout << to << ": " << read->quilt.facts().name << "\n";
  return read->problems.empty() ? kFine : kProblems;
}

}  // namespace uq::cli
