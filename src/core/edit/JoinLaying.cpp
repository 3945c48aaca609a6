#include "core/edit/JoinLaying.h"

#include <algorithm>
#include <deque>
#include <set>

#include "core/cells/CellShapes.h"
#include "core/edit/Hemming.h"
#include "core/edit/Joiner.h"

namespace uq {

namespace {

// An edging whose material lies all around another, and which of its materials that is.
struct Around {
  const Edging* edging = nullptr;
  MaterialIndex material = 0;
};

std::optional<Around> aroundOf(const Quilt& quilt, const Hem& hem, GridKind grid) {
  const Edging* edging = hem.isAround() ? quilt.edging(hem.around) : nullptr;
  if (!edging || !areOfOneFamily(edging->grid, grid)) return std::nullopt;
  const auto material = materialNamed(*edging, hem.aroundMaterial);
  if (!material || *material == kNothingSeen) return std::nullopt;
  return Around{edging, *material};
}

// The roles on which hems lie, each hem of the list after those on whose layers it follows.
void addRoles(const Quilt& quilt, const Edging& edging, GridKind grid, const std::function<bool(const Hem&)>& counts, std::vector<std::string>& roles) {
  const auto add = [&](const std::string& role) {
    if (!role.empty() && std::find(roles.begin(), roles.end(), role) == roles.end()) roles.push_back(role);
  };
  for (const Hem& hem : edging.hems) {
    if (!counts(hem)) continue;
    add(hem.role);
    const auto around = aroundOf(quilt, hem, grid);
    if (!around) continue;
    for (const Hem& own : around->edging->hems) {
      if (!own.isAround() && own.material == around->material) add(own.role);
    }
  }
}

// A layer on which materials lie, as one step of a stroke found and left it.
struct Source {
  Source(const Quilt& quilt, const Edging& of, const Grid& grid) : edging(of), hems(quilt, of, grid) {}

  const Edging& edging;
  Hemming hems;
  LayerCells was;
  LayerCells now;
  CellSet laid;
  CellSet changed;
};

// What an edging's hems come to after its materials have changed, layer by layer. Sources stay where they are.
class HemSteps {
 public:
  HemSteps(const Quilt& quilt, const Edging& edging, const Grid& grid) : grid_(grid), main_(quilt, edging, grid) {
    for (const Hem& hem : edging.hems) {
      const auto around = aroundOf(quilt, hem, grid.shape().kind);
      if (!around) continue;
      rings_.emplace_back(quilt, *around, grid, hem);
    }
  }

  bool empty() const { return main_.edging.hems.empty(); }
  Source& main() { return main_; }
  bool isHem(Cell cell) const { return main_.hems.isHem(cell); }

  struct Ask {
    std::string_view role;      // of the layer; empty: the materials' own
    const LayerCells& stroke;   // that layer, as it was before the stroke
    bool onMain = false;        // it is the materials' own, though it has a role
    int rows = 0;
    bool asItLies = false;
    const std::function<bool(CellPos)>& may;
    const std::function<bool(CellPos)>& isGround;
  };
  struct Done {
    CellSet changed;
    CellSet bared;
  };
  Done lay(LayerCells& onto, const Ask& ask) {
    Done done;
    for (std::size_t i = 0; i < main_.edging.hems.size(); ++i) {
      const Hem& hem = main_.edging.hems[i];
      if (hem.isAround() || hem.role != ask.role || (hem.inside && ask.onMain)) continue;
      layRows(onto, ask, main_, i, hem.role.empty() || ask.onMain, done);
    }
    for (Ring& ring : rings_) {
      const bool isHere = ring.hem.role == ask.role;
      if (isHere) layRing(onto, ask, ring, done);
      for (std::size_t i = 0; i < ring.source.edging.hems.size(); ++i) {
        const Hem& own = ring.source.edging.hems[i];
        const bool lies = own.role.empty() ? isHere : own.role == ask.role;
        if (own.isAround() || own.material != ring.material || !lies) continue;
        layRows(onto, ask, ring.source, i, isHere && own.role.empty(), done);
      }
    }
    return done;
  }

 private:
  struct Ring {
    Ring(const Quilt& quilt, const Around& around, const Grid& grid, const Hem& of)
        : hem(of), source(quilt, *around.edging, grid), joiner(quilt, *around.edging, grid), material(around.material) {}
    const Hem& hem;
    Source source;
    Joiner joiner;
    MaterialIndex material;
  };

