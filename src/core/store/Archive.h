// Archive: files put into one zip (PKWARE's APPNOTE, by libzip), with the same bytes whenever the same files are given.
//
// No time, owner or right of the machine goes in. Files come in the order in which they are added. Memory: the archive as
// it becomes; a file given by a function is asked for only while it is written. Any thread; one at a time.
#pragma once

#include <functional>
#include <list>
#include <memory>
#include <optional>
#include <string>

namespace uq {

class Archive {
 public:
  // Stored as they are, or packed (deflate).
  enum class How { stored, packed };

  Archive();
  ~Archive();
  Archive(const Archive&) = delete;
  Archive& operator=(const Archive&) = delete;

  // Whether it could be added. Names are paths with '/', each given once.
  [[nodiscard]] bool add(const std::string& name, std::string bytes, How how);
  // `bytes` is called from close(), and must give the same whenever it is.
  [[nodiscard]] bool add(const std::string& name, std::function<std::string()> bytes, How how);
  // All of it, written now; nothing where memory did not suffice or `goesOn` said no between files. Called once.
  std::optional<std::string> close(const std::function<bool()>& goesOn = {});

 private:
  struct Parts;
  struct File;
  std::unique_ptr<Parts> parts_;
};

}  // namespace uq
