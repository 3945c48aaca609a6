// KeyReceiver: which widget a key went to before it was passed on to those around it.
//
// What a field does with Enter may hide it and move the keyboard on, and the key still comes to the window then: who acts
// on what has the keyboard there has to ask whether the key was meant for it.
#pragma once

class QWidget;

namespace uq {

// Watches from now on, for the whole program; once.
void watchKeys();
// Whether the key that is being handled went to that widget first.
bool wentFirstTo(const QWidget* widget);

}  // namespace uq
