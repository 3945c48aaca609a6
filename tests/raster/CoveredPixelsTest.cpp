// What is said of covered cells holds for the pixels: a layer can be stripped of them, and nobody sees it. And the
// colours that tell where layers lie.
#include "core/edit/Covered.h"
#include "core/edit/Folders.h"
#include "core/edit/Selected.h"
#include "raster/CellCover.h"
#include "raster/MapExport.h"
#include "raster/Scene.h"

namespace uq {

namespace {

Hiding hidingIn(Scene& scene, CellCover& cover) {
  const auto ask = [&](bool (CellCover::*what)(const Quilt&, const GridShape&, TileRef)) {
    return [&cover, &scene, what, shape = scene.yard().grid](TileRef tile) {
      return (cover.*what)(scene.quilt, shape, tile);
    };
  };
  return {ask(&CellCover::hides), ask(&CellCover::keepsIn), ask(&CellCover::covers), ask(&CellCover::fills)};
}

}  // namespace

RC_GTEST_PROP(Covered, StrippingCellsChangesNoPixel, ()) {
  Scene scene({-2, -1, 6, 5}, anySmallGrid());
  scene.arrangeAtRandom();
  scene.layAtRandom(60);
  // Many a cell of whole pictures, on both layers.
  for (int i = 0; i < 40; ++i) {
    const CellRect all = scene.yard().bounds;
    scene.lay(*rc::gen::element("Ground", "Things"),
              {*rc::gen::inRange(all.x0, all.x1), *rc::gen::inRange(all.y0, all.y1)},
              Cell({scene.small, *rc::gen::inRange(0u, 2u)}, {}));
  }
  CellCover cover(scene.pictures);
  const LayerAt ground = scene.at("Ground");
  const CellSet covered = coveredCells(scene.quilt, ground, scene.yard().bounds, hidingIn(scene, cover));
  const QImage before = scene.whole(1);
  scene.quilt = clearCells(scene.quilt, std::vector<LayerAt>{ground}, covered);
  RC_ASSERT(scene.whole(1) == before);
  RC_TAG(covered.empty() ? "nothing was covered" : "stripped");
}

TEST(Covered, ATileHidesItsCellOnlyWhenAllOfItIsOpaque) {
  Scene scene;
  CellCover cover(scene.pictures);
  const Hiding hiding = hidingIn(scene, cover);
  EXPECT_TRUE(hiding.hides({scene.small, 0}));
  EXPECT_FALSE(hiding.hides({scene.small, 1})) << "it has a hole";
  EXPECT_TRUE(hiding.keepsIn({scene.small, 1}));
  EXPECT_FALSE(hiding.keepsIn({scene.tall, 0})) << "it reaches up";
  EXPECT_FALSE(hiding.hides({kChalkSlot, 3}));
}

// Neighbouring layers put in a folder, and taken out of it, look as before.
RC_GTEST_PROP(Folders, ChangeNoPixel, ()) {
  Scene scene({-2, -1, 6, 5}, anySmallGrid());
  scene.arrangeAtRandom();
  IdSource ids(77);
  scene.layAtRandom(40);
  const QImage before = scene.whole(1);
  std::vector<Id> some;
  for (const Shared<Layer>& layer : scene.yard().layers) {
    if (*rc::gen::arbitrary<bool>()) some.push_back(layer->id);
  }
  // A level by layers in a map by depth is not the same thing in a folder of another order.
  const bool alone = some.size() < 2 || scene.yard().folders.empty();
  RC_PRE(alone);
  const FolderAdded folder = foldLayers(scene.quilt, scene.map, some, ids);
  const Quilt flat = scene.quilt;
  scene.quilt = folder.quilt;
  RC_ASSERT(scene.whole(1) == before);
  scene.quilt = unfold(scene.quilt, scene.map, folder.folder);
  RC_ASSERT(scene.quilt == flat || folder.folder.empty());
}

TEST(Tints, AreCoolBehindAndWarmInFront) {
  Scene scene;
  const Id ground = scene.at("Ground").layer;
  const Id things = scene.at("Things").layer;
  const auto channel = [](Colour colour, int shift) { return static_cast<int>(colour >> shift & 0xff); };
  EXPECT_TRUE(tintsFor(scene.yard(), Tinting::no, ground).empty());
  const auto byHeight = tintsFor(scene.yard(), Tinting::byHeight, ground);
  EXPECT_EQ(byHeight.at(ground), kNoTint);
  EXPECT_GT(channel(byHeight.at(things), 16), channel(byHeight.at(things), 0)) << "more red than blue";
  Map map = scene.yard();
  map.walker = ground;
  const auto byWalker = tintsFor(map, Tinting::byWalker, things);
  EXPECT_LT(channel(byWalker.at(ground), 16), channel(byWalker.at(ground), 0));
  EXPECT_GT(channel(byWalker.at(things), 16), channel(byWalker.at(things), 0));
  // What is seen is the layer's own pixels, multiplied.
  scene.lay("Things", {0, 0}, Cell({scene.small, 0}, {}));
  const QRgb plain = scene.whole(1).pixel(2 * 16 + 8, 16 + 8);
  const PixelRect pixels = makeGrid(scene.yard().grid)->pixelBounds(scene.yard().bounds);
  const QImage tinted = scene.draw(1, ViewScale{1}.toDevice(pixels), {{}, {}, {}, kFaint, byHeight});
  const QRgb pixel = tinted.pixel(2 * 16 + 8, 16 + 8);
  EXPECT_NEAR(qBlue(pixel), qBlue(plain) * channel(byHeight.at(things), 0) / 255.0, 1);
  EXPECT_NEAR(qGreen(pixel), qGreen(plain) * channel(byHeight.at(things), 8) / 255.0, 1);
}

TEST(Runs, AFolderByDepthInOneByDepthIsDrawnTogetherWithIt) {
  Scene scene({0, 0, 8, 8}, nearestShape(GridKind::diamond, {24, 12}));
  const Id ground = scene.at("Ground").layer;
  const Id things = scene.at("Things").layer;
  IdSource ids(9);
  const FolderAdded inner = foldLayers(scene.quilt, scene.map, {things}, ids);
  const FolderAdded outer = foldLayers(inner.quilt, scene.map, {ground, things}, ids);
  scene.quilt = outer.quilt;
  EXPECT_EQ(drawGroups(scene.yard()).size(), 1u);
  // Both by layers around it part it from the map, and from one another.
  scene.quilt = withDrawOrder(outer.quilt, scene.map, outer.folder, DrawOrder::byLayers);
  const auto groups = drawGroups(scene.yard());
  ASSERT_EQ(groups.size(), 1u) << "folding both took the inner folder's only layer along";
  EXPECT_FALSE(groups[0].byDepth);
}

TEST(MapExport, WritesWhatTheGameShowsAndRefusesWhatIsTooLarge) {
  Scene scene;
  scene.lay("Ground", {0, 0}, Cell({scene.small, 0}, {}));
  scene.lay("Things", {0, 0}, Cell({kChalkSlot, 4}, {}));
  scene.quilt = withInGame(scene.quilt, scene.at("Things"), false);
  MapPainter painter(scene.pictures);
  const std::string path = testing::TempDir() + "exported-yard.png";
  ASSERT_TRUE(exportMap(*realDisk(), painter, scene.quilt, scene.yard(), path));
  QImage written;
  ASSERT_TRUE(written.load(QString::fromStdString(path)));
  EXPECT_EQ(written.pixel(2 * 16 + 8, 16 + 8), qRgb(90, 160, 90)) << "chalk is not in the game";
  const auto none = exportMap(*realDisk(), painter, scene.quilt, scene.yard(), "/no-such-folder/x.ora");
  ASSERT_FALSE(none);
  Scene large({0, 0, 3000, 2});
  const auto refused = exportMap(*realDisk(), painter, large.quilt, large.yard(), path);
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().cause, Error::Cause::tooLarge);
}

}  // namespace uq
