// ExportState: a word for all that decides how a map comes out, so that an export can tell what has changed since without doing it.
//
// Equal words mean the same files, but for an accident of one in 2^64; the same quilt gives the same word in every run of the program.
// The sums are XXH3 (Yann Collet, 64 bits). Cost: a look at each cell and at the bytes of all pictures. Threads: any.
#pragma once

#include <memory>
#include <string>
#include <string_view>

#include "core/document/Quilt.h"

namespace uq {

// Sixteen hexadecimal digits.
std::string sumOf(std::string_view bytes);
// The same of bytes that come piece by piece.
class BytesSum {
 public:
  BytesSum();
  ~BytesSum();
  BytesSum(const BytesSum&) = delete;
  BytesSum& operator=(const BytesSum&) = delete;
  void add(std::string_view bytes);
  std::string text() const;

 private:
  struct State;
  std::unique_ptr<State> state_;
};

class ExportStates {
 public:
  // `how`: in which form, and all that is chosen there. `ofOthers`: what is said of other maps, and of links, comes out with each map.
  // The quilt must live as long.
  ExportStates(const Quilt& quilt, std::string how, bool ofOthers);

  // Of what is of the whole quilt: sheets, links, names and sizes of maps, and the cells of all maps where `withCells`.
  std::string ofQuilt(bool withCells) const;
  std::string of(const Map& map) const;

 private:
  const Quilt& quilt_;
  std::string how_;
  std::string shared_;  // of what all maps are made with
  std::string names_;   // of what is said of the whole quilt
};

}  // namespace uq
