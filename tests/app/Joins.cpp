// Materials by hand: a sheet's tiles joined, a material painted and taken away, kept with the quilt.
#include <QLineEdit>
#include <QMenu>
#include <QTemporaryDir>
#include <QToolButton>

#include "app/Story.h"
#include "app/table/TablePanel.h"
#include "core/MadeEdgings.h"
#include "core/edit/EdgingCoverage.h"
#include "core/edit/Edgings.h"
#include "core/edit/Joiner.h"

namespace uq::test {

class Joins : public Story {
 protected:
  void SetUp() override { openDemo(); }
  Id sheetNamed(const char* name) {
    for (const Shared<Sheet>& one : session().quilt().sheets()) {
      if (one->name == name) return one->id;
    }
    return {};
  }
};

TEST_F(Joins, ASheetIsJoinedAndAMaterialPainted) {
  session().quiltStep(QStringLiteral("Join it no more"), session().quilt().without<Edging>(edgingNamed(session().quilt(), "Street ground")->id));
  Q_EMIT room->table()->sheetChosen(sheetNamed("street"));
  auto* join = part<QToolButton>("join-sheet");
  ASSERT_TRUE(join && join->isVisible());
  const int actions = hand.actions();
  hand.click(join);
  ASSERT_TRUE(room->bench()->isVisible());
  const Edging edging = *session().quilt().edging(room->bench()->edging());
  EXPECT_EQ(edging.name, "street");
  EXPECT_GT(edging.members.size(), 16u);
  EXPECT_EQ(room->bench()->edging(), edging.id);
  picture("bench-of-a-sheet");
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(room->bench()->isVisible());
  // Joined once, they are seen again and not joined a second time.
  const std::size_t edgings = session().quilt().edgings().size();
  Q_EMIT room->table()->sheetChosen(sheetNamed("street"));
  hand.click(join);
  EXPECT_EQ(room->bench()->edging(), edging.id);
  EXPECT_EQ(session().quilt().edgings().size(), edgings);
  hand.key(Qt::Key_Escape);
  auto* swatch = part<QToolButton>("material-street-0");
  ASSERT_TRUE(swatch && swatch->isVisible());
  picture("materials");
  hand.click(swatch);
  EXPECT_TRUE(session().desk().inHand.joins());
  EXPECT_TRUE(swatch->isChecked());
  // What lies there then is told by the tiles; cells that do not touch it are as they were.
  const Quilt before = session().quilt();
  hand.drag(room->canvas(), {onMap({6, 20}), onMap({12, 20})});
  EXPECT_LE(hand.actions() - actions, 7) << "two of them to join again";
  report("from a sheet to a material that is painted");
  EXPECT_NE(session().quilt(), before);
  const LayerAt at = session().desk().activeAt();
  const auto grid = makeGrid(yard().grid);
  const Joiner joiner(session().quilt(), edging, *grid);
  for (int x = 6; x <= 12; ++x) EXPECT_EQ(joiner.materialOf(session().quilt().layer(at)->cells.at({x, 20})), 0) << x;
  const CellGrid& was = before.layer(at)->cells;
  session().quilt().layer(at)->cells.forEachPainted(yard().bounds, [&](CellPos cell, Cell now) {
    const bool touches = cell.y >= 19 && cell.y <= 21 && cell.x >= 5 && cell.x <= 13;
    EXPECT_TRUE(touches || now == was.at(cell)) << cell.x << ", " << cell.y;
  });
  picture("material-painted");
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(session().quilt(), before);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  close();
  openDemo();
  ASSERT_TRUE(session().quilt().edging(edging.id));
  EXPECT_EQ(*session().quilt().edging(edging.id), edging);
}

// A made sheet in the quilt, all its tiles: what it shows is known.
class AtTheBench : public Joins {
 protected:
  // The first seed from there on of which that is true.
  void bringMade(std::uint64_t seed, const std::function<bool(const MadeEdging&)>& wanted) {
    while (!wanted(madeEdging(seed, false))) ++seed;
    made = madeEdging(seed);
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("shore.png"));
    const PixelView view = made.view();
    ASSERT_TRUE(QImage(reinterpret_cast<const uchar*>(view.pixels), view.w, view.h, static_cast<int>(view.stride * 4), QImage::Format_ARGB32_Premultiplied).save(path));
    room->bringIn({path});
    awaitWork();
    shore = sheetNamed("shore");
    ASSERT_FALSE(shore.empty());
    if (session().quilt().sheet(shore)->cut.cell != made.shape.cell) {
      EXPECT_TRUE(session().sheets().cut(shore, {made.shape.cell, 0, 0, {0, 0}}));
    }
    hand.key(Qt::Key_Escape);
    Q_EMIT room->table()->sheetChosen(shore);
    // At the foot of a long card, by keys.
    part<QToolButton>("join-sheet")->setFocus();
    hand.key(Qt::Key_Space);
    ASSERT_TRUE(room->bench()->isVisible());
    patch = room->bench()->patch();
  }
  Edging edging() {
    const Edging* now = session().quilt().edging(room->bench()->edging());
    return now ? *now : Edging();
  }
  QPoint spot(CellPos cell) { return patch->cellRect(cell).center().toPoint(); }

