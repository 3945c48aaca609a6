#include "core/document/Layer.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <utility>

namespace uq {

namespace {

constexpr std::array<std::pair<LayerKind, std::string_view>, 3> kKinds = {
    {{LayerKind::tiles, "tiles"}, {LayerKind::backdrop, "backdrop"}, {LayerKind::pins, "pins"}}};
constexpr std::array<std::pair<Blend, std::string_view>, 4> kBlends = {
    {{Blend::normal, "normal"}, {Blend::multiply, "multiply"}, {Blend::screen, "screen"}, {Blend::add, "add"}}};
constexpr std::array<std::pair<Backdrop::Fit, std::string_view>, 3> kFits = {
    {{Backdrop::Fit::asItIs, "as-it-is"}, {Backdrop::Fit::map, "map"}, {Backdrop::Fit::screen, "screen"}}};

template <class Table, class Value>
std::string_view nameIn(const Table& table, Value value) {
  for (const auto& [one, name] : table) {
    if (one == value) return name;
  }
  return {};
}

template <class Table>
auto valueIn(const Table& table, std::string_view name) -> std::optional<decltype(table.front().first)> {
  for (const auto& [value, one] : table) {
    if (one == name) return value;
  }
  return std::nullopt;
}

// The nearest whole number to hundredths × pixels; halves go up.
int part(int hundredths, int pixels) {
  const std::int64_t product = std::int64_t{hundredths} * pixels + 50;
  return static_cast<int>(product >= 0 ? product / 100 : -((-product + 99) / 100));
}

}  // namespace

std::string colourText(Colour colour) {
  constexpr char kDigits[] = "0123456789abcdef";
  std::string text = "#";
  for (int shift = 20; shift >= 0; shift -= 4) text += kDigits[colour >> shift & 15];
  return text;
}

std::optional<Colour> colourFromText(std::string_view text) {
  Colour colour = 0;
  if (text.size() != 7 || text.front() != '#') return std::nullopt;
  const auto [end, error] = std::from_chars(text.data() + 1, text.data() + 7, colour, 16);
  return error == std::errc() && end == text.data() + 7 ? std::optional(colour) : std::nullopt;
}

std::string_view layerKindName(LayerKind kind) { return nameIn(kKinds, kind); }
std::optional<LayerKind> layerKindFromName(std::string_view name) { return valueIn(kKinds, name); }
std::string_view blendName(Blend blend) { return nameIn(kBlends, blend); }
std::optional<Blend> blendFromName(std::string_view name) { return valueIn(kBlends, name); }
std::string_view fitName(Backdrop::Fit fit) { return nameIn(kFits, fit); }
std::optional<Backdrop::Fit> fitFromName(std::string_view name) { return valueIn(kFits, name); }

PixelPos scrolledBy(Parallax parallax, PixelPos camera) {
  return {camera.x - part(parallax.across, camera.x), camera.y - part(parallax.down, camera.y)};
}

}  // namespace uq