  void layRows(LayerCells& onto, const Ask& ask, const Source& of, std::size_t hem, bool ownLayer, Done& done) {
    const LayerCells was = ownLayer ? of.was : onto;
    Hemming::Hemmed hemmed = of.hems.lay(onto, {hem, of.now, of.was, was, of.laid, of.changed, ask.rows, ask.asItLies, ownLayer, ask.may, ask.isGround});
    done.changed = done.changed.united(hemmed.changed);
    // What lies all around has nothing below it.
    if (&of == &main_) done.bared = done.bared.united(hemmed.bared);
  }

  std::vector<CellPos> near(CellPos at) const {
    std::vector<CellPos> cells;
    for (int corner = 0; corner < placesOf(grid_.shape().kind); ++corner) {
      for (const CellPos one : grid_.aroundCorner(at, corner)) {
        if (one != at && std::find(cells.begin(), cells.end(), one) == cells.end()) cells.push_back(one);
      }
    }
    return cells;
  }

  // The cells around which the material is new, or gone, get what lies all around, or lose it.
  void layRing(LayerCells& onto, const Ask& ask, Ring& ring, Done& done) {
    Source& own = ring.source;
    own.was = onto;
    const auto holds = [&](const LayerCells& cells, CellPos at) { return main_.hems.shows(cells.cells.at(at), ring.hem.material); };
    const auto isNear = [&](const LayerCells& cells, CellPos at) {
      const auto around = near(at);
      return std::any_of(around.begin(), around.end(), [&](CellPos one) { return holds(cells, one); });
    };
    const auto isRing = [&](CellPos at) { return own.hems.shows(onto.cells.at(at), ring.material); };
    CellSet add;
    CellSet take;
    std::set<CellPos> beside;
    main_.changed.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        const CellPos at{first.x + i, first.y};
        const bool is = holds(main_.now, at);
        if (is == holds(main_.was, at)) continue;
        if (is) {
          for (const CellPos one : near(at)) {
            if (!holds(main_.now, one) && !isRing(one)) add.insert(one);
          }
        } else if (isNear(main_.now, at) && !isRing(at)) {
          add.insert(at);
        }
        for (const CellPos one : near(at)) beside.insert(one);
      }
    });
    for (const CellPos at : beside) {
      if (isRing(at) && !isNear(main_.now, at) && isNear(main_.was, at)) take.insert(at);
    }
    onto.cells.forEachPainted(main_.laid.bounds(), [&](CellPos at, Cell cell) {
      if (own.hems.shows(cell, ring.material) && main_.laid.contains(at) && holds(main_.now, at)) take.insert(at);
    });
    const auto free = [&](CellPos at) { return ask.may(at) && (onto.cells.at(at).empty() || own.hems.isHem(onto.cells.at(at)) || ring.joiner.memberAt(onto.cells.at(at))); };
    CellSet laid;
    add.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        if (const CellPos at{first.x + i, first.y}; free(at)) laid.insert(at);
      }
    });
    CellSet gone;
    take.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        if (const CellPos at{first.x + i, first.y}; ask.may(at)) gone.insert(at);
      }
    });
    const auto isRinged = [&](CellPos at) { return holds(main_.now, at); };
    CellSet changed = laid.united(gone);
    if (!laid.empty()) changed = changed.united(ring.joiner.lay(onto, {ask.stroke, laid, ring.material, false, {}, ask.may, jointsOf(laid, isRing, isRinged)}));
    if (!gone.empty()) changed = changed.united(ring.joiner.lay(onto, {ask.stroke, gone, ring.material, true, {}, ask.may}));
    own.now = onto;
    own.laid = laid;
    own.changed = changed;
    done.changed = done.changed.united(changed);
  }

  // Which cells of a ring are joined with those laid now: neighbours that lie beside the same cell of what is ringed.
  std::vector<std::pair<CellPos, CellPos>> jointsOf(const CellSet& laid, const std::function<bool(CellPos)>& isRing, const std::function<bool(CellPos)>& isRinged) const {
    std::vector<std::pair<CellPos, CellPos>> joints;
    const auto shares = [&](CellPos a, CellPos b) {
      const auto around = near(b);
      return std::any_of(around.begin(), around.end(), [&](CellPos one) {
        const auto other = near(a);
        return std::find(other.begin(), other.end(), one) != other.end() && isRinged(one);
      });
    };
    laid.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        const CellPos at{first.x + i, first.y};
        for (int side = 0; side < placesOf(grid_.shape().kind); ++side) {
          const CellPos beyond = grid_.across(at, side);
          if ((laid.contains(beyond) || isRing(beyond)) && shares(at, beyond)) joints.emplace_back(at, beyond);
        }
      }
    });
    return joints;
  }

  const Grid& grid_;
  Source main_;
  std::deque<Ring> rings_;
};

