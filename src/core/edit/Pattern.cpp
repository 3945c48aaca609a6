#include "core/edit/Pattern.h"

#include <algorithm>

#include "core/edit/Chance.h"
#include "core/edit/Turned.h"

namespace uq {

namespace {

// Which throw decides what.
enum : std::uint32_t { kTurns = 1, kColumns = 2, kRows = 3, kMembers = 4, kLooks = 5 };

bool mayTurn(const Quilt& quilt, Cell cell, Turn turn, int order) {
  const Sheet* sheet = quilt.sheetAt(cell.tile().slot);
  if (!sheet || turn == Turn{}) return true;
  if (sheet->facingOf(cell.tile().number)) return true;
  if (turn == turnOf(Turning::mirrorAcross, order)) return sheet->turns.mirrorAcross;
  if (turn == turnOf(Turning::mirrorDown, order)) return sheet->turns.mirrorDown;
  return sheet->turns.turn && (!turn.mirror || sheet->turns.mirrorAcross);
}

std::vector<Turn> allTurns(int order) {
  std::vector<Turn> all;
  for (const bool mirror : {false, true}) {
    for (int steps = 0; steps < order; ++steps) all.push_back({mirror, static_cast<std::uint8_t>(steps)});
  }
  return all;
}

std::optional<Cell> exactly(const Quilt& quilt, const Grid& grid, Cell cell, Turn turn) {
  if (!mayTurn(quilt, cell, turn, grid.turnOrder())) return std::nullopt;
  const Cell turned = turnedCell(quilt, grid, cell, turn);
  return grid.pictureTurn(turned.turn()) == turned.turn() ? std::optional(turned) : std::nullopt;
}

// The blocks of a hand's layers turned together, put back to where they were; none where a part cannot be turned so or
// the whole would take other room.
std::optional<std::vector<Block>> turnedTogether(const Quilt& quilt, const Grid& grid, const InHand& hand, Turn turn) {
  const CellRect room = hand.wholeExtent();
  std::vector<std::vector<Block::Part>> turned;
  CellRect extent;
  bool can = true;
  const auto add = [&](const Block& block) {
    auto& parts = turned.emplace_back();
    for (const Block::Part& part : block.parts()) {
      const auto cell = exactly(quilt, grid, part.cell, turn);
      const SidePos at = grid.turned(part.at, turn);
      can = can && cell;
      parts.push_back({at, cell.value_or(part.cell), part.lift});
      extent = extent.united({at.u, at.v, at.u + 1, at.v + 1});
    }
  };
  add(hand.block);
  for (const HandPart& part : hand.others) add(part.block);
  if (!can || extent.width() != room.width() || extent.height() != room.height()) return std::nullopt;
  std::vector<Block> blocks;
  for (auto& parts : turned) {
    for (Block::Part& part : parts) part.at = part.at + SidePos{room.x0 - extent.x0, room.y0 - extent.y0};
    blocks.emplace_back(std::move(parts));
  }
  return blocks;
}

std::vector<Block> layersOf(const InHand& hand) {
  std::vector<Block> blocks{hand.block};
  for (const HandPart& part : hand.others) blocks.push_back(part.block);
  return blocks;
}

}  // namespace

std::vector<Cell> turnsOf(const Quilt& quilt, const Grid& grid, Cell cell) {
  std::vector<Cell> turns;
  for (const Turn turn : allTurns(grid.turnOrder())) {
    if (const auto turned = exactly(quilt, grid, cell, turn)) turns.push_back(*turned);
  }
  std::sort(turns.begin(), turns.end());
  turns.erase(std::unique(turns.begin(), turns.end()), turns.end());
  return turns;
}

Pattern::Pattern(const Quilt& quilt, const Grid& grid, const InHand& hand, SidePos anchor, std::uint64_t seed)
    : hand_(hand), anchor_(anchor), seed_(seed), extent_(hand.wholeExtent()) {
  hand_.ends = fittingEnds(hand.ends, extent_);
  if (hand.turnsByChance && hand.isOneTile()) turns_ = turnsOf(quilt, grid, hand.block.parts().front().cell);
  if (hand.turnsByChance && turns_.empty() && hand.manner == Manner::asItIs) {
    for (const Turn turn : allTurns(grid.turnOrder())) {
      const auto turned = turnedTogether(quilt, grid, hand, turn);
      if (turned && std::find(blocks_.begin(), blocks_.end(), *turned) == blocks_.end()) blocks_.push_back(*turned);
    }
  }
  if (blocks_.empty()) blocks_.push_back(layersOf(hand));
  if (hand.manner != Manner::stretch || !hand.ends.shuffles) return;
  for (const Block& block : blocks_.front()) {
    for (const Block::Part& part : block.parts()) {
      if (!looks_.contains(part.cell.bits())) looks_[part.cell.bits()] = looksOf(quilt, part.cell);
    }
  }
}

std::optional<Laid> Pattern::found(const std::vector<Block::Part>& parts, SidePos at) const {
  const auto part = std::lower_bound(parts.begin(), parts.end(), at,
                                     [](const Block::Part& one, SidePos place) { return one.at < place; });
  if (part == parts.end() || part->at != at) return std::nullopt;
  return Laid{part->cell, part->lift};
}

std::optional<Laid> Pattern::everywhere(std::size_t layer) const {
  if (box_ || blocks_.size() > 1 || turns_.size() > 1 || extent_ != CellRect{0, 0, 1, 1}) return std::nullopt;
  const Block& block = blocks_.front()[layer];
  if (block.parts().size() != 1) return std::nullopt;
  return Laid{block.parts().front().cell, block.parts().front().lift};
}

std::optional<Laid> Pattern::at(std::size_t layer, SidePos place) const {
  if (extent_.empty()) return std::nullopt;
  if (box_) return stretched(blocks_.front()[layer].parts(), place);
  const SidePos local = place - anchor_ - SidePos{extent_.x0, extent_.y0};
  const SidePos copy{floorDiv(local.u, extent_.width()), floorDiv(local.v, extent_.height())};
  const SidePos in{extent_.x0 + local.u - copy.u * extent_.width(), extent_.y0 + local.v - copy.v * extent_.height()};
  if (!turns_.empty() && layer == 0) {
    return Laid{turns_[pick(thrown(seed_, place, kTurns), turns_.size())], blocks_.front()[0].parts().front().lift};
  }
  const std::size_t turn = blocks_.size() == 1 ? 0 : pick(thrown(seed_, copy, kTurns), blocks_.size());
  return found(blocks_[turn][layer].parts(), in);
}

std::vector<SidePos> Pattern::copyUnder(SidePos pointer) const {
  std::vector<SidePos> places;
  if (box_ || extent_.empty()) return places;
  // The anchor is inside its own copy, also where the block's cells lie beside its grip.
  const int left = std::clamp(extent_.x0, 1 - extent_.width(), 0);
  const int top = std::clamp(extent_.y0, 1 - extent_.height(), 0);
  const SidePos moved = pointer - anchor_;
  const SidePos copy{floorDiv(moved.u - left, extent_.width()), floorDiv(moved.v - top, extent_.height())};
  const SidePos grip = anchor_ + SidePos{copy.u * extent_.width(), copy.v * extent_.height()};
  const std::size_t turn = blocks_.size() == 1 ? 0 : pick(thrown(seed_, copy, kTurns), blocks_.size());
  for (const Block& block : blocks_[turn]) {
    for (const Block::Part& part : block.parts()) places.push_back(grip + part.at);
  }
  return places;
}

// Which of a block's columns (or rows) may lie at a place of the box, the likeliest first.
std::vector<int> Pattern::lines(int at, int from, int size, int blockSize, int first, int last, int step,
                                std::uint32_t kind) const {
  const int x = at - from;
  if (x < first) return {x};
  if (x >= size - last) return {blockSize - (size - x)};
  const int middle = blockSize - first - last;
  if (middle <= 0) return {};
  if (hand_.ends.shuffles) {
    const SidePos place = kind == kColumns ? SidePos{at, 0} : SidePos{0, at};
    return {first + static_cast<int>(pick(thrown(seed_, place, kind), static_cast<std::size_t>(middle)))};
  }
  if (step <= 0) step = middle;
  std::vector<int> found;
  if (step > middle) {
    // Copies stand apart; one that would not be whole is left out.
    const int copy = (x - first) / step;
    const int in = x - first - copy * step;
    const bool whole = copy * step + middle <= size - first - last;
    if (in < middle && whole) found.push_back(first + in);
    return found;
  }
  for (int copy = (x - first) / step; copy >= 0; --copy) {
    const int in = x - first - copy * step;
    if (in >= middle) break;
    found.push_back(first + in);
  }
  return found;
}

bool Pattern::isMiddleAcross(SidePos place) const {
  return place.u >= box_->x0 + hand_.ends.left && place.u < box_->x1 - hand_.ends.right;
}

bool Pattern::isMiddleDown(SidePos place) const {
  return place.v >= box_->y0 + hand_.ends.top && place.v < box_->y1 - hand_.ends.bottom;
}

// Whether the tile on a place of the box is one of those that look alike: fixed ends stay as they are. Where a stretch
// has no ends down, only the way across decides, so that the ends of a low hedge are ends over all its height.
bool Pattern::isThrown(SidePos place) const {
  const bool hasEndsDown = hand_.ends.top + hand_.ends.bottom > 0;
  return hand_.ends.shuffles && (isMiddleAcross(place) || (isMiddleDown(place) && hasEndsDown));
}

std::optional<Laid> Pattern::stretched(const std::vector<Block::Part>& parts, SidePos place) const {
  if (!box_->contains({place.u, place.v})) return std::nullopt;
  const StretchEnds& ends = hand_.ends;
  for (const int row :
       lines(place.v, box_->y0, box_->height(), extent_.height(), ends.top, ends.bottom, ends.stepDown, kRows)) {
    for (const int column :
         lines(place.u, box_->x0, box_->width(), extent_.width(), ends.left, ends.right, ends.stepAcross, kColumns)) {
      auto laid = found(parts, {extent_.x0 + column, extent_.y0 + row});
      if (!laid) continue;
      if (isThrown(place)) {
        const auto looks = looks_.find(laid->cell.bits());
        if (looks != looks_.end() && !looks->second.empty()) {
          laid->cell = thrownLook(looks->second, thrown(seed_, place, kLooks));
        }
      }
      return laid;
    }
  }
  return std::nullopt;
}

bool Pattern::mayLie(std::size_t layer, SidePos place, Cell cell) const {
  const auto laid = at(layer, place);
  if (!laid || laid->cell == cell) return true;
  const bool byChance = box_ && hand_.ends.shuffles && (isMiddleAcross(place) || isMiddleDown(place));
  if (!byChance) return false;
  const auto& parts = blocks_.front()[layer].parts();
  return std::any_of(parts.begin(), parts.end(), [&](const Block::Part& part) {
    if (part.cell == cell) return true;
    const auto looks = looks_.find(part.cell.bits());
    return looks != looks_.end() && std::any_of(looks->second.begin(), looks->second.end(),
                                                [&](const Look& look) { return look.cell == cell; });
  });
}

namespace {

StretchSizes sizes(int first, int last, int size) {
  const bool grows = size > first + last;
  return {std::max(1, first + last), grows ? std::nullopt : std::optional(size)};
}

}  // namespace

StretchSizes widthsOf(const InHand& stretch) {
  const CellRect all = stretch.wholeExtent();
  const StretchEnds ends = fittingEnds(stretch.ends, all);
  return sizes(ends.left, ends.right, all.width());
}

StretchSizes heightsOf(const InHand& stretch) {
  const CellRect all = stretch.wholeExtent();
  const StretchEnds ends = fittingEnds(stretch.ends, all);
  return sizes(ends.top, ends.bottom, all.height());
}

std::string whyNoStretch(const InHand& stretch, int width, int height) {
  const StretchSizes across = widthsOf(stretch);
  const StretchSizes down = heightsOf(stretch);
  if (width < across.least || height < down.least) {
    return "This stretch needs " + std::to_string(across.least) + " × " + std::to_string(down.least) +
           " cells at least";
  }
  if (across.most && width > *across.most) return "This stretch has no middle that could repeat across";
  if (down.most && height > *down.most) return "This stretch has no middle that could repeat down";
  return {};
}

Mixing::Mixing(const Quilt& quilt, const Grid& grid, const InHand& mix, std::uint64_t seed) : mix_(mix), seed_(seed) {
  if (!mix.turnsByChance) return;
  for (const MixMember& member : mix.members) {
    for (const Block::Part& part : member.block.parts()) {
      if (!turns_.contains(part.cell.bits())) turns_[part.cell.bits()] = turnsOf(quilt, grid, part.cell);
    }
  }
}

void Mixing::throwAt(SidePos place, const Around& around, const std::function<void(SidePos, Laid)>& lay) const {
  const auto fits = [&](const MixMember& member) {
    if (around.atRim && member.keepsOffRim) return false;
    const auto& parts = member.block.parts();
    return std::all_of(parts.begin(), parts.end(),
                       [&](const Block::Part& part) { return part.at == SidePos{} || around.free(place + part.at); });
  };
  const auto likeNeighbour = [&](const MixMember& member) {
    if (!mix_.neverAlike || member.block.parts().size() != 1) return false;
    const TileRef tile = member.block.parts().front().cell.tile();
    return std::any_of(around.beside.begin(), around.beside.end(), [&](SidePos beside) {
      const Cell there = around.cell(beside);
      return !there.empty() && there.tile() == tile;
    });
  };
  std::vector<const MixMember*> able;
  for (const MixMember& member : mix_.members) {
    if (fits(member) && !likeNeighbour(member)) able.push_back(&member);
  }
  if (able.empty()) {
    for (const MixMember& member : mix_.members) {
      if (fits(member)) able.push_back(&member);
    }
  }
  std::size_t weights = 0;
  for (const MixMember* member : able) weights += static_cast<std::size_t>(member->weight);
  if (weights == 0) return;
  std::size_t drawn = pick(thrown(seed_, place, kMembers), weights);
  for (const MixMember* member : able) {
    const auto weight = static_cast<std::size_t>(member->weight);
    if (drawn >= weight) {
      drawn -= weight;
      continue;
    }
    for (const Block::Part& part : member->block.parts()) {
      const SidePos at = place + part.at;
      const auto turns = turns_.find(part.cell.bits());
      const bool turned = turns != turns_.end() && member->block.parts().size() == 1;
      const Cell cell = turned ? turns->second[pick(thrown(seed_, at, kTurns), turns->second.size())] : part.cell;
      lay(at, {cell, part.lift});
    }
    return;
  }
}

}  // namespace uq
