#include "core/edit/Landing.h"

#include <algorithm>
#include <cstdlib>
#include <set>
#include <utility>

#include "core/cells/CellReader.h"
#include "core/edit/ArrangeLayers.h"
#include "core/edit/TileHome.h"

namespace uq {

namespace {

// Whether a tile that covers lies on one of the cells of a layer.
bool harms(const Layer& layer, CellRect bounds, const CellSet& cells, const Covers& covers) {
  if (layer.cells.empty()) return false;
  std::map<TileRef, bool> known;
  const auto covering = [&](Cell cell) {
    if (cell.empty()) return false;
    const auto [found, isNew] = known.try_emplace(cell.tile(), false);
    if (isNew) found->second = covers(cell.tile());
    return found->second;
  };
  bool found = false;
  cells.forEachChunk([&](ChunkPos at, const ChunkRows* rows) {
    if (found) return;
    const CellGrid::ChunkView chunk = layer.cells.chunk(at);
    if (chunk.blank()) return;
    const CellRect part = at.cells().intersected(bounds);
    for (int y = part.y0; y < part.y1 && !found; ++y) {
      for (int x = part.x0; x < part.x1 && !found; ++x) {
        const int column = x - at.cx * kChunkSide;
        const int row = y - at.cy * kChunkSide;
        const bool in = !rows || ((*rows)[static_cast<std::size_t>(row)] >> column & 1);
        found = in && covering(chunk.cell(column, row));
      }
    }
  });
  return found;
}

// The layer for a further part: of its role, else so many layers from the landing one; made where there is none.
LayerAt layerFor(Landing& landing, const LandingAsk& ask, const HandPart& part, IdSource& ids) {
  const Map& map = *landing.quilt.map(ask.active.map);
  const auto own = static_cast<int>(*map.layerIndex(landing.layers.front().layer));
  const int wanted = own + part.above;
  const auto taken = [&](Id id) {
    return std::any_of(landing.layers.begin(), landing.layers.end(), [&](LayerAt at) { return at.layer == id; });
  };
  std::optional<int> found;
  for (int i = 0; i < static_cast<int>(map.layers.size()); ++i) {
    const Layer& layer = map.layers[static_cast<std::size_t>(i)].read();
    if (part.role.empty() || layer.role != part.role || !layer.holdsTiles() || taken(layer.id)) continue;
    if (!found || std::abs(i - wanted) < std::abs(*found - wanted)) found = i;
  }
  const bool inside = wanted >= 0 && wanted < static_cast<int>(map.layers.size()) &&
                      map.layers[static_cast<std::size_t>(wanted)]->holdsTiles();
  if (!found && inside && !part.onlyRole && !taken(map.layers[static_cast<std::size_t>(wanted)]->id)) found = wanted;
  if (!found && part.onlyRole && map.layers[static_cast<std::size_t>(own)]->role == part.role) return landing.layers.front();
  if (found) return {map.id, map.layers[static_cast<std::size_t>(*found)]->id};
  if (ask.takesAway) return {map.id, {}};
  const int index = std::clamp(part.above > 0 ? wanted : wanted + 1, 0, static_cast<int>(map.layers.size()));
  LayerAdded added = addLayer(landing.quilt, map.id, static_cast<std::size_t>(index), ids, part.role);
  landing.quilt = std::move(added.quilt);
  return {map.id, added.layer};
}

std::string whyShut(const Layer& layer, const Desk& desk) {
  if (layer.kind == LayerKind::backdrop) return layer.name + " is a backdrop: no tiles lie on it";
  if (layer.kind == LayerKind::pins) return layer.name + " is for pins: no tiles lie on it";
  if (desk.hidden.contains(layer.id)) return layer.name + " is hidden: open its eye to paint";
  if (desk.locked.contains(layer.id)) return layer.name + " is locked: open its lock to paint";
  return {};
}

}  // namespace

bool covers(const InHand& hand, const Covers& covers) {
  if (!covers) return true;
  bool all = true;
  const auto look = [&](const Block& block) {
    for (const Block::Part& part : block.parts()) all = all && covers(part.cell.tile());
  };
  if (hand.manner != Manner::mix) look(hand.block);
  if (hand.manner == Manner::mix) {
    for (const MixMember& member : hand.members) look(member.block);
  }
  return all;
}

Landing landingOf(const Quilt& quilt, const LandingAsk& ask, const CellSet& cells, IdSource ids) {
  Landing landing{quilt, {ask.active}, {}, false, {}};
  const Layer* active = quilt.layer(ask.active);
  if (!active) {
    landing.refusal = "This map has no layer to paint on";
    return landing;
  }
  const Map& map = *quilt.map(ask.active.map);
  const bool careful = !ask.obeys && !ask.takesAway && !covers(ask.hand, ask.covers);
  const auto harmed = [&](const Layer& layer) {
    return harms(layer, map.bounds, cells, ask.covers) || (ask.wipes && ask.wipes(layer));
  };
  if (careful && harmed(*active)) {
    landing.keeps = active->name;
    const std::size_t own = *map.layerIndex(active->id);
    // On the same level: what stands on the ground is not to float on a roof.
    std::optional<Id> nearer;
    std::size_t end = own + 1;
    for (; end < map.layers.size() && !nearer && map.layers[end]->folder == active->folder; ++end) {
      const Layer& layer = map.layers[end].read();
      const bool free = layer.holdsTiles() && !ask.shut.contains(layer.id) && !harmed(layer);
      if (free) nearer = layer.id;
    }
    if (nearer) {
      landing.layers.front().layer = *nearer;
    } else {
      LayerAdded added = addLayer(quilt, map.id, end, ids, roleOf(quilt, ask.active.map, ask.hand, ask.covers));
      landing.quilt = std::move(added.quilt);
      landing.layers.front().layer = added.layer;
      landing.makesLayer = true;
    }
  }
  for (const HandPart& part : ask.hand.others) {
    const LayerAt at = layerFor(landing, ask, part, ids);
    if (part.onlyRole && ask.shut.contains(at.layer)) {
      // What comes along stays away; what is painted is painted.
      landing.layers.push_back({map.id, {}});
      continue;
    }
    landing.layers.push_back(at);
    const Layer* layer = landing.quilt.layer(at);
    if (layer && ask.shut.contains(layer->id) && landing.refusal.empty()) {
      landing.refusal = layer->name + " is hidden or locked, and a part of what is in hand belongs there";
    }
  }
  return landing;
}

namespace {

// The role on which the tiles of a block agree and that a layer of the map has; empty where there is none.
std::string homeOfBlock(const Quilt& quilt, Id id, const Block& block) {
  const Map* map = quilt.map(id);
  const auto& parts = block.parts();
  if (!map || parts.empty()) return {};
  std::string role;
  for (const std::size_t i : std::set<std::size_t>{0, parts.size() / 2, parts.size() - 1}) {
    const auto home = homeOf(quilt, id, parts[i].cell.tile());
    if (!home || (!role.empty() && home->role != role)) return {};
    role = home->role;
  }
  const bool any = std::any_of(map->layers.begin(), map->layers.end(),
                               [&](const Shared<Layer>& layer) { return layer->holdsTiles() && layer->role == role; });
  return any ? role : std::string();
}

// The role of the layer on which other tiles of an edging are at home.
std::string homeOfMembers(const Quilt& quilt, Id map, const Edging& edging) {
  constexpr std::size_t kMostAsked = 64;
  for (std::size_t i = 0; i < std::min(kMostAsked, edging.members.size()); ++i) {
    const TileId& tile = edging.members[i].tile;
    const auto slot = quilt.slots().find(tile.sheet);
    const std::string role = slot ? homeOfBlock(quilt, map, Block::of(Cell({*slot, tile.tile}, {}))) : std::string();
    if (!role.empty()) return role;
  }
  return {};
}

}  // namespace

std::string roleOf(const Quilt& quilt, Id map, const InHand& hand, const Covers& look) {
  if (!hand.role.empty()) return hand.role;
  const std::string home = homeOfBlock(quilt, map, hand.block);
  if (const Edging* edging = home.empty() && hand.joins() ? quilt.edging(hand.edging) : nullptr) {
    if (const std::string role = homeOfMembers(quilt, map, *edging); !role.empty()) return role;
  }
  // What lies on the ground without covering it was painted on one layer with it.
  if (!home.empty() && (home != kGroundRole || covers(hand, look))) return home;
  bool overhead = !hand.block.empty();
  for (const Block::Part& part : hand.block.parts()) {
    const Sheet* sheet = quilt.sheetAt(part.cell.tile().slot);
    overhead = overhead && sheet && sheet->footingOf(part.cell.tile().number) == Footing::overhead;
  }
  if (overhead) return "in front";
  return covers(hand, look) ? "ground" : "things";
}

bool fitsLayer(const Layer& layer, const InHand& hand, const Covers& look) {
  if (!layer.holdsTiles()) return false;
  if (!look || (layer.role == kGroundRole) == covers(hand, look)) return true;
  std::set<TileRef> held;
  for (const Block::Part& part : hand.parts()) held.insert(part.cell.tile());
  bool found = false;
  Cell last;
  layer.cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    for (int y = 0; y < kChunkSide && !found; ++y) {
      for (int x = 0; x < kChunkSide && !found; ++x) {
        const Cell cell = chunk.cell(x, y);
        if (cell == std::exchange(last, cell) || cell.empty()) continue;
        found = held.contains(cell.tile());
      }
    }
  });
  return found;
}

