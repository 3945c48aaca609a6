// Chance: numbers that depend only on a seed and a place, so that a stroke looks the same however often it is made, and
// its ghost shows exactly what will be laid.
//
// The mixing is the finaliser of SplitMix64 (Steele, Lea, Flood: Fast Splittable Pseudorandom Number Generators, 2014).
#pragma once

#include <cstdint>

#include "core/grid/CellPos.h"

namespace uq {

constexpr std::uint64_t mixedBits(std::uint64_t bits) {
  bits = (bits ^ bits >> 30) * 0xbf58476d1ce4e5b9u;
  bits = (bits ^ bits >> 27) * 0x94d049bb133111ebu;
  return bits ^ bits >> 31;
}

// The throw for a place; `kind` tells throws for one place apart.
constexpr std::uint64_t thrown(std::uint64_t seed, SidePos at, std::uint32_t kind = 0) {
  const auto place =
      static_cast<std::uint64_t>(static_cast<std::uint32_t>(at.u)) << 32 | static_cast<std::uint32_t>(at.v);
  return mixedBits(mixedBits(seed + kind * 0x9e3779b97f4a7c15u) ^ mixedBits(place + 0x9e3779b97f4a7c15u));
}

// A throw as a number 0 .. count - 1. `count` is at least 1.
constexpr std::size_t pick(std::uint64_t thrownBits, std::size_t count) {
  return static_cast<std::size_t>((thrownBits >> 32) * count >> 32);
}

}  // namespace uq
