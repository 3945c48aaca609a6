// inShares: work on a row of things, parted among as many threads as there are cores.
//
// Each share is a run of neighbouring things; results come back in their order, so what is put together from them does
// not depend on the machine. The calling thread works on the first share and waits for the others. Small rows stay on it.
// Not for what can be cancelled, nor for work that waits: it holds a thread for each share until the last is done.
#pragma once

#include <algorithm>
#include <cstddef>
#include <future>
#include <thread>
#include <type_traits>
#include <vector>

namespace uq {

// Calls work(from, to) for shares of 0 .. count, each of at least `least` things where there are so many. `work` must
// be callable from several threads at once, and outlive the call.
template <class Work>
auto inShares(std::size_t count, std::size_t least, const Work& work) {
  const std::size_t cores = std::max(1u, std::thread::hardware_concurrency());
  const std::size_t shares = std::clamp<std::size_t>(count / std::max<std::size_t>(1, least), 1, cores);
  const auto begin = [&](std::size_t share) { return count * share / shares; };
  std::vector<std::future<std::invoke_result_t<const Work&, std::size_t, std::size_t>>> others;
  for (std::size_t i = 1; i < shares; ++i) {
    others.push_back(std::async(std::launch::async, [&work, from = begin(i), to = begin(i + 1)] { return work(from, to); }));
  }
  std::vector<std::invoke_result_t<const Work&, std::size_t, std::size_t>> results;
  results.push_back(work(0, begin(1)));
  for (auto& other : others) results.push_back(other.get());
  return results;
}

}  // namespace uq
