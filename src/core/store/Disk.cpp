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
#include <mutex>
#include <set>
#include <utility>

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
  Descriptor& operator=(Descriptor&& other) noexcept {
    std::swap(fd_, other.fd_);
    return *this;
  }
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
  bool stands() const override {
    struct stat info {};
    return ::fstat(file_.fd(), &info) == 0 && info.st_nlink > 0;
  }

 private:
  Descriptor file_;
};

class FileWriting final : public Disk::Writing {
 public:
  FileWriting(Descriptor file, std::string path) : file_(std::move(file)), path_(std::move(path)) {}
  Result<void> add(std::string_view bytes) override {
    while (!bytes.empty()) {
      const auto put = ::write(file_.fd(), bytes.data(), bytes.size());
      if (put < 0 && errno == EINTR) continue;
      if (put < 0) return systemError("writing", path_);
      bytes.remove_prefix(static_cast<std::size_t>(put));
    }
    return {};
  }
  Result<void> end() override {
    if (::fsync(file_.fd()) != 0) return systemError("writing", path_);
    return {};
  }

 private:
  Descriptor file_;
  std::string path_;
};

// For disks that only write whole files.
class GatheredWriting final : public Disk::Writing {
 public:
  GatheredWriting(Disk& disk, std::string path) : disk_(disk), path_(std::move(path)) {}
  Result<void> add(std::string_view bytes) override {
    bytes_ += bytes;
    return {};
  }
  Result<void> end() override { return disk_.write(path_, bytes_); }

 private:
  Disk& disk_;
  std::string path_;
  std::string bytes_;
};

// The last part of a path, and the folder that holds it: to be used together by the calls that end in "at".
struct Place {
  Descriptor folder{-1};
  int at = AT_FDCWD;
  std::string name;
  bool enclosed = false;

  // What keeps a call from following a link.
  int open() const { return enclosed ? O_NOFOLLOW : 0; }
  int stat() const { return enclosed ? AT_SYMLINK_NOFOLLOW : 0; }
};

// Why a part of the way could not be opened as a folder: a link, where it is one.
int wayError(int folder, const std::string& part, int code) {
  struct stat info {};
  const bool link = ::fstatat(folder, part.c_str(), &info, AT_SYMLINK_NOFOLLOW) == 0 && S_ISLNK(info.st_mode);
  return link ? ELOOP : code;
}

std::vector<std::string> partsOf(std::string_view path) {
  std::vector<std::string> parts;
  while (!path.empty()) {
    const auto slash = std::min(path.find('/'), path.size());
    const std::string_view part = path.substr(0, slash);
    if (!part.empty() && part != ".") parts.emplace_back(part);
    path.remove_prefix(std::min(slash + 1, path.size()));
  }
  return parts;
}

class RealDisk final : public Disk {
 public:
  void enclose(const std::string& folder) override {
    const std::lock_guard lock(mutex_);
    enclosed_.insert(withoutSlash(folder));
  }

