// The Stack kept in order: folders, the Walker's place, other kinds of layers, and what lies where it need not.
#include <QApplication>
#include <QContextMenuEvent>
#include <QLineEdit>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QScrollArea>
#include <QToolButton>

#include "app/PaintingStory.h"
#include "app/stack/FolderCard.h"
#include "app/look/NumberField.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/StackRows.h"

namespace uq::test {

using testing::ElementsAre;

class Folding : public PaintingHand {
 protected:
  std::vector<std::string> stack() { return stackOf(yard()); }
  Id layer(const char* name) { return yard().layerNamed(name)->id; }
  LayerCard* card(const char* name) { return room->stack()->card(layer(name)); }
  // The head of a folder, scrolled to where it is seen.
  FolderCard* head(std::size_t index = 0) {
    FolderCard* one = room->stack()->folderCard(yard().folders[index].id);
    room->stack()->findChild<QScrollArea*>()->ensureWidgetVisible(one);
    settle();
    return one;
  }
  WalkerCard* walker() { return room->stack()->walkerCard(); }
  void trigger(ActionId id) {
    Story::choose(id);
    settle();
  }
  // Drags a card by its middle to a place on another one, from its upper left.
  void drag(QWidget* card, QWidget* to, QPointF at) {
    const QPointF grip(100, card->height() / 2.0);
    const QPointF end = card->mapFrom(room.get(), to->mapTo(room.get(), at.toPoint()));
    hand.drag(card, {grip, grip + QPointF(0, end.y() > grip.y() ? 20 : -20), end});
  }
};

TEST_F(Folding, LayersArePutInAFolderNamedDraggedInAndOut) {
  const Quilt before = session().quilt();
  hand.click(card("Rails"));
  hand.click(card("Paving"), QPointF(100, 20), Qt::LeftButton, Qt::ControlModifier);
  hand.key(Qt::Key_G, Qt::ControlModifier);
  hand.type(QStringLiteral("Street"));
  hand.key(Qt::Key_Return);
  EXPECT_THAT(stack(), ElementsAre("Street/Paving", "Street/Rails", "Sheds & trams", "Awnings"));
  EXPECT_EQ(session().undoLine().steps().size(), 2u) << "put there, and named";
  // Onto the lower half of the folder's head: in. Its line is set in, and the head offers itself.
  drag(card("Sheds & trams"), head(), {100, 24});
  EXPECT_THAT(stack(), ElementsAre("Street/Paving", "Street/Rails", "Street/Sheds & trams", "Awnings"));
  picture("folder");
  // Onto the upper half: out again, in front of it.
  drag(card("Sheds & trams"), head(), {100, 4});
  EXPECT_THAT(stack(), ElementsAre("Street/Paving", "Street/Rails", "Sheds & trams", "Awnings"));
  // Between two cards outside nothing falls into the folder by accident.
  drag(card("Awnings"), card("Sheds & trams"), {100, 40});
  EXPECT_THAT(stack(), ElementsAre("Street/Paving", "Street/Rails", "Awnings", "Sheds & trams"));
  drag(head(), card("Sheds & trams"), {100, 6});
  EXPECT_THAT(stack(), ElementsAre("Awnings", "Sheds & trams", "Street/Paving", "Street/Rails"));
  picture("folder-moved");
  // Folded up it takes one line; its eye is that of all in it.
  hand.click(head()->findChild<QToolButton*>(QStringLiteral("fold-up")));
  EXPECT_EQ(card("Rails"), nullptr);
  hand.click(head()->findChild<QToolButton*>(QStringLiteral("eye")));
  EXPECT_EQ(session().desk().hidden, (std::set<Id>{layer("Paving"), layer("Rails")}));
  picture("folder-folded");
  hand.click(head()->findChild<QToolButton*>(QStringLiteral("eye")));
  EXPECT_TRUE(session().desk().hidden.empty());
  hand.key(Qt::Key_S, Qt::ControlModifier);
  awaitWork();
  const Quilt saved = session().quilt();
  close();
  openDemo();
  EXPECT_THAT(stack(), ElementsAre("Awnings", "Sheds & trams", "Street/Paving", "Street/Rails"));
  EXPECT_EQ(card("Rails"), nullptr) << "the desk remembers what is folded up";
  hand.click(head());
  hand.key(Qt::Key_G, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_THAT(stack(), ElementsAre("Awnings", "Sheds & trams", "Paving", "Rails"));
  report("layers put in a folder, moved in and out and with it");
}

TEST_F(Folding, TheWalkerIsDraggedToWhereItStandsAndTellsWhatIsInFront) {
  EXPECT_TRUE(walker()->accessibleName().contains(QStringLiteral("in front of Sheds & trams and behind Awnings")))
      << walker()->accessibleName().toStdString();
  drag(walker(), card("Paving"), {100, 6});
  EXPECT_EQ(yard().walkerPlace(), 1u);
  EXPECT_TRUE(walker()->accessibleName().contains(QStringLiteral("in front of Paving and behind Rails")));
  const QImage plain = room->canvas()->grab().toImage();
  hand.click(walker());
  EXPECT_NE(room->canvas()->grab().toImage(), plain) << "what is in front is coloured";
  picture("walker-colours");
  hand.click(walker());
  EXPECT_EQ(room->canvas()->grab().toImage(), plain);
  walker()->setFocus();
  hand.key(Qt::Key_Up);
  EXPECT_EQ(yard().walkerPlace(), 2u);
  room->canvas()->setFocus();
  undo();
  undo();
  EXPECT_EQ(yard().walkerPlace(), 3u);
  EXPECT_TRUE(session().isSaved());
  // The Lens lists the cell's layers with the Walker between them.
  hand.click(room->canvas(), onMap({20, 20}), Qt::MiddleButton);
  EXPECT_NE(room->findChild<QLabel*>(QStringLiteral("lens-walker")), nullptr);
}

TEST_F(Folding, CoveredCellsAreHatchedAndStripped) {
  session().verbs().hand.take(Block::of(yard().layerNamed("Paving")->cells.at({20, 20})));
  hand.click(card("Sheds & trams"));
  hand.drag(room->canvas(), {onMap({18, 20}), onMap({22, 20})});
  hand.click(card("Paving"));
  const CellGrid before = yard().layerNamed("Paving")->cells;
  trigger(ActionId::coveredCells);
  const CellSet covered = room->canvas()->coveredInSight();
  EXPECT_TRUE(covered.contains({20, 20}));
  EXPECT_FALSE(covered.contains({24, 20}));
  picture("covered-cells");
  trigger(ActionId::stripCovered);
  EXPECT_TRUE(yard().layerNamed("Paving")->cells.at({20, 20}).empty());
  EXPECT_FALSE(yard().layerNamed("Paving")->cells.at({24, 20}).empty());
  EXPECT_TRUE(room->canvas()->coveredInSight().empty());
  trigger(ActionId::stripCovered);
  EXPECT_TRUE(room->canvas()->tagText().contains(QStringLiteral("Nothing on Paving is hidden whole")) ||
              session().undoLine().steps().back().name.starts_with("Strip"))
      << "it says so";
  undo();
  EXPECT_EQ(yard().layerNamed("Paving")->cells, before);
  trigger(ActionId::coveredCells);
  EXPECT_TRUE(room->canvas()->coveredInSight().empty());
}

TEST_F(Folding, HolesAreHatchedAndHeightsColoured) {
  hand.click(card("Paving"));
  session().verbs().selection.removeCell(layer("Paving"), {20, 20});
  trigger(ActionId::holes);
  EXPECT_TRUE(room->canvas()->holesInSight().contains({20, 20}));
  EXPECT_FALSE(room->canvas()->holesInSight().contains({21, 20}));
  hand.click(card("Rails"));
  hand.key(Qt::Key_Z, Qt::ShiftModifier);
  picture("colour-by-height");
  EXPECT_EQ(session().desk().tinting, Tinting::byHeight);
  EXPECT_EQ(tintsFor(yard(), Tinting::byHeight, layer("Rails")).at(layer("Rails")), kNoTint);
}

TEST_F(Folding, ANeedleOffersOtherKindsOfLayers) {
  auto* needle = room->stack()->findChild<Needle*>(QStringLiteral("needle-1"));
  QContextMenuEvent asked(QContextMenuEvent::Keyboard, {5, 5}, needle->mapToGlobal(QPoint(5, 5)));
  QApplication::sendEvent(needle, &asked);
  auto* menu = room->stack()->findChild<QMenu*>(QStringLiteral("kinds-menu"));
  ASSERT_TRUE(menu);
  picture("kinds-menu", menu);
  hand.click(menu, QRectF(menu->actionGeometry(menu->actions().last())).center());
  QMenu* sheets = menu->actions().last()->menu();
  ASSERT_TRUE(waitFor([&] { return sheets->isVisible(); }));
  hand.click(sheets, QRectF(sheets->actionGeometry(sheets->actions().first())).center());
  EXPECT_EQ(yard().layers.size(), 5u);
  EXPECT_EQ(yard().layers[1]->kind, LayerKind::backdrop);
}

TEST_F(Folding, ANumberIsDraggedAndThatIsOneStep) {
  hand.click(card("Rails"));
  auto* opacity = room->stack()->findChild<NumberField*>(QStringLiteral("layer-opacity"));
  const QPointF grip = QRectF(opacity->rect()).center();
  const std::size_t steps = session().undoLine().steps().size();
  hand.drag(opacity, {grip, grip - QPointF(20, 0), grip - QPointF(60, 0)});
  EXPECT_EQ(yard().layerNamed("Rails")->opacity, 70);
  EXPECT_EQ(session().undoLine().steps().size(), steps + 1);
  EXPECT_TRUE(room->canvas()->hasFocus());
  undo();
  EXPECT_EQ(yard().layerNamed("Rails")->opacity, 100);
  auto* across = room->stack()->findChild<NumberField*>(QStringLiteral("layer-moves-across"));
  const QPointF at = QRectF(across->rect()).center();
  hand.drag(across, {at, at - QPointF(20, 0), at - QPointF(40, 0)});
  EXPECT_EQ(yard().layerNamed("Rails")->parallax.across, 60);
}

TEST_F(Folding, ABackdropIsDraggedAndDrawnToTheEdges) {
  const Sheet& street = *session().quilt().sheetAt(tile("street", 0).slot);
  session().verbs().layers.hangBackdrops({street.id});
  Desk desk = session().desk();
  session().verbs().layers.change("Repeat", [](const Quilt& quilt, LayerAt at) {
    Backdrop backdrop = quilt.layer(at)->backdrop;
    backdrop.repeatsAcross = false;
    return withBackdrop(quilt, at, backdrop);
  });
  const Id hung = session().desk().activeAt().layer;
  const auto offset = [&] { return yard().layer(hung)->offset; };
  hand.moveTo(room->canvas(), onMap({10, 10}));
  EXPECT_EQ(room->canvas()->tagText(), QStringLiteral("Drag moves street"));
  const std::size_t steps = session().undoLine().steps().size();
  hand.drag(room->canvas(), {onMap({10, 10}), onMap({14, 12}), onMap({20, 14})});
  EXPECT_EQ(session().undoLine().steps().size(), steps + 1) << "one step";
  EXPECT_NEAR(offset().x, 10 * 32, 2);
  EXPECT_NEAR(offset().y, 4 * 32, 2);
  // Near the map's corner it is drawn there.
  const QPointF near = onMap({20, 14}) - QPointF(10, 4) * 32 * room->canvas()->zoom() + QPointF(5, -4);
  hand.drag(room->canvas(), {onMap({20, 14}), onMap({15, 14}), near});
  EXPECT_EQ(offset(), (PixelPos{0, 0}));
  picture("backdrop-dragged");
  undo();
  undo();
  EXPECT_EQ(offset(), (PixelPos{0, 0}));
  session().setDesk(desk);
}

TEST_F(Folding, RolesAreRenamedOrderedAndDropped) {
  trigger(ActionId::listRoles);
  auto* list = room->findChild<QListWidget*>(QStringLiteral("roles-list"));
  ASSERT_TRUE(list && list->isVisible());
  const auto roles = [this] { return session().quilt().facts().roles; };
  const auto at = [&](const char* role) {
    for (int i = 0; i < list->count(); ++i) {
      if (list->item(i)->text() == QLatin1String(role)) return i;
    }
    return -1;
  };
  list->setCurrentRow(at("tracks"));
  hand.key(Qt::Key_F2);
  hand.type(QStringLiteral("rails"));
  hand.key(Qt::Key_Return);
  EXPECT_EQ(roles()[1], "rails");
  EXPECT_EQ(yard().layerNamed("Rails")->role, "rails") << "on every layer";
  hand.key(Qt::Key_Down, Qt::AltModifier);
  EXPECT_EQ(roles()[2], "rails");
  picture("roles");
  hand.key(Qt::Key_Delete);
  EXPECT_EQ(roles()[2], "rails") << "layers have it";
  const QString told = room->findChild<QLabel*>(QStringLiteral("roles-told"))->text();
  EXPECT_TRUE(told.contains(QStringLiteral("layer is for rails"))) << told.toStdString();
  list->setCurrentRow(at("pins"));
  hand.key(Qt::Key_Delete);
  EXPECT_EQ(at("pins"), -1);
  hand.key(Qt::Key_Escape);
  EXPECT_FALSE(list->isVisible());
  for (int i = 0; i < 3; ++i) undo();
  EXPECT_TRUE(session().isSaved());
}

TEST_F(Folding, TheMapIsExportedAsOnePictureOrAsALayeredOne) {
  for (const char* name : {"yard.png", "yard.ora"}) {
    const QString path = QFileInfo(QString::fromStdString(folder())).absolutePath() + QLatin1Char('/') + QLatin1String(name);
    hand.inDialog(QStringLiteral("export-map-dialog"), [&](QWidget& dialog) {
      picture("export-map", &dialog);
      auto* field = dialog.findChild<QLineEdit*>(QStringLiteral("fileNameEdit"));
      field->setFocus();
      field->selectAll();
      hand.type(path);
      hand.key(Qt::Key_Return);
    });
    trigger(ActionId::exportMap);
    awaitWork();
    QFile file(path);
    ASSERT_TRUE(file.open(QIODevice::ReadOnly)) << name;
    const QByteArray start = file.read(64);
    if (path.endsWith(QStringLiteral(".ora"))) {
      EXPECT_TRUE(start.startsWith("PK")) << "a zip archive";
      EXPECT_TRUE(start.contains("image/openraster"));
    } else {
      QImage picture;
      ASSERT_TRUE(picture.load(path));
      EXPECT_GE(picture.width(), 48 * 32);
    }
  }
  report("a map exported twice");
}

}  // namespace uq::test
