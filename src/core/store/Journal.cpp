#include "core/store/Journal.h"

#include <algorithm>
#include <set>

#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/store/PinsText.h"
#include "core/store/StoreLimits.h"

namespace uq {

namespace {

constexpr std::int64_t kLargestJournal = std::int64_t{64} << 20;

std::string journalPath(const std::string& folder) { return joined(joined(folder, kPrivateFolder), "journal"); }

std::optional<std::string> insidePath(const Json& json) {
  const auto* path = json.as<std::string>();
  return path && isQuiltFile(*path) ? std::optional(*path) : std::nullopt;
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

std::optional<std::string> fileOfNewName(const std::string& path) {
  const std::string name = nameOf(path);
  if (name.size() < 6 || !name.starts_with('.') || !name.ends_with(".new")) return std::nullopt;
  return joined(folderOf(path), name.substr(1, name.size() - 5));
}

bool isPlainName(std::string_view name) {
  if (name.empty() || name.size() > 200 || name.front() == '.' || !isUtf8(name)) return false;
  return std::none_of(name.begin(), name.end(),
                      [](char c) { return c == '/' || static_cast<unsigned char>(c) < 32 || c == 127; });
}

bool isQuiltFile(const std::string& path) {
  if (path == kQuiltFile || path == kLinksFile || path == kPlanFile) return true;
  std::vector<std::string> parts;
  for (std::size_t at = 0; at <= path.size() && parts.size() < 4;) {
    const auto end = std::min(path.find('/', at), path.size());
    parts.push_back(path.substr(at, end - at));
    at = end + 1;
  }
  const bool plain = std::all_of(parts.begin(), parts.end(), [](const std::string& part) { return isPlainName(part); });
  if (!plain || parts.size() < 2 || parts.size() > 3) return false;
  if (parts[0] == "sheets") return true;
  if (parts[0] == "edgings" || parts[0] == "targets") return parts.size() == 2 && parts[1].ends_with(".json");
  if (parts.size() != 3 || (parts[0] != "maps" && parts[0] != "stamps")) return false;
  const char* document = parts[0] == "maps" ? "map.json" : "stamp.json";
  if (parts[0] == "maps" && parts[2].ends_with(kPinsEnding)) return true;
  return parts[2] == document || parts[2].ends_with(".cells");
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
  const std::string text = write(journal);
  // What could not be read back could not be carried out after a crash.
  if (auto read = parse(text, path); !read) return fail(read.error());
  auto done = disk.write(fresh, text);
  if (done) done = disk.rename(fresh, path);
  if (!done) {
    (void)disk.remove(fresh);
    return done;
  }
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
  // What holds nothing any more.
  std::set<std::string> left;
  for (const auto& move : journal.moves) left.insert(folderOf(move.from));
  for (const std::string& path : journal.removes) left.insert(folderOf(path));
  for (const std::string& path : left) {
    if (path.find('/') == std::string::npos) continue;
    if (auto done = disk.removeFolder(joined(folder, path)); !done) return done;
  }
  if (auto done = disk.remove(journalPath(folder)); !done) return done;
  return disk.syncFolder(joined(folder, kPrivateFolder));
}

}  // namespace uq
