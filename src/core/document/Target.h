// Target: what goes out to the game again and again: which maps, in which open form, into which folder.
//
// A value of the quilt, kept as a document of its own (core/store/TargetText.h). A folder inside the quilt's own is said here and goes
// along with the quilt; any other is of one machine, and is kept there (core/store/ExportPlaces.h), so that a quilt never says where on
// somebody's disk something is to be written. Threads: a value.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/base/Revision.h"

namespace uq {

inline constexpr std::size_t kMostTargets = 256;             // of a quilt
inline constexpr std::size_t kLongestTargetText = 256 << 10;  // bytes of a form of one's own
inline constexpr int kLargestTargetScale = 16;
inline constexpr int kMostTargetColumns = 256;
inline constexpr int kMostBleed = 16;  // pixels

// What comes out: exchange JSON, values with commas, pictures, layered pictures, outlines, sheets packed anew, the link graph, or
// what a text of one's own says.
enum class TargetForm { json, csv, png, ora, svg, sheet, links, own };
inline constexpr TargetForm kTargetForms[] = {TargetForm::json, TargetForm::png, TargetForm::csv,   TargetForm::ora,
                                              TargetForm::svg,  TargetForm::sheet, TargetForm::links, TargetForm::own};
std::string_view targetFormName(TargetForm form);  // "json"
std::optional<TargetForm> targetFormFromName(std::string_view name);

// What one picture of a map shows.
enum class PictureOf { map, layer, screen };
std::string_view pictureOfName(PictureOf of);
std::optional<PictureOf> pictureOfFromName(std::string_view name);

struct Target {
  Id id;
  std::string name;
  std::string file;  // slug: targets/<file>.json
  TargetForm form = TargetForm::json;
  std::vector<Id> maps;   // empty: all, also those that come later
  std::string folder;     // a path inside the quilt's folder; empty: each machine has its own
  std::string cells;      // of JSON "plain", "runs" or "packed", of CSV "numbers" or "names"; empty: the first
  PictureOf of = PictureOf::map;
  int scale = 1;          // 1 .. kLargestTargetScale picture pixels for a map pixel
  bool hidden = false;    // pictures show also what the game hides
  std::string order;      // of a sheet's tiles: "name" or "use", the most used first; empty: by number
  int columns = 0;        // of a sheet, 0: as many as make it square
  int bleed = 1;          // 0 .. kMostBleed pixels by which the rims of its tiles are drawn on
  bool powersOfTwo = false;  // its sides in pixels
  std::string text;       // of a form of one's own, in the Mustache language
  std::string naming;     // likewise, for the names of its files; empty: the map's own with `ending`
  std::string ending;     // ".lua"
  std::string escape;     // how what is filled in is written: "none", "xml", "c"; empty: as the ending asks
  Json::Object extra;     // fields that this version does not know
  Revision revision;
  friend bool operator==(const Target&, const Target&) = default;
};

// Why it is no target, in words; empty when it is one.
std::string whyNoTarget(const Target& target);
// Why nothing may be written to a path inside the quilt's folder; empty where it may: it stays inside, and is none of the quilt's own.
std::string whyNoExportFolder(std::string_view folder);

}  // namespace uq
