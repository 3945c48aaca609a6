// ChalkPiece: a planned map — a name and a note on the Board, before there are any cells.
//
// It has a place and a size on the cloth, in map pixels, and a tick once it is done. It is no map: nothing is painted,
// checked or exported of it, until it is cut (DrawnPiece) and a map lies in its place.
#pragma once

#include <string>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/document/Layer.h"
#include "core/grid/Pixels.h"

namespace uq {

inline constexpr std::size_t kMostChalkPieces = 4'096;  // of a quilt
inline constexpr int kLargestChalkPiece = 1 << 21;      // map pixels, each way

struct ChalkPiece {
  Id id;
  std::string name;
  std::string note;    // may be empty
  bool done = false;
  PixelRect at;        // on the cloth; 1 .. kLargestChalkPiece each way, from ±kFarthestOnBoard
  Json::Object extra;  // fields that this version does not know
  Revision revision;
  friend bool operator==(const ChalkPiece&, const ChalkPiece&) = default;
};

}  // namespace uq
