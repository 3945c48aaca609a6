// PackedDisk: the files of a packed quilt, a zip, as a disk to read from.
//
// The zip may come from anybody. What is in it is bounded before any of it is unpacked: how many files, how large each
// and all of them, how much larger than the zip. Names that lead out of it, links, files under a password and two files
// of one name are refused; what is no file of a quilt is not shown. Each file is checked against its sum when it is read,
// so one that is damaged is told by name and the rest can be read.
// Cost: opening is linear in the names; reading in the file that is read. Memory: the zip. Threads: any.
#pragma once

#include <map>
#include <memory>
#include <mutex>
#include <string>

#include "core/store/ReadOnlyDisk.h"

namespace uq {

class PackedDisk : public ReadOnlyDisk {
 public:
  // `path` is the zip's own: its files seem to lie in a folder of that name.
  static Result<std::shared_ptr<PackedDisk>> open(std::string bytes, const std::string& path);
  ~PackedDisk() override;

  Result<std::string> read(const std::string& path, std::int64_t most) override;
  Result<std::vector<Entry>> list(const std::string& folder, std::size_t most) override;
  Result<std::optional<Stamp>> stamp(const std::string& path) override;

 private:
  struct Zip;
  struct File {
    std::uint64_t index = 0;
    std::int64_t size = 0;
  };
  PackedDisk(std::unique_ptr<Zip> zip, std::string path);
  const File* fileAt(const std::string& path) const;

  std::mutex reading_;
  std::unique_ptr<Zip> zip_;
  std::string path_;
  std::map<std::string, File> files_;  // by path in the quilt
};

}  // namespace uq
