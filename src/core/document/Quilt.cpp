#include "core/document/Quilt.h"

#include <algorithm>

namespace uq {

namespace {

template <class Part>
auto findById(std::vector<Shared<Part>>& parts, Id id) {
  return std::find_if(parts.begin(), parts.end(), [id](const Shared<Part>& p) { return p->id == id; });
}

// Puts a part where the order by name wants it, in place of the one with its id.
template <class Part>
void put(std::vector<Shared<Part>>& parts, Shared<Part> part) {
  const auto old = findById(parts, part->id);
  if (old != parts.end() && (*old)->name == part->name) {
    *old = std::move(part);
    return;
  }
  if (old != parts.end()) parts.erase(old);
  const auto after = std::find_if(parts.begin(), parts.end(), [&](const Shared<Part>& p) {
    return std::pair(p->name, p->id) > std::pair(part->name, part->id);
  });
  parts.insert(after, std::move(part));
}

// What is settled of a part before it is put back, and what gets a new revision along with one that changed.
template <class Part>
void settle(Part&) {}
// A stamp keeps tiles: of a material the one by which it is seen.
void settle(Stamp& changed) {
  changed.held.stamp = changed.id;
  changed.held.edging = {};
  changed.held.material = 0;
}

template <class Part>
void renew(Part&, const Part*) {}
void renew(Map& changed, const Map* old) {
  for (Shared<Layer>& layer : changed.layers) {
    const Layer* before = old ? old->layer(layer->id) : nullptr;
    if (!before || !(*before == layer.read())) {
      layer.edit([](Layer& l) { l.revision = Revision::next(); });
    }
  }
}

}  // namespace

std::optional<SheetSlot> SheetSlots::slotFor(Id sheet, std::string_view code) {
  if (const auto slot = find(sheet)) return slot;
  if (entries_.size() + 1 >= kChalkSlot) return std::nullopt;
  entries_.push_back({sheet, std::string(code)});
  return static_cast<SheetSlot>(entries_.size());
}

std::optional<SheetSlot> SheetSlots::find(Id sheet) const {
  if (sheet == chalk().id) return kChalkSlot;
  for (std::size_t i = 0; i < entries_.size(); ++i) {
    if (entries_[i].sheet == sheet) return static_cast<SheetSlot>(i + 1);
  }
  return std::nullopt;
}

const Sheet* Quilt::sheet(Id id) const { return id == chalk().id ? &chalk() : listed<Sheet>(id); }

const Map* Quilt::mapNamed(std::string_view name) const {
  for (const auto& map : maps()) {
    if (map->name == name || map->folder == name) return &map.read();
  }
  return nullptr;
}

const Layer* Quilt::layer(LayerAt at) const {
  const Map* found = map(at.map);
  return found ? found->layer(at.layer) : nullptr;
}

const Pin* Quilt::pin(PinAt at) const {
  const Map* found = map(at.map);
  return found ? found->pin(at.pin) : nullptr;
}

const Sheet* Quilt::sheetAt(SheetSlot slot) const { return slots_.has(slot) ? sheet(slots_.sheet(slot)) : nullptr; }

Quilt Quilt::with(QuiltFacts facts) const {
  if (facts == facts_.read()) return *this;
  facts.revision = Revision::next();
  return restoring(Shared(std::move(facts)));
}

template <class Part>
Quilt Quilt::with(Part changed) const {
  const Part* old = listed<Part>(changed.id);
  settle(changed);
  if (old && *old == changed) return *this;
  changed.revision = Revision::next();
  renew(changed, old);
  return restoring(Shared(std::move(changed)));
}

Quilt Quilt::with(LayerAt at, Layer changed) const {
  const Map* old = map(at.map);
  const auto index = old ? old->layerIndex(at.layer) : std::nullopt;
  if (!index) return *this;
  Map next = *old;
  next.layers[*index] = Shared(std::move(changed));
  return with(std::move(next));
}

Quilt Quilt::with(LayerAt at, LayerCells cells) const {
  const Layer* old = layer(at);
  if (!old || !old->holdsTiles() || *static_cast<const LayerCells*>(old) == cells) return *this;
  Layer next = *old;
  static_cast<LayerCells&>(next) = std::move(cells);
  return with(at, std::move(next));
}

template <class Part>
Quilt Quilt::without(Id id) const {
  Quilt next = *this;
  std::erase_if(std::get<std::vector<Shared<Part>>>(next.parts_), [id](const Shared<Part>& one) { return one->id == id; });
  return next;
}

Quilt Quilt::restoring(const Shared<QuiltFacts>& facts) const {
  Quilt next = *this;
  next.facts_ = facts;
  return next;
}

template <class Part>
Quilt Quilt::restoring(const Shared<Part>& part) const {
  Quilt next = *this;
  if constexpr (std::is_same_v<Part, Sheet>) {
    if (part->id == chalk().id || !next.slots_.slotFor(part->id, part->code)) return *this;
  }
  put(std::get<std::vector<Shared<Part>>>(next.parts_), part);
  return next;
}

// All kinds, for whoever includes the header only.
template Quilt Quilt::with(Map) const;
template Quilt Quilt::with(Sheet) const;
template Quilt Quilt::with(Stamp) const;
template Quilt Quilt::with(Seam) const;
template Quilt Quilt::with(ChalkPiece) const;
template Quilt Quilt::with(Edging) const;
template Quilt Quilt::with(Doorway) const;
template Quilt Quilt::with(Target) const;
template Quilt Quilt::without<Map>(Id) const;
template Quilt Quilt::without<Sheet>(Id) const;
template Quilt Quilt::without<Stamp>(Id) const;
template Quilt Quilt::without<Seam>(Id) const;
template Quilt Quilt::without<ChalkPiece>(Id) const;
template Quilt Quilt::without<Edging>(Id) const;
template Quilt Quilt::without<Doorway>(Id) const;
template Quilt Quilt::without<Target>(Id) const;
template Quilt Quilt::restoring(const Shared<Map>&) const;
template Quilt Quilt::restoring(const Shared<Sheet>&) const;
template Quilt Quilt::restoring(const Shared<Stamp>&) const;
template Quilt Quilt::restoring(const Shared<Seam>&) const;
template Quilt Quilt::restoring(const Shared<ChalkPiece>&) const;
template Quilt Quilt::restoring(const Shared<Edging>&) const;
template Quilt Quilt::restoring(const Shared<Doorway>&) const;
template Quilt Quilt::restoring(const Shared<Target>&) const;

bool Quilt::knows(Id id) const {
  if (sheet(id) || stamp(id) || listed<Seam>(id) || listed<ChalkPiece>(id) || listed<Doorway>(id) || listed<Edging>(id) || listed<Target>(id) || slots_.find(id) || facts().id == id || taken().ids.contains(id)) return true;
  return std::any_of(maps().begin(), maps().end(), [id](const Shared<Map>& map) {
    return map->id == id || map->layer(id) || map->layerFolder(id) || map->pin(id);
  });
}

Id freshId(const Quilt& quilt, IdSource& ids) {
  Id id = ids.next();
  while (quilt.knows(id)) id = ids.next();
  return id;
}

std::string slugFor(std::string_view name, const std::vector<std::string>& taken) {
  constexpr std::size_t kLongest = 56;  // leaves room for a number
  std::string slug;
  for (char c : name) {
    const bool letter = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
    const bool capital = c >= 'A' && c <= 'Z';
    if (letter || capital) {
      slug += capital ? static_cast<char>(c - 'A' + 'a') : c;
    } else if (!slug.empty() && slug.back() != '-') {
      slug += '-';
    }
    if (slug.size() == kLongest) break;
  }
  while (!slug.empty() && slug.back() == '-') slug.pop_back();
  if (slug.empty()) slug = "unnamed";
  const auto isTaken = [&](const std::string& s) { return std::find(taken.begin(), taken.end(), s) != taken.end(); };
  std::string candidate = slug;
  for (int n = 2; isTaken(candidate); ++n) candidate = slug + "-" + std::to_string(n);
  return candidate;
}

}  // namespace uq
