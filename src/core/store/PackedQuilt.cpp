#include "core/store/PackedQuilt.h"

#include "core/store/Archive.h"
#include "core/store/PackedDisk.h"
#include "core/store/SavePlan.h"
#include "core/store/StoreLimits.h"

namespace uq {

namespace {

constexpr std::int64_t kLargestPacked = std::int64_t{4} << 30;  // bytes

// Texts are packed; pictures are already.
Archive::How howFor(const QuiltFile& file) { return file.isPicture ? Archive::How::stored : Archive::How::packed; }

}  // namespace

Result<std::string> packed(const Quilt& quilt, Progress* progress) {
  Progress own;
  Progress& told = progress ? *progress : own;
  const Quilt none;
  const auto plan = planSave(none, quilt, {{}, {}, [](const std::string&) { return false; }});
  if (!plan) return fail(plan.error());
  Archive archive;
  std::optional<Error> wrong;
  const auto add = [&](const std::string& path) {
    const QuiltFile& file = plan->files.at(path);
    return archive.add(
        path,
        [&file, &told, &wrong, path] {
          std::string bytes = file.text();
          // What is packed opens again.
          if (!wrong && file.readBack) {
            if (auto judged = file.readBack(bytes)) wrong = std::move(*judged).in(path);
          }
          told.step(1);
          return bytes;
        },
        howFor(file));
  };
  told.expect(static_cast<std::int64_t>(plan->journal.writes.size()));
  bool good = true;
  for (const std::string& path : plan->journal.writes) good = good && add(path);
  auto bytes = good ? archive.close([&] { return !told.isCancelled() && !wrong; }) : std::nullopt;
  if (told.isCancelled()) return fail(Error::Cause::cancelled, "packing was cancelled");
  if (wrong) return fail(std::move(*wrong));
  if (!bytes) return fail(Error::Cause::other, "the packed quilt could not be put together");
  return std::move(*bytes);
}

Result<Unpacked> unpacked(Disk& disk, const std::string& path, Progress* progress) {
  auto bytes = disk.read(path, kLargestPacked);
  if (!bytes) return fail(bytes.error());
  auto zip = PackedDisk::open(std::move(*bytes), path);
  if (!zip) return fail(zip.error());
  auto opened = QuiltStore::open(*zip, path, QuiltStore::Access::read, progress);
  if (!opened) return fail(opened.error());
  return Unpacked{std::move(opened->quilt), std::move(opened->problems)};
}

}  // namespace uq
