// Layers put in folders, folders in folders, and what that means for heights and for drawing.
#include <gmock/gmock.h>

#include "core/Support.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/Folders.h"
#include "core/edit/Levels.h"
#include "core/store/QuiltStore.h"

namespace uq::test {
namespace {

using testing::ElementsAre;

// A map of the layers Paving, Sheds, Awnings and Sky, and what its Stack looks like.
class Folders : public testing::Test {
 protected:
  Folders() { quilt = addLayer(quilt, yard(), 3, ids, "Sky").quilt; }
  Id yard() const { return quilt.mapNamed("Yard")->id; }
  const Map& map() const { return *quilt.map(yard()); }
  Id layer(const char* name) const { return map().layerNamed(name)->id; }
  Id folder(const char* name) const {
    for (const LayerFolder& one : map().folders) {
      if (one.name == name) return one.id;
    }
    return {};
  }
  void fold(const std::vector<const char*>& names, const char* name) {
    std::vector<Id> layers;
    for (const char* one : names) layers.push_back(layer(one));
    const FolderAdded added = foldLayers(quilt, yard(), layers, ids);
    ASSERT_FALSE(added.folder.empty());
    quilt = renameFolder(added.quilt, yard(), added.folder, name);
    expectWhole(map());
  }
  // "Far/Paving": each layer behind the folders around it.
  std::vector<std::string> stack() const {
    std::vector<std::string> lines;
    for (const Shared<Layer>& one : map().layers) {
      std::string line;
      for (const Id id : map().foldersAround(one->folder)) line += map().layerFolder(id)->name + "/";
      lines.push_back(line + one->name);
    }
    return lines;
  }

  IdSource ids{5};
  Quilt quilt = smallQuilt();
};

TEST_F(Folders, GatherLayersWhereTheNearestOfThemLies) {
  fold({"Paving", "Awnings"}, "Street");
  EXPECT_THAT(stack(), ElementsAre("Sheds", "Street/Paving", "Street/Awnings", "Sky"));
  fold({"Awnings", "Sky"}, "Above");
  EXPECT_THAT(stack(), ElementsAre("Sheds", "Street/Paving", "Above/Awnings", "Above/Sky"));
  fold({"Paving"}, "Deep");
  EXPECT_THAT(stack(), ElementsAre("Sheds", "Street/Deep/Paving", "Above/Awnings", "Above/Sky"));
  quilt = unfold(quilt, yard(), folder("Street"));
  EXPECT_THAT(stack(), ElementsAre("Sheds", "Deep/Paving", "Above/Awnings", "Above/Sky"));
  EXPECT_TRUE(foldLayers(quilt, yard(), {}, ids).folder.empty());
}

TEST_F(Folders, AMovedLayerLiesInAFolderOnlyWhereItSaysSo) {
  fold({"Sheds", "Awnings"}, "Houses");
  const Quilt before = quilt;
  quilt = moveLayer(before, {yard(), layer("Sky")}, {3, {}});
  EXPECT_THAT(stack(), ElementsAre("Paving", "Houses/Sheds", "Houses/Awnings", "Sky"));
  quilt = moveLayer(before, {yard(), layer("Sky")}, {3, folder("Houses")});
  EXPECT_THAT(stack(), ElementsAre("Paving", "Houses/Sheds", "Houses/Awnings", "Houses/Sky"));
  quilt = moveLayer(before, {yard(), layer("Paving")}, {1, folder("Houses")});
  EXPECT_THAT(stack(), ElementsAre("Houses/Sheds", "Houses/Paving", "Houses/Awnings", "Sky"));
  // Neither out of the middle of a folder nor far from it.
  EXPECT_EQ(moveLayer(before, {yard(), layer("Paving")}, {1, {}}), before);
  EXPECT_EQ(moveLayer(before, {yard(), layer("Paving")}, {3, folder("Houses")}), before);
}

TEST_F(Folders, MoveWithAllThatIsInThemAndNeverIntoThemselves) {
  fold({"Paving", "Sheds"}, "Low");
  fold({"Paving"}, "Floor");
  fold({"Awnings"}, "High");
  const Quilt before = quilt;
  quilt = moveFolder(before, yard(), folder("Low"), {2, {}});
  EXPECT_THAT(stack(), ElementsAre("High/Awnings", "Sky", "Low/Floor/Paving", "Low/Sheds"));
  quilt = moveFolder(before, yard(), folder("Low"), {1, folder("High")});
  EXPECT_THAT(stack(), ElementsAre("High/Awnings", "High/Low/Floor/Paving", "High/Low/Sheds", "Sky"));
  expectWhole(map());
  EXPECT_EQ(moveFolder(before, yard(), folder("Low"), {0, folder("Floor")}), before);
}

TEST_F(Folders, AddTheirRisesAndAreSavedAsTheyLie) {
  fold({"Sheds", "Awnings"}, "Upper");
  fold({"Awnings"}, "Roof");
  quilt = withRise(withRise(quilt, yard(), folder("Upper"), 32), yard(), folder("Roof"), 8);
  EXPECT_EQ(map().riseOf(*map().layerNamed("Awnings")), 40);
  EXPECT_EQ(map().riseOf(*map().layerNamed("Sheds")), 32);
  EXPECT_EQ(map().levelOf(*map().layerNamed("Awnings")), 2);
  auto disk = std::make_shared<MemoryDisk>();
  disk->folders.insert("q");
  ASSERT_TRUE(QuiltStore::create(disk, "q", quilt));
  const auto back = QuiltStore::open(disk, "q", QuiltStore::Access::read);
  ASSERT_TRUE(back);
  EXPECT_TRUE(back->problems.empty());
  EXPECT_EQ(bytes(back->quilt), bytes(quilt));
  EXPECT_EQ(back->quilt.mapNamed("Yard")->folders, map().folders);
}

TEST_F(Folders, LieNoDeeperThanSixteen) {
  for (int i = 0; i < kDeepestLayerFolder; ++i) fold({"Sky"}, "Deeper");
  EXPECT_TRUE(foldLayers(quilt, yard(), {layer("Sky")}, ids).folder.empty());
  fold({"Sheds", "Awnings"}, "Two");
  fold({"Sheds"}, "One");
  const Quilt before = quilt;
  const Id deepest = map().layerNamed("Sky")->folder;
  EXPECT_EQ(moveFolder(before, yard(), folder("Two"), {2, deepest}), before);
}

}  // namespace
}  // namespace uq::test
