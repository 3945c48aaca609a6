#include "core/document/Quilt.h"

#include <algorithm>

namespace uq {

namespace {

template <class Part>
auto findById(std::vector<Shared<Part>>& parts, Id id) {
  return std::find_if(parts.begin(), parts.end(), [id](const Shared<Part>& p) { return p->id == id; });
}

template <class Part>
const Part* lookUp(const std::vector<Shared<Part>>& parts, Id id) {
  for (const auto& part : parts) {
    if (part->id == id) return &part.read();
  }
  return nullptr;
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

template <class Part>
bool drop(std::vector<Shared<Part>>& parts, Id id) {
  const auto old = findById(parts, id);
  if (old == parts.end()) return false;
  parts.erase(old);
  return true;
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

const Map* Quilt::map(Id id) const { return lookUp(maps_, id); }
const Sheet* Quilt::sheet(Id id) const { return id == chalk().id ? &chalk() : lookUp(sheets_, id); }

const Stamp* Quilt::stamp(Id id) const { return lookUp(stamps_, id); }

const Map* Quilt::mapNamed(std::string_view name) const {
  for (const auto& map : maps_) {
    if (map->name == name || map->folder == name) return &map.read();
  }
  return nullptr;
}

const Layer* Quilt::layer(LayerAt at) const {
  const Map* found = map(at.map);
  return found ? found->layer(at.layer) : nullptr;
}

const Sheet* Quilt::sheetAt(SheetSlot slot) const { return slots_.has(slot) ? sheet(slots_.sheet(slot)) : nullptr; }

Quilt Quilt::with(QuiltFacts facts) const {
  if (facts == facts_.read()) return *this;
  facts.revision = Revision::next();
  return restoring(Shared(std::move(facts)));
}

Quilt Quilt::with(Map changed) const {
  const Map* old = map(changed.id);
  if (old && *old == changed) return *this;
  changed.revision = Revision::next();
  for (Shared<Layer>& layer : changed.layers) {
    const Layer* before = old ? old->layer(layer->id) : nullptr;
    if (!before || !(*before == layer.read())) {
      layer.edit([](Layer& l) { l.revision = Revision::next(); });
    }
  }
  return restoring(Shared(std::move(changed)));
}

Quilt Quilt::with(Sheet changed) const {
  const Sheet* old = sheet(changed.id);
  if (old && *old == changed) return *this;
  changed.revision = Revision::next();
  return restoring(Shared(std::move(changed)));
}

Quilt Quilt::with(Stamp changed) const {
  const Stamp* old = stamp(changed.id);
  changed.held.stamp = changed.id;
  if (old && *old == changed) return *this;
  changed.revision = Revision::next();
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

Quilt Quilt::withoutMap(Id id) const {
  Quilt next = *this;
  drop(next.maps_, id);
  return next;
}

Quilt Quilt::withoutSheet(Id id) const {
  Quilt next = *this;
  drop(next.sheets_, id);
  return next;
}

Quilt Quilt::withoutStamp(Id id) const {
  Quilt next = *this;
  drop(next.stamps_, id);
  return next;
}

Quilt Quilt::restoring(const Shared<QuiltFacts>& facts) const {
  Quilt next = *this;
  next.facts_ = facts;
  return next;
}

Quilt Quilt::restoring(const Shared<Map>& map) const {
  Quilt next = *this;
  put(next.maps_, map);
  return next;
}

Quilt Quilt::restoring(const Shared<Stamp>& stamp) const {
  Quilt next = *this;
  put(next.stamps_, stamp);
  return next;
}

Quilt Quilt::restoring(const Shared<Sheet>& sheet) const {
  Quilt next = *this;
  if (sheet->id == chalk().id) return next;
  if (!next.slots_.slotFor(sheet->id, sheet->code)) return *this;
  put(next.sheets_, sheet);
  return next;
}

bool Quilt::knows(Id id) const {
  if (sheet(id) || stamp(id) || slots_.find(id) || facts().id == id || taken().ids.contains(id)) return true;
  return std::any_of(maps_.begin(), maps_.end(), [id](const Shared<Map>& map) {
    return map->id == id || map->layer(id) || map->layerFolder(id);
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
