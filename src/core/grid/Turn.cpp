#include "core/grid/Turn.h"

namespace uq {

Turn combined(Turn first, Turn then, int order) {
  // R^t M^n R^s M^m, where mirroring a turned thing reverses the turn: M R^s = R^-s M.
  const int steps = then.mirror ? then.steps - first.steps : then.steps + first.steps;
  return {first.mirror != then.mirror, static_cast<std::uint8_t>((steps % order + order) % order)};
}

Turn turnOf(Turning turning, int order) {
  const auto last = static_cast<std::uint8_t>(order - 1);
  const auto half = static_cast<std::uint8_t>(order / 2);
  switch (turning) {
    case Turning::left: return {false, last};
    case Turning::right: return {false, 1};
    case Turning::mirrorAcross: return {true, 0};
    case Turning::mirrorDown: return {true, half};
  }
  return {};
}

}  // namespace uq
