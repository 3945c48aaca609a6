#include "raster/MapPainter.h"

#include <QGuiApplication>
#include <QPainter>
#include <cstdlib>

#include "core/document/PlanView.h"
#include "core/store/Disk.h"
#include "raster/PictureFile.h"
#include "raster/Scene.h"
#include "raster/SmallPicture.h"

namespace uq {

TEST(MapPainter, DrawsTilesPixelForPixelAtFullSize) {
  Scene scene;
  scene.lay("Ground", {0, 0}, Cell({scene.small, 0}, {}));
  const QImage drawn = scene.draw(1, {0, 0, 16, 16});
  EXPECT_EQ(drawn.pixel(8, 0), kRed);
  EXPECT_EQ(drawn.pixel(0, 4), kBlue);
  EXPECT_EQ(drawn.pixel(0, 12), qRgb(90, 160, 90));
  EXPECT_EQ(scene.draw(1, {16, 0, 4, 4}).pixel(0, 0), 0u);
}

TEST(MapPainter, MirrorsFirstAndThenTurnsClockwise) {
  Scene scene;
  const auto drawn = [&](Turn turn) {
    scene.lay("Ground", {0, 0}, Cell({scene.small, 0}, turn));
    return scene.draw(1, {0, 0, 16, 16});
  };
  EXPECT_EQ(drawn({true, 0}).pixel(15, 4), kBlue);
  EXPECT_EQ(drawn({false, 1}).pixel(15, 8), kRed);   // the upper edge is on the right
  EXPECT_EQ(drawn({false, 1}).pixel(12, 0), kBlue);  // the left edge is on top, its upper half to the right
  EXPECT_EQ(drawn({false, 2}).pixel(8, 15), kRed);
  EXPECT_EQ(drawn({true, 1}).pixel(15, 8), kRed);
  EXPECT_EQ(drawn({true, 1}).pixel(12, 15), kBlue);
}

TEST(MapPainter, NearerLayersCoverFartherOnesAndHolesShowThem) {
  Scene scene;
  scene.lay("Ground", {0, 0}, Cell({scene.small, 0}, {}));
  scene.lay("Things", {0, 0}, Cell({scene.small, 1}, {}));
  const QImage drawn = scene.draw(1, {0, 0, 16, 16});
  EXPECT_EQ(drawn.pixel(8, 0), qRgb(90, 160, 90));
  EXPECT_EQ(drawn.pixel(8, 8), qRgb(90, 160, 90));
  const std::set<Id> hidden{scene.yard().layerNamed("Ground")->id};
  EXPECT_EQ(scene.draw(1, {0, 0, 16, 16}, {hidden, {}}).pixel(8, 8), 0u);
}

TEST(MapPainter, TallPicturesStandAtTheBottomLeftAndReachOver) {
  Scene scene;
  scene.lay("Things", {1, 3}, Cell({scene.tall, 0}, {}));
  const QImage drawn = scene.draw(1, {0, 0, 64, 80});
  EXPECT_EQ(qAlpha(drawn.pixel(16, 63)), 255);
  EXPECT_EQ(qAlpha(drawn.pixel(39, 24)), 255);
  EXPECT_EQ(qAlpha(drawn.pixel(40, 63)), 0);
  EXPECT_EQ(qAlpha(drawn.pixel(20, 23)), 0);
}

TEST(MapPainter, AShiftedLayerLiesAtItsOffsetAtEveryZoom) {
  Scene scene;
  scene.lay("Things", {1, 1}, Cell({scene.small, 0}, {}));
  const QImage straight = scene.draw(2, {0, 0, 200, 160});
  scene.quilt = withOffset(scene.quilt, scene.at("Things"), {5, -3});
  const QImage shifted = scene.draw(2, {10, -6, 200, 160});
  EXPECT_EQ(shifted, straight);
  EXPECT_EQ(scene.draw(1, {21, 13, 16, 16}).pixel(8, 0), kRed);
  const auto picked = MapPainter(scene.pictures).topmostAt(scene.quilt, scene.yard(), {}, {22, 14});
  ASSERT_TRUE(picked);
  EXPECT_EQ(picked->at, (CellPos{1, 1}));
  EXPECT_FALSE(MapPainter(scene.pictures).topmostAt(scene.quilt, scene.yard(), {}, {17, 30}));
}

// Source over with the layer's opacity, by the W3C compositing specification: co = cs·αs + cb·αb·(1 − αs).
TEST(MapPainter, ASeeThroughLayerIsBlendedByTheFormula) {
  for (const int opacity : {0, 1, 25, 50, 77, 99, 100}) {
    Scene scene;
    scene.lay("Ground", {0, 0}, Cell({kChalkSlot, 13}, {}));
    scene.lay("Things", {0, 0}, Cell({kChalkSlot, 6}, {}));
    scene.quilt = withOpacity(scene.quilt, scene.at("Things"), opacity);
    const QRgb drawn = scene.draw(1, {0, 0, 16, 16}).pixel(5, 5);
    const QRgb below = chalkColour(13);
    const QRgb above = chalkColour(6);
    const auto mixed = [&](int a, int b) { return (a * opacity + b * (100 - opacity)) / 100.0; };
    EXPECT_NEAR(qRed(drawn), mixed(qRed(above), qRed(below)), 1) << opacity;
    EXPECT_NEAR(qGreen(drawn), mixed(qGreen(above), qGreen(below)), 1) << opacity;
    EXPECT_NEAR(qBlue(drawn), mixed(qBlue(above), qBlue(below)), 1) << opacity;
    EXPECT_EQ(qAlpha(drawn), 255);
  }
}

TEST(MapPainter, ChalkFillsItsCellWhateverItsSize) {
  Scene scene;
  scene.lay("Ground", {0, 0}, Cell({kChalkSlot, 10}, {true, 3}));
  for (const double zoom : {0.5, 1.0, 3.0, 32.0}) {
    const int side = std::max(1, static_cast<int>(16 * zoom));
    const QImage drawn = scene.draw(zoom, {0, 0, 2 * side, 2 * side});
    EXPECT_EQ(drawn.pixel(0, 0), 0xff000000 | chalkColour(10)) << zoom;
    EXPECT_EQ(qAlpha(drawn.pixel(side - 1, side - 1)), 255) << zoom;
    EXPECT_EQ(qAlpha(drawn.pixel(side, 0)), 0) << zoom;
  }
}

// Chalk on every cell of a map covers each pixel that one of its cells owns, and no other, on every grid.
TEST(MapPainter, ChalkCoversExactlyWhatTheCellsOwn) {
  for (const GridKind kind : kGridKinds) {
    Scene scene({-1, -2, 4, 5}, nearestShape(kind, {24, 14}));
    const auto grid = makeGrid(scene.yard().grid);
    const CellRect cells = scene.yard().bounds;
    for (int y = cells.y0; y < cells.y1; ++y) {
      for (int x = cells.x0; x < cells.x1; ++x) {
        scene.lay("Ground", {x, y}, Cell({kChalkSlot, static_cast<std::uint32_t>((x + 3 * y + 16) % 16)}, {}));
      }
    }
    const PixelRect all = grid->pixelBounds(cells);
    const QImage drawn = scene.draw(1, QRect(all.x, all.y, all.w, all.h));
    for (int y = 0; y < all.h; ++y) {
      for (int x = 0; x < all.w; ++x) {
        const CellPos at = grid->cellAt({all.x + x, all.y + y});
        const bool owned = cells.contains(at);
        ASSERT_EQ(qAlpha(drawn.pixel(x, y)), owned ? 255 : 0) << gridName(kind) << " " << x << ", " << y;
        if (!owned || kind == GridKind::orthogonal) continue;
        const auto number = static_cast<std::uint32_t>((at.x + 3 * at.y + 16) % 16);
        ASSERT_EQ(drawn.pixel(x, y), 0xff000000 | chalkColour(number)) << gridName(kind) << " " << x << ", " << y;
      }
    }
  }
}

// On isometric maps what stands nearer covers what stands behind it, whichever layer it is on; on others layers decide.
TEST(MapPainter, IsometricMapsAreDrawnByDepth) {
  for (const GridKind kind : kGridKinds) {
    Scene scene({0, 0, 6, 6}, nearestShape(kind, {24, 14}));
    const bool byDepth = scene.yard().drawOrder() == DrawOrder::byDepth;
    const auto grid = makeGrid(scene.yard().grid);
    // A tall picture on the farther layer, and chalk on the nearer layer of the cell behind it, which it reaches over.
    const CellPos front{2, 3};
    const CellPos behind = grid->across(front, 0);
    scene.lay("Ground", front, Cell({scene.tall, 0}, {}));
    scene.lay("Things", behind, Cell({kChalkSlot, 6}, {}));
    const PixelRect tree = grid->seat(front, {24, 40});
    PixelPos shared{};
    for (int y = tree.y + 8; y < tree.bottom() - 2; ++y) {
      for (int x = tree.x; x < tree.right(); ++x) {
        if (grid->cellAt({x, y}) == behind) shared = {x, y};
      }
    }
    ASSERT_EQ(grid->cellAt(shared), behind) << gridName(kind);
    const QImage drawn = scene.draw(1, {shared.x, shared.y, 1, 1});
    const QRgb chalkThere = 0xff000000 | chalkColour(6);
    const bool coveredByTree = drawn.pixel(0, 0) == qRgb(40, 90, 50);
    EXPECT_EQ(coveredByTree, byDepth) << gridName(kind);
    if (!byDepth && kind != GridKind::orthogonal) {
      EXPECT_EQ(drawn.pixel(0, 0), chalkThere) << gridName(kind);
    }
    // Taking follows what is seen, and goes behind it next.
    const auto tiles = MapPainter(scene.pictures).tilesAt(scene.quilt, scene.yard(), {}, shared);
    ASSERT_EQ(tiles.size(), 2u) << gridName(kind);
    EXPECT_EQ(tiles[0].at, byDepth ? front : behind) << gridName(kind);
    EXPECT_EQ(tiles[1].at, byDepth ? behind : front) << gridName(kind);
  }
}

// A wall three cells long, with a post before its near end and one behind its far end: neither all in front of the wall
// nor all behind it.
TEST(MapPainter, WhatStandsOnSeveralCellsIsDrawnInStrips) {
  Scene scene({0, 0, 8, 8}, nearestShape(GridKind::diamond, {32, 16}));
  Sheet wall = *scene.quilt.sheetAt(scene.wide);
  wall.stance = {{0, 0}, {3, 1}};
  scene.quilt = scene.quilt.with(wall);
  scene.lay("Ground", {5, 5}, Cell({scene.wide, 0}, {}));  // on 3, 5 to 5, 5
  const auto grid = makeGrid(scene.yard().grid);
  // The post's cell lies before the far cell of the wall, and behind the near one.
  scene.lay("Ground", {3, 6}, Cell({scene.tall, 0}, {}));
  scene.lay("Ground", {5, 4}, Cell({scene.tall, 0}, {}));
  // Where the picture of a post and that of the wall meet.
  const PixelRect front = grid->seat({3, 6}, {24, 40});
  const PixelRect back = grid->seat({5, 4}, {24, 40});
  const PixelPos before{front.x + 12, front.bottom() - 4};
  const PixelPos behind{back.x + 4, back.bottom() - 4};
  const auto isPost = [&](PixelPos at) { return scene.draw(1, {at.x, at.y, 1, 1}).pixel(0, 0) == qRgb(40, 90, 50); };
  EXPECT_TRUE(isPost(before));
  EXPECT_FALSE(isPost(behind));
  // Taking follows what is seen, strip by strip.
  MapPainter painter(scene.pictures);
  EXPECT_EQ(painter.topmostAt(scene.quilt, scene.yard(), {}, before)->at, (CellPos{3, 6}));
  EXPECT_EQ(painter.topmostAt(scene.quilt, scene.yard(), {}, behind)->at, (CellPos{5, 5}));
}

// Foot on the ground first, then rise, then the stack.
TEST(MapPainter, ByDepthWhatIsRisenIsDrawnOverItsOwnCellAndUnderWhatStandsNearer) {
  Scene scene({0, 0, 8, 8}, nearestShape(GridKind::diamond, {24, 12}));
  const auto grid = makeGrid(scene.yard().grid);
  scene.raiseThings(10);
  scene.lay("Ground", {3, 3}, Cell({kChalkSlot, 2}, {}));
  scene.lay("Things", {3, 3}, Cell({kChalkSlot, 6}, {}));
  const PixelRect box = grid->cellBox({3, 3});
  const QPoint middle(box.x + 12, box.y + 6 - 10);
  EXPECT_EQ(scene.draw(1, {middle, QSize(1, 1)}).pixel(0, 0), 0xff000000 | chalkColour(6));
  EXPECT_EQ(scene.draw(1, {middle.x(), middle.y() + 11, 1, 1}).pixel(0, 0), 0xff000000 | chalkColour(2));
  scene.lay("Ground", {4, 4}, Cell({scene.tall, 0}, {}));
  EXPECT_EQ(scene.draw(1, {middle, QSize(1, 1)}).pixel(0, 0), qRgb(40, 90, 50))
      << "a tree in front, though on the ground";
  EXPECT_EQ(runsOf(scene.yard()).size(), 1u);
  MapPainter painter(scene.pictures);
  const auto tiles = painter.tilesAt(scene.quilt, scene.yard(), {}, {middle.x(), middle.y()});
  ASSERT_GE(tiles.size(), 2u);
  EXPECT_EQ(tiles[0].at, (CellPos{4, 4}));
  EXPECT_EQ(tiles[1].at, (CellPos{3, 3}));
  EXPECT_EQ(tiles[1].layer, scene.at("Things").layer);
}

TEST(MapPainter, ALiftedCellIsDrawnHigherAndTakenThere) {
  for (const GridKind kind : kGridKinds) {
    Scene scene({0, 0, 8, 8}, nearestShape(kind, {24, 14}));
    const auto grid = makeGrid(scene.yard().grid);
    const PixelRect box = grid->cellBox({3, 3});
    const QPoint middle(box.x + box.w / 2, box.y + box.h / 2);
    scene.lay("Ground", {3, 3}, Cell({kChalkSlot, 6}, {}), 30);
    EXPECT_EQ(scene.draw(1, {middle, QSize(1, 1)}).pixel(0, 0), 0u) << gridName(kind);
    const QPoint up = middle - QPoint(0, 30);
    EXPECT_EQ(scene.draw(1, {up, QSize(1, 1)}).pixel(0, 0), 0xff000000 | chalkColour(6)) << gridName(kind);
    MapPainter painter(scene.pictures);
    const auto picked = painter.topmostAt(scene.quilt, scene.yard(), {}, {up.x(), up.y()});
    ASSERT_TRUE(picked) << gridName(kind);
    EXPECT_EQ(picked->at, (CellPos{3, 3})) << gridName(kind);
  }
}

// From above, ground is laid out as a square, a block shows its top, and what stands is a small picture of itself.
TEST(MapPainter, ThePlanShowsGroundTopsAndSmallPictures) {
  Scene scene({0, 0, 4, 4}, nearestShape(GridKind::diamond, {32, 16}));
  const auto sheetOf = [&](const char* name, int height, auto colour) {
    QImage picture(32, height, QImage::Format_ARGB32);
    for (int y = 0; y < height; ++y) {
      for (int x = 0; x < 32; ++x) picture.setPixel(x, y, colour(x, y));
    }
    Sheet sheet;
    sheet.id = IdSource(static_cast<std::uint64_t>(name[0])).next();
    sheet.name = name;
    sheet.code = name;
    sheet.cut.cell = {32, height};
    sheet.pictureSize = {32, height};
    scene.quilt = scene.quilt.with(sheet);
    scene.pictures.set(sheet, picture.convertToFormat(QImage::Format_ARGB32_Premultiplied));
    return *scene.quilt.slots().find(sheet.id);
  };
  const SheetSlot flat = sheetOf("F", 40, [](int x, int y) { return y < 24 ? 0 : x < 16 ? kRed : kBlue; });
  const SheetSlot block = sheetOf("K", 32, [](int, int y) { return y < 16 ? kRed : kBlue; });
  const SheetSlot post = sheetOf("P", 48, [](int x, int) { return x > 12 && x < 20 ? kBlue : 0u; });
  scene.lay("Ground", {0, 0}, Cell({flat, 0}, {}));
  scene.lay("Ground", {1, 0}, Cell({block, 0}, {}), 9);
  scene.lay("Ground", {2, 0}, Cell({post, 0}, {}));
  const Quilt plan = inPlan(scene.quilt, scene.map);
  const Map& shown = *plan.map(scene.map);
  const PixelRect square = makeGrid(shown.grid)->cellBox({0, 0});
  EXPECT_EQ(square, (PixelRect{0, 0, 16, 16}));
  MapPainter painter(scene.pictures);
  const QImage drawn = painter.draw(plan, shown, runsOf(shown), {1}, {0, 0, 64, 16});
  EXPECT_EQ(drawn.pixel(12, 3), kBlue) << "the right half of the ground is its upper right";
  EXPECT_EQ(drawn.pixel(3, 12), kRed);
  EXPECT_EQ(drawn.pixel(16 + 8, 8), kRed) << "the top of the block, not lifted";
  EXPECT_EQ(drawn.pixel(32 + 8, 12), kBlue);
  EXPECT_EQ(drawn.pixel(32 + 1, 12), 0u);
}

TEST(MapPainter, TheExtentHoldsWhateverReachesBeyondTheCells) {
  Scene scene({0, 0, 8, 8}, nearestShape(GridKind::diamond, {24, 12}));
  const auto grid = makeGrid(scene.yard().grid);
  const PixelRect cells = grid->pixelBounds(scene.yard().bounds);
  MapPainter painter(scene.pictures);
  scene.lay("Ground", {4, 4}, Cell({scene.tall, 0}, {}));
  EXPECT_EQ(painter.extentOf(scene.quilt, scene.yard(), runsOf(scene.yard())), cells) << "it stands inside";
  scene.lay("Things", {0, 0}, Cell({scene.tall, 0}, {}), 7);
  scene.raiseThings(20);
  const PixelRect extent = painter.extentOf(scene.quilt, scene.yard(), runsOf(scene.yard()));
  EXPECT_EQ(extent, (PixelRect{cells.x, cells.y + 12 - 40 - 20 - 7, cells.w, cells.h + 55}));
  EXPECT_EQ(painter.extentOf(scene.quilt, scene.yard(), runsOf(scene.yard(), {{scene.at("Things").layer}, {}})), cells);
}

// By depth a ghost may be hidden by what stands nearer, so that is drawn faint; by layers the nearer layer covers it.
TEST(MapPainter, WhatStandsBeforeAGhostIsFaint) {
  Scene scene({0, 0, 8, 8}, nearestShape(GridKind::diamond, {24, 12}));
  const auto grid = makeGrid(scene.yard().grid);
  scene.lay("Things", {4, 4}, Cell({scene.tall, 0}, {}));
  const GhostCells ghost{scene.at("Ground").layer, {{{3, 3}, Cell({kChalkSlot, 6}, {})}}};
  const PixelRect box = grid->cellBox({3, 3});
  const QRgb seen = scene.draw(1, {box.x + 12, box.y + 6, 1, 1}, {}, &ghost).pixel(0, 0);
  EXPECT_GT(qRed(seen), qGreen(seen)) << "the red chalk behind shows through the tree";
  MapPainter painter(scene.pictures);
  const PixelRect area = painter.areaOf(scene.quilt, scene.yard(), runsOf(scene.yard()), ghost);
  EXPECT_EQ(area, grid->seat({4, 4}, {24, 40}).united(box)) << "the whole tree is faint, not a part of it";
  // A ghost in front of the tree leaves it as it is.
  const GhostCells before{scene.at("Ground").layer, {{{5, 5}, Cell({kChalkSlot, 6}, {})}}};
  EXPECT_EQ(painter.areaOf(scene.quilt, scene.yard(), runsOf(scene.yard()), before), grid->cellBox({5, 5}));
}

// Of a map drawn at one pixel for several cells.
TEST(SmallPicture, AThinLayerIsSeenOnItsCardInItsColour) {
  Scene scene({0, 0, 160, 160});
  for (int x = 0; x < 160; ++x) scene.lay("Things", {x, 80}, Cell({scene.small, 0}, {}));
  MapPainter painter(scene.pictures);
  const auto strongest = [](const QImage& picture) {
    QRgb strong = 0;
    for (int y = 0; y < picture.height(); ++y) {
      for (int x = 0; x < picture.width(); ++x) {
        if (qAlpha(picture.pixel(x, y)) > qAlpha(strong)) strong = picture.pixel(x, y);
      }
    }
    return strong;
  };
  const QRgb card = strongest(
      smallPicture(painter, scene.quilt, scene.yard(), *scene.quilt.layer(scene.at("Things")), {40, 40}).picture);
  EXPECT_EQ(qAlpha(card), 255);
  EXPECT_GT(qGreen(card), qRed(card)) << "grass";
  EXPECT_EQ(
      strongest(
          smallPicture(painter, scene.quilt, scene.yard(), *scene.quilt.layer(scene.at("Ground")), {40, 40}).picture),
      0u)
      << "an empty layer is empty";
  EXPECT_LT(qAlpha(strongest(smallPicture(painter, scene.quilt, scene.yard(), {40, 40}).picture)), 255)
      << "a map is shown as it is";
}

TEST(Runs, LevelsByDepthAreOneRunAndFoldersByLayersPartIt) {
  Scene scene({0, 0, 8, 8}, nearestShape(GridKind::diamond, {24, 12}));
  const Id ground = scene.at("Ground").layer;
  const Id things = scene.at("Things").layer;
  scene.raiseThings(20);
  EXPECT_EQ(runsOf(scene.yard()), (std::vector<uq::Run>{{{ground, things}, {}, 100, true, {{0, 0}, {0, -20}}}}));
  scene.quilt = withDrawOrder(scene.quilt, scene.map, scene.yard().folders[0].id, DrawOrder::byLayers);
  EXPECT_EQ(runsOf(scene.yard()), (std::vector<uq::Run>{{{ground}}, {{things}, {0, -20}}}));
  scene.quilt = withDrawOrder(scene.quilt, scene.map, {}, DrawOrder::byLayers);
  EXPECT_EQ(runsOf(scene.yard()), (std::vector<uq::Run>{{{ground}}, {{things}, {0, -20}}}));
  EXPECT_EQ(drawGroups(scene.yard()).size(), 1u);
}

TEST(Runs, LayersByLayersAreEachARunOfTheirOwn) {
  Scene scene;
  const Id ground = scene.at("Ground").layer;
  const Id things = scene.at("Things").layer;
  EXPECT_EQ(runsOf(scene.yard()), (std::vector<uq::Run>{{{ground}}, {{things}}}));
  EXPECT_EQ(runsOf(scene.yard(), {{ground}, {}}), (std::vector<uq::Run>{{{things}}}));
  EXPECT_EQ(runsOf(scene.yard(), {{}, things}), (std::vector<uq::Run>{{{ground}, {}, kFaint}, {{things}}}));
  scene.quilt = withOffset(scene.quilt, scene.at("Things"), {1, 0});
  EXPECT_EQ(runsOf(scene.yard()), (std::vector<uq::Run>{{{ground}}, {{things}, {1, 0}}}));
  scene.quilt = withOffset(scene.quilt, scene.at("Ground"), {1, 0});
  EXPECT_EQ(runsOf(scene.yard()), (std::vector<uq::Run>{{{ground}, {1, 0}}, {{things}, {1, 0}}}));
  scene.quilt = withOpacity(scene.quilt, scene.at("Ground"), 40);
  EXPECT_EQ(runsOf(scene.yard()).size(), 2u);
}

// A part of a picture has the same pixels as that part of the whole, at any zoom, tall pictures included.
RC_GTEST_PROP(MapPainter, AnyPartEqualsThatPartOfTheWhole, ()) {
  Scene scene({-2, -1, 6, 5}, anySmallGrid());
  scene.arrangeAtRandom();
  scene.layAtRandom(30);
  const double zoom = *rc::gen::element(0.05, 0.3, 0.5, 0.77, 1.0, 1.25, 2.0, 3.7);
  const QRect all = ViewScale{zoom}.toDevice(makeGrid(scene.yard().grid)->pixelBounds(scene.yard().bounds));
  const QImage whole = scene.draw(zoom, all);
  const int x = *rc::gen::inRange(0, all.width());
  const int y = *rc::gen::inRange(0, all.height());
  const QRect part(all.x() + x, all.y() + y, *rc::gen::inRange(1, all.width() - x + 1),
                   *rc::gen::inRange(1, all.height() - y + 1));
  RC_ASSERT(scene.draw(zoom, part) == whole.copy(part.translated(-all.topLeft())));
}

TEST(MapPainter, NeighboursMeetWithoutSeamsAtOddZooms) {
  Scene scene;
  for (int y = -1; y < 5; ++y) {
    for (int x = -2; x < 6; ++x) scene.lay("Ground", {x, y}, Cell({scene.small, 0}, {}));
  }
  for (double zoom : {0.37, 0.9, 1.3, 2.6}) {
    const QImage drawn = scene.whole(zoom);
    for (int y = 0; y < drawn.height(); ++y) {
      for (int x = 0; x < drawn.width(); ++x)
        ASSERT_EQ(qAlpha(drawn.pixel(x, y)), 255) << zoom << ": " << x << ", " << y;
    }
  }
}

TEST(MapPainter, ShowsAMissingTileAsALabelledPlaceholder) {
  Scene scene;
  scene.lay("Ground", {0, 0}, Cell({scene.small, 77}, {}));
  const QImage drawn = scene.draw(2, {0, 0, 32, 32});
  EXPECT_EQ(drawn.pixel(0, 0), qRgb(27, 32, 48));
  EXPECT_GT(qAlpha(drawn.pixel(16, 16)), 100);
}

TEST(MapPainter, TheGhostIsTheTileAtEightyPercentUnderNearerLayers) {
  Scene scene;
  scene.lay("Things", {0, 0}, Cell({scene.small, 1}, {}));
  const GhostCells ghost{scene.yard().layerNamed("Ground")->id, {{{0, 0}, Cell({scene.small, 0}, {})}}};
  const QImage drawn = scene.draw(1, {0, 0, 16, 16}, {}, &ghost);
  EXPECT_EQ(drawn.pixel(8, 0), qRgb(90, 160, 90));  // covered by the nearer layer
  EXPECT_NEAR(qAlpha(drawn.pixel(8, 8)), 204, 1);   // seen through its hole
}

TEST(Picking, TakesTheTopmostOpaquePixel) {
  Scene scene;
  scene.lay("Ground", {0, 0}, Cell({scene.small, 0}, {}));
  scene.lay("Things", {0, 0}, Cell({scene.small, 1}, {}));
  const auto pick = [&](PixelPos at, const std::set<Id>& hidden = {}) {
    return MapPainter(scene.pictures).topmostAt(scene.quilt, scene.yard(), hidden, at);
  };
  const Id ground = scene.yard().layerNamed("Ground")->id;
  const Id things = scene.yard().layerNamed("Things")->id;
  EXPECT_EQ(pick({1, 1})->layer, things);
  EXPECT_EQ(pick({8, 8})->layer, ground);  // through the hole
  EXPECT_EQ(pick({1, 1}, {things})->layer, ground);
  EXPECT_FALSE(pick({40, 40}));
}

TEST(Picking, FindsATallPictureByItsTop) {
  Scene scene;
  scene.lay("Things", {1, 3}, Cell({scene.tall, 0}, {}));
  const auto picked = MapPainter(scene.pictures).topmostAt(scene.quilt, scene.yard(), {}, {30, 30});
  ASSERT_TRUE(picked);
  EXPECT_EQ(picked->at, (CellPos{1, 3}));
}

RC_GTEST_PROP(ViewScale, TheMiddleOfADevicePixelLiesInTheMapPixelItShows, ()) {
  const ViewScale scale{*rc::gen::element(1.0, 1.5, 2.0, 4.0, 7.3, 32.0)};
  const QPoint device(*rc::gen::inRange(-5000, 5000), *rc::gen::inRange(-5000, 5000));
  const PixelPos map = scale.toMap(device);
  const QRect shown = scale.toDevice({map.x, map.y, 1, 1});
  RC_ASSERT(std::abs(shown.center().x() - device.x()) <= scale.zoom);
  RC_ASSERT(scale.covering({device, QSize(1, 1)}).contains(map));
}

TEST(PictureFile, RefusesWhatIsNoPictureOrTooLarge) {
  EXPECT_THAT(decodePicture("", "street.png").error().text(), testing::HasSubstr("street.png: the picture is empty"));
  EXPECT_THAT(decodePicture("hello", "street.png").error().reason, testing::HasSubstr("cannot be read"));
  QImage small(3, 2, QImage::Format_ARGB32);
  small.fill(Qt::red);
  const std::string path = testing::TempDir() + "/uq-small.png";
  ASSERT_TRUE(writePng(*realDisk(), small, path));
  auto bytes = realDisk()->read(path, 1 << 20);
  ASSERT_TRUE(bytes);
  EXPECT_TRUE(decodePicture(*bytes, "small.png"));
  // The head of a PNG that claims 60,000 × 60,000 pixels.
  static constexpr char kHead[] =
      "\x89\x50\x4e\x47\x0d\x0a\x1a\x0a\x00\x00\x00\x0d\x49\x48\x44\x52"
      "\x00\x00\xea\x60\x00\x00\xea\x60\x08\x06\x00\x00\x00\x80\xd2\x75\x42"
      "\x00\x00\x00\x10\x49\x44\x41\x54";
  const auto refused = decodePicture({kHead, sizeof kHead - 1}, "huge.png");
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().cause, Error::Cause::tooLarge);
}

TEST(PictureFile, SaysWhereItCouldNotWrite) {
  const auto written = writePng(*realDisk(), QImage(2, 2, QImage::Format_ARGB32), "/no-such-folder/out.png");
  ASSERT_FALSE(written);
  EXPECT_EQ(written.error().file, "/no-such-folder/out.png");
}

}  // namespace uq

int main(int argc, char** argv) {
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  testing::InitGoogleTest(&argc, argv);
  const QGuiApplication application(argc, argv);
  return RUN_ALL_TESTS();
}
