// Every row of the action table, done: changes of the quilt come back with Ctrl+Z, all else has an effect that is seen.
#include <QApplication>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTest>

#include "app/board/BoardView.h"
#include "app/Story.h"
#include "app/actions/SaveByItself.h"
#include "app/actions/KeyBindings.h"
#include "app/look/Theme.h"
#include "app/look/ThemeChoice.h"
#include "app/workroom/Clipboard.h"
#include "core/store/CellsText.h"
#include "core/edit/Targets.h"
#include "core/edit/Edgings.h"
#include "core/edit/LayCells.h"
#include "core/store/Documents.h"
#include "core/store/EdgingText.h"
#include "core/store/JsonText.h"
#include "core/store/LinksText.h"

namespace uq::test {
namespace {
// All that a quilt would be saved as.
std::string bytes(const Quilt& quilt) {
  std::string all = writeJson(quiltDocument(quilt.facts())) + writeJson(linksDocument(linksOf(quilt)));
  for (const auto& sheet : quilt.sheets()) all += writeJson(sheetDocument(sheet.read()));
  for (const auto& edging : quilt.edgings()) all += writeJson(edgingDocument(edging.read()));
  for (const auto& map : quilt.maps()) {
    all += map->folder + "\n" + writeJson(mapDocument(map.read()));
    for (const auto& one : map->layers) all += writeCells(one->cells, quilt) + writeNumbers(one->lifts);
  }
  return all;
}

}  // namespace
class EveryAction : public Story {
 protected:
  // A quilt with two maps and two tabs, something in hand, something selected, something copied, a step to take back
  // and one to lay back: so every action can be done.
  void SetUp() override {
    openDemo();
    session().verbs().maps.duplicate();
    session().verbs().maps.goTo(yard().id);
    session().verbs().selection.selectAll();
    session().copySelected();
    hand.click(room->table(), onTable("street", 24));
    Desk desk = session().desk();
    desk.activeLayer[desk.map] = yard().layerNamed("Sheds & trams")->id;
    desk.select(CellSet({25, 8, 30, 11}));
    session().setDesk(desk);
    hand.click(room->canvas(), onMap({26, 9}));
    hand.click(room->canvas(), onMap({27, 9}));
    choose(ActionId::undo);
  }
  ~EveryAction() override { chooseTheme(ThemeChoice::linen); }

