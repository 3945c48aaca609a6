// What is typed into a number field.
#include <rapidcheck/gtest.h>

#include <string>

#include "core/base/Arithmetic.h"

namespace uq::test {

TEST(Arithmetic, ComputesWhatAPersonTypes) {
  EXPECT_EQ(computed("48", 0), 48);
  EXPECT_EQ(computed(" 23*16 ", 0), 368);
  EXPECT_EQ(computed("23 × 16", 0), 368);
  EXPECT_EQ(computed("2+3*4", 0), 14);
  EXPECT_EQ(computed("(2+3)*4", 0), 20);
  EXPECT_EQ(computed("1536/32-1", 0), 47);
  EXPECT_EQ(computed("10−4÷2", 0), 8);
  EXPECT_EQ(computed("0,5", 0), 0.5);
  EXPECT_EQ(computed("-5", 40), -5);
}

TEST(Arithmetic, ASignInFrontChangesWhatIsThere) {
  EXPECT_EQ(computed("+5", 40), 45);
  EXPECT_EQ(computed("*2", 40), 80);
  EXPECT_EQ(computed("/2", 40), 20);
  EXPECT_EQ(computed("+5", -40), -35);
  EXPECT_EQ(computed("-5", 40, true), 35);
}

TEST(Arithmetic, WhatIsNoSumIsNothing) {
  for (const char* text :
       {"", " ", "a", "3 apples", "1+", "(1", "1)", "()", "1//2", "5/0", "+", "--", "1e", "0x10", "nan", "inf"}) {
    EXPECT_FALSE(computed(text, 7)) << text;
  }
  EXPECT_FALSE(computed(std::string(500, '('), 7));
  std::string deep(100, '-');
  deep.push_back('1');
  EXPECT_FALSE(computed(deep, 7)) << "deeper than 32";
}

RC_GTEST_PROP(Arithmetic, TakesAnyText, (const std::string& text)) { (void)computed(text, 1); }

RC_GTEST_PROP(Arithmetic, AddsAndMultipliesLikeNumbersDo, ()) {
  const int a = *rc::gen::inRange(-1000, 1000);
  const int b = *rc::gen::inRange(-1000, 1000);
  const int c = *rc::gen::inRange(-1000, 1000);
  const auto spelt = [](int n) { return n < 0 ? "(" + std::to_string(n) + ")" : std::to_string(n); };
  RC_ASSERT(computed(spelt(a) + "+" + spelt(b) + "*" + spelt(c), 0) == a + b * c);
  RC_ASSERT(computed("(" + spelt(a) + "-" + spelt(b) + ")*" + spelt(c), 0) == (a - b) * c);
}

}  // namespace uq::test
