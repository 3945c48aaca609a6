// What is said of layers and maps: kinds, parallax, looks, the camera, and how all of it is kept.
#include <gmock/gmock.h>
#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include "core/PaintedSheet.h"
#include "core/edit/HangingPlace.h"
#include "core/edit/Camera.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/Landing.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/MapFacts.h"
#include "core/edit/Stroke.h"
#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"

namespace uq::test {
namespace {

using testing::HasSubstr;
using testing::IsEmpty;

// The small quilt with a picture of 40 × 16 pixels hung behind its map Yard.
struct Hung {
  Painted painted{10, std::vector<std::uint32_t>(40, kA)};
  Laid laid{painted};
  Quilt quilt;
  LayerAt at;

  Hung() : quilt(laid.quilt) {
    const Id map = quilt.mapNamed("Yard")->id;
    LayerAdded added = addBackdrop(quilt, map, 0, laid.sheet, laid.ids);
    quilt = added.quilt;
    at = {map, added.layer};
  }
  const Layer& layer() const { return *quilt.layer(at); }
  const Map& map() const { return *quilt.map(at.map); }
  void set(const std::function<void(Backdrop&)>& change) {
    Backdrop backdrop = layer().backdrop;
    change(backdrop);
    quilt = withBackdrop(quilt, at, backdrop);
  }
};

TEST(Parallax, IsARoundedShareOfTheCamera) {
  EXPECT_EQ(scrolledBy({}, {-37, 1001}), (PixelPos{0, 0})) << "with the ground";
  EXPECT_EQ(scrolledBy({0, 0}, {-37, 1001}), (PixelPos{-37, 1001})) << "with the screen";
  EXPECT_EQ(scrolledBy({50, 200}, {10, 10}), (PixelPos{5, -10}));
  EXPECT_EQ(scrolledBy({50, 50}, {3, -3}), (PixelPos{1, -2})) << "halves go up";
}

RC_GTEST_PROP(Parallax, NeverStepsBack, ()) {
  // A camera that goes on by one pixel moves what is nearer on, and never by more than its share.
  const int share = *rc::gen::inRange(0, kMostParallax + 1);
  const int x = *rc::gen::inRange(-100'000, 100'000);
  const int step = (x + 1 - scrolledBy({share, share}, {x + 1, 0}).x) - (x - scrolledBy({share, share}, {x, 0}).x);
  RC_ASSERT(step >= share / 100);
  RC_ASSERT(step <= share / 100 + 1);
}

TEST(Backdrop, HangsBehindAllAndMovesHalfAsFarAsWhatIsInFront) {
  Hung hung;
  EXPECT_EQ(hung.layer().kind, LayerKind::backdrop);
  EXPECT_EQ(hung.layer().name, "quay");
  EXPECT_EQ(hung.layer().parallax, (Parallax{50, 50}));
  EXPECT_EQ(hung.map().layerIndex(hung.at.layer), 0u);
  const LayerAdded farther = addBackdrop(hung.quilt, hung.at.map, 0, hung.laid.sheet, hung.laid.ids);
  EXPECT_EQ(farther.quilt.layer({hung.at.map, farther.layer})->parallax, (Parallax{25, 25}));
  EXPECT_EQ(farther.quilt.layer({hung.at.map, farther.layer})->name, "quay 2");
}

TEST(Backdrop, TakesNoTiles) {
  Hung hung;
  const std::vector<CellChange> one = {{{1, 1}, tileOf(hung.quilt, "street", 3)}};
  EXPECT_EQ(layCells(hung.quilt, hung.at, one), hung.quilt);
  Desk desk;
  desk.map = hung.at.map;
  desk.activeLayer[desk.map] = hung.at.layer;
  desk.hold(Block::of(tileOf(hung.quilt, "street", 3)));
  EXPECT_EQ(whyNoStroke(desk, hung.quilt, false), "quay is a backdrop: no tiles lie on it");
  EXPECT_THAT(whyNoMerge(hung.quilt, {hung.at.map, hung.map().layers[1]->id}), HasSubstr("Only layers of tiles"));
}

TEST(Backdrop, IsAsHighAsItIsToldAndKeepsItsProportions) {
  Hung hung;
  const auto size = [&] { return *hungSize(hung.quilt, hung.map(), hung.layer().backdrop); };
  EXPECT_EQ(size(), (PixelSize{40, 16}));
  hung.set([](Backdrop& one) { one.shownAt = 50; });
  EXPECT_EQ(size(), (PixelSize{20, 8}));
  hung.set([](Backdrop& one) { one.fit = Backdrop::Fit::map; });
  const int high = makeGrid(hung.map().grid)->pixelBounds(hung.map().bounds).h;
  EXPECT_EQ(size(), (PixelSize{high * 20 / 16, high / 2}));
  hung.quilt = withScreen(hung.quilt, hung.at.map, PixelSize{100, 64});
  hung.set([](Backdrop& one) { one = {one.sheet, false, false, Backdrop::Fit::screen, 100}; });
  EXPECT_EQ(size(), (PixelSize{160, 64}));
}

TEST(Backdrop, TellsWhereItDoesNotCoverTheScreen) {
  Hung hung;
  hung.quilt = withScreen(hung.quilt, hung.at.map, PixelSize{64, 48});
  EXPECT_THAT(backdropGaps(hung.quilt, hung.map()), IsEmpty()) << "it repeats across";
  hung.set([](Backdrop& one) { one.repeatsAcross = false; });
  hung.quilt = withOffset(withParallax(hung.quilt, hung.at, {0, 0}), hung.at, {0, 0});
  const auto gaps = backdropGaps(hung.quilt, hung.map());
  ASSERT_EQ(gaps.size(), 1u);
  EXPECT_EQ(gaps[0].text, "quay ends 24 px before the east edge") << "40 of 64";
  hung.quilt = withOffset(hung.quilt, hung.at, {24, 0});
  ASSERT_EQ(backdropGaps(hung.quilt, hung.map()).size(), 1u);
  EXPECT_EQ(backdropGaps(hung.quilt, hung.map())[0].text, "quay begins 24 px after the west edge");
}

TEST(Camera, StopsAtTheMapsEdgeUnlessItRunsFree) {
  Hung hung;
  hung.quilt = withScreen(hung.quilt, {100, 60});
  const PixelRect all = makeGrid(hung.map().grid)->pixelBounds(hung.map().bounds);
  EXPECT_EQ(cameraNear(hung.quilt, hung.map(), {-9999, -9999}), (PixelPos{all.x, all.y}));
  EXPECT_EQ(cameraNear(hung.quilt, hung.map(), {9999, 9999}), (PixelPos{all.right() - 100, all.bottom() - 60}));
  const Quilt wide = withScreen(hung.quilt, hung.at.map, PixelSize{all.w + 20, 60});
  EXPECT_EQ(cameraNear(wide, *wide.map(hung.at.map), {7, all.y}), (PixelPos{all.x - 10, all.y})) << "in the middle";
  const Quilt free = withCameraFree(hung.quilt, hung.at.map, true);
  EXPECT_EQ(cameraNear(free, *free.map(hung.at.map), {-9999, 3}), (PixelPos{-9999, 3}));
}

RC_GTEST_PROP(Camera, GoesAlongTheEdgesOneByOneAndComesBack, ()) {
  const PixelRect map{*rc::gen::inRange(-99, 99), *rc::gen::inRange(-99, 99), *rc::gen::inRange(1, 300),
                      *rc::gen::inRange(1, 300)};
  const PixelSize screen{*rc::gen::inRange(1, 200), *rc::gen::inRange(1, 200)};
  const int round = 2 * (std::max(0, map.w - screen.w) + std::max(0, map.h - screen.h));
  const int way = *rc::gen::inRange(0, 2000);
  const PixelPos at = cameraOnItsWay(map, screen, way);
  const PixelPos next = cameraOnItsWay(map, screen, way + 1);
  RC_ASSERT(std::abs(at.x - next.x) + std::abs(at.y - next.y) == (round > 0 ? 1 : 0));
  RC_ASSERT(cameraOnItsWay(map, screen, way + round) == at);
}

TEST(Merge, LaysTheNearerTilesOnThoseBehind) {
  Laid laid(Painted(1, {kA}));
  const Cell street = tileOf(laid.quilt, "street", 3);
  const LayerAt paving = layerOf(laid.quilt, "Yard", "Paving");
  const LayerAt sheds = layerOf(laid.quilt, "Yard", "Sheds");
  Quilt quilt = layCells(laid.quilt, paving, std::vector<CellChange>{{{1, 1}, street}, {{2, 1}, street}});
  quilt = layCells(quilt, sheds, std::vector<CellChange>{{{2, 1}, tileOf(quilt, "rails", 1), 8}});
  const Quilt merged = mergeDown(quilt, sheds);
  EXPECT_FALSE(merged.layer(sheds));
  EXPECT_EQ(merged.layer(paving)->cells.at({1, 1}), street);
  EXPECT_EQ(merged.layer(paving)->cells.at({2, 1}), tileOf(quilt, "rails", 1));
  EXPECT_EQ(merged.layer(paving)->lifts.at({2, 1}), 8);
  const Quilt faint = withOpacity(quilt, sheds, 50);
  EXPECT_THAT(whyNoMerge(faint, sheds), HasSubstr("looks otherwise"));
  EXPECT_EQ(mergeDown(faint, sheds), faint);
}

TEST(LayerFacts, RefuseWhatCannotBe) {
  Hung hung;
  EXPECT_EQ(withParallax(hung.quilt, hung.at, {-1, 0}), hung.quilt);
  EXPECT_EQ(withParallax(hung.quilt, hung.at, {0, kMostParallax + 1}), hung.quilt);
  EXPECT_EQ(withTint(hung.quilt, hung.at, 0x1000000), hung.quilt);
  EXPECT_EQ(withScreen(hung.quilt, {0, 5}), hung.quilt);
  EXPECT_EQ(withShownTimes(hung.quilt, hung.at.map, 0), hung.quilt);
  Backdrop none = hung.layer().backdrop;
  none.shownAt = 0;
  EXPECT_EQ(withBackdrop(hung.quilt, hung.at, none), hung.quilt);
  EXPECT_EQ(withBackdrop(hung.quilt, layerOf(hung.quilt, "Yard", "Sheds"), {}), hung.quilt);
  EXPECT_EQ(colourFromText("#1b203"), std::nullopt);
  EXPECT_EQ(colourFromText("#1b203g"), std::nullopt);
}

RC_GTEST_PROP(LayerFacts, ComeBackFromTheFile, ()) {
  Hung hung;
  const auto hundredths = rc::gen::inRange(0, kMostParallax + 1);
  hung.quilt = withParallax(hung.quilt, hung.at, {*hundredths, *hundredths});
  hung.quilt = withTint(hung.quilt, hung.at, *rc::gen::inRange(0u, 0x1000000u));
  hung.quilt =
      withBlend(hung.quilt, hung.at, *rc::gen::element(Blend::normal, Blend::multiply, Blend::screen, Blend::add));
  hung.quilt = withInGame(hung.quilt, hung.at, *rc::gen::arbitrary<bool>());
  hung.set([&](Backdrop& one) {
    one.repeatsAcross = *rc::gen::arbitrary<bool>();
    one.repeatsDown = *rc::gen::arbitrary<bool>();
    one.fit = *rc::gen::element(Backdrop::Fit::asItIs, Backdrop::Fit::map, Backdrop::Fit::screen);
    one.shownAt = *rc::gen::inRange(kLeastShownAt, kMostShownAt + 1);
  });
  hung.quilt = addPinsLayer(hung.quilt, hung.at.map, 2, hung.laid.ids).quilt;
  if (*rc::gen::arbitrary<bool>()) hung.quilt = withCloth(hung.quilt, hung.at.map, *rc::gen::inRange(0u, 0x1000000u));
  if (*rc::gen::arbitrary<bool>())
    hung.quilt = withScreen(hung.quilt, hung.at.map, PixelSize{*rc::gen::inRange(1, 999), 7});
  hung.quilt = withShownTimes(hung.quilt, hung.at.map, *rc::gen::inRange(1, kMostShownTimes + 1));
  hung.quilt = withCameraFree(hung.quilt, hung.at.map, *rc::gen::arbitrary<bool>());
  hung.quilt = withSeen(hung.quilt, hung.at.map, *rc::gen::element(Seen::fromAbove, Seen::sideOn));
  hung.quilt = withGrowing(hung.quilt, hung.at.map, *rc::gen::arbitrary<bool>());
  hung.quilt = withTitle(hung.quilt, hung.at.map, *rc::gen::element<std::string>("", "The Yard"));
  auto disk = std::make_shared<MemoryDisk>();
  RC_ASSERT(QuiltStore::create(disk, "/q", hung.quilt).has_value());
  const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
  RC_ASSERT(opened.has_value());
  RC_ASSERT(opened->problems.empty());
  const Map& again = *opened->quilt.map(hung.at.map);
  RC_ASSERT(writeJson(mapDocument(again)) == writeJson(mapDocument(hung.map())));
  RC_ASSERT(again.layers.front()->backdrop == hung.layer().backdrop);
  RC_ASSERT(again.layers.front()->parallax == hung.layer().parallax);
}

TEST(LayerFacts, NonsenseInAFileIsNamedWithItsLine) {
  Hung hung;
  for (const auto& [was, is] : std::map<std::string, std::string>{{"\"kind\": \"backdrop\"", "\"kind\": \"weather\""},
                                                                  {"\"parallax\": [50, 50]", "\"parallax\": [50, -1]"},
                                                                  {"\"parallax\": [50, 50]", "\"blend\": \"burnt\""},
                                                                  {"\"repeatsAcross\": true", "\"fit\": \"tight\""},
                                                                  {"\"grid\":", "\"seen\": \"below\", \"grid\":"}}) {
    auto disk = std::make_shared<MemoryDisk>();
    ASSERT_TRUE(QuiltStore::create(disk, "/q", hung.quilt));
    std::string& text = disk->files.at("/q/maps/yard/map.json");
    ASSERT_NE(text.find(was), std::string::npos) << was;
    text.replace(text.find(was), was.size(), is);
    const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
    ASSERT_TRUE(opened);
    ASSERT_EQ(opened->problems.size(), 1u) << is;
    EXPECT_GT(opened->problems[0].line, 0) << is;
  }
}

TEST(LayerFacts, ABackdropWhoseSheetIsGoneStaysAndIsReported) {
  Hung hung;
  auto disk = std::make_shared<MemoryDisk>();
  ASSERT_TRUE(QuiltStore::create(disk, "/q", hung.quilt));
  disk->files.erase("/q/sheets/quay.json");
  const auto opened = QuiltStore::open(disk, "/q", QuiltStore::Access::read);
  ASSERT_TRUE(opened);
  ASSERT_FALSE(opened->problems.empty());
  EXPECT_THAT(opened->problems.front().text(), HasSubstr("backdrop \"quay\" stays"));
  EXPECT_EQ(opened->quilt.map(hung.at.map)->layers.front()->backdrop.sheet, hung.laid.sheet);
}

}  // namespace
}  // namespace uq::test
