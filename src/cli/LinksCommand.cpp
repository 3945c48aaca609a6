#include "cli/LinksCommand.h"

#include <iostream>

#include "cli/Commands.h"
#include "core/edit/Doorways.h"
#include "core/edit/LinkGraph.h"
#include "core/edit/Pins.h"
#include "core/edit/Seams.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"

namespace uq::cli {

namespace {

void printLinks(const Quilt& quilt) {
  const PinAt start = quilt.facts().start;
  if (const Pin* pin = quilt.pin(start)) std::cout << "The player begins at “" << pinText(*pin) << "” on " << quilt.map(start.map)->name << ".\n";
  for (const Shared<Map>& map : quilt.maps()) {
    std::cout << "\n" << map->name << "\n";
    for (const Id id : doorwaysOf(quilt, map->id)) {
      const Doorway& doorway = *quilt.listed<Doorway>(id);
      // Each once: where it begins, else, where that is gone, at its other end.
      if (doorway.from.map == map->id || !quilt.map(doorway.from.map)) std::cout << "  " << doorwayText(quilt, doorway) << "\n";
      else std::cout << "  “" << (quilt.pin(doorway.to) ? pinText(*quilt.pin(doorway.to)) : "a spot that is gone") << "” is where one comes from "
                     << quilt.map(doorway.from.map)->name << ".\n";
    }
    for (const Id id : seamsOf(quilt, map->id)) std::cout << "  sewn: " << seamText(quilt, *quilt.listed<Seam>(id)) << "\n";
  }
}

}  // namespace

int links(const std::string& folder, bool json) {
  const auto opened = QuiltStore::open(realDisk(), quiltFolder(folder), QuiltStore::Access::read);
  if (!opened) {
    std::cerr << opened.error().text() << "\n";
    return kNotOpened;
  }
  if (json) std::cout << writeJson(linkGraph(opened->quilt));
  else printLinks(opened->quilt);
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  return opened->problems.empty() ? kFine : kProblems;
}

}  // namespace uq::cli
