// Alike: which tiles count as the same where Fill spreads and Select takes "the same as this".
#pragma once

#include <array>
#include <utility>

namespace uq {

enum class Alike {
  tile,   // the very tile, whichever way it is turned
  mix,    // what is in a mix with it, in hand or kept
  stamp,  // what is in a kept stamp with it, on one layer; a mix is one, too
  pile    // every tile of the sheets in its pile; of a sheet in none, and of Chalk, its own
};

// Their names in files.
inline constexpr std::array<std::pair<Alike, const char*>, 4> kAlikes = {
    {{Alike::tile, "tile"}, {Alike::mix, "mix"}, {Alike::stamp, "stamp"}, {Alike::pile, "pile"}}};

}  // namespace uq
