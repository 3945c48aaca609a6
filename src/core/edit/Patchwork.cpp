#include "core/edit/Patchwork.h"

#include <algorithm>

namespace uq {

namespace {

// Where a place lies in a stretch of `size` cells from `from` that repeats; 0 as period: it does not.
bool liesIn(int at, int from, int size, int period) {
  int far = at - from;
  if (period > 0) far -= floorDiv(far, period) * period;
  return far >= 0 && far < size;
}

// By how many periods a stretch must be shifted to meet [from, to): the first and the last number.
std::pair<int, int> timesMeeting(int x0, int x1, int from, int to, int period) {
  if (period == 0) return {0, 0};
  return {floorDiv(from - x1, period) + 1, ceilDiv(to - x0, period) - 1};
}

ChunkRows rowsOf(Holds holds, const ChunkRows& some) {
  ChunkRows rows = some;
  if (holds != Holds::some) rows.fill(holds == Holds::all ? ~std::uint64_t{0} : 0);
  return rows;
}

Holds holdsOf(const ChunkRows& rows) {
  std::uint64_t any = 0;
  std::uint64_t all = ~std::uint64_t{0};
  for (const std::uint64_t row : rows) {
    any |= row;
    all &= row;
  }
  return any == 0 ? Holds::none : ~all == 0 ? Holds::all : Holds::some;
}

// A test of a map's chunks asked for a chunk of the canvas.
Holds shiftedTest(const ChunkTest& test, CellPos by, ChunkPos at, ChunkRows& rows) {
  const CellPos own{at.cx * kChunkSide - by.x, at.cy * kChunkSide - by.y};
  const ChunkPos first = ChunkPos::of(own);
  const int right = own.x & (kChunkSide - 1);
  const int down = own.y & (kChunkSide - 1);
  if (right == 0 && down == 0) return test(first, rows);
  std::array<ChunkRows, 4> parts;
  std::array<Holds, 4> held{};
  for (int i = 0; i < 4; ++i) {
    const bool needed = (i % 2 == 0 || right > 0) && (i / 2 == 0 || down > 0);
    const auto part = static_cast<std::size_t>(i);
    held[part] = needed ? test({first.cx + i % 2, first.cy + i / 2}, parts[part]) : held[0];
  }
  const bool same = std::all_of(held.begin(), held.end(), [&](Holds one) { return one == held[0]; });
  if (same && held[0] != Holds::some) return held[0];
  for (std::size_t i = 0; i < 4; ++i) {
    if (held[i] != Holds::some) parts[i] = rowsOf(held[i], parts[i]);
  }
  for (int y = 0; y < kChunkSide; ++y) {
    const int from = y + down;
    const auto half = static_cast<std::size_t>(from < kChunkSide ? 0 : 2);
    const auto row = static_cast<std::size_t>(from & (kChunkSide - 1));
    std::uint64_t bits = parts[half][row] >> right;
    if (right > 0) bits |= parts[half + 1][row] << (kChunkSide - right);
    rows[static_cast<std::size_t>(y)] = bits;
  }
  return holdsOf(rows);
}

}  // namespace

CellSet shifted(const CellSet& cells, CellPos by) {
  if (by == CellPos{}) return cells;
  CellSet moved;
  cells.forEachStretch([&](CellPos first, int count) { moved.insert({first.x + by.x, first.y + by.y}, count); });
  return moved;
}

Patchwork::Patchwork(std::vector<Patch> patches, Period period) : patches_(std::move(patches)), period_(period) {
  for (const Patch& patch : patches_) bounds_ = bounds_.united(patch.cells);
  if (patches_.empty()) return;
  // What repeats is seen once, from where the first map begins.
  const CellRect& first = patches_.front().cells;
  if (period_.across > 0) bounds_.x0 = first.x0, bounds_.x1 = first.x0 + period_.across;
  if (period_.down > 0) bounds_.y0 = first.y0, bounds_.y1 = first.y0 + period_.down;
}

Patchwork Patchwork::under(const Quilt& quilt, Id map) {
  const Map* one = quilt.map(map);
  return one ? Patchwork({{map, one->bounds, {}}}) : Patchwork();
}

Patchwork Patchwork::across(const Quilt& quilt, Id map, const std::set<Id>& closed) {
  if (quilt.seams().empty() || !quilt.map(map)) return under(quilt, map);
  const auto sewn = SewnMaps::of(quilt);
  std::vector<Sewn> around = sewn->around(map);
  if (!closed.empty()) {
    // What lies behind a closed map is not reached through it.
    std::set<Id> reached{map};
    for (bool more = true; std::exchange(more, false);) {
      for (const Shared<Seam>& seam : quilt.seams()) {
        if (!sewn->whyWrong(seam->id).empty() || reached.contains(seam->map) == reached.contains(seam->other)) continue;
        const Id next = reached.contains(seam->map) ? seam->other : seam->map;
        if (closed.contains(next)) continue;
        reached.insert(next);
        more = true;
      }
    }
    std::erase_if(around, [&](const Sewn& one) { return !reached.contains(one.map); });
  }
  std::vector<Patch> patches;
  for (const Sewn& one : around) {
    const CellRect& own = quilt.map(one.map)->bounds;
    patches.push_back({one.map, {own.x0 + one.by.x, own.y0 + one.by.y, own.x1 + one.by.x, own.y1 + one.by.y}, one.by});
  }
  return Patchwork(std::move(patches), sewn->period(map));
}

CellRect Patchwork::reach() const {
  return {bounds_.x0 - period_.across, bounds_.y0 - period_.down, bounds_.x1 + period_.across, bounds_.y1 + period_.down};
}

bool Patchwork::contains(CellPos canvas) const {
  return std::any_of(patches_.begin(), patches_.end(), [&](const Patch& patch) {
    return liesIn(canvas.x, patch.cells.x0, patch.cells.width(), period_.across) &&
           liesIn(canvas.y, patch.cells.y0, patch.cells.height(), period_.down);
  });
}

std::optional<Patch> Patchwork::at(CellPos canvas) const {
  const std::vector<Patch> found = meeting({canvas.x, canvas.y, canvas.x + 1, canvas.y + 1});
  return found.empty() ? std::nullopt : std::optional(found.front());
}

std::vector<Patch> Patchwork::meeting(CellRect canvas) const {
  std::vector<Patch> found;
  if (canvas.empty()) return found;
  for (const Patch& patch : patches_) {
    const CellRect& cells = patch.cells;
    const auto [left, right] = timesMeeting(cells.x0, cells.x1, canvas.x0, canvas.x1, period_.across);
    const auto [top, bottom] = timesMeeting(cells.y0, cells.y1, canvas.y0, canvas.y1, period_.down);
    for (int down = top; down <= bottom; ++down) {
      for (int across = left; across <= right; ++across) {
        const int x = across * period_.across;
        const int y = down * period_.down;
        const CellRect there{cells.x0 + x, cells.y0 + y, cells.x1 + x, cells.y1 + y};
        if (!there.intersected(canvas).empty()) found.push_back({patch.map, there, {patch.by.x + x, patch.by.y + y}});
      }
    }
  }
  return found;
}

CellSet Patchwork::among(const CellSet& canvas) const {
  const CellRect all = canvas.bounds();
  CellSet here;
  for (const Patch& patch : meeting(all)) {
    const CellRect common = all.intersected(patch.cells);
    if (common == all) return canvas;
    here = here.united(canvas.intersected(CellSet(common)));
  }
  return here;
}

void Patchwork::forEachPatch(const CellSet& canvas,
                             const std::function<void(const Patch&, const CellSet&)>& visit) const {
  const CellRect all = canvas.bounds();
  for (const Patch& patch : meeting(all)) {
    const CellRect common = all.intersected(patch.cells);
    const CellSet own = common == all ? canvas : canvas.intersected(CellSet(common));
    if (!own.empty()) visit(patch, shifted(own, {-patch.by.x, -patch.by.y}));
  }
}

ChunkTest onCanvas(const Patchwork& patchwork, std::vector<ChunkTest> tests) {
  if (patchwork.isPlain()) return tests.empty() ? passesAll({}) : tests.front();
  return [patchwork, tests = std::move(tests)](ChunkPos at, ChunkRows& rows) {
    const CellRect chunk = at.cells();
    // Most chunks lie within one map.
    for (std::size_t i = 0; i < tests.size(); ++i) {
      const Patch& patch = patchwork.patches()[i];
      if (patch.cells.intersected(chunk) == chunk) return shiftedTest(tests[i], patch.by, at, rows);
    }
    rows.fill(0);
    ChunkRows own;
    for (const Patch& patch : patchwork.meeting(chunk)) {
      const auto which = std::find_if(patchwork.patches().begin(), patchwork.patches().end(),
                                      [&](const Patch& one) { return one.map == patch.map; });
      const ChunkTest& test = tests[static_cast<std::size_t>(which - patchwork.patches().begin())];
      const Holds held = shiftedTest(test, patch.by, at, own);
      const CellRect common = patch.cells.intersected(chunk);
      if (common == chunk) {
        if (held == Holds::some) rows = own;
        return held;
      }
      if (held == Holds::none) continue;
      const std::uint64_t columns = bitsOf(common.x0 - chunk.x0, common.x1 - chunk.x0);
      for (int y = common.y0 - chunk.y0; y < common.y1 - chunk.y0; ++y) {
        const auto row = static_cast<std::size_t>(y);
        rows[row] |= held == Holds::all ? columns : own[row] & columns;
      }
    }
    return holdsOf(rows);
  };
}

}  // namespace uq