Desk landingFor(Desk desk, const Quilt& quilt, const InHand& hand, const Covers& covers) {
  desk.leads.clear();
  const Map* map = quilt.map(desk.map);
  const Layer* active = quilt.layer(desk.activeAt());
  if (!map || !active || hand.empty()) {
    desk.obeysLayer = false;
    return desk;
  }
  const bool chosen = std::exchange(desk.obeysLayer, false);
  if (chosen && fitsLayer(*active, hand, covers)) {
    desk.obeysLayer = true;
    return desk;
  }
  const std::string role = roleOf(quilt, desk.map, hand, covers);
  if (active->role == role) return desk;
  const auto own = static_cast<int>(*map->layerIndex(active->id));
  const Layer* best = nullptr;
  std::pair<bool, int> bestFar;
  for (int i = 0; i < static_cast<int>(map->layers.size()); ++i) {
    const Layer& layer = map->layers[static_cast<std::size_t>(i)].read();
    if (layer.role != role || !layer.holdsTiles()) continue;
    const std::pair far{layer.folder != active->folder, std::abs(i - own)};
    if (best && bestFar <= far) continue;
    best = &layer;
    bestFar = far;
  }
  if (!best) return desk;
  if (chosen) {
    // A key leads to the next layer only.
    const int back = own - static_cast<int>(*map->layerIndex(best->id));
    const std::string by = back == 1 ? "W" : back == -1 ? "S" : "its card";
    desk.leads = role + " goes to " + best->name + "; " + by + " leads back to " + active->name;
  }
  desk.activeLayer[desk.map] = best->id;
  return desk;
}

