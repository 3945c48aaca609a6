// Revision: the mark by which caches and the "unsaved" mark recognise a part of the quilt.
//
// A map, layer, sheet and a chunk of more than one cell carries one. It is drawn from one process-wide counter when an
// edit really changes the part, and is copied with the value, so undo brings the old revision back.
//
// Invariants: same revision = same content. Different revisions prove nothing; then contents are compared. Never saved.
// It is no part of equality: any two revisions compare equal with ==, so that the defaulted == of a part compares its
// content; `is` compares the revisions themselves.
#pragma once

#include <cstdint>

namespace uq {

class Revision {
 public:
  // The revision of a part that was never edited in this process.
  constexpr Revision() = default;

  // A revision never drawn before in this process; above 2^32, so that it never equals a cell's 32 bits. Thread-safe.
  static Revision next();

  constexpr bool is(Revision other) const { return number_ == other.number_; }
  constexpr std::uint64_t number() const { return number_; }
  friend constexpr bool operator==(Revision, Revision) { return true; }

 private:
  explicit constexpr Revision(std::uint64_t number) : number_(number) {}
  std::uint64_t number_ = 0;
};

}  // namespace uq
