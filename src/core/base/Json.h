// Json: a value that keeps what we do not understand.
//
// Every object of a quilt's files may hold fields of a newer version or of another tool. They are kept as Json beside
// the parts that we know and written back as they were. Objects keep the order of their fields; a number that does not
// fit 64 signed bits keeps its spelling. Reading and writing text is the store's work; it bounds depth and size.
//
// `line` says where in its file a value stood (0 = nowhere) for error messages; it is no part of equality.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

namespace uq {

class Json {
 public:
  struct Number {  // a number that is no 64-bit integer, as it was spelt
    std::string text;
    friend bool operator==(const Number&, const Number&) = default;
  };
  using Field = std::pair<std::string, Json>;
  using Array = std::vector<Json>;
  using Object = std::vector<Field>;  // names are unique
  using Value = std::variant<std::nullptr_t, bool, std::int64_t, Number, std::string, Array, Object>;

  Value value = nullptr;
  int line = 0;

  Json() = default;
  Json(bool b) : value(b) {}
  Json(int i) : value(std::int64_t{i}) {}
  Json(std::int64_t i) : value(i) {}
  Json(Number n) : value(std::move(n)) {}
  Json(std::string s) : value(std::move(s)) {}
  Json(std::string_view s) : value(std::string(s)) {}
  Json(const char* s) : value(std::string(s)) {}
  Json(Array a) : value(std::move(a)) {}
  Json(Object o) : value(std::move(o)) {}

  // The alternative asked for, or nullptr.
  template <class T>
  const T* as() const {
    return std::get_if<T>(&value);
  }

  // The field of that name; nullptr when there is none or this is no object.
  const Json* find(std::string_view name) const;

  // Sets or adds a field; this must be an object.
  void set(std::string_view name, Json field);

  friend bool operator==(const Json& a, const Json& b) { return a.value == b.value; }
};

}  // namespace uq