Desk withNearerLayer(const Desk& desk, const Quilt& quilt, int steps) {
  const LayerAt at = desk.activeAt();
  const Map* map = quilt.map(at.map);
  const auto index = map ? map->layerIndex(at.layer) : std::nullopt;
  if (!index) return desk;
  const auto count = static_cast<std::ptrdiff_t>(map->layers.size());
  const auto wanted = static_cast<std::ptrdiff_t>(*index) + steps;
  if (wanted < 0 || wanted >= count) return desk;
  return withChosenLayer(desk, {at.map, map->layers[static_cast<std::size_t>(wanted)]->id});
}

Desk withChosenLayer(Desk desk, LayerAt layer) {
  desk.activeLayer[layer.map] = layer.layer;
  desk.obeysLayer = true;
  desk.leads.clear();
  return desk;
}

std::string whyNoStroke(const Desk& desk, const Quilt& quilt, bool takesAway) {
  const LayerAt at = desk.activeAt();
  const Layer* layer = quilt.layer(at);
  if (!layer) return "This map has no layer to paint on";
  if (const std::string why = whyShut(*layer, desk); !why.empty()) return why;
  if (takesAway) return {};
  if (desk.inHand.empty()) return "Nothing in hand: take a tile from the Table";
  const GridKind grid = quilt.map(at.map)->grid.kind;
  const bool single = desk.inHand.isOneTile();
  if (!single && !areOfOneFamily(desk.inHand.grid, grid)) {
    return "What is in hand was put together from " + std::string(cellsCalled(desk.inHand.grid)) + ", and these are " +
           std::string(cellsCalled(grid)) + ": take it anew";
  }
  return {};
}

}  // namespace uq