  // The tool on whose options an action stands; nothing where it stands elsewhere.
  static std::optional<Tool> toolWith(ActionId id) {
    using enum ActionId;
    static const std::map<Tool, std::set<ActionId>> kOptions = {
        {Tool::box, {outlinesOnly}},
        {Tool::fill, {throughCorners, onlyThisTile, sameStamp, wholePile, swapTiles, regionsAsSeen}},
        {Tool::select, {selectByBox, selectByOutline, selectTouching, selectEverywhere, allLayers, joinsMet}}};
    const auto with = std::find_if(kOptions.begin(), kOptions.end(), [id](const auto& one) { return one.second.contains(id); });
    return with == kOptions.end() ? std::nullopt : std::optional(with->first);
  }
  void select(CellRect cells) {
    Desk desk = session().desk();
    desk.select(cells.empty() ? CellSet() : CellSet(cells));
    session().setDesk(std::move(desk));
  }
  // What only some actions need: a tool, a level, a lift, a slanted map.
  void prepare(ActionId id) {
    const bool goes = id == ActionId::comeBack || id == ActionId::goOn;
    if (goes || id == ActionId::leadFrom || id == ActionId::beginHere) {
      PinVerbs& pins = session().verbs().pins;
      pins.place({3, 3, 4, 4});
      const PinAt from = pins.chosen();
      if (goes) (void)pins.lead(from, {session().quilt().maps().back()->id, {}, {5, 5}, true, {}});
      if (goes) pins.follow(from);
      if (id == ActionId::goOn) pins.alongTrail(-1);
    }
    if (id == ActionId::onlyThisMap) session().verbs().maps.wrap(yard().id, false);
    if (const auto tool = toolWith(id)) {
      Desk desk = session().desk();
      desk.tool = *tool;
      session().setDesk(std::move(desk));
    }
    if (id == ActionId::deleteLevel || id == ActionId::renameLevel || id == ActionId::unfold) session().verbs().folders.addLevel();
    // Near all of the paving keeps to its cells, and an opaque piece of it lies on the sheds' layer now.
    if (id == ActionId::holes) session().verbs().selection.removeCell(yard().layerNamed("Paving")->id, {20, 20});
    if (id == ActionId::stripCovered || id == ActionId::coveredCells) {
      const Cell piece = yard().layerNamed("Paving")->cells.at({20, 20});
      session().verbs().hand.take(Block::of(piece));
      session().verbs().layers.choose(yard().layerNamed("Sheds & trams")->id);
      hand.click(room->canvas(), onMap({20, 20}));
      session().verbs().layers.choose(yard().layerNamed("Paving")->id);
    }
    if (id == ActionId::joinAnew) session().verbs().layers.choose(yard().layerNamed("Paving")->id);
    // Lawn amid setts, without its kerb.
    if (id == ActionId::joinAnew) session().quiltStep(QStringLiteral("Lay"), layCells(session().quilt(), session().desk().activeAt(), std::vector<CellChange>{{{20, 10}, Cell(tile("street", 12), {})}}));
    if (id == ActionId::linesOfLayer) choose(ActionId::rulers);
    if (id == ActionId::film) hand.click(room->canvas(), onMap({20, 20}));
    if (id == ActionId::exportAgain) session().quiltStep(QStringLiteral("Target"), addTarget(session().quilt(), newTarget(session().quilt(), TargetForm::links), session().work().ids()).quilt);
    if (id == ActionId::removeColumns || id == ActionId::removeRows) select({3, 3, 6, 5});
    if (id == ActionId::cutToUsed) session().verbs().maps.resize(moved(yard().bounds, {3, 0, 0, 2}));
    if (id == ActionId::joinThese) session().quiltStep(QStringLiteral("Join it no more"), session().quilt().without<Edging>(edgingNamed(session().quilt(), "Street ground")->id));
    if (id == ActionId::dropAllowance || id == ActionId::showAllowance) session().verbs().maps.resize(moved(yard().bounds, {-3, 0, 0, 0}));
    if (id == ActionId::liftLower) session().verbs().hand.setLift(32);
    if (id == ActionId::looseJoints || id == ActionId::closeJoint || id == ActionId::closeJoints) {
      // The right end of a hedge goes.
      for (const int y : {7, 8}) session().verbs().selection.removeCell(yard().layerNamed("Sheds & trams")->id, {45, y});
    }
    // Of selected cells only those would be looked at.
    if (id == ActionId::closeJoints || id == ActionId::joinAnew) select({});
    if (id == ActionId::closeJoint) {
      choose(ActionId::nextJoint);
      awaitWork();
    }
    if (id == ActionId::throwAgain || id == ActionId::fillCells) {
      // Look-alikes, of which some lie in the selection.
      session().verbs().hand.take(Block::of(Cell(tile("street", 24), {})));
      session().verbs().hand.gather(Block::of(Cell(tile("street", 25), {})));
      session().verbs().hand.gather(Block::of(Cell(tile("street", 26), {})));
    }
    if (id == ActionId::throwAgain) session().verbs().selection.fill();
    if (id == ActionId::shrinkSelection) session().verbs().selection.grow();
    if (id != ActionId::planView && id != ActionId::boxAlongGrid) return;
    MapPlan plan;
    plan.name = "Quayside";
    plan.width = plan.height = 8;
    plan.grid = nearestShape(GridKind::diamond, {64, 32});
    session().verbs().maps.add(plan);
    session().verbs().hand.take(Block::of(Cell({kChalkSlot, 4}, {})));
    Desk desk = session().desk();
    desk.tool = Tool::select;
    session().setDesk(desk);
  }
  void trigger(ActionId id) {
    QAction* action = room->actions()->action(id);
    ASSERT_TRUE(action->isEnabled()) << actionRow(id).name << ": " << action->toolTip().toStdString();
    choose(id);
  }
  QImage look() {
    settle();
    return room->grab().toImage();
  }
  template <class Widget>
  bool shows(const char* name) {
    auto* found = room->findChild<Widget*>(QLatin1String(name));
    return found && found->isVisible();
  }
  // What an action that only opens something needs to be carried through.
  void finish(ActionId id) {
    if (id == ActionId::newMap) hand.key(Qt::Key_Return);
    if (id == ActionId::closeJoints) awaitWork();
    if (id == ActionId::joinAnew) choose(id);  // the first time it only counts
    if (id == ActionId::renameMap) {
      hand.type(QStringLiteral("Shunting Yard"));
      hand.key(Qt::Key_Return);
    }
    if (id == ActionId::listSteps) {
      auto* list = room->findChild<QListWidget*>(QStringLiteral("step-list"));
      QTest::keyClick(list, Qt::Key_End);
      QTest::keyClick(list, Qt::Key_Return);
      settle();
    }
  }
};

class ChangingAction : public EveryAction, public testing::WithParamInterface<ActionId> {};

TEST_P(ChangingAction, ComesBackToTheSameBytes) {
  const ActionId id = GetParam();
  prepare(id);
  const Quilt before = session().quilt();
  const std::string then = bytes(before);
  trigger(id);
  finish(id);
  EXPECT_NE(bytes(session().quilt()), then) << "it changed nothing";
  // Taking back is undone by laying back, and the other way round.
  const bool back = id == ActionId::undo || id == ActionId::listSteps;
  trigger(back ? ActionId::redo : ActionId::undo);
  if (bytes(session().quilt()) != then) trigger(back ? ActionId::redo : ActionId::undo);
  EXPECT_EQ(bytes(session().quilt()), then);
  EXPECT_EQ(session().quilt(), before);
}

std::vector<ActionId> changingActions() {
  std::vector<ActionId> ids;
  for (const ActionRow& row : actionTable()) {
    if (row.changesQuilt && !row.gesture) ids.push_back(row.id);
  }
  return ids;
}

std::string nameOf(const testing::TestParamInfo<ActionId>& info) {
  std::string name = actionRow(info.param).name;
  std::replace(name.begin(), name.end(), '-', '_');
  return name;
}

INSTANTIATE_TEST_SUITE_P(Every, ChangingAction, testing::ValuesIn(changingActions()), nameOf);

// What does not change the quilt, and how one sees that it was done.
class SeenAction : public EveryAction, public testing::WithParamInterface<ActionId> {
 protected:
  // Does it, and says whether its effect is there.
  bool seen(ActionId id) {
    const Desk desk = session().desk();
    const MapCanvas::View view = room->canvas()->view();
    const QImage looked = look();
    const auto changed = [&](auto Desk::*part) {
      trigger(id);
      return !(session().desk().*part == desk.*part) && look() != looked;
    };
    const auto zoomed = [&] {
      trigger(id);
      return room->canvas()->view().zoom != view.zoom && look() != looked;
    };
    const auto opens = [&](const char* name) {
      trigger(id);
      const bool is = shows<QWidget>(name);
      if (QWidget* popup = QApplication::activePopupWidget()) popup->hide();
      return is;
    };
    const auto asks = [&](const char* dialog) {
      bool asked = false;
      hand.inDialog(QString::fromLatin1(dialog), [&](QWidget& shown) {
        asked = true;
        qobject_cast<QDialog*>(&shown)->reject();
      });
      trigger(id);
      return asked;
    };
    const auto themed = [&](const Theme& theme) {
      chooseTheme(id == ActionId::indigo ? ThemeChoice::linen : ThemeChoice::indigo);
      trigger(id);
      return Theme::current().panel == theme.panel && QApplication::palette().color(QPalette::Window) == theme.panel;
    };
    switch (id) {
      case ActionId::newQuilt:
      case ActionId::newWindow: {
        trigger(id);
        bool another = false;
        for (QWidget* window : QApplication::topLevelWidgets()) {
          auto* other = qobject_cast<Workroom*>(window);
          if (!other || other == room.get()) continue;
          another = other->isVisible();
          other->close();
        }
        settle();
        return another;
      }
      case ActionId::openPacked:
      case ActionId::openQuilt: {
        bool asked = false;
        hand.inDialog(QStringLiteral("unsaved-question"), [&](QWidget& dialog) {
          asked = true;
          hand.click(dialog.findChild<QPushButton*>(QStringLiteral("go-on")));
        });
        trigger(id);
        return asked;
      }
      case ActionId::saveQuilt:
        trigger(id);
        awaitWork();
        return session().isSaved();
      case ActionId::saveQuiltAs: return asks("folder-dialog");
      case ActionId::packQuilt: return asks("pack-dialog");
      case ActionId::closeWindow: {
        bool asked = false;
        hand.inDialog(QStringLiteral("unsaved-question"), [&](QWidget& dialog) {
          asked = true;
          hand.click(dialog.findChild<QPushButton*>(QStringLiteral("leave-unsaved")));
        });
        trigger(id);
        return asked && !room->isVisible();
      }
      case ActionId::turnLeft: case ActionId::turnRight: case ActionId::mirrorAcross: case ActionId::mirrorDown:
      case ActionId::pasteCells: return changed(&Desk::inHand);
      case ActionId::straighten: {
        session().verbs().hand.turn(Turning::left);
        const InHand turned = session().desk().inHand;
        trigger(id);
        return !(session().desk().inHand == turned);
      }
      case ActionId::takeSeen:
      case ActionId::duplicateCells: return changed(&Desk::inHand);
      case ActionId::turnByChance:
        trigger(id);
        return session().desk().inHand.turnsByChance;
      case ActionId::nextManner:
        trigger(id);
        return session().desk().inHand.manner == Manner::stretch;
      case ActionId::growSelection: case ActionId::shrinkSelection: case ActionId::invertSelection: return changed(&Desk::selections);
      case ActionId::showLens: {
        // Of the cell under the pointer, which is where the menu is when that is used.
        hand.moveTo(room->canvas(), onMap({26, 9}));
        hand.key(Qt::Key_V);
        const bool is = shows<QWidget>("lens");
        if (QWidget* popup = QApplication::activePopupWidget()) popup->hide();
        return is;
      }
      case ActionId::optionBefore: {
        Desk wide = session().desk();
        wide.options.width = 5;
        session().setDesk(wide);
        trigger(id);
        return session().desk().options.width == 3;
      }
      case ActionId::selectByBox:
        trigger(ActionId::selectByOutline);
        trigger(id);
        return session().desk().options.selectBy == SelectBy::box;
      case ActionId::optionAfter:
      case ActionId::outlinesOnly: case ActionId::throughCorners: case ActionId::onlyThisMap: case ActionId::onlyThisTile:
      case ActionId::sameStamp: case ActionId::wholePile: case ActionId::swapTiles: case ActionId::regionsAsSeen: case ActionId::joinsMet:
      case ActionId::selectByOutline: case ActionId::selectTouching: case ActionId::selectEverywhere: case ActionId::allLayers: {
        trigger(id);
        return !(session().desk().options == desk.options);
      }
      case ActionId::copyCells: {
        const auto copied = [this] { return takenFromClipboard(session().quilt()).value_or(InHand()); };
        const InHand before = copied();
        trigger(id);
        return !(copied() == before);
      }
      case ActionId::selectAll:
      case ActionId::dropWork: return changed(&Desk::selections);
      case ActionId::listMaps: return opens("map-list");
      case ActionId::closeMap: return changed(&Desk::openMaps);
      case ActionId::nextMap:
      case ActionId::previousMap: return changed(&Desk::map);
      case ActionId::nearerLayer:
      case ActionId::fartherLayer: return changed(&Desk::activeLayer);
      case ActionId::renameLayer: return opens("layer-name");
      case ActionId::renameLevel: return opens("level-name");
      case ActionId::liftHigher:
      case ActionId::liftLower: return changed(&Desk::lift);
      case ActionId::planView: return changed(&Desk::planView);
      case ActionId::boxAlongGrid: return changed(&Desk::box);
      case ActionId::toggleEye: return changed(&Desk::hidden);
      case ActionId::toggleLock: return changed(&Desk::locked);
      case ActionId::zoomIn:
      case ActionId::zoomOut:
      case ActionId::fullSize:
      case ActionId::fitSelection: return zoomed();
      case ActionId::wholeMap:
        room->canvas()->setZoom(3, {});
        trigger(id);
        return room->canvas()->view().whole;
      case ActionId::foldTable:
      case ActionId::foldStack: {
        const QString strip = id == ActionId::foldTable ? QStringLiteral("strip-table") : QStringLiteral("strip-stack");
        const int wide = room->canvas()->width();
        trigger(id);
        settle();
        return room->findChild<QWidget*>(strip)->isVisible() && room->canvas()->width() > wide;
      }
      case ActionId::mapAlone: {
        trigger(id);
        settle();
        return room->canvas()->size() == room->size();
      }
      case ActionId::nextPane:
      case ActionId::previousPane: {
        room->canvas()->setFocus();
        trigger(id);
        return QApplication::focusWidget() && !room->canvas()->hasFocus();
      }
      case ActionId::gridLines: return changed(&Desk::gridLines);
      case ActionId::looseJoints: return changed(&Desk::showsJoints);
      case ActionId::coveredCells: return changed(&Desk::showsCovered);
      case ActionId::holes: return changed(&Desk::showsHoles);
      case ActionId::colourByHeight: return changed(&Desk::tinting);
      case ActionId::exportMap: case ActionId::importMap: return asks(id == ActionId::exportMap ? "export-map-dialog" : "import-dialog");
      case ActionId::closeJoint: case ActionId::closeJoints: case ActionId::nextJoint: {
        // The demo has none, and it says so.
        trigger(id);
        awaitWork();
        const auto said = room->findChildren<QLabel*>();
        return std::any_of(said.begin(), said.end(),
                           [](const QLabel* label) { return label->text().startsWith(QStringLiteral("No loose joint")); });
      }
      case ActionId::showAllowance: return changed(&Desk::showsAllowance);
      case ActionId::cellSize: case ActionId::mapSize: {
        const bool isOpen = opens(id == ActionId::mapSize ? "size-card" : "cells-card");
        hand.key(Qt::Key_Escape);
        return isOpen;
      }
      case ActionId::screenFrame: return changed(&Desk::showsFrame);
      case ActionId::playCamera: {
        trigger(id);
        const bool plays = room->canvas()->playsCamera();
        trigger(id);
        return plays && !room->canvas()->playsCamera();
      }
      case ActionId::checkSizes: case ActionId::mapFacts: return opens("map-facts");
      case ActionId::listRoles: return opens("roles-list");
      case ActionId::rulers: return changed(&Desk::rulers);
      case ActionId::goToBoard: return changed(&Desk::onBoard);
      case ActionId::linesOfLayer: return changed(&Desk::linesOfLayer);
      case ActionId::fadeOthers: return changed(&Desk::fadesOthers);
      case ActionId::goToTable:
        room->canvas()->setFocus();
        trigger(id);
        return room->spread()->hasFocus();
      case ActionId::hangPicture: case ActionId::bringIn: {
        bool asked = false;
        hand.inDialog(id == ActionId::bringIn ? QStringLiteral("pictures-dialog") : QStringLiteral("hang-dialog"), [&](QWidget& dialog) {
          asked = true;
          qobject_cast<QDialog*>(&dialog)->reject();
        });
        trigger(id);
        return asked;
      }
      case ActionId::sheetCard: return opens("sheet-card");
      case ActionId::tidySheet: trigger(id), awaitWork(); return shows<QWidget>("tidy-card");
      case ActionId::exportSheet: case ActionId::exportTargets: return opens(id == ActionId::exportSheet ? "export-card" : "export-page");
      case ActionId::film: trigger(id), awaitWork(); return shows<QWidget>("film");
      case ActionId::exportAgain: trigger(id), awaitWork(); return QFileInfo::exists(QString::fromStdString(folder()) + QStringLiteral("/exports/links/links.json"));
      case ActionId::searchTable:
        trigger(id);
        return room->findChild<QLineEdit*>(QStringLiteral("table-search"))->hasFocus();
      case ActionId::usedHere: case ActionId::fitsHere: return opens("found-tiles");
      case ActionId::nextPlace: {
        room->canvas()->setZoom(4, {});
        const QPointF before = room->canvas()->seenPixels().center();
        trigger(id);
        return room->canvas()->seenPixels().center() != before && !room->canvas()->lit().empty();
      }
      case ActionId::playFrames: {
        trigger(id);
        return session().desk().playsFrames != desk.playsFrames;
      }
      case ActionId::heldBefore: {
        hand.click(room->table(), onTable("street", 30));
        const InHand before = session().desk().inHand;
        trigger(id);
        return !(session().desk().inHand == before);
      }
      case ActionId::linen: return themed(Theme::linen());
      case ActionId::indigo: return themed(Theme::indigo());
      case ActionId::saveEachMinutes:
      case ActionId::saveOnLeaving: {
        const SavesWhen wanted = id == ActionId::saveOnLeaving ? SavesWhen::onLeaving : SavesWhen::eachMinutes;
        trigger(id);
        const bool on = savesWhen() == wanted && room->actions()->action(id)->isChecked();
        trigger(id);
        return on && savesWhen() == SavesWhen::never;
      }
      case ActionId::asDesktop: return themed(Theme::linen());
      case ActionId::findHelp: return opens("find-box");
      case ActionId::listKeys: return opens("keys-page");
      case ActionId::brush: {
        Desk other = desk;
        other.tool = Tool::erase;
        session().setDesk(other);
        trigger(id);
        return session().desk().tool == Tool::brush;
      }
      case ActionId::erase: case ActionId::box: case ActionId::fill: case ActionId::line: case ActionId::oval: case ActionId::pins:
      case ActionId::select: return changed(&Desk::tool);
      case ActionId::comeBack: case ActionId::goOn: return changed(&Desk::map);
      case ActionId::looseThreads: return opens("threads-card");
      case ActionId::leadFrom:
        trigger(id);
        return room->board()->cord() != nullptr;
      default: ADD_FAILURE() << "nobody says what is seen of " << actionRow(id).name; return false;
    }
  }
};

TEST_P(SeenAction, HasAnEffectThatIsSeenAndLeavesTheQuiltAlone) {
  prepare(GetParam());
  const std::string then = bytes(session().quilt());
  const bool closes = GetParam() == ActionId::closeWindow;
  EXPECT_TRUE(seen(GetParam()));
  if (!closes) {
    EXPECT_EQ(bytes(session().quilt()), then);
  }
}

std::vector<ActionId> seenActions() {
  std::vector<ActionId> ids;
  for (const ActionRow& row : actionTable()) {
    if (!row.changesQuilt && !row.gesture) ids.push_back(row.id);
  }
  return ids;
}

INSTANTIATE_TEST_SUITE_P(Every, SeenAction, testing::ValuesIn(seenActions()), nameOf);

}  // namespace uq::test
