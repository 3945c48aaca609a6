// What `uquilt edit` does, apart from its command line: does a list of edits and saves the quilt.
#pragma once

#include <string>

namespace uq::cli {

// Reads the list from a file, or from standard input where `list` is empty; prints what each step did. With `dryRun`
// nothing is saved. Returns the exit code.
int editQuilt(const std::string& quilt, const std::string& list, bool dryRun);

}  // namespace uq::cli
