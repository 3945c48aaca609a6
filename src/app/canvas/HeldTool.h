// HeldTool: a tool's key that is held down gives the tool for as long: pressed and let go it stays, held while the
// mouse is used it goes back to the tool before it.
//
// Knows keys and moments, no widget. Threads: the interface's.
#pragma once

#include <QtGlobal>
#include <optional>

#include "core/document/Desk.h"

namespace uq {

class HeldTool {
 public:
  // A tool's key goes down at a moment of the window system, in milliseconds; `now` is the tool before.
  void press(int key, Tool now, quint64 at);
  // It goes up; false where it is another key.
  [[nodiscard]] bool letGo(int key, quint64 at);
  // The mouse was pressed.
  void use();
  void forget() { held_.reset(); }
  // The keyboard goes elsewhere: what was used is due as if the key had gone up.
  void leave();
  // The tool to go back to now; nothing when none is due. Told once.
  std::optional<Tool> springsBackTo();

 private:
  struct Held {
    int key = 0;
    Tool before = Tool::brush;
    bool used = false;
    bool isUp = false;
    bool sprung = false;  // the tool before it came back
    quint64 upAt = 0;
  };
  std::optional<Held> held_;
};

}  // namespace uq
