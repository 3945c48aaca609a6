#include "core/sheets/PictureChange.h"

#include <algorithm>
#include <optional>
#include <unordered_map>

#include "core/cells/Cell.h"

namespace uq {

namespace {

constexpr std::size_t kMostNearest = 512;  // twins of one mark for which the nearest is looked for; others in order

struct At {
  int column = 0;
  int row = 0;
  friend bool operator==(At, At) = default;
};

At operator+(At a, At b) { return {a.column + b.column, a.row + b.row}; }
At operator-(At a, At b) { return {a.column - b.column, a.row - b.row}; }

// Who stands where, before and after.
class Matching {
 public:
  Matching(const Sheet& old, const Sheet& fresh)
      : old_(old),
        oldSize_{old.columns(), old.rows()},
        newSize_{fresh.columns(), fresh.rows()},
        marks_(fresh.marks->tiles),
        newCells_(marks_.size()),
        oldCells_(static_cast<std::size_t>(old.tileCount())) {}

  void match() {
    keepWhoStayed();
    findWhoMoved();
    findWhoChanged();
  }

  // The cell on which the tile of an old cell stands now.
  std::optional<std::uint32_t> now(std::uint32_t oldCell) const { return oldCells_[oldCell]; }
  // The old cell whose tile stands on a new one.
  std::optional<std::uint32_t> before(std::uint32_t newCell) const { return newCells_[newCell]; }

 private:
  At oldAt(std::uint32_t cell) const {
    return {static_cast<int>(cell) % oldSize_.w, static_cast<int>(cell) / oldSize_.w};
  }
  At newAt(std::uint32_t cell) const {
    return {static_cast<int>(cell) % newSize_.w, static_cast<int>(cell) / newSize_.w};
  }
  std::optional<std::uint32_t> newCell(At at) const {
    if (at.column < 0 || at.row < 0 || at.column >= newSize_.w || at.row >= newSize_.h) return std::nullopt;
    return static_cast<std::uint32_t>(at.row * newSize_.w + at.column);
  }
  std::uint64_t oldMark(std::uint32_t cell) const {
    const auto& marks = old_.marks->tiles;
    return cell < marks.size() ? marks[cell] : 0;
  }
  bool isFree(std::uint32_t cell) const { return !newCells_[cell]; }
  void join(std::uint32_t oldCell, std::uint32_t cell) {
    oldCells_[oldCell] = cell;
    newCells_[cell] = oldCell;
  }

  void keepWhoStayed() {
    for (std::uint32_t cell = 0; cell < oldCells_.size(); ++cell) {
      const auto same = newCell(oldAt(cell));
      if (same && marks_[*same] == oldMark(cell) && oldMark(cell) != 0) join(cell, *same);
    }
  }

  void findWhoMoved() {
    std::unordered_map<std::uint64_t, std::vector<std::uint32_t>> free;
    for (std::uint32_t cell = 0; cell < newCells_.size(); ++cell) {
      if (isFree(cell) && marks_[cell] != 0) free[marks_[cell]].push_back(cell);
    }
    for (std::uint32_t cell = 0; cell < oldCells_.size(); ++cell) {
      const auto found = oldCells_[cell] ? free.end() : free.find(oldMark(cell));
      if (found == free.end() || found->second.empty()) continue;
      auto& cells = found->second;
      auto nearest = cells.begin();
      if (cells.size() <= kMostNearest) {
        const At from = oldAt(cell);
        const auto far = [&](std::uint32_t other) {
          const At way = newAt(other) - from;
          return std::int64_t{way.column} * way.column + std::int64_t{way.row} * way.row;
        };
        nearest = std::min_element(cells.begin(), cells.end(),
                                   [&](std::uint32_t a, std::uint32_t b) { return far(a) < far(b); });
      }
      join(cell, *nearest);
      cells.erase(nearest);
    }
  }

  // Pixels that stand nowhere: where the neighbours went, else at the old place.
  void findWhoChanged() {
    for (std::uint32_t cell = 0; cell < oldCells_.size(); ++cell) {
      if (oldCells_[cell]) continue;
      const At from = oldAt(cell);
      std::vector<At> ways;
      for (const At step : {At{-1, 0}, At{1, 0}, At{0, -1}, At{0, 1}}) {
        const At beside = from + step;
        if (beside.column < 0 || beside.row < 0 || beside.column >= oldSize_.w || beside.row >= oldSize_.h) continue;
        const auto neighbour = static_cast<std::uint32_t>(beside.row * oldSize_.w + beside.column);
        if (oldCells_[neighbour]) ways.push_back(newAt(*oldCells_[neighbour]) - beside);
      }
      ways.push_back({0, 0});
      for (const At way : ways) {
        const auto to = newCell(from + way);
        // A tile with nothing on it is no tile that changed, but for a place where nothing was and nothing is.
        if (!to || !isFree(*to) || (marks_[*to] == 0) != (oldMark(cell) == 0)) continue;
        join(cell, *to);
        break;
      }
      if (oldCells_[cell]) continue;
      const auto same = newCell(from);
      if (same && isFree(*same)) join(cell, *same);
    }
  }

