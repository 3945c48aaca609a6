#include "core/store/PinsText.h"

#include <algorithm>

#include "core/store/Documents.h"
#include "core/store/Fields.h"
#include "core/store/OwnIds.h"
#include "core/store/JsonText.h"
#include "core/store/StoreLimits.h"

namespace uq {

namespace {

Json pinJson(const Pin& pin) {
  Json::Object object{{"id", pin.id.text()}, {"number", pin.number}};
  if (!pin.name.empty()) object.emplace_back("name", pin.name);
  if (pin.edge) {
    object.emplace_back("edge", edgeName(*pin.edge));
  } else {
    object.emplace_back("cell", Json::Array{pin.cell.x, pin.cell.y});
    if (!(pin.over == PixelSize{1, 1})) object.emplace_back("over", pair(pin.over));
  }
  if (!(pin.beside == PixelPos{})) object.emplace_back("beside", pair(pin.beside));
  if (!pin.note.empty()) object.emplace_back("note", pin.note);
  append(object, pin.extra);
  return object;
}

Result<Pin> readPin(const Json& json, const std::string& file) {
  Fields fields(json, file);
  Pin pin;
  pin.id = fields.id("id");
  pin.number = fields.number("number", 1, kMostPinNumber);
  pin.name = fields.textIfAny("name", kLongestPinName);
  if (fields.has("edge")) {
    pin.edge = edgeFromName(fields.text("edge"));
    if (!pin.edge) fields.refuse("\"edge\" is none of \"left\", \"top\", \"right\" and \"bottom\"", fields.line("edge"));
  } else {
    const auto cell = fields.numbers("cell", 2, -kFarthestCell, kFarthestCell);
    pin.cell = {cell[0], cell[1]};
    if (fields.has("over")) {
      const auto over = fields.numbers("over", 2, 1, kFarthestCell);
      pin.over = {over[0], over[1]};
    }
  }
  if (fields.has("beside")) {
    const auto beside = fields.numbers("beside", 2, -kFarthestBeside, kFarthestBeside);
    pin.beside = {beside[0], beside[1]};
  }
  pin.note = fields.textIfAny("note", kLongestNote);
  pin.extra = fields.rest();
  return checked(fields, std::move(pin));
}

}  // namespace

std::string pinsFile(const Map& map, const Layer& layer) {
  return folderOf(mapFile(map)) + "/" + layer.file + std::string(kPinsEnding);
}

Json pinsDocument(const Pins& pins) {
  Json::Object object = documentBegun("pins");
  Json::Array list;
  for (const Pin& pin : pins) list.push_back(pinJson(pin));
  object.emplace_back("pins", std::move(list));
  return object;
}

Result<Pins> readPinsDocument(const Json& json, const std::string& file) {
  Fields fields(json, file);
  fields.document("pins");
  Pins pins;
  const Json::Array& list = fields.list("pins", kMostPins);
  pins.reserve(list.size());
  for (const Json& one : list) {
    auto pin = readPin(one, file);
    if (!pin) return fail(pin.error());
    pins.push_back(std::move(*pin));
  }
  giveOwnIds(pins);
  return checked(fields, std::move(pins));
}

Result<Pins> readPins(const Result<std::string>& text, const std::string& file) {
  if (!text) return fail(text.error());
  const auto json = readJson(*text, file);
  return json ? readPinsDocument(*json, file) : Result<Pins>(fail(json.error()));
}

Json pinAtJson(const PinAt& at) { return Json::Object{{"map", at.map.text()}, {"pin", at.pin.text()}}; }

PinAt readPinAt(const Json& json, const std::string& file, Fields& outer) {
  Fields fields(json, file);
  const PinAt at{fields.id("map"), fields.id("pin")};
  outer.takeFrom(fields);
  return at;
}

}  // namespace uq
