#include "core/work/EditReading.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/store/Fields.h"

namespace uq {

namespace {

using Names = std::set<std::string_view>;

// Where a step is done, and with what.
const Names kWhere = {"do", "map", "layer"};
const Names kHeld = {"tile", "hand", "stamp"};
// Of whatever lays or takes away.
const Names kOfStrokes = {"takesAway", "lift", "seed", "ids", "anywhere", "lands", "onlyThisMap", "joins"};

const std::map<std::string_view, Names> kStrokes = {
    {"paint", {"path", "at", "from", "to", "width", "even", "fitted"}},
    {"erase", {"path", "at", "from", "to", "width", "even"}},
    {"line", {"path", "from", "to", "even", "fitted"}},
    {"box", {"path", "from", "to", "even", "outline", "boxes", "fitted"}},
    {"oval", {"path", "from", "to", "even", "outline", "boxes"}},
    {"fill", {"at", "path", "everywhere", "corners", "onlyThis", "alike", "swaps", "asSeen", "fitted"}},
    {"stamp", {"at", "path", "places", "fitted"}},
    {"stretch", {"from", "to", "path", "even", "fitted"}},
};
const std::map<std::string_view, Names> kOthers = {
    {"swap", {"from", "to", "in"}},
    {"select", {"from", "to", "like", "all", "more", "less", "everywhere", "onlyThis", "alike", "asSeen", "boxes"}},
    {"move", {"by", "allLayers", "joins"}},
    {"delete", {"allLayers", "joins"}},
    {"turn", {"way", "allLayers", "joins"}},
    {"toLayer", {"to"}},
    {"take", {"allLayers"}},
    {"keep", {"name", "ids"}},
    {"joinAnew", {}},
    {"stripCovered", {}},
    {"closeJoints", {}},
};
// Those that make the place where they are, or are about a whole map.
const std::map<std::string_view, Names> kMakers = {
    {"newMap", {"do", "name", "grid", "cell", "size", "seen", "ids"}},
    {"addLayer", {"do", "map", "name", "role", "index", "ids"}},
    {"sew", {"do", "map", "other", "at", "ids"}},
    {"wrap", {"do", "map", "way", "ids"}},
    {"rip", {"do", "map"}},
    {"pin", {"do", "map", "name", "at", "over", "edge", "ids"}},
    {"movePin", {"do", "map", "pin", "at"}},
    {"removePin", {"do", "map", "pin"}},
    {"begin", {"do", "map", "pin"}},
    {"lead", {"do", "map", "from", "other", "to", "at", "facing", "oneWay", "meantSo", "needs", "ids"}},
    {"renameMap", {"do", "map", "name"}},
    {"copyMap", {"do", "map", "name", "ids"}},
    {"deleteMap", {"do", "map"}},
    {"placeMap", {"do", "map", "at"}},
    {"tidyBoard", {"do"}},
    {"map", {"do", "map", "title", "cloth", "screen", "shownTimes", "cameraFree", "grows", "seen", "opensWith"}},
    {"layer", {"do", "map", "layer", "name", "role", "opacity", "inGame", "note", "tint", "blend", "offset", "parallax"}},
    {"addBackdrop", {"do", "map", "sheet", "index", "fits", "repeatsAcross", "repeatsDown", "ids"}},
    {"copyLayer", {"do", "map", "layer", "name", "ids"}},
    {"deleteLayer", {"do", "map", "layer"}},
    {"moveLayer", {"do", "map", "layer", "index"}},
    {"mergeLayer", {"do", "map", "layer"}},
    {"level", {"do", "map", "layer", "name", "rise", "ids"}},
    {"fold", {"do", "map", "layers", "name", "ids"}},
    {"unfold", {"do", "map", "folder"}},
    {"deleteFolder", {"do", "map", "folder"}},
    {"folder", {"do", "map", "folder", "name", "rise"}},
    {"resize", {"do", "map", "left", "top", "right", "bottom", "width", "height", "toUsed", "dropsAllowance", "room",
                "layer", "insertColumns", "insertRows", "removeColumns", "removeRows"}},
};

bool isStep(std::string_view what) { return kStrokes.contains(what) || kOthers.contains(what) || kMakers.contains(what); }

}  // namespace

bool hasMeaning(std::string_view step, std::string_view field) {
  if (const auto maker = kMakers.find(step); maker != kMakers.end()) return maker->second.contains(field);
  const auto stroke = kStrokes.find(step);
  const auto other = kOthers.find(step);
  if (stroke == kStrokes.end() && other == kOthers.end()) return false;
  if (kWhere.contains(field) || kHeld.contains(field)) return true;
  if (stroke != kStrokes.end()) return stroke->second.contains(field) || kOfStrokes.contains(field);
  return other->second.contains(field);
}

const Json::Field* strayIn(const Json& json, std::initializer_list<std::string_view> known) {
  const auto* fields = json.as<Json::Object>();
  if (!fields) return nullptr;
  const auto stray = std::find_if(fields->begin(), fields->end(), [&](const Json::Field& field) {
    return std::find(known.begin(), known.end(), field.first) == known.end();
  });
  return stray == fields->end() ? nullptr : &*stray;
}

tl::unexpected<Error> EditReading::refusal(Error::Cause cause, std::string why, int line) const {
  return fail(Error{cause, std::move(why), file_, line, "Nothing was changed", {}});
}

void EditReading::refuse(const std::string& why, const Json& at, Error::Cause cause) { refuseAt(why, at.line, cause); }

void EditReading::refuseAt(const std::string& why, int line, Error::Cause cause) {
  if (error_) return;
  error_ = Error{cause, "step " + std::to_string(step_ + 1) + ": " + why, file_, line, "Nothing was changed",
                 "Mend that step and run the list again"};
}

bool EditReading::makesSense(const Json& step, const std::string& what) {
  const auto* fields = step.as<Json::Object>();
  if (!fields) return refuse("a step is spelt by fields in braces", step), false;
  if (!isStep(what)) return refuse("“" + what + "” is nothing that can be done", step), false;
  for (const Json::Field& field : *fields) {
    if (!hasMeaning(what, field.first)) refuse("“" + field.first + "” means nothing in “" + what + "”", field.second);
  }
  return !error_;
}

template <class Read>
auto EditReading::field(const Json& json, Read&& read) {
  Fields fields(json, file_);
  auto value = read(fields);
  if (fields.error()) refuseAt(fields.error()->reason, fields.error()->line);
  return value;
}

int EditReading::bounded(const Json& json, const char* name, int least, int most, int otherwise) {
  return field(json, [&](Fields& fields) { return fields.numberIfAny(name, least, most, otherwise); });
}

std::int64_t EditReading::integer(const Json& json, const char* name, std::int64_t otherwise) {
  return field(json, [&](Fields& fields) { return fields.wholeIfAny(name, otherwise); });
}

bool EditReading::flag(const Json& json, const char* name, bool otherwise) {
  return field(json, [&](Fields& fields) { return fields.flagIfAny(name, otherwise); });
}

std::string EditReading::text(const Json& json, const char* name) {
  return field(json, [&](Fields& fields) { return fields.textIfAny(name, kLongestPath); });
}

std::vector<CellLines> EditReading::lines(const Json& step) {
  constexpr std::pair<const char*, CellLines> kLineFields[] = {{"insertColumns", {CellLines::Which::columns, 0, 1}},
                                                               {"insertRows", {CellLines::Which::rows, 0, 1}},
                                                               {"removeColumns", {CellLines::Which::columns, 0, -1}},
                                                               {"removeRows", {CellLines::Which::rows, 0, -1}}};
  std::vector<CellLines> all;
  for (const auto& [name, one] : kLineFields) {
    const Json* found = step.find(name);
    const auto pair = found ? numbers(*found, 2) : std::nullopt;
    if (!pair) continue;
    if ((*pair)[1] < 1) refuse("“" + std::string(name) + "” is a place and how many, at least 1", *found);
    all.push_back({one.which, (*pair)[0], one.count * (*pair)[1]});
  }
  return all;
}

std::optional<std::vector<int>> EditReading::numbers(const Json& json, std::size_t count) {
  const auto* list = json.as<Json::Array>();
  std::vector<int> all;
  for (std::size_t i = 0; list && list->size() == count && i < count; ++i) {
    const auto* number = (*list)[i].as<std::int64_t>();
    if (!number) break;
    if (*number < -kFarthestCell || *number > kFarthestCell) {
      refuse("a place or size lies farther than 1,048,576 cells from 0", json);
      return std::nullopt;
    }
    all.push_back(static_cast<int>(*number));
  }
  if (all.size() == count) return all;
  refuse("a place or size is spelt by " + std::to_string(count) + " whole numbers", json);
  return std::nullopt;
}

std::optional<CellPos> EditReading::cell(const Json& json, const char* name) {
  const Json* found = json.find(name);
  if (!found) {
    refuse(std::string("\"") + name + "\" is missing", json);
    return std::nullopt;
  }
  const auto pair = numbers(*found, 2);
  return pair ? std::optional(CellPos{(*pair)[0], (*pair)[1]}) : std::nullopt;
}

}  // namespace uq
