// What of Workroom carries out actions.
#include "app/workroom/Workroom.h"

#include <QFileDialog>

#include "app/actions/KeyBindings.h"
#include "app/actions/SaveByItself.h"
#include "app/look/Theme.h"
#include "app/look/ThemeChoice.h"
#include "app/stack/RolesCard.h"
#include "app/workroom/Columns.h"
#include "app/workroom/SheetWork.h"
#include "app/workroom/ThreadsCard.h"
#include "core/edit/Camera.h"
#include "core/edit/Edgings.h"
#include "core/edit/Landing.h"
#include "core/edit/Levels.h"
#include "core/edit/Rejoin.h"
#include "core/edit/MapFacts.h"
#include "raster/MapExport.h"

namespace uq {

namespace {

constexpr std::int64_t kMostJoinedAnew = 1 << 20;  // cells, about a second

// A window of its own that goes when it is closed.
Workroom* anotherWindow() {
  auto* window = new Workroom;
  window->setAttribute(Qt::WA_DeleteOnClose);
  window->resize(window->sizeHint());
  window->show();
  window->activateWindow();
  return window;
}

}  // namespace

Id Workroom::sheetInHand() const {
  const Block& held = session_->desk().inHand.block;
  const SheetSlot slot = held.empty() ? kChalkSlot : held.parts().front().cell.tile().slot;
  return slot == kChalkSlot ? Id() : session_->quilt().slots().sheet(slot);
}

void Workroom::join(Id sheet) {
  const auto [edging, why] = session_->sheets().joinTiles(sheet, table()->chosenOn(sheet));
  if (!why.empty()) return foot_->say(QString::fromStdString(why));
  showCard(bench_, edging);
}

void Workroom::joinAnew() {
  const LayerAt at = session_->desk().activeAt();
  const CellSet selected = session_->desk().selection();
  const Map& map = *session_->map();
  const std::int64_t cells = selected.empty() ? map.bounds.count() : selected.count();
  if (cells > kMostJoinedAnew) return foot_->say(tr("That is more than can be joined at once: select up to a million cells."));
  std::function<bool(CellPos)> inside;
  if (!selected.empty()) inside = [&](CellPos cell) { return selected.contains(cell); };
  QuiltRejoined anew = rejoinedWithHems(session_->quilt(), at, selected.empty() ? CellSet(map.bounds) : selected, inside);
  const std::int64_t count = anew.changed.count();
  if (count == 0) return foot_->say(tr("All that joins by itself on this layer is joined as it should be."));
  // First what it would change, by the same press then.
  if (joinsAnew_ != std::pair(at, anew.changed)) {
    joinsAnew_ = {at, anew.changed};
    canvas_->setLit(anew.changed);
    return foot_->say(tr("%n cell(s) would be joined otherwise: the same again does it.", "", static_cast<int>(count)));
  }
  joinsAnew_ = {};
  canvas_->setLit({});
  session_->quiltStep(tr("Join %n cell(s) anew", "", static_cast<int>(count)), std::move(anew.quilt));
}

void Workroom::askForMap(const Sheet* sheet) {
  const Map* like = session_->map();
  if (!like && !session_->quilt().maps().empty()) like = &session_->quilt().maps().back().read();
  const Block& held = session_->desk().inHand.block;
  const SheetSlot slot = held.empty() ? kChalkSlot : held.parts().front().cell.tile().slot;
  if (!sheet && slot != kChalkSlot) sheet = session_->quilt().sheetAt(slot);
  newMap_->open(session_->quilt(), like, sheet);
}

void Workroom::deleteMap() {
  const Map& map = *session_->map();
  const QString name = QString::fromStdString(map.name);
  session_->verbs().maps.remove(map.id);
  foot_->say(tr("%1 was deleted. %2 brings it back.").arg(name, KeyBindings::shared().text(ActionId::undo)));
}

void Workroom::lift(int steps) {
  if (const auto rows = rowsInHand(session_->quilt(), session_->desk().inHand)) return session_->verbs().hand.setRows(*rows + steps);
  session_->verbs().hand.setLift(session_->desk().lift + steps * std::max(1, levelStep(*session_->map()) / 4));
}

Situation Workroom::situation() const {
  Situation now = session_->situation();
  now.busy = work_.isRunning();
  return now;
}

void Workroom::act(ActionId id) {
  const auto changeDesk = [this](auto change) {
    Desk desk = session_->desk();
    change(desk);
    session_->setDesk(std::move(desk));
  };
  // Pressed again, it is as usual.
  const auto sameIs = [&](Alike alike) {
    changeDesk([alike](Desk& desk) { desk.options.alike = desk.options.alike == alike ? Alike::mix : alike; });
  };
  switch (id) {
    case ActionId::newQuilt:
      if (session_) {
        anotherWindow()->startPage()->askForNewQuilt();
      } else {
        start_->askForNewQuilt();
      }
      break;
    case ActionId::newWindow: anotherWindow(); break;
    case ActionId::openQuilt: chooseQuilt(); break;
    case ActionId::saveQuilt: save(); break;
    case ActionId::saveQuiltAs: saveAs(); break;
    case ActionId::packQuilt: pack(); break;
    case ActionId::openPacked: choosePacked(); break;
    case ActionId::closeWindow: close(); break;
    case ActionId::undo: session_->work().undo(); break;
    case ActionId::redo: session_->work().redo(); break;
    case ActionId::dropWork: session_->verbs().hand.dropWork(); break;
    case ActionId::selectAll: session_->verbs().selection.selectAll(); break;
    case ActionId::deleteCells:
      if (onPins()) session_->verbs().pins.remove();
      else session_->verbs().selection.remove();
      break;
    case ActionId::copyCells:
    case ActionId::cutCells:
      if (onPins()) session_->verbs().pins.copy(id == ActionId::cutCells);
      else session_->copySelected(id == ActionId::cutCells);
      break;
    case ActionId::pasteCells:
      if (onPins()) session_->verbs().pins.paste(canvas_->hoveredCell().value_or(CellPos()));
      else session_->paste();
      break;
    case ActionId::listSteps:
      steps_->open(session_.get(), tabs_->mapToGlobal(tabs_->rect().bottomRight()) - QPoint(360, 0));
      break;
    case ActionId::turnLeft: turn(Turning::left); break;
    case ActionId::turnRight: turn(Turning::right); break;
    case ActionId::mirrorAcross: turn(Turning::mirrorAcross); break;
    case ActionId::mirrorDown: turn(Turning::mirrorDown); break;
    case ActionId::turnByChance: session_->verbs().hand.setChance(!session_->desk().inHand.turnsByChance); break;
    case ActionId::throwAgain: session_->verbs().strokes.throwAgain(); break;
    case ActionId::nextManner: nextManner(); break;
    case ActionId::keepStamp: session_->verbs().stamps.keep(); break;
    case ActionId::takeSeen: session_->verbs().hand.takeSelected(); break;
    case ActionId::showLens: canvas_->showLens(); break;
    case ActionId::duplicateCells: session_->verbs().hand.duplicateSelected(); break;
    case ActionId::fillCells: session_->verbs().selection.fill(); break;
    case ActionId::selectionNearer: session_->verbs().selection.toLayer(1); break;
    case ActionId::selectionFarther: session_->verbs().selection.toLayer(-1); break;
    case ActionId::growSelection: session_->verbs().selection.grow(); break;
    case ActionId::shrinkSelection: session_->verbs().selection.shrink(); break;
    case ActionId::invertSelection: session_->verbs().selection.invert(); break;
    case ActionId::straighten: session_->verbs().hand.straighten(); break;
    case ActionId::liftHigher: lift(1); break;
    case ActionId::liftLower: lift(-1); break;
    case ActionId::newMap:
      session_->desk().onBoard ? board_->askForNew(BoardView::Draws::map) : askForMap();
      break;
    case ActionId::listMaps:
      maps_->open(session_.get(), mapToGlobal(QPoint(width() / 2, tabs_->height() + 24)));
      break;
    case ActionId::renameMap: tabs_->rename(); break;
    case ActionId::duplicateMap: session_->verbs().maps.duplicate(); break;
    case ActionId::deleteMap: deleteMap(); break;
    case ActionId::cutToUsed: session_->verbs().maps.cutToUsed(); break;
    case ActionId::dropAllowance: session_->verbs().maps.dropAllowance(); break;
    case ActionId::insertColumns: session_->verbs().lines.changeSelected(CellLines::Which::columns, false); break;
    case ActionId::insertRows: session_->verbs().lines.changeSelected(CellLines::Which::rows, false); break;
    case ActionId::removeColumns: session_->verbs().lines.changeSelected(CellLines::Which::columns, true); break;
    case ActionId::removeRows: session_->verbs().lines.changeSelected(CellLines::Which::rows, true); break;
    case ActionId::linesOfLayer: changeDesk([](Desk& desk) { desk.linesOfLayer = !desk.linesOfLayer; }); break;
    case ActionId::openWithMap: session_->verbs().maps.setOpening(); break;
    case ActionId::closeMap: session_->verbs().maps.closeTab(session_->desk().map); break;
    case ActionId::nextMap: goToMap(1); break;
    case ActionId::previousMap: goToMap(-1); break;
    case ActionId::nearerLayer: session_->setDesk(withNearerLayer(session_->desk(), session_->quilt(), 1)); break;
    case ActionId::fartherLayer: session_->setDesk(withNearerLayer(session_->desk(), session_->quilt(), -1)); break;
    case ActionId::addLayer: {
      const Layer* active = session_->quilt().layer(session_->desk().activeAt());
      session_->verbs().layers.add({activeIndex() + 1, active ? active->folder : Id()});
      break;
    }
    case ActionId::duplicateLayer: session_->verbs().layers.duplicate(); break;
    case ActionId::renameLayer: stack_->renameActive(); break;
    case ActionId::layerNearer: session_->verbs().layers.move(session_->desk().activeAt().layer, 1); break;
    case ActionId::layerFarther: session_->verbs().layers.move(session_->desk().activeAt().layer, -1); break;
    case ActionId::deleteLayer: session_->verbs().layers.remove(); break;
    case ActionId::foldLayers:
      session_->verbs().folders.put();
      stack_->renameLevel();
      break;
    case ActionId::unfold: session_->verbs().folders.unfold(); break;
    case ActionId::coveredCells: changeDesk([](Desk& desk) { desk.showsCovered = !desk.showsCovered; }); break;
    case ActionId::holes: changeDesk([](Desk& desk) { desk.showsHoles = !desk.showsHoles; }); break;
    case ActionId::stripCovered: session_->verbs().layers.stripCovered(); break;
    case ActionId::colourByHeight:
      changeDesk(
          [](Desk& desk) { desk.tinting = desk.tinting == Tinting::byHeight ? Tinting::no : Tinting::byHeight; });
      break;
    case ActionId::exportMap: exportMap(); break;
    case ActionId::addLevel: session_->verbs().folders.addLevel(); break;
    case ActionId::renameLevel: stack_->renameLevel(); break;
    case ActionId::deleteLevel: session_->verbs().folders.remove(); break;
    case ActionId::toggleEye: toggleEye(*session_, session_->desk().activeAt().layer); break;
    case ActionId::toggleLock: toggleLock(*session_, session_->desk().activeAt().layer); break;
    case ActionId::zoomIn:
    case ActionId::zoomOut: {
      const int steps = id == ActionId::zoomIn ? 1 : -1;
      session_->desk().onBoard ? board_->zoomBySteps(steps) : canvas_->zoomBySteps(steps);
      break;
    }
    case ActionId::wholeMap: session_->desk().onBoard ? board_->fit() : canvas_->fitMap(); break;
    case ActionId::goToTable:
      if (table()->hasFocus()) {
        canvas_->setFocus(Qt::TabFocusReason);
      } else {
        spreadTable(!spread_->isVisible(), !spreadUsed_);
      }
      break;
    case ActionId::bringIn: chooseFiles(); break;
    case ActionId::sheetCard: showCard(sheetCard_, sheetInHand()); break;
    case ActionId::joinThese: join(sheetInHand()); break;
    case ActionId::tidySheet: tidy(sheetInHand()); break;
    case ActionId::exportTargets:
      hideCards();
      if (session_->desk().onBoard) session_->verbs().maps.showBoard(false);
      exportPage_->open();
      break;
    case ActionId::importMap: importMap(); break;
    case ActionId::film:
      hideCards();
      if (session_->desk().onBoard) session_->verbs().maps.showBoard(false);
      film_->open();
      break;
    case ActionId::exportAgain:
      exportPage_->form()->take();
      if (const QString why = exports_->again(); !why.isEmpty()) foot_->say(why + QLatin1Char('.'));
      break;
    case ActionId::exportSheet: showCard(exportCard_, sheetInHand()); break;
    case ActionId::playFrames: changeDesk([](Desk& desk) { desk.playsFrames = !desk.playsFrames; }); break;
    case ActionId::searchTable:
      spreadTable(false);
      showMapAlone(false);
      columns_->fold(Columns::Side::table, false);
      panel_->search();
      break;
    case ActionId::usedHere: panel_->showUsed(!panel_->showsUsed()); break;
    case ActionId::fitsHere: panel_->showFitting(!panel_->showsFitting()); break;
    case ActionId::looseJoints: changeDesk([](Desk& desk) { desk.showsJoints = !desk.showsJoints; }); break;
    case ActionId::nextJoint: joints_->next(*session_); break;
    case ActionId::closeJoint: joints_->close(*session_); break;
    case ActionId::closeJoints: joints_->closeAll(*session_); break;
    case ActionId::nextPlace: panel_->showNextPlace(session_->desk().inHand.parts().front().cell.tile()); break;
    case ActionId::heldBefore: session_->verbs().hand.take(session_->desk().held[1]); break;
    case ActionId::fitSelection: canvas_->fitSelection(); break;
    case ActionId::fullSize: canvas_->showFullSize(); break;
    case ActionId::gridLines: changeDesk([](Desk& desk) { desk.gridLines = !desk.gridLines; }); break;
    case ActionId::rulers: changeDesk([](Desk& desk) { desk.rulers = !desk.rulers; }); break;
    case ActionId::fadeOthers: changeDesk([](Desk& desk) { desk.fadesOthers = !desk.fadesOthers; }); break;
    case ActionId::boxAlongGrid:
      changeDesk([this](Desk& desk) {
        const BoxShape now = desk.box.value_or(usualBox(session_->map()->grid.kind));
        desk.box = now == BoxShape::asSeen ? BoxShape::alongTheGrid : BoxShape::asSeen;
      });
      break;
    case ActionId::showAllowance:
      changeDesk([](Desk& desk) { desk.showsAllowance = !desk.showsAllowance; });
      break;
    case ActionId::screenFrame:
      canvas_->playCamera(false);
      changeDesk([this](Desk& desk) {
        desk.showsFrame = !desk.showsFrame;
        const PixelPos at = desk.showsFrame ? desk.camera().value_or(PixelPos{}) : PixelPos{};
        if (desk.showsFrame) desk.cameras[desk.map] = cameraNear(session_->quilt(), *session_->map(), at);
      });
      break;
    case ActionId::playCamera: canvas_->playCamera(!canvas_->playsCamera()); break;
    case ActionId::mapFacts:
      hideCards();
      mapFacts_->open();
      break;
    case ActionId::checkSizes: act(ActionId::mapFacts); break;
    case ActionId::goToBoard: session_->verbs().maps.showBoard(!session_->desk().onBoard); break;
    case ActionId::leadFrom: leadFrom(); break;
    case ActionId::beginHere: session_->verbs().pins.beginHere(canvas_->hoveredCell()); break;
    case ActionId::comeBack: session_->verbs().pins.alongTrail(-1); break;
    case ActionId::goOn: session_->verbs().pins.alongTrail(1); break;
    case ActionId::looseThreads: threads_->open(session_.get()); break;
    case ActionId::wrapsAcross: session_->verbs().maps.wrap(session_->desk().map, false); break;
    case ActionId::wrapsDown: session_->verbs().maps.wrap(session_->desk().map, true); break;
    case ActionId::tidyBoard: session_->verbs().maps.tidyBoard(); break;
    case ActionId::cellSize: cellCard_->open(sheetInHand()); break;
    case ActionId::mapSize:
      sizeCard_->open();
      break;
    case ActionId::listRoles:
      hideCards();
      rolesCard_->open();
      break;
    case ActionId::hangPicture: {
      QFileDialog dialog(this, tr("Hang a picture"));
      dialog.setObjectName(QStringLiteral("hang-dialog"));
      dialog.setFileMode(QFileDialog::ExistingFiles);
      dialog.setNameFilter(tr("Pictures (%1)").arg(QStringLiteral("*.png *.webp *.bmp *.gif *.jpg *.jpeg")));
      if (dialog.exec() == QDialog::Accepted) hang(dialog.selectedFiles());
      break;
    }
    case ActionId::hangSheet: session_->verbs().layers.hangBackdrops({sheetInHand()}); break;
    case ActionId::addPins: session_->verbs().layers.addPins(activeIndex() + 1); break;
    case ActionId::mergeDown: session_->verbs().layers.mergeDown(); break;
    case ActionId::foldTable: columns_->fold(Columns::Side::table, !columns_->isFolded(Columns::Side::table)); break;
    case ActionId::foldStack: columns_->fold(Columns::Side::stack, !columns_->isFolded(Columns::Side::stack)); break;
    case ActionId::mapAlone: showMapAlone(!columns_->showsMapAlone()); break;
    case ActionId::nextPane: (void)paneKeys_.go(true); break;
    case ActionId::previousPane: (void)paneKeys_.go(false); break;
    case ActionId::planView: changeDesk([](Desk& desk) { desk.planView = !desk.planView; }); break;
    case ActionId::saveEachMinutes: toggleSaves(SavesWhen::eachMinutes); break;
    case ActionId::saveOnLeaving: toggleSaves(SavesWhen::onLeaving); break;
    case ActionId::linen: chooseTheme(ThemeChoice::linen); break;
    case ActionId::indigo: chooseTheme(ThemeChoice::indigo); break;
    case ActionId::asDesktop: chooseTheme(ThemeChoice::asDesktop); break;
    case ActionId::findHelp:
      find_->open(mapToGlobal(QPoint(width() / 2, menus_->height() + 40)), canvas_->refusal());
      break;
    case ActionId::listKeys: keysPage_->open(); break;
    case ActionId::brush:
    case ActionId::erase:
    case ActionId::box:
    case ActionId::fill:
    case ActionId::select:
    case ActionId::line:
    case ActionId::oval:
    case ActionId::pins: changeDesk([tool = *toolOf(id)](Desk& desk) { desk.tool = tool; }); break;
    case ActionId::optionBefore: stepOption(-1); break;
    case ActionId::optionAfter: stepOption(1); break;
    case ActionId::outlinesOnly: changeDesk([](Desk& desk) { desk.options.outlines = !desk.options.outlines; }); break;
    case ActionId::onlyThisMap:
      changeDesk([](Desk& desk) { desk.options.onlyThisMap = !desk.options.onlyThisMap; });
      break;
    case ActionId::throughCorners:
      changeDesk([](Desk& desk) { desk.options.throughCorners = !desk.options.throughCorners; });
      break;
    case ActionId::onlyThisTile: sameIs(Alike::tile); break;
    case ActionId::sameStamp: sameIs(Alike::stamp); break;
    case ActionId::wholePile: sameIs(Alike::pile); break;
    case ActionId::swapTiles: changeDesk([](Desk& desk) { desk.options.swaps = !desk.options.swaps; }); break;
    case ActionId::regionsAsSeen:
      changeDesk([](Desk& desk) {
        const bool on = !desk.options.asSeen.value_or(false);
        desk.options.asSeen = on ? std::optional(true) : std::nullopt;
      });
      break;
    case ActionId::selectByBox: changeDesk([](Desk& desk) { desk.options.selectBy = SelectBy::box; }); break;
    case ActionId::selectByOutline: changeDesk([](Desk& desk) { desk.options.selectBy = SelectBy::outline; }); break;
    case ActionId::selectTouching: changeDesk([](Desk& desk) { desk.options.selectBy = SelectBy::touching; }); break;
    case ActionId::selectEverywhere:
      changeDesk([](Desk& desk) { desk.options.selectBy = SelectBy::everywhere; });
      break;
    case ActionId::joinsMet: changeDesk([](Desk& desk) { desk.options.joinsMet = !desk.options.joinsMet; }); break;
    case ActionId::joinAnew: joinAnew(); break;
    case ActionId::allLayers: changeDesk([](Desk& desk) { desk.options.allLayers = !desk.options.allLayers; }); break;
    case ActionId::layTiles:
    case ActionId::takeAway:
    case ActionId::takeFromMap:
    case ActionId::takeBlockFromMap:
    case ActionId::gatherTiles:
    case ActionId::joinStroke:
    case ActionId::lookInto:
    case ActionId::refitStretch:
    case ActionId::stepLook:
    case ActionId::takeStamp:
    case ActionId::panView:
    case ActionId::zoomView:
    case ActionId::scrollView:
    case ActionId::stepView:
    case ActionId::selectCells:
    case ActionId::moveCells:
    case ActionId::nudgeCells:
    case ActionId::takeFromTable:
    case ActionId::takeBlockFromTable:
    case ActionId::takeByKeys:
    case ActionId::paintByKeys:
    case ActionId::moveOverview:
    case ActionId::dropPictures:
    case ActionId::moveSheet:
    case ActionId::foldPile:
    case ActionId::spreadTable:
    case ActionId::holdTool: break;  // gestures, which the canvas and the Table carry out
  }
  if (session_) actions_->refresh(situation());
}

void Workroom::turn(Turning turning) {
  const bool selected = session_->desk().tool == Tool::select && !session_->desk().selection().empty();
  selected ? session_->verbs().selection.turn(turning) : session_->verbs().hand.turn(turning);
}

void Workroom::nextManner() {
  static constexpr Manner kManners[] = {Manner::asItIs, Manner::stretch, Manner::mix};
  HandVerbs& hand = session_->verbs().hand;
  if (session_->desk().inHand.joins()) return hand.setManner(kManners[0]);
  const auto now = std::find(std::begin(kManners), std::end(kManners), session_->desk().inHand.manner);
  if (now + 1 != std::end(kManners)) return hand.setManner(*(now + 1));
  // After the mix comes joining, where the tile does.
  hand.setManner(kManners[0]);
  hand.setJoins();
}

// What , and . step depends on the tool.
void Workroom::stepOption(int steps) {
  if (canvas_->holdsStretch()) return canvas_->stepLookAlike(steps);
  Desk desk = session_->desk();
  ToolOptions& options = desk.options;
  switch (desk.tool) {
    case Tool::brush:
    case Tool::erase:
    case Tool::line: options = withWidthStepped(options, steps, Stroke::mayLayCorners(session_->quilt(), desk.map, desk.tool, desk.inHand)); break;
    case Tool::box:
    case Tool::oval: options.outlines = !options.outlines; break;
    case Tool::select:
      options.selectBy = static_cast<SelectBy>((static_cast<int>(options.selectBy) + steps + 4) % 4);
      break;
    case Tool::pins: return;
    case Tool::fill: options.asSeen = options.asSeen ? std::nullopt : std::optional(true); break;
  }
  session_->setDesk(std::move(desk));
}

std::size_t Workroom::activeIndex() const {
  return session_->map()->layerIndex(session_->desk().activeAt().layer).value_or(0);
}

void Workroom::goToMap(int steps) {
  const std::vector<Id>& tabs = session_->desk().openMaps;
  const auto count = static_cast<std::ptrdiff_t>(tabs.size());
  const auto now = std::find(tabs.begin(), tabs.end(), session_->desk().map) - tabs.begin();
  session_->verbs().maps.goTo(tabs[static_cast<std::size_t>((now + steps + count) % count)]);
}

bool Workroom::onPins() const { return session_ && session_->desk().tool == Tool::pins; }

void Workroom::leadFrom() {
  PinVerbs& pins = session_->verbs().pins;
  if (const auto cell = canvas_->hoveredCell(); pins.chosen().empty() && cell) {
    const Id there = pins.pinAt(*cell);
    if (there.empty()) pins.placeAt(*cell);
    else pins.choose({there});
  }
  const PinAt from = pins.chosen();
  if (from.empty()) return foot_->say(tr("Choose the pin where the way begins, or point at its cell"));
  session_->verbs().maps.showBoard(true);
  board_->takeCord(from);
}

void Workroom::showThread(const LooseThread& thread) {
  const Map* map = session_->quilt().map(thread.map);
  if (!map) return;
  session_->verbs().maps.goTo(map->id);
  const Map* seen = canvas_->map();  // in the plan view of other cells
  if (!thread.cell || !seen) return;
  const PixelRect box = makeGrid(seen->grid)->cellBox(*thread.cell);
  canvas_->centreOn({box.x + box.w / 2.0, box.y + box.h / 2.0});
  canvas_->setLit(CellSet(CellRect::around(*thread.cell, *thread.cell)));
}

}  // namespace uq
