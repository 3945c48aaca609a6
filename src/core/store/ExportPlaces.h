// ExportPlaces: what this machine alone knows of the exports of a quilt: folders outside it, the command that is run after saving, and
// which targets went out last.
//
// None of it is ever read from a quilt: a quilt that comes from somebody else writes nothing outside its own folder and runs nothing.
// One small file for each folder in which a quilt lies, in the person's state folder. Threads: any, one at a time.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/document/Target.h"
#include "core/store/Disk.h"

namespace uq {

struct ExportPlaces {
  std::map<Id, std::string> folders;  // by target; whole paths
  std::string command;                // a line for the shell, to which the changed maps are given; empty: none
  std::vector<Id> last;               // targets
  friend bool operator==(const ExportPlaces&, const ExportPlaces&) = default;
};

// Nothing where nothing is kept, or it cannot be read.
ExportPlaces exportPlaces(Disk& disk, const std::string& quiltFolder);
Result<void> keepExportPlaces(Disk& disk, const std::string& quiltFolder, const ExportPlaces& places);

// Where a target goes from the quilt in a folder; nothing where nobody has said so on this machine.
std::optional<std::string> folderOf(const ExportPlaces& places, const std::string& quiltFolder, const Target& target);

}  // namespace uq
