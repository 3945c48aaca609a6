// HostileQuilts: a folder of quilts as somebody might send them who means harm, and what lies beside them.
//
// Each is a small sound quilt with one thing done to it. What "outside" holds must be the same after any program has
// looked at them, worked on them and saved; so must what "treasures" inside a quilt's folder that are no part of it.
#pragma once

#include <map>
#include <string>
#include <vector>

namespace uq::test {

struct HostileQuilts {
  std::string outside;               // a folder beside the quilts
  std::vector<std::string> folders;  // of the quilts
};

// Makes them all in an empty folder.
HostileQuilts makeHostileQuilts(const std::string& scratch);

// All plain files below a folder with their bytes, by path; of links where they lead.
std::map<std::string, std::string> filesBelow(const std::string& folder);
// The same of what is no part of a quilt, in all the quilts and outside: what nobody may change.
std::map<std::string, std::string> treasuresOf(const HostileQuilts& all);

}  // namespace uq::test