// The cells at which a material with a hem may end otherwise, after `cells` were laid and `beside` changed with them.
CellSet endsAfter(const Grid& grid, const Source& of, const CellSet& cells, const CellSet& beside) {
  std::set<MaterialIndex> hemmed;
  for (const Hem& hem : of.edging.hems) hemmed.insert(hem.material);
  CellSet had;
  of.was.cells.forEachPainted(cells.bounds(), [&](CellPos at, Cell cell) {
    const bool has = std::any_of(hemmed.begin(), hemmed.end(), [&](MaterialIndex one) { return of.hems.shows(cell, one); });
    if (has && cells.contains(at)) had.insert(at);
  });
  return outlineOf(grid, cells).united(beside).united(had);
}

class JoinLaying : public Laying {
 public:
  JoinLaying(const LayingPlan& plan, const Edging& edging)
      : joiner_(plan.quilt, edging, plan.grid), steps_(plan.quilt, edging, plan.grid), grid_(plan.grid), hand_(plan.hand), takesAway_(plan.takesAway), isGround_(plan.isGround) {}

  Touched lay(LayerCells& onto, const Ask& ask) override {
    static const LayerCells kBlank;
    const LayerCells& before = ask.before ? static_cast<const LayerCells&>(*ask.before) : kBlank;
    return ask.part == 0 ? layMaterial(onto, before, ask) : layHems(onto, before, ask);
  }

 private:
  Touched layMaterial(LayerCells& onto, const LayerCells& before, const Ask& ask) {
    if (steps_.empty()) return {ask.cells, {}, join(onto, before, ask.cells, ask, ask.may)};
    Source& main = steps_.main();
    main.was = onto;
    // What hangs beside a border stays, unless something is laid there.
    const auto may = [&](CellPos at) { return ask.may(at) && !steps_.isHem(main.was.cells.at(at)); };
    const CellSet cells = takesAway_ ? withoutHems(ask.cells, onto) : ask.cells;
    CellSet beside = join(onto, before, cells, ask, may);
    main.now = onto;
    main.laid = takesAway_ || !ask.corners.empty() ? CellSet() : cells;
    main.changed = endsAfter(grid_, main, cells, beside);
    const HemSteps::Done done = steps_.lay(onto, {{}, before, false, hand_.rows, false, ask.may, isGround_});
    beside = beside.united(done.changed);
    if (!done.bared.empty()) beside = beside.united(layGround(onto, before, done.bared, ask.may));
    return {ask.cells, {}, beside.without(ask.cells)};
  }

  CellSet join(LayerCells& onto, const LayerCells& before, const CellSet& cells, const Ask& ask, const std::function<bool(CellPos)>& may) {
    static const CellSet kNone;
    return joiner_.lay(onto, {before, ask.corners.empty() ? cells : kNone, hand_.material, takesAway_, ask.way, may, {}, ask.corners});
  }

  // Where a hem lay on the material's own layer and lies no more comes what lies around.
  CellSet layGround(LayerCells& onto, const LayerCells& before, const CellSet& bared, const std::function<bool(CellPos)>& may) {
    const auto mayBeside = [&](CellPos at) { return may(at) && !steps_.isHem(onto.cells.at(at)); };
    return joiner_.lay(onto, {before, bared, hand_.material, true, {}, mayBeside});
  }

  // What is brought along goes with the border that it hangs beside, not by itself.
  CellSet withoutHems(const CellSet& cells, const LayerCells& layer) const {
    CellSet hems;
    layer.cells.forEachPainted(cells.bounds(), [&](CellPos at, Cell cell) {
      if (steps_.isHem(cell)) hems.insert(at);
    });
    return cells.without(hems);
  }

  Touched layHems(LayerCells& onto, const LayerCells& before, const Ask& ask) {
    if (ask.part > hand_.others.size()) return {};
    const HemSteps::Done done = steps_.lay(onto, {hand_.others[ask.part - 1].role, before, ask.onLanding, hand_.rows, false, ask.may, isGround_});
    CellSet beside = done.changed;
    if (!done.bared.empty()) beside = beside.united(layGround(onto, before, done.bared, ask.may));
    return {{}, {}, std::move(beside)};
  }

  Joiner joiner_;
  HemSteps steps_;
  const Grid& grid_;
  InHand hand_;
  bool takesAway_;
  std::function<bool(CellPos)> isGround_;
};

// The layer of a role nearest to another; nothing where there is none.
std::optional<LayerAt> layerOf(const Map& map, std::string_view role, Id near) {
  const auto own = static_cast<int>(map.layerIndex(near).value_or(0));
  std::optional<int> found;
  for (int i = 0; i < static_cast<int>(map.layers.size()); ++i) {
    const Layer& layer = map.layers[static_cast<std::size_t>(i)].read();
    if (layer.role != role || !layer.holdsTiles()) continue;
    if (!found || std::abs(i - own) < std::abs(*found - own)) found = i;
  }
  return found ? std::optional(LayerAt{map.id, map.layers[static_cast<std::size_t>(*found)]->id}) : std::nullopt;
}

}  // namespace

