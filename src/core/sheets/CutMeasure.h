// Measuring how a picture is to be cut: from its pixels to a few likely cuts, the best first, each with its reason.
//
// Two things give a joint between tiles away. Across it, pixels seldom go on as they did: colours change, or one of
// both sides is clear. And where there are gaps or a border, whole columns and rows of pixels are clear. Both are
// counted once for each column and row; then every cell size, border and gap is tried on the counts: how much more do
// they say at its joints than elsewhere (a two-sample z-score), less for what is unusual — a cell of no usual size,
// cells that are not square, a rest that does not divide. A cut whose cells are mostly doubles gives way to one of
// twice its size, and one thing in each cell with nothing on the joints speaks for a cut. Where nothing speaks for any
// cut, usual sizes that divide the picture are proposed, and the reason says so.
//
// Cost: one pass over the pixels, of large pictures over a sample of them; 8192 × 8192 takes some tenths of a second.
#pragma once

#include <string>
#include <vector>

#include "core/base/PixelView.h"
#include "core/document/Sheet.h"

namespace uq {

struct CutProposal {
  SheetCut cut;
  std::string reason;    // in words, like "gutters every 18 px"
  double weight = 0;     // greater is likelier; compares proposals of one picture only
  bool isGuess = false;  // the pixels say nothing for it, only its size does
  PixelSize rest;        // pixels at the right and at the bottom that the cut leaves over
};

// At least one, at most `most`, of different cells, the best first; cells of kSmallestMeasured pixels and more. `usual`
// is a cell size that is likelier than others, such as that of the open map; 0 × 0: none. The whole picture as one tile
// is always among them where it may be one: first where it shows one thing (see OneThing.h), else second.
std::vector<CutProposal> measureCut(const PixelView& picture, PixelSize usual = {}, std::size_t most = 5);
inline constexpr int kSmallestMeasured = 4;

// The pixels that a cut leaves over at the right and at the bottom.
PixelSize restOf(const SheetCut& cut, PixelSize picture);

}  // namespace uq
