// How somebody had laid out their work comes back, and never brings anything along that is gone.
#include "core/Support.h"
#include "core/edit/ArrangeMaps.h"
#include "core/store/DeskText.h"
#include "core/store/JsonText.h"

namespace uq::test {

namespace {

Desk usedDesk(const Quilt& quilt) {
  Desk desk;
  desk.map = quilt.mapNamed("Yard")->id;
  desk.openMaps = {desk.map, quilt.mapNamed("Loft")->id};
  desk.activeLayer[desk.map] = layerOf(quilt, "Yard", "Sheds").layer;
  desk.activeLayer[desk.openMaps[1]] = layerOf(quilt, "Loft", "Floor").layer;
  desk.inHand = Block({{{0, 0}, tileOf(quilt, "rails", 3, {true, 1})}, {{-1, 2}, tileOf(quilt, "Chalk", 5), 24}});
  desk.tool = Tool::erase;
  desk.hidden = {layerOf(quilt, "Yard", "Awnings").layer};
  desk.locked = {layerOf(quilt, "Yard", "Paving").layer};
  desk.gridLines = false;
  desk.showsJoints = true;
  desk.rulers = true;
  desk.tinting = Tinting::byWalker;
  desk.showsCovered = desk.showsHoles = true;
  desk.foldedUp = {desk.map};
  desk.planView = true;
  return desk;
}

}  // namespace

TEST(DeskText, ComesBackAsItWas) {
  const Quilt quilt = smallQuilt();
  const Desk desk = usedDesk(quilt);
  const auto json = readJson(writeJson(deskJson(desk, quilt)), "desk.json");
  ASSERT_TRUE(json);
  EXPECT_TRUE(readDesk(*json, quilt) == desk);
}

TEST(DeskText, FitsAQuiltThatChangedMeanwhile) {
  const Quilt quilt = smallQuilt();
  const Json json = deskJson(usedDesk(quilt), quilt);
  const Quilt later = deleteMap(quilt, quilt.mapNamed("Yard")->id).without<Sheet>(quilt.sheets().front()->id);
  const Desk desk = readDesk(json, later);
  EXPECT_EQ(desk.map, later.maps().front()->id);
  EXPECT_EQ(desk.openMaps, std::vector<Id>{desk.map});
}

TEST(DeskText, NonsenseReadsAsAFreshDesk) {
  const Quilt quilt = smallQuilt();
  const Desk fresh = validDesk({}, quilt);
  for (const char* text :
       {"{}", "[]", "7",
        "{\"map\": 3, \"openMaps\": {}, \"activeLayers\": [], \"inHand\": [[1, 2]], \"tool\": \"saw\"}",
        "{\"inHand\": [[0, 0, \"chalkcolours\", 999999999, 0]]}", "{\"inHand\": [[0, 0, \"nowhere\", 1, 0]]}"}) {
    EXPECT_TRUE(readDesk(*readJson(text, "desk.json"), quilt) == fresh) << text;
  }
}

}  // namespace uq::test
