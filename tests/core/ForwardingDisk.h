// ForwardingDisk: the real disk, with a word before every read and every change; for tests that hold it up or end the
// program there.
#pragma once

#include "core/store/Disk.h"

namespace uq::test {

class ForwardingDisk : public Disk {
 public:
  void enclose(const std::string& folder) override { real_->enclose(folder); }
  Result<std::string> read(const std::string& path, std::int64_t most) override {
    beforeReading(path);
    return real_->read(path, most);
  }
  Result<std::vector<Entry>> list(const std::string& folder, std::size_t most) override {
    return real_->list(folder, most);
  }
  Result<std::optional<Stamp>> stamp(const std::string& path) override { return real_->stamp(path); }
  Result<void> write(const std::string& path, std::string_view bytes) override {
    beforeChanging(path);
    return real_->write(path, bytes);
  }
  Result<void> rename(const std::string& from, const std::string& to) override {
    beforeChanging(to);
    return real_->rename(from, to);
  }
  Result<void> remove(const std::string& path) override {
    beforeChanging(path);
    return real_->remove(path);
  }
  Result<void> removeFolder(const std::string& path) override {
    beforeChanging(path);
    return real_->removeFolder(path);
  }
  Result<void> makeFolder(const std::string& path) override {
    beforeChanging(path);
    return real_->makeFolder(path);
  }
  Result<void> syncFolder(const std::string& path) override {
    beforeChanging(path);
    return real_->syncFolder(path);
  }
  Result<std::unique_ptr<Lock>> lock(const std::string& path) override { return real_->lock(path); }

 protected:
  virtual void beforeReading(const std::string&) {}
  virtual void beforeChanging(const std::string&) {}

 private:
  std::shared_ptr<Disk> real_ = realDisk();
};

}  // namespace uq::test
