#include "core/base/Arithmetic.h"

#include <charconv>
#include <cmath>
#include <string>

namespace uq {

namespace {

class Expression {
 public:
  explicit Expression(std::string text) : text_(std::move(text)) {}

  std::optional<double> value() {
    const auto sum = this->sum(0);
    return at_ == text_.size() && sum && std::isfinite(*sum) ? sum : std::nullopt;
  }

 private:
  using Value = std::optional<double>;

  bool next(char c) {
    if (at_ == text_.size() || text_[at_] != c) return false;
    ++at_;
    return true;
  }
  Value sum(int depth) {
    Value value = product(depth);
    while (value) {
      const bool plus = next('+');
      if (!plus && !next('-')) break;
      const Value right = product(depth);
      value = right ? Value(plus ? *value + *right : *value - *right) : Value();
    }
    return value;
  }
  Value product(int depth) {
    Value value = factor(depth);
    while (value) {
      const bool times = next('*');
      if (!times && !next('/')) break;
      const Value right = factor(depth);
      const bool fails = !right || (!times && *right == 0);
      value = fails ? Value() : Value(times ? *value * *right : *value / *right);
    }
    return value;
  }
  Value factor(int depth) {
    if (depth > 32) return std::nullopt;
    if (next('-')) {
      const Value value = factor(depth + 1);
      return value ? Value(-*value) : value;
    }
    if (next('(')) {
      const Value value = sum(depth + 1);
      return next(')') ? value : std::nullopt;
    }
    double number = 0;
    const char* end = text_.data() + text_.size();
    const auto [rest, error] = std::from_chars(text_.data() + at_, end, number, std::chars_format::fixed);
    if (error != std::errc{}) return std::nullopt;
    at_ = static_cast<std::size_t>(rest - text_.data());
    return number;
  }

  std::string text_;
  std::size_t at_ = 0;
};

// Spaces gone, and each sign in its plain spelling.
std::string plain(std::string_view text) {
  std::string out;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const auto spelt = [&](std::string_view sign) { return text.substr(i, sign.size()) == sign; };
    if (text[i] == ' ') continue;
    if (spelt("×") || spelt("÷")) {
      out += spelt("×") ? '*' : '/';
      ++i;
    } else if (spelt("−")) {
      out += '-';
      i += 2;
    } else {
      out += text[i] == ',' ? '.' : text[i];
    }
  }
  return out;
}

}  // namespace

std::optional<double> computed(std::string_view text, double present, bool signIsChange) {
  if (text.size() > 200) return std::nullopt;
  std::string expression = plain(text);
  if (expression.empty()) return std::nullopt;
  const char first = expression.front();
  const bool changes = first == '*' || first == '/' || first == '+' || (signIsChange && first == '-');
  if (!changes) return Expression(expression).value();
  char spelt[64];
  const auto end = std::to_chars(spelt, spelt + sizeof spelt, present, std::chars_format::fixed).ptr;
  return Expression("(" + std::string(spelt, end) + ")" + expression).value();
}

}  // namespace uq
