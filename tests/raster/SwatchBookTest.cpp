#include "raster/SwatchBook.h"

#include <semaphore>
#include <sstream>

#include "core/edit/ArrangeLayers.h"
#include "raster/Scene.h"

namespace uq {

namespace {

constexpr CellRect kWide{-40, -30, 50, 40};
constexpr auto kLong = std::chrono::seconds(60);
constexpr auto kNone = std::chrono::seconds(0);
constexpr std::size_t kRoom = std::size_t{256} << 20;
constexpr SwatchBook::Options kPatient{kRoom, 1, kLong, kLong, kLong};      // all is drawn in the frame
constexpr SwatchBook::Options kWorkersOnly{kRoom, 1, kNone, kNone, kLong};  // only repairs are
constexpr SwatchBook::Options kAllByWorkers{kRoom, 2, kNone, kNone, kNone};

// A book, and the frame that a window of it shows.
struct Show {
  std::counting_semaphore<> arrivals{0};
  SwatchBook book;

  explicit Show(const Scene& scene, SwatchBook::Options options)
      : book(
            scene.pictures, [this] { arrivals.release(); }, options) {
    show(scene);
  }

  std::optional<std::vector<PixelRect>> show(const Scene& scene, const Seeing& seeing = {}) {
    return book.show(scene.quilt, scene.map, runsOf(scene.yard(), seeing));
  }

  QImage frame(double zoom, QRect window, SwatchBook::Frame* shown = nullptr) {
    QImage picture(window.size(), QImage::Format_ARGB32_Premultiplied);
    picture.fill(Qt::transparent);
    QPainter painter(&picture);
    const SwatchBook::Frame frame = book.paint(painter, {zoom}, window, window);
    if (shown) *shown = frame;
    return picture;
  }

  // Paints all once and then, until nothing is missing, only where something arrived.
  QImage followed(double zoom, QRect window) {
    QImage picture(window.size(), QImage::Format_ARGB32_Premultiplied);
    const auto repaint = [&](const QRect& part) {
      QPainter painter(&picture);
      painter.setClipRect(part.translated(-window.topLeft()));
      painter.setCompositionMode(QPainter::CompositionMode_Clear);
      painter.fillRect(picture.rect(), Qt::transparent);
      return book.paint(painter, {zoom}, window, part);
    };
    SwatchBook::Frame shown = repaint(window);
    while (!shown.whole()) {
      arrivals.acquire();
      for (const QRect& part : book.arrivals({zoom}, window)) shown = repaint(part);
    }
    return picture;
  }