  Result<std::string> read(const std::string& path, std::int64_t most) override {
    const auto place = placeOf(path, "reading");
    if (!place) return fail(place.error());
    const Descriptor file(
        ::openat(place->at, place->name.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK | O_NOFOLLOW | O_NOCTTY));
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
    const auto place = placeOf(folder, "listing");
    if (!place) return fail(place.error());
    const int fd = ::openat(place->at, place->name.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC | place->open());
    if (fd < 0) return systemError("listing", folder, wayError(place->at, place->name, errno));
    DIR* dir = ::fdopendir(fd);
    if (!dir) {
      const int code = errno;
      ::close(fd);
      return systemError("listing", folder, code);
    }
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
      if (::fstatat(::dirfd(dir), name.c_str(), &info, AT_SYMLINK_NOFOLLOW) == 0) {
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
    const auto place = placeOf(path, "looking");
    if (!place && place.error().cause == Error::Cause::missing) return std::nullopt;
    if (!place) return fail(place.error());
    struct stat info {};
    if (::fstatat(place->at, place->name.c_str(), &info, place->stat()) != 0) {
      if (errno == ENOENT || errno == ENOTDIR) return std::nullopt;
      return systemError("looking", path);
    }
    return Stamp{info.st_size, std::int64_t{info.st_mtim.tv_sec} * 1'000'000'000 + info.st_mtim.tv_nsec};
  }

  Result<void> write(const std::string& path, std::string_view bytes) override {
    auto file = begin(path);
    if (!file) return fail(file.error());
    if (auto put = (*file)->add(bytes); !put) return put;
    return (*file)->end();
  }

  Result<std::unique_ptr<Writing>> begin(const std::string& path) override {
    const auto place = placeOf(path, "writing");
    if (!place) return fail(place.error());
    if (place->enclosed && ::unlinkat(place->at, place->name.c_str(), 0) != 0 && errno != ENOENT) {
      return systemError("writing", path);
    }
    const int fresh = place->enclosed ? O_EXCL | O_NOFOLLOW : O_TRUNC;
    Descriptor file(
        ::openat(place->at, place->name.c_str(), O_WRONLY | O_CREAT | O_CLOEXEC | O_NONBLOCK | fresh, 0666));
    if (!file.ok()) return systemError("writing", path);
    return std::unique_ptr<Writing>(std::make_unique<FileWriting>(std::move(file), path));
  }

  Result<void> rename(const std::string& from, const std::string& to) override {
    const auto source = placeOf(from, "renaming");
    if (!source) return fail(source.error());
    const auto target = placeOf(to, "renaming");
    if (!target) return fail(target.error());
    if (::renameat(source->at, source->name.c_str(), target->at, target->name.c_str()) != 0) {
      return systemError("renaming", from);
    }
    return {};
  }

  Result<void> remove(const std::string& path) override {
    const auto place = placeOf(path, "removing");
    if (!place && place.error().cause == Error::Cause::missing) return {};
    if (!place) return fail(place.error());
    if (::unlinkat(place->at, place->name.c_str(), 0) != 0 && errno != ENOENT) return systemError("removing", path);
    return {};
  }

  Result<void> removeFolder(const std::string& path) override {
    const auto place = placeOf(path, "removing");
    if (!place && place.error().cause == Error::Cause::missing) return {};
    if (!place) return fail(place.error());
    const bool gone = ::unlinkat(place->at, place->name.c_str(), AT_REMOVEDIR) == 0;
    if (!gone && errno != ENOENT && errno != ENOTEMPTY && errno != EEXIST) return systemError("removing", path);
    return {};
  }

  Result<void> makeFolder(const std::string& path) override {
    const std::string root = enclosing(path);
    const std::string& trusted = root.empty() ? path : root;
    std::error_code error;
    std::filesystem::create_directories(trusted, error);
    if (error) return systemError("making the folder", path, error.value());
    if (root.empty()) return {};
    Descriptor folder(::open(root.c_str(), O_PATH | O_DIRECTORY | O_CLOEXEC));
    if (!folder.ok()) return systemError("making the folder", path);
    for (const std::string& part : partsOf(std::string_view(path).substr(root.size()))) {
      if (part == "..") return systemError("making the folder", path, EPERM);
      if (::mkdirat(folder.fd(), part.c_str(), 0777) != 0 && errno != EEXIST) {
        return systemError("making the folder", path);
      }
      Descriptor next(::openat(folder.fd(), part.c_str(), O_PATH | O_DIRECTORY | O_CLOEXEC | O_NOFOLLOW));
      if (!next.ok()) return systemError("making the folder", path, wayError(folder.fd(), part, errno));
      folder = std::move(next);
    }
    return {};
  }

  Result<void> syncFolder(const std::string& path) override {
    const auto place = placeOf(path, "writing");
    if (!place) return fail(place.error());
    const Descriptor folder(
        ::openat(place->at, place->name.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC | place->open()));
    if (!folder.ok() || ::fsync(folder.fd()) != 0) return systemError("writing", path);
    return {};
  }

  Result<std::unique_ptr<Lock>> lock(const std::string& path) override {
    const auto place = placeOf(path, "locking");
    if (!place) return fail(place.error());
    Descriptor file(::openat(place->at, place->name.c_str(),
                             O_RDWR | O_CREAT | O_CLOEXEC | O_NONBLOCK | O_NOCTTY | place->open(), 0666));
    if (!file.ok()) return systemError("locking", path);
    struct stat info {};
    if (::fstat(file.fd(), &info) != 0) return systemError("locking", path);
    if (!S_ISREG(info.st_mode)) return fail(Error::Cause::broken, "it is no file", path);
    if (::flock(file.fd(), LOCK_EX | LOCK_NB) != 0) {
      if (errno == ENOLCK || errno == EOPNOTSUPP || errno == ENOSYS) {
        return fail(Error::Cause::noLocks, "this drive has no locks", path);
      }
      if (errno != EWOULDBLOCK) return systemError("locking", path);
      return fail(Error{
          Error::Cause::inUse, "another window has this quilt open", path, 0, {}, "Close it there to work on it here"});
    }
    return std::unique_ptr<Lock>(std::make_unique<FileLock>(std::move(file)));
  }

 private:
  static std::string withoutSlash(std::string folder) {
    while (folder.size() > 1 && folder.back() == '/') folder.pop_back();
    return folder;
  }

  // The innermost enclosed folder that a path lies in, or is; empty where there is none.
  std::string enclosing(const std::string& path) const {
    const std::lock_guard lock(mutex_);
    std::string best;
    for (const std::string& folder : enclosed_) {
      const bool inside = path.starts_with(folder) && (path.size() == folder.size() || path[folder.size()] == '/' ||
                                                       folder.back() == '/');
      if (inside && folder.size() > best.size()) best = folder;
    }
    return best;
  }

  // Goes to the folder that holds what a path names.
  Result<Place> placeOf(const std::string& path, const char* doing) const {
    Place place;
    place.name = path;
    const std::string root = enclosing(path);
    if (root.empty()) return place;
    std::vector<std::string> parts = partsOf(std::string_view(path).substr(root.size()));
    place.folder = Descriptor(::open(root.c_str(), O_PATH | O_DIRECTORY | O_CLOEXEC));
    if (!place.folder.ok()) return systemError(doing, path);
    place.name = parts.empty() ? "." : parts.back();
    place.enclosed = true;
    if (!parts.empty()) parts.pop_back();
    for (const std::string& part : parts) {
      if (part == "..") return systemError(doing, path, EPERM);
      Descriptor next(::openat(place.folder.fd(), part.c_str(), O_PATH | O_DIRECTORY | O_CLOEXEC | O_NOFOLLOW));
      if (!next.ok()) return systemError(doing, path, wayError(place.folder.fd(), part, errno));
      place.folder = std::move(next);
    }
    if (place.name == "..") return systemError(doing, path, EPERM);
    place.at = place.folder.fd();
    return place;
  }

  mutable std::mutex mutex_;
  std::set<std::string> enclosed_;
};

}  // namespace

Result<std::unique_ptr<Disk::Writing>> Disk::begin(const std::string& path) { return std::unique_ptr<Writing>(std::make_unique<GatheredWriting>(*this, path)); }

std::shared_ptr<Disk> realDisk() { return std::make_shared<RealDisk>(); }

Result<void> writeWhole(Disk& disk, const std::string& path, std::string_view bytes) {
  const std::string fresh = path + ".new";
  auto done = disk.write(fresh, bytes);
  if (done) done = disk.rename(fresh, path);
  if (!done) (void)disk.remove(fresh);
  return done;
}

std::string joined(std::string_view folder, std::string_view name) {
  std::string path(folder);
  if (!path.empty() && path.back() != '/') path += '/';
  return path.append(name);
}

}  // namespace uq
