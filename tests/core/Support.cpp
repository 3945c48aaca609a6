#include "core/Support.h"

#include "core/edit/ArrangeMaps.h"
#include "core/edit/Facings.h"
#include "core/edit/LayCells.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Folders.h"
#include "core/edit/Levels.h"
#include "core/store/LinksText.h"
#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/JsonText.h"

namespace uq::test {

Result<std::string> MemoryDisk::read(const std::string& path, std::int64_t most) {
  const auto found = files.find(path);
  if (found == files.end()) return fail(Error::Cause::missing, "it does not exist", path);
  if (static_cast<std::int64_t>(found->second.size()) > most)
    return fail(Error::Cause::tooLarge, "it is too large", path);
  return found->second;
}

Result<std::vector<Disk::Entry>> MemoryDisk::list(const std::string& folder, std::size_t) {
  std::map<std::string, Kind> names;
  const std::string prefix = folder + "/";
  const auto add = [&](const std::string& path, Kind kind) {
    if (!path.starts_with(prefix)) return;
    const std::string rest = path.substr(prefix.size());
    const auto slash = rest.find('/');
    if (!rest.empty()) names[rest.substr(0, slash)] = slash == std::string::npos ? kind : Kind::folder;
  };
  for (const auto& [path, bytes] : files) add(path, Kind::file);
  for (const auto& path : folders) add(path, Kind::folder);
  if (names.empty() && !folders.contains(folder)) return fail(Error::Cause::missing, "it does not exist", folder);
  std::vector<Entry> entries;
  for (const auto& [name, kind] : names) entries.push_back({name, kind});
  return entries;
}

Result<std::optional<Disk::Stamp>> MemoryDisk::stamp(const std::string& path) {
  const auto found = files.find(path);
  if (found == files.end()) return std::nullopt;
  return Stamp{static_cast<std::int64_t>(found->second.size()), modified_[path]};
}

Result<void> MemoryDisk::mayChange(const std::string& path) {
  if (readOnly) return fail(Error::Cause::notPermitted, "writing failed (permission denied)", path);
  const int now = changes++;
  if (now == failAt || (stopsThere && failAt >= 0 && now > failAt)) return fail(failure, "the disk is full", path);
  return {};
}

Result<void> MemoryDisk::write(const std::string& path, std::string_view bytes) {
  auto may = mayChange(path);
  if (!may) {
    // What a full disk leaves behind: a torn file.
    if (!readOnly) put(path, std::string(bytes.substr(0, bytes.size() / 2)));
    return may;
  }
  put(path, std::string(bytes));
  written.push_back(path);
  return {};
}

Result<void> MemoryDisk::rename(const std::string& from, const std::string& to) {
  if (auto may = mayChange(from); !may) return may;
  if (!files.contains(from)) return fail(Error::Cause::missing, "it does not exist", from);
  put(to, files[from]);
  files.erase(from);
  return {};
}

Result<void> MemoryDisk::remove(const std::string& path) {
  if (auto may = mayChange(path); !may) return may;
  files.erase(path);
  return {};
}

Result<void> MemoryDisk::removeFolder(const std::string& path) {
  if (auto may = mayChange(path); !may) return may;
  const auto first = files.lower_bound(path + "/");
  if (first == files.end() || !first->first.starts_with(path + "/")) folders.erase(path);
  return {};
}

Result<void> MemoryDisk::makeFolder(const std::string& path) {
  if (folders.contains(path)) return {};
  if (auto may = mayChange(path); !may) return may;
  folders.insert(path);
  return {};
}

Result<void> MemoryDisk::syncFolder(const std::string& path) { return mayChange(path); }

Result<std::unique_ptr<Disk::Lock>> MemoryDisk::lock(const std::string& path) {
  if (!hasLocks) return fail(Error::Cause::noLocks, "this drive has no locks", path);
  if (lockedElsewhere) return fail(Error::Cause::inUse, "another window has this quilt open", path);
  if (readOnly) return fail(Error::Cause::notPermitted, "locking failed (permission denied)", path);
  if (!files.contains(path)) put(path, {});
  struct Held : Lock {
    explicit Held(const int& lockFile) : now(lockFile), mine(lockFile) {}
    bool stands() const override { return mine == now; }
    const int& now;
    int mine;
  };
  return std::make_unique<Held>(lockFile_);
}

std::map<std::string, std::string> MemoryDisk::quiltFiles() const {
  std::map<std::string, std::string> own;
  for (const auto& [path, bytes] : files) {
    if (path.find("/.") == std::string::npos) own[path] = bytes;
  }
  return own;
}

void MemoryDisk::put(const std::string& path, std::string bytes) {
  files[path] = std::move(bytes);
  modified_[path] = ++clock;
}

namespace {

Sheet sheetNamed(IdSource& ids, const char* name, const char* code) {
  Sheet sheet;
  sheet.id = ids.next();
  sheet.name = name;
  sheet.file = name;
  sheet.code = code;
  sheet.picture = std::string(name) + ".png";
  sheet.pictureSize = {128, 64};
  sheet.source = PictureBytes("the pixels of " + sheet.name);
  sheet.tiles[0].name = std::string("first of ") + name;
  return sheet;
}

Map mapNamed(IdSource& ids, const char* name, CellRect bounds, std::initializer_list<const char*> layers) {
  Map map;
  map.id = ids.next();
  map.name = name;
  map.folder = slugFor(name, {});
  map.bounds = bounds;
  for (const char* layerName : layers) {
    Layer layer;
    layer.id = ids.next();
    layer.name = layerName;
    layer.role = map.layers.empty() ? "ground" : "things";
    layer.file = slugFor(layerName, {});
    layer.thread.colour = static_cast<int>(map.layers.size());
    map.layers.emplace_back(std::move(layer));
  }
  return map;
}

}  // namespace

Quilt smallQuilt() {
  IdSource ids(7);
  QuiltFacts facts;
  facts.id = ids.next();
  facts.name = "Copperline";
  Quilt quilt(std::move(facts));
  quilt = quilt.with(sheetNamed(ids, "street", "A")).with(sheetNamed(ids, "rails", "B"));
  quilt = quilt.with(mapNamed(ids, "Yard", {-4, -4, 16, 8}, {"Paving", "Sheds", "Awnings"}));
  quilt = quilt.with(mapNamed(ids, "Loft", {0, 0, 6, 5}, {"Floor"}));
  const LayerAt paving = layerOf(quilt, "Yard", "Paving");
  CellGrid ground;
  ground.fill(quilt.map(paving.map)->bounds, tileOf(quilt, "street", 1));
  return quilt.with(paving, LayerCells{std::move(ground), {}, {}});
}

LayerAt layerOf(const Quilt& quilt, const char* map, const char* layer) {
  const Map* found = quilt.mapNamed(map);
  return {found->id, found->layerNamed(layer)->id};
}

Cell tileOf(const Quilt& quilt, const char* sheet, std::uint32_t number, Turn turn) {
  if (chalk().name == sheet) return Cell({kChalkSlot, number}, turn);
  for (const auto& one : quilt.sheets()) {
    if (one->name == sheet) return Cell({*quilt.slots().find(one->id), number}, turn);
  }
  return {};
}

std::string bytes(const Quilt& quilt) {
  std::string all = writeJson(quiltDocument(quilt.facts())) + writeJson(linksDocument(linksOf(quilt)));
  for (const auto& sheet : quilt.sheets()) all += writeJson(sheetDocument(sheet.read()));
  for (const auto& map : quilt.maps()) {
    all += map->folder + "\n" + writeJson(mapDocument(map.read()));
    for (const Shared<Layer>& layer : map->layers) {
      all += writeCells(layer->cells, quilt) + writeNumbers(layer->lifts);
    }
  }
  return all;
}

void expectWhole(const Map& map) {
  std::vector<Id> met;     // in order
  std::vector<Id> before;  // around the last layer
  for (const Shared<Layer>& layer : map.layers) {
    ASSERT_TRUE(layer->folder.empty() || map.layerFolder(layer->folder));
    const std::vector<Id> around = map.foldersAround(layer->folder);
    ASSERT_LE(around.size(), static_cast<std::size_t>(kDeepestLayerFolder));
    for (const Id id : around) {
      const bool goesOn = std::find(before.begin(), before.end(), id) != before.end();
      ASSERT_EQ(std::find(met.begin(), met.end(), id) != met.end(), goesOn) << "its layers are no neighbours";
      if (!goesOn) met.push_back(id);
    }
    before = around;
  }
  std::vector<Id> folders;
  for (const LayerFolder& folder : map.folders) folders.push_back(folder.id);
  EXPECT_EQ(met, folders);
}

rc::Gen<Quilt> editOf(Quilt quilt) {
  return rc::gen::exec([quilt] {
    const auto& map = *rc::gen::elementOf(quilt.maps());
    const Shared<Layer> layer = *rc::gen::elementOf(map->layers);
    const LayerAt at{map->id, layer->id};
    IdSource ids(*rc::gen::arbitrary<std::uint64_t>());
    const auto street = [&] { return tileOf(quilt, "street", *rc::gen::inRange(0u, 8u)).tile(); };
    switch (*rc::gen::inRange(0, 26)) {
      case 0:
      case 1:
        return renameLayer(quilt, at, *rc::gen::element<std::string>("Roofs", "Rails", "Kerbs & drains", "Roofs"));
      case 2: return withOffset(quilt, at, {*rc::gen::inRange(-40, 40), *rc::gen::inRange(-40, 40)});
      case 3: return withOpacity(quilt, at, *rc::gen::inRange(0, 101));
      case 4:
        return withNote(quilt, at, *rc::gen::element<std::string>("", "quay edge is one tile wide", "\"lamps\"\n"));
      case 5: return withRole(quilt, at, *rc::gen::element<std::string>("ground", "in front", "weather"));
      case 6: return renameMap(quilt, map->id, *rc::gen::element<std::string>("Yard", "Loft", "Yard", "Ferry Street"));
      case 7: return addLevel(quilt, at, ids).quilt;
      case 8: return deleteFolder(quilt, map->id, layer->folder);
      case 9: return withRise(quilt, map->id, layer->folder, *rc::gen::inRange(-40, 200));
      case 10:
        return withDrawOrder(quilt, map->id, layer->folder, *rc::gen::element(DrawOrder::byLayers, DrawOrder::byDepth));
      case 11: return withPartner(quilt, street(), 4, *rc::gen::inRange(1, 4), street());
      case 12: return withPartner(quilt, street(), 6, *rc::gen::inRange(1, 6), std::nullopt);
      case 13: {
        Sheet sheet = *quilt.sheetAt(street().slot);
        sheet.tiles[*rc::gen::inRange(0u, 8u)].stance =
            Stance{{*rc::gen::inRange(-9, 9), *rc::gen::inRange(1, 9)}, {*rc::gen::inRange(1, 4), 1}};
        return quilt.with(std::move(sheet));
      }
      case 14: {
        std::vector<Id> some;
        for (const Shared<Layer>& one : map->layers) {
          if (*rc::gen::arbitrary<bool>()) some.push_back(one->id);
        }
        return foldLayers(quilt, map->id, some, ids).quilt;
      }
      case 15: return unfold(quilt, map->id, layer->folder);
      default: break;
    }
    std::vector<CellChange> changes;
    const int count = *rc::gen::inRange(1, 12);
    for (int i = 0; i < count; ++i) {
      const CellPos pos{*rc::gen::inRange(-6, 18), *rc::gen::inRange(-6, 10)};
      const Turn turn{*rc::gen::arbitrary<bool>(), *rc::gen::inRange<std::uint8_t>(0, 4)};
      const bool empty = *rc::gen::inRange(0, 4) == 0;
      const char* sheet = *rc::gen::element("street", "rails", "Chalk");
      changes.push_back({pos, empty ? Cell{} : tileOf(quilt, sheet, *rc::gen::inRange(0u, 8u), turn),
                         *rc::gen::element(0, 0, 8, kMostLift)});
    }
    return layCells(quilt, at, changes);
  });
}

}  // namespace uq::test
