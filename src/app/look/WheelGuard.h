// WheelGuard: the wheel changes nothing in lists, fields and sliders that do not have the keyboard, however the pointer
// comes over them; it goes to what scrolls around them.
#pragma once

namespace uq {

// For all windows, from the first call on. The interface's thread.
void guardTheWheel();

}  // namespace uq
