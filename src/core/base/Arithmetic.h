// Arithmetic in number fields: what somebody types where a number is wanted.
#pragma once

#include <optional>
#include <string_view>

namespace uq {

// The value of an expression of decimal numbers (point or comma), + - * / × ÷ and parentheses, with the usual
// precedence; spaces are ignored. Where the text begins with * or /, or has the form "+5", the operation is applied to
// `present`; "-5" is a number, because fields hold negative numbers, unless `signIsChange`. Nothing where the text is
// no expression, divides by zero, or is deeper than 32 parentheses or longer than 200 bytes. By recursive descent.
std::optional<double> computed(std::string_view text, double present, bool signIsChange = false);

}  // namespace uq
