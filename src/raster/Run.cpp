#include "raster/Run.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace uq {

QPoint deviceShift(PixelPos shift, ViewScale scale) {
  const auto device = [&](int pixels) { return static_cast<int>(std::lround(pixels * scale.zoom)); };
  return {device(shift.x), device(shift.y)};
}

QPoint Run::shift(ViewScale scale) const { return deviceShift({offset.x + moved.x, offset.y + moved.y}, scale); }

// A folder by depth in one by depth is drawn together with it. The map, as one of them, has the empty id.
static Id outermostByDepth(const Map& map, const LayerFolder* folder) {
  while (folder) {
    const LayerFolder* around = map.layerFolder(folder->in);
    const DrawOrder order = around ? map.drawOrder(*around) : map.drawOrder();
    if (order != DrawOrder::byDepth) return folder->id;
    folder = around;
  }
  return {};
}

std::vector<DrawGroup> drawGroups(const Map& map) {
  std::vector<DrawGroup> groups;
  Id last;  // the folder of the last group by depth; empty: the map itself
  for (const Shared<Layer>& layer : map.layers) {
    const LayerFolder* folder = map.layerFolder(layer->folder);
    const bool byDepth = (folder ? map.drawOrder(*folder) : map.drawOrder()) == DrawOrder::byDepth;
    const Id owner = byDepth ? outermostByDepth(map, folder) : Id();
    if (groups.empty() || groups.back().byDepth != byDepth || (byDepth && owner != last)) groups.push_back({{}, byDepth});
    groups.back().layers.push_back(&layer.read());
    last = owner;
  }
  for (DrawGroup& group : groups) {
    if (!group.byDepth) continue;
    std::stable_sort(group.layers.begin(), group.layers.end(),
                     [&](const Layer* a, const Layer* b) { return map.riseOf(*a) < map.riseOf(*b); });
  }
  return groups;
}

static Colour multiplied(Colour a, Colour b) {
  Colour both = 0;
  for (const int shift : {0, 8, 16}) {
    const Colour product = (a >> shift & 0xff) * (b >> shift & 0xff);
    both |= (product + 127) / 255 << shift;
  }
  return both;
}

Seeing inGame(const Map& map, std::optional<PixelPos> camera) {
  Seeing seeing;
  seeing.camera = camera;
  for (const Shared<Layer>& layer : map.layers) {
    if (!layer->inGame) seeing.hidden.insert(layer->id);
  }
  return seeing;
}

std::map<Id, Colour> tintsFor(const Map& map, Tinting tinting, Id active) {
  if (tinting == Tinting::no) return {};
  constexpr int kSteps = 4;  // layers, from the faintest colour to the strongest
  constexpr std::array<int, 3> kCool = {96, 150, 255};
  constexpr std::array<int, 3> kWarm = {255, 150, 80};
  const auto own = map.layerIndex(active);
  if (tinting == Tinting::byHeight && !own) return {};
  std::map<Id, Colour> tints;
  for (std::size_t i = 0; i < map.layers.size(); ++i) {
    const bool byWalker = tinting == Tinting::byWalker;
    const int off = byWalker ? (i < map.walkerPlace() ? -kSteps : kSteps) : static_cast<int>(i) - static_cast<int>(*own);
    Colour colour = 0;
    for (const int channel : off < 0 ? kCool : kWarm) {
      const int strength = std::min(std::abs(off), kSteps);
      colour = colour << 8 | static_cast<Colour>(255 - (255 - channel) * strength / kSteps);
    }
    tints[map.layers[i]->id] = colour;
  }
  return tints;
}

std::vector<Run> runsOf(const Map& map, const Seeing& seeing) {
  std::vector<Run> runs;
  for (const DrawGroup& group : drawGroups(map)) {
    bool together = false;  // whether the next layer may join the last run
    Parallax parallax;      // of the last run
    for (const Layer* layer : group.layers) {
      if (seeing.hidden.contains(layer->id)) continue;
      const bool faint = !seeing.clear.empty() && layer->id != seeing.clear;
      const int opacity = faint ? (layer->opacity * seeing.faint + 50) / 100 : layer->opacity;
      if (opacity == 0) continue;
      if (layer->kind == LayerKind::pins) continue;
      // A layer that is see-through by itself shows each of its pixels once, so it is laid as a whole.
      const bool alone =
          !seeing.tints.empty() || layer->opacity != 100 || layer->tint != kNoTint || layer->blend != Blend::normal || !layer->holdsTiles();
      const PixelPos plane = map.planeOf(*layer);
      const bool moves = !(layer->parallax == parallax);
      const bool alike = group.byDepth && together && !alone && !moves && runs.back().opacity == opacity;
      parallax = layer->parallax;
      if (!alike) {
        Run run{{layer->id}, plane, opacity, false, {}};
        if (seeing.camera) run.moved = scrolledBy(parallax, *seeing.camera);
        run.blend = layer->blend;
        const auto tint = seeing.tints.find(layer->id);
        run.tint = tint == seeing.tints.end() ? layer->tint : multiplied(layer->tint, tint->second);
        if (layer->kind == LayerKind::backdrop) run.backdrop = layer->backdrop;
        run.endless = seeing.camera.has_value();
        runs.push_back(std::move(run));
      } else {
        Run& run = runs.back();
        if (run.shifts.empty() && run.offset != plane) {
          run.shifts.assign(run.layers.size(), run.offset);
          run.offset = {};
        }
        if (!run.shifts.empty()) run.shifts.push_back(plane);
        run.layers.push_back(layer->id);
        run.byDepth = group.byDepth;
      }
      together = !alone;
    }
  }
  return runs;
}

}  // namespace uq
