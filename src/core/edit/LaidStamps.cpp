#include "core/edit/LaidStamps.h"

#include <algorithm>
#include <cstdlib>
#include <map>

#include "core/edit/LayCells.h"
#include "core/edit/Stroke.h"

namespace uq {

namespace {

constexpr std::size_t kMostCompared = 4096;  // parts of a thing, to find how it stands to another one

bool liesAt(const Grid& grid, const Layer& layer, const Block& block, SidePos grip) {
  const auto& parts = block.parts();
  return !parts.empty() && std::all_of(parts.begin(), parts.end(), [&](const Block::Part& part) {
    return layer.cells.at(grid.fromSide(grip + part.at)) == part.cell;
  });
}

bool hasPlaces(const Stamp& stamp, const Map& map) {
  const bool fits = stamp.held.isOneTile() || areOfOneFamily(stamp.held.grid, map.grid.kind);
  return stamp.held.manner == Manner::asItIs && fits && !stamp.held.parts().empty();
}

// The stamp whose own block is known to lie there, with the layers of its further parts.
LaidStamp withParts(const Grid& grid, const Map& map, const Stamp& stamp, std::size_t own, SidePos grip) {
  LaidStamp laid{stamp.id, map.id, grip, {map.layers[own]->id}};
  for (const HandPart& part : stamp.held.others) {
    const int wanted = static_cast<int>(own) + part.above;
    Id nearest;
    int away = 0;
    for (int i = 0; i < static_cast<int>(map.layers.size()); ++i) {
      const Layer& layer = map.layers[static_cast<std::size_t>(i)].read();
      const bool taken = std::find(laid.layers.begin(), laid.layers.end(), layer.id) != laid.layers.end();
      if (taken || !layer.holdsTiles() || !liesAt(grid, layer, part.block, grip)) continue;
      if (!nearest.empty() && std::abs(i - wanted) >= away) continue;
      nearest = layer.id;
      away = std::abs(i - wanted);
    }
    laid.layers.push_back(nearest);
  }
  return laid;
}

const Block& blockOf(const InHand& hand, std::size_t part) { return part == 0 ? hand.block : hand.others[part - 1].block; }

std::vector<std::pair<SidePos, Cell>> allParts(const InHand& hand) {
  std::vector<std::pair<SidePos, Cell>> all;
  hand.forEachBlock([&](const Block& block) {
    for (const Block::Part& part : block.parts()) {
      if (all.size() < kMostCompared) all.emplace_back(part.at, part.cell);
    }
  });
  return all;
}

// By how much a thing has to be moved for most of it to lie on the same tiles of another one.
SidePos stepBetween(const InHand& was, const InHand& now) {
  std::map<std::uint32_t, std::vector<SidePos>> places;
  for (const auto& [at, cell] : allParts(was)) places[cell.bits()].push_back(at);
  std::map<std::pair<int, int>, int> votes;
  for (const auto& [at, cell] : allParts(now)) {
    const auto known = places.find(cell.bits());
    if (known == places.end()) continue;
    for (const SidePos from : known->second) {
      const SidePos step = from - at;
      ++votes[{step.u, step.v}];
    }
  }
  SidePos best;
  int most = 0;
  for (const auto& [step, count] : votes) {
    const bool nearer = std::abs(step.first) + std::abs(step.second) < std::abs(best.u) + std::abs(best.v);
    if (count < most || (count == most && !nearer)) continue;
    most = count;
    best = {step.first, step.second};
  }
  return best;
}

}  // namespace

std::optional<LaidStamp> laidStampAt(const Quilt& quilt, LayerAt at, CellPos cell) {
  const Layer* layer = quilt.layer(at);
  if (!layer || layer->cells.at(cell).empty()) return std::nullopt;
  const Map& map = *quilt.map(at.map);
  const auto grid = makeGrid(map.grid);
  const SidePos here = grid->toSide(cell);
  const Cell pressed = layer->cells.at(cell);
  std::optional<LaidStamp> found;
  std::size_t most = 1;
  for (const auto& stamp : quilt.stamps()) {
    std::size_t size = 0;
    stamp->held.forEachBlock([&](const Block& block) { size += block.parts().size(); });
    if (!hasPlaces(stamp.read(), map) || size <= most) continue;
    for (std::size_t part = 0; part <= stamp->held.others.size() && size > most; ++part) {
      for (const Block::Part& own : blockOf(stamp->held, part).parts()) {
        if (own.cell != pressed) continue;
        const SidePos grip = here - own.at;
        if (!liesAt(*grid, *layer, blockOf(stamp->held, part), grip)) continue;
        // Its own block has to lie there, too, and this layer has to be the one of the part.
        for (std::size_t i = 0; i < map.layers.size() && size > most; ++i) {
          if (!liesAt(*grid, map.layers[i].read(), stamp->held.block, grip)) continue;
          LaidStamp laid = withParts(*grid, map, stamp.read(), i, grip);
          if (laid.layers[part] != at.layer) continue;
          found = std::move(laid);
          most = size;
        }
        if (size <= most) break;
      }
    }
  }
  return found;
}

std::vector<LaidStamp> placesOf(const Quilt& quilt, const Stamp& stamp) {
  std::vector<LaidStamp> places;
  for (const auto& map : quilt.maps()) {
    if (!hasPlaces(stamp, map.read())) continue;
    const auto grid = makeGrid(map->grid);
    const Block::Part& first = stamp.held.parts().front();
    for (std::size_t i = 0; i < map->layers.size(); ++i) {
      const Layer& layer = map->layers[i].read();
      layer.cells.forEachPainted(map->bounds, [&](CellPos at, Cell cell) {
        if (cell != first.cell) return;
        const SidePos grip = grid->toSide(at) - first.at;
        if (liesAt(*grid, layer, stamp.held.block, grip)) places.push_back(withParts(*grid, map.read(), stamp, i, grip));
      });
    }
  }
  return places;
}

std::optional<LaidStamp> laidOn(const Quilt& quilt, Id id, Id stampId, const CellSet& cells) {
  const Map* map = quilt.map(id);
  const Stamp* stamp = quilt.stamp(stampId);
  if (!map || !stamp || cells.empty() || !hasPlaces(*stamp, *map)) return std::nullopt;
  const auto grid = makeGrid(map->grid);
  const CellRect box = sideBoundsOf(*grid, cells);
  const CellRect whole = stamp->held.wholeExtent();
  const CellRect own = stamp->held.extent();
  // All of it, or where further parts are missing its own block.
  for (const CellRect& extent : {whole, own}) {
    const SidePos grip{box.x0 - extent.x0, box.y0 - extent.y0};
    for (std::size_t i = 0; i < map->layers.size(); ++i) {
      if (!liesAt(*grid, map->layers[i].read(), stamp->held.block, grip)) continue;
      const LaidStamp laid = withParts(*grid, *map, *stamp, i, grip);
      if (cellsOf(quilt, laid).all == cells) return laid;
    }
  }
  return std::nullopt;
}

SelectedCells cellsOf(const Quilt& quilt, const LaidStamp& laid) {
  SelectedCells selected;
  const Map* map = quilt.map(laid.map);
  const Stamp* stamp = quilt.stamp(laid.stamp);
  if (!map || !stamp) return selected;
  const auto grid = makeGrid(map->grid);
  for (const Shared<Layer>& layer : map->layers) {
    const auto part = std::find(laid.layers.begin(), laid.layers.end(), layer->id);
    if (part == laid.layers.end()) continue;
    CellSet cells;
    for (const Block::Part& one : blockOf(stamp->held, static_cast<std::size_t>(part - laid.layers.begin())).parts()) {
      cells.insert(grid->fromSide(laid.grip + one.at));
    }
    selected.all = selected.all.united(cells);
    selected.layers.push_back({{laid.map, layer->id}, std::move(cells)});
  }
  return selected;
}

Quilt relaid(const Quilt& quilt, const std::vector<LaidStamp>& places, const InHand& was, const InHand& now,
             std::uint64_t ids) {
  const SidePos step = stepBetween(was, now);
  Quilt after = quilt;
  for (const LaidStamp& place : places) {
    const Map* map = after.map(place.map);
    if (!map || !quilt.stamp(place.stamp)) continue;
    const auto grid = makeGrid(map->grid);
    // The layer on which its part of that role lay.
    Id own = place.layers.front();
    for (std::size_t i = 0; i < was.others.size() && now.role != was.role; ++i) {
      const Id layer = place.layers[i + 1];
      if (!layer.empty() && was.others[i].role == now.role) own = layer;
    }
    after = clearCells(after, cellsOf(quilt, place));
    StrokePlan plan = layingOn({place.map, own}, now);
    plan.ids = ids++;
    const SidePos grip = place.grip + step;
    after = stroked(after, plan, {grid->fromSide(grip)});
  }
  return after;
}

}  // namespace uq
