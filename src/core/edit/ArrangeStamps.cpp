#include "core/edit/ArrangeStamps.h"

#include <algorithm>

namespace uq {

namespace {

std::string freeName(const Quilt& quilt, const std::string& wanted, Id own) {
  const auto taken = [&](const std::string& name) {
    return std::any_of(quilt.stamps().begin(), quilt.stamps().end(),
                       [&](const auto& one) { return one->name == name && one->id != own; });
  };
  std::string name = wanted;
  for (int n = 2; taken(name); ++n) name = wanted + " " + std::to_string(n);
  return name;
}

std::string nameOf(const Quilt& quilt, const InHand& hand) {
  std::optional<Cell> first;
  hand.forEachCell([&](Cell cell) { first = first ? first : cell; });
  const Sheet* sheet = first ? quilt.sheetAt(first->tile().slot) : nullptr;
  return sheet ? sheet->tileName(first->tile().number) : "Stamp";
}

}  // namespace

StampKept keepStamp(const Quilt& quilt, const InHand& hand, const std::string& name, IdSource& ids) {
  if (hand.empty()) return {quilt, {}};
  Stamp stamp;
  stamp.id = freshId(quilt, ids);
  stamp.name = freeName(quilt, name.empty() ? nameOf(quilt, hand) : name, stamp.id);
  std::vector<std::string> taken = quilt.taken().names<Stamp>();
  for (const auto& other : quilt.stamps()) taken.push_back(other->file);
  stamp.file = slugFor(stamp.name, taken);
  stamp.held = hand;
  stamp.held.stamp = stamp.id;
  const Id id = stamp.id;
  QuiltFacts facts = quilt.facts();
  facts.shelf = shelfOrder(quilt);
  facts.shelf.push_back(id);
  return {quilt.with(std::move(stamp)).with(std::move(facts)), id};
}

Quilt correctStamp(const Quilt& quilt, Id id, const InHand& hand) {
  const Stamp* old = quilt.stamp(id);
  if (!old || hand.empty()) return quilt;
  Stamp next = *old;
  next.held = hand;
  return quilt.with(std::move(next));
}

Quilt renameStamp(const Quilt& quilt, Id id, const std::string& name) {
  const Stamp* old = quilt.stamp(id);
  if (!old || name.empty()) return quilt;
  Stamp next = *old;
  next.name = freeName(quilt, name, id);
  return quilt.with(std::move(next));
}

Quilt deleteStamp(const Quilt& quilt, Id id) {
  if (!quilt.stamp(id)) return quilt;
  QuiltFacts facts = quilt.facts();
  std::erase(facts.shelf, id);
  return quilt.without<Stamp>(id).with(std::move(facts));
}

std::vector<Id> shelfOrder(const Quilt& quilt) {
  std::vector<Id> order;
  for (const Id id : quilt.facts().shelf) {
    if (quilt.stamp(id)) order.push_back(id);
  }
  for (const auto& stamp : quilt.stamps()) {
    if (std::find(order.begin(), order.end(), stamp->id) == order.end()) order.push_back(stamp->id);
  }
  return order;
}

Quilt movedOnShelf(const Quilt& quilt, Id stamp, Id before) {
  if (!quilt.stamp(stamp) || stamp == before) return quilt;
  QuiltFacts facts = quilt.facts();
  facts.shelf = shelfOrder(quilt);
  std::erase(facts.shelf, stamp);
  facts.shelf.insert(std::find(facts.shelf.begin(), facts.shelf.end(), before), stamp);
  return quilt.with(std::move(facts));
}

}  // namespace uq
