#include "app/canvas/HeldTool.h"

#include <QGuiApplication>

namespace uq {

void HeldTool::press(int key, Tool now, quint64 at) {
  // X11 tells a key that is still down as let go and pressed again at one moment.
  static const bool isX11 = QGuiApplication::platformName() == QLatin1String("xcb");
  if (isX11 && held_ && held_->key == key && held_->isUp && held_->upAt == at) {
    held_->isUp = held_->sprung = false;
    return;
  }
  const bool isDue = held_ && held_->isUp && held_->used && !held_->sprung;
  held_ = Held{key, isDue ? held_->before : now};
}

bool HeldTool::letGo(int key, quint64 at) {
  if (!held_ || held_->key != key) return false;
  held_->isUp = true;
  held_->upAt = at;
  return true;
}

void HeldTool::use() {
  if (held_ && !held_->isUp) held_->used = true;
}

void HeldTool::leave() {
  if (held_) held_->isUp = true;
}

std::optional<Tool> HeldTool::springsBackTo() {
  if (!held_ || !held_->isUp || !held_->used || held_->sprung) return std::nullopt;
  held_->sprung = true;
  return held_->before;
}

}  // namespace uq
