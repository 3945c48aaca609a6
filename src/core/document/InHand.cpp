#include "core/document/InHand.h"

#include <algorithm>

namespace uq {

namespace {

constexpr std::pair<Manner, std::string_view> kNames[] = {
    {Manner::asItIs, "as-it-is"}, {Manner::stretch, "stretch"}, {Manner::mix, "mix"}};

}  // namespace

std::string_view mannerName(Manner manner) {
  return std::find_if(std::begin(kNames), std::end(kNames), [&](const auto& one) { return one.first == manner; })
      ->second;
}

std::optional<Manner> mannerFromName(std::string_view name) {
  for (const auto& [manner, called] : kNames) {
    if (called == name) return manner;
  }
  return std::nullopt;
}

StretchEnds usualEnds(const Block& block) {
  const CellRect all = block.extent();
  StretchEnds ends;
  ends.left = all.width() > 1 ? 1 : 0;
  ends.right = all.width() > 2 ? 1 : 0;
  ends.top = all.height() > 1 ? 1 : 0;
  ends.bottom = all.height() > 2 ? 1 : 0;
  return ends;
}

StretchEnds fittingEnds(StretchEnds ends, CellRect extent) {
  const auto fit = [](int& first, int& last, int& step, int size) {
    first = std::clamp(first, 0, size);
    last = std::clamp(last, 0, size - first);
    step = std::clamp(step, 0, size > first + last ? kMostStretchStep : 0);
  };
  fit(ends.left, ends.right, ends.stepAcross, extent.width());
  fit(ends.top, ends.bottom, ends.stepDown, extent.height());
  return ends;
}

CellRect InHand::wholeExtent() const {
  CellRect all = block.extent();
  for (const HandPart& part : others) all = all.united(part.block.extent());
  return all;
}

bool InHand::byChance() const {
  return turnsByChance || manner == Manner::mix || (manner == Manner::stretch && ends.shuffles);
}

InHand InHand::inManner(Manner other) const {
  InHand next = *this;
  next.manner = other;
  if (other == Manner::stretch && ends == StretchEnds()) next.ends = usualEnds(block);
  if (other == Manner::mix && members.empty()) {
    for (const Block::Part& part : block.parts()) {
      const MixMember member{Block({{{0, 0}, part.cell, part.lift}})};
      const auto same = [&](const MixMember& one) { return one.block == member.block; };
      const bool known = std::any_of(next.members.begin(), next.members.end(), same);
      if (!known && next.members.size() < kMostMembers) next.members.push_back(member);
    }
  }
  return next;
}

InHand InHand::fittedTo(CellRect extent) const {
  const CellRect from = wholeExtent();
  if (extent.empty() || from.empty() || extent == from || manner == Manner::mix) return *this;
  InHand next = changed([&](const Block& one) { return one.fitted(from, extent); });
  std::erase_if(next.others, [](const HandPart& part) { return part.block.empty(); });
  if (next.block.empty()) return *this;
  next.ends = fittingEnds(ends, next.wholeExtent());
  next.stamp = {};
  return next;
}

InHand InHand::gathering(const Block& more) const {
  if (empty()) return InHand(more, grid);
  InHand next = *this;
  next.stamp = {};
  next.others.clear();
  if (manner != Manner::mix) {
    next.members = {MixMember{block}};
    next.manner = Manner::mix;
  }
  const auto same =
      std::find_if(next.members.begin(), next.members.end(), [&](const MixMember& one) { return one.block == more; });
  if (same != next.members.end()) {
    same->weight = std::min(same->weight + 1, kMostWeight);
  } else if (next.members.size() < kMostMembers) {
    next.members.push_back({more});
  }
  return next;
}

}  // namespace uq
