#include "core/document/Target.h"

#include <algorithm>
#include <array>
#include <utility>

namespace uq {

namespace {

constexpr std::pair<TargetForm, std::string_view> kFormNames[] = {
    {TargetForm::json, "json"}, {TargetForm::csv, "csv"},     {TargetForm::png, "png"},     {TargetForm::ora, "ora"},
    {TargetForm::svg, "svg"},   {TargetForm::sheet, "sheet"}, {TargetForm::links, "links"}, {TargetForm::own, "own"}};
constexpr std::pair<PictureOf, std::string_view> kPictureNames[] = {{PictureOf::map, "map"}, {PictureOf::layer, "layer"}, {PictureOf::screen, "screen"}};
// What the quilt keeps in its folder.
constexpr std::string_view kOwn[] = {"quilt.json", "links.json", "plan.json", "maps", "sheets", "stamps", "edgings", "targets"};

template <class Table, class Value>
std::string_view nameIn(const Table& table, Value value) {
  for (const auto& [one, name] : table) {
    if (one == value) return name;
  }
  return {};
}

template <class Value, class Table>
std::optional<Value> valueIn(const Table& table, std::string_view name) {
  for (const auto& [one, called] : table) {
    if (called == name) return one;
  }
  return std::nullopt;
}

bool isOneOf(std::string_view text, std::initializer_list<std::string_view> these) { return std::find(these.begin(), these.end(), text) != these.end(); }

}  // namespace

std::string_view targetFormName(TargetForm form) { return nameIn(kFormNames, form); }
std::optional<TargetForm> targetFormFromName(std::string_view name) { return valueIn<TargetForm>(kFormNames, name); }
std::string_view pictureOfName(PictureOf of) { return nameIn(kPictureNames, of); }
std::optional<PictureOf> pictureOfFromName(std::string_view name) { return valueIn<PictureOf>(kPictureNames, name); }

std::string whyNoExportFolder(std::string_view folder) {
  if (folder.empty()) return {};
  if (folder.size() > 1000) return "its folder's path is longer than 1,000 letters";
  if (folder.front() == '/') return "its folder is no path inside the quilt's";
  std::size_t parts = 0;
  for (std::size_t at = 0; at <= folder.size(); ++parts) {
    const std::size_t end = std::min(folder.find('/', at), folder.size());
    const std::string_view part = folder.substr(at, end - at);
    at = end + 1;
    const bool isPlain = std::none_of(part.begin(), part.end(), [](char c) { return c == '\\' || c == ':' || static_cast<unsigned char>(c) < 32; });
    if (part.empty() || part.front() == '.' || !isPlain) return "its folder leaves the quilt's, or has no plain name";
    if (parts == 0 && std::find(std::begin(kOwn), std::end(kOwn), part) != std::end(kOwn)) return "its folder is where the quilt keeps its own files";
  }
  return {};
}

std::string whyNoTarget(const Target& target) {
  if (target.name.empty() || target.name.size() > 1000) return "its name has 1 to 1,000 letters";
  if (const std::string why = whyNoExportFolder(target.folder); !why.empty()) return why;
  const bool isJson = target.form == TargetForm::json && isOneOf(target.cells, {"", "plain", "runs", "packed"});
  const bool isCsv = target.form == TargetForm::csv && isOneOf(target.cells, {"", "numbers", "names"});
  if (!target.cells.empty() && !isJson && !isCsv) return "\"cells\" is \"plain\", \"runs\" or \"packed\" of json, \"numbers\" or \"names\" of csv";
  if (target.scale < 1 || target.scale > kLargestTargetScale) return "its pictures are 1 to 16 times as large";
  if (!isOneOf(target.order, {"", "name", "use"})) return "\"order\" is name or use; without it tiles stand by number";
  if (target.columns < 0 || target.columns > kMostTargetColumns) return "a sheet has at most 256 columns";
  if (target.bleed < 0 || target.bleed > kMostBleed) return "rims are drawn on by at most 16 pixels";
  if (target.text.size() > kLongestTargetText) return "its text is longer than 256 KB";
  if (!isOneOf(target.escape, {"", "none", "xml", "c"})) return "\"escape\" is none, xml or c";
  if (target.naming.size() > 1000 || target.ending.size() > 20) return "what its files are called is too long";
  return {};
}

}  // namespace uq
