// Every reader of bytes from elsewhere, on seeds, on what was found once, and for some seconds on variations of them:
// other ones each day, so that a check finds what the one of yesterday did not. UQ_FUZZ_DAY=N does those of a day again.
#include <gtest/gtest.h>

#include <chrono>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <random>

#include "fuzz/Targets.h"

namespace uq::test {

namespace {

constexpr std::chrono::seconds kForEach{2};

// Days since 1970.
unsigned today() {
  if (const char* day = std::getenv("UQ_FUZZ_DAY")) return static_cast<unsigned>(std::strtoul(day, nullptr, 10));
  const auto since = std::chrono::system_clock::now().time_since_epoch();
  return static_cast<unsigned>(std::chrono::duration_cast<std::chrono::hours>(since).count() / 24);
}

class FuzzTargets : public testing::TestWithParam<FuzzTarget> {};

// A seed with some bytes changed, left out, doubled or taken from another seed.
std::string variationOf(const std::vector<std::string>& seeds, std::mt19937& chance) {
  const auto below = [&](std::size_t end) { return std::uniform_int_distribution<std::size_t>(0, end - 1)(chance); };
  std::string bytes = seeds[below(seeds.size())];
  static const std::string telling[] = {"-1", "0", "999999999999", "4294967296", "\n", "\"", "[", "{", "..", "/", "end\n", "x", "@"};
  for (std::size_t n = below(4) + 1; n > 0 && !bytes.empty(); --n) {
    const std::size_t at = below(bytes.size());
    const std::size_t length = std::min(below(64) + 1, bytes.size() - at);
    switch (below(6)) {
      case 0: bytes[at] = static_cast<char>(below(256)); break;
      case 1: bytes[at] = static_cast<char>(bytes[at] ^ (1 << below(8))); break;
      case 2: bytes.erase(at, length); break;
      case 3: bytes.insert(at, bytes.substr(at, length)); break;
      case 4: bytes.insert(at, telling[below(std::size(telling))]); break;
      default: {
        const std::string& other = seeds[below(seeds.size())];
        if (!other.empty()) bytes.insert(at, other.substr(below(other.size()), length));
      }
    }
  }
  return bytes;
}

}  // namespace

TEST_P(FuzzTargets, ReturnWhateverTheBytes) {
  const FuzzTarget& target = GetParam();
  std::vector<std::string> seeds = target.seeds();
  ASSERT_FALSE(seeds.empty());
  for (const auto& one : std::filesystem::directory_iterator(UQ_SOURCE_DIR "/tests/fuzz/found")) {
    if (!one.path().filename().string().starts_with(std::string(target.name) + "-")) continue;
    std::ifstream stream(one.path(), std::ios::binary);
    seeds.emplace_back(std::istreambuf_iterator<char>(stream), std::istreambuf_iterator<char>());
  }
  for (const std::string& seed : seeds) target.run(seed);
  // Where one of them ends the program, this is the last line.
  std::cout << target.name << ": variations of UQ_FUZZ_DAY=" << today() << std::endl;
  std::mt19937 chance(today());
  const auto end = std::chrono::steady_clock::now() + kForEach;
  while (std::chrono::steady_clock::now() < end) target.run(variationOf(seeds, chance));
}

INSTANTIATE_TEST_SUITE_P(All, FuzzTargets, testing::ValuesIn(fuzzTargets()),
                         [](const auto& one) { return std::string(one.param.name); });

}  // namespace uq::test
