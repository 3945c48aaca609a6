#include "app/look/Card.h"

#include <QLayout>

#include "app/look/Theme.h"

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

void Card::coverMap(QSize least) {
  parentWidget()->layout()->activate();
  const auto* tape = parentWidget()->findChild<QWidget*>(QStringLiteral("tape"));
  const int high = (tape ? tape->y() : parentWidget()->height()) - 2 * kGap;
  setGeometry(kGap, kGap, std::max(least.width(), parentWidget()->width() - 2 * kGap), std::max(least.height(), high));
}

}  // namespace uq
