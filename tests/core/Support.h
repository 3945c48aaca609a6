// What the core's tests share: a disk in memory that can be made to fail, a small quilt, and generators.
#pragma once

#include <rapidcheck/gtest.h>

#include <map>
#include <set>

#include "core/document/Desk.h"
#include "core/store/Disk.h"

namespace uq::test {

// A disk in memory. Counts what is written, and fails or stops at the operation that it is told.
class MemoryDisk : public Disk {
 public:
  std::map<std::string, std::string> files;
  std::set<std::string> folders{""};
  std::vector<std::string> written;  // paths, in the order of writing
  int changes = 0;                   // operations that change the disk so far
  int failAt = -1;                   // the change that fails, counted from 0
  bool stopsThere = false;           // everything after it fails too, as if the program were gone
  Error::Cause failure = Error::Cause::diskFull;
  bool lockedElsewhere = false;
  bool hasLocks = true;
  // Locks that are held now lie on a file that is gone.
  void loseLocks() { ++lockFile_; }
  bool readOnly = false;
  std::int64_t clock = 0;

  Result<std::string> read(const std::string& path, std::int64_t most) override;
  Result<std::vector<Entry>> list(const std::string& folder, std::size_t most) override;
  Result<std::optional<Stamp>> stamp(const std::string& path) override;
  Result<void> write(const std::string& path, std::string_view bytes) override;
  Result<void> rename(const std::string& from, const std::string& to) override;
  Result<void> remove(const std::string& path) override;
  Result<void> removeFolder(const std::string& path) override;
  Result<void> makeFolder(const std::string& path) override;
  Result<void> syncFolder(const std::string& path) override;
  Result<std::unique_ptr<Lock>> lock(const std::string& path) override;

  // The quilt's own files: without lock, journal and new files.
  std::map<std::string, std::string> quiltFiles() const;
  void put(const std::string& path, std::string bytes);

 private:
  Result<void> mayChange(const std::string& path);
  std::map<std::string, std::int64_t> modified_;
  int lockFile_ = 0;
};

// A quilt with two sheets ("street", code A, and "rails", code B), and two maps: "Yard", 20 × 12 cells from −4, −4,
// with the layers Paving, Sheds and Awnings, and "Loft", 6 × 5, with one layer.
Quilt smallQuilt();
LayerAt layerOf(const Quilt& quilt, const char* map, const char* layer);
Cell tileOf(const Quilt& quilt, const char* sheet, std::uint32_t number, Turn turn = {});

// All the bytes that a quilt would be saved as. Quilts that were read separately have slots of their own, so their
// cells are compared by this.
std::string bytes(const Quilt& quilt);

// The layers of each folder are neighbours, no folder is empty or in itself, and they are in the order of their layers.
void expectWhole(const Map& map);

// A random stroke or rename somewhere on the quilt.
rc::Gen<Quilt> editOf(Quilt quilt);

}  // namespace uq::test
