#include "core/store/ClipText.h"

#include <set>

#include "core/store/HandText.h"
#include "core/store/JsonText.h"

namespace uq {

namespace {

constexpr std::string_view kBegins = "{\n  \"urbanQuilt\": \"cells\"";

// The sheet of this quilt that a copied one is: the same, else one with the same picture, else one of the same name.
std::optional<SheetSlot> slotFor(const Quilt& quilt, const std::string& id, const Json& known) {
  if (const auto parsed = Id::parse(id)) {
    if (*parsed == chalk().id) return kChalkSlot;
    if (quilt.sheet(*parsed)) return quilt.slots().find(*parsed);
  }
  const auto text = [&](const char* field) {
    const Json* found = known.find(field);
    const auto* said = found ? found->as<std::string>() : nullptr;
    return said ? *said : std::string();
  };
  const std::string picture = text("picture");
  const std::string name = text("name");
  for (const auto& sheet : quilt.sheets()) {
    if (!picture.empty() && std::to_string(sheet->marks->picture) == picture) return quilt.slots().find(sheet->id);
  }
  for (const auto& sheet : quilt.sheets()) {
    if (!name.empty() && sheet->name == name) return quilt.slots().find(sheet->id);
  }
  return std::nullopt;
}

}  // namespace

std::string clipText(const InHand& hand, const Quilt& quilt) {
  InHand plain = hand;
  plain.stamp = {};
  std::set<SheetSlot> slots;
  plain.forEachCell([&](Cell cell) { slots.insert(cell.tile().slot); });
  Json::Object sheets;
  for (const SheetSlot slot : slots) {
    const Sheet* sheet = quilt.sheetAt(slot);
    Json::Object known{{"name", sheet ? sheet->name : std::string()}};
    if (sheet && sheet->marks->picture != 0) known.emplace_back("picture", std::to_string(sheet->marks->picture));
    sheets.emplace_back(quilt.slots().sheet(slot).text(), std::move(known));
  }
  return writeJson(Json::Object{{"urbanQuilt", "cells"},
                                {"version", 1},
                                {"sheets", std::move(sheets)},
                                {"hand", handJson(plain, quilt, SheetsBy::id)}});
}

bool isClipText(std::string_view text) { return text.starts_with(kBegins); }

Result<InHand> readClip(std::string_view text, const Quilt& quilt) {
  if (text.size() > kMostClipBytes) return fail(Error::Cause::tooLarge, "more was copied than can be held in the hand");
  const auto json = readJson(text, "the clipboard");
  if (!json) return fail(json.error());
  const Json* version = json->find("version");
  const auto* number = version ? version->as<std::int64_t>() : nullptr;
  if (!number || *number != 1) return fail(Error::Cause::newer, "what was copied is of a newer version");
  const Json* hand = json->find("hand");
  if (!hand) return fail(Error::Cause::broken, "what was copied holds no cells");
  // Sheets are looked up under the names by which the cells call them.
  SheetNames names;
  const Json* sheets = json->find("sheets");
  if (const auto* list = sheets ? sheets->as<Json::Object>() : nullptr) {
    for (const auto& [id, known] : *list) {
      const auto slot = slotFor(quilt, id, known);
      const Json* name = known.find("name");
      const auto* called = name ? name->as<std::string>() : nullptr;
      if (!slot) {
        return fail(Error{Error::Cause::notFound,
                          "what was copied is of the sheet “" + (called ? *called : id) + "”, which this quilt lacks",
                          {},
                          0,
                          {},
                          "Bring that sheet in, then paste again"});
      }
      names[id] = *slot;
    }
  }
  return handFromJson(*hand, quilt, names);
}

}  // namespace uq
