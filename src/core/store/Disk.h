// Disk: the one way to the file system. Everything the store reads or writes goes through it, so that a test can make
// any single step fail, and count what was written.
//
// Paths are those of the operating system. No call throws; every failure is an Error that names the path.
//
// What lies in a quilt's folder may come from anybody. Once such a folder is enclosed, no call goes through a link below
// it or waits for anything there that is no plain file, whatever path it is given: each part of the way is opened from
// the folder above it, and new files are made, never opened. Outside, where a person chose the path, links are followed.
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Error.h"

namespace uq {

class Disk {
 public:
  enum class Kind { file, folder, link, other };
  struct Entry {
    std::string name;
    Kind kind = Kind::other;
  };
  // What tells cheaply whether a file may have changed.
  struct Stamp {
    std::int64_t size = 0;
    std::int64_t modified = 0;  // nanoseconds
    friend bool operator==(const Stamp&, const Stamp&) = default;
  };
  // Held while it lives.
  class Lock {
   public:
    virtual ~Lock() = default;
    // False once the file was removed or another one put in its place: others then may hold a lock of their own.
    virtual bool stands() const = 0;
  };

  virtual ~Disk() = default;

  // From now on nothing below this folder is reached through a link. A disk without links has nothing to do.
  virtual void enclose(const std::string& folder) { (void)folder; }

  // The whole file; an Error (tooLarge) beyond `most` bytes, and for anything that is no plain file: links are not
  // followed.
  virtual Result<std::string> read(const std::string& path, std::int64_t most) = 0;
  // Names in a folder, sorted; an Error beyond `most` of them.
  virtual Result<std::vector<Entry>> list(const std::string& folder, std::size_t most) = 0;
  // Nothing when there is no such file. In an enclosed folder, of a link itself.
  virtual Result<std::optional<Stamp>> stamp(const std::string& path) = 0;

  // Makes or overwrites a file and brings it safely to the medium. In an enclosed folder the file is always a new one;
  // what had its name goes.
  virtual Result<void> write(const std::string& path, std::string_view bytes) = 0;
  // A file that is written piece by piece, as write() does. What was written stays when it is dropped without end().
  class Writing {
   public:
    virtual ~Writing() = default;
    virtual Result<void> add(std::string_view bytes) = 0;
    // Brings it safely to the medium; once.
    virtual Result<void> end() = 0;
  };
  // A disk that has no way of its own gathers the bytes until the end.
  virtual Result<std::unique_ptr<Writing>> begin(const std::string& path);
  // Atomic within a file system.
  virtual Result<void> rename(const std::string& from, const std::string& to) = 0;
  // No Error when there is no such file.
  virtual Result<void> remove(const std::string& path) = 0;
  // Of an empty folder; no Error when it is not empty, or not there.
  virtual Result<void> removeFolder(const std::string& path) = 0;
  // With all folders above it; no Error when it exists.
  virtual Result<void> makeFolder(const std::string& path) = 0;
  // Brings the names in a folder safely to the medium.
  virtual Result<void> syncFolder(const std::string& path) = 0;
  // Locks a file (made if need be) against others; an Error (inUse) when somebody else holds it, or
  // (noLocks) when the drive has none: see BeatLock.
  virtual Result<std::unique_ptr<Lock>> lock(const std::string& path) = 0;
};

// Writes a file that is no part of a quilt: exports, and what is kept of a desk. Whole or not at all: it is written beside
// its place and renamed, and what was there stays until then.
Result<void> writeWhole(Disk& disk, const std::string& path, std::string_view bytes);

// The operating system's file system (POSIX).
std::shared_ptr<Disk> realDisk();

// What is said of a link where a file or folder of the quilt should be.
inline constexpr std::string_view kLinkReason = "it is a link, and links are not followed";
inline constexpr std::string_view kLinkAdvice = "Put the file or folder itself in its place";

// "a" and "b" as "a/b".
std::string joined(std::string_view folder, std::string_view name);

}  // namespace uq
