#include "core/store/Journal.h"

#include <algorithm>
#include <set>

#include "core/store/JsonText.h"

namespace uq {

namespace {

constexpr std::int64_t kLargestJournal = std::int64_t{64} << 20;

std::string journalPath(const std::string& folder) { return joined(joined(folder, kPrivateFolder), "journal"); }

std::string folderOf(const std::string& path) {
  const auto slash = path.rfind('/');
  return slash == std::string::npos ? std::string() : path.substr(0, slash);
}

std::optional<std::string> insidePath(const Json& json) {
  const auto* path = json.as<std::string>();
  return path && isInside(*path) ? std::optional(*path) : std::nullopt;
}

Result<Journal> parse(const std::string& text, const std::string& path) {
  const auto json = readJson(text, path);
  if (!json) return fail(json.error());
  const auto wrong =
      fail(Error{Error::Cause::broken, "the journal of an unfinished save cannot be read", path, 0,
                 "The quilt's files were left as they are", "Remove the file to go on with the quilt as it stands"});
  Journal journal;
  for (const char* name : {"writes", "removes"}) {
    const Json* field = json->find(name);
    const auto* list = field ? field->as<Json::Array>() : nullptr;
    if (!list) return wrong;
    for (const Json& item : *list) {
      const auto inside = insidePath(item);
      if (!inside) return wrong;
      (name == std::string_view("writes") ? journal.writes : journal.removes).push_back(*inside);
    }
  }
  const Json* moves = json->find("moves");
  const auto* list = moves ? moves->as<Json::Array>() : nullptr;
  if (!list) return wrong;
  for (const Json& item : *list) {
    const Json* from = item.find("from");
    const Json* to = item.find("to");
    const auto fromPath = from ? insidePath(*from) : std::nullopt;
    const auto toPath = to ? insidePath(*to) : std::nullopt;
    if (!fromPath || !toPath) return wrong;
    journal.moves.push_back({*fromPath, *toPath});
  }
  return journal;
}

std::string write(const Journal& journal) {
  Json::Array writes(journal.writes.begin(), journal.writes.end());
  Json::Array removes(journal.removes.begin(), journal.removes.end());
  Json::Array moves;
  for (const auto& move : journal.moves) moves.push_back(Json::Object{{"from", move.from}, {"to", move.to}});
  return writeJson(Json::Object{
      {"document", "journal"}, {"version", "1.0"}, {"writes", writes}, {"moves", moves}, {"removes", removes}});
}

// Renames what is still there; a missing source was renamed by an earlier try.
Result<void> renameIfThere(Disk& disk, const std::string& from, const std::string& to) {
  const auto there = disk.stamp(from);
  if (!there) return fail(there.error());
  if (!*there) return {};
  return disk.rename(from, to);
}

}  // namespace

std::string newNameFor(const std::string& path) {
  const std::string folder = folderOf(path);
  const std::string name = path.substr(folder.empty() ? 0 : folder.size() + 1);
  return joined(folder, "." + name + ".new");
}

bool isInside(const std::string& path) {
  if (path.empty() || path.size() > 1000 || path.front() == '/' || path.find('\0') != std::string::npos) return false;
  for (std::size_t at = 0; at <= path.size();) {
    const auto end = std::min(path.find('/', at), path.size());
    const std::string part = path.substr(at, end - at);
    if (part.empty() || part == "." || part == "..") return false;
    at = end + 1;
  }
  return true;
}

Result<std::optional<Journal>> readJournal(Disk& disk, const std::string& folder) {
  const std::string path = journalPath(folder);
  const auto there = disk.stamp(path);
  if (!there) return fail(there.error());
  if (!*there) return std::nullopt;
  const auto text = disk.read(path, kLargestJournal);
  if (!text) return fail(text.error());
  auto journal = parse(*text, path);
  if (!journal) return fail(journal.error());
  return std::move(*journal);
}

Result<void> commitJournal(Disk& disk, const std::string& folder, const Journal& journal) {
  const std::string path = journalPath(folder);
  const std::string fresh = path + ".new";
  auto done = disk.write(fresh, write(journal));
  if (done) done = disk.rename(fresh, path);
  if (!done) return done;
  done = disk.syncFolder(joined(folder, kPrivateFolder));
  // A journal that stands but may not last is taken back; one that cannot be taken back counts.
  if (!done && disk.remove(path)) return done;
  return {};
}

Result<void> finishJournal(Disk& disk, const std::string& folder, const Journal& journal) {
  std::set<std::string> folders;
  for (const std::string& path : journal.writes) {
    if (auto done = renameIfThere(disk, joined(folder, newNameFor(path)), joined(folder, path)); !done) return done;
    folders.insert(joined(folder, folderOf(path)));
  }
  for (const auto& move : journal.moves) {
    if (auto done = renameIfThere(disk, joined(folder, move.from), joined(folder, move.to)); !done) return done;
    folders.insert(joined(folder, folderOf(move.from)));
    folders.insert(joined(folder, folderOf(move.to)));
  }
  for (const std::string& path : journal.removes) {
    if (auto done = disk.remove(joined(folder, path)); !done) return done;
    folders.insert(joined(folder, folderOf(path)));
  }
  for (const std::string& touched : folders) {
    if (auto done = disk.syncFolder(touched); !done) return done;
  }
  if (auto done = disk.remove(journalPath(folder)); !done) return done;
  return disk.syncFolder(joined(folder, kPrivateFolder));
}

}  // namespace uq
