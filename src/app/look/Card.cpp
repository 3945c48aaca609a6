#include "app/look/Card.h"

namespace uq {

bool Card::focusNextPrevChild(bool next) {
  QWidget* from = focusWidget() ? focusWidget() : this;
  QWidget* at = from;
  do {
    at = next ? at->nextInFocusChain() : at->previousInFocusChain();
    const bool stops = isAncestorOf(at) && (at->focusPolicy() & Qt::TabFocus) && at->isEnabled() && at->isVisibleTo(this);
    if (!stops || at->focusProxy()) continue;
    at->setFocus(next ? Qt::TabFocusReason : Qt::BacktabFocusReason);
    return true;
  } while (at != from);
  return true;
}

}  // namespace uq
