// Turn: how a tile's picture is placed on its cell.
//
// A turn mirrors first (across: left becomes right), then turns clockwise by `steps`: quarters on squares, diamonds and
// staggered grids, sixths on hexagons. Every placement has exactly one spelling, so turns compare by value, and four
// quarters (or six sixths) to the right are the identity. The code, 6 * mirror + steps, is what a cell stores.
// Functions that turn take `order`, the number of steps in a full turn: 4 or 6 (Grid::turnOrder).
#pragma once

#include <cstdint>

namespace uq {

struct Turn {
  bool mirror = false;
  std::uint8_t steps = 0;  // 0 .. order - 1

  static constexpr int kCodes = 12;

  constexpr std::uint32_t code() const { return (mirror ? 6u : 0u) + steps; }
  // The turn of a code from 0 to 11.
  static constexpr Turn fromCode(std::uint32_t code) { return {code >= 6, static_cast<std::uint8_t>(code % 6)}; }
  // True when `code` is a turn on a grid of that order.
  static constexpr bool isCode(std::uint32_t code, int order) {
    return code < kCodes && code % 6 < static_cast<std::uint32_t>(order);
  }
  friend constexpr bool operator==(const Turn&, const Turn&) = default;
};

// What the hand does to a thing: each is a turn laid over the one that is already there.
enum class Turning { left, right, mirrorAcross, mirrorDown };

// `first`, then `then`. Associative; Turn{} is neutral.
Turn combined(Turn first, Turn then, int order);

// `turning` as a turn of its own. Mirroring down is mirroring across and half a turn.
Turn turnOf(Turning turning, int order);

}  // namespace uq
