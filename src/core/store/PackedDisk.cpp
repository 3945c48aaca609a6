#include "core/store/PackedDisk.h"

#include <zip.h>

#include <algorithm>
#include <string_view>

#include "core/store/Documents.h"
#include "core/store/Journal.h"
#include "core/store/StoreLimits.h"

namespace uq {

namespace {

constexpr zip_int64_t kMostFiles = 200'000;
constexpr std::uint64_t kMostUnpacked = std::uint64_t{8} << 30;  // bytes, all files together
// More than this is not what a zip of a quilt comes to, save where it is small.
constexpr std::uint64_t kMostTimes = 500;
constexpr std::uint64_t kAlwaysFine = std::uint64_t{64} << 20;  // bytes
constexpr zip_uint32_t kKindOfFile = 0170000;                   // of a file's mode (POSIX sys/stat.h)
constexpr zip_uint32_t kLinkKind = 0120000;

tl::unexpected<Error> refuse(Error::Cause cause, std::string reason, const std::string& path) {
  return fail(Error{cause, std::move(reason), path, 0, "Nothing was unpacked", "Ask for the packed quilt once more"});
}

bool leadsOut(std::string_view name) {
  if (name.starts_with('/') || name.find('\\') != std::string_view::npos || name.find('\0') != std::string_view::npos) {
    return true;
  }
  while (true) {
    const auto end = name.find('/');
    if (name.substr(0, end) == "..") return true;
    if (end == std::string_view::npos) return false;
    name.remove_prefix(end + 1);
  }
}

bool isLink(zip_t* zip, zip_uint64_t index) {
  zip_uint8_t system = 0;
  zip_uint32_t attributes = 0;
  return zip_file_get_external_attributes(zip, index, 0, &system, &attributes) == 0 && system == ZIP_OPSYS_UNIX &&
         ((attributes >> 16) & kKindOfFile) == kLinkKind;
}

}  // namespace

struct PackedDisk::Zip {
  explicit Zip(std::string all) : bytes(std::move(all)) {
    zip_error_t error;
    zip_error_init(&error);
    zip_source_t* source = zip_source_buffer_create(bytes.data(), bytes.size(), 0, &error);
    if (source) zip = zip_open_from_source(source, ZIP_RDONLY | ZIP_CHECKCONS, &error);
    if (source && !zip) zip_source_free(source);
    zip_error_fini(&error);
  }
  ~Zip() {
    if (zip) zip_discard(zip);
  }
  Zip(const Zip&) = delete;
  Zip& operator=(const Zip&) = delete;

