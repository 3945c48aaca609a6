#include "app/actions/ActionTable.h"

#include <QCoreApplication>

#include "core/edit/ArrangeLayers.h"
#include "core/document/PlanView.h"

namespace uq {

namespace {

#define UQ_TEXT(text) QT_TRANSLATE_NOOP("actions", text)

QString yes(const Situation&) { return {}; }

QString needsIdle(const Situation& s) {
  return s.busy ? translated(UQ_TEXT("A quilt is still being opened or saved")) : QString();
}
QString needsSomethingToUndo(const Situation& s) {
  return s.undoLine.planBack(s.desk.map, s.quilt) ? QString() : translated(UQ_TEXT("Nothing was done on this map yet"));
}
QString needsSomethingToRedo(const Situation& s) {
  return s.undoLine.planForth(s.desk.map, s.quilt) ? QString() : translated(UQ_TEXT("Nothing was taken back here"));
}
QString needsSteps(const Situation& s) {
  return s.undoLine.steps().empty() ? translated(UQ_TEXT("Nothing was done to this quilt yet")) : QString();
}
QString needsHand(const Situation& s) {
  return s.desk.inHand.empty() ? translated(UQ_TEXT("Nothing is in hand: take a tile from the Table")) : QString();
}
QString needsSheets(const Situation& s) {
  return s.quilt.sheets().empty() ? translated(UQ_TEXT("This quilt has no sheet yet: drop a picture on the Table"))
                                  : QString();
}
QString needsSheetInHand(const Situation& s) {
  const bool none = s.desk.inHand.empty() || s.desk.inHand.parts().front().cell.tile().slot == kChalkSlot;
  return none ? translated(UQ_TEXT("No sheet's tile is in hand: take one from the Table")) : needsSheets(s);
}
QString needsHeldBefore(const Situation& s) {
  return s.desk.held.size() > 1 ? QString() : translated(UQ_TEXT("Nothing else was in hand before"));
}
QString needsMap(const Situation& s) {
  return s.quilt.map(s.desk.map) ? QString() : translated(UQ_TEXT("This quilt has no map yet"));
}
QString needsStraightRows(const Situation& s) {
  const Map* map = s.quilt.map(s.desk.map);
  const bool slanted = map && map->grid.kind == GridKind::diamond;
  return slanted ? translated(UQ_TEXT("The columns and rows of a diamond map are slanted")) : needsMap(s);
}
QString needsSecondTab(const Situation& s) {
  return s.desk.openMaps.size() > 1 ? QString() : translated(UQ_TEXT("Only one map is open"));
}
QString needsLayer(const Situation& s) {
  return s.quilt.layer(s.desk.landing()) ? QString() : translated(UQ_TEXT("This map has no layer"));
}
QString needsLayerBeyond(const Situation& s, bool nearer) {
  const Map* map = s.quilt.map(s.desk.map);
  const auto index = map ? map->layerIndex(s.desk.landing().layer) : std::nullopt;
  if (!index) return needsLayer(s);
  if (nearer && *index + 1 == map->layers.size()) return translated(UQ_TEXT("This is the nearest layer"));
  if (!nearer && *index == 0) return translated(UQ_TEXT("This is the farthest layer"));
  return {};
}
QString needsNearer(const Situation& s) { return needsLayerBeyond(s, true); }
QString needsFarther(const Situation& s) { return needsLayerBeyond(s, false); }
QString needsMerge(const Situation& s) {
  const QString why = needsLayer(s);
  return why.isEmpty() ? QString::fromStdString(whyNoMerge(s.quilt, s.desk.landing())) : why;
}
QString needsSomethingToDrop(const Situation& s) {
  const bool nothing = !s.inStroke && !s.holdsPaste && s.desk.selection().empty() && s.desk.tool == Tool::select;
  return nothing ? translated(UQ_TEXT("Nothing is under way, and nothing is selected")) : needsMap(s);
}
QString needsSelection(const Situation& s) {
  return s.desk.selection().empty() ? translated(UQ_TEXT("Nothing is selected: drag with Select")) : needsLayer(s);
}
QString needsCopied(const Situation& s) { return s.whyNoPaste; }
QString needsChance(const Situation& s) { return s.whyNoThrow; }
QString needsHandOrSelection(const Situation& s) {
  const bool selected = s.desk.tool == Tool::select && !s.desk.selection().empty();
  return selected ? QString() : needsHand(s);
}
QString needsSelectionAndHand(const Situation& s) {
  const QString why = needsHand(s);
  if (!why.isEmpty()) return why;
  return s.desk.selection().empty() ? translated(UQ_TEXT("Nothing is selected: drag with Select")) : needsLayer(s);
}
QString needsCorners(const Situation& s) {
  const Map* map = s.quilt.map(s.desk.map);
  if (!map) return needsMap(s);
  const bool meet = map->grid.kind == GridKind::orthogonal || map->grid.kind == GridKind::diamond;
  return meet ? QString() : translated(UQ_TEXT("Only on squares and diamonds do four cells meet in a corner"));
}
QString needsLevel(const Situation& s) {
  const Layer* layer = s.quilt.layer(s.desk.landing());
  if (!layer) return needsLayer(s);
  return layer->folder.empty() ? translated(UQ_TEXT("The active layer lies in no folder and on no level")) : QString();
}
QString needsLift(const Situation& s) {
  return s.desk.lift > 0 ? needsLayer(s) : translated(UQ_TEXT("Nothing is lifted: strokes lie on their layer"));
}
QString needsOtherBoxes(const Situation& s) {
  const Map* map = s.quilt.map(s.desk.map);
  if (!map) return needsMap(s);
  const bool squares = map->grid.kind == GridKind::orthogonal;
  return squares ? translated(UQ_TEXT("On squares every box lies along the grid")) : QString();
}
QString needsSlantedMap(const Situation& s) {
  const Map* map = s.quilt.map(s.desk.map);
  if (!map) return needsMap(s);
  return hasPlan(map->grid.kind) ? QString() : translated(UQ_TEXT("Only isometric maps look different from above"));
}
QString needsChange(const Situation& s) {
  return s.busy ? needsIdle(s) : s.saved ? translated(UQ_TEXT("Everything is saved")) : QString();
}

constexpr ActionRow kTable[] = {
    {ActionId::newQuilt, "new-quilt", UQ_TEXT("New quilt…"), UQ_TEXT("Begin a quilt in a folder of its own"),
     "new-quilt", "Ctrl+N", Menu::quilt, ActsIn::anywhere, false, false, needsIdle, kWorksAlone},
    {ActionId::openQuilt, "open-quilt", UQ_TEXT("Open quilt…"), UQ_TEXT("Open another quilt's folder"), "open-quilt",
     "Ctrl+Shift+O", Menu::quilt, ActsIn::anywhere, false, false, needsIdle, kWorksAlone},
    {ActionId::newWindow, "new-window", UQ_TEXT("Another window"),
     UQ_TEXT("Open a window for another quilt beside this one"), "new-window", "Ctrl+Shift+N", Menu::quilt,
     ActsIn::anywhere, false, false, yes, kWorksAlone},
    {ActionId::saveQuilt, "save-quilt", UQ_TEXT("Save"), UQ_TEXT("Save every map and sheet that changed"), "save",
     "Ctrl+S", Menu::quilt, ActsIn::anywhere, false, false, needsChange, kOpensGroup},
    {ActionId::saveQuiltAs, "save-quilt-as", UQ_TEXT("Save as…"), UQ_TEXT("Save the whole quilt in another folder"),
     "save-as", "Ctrl+Shift+S", Menu::quilt, ActsIn::anywhere, false, false, needsIdle},
    {ActionId::bringIn, "bring-in", UQ_TEXT("Bring in…"),
     UQ_TEXT("Bring pictures in: a tile sheet, single pictures, or a folder of them"), "bring-in", "Ctrl+I",
     Menu::quilt, ActsIn::anywhere, false, false, needsIdle, kOpensGroup},
    {ActionId::sheetCard, "show-sheet", UQ_TEXT("The sheet in hand…"),
     UQ_TEXT("See and change the cut and the facts of the sheet that is in hand"), "sheet-card", "", Menu::quilt,
     ActsIn::anywhere, false, false, needsSheetInHand},
    {ActionId::tidySheet, "tidy-sheet", UQ_TEXT("Tidy the sheet in hand…"),
     UQ_TEXT("Find its blank, stray, double and unused tiles"), "tidy", "", Menu::quilt, ActsIn::anywhere, false, false,
     needsSheetInHand},
    {ActionId::exportSheet, "export-sheet", UQ_TEXT("Export the sheet in hand…"),
     UQ_TEXT("Write its tiles into a picture, in the order and with the columns you choose"), "export", "", Menu::quilt,
     ActsIn::anywhere, false, false, needsSheetInHand},
    {ActionId::closeWindow, "close-window", UQ_TEXT("Close the window"), UQ_TEXT("Close this quilt and its window"),
     "close", "Ctrl+Q", Menu::quilt, ActsIn::anywhere, false, false, yes, kWorksAlone | kOpensGroup},

    {ActionId::undo, "undo-step", UQ_TEXT("Undo"), UQ_TEXT("Take the newest step on this map back"), "undo", "Ctrl+Z",
     Menu::edit, ActsIn::anywhere, true, false, needsSomethingToUndo},
    {ActionId::redo, "redo-step", UQ_TEXT("Redo"), UQ_TEXT("Lay back what was taken back last"), "redo", "Ctrl+Shift+Z",
     Menu::edit, ActsIn::anywhere, true, false, needsSomethingToRedo},
    {ActionId::listSteps, "list-steps", UQ_TEXT("Steps…"), UQ_TEXT("List what was done, and go back to any step"),
     "steps", "Ctrl+Alt+Z", Menu::edit, ActsIn::anywhere, true, false, needsSteps},
    {ActionId::turnLeft, "turn-left", UQ_TEXT("Turn left"),
     UQ_TEXT("Turn what is in hand to the left; with Select, the selected cells"), "turn-left", "Q", Menu::edit,
     ActsIn::canvas, false, false, needsHandOrSelection, kOpensGroup},
    {ActionId::turnRight, "turn-right", UQ_TEXT("Turn right"),
     UQ_TEXT("Turn what is in hand to the right; with Select, the selected cells"), "turn-right", "E", Menu::edit,
     ActsIn::canvas, false, false, needsHandOrSelection},
    {ActionId::mirrorAcross, "mirror-across", UQ_TEXT("Mirror across"),
     UQ_TEXT("Mirror what is in hand, or with Select the selected cells: left becomes right"), "mirror-across", "A",
     Menu::edit, ActsIn::canvas, false, false, needsHandOrSelection},
    {ActionId::mirrorDown, "mirror-down", UQ_TEXT("Mirror down"),
     UQ_TEXT("Mirror what is in hand, or with Select the selected cells: top becomes bottom"), "mirror-down", "D",
     Menu::edit, ActsIn::canvas, false, false, needsHandOrSelection},
    {ActionId::nextManner, "next-manner", UQ_TEXT("Another manner"),
     UQ_TEXT("Lay what is in hand as it is, as a stretch with ends and a middle, or as a mix by chance"), "stretch",
     "M", Menu::edit, ActsIn::canvas, false, false, needsHand},
    {ActionId::keepStamp, "keep-stamp", UQ_TEXT("Keep as a stamp"),
     UQ_TEXT("Keep what is in hand on the Table, to be used on every map"), "stamp", "K", Menu::edit, ActsIn::canvas,
     true, false, needsHand},
    {ActionId::turnByChance, "turn-by-chance", UQ_TEXT("Turned by chance"),
     UQ_TEXT("Let each cell, or each copy of a block, come turned by chance"), "chance", "R", Menu::edit,
     ActsIn::canvas, false, false, needsHand},
    {ActionId::throwAgain, "throw-again", UQ_TEXT("Throw again"),
     UQ_TEXT("Another outcome of chance, for the selection or else for the last stroke"), "throw", "Shift+R",
     Menu::edit, ActsIn::canvas, true, false, needsChance},
    {ActionId::straighten, "straighten-hand", UQ_TEXT("Straighten"), UQ_TEXT("Lay what is in hand straight again"), "",
     "Shift+Q", Menu::edit, ActsIn::canvas, false, false, needsHand},
    {ActionId::liftHigher, "lift-higher", UQ_TEXT("Lift higher"),
     UQ_TEXT("Lay the next strokes higher above their layer"), "lift-higher", "PgUp", Menu::edit, ActsIn::canvas, false,
     false, needsLayer},
    {ActionId::liftLower, "lift-lower", UQ_TEXT("Lift lower"), UQ_TEXT("Lay the next strokes nearer to their layer"),
     "lift-lower", "PgDown", Menu::edit, ActsIn::canvas, false, false, needsLift},
    {ActionId::heldBefore, "take-held-before", UQ_TEXT("What was held before"),
     UQ_TEXT("Take the thing that was in hand before this one"), "", "X", Menu::edit, ActsIn::canvas, false, false,
     needsHeldBefore},
    {ActionId::cutCells, "cut-cells", UQ_TEXT("Cut"),
     UQ_TEXT("Copy the selected cells of the active layer, and empty them"), "cut", "Ctrl+X", Menu::edit,
     ActsIn::anywhere, true, false, needsSelection},
    {ActionId::copyCells, "copy-cells", UQ_TEXT("Copy"), UQ_TEXT("Copy the selected cells of the active layer"), "copy",
     "Ctrl+C", Menu::edit, ActsIn::anywhere, false, false, needsSelection},
    {ActionId::pasteCells, "paste-cells", UQ_TEXT("Paste"), UQ_TEXT("Take what was copied into the hand"), "paste",
     "Ctrl+V", Menu::edit, ActsIn::anywhere, false, false, needsCopied},
    {ActionId::duplicateCells, "duplicate-cells", UQ_TEXT("Duplicate"),
     UQ_TEXT("Take a copy of the selected cells into the hand"), "copy", "Ctrl+D", Menu::edit, ActsIn::anywhere, false,
     false, needsSelection},
    {ActionId::fillCells, "fill-cells", UQ_TEXT("Fill the selection"),
     UQ_TEXT("Lay what is in hand on every selected cell"), "fill", "Shift+4", Menu::edit, ActsIn::canvas, true, false,
     needsSelectionAndHand},
    {ActionId::selectionNearer, "move-cells-nearer", UQ_TEXT("To the layer nearer"),
     UQ_TEXT("Move the selected cells to the next layer nearer"), "layer-nearer", "Shift+W", Menu::edit, ActsIn::canvas,
     true, false, needsSelection},
    {ActionId::selectionFarther, "move-cells-farther", UQ_TEXT("To the layer farther"),
     UQ_TEXT("Move the selected cells to the next layer farther"), "layer-farther", "Shift+S", Menu::edit,
     ActsIn::canvas, true, false, needsSelection},
    {ActionId::deleteCells, "delete-cells", UQ_TEXT("Delete"), UQ_TEXT("Empty the selected cells of the active layer"),
     "delete", "Del", Menu::edit, ActsIn::canvas, true, false, needsSelection},
    {ActionId::selectAll, "select-all", UQ_TEXT("Select all"), UQ_TEXT("Select every cell of the map"), "select-all",
     "Ctrl+A", Menu::edit, ActsIn::anywhere, false, false, needsMap},
    {ActionId::growSelection, "grow-selection", UQ_TEXT("Grow the selection"),
     UQ_TEXT("Add the cells beside what is selected"), "", "Shift+.", Menu::edit, ActsIn::canvas, false, false,
     needsSelection},
    {ActionId::shrinkSelection, "shrink-selection", UQ_TEXT("Shrink the selection"),
     UQ_TEXT("Take the outermost cells off what is selected"), "", "Shift+,", Menu::edit, ActsIn::canvas, false, false,
     needsSelection},
    {ActionId::invertSelection, "invert-selection", UQ_TEXT("Select the others"),
     UQ_TEXT("Select what is not selected, and nothing that is"), "", "Ctrl+Shift+A", Menu::edit, ActsIn::anywhere,
     false, false, needsMap},
    {ActionId::boxAlongGrid, "box-along-grid", UQ_TEXT("Boxes along the grid"),
     UQ_TEXT("Let boxes follow the ways of the grid, or lie as they are seen"), "box-along", "", Menu::edit,
     ActsIn::anywhere, false, false, needsOtherBoxes},
    {ActionId::dropWork, "drop-work", UQ_TEXT("Drop"),
     UQ_TEXT("Drop the stroke under way, else the paste, else the selection; then choose Select"), "", "Esc",
     Menu::edit, ActsIn::canvas, false, false, needsSomethingToDrop},

    {ActionId::newMap, "new-map", UQ_TEXT("New map…"), UQ_TEXT("Add a map to this quilt"), "plus", "Ctrl+M", Menu::map,
     ActsIn::anywhere, true, false, yes},
    {ActionId::listMaps, "list-maps", UQ_TEXT("Maps…"), UQ_TEXT("Find and open any map of this quilt"), "maps",
     "Ctrl+O", Menu::map, ActsIn::anywhere, false, false, needsMap},
    {ActionId::mapFacts, "map-facts", UQ_TEXT("About the map…"),
     UQ_TEXT("Its name for players, the cloth behind its layers, the screen and the camera"), "", "Alt+Return", Menu::map,
     ActsIn::anywhere, false, false, needsMap, kOpensGroup},
    {ActionId::exportMap, "export-map", UQ_TEXT("Export the map…"),
     UQ_TEXT("Write it as one picture, or as a layered one for painting programs"), "export", "", Menu::map,
     ActsIn::anywhere, false, false, needsMap},
    {ActionId::renameMap, "rename-map", UQ_TEXT("Rename the map…"), UQ_TEXT("Give this map another name"), "rename", "",
     Menu::map, ActsIn::anywhere, true, false, needsMap, kOpensGroup},
    {ActionId::duplicateMap, "duplicate-map", UQ_TEXT("Duplicate the map"), UQ_TEXT("Add a copy of this map"), "copy",
     "", Menu::map, ActsIn::anywhere, true, false, needsMap},
    {ActionId::deleteMap, "delete-map", UQ_TEXT("Delete the map"), UQ_TEXT("Delete this map with all its layers"),
     "delete", "", Menu::map, ActsIn::anywhere, true, false, needsMap},
    {ActionId::openWithMap, "open-with-map", UQ_TEXT("Open the quilt with this map"),
     UQ_TEXT("Whoever opens the quilt for the first time sees this map first"), "", "", Menu::map, ActsIn::anywhere,
     true, false, needsMap},
    {ActionId::closeMap, "close-map", UQ_TEXT("Close the map's tab"),
     UQ_TEXT("Take this map's tab away; the map stays in the quilt"), "", "Ctrl+W", Menu::map, ActsIn::anywhere, false,
     false, needsSecondTab, kOpensGroup},
    {ActionId::nextMap, "next-map", UQ_TEXT("Next map"), UQ_TEXT("Go to the map in the next tab"), "", "Ctrl+PgDown",
     Menu::map, ActsIn::anywhere, false, false, needsSecondTab},
    {ActionId::previousMap, "previous-map", UQ_TEXT("Previous map"), UQ_TEXT("Go to the map in the tab before"), "",
     "Ctrl+PgUp", Menu::map, ActsIn::anywhere, false, false, needsSecondTab},

    {ActionId::nearerLayer, "nearer-layer", UQ_TEXT("Next layer nearer"),
     UQ_TEXT("Paint on the next layer towards you"), "", "W", Menu::layers, ActsIn::canvas, false, false, needsNearer},
    {ActionId::fartherLayer, "farther-layer", UQ_TEXT("Next layer farther"),
     UQ_TEXT("Paint on the next layer away from you"), "", "S", Menu::layers, ActsIn::canvas, false, false,
     needsFarther},
    {ActionId::addLayer, "add-layer", UQ_TEXT("Add a layer"), UQ_TEXT("Add a layer in front of the active one"),
     "layer-add", "", Menu::layers, ActsIn::anywhere, true, false, needsMap},
    {ActionId::hangPicture, "hang-picture", UQ_TEXT("Hang a picture…"),
     UQ_TEXT("Hang a picture behind all layers; dropping it on the map asks the same"), "", "", Menu::layers,
     ActsIn::anywhere, false, false, needsMap},
    {ActionId::hangSheet, "hang-sheet", UQ_TEXT("Hang the sheet in hand"),
     UQ_TEXT("Hang the whole picture of the sheet in hand behind all layers"), "", "", Menu::layers, ActsIn::anywhere,
     true, false, needsSheetInHand},
    {ActionId::addPins, "add-pins-layer", UQ_TEXT("Add a layer for pins"),
     UQ_TEXT("Add a layer on which things stand that are no tiles"), "layer-add", "", Menu::layers, ActsIn::anywhere,
     true, false, needsMap},
    {ActionId::duplicateLayer, "duplicate-layer", UQ_TEXT("Duplicate the layer"),
     UQ_TEXT("Add a copy of the active layer in front of it"), "copy", "", Menu::layers, ActsIn::anywhere, true, false,
     needsLayer},
    {ActionId::renameLayer, "rename-layer", UQ_TEXT("Rename the layer"), UQ_TEXT("Give the active layer another name"),
     "rename", "F2", Menu::layers, ActsIn::canvas, false, false, needsLayer},
    {ActionId::layerNearer, "move-layer-nearer", UQ_TEXT("Move the layer nearer"),
     UQ_TEXT("Put the active layer in front of the next one"), "layer-nearer", "Ctrl+Up", Menu::layers,
     ActsIn::anywhere, true, false, needsNearer},
    {ActionId::layerFarther, "move-layer-farther", UQ_TEXT("Move the layer farther"),
     UQ_TEXT("Put the active layer behind the next one"), "layer-farther", "Ctrl+Down", Menu::layers, ActsIn::anywhere,
     true, false, needsFarther},
    {ActionId::mergeDown, "merge-layer-down", UQ_TEXT("Merge the layer down"),
     UQ_TEXT("Lay its tiles on the layer behind it, and make both one"), "", "Ctrl+Shift+Down", Menu::layers, ActsIn::anywhere,
     true, false, needsMerge},
    {ActionId::deleteLayer, "delete-layer", UQ_TEXT("Delete the layer"),
     UQ_TEXT("Delete the active layer with all its tiles"), "delete", "", Menu::layers, ActsIn::anywhere, true, false,
     needsLayer},
    {ActionId::listRoles, "list-roles", UQ_TEXT("What layers are for…"),
     UQ_TEXT("Name, order and drop the roles that layers of this quilt can have"), "", "", Menu::layers,
     ActsIn::anywhere, false, false, needsMap},
    {ActionId::foldLayers, "put-layers-in-folder", UQ_TEXT("Put in a folder"),
     UQ_TEXT("Put the active layer, and those chosen beside it, in a folder of the Stack"), "folder", "Ctrl+G",
     Menu::layers, ActsIn::anywhere, true, false, needsLayer, kOpensGroup},
    {ActionId::unfold, "take-folder-away", UQ_TEXT("Take the folder away, not its layers"),
     UQ_TEXT("Let what is in the folder of the active layer lie where it lies"), "", "Ctrl+Shift+G", Menu::layers,
     ActsIn::anywhere, true, false, needsLevel},
    {ActionId::addLevel, "add-level", UQ_TEXT("Add a level"),
     UQ_TEXT("Add a level above that of the active layer, risen by one step"), "level-add", "Ctrl+L", Menu::layers,
     ActsIn::anywhere, true, false, needsLayer},
    {ActionId::renameLevel, "rename-level", UQ_TEXT("Rename the folder or level"),
     UQ_TEXT("Give the folder of the active layer another name"), "rename", "", Menu::layers, ActsIn::anywhere, false,
     false, needsLevel},
    {ActionId::deleteLevel, "delete-level", UQ_TEXT("Delete the folder or level"),
     UQ_TEXT("Delete the folder of the active layer with all its layers"), "delete", "", Menu::layers, ActsIn::anywhere,
     true, false, needsLevel},
    {ActionId::toggleEye, "toggle-eye", UQ_TEXT("Hide or show the layer"),
     UQ_TEXT("Shut or open the eye of the active layer"), "eye-open", "", Menu::layers, ActsIn::anywhere, false, false,
     needsLayer, kOpensGroup},
    {ActionId::toggleLock, "toggle-lock", UQ_TEXT("Lock or unlock the layer"),
     UQ_TEXT("A locked layer takes no stroke"), "lock-open", "", Menu::layers, ActsIn::anywhere, false, false,
     needsLayer},

    {ActionId::zoomIn, "zoom-in", UQ_TEXT("Zoom in"), UQ_TEXT("Show the map larger"), "zoom-in", "Ctrl++", Menu::view,
     ActsIn::anywhere, false, false, needsMap},
    {ActionId::zoomOut, "zoom-out", UQ_TEXT("Zoom out"), UQ_TEXT("Show the map smaller"), "zoom-out", "Ctrl+-",
     Menu::view, ActsIn::anywhere, false, false, needsMap},
    {ActionId::wholeMap, "whole-map", UQ_TEXT("Whole map"), UQ_TEXT("Fit the whole map into the canvas"), "whole-map",
     "F", Menu::view, ActsIn::canvas, false, false, needsMap},
    {ActionId::fitSelection, "fit-selection", UQ_TEXT("The selection"), UQ_TEXT("Fit what is selected into the canvas"),
     "", "Shift+F", Menu::view, ActsIn::canvas, false, false, needsSelection},
    {ActionId::fullSize, "full-size", UQ_TEXT("100 %"), UQ_TEXT("Show each pixel of the map as one; again, as large as the game shows it"), "", "0",
     Menu::view, ActsIn::canvas, false, false, needsMap},
    {ActionId::gridLines, "grid-lines", UQ_TEXT("Grid lines"), UQ_TEXT("Show or hide the outlines of the cells"),
     "grid-lines", "G", Menu::view, ActsIn::canvas, false, false, needsMap, kOpensGroup},
    {ActionId::rulers, "rulers", UQ_TEXT("Rulers"), UQ_TEXT("Show or hide the counted columns and rows at the edges"),
     "rulers", "", Menu::view, ActsIn::anywhere, false, false, needsStraightRows},
    {ActionId::fadeOthers, "fade-others", UQ_TEXT("Fade the other layers"),
     UQ_TEXT("Make all layers but the active one faint"), "fade", "Z", Menu::view, ActsIn::canvas, false, false,
     needsLayer},

    {ActionId::colourByHeight, "colour-by-height", UQ_TEXT("Colour by height"),
     UQ_TEXT("Layers behind the active one turn cool, those in front warm"), "", "Shift+Z", Menu::view, ActsIn::canvas,
     false, false, needsLayer},
    {ActionId::screenFrame, "screen-frame", UQ_TEXT("Screen frame"),
     UQ_TEXT("Show what the player's screen shows, and every layer moved as there; drag the frame to move the camera"),
     "screen-frame", "B", Menu::view, ActsIn::canvas, false, false, needsMap},
    {ActionId::playCamera, "play-camera", UQ_TEXT("Move the camera by itself"),
     UQ_TEXT("Let the screen frame go along the edges of the map, or stop it"), "", "Shift+B", Menu::view,
     ActsIn::canvas, false, false, needsMap},
    {ActionId::planView, "plan-view", UQ_TEXT("Plan view"),
     UQ_TEXT("See a slanted map from straight above, as squares"), "plan-view", "P", Menu::view, ActsIn::canvas, false,
     false, needsSlantedMap},
    {ActionId::playFrames, "play-frames", UQ_TEXT("Play animated tiles"),
     UQ_TEXT("Show the frames of animated tiles in turn, on the map and on the Table"), "play", "", Menu::view,
     ActsIn::anywhere, false, false, needsMap},
    {ActionId::goToTable, "go-to-table", UQ_TEXT("The Table over the map, and back"),
     UQ_TEXT("Spread the Table over the map; held, it springs back"), "", "T", Menu::view, ActsIn::canvas, false, false,
     yes, kOpensGroup},
    {ActionId::searchTable, "search-table", UQ_TEXT("Find a tile…"),
     UQ_TEXT("Find tiles by name, tag, sheet, number, Footing or colour"), "search", "Ctrl+F", Menu::view,
     ActsIn::anywhere, false, false, yes},
    {ActionId::usedHere, "show-used", UQ_TEXT("Used here"),
     UQ_TEXT("Show the tiles of this map on the Table, those used most first"), "used-here", "", Menu::view,
     ActsIn::anywhere, false, false, needsMap},
    {ActionId::fitsHere, "show-fitting", UQ_TEXT("Fits here"),
     UQ_TEXT("Show the tiles that join the neighbours of the cell under the pointer"), "fits-here", "", Menu::view,
     ActsIn::anywhere, false, false, needsMap},
    {ActionId::looseJoints, "show-loose-joints", UQ_TEXT("Loose joints"),
     UQ_TEXT("Stitch over the sides where a picture is cut off and its sheet has the tile that belongs there"), "", "J",
     Menu::check, ActsIn::canvas, false, false, needsMap},
    {ActionId::coveredCells, "show-covered-cells", UQ_TEXT("Covered cells"),
     UQ_TEXT("Hatch the cells of the active layer that nearer layers hide whole"), "", "", Menu::check,
     ActsIn::anywhere, false, false, needsLayer},
    {ActionId::stripCovered, "strip-covered-cells", UQ_TEXT("Strip covered cells"),
     UQ_TEXT("Take the cells of the active layer away that nobody can see"), "", "", Menu::check, ActsIn::anywhere,
     true, false, needsLayer},
    {ActionId::holes, "show-holes", UQ_TEXT("Holes"),
     UQ_TEXT("Hatch the cells where nothing covers the cloth; on maps with levels, the gaps between two levels"), "",
     "", Menu::check, ActsIn::anywhere, false, false, needsMap},
    {ActionId::nextJoint, "go-to-next-loose-joint", UQ_TEXT("Next loose joint"),
     UQ_TEXT("Look through the whole map, and go from one loose joint to the next"), "", "Shift+J", Menu::check,
     ActsIn::canvas, false, false, needsMap},
    {ActionId::nextPlace, "show-next-place", UQ_TEXT("Next place of the tile in hand"),
     UQ_TEXT("Go to the next cell on this map where it lies"), "", "N", Menu::view, ActsIn::canvas, false, false,
     needsHand},
    {ActionId::showLens, "show-lens", UQ_TEXT("Lens"),
     UQ_TEXT("Fan out what lies on the cell under the pointer, layer by layer"), "lens", "V", Menu::view,
     ActsIn::canvas, false, false, needsMap},
    {ActionId::linen, "theme-linen", UQ_TEXT("Linen"), UQ_TEXT("The light workroom"), "", "", Menu::view,
     ActsIn::anywhere, false, false, yes, kWorksAlone | kOpensGroup},
    {ActionId::indigo, "theme-indigo", UQ_TEXT("Indigo"), UQ_TEXT("The dark workroom"), "", "", Menu::view,
     ActsIn::anywhere, false, false, yes, kWorksAlone},
    {ActionId::asDesktop, "theme-as-desktop", UQ_TEXT("Light or dark as the desktop"),
     UQ_TEXT("Linen or indigo, whichever the desktop asks for"), "", "", Menu::view, ActsIn::anywhere, false, false,
     yes, kWorksAlone},

    {ActionId::findHelp, "find-help", UQ_TEXT("Find help or an action…"),
     UQ_TEXT("One field for everything: type what you want to do"), "help", "F1", Menu::help, ActsIn::anywhere, false,
     false, yes, kWorksAlone},
    {ActionId::listKeys, "list-keys", UQ_TEXT("Keys…"), UQ_TEXT("See all keys, and change them"), "keys", "Ctrl+F1",
     Menu::help, ActsIn::anywhere, false, false, yes, kWorksAlone},

    {ActionId::brush, "choose-brush", UQ_TEXT("Brush"), UQ_TEXT("Lay what is in hand, cell by cell"), "brush", "1",
     Menu::none, ActsIn::canvas, false, false, needsMap},
    {ActionId::erase, "choose-erase", UQ_TEXT("Erase"), UQ_TEXT("Take cells away from the active layer"), "erase", "2",
     Menu::none, ActsIn::canvas, false, false, needsMap},
    {ActionId::box, "choose-box", UQ_TEXT("Box"), UQ_TEXT("Lay a box, filled or as an outline; with Shift equal sides"),
     "box", "3", Menu::none, ActsIn::canvas, false, false, needsMap},
    {ActionId::fill, "choose-fill", UQ_TEXT("Fill"),
     UQ_TEXT("Lay what is in hand on all cells that hang together and are the same; with Shift everywhere"), "fill",
     "4", Menu::none, ActsIn::canvas, false, false, needsMap},
    {ActionId::select, "choose-select", UQ_TEXT("Select"), UQ_TEXT("Select cells, and move them"), "select", "5",
     Menu::none, ActsIn::canvas, false, false, needsMap},
    {ActionId::line, "choose-line", UQ_TEXT("Line"), UQ_TEXT("Lay a straight line; with Shift along the grid's ways"),
     "line", "6", Menu::none, ActsIn::canvas, false, false, needsMap},
    {ActionId::oval, "choose-oval", UQ_TEXT("Oval"),
     UQ_TEXT("Lay an oval, filled or as an outline; with Shift equally wide each way"), "oval", "7", Menu::none,
     ActsIn::canvas, false, false, needsMap},
    {ActionId::optionBefore, "option-before", UQ_TEXT("The tool's option before"),
     UQ_TEXT("A narrower brush, filled or outline, another way to find cells: as the tool has it"), "", ",", Menu::none,
     ActsIn::canvas, false, false, needsMap},
    {ActionId::optionAfter, "option-after", UQ_TEXT("The tool's next option"),
     UQ_TEXT("A broader brush, filled or outline, another way to find cells: as the tool has it"), "", ".", Menu::none,
     ActsIn::canvas, false, false, needsMap},
    {ActionId::outlinesOnly, "outlines-only", UQ_TEXT("Outline only"),
     UQ_TEXT("Box and Oval lay only the outermost cells"), "outlines", "", Menu::none, ActsIn::anywhere, false, false,
     needsMap},
    {ActionId::throughCorners, "through-corners", UQ_TEXT("Through corners"),
     UQ_TEXT("Cells that meet in a corner hang together, too"), "corners", "", Menu::none, ActsIn::anywhere, false,
     false, needsCorners},
    {ActionId::onlyThisTile, "only-this-tile", UQ_TEXT("Only this tile"),
     UQ_TEXT("The very tile counts as the same, not its look-alikes in a mix"), "only-this", "", Menu::none,
     ActsIn::anywhere, false, false, needsMap},
    {ActionId::regionsAsSeen, "regions-as-seen", UQ_TEXT("As seen"),
     UQ_TEXT("Look at all layers to find the same cells; else only at the active one, if it holds anything there"),
     "as-seen", "", Menu::none, ActsIn::anywhere, false, false, needsMap},
    {ActionId::selectByBox, "select-by-box", UQ_TEXT("By box"), UQ_TEXT("A drag selects a box of cells"), "select", "",
     Menu::none, ActsIn::anywhere, false, false, needsMap},
    {ActionId::selectByOutline, "select-by-outline", UQ_TEXT("By outline"),
     UQ_TEXT("A drag draws an outline around the cells to select"), "outline", "", Menu::none, ActsIn::anywhere, false,
     false, needsMap},
    {ActionId::selectTouching, "select-touching", UQ_TEXT("The same, touching"),
     UQ_TEXT("A click selects the cells that are the same and hang together"), "touching", "", Menu::none,
     ActsIn::anywhere, false, false, needsMap},
    {ActionId::selectEverywhere, "select-everywhere", UQ_TEXT("The same, everywhere"),
     UQ_TEXT("A click selects all cells of the map that are the same"), "everywhere", "", Menu::none, ActsIn::anywhere,
     false, false, needsMap},
    {ActionId::allLayers, "all-layers", UQ_TEXT("On all layers"),
     UQ_TEXT("Move, copy, cut and delete what is selected on all layers that are seen"), "all-layers", "", Menu::none,
     ActsIn::anywhere, false, false, needsMap},

    {ActionId::layTiles, "lay-tiles", UQ_TEXT("Left lays"), UQ_TEXT("Lays what is in hand on the active layer"), "",
     "left drag", Menu::none, ActsIn::canvas, true, true, needsHand},
    {ActionId::takeAway, "take-away", UQ_TEXT("Ctrl+left takes away"),
     UQ_TEXT("Takes cells away from the active layer, with any tool"), "", "Ctrl+left drag", Menu::none, ActsIn::canvas,
     true, true, needsLayer},
    {ActionId::takeFromMap, "take-from-map", UQ_TEXT("right takes"),
     UQ_TEXT("Takes the topmost tile into the hand and goes to its layer"), "", "right click", Menu::none,
     ActsIn::canvas, false, true, needsMap},
    {ActionId::takeBlockFromMap, "take-block-from-map", UQ_TEXT("right drag takes a block"),
     UQ_TEXT("Takes what lies in a box of the active layer; with Shift of all seen layers, with Ctrl cuts it"), "",
     "right drag", Menu::none, ActsIn::canvas, true, true, needsMap},
    {ActionId::gatherTiles, "gather-tiles", UQ_TEXT("Shift gathers a mix"),
     UQ_TEXT(
         "Shift+click on the Table, or Shift+right click on the map, adds a tile: each cell then takes one by chance"),
     "", "Shift+click", Menu::none, ActsIn::canvas, false, true, needsMap},
    {ActionId::joinStroke, "join-stroke", UQ_TEXT("Shift joins from the last point"),
     UQ_TEXT("Brush and Erase go on from where the last stroke ended, in a straight line"), "", "Shift+left click",
     Menu::none, ActsIn::canvas, true, true, needsHand},
    {ActionId::lookInto, "look-into", UQ_TEXT("middle click looks"),
     UQ_TEXT("Opens the Lens: what lies on each layer of the cell"), "", "middle click", Menu::none, ActsIn::canvas,
     false, true, needsMap},
    {ActionId::refitStretch, "refit-stretch", UQ_TEXT("A drag of its ends fits a stretch anew"),
     UQ_TEXT("The ends of a stretch stay until the next press; a double click with Select brings them back"), "",
     "left drag", Menu::none, ActsIn::canvas, true, true, needsMap},
    {ActionId::stepLook, "step-look", UQ_TEXT("The wheel gives an end of a stretch another look"),
     UQ_TEXT("While a stretch is dragged; , and . do it until the next press. Members of one kept mix look alike"), "",
     "wheel while dragging", Menu::none, ActsIn::canvas, true, true, needsMap},
    {ActionId::takeStamp, "take-stamp", UQ_TEXT("A double click takes a stamp"),
     UQ_TEXT("With Select: takes the whole stamp that lies there"), "", "double click", Menu::none, ActsIn::canvas,
     false, true, needsMap},
    {ActionId::panView, "pan-view", UQ_TEXT("middle drag moves the view"),
     UQ_TEXT("Moves the view; Space and left drag do too"), "", "middle drag", Menu::none, ActsIn::canvas, false, true,
     needsMap},
    {ActionId::zoomView, "zoom-view", UQ_TEXT("Ctrl+wheel zooms"), UQ_TEXT("Zooms at the pointer"), "", "Ctrl+wheel",
     Menu::none, ActsIn::canvas, false, true, needsMap},
    {ActionId::scrollView, "scroll-view", UQ_TEXT("wheel scrolls"), UQ_TEXT("Scrolls; with Shift sideways"), "",
     "wheel", Menu::none, ActsIn::canvas, false, true, needsMap},
    {ActionId::stepView, "step-view", UQ_TEXT("arrows move the view"), UQ_TEXT("Moves the view by a cell"), "",
     "arrows", Menu::none, ActsIn::canvas, false, true, needsMap},
    {ActionId::selectCells, "select-cells", UQ_TEXT("Left selects, with Shift more, with Ctrl less"),
     UQ_TEXT("Selects a rectangle of cells; with Shift adds it, with Ctrl takes it away"), "", "left drag", Menu::none,
     ActsIn::canvas, false, true, needsMap},
    {ActionId::moveCells, "move-cells", UQ_TEXT("a drag inside moves"), UQ_TEXT("Moves the selected cells"), "",
     "left drag inside", Menu::none, ActsIn::canvas, true, true, needsSelection},
    {ActionId::nudgeCells, "nudge-cells", UQ_TEXT("arrows nudge"), UQ_TEXT("Moves the selected cells by one"), "",
     "arrows", Menu::none, ActsIn::canvas, true, true, needsSelection},
    {ActionId::takeFromTable, "take-from-table", UQ_TEXT("Click takes a tile"), UQ_TEXT("Takes a tile into the hand"),
     "", "left click", Menu::none, ActsIn::canvas, false, true, yes},
    {ActionId::takeBlockFromTable, "take-block-from-table", UQ_TEXT("drag over several takes a block"),
     UQ_TEXT("Takes a block of tiles into the hand"), "", "left drag", Menu::none, ActsIn::canvas, false, true, yes},
    {ActionId::takeByKeys, "take-by-keys", UQ_TEXT("arrows and Enter take too"),
     UQ_TEXT("The arrows point at a tile, with Shift they span a block, Enter takes it"), "", "arrows, Enter",
     Menu::none, ActsIn::canvas, false, true, yes},
    {ActionId::paintByKeys, "paint-by-keys", UQ_TEXT("Enter lays, Ctrl+Enter takes away"),
     UQ_TEXT("After Tab has led to the map, the arrows move a cell cursor, with Shift they span a box"), "",
     "Tab, arrows, Enter", Menu::none, ActsIn::canvas, true, true, needsMap},
    {ActionId::moveOverview, "move-overview", UQ_TEXT("A drag in the overview moves the view"),
     UQ_TEXT("Shows that part of the map"), "", "left drag in the overview", Menu::none, ActsIn::canvas, false, true,
     needsMap},
    {ActionId::dropPictures, "drop-pictures", UQ_TEXT("Dropped pictures come in"),
     UQ_TEXT("A sheet, single pictures or a folder, dropped anywhere, lie on the Table already cut"), "", "drop",
     Menu::none, ActsIn::anywhere, true, true, yes},
    {ActionId::moveSheet, "move-sheet", UQ_TEXT("A drag of a sheet's heading moves it"),
     UQ_TEXT("Lays a sheet elsewhere on the Table; a click opens its card"), "", "left drag of a heading", Menu::none,
     ActsIn::canvas, true, true, needsSheets},
    {ActionId::foldPile, "fold-pile", UQ_TEXT("A click on a pile's name folds it"),
     UQ_TEXT("Hides or shows the sheets of that pile"), "", "left click", Menu::none, ActsIn::canvas, false, true,
     needsSheets},
    {ActionId::spreadTable, "spread-table", UQ_TEXT("T held spreads the Table"),
     UQ_TEXT("The Table lies over the map until the key is let go after the mouse was used"), "", "T held", Menu::none,
     ActsIn::canvas, false, true, yes},
    {ActionId::holdTool, "hold-tool", UQ_TEXT("A tool's key held while painting springs back"),
     UQ_TEXT("The tool from before comes back when the key is let go after the mouse was used"), "", "1 to 7 held",
     Menu::none, ActsIn::canvas, false, true, needsMap},
};

}  // namespace

namespace {

constexpr std::pair<ActionId, Tool> kTools[] = {{ActionId::brush, Tool::brush},   {ActionId::erase, Tool::erase},
                                                {ActionId::box, Tool::box},       {ActionId::fill, Tool::fill},
                                                {ActionId::select, Tool::select}, {ActionId::line, Tool::line},
                                                {ActionId::oval, Tool::oval}};

}  // namespace

std::optional<Tool> toolOf(ActionId id) {
  for (const auto& [action, tool] : kTools) {
    if (action == id) return tool;
  }
  return std::nullopt;
}

ActionId actionOf(Tool tool) {
  for (const auto& [action, one] : kTools) {
    if (one == tool) return action;
  }
  Q_UNREACHABLE();
}

std::span<const ActionRow> actionTable() { return kTable; }

const ActionRow& actionRow(ActionId id) {
  for (const ActionRow& row : kTable) {
    if (row.id == id) return row;
  }
  Q_UNREACHABLE();
}

QString translated(const char* text) { return QCoreApplication::translate("actions", text); }

QString menuText(Menu menu) {
  switch (menu) {
    case Menu::none: break;
    case Menu::quilt: return translated(UQ_TEXT("&Quilt"));
    case Menu::edit: return translated(UQ_TEXT("&Edit"));
    case Menu::map: return translated(UQ_TEXT("&Map"));
    case Menu::layers: return translated(UQ_TEXT("&Layers"));
    case Menu::view: return translated(UQ_TEXT("&View"));
    case Menu::check: return translated(UQ_TEXT("&Check"));
    case Menu::help: return translated(UQ_TEXT("&Help"));
  }
  return {};
}

}  // namespace uq
