// The same first map on each of the five grids: made, painted, undone, selected, saved and rendered.
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QProcess>
#include <QPushButton>
#include <QToolButton>

#include "app/Story.h"
#include "app/look/NumberField.h"
#include "core/cells/CellShapes.h"
#include "core/edit/Selected.h"

namespace uq::test {

class OnAGrid : public Story {
 protected:
  void SetUp() override { openDemo(); }
  const Map& map() { return *session().map(); }
  Cell on(CellPos at) { return map().layers[0]->cells.at(at); }
  template <class Widget>
  Widget* in(const QString& name) {
    return room->findChild<Widget*>(name);
  }
  void makeMap(GridKind kind) {
    hand.key(Qt::Key_M, Qt::ControlModifier);
    hand.type(QStringLiteral("Ward"));
    hand.click(in<QToolButton>(QStringLiteral("grid-") + QString::fromStdString(std::string(gridName(kind)))));
    for (const char* field : {"map-width", "map-height"}) {
      hand.doubleClick(in<NumberField>(QLatin1String(field)));
      hand.type(QStringLiteral("12"));
    }
  }
};

class Gridding : public OnAGrid, public testing::WithParamInterface<GridKind> {};

// Whatever is done is done from even rows and from odd ones.
class FirstMap : public OnAGrid, public testing::WithParamInterface<std::tuple<GridKind, int>> {};

TEST_P(FirstMap, IsPaintedSelectedSavedAndRendered) {
  const auto [kind, dy] = GetParam();
  const std::string name = std::string(gridName(kind)) + (dy ? "-odd" : "");
  makeMap(kind);
  picture(("new-map-" + name).c_str());
  hand.click(in<QPushButton>(QStringLiteral("make-map")));
  ASSERT_EQ(map().grid.kind, kind);
  EXPECT_EQ(whyNoGrid(map().grid), "");
  MapCanvas* canvas = room->canvas();
  const auto grid = makeGrid(map().grid);

  const Cell grass({kChalkSlot, 10}, {});
  hand.click(room->table(), onTable("Chalk", 10));
  hand.moveTo(canvas, onMap({4, 4 + dy}));
  EXPECT_EQ(canvas->tagText(), QStringLiteral("Brush on Ground"));
  EXPECT_EQ(canvas->hoveredCell(), (CellPos{4, 4 + dy}));
  picture(("ghost-" + name).c_str());
  hand.drag(canvas, {onMap({2, 3 + dy}), onMap({8, 3 + dy}), onMap({8, 9 + dy})});
  for (const CellPos at : grid->line({2, 3 + dy}, {8, 3 + dy})) EXPECT_EQ(on(at), grass) << at.x << ", " << at.y;
  EXPECT_EQ(on({8, 9 + dy}), grass);
  const CellGrid painted = map().layers[0]->cells;
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(map().layers[0]->cells.empty());
  hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(map().layers[0]->cells, painted);

  // A right click takes from the very cell.
  hand.click(room->table(), onTable("Chalk", 6));
  hand.click(canvas, onMap({8, 9 + dy}), Qt::RightButton);
  EXPECT_EQ(session().desk().inHand.block, Block::of(grass));

  // Selecting a box, and moving it by an odd number of rows, keeps its shape.
  hand.key(Qt::Key_5);
  hand.drag(canvas, {onMap({2, 3 + dy}), onMap({5, 5 + dy})});
  EXPECT_EQ(session().desk().selection(), boxOf(*grid, {2, 3 + dy}, {5, 5 + dy}));
  picture(("selected-" + name).c_str());
  const CellSet before = session().desk().selection();
  hand.drag(canvas, {onMap({3, 4 + dy}), onMap({4, 7 + dy})});
  const SidePos by = grid->toSide({4, 7 + dy}) - grid->toSide({3, 4 + dy});
  EXPECT_EQ(session().desk().selection(), movedSelection(map(), before, by));
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().desk().selection(), before);
  EXPECT_EQ(map().layers[0]->cells, painted);

  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  report(("first map of " + name).c_str());
  close();
  openDemo();
  session().verbs().maps.goTo(session().quilt().mapNamed("Ward")->id);
  EXPECT_EQ(map().layers[0]->cells, painted);
  EXPECT_EQ(map().grid.kind, kind);

  const std::string file = folder() + "/ward.png";
  QProcess uquilt;
  uquilt.start(QStringLiteral(UQ_UQUILT),
               {QStringLiteral("render"), QStringLiteral("Ward"), QStringLiteral("--quilt"),
                QString::fromStdString(folder()), QStringLiteral("-o"), QString::fromStdString(file)});
  ASSERT_TRUE(uquilt.waitForFinished());
  ASSERT_EQ(uquilt.exitCode(), 0) << uquilt.readAllStandardError().toStdString();
  const QImage rendered(QString::fromStdString(file));
  const PixelRect all = grid->pixelBounds(map().bounds);
  EXPECT_EQ(rendered.size(), QSize(all.w, all.h));
  for (int y = 0; y < all.h; ++y) {
    for (int x = 0; x < all.w; ++x) {
      const CellPos at = grid->cellAt({all.x + x, all.y + y});
      const bool filled = map().bounds.contains(at) && !painted.at(at).empty();
      ASSERT_EQ(qAlpha(rendered.pixel(x, y)), filled ? 255 : 0) << x << ", " << y;
    }
  }
}

