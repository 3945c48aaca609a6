// The text in which a desk is kept beside its quilt, outside the quilt's files.
//
// Kept by ids, so it fits the quilt after any edit; what no longer exists is left out on reading. Selections are not
// kept. Its form belongs to this program and may change: what cannot be read is nobody's work, and reads as a fresh
// desk.
#pragma once

#include "core/base/Json.h"
#include "core/document/Desk.h"

namespace uq {

inline constexpr std::size_t kMostKeptParts = 4096;  // of what is in hand; more is not kept

Json deskJson(const Desk& desk, const Quilt& quilt);
Desk readDesk(const Json& json, const Quilt& quilt);

}  // namespace uq
