// OverlayDisk: a disk that shows some files of one folder otherwise than they are: others in their place, or none.
//
// For reading what was kept of a quilt (KeptWork) by the same readers as the quilt itself. Nothing can be changed
// through it. Everything outside the folder, and every other file in it, is that of the disk below.
// Threads: those of the disk below.
#pragma once

#include <functional>
#include <map>
#include <set>

#include "core/store/ReadOnlyDisk.h"

namespace uq {

class OverlayDisk : public ReadOnlyDisk {
 public:
  struct Shown {
    std::string path;  // of the file that is shown
    // Where set, makes what is shown of the folder's own file and that one.
    std::function<std::string(const std::string& own, const std::string& shown)> join{};
  };
  // `files`: by the path below `folder`, what is shown there; `removed`: paths that are not.
  OverlayDisk(std::shared_ptr<Disk> below, std::string folder, std::map<std::string, Shown> files,
              std::set<std::string> removed);

  void enclose(const std::string& folder) override { below_->enclose(folder); }
  Result<std::string> read(const std::string& path, std::int64_t most) override;
  Result<std::vector<Entry>> list(const std::string& folder, std::size_t most) override;
  Result<std::optional<Stamp>> stamp(const std::string& path) override;

 private:
  // The path below the folder; nothing for one outside it.
  std::optional<std::string> within(const std::string& path) const;

  std::shared_ptr<Disk> below_;
  std::string folder_;
  std::map<std::string, Shown> files_;
  std::set<std::string> removed_;
};

}  // namespace uq
