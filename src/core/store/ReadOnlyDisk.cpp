#include "core/store/ReadOnlyDisk.h"

namespace uq {

namespace {

tl::unexpected<Error> refused(const std::string& path) {
  return fail(Error::Cause::notPermitted, "this is only to be read", path);
}

}  // namespace

Result<void> ReadOnlyDisk::write(const std::string& path, std::string_view) { return refused(path); }
Result<void> ReadOnlyDisk::rename(const std::string& from, const std::string&) { return refused(from); }
Result<void> ReadOnlyDisk::remove(const std::string& path) { return refused(path); }
Result<void> ReadOnlyDisk::removeFolder(const std::string& path) { return refused(path); }
Result<void> ReadOnlyDisk::makeFolder(const std::string& path) { return refused(path); }
Result<void> ReadOnlyDisk::syncFolder(const std::string& path) { return refused(path); }
Result<std::unique_ptr<Disk::Lock>> ReadOnlyDisk::lock(const std::string& path) { return refused(path); }

}  // namespace uq
