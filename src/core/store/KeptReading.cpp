#include "core/store/KeptReading.h"

#include <algorithm>
#include <set>

#include "core/store/Documents.h"
#include "core/store/StampText.h"

namespace uq {

namespace {

std::string placeOf(const Map& map) { return mapFile(map); }
std::string placeOf(const Sheet& sheet) { return sheetFile(sheet); }
std::string placeOf(const Stamp& stamp) { return stampFolder(stamp); }

// Puts the saved parts in the place of those that could not be read; false where another part has the place of one.
bool mend(Quilt& quilt, const QuiltStore& read, const QuiltStore::Opened& saved) {
  bool mended = true;
  // What stands in for facts that could not be read has no id.
  if (quilt.facts().id.empty()) quilt = quilt.restoring(saved.quilt.sharedFacts());
  PartKinds::forEach([&]<class Part>() {
    std::set<std::string> places;
    for (const Shared<Part>& part : quilt.all<Part>()) places.insert(placeOf(part.read()));
    for (const Shared<Part>& part : saved.quilt.all<Part>()) {
      const Part* now = quilt.listed<Part>(part->id);
      const bool isDamaged = now && read.damage(part->id) && !saved.store.damage(part->id);
      if (now && !isDamaged) continue;
      if (!now && !places.insert(placeOf(part.read())).second) mended = false;
      quilt = quilt.restoring(part);
    }
  });
  return mended;
}

}  // namespace

Result<KeptBack> readKept(const std::shared_ptr<Disk>& disk, const std::string& folder, const Kept& kept,
                          const QuiltStore::Opened& saved, Progress* progress) {
  // What was not read whole is read again, to be told again.
  const ReadBefore before = saved.store.isWhole() ? savedBefore(saved.quilt, disk, kept) : ReadBefore{saved.quilt};
  auto read = QuiltStore::open(withKept(disk, folder, kept), folder, QuiltStore::Access::read, progress, {}, &before);
  if (!read) return fail(read.error());
  KeptBack back{std::move(read->quilt), {}};
  for (Error& problem : read->problems) {
    const auto same = [&](const Error& one) { return one.text() == problem.text(); };
    if (std::any_of(saved.problems.begin(), saved.problems.end(), same)) continue;
    problem.kept = "This part is shown as it was saved; what was kept of it lies aside";
    problem.todo = "‘uquilt recover --list’ names it";
    back.problems.push_back(std::move(problem));
  }
  back.whole = back.problems.empty();
  if (!back.whole && !mend(back.quilt, read->store, saved)) {
    return fail(Error{Error::Cause::broken, "what was kept is damaged, and does not fit what is saved", folder, 0,
                      "The quilt is shown as it was saved; what was kept lies aside", "‘uquilt recover --list’ names it"});
  }
  return back;
}

}  // namespace uq
