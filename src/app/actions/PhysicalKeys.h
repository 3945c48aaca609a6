// Keys by their place on the keyboard, so that Q, E, A, D lie together on every layout.
#pragma once

#include <QKeyEvent>

namespace uq {

// The key that stands at the event's place on a US keyboard, for letters and digits of the main block; any other key as
// it is. Places are the kernel's key codes plus 8, which X11 and Wayland both report; without one, the key's own label
// counts.
Qt::Key physicalKey(const QKeyEvent& event);

// The scan code of a letter or digit on the main block; 0 for any other key.
quint32 scanCodeOf(Qt::Key key);

}  // namespace uq
