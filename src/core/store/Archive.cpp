#include "core/store/Archive.h"

#include <zip.h>

#include <algorithm>
#include <cstring>

namespace uq {

namespace {

constexpr zip_uint16_t kOldestDay = (1 << 5) | 1;  // the first of January 1980, the oldest that a zip can say

}  // namespace

// A file as libzip asks for it.
struct Archive::File {
  std::function<std::string()> make;
  std::string bytes;
  std::size_t given = 0;
  zip_error_t error{};

  static zip_int64_t answer(void* state, void* data, zip_uint64_t length, zip_source_cmd_t command) {
    auto& file = *static_cast<File*>(state);
    switch (command) {
      case ZIP_SOURCE_SUPPORTS:
        return zip_source_make_command_bitmap(ZIP_SOURCE_OPEN, ZIP_SOURCE_READ, ZIP_SOURCE_CLOSE, ZIP_SOURCE_STAT,
                                              ZIP_SOURCE_ERROR, ZIP_SOURCE_FREE, -1);
      case ZIP_SOURCE_OPEN:
        file.bytes = file.make();
        file.given = 0;
        return 0;
      case ZIP_SOURCE_READ: {
        const std::size_t size = std::min<std::size_t>(length, file.bytes.size() - file.given);
        if (size > 0) std::memcpy(data, file.bytes.data() + file.given, size);
        file.given += size;
        return static_cast<zip_int64_t>(size);
      }
      case ZIP_SOURCE_CLOSE: file.bytes = {}; return 0;
      case ZIP_SOURCE_STAT: {
        auto* told = static_cast<zip_stat_t*>(data);
        zip_stat_init(told);
        return sizeof *told;
      }
      case ZIP_SOURCE_ERROR: return zip_error_to_data(&file.error, data, length);
      case ZIP_SOURCE_FREE: return 0;
      default: zip_error_set(&file.error, ZIP_ER_OPNOTSUPP, 0); return -1;
    }
  }
};

struct Archive::Parts {
  Parts() : source(zip_source_buffer_create(nullptr, 0, 0, nullptr)) {
    if (!source) return;
    zip_source_keep(source);
    archive = zip_open_from_source(source, ZIP_TRUNCATE, nullptr);
  }
  ~Parts() {
    if (archive) zip_discard(archive);
    if (source) zip_source_free(source);
  }
  Parts(const Parts&) = delete;
  Parts& operator=(const Parts&) = delete;

  bool add(const std::string& name, zip_source_t* file, How how) {
    const zip_int64_t index = file ? zip_file_add(archive, name.c_str(), file, ZIP_FL_ENC_UTF_8) : -1;
    if (index < 0) {
      if (file) zip_source_free(file);
      return false;
    }
    const auto at = static_cast<zip_uint64_t>(index);
    return zip_file_set_dostime(archive, at, 0, kOldestDay, 0) == 0 &&
           zip_file_set_external_attributes(archive, at, 0, ZIP_OPSYS_DOS, 0) == 0 &&
           zip_set_file_compression(archive, at, how == How::packed ? ZIP_CM_DEFLATE : ZIP_CM_STORE, 0) == 0;
  }

  zip_source_t* source;
  zip_t* archive = nullptr;
  std::list<File> files;  // until the archive is closed
};

Archive::Archive() : parts_(std::make_unique<Parts>()) {}
Archive::~Archive() = default;

bool Archive::add(const std::string& name, std::string bytes, How how) {
  if (!parts_->archive) return false;
  // Of bytes in memory libzip knows the size beforehand, and the head of the file is a plain one.
  File& kept = parts_->files.emplace_back();
  kept.bytes = std::move(bytes);
  return parts_->add(name, zip_source_buffer(parts_->archive, kept.bytes.data(), kept.bytes.size(), 0), how);
}

bool Archive::add(const std::string& name, std::function<std::string()> bytes, How how) {
  if (!parts_->archive) return false;
  File& kept = parts_->files.emplace_back();
  kept.make = std::move(bytes);
  return parts_->add(name, zip_source_function(parts_->archive, File::answer, &kept), how);
}

std::optional<std::string> Archive::close(const std::function<bool()>& goesOn) {
  if (!parts_->archive) return std::nullopt;
  const auto ask = [](zip_t*, void* state) { return (*static_cast<const std::function<bool()>*>(state))() ? 0 : 1; };
  if (goesOn) {
    zip_register_cancel_callback_with_state(parts_->archive, ask, nullptr, const_cast<std::function<bool()>*>(&goesOn));
  }
  if (zip_close(parts_->archive) != 0) return std::nullopt;
  parts_->archive = nullptr;
  zip_stat_t told;
  zip_stat_init(&told);
  if (zip_source_stat(parts_->source, &told) != 0 || zip_source_open(parts_->source) != 0) return std::nullopt;
  std::string bytes(told.size, '\0');
  const zip_int64_t read = zip_source_read(parts_->source, bytes.data(), bytes.size());
  zip_source_close(parts_->source);
  if (read != static_cast<zip_int64_t>(bytes.size())) return std::nullopt;
  return bytes;
}

}  // namespace uq
