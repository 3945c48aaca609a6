// SavedQuilt: the small quilt, saved on a disk in memory; what tests of the store begin with.
#pragma once

#include "core/Support.h"
#include "core/edit/LayCells.h"
#include "core/store/QuiltStore.h"

namespace uq::test {

inline const std::string kFolder = "/quilts/copperline";

struct Saved {
  std::shared_ptr<MemoryDisk> disk = std::make_shared<MemoryDisk>();
  Quilt quilt;
  std::unique_ptr<QuiltStore> store;

  Saved() {
    auto created = QuiltStore::create(disk, kFolder, smallQuilt());
    EXPECT_TRUE(created) << created.error().text();
    quilt = created->quilt;
    store = std::make_unique<QuiltStore>(std::move(created->store));
    disk->written.clear();
  }

  std::string& file(const std::string& path) { return disk->files.at(kFolder + "/" + path); }
  Quilt painted(const char* map = "Yard", const char* layer = "Sheds") const {
    const std::vector<CellChange> one = {{{1, 2}, tileOf(quilt, "rails", 3)}};
    return layCells(quilt, layerOf(quilt, map, layer), one);
  }
  Result<QuiltStore::Opened> open(QuiltStore::Access access = QuiltStore::Access::write) {
    store.reset();
    return QuiltStore::open(disk, kFolder, access);
  }
  // Without the temporary names of a save.
  std::vector<std::string> names(const std::vector<std::string>& paths) const {
    std::vector<std::string> names;
    for (const std::string& path : paths) {
      if (path.find(".urban-quilt") == std::string::npos) names.push_back(path.substr(kFolder.size() + 1));
    }
    return names;
  }
};

}  // namespace uq::test
