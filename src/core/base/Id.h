// Id: what references between parts of a quilt are made of.
//
// Twelve characters of base 32 (a-z, 2-7; RFC 4648, lower case), 60 random bits. Random rather than counted, so that
// two people who work on branches of one quilt never give out the same id. File names are slugs and may change; an id
// never does. Copying and comparing cost one word.
#pragma once

#include <compare>
#include <cstdint>
#include <functional>
#include <optional>
#include <random>
#include <string>
#include <string_view>

namespace uq {

class Id {
 public:
  static constexpr int kLength = 12;

  // The empty id: refers to nothing.
  constexpr Id() = default;

  // The id written as `text`; nothing unless it is exactly 12 characters of a-z and 2-7.
  static std::optional<Id> parse(std::string_view text);

  constexpr bool empty() const { return bits_ == 0; }
  std::string text() const;
  friend constexpr auto operator<=>(Id, Id) = default;

 private:
  friend class IdSource;
  friend struct std::hash<Id>;
  explicit constexpr Id(std::uint64_t bits) : bits_(bits) {}
  std::uint64_t bits_ = 0;
};

// Gives out ids. Edits that need ids get one as a parameter, so the same source and input give the same result.
class IdSource {
 public:
  explicit IdSource(std::uint64_t seed) : random_(seed) {}

  // Seeded by the operating system.
  static IdSource fromSystem();

  // Never empty.
  Id next();

 private:
  std::mt19937_64 random_;
};

}  // namespace uq

template <>
struct std::hash<uq::Id> {
  std::size_t operator()(uq::Id id) const noexcept { return std::hash<std::uint64_t>{}(id.bits_); }
};
