#include "core/store/RoundTrip.h"

#include <functional>

#include "core/store/Documents.h"
#include "core/store/QuiltStore.h"
#include "core/store/StoreLimits.h"

namespace uq {

namespace {

template <class Part>
std::string toldAs(const Part& part) {
  if constexpr (requires { part.name; }) return "the " + std::string(kNounOf<Part>) + " “" + part.name + "”";
  else return "the " + std::string(kNounOf<Part>) + " " + part.id.text();
}

}  // namespace

Result<RoundTrip> roundTrip(const std::shared_ptr<Disk>& disk, const Quilt& quilt, const std::string& folder, const std::string& scratch) {
  RoundTrip trip;
  {
    const auto made = QuiltStore::create(disk, scratch, quilt);
    if (!made) return fail(made.error());
  }
  const auto again = QuiltStore::open(disk, scratch, QuiltStore::Access::read);
  if (!again) return fail(again.error());
  for (const Error& problem : again->problems) trip.lost.push_back(problem.text());
  if (!(again->quilt.facts() == quilt.facts())) trip.lost.emplace_back("the quilt's own facts");
  PartKinds::forEach([&]<class Part>() {
    for (const Shared<Part>& one : quilt.all<Part>()) {
      const Part* read = again->quilt.listed<Part>(one->id);
      if (!read || !(*read == one.read())) trip.lost.push_back(toldAs(one.read()));
    }
    if (again->quilt.all<Part>().size() > quilt.all<Part>().size()) trip.lost.push_back("more " + std::string(kFolderOf<Part>) + " than there were");
  });
  const std::function<Result<void>(const std::string&)> look = [&](const std::string& below) -> Result<void> {
    const auto entries = disk->list(joined(scratch, below), kMostNames);
    if (!entries) return fail(entries.error());
    for (const Disk::Entry& entry : *entries) {
      const std::string path = below.empty() ? entry.name : joined(below, entry.name);
      if (entry.name.starts_with('.')) continue;
      if (entry.kind == Disk::Kind::folder) {
        if (auto done = look(path); !done) return done;
        continue;
      }
      ++trip.files;
      const auto now = disk->read(joined(scratch, path), kLargestCells);
      const auto own = disk->read(joined(folder, path), kLargestCells);
      if (!now || !own || *now != *own) trip.spelt.push_back(path);
    }
    return {};
  };
  if (auto done = look({}); !done) return fail(done.error());
  return trip;
}

}  // namespace uq