  // Paints until nothing is missing.
  QImage wholeFrame(double zoom, QRect window) {
    while (true) {
      SwatchBook::Frame shown;
      QImage picture = frame(zoom, window, &shown);
      if (shown.whole()) return picture;
      if (shown.substitutes > 0) arrivals.acquire();
    }
  }
};

// Where two pictures first differ by more than `most` in a channel, and how; empty when they do not.
std::string difference(const QImage& a, const QImage& b, int most = 0) {
  for (int y = 0; y < a.height(); ++y) {
    for (int x = 0; x < a.width(); ++x) {
      if (a.pixel(x, y) == b.pixel(x, y)) continue;
      const QRgb p = reinterpret_cast<const QRgb*>(a.constScanLine(y))[x];
      const QRgb q = reinterpret_cast<const QRgb*>(b.constScanLine(y))[x];
      const int off = std::max({std::abs(qRed(p) - qRed(q)), std::abs(qGreen(p) - qGreen(q)),
                                std::abs(qBlue(p) - qBlue(q)), std::abs(qAlpha(p) - qAlpha(q))});
      if (off <= most) continue;
      std::ostringstream text;
      text << x << ", " << y << std::hex << ": " << a.pixel(x, y) << " and " << b.pixel(x, y);
      return text.str();
    }
  }
  return {};
}

QRect windowOver(const Scene& scene, double zoom) {
  return ViewScale{zoom}.toDevice(makeGrid(scene.yard().grid)->pixelBounds(scene.yard().bounds));
}

}  // namespace

// Swatches against one big picture: while someone paints, undoes, looks elsewhere, hides, shifts and fades layers,
// every whole frame is what a painter draws in one go, pixel for pixel; see-through layers may be off by one in 255,
// which is how QPainter rounds an opacity.
RC_GTEST_PROP(SwatchBook, WholeFramesEqualOneBigPicture, ()) {
  Scene scene(kWide, anySmallGrid());
  scene.arrangeAtRandom();
  scene.layAtRandom(60);
  const SwatchBook::Options* options[] = {&kPatient, &kWorkersOnly, &kAllByWorkers};
  Show show(scene, *options[*rc::gen::inRange(0, 3)]);
  Seeing seeing;
  std::vector<Quilt> kept;
  for (int i = 0; i < 6; ++i) {
    kept.push_back(scene.quilt);
    const LayerAt at = scene.at(*rc::gen::element("Ground", "Things"));
    switch (*rc::gen::inRange(0, 11)) {
      case 0: scene.quilt = *rc::gen::elementOf(kept); break;
      case 1:
        if (seeing.hidden.erase(at.layer) == 0) seeing.hidden.insert(at.layer);
        break;
      case 2:
        scene.quilt = withOffset(scene.quilt, at, {*rc::gen::inRange(-50, 50), *rc::gen::inRange(-50, 50)});
        break;
      case 3: scene.quilt = withOpacity(scene.quilt, at, *rc::gen::element(0, 30, 50, 77, 100)); break;
      case 8: scene.arrangeAtRandom(); break;
      case 9:
        // Cells beyond the bounds stay, and come back with them.
        scene.bound({*rc::gen::inRange(-45, -10), *rc::gen::inRange(-35, -10), *rc::gen::inRange(10, 55),
                     *rc::gen::inRange(10, 45)});
        break;
      case 4: seeing.clear = seeing.clear.empty() ? at.layer : Id(); break;
      default: scene.layAtRandom(20);
    }
    show.show(scene, seeing);
    const double zoom = *rc::gen::element(0.1, 0.37, 0.77, 1.0, 1.5, 2.5);
    const QRect all = windowOver(scene, zoom);
    const QRect window(all.x() + *rc::gen::inRange(-200, 700), all.y() + *rc::gen::inRange(-200, 500), 420, 320);
    bool solid = seeing.clear.empty();
    for (const Shared<Layer>& layer : scene.yard().layers) solid = solid && layer->opacity == 100;
    const QImage big = scene.draw(zoom, window, seeing);
    RC_ASSERT(difference(show.wholeFrame(zoom, window), big, solid ? 0 : 2) == std::string());
  }
}

TEST(SwatchBook, AMapThatGrowsOrIsCutKeepsWhatStaysRight) {
  Scene scene(kWide);
  for (int y = kWide.y0; y < kWide.y1; ++y) {
    for (int x = kWide.x0; x < kWide.x1; ++x) scene.lay("Ground", {x, y}, Cell({scene.small, 0}, {}));
  }
  Show show(scene, kPatient);
  const QRect window = windowOver(scene, 1);
  const QImage whole = show.wholeFrame(1, window);
  const std::uint64_t made = show.book.made();
  ASSERT_GT(made, 9u);
  scene.bound({kWide.x0, kWide.y0, kWide.x1 - 1, kWide.y1});
  EXPECT_EQ(show.show(scene), std::nullopt) << "its edge moved";
  EXPECT_EQ(difference(show.wholeFrame(1, window), scene.draw(1, window)), "");
  const std::uint64_t cut = show.book.made() - made;
  EXPECT_LT(cut, made / 2) << "only those along the edge";
  scene.bound(kWide);
  show.show(scene);
  EXPECT_EQ(difference(show.wholeFrame(1, window), whole), "");
  EXPECT_LE(show.book.made() - made, 2 * cut);
}

TEST(SwatchBook, AMissingSwatchShowsTheNearestZoomAndNeverBareCloth) {
  Scene scene(kWide);
  for (int y = kWide.y0; y < kWide.y1; ++y) {
    for (int x = kWide.x0; x < kWide.x1; ++x) scene.lay("Ground", {x, y}, Cell({scene.small, 0}, {}));
  }
  Show show(scene, kWorkersOnly);
  const auto expectNoBareCloth = [](const QImage& picture) {
    for (int y = 0; y < picture.height(); ++y) {
      for (int x = 0; x < picture.width(); ++x) ASSERT_EQ(qAlpha(picture.pixel(x, y)), 255) << x << ", " << y;
    }
  };
  // At first there is only the sketch, then another zoom.
  SwatchBook::Frame shown;
  expectNoBareCloth(show.frame(1, {-300, -200, 700, 500}, &shown));
  EXPECT_EQ(shown.substitutes, shown.swatches);
  (void)show.wholeFrame(1, {-300, -200, 700, 500});
  const QImage magnified = show.frame(2, {-200, -100, 700, 500}, &shown);
  EXPECT_EQ(shown.substitutes, shown.swatches);
  expectNoBareCloth(magnified);
  EXPECT_EQ(magnified, show.wholeFrame(2, {-200, -100, 700, 500})) << "twice the size is exact";
  expectNoBareCloth(show.frame(0.5, {-300, -200, 600, 400}));
}

// What the window showed last stands in for all runs together, each where it is shifted to and as faint as it is.
TEST(SwatchBook, TheLastFrameStandsInWhereMuchIsMissing) {
  Scene scene(kWide);
  LayerCells ground;
  ground.lay(kWide, Laid{Cell({scene.small, 0}, {}), 0});
  scene.quilt = scene.quilt.with(scene.at("Ground"), ground);
  for (int x = kWide.x0; x < kWide.x1; x += 3) scene.lay("Things", {x, x / 3}, Cell({scene.tall, 0}, {}));
  scene.quilt = withOpacity(withOffset(scene.quilt, scene.at("Things"), {21, -13}), scene.at("Things"), 60);
  IdSource ids(77);
  for (const PixelPos by : {PixelPos{-9, 4}, PixelPos{30, 17}}) {
    const LayerAdded more = duplicateLayer(scene.quilt, scene.at("Things"), ids);
    scene.quilt = withOffset(more.quilt, {scene.map, more.layer}, by);
  }
  Show show(scene, kWorkersOnly);
  (void)show.wholeFrame(1, {-350, -280, 900, 700});
  const QRect window(-520, -400, 1300, 1000);
  SwatchBook::Frame shown;
  const QImage together = show.frame(2, window, &shown);
  ASSERT_EQ(shown.substitutes, shown.swatches);
  ASSERT_GE(shown.substitutes, 8);
  EXPECT_EQ(difference(together, show.wholeFrame(2, window), 3), std::string());
  // Where the last frame does not reach, each run is stood in for on its own.
  const QImage farther = show.frame(1.5, {-900, -700, 1800, 1300}, &shown);
  ASSERT_GT(shown.substitutes, 0);
  int bare = 0;
  for (int y = 300; y < farther.height() - 300; ++y) {
    for (int x = 300; x < farther.width() - 300; ++x) bare += qAlpha(farther.pixel(x, y)) == 255 ? 0 : 1;
  }
  EXPECT_EQ(bare, 0);
  // Never what was there before an edit: a zoom twice as large shows the runs as they are now.
  (void)show.wholeFrame(2, window);
  scene.quilt = scene.quilt.with(scene.at("Things"), LayerCells());
  show.show(scene);
  const QRect twice(2 * window.x(), 2 * window.y(), 2 * window.width(), 2 * window.height());
  const QImage edited = show.frame(4, twice, &shown);
  ASSERT_EQ(shown.substitutes, shown.swatches);
  EXPECT_EQ(difference(edited, scene.draw(4, twice), 3), std::string());
}

TEST(SwatchBook, RepaintingOnlyWhereSomethingArrivedMakesTheWindowWhole) {
  Scene scene(kWide);
  for (int x = kWide.x0; x < kWide.x1; ++x) scene.lay("Ground", {x, x / 2}, Cell({scene.small, 0}, {}));
  scene.lay("Things", {3, 4}, Cell({scene.tall, 0}, {}));
  Show show(scene, kWorkersOnly);
  const QRect window(-600, -420, 1300, 900);
  EXPECT_EQ(difference(show.followed(1, window), scene.draw(1, window)), std::string());
  // What workers have begun when the map grows is of no use any more, and is asked for anew.
  (void)show.frame(2, window);
  Map grown = scene.yard();
  grown.bounds = grown.bounds.grown(5);
  scene.quilt = scene.quilt.with(std::move(grown));
  show.show(scene);
  EXPECT_EQ(difference(show.followed(2, window), scene.draw(2, window)), std::string());
}

TEST(SwatchBook, AnEditSaysWhereTheMapLooksDifferent) {
  Scene scene(kWide);
  scene.lay("Ground", {3, 3}, Cell({scene.small, 0}, {}));
  Show show(scene, kPatient);
  scene.lay("Ground", {3, 3}, Cell({scene.tall, 0}, {}));
  const auto changed = show.show(scene);
  ASSERT_TRUE(changed);
  ASSERT_EQ(changed->size(), 1u);
  EXPECT_EQ(changed->front(), (PixelRect{48, 24, 24, 40}));
  EXPECT_TRUE(show.show(scene)->empty()) << "nothing changed since";
  EXPECT_FALSE(show.show(scene, {{scene.yard().layers[0]->id}, {}})) << "a hidden layer may change everything";
}

TEST(SwatchBook, KeepsToItsBudgetButNeverDropsWhatIsInSight) {
  Scene scene({0, 0, 300, 300});
  for (int i = 0; i < 300; ++i) scene.lay("Ground", {i, i}, Cell({scene.small, 0}, {}));
  SwatchBook::Options tight = kPatient;
  tight.budget = std::size_t{8} << 20;
  Show show(scene, tight);
  for (int x = 0; x < 4000; x += 250) {
    (void)show.frame(1, {x, x, 700, 500});
    EXPECT_LE(show.book.bytes(), tight.budget + (std::size_t{1} << 20));
  }
  tight.budget = 1;
  Show tightest(scene, tight);
  const QImage once = tightest.frame(1, {0, 0, 1000, 1000});
  EXPECT_EQ(once, scene.draw(1, {0, 0, 1000, 1000}));
  EXPECT_GE(tightest.book.bytes(), std::size_t{2} << 20);
}

// Typing a rise draws the levels anew each time; what they looked like before is not kept.
TEST(SwatchBook, AnotherRiseTakesThePlaceOfTheOneBefore) {
  Scene scene(kWide, nearestShape(GridKind::diamond, {24, 12}));
  for (int i = -20; i < 20; ++i) {
    scene.lay("Ground", {i, -i / 2}, Cell({scene.tall, 0}, {}));
    scene.lay("Things", {i, 3 - i / 2}, Cell({scene.wide, 0}, {}));
  }
  scene.raiseThings(10);
  Show show(scene, kPatient);
  const QRect window(-300, -200, 700, 500);
  (void)show.frame(1, window);
  const std::size_t once = show.book.bytes();
  for (int rise = 11; rise < 30; ++rise) {
    scene.raiseThings(rise);
    show.show(scene);
    EXPECT_EQ(difference(show.frame(1, window), scene.draw(1, window)), std::string());
  }
  EXPECT_LE(show.book.bytes(), once + (std::size_t{1} << 21));
}

TEST(SwatchBook, LargeEditsAreRepairedOverSeveralFrames) {
  Scene scene(kWide);
  scene.lay("Ground", {0, 0}, Cell({scene.small, 0}, {}));
  Show show(scene, kWorkersOnly);
  const QRect window(-300, -200, 900, 700);
  (void)show.wholeFrame(1, window);
  for (int y = kWide.y0; y < kWide.y1; ++y) {
    for (int x = kWide.x0; x < kWide.x1; ++x) scene.lay("Things", {x, y}, Cell({scene.small, 1}, {}));
  }
  show.show(scene);
  SwatchBook::Frame shown;
  (void)show.frame(1, window, &shown);
  EXPECT_EQ(shown.substitutes, 0);
  EXPECT_GT(shown.late, 0);
}

// What workers still draw when a picture or the cells' size changes is of no use any more.
TEST(SwatchBook, APictureOrCellThatChangesUnderTheWorkersIsDrawnAnew) {
  Scene scene(kWide);
  LayerCells ground;
  ground.lay(kWide, Laid{Cell({scene.small, 0}, {}), 0});
  scene.quilt = scene.quilt.with(scene.at("Ground"), ground);
  Show show(scene, kWorkersOnly);
  const QRect window(-200, -100, 800, 600);
  SwatchBook::Frame first;
  (void)show.frame(1, window, &first);
  ASSERT_GT(first.substitutes, 0);
  show.arrivals.acquire();  // handed in, and not taken yet
  Sheet sheet = *scene.quilt.sheetAt(scene.small);
  sheet.care.shrink = 2;
  QImage red(32, 16, QImage::Format_ARGB32_Premultiplied);
  red.fill(Qt::red);
  scene.quilt = scene.quilt.with(sheet);
  scene.pictures.set(*scene.quilt.sheetAt(scene.small), red);
  show.show(scene);
  MapPainter painter(scene.pictures);
  const auto wanted = [&] { return painter.draw(scene.quilt, scene.yard(), runsOf(scene.yard()), {1}, window); };
  EXPECT_EQ(difference(show.wholeFrame(1, window), wanted()), "");
  // And the cells' size likewise.
  Show other(scene, kWorkersOnly);
  (void)other.frame(1, window);
  other.arrivals.acquire();
  Map map = scene.yard();
  map.grid.cell = {20, 24};
  scene.quilt = scene.quilt.with(map);
  other.show(scene);
  EXPECT_EQ(difference(other.wholeFrame(1, window), wanted()), "");
}

}  // namespace uq
