#include "core/edit/LookAlikes.h"

#include <algorithm>

#include "core/edit/Chance.h"

namespace uq {

namespace {

// The parts of a block counted from the corner of its extent.
Block fromCorner(const Block& block) {
  const CellRect extent = block.extent();
  std::vector<Block::Part> parts = block.parts();
  for (Block::Part& part : parts) part.at = {part.at.u - extent.x0, part.at.v - extent.y0};
  return Block(std::move(parts));
}

// What stands `steps` after `block` among the members of the first mix that has it, of those equally large; nothing
// where no mix has it or another one.
std::optional<Block> nextAlike(const Quilt& quilt, const Block& block, int steps) {
  const Block own = fromCorner(block);
  for (const Shared<Stamp>& stamp : quilt.stamps()) {
    if (stamp->held.manner != Manner::mix) continue;
    std::vector<Block> alike;
    for (const MixMember& member : stamp->held.members) {
      Block other = fromCorner(member.block);
      const bool fits = !other.empty() && other.extent() == own.extent();
      if (fits && std::find(alike.begin(), alike.end(), other) == alike.end()) alike.push_back(std::move(other));
    }
    const auto at = std::find(alike.begin(), alike.end(), own);
    if (at == alike.end() || alike.size() < 2) continue;
    const auto count = static_cast<std::ptrdiff_t>(alike.size());
    const std::ptrdiff_t next = ((at - alike.begin() + steps) % count + count) % count;
    return alike[static_cast<std::size_t>(next)];
  }
  return std::nullopt;
}

}  // namespace

std::vector<Look> looksOf(const Quilt& quilt, Cell cell) {
  for (const Shared<Stamp>& stamp : quilt.stamps()) {
    if (stamp->held.manner != Manner::mix) continue;
    std::vector<Look> looks;
    for (const MixMember& member : stamp->held.members) {
      if (member.block.parts().size() == 1) looks.push_back({member.block.parts().front().cell, member.weight});
    }
    const bool has = std::any_of(looks.begin(), looks.end(), [&](const Look& look) { return look.cell == cell; });
    if (has && looks.size() > 1) return looks;
  }
  return {};
}

Cell thrownLook(const std::vector<Look>& looks, std::uint64_t thrown) {
  std::size_t weights = 0;
  for (const Look& look : looks) weights += static_cast<std::size_t>(look.weight);
  std::size_t drawn = pick(thrown, weights);
  for (const Look& look : looks) {
    const auto weight = static_cast<std::size_t>(look.weight);
    if (drawn < weight) return look.cell;
    drawn -= weight;
  }
  return looks.back().cell;
}

CellRect placesOf(const InHand& stretch, StretchPart part) {
  const CellRect all = stretch.wholeExtent();
  const StretchEnds ends = fittingEnds(stretch.ends, all);
  const auto range = [](int side, int from, int to, int first, int last) {
    if (side < 0 && first > 0) return std::pair(from, from + first);
    if (side > 0 && last > 0) return std::pair(to - last, to);
    return std::pair(from, to);
  };
  const auto [x0, x1] = range(part.across, all.x0, all.x1, ends.left, ends.right);
  const auto [y0, y1] = range(part.down, all.y0, all.y1, ends.top, ends.bottom);
  return {x0, y0, x1, y1};
}

namespace {

InHand withPartChanged(const Quilt& quilt, const InHand& stretch, StretchPart part, int steps) {
  const CellRect places = placesOf(stretch, part);
  return stretch.changed([&](const Block& block) {
    std::vector<Block::Part> inside;
    std::vector<Block::Part> next;
    for (const Block::Part& one : block.parts()) (places.contains({one.at.u, one.at.v}) ? inside : next).push_back(one);
    const Block own(inside);
    if (const auto whole = nextAlike(quilt, own, steps); whole && !own.empty()) {
      const CellRect extent = own.extent();
      for (Block::Part one : whole->parts()) {
        one.at = {one.at.u + extent.x0, one.at.v + extent.y0};
        next.push_back(one);
      }
      return Block(std::move(next));
    }
    for (Block::Part one : inside) {
      const auto other = nextAlike(quilt, Block::of(one.cell), steps);
      if (other) one.cell = other->parts().front().cell;
      next.push_back(one);
    }
    return Block(std::move(next));
  });
}

}  // namespace

InHand withLookAlike(const Quilt& quilt, const InHand& stretch, StretchPart part, int steps) {
  for (const StretchPart one : {part, StretchPart{part.across, 0}, StretchPart{0, part.down}}) {
    InHand changed = withPartChanged(quilt, stretch, one, steps);
    const bool isCorner = part.across != 0 && part.down != 0;
    if (!isCorner || !(changed == stretch)) return changed;
  }
  return stretch;
}

}  // namespace uq
