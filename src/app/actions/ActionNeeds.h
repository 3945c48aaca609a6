// ActionNeeds: why an action cannot be done now, one function for each thing that it needs; words for the person at the
// screen, empty where it can.
#pragma once

#include <QString>

#include "app/actions/ActionTable.h"

// A text of the table and of these, for translation.
#define UQ_TEXT(text) QT_TRANSLATE_NOOP("actions", text)

namespace uq {

QString yes(const Situation& s);
QString needsIdle(const Situation& s);
QString needsTarget(const Situation& s);
QString needsSomethingToUndo(const Situation& s);
QString needsSomethingToRedo(const Situation& s);
QString needsSteps(const Situation& s);
QString needsHand(const Situation& s);
QString needsSheets(const Situation& s);
QString needsSheetInHand(const Situation& s);
QString needsHeldBefore(const Situation& s);
QString needsMap(const Situation& s);
QString needsSecondTab(const Situation& s);
QString needsLayer(const Situation& s);
QString needsNearer(const Situation& s);
QString needsFarther(const Situation& s);
QString needsMerge(const Situation& s);
QString needsSomethingToDrop(const Situation& s);
QString needsSelection(const Situation& s);
QString needsCopied(const Situation& s);
QString needsChance(const Situation& s);
QString needsHandOrSelection(const Situation& s);
QString needsSelectionAndHand(const Situation& s);
QString needsCorners(const Situation& s);
QString needsLevel(const Situation& s);
QString needsLift(const Situation& s);
QString needsOtherBoxes(const Situation& s);
QString needsSlantedMap(const Situation& s);
QString needsChange(const Situation& s);

}  // namespace uq
