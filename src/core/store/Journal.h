// Journal: what makes a save of many files one step.
//
// A save writes each file beside its place under a new name (`.paving.cells.new`), then writes a journal of what is to
// be renamed, moved and removed. Once the journal stands under its own name, the save has happened: whoever opens the
// quilt next carries it out. Before that, nothing has. Carrying out is idempotent, so it may be cut short and begun
// again. Paths are relative to the quilt's folder, and only such as a save makes: a journal that came with somebody's
// folder and names anything else is no journal.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/Error.h"
#include "core/store/Disk.h"

namespace uq {

inline constexpr std::string_view kPrivateFolder = ".urban-quilt";

struct Journal {
  struct Move {
    std::string from;
    std::string to;
  };
  std::vector<std::string> writes;  // newNameFor(path) becomes path
  std::vector<Move> moves;          // files that only change their name
  std::vector<std::string> removes;

  bool empty() const { return writes.empty() && moves.empty() && removes.empty(); }
};

// "maps/yard/paving.cells" → "maps/yard/.paving.cells.new"
std::string newNameFor(const std::string& path);
// The way back; nothing for any other name.
std::optional<std::string> fileOfNewName(const std::string& path);

// True for the path of a file that a save of a quilt makes: quilt.json, what lies in "sheets", and the documents and
// cells of maps and stamps.
bool isQuiltFile(const std::string& path);
// True for what may be the name of a file or folder of a quilt: text in valid UTF-8 without control characters, not
// hidden, at most 200 bytes.
bool isPlainName(std::string_view name);

// The journal that stands in the quilt in `folder`; nothing when there is none.
Result<std::optional<Journal>> readJournal(Disk& disk, const std::string& folder);

// Commits: from when this returns without an Error, the save has happened.
Result<void> commitJournal(Disk& disk, const std::string& folder, const Journal& journal);

// Carries a committed journal out, takes folders away that it left empty, and drops it.
Result<void> finishJournal(Disk& disk, const std::string& folder, const Journal& journal);

}  // namespace uq
