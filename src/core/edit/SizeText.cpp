#include "core/edit/SizeText.h"

#include <cctype>
#include <charconv>
#include <cmath>
#include <optional>

#include "core/grid/CellPos.h"

namespace uq {

namespace {

constexpr double kMost = 1e12;  // of anything on the way

class SizeReader {
 public:
  explicit SizeReader(std::string_view text) {
    for (const char one : text) {
      if (!std::isspace(static_cast<unsigned char>(one))) text_ += static_cast<char>(std::tolower(static_cast<unsigned char>(one)));
    }
    rest_ = text_;
  }
  bool take(char one) {
    if (!rest_.starts_with(one)) return false;
    rest_.remove_prefix(1);
    return true;
  }
  std::optional<double> number() {
    double value = 0;
    const auto read = std::from_chars(rest_.data(), rest_.data() + rest_.size(), value, std::chars_format::fixed);
    if (read.ec != std::errc() || value < 0 || value > kMost) return std::nullopt;
    rest_.remove_prefix(static_cast<std::size_t>(read.ptr - rest_.data()));
    return value;
  }
  std::string_view rest() const { return rest_; }
  bool empty() const { return text_.empty(); }

 private:
  std::string text_;
  std::string_view rest_;
};

bool begins(std::string_view unit, std::string_view written) { return !written.empty() && unit.starts_with(written); }

}  // namespace

SizeMeant sizeMeant(std::string_view text, int now, int cell, int screen) {
  SizeReader reader(text);
  if (reader.empty()) return {0, "Write a size, as 64, +5, 3 screens or 1920 px"};
  const bool more = reader.take('+');
  const bool fewer = !more && reader.take('-');
  auto value = reader.number();
  if (!value) return {0, "A size begins with a number, as 64, +5, 3 screens or 1920 px"};
  while (reader.take('*')) {
    const auto factor = reader.number();
    if (!factor) return {0, "After * comes another number"};
    value = std::min(*value * *factor, kMost);
  }
  const std::string_view unit = reader.rest();
  double cells = *value;
  if (begins("px", unit) || begins("pixels", unit)) {
    cells = std::ceil(*value / std::max(1, cell) - 1e-9);
  } else if (begins("screens", unit)) {
    cells = std::ceil(*value * screen / std::max(1, cell) - 1e-9);
  } else if (!unit.empty() && !begins("cells", unit)) {
    return {0, "“" + std::string(unit) + "” is no unit: cells, px or screens"};
  }
  if (cells != std::floor(cells)) return {0, "A map has whole cells"};
  const double all = more ? now + cells : fewer ? now - cells : cells;
  if (all < 1) return {0, "At least one cell is left"};
  if (all > kFarthestCell) return {0, "A map has at most 1,048,576 cells each way"};
  return {static_cast<int>(all)};
}

}  // namespace uq
