// Clipboard: what was copied last, in any window of the program, and what lies as text and picture on the desktop's
// clipboard. Everything here belongs to the GUI thread.
#pragma once

#include <QImage>
#include <QString>
#include <optional>

#include "core/base/Error.h"
#include "core/document/InHand.h"
#include "core/document/Quilt.h"

namespace uq {

// Copies what is of `quilt`; the picture, which may be none, is for other programs, and so is text where it is not too
// long.
void putOnClipboard(InHand copied, const Quilt& quilt, const QImage& picture);
// What was copied, for `quilt`; an Error where it cannot be taken there. May fetch a foreign clipboard.
Result<InHand> takenFromClipboard(const Quilt& quilt);
// Why there is nothing to take; empty when there may be. A foreign clipboard is fetched once, when it has changed.
QString whyNothingCopied(const Quilt& quilt);

}  // namespace uq
