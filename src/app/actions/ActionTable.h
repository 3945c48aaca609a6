// The action table: everything that a person can do, one row each.
//
// Menus, tape, keys and the foot line are made from these rows; no widget makes an action of its own. A row is either a
// command (a menu entry, a key, a button) or a gesture (a drag, a click, the wheel), which is listed so that it can be
// explained. `when` says why a command cannot be done now, which becomes the tip of the grey entry; empty means it can.
#pragma once

#include <QString>
#include <span>

#include "core/document/Desk.h"
#include "core/history/UndoLine.h"

namespace uq {

enum class ActionId {
  newQuilt,
  pins,
  leadFrom,
  beginHere,
  comeBack,
  goOn,
  looseThreads,
  newWindow,
  openQuilt,
  saveQuilt,
  saveQuiltAs,
  packQuilt,
  openPacked,
  closeWindow,
  undo,
  redo,
  listSteps,
  dropWork,
  selectAll,
  cutCells,
  copyCells,
  pasteCells,
  bringIn,
  saveEachMinutes,
  saveOnLeaving,
  sheetCard,
  joinThese,
  tidySheet,
  exportSheet,
  exportTargets,
  exportAgain,
  importMap,
  film,
  searchTable,
  usedHere,
  fitsHere,
  coveredCells,
  holes,
  stripCovered,
  colourByHeight,
  exportMap,
  looseJoints,
  nextJoint,
  closeJoint,
  closeJoints,
  nextPlace,
  heldBefore,
  playFrames,
  duplicateCells,
  fillCells,
  deleteCells,
  selectionNearer,
  selectionFarther,
  growSelection,
  shrinkSelection,
  invertSelection,
  turnByChance,
  throwAgain,
  nextManner,
  keepStamp,
  takeSeen,
  showLens,
  turnLeft,
  turnRight,
  mirrorAcross,
  mirrorDown,
  straighten,
  liftHigher,
  liftLower,
  newMap,
  listMaps,
  renameMap,
  duplicateMap,
  deleteMap,
  mapSize,
  cellSize,
  goToBoard,
  tidyBoard,
  wrapsAcross,
  wrapsDown,
  checkSizes,
  cutToUsed,
  dropAllowance,
  insertColumns,
  insertRows,
  removeColumns,
  removeRows,
  linesOfLayer,
  openWithMap,
  closeMap,
  nextMap,
  previousMap,
  nearerLayer,
  fartherLayer,
  addLayer,
  duplicateLayer,
  renameLayer,
  layerNearer,
  layerFarther,
  deleteLayer,
  listRoles,
  foldLayers,
  unfold,
  addLevel,
  renameLevel,
  deleteLevel,
  toggleEye,
  toggleLock,
  zoomIn,
  zoomOut,
  wholeMap,
  goToTable,
  fitSelection,
  fullSize,
  gridLines,
  rulers,
  fadeOthers,
  showAllowance,
  screenFrame,
  playCamera,
  mapFacts,
  hangPicture,
  hangSheet,
  addPins,
  mergeDown,
  planView,
  foldTable,
  foldStack,
  mapAlone,
  nextPane,
  previousPane,
  boxAlongGrid,
  linen,
  indigo,
  asDesktop,
  findHelp,
  listKeys,
  brush,
  erase,
  box,
  fill,
  select,
  line,
  oval,
  optionBefore,
  optionAfter,
  outlinesOnly,
  throughCorners,
  onlyThisMap,
  onlyThisTile,
  sameStamp,
  wholePile,
  swapTiles,
  regionsAsSeen,
  selectByBox,
  selectByOutline,
  selectTouching,
  selectEverywhere,
  allLayers,
  joinsMet,
  joinAnew,
  layTiles,
  takeAway,
  takeFromMap,
  takeBlockFromMap,
  gatherTiles,
  joinStroke,
  lookInto,
  refitStretch,
  stepLook,
  takeStamp,
  panView,
  zoomView,
  scrollView,
  stepView,
  selectCells,
  moveCells,
  nudgeCells,
  takeFromTable,
  takeBlockFromTable,
  takeByKeys,
  paintByKeys,
  moveOverview,
  holdTool,
  dropPictures,
  moveSheet,
  foldPile,
  spreadTable,
};

enum class Menu { none, quilt, edit, map, layers, view, check, help };

// Where the keys of a row act: single letters and digits only on canvas and Table, never in a field.
enum class ActsIn { anywhere, canvas };

// What `when` looks at.
struct Situation {
  const Quilt& quilt;
  const Desk& desk;
  const UndoLine& undoLine;
  bool saved = true;
  bool inStroke = false;
  bool busy = false;  // a quilt is being opened or saved
  bool holdsPaste = false;
  QString whyNoPaste = {};
  QString whyNoThrow = {};
};

inline constexpr unsigned kWorksAlone = 1;  // also while no quilt is open; `when` does not count then
inline constexpr unsigned kOpensGroup = 2;  // a line stands above it in its menu

struct ActionRow {
  ActionId id;
  const char* name;  // verb-noun, for settings and tests
  const char* text;  // menu entry; for a gesture, what it does
  const char* tip;
  const char* icon;  // in icons/, or empty
  const char* keys;  // as QKeySequence spells them, or empty; for a gesture, the hand movement
  Menu menu;
  ActsIn actsIn;
  bool changesQuilt;
  bool gesture;
  QString (*when)(const Situation&);
  unsigned traits = 0;

  bool worksAlone() const { return traits & kWorksAlone; }
  bool opensGroup() const { return traits & kOpensGroup; }
  // Whether it can be done while the Board is looked at.
  bool worksOnBoard() const;
};

// The tool that an action chooses, and back.
std::optional<Tool> toolOf(ActionId id);
ActionId actionOf(Tool tool);

std::span<const ActionRow> actionTable();
const ActionRow& actionRow(ActionId id);

// Texts of the table in the user's language.
QString translated(const char* text);

// The menus in their order, with the text of each.
QString menuText(Menu menu);

}  // namespace uq
