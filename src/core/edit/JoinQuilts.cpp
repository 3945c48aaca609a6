#include "core/edit/JoinQuilts.h"

#include <algorithm>

namespace uq {

namespace {

template <class Part>
constexpr BothChanged::What kWhat = BothChanged::What::map;
template <>
inline constexpr BothChanged::What kWhat<Sheet> = BothChanged::What::sheet;
template <>
inline constexpr BothChanged::What kWhat<Stamp> = BothChanged::What::stamp;

// What lies on a layer.
struct Content {
  LayerCells cells;
  Shared<Pins> pins;
  friend bool operator==(const Content&, const Content&) = default;
};
Content contentOf(const Layer* layer) { return layer ? Content{*layer, layer->pins} : Content{}; }
void putContent(Layer& layer, Content content) {
  static_cast<LayerCells&>(layer) = std::move(content.cells);
  layer.pins = std::move(content.pins);
}

// The map without what lies on its layers: what else is said of it and of them.
Map withoutCells(Map map) {
  for (Shared<Layer>& layer : map.layers) {
    layer.edit([](Layer& one) { putContent(one, {}); });
  }
  return map;
}

template <class Part>
const Part* in(const Quilt& quilt, Id id) {
  return quilt.listed<Part>(id);
}

// What a person is told of a part.
template <class Part>
std::string toldAs(const Part& part) {
  return part.name;
}
std::string toldAs(const Seam&) { return "a seam"; }
std::string toldAs(const Doorway&) { return "a doorway"; }

// A sheet's code is one to three capital letters.
void tellCodeApart(Sheet& sheet, const Quilt& quilt) {
  const auto isTaken = [&](const std::string& code) {
    return std::any_of(quilt.sheets().begin(), quilt.sheets().end(), [&](const Shared<Sheet>& other) {
      return other->id != sheet.id && other->code == code;
    });
  };
  std::string code(1, 'A');
  while (isTaken(sheet.code)) {
    if (!isTaken(code)) sheet.code = code;
    // The next one in order: A … Z, AA … ZZZ.
    auto last = code.rbegin();
    while (last != code.rend() && *last == 'Z') *last++ = 'A';
    if (last == code.rend()) {
      code.insert(code.begin(), 'A');
    } else {
      ++*last;
    }
  }
}

// Gives a part names that no other of its kind has.
template <class Part>
void tellApart(Part& part, const Quilt& quilt) {
  std::vector<std::string> files;
  std::vector<std::string> names;
  for (const Shared<Part>& other : quilt.all<Part>()) {
    if (other->id == part.id) continue;
    names.push_back(other->name);
    if constexpr (std::is_same_v<Part, Map>) {
      files.push_back(other->folder);
    } else {
      files.push_back(other->file);
    }
  }
  const auto isTaken = [&](const std::string& name) { return std::find(names.begin(), names.end(), name) != names.end(); };
  const std::string plain = part.name;
  for (int n = 2; isTaken(part.name); ++n) part.name = plain + " " + std::to_string(n);
  std::string* file = nullptr;
  if constexpr (std::is_same_v<Part, Map>) {
    file = &part.folder;
  } else {
    file = &part.file;
  }
  if (std::find(files.begin(), files.end(), *file) != files.end()) *file = slugFor(part.name, files);
  if constexpr (std::is_same_v<Part, Sheet>) tellCodeApart(part, quilt);
}

// These have no files of their own, and seams no names.
void tellApart(Seam&, const Quilt&) {}
void tellApart(ChalkPiece&, const Quilt&) {}
void tellApart(Doorway&, const Quilt&) {}

class Joining {
 public:
  Joining(const Quilt& base, const Quilt& here, const Quilt& there, const Choose& choose, IdSource& ids)
      : base_(base), here_(here), there_(there), choose_(choose), ids_(ids) {
    joined_.quilt = here;
  }

  Joined all() {
    joinFacts();
    joinKind<Sheet>();
    joinKind<Stamp>();
    joinKind<Map>();
    joinKind<Seam>();
    joinKind<ChalkPiece>();
    joinKind<Doorway>();
    joinKind<Edging>();
    joinKind<Target>();
    return std::move(joined_);
  }

 private:
  void joinFacts() {
    const QuiltFacts& was = base_.facts();
    const QuiltFacts& mine = here_.facts();
    const QuiltFacts& theirs = there_.facts();
    if (theirs == was || theirs == mine) return;
    const bool asks = !(mine == was);
    if (asks && choose_({BothChanged::What::facts, {}, {}, "What is said of the quilt", false}) != Side::there) return;
    joined_.quilt = joined_.quilt.with(theirs);
    joined_.taken.push_back(theirs.name);
  }

  template <class Part>
  void joinKind() {
    for (const Shared<Part>& shared : there_.all<Part>()) {
      const Part& theirs = shared.read();
      const Part* was = in<Part>(base_, theirs.id);
      const Part* mine = in<Part>(here_, theirs.id);
      if (was && theirs == *was) continue;
      if (mine && theirs == *mine) continue;
      if (!was || !mine || *mine == *was) {
        // New there, or changed there only; or deleted here, and changed there.
        if (was && !mine) joined_.kept.push_back(toldAs(theirs));
        put(theirs);
      } else {
        joinChanged(*was, *mine, theirs);
      }
    }
    for (const Shared<Part>& shared : base_.all<Part>()) {
      const Part& was = shared.read();
      const Part* mine = in<Part>(here_, was.id);
      if (in<Part>(there_, was.id) || !mine) continue;
      if (*mine == was) {
        joined_.quilt = joined_.quilt.template without<Part>(was.id);
        joined_.taken.push_back(toldAs(was));
      } else {
        joined_.kept.push_back(toldAs(*mine));
      }
    }
  }

