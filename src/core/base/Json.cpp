#include "core/base/Json.h"

#include <cassert>

namespace uq {

const Json* Json::find(std::string_view name) const {
  const auto* object = as<Object>();
  if (!object) return nullptr;
  for (const auto& [key, field] : *object) {
    if (key == name) return &field;
  }
  return nullptr;
}

void Json::set(std::string_view name, Json field) {
  auto* object = std::get_if<Object>(&value);
  assert(object);
  for (auto& [key, old] : *object) {
    if (key == name) {
      old = std::move(field);
      return;
    }
  }
  object->emplace_back(std::string(name), std::move(field));
}

}  // namespace uq
