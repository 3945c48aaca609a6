// The program that libFuzzer drives. UQ_FUZZ names the target; with UQ_FUZZ_SEEDS it writes the target's seeds into that
// folder and ends. Without UQ_FUZZ it lists the targets.
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>

#include "fuzz/Targets.h"

namespace {
const uq::test::FuzzTarget* target = nullptr;
}

extern "C" int LLVMFuzzerInitialize(int*, char***) {
  const char* name = std::getenv("UQ_FUZZ");
  if (!name) {
    for (const auto& one : uq::test::fuzzTargets()) std::puts(one.name);
    std::exit(0);
  }
  target = uq::test::fuzzTargetNamed(name);
  if (!target) {
    std::fprintf(stderr, "There is no target %s.\n", name);
    std::exit(2);
  }
  if (const char* folder = std::getenv("UQ_FUZZ_SEEDS")) {
    std::filesystem::create_directories(folder);
    int number = 0;
    for (const std::string& seed : target->seeds()) {
      std::ofstream(std::filesystem::path(folder) / ("seed-" + std::to_string(number++)), std::ios::binary) << seed;
    }
    std::exit(0);
  }
  return 0;
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  target->run({reinterpret_cast<const char*>(data), size});
  return 0;
}
