// Stamp: something in hand that was kept on the Table, with a name.
//
// It refers to tiles, never to pixels, so it follows them when they are redrawn or stand elsewhere in their picture.
#pragma once

#include <vector>

#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/document/InHand.h"

namespace uq {

struct Stamp {
  Id id;
  std::string name;
  std::string file;    // slug: stamps/<file>/stamp.json
  InHand held;         // InHand::stamp is its own id
  Json::Object extra;  // fields that this version does not know
  std::vector<Json::Object> partExtras;    // likewise of its further parts, by their place; empty where there are none
  std::vector<Json::Object> memberExtras;  // and of the members of a mix
  Revision revision;
  friend bool operator==(const Stamp&, const Stamp&) = default;
};

}  // namespace uq
