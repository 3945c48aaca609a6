// Error and Result: how anything that can fail for outside reasons says so.
//
// An Error is written for the person at the screen: what happened, in which file and line, what was kept, and what to
// do next. Functions that can fail return Result<T>; nothing throws across modules, and `assert` guards only what
// cannot happen.
#pragma once

#include <string>
#include <tl/expected.hpp>
#include <vector>

namespace uq {

struct Error {
  // Why, for code that reacts differently; people read the texts.
  enum class Cause {
    broken,        // the content breaks its format
    missing,       // a file or part that should be there is not
    tooLarge,      // over one of our limits
    newer,         // written by a newer version
    notPermitted,  // the operating system refused
    diskFull,
    inUse,           // something else holds it now: another window, a gesture, a reading
    changedOutside,  // another program wrote the file since it was read
    notFound,        // what was asked for by name does not exist
    noLocks,         // the drive has no locks
    cancelled,       // somebody asked for the work to be stopped
    other,
  };

  Cause cause = Cause::other;
  std::string reason;  // one sentence without its full stop
  std::string file;    // inside the quilt, or as the user gave it; empty when no file is concerned
  int line = 0;        // from 1; 0 when no line is concerned
  std::string kept;    // what is safe; may be empty
  std::string todo;    // what to do; may be empty

  // "paving.cells, line 12: the row ends in the middle. Kept: … To do: …", on one line.
  std::string text() const;

  Error&& in(std::string path) &&;  // names the file where none is named yet
  Error&& keeping(std::string text) &&;
  Error&& advising(std::string text) &&;
};

template <class T>
using Result = tl::expected<T, Error>;
using Errors = std::vector<Error>;

// For `return fail(...)` out of a function that returns a Result.
tl::unexpected<Error> fail(Error::Cause cause, std::string reason, std::string file = {}, int line = 0);
tl::unexpected<Error> fail(Error error);

}  // namespace uq
