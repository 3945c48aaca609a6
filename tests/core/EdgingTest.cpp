// Edgings: values, files, and the made sheets that guessing is held to.
#include "core/document/Edging.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/MadeEdgings.h"
#include "core/SavedQuilt.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Edgings.h"
#include "core/store/EdgingText.h"
#include "core/store/JsonText.h"

namespace uq::test {

using testing::HasSubstr;
using testing::IsEmpty;
using testing::SizeIs;

namespace {

Edging namedEdging(std::uint64_t seed, Id sheet) {
  Edging edging = madeEdging(seed, false).truth;
  edging.id = *Id::parse("aaaaaaaaaaab");
  edging.name = "Quay";
  edging.file = "quay";
  for (EdgingMember& one : edging.members) one.tile.sheet = sheet;
  return edging;
}

}  // namespace

TEST(Edgings, AreKeptInAFileOfTheirOwnAndRead) {
  EXPECT_TRUE(rc::check("whatever they join", [] {
    Quilt quilt = smallQuilt();
    const Edging edging = namedEdging(*rc::gen::inRange<std::uint64_t>(0, 400), quilt.sheets().front()->id);
    RC_ASSERT(whyNoEdging(edging) == "");
    quilt = quilt.with(edging);
    auto disk = std::make_shared<MemoryDisk>();
    RC_ASSERT(QuiltStore::create(disk, "/q", quilt).has_value());
    RC_ASSERT(disk->files.contains("/q/edgings/quay.json"));
    const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
    RC_ASSERT(opened.has_value());
    RC_ASSERT(opened->problems.empty());
    RC_ASSERT(opened->quilt.edgings().size() == 1u);
    RC_ASSERT(opened->quilt.edgings().front().read() == edging);
  }));
}

TEST(Edgings, OfAFileThatIsBrokenAreLeftOutAndNamed) {
  const Id sheet = smallQuilt().sheets().front()->id;
  for (const auto& [was, is, says] : {std::tuple("\"decides\": \"", "\"decides\": \"un", "decides"), std::tuple("\"middle\": \"material 1\"", "\"middle\": \"lava\"", "lava"),
                                      std::tuple("\"name\": \"material 1\"", "\"name\": \"sand\"", "no material")}) {
    Quilt quilt = smallQuilt().with(namedEdging(3, sheet));
    auto disk = std::make_shared<MemoryDisk>();
    const auto created = QuiltStore::create(disk, "/q", quilt);
    ASSERT_TRUE(created) << created.error().text();
    std::string& text = disk->files.at("/q/edgings/quay.json");
    ASSERT_NE(text.find(was), std::string::npos) << text.substr(0, 600);
    text.replace(text.find(was), std::string(was).size(), is);
    const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
    ASSERT_TRUE(opened);
    EXPECT_THAT(opened->quilt.edgings(), IsEmpty());
    ASSERT_THAT(opened->problems, SizeIs(1));
    EXPECT_THAT(opened->problems.front().text(), HasSubstr(says));
    EXPECT_EQ(opened->problems.front().file, "edgings/quay.json");
  }
}

TEST(Edgings, AreLaidOnTheGridOfTheMapsThatTheirTilesSuit) {
  IdSource ids(3);
  Quilt quilt = smallQuilt();
  MapPlan plan;
  plan.name = "Quay";
  plan.width = plan.height = 4;
  plan.grid = nearestShape(GridKind::diamond, {64, 32});
  quilt = addMap(quilt, plan, ids).quilt;
  Sheet sheet;
  sheet.cut.cell = {64, 64};  // as wide as the diamonds, and standing up from them
  EXPECT_EQ(gridOfSheet(quilt, sheet, GridKind::diamond), plan.grid);
  EXPECT_EQ(gridOfSheet(quilt, sheet), plan.grid);
  sheet.cut.cell = {48, 48};
  EXPECT_EQ(gridOfSheet(quilt, sheet).cell, (PixelSize{48, 48}));
}

TEST(MadeEdgings, FitWhereTheyShowTheSame) {
  // Of squares by corners: where two tiles show the same at both ends of a side, their pixels along it are the same material.
  int seen = 0;
  std::set<std::string> kinds;
  for (std::uint64_t seed = 0; seed < 300; ++seed) {
    MadeEdging made = madeEdging(seed, false);
    kinds.insert(std::string(decidesName(made.truth.decides)) + std::string(gridName(made.shape.kind)));
    EXPECT_EQ(whyNoEdging(made.truth), "") << made.called;
    EXPECT_GE(made.truth.members.size(), 3u) << made.called;
    if (made.truth.decides != Decides::corners || made.shape.kind != GridKind::orthogonal || made.outlined) continue;
    made = madeEdging(seed);
    ++seen;
    const int side = made.shape.cell.w;
    for (const EdgingMember& left : made.truth.members) {
      for (const EdgingMember& right : made.truth.members) {
        if (left.corners[1] != right.corners[0] || left.corners[2] != right.corners[3]) continue;
        const PixelRect a = made.place(left.tile.tile);
        const PixelRect b = made.place(right.tile.tile);
        int differ = 0;
        for (int y = 0; y < side; ++y) {
          const bool clearLeft = made.view().at(a.right() - 1, a.y + y) == 0;
          const bool clearRight = made.view().at(b.x, b.y + y) == 0;
          differ += clearLeft != clearRight;
        }
        EXPECT_LE(differ, 2) << made.called;
      }
    }
  }
  EXPECT_GT(seen, 10);
  EXPECT_GE(kinds.size(), 14u) << "all ways of deciding, on squares, diamonds and hexagons";
}

}  // namespace uq::test
