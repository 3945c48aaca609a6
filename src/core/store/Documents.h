// Documents: the parts of a quilt as the JSON that stands in its files, and back.
//
// Fields are written in a fixed order, then those that this version does not know, in the order in which they were
// read. A reader names the file and line of the first thing that is wrong. docs/format.md and docs/format.schema.json
// describe the documents. Cells are not part of them: each tiles layer names its `.cells` file.
#pragma once

#include "core/base/Error.h"
#include "core/base/Json.h"
#include "core/document/Quilt.h"

namespace uq {

// The version this program writes. It reads every minor version of the same major one.
inline constexpr int kFormatMajor = 1;
inline constexpr int kFormatMinor = 14;

// How every document begins: what it is, and the version.
Json::Object documentBegun(const char* document);
// What is wrong with that; nothing when all is well.
std::optional<Error> checkDocument(const Json& json, const char* document, const std::string& file);

Json quiltDocument(const QuiltFacts& facts);
Json mapDocument(const Map& map);
Json sheetDocument(const Sheet& sheet);

// `file` is the path inside the quilt; a map's folder and a sheet's file slug are taken from it by the caller.
Result<QuiltFacts> readQuiltDocument(const Json& json, const std::string& file);
Result<Map> readMapDocument(const Json& json, const std::string& file);
Result<Sheet> readSheetDocument(const Json& json, const std::string& file);

// Where the parts stand inside the quilt's folder.
inline constexpr std::string_view kQuiltFile = "quilt.json";
inline constexpr std::string_view kLinksFile = "links.json";  // only where there are links
inline constexpr std::string_view kPlanFile = "plan.json";  // only where there are chalk pieces
// By kind: the folder that holds its files, and what one is called.
template <class Part>
inline constexpr std::string_view kFolderOf = "";
template <>
inline constexpr std::string_view kFolderOf<Map> = "maps";
template <>
inline constexpr std::string_view kFolderOf<Sheet> = "sheets";
template <>
inline constexpr std::string_view kFolderOf<Stamp> = "stamps";
template <>
inline constexpr std::string_view kFolderOf<Seam> = "seams";  // which is none: all stand in kLinksFile
template <>
inline constexpr std::string_view kFolderOf<ChalkPiece> = "chalk pieces";  // likewise: kPlanFile
template <>
inline constexpr std::string_view kFolderOf<Doorway> = "doorways";  // likewise: kLinksFile
template <>
inline constexpr std::string_view kFolderOf<Edging> = "edgings";
template <>
inline constexpr std::string_view kFolderOf<Target> = "targets";
template <class Part>
inline constexpr std::string_view kNounOf = kFolderOf<Part>.substr(0, kFolderOf<Part>.size() - 1);
std::string mapFile(const Map& map);
std::string cellsFile(const Map& map, const Layer& layer);
std::string liftsFile(const Map& map, const Layer& layer);  // only where a cell is lifted
std::string meantFile(const Map& map, const Layer& layer);  // only where a tile stands in
std::string sheetFile(const Sheet& sheet);
std::string pictureFile(const Sheet& sheet);
std::string pictureFile(const Sheet& sheet, const CollectedPicture& one);  // of a collection
std::string tilesFile(const Sheet& sheet);

}  // namespace uq