  std::string bytes;
  zip_t* zip = nullptr;
};

PackedDisk::PackedDisk(std::unique_ptr<Zip> zip, std::string path) : zip_(std::move(zip)), path_(std::move(path)) {}
PackedDisk::~PackedDisk() = default;

Result<std::shared_ptr<PackedDisk>> PackedDisk::open(std::string bytes, const std::string& path) {
  auto zip = std::make_unique<Zip>(std::move(bytes));
  if (!zip->zip) return refuse(Error::Cause::broken, "this is no packed quilt, or it is cut off", path);
  std::shared_ptr<PackedDisk> disk(new PackedDisk(std::move(zip), path));
  const zip_int64_t count = zip_get_num_entries(disk->zip_->zip, 0);
  if (count > kMostFiles) return refuse(Error::Cause::tooLarge, "too many files are in it", path);
  std::uint64_t all = 0;
  for (zip_int64_t i = 0; i < count; ++i) {
    const auto index = static_cast<zip_uint64_t>(i);
    zip_stat_t told;
    constexpr zip_uint64_t kNeeded = ZIP_STAT_NAME | ZIP_STAT_SIZE | ZIP_STAT_ENCRYPTION_METHOD;
    if (zip_stat_index(disk->zip_->zip, index, 0, &told) != 0 || (told.valid & kNeeded) != kNeeded) {
      return refuse(Error::Cause::broken, "its list of files is broken", path);
    }
    const std::string name = told.name;
    if (leadsOut(name)) return refuse(Error::Cause::broken, "it names a file outside: " + name, path);
    if (isLink(disk->zip_->zip, index)) return refuse(Error::Cause::broken, "it has a link: " + name, path);
    if (told.encryption_method != ZIP_EM_NONE) return refuse(Error::Cause::broken, "it is under a password", path);
    all += std::min<std::uint64_t>(told.size, kMostUnpacked);
    if (told.size > kMostUnpacked || all > kMostUnpacked || (all > kAlwaysFine && all / kMostTimes > disk->zip_->bytes.size())) {
      return refuse(Error::Cause::tooLarge, "too much would come of it", path);
    }
    if (!isQuiltFile(name)) continue;
    if (!disk->files_.emplace(name, File{index, static_cast<std::int64_t>(told.size)}).second) {
      return refuse(Error::Cause::broken, "it has two files of one name: " + name, path);
    }
  }
  if (!disk->files_.contains(std::string(kQuiltFile))) {
    return refuse(Error::Cause::missing, "no quilt is in it: quilt.json is missing", path);
  }
  return disk;
}

const PackedDisk::File* PackedDisk::fileAt(const std::string& path) const {
  if (!path.starts_with(path_ + "/")) return nullptr;
  const auto found = files_.find(path.substr(path_.size() + 1));
  return found == files_.end() ? nullptr : &found->second;
}

Result<std::string> PackedDisk::read(const std::string& path, std::int64_t most) {
  const File* file = fileAt(path);
  if (!file) return fail(Error::Cause::missing, "there is no such file", path);
  if (file->size > most) return fail(Error::Cause::tooLarge, "the file is too large", path);
  const std::lock_guard lock(reading_);
  zip_file_t* opened = zip_fopen_index(zip_->zip, file->index, 0);
  // One byte more than there should be: the sum is looked at where the file ends.
  std::string bytes(opened ? static_cast<std::size_t>(file->size) + 1 : 0, '\0');
  zip_int64_t given = opened ? 0 : -1;
  std::size_t have = 0;
  while (opened && have < bytes.size() && (given = zip_fread(opened, bytes.data() + have, bytes.size() - have)) > 0) {
    have += static_cast<std::size_t>(given);
  }
  if (opened) zip_fclose(opened);
  if (given < 0 || have != static_cast<std::size_t>(file->size)) {
    return fail(Error::Cause::broken, "the file is damaged in the packed quilt", path);
  }
  bytes.resize(have);
  return bytes;
}

Result<std::vector<Disk::Entry>> PackedDisk::list(const std::string& folder, std::size_t most) {
  std::string prefix = folder == path_ ? std::string() : folder + "/";
  if (!prefix.empty()) {
    if (!prefix.starts_with(path_ + "/")) return fail(Error::Cause::missing, "there is no such folder", folder);
    prefix.erase(0, path_.size() + 1);
  }
  std::vector<Entry> entries;
  for (auto at = files_.lower_bound(prefix); at != files_.end() && at->first.starts_with(prefix); ++at) {
    const std::string rest = at->first.substr(prefix.size());
    const std::string name = rest.substr(0, rest.find('/'));
    if (!entries.empty() && entries.back().name == name) continue;
    entries.push_back({name, rest.size() > name.size() ? Kind::folder : Kind::file});
    if (entries.size() > most) return fail(Error::Cause::tooLarge, "too many names lie in this folder", folder);
  }
  if (entries.empty()) return fail(Error::Cause::missing, "there is no such folder", folder);
  std::sort(entries.begin(), entries.end(), [](const Entry& a, const Entry& b) { return a.name < b.name; });
  return entries;
}

Result<std::optional<Disk::Stamp>> PackedDisk::stamp(const std::string& path) {
  const File* file = fileAt(path);
  if (!file) return std::optional<Stamp>();
  return std::optional(Stamp{file->size, 0});
}

}  // namespace uq
