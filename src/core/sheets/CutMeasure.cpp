#include "core/sheets/CutMeasure.h"

#include <algorithm>
#include <optional>
#include <unordered_set>

#include "core/sheets/CutFits.h"
#include "core/sheets/OneThing.h"
#include "core/sheets/TileMarks.h"

namespace uq {

namespace {

constexpr int kMostCompared = 4096;  // tiles
constexpr double kManyDoubles = 0.25;
constexpr double kAlike = 0.75;       // of a weight: what explains the joints as well
constexpr double kClearlyCut = 12;   // a weight

std::string px(int n) { return std::to_string(n) + " px"; }

std::string reasonFor(const SheetCut& cut, PixelSize rest, PixelSize cells, bool isGuess) {
  std::string reason;
  const auto say = [&reason](const std::string& more) { reason += (reason.empty() ? "" : ", ") + more; };
  const bool square = cut.cell.w == cut.cell.h;
  if (isGuess) {
    say("nothing in the picture tells; " + px(cut.cell.w) + (square ? "" : " × " + px(cut.cell.h)) + " divides it");
  } else if (cut.gap > 0) {
    say("gutters every " + px(cut.cell.w + cut.gap) +
        (square ? "" : " across and " + px(cut.cell.h + cut.gap) + " down"));
  } else if (cells == PixelSize{1, 1}) {
    say("one tile");
  } else {
    say("joints every " + px(cut.cell.w) + (square ? "" : " across and " + px(cut.cell.h) + " down"));
  }
  if (cut.offset.x > 0) say("beginning " + px(cut.offset.x) + " from the left");
  if (cut.offset.y > 0) say("beginning " + px(cut.offset.y) + " from the top");
  if (cut.border > 0) say("a border of " + px(cut.border));
  if (rest == PixelSize{}) {
    say("nothing left over");
  } else {
    if (rest.w > 0) say(px(rest.w) + " left over at the right");
    if (rest.h > 0) say(px(rest.h) + " left over at the bottom");
  }
  return reason;
}

// Of the tiles of a cut that show anything, the share that equals an earlier one.
double doublesOf(const PixelView& picture, const SheetCut& cut) {
  Sheet sheet;
  sheet.cut = cut;
  sheet.pictureSize = {picture.w, picture.h};
  std::unordered_set<std::uint64_t> known;
  int tiles = 0;
  const int count = std::min(sheet.tileCount(), kMostCompared);
  for (int cell = 0; cell < count; ++cell) {
    const std::uint64_t mark = markOf(picture, sheet.cellRect(static_cast<std::uint32_t>(cell)));
    if (mark == 0) continue;
    ++tiles;
    known.insert(mark);
  }
  return tiles == 0 ? 0 : 1 - static_cast<double>(known.size()) / tiles;
}

// Tiles that are put together from quarters have joints at their halves. Nobody draws the same tile again and again, so
// where most cells of the likeliest cut are doubles and those of twice its size are not, that one is meant.
void preferWholes(std::vector<CutProposal>& all, const PixelView& picture) {
  if (all.empty() || all.front().cut.gap > 0 || all.front().isGuess) return;
  const CutProposal best = all.front();
  const auto whole = std::find_if(all.begin(), all.end(), [&](const CutProposal& one) {
    SheetCut twice = best.cut;
    twice.cell = {2 * twice.cell.w, 2 * twice.cell.h};
    return one.cut == twice && one.weight > 0.5 * best.weight;
  });
  if (whole == all.end()) return;
  if (doublesOf(picture, best.cut) - doublesOf(picture, whole->cut) < kManyDoubles) return;
  whole->weight = best.weight + 0.1;
  std::rotate(all.begin(), whole, whole + 1);
}

// Joints that border and gap explain as well as a larger cell does: the cell of a more usual size is meant.
void preferUsualSizes(std::vector<CutProposal>& all) {
  if (all.empty()) return;
  const CutProposal best = all.front();
  const auto pitch = [](const SheetCut& cut) { return PixelSize{cut.cell.w + cut.gap, cut.cell.h + cut.gap}; };
  const auto usual = [](const SheetCut& cut) { return usualness(cut.cell.w) + usualness(cut.cell.h); };
  auto rounder = all.begin();
  for (auto one = all.begin(); one != all.end() && one->weight >= kAlike * best.weight; ++one) {
    if (pitch(one->cut) == pitch(best.cut) && usual(one->cut) > usual(rounder->cut)) rounder = one;
  }
  rounder->weight = best.weight;
  std::rotate(all.begin(), rounder, rounder + 1);
}

// The whole picture as one tile; nothing where that is too small or too large.
std::optional<CutProposal> wholeOf(const PixelView& picture) {
  if (std::min(picture.w, picture.h) < kSmallestCell || std::max(picture.w, picture.h) > kLargestCell) return std::nullopt;
  CutProposal whole;
  whole.cut.cell = {picture.w, picture.h};
  whole.reason = "one tile";
  return whole;
}

// Whether the pixels speak for tiles too clearly for one thing.
bool isClearlyCut(const CutProposal& best, PixelSize picture) {
  const PixelSize cells = cellsOf(best.cut, picture);
  return !best.isGuess && cells.w * cells.h > 1 && (best.cut.gap > 0 || best.weight >= kClearlyCut);
}

}  // namespace

PixelSize restOf(const SheetCut& cut, PixelSize picture) {
  const PixelSize cells = cellsOf(cut, picture);
  const auto rest = [&](int length, int offset, int count, int cell) {
    return count == 0 ? length : length - offset - 2 * cut.border - (count * (cell + cut.gap) - cut.gap);
  };
  return {rest(picture.w, cut.offset.x, cells.w, cut.cell.w), rest(picture.h, cut.offset.y, cells.h, cut.cell.h)};
}

std::vector<CutProposal> measureCut(const PixelView& picture, PixelSize usual, std::size_t most) {
  std::vector<CutProposal> all = cutsThatFit(picture, std::nullopt, usual);
  if (const auto colour = colourBetween(picture)) {
    for (CutProposal& one : cutsThatFit(picture, colour, usual)) {
      all.push_back(std::move(one));
    }
  }
  std::stable_sort(all.begin(), all.end(),
                   [](const CutProposal& a, const CutProposal& b) { return a.weight > b.weight; });
  preferUsualSizes(all);
  preferWholes(all, picture);
  std::vector<CutProposal> best;
  for (CutProposal& one : all) {
    const auto same = [&](const CutProposal& other) { return other.cut.cell == one.cut.cell; };
    if (std::any_of(best.begin(), best.end(), same)) continue;
    one.rest = restOf(one.cut, {picture.w, picture.h});
    one.reason = reasonFor(one.cut, one.rest, cellsOf(one.cut, {picture.w, picture.h}), one.isGuess);
    best.push_back(std::move(one));
    if (best.size() == most) break;
  }
  if (best.empty()) {
    CutProposal whole;
    whole.cut.cell = {std::clamp(picture.w, kSmallestCell, kLargestCell),
                      std::clamp(picture.h, kSmallestCell, kLargestCell)};
    whole.reason = "one tile";
    best.push_back(std::move(whole));
  } else if (auto whole = wholeOf(picture)) {
    // It comes first where the picture shows one thing, else second.
    const bool one = isOneThing(picture, usual) && !isClearlyCut(best.front(), {picture.w, picture.h});
    const auto known = std::find_if(best.begin(), best.end(),
                                    [&](const CutProposal& other) { return other.cut.cell == whole->cut.cell; });
    if (known != best.begin() || one) {
      if (known != best.end()) best.erase(known);
      whole->weight = best.empty() ? 0 : best.front().weight;
      best.insert(best.begin() + (one || best.empty() ? 0 : 1), *whole);
      if (best.size() > most && most > 1) best.resize(most);
    }
  }
  return best;
}

}  // namespace uq
