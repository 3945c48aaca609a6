// The demo quilt in the repository: it opens, it is what the art program draws, and it is composed with care.
#include <set>

#include "art/DepotYard.h"
#include "art/Sheets.h"
#include "core/Support.h"
#include "core/store/QuiltStore.h"
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
  const auto pictures = SheetPictures::load(opened.quilt, *realDisk(), kDemo, problems);
  EXPECT_TRUE(problems.empty());
  for (const auto& sheet : opened.quilt.sheets()) {
    const QImage& expected = drawn.pictures.at("sheets/" + sheet->picture);
    EXPECT_EQ(pictures.picture(sheet->id), expected.convertToFormat(QImage::Format_ARGB32_Premultiplied))
        << sheet->name;
  }
}

TEST(Demo, DepotYardUsesAtLeastSixtyDifferentTiles) {
  const auto opened = openDemo();
  const Map& yard = *opened.quilt.mapNamed("Depot Yard");
  EXPECT_EQ(yard.bounds, (CellRect{0, 0, 48, 32}));
  std::set<TileRef> tiles;
  for (const Shared<TilesLayer>& layer : yard.layers) {
    for (const auto& [ref, count] : layer->cells.tally(yard.bounds)) tiles.insert(ref);
  }
  EXPECT_GE(tiles.size(), 60u);
}

TEST(Demo, NoSixBySixAreaOfDepotYardStandsTwiceExceptFills) {
  const auto opened = openDemo();
  const Map& yard = *opened.quilt.mapNamed("Depot Yard");
  std::set<std::vector<Cell>> seen;
  for (int y = 0; y + 6 <= 32; ++y) {
    for (int x = 0; x + 6 <= 48; ++x) {
      std::vector<Cell> area;
      std::set<Cell> things;
      for (const Shared<TilesLayer>& layer : yard.layers) {
        for (int dy = 0; dy < 6; ++dy) {
          for (int dx = 0; dx < 6; ++dx) {
            area.push_back(layer->cells.at({x + dx, y + dy}));
            if (layer->name != "Paving" && !area.back().empty()) things.insert(area.back());
          }
        }
      }
      const bool fill = things.empty();
      EXPECT_TRUE(seen.insert(area).second || fill) << "the area at " << x << ", " << y;
    }
  }
}

TEST(Demo, EveryCellHasGroundAndEveryBorderIsDrawn) {
  const auto opened = openDemo();
  const Map& yard = *opened.quilt.mapNamed("Depot Yard");
  const TilesLayer& paving = *yard.layerNamed("Paving");
  // Which ground a plain ground tile shows; -1 for borders and single tiles.
  const auto ground = [&](CellPos at) {
    const auto number = paving.cells.at(at).tile().number;
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
  const auto pictures = SheetPictures::load(opened.quilt, *realDisk(), kDemo, problems);
  const Map& yard = *opened.quilt.mapNamed("Depot Yard");
  std::set<TileRef> used;
  for (const Shared<TilesLayer>& layer : yard.layers) {
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
