#include "core/store/KeptWork.h"

#include <algorithm>
#include <charconv>
#include <cstdlib>

#include "core/store/CellsPatch.h"
#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/OverlayDisk.h"
#include "core/store/SavePlan.h"
#include "core/store/StateFolder.h"
#include "core/store/StoreLimits.h"

namespace uq {

namespace {

constexpr std::string_view kManifest = "kept.json";
constexpr std::string_view kPartEnding = ".part";
constexpr int kVersion = 1;
constexpr std::int64_t kLargestManifest = std::int64_t{16} << 20;

// The number of a part, by its name; nothing for any other name.
std::optional<std::uint64_t> numberOf(std::string_view name) {
  if (!name.ends_with(kPartEnding)) return std::nullopt;
  name.remove_suffix(kPartEnding.size());
  std::uint64_t number = 0;
  const auto read = std::from_chars(name.data(), name.data() + name.size(), number);
  const bool whole = !name.empty() && read.ec == std::errc() && read.ptr == name.data() + name.size();
  return whole ? std::optional(number) : std::nullopt;
}

std::string textIn(const Json& json, std::string_view field) {
  const Json* found = json.find(field);
  const auto* text = found ? found->as<std::string>() : nullptr;
  return text ? *text : std::string();
}

std::int64_t wholeIn(const Json& json, std::string_view field) {
  const Json* found = json.find(field);
  const auto* number = found ? found->as<std::int64_t>() : nullptr;
  return number ? *number : 0;
}

SaveAsk everythingIsThere() {
  return {{}, {}, [](const std::string&) { return true; }};
}

// The files that differ, by path; those that only change their name are written, too.
std::set<std::string> writtenBy(const SavePlan& plan) {
  std::set<std::string> paths(plan.journal.writes.begin(), plan.journal.writes.end());
  for (const auto& move : plan.journal.moves) paths.insert(move.to);
  return paths;
}

std::set<std::string> removedBy(const SavePlan& plan) {
  std::set<std::string> paths(plan.journal.removes.begin(), plan.journal.removes.end());
  for (const auto& move : plan.journal.moves) paths.insert(move.from);
  return paths;
}

constexpr std::size_t kFewChunks = 8;

std::size_t chunkCount(const CellGrid& cells) {
  std::size_t count = 0;
  cells.forEachChunk([&](const CellGrid::ChunkView&) { ++count; });
  return count;
}

// The layer whose cells lie in a file, as it is saved and now; nothing where the file is another one, or new.
std::optional<std::pair<const Layer*, const Layer*>> layersOf(const std::string& path, const Quilt& saved, const Quilt& now) {
  for (const Shared<Map>& map : now.maps()) {
    const Map* before = saved.map(map->id);
    if (!before || !path.starts_with(folderOf(mapFile(map.read())) + "/")) continue;
    for (const Shared<Layer>& layer : map->layers) {
      const Layer* was = before->layer(layer->id);
      const bool isIt = was && layer->holdsTiles() && cellsFile(map.read(), layer.read()) == path;
      if (isIt && was->holdsTiles() && cellsFile(*before, *was) == path) return std::pair(was, &layer.read());
    }
  }
  return std::nullopt;
}

// Takes away all parts of a place that nobody names. Whatever goes wrong, nothing that is named is touched.
void removeStrays(Disk& disk, const std::string& place, const std::set<std::string>& named) {
  const auto there = disk.list(place, kMostNames);
  if (!there) return;
  for (const Disk::Entry& one : *there) {
    if (numberOf(one.name) && !named.contains(one.name)) (void)disk.remove(joined(place, one.name));
  }
}

}  // namespace

KeptWork::KeptWork(std::shared_ptr<Disk> disk, std::string place) : disk_(std::move(disk)), place_(std::move(place)) {}

std::vector<std::uint64_t> KeptWork::keptOfLine() const { return lineKept_; }

Result<void> KeptWork::keep(const Quilt& saved, const Quilt& now, const KeptFacts& facts, const KeptLine& line) {
  const auto plan = planSave(saved, now, everythingIsThere());
  if (!plan) return fail(plan.error());
  const std::set<std::string> differs = writtenBy(*plan);
  const std::set<std::string> removed = removedBy(*plan);
  if (differs.empty() && removed.empty()) return drop();
  if (kept_) {
    // Somebody may have taken it all away.
    const auto there = disk_->stamp(joined(place_, kManifest));
    if (!there || !*there) forget();
  }
  if (auto made = disk_->makeFolder(place_); !made) return made;
  if (!kept_) {
    const auto there = disk_->list(place_, kMostNames);
    if (!there) return fail(there.error());
    for (const Disk::Entry& one : *there) next_ = std::max(next_, numberOf(one.name).value_or(0) + 1);
  }
  std::set<std::string> changed = differs;
  if (kept_ && keptOf_ && *keptOf_ == saved) {
    const auto since = planSave(*kept_, now, everythingIsThere());
    if (!since) return fail(since.error());
    changed = writtenBy(*since);
  }
  std::map<std::string, Part> parts;
  for (const std::string& path : differs) {
    const auto known = parts_.find(path);
    if (known != parts_.end() && !changed.contains(path)) {
      parts.insert(*known);
      continue;
    }
    const auto file = plan->files.find(path);
    if (file == plan->files.end() || !file->second.text) continue;
    Part part{std::to_string(next_++) + std::string(kPartEnding)};
    const auto bothLayers = layersOf(path, saved, now);
    if (bothLayers) part.chunks = chunksBetween(bothLayers->first->cells, bothLayers->second->cells);
    // Nothing is saved by keeping the most of a layer apart.
    if (part.chunks && part.chunks->size() * 2 > std::max<std::size_t>(kFewChunks, chunkCount(bothLayers->second->cells))) {
      part.chunks.reset();
    }
    const std::string text = part.chunks ? writeChunks(bothLayers->second->cells, *part.chunks, now) : file->second.text();
    if (auto wrote = disk_->write(joined(place_, part.file), text); !wrote) return wrote;
    parts[path] = std::move(part);
  }
  std::vector<LinePart> lineParts;
  for (const LinePart& part : line_) {
    const auto counts = [&](std::uint64_t number) { return part.numbers.contains(number); };
    if (std::any_of(line.numbers.begin(), line.numbers.end(), counts)) lineParts.push_back(part);
  }
  if (!line.fresh.empty()) {
    LinePart part{std::to_string(next_++) + std::string(kPartEnding), {line.fresh.begin(), line.fresh.end()}};
    if (auto wrote = disk_->write(joined(place_, part.file), line.text()); !wrote) return wrote;
    lineParts.push_back(std::move(part));
  }
  Json::Array files;
  for (const auto& [path, part] : parts) {
    Json::Object one{{"path", path}, {"part", part.file}};
    if (part.chunks) {
      Json::Array places;
      for (const ChunkPos at : *part.chunks) {
        places.emplace_back(at.cx);
        places.emplace_back(at.cy);
      }
      one.emplace_back("chunks", std::move(places));
    }
    const auto stamp = disk_->stamp(joined(facts.folder, path));
    if (stamp && *stamp) {
      one.emplace_back("size", (*stamp)->size);
      one.emplace_back("modified", (*stamp)->modified);
    }
    files.emplace_back(std::move(one));
  }
  Json::Array numbers;
  for (const std::uint64_t number : line.numbers) numbers.emplace_back(static_cast<std::int64_t>(number));
  Json::Array lineFiles;
  for (const LinePart& part : lineParts) lineFiles.emplace_back(part.file);
  Json::Array gone;
  for (const std::string& path : removed) gone.emplace_back(path);
  const Json manifest = Json::Object{{"document", "kept"},
                                     {"version", kVersion},
                                     {"folder", facts.folder},
                                     {"name", facts.name},
                                     {"steps", facts.steps},
                                     {"until", facts.until},
                                     {"files", std::move(files)},
                                     {"removed", std::move(gone)},
                                     {"line", std::move(numbers)},
                                     {"lineFiles", std::move(lineFiles)}};
  if (auto synced = disk_->syncFolder(place_); !synced) return synced;
  if (auto wrote = writeWhole(*disk_, joined(place_, kManifest), writeJson(manifest)); !wrote) return wrote;
  parts_ = std::move(parts);
  line_ = std::move(lineParts);
  lineKept_ = line.numbers;
  std::sort(lineKept_.begin(), lineKept_.end());
  kept_ = now;
  keptOf_ = saved;
  std::set<std::string> named;
  for (const auto& [path, part] : parts_) named.insert(part.file);
  for (const LinePart& part : line_) named.insert(part.file);
  removeStrays(*disk_, place_, named);
  return {};
}

void KeptWork::forget() {
  kept_.reset();
  keptOf_.reset();
  parts_.clear();
  line_.clear();
  lineKept_.clear();
}

Result<void> KeptWork::drop() {
  forget();
  const auto there = disk_->stamp(joined(place_, kManifest));
  if (!there || !*there) return {};
  if (auto gone = disk_->remove(joined(place_, kManifest)); !gone) return gone;
  removeStrays(*disk_, place_, {});
  return disk_->removeFolder(place_);
}

Result<std::optional<Kept>> keptAt(Disk& disk, const std::string& place) {
  const std::string path = joined(place, kManifest);
  const auto there = disk.stamp(path);
  if (!there) return fail(there.error());
  if (!*there) return std::optional<Kept>();
  const auto text = disk.read(path, kLargestManifest);
  if (!text) return fail(text.error());
  const auto json = readJson(*text, path);
  if (!json) return fail(json.error());
  const auto broken = [&](const char* why) {
    return fail(Error{Error::Cause::broken, why, path, 0, "The quilt is shown as it was saved", {}});
  };
  if (textIn(*json, "document") != "kept") return broken("it says nothing of kept work");
  if (wholeIn(*json, "version") != kVersion) return broken("it was kept by another version of Urban Quilt");
  Kept kept{{textIn(*json, "folder"), textIn(*json, "name"), wholeIn(*json, "steps"), wholeIn(*json, "until")}, {}, {}, {}, {}, {}};
  const Json* files = json->find("files");
  const auto* list = files ? files->as<Json::Array>() : nullptr;
  if (!list) return broken("it names no files");
  for (const Json& one : *list) {
    const std::string file = textIn(one, "path");
    const std::string part = textIn(one, "part");
    if (!isQuiltFile(file) || !numberOf(part)) return broken("it names something that is no file of a quilt");
    Kept::File& shown = kept.files[file];
    shown.path = joined(place, part);
    if (const Json* chunks = one.find("chunks")) {
      const auto* places = chunks->as<Json::Array>();
      if (!places || places->size() % 2 != 0) return broken("it names something that is no chunk");
      shown.chunks.emplace();
      for (std::size_t i = 0; i < places->size(); i += 2) {
        const auto* x = (*places)[i].as<std::int64_t>();
        const auto* y = (*places)[i + 1].as<std::int64_t>();
        if (!x || !y || std::abs(*x) > kFarthestCell || std::abs(*y) > kFarthestCell) {
          return broken("it names something that is no chunk");
        }
        shown.chunks->insert({static_cast<int>(*x), static_cast<int>(*y)});
      }
    }
    std::optional<Disk::Stamp> stamp;
    if (one.find("modified")) stamp = Disk::Stamp{wholeIn(one, "size"), wholeIn(one, "modified")};
    kept.saved[file] = stamp;
  }
  const Json* removed = json->find("removed");
  if (const auto* gone = removed ? removed->as<Json::Array>() : nullptr) {
    for (const Json& one : *gone) {
      const auto* file = one.as<std::string>();
      if (!file || !isQuiltFile(*file)) return broken("it names something that is no file of a quilt");
      kept.removed.insert(*file);
    }
  }
  const auto listed = [&](std::string_view field) {
    const Json* found = json->find(field);
    const auto* array = found ? found->as<Json::Array>() : nullptr;
    return array ? *array : Json::Array();
  };
  for (const Json& one : listed("line")) {
    const auto* number = one.as<std::int64_t>();
    if (!number || *number <= 0) return broken("it names something that is no step");
    kept.line.push_back(static_cast<std::uint64_t>(*number));
  }
  for (const Json& one : listed("lineFiles")) {
    const auto* file = one.as<std::string>();
    if (!file || !numberOf(*file)) return broken("it names something that is no part of kept work");
    kept.lineFiles.push_back(joined(place, *file));
  }
  return std::optional(std::move(kept));
}

std::vector<std::string> lineTexts(Disk& disk, const Kept& kept) {
  std::vector<std::string> texts;
  for (const std::string& path : kept.lineFiles) {
    if (auto text = disk.read(path, kLargestCells)) texts.push_back(std::move(*text));
  }
  return texts;
}

std::shared_ptr<Disk> withKept(std::shared_ptr<Disk> disk, const std::string& folder, const Kept& kept) {
  std::map<std::string, OverlayDisk::Shown> files;
  for (const auto& [path, file] : kept.files) {
    OverlayDisk::Shown& shown = files[path];
    shown.path = file.path;
    if (file.chunks) {
      shown.join = [chunks = *file.chunks](const std::string& own, const std::string& patch) {
        return patchedCells(own, patch, chunks);
      };
    }
  }
  return std::make_shared<OverlayDisk>(std::move(disk), folder, std::move(files), kept.removed);
}

ReadBefore savedBefore(const Quilt& saved, const std::shared_ptr<Disk>& disk, const Kept& kept) {
  ReadBefore before{saved};
  before.isSame = [&kept](const std::string& path) { return !kept.files.contains(path) && !kept.removed.contains(path); };
  before.patch = [disk, &kept](const std::string& path) -> std::optional<ReadBefore::Patch> {
    const auto file = kept.files.find(path);
    if (file == kept.files.end() || !file->second.chunks) return std::nullopt;
    auto text = disk->read(file->second.path, kLargestCells);
    if (!text) return std::nullopt;
    return ReadBefore::Patch{std::move(*text), *file->second.chunks};
  };
  return before;
}

std::vector<std::string> changedSince(Disk& disk, const std::string& folder, const Kept& kept) {
  std::vector<std::string> changed;
  for (const auto& [path, before] : kept.saved) {
    const auto now = disk.stamp(joined(folder, path));
    if (now && *now != before) changed.push_back(path);
  }
  return changed;
}

std::string keptPlace(const std::string& stateFolder, const std::string& folder) {
  return joined(stateFolder, "kept/" + keptName(folder));
}

Result<void> putAside(Disk& disk, const std::string& place) {
  for (int n = 1;; ++n) {
    const std::string aside = place + ".aside-" + std::to_string(n);
    const auto there = disk.stamp(joined(aside, kManifest));
    if (!there) return fail(there.error());
    if (!*there) return disk.rename(place, aside);
  }
}

}  // namespace uq