  template <class Part>
  void put(Part part) {
    tellApart(part, joined_.quilt);
    joined_.taken.push_back(toldAs(part));
    joined_.quilt = joined_.quilt.with(std::move(part));
  }

  template <class Part>
  void joinChanged(const Part&, const Part& mine, const Part& theirs) {
    constexpr bool mayBoth = std::is_same_v<Part, Stamp>;
    const Side side = choose_({kWhat<Part>, mine.id, {}, mine.name, mayBoth});
    if (side == Side::there) put(theirs);
    if (side == Side::both) putCopy(theirs);
  }

  // The same seam, or planned map, changed on both sides: ours, and a word about it.
  void joinChanged(const Seam&, const Seam& mine, const Seam&) { joined_.kept.push_back(toldAs(mine)); }
  void joinChanged(const ChalkPiece&, const ChalkPiece& mine, const ChalkPiece&) { joined_.kept.push_back(toldAs(mine)); }

  void joinChanged(const Doorway&, const Doorway& mine, const Doorway&) { joined_.kept.push_back(toldAs(mine)); }

  void joinChanged(const Edging&, const Edging& mine, const Edging&) { joined_.kept.push_back(toldAs(mine)); }

  void joinChanged(const Target&, const Target& mine, const Target&) { joined_.kept.push_back(toldAs(mine)); }

  // In a map layer by layer, where what else is said of it changed on one side at most.
  void joinChanged(const Map& was, const Map& mine, const Map& theirs) {
    const Map bareWas = withoutCells(was);
    const Map bareMine = withoutCells(mine);
    const Map bareTheirs = withoutCells(theirs);
    const bool mineSays = !(bareMine == bareWas);
    const bool theirsSays = !(bareTheirs == bareWas);
    if (mineSays && theirsSays && !(bareMine == bareTheirs)) {
      const Side side = choose_({BothChanged::What::map, mine.id, {}, mine.name, true});
      if (side == Side::there) put(theirs);
      if (side == Side::both) putCopy(theirs);
      return;
    }
    Map now = theirsSays ? theirs : mine;
    for (std::size_t i = 0; i < now.layers.size(); ++i) {
      const Id id = now.layers[i]->id;
      const Layer* a = was.layer(id);
      const Layer* b = mine.layer(id);
      const Layer* c = theirs.layer(id);
      const bool changedHere = b && !(contentOf(b) == contentOf(a));
      const bool changedThere = c && !(contentOf(c) == contentOf(a));
      Content result = changedHere ? contentOf(b) : c ? contentOf(c) : contentOf(b);
      if (changedHere && changedThere && !(contentOf(b) == contentOf(c))) {
        const Side side = choose_({BothChanged::What::layer, mine.id, id, b->name + " on " + mine.name, true});
        if (side == Side::there) result = contentOf(c);
        if (side == Side::both) copies_.push_back({id, *c});
      }
      now.layers[i].edit([&](Layer& layer) { putContent(layer, std::move(result)); });
    }
    for (auto& [beside, theirLayer] : std::exchange(copies_, {})) {
      Layer copy = theirLayer;
      copy.id = freshId(joined_.quilt, ids_);
      copy.name += " (theirs)";
      std::vector<std::string> files;
      for (const Shared<Layer>& layer : now.layers) files.push_back(layer->file);
      copy.file = slugFor(copy.name, files);
      const auto at = std::find_if(now.layers.begin(), now.layers.end(),
                                   [id = beside](const Shared<Layer>& layer) { return layer->id == id; });
      now.layers.insert(at + 1, Shared<Layer>(std::move(copy)));
    }
    joined_.taken.push_back(theirs.name);
    joined_.quilt = joined_.quilt.with(std::move(now));
  }

  void putCopy(Stamp theirs) {
    theirs.id = freshId(joined_.quilt, ids_);
    theirs.held.stamp = theirs.id;
    theirs.name += " (theirs)";
    put(std::move(theirs));
  }
  void putCopy(Sheet) {}
  void putCopy(Map theirs) {
    theirs.id = freshId(joined_.quilt, ids_);
    theirs.name += " (theirs)";
    // Its parts are told apart from those of ours.
    std::map<Id, Id> fresh;
    const auto renewed = [&](Id old) {
      if (old.empty()) return old;
      const auto [known, isNew] = fresh.try_emplace(old);
      if (isNew) known->second = ids_.next();
      return known->second;
    };
    for (LayerFolder& folder : theirs.folders) {
      folder.id = renewed(folder.id);
      folder.in = renewed(folder.in);
    }
    for (Shared<Layer>& layer : theirs.layers) {
      layer.edit([&](Layer& one) {
        one.id = renewed(one.id);
        one.folder = renewed(one.folder);
      });
    }
    theirs.walker = renewed(theirs.walker);
    put(std::move(theirs));
  }

  const Quilt& base_;
  const Quilt& here_;
  const Quilt& there_;
  const Choose& choose_;
  IdSource& ids_;
  Joined joined_;
  std::vector<std::pair<Id, Layer>> copies_;
};

}  // namespace

Joined joined(const Quilt& base, const Quilt& here, const Quilt& there, const Choose& choose, IdSource& ids) {
  return Joining(base, here, there, choose, ids).all();
}

std::vector<BothChanged> bothChanged(const Quilt& base, const Quilt& here, const Quilt& there) {
  std::vector<BothChanged> all;
  IdSource ids(1);
  const Choose note = [&](const BothChanged& one) {
    all.push_back(one);
    return Side::here;
  };
  (void)joined(base, here, there, note, ids);
  return all;
}

}  // namespace uq
