#include "core/history/PackedMap.h"

#include <algorithm>
#include <cstring>
#include <utility>

#include "core/base/Squeezed.h"

namespace uq {

namespace {

constexpr std::uint32_t kWholeChunk = 0;  // instead of a count: all cells had one value and got one value

class Writer {
 public:
  template <class T>
  void add(T value) {
    bytes_.append(reinterpret_cast<const char*>(&value), sizeof value);
  }
  std::string take() { return std::move(bytes_); }

 private:
  std::string bytes_;
};

class Reader {
 public:
  explicit Reader(std::string_view bytes) : bytes_(bytes) {}
  bool done() const { return bytes_.empty(); }
  bool has(std::size_t bytes) const { return bytes_.size() >= bytes; }
  template <class T>
  T take() {
    T value;
    std::memcpy(&value, bytes_.data(), sizeof value);
    bytes_.remove_prefix(sizeof value);
    return value;
  }

 private:
  std::string_view bytes_;
};

Cell cellOf(std::uint32_t bits) {
  return bits == 0 ? Cell() : Cell({bits >> 22, bits >> 4 & kLastTileNumber}, Turn::fromCode(bits & 15));
}

// For each chunk: cx, cy, how many cells, then their places in the chunk, their old and their new values.
std::string listed(const CellGrid& before, const CellGrid& after, std::vector<SheetSlot>& laid) {
  Writer list;
  const auto note = [&laid](Cell cell) {
    if (cell.empty() || (!laid.empty() && laid.back() == cell.tile().slot)) return;
    if (std::find(laid.begin(), laid.end(), cell.tile().slot) == laid.end()) laid.push_back(cell.tile().slot);
  };
  for (const CellRect& cells : CellGrid::differences(before, after)) {
    const ChunkPos at = ChunkPos::of({cells.x0, cells.y0});
    const auto old = before.chunk(at);
    const auto now = after.chunk(at);
    list.add<std::int32_t>(at.cx);
    list.add<std::int32_t>(at.cy);
    if (old.isUniform() && now.isUniform()) {
      list.add(kWholeChunk);
      list.add(old.uniform().bits());
      list.add(now.uniform().bits());
      note(now.uniform());
      continue;
    }
    std::vector<std::uint16_t> places;
    const CellRect all = at.cells();
    for (int y = cells.y0 - all.y0; y < cells.y1 - all.y0; ++y) {
      for (int x = cells.x0 - all.x0; x < cells.x1 - all.x0; ++x) {
        if (old.cell(x, y) != now.cell(x, y)) places.push_back(static_cast<std::uint16_t>(y * kChunkSide + x));
      }
    }
    list.add(static_cast<std::uint32_t>(places.size()));
    // As distances, which repeat along a stroke.
    std::uint16_t last = 0;
    for (const std::uint16_t place : places) list.add(static_cast<std::uint16_t>(place - std::exchange(last, place)));
    for (const std::uint16_t place : places) list.add(old.cell(place % kChunkSide, place / kChunkSide).bits());
    for (const std::uint16_t place : places) {
      const Cell cell = now.cell(place % kChunkSide, place / kChunkSide);
      list.add(cell.bits());
      note(cell);
    }
  }
  return list.take();
}

// The length of a list, and what stands before and after that length in one that begins with it.
std::string counted(const std::string& list) {
  Writer count;
  count.add(static_cast<std::uint64_t>(list.size()));
  return count.take();
}
std::optional<std::pair<std::string_view, std::string_view>> parted(std::string_view both) {
  if (both.size() < sizeof(std::uint64_t)) return std::nullopt;
  const auto length = Reader(both).take<std::uint64_t>();
  both.remove_prefix(sizeof length);
  if (length > both.size()) return std::nullopt;
  return std::pair(both.substr(0, length), both.substr(length));
}

// False when the list is no list that `listed` made.
bool lay(Reader list, CellGrid& cells, bool olds) {
  while (!list.done()) {
    if (!list.has(12)) return false;
    ChunkPos at;
    at.cx = list.take<std::int32_t>();
    at.cy = list.take<std::int32_t>();
    const auto count = list.take<std::uint32_t>();
    if (count == kWholeChunk) {
      if (!list.has(8)) return false;
      const auto old = list.take<std::uint32_t>();
      const auto now = list.take<std::uint32_t>();
      cells.fill(at.cells(), cellOf(olds ? old : now));
      continue;
    }
    if (count > kChunkSide * kChunkSide || !list.has(std::size_t{count} * 10)) return false;
    std::vector<std::uint16_t> places(count);
    std::uint16_t place = 0;
    for (auto& one : places) {
      place = static_cast<std::uint16_t>(place + list.take<std::uint16_t>());
      if (place >= kChunkSide * kChunkSide) return false;
      one = place;
    }
    ChunkCells chunk = cells.chunk(at).cells();
    for (const bool old : {true, false}) {
      for (const std::uint16_t one : places) {
        const auto bits = list.take<std::uint32_t>();
        if (old == olds) chunk[one] = cellOf(bits);
      }
    }
    cells.setChunk(at, chunk);
  }
  return true;
}

}  // namespace

std::optional<PackedMap> PackedMap::of(const Map& before, const Map& after) {
  if (before.layers.size() != after.layers.size()) return std::nullopt;
  Map probe = before;
  PackedMap packed;
  for (std::size_t i = 0; i < before.layers.size(); ++i) {
    if (before.layers[i]->id != after.layers[i]->id) return std::nullopt;
    if (before.layers[i]->revision.is(after.layers[i]->revision)) continue;
    probe.layers[i].edit([&](Layer& layer) { static_cast<LayerCells&>(layer) = after.layers[i].read(); });
    packed.layers_.push_back({i, before.layers[i]->revision, after.layers[i]->revision, {}, 0, {}});
  }
  if (!(probe == after)) return std::nullopt;
  for (PackedLayer& layer : packed.layers_) {
    const Layer& old = before.layers[layer.index].read();
    const Layer& now = after.layers[layer.index].read();
    const std::string cells = listed(old.cells, now.cells, packed.laid_);
    std::vector<SheetSlot> numbers;
    const std::string lifts = listed(old.lifts.cells(), now.lifts.cells(), numbers);
    const std::string list = counted(cells) + cells + counted(lifts) + lifts + listed(old.meant.cells(), now.meant.cells(), numbers);
    layer.unpacked = list.size();
    layer.cells = squeezed(list);
  }
  packed.before_ = before.revision;
  packed.after_ = after.revision;
  return packed;
}

Result<Map> PackedMap::other(const Map& from, bool toBefore) const {
  const auto broken = [] {
    return fail(Error{Error::Cause::broken,
                      "an old step could not be read back from the disk",
                      {},
                      0,
                      "The quilt is as it was, and newer steps can still be taken back",
                      {}});
  };
  Map map = from;
  for (const PackedLayer& layer : layers_) {
    std::string packed = layer.cells;
    if (layer.spilled) {
      auto read = spill_->read(*layer.spilled);
      if (!read) return fail(read.error());
      packed = std::move(*read);
    }
    const auto list = unsqueezed(packed, layer.unpacked);
    if (!list || list->size() != layer.unpacked || layer.index >= map.layers.size()) return broken();
    bool laid = false;
    map.layers[layer.index].edit([&](Layer& l) {
      CellGrid lifts = l.lifts.cells();
      CellGrid meant = l.meant.cells();
      const auto parts = parted(*list);
      const auto numbers = parts ? parted(parts->second) : std::nullopt;
      laid = numbers && lay(Reader(parts->first), l.cells, toBefore) && lay(Reader(numbers->first), lifts, toBefore) && lay(Reader(numbers->second), meant, toBefore);
      l.lifts = NumberGrid::ofCells(std::move(lifts));
      l.meant = NumberGrid::ofCells(std::move(meant));
      l.revision = toBefore ? layer.before : layer.after;
    });
    if (!laid) return broken();
  }
  map.revision = toBefore ? before_ : after_;
  return map;
}

bool PackedMap::lays(SheetSlot slot) const { return std::find(laid_.begin(), laid_.end(), slot) != laid_.end(); }

std::size_t PackedMap::size() const {
  std::size_t bytes = sizeof *this + laid_.capacity() * sizeof(SheetSlot);
  for (const PackedLayer& layer : layers_) bytes += sizeof layer + layer.cells.capacity();
  return bytes;
}

Result<void> PackedMap::spill(const std::shared_ptr<Spill>& to) {
  for (PackedLayer& layer : layers_) {
    if (layer.spilled) continue;
    const auto place = to->write(layer.cells);
    if (!place) return fail(place.error());
    layer.spilled = *place;
    layer.cells = {};
    spill_ = to;
  }
  return {};
}

}  // namespace uq
