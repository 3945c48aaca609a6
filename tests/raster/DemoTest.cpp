// The demo quilt in the repository: it opens, it is what the art program draws, and it is composed with care.
#include <set>

#include "art/DepotYard.h"
#include "art/Sheets.h"
#include "core/Support.h"
#include "core/document/FrameTime.h"
#include "core/edit/Camera.h"
#include "core/edit/MapFacts.h"
#include "core/sheets/CutMeasure.h"
#include "core/sheets/TileUses.h"
#include "core/store/Documents.h"
#include "core/store/QuiltStore.h"
#include "raster/Blend.h"
#include "raster/MapPainter.h"
#include "raster/SheetPictures.h"

namespace uq {

namespace {

const std::string kDemo = UQ_SOURCE_DIR "/demo/copperline";

QuiltStore::Opened openDemo() {
  auto opened = QuiltStore::open(realDisk(), kDemo, QuiltStore::Access::read);
  EXPECT_TRUE(opened) << opened.error().text();
  return std::move(*opened);
}

}  // namespace

TEST(Demo, IsWhatTheArtProgramDraws) {
  auto opened = openDemo();
  const art::Demo drawn = art::composeDemo();
  EXPECT_EQ(test::bytes(opened.quilt), test::bytes(drawn.quilt));
  Errors problems;
  const auto pictures = SheetPictures::load(opened.quilt, problems);
  EXPECT_TRUE(problems.empty());
  for (const auto& sheet : opened.quilt.sheets()) {
    if (!sheet->isCollection()) {
      const QImage& expected = drawn.pictures.at("sheets/" + sheet->picture);
      EXPECT_EQ(pictures.picture(sheet.read()), expected.convertToFormat(QImage::Format_ARGB32_Premultiplied))
          << sheet->name;
    }
    for (const CollectedPicture& one : sheet->collection) {
      const QImage& expected = drawn.pictures.at(pictureFile(sheet.read(), one));
      EXPECT_EQ(pictures.picture(sheet.read()).copy(one.at.x, one.at.y, one.size.w, one.size.h),
                expected.convertToFormat(QImage::Format_ARGB32_Premultiplied))
          << one.file;
    }
  }
}

bool isHung(const Quilt& quilt, Id sheet) {
  for (const auto& map : quilt.maps()) {
    for (const Shared<Layer>& layer : map->layers) {
      if (layer->kind == LayerKind::backdrop && layer->backdrop.sheet == sheet) return true;
    }
  }
  return false;
}

TEST(Demo, EverySheetIsCutRightByMeasuringIt) {
  const auto opened = openDemo();
  Errors problems;
  const auto pictures = SheetPictures::load(opened.quilt, problems);
  int measured = 0;
  for (const auto& sheet : opened.quilt.sheets()) {
    // What is hung as a whole is not measured.
    if (sheet->isCollection() || isHung(opened.quilt, sheet->id)) continue;
    const CutProposal best = measureCut(viewOf(pictures.picture(sheet.read()))).front();
    EXPECT_EQ(best.cut, sheet->cut) << sheet->name << ": " << best.reason;
    ++measured;
  }
  EXPECT_GE(measured, 14);
}

TEST(Demo, TheCanalMovesAndPropsAreACollection) {
  const auto opened = openDemo();
  const TileUses uses = usesIn(opened.quilt);
  int moving = 0;
  for (const TileRef tile : animatedTiles(opened.quilt)) moving += uses.contains(tile) ? 1 : 0;
  EXPECT_GE(moving, 3);
  const auto isCollection = [](const auto& sheet) { return sheet->isCollection(); };
  EXPECT_EQ(std::count_if(opened.quilt.sheets().begin(), opened.quilt.sheets().end(), isCollection), 1);
}

TEST(Demo, LanternRowShowsNoBareClothWhereverTheCameraGoes) {
  auto opened = openDemo();
  const Map& row = *opened.quilt.mapNamed("Lantern Row");
  std::set<TileRef> tiles;
  int backdrops = 0;
  for (const Shared<Layer>& layer : row.layers) {
    backdrops += layer->kind == LayerKind::backdrop ? 1 : 0;
    for (const auto& [ref, count] : layer->cells.tally(row.bounds)) tiles.insert(ref);
  }
  EXPECT_GE(tiles.size(), 30u);
  EXPECT_EQ(backdrops, 4);
  EXPECT_TRUE(backdropGaps(opened.quilt, row).empty());
  MapPainter painter(SheetPictures::load(opened.quilt, opened.problems));
  const PixelSize screen = screenOf(opened.quilt, row);
  const PixelRect all = makeGrid(row.grid)->pixelBounds(row.bounds);
  for (const int x : {all.x, 700, all.right() - screen.w}) {
    for (const int y : {all.y, 300, all.bottom() - screen.h}) {
      const QImage shown =
          painter.draw(opened.quilt, row, runsOf(row, {{}, {}, PixelPos{x, y}}), {1}, {x, y, screen.w, screen.h});
      int bare = 0;
      for (int py = 0; py < shown.height(); ++py) {
        for (int px = 0; px < shown.width(); ++px) bare += qAlpha(shown.pixel(px, py)) < 255 ? 1 : 0;
      }
      EXPECT_EQ(bare, 0) << "at " << x << ", " << y;
    }
  }
}

// What each map of the demo must be: how large, on which grid, of how many different tiles.
struct Measure {
  const char* name;
  GridKind grid;
  CellRect bounds;
  std::size_t tiles;
};

class DemoMap : public testing::TestWithParam<Measure> {
 protected:
  QuiltStore::Opened opened = openDemo();
  const Map& map() { return *opened.quilt.mapNamed(GetParam().name); }
};

TEST_P(DemoMap, HasItsGridItsSizeAndEnoughDifferentTiles) {
  EXPECT_EQ(map().grid.kind, GetParam().grid);
  EXPECT_EQ(map().bounds, GetParam().bounds);
  std::set<TileRef> tiles;
  for (const Shared<Layer>& layer : map().layers) {
    for (const auto& [ref, count] : layer->cells.tally(map().bounds)) tiles.insert(ref);
  }
  EXPECT_GE(tiles.size(), GetParam().tiles);
}

TEST_P(DemoMap, HasGroundOnEveryCellAndNothingBeyond) {
  const CellGrid& ground = map().layers.front()->cells;
  for (int y = map().bounds.y0; y < map().bounds.y1; ++y) {
    for (int x = map().bounds.x0; x < map().bounds.x1; ++x) EXPECT_FALSE(ground.at({x, y}).empty()) << x << ", " << y;
  }
  for (const Shared<Layer>& layer : map().layers) {
    EXPECT_EQ(layer->cells.usedBounds().intersected(map().bounds), layer->cells.usedBounds()) << layer->name;
  }
}

TEST_P(DemoMap, NoSixBySixAreaStandsTwiceExceptFills) {
  std::set<std::vector<Cell>> seen;
  for (int y = 0; y + 6 <= map().bounds.y1; ++y) {
    for (int x = 0; x + 6 <= map().bounds.x1; ++x) {
      std::vector<Cell> area;
      std::set<Cell> things;
      for (const Shared<Layer>& layer : map().layers) {
        for (int dy = 0; dy < 6; ++dy) {
          for (int dx = 0; dx < 6; ++dx) {
            area.push_back(layer->cells.at({x + dx, y + dy}));
            if (layer->id != map().layers.front()->id && !area.back().empty()) things.insert(area.back());
          }
        }
      }
      const bool fill = things.empty();
      EXPECT_TRUE(seen.insert(area).second || fill) << "the area at " << x << ", " << y;
    }
  }
}

INSTANTIATE_TEST_SUITE_P(Each, DemoMap,
                         testing::Values(Measure{"Depot Yard", GridKind::orthogonal, {0, 0, 48, 32}, 60},
                                         Measure{"Quayside", GridKind::diamond, {0, 0, 28, 28}, 60},
                                         Measure{"Roof Market", GridKind::staggered, {0, 0, 20, 40}, 60},
                                         Measure{"Ward Board", GridKind::hexagonalPointy, {0, 0, 24, 20}, 60},
                                         Measure{"Canal Locks", GridKind::hexagonalFlat, {0, 0, 12, 12}, 60}),
                         [](const auto& one) {
                           std::string name = one.param.name;
                           std::replace(name.begin(), name.end(), ' ', '_');
                           return name;
                         });

TEST(Demo, QuaysideHasAQuayOneRiseUpAndThingsOnSeveralCells) {
  const auto opened = openDemo();
  const Map& quayside = *opened.quilt.mapNamed("Quayside");
  ASSERT_EQ(quayside.folders.size(), 1u);
  EXPECT_EQ(quayside.folders.front().rise, 32);
  int wide = 0;
  int lifted = 0;
  for (const Shared<Layer>& layer : quayside.layers) {
    for (const auto& [ref, count] : layer->cells.tally(quayside.bounds)) {
      wide += opened.quilt.sheetAt(ref.slot)->stanceOf(ref.number).isWide() ? 1 : 0;
    }
    lifted += layer->lifts.empty() ? 0 : 1;
  }
  EXPECT_GE(wide, 4);
  EXPECT_EQ(lifted, 1);
  EXPECT_EQ(opened.quilt.facts().opensWith, opened.quilt.mapNamed("Depot Yard")->id);
}

TEST(Demo, EveryCellHasGroundAndEveryBorderIsDrawn) {
  const auto opened = openDemo();
  const Map& yard = *opened.quilt.mapNamed("Depot Yard");
  const Layer& paving = *yard.layerNamed("Paving");
  // Which ground a plain ground tile shows; -1 for borders and single tiles.
  const auto ground = [&](CellPos at) {
    const TileRef tile = paving.cells.at(at).tile();
    if (opened.quilt.sheetAt(tile.slot)->name == "ripples") return 3;
    const auto number = tile.number;
    if (number == art::settsLid() || number == art::settsStain()) return 0;
    if (number == art::slabsGrating()) return 1;
    if (number == art::canalLilies()) return 3;
    return number < 4u * art::kLookAlikes ? static_cast<int>(number) / art::kLookAlikes : -1;
  };
  for (int y = 0; y < 32; ++y) {
    for (int x = 0; x < 48; ++x) {
      EXPECT_FALSE(paving.cells.at({x, y}).empty()) << x << ", " << y;
      for (CellPos next : {CellPos{x + 1, y}, CellPos{x, y + 1}}) {
        if (!yard.bounds.contains(next) || ground({x, y}) < 0 || ground(next) < 0) continue;
        EXPECT_EQ(ground({x, y}), ground(next)) << "two grounds meet without a border at " << x << ", " << y;
      }
    }
  }
}

TEST(Demo, AtLeastFiveThingsOfSeveralTilesCastAShadow) {
  const auto opened = openDemo();
  Errors problems;
  const auto pictures = SheetPictures::load(opened.quilt, problems);
  const Map& yard = *opened.quilt.mapNamed("Depot Yard");
  std::set<TileRef> used;
  for (const Shared<Layer>& layer : yard.layers) {
    for (const auto& [ref, count] : layer->cells.tally(yard.bounds)) used.insert(ref);
  }
  SheetSlot slot = 0;
  for (const auto& sheet : opened.quilt.sheets()) {
    if (sheet->name == "yard") slot = *opened.quilt.slots().find(sheet->id);
  }
  int withShadow = 0;
  for (const art::Thing& thing : {art::thing::shed, art::thing::copperTram, art::thing::canalTram, art::thing::tree,
                                  art::thing::kiosk, art::thing::barge, art::thing::cabin, art::thing::crates}) {
    bool whole = true;
    bool shadow = false;
    for (int y = 0; y < thing.h; ++y) {
      for (int x = 0; x < thing.w; ++x) {
        const TileRef tile{slot, static_cast<std::uint32_t>((thing.y + y) * art::kYardColumns + thing.x + x)};
        whole = whole && used.contains(tile);
        const auto picture = pictures.tile(opened.quilt, tile);
        ASSERT_TRUE(picture);
        for (int py = 0; py < 32; ++py) {
          for (int px = 0; px < 32; ++px) shadow = shadow || qAlpha(picture->pixel(px, py)) == 104;
        }
      }
    }
    if (whole && shadow) ++withShadow;
  }
  EXPECT_GE(withShadow, 5);
}

TEST(Demo, UsesOnlyThePaletteAndItsShadow) {
  const art::Demo drawn = art::composeDemo();
  std::set<QRgb> colours;
  for (const auto& [path, picture] : drawn.pictures) {
    for (int y = 0; y < picture.height(); ++y) {
      for (int x = 0; x < picture.width(); ++x) {
        if (qAlpha(picture.pixel(x, y)) == 255) colours.insert(picture.pixel(x, y));
      }
    }
  }
  EXPECT_LE(colours.size(), 21u);
}

}  // namespace uq
