// ReadOnlyDisk: a disk that is made up from something else and only shows it; whatever would change it is refused.
#pragma once

#include "core/store/Disk.h"

namespace uq {

class ReadOnlyDisk : public Disk {
 public:
  Result<void> write(const std::string& path, std::string_view bytes) final;
  Result<void> rename(const std::string& from, const std::string& to) final;
  Result<void> remove(const std::string& path) final;
  Result<void> removeFolder(const std::string& path) final;
  Result<void> makeFolder(const std::string& path) final;
  Result<void> syncFolder(const std::string& path) final;
  Result<std::unique_ptr<Lock>> lock(const std::string& path) final;
};

}  // namespace uq
