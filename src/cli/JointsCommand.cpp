#include "cli/JointsCommand.h"

#include <iostream>

#include "cli/Commands.h"
#include "core/sheets/CloseJoints.h"
#include "core/store/QuiltStore.h"
#include "raster/JointFinder.h"

namespace uq::cli {

namespace {
constexpr std::size_t kMostInARound = 10'000;  // joints of a layer
}  // namespace

int layJoints(const JointsOrder& order) {
  auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt),
                                 order.dryRun ? QuiltStore::Access::read : QuiltStore::Access::write);
  if (!opened) {
    std::cerr << opened.error().text() << "\n";
    return kNotOpened;
  }
  if (!order.map.empty() && !opened->quilt.mapNamed(order.map)) {
    std::cerr << "\"" << order.map << "\" is no map of this quilt. 'uquilt info' lists them.\n";
    return kNotOpened;
  }
  JointFinder finder(SheetPictures::load(opened->quilt, opened->problems));
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  Quilt after = opened->quilt;
  std::int64_t cells = 0;
  std::size_t left = 0;
  for (const auto& part : opened->quilt.maps()) {
    if (!order.map.empty() && part->name != order.map) continue;
    Map map = part.read();
    bool changes = false;
    for (std::size_t i = map.layers.size(); i-- > 0;) {
      Closed closed = closeJoints(finder.bookFor(after, map.grid), map, i, map.bounds, {}, kMostInARound);
      left += closed.left;
      if (closed.cells == 0) continue;
      std::cout << map.name << ", " << map.layers[i]->name << ": " << closed.cells
                << (closed.cells == 1 ? " cell\n" : " cells\n");
      cells += closed.cells;
      map = std::move(closed.map);
      changes = true;
    }
    if (changes) after = after.with(std::move(map));
  }
  std::cout << cells << (cells == 1 ? " cell" : " cells") << (order.dryRun ? " would be laid" : " laid");
  if (left > 0) std::cout << ", " << left << (left == 1 ? " joint is" : " joints are") << " left for a person";
  std::cout << "\n";
  if (!order.dryRun && cells > 0) {
    if (const auto saved = opened->store.save(after); !saved) {
      std::cerr << saved.error().text() << "\n";
      return kNotWritten;
    }
  }
  return opened->problems.empty() ? kFine : kProblems;
}

}  // namespace uq::cli
