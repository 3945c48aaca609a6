#include <rapidcheck/gtest.h>

#include "core/Support.h"
#include "core/edit/Patchwork.h"

namespace uq::test {

namespace {

// Two maps beside one another: 10 × 8 cells at 0, 0 and 6 × 6 cells that begin at 10, 2 of the canvas and at 1, 1 of
// their own.
const Id kWest = *Id::parse("westwestwest");
const Id kEast = *Id::parse("easteasteast");
Patchwork twoMaps() { return Patchwork({{kWest, {0, 0, 10, 8}, {}}, {kEast, {10, 2, 16, 8}, {9, 1}}}); }

CellSet anyCells() {
  CellSet cells;
  for (int i = *rc::gen::inRange(0, 60); i > 0; --i) {
    cells.insert({*rc::gen::inRange(-3, 20), *rc::gen::inRange(-3, 12)});
  }
  return cells;
}

}  // namespace

TEST(Patchwork, OfAMapIsItsCells) {
  const Quilt quilt = smallQuilt();
  const Map& yard = *quilt.mapNamed("Yard");
  const Patchwork patchwork = Patchwork::under(quilt, yard.id);
  EXPECT_EQ(patchwork.bounds(), yard.bounds);
  EXPECT_TRUE(patchwork.contains({yard.bounds.x0, yard.bounds.y0}));
  EXPECT_FALSE(patchwork.contains({yard.bounds.x1, yard.bounds.y0}));
  EXPECT_TRUE(Patchwork::under(quilt, Id()).bounds().empty());
  EXPECT_TRUE(Patchwork::under(quilt, Id()).among(CellSet({0, 0, 4, 4})).empty());
}

RC_GTEST_PROP(Patchwork, EachCellHasOneMapAndComesToIt, ()) {
  const Patchwork patchwork = twoMaps();
  const CellSet cells = anyCells();
  std::int64_t count = 0;
  CellSet back;
  patchwork.forEachPatch(cells, [&](const Patch& patch, const CellSet& own) {
    RC_ASSERT(!own.empty());
    count += own.count();
    own.forEachStretch([&](CellPos first, int length) {
      for (int i = 0; i < length; ++i) {
        const CellPos canvas{first.x + i + patch.by.x, first.y + patch.by.y};
        RC_ASSERT(patchwork.at(canvas).has_value());
        RC_ASSERT(patchwork.at(canvas)->map == patch.map);
        RC_ASSERT(patch.onMap(canvas) == (CellPos{first.x + i, first.y}));
        back.insert(canvas);
      }
    });
  });
  RC_ASSERT(back == patchwork.among(cells));
  RC_ASSERT(count == back.count());
  cells.forEachStretch([&](CellPos first, int length) {
    for (int i = 0; i < length; ++i) {
      const CellPos at{first.x + i, first.y};
      RC_ASSERT(back.contains(at) == patchwork.contains(at));
    }
  });
}

}  // namespace uq::test
