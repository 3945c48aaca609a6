#include "core/edit/SewnMaps.h"

#include <algorithm>
#include <cstdlib>

namespace uq {

namespace {

constexpr int kFarthestOnCanvas = 1 << 20;  // cells; farther off no map is followed

CellRect shiftedBy(const CellRect& cells, CellPos by) {
  return {cells.x0 + by.x, cells.y0 + by.y, cells.x1 + by.x, cells.y1 + by.y};
}

int wrapped(int at, int period) { return at - floorDiv(at, period) * period; }

// Whether two stretches of cells have one in common, where all repeats after `period` cells; 0: nothing does.
bool shareOne(int a0, int a1, int b0, int b1, int period) {
  if (period == 0) return a0 < b1 && b0 < a1;
  return wrapped(b0 - a0, period) < a1 - a0 || wrapped(a0 - b0, period) < b1 - b0;
}

bool shareCells(const CellRect& a, const CellRect& b, const Period& period) {
  return shareOne(a.x0, a.x1, b.x0, b.x1, period.across) && shareOne(a.y0, a.y1, b.y0, b.y1, period.down);
}

bool shiftsRows(GridKind kind) { return kind == GridKind::staggered || kind == GridKind::hexagonalPointy; }

std::string cellsText(const GridShape& grid) {
  std::string text = std::to_string(grid.cell.w) + " × " + std::to_string(grid.cell.h) + " px";
  if (grid.side > 0) text += " with sides of " + std::to_string(grid.side) + " px";
  return text;
}

}  // namespace

std::string whyNotSewable(const Map& map, const Map& other) {
  const GridShape& a = map.grid;
  const GridShape& b = other.grid;
  if (a.kind != b.kind) {
    return map.name + " is made of " + std::string(cellsCalled(a.kind)) + ", " + other.name + " of " +
           std::string(cellsCalled(b.kind)) + ": only maps of one grid can be sewn";
  }
  if (a.cell != b.cell || a.side != b.side) {
    return "The cells of " + map.name + " are " + cellsText(a) + ", those of " + other.name + " " + cellsText(b) +
           ": sewn maps have cells of one size";
  }
  if (map.seen != other.seen) {
    const auto seenText = [](Seen seen) { return seen == Seen::sideOn ? "side on" : "from above"; };
    return map.name + " is seen " + seenText(map.seen) + ", " + other.name + " " + seenText(other.seen) +
           ": sewn maps are seen the same way";
  }
  return {};
}

std::string whyNoStep(const Map& map, const Map& other, CellPos by) {
  const bool differ = map.grid.firstShift != other.grid.firstShift;
  if (shiftsRows(map.grid.kind) && ((by.y & 1) != 0) != differ) {
    return "The rows of " + other.name + " would lie half a cell off: one row more, or one farther up or down, and it can be sewn";
  }
  if (map.grid.kind == GridKind::hexagonalFlat && ((by.x & 1) != 0) != differ) {
    return "The columns of " + other.name + " would lie half a cell off: one column more, or one farther to a side, and it can be sewn";
  }
  return {};
}

PixelPos pixelStep(const Map& map, const Map& other, CellPos by) {
  const PixelRect there = makeGrid(map.grid)->cellBox(by);
  const PixelRect own = makeGrid(other.grid)->cellBox({0, 0});
  return {there.x - own.x, there.y - own.y};
}

bool edgesMeet(GridKind kind, const CellRect& a, const CellRect& b) {
  const int rows = std::min(a.y1, b.y1) - std::max(a.y0, b.y0);
  const bool beside = (a.x1 == b.x0 || b.x1 == a.x0) && rows >= (kind == GridKind::staggered ? 2 : 1);
  const bool below = (a.y1 == b.y0 || b.y1 == a.y0) && shareOne(a.x0, a.x1, b.x0, b.x1, 0);
  return !a.empty() && !b.empty() && (beside || below);
}

std::vector<StitchSide> stitchOf(const Map& map, const Map& other, CellPos by) {
  const auto grid = makeGrid(map.grid);
  const CellRect& own = map.bounds;
  std::vector<CellRect> there;
  if (map.id != other.id) {
    there.push_back(shiftedBy(other.bounds, by));
  } else {
    const CellPos way{by.x * own.width(), by.y * own.height()};
    there = {shiftedBy(own, way), shiftedBy(own, {-way.x, -way.y})};
  }
  std::vector<StitchSide> sides;
  const auto look = [&](CellPos cell, const CellRect& beyond) {
    const std::vector<PixelPos> corners = grid->outline(cell);
    for (int side = 0; side < static_cast<int>(corners.size()); ++side) {
      const CellPos next = grid->across(cell, side);
      if (own.contains(next) || !beyond.contains(next)) continue;
      StitchSide one{corners[static_cast<std::size_t>(side)], corners[static_cast<std::size_t>(side + 1) % corners.size()]};
      // Goes on where the one before ended, or runs towards where that began.
      if (!sides.empty()) {
        StitchSide& last = sides.back();
        const auto straight = [](PixelPos a, PixelPos b, PixelPos c) {
          return std::int64_t{b.x - a.x} * (c.y - a.y) == std::int64_t{b.y - a.y} * (c.x - a.x);
        };
        if (last.to == one.from && straight(last.from, last.to, one.to)) {
          last.to = one.to;
          continue;
        }
        if (last.from == one.to && straight(one.from, last.from, last.to)) {
          last.from = one.from;
          continue;
        }
      }
      sides.push_back(one);
    }
  };
  for (const CellRect& beyond : there) {
    // Only the cells along the edges that meet: one more row or column of the other is on the map's own.
    const CellRect strip = beyond.grown(1).intersected(own);
    for (int y = strip.y0; y < strip.y1; ++y) {
      for (int x = strip.x0; x < strip.x1; ++x) look({x, y}, beyond);
    }
  }
  return sides;
}

SewnMaps::SewnMaps(const Quilt& quilt) {
  if (quilt.seams().empty()) return;
  for (const Shared<Map>& map : quilt.maps()) {
    bounds_[map->id] = map->bounds;
    names_[map->id] = map->name;
  }
  for (const Shared<Seam>& seam : quilt.seams()) {
    if (std::string why = sew(quilt, seam.read()); !why.empty()) wrong_[seam->id] = std::move(why);
  }
}

std::shared_ptr<const SewnMaps> SewnMaps::of(const Quilt& quilt) {
  struct Asked {
    Id map;
    CellRect bounds;
    GridShape grid;
    Seen seen;
    std::string name;
    bool is(const Map& one) const {
      return map == one.id && bounds == one.bounds && grid == one.grid && seen == one.seen && name == one.name;
    }
  };
  struct Last {
    std::vector<Asked> maps;
    std::vector<Shared<Seam>> seams;
    std::shared_ptr<const SewnMaps> sewn;
  };
  thread_local Last last;
  static const auto kNothing = std::make_shared<const SewnMaps>();
  if (quilt.seams().empty()) return kNothing;
  const bool same = last.sewn && last.seams == quilt.seams() &&
                    std::equal(last.maps.begin(), last.maps.end(), quilt.maps().begin(), quilt.maps().end(),
                               [](const Asked& asked, const Shared<Map>& map) { return asked.is(map.read()); });
  if (same) return last.sewn;
  last.maps.clear();
  for (const Shared<Map>& map : quilt.maps()) last.maps.push_back({map->id, map->bounds, map->grid, map->seen, map->name});
  last.seams = quilt.seams();
  last.sewn = std::make_shared<const SewnMaps>(quilt);
  return last.sewn;
}

std::size_t SewnMaps::clothOf(Id map) {
  const auto [known, isNew] = of_.try_emplace(map, cloths_.size());
  if (isNew) cloths_.push_back({{{map, {}}}, {}});
  return known->second;
}

CellPos SewnMaps::placeOf(Id map) const {
  for (const Sewn& one : cloths_[of_.at(map)].maps) {
    if (one.map == map) return one.by;
  }
  return {};
}

std::string SewnMaps::sew(const Quilt& quilt, const Seam& seam) {
  const Map* map = quilt.map(seam.map);
  const Map* other = quilt.map(seam.other);
  if (!map || !other) {
    const Map* left = map ? map : other;
    return left ? left->name + " is sewn to a map that is not in this quilt" : "Two maps are sewn that are not in this quilt";
  }
  return seam.wraps() ? wrap(*map, seam.by == kWrapsDown) : join(quilt, *map, *other, seam);
}

std::string SewnMaps::wrap(const Map& map, bool down) {
  const int size = down ? map.bounds.height() : map.bounds.width();
  if (size % 2 != 0 && down && shiftsRows(map.grid.kind)) {
    return map.name + " has an odd number of rows: one row more to wrap";
  }
  if (size % 2 != 0 && !down && map.grid.kind == GridKind::hexagonalFlat) {
    return map.name + " has an odd number of columns: one column more to wrap";
  }
  if (!down && map.grid.kind == GridKind::staggered && map.bounds.height() < 2) {
    return map.name + " has one row only, which touches itself by corners: one row more to wrap";
  }
  Cloth& cloth = cloths_[clothOf(map.id)];
  int& own = down ? cloth.period.down : cloth.period.across;
  if (own == size) return map.name + (down ? " wraps down twice" : " wraps across twice");
  if (own != 0) {
    return map.name + " would wrap after " + std::to_string(size) + " cells, and what it is sewn to after " +
           std::to_string(own);
  }
  Period period = cloth.period;
  (down ? period.down : period.across) = size;
  for (const Sewn& one : cloth.maps) {
    const CellRect a = shiftedBy(bounds_.at(one.map), one.by);
    if ((down ? a.y1 - a.y0 : a.x1 - a.x0) > size) {
      return map.name + " cannot wrap: " + names_.at(one.map) + ", sewn to it, is larger and would lie on itself";
    }
    for (const Sewn& two : cloth.maps) {
      if (two.map > one.map && shareCells(a, shiftedBy(bounds_.at(two.map), two.by), period)) {
        return map.name + " cannot wrap: " + names_.at(one.map) + " and " + names_.at(two.map) + " would claim the same cells";
      }
    }
  }
  cloth.period = period;
  return {};
}

std::string SewnMaps::join(const Quilt& quilt, const Map& map, const Map& other, const Seam& seam) {
  const CellPos by = seam.by;
  if (std::string why = whyNotSewable(map, other); !why.empty()) return why;
  if (std::string why = whyNoStep(map, other, by); !why.empty()) return why;
  const std::string both = map.name + " and " + other.name;
  if (!edgesMeet(map.grid.kind, map.bounds, shiftedBy(other.bounds, by))) return "The edges of " + both + " do not meet";
  const std::size_t a = clothOf(map.id);
  const std::size_t b = clothOf(other.id);
  const CellPos from = placeOf(map.id);
  const CellPos to = placeOf(other.id);
  // How far what hangs on the other one moves to hang on the map.
  const CellPos step{from.x + by.x - to.x, from.y + by.y - to.y};
  if (a == b) {
    if (step != CellPos{}) return other.name + " would lie at two places: another way of seams leads elsewhere from " + map.name;
    const auto twice = [&](const Shared<Seam>& one) {
      return one->joins(map.id) && one->joins(other.id) && !wrong_.contains(one->id);
    };
    const auto first = std::find_if(quilt.seams().begin(), quilt.seams().end(), twice);
    return first != quilt.seams().end() && (*first)->id != seam.id ? both + " are sewn twice" : "";
  }
  Period period = cloths_[a].period;
  const Period& more = cloths_[b].period;
  if ((period.across && more.across && period.across != more.across) || (period.down && more.down && period.down != more.down)) {
    return both + " wrap after different numbers of cells";
  }
  period = {std::max(period.across, more.across), std::max(period.down, more.down)};
  std::vector<Sewn> moved = cloths_[b].maps;
  for (Sewn& one : moved) {
    one.by = {one.by.x + step.x, one.by.y + step.y};
    if (std::abs(one.by.x) > kFarthestOnCanvas || std::abs(one.by.y) > kFarthestOnCanvas) {
      return both + " hang together over too long a way";
    }
  }
  const auto larger = [&](const Sewn& one) {
    const CellRect& cells = bounds_.at(one.map);
    return (period.across && cells.width() > period.across) || (period.down && cells.height() > period.down);
  };
  for (const std::vector<Sewn>& all : {cloths_[a].maps, moved}) {
    const auto found = std::find_if(all.begin(), all.end(), larger);
    if (found != all.end()) return names_.at(found->map) + " is larger than what wraps: it would lie on itself";
  }
  for (const Sewn& one : cloths_[a].maps) {
    for (const Sewn& two : moved) {
      if (shareCells(shiftedBy(bounds_.at(one.map), one.by), shiftedBy(bounds_.at(two.map), two.by), period)) {
        return names_.at(two.map) + " and " + names_.at(one.map) + " would claim the same cells";
      }
    }
  }
  for (const Sewn& one : moved) of_[one.map] = a;
  cloths_[a].maps.insert(cloths_[a].maps.end(), moved.begin(), moved.end());
  cloths_[a].period = period;
  cloths_[b].maps.clear();
  return {};
}

std::vector<Sewn> SewnMaps::around(Id map) const {
  const auto cloth = of_.find(map);
  if (cloth == of_.end()) return {{map, {}}};
  const CellPos own = placeOf(map);
  std::vector<Sewn> all{{map, {}}};
  for (const Sewn& one : cloths_[cloth->second].maps) {
    if (one.map != map) all.push_back({one.map, {one.by.x - own.x, one.by.y - own.y}});
  }
  return all;
}

Period SewnMaps::period(Id map) const {
  const auto cloth = of_.find(map);
  return cloth == of_.end() ? Period() : cloths_[cloth->second].period;
}

bool SewnMaps::hangTogether(Id a, Id b) const {
  const auto one = of_.find(a);
  const auto two = of_.find(b);
  return a == b || (one != of_.end() && two != of_.end() && one->second == two->second);
}

const std::string& SewnMaps::whyWrong(Id seam) const {
  static const std::string kRight;
  const auto found = wrong_.find(seam);
  return found == wrong_.end() ? kRight : found->second;
}

std::optional<LayerAt> partnerOn(const Quilt& quilt, LayerAt layer, Id other) {
  const Map* from = quilt.map(layer.map);
  const Map* to = quilt.map(other);
  const Layer* one = quilt.layer(layer);
  if (!from || !to || !one) return std::nullopt;
  if (layer.map == other) return layer;
  const auto ofRole = [&](const Map& map) {
    std::vector<const Layer*> found;
    for (const Shared<Layer>& each : map.layers) {
      if (each->holdsTiles() && each->role == one->role) found.push_back(&each.read());
    }
    return found;
  };
  const std::vector<const Layer*> there = ofRole(*to);
  const auto named = std::find_if(there.begin(), there.end(), [&](const Layer* each) { return each->name == one->name; });
  if (named != there.end()) return LayerAt{other, (*named)->id};
  if (there.empty() || one->role.empty()) return std::nullopt;
  const std::vector<const Layer*> here = ofRole(*from);
  const auto rank = static_cast<std::size_t>(std::find(here.begin(), here.end(), one) - here.begin());
  return LayerAt{other, there[std::min(rank, there.size() - 1)]->id};
}

}  // namespace uq