  const Sheet& old_;
  PixelSize oldSize_;
  PixelSize newSize_;
  const std::vector<std::uint64_t>& marks_;
  std::vector<std::optional<std::uint32_t>> newCells_;
  std::vector<std::optional<std::uint32_t>> oldCells_;
};

}  // namespace

PictureChange changedPicture(const Sheet& sheet, Sheet fresh) {
  PictureChange change;
  Matching matching(sheet, fresh);
  matching.match();
  const int oldWide = sheet.columns();
  const int newWide = fresh.columns();
  std::uint32_t next = sheet.endOfNumbers();
  std::vector<std::uint32_t> numbers(fresh.marks->tiles.size());
  std::vector<bool> taken(std::max<std::size_t>(next, numbers.size()) + 1, false);
  for (std::uint32_t cell = 0; cell < static_cast<std::uint32_t>(sheet.tileCount()); ++cell) {
    const std::uint32_t number = sheet.numberAt(cell);
    taken[number] = true;
    const auto now = matching.now(cell);
    const std::uint64_t before = cell < sheet.marks->tiles.size() ? sheet.marks->tiles[cell] : 0;
    if (!now) {
      if (before != 0) change.gone.push_back(number);
      continue;
    }
    numbers[*now] = number;
    const bool stays = static_cast<int>(cell) % oldWide == static_cast<int>(*now) % newWide &&
                       static_cast<int>(cell) / oldWide == static_cast<int>(*now) / newWide;
    if (!stays && before != 0) change.moved.push_back(number);
    if (fresh.marks->tiles[*now] != before) change.changed.push_back(number);
  }
  for (const auto& [number, rect] : sheet.places->retired) taken[number] = true;
  for (const auto& [number, twin] : sheet.places->twins) taken[number] = true;
  std::uint32_t reusable = 0;
  for (std::uint32_t cell = 0; cell < numbers.size(); ++cell) {
    if (matching.before(cell)) continue;
    // New names as long as there are any; then such as no tile has.
    std::uint32_t number = next <= kLastTileNumber ? next++ : reusable;
    while (number < taken.size() && taken[number]) number = ++reusable;
    if (number < taken.size()) taken[number] = true;
    numbers[cell] = number;
    if (fresh.marks->tiles[cell] != 0) change.added.push_back(number);
  }
  TilePlaces places = sheet.places.read();
  places.setNumbers(std::move(numbers));
  // Who stands on a cell again is neither retired nor a dropped twin of what it equals no longer.
  for (const std::uint32_t number : change.changed) places.twins.erase(number);
  std::erase_if(places.retired, [&](const auto& one) {
    return one.second.right() > fresh.pictureSize.w || one.second.bottom() > fresh.pictureSize.h;
  });
  for (auto* list : {&change.moved, &change.changed, &change.added, &change.gone})
    std::sort(list->begin(), list->end());
  fresh.places = places.empty() ? Shared<TilePlaces>() : Shared(std::move(places));
  change.sheet = std::move(fresh);
  return change;
}

PictureChange changedCollection(const Sheet& sheet, Sheet fresh) {
  PictureChange change;
  for (std::uint32_t cell = 0; cell < fresh.collection.size(); ++cell) {
    const std::uint32_t number = fresh.collection[cell].number;
    const auto before = sheet.cellOf(number);
    const auto mark = [](const Sheet& of, std::uint32_t at) {
      return at < of.marks->tiles.size() ? of.marks->tiles[at] : 0;
    };
    if (!before) {
      change.added.push_back(number);
    } else if (mark(sheet, *before) != mark(fresh, cell)) {
      change.changed.push_back(number);
    }
  }
  for (const CollectedPicture& one : sheet.collection) {
    if (!fresh.cellOf(one.number)) change.gone.push_back(one.number);
  }
  change.sheet = std::move(fresh);
  return change;
}

bool sameMaking(const Sheet& a, const Sheet& b) {
  return a.source == b.source && a.collection == b.collection && a.cut == b.cut && a.care == b.care &&
         a.places == b.places;
}

Sheet withPictureOf(Sheet sheet, const Sheet& other) {
  sheet.source = other.source;
  sheet.collection = other.collection;
  sheet.pictureSize = other.pictureSize;
  sheet.places = other.places;
  sheet.marks = other.marks;
  return sheet;
}

}  // namespace uq
