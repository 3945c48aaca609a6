#include "cli/CheckCommand.h"

#include <cstdlib>
#include <filesystem>
#include <iostream>

#include "cli/Commands.h"
#include "core/check/Checks.h"
#include "core/edit/SizeFindings.h"
#include "core/sheets/LooseJoints.h"
#include "core/store/RoundTrip.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"
#include "raster/JointFinder.h"

namespace uq::cli {

namespace {

void report(const Error& error) { std::cerr << error.text() << "\n"; }

constexpr std::size_t kMostJoints = 10'000;  // of a layer

std::size_t listJoints(const Quilt& quilt, const SheetPictures& pictures) {
  JointFinder finder(pictures);
  std::size_t count = 0;
  for (const Shared<Map>& map : quilt.maps()) {
    for (std::size_t i = map->layers.size(); i-- > 0;) {
      for (const LooseJoint& joint : looseJoints(finder.bookFor(quilt, map->grid), map.read(), i, map->bounds, kMostJoints)) {
        const Sheet* sheet = quilt.sheetAt(joint.between.slot);
        std::cout << map->name << ", " << map->layers[i]->name << ", cell " << joint.cell.x << ", " << joint.cell.y << ", side "
                  << joint.side << ": " << (sheet ? sheet->tileName(joint.between.number) : "") << " belongs there\n";
        ++count;
      }
    }
  }
  return count;
}

int listSizes(const Quilt& quilt) {
  int disagree = 0;
  for (const Shared<Map>& map : quilt.maps()) {
    for (const SizeFinding& one : sizeFindings(quilt, map.read())) {
      std::cout << map->name << ": " << one.text << ". " << one.mend << "?\n";
      ++disagree;
    }
  }
  return disagree;
}

Json threadJson(const Quilt& quilt, const LooseThread& thread) {
  const Map* map = quilt.map(thread.map);
  Json::Object object{{"kind", thread.kind}, {"text", thread.text}};
  if (map) object.emplace_back("map", map->name);
  if (thread.cell) object.emplace_back("cell", Json::Array{thread.cell->x, thread.cell->y});
  if (!thread.about.empty()) object.emplace_back("about", thread.about.text());
  if (!thread.mendText.empty()) object.emplace_back("mend", thread.mendText);
  return object;
}

void printThreads(const Quilt& quilt, const Checked& checked) {
  for (const LooseThread& thread : checked.threads) {
    const Map* map = quilt.map(thread.map);
    if (map) std::cout << map->name;
    if (map && thread.cell) std::cout << ", cell " << thread.cell->x << ", " << thread.cell->y;
    std::cout << (map ? ": " : "") << thread.text << ".";
    if (!thread.mendText.empty()) std::cout << " " << thread.mendText << "?";
    std::cout << "\n";
  }
  const std::size_t count = checked.threads.size();
  std::cout << count << (count == 1 ? " loose thread" : " loose threads");
  for (const auto& [kind, left] : checked.silenced) std::cout << ", " << left << " silenced (" << kind << ": " << quilt.facts().silenced.at(kind) << ")";
  std::cout << "\n";
}

void printJson(const Quilt& quilt, const Checked& checked, const std::vector<Error>& problems) {
  Json::Array threads;
  for (const LooseThread& thread : checked.threads) threads.push_back(threadJson(quilt, thread));
  Json::Array broken;
  for (const Error& problem : problems) broken.push_back(problem.text());
  Json::Array silenced;
  for (const auto& [kind, count] : checked.silenced) {
    silenced.push_back(Json::Object{{"kind", kind}, {"count", count}, {"reason", quilt.facts().silenced.at(kind)}});
  }
  std::cout << writeJson(Json::Object{{"broken", std::move(broken)}, {"threads", std::move(threads)}, {"silenced", std::move(silenced)}});
}

// Saves the quilt in a folder beside the system's temporary files, which goes again, and compares.
int goRound(const Quilt& quilt, const std::string& folder) {
  std::string scratch = (std::filesystem::temp_directory_path() / "uquilt-round-trip-XXXXXX").string();
  if (!mkdtemp(scratch.data())) {
    std::cerr << "No folder can be made for it among the temporary files.\n";
    return kNotWritten;
  }
  const auto trip = roundTrip(realDisk(), quilt, folder, scratch + "/quilt");
  std::error_code error;
  std::filesystem::remove_all(scratch, error);
  if (!trip) {
    report(trip.error());
    return kNotWritten;
  }
  for (const std::string& lost : trip->lost) std::cout << "not the same: " << lost << "\n";
  for (const std::string& file : trip->spelt) std::cout << "would be written otherwise: " << file << "\n";
  std::cout << quilt.facts().name << ": saved and opened again, " << trip->files << " files, " << trip->lost.size() << " differences\n";
  return trip->lost.empty() ? kFine : kProblems;
}

}  // namespace

int check(const CheckOrder& order) {
  auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt), QuiltStore::Access::read);
  if (!opened) {
    report(opened.error());
    return kNotOpened;
  }
  const Quilt& quilt = opened->quilt;
  const SheetPictures pictures = SheetPictures::load(quilt, opened->problems);
  for (const Error& problem : opened->problems) report(problem);
  JointFinder joints(pictures);
  Checks checks([&joints](const Quilt& of, const GridShape& shape) { return &joints.bookFor(of, shape); });
  const Checked checked = checks.of(quilt);
  const bool isBroken = !opened->problems.empty();
  const int hanging = order.strict && !checked.threads.empty() ? kProblems : kFine;
  if (order.json) {
    printJson(quilt, checked, opened->problems);
    return isBroken ? kProblems : hanging;
  }
  if (isBroken) {
    printThreads(quilt, checked);
    return kProblems;
  }
  if (const std::size_t loose = order.joints ? listJoints(quilt, pictures) : 0; loose > 0) {
    std::cout << loose << (loose == 1 ? " loose joint\n" : " loose joints\n");
    return kProblems;
  }
  if (const int disagree = order.sizes ? listSizes(quilt) : 0; disagree > 0) {
    std::cout << disagree << (disagree == 1 ? " size does" : " sizes do") << " not agree\n";
    return kProblems;
  }
  if (order.roundTrip) {
    if (const int code = goRound(quilt, quiltFolder(order.quilt)); code != kFine) return code;
  }
  std::cout << quilt.facts().name << ": everything opens (" << quilt.maps().size() << " maps, " << quilt.sheets().size() << " sheets)\n";
  printThreads(quilt, checked);
  return hanging;
}

}  // namespace uq::cli
