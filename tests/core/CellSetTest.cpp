#include <rapidcheck/gtest.h>

#include <set>

#include "core/cells/CellSet.h"

namespace uq {

namespace {

// A set, and the same cells in a plain one.
struct SetTwins {
  CellSet cells;
  std::set<CellPos> plain;
};

CellRect randomRect() {
  const int x = *rc::gen::inRange(-90, 90);
  const int y = *rc::gen::inRange(-90, 90);
  return {x, y, x + *rc::gen::inRange(0, 80), y + *rc::gen::inRange(0, 80)};
}

std::set<CellPos> plainCells(CellRect rect) {
  std::set<CellPos> cells;
  for (int y = rect.y0; y < rect.y1; ++y) {
    for (int x = rect.x0; x < rect.x1; ++x) cells.insert({x, y});
  }
  return cells;
}

SetTwins randomSetTwins() {
  SetTwins twins;
  for (int i = 0, n = *rc::gen::inRange(0, 6); i < n; ++i) {
    const CellRect rect = randomRect();
    const auto cells = plainCells(rect);
    if (*rc::gen::arbitrary<bool>()) {
      twins.cells = twins.cells.united(CellSet(rect));
      twins.plain.insert(cells.begin(), cells.end());
    } else {
      twins.cells = twins.cells.without(CellSet(rect));
      for (const CellPos at : cells) twins.plain.erase(at);
    }
  }
  return twins;
}

}  // namespace

RC_GTEST_PROP(CellSet, IsThePlainSetOfItsCells, ()) {
  const SetTwins twins = randomSetTwins();
  std::set<CellPos> found;
  twins.cells.forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) RC_ASSERT(found.insert({first.x + i, first.y}).second);
  });
  RC_ASSERT(found == twins.plain);
  RC_ASSERT(twins.cells.count() == static_cast<std::int64_t>(twins.plain.size()));
  RC_ASSERT(twins.cells.empty() == twins.plain.empty());
  CellRect bounds;
  CellSet again;
  for (const CellPos at : twins.plain) {
    RC_ASSERT(twins.cells.contains(at));
    bounds = bounds.united({at.x, at.y, at.x + 1, at.y + 1});
    again.insert(at);
  }
  RC_ASSERT(twins.cells.bounds() == bounds);
  RC_ASSERT(again == twins.cells);
  const CellRect rect = randomRect();
  RC_ASSERT(twins.cells.intersected(CellSet(rect)).united(twins.cells.without(CellSet(rect))) == twins.cells);
}

// Every side of a cell that parts it from a cell outside is on exactly one border, and no other side is.
RC_GTEST_PROP(CellSet, BordersPartInsideFromOutside, ()) {
  const SetTwins twins = randomSetTwins();
  const CellRect within = *rc::gen::arbitrary<bool>() ? CellRect{-300, -300, 300, 300} : randomRect();
  using Side = std::pair<CellPos, bool>;  // the corner where it begins, and whether it goes across
  std::set<Side> expected;
  for (const CellPos at : twins.plain) {
    if (!within.contains(at)) continue;
    if (!twins.plain.contains({at.x, at.y - 1})) expected.insert({at, true});
    if (!twins.plain.contains({at.x, at.y + 1})) expected.insert({{at.x, at.y + 1}, true});
    if (!twins.plain.contains({at.x - 1, at.y})) expected.insert({at, false});
    if (!twins.plain.contains({at.x + 1, at.y})) expected.insert({{at.x + 1, at.y}, false});
  }
  std::set<Side> found;
  for (const CellSet::Border& border : twins.cells.borders(within)) {
    const bool across = border.from.y == border.to.y;
    const int length = across ? border.to.x - border.from.x : border.to.y - border.from.y;
    RC_ASSERT(length > 0);
    for (int i = 0; i < length; ++i) {
      const CellPos at = across ? CellPos{border.from.x + i, border.from.y} : CellPos{border.from.x, border.from.y + i};
      RC_ASSERT(found.insert({at, across}).second);
    }
  }
  RC_ASSERT(found == expected);
}

}  // namespace uq
