// The clipboard's text: what was copied, so that another window, quilt or program can have it (docs/format.md,
// "Copied cells").
//
// Sheets are named by id, name and the mark of their picture, so that cells copied in one quilt find the same sheet in
// another one, whatever it is called there.
#pragma once

#include <string>
#include <string_view>

#include "core/base/Error.h"
#include "core/document/InHand.h"
#include "core/document/Quilt.h"

namespace uq {

inline constexpr std::size_t kMostClipBytes = std::size_t{64} << 20;

std::string clipText(const InHand& hand, const Quilt& quilt);
// Whether a text is of this form; reads only its beginning.
bool isClipText(std::string_view text);
// An Error where it breaks its form, or names a sheet that this quilt lacks.
Result<InHand> readClip(std::string_view text, const Quilt& quilt);

}  // namespace uq