INSTANTIATE_TEST_SUITE_P(Every, FirstMap, testing::Combine(testing::ValuesIn(kGridKinds), testing::Values(0, 1)),
                         [](const auto& one) {
                           std::string name(gridName(std::get<0>(one.param)));
                           std::replace(name.begin(), name.end(), '-', '_');
                           return name + (std::get<1>(one.param) ? "_odd" : "_even");
                         });

INSTANTIATE_TEST_SUITE_P(Every, Gridding, testing::ValuesIn(kGridKinds), [](const auto& one) {
  std::string name(gridName(one.param));
  std::replace(name.begin(), name.end(), '-', '_');
  return name;
});

// A block from the Table lies as on its sheet, and is refused where its shape would shear; one tile goes anywhere.
TEST_P(Gridding, ABlockKeepsToItsFamilyOfGrids) {
  const GridKind kind = GetParam();
  makeMap(kind);
  hand.click(in<QPushButton>(QStringLiteral("make-map")));
  const auto grid = makeGrid(map().grid);
  hand.drag(room->table(), {onTable("Chalk", 2), onTable("Chalk", 11)});
  for (const CellPos at : {CellPos{4, 4}, CellPos{4, 7}}) {  // an even row, and an odd one
    hand.click(room->canvas(), onMap(at));
    const SidePos grip = grid->toSide(at);
    for (const CellPos part : {CellPos{0, 0}, CellPos{1, 0}, CellPos{0, 1}, CellPos{1, 1}}) {
      EXPECT_FALSE(on(grid->fromSide(grip + grid->toSide(part))).empty()) << part.x << ", " << part.y;
    }
  }
  session().verbs().maps.goTo(yard().id);
  hand.moveTo(room->canvas(), onMap({20, 20}));
  const std::string refusal = "What is in hand was put together from " + std::string(cellsCalled(kind)) +
                              ", and these are squares: take it anew";
  const bool squares = kind == GridKind::orthogonal;
  EXPECT_EQ(room->canvas()->tagText().toStdString(), squares ? "Brush on Paving" : refusal);
  hand.click(room->table(), onTable("Chalk", 3));
  session().verbs().maps.goTo(session().quilt().mapNamed("Ward")->id);
  hand.moveTo(room->canvas(), onMap({5, 5}));
  EXPECT_EQ(room->canvas()->tagText(), QStringLiteral("Brush on Ground"));
}

TEST_P(Gridding, APasteThatIsDroppedGivesBackABlockThatFits) {
  makeMap(GetParam());
  hand.click(in<QPushButton>(QStringLiteral("make-map")));
  session().verbs().maps.goTo(yard().id);
  session().verbs().selection.selectAll();
  session().copySelected();
  session().verbs().maps.goTo(session().quilt().mapNamed("Ward")->id);
  hand.drag(room->table(), {onTable("Chalk", 2), onTable("Chalk", 11)});
  const InHand held = session().desk().inHand;
  hand.key(Qt::Key_V, Qt::ControlModifier);
  EXPECT_NE(session().desk().inHand, held);
  session().verbs().hand.dropWork();
  EXPECT_EQ(session().desk().inHand, held);
  EXPECT_EQ(session().desk().inHand.grid, GetParam());
  EXPECT_EQ(whyNoStroke(session().work(), false), std::string());
}

class Offering : public Gridding {};

TEST_P(Offering, ACellThatCannotBeIsRefusedAndTheNearestOffered) {
  makeMap(GetParam());
  auto* width = in<NumberField>(QStringLiteral("cell-width"));
  auto* height = in<NumberField>(QStringLiteral("cell-height"));
  for (NumberField* field : {width, height}) {
    hand.doubleClick(field);
    hand.type(QStringLiteral("63"));
  }
  auto* refusal = in<QLabel>(QStringLiteral("map-refusal"));
  EXPECT_TRUE(refusal->isVisible());
  EXPECT_FALSE(in<QPushButton>(QStringLiteral("make-map"))->isEnabled());
  hand.click(in<QPushButton>(QStringLiteral("cell-offer")));
  EXPECT_FALSE(refusal->isVisible());
  hand.click(in<QPushButton>(QStringLiteral("make-map")));
  EXPECT_EQ(map().grid, nearestShape(GetParam(), {63, 63}));
}

// Tiles that stand up from their cells: the card offers the cell they stand on, and says why.
TEST_P(Offering, TheCellForTallTilesIsOffered) {
  hand.click(room->table(), onTable("wharf", 2));
  hand.key(Qt::Key_M, Qt::ControlModifier);
  hand.click(in<QToolButton>(QStringLiteral("grid-staggered")));
  auto* offer = in<QPushButton>(QStringLiteral("cell-offer"));
  ASSERT_TRUE(offer->isVisible());
  EXPECT_EQ(offer->text(), QStringLiteral("Take 64 × 32"));
  EXPECT_EQ(offer->accessibleDescription(),
            QStringLiteral("half as high as wide, for tiles that stand up from their cells"));
  picture("cell-offer");
  hand.click(offer);
  hand.click(in<QPushButton>(QStringLiteral("make-map")));
  EXPECT_EQ(map().grid, nearestShape(GridKind::staggered, {64, 32}));
}

INSTANTIATE_TEST_SUITE_P(Every, Offering,
                         testing::Values(GridKind::diamond, GridKind::staggered, GridKind::hexagonalPointy));

}  // namespace uq::test
