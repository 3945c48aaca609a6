#include "app/actions/ActionNeeds.h"

#include "app/actions/ActionTable.h"

#include <QCoreApplication>

#include "core/document/PlanView.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/Edgings.h"

namespace uq {

QString yes(const Situation&) { return {}; }

QString needsIdle(const Situation& s) {
  return s.busy ? translated(UQ_TEXT("A quilt is still being opened or saved")) : QString();
}

QString needsTarget(const Situation& s) {
  if (s.busy) return needsIdle(s);
  return s.quilt.all<Target>().empty() ? translated(UQ_TEXT("Nothing was set up to go out yet: Export… does that")) : QString();
}

QString needsSomethingToUndo(const Situation& s) {
  return s.undoLine.planBack(tabOf(s.desk), s.quilt) ? QString() : translated(UQ_TEXT("Nothing was done on this map yet"));
}

QString needsSomethingToRedo(const Situation& s) {
  return s.undoLine.planForth(tabOf(s.desk), s.quilt) ? QString() : translated(UQ_TEXT("Nothing was taken back here"));
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

QString needsSecondTab(const Situation& s) {
  return s.desk.openMaps.size() > 1 ? QString() : translated(UQ_TEXT("Only one map is open"));
}

QString needsLayer(const Situation& s) {
  return s.quilt.layer(s.desk.activeAt()) ? QString() : translated(UQ_TEXT("This map has no layer"));
}

static QString needsLayerBeyond(const Situation& s, bool nearer) {
  const Map* map = s.quilt.map(s.desk.map);
  const auto index = map ? map->layerIndex(s.desk.activeAt().layer) : std::nullopt;
  if (!index) return needsLayer(s);
  if (nearer && *index + 1 == map->layers.size()) return translated(UQ_TEXT("This is the nearest layer"));
  if (!nearer && *index == 0) return translated(UQ_TEXT("This is the farthest layer"));
  return {};
}

QString needsNearer(const Situation& s) { return needsLayerBeyond(s, true); }

QString needsFarther(const Situation& s) { return needsLayerBeyond(s, false); }

QString needsMerge(const Situation& s) {
  const QString why = needsLayer(s);
  return why.isEmpty() ? QString::fromStdString(whyNoMerge(s.quilt, s.desk.activeAt())) : why;
}

QString needsSomethingToDrop(const Situation& s) {
  const bool nothing = !s.inStroke && !s.holdsPaste && s.desk.selection().empty() && s.desk.tool == Tool::select;
  return nothing ? translated(UQ_TEXT("Nothing is under way, and nothing is selected")) : needsMap(s);
}

QString needsSelection(const Situation& s) {
  if (s.desk.tool == Tool::pins && !s.desk.chosenPins.empty()) return needsMap(s);
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
  const Layer* layer = s.quilt.layer(s.desk.activeAt());
  if (!layer) return needsLayer(s);
  return layer->folder.empty() ? translated(UQ_TEXT("The active layer lies in no folder and on no level")) : QString();
}

QString needsLift(const Situation& s) {
  if (const auto rows = rowsInHand(s.quilt, s.desk.inHand)) return *rows > 1 ? needsLayer(s) : translated(UQ_TEXT("It is one row high already"));
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

bool ActionRow::worksOnBoard() const {
  switch (id) {
    case ActionId::undo:
    case ActionId::redo:
    case ActionId::newMap:
    case ActionId::listMaps:
    case ActionId::zoomIn:
    case ActionId::zoomOut:
    case ActionId::wholeMap:
    case ActionId::goToBoard:
    case ActionId::tidyBoard:
    case ActionId::linen:
    case ActionId::indigo:
    case ActionId::asDesktop: return true;
    default: return menu == Menu::quilt || menu == Menu::help;
  }
}

}  // namespace uq