std::vector<HandPart> hemParts(const Quilt& quilt, const Edging& edging, MaterialIndex material, const Map& map, bool takesAway) {
  std::vector<std::string> own;
  std::vector<std::string> all;
  const GridKind grid = map.grid.kind;
  if (!takesAway) addRoles(quilt, edging, grid, [material](const Hem& hem) { return hem.material == material; }, own);
  addRoles(quilt, edging, grid, [](const Hem&) { return true; }, all);
  std::vector<HandPart> parts;
  for (const std::string& role : all) {
    const bool isThere = std::any_of(map.layers.begin(), map.layers.end(), [&](const Shared<Layer>& layer) { return layer->holdsTiles() && layer->role == role; });
    if (!isThere && std::find(own.begin(), own.end(), role) == own.end()) continue;
    HandPart part{role, 1, {}};
    part.onlyRole = true;
    parts.push_back(std::move(part));
  }
  return parts;
}

std::unique_ptr<Laying> joinLaying(const LayingPlan& plan, const Edging& edging) { return std::make_unique<JoinLaying>(plan, edging); }

bool hasGround(const Map& map, CellPos at) {
  return std::any_of(map.layers.begin(), map.layers.end(), [at](const Shared<Layer>& layer) { return layer->role == kGroundRole && layer->holdsTiles() && !layer->cells.at(at).empty(); });
}

HemsMended withHemsMended(const Quilt& before, const Quilt& now, LayerAt at, const Edging& edging, const CellSet& changed, const std::function<bool(CellPos)>& may) {
  const Map* map = now.map(at.map);
  const Layer* layer = now.layer(at);
  const Layer* was = before.layer(at);
  if (!map || !layer || edging.hems.empty()) return {now, {}, {}};
  static const LayerCells kBlank;
  const auto grid = makeGrid(map->grid);
  HemSteps steps(now, edging, *grid);
  steps.main().was = was ? *was : kBlank;
  steps.main().now = *layer;
  steps.main().laid = changed;
  steps.main().changed = changed;
  Quilt mended = now;
  CellSet all;
  CellSet wrong;
  std::vector<std::string> roles{""};
  addRoles(now, edging, map->grid.kind, [](const Hem&) { return true; }, roles);
  const std::function<bool(CellPos)> isGround = [&](CellPos cell) { return hasGround(*mended.map(at.map), cell); };
  for (const std::string& role : roles) {
    const auto onto = role.empty() ? std::optional(at) : layerOf(*map, role, at.layer);
    const Layer* old = onto ? before.layer(*onto) : nullptr;
    if (!onto) continue;
    LayerCells cells = *mended.layer(*onto);
    const HemSteps::Done done = steps.lay(cells, {role, old ? *old : kBlank, !role.empty() && *onto == at, 0, true, may, isGround});
    const auto mayBeside = [&](CellPos cell) { return may(cell) && !steps.isHem(cells.cells.at(cell)); };
    if (!done.bared.empty()) Joiner(now, edging, *grid).lay(cells, {LayerCells(cells), done.bared, 0, true, {}, mayBeside});
    all = all.united(done.changed);
    mended.layer(*onto)->cells.forEachPainted(done.changed.bounds(), [&](CellPos cell, Cell there) {
      if (steps.isHem(there) && done.changed.contains(cell)) wrong.insert(cell);
    });
    if (!done.changed.empty()) mended = mended.with(*onto, std::move(cells));
  }
  return {mended, all, wrong};
}

std::vector<LayerCells> withHemsShown(const Quilt& quilt, const Edging& edging, const Grid& grid, const LayerCells& materials, CellRect bounds) {
  std::vector<LayerCells> shown{materials};
  HemSteps steps(quilt, edging, grid);
  if (steps.empty()) return shown;
  steps.main().now = materials;
  steps.main().laid = CellSet(bounds);
  steps.main().changed = CellSet(bounds);
  std::vector<std::string> roles{""};
  addRoles(quilt, edging, grid.shape().kind, [](const Hem&) { return true; }, roles);
  const std::function<bool(CellPos)> may = [bounds](CellPos at) { return bounds.contains(at); };
  const std::function<bool(CellPos)> isGround;
  const LayerCells blank;
  for (const std::string& role : roles) {
    if (!role.empty()) shown.emplace_back();
    (void)steps.lay(shown.back(), {role, blank, false, 0, false, may, isGround});
  }
  return shown;
}

}  // namespace uq
