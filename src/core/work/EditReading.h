// EditReading: reads the fields of a list of edits, and says what is wrong with them by step and line.
//
// The first refusal counts; readers then give what stands in for the value, so that a step can be read to its end. Which
// fields mean something in which step stands here, once, for reading and for writing.
#pragma once

#include <initializer_list>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Error.h"
#include "core/cells/CellLines.h"
#include "core/base/Json.h"
#include "core/document/Desk.h"
#include "core/grid/CellPos.h"

namespace uq {

// The steps that are strokes of one tool.
inline constexpr std::pair<const char*, Tool> kStrokeSteps[] = {{"paint", Tool::brush}, {"erase", Tool::erase},
                                                                {"box", Tool::box},     {"oval", Tool::oval},
                                                                {"line", Tool::line},   {"fill", Tool::fill}};

// Whether a field means something in a step of that name ("paint"); false where there is no such step.
bool hasMeaning(std::string_view step, std::string_view field);

// The first field of an object that is none of these; nullptr where there is none.
const Json::Field* strayIn(const Json& json, std::initializer_list<std::string_view> known);

// The value that a table of names and values has for a name.
template <class Table>
auto valueIn(const Table& table, const std::string& name) {
  using Value = decltype(std::begin(table)->second);
  for (const auto& [called, value] : table) {
    if (name == called) return std::optional<Value>(value);
  }
  return std::optional<Value>();
}

class EditReading {
 public:
  // `file` is named in errors.
  explicit EditReading(std::string file) : file_(std::move(file)) {}

 protected:
  // Of the list as a whole.
  tl::unexpected<Error> refusal(Error::Cause cause, std::string why, int line) const;
  // Of the step at hand.
  void refuse(const std::string& why, const Json& at, Error::Cause cause = Error::Cause::broken);
  void refuse(const Error& error, const Json& at) { refuse(error.reason, at, error.cause); }
  void lacks(const std::string& what, const Json& at) { refuse(what, at, Error::Cause::notFound); }

  // Whether there is such a step, and it says only what means something in it.
  bool makesSense(const Json& step, const std::string& what);

  // The field of that name, or what stands in for it. A field that is there must be of its kind.
  std::int64_t integer(const Json& json, const char* name, std::int64_t otherwise);
  int bounded(const Json& json, const char* name, int least, int most, int otherwise);
  bool flag(const Json& json, const char* name, bool otherwise = false);
  std::string text(const Json& json, const char* name);
  // A list of `count` whole numbers, each no farther from 0 than any cell.
  std::optional<std::vector<int>> numbers(const Json& json, std::size_t count);
  std::optional<CellPos> cell(const Json& json, const char* name);
  // Rows and columns that come in or go, columns before rows, what comes in first: each is where, and how many.
  std::vector<CellLines> lines(const Json& step);

  std::size_t step_ = 0;  // that is being read, from 0
  std::optional<Error> error_;

 private:
  void refuseAt(const std::string& why, int line, Error::Cause cause = Error::Cause::broken);
  // What one reader of Fields says of the object.
  template <class Read>
  auto field(const Json& json, Read&& read);

  std::string file_;
};

}  // namespace uq
