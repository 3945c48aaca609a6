// What a canvas is made of, without a widget: the view, planes on it, and what a press would do.
#include <rapidcheck/gtest.h>

#include <cmath>

#include "app/Story.h"
#include "app/canvas/Forecast.h"
#include "app/canvas/HeldTool.h"
#include "core/AnyGrid.h"
#include "core/edit/LayCells.h"

namespace uq::test {

namespace {

MapView anyView() {
  MapView view;
  view.zoom = *rc::gen::element(1.0, 1.5, 2.0, 3.0, 8.0);
  view.ratio = *rc::gen::element(1.0, 2.0);
  view.size = QSize(*rc::gen::inRange(200, 2000), *rc::gen::inRange(200, 1200));
  view.origin = QPoint(*rc::gen::inRange(-3000, 3000), *rc::gen::inRange(-3000, 3000));
  return view;
}

// The quilt of a story, without the window.
class Foretelling : public Story {
 protected:
  void SetUp() override {
    Progress progress;
    auto loaded = Session::load(folder(), progress, disk);
    ASSERT_TRUE(loaded);
    session_ = std::make_unique<Session>(std::move(*loaded));
    scene_ = std::make_unique<Scene>(*session_);
    forecast_ = std::make_unique<Forecast>(*scene_);
    scene_->follow();
    Desk desk = session_->desk();
    desk.inHand = InHand{Block::of(Cell({*slotOf("street"), 24}, {}))};
    desk.activeLayer[desk.map] = scene_->map()->layerNamed("Paving")->id;
    desk.obeysLayer = true;
    session_->setDesk(desk);
    scene_->follow();
    pointing_.cell = CellPos{scene_->map()->bounds.x0 + 20, scene_->map()->bounds.y0 + 20};
  }
  std::optional<SheetSlot> slotOf(const char* sheet) const {
    for (const auto& one : session_->quilt().sheets()) {
      if (one->name == sheet) return session_->quilt().slots().find(one->id);
    }
    return std::nullopt;
  }

  std::unique_ptr<Session> session_;
  std::unique_ptr<Scene> scene_;
  std::unique_ptr<Forecast> forecast_;
  Pointing pointing_;
};

}  // namespace

RC_GTEST_PROP(Plane, ACellIsFoundWhereItLiesAtAnyOffset, ()) {
  const MapView view = anyView();
  const GridShape shape = anyGrid();
  const PixelPos by{*rc::gen::inRange(-500, 500), *rc::gen::inRange(-500, 500)};
  const Plane plane(view, shape, by);
  const CellPos cell{*rc::gen::inRange(-50, 50), *rc::gen::inRange(-50, 50)};
  RC_PRE(shape.cell.w >= 8 && shape.cell.h >= 8);
  RC_ASSERT(plane.cellAt(plane.cellRect(cell).center()) == cell);
}

TEST(Plane, TwoMapsLieBesideOneAnotherOnOneView) {
  MapView view;
  view.zoom = 2;
  view.size = QSize(800, 600);
  const GridShape grid{GridKind::orthogonal, {16, 16}};
  const Plane west(view, grid);
  const Plane east(view, grid, {10 * 16, 0});
  EXPECT_EQ(west.cellRect({9, 3}).topRight(), east.cellRect({0, 3}).topLeft());
  EXPECT_EQ(east.cellAt(QPointF(10 * 32 + 1, 1)), (CellPos{0, 0}));
  EXPECT_EQ(west.cellAt(QPointF(10 * 32 + 1, 1)), (CellPos{10, 0}));
}

RC_GTEST_PROP(MapView, ZoomingKeepsWhatIsUnderThePointer, ()) {
  MapView view = anyView();
  const QPointF at(*rc::gen::inRange(0, view.size.width()), *rc::gen::inRange(0, view.size.height()));
  const auto pixel = [&] { return (QPointF(view.origin) + at * view.ratio) / view.scale().zoom; };
  const QPointF before = pixel();
  view.zoomTo(view.zoom * *rc::gen::element(0.5, 2.0, 4.0), at);
  const QPointF off = pixel() - before;
  RC_ASSERT(std::abs(off.x()) <= 1 / view.scale().zoom && std::abs(off.y()) <= 1 / view.scale().zoom);
}

RC_GTEST_PROP(MapView, SomeOfTheMapStaysInSight, ()) {
  MapView view = anyView();
  const PixelRect all{*rc::gen::inRange(-500, 500), *rc::gen::inRange(-500, 500), *rc::gen::inRange(200, 4000),
                      *rc::gen::inRange(200, 4000)};
  view.keepInSight(all);
  RC_ASSERT(view.window().intersects(view.scale().toDevice(all)));
  const MapView kept = view;
  view.keepInSight(all);
  RC_ASSERT(view.origin == kept.origin);
}

TEST(MapView, StopsGoUpAndDownTheSameWay) {
  EXPECT_EQ(zoomStop(zoomStop(1, 3), -3), 1);
  EXPECT_EQ(zoomStop(kLargestZoom, 1), kLargestZoom);
  EXPECT_EQ(zoomStop(kSmallestZoom, -1), kSmallestZoom);
  EXPECT_EQ(zoomStop(1.1, 1), 1.25);
}

TEST_F(Foretelling, SaysWhatAPressWouldDoAndShowsIt) {
  EXPECT_EQ(forecast_->words(pointing_).left(15), QStringLiteral("Brush on Paving"));
  EXPECT_EQ(forecast_->whyNothing(pointing_), QString());
  ASSERT_EQ(forecast_->ghost(pointing_).cells.size(), 1u);
  EXPECT_EQ(forecast_->ghost(pointing_).cells[0].at, *pointing_.cell);
  pointing_.takesAway = true;
  EXPECT_TRUE(forecast_->ghost(pointing_).cells.empty()) << "nothing is laid";
}

TEST_F(Foretelling, SaysWhyNothingWouldHappen) {
  Desk desk = session_->desk();
  desk.locked.insert(desk.activeAt().layer);
  session_->setDesk(desk);
  forecast_->forget();
  EXPECT_TRUE(forecast_->whyNothing(pointing_).contains(QStringLiteral("locked")))
      << forecast_->whyNothing(pointing_).toStdString();
  EXPECT_EQ(forecast_->words(pointing_), forecast_->whyNothing(pointing_));
  EXPECT_EQ(forecast_->stroke(pointing_), nullptr);
}

TEST(HeldTool, GoesBackOnlyWhenTheMouseWasUsedMeanwhile) {
  HeldTool held;
  held.press(Qt::Key_E, Tool::brush, 1);
  EXPECT_TRUE(held.letGo(Qt::Key_E, 2));
  EXPECT_EQ(held.springsBackTo(), std::nullopt) << "pressed and let go, it stays";
  held.press(Qt::Key_E, Tool::brush, 3);
  held.use();
  EXPECT_EQ(held.springsBackTo(), std::nullopt) << "still down";
  EXPECT_FALSE(held.letGo(Qt::Key_B, 4));
  EXPECT_TRUE(held.letGo(Qt::Key_E, 5));
  EXPECT_EQ(held.springsBackTo(), Tool::brush);
  EXPECT_EQ(held.springsBackTo(), std::nullopt) << "told once";
}

}  // namespace uq::test
