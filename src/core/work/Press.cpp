#include "core/work/Press.h"

namespace uq {

bool takesAway(const Work& work, bool ctrl, bool exchanged) {
  return work.desk().tool == Tool::erase || (ctrl && !exchanged);
}

const Layer* hangingLayer(const Work& work) {
  const Desk& desk = work.desk();
  const Layer* layer = work.quilt().layer(desk.activeAt());
  const bool can = layer && layer->kind == LayerKind::backdrop && !desk.hidden.contains(layer->id) &&
                   !desk.locked.contains(layer->id);
  return can ? layer : nullptr;
}

Selecting selectingBy(const Press& press) {
  return press.shift ? Selecting::more : press.ctrl ? Selecting::less : Selecting::anew;
}

PressMeans meaningOf(const Work& work, const Press& press) {
  using Button = Press::Button;
  const bool left = press.button == Button::left;
  const bool right = press.button == Button::right;
  if (!work.map()) return PressMeans::nothing;
  if (press.button == Button::middle || (left && press.space)) return PressMeans::look;
  if (press.onRuler) return left ? PressMeans::lines : PressMeans::nothing;
  if (left && press.onHandle) return PressMeans::refit;
  if (left && press.onFrame) return PressMeans::frame;
  if (left && press.onEdge) return PressMeans::edge;
  const bool selects = work.desk().tool == Tool::select;
  if (left && work.desk().tool == Tool::pins) return press.cell ? PressMeans::pins : PressMeans::nothing;
  const bool takes = press.exchanged ? left && press.ctrl && !selects : right;
  if (takes) return PressMeans::take;
  if (left && hangingLayer(work)) return PressMeans::hang;
  if (!press.cell) return PressMeans::nothing;
  if (left && selects) {
    const bool drags = selectingBy(press) == Selecting::anew && work.desk().selection().contains(*press.cell);
    return drags ? PressMeans::moveSelected : PressMeans::select;
  }
  // Right lays only where the buttons are exchanged, and takes away then.
  if (!left && (!press.exchanged || selects)) return PressMeans::nothing;
  return right || takesAway(work, press.ctrl, press.exchanged) ? PressMeans::takeAway : PressMeans::lay;
}

}  // namespace uq
