#include "cli/QueryCommand.h"

#include <iostream>

#include "cli/Commands.h"
#include "cli/RegionWord.h"
#include "core/store/QuiltQuery.h"
#include "core/store/QuiltStore.h"

namespace uq::cli {

namespace {

int refuse(ExitCode code, const std::string& text) {
  std::cerr << text << "\n";
  return code;
}

}  // namespace

int query(const QueryOrder& order) {
  const auto what = askedFromName(order.what);
  if (!what) return refuse(kUsage, "What is asked for is facts, maps, layers, cells, tiles, spots or doorways.");
  QueryAsk ask{*what, {}, order.layer, {}};
  if (!order.region.empty()) {
    ask.region = regionFrom(order.region, -kFarthestCell);
    if (!ask.region) return refuse(kUsage, "--region is X,Y,WIDTH,HEIGHT in cells.");
  }
  const auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt), QuiltStore::Access::read);
  if (!opened) return refuse(kNotOpened, opened.error().text());
  if (!order.map.empty()) {
    const Map* map = opened->quilt.mapNamed(order.map);
    if (!map) return refuse(kNotOpened, "\"" + order.map + "\" is no map of this quilt. 'uquilt info' lists them.");
    ask.map = map->id;
  }
  const auto told = queryQuilt(opened->quilt, ask, [](const std::string& line) { std::cout << line << "\n"; });
  if (!told) return refuse(kProblems, told.error().text());
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  return opened->problems.empty() ? kFine : kProblems;
}

}  // namespace uq::cli
