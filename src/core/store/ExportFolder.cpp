#include "core/store/ExportFolder.h"

#include <unistd.h>

#include <algorithm>
#include <utility>

#include "core/store/ExportState.h"
#include "core/store/Fields.h"
#include "core/store/JsonText.h"
#include "core/store/StoreLimits.h"
#include "core/store/TemplateText.h"

namespace uq {

namespace {

constexpr std::int64_t kMostCompared = std::int64_t{1} << 31;  // bytes of a file that is there already
constexpr std::int64_t kLargestBook = std::int64_t{16} << 20;
constexpr std::size_t kMostFilesOfOwner = 1'000'000;
constexpr const char* kUnsettled = "unfinished";

// Beside its place; other processes may write a file of the same name, such as a backdrop of two maps.
std::string freshName(const std::string& path) { return path + "." + std::to_string(::getpid()) + ".new"; }

Result<void> writeBeside(Disk& disk, const std::string& path, std::string_view bytes) {
  const std::string fresh = freshName(path);
  auto done = disk.write(fresh, bytes);
  if (done) done = disk.rename(fresh, path);
  if (!done) (void)disk.remove(fresh);
  return done;
}

Error forPeople(Error error) {
  if (error.kept.empty()) error.kept = "What was there before is as it was";
  if (error.cause == Error::Cause::diskFull) error.todo = "Make room, and export again";
  if (error.cause == Error::Cause::notPermitted) error.todo = "Choose a folder that you may write to";
  return error;
}

}  // namespace

void ExportFolder::begin(const std::string& owner, const std::string& name) {
  owner_ = owner;
  now_ = {name, {}, {}};
  isUnsettled_ = false;
}

Result<std::string> ExportFolder::placeFor(const std::string& path) {
  if (progress_ && progress_->isCancelled()) return fail(Error::Cause::cancelled, "exporting was cancelled", path);
  if (const auto inside = nameInside(path); !inside) return fail(inside.error());
  std::string whole = joined(folder_, path);
  const std::string parent = uq::folderOf(whole);
  if (!made_.contains(parent)) {
    if (auto made = disk_.makeFolder(parent); !made) return fail(forPeople(made.error()));
    made_.insert(parent);
  }
  return whole;
}

Result<void> ExportFolder::put(const std::string& path, const std::string& bytes) {
  const auto place = placeFor(path);
  if (!place) return fail(place.error());
  now_.files.push_back({path, static_cast<std::int64_t>(bytes.size()), sumOf(bytes)});
  const auto stamp = disk_.stamp(*place);
  const bool mayBeSame = stamp && *stamp && (*stamp)->size == static_cast<std::int64_t>(bytes.size());
  const auto there = mayBeSame ? disk_.read(*place, kMostCompared) : Result<std::string>(std::string());
  if (mayBeSame && there && *there == bytes) {
    same_.push_back(path);
    return {};
  }
  if (auto unsettled = unsettle(); !unsettled) return unsettled;
  if (auto written = writeBeside(disk_, *place, bytes); !written) return fail(forPeople(written.error()));
  written_.push_back(path);
  return {};
}

Result<void> ExportFolder::putMade(const std::string& path, const FileMaking& make) {
  const auto place = placeFor(path);
  if (!place) return fail(place.error());
  const std::string fresh = freshName(*place);
  auto file = disk_.begin(fresh);
  if (!file) return fail(forPeople(file.error()));
  BytesSum sum;
  std::int64_t size = 0;
  auto done = make([&](std::string_view bytes) {
    sum.add(bytes);
    size += static_cast<std::int64_t>(bytes.size());
    return (*file)->add(bytes);
  });
  if (done) done = (*file)->end();
  file->reset();
  if (!done) {
    (void)disk_.remove(fresh);
    return fail(forPeople(done.error()));
  }
  const Entry entry{path, size, sum.text()};
  now_.files.push_back(entry);
  const auto before = book(owner_);
  const auto stamp = disk_.stamp(*place);
  bool isSame = stamp && *stamp && (*stamp)->size == size;
  if (isSame && before) {
    isSame = std::any_of(before->files.begin(), before->files.end(), [&](const Entry& one) { return one.path == path && one.sum == entry.sum && one.size == size; });
  } else if (isSame) {
    const auto there = disk_.read(*place, kMostCompared);
    isSame = there && sumOf(*there) == entry.sum;
  }
  if (isSame) {
    same_.push_back(path);
    return disk_.remove(fresh);
  }
  auto renamed = unsettle();
  if (renamed) renamed = disk_.rename(fresh, *place);
  if (!renamed) {
    (void)disk_.remove(fresh);
    return fail(forPeople(renamed.error()));
  }
  written_.push_back(path);
  return {};
}

Result<void> ExportFolder::end(const std::string& state) {
  if (target_.empty()) return {};
  now_.state = state;
  const auto before = book(owner_);
  for (const Entry& entry : before ? before->files : std::vector<Entry>()) {
    const bool isThere = std::any_of(now_.files.begin(), now_.files.end(), [&](const Entry& one) { return one.path == entry.path; });
    if (isThere) continue;
    if (auto gone = removeIfAsWritten(entry, owner_); !gone) return gone;
  }
  const std::string text = textOf(now_);
  if (const auto was = disk_.read(bookPath(owner_), kLargestBook); was && *was == text) return {};
  auto done = disk_.makeFolder(booksFolder());
  if (done) done = writeBeside(disk_, bookPath(owner_), text);
  if (!done) return fail(forPeople(done.error()));
  return {};
}

std::string ExportFolder::textOf(const Book& book) {
  Json::Array files;
  for (const Entry& one : book.files) files.push_back(Json::Object{{"file", one.path}, {"size", one.size}, {"sum", one.sum}});
  return writeJson(Json::Object{{"document", "export-book"}, {"version", "1.0"}, {"name", book.name}, {"state", book.state}, {"files", std::move(files)}});
}

Result<void> ExportFolder::unsettle() {
  auto before = std::exchange(isUnsettled_, true) ? std::nullopt : book(owner_);
  if (!before || before->state == kUnsettled) return {};
  before->state = kUnsettled;
  if (auto done = writeBeside(disk_, bookPath(owner_), textOf(*before)); !done) return fail(forPeople(done.error()));
  return {};
}

std::optional<ExportFolder::Book> ExportFolder::book(const std::string& owner) const {
  if (target_.empty()) return std::nullopt;
  const std::string path = bookPath(owner);
  const auto text = disk_.read(path, kLargestBook);
  const auto json = text ? readJson(*text, path) : Result<Json>(fail(text.error()));
  if (!json) return std::nullopt;
  Fields fields(*json, path);
  fields.document("export-book");
  Book read{fields.textIfAny("name"), fields.text("state"), {}};
  for (const Json& one : fields.list("files", kMostFilesOfOwner)) {
    Fields file(one, path);
    Entry entry{file.text("file", kLongestPath), file.wholeIfAny("size", -1), file.text("sum")};
    // A book that was changed by hand leads nowhere else.
    if (file.error() || !nameInside(entry.path)) return std::nullopt;
    read.files.push_back(std::move(entry));
  }
  return fields.error() ? std::nullopt : std::optional(std::move(read));
}

bool ExportFolder::isOf(const std::string& owner, const std::string& state) const {
  const auto read = book(owner);
  return read && read->state == state && std::all_of(read->files.begin(), read->files.end(), [&](const Entry& one) {
    const auto stamp = disk_.stamp(joined(folder_, one.path));
    return stamp && *stamp && (*stamp)->size == one.size;
  });
}

std::vector<std::string> ExportFolder::filesOf(const std::string& owner) const {
  std::vector<std::string> files;
  const auto read = book(owner);
  for (const Entry& one : read ? read->files : std::vector<Entry>()) files.push_back(one.path);
  return files;
}

std::vector<ExportFolder::Gone> ExportFolder::gone(const std::set<std::string>& there) const {
  std::vector<Gone> all;
  const auto entries = target_.empty() ? Result<std::vector<Disk::Entry>>(std::vector<Disk::Entry>()) : disk_.list(booksFolder(), kMostNames);
  if (!entries) return all;
  for (const Disk::Entry& one : *entries) {
    if (one.kind != Disk::Kind::file || !one.name.ends_with(".json")) continue;
    const std::string owner = one.name.substr(0, one.name.size() - 5);
    const auto read = there.contains(owner) ? std::nullopt : book(owner);
    if (!read) continue;
    Gone gone{owner, read->name, {}};
    for (const Entry& file : read->files) gone.files.push_back(file.path);
    all.push_back(std::move(gone));
  }
  return all;
}

Result<void> ExportFolder::takeAway(const Gone& gone) {
  const auto read = book(gone.owner);
  for (const Entry& one : read ? read->files : std::vector<Entry>()) {
    if (auto done = removeIfAsWritten(one, gone.owner); !done) return done;
  }
  return disk_.remove(bookPath(gone.owner));
}

bool ExportFolder::isOfAnother(const std::string& path, const std::string& owner) const {
  const auto has = [&](const std::vector<Gone>& books) {
    return std::any_of(books.begin(), books.end(), [&](const Gone& one) { return std::find(one.files.begin(), one.files.end(), path) != one.files.end(); });
  };
  if (has(gone({owner}))) return true;
  // Another target may go to the same folder.
  const auto targets = disk_.list(uq::folderOf(booksFolder()), kMostNames);
  return targets && std::any_of(targets->begin(), targets->end(), [&](const Disk::Entry& one) { return one.kind == Disk::Kind::folder && one.name != target_ && has(ExportFolder(disk_, folder_, one.name).gone({})); });
}

Result<void> ExportFolder::removeIfAsWritten(const Entry& entry, const std::string& owner) {
  const std::string whole = joined(folder_, entry.path);
  const auto isIn = [&](const std::vector<std::string>& files) { return std::find(files.begin(), files.end(), entry.path) != files.end(); };
  if (isIn(written_) || isIn(same_) || isOfAnother(entry.path, owner)) return {};
  const auto there = disk_.read(whole, kMostCompared);
  if (!there) return there.error().cause == Error::Cause::missing ? Result<void>() : Result<void>(fail(there.error()));
  if (sumOf(*there) != entry.sum) {
    left_.push_back(entry.path);
    return {};
  }
  if (auto done = disk_.remove(whole); !done) return done;
  removed_.push_back(entry.path);
  // Folders that are empty now; those that are not stay.
  for (std::string parent = uq::folderOf(entry.path); !parent.empty(); parent = uq::folderOf(parent)) {
    if (auto done = disk_.removeFolder(joined(folder_, parent)); !done) return done;
  }
  return {};
}

}  // namespace uq
