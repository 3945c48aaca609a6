// SavePlan: what a save would write, move and remove, planned from values alone: the quilt as it was saved last, the
// quilt now, and which files are there.
//
// A quilt is a list of files by path, each with its text and with what its own reader says of that text. What changed
// or is missing is written; a file that only changes its name is moved where neither name is anybody else's; what the
// quilt no longer has is removed. Nothing that could not be read is ever planned upon. Cost: documents of changed parts
// are written to compare them; cells only where their layer changed, when the plan is carried out. A plan refers to
// both quilts, which must live as long. Any thread.
#pragma once

#include <functional>
#include <map>
#include <optional>
#include <set>
#include <string>

#include "core/document/Quilt.h"
#include "core/store/Journal.h"

namespace uq {

struct QuiltFile {
  std::function<std::string()> text;
  std::function<std::optional<Error>(const std::string& text)> readBack;  // nothing where it is as it should be
  bool isPicture = false;
  bool isSaved = false;   // nothing in it changed since the last save
  std::string movesFrom;  // the file that holds just this, where that had another name
};

struct SavePlan {
  Journal journal;
  std::map<std::string, QuiltFile> files;  // all that the quilt stands on, by path

  // The folders that get a new file.
  std::set<std::string> folders() const;
  // The files that must be as they were seen last: those of the journal and all files of the parts that are written,
  // since a map's document may name other cells by now. Pictures only where they are written.
  std::set<std::string> standsOn() const;
};

struct SaveAsk {
  std::set<std::string> damaged;  // folders of maps that could not be read whole: nothing in them is written
  std::set<std::string> leftOut;  // how the paths of parts begin that could not be read
  std::function<bool(const std::string& path)> isThere;
};

// An Error names a path that cannot be used.
Result<SavePlan> planSave(const Quilt& saved, const Quilt& quilt, const SaveAsk& ask);

}  // namespace uq
