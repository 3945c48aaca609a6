#include "cli/RecoverCommand.h"

#include <algorithm>
#include <cstdlib>
#include <ctime>
#include <filesystem>
#include <iomanip>
#include <iostream>

#include "cli/Commands.h"
#include "core/store/KeptReading.h"
#include "core/store/QuiltStore.h"
#include "core/store/StateFolder.h"

namespace uq::cli {

namespace {

constexpr std::size_t kMostPlaces = 10'000;

struct Place {
  std::string path;
  Kept kept;
  bool isAside = false;
};

// What is kept, of one quilt or of all; what cannot be read is reported.
std::vector<Place> places(Disk& disk, const std::string& quilt, bool& broken) {
  std::vector<Place> found;
  const std::string all = joined(stateFolderPath(), "kept");
  const auto there = disk.list(all, kMostPlaces);
  if (!there) return found;
  for (const Disk::Entry& one : *there) {
    if (one.kind != Disk::Kind::folder) continue;
    auto kept = keptAt(disk, joined(all, one.name));
    if (!kept) {
      std::cerr << kept.error().text() << "\n";
      broken = true;
    } else if (*kept && (quilt.empty() || canonicalPath((*kept)->facts.folder) == quilt)) {
      const bool isAside = one.name.find(".aside-") != std::string::npos;
      found.push_back({joined(all, one.name), std::move(**kept), isAside});
    }
  }
  // The latest first.
  std::stable_sort(found.begin(), found.end(),
                   [](const Place& a, const Place& b) { return a.kept.facts.until > b.kept.facts.until; });
  return found;
}

void say(const Place& place) {
  const KeptFacts& facts = place.kept.facts;
  const std::time_t until = static_cast<std::time_t>(facts.until);
  std::tm local{};
  localtime_r(&until, &local);
  std::cout << facts.name << ", " << facts.folder << ": " << facts.steps << (facts.steps == 1 ? " step" : " steps")
            << " until " << std::put_time(&local, "%Y-%m-%d %H:%M") << (place.isAside ? ", put aside" : "") << "\n";
}

int apply(const std::shared_ptr<Disk>& disk, const Place& place) {
  const std::string& folder = place.kept.facts.folder;
  const auto changed = changedSince(*disk, folder, place.kept);
  if (!changed.empty()) {
    std::cerr << joined(folder, changed.front())
              << ": it was saved or changed after the work on it was kept. Nothing was changed. Put the files back as they "
                 "were, or drop what was kept.\n";
    return kNotWritten;
  }
  auto opened = QuiltStore::open(disk, folder, QuiltStore::Access::write);
  if (!opened) {
    std::cerr << opened.error().text() << "\n";
    return kNotOpened;
  }
  const auto back = readKept(disk, folder, place.kept, *opened);
  if (!back) {
    std::cerr << back.error().text() << "\n";
    return kNotOpened;
  }
  for (const Error& problem : back->problems) std::cerr << problem.text() << "\n";
  const auto saved = opened->store.save(back->quilt);
  if (!saved) {
    std::cerr << saved.error().text() << "\n";
    return kNotWritten;
  }
  // What could not be read is left for whoever can.
  const auto gone = back->whole ? KeptWork(disk, place.path).drop() : place.isAside ? Result<void>() : putAside(*disk, place.path);
  if (!gone) std::cerr << gone.error().text() << "\n";
  std::cout << place.kept.facts.name << ": saved as it was kept, " << saved->written.size()
            << (saved->written.size() == 1 ? " file written\n" : " files written\n");
  return back->whole ? kFine : kProblems;
}

}  // namespace

int recover(const RecoverOrder& order) {
  const std::shared_ptr<Disk> disk = realDisk();
  std::string quilt;
  if (!order.quilt.empty() || order.apply || order.drop) {
    quilt = canonicalPath(quiltFolder(order.quilt));
  }
  bool broken = false;
  const std::vector<Place> kept = places(*disk, quilt, broken);
  if (kept.empty()) {
    std::cout << "Nothing is kept" << (quilt.empty() ? "\n" : " of " + quilt + "\n");
    return broken ? kProblems : kFine;
  }
  if (order.apply) return apply(disk, kept.front());
  for (const Place& place : kept) {
    say(place);
    if (!order.drop) continue;
    if (const auto gone = KeptWork(disk, place.path).drop(); !gone) {
      std::cerr << gone.error().text() << "\n";
      return kNotWritten;
    }
    std::cout << "  dropped\n";
  }
  return broken ? kProblems : kFine;
}

}  // namespace uq::cli
