#include "core/store/Holder.h"

#include <pwd.h>
#include <unistd.h>

#include <array>
#include <ctime>

#include "core/store/JsonText.h"

namespace uq {

namespace {

constexpr const char* kHolderFile = "open.json";
constexpr std::int64_t kLargestHolder = 4096;  // bytes
constexpr std::size_t kLongestHolderName = 100;

std::string timeText(std::int64_t seconds, const char* form) {
  const std::time_t time = static_cast<std::time_t>(seconds);
  std::tm local{};
  std::array<char, 64> text{};
  if (!localtime_r(&time, &local)) return {};
  return {text.data(), std::strftime(text.data(), text.size(), form, &local)};
}

std::string holderName(const Json& json, const char* field) {
  const Json* found = json.find(field);
  const auto* text = found ? found->as<std::string>() : nullptr;
  return text ? text->substr(0, kLongestHolderName) : std::string();
}

}  // namespace

Holder Holder::thisProgram() {
  Holder holder;
  std::array<char, 4096> place{};
  passwd entry{};
  passwd* found = nullptr;
  if (getpwuid_r(geteuid(), &entry, place.data(), place.size(), &found) == 0 && found) holder.who = found->pw_name;
  std::array<char, 256> machine{};
  if (gethostname(machine.data(), machine.size() - 1) == 0) holder.machine = machine.data();
  holder.since = static_cast<std::int64_t>(std::time(nullptr));
  return holder;
}

void writeHolder(Disk& disk, const std::string& folder, const Holder& holder) {
  const Json json = Json::Object{{"who", holder.who}, {"machine", holder.machine}, {"since", holder.since}};
  (void)disk.write(joined(folder, kHolderFile), writeJson(json));
}

std::optional<Holder> readHolder(Disk& disk, const std::string& folder) {
  const auto text = disk.read(joined(folder, kHolderFile), kLargestHolder);
  const auto json = text ? readJson(*text, kHolderFile) : Result<Json>(fail(text.error()));
  if (!json) return std::nullopt;
  const Json* since = json->find("since");
  const auto* seconds = since ? since->as<std::int64_t>() : nullptr;
  if (!seconds) return std::nullopt;
  return Holder{holderName(*json, "who"), holderName(*json, "machine"), *seconds};
}

std::string textOf(const Holder& holder) {
  const std::int64_t now = static_cast<std::int64_t>(std::time(nullptr));
  const bool isToday = timeText(holder.since, "%F") == timeText(now, "%F");
  return (holder.who.empty() ? std::string("another window") : holder.who) + " has this quilt open" +
         (holder.machine.empty() ? std::string() : " on " + holder.machine) + " since " +
         timeText(holder.since, isToday ? "%H:%M" : "%F %H:%M");
}

}  // namespace uq
