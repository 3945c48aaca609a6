// Fuzz targets: each reader of bytes that may come from anybody, as a function that takes any bytes at all.
//
// A target must return, whatever the bytes; and what a reader lets in must be written as text that it reads back as the
// same. Where that does not hold the program ends (mustHold), which libFuzzer and the tests both see.
// `./check --fuzz SECONDS` runs them with libFuzzer; every `./check` runs them on the seeds, on what was found once
// (tests/fuzz/found) and for two seconds on variations (tests/raster/FuzzTargetsTest.cpp).
// Threads: any, one target at a time.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace uq::test {

struct FuzzTarget {
  const char* name;
  void (*run)(std::string_view bytes);
  std::vector<std::string> (*seeds)();
};

const std::vector<FuzzTarget>& fuzzTargets();
// nullptr where there is none of that name.
const FuzzTarget* fuzzTargetNamed(std::string_view name);

}  // namespace uq::test
