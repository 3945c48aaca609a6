// NewRoom: what is laid in room that is new when a map grows, on layers for tiles.
#pragma once

#include <array>
#include <cstddef>
#include <optional>
#include <string_view>

namespace uq {

enum class NewRoom {
  empty,
  lastRow,  // the outermost cells again, on all layers
  ground    // the same on the ground: layers of the role "ground", else the farthest one
};

// As files and orders spell it, by value.
inline constexpr std::array<std::string_view, 3> kNewRoomNames{"empty", "lastRow", "ground"};
constexpr std::string_view newRoomName(NewRoom room) { return kNewRoomNames[static_cast<std::size_t>(room)]; }
constexpr std::optional<NewRoom> newRoomFromName(std::string_view name) {
  for (std::size_t i = 0; i < kNewRoomNames.size(); ++i) {
    if (kNewRoomNames[i] == name) return static_cast<NewRoom>(i);
  }
  return std::nullopt;
}

}  // namespace uq