  MadeEdging made;
  Id shore;
  PatchView* patch = nullptr;
};

TEST_F(AtTheBench, AWrongSpotIsPutRightWhereItIsWrong) {
  ASSERT_NO_FATAL_FAILURE(bringMade(0, [](const MadeEdging& one) {
    return one.set == MadeSet::full && one.truth.decides == Decides::corners && one.shape.kind == GridKind::orthogonal && one.truth.materials.size() == 2 && !one.outlined && one.arranged;
  }));
  const Edging right = edging();
  const auto wanted = patch->patch()->spotAt({1, 1});
  ASSERT_TRUE(wanted && wanted->member && wanted->cost == 0);
  const TileId tile = wanted->member->tile;
  // Somebody took one tile for another.
  Edging wrong = right;
  const EdgingMember& swapped = *std::find_if(right.members.begin(), right.members.end(), [&](const EdgingMember& one) { return one.corners != wanted->member->corners && std::count(one.corners.begin(), one.corners.end(), one.middle) == 4; });
  for (EdgingMember& one : wrong.members) {
    if (one.tile == wanted->member->tile) one.corners = swapped.corners, one.middle = swapped.middle;
  }
  session().quiltStep(QStringLiteral("Take it for another"), session().quilt().with(wrong));
  const auto shown = patch->patch()->spotAt({1, 1});
  ASSERT_TRUE(shown && (!shown->member || shown->member->tile != tile));
  picture("bench-wrong");
  const int actions = hand.actions();
  hand.click(patch, spot({1, 1}));
  auto* fan = part<CandidateFan>("candidates");
  ASSERT_TRUE(fan && fan->isVisible());
  picture("bench-fan");
  // The tile is among the first, and is taken by its picture.
  const auto all = patch->patch()->candidates({1, 1}, CandidateFan::kMost);
  const auto found = std::find_if(all.begin(), all.end(), [&](const EdgingMember* one) { return one->tile == tile; }) - all.begin();
  ASSERT_LT(found, static_cast<std::ptrdiff_t>(all.size()));
  if (found >= static_cast<std::ptrdiff_t>(CandidateFan::kFew)) {
    hand.click(part<QToolButton>("candidates-more"));
    settle();
  }
  hand.click(part<QToolButton>(QStringLiteral("candidate-%1").arg(found).toUtf8().constData()));
  EXPECT_LE(hand.actions() - actions, 3);
  report("a wrong spot put right");
  EXPECT_FALSE(fan->isVisible());
  const auto now = patch->patch()->spotAt({1, 1});
  ASSERT_TRUE(now && now->member);
  EXPECT_EQ(now->member->tile, tile);
  EXPECT_EQ(now->cost, 0);
  const Edging told = edging();
  EXPECT_TRUE(std::any_of(told.members.begin(), told.members.end(), [](const EdgingMember& one) { return one.told; }));
  for (std::size_t i = 0; i < right.members.size(); ++i) EXPECT_EQ(told.members[i].corners, right.members[i].corners) << i;
  // Undo takes it back, one by one, and the bench follows.
  hand.key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(edging(), wrong);
}

