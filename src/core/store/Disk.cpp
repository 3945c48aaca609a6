#include "core/store/Disk.h"

#include <dirent.h>
#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <filesystem>

namespace uq {

namespace {

tl::unexpected<Error> systemError(const std::string& doing, const std::string& path, int code = errno) {
  Error error{Error::Cause::other, doing + " failed (" + std::strerror(code) + ")", path, 0, {}, {}};
  switch (code) {
    case ENOENT:
      error.cause = Error::Cause::missing;
      error.reason = "it does not exist";
      break;
    case ENOTDIR:
      error.cause = Error::Cause::missing;
      error.reason = "a part of its path is no folder";
      break;
    case ELOOP:
      error.cause = Error::Cause::broken;
      error.reason = std::string(kLinkReason);
      error.todo = std::string(kLinkAdvice);
      break;
    case EACCES:
    case EPERM:
    case EROFS:
      error.cause = Error::Cause::notPermitted;
      error.todo = "Ask for permission to write there, or save the quilt somewhere else";
      break;
    case ENOSPC:
    case EDQUOT:
      error.cause = Error::Cause::diskFull;
      error.reason = "the disk is full";
      error.todo = "Make room and save again, or save the quilt somewhere else";
      break;
    default: break;
  }
  return fail(std::move(error));
}

class Descriptor {
 public:
  explicit Descriptor(int fd) : fd_(fd) {}
  Descriptor(Descriptor&& other) noexcept : fd_(std::exchange(other.fd_, -1)) {}
  Descriptor(const Descriptor&) = delete;
  Descriptor& operator=(const Descriptor&) = delete;
  ~Descriptor() {
    if (fd_ >= 0) ::close(fd_);
  }
  int fd() const { return fd_; }
  bool ok() const { return fd_ >= 0; }

 private:
  int fd_;
};

class FileLock final : public Disk::Lock {
 public:
  explicit FileLock(Descriptor file) : file_(std::move(file)) {}

 private:
  Descriptor file_;
};

class RealDisk final : public Disk {
 public:
  Result<std::string> read(const std::string& path, std::int64_t most) override {
    const Descriptor file(::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK | O_NOFOLLOW));
    if (!file.ok()) return systemError("reading", path);
    struct stat info {};
    if (::fstat(file.fd(), &info) != 0) return systemError("reading", path);
    if (!S_ISREG(info.st_mode)) return fail(Error::Cause::broken, "it is no file", path);
    if (info.st_size > most) {
      return fail(
          Error::Cause::tooLarge,
          "it has " + std::to_string(info.st_size) + " bytes, and at most " + std::to_string(most) + " are read", path);
    }
    std::string bytes(static_cast<std::size_t>(info.st_size), '\0');
    std::size_t done = 0;
    while (done < bytes.size()) {
      const auto got = ::read(file.fd(), bytes.data() + done, bytes.size() - done);
      if (got < 0 && errno == EINTR) continue;
      if (got < 0) return systemError("reading", path);
      if (got == 0) break;  // somebody cut it meanwhile
      done += static_cast<std::size_t>(got);
    }
    bytes.resize(done);
    return bytes;
  }

  Result<std::vector<Entry>> list(const std::string& folder, std::size_t most) override {
    DIR* dir = ::opendir(folder.c_str());
    if (!dir) return systemError("listing", folder);
    const std::unique_ptr<DIR, int (*)(DIR*)> closer(dir, ::closedir);
    std::vector<Entry> entries;
    while (const dirent* item = ::readdir(dir)) {
      const std::string name = item->d_name;
      if (name == "." || name == "..") continue;
      if (entries.size() == most) {
        return fail(Error::Cause::tooLarge, "it holds more than " + std::to_string(most) + " names", folder);
      }
      struct stat info {};
      Kind kind = Kind::other;
      if (::lstat(joined(folder, name).c_str(), &info) == 0) {
        kind = S_ISREG(info.st_mode)   ? Kind::file
               : S_ISDIR(info.st_mode) ? Kind::folder
               : S_ISLNK(info.st_mode) ? Kind::link
                                       : Kind::other;
      }
      entries.push_back({name, kind});
    }
    std::sort(entries.begin(), entries.end(), [](const Entry& a, const Entry& b) { return a.name < b.name; });
    return entries;
  }

  Result<std::optional<Stamp>> stamp(const std::string& path) override {
    struct stat info {};
    if (::stat(path.c_str(), &info) != 0) {
      if (errno == ENOENT || errno == ENOTDIR) return std::nullopt;
      return systemError("looking", path);
    }
    return Stamp{info.st_size, std::int64_t{info.st_mtim.tv_sec} * 1'000'000'000 + info.st_mtim.tv_nsec};
  }

  Result<void> write(const std::string& path, std::string_view bytes) override {
    const Descriptor file(::open(path.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0666));
    if (!file.ok()) return systemError("writing", path);
    while (!bytes.empty()) {
      const auto put = ::write(file.fd(), bytes.data(), bytes.size());
      if (put < 0 && errno == EINTR) continue;
      if (put < 0) return systemError("writing", path);
      bytes.remove_prefix(static_cast<std::size_t>(put));
    }
    if (::fsync(file.fd()) != 0) return systemError("writing", path);
    return {};
  }

  Result<void> rename(const std::string& from, const std::string& to) override {
    if (::rename(from.c_str(), to.c_str()) != 0) return systemError("renaming", from);
    return {};
  }

  Result<void> remove(const std::string& path) override {
    if (::unlink(path.c_str()) != 0 && errno != ENOENT) return systemError("removing", path);
    return {};
  }

  Result<void> makeFolder(const std::string& path) override {
    std::error_code error;
    std::filesystem::create_directories(path, error);
    if (error) return systemError("making the folder", path, error.value());
    return {};
  }

  Result<void> syncFolder(const std::string& path) override {
    const Descriptor folder(::open(path.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (!folder.ok() || ::fsync(folder.fd()) != 0) return systemError("writing", path);
    return {};
  }

  Result<std::unique_ptr<Lock>> lock(const std::string& path) override {
    Descriptor file(::open(path.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0666));
    if (!file.ok()) return systemError("locking", path);
    if (::flock(file.fd(), LOCK_EX | LOCK_NB) != 0) {
      if (errno != EWOULDBLOCK) return systemError("locking", path);
      return fail(Error{
          Error::Cause::inUse, "another window has this quilt open", path, 0, {}, "Close it there to work on it here"});
    }
    return std::unique_ptr<Lock>(std::make_unique<FileLock>(std::move(file)));
  }
};

}  // namespace

std::shared_ptr<Disk> realDisk() { return std::make_shared<RealDisk>(); }

std::string joined(std::string_view folder, std::string_view name) {
  std::string path(folder);
  if (!path.empty() && path.back() != '/') path += '/';
  return path.append(name);
}

}  // namespace uq
