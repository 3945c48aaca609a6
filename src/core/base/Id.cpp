#include "core/base/Id.h"

namespace uq {

namespace {
constexpr std::string_view kDigits = "abcdefghijklmnopqrstuvwxyz234567";
}

std::optional<Id> Id::parse(std::string_view text) {
  if (text.size() != kLength) return std::nullopt;
  std::uint64_t bits = 0;
  for (char c : text) {
    const auto digit = kDigits.find(c);
    if (digit == std::string_view::npos) return std::nullopt;
    bits = bits << 5 | digit;
  }
  // The one text that would be the empty id is not an id.
  if (bits == 0) return std::nullopt;
  return Id(bits);
}

std::string Id::text() const {
  std::string text(kLength, 'a');
  std::uint64_t rest = bits_;
  for (int i = kLength - 1; i >= 0; --i, rest >>= 5) text[static_cast<std::size_t>(i)] = kDigits[rest & 31];
  return text;
}

IdSource IdSource::fromSystem() {
  std::random_device device;
  return IdSource(std::uint64_t{device()} << 32 | device());
}

Id IdSource::next() {
  for (;;) {
    const std::uint64_t bits = random_() & ((std::uint64_t{1} << 60) - 1);
    if (bits != 0) return Id(bits);
  }
}

}  // namespace uq
