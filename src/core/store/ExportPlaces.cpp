#include "core/store/ExportPlaces.h"

#include "core/store/Fields.h"
#include "core/store/JsonText.h"
#include "core/store/StateFolder.h"
#include "core/store/StoreLimits.h"

namespace uq {

namespace {

constexpr std::int64_t kLargestPlaces = std::int64_t{1} << 20;
constexpr std::size_t kLongestCommand = 4096;

std::string placesFile(const std::string& quiltFolder) { return joined(stateFolderPath(), "exports/" + keptName(canonicalPath(quiltFolder)) + ".json"); }

}  // namespace

ExportPlaces exportPlaces(Disk& disk, const std::string& quiltFolder) {
  const std::string file = placesFile(quiltFolder);
  const auto text = disk.read(file, kLargestPlaces);
  const auto json = text ? readJson(*text, file) : Result<Json>(fail(text.error()));
  if (!json) return {};
  Fields fields(*json, file);
  fields.document("export-places");
  ExportPlaces places;
  for (const Json& one : fields.listIfAny("folders", kMostTargets)) {
    Fields folder(one, file);
    const Id target = folder.id("target");
    const std::string path = folder.text("folder", kLongestPath);
    fields.takeFrom(folder);
    if (path.starts_with('/')) places.folders[target] = path;
  }
  places.command = fields.textIfAny("command", kLongestCommand);
  for (const Json& one : fields.listIfAny("last", kMostTargets)) {
    const auto* id = one.as<std::string>();
    if (const auto read = id ? Id::parse(*id) : std::nullopt) places.last.push_back(*read);
  }
  return fields.error() ? ExportPlaces() : places;
}

Result<void> keepExportPlaces(Disk& disk, const std::string& quiltFolder, const ExportPlaces& places) {
  Json::Array folders;
  for (const auto& [target, folder] : places.folders) folders.push_back(Json::Object{{"target", target.text()}, {"folder", folder}});
  Json::Array last;
  for (const Id target : places.last) last.emplace_back(target.text());
  const Json::Object all{{"document", "export-places"}, {"version", "1.0"}, {"folders", std::move(folders)}, {"command", places.command}, {"last", std::move(last)}};
  const std::string file = placesFile(quiltFolder);
  if (auto made = disk.makeFolder(uq::folderOf(file)); !made) return made;
  return writeWhole(disk, file, writeJson(all));
}

std::optional<std::string> folderOf(const ExportPlaces& places, const std::string& quiltFolder, const Target& target) {
  if (!target.folder.empty()) return joined(quiltFolder, target.folder);
  const auto own = places.folders.find(target.id);
  return own == places.folders.end() ? std::nullopt : std::optional(own->second);
}

}  // namespace uq