TEST_F(AtTheBench, MaterialsAreNamedTakenForOneAndForTwo) {
  ASSERT_NO_FATAL_FAILURE(bringMade(0, [](const MadeEdging& one) {
    return one.set == MadeSet::full && one.truth.decides == Decides::corners && one.shape.kind == GridKind::orthogonal && one.truth.materials.size() == 3 && !one.outlined;
  }));
  const Edging first = edging();
  ASSERT_GE(first.materials.size(), 3u);
  auto* name = part<QLineEdit>("bench-material-name-0");
  hand.click(name);
  name->selectAll();
  hand.type(QStringLiteral("canal"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(edging().materials[0].name, "canal");
  EXPECT_EQ(part<QLineEdit>("bench-material-name-0"), name) << "the field stays where it is";
  // A name that is another's is refused in words, and the old one comes back.
  auto* second = part<QLineEdit>("bench-material-name-1");
  hand.click(second);
  second->selectAll();
  hand.type(QStringLiteral("canal"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(edging().materials[1].name, first.materials[1].name);
  EXPECT_EQ(second->text().toStdString(), first.materials[1].name);
  const auto chooseOf = [&](int material, const QString& text) {
    auto* more = part<QToolButton>(QStringLiteral("bench-material-more-%1").arg(material).toUtf8().constData());
    Q_EMIT more->menu()->aboutToShow();
    for (QAction* action : more->menu()->actions()) {
      if (action->text() == text) return action->trigger();
    }
    ADD_FAILURE() << text.toStdString();
  };
  chooseOf(1, QStringLiteral("Is the same as canal"));
  ASSERT_EQ(edging().materials.size(), first.materials.size() - 1);
  EXPECT_EQ(edging().materials[0].name, "canal");
  EXPECT_EQ(edging().materials[0].also.size(), 1u);
  chooseOf(0, QStringLiteral("Is two things"));
  ASSERT_EQ(edging().materials.size(), first.materials.size());
  // Told apart again, the patch is right again.
  int wrong = 0;
  const CellRect bounds = patch->patch()->map().bounds;
  for (int y = bounds.y0; y < bounds.y1; ++y) {
    for (int x = bounds.x0; x < bounds.x1; ++x) {
      const auto at = patch->patch()->spotAt({x, y});
      wrong += at && at->cost > 0 ? 1 : 0;
    }
  }
  EXPECT_EQ(wrong, 0);
}

TEST_F(AtTheBench, APatchIsPaintedOnByHandAndByKeys) {
  ASSERT_NO_FATAL_FAILURE(bringMade(0, [](const MadeEdging& one) {
    return one.set == MadeSet::full && one.truth.decides == Decides::both && one.shape.kind == GridKind::orthogonal && !one.outlined;
  }));
  auto* swatch = part<QToolButton>("bench-material-0");
  hand.click(swatch);
  EXPECT_TRUE(session().desk().inHand.joins());
  const Quilt before = session().quilt();
  const LayerCells was = patch->patch()->cells();
  hand.drag(patch, {spot({8, 5}), spot({12, 5})});
  EXPECT_NE(patch->patch()->cells(), was);
  EXPECT_EQ(session().quilt(), before) << "the patch is no part of the quilt";
  auto* clean = part<QToolButton>("bench-clean");
  ASSERT_TRUE(clean->isEnabled());
  hand.click(clean);
  EXPECT_EQ(patch->patch()->cells(), was);
  EXPECT_FALSE(clean->isEnabled());
  // Pressed again the swatch lets go, and a press points.
  hand.click(swatch);
  hand.click(patch, spot({2, 2}));
  auto* fan = part<CandidateFan>("candidates");
  EXPECT_TRUE(fan->isVisible());
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(fan->isVisible());
  EXPECT_TRUE(room->bench()->isVisible()) << "Esc drops one thing";
  // By keys alone: a frame goes over the patch.
  patch->setFocus();
  hand.key(Qt::Key_Right);
  hand.key(Qt::Key_Up);
  hand.key(Qt::Key_Return);
  EXPECT_TRUE(fan->isVisible());
  hand.key(Qt::Key_Right);
  hand.key(Qt::Key_Escape);
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(room->bench()->isVisible());
}

TEST_F(AtTheBench, WhatIsMissingIsTurnedOrCutTogether) {
  ASSERT_NO_FATAL_FAILURE(bringMade(0, [](const MadeEdging& one) { return one.set == MadeSet::small && one.truth.decides == Decides::both && one.shape.kind == GridKind::orthogonal && !one.outlined; }));
  const auto missing = [&] { return static_cast<int>(coverageOf(session().quilt(), edging(), *makeGrid(made.shape)).missing.size()); };
  const int atFirst = missing();
  ASSERT_GT(atFirst, 10);
  picture("bench-missing");
  auto* standIns = part<QToolButton>("bench-stand-ins");
  hand.click(standIns);
  picture("bench-stand-ins");
  hand.click(standIns);
  auto* parts = part<QToolButton>("bench-parts");
  ASSERT_TRUE(parts->isEnabled());
  const std::size_t sheets = session().quilt().sheets().size();
  hand.click(parts);
  EXPECT_LT(missing(), atFirst / 2);
  ASSERT_EQ(session().quilt().sheets().size(), sheets + 1);
  const Id madeSheet = sheetNamed("shore, made");
  ASSERT_FALSE(madeSheet.empty());
  picture("bench-made");
  // Saved and opened again it is all there.
  hand.key(Qt::Key_Escape);
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  const Edging kept = *edgingNamed(session().quilt(), "shore");
  close();
  openDemo();
  ASSERT_TRUE(session().quilt().edging(kept.id));
  EXPECT_EQ(*session().quilt().edging(kept.id), kept);
  EXPECT_TRUE(session().painter().pictures().tile(session().quilt(), {*session().quilt().slots().find(madeSheet), 0}));
  // Joined no more, the tiles stay.
  hand.click(part<QToolButton>("edging-shore"));
  hand.click(part<QToolButton>("bench-remove"));
  EXPECT_FALSE(session().quilt().edging(kept.id));
  EXPECT_FALSE(room->bench()->isVisible());
}

}  // namespace uq::test
