// ExportFolder: a folder into which exports are written again and again, and what is known of them.
//
// A file that would not change is not written; each other one is written whole or not at all. For each owner of files, which is a map or
// what is of the whole quilt, a small book in `.urban-quilt-export/<target>` says which files it has and of which state they are. So
// a later export skips what has not changed, and a map that is gone loses its files: those that are as they were written, and no other.
// Each owner has a book of its own, so that several processes may write different maps at once. Books are made anew where they are
// damaged or gone. Cost: files are read to be compared. Threads: one at a time.
#pragma once

#include <functional>
#include <set>
#include <string>
#include <vector>

#include "core/base/Id.h"
#include "core/base/Progress.h"
#include "core/store/Disk.h"

namespace uq {

// Gives a file of an export, by its path inside the folder; an Error ends the export.
using FilePut = std::function<Result<void>(const std::string& path, const std::string& bytes)>;
// Makes a file piece by piece: gives each to `add`, whose Error ends it.
using FileMaking = std::function<Result<void>(const std::function<Result<void>(std::string_view)>& add)>;

// How files are given: those that are held, and those that are too large for that.
struct FilePuts {
  FilePut whole;
  std::function<Result<void>(const std::string& path, const FileMaking& make)> made;
};

class ExportFolder {
 public:
  // `target`: whose books are kept; empty: none are. Folder and books are made with the first file. The disk must live as long.
  ExportFolder(Disk& disk, std::string folder, std::string target, Progress* progress = nullptr)
      : disk_(disk), folder_(std::move(folder)), target_(std::move(target)), progress_(progress) {}

  // What an owner wrote, begun and ended. Files that it had and did not put again go in the end, where they are as they were written.
  void begin(const std::string& owner, const std::string& name);
  // For paths inside the folder only; an Error also where the work was cancelled.
  Result<void> put(const std::string& path, const std::string& bytes);
  // A file that is too large to be held: it is made beside its place, and goes again where it is the same.
  Result<void> putMade(const std::string& path, const FileMaking& make);
  FilePuts puts() {
    return {[this](const std::string& path, const std::string& bytes) { return put(path, bytes); }, [this](const std::string& path, const FileMaking& make) { return putMade(path, make); }};
  }
  Result<void> end(const std::string& state);

  // Whether an owner's files are there and of that state. Cost: a look at each, none is read.
  bool isOf(const std::string& owner, const std::string& state) const;
  // The files an owner has, as its book says; nothing where there is no book.
  std::vector<std::string> filesOf(const std::string& owner) const;

  // Owners that are none of `there`, with the files that would go.
  struct Gone {
    std::string owner;
    std::string name;
    std::vector<std::string> files;
  };
  std::vector<Gone> gone(const std::set<std::string>& there) const;
  Result<void> takeAway(const Gone& gone);

  // Paths inside the folder.
  const std::vector<std::string>& written() const { return written_; }
  const std::vector<std::string>& same() const { return same_; }
  const std::vector<std::string>& removed() const { return removed_; }
  // Files that an owner has no more but somebody changed: they stay.
  const std::vector<std::string>& left() const { return left_; }

 private:
  struct Entry {
    std::string path;
    std::int64_t size = 0;
    std::string sum;
  };
  struct Book {
    std::string name;
    std::string state;
    std::vector<Entry> files;
  };
  std::string booksFolder() const { return joined(joined(folder_, ".urban-quilt-export"), target_); }
  std::string bookPath(const std::string& owner) const { return joined(booksFolder(), owner + ".json"); }
  // Makes the folders of a path inside, and refuses one that leaves.
  Result<std::string> placeFor(const std::string& path);
  std::optional<Book> book(const std::string& owner) const;
  static std::string textOf(const Book& book);
  // Before a file of the owner is changed: its book says of no state any more that it is there, until end() does.
  Result<void> unsettle();
  Result<void> removeIfAsWritten(const Entry& entry, const std::string& owner);
  // Whether another owner than this has the file, too.
  bool isOfAnother(const std::string& path, const std::string& owner) const;

  Disk& disk_;
  std::string folder_;
  std::string target_;
  Progress* progress_;
  std::string owner_;
  Book now_;
  bool isUnsettled_ = false;
  std::set<std::string> made_;  // folders
  std::vector<std::string> written_;
  std::vector<std::string> same_;
  std::vector<std::string> removed_;
  std::vector<std::string> left_;
};

}  // namespace uq
