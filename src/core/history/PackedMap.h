// PackedMap: what a step changed on a map, as lists of cells with their old and new values.
//
// A step that keeps a map before and after keeps a chunk of 16 KB for every place it touched; packed, 200 cells of a
// stroke are some hundred bytes (zstd). Both values can be had again from the other: before(after) and after(before),
// with the revisions they had, so that caches and the saved mark hold. Only chunks get new revisions.
// Invariant: before(a) == b and after(b) == a for the maps b, a that it was packed from.
// Cost: packing looks at the chunks that differ; unpacking writes them.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/Error.h"
#include "core/document/Map.h"

namespace uq {

// Where packed bytes go that shall not stay in memory. Calls come from any thread.
class Spill {
 public:
  struct Place {
    std::int64_t at = 0;
    std::int64_t size = 0;
  };
  virtual ~Spill() = default;
  virtual Result<Place> write(std::string_view bytes) = 0;
  virtual Result<std::string> read(Place place) = 0;
};

class PackedMap {
 public:
  // Nothing where the two differ in more than cells: layers, names and bounds are not packed.
  static std::optional<PackedMap> of(const Map& before, const Map& after);

  // An Error when the bytes were spilled and cannot be read back.
  Result<Map> before(const Map& after) const { return other(after, true); }
  Result<Map> after(const Map& before) const { return other(before, false); }

  // True when the step laid tiles of that sheet.
  bool lays(SheetSlot slot) const;

  // Bytes in memory.
  std::size_t size() const;
  // Moves the bytes out of memory. On an Error they stay.
  Result<void> spill(const std::shared_ptr<Spill>& to);

 private:
  struct PackedLayer {
    std::size_t index = 0;
    Revision before;
    Revision after;
    std::string cells;
    std::size_t unpacked = 0;  // bytes of `cells` without compression
    std::optional<Spill::Place> spilled;
  };

  Result<Map> other(const Map& from, bool toBefore) const;

  std::vector<PackedLayer> layers_;
  std::vector<SheetSlot> laid_;
  Revision before_;
  Revision after_;
  std::shared_ptr<Spill> spill_;
};

}  // namespace uq
