#include "core/store/OverlayDisk.h"

#include <algorithm>

namespace uq {

OverlayDisk::OverlayDisk(std::shared_ptr<Disk> below, std::string folder, std::map<std::string, Shown> files,
                         std::set<std::string> removed)
    : below_(std::move(below)), folder_(std::move(folder)), files_(std::move(files)), removed_(std::move(removed)) {
  while (folder_.size() > 1 && folder_.back() == '/') folder_.pop_back();
}

std::optional<std::string> OverlayDisk::within(const std::string& path) const {
  if (path == folder_) return std::string();
  if (!path.starts_with(folder_ + "/")) return std::nullopt;
  return path.substr(folder_.size() + 1);
}

Result<std::string> OverlayDisk::read(const std::string& path, std::int64_t most) {
  const auto below = within(path);
  if (!below) return below_->read(path, most);
  if (removed_.contains(*below)) return fail(Error::Cause::missing, "there is no such file", path);
  const auto shown = files_.find(*below);
  if (shown == files_.end()) return below_->read(path, most);
  auto text = below_->read(shown->second.path, most);
  if (!text || !shown->second.join) return text;
  const auto own = below_->read(path, most);
  if (!own && own.error().cause != Error::Cause::missing) return own;
  return shown->second.join(own ? *own : std::string(), *text);
}

Result<std::optional<Disk::Stamp>> OverlayDisk::stamp(const std::string& path) {
  const auto below = within(path);
  if (!below) return below_->stamp(path);
  if (removed_.contains(*below)) return std::optional<Stamp>();
  const auto shown = files_.find(*below);
  return below_->stamp(shown == files_.end() ? path : shown->second.path);
}

Result<std::vector<Disk::Entry>> OverlayDisk::list(const std::string& folder, std::size_t most) {
  const auto below = within(folder);
  if (!below) return below_->list(folder, most);
  auto listed = below_->list(folder, most);
  const std::string prefix = below->empty() ? std::string() : *below + "/";
  std::vector<Entry> entries;
  bool any = false;
  if (listed) {
    for (Entry& one : *listed) {
      if (!removed_.contains(prefix + one.name)) entries.push_back(std::move(one));
    }
  }
  for (const auto& [path, shown] : files_) {
    if (!path.starts_with(prefix)) continue;
    any = true;
    const std::string rest = path.substr(prefix.size());
    const std::string name = rest.substr(0, rest.find('/'));
    const bool known = std::any_of(entries.begin(), entries.end(), [&](const Entry& one) { return one.name == name; });
    if (!known) entries.push_back({name, rest.size() > name.size() ? Kind::folder : Kind::file});
  }
  // A folder that only has files that are shown there is one, too.
  if (!listed && !any) return listed;
  std::sort(entries.begin(), entries.end(), [](const Entry& a, const Entry& b) { return a.name < b.name; });
  if (entries.size() > most) return fail(Error::Cause::tooLarge, "too many names lie in this folder", folder);
  return entries;
}

}  // namespace uq
