#include "app/workroom/PaneKeys.h"

#include <QApplication>

namespace uq {

namespace {

bool canHave(const QWidget* widget) {
  return widget && widget->isVisible() && widget->isEnabled() && (widget->focusPolicy() & Qt::TabFocus);
}

}  // namespace

void PaneKeys::add(QWidget* pane, QWidget* entry) { panes_.push_back({pane, entry, {}}); }

QWidget* PaneKeys::wayIn(const Pane& pane) const {
  if (!pane.widget->isVisible()) return nullptr;
  if (canHave(pane.left)) return pane.left;
  if (canHave(pane.entry)) return pane.entry;
  if (canHave(pane.widget)) return pane.widget;
  for (QWidget* at = pane.widget->nextInFocusChain(); at != pane.widget; at = at->nextInFocusChain()) {
    if (pane.widget->isAncestorOf(at) && canHave(at)) return at;
  }
  return nullptr;
}

bool PaneKeys::go(bool next) {
  QWidget* focus = QApplication::focusWidget();
  const auto count = panes_.size();
  std::size_t now = next ? count - 1 : 0;
  // The innermost: sentences lie in the Stack.
  for (std::size_t i = 0; i < count; ++i) {
    QWidget* pane = panes_[i].widget;
    const bool holds = focus && (pane == focus || pane->isAncestorOf(focus));
    if (holds && (now >= count || !panes_[now].widget->isAncestorOf(focus) || panes_[now].widget->isAncestorOf(pane))) now = i;
  }
  if (focus && panes_[now].widget->isAncestorOf(focus)) panes_[now].left = focus;
  for (std::size_t step = 1; step <= count; ++step) {
    const std::size_t i = (now + (next ? step : count - step)) % count;
    QWidget* in = wayIn(panes_[i]);
    if (!in || in == focus) continue;
    in->setFocus(next ? Qt::TabFocusReason : Qt::BacktabFocusReason);
    return true;
  }
  return false;
}

}  // namespace uq
