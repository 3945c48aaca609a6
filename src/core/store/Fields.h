// Fields: reads the fields of one JSON object, remembers which it was asked for, and keeps the first thing that is wrong.
//
// Readers give what stands in for a value that is missing or wrong, so that an object can be read to its end; error()
// tells in the end whether it counts. What nobody asked for is kept by rest(), to be written back.
// The Json must live as long.
#pragma once

#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Error.h"
#include "core/base/Json.h"
#include "core/base/Id.h"
#include "core/document/Layer.h"
#include "core/document/Sheet.h"
#include "core/grid/Pixels.h"

namespace uq {

inline constexpr std::size_t kLongestName = 1000;  // bytes
inline constexpr std::size_t kLongestPath = 4096;  // bytes

class Fields {
 public:
  // `file` is named in errors.
  Fields(const Json& json, std::string file);

  // Refuses where it is missing.
  const Json* field(const char* name);
  // nullptr where it is missing.
  const Json* any(const char* name);
  bool has(const char* name) const { return json_.find(name) != nullptr; }

  // Of 1 to `most` bytes.
  std::string text(const char* name, std::size_t most = kLongestName);
  // A file name without folders; returned without `ending`.
  std::string fileName(const char* name, std::string_view ending);
  Id id(const char* name);
  Colour colour(const char* name);  // "#1b2030"
  bool flag(const char* name);
  int number(const char* name, int least, int most);
  // Exactly `count` numbers.
  std::vector<int> numbers(const char* name, std::size_t count, int least, int most);
  // At most `most` of anything.
  const Json::Array& list(const char* name, std::size_t most);
  // At most `most` different texts.
  std::vector<std::string> names(const char* name, std::size_t most);
  // The same for what may be missing, and then is nothing, or `otherwise`. Such a text may be empty.
  std::string textIfAny(const char* name, std::size_t most = kLongestName);
  bool flagIfAny(const char* name, bool otherwise = false);
  int numberIfAny(const char* name, int least, int most, int otherwise);
  std::int64_t wholeIfAny(const char* name, std::int64_t otherwise);
  const Json::Array& listIfAny(const char* name, std::size_t most);
  // The object in a field, or one without fields; to be read by Fields of its own.
  const Json& objectIfAny(const char* name);
  // How every document begins: what it is, and a version that this program reads.
  void document(const char* kind);

  void refuse(std::string why, int line);
  void take(Error error);
  // What is wrong with an object in one of the fields is wrong here.
  void takeFrom(const Fields& inner);
  int line(const char* name) const;
  const std::optional<Error>& error() const { return error_; }

  // The fields that nobody asked for.
  Json::Object rest() const;

 private:
  int within(const Json& json, const char* name, int least, int most);

  const Json& json_;
  std::string file_;
  std::set<std::string> known_;
  std::optional<Error> error_;
};

// The part, unless something was wrong.
template <class Part>
Result<Part> checked(const Fields& fields, Part part) {
  if (fields.error()) return fail(*fields.error());
  return part;
}

// For writing.
inline void append(Json::Object& object, const Json::Object& extra) {
  object.insert(object.end(), extra.begin(), extra.end());
}
inline Json pair(PixelSize size) { return Json::Array{size.w, size.h}; }
inline Json pair(PixelPos at) { return Json::Array{at.x, at.y}; }

// How a sheet's tiles may be laid, each way only where it may not: fields of a quilt and of a sheet.
void putTurns(Json::Object& object, const TurnsAllowed& turns);
void readTurns(Fields& fields, TurnsAllowed& turns);

}  // namespace uq
