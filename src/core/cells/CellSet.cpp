#include "core/cells/CellSet.h"

#include <bit>
#include <optional>

namespace uq {

namespace {

constexpr int kSide = 64;

// Bits from..to-1, both 0..64.
constexpr std::uint64_t bitsOf(int from, int to) {
  if (from >= to) return 0;
  const std::uint64_t upTo = to == 64 ? ~std::uint64_t{0} : (std::uint64_t{1} << to) - 1;
  return upTo & ~((std::uint64_t{1} << from) - 1);
}

template <class F>
void forEachRunOfBits(std::uint64_t bits, F&& f) {
  while (bits != 0) {
    const int from = std::countr_zero(bits);
    const int count = std::countr_one(bits >> from);
    f(from, count);
    bits &= ~bitsOf(from, from + count);
  }
}

}  // namespace

CellSet::CellSet(CellRect cells) {
  if (cells.empty()) return;
  chunks_.edit([&](Chunks& chunks) {
    for (int cy = floorDiv(cells.y0, kSide); cy <= floorDiv(cells.y1 - 1, kSide); ++cy) {
      for (int cx = floorDiv(cells.x0, kSide); cx <= floorDiv(cells.x1 - 1, kSide); ++cx) {
        const CellRect part = cells.intersected({cx * kSide, cy * kSide, (cx + 1) * kSide, (cy + 1) * kSide});
        Rows rows{};
        for (int y = part.y0; y < part.y1; ++y) {
          rows[static_cast<std::size_t>(y - cy * kSide)] = bitsOf(part.x0 - cx * kSide, part.x1 - cx * kSide);
        }
        chunks.emplace(std::pair(cy, cx), rows);
      }
    }
  });
}

bool CellSet::contains(CellPos at) const {
  const std::pair place(floorDiv(at.y, kSide), floorDiv(at.x, kSide));
  const auto found = chunks_.read().find(place);
  if (found == chunks_.read().end()) return false;
  return found->second[static_cast<std::size_t>(at.y - place.first * kSide)] >> (at.x - place.second * kSide) & 1;
}

void CellSet::insert(CellPos at) {
  const std::pair place(floorDiv(at.y, kSide), floorDiv(at.x, kSide));
  chunks_.edit([&](Chunks& chunks) {
    chunks[place][static_cast<std::size_t>(at.y - place.first * kSide)] |= std::uint64_t{1}
                                                                           << (at.x - place.second * kSide);
  });
}

std::int64_t CellSet::count() const {
  std::int64_t count = 0;
  for (const auto& [place, rows] : chunks_.read()) {
    for (const std::uint64_t row : rows) count += std::popcount(row);
  }
  return count;
}

CellRect CellSet::bounds() const {
  CellRect bounds;
  forEachStretch([&](CellPos first, int n) { bounds = bounds.united({first.x, first.y, first.x + n, first.y + 1}); });
  return bounds;
}

template <class Combine>
CellSet CellSet::combined(const CellSet& other, Combine&& combine) const {
  CellSet result;
  result.chunks_.edit([&](Chunks& chunks) {
    const auto add = [&](const std::pair<int, int>& place) {
      static const Rows none{};
      const auto mine = chunks_.read().find(place);
      const auto theirs = other.chunks_.read().find(place);
      const Rows& a = mine == chunks_.read().end() ? none : mine->second;
      const Rows& b = theirs == other.chunks_.read().end() ? none : theirs->second;
      Rows rows;
      std::uint64_t any = 0;
      for (std::size_t y = 0; y < rows.size(); ++y) any |= rows[y] = combine(a[y], b[y]);
      if (any != 0) chunks.emplace(place, rows);
    };
    for (const auto& chunk : chunks_.read()) add(chunk.first);
    for (const auto& chunk : other.chunks_.read()) add(chunk.first);
  });
  return result;
}

CellSet CellSet::united(const CellSet& other) const {
  return combined(other, [](std::uint64_t a, std::uint64_t b) { return a | b; });
}
CellSet CellSet::without(const CellSet& other) const {
  return combined(other, [](std::uint64_t a, std::uint64_t b) { return a & ~b; });
}
CellSet CellSet::intersected(const CellSet& other) const {
  return combined(other, [](std::uint64_t a, std::uint64_t b) { return a & b; });
}

void CellSet::forEachStretch(const std::function<void(CellPos, int)>& visit) const {
  for (const auto& [place, rows] : chunks_.read()) {
    for (int y = 0; y < kSide; ++y) {
      forEachRunOfBits(rows[static_cast<std::size_t>(y)], [&](int from, int count) {
        visit({place.second * kSide + from, place.first * kSide + y}, count);
      });
    }
  }
}

void CellSet::forEachWithoutNeighbour(const std::function<CellPos(bool, bool)>& step, CellRect within,
                                      const std::function<void(CellPos)>& visit) const {
  const Chunks& chunks = chunks_.read();
  const auto rowOf = [&](int cx, int y) -> std::uint64_t {
    const int cy = floorDiv(y, kSide);
    const auto found = chunks.find({cy, cx});
    return found == chunks.end() ? 0 : found->second[static_cast<std::size_t>(y - cy * kSide)];
  };
  for (const auto& [place, rows] : chunks) {
    const auto [cy, cx] = place;
    const int left = cx * kSide;
    const CellRect part = within.intersected({left, cy * kSide, left + kSide, (cy + 1) * kSide});
    if (part.empty()) continue;
    const std::uint64_t seen = bitsOf(part.x0 - left, part.x1 - left);
    for (int y = part.y0; y < part.y1; ++y) {
      const std::uint64_t row = rows[static_cast<std::size_t>(y - cy * kSide)] & seen;
      if (row == 0) continue;
      std::uint64_t alone = 0;
      for (const bool oddColumn : {false, true}) {
        const CellPos by = step(oddColumn, (y & 1) != 0);
        const int from = left + by.x;
        const int column = floorDiv(from, kSide);
        const int off = from - column * kSide;
        std::uint64_t neighbours = rowOf(column, y + by.y) >> off;
        if (off > 0) neighbours |= rowOf(column + 1, y + by.y) << (kSide - off);
        alone |= row & ~neighbours & (std::uint64_t{0x5555555555555555} << (oddColumn ? 1 : 0));
      }
      forEachRunOfBits(alone, [&](int first, int count) {
        for (int i = 0; i < count; ++i) visit({left + first + i, y});
      });
    }
  }
}

std::vector<CellSet::Border> CellSet::borders(CellRect within) const {
  std::vector<Border> borders;
  const Chunks& chunks = chunks_.read();
  const auto rowOf = [&](int cx, int y) -> std::uint64_t {
    const int cy = floorDiv(y, kSide);
    const auto found = chunks.find({cy, cx});
    return found == chunks.end() ? 0 : found->second[static_cast<std::size_t>(y - cy * kSide)];
  };
  for (const auto& [place, rows] : chunks) {
    const auto [cy, cx] = place;
    const CellRect part = within.intersected({cx * kSide, cy * kSide, (cx + 1) * kSide, (cy + 1) * kSide});
    if (part.empty()) continue;
    const int left = cx * kSide;
    const std::uint64_t seen = bitsOf(part.x0 - left, part.x1 - left);
    // Vertical lines that are being drawn, by column; continued from row to row.
    std::array<std::optional<int>, kSide + 1> since{};
    for (int y = part.y0; y <= part.y1; ++y) {
      const bool inside = y < part.y1;
      // Neighbours are looked up beyond `within`, too, so that its edge is no border.
      const std::uint64_t all = inside ? rows[static_cast<std::size_t>(y - cy * kSide)] : 0;
      const std::uint64_t row = all & seen;
      const std::uint64_t before = row & ~(all << 1 | rowOf(cx - 1, y) >> 63);
      const std::uint64_t after = row & ~(all >> 1 | rowOf(cx + 1, y) << 63);
      for (int x = 0; x <= kSide; ++x) {
        const bool line = inside && ((x < kSide && (before >> x & 1)) || (x > 0 && (after >> (x - 1) & 1)));
        auto& begun = since[static_cast<std::size_t>(x)];
        if (line && !begun) begun = y;
        if (line || !begun) continue;
        borders.push_back({{left + x, *begun}, {left + x, y}});
        begun.reset();
      }
      if (!inside) continue;
      forEachRunOfBits(row & ~rowOf(cx, y - 1), [&](int from, int count) {
        borders.push_back({{left + from, y}, {left + from + count, y}});
      });
      forEachRunOfBits(row & ~rowOf(cx, y + 1), [&](int from, int count) {
        borders.push_back({{left + from, y + 1}, {left + from + count, y + 1}});
      });
    }
  }
  return borders;
}

}  // namespace uq
