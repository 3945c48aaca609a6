// What of Documents concerns maps and their layers.
#include <algorithm>
#include <set>

#include "core/store/Documents.h"
#include "core/store/Fields.h"
#include "core/store/PinsText.h"

namespace uq {

namespace {

constexpr int kMostLayers = 4096;

constexpr std::pair<const char*, DrawOrder> kOrders[] = {{"by-layers", DrawOrder::byLayers},
                                                         {"by-depth", DrawOrder::byDepth}};

const char* orderName(DrawOrder order) {
  for (const auto& [name, one] : kOrders) {
    if (one == order) return name;
  }
  return "";
}

std::optional<DrawOrder> readOrder(Fields& fields) {
  if (!fields.has("order")) return std::nullopt;
  const std::string text = fields.text("order");
  for (const auto& [name, one] : kOrders) {
    if (text == name) return one;
  }
  fields.refuse("\"order\" is neither \"by-layers\" nor \"by-depth\"", fields.line("order"));
  return std::nullopt;
}

Json::Object fieldsOf(const Layer& layer) {
  Json::Object fields = {{"id", layer.id.text()},
                         {"kind", layerKindName(layer.kind)},
                         {"name", layer.name},
                         {"role", layer.role},
                         {"thread", threadColourName(layer.thread.colour)},
                         {"stitch", threadPatternName(layer.thread.pattern)}};
  if (layer.holdsTiles()) fields.emplace_back("cells", layer.file + ".cells");
  if (layer.holdsPins() && !layer.file.empty()) fields.emplace_back("pins", layer.file + std::string(kPinsEnding));
  if (layer.kind == LayerKind::backdrop) {
    const Backdrop& backdrop = layer.backdrop;
    if (!backdrop.sheet.empty()) fields.emplace_back("sheet", backdrop.sheet.text());
    if (backdrop.repeatsAcross) fields.emplace_back("repeatsAcross", true);
    if (backdrop.repeatsDown) fields.emplace_back("repeatsDown", true);
    if (backdrop.fit != Backdrop::Fit::asItIs) fields.emplace_back("fit", fitName(backdrop.fit));
    if (backdrop.shownAt != 100) fields.emplace_back("shownAt", backdrop.shownAt);
  }
  if (layer.offset != PixelPos{}) fields.emplace_back("offset", pair(layer.offset));
  if (layer.parallax != Parallax{})
    fields.emplace_back("parallax", Json::Array{layer.parallax.across, layer.parallax.down});
  if (layer.opacity != 100) fields.emplace_back("opacity", layer.opacity);
  if (layer.tint != kNoTint) fields.emplace_back("tint", colourText(layer.tint));
  if (layer.blend != Blend::normal) fields.emplace_back("blend", blendName(layer.blend));
  if (!layer.inGame) fields.emplace_back("inGame", false);
  if (!layer.note.empty()) fields.emplace_back("note", layer.note);
  append(fields, layer.extra);
  return fields;
}

// What a layer is; nothing for a folder.
std::optional<LayerKind> readKind(Fields& fields) {
  const std::string kind = fields.text("kind");
  if (kind == "folder") return std::nullopt;
  const auto known = layerKindFromName(kind);
  if (!fields.error() && !known) {
    fields.take(Error{Error::Cause::newer,
                      "a layer of the kind \"" + kind + "\" is not known to this version",
                      {},
                      fields.line("kind"),
                      {},
                      "Open it with a newer version"});
  }
  return known.value_or(LayerKind::tiles);
}

// One of the names that `fromName` knows.
template <class FromName>
auto readNamed(Fields& fields, const char* name, FromName&& fromName) {
  const auto found = fromName(fields.text(name));
  if (!found) fields.refuse(std::string("\"") + name + "\" is nothing that this version knows", fields.line(name));
  return found.value_or(std::remove_reference_t<decltype(*found)>{});
}

Backdrop readBackdrop(Fields& fields) {
  Backdrop backdrop;
  if (fields.has("sheet")) backdrop.sheet = fields.id("sheet");
  if (fields.has("repeatsAcross")) backdrop.repeatsAcross = fields.flag("repeatsAcross");
  if (fields.has("repeatsDown")) backdrop.repeatsDown = fields.flag("repeatsDown");
  if (fields.has("fit")) backdrop.fit = readNamed(fields, "fit", fitFromName);
  if (fields.has("shownAt")) backdrop.shownAt = fields.number("shownAt", kLeastShownAt, kMostShownAt);
  return backdrop;
}

Layer readLayer(Fields& fields, LayerKind kind) {
  Layer layer;
  layer.id = fields.id("id");
  layer.kind = kind;
  layer.name = fields.text("name");
  layer.role = fields.text("role");
  const std::string colour = fields.text("thread");
  const std::string stitch = fields.text("stitch");
  const auto thread = threadFromNames(colour, stitch);
  if (!thread)
    fields.refuse("\"thread\" and \"stitch\" are not a thread that this version knows", fields.line("thread"));
  layer.thread = thread.value_or(Thread{});
  if (layer.holdsTiles()) layer.file = fields.fileName("cells", ".cells");
  if (layer.holdsPins() && fields.has("pins")) layer.file = fields.fileName("pins", kPinsEnding);  // before 1.10 there were none
  if (kind == LayerKind::backdrop) layer.backdrop = readBackdrop(fields);
  if (fields.has("offset")) {
    const auto offset = fields.numbers("offset", 2, -kFarthestOffset, kFarthestOffset);
    layer.offset = {offset[0], offset[1]};
  }
  if (fields.has("parallax")) {
    const auto parallax = fields.numbers("parallax", 2, 0, kMostParallax);
    layer.parallax = {parallax[0], parallax[1]};
  }
  if (fields.has("opacity")) layer.opacity = fields.number("opacity", 0, 100);
  if (fields.has("tint")) layer.tint = fields.colour("tint");
  if (fields.has("blend")) layer.blend = readNamed(fields, "blend", blendFromName);
  if (fields.has("inGame")) layer.inGame = fields.flag("inGame");
  if (fields.has("note")) layer.note = fields.text("note", kLongestNote);
  layer.extra = fields.rest();
  return layer;
}

// What differs from `plain`.
// The layers and folders in a folder, from the layer at `next` on, which is past them then.
Json::Array layersIn(const Map& map, Id folder, std::size_t& next) {
  Json::Array all;
  while (next < map.layers.size()) {
    const Layer& layer = map.layers[next].read();
    if (layer.folder == folder) {
      all.emplace_back(fieldsOf(layer));
      ++next;
      continue;
    }
    const std::vector<Id> around = map.foldersAround(layer.folder);
    const auto own = std::find(around.begin(), around.end(), folder);
    if (own == around.end() && !folder.empty()) return all;
    const LayerFolder& inner = *map.layerFolder(folder.empty() ? around.front() : *std::next(own));
    Json::Object fields = {{"id", inner.id.text()}, {"kind", "folder"}, {"name", inner.name}};
    if (inner.rise != 0) fields.emplace_back("rise", inner.rise);
    if (inner.order) fields.emplace_back("order", orderName(*inner.order));
    fields.emplace_back("layers", layersIn(map, inner.id, next));
    append(fields, inner.extra);
    all.emplace_back(std::move(fields));
  }
  return all;
}

}  // namespace

Json mapDocument(const Map& map) {
  std::size_t first = 0;
  Json::Array layers = layersIn(map, {}, first);
  Json::Object object = documentBegun("map");
  append(object,
         {{"id", map.id.text()}, {"name", map.name}, {"grid", gridName(map.grid.kind)}, {"cell", pair(map.grid.cell)}});
  if (map.grid.side > 0) object.emplace_back("side", map.grid.side);
  if (map.grid.firstShift) object.emplace_back("firstShift", true);
  if (map.seen != Seen::fromAbove) object.emplace_back("seen", seenName(map.seen));
  append(object, {{"bounds", Json::Array{map.bounds.x0, map.bounds.y0, map.bounds.x1, map.bounds.y1}}});
  if (map.order) object.emplace_back("order", orderName(*map.order));
  if (map.cloth) object.emplace_back("cloth", colourText(*map.cloth));
  if (map.screen) object.emplace_back("screen", pair(*map.screen));
  if (map.shownTimes != 1) object.emplace_back("shownTimes", map.shownTimes);
  if (map.cameraRunsFree) object.emplace_back("cameraRunsFree", true);
  if (map.onBoard) object.emplace_back("onBoard", pair(*map.onBoard));
  if (map.growsAsPainted) object.emplace_back("growsAsPainted", true);
  if (!map.title.empty()) object.emplace_back("title", map.title);
  if (map.layer(map.walker)) object.emplace_back("walker", map.walker.text());
  object.emplace_back("layers", std::move(layers));
  append(object, map.extra);
  return object;
}

Result<Map> readMapDocument(const Json& json, const std::string& file) {
  Fields fields(json, file);
  fields.document("map");
  Map map;
  map.id = fields.id("id");
  map.name = fields.text("name");
  const auto kind = gridKindFromName(fields.text("grid"));
  if (!kind) {
    Error error = kind.error();
    error.line = fields.line("grid");
    fields.take(std::move(error));
  }
  const auto cell = fields.numbers("cell", 2, kSmallestCell, kLargestCell);
  map.grid = {kind.value_or(GridKind::orthogonal), {cell[0], cell[1]}};
  const bool hexagons = map.grid.kind == GridKind::hexagonalPointy || map.grid.kind == GridKind::hexagonalFlat;
  if (hexagons) map.grid.side = fields.number("side", 1, kLargestCell);
  if (fields.has("firstShift")) map.grid.firstShift = fields.flag("firstShift");
  if (const std::string why = whyNoGrid(map.grid); !fields.error() && !why.empty()) {
    fields.refuse(why, fields.line("cell"));
  }
  if (fields.has("seen")) {
    const std::optional<Seen> seen = seenFromName(fields.text("seen"));
    if (!seen) fields.refuse("“seen” is neither “from-above” nor “side-on”", fields.line("seen"));
    map.seen = seen.value_or(Seen::fromAbove);
  }
  const auto edges = fields.numbers("bounds", 4, -kFarthestCell, kFarthestCell);
  map.bounds = {edges[0], edges[1], edges[2], edges[3]};
  if (!fields.error() && map.bounds.empty()) fields.refuse("the map's bounds hold no cell", fields.line("bounds"));
  const PixelRect pixels = fields.error() ? PixelRect{} : makeGrid(map.grid)->pixelBounds(map.bounds);
  if (std::max({-pixels.x, -pixels.y, pixels.right(), pixels.bottom()}) > kFarthestPixel) {
    fields.refuse("the map reaches farther than 16,777,216 pixels from 0, 0", fields.line("bounds"));
  }

  std::set<Id> ids;
  std::set<std::string> files;
  const auto add = [&](Fields& of, LayerKind layerKind, const Json& item, Id folder) {
    Layer layer = readLayer(of, layerKind);
    layer.folder = folder;
    if (of.error()) return fields.take(*of.error());
    if (!ids.insert(layer.id).second) fields.refuse("two layers have the same id", item.line);
    if (layer.holdsTiles() && !files.insert(layer.file).second) fields.refuse("two layers have the same cells file", item.line);
    const bool twin = layer.holdsPins() && !layer.file.empty() && !files.insert(layer.file + std::string(kPinsEnding)).second;
    if (twin) fields.refuse("two layers have the same file of pins", item.line);
    if (map.layers.size() == kMostLayers) fields.refuse("the map has more than 4,096 layers", item.line);
    map.layers.emplace_back(std::move(layer));
  };
  map.order = readOrder(fields);
  if (fields.has("cloth")) map.cloth = fields.colour("cloth");
  if (fields.has("screen")) {
    const auto screen = fields.numbers("screen", 2, 1, kLargestScreen);
    map.screen = PixelSize{screen[0], screen[1]};
  }
  if (fields.has("shownTimes")) map.shownTimes = fields.number("shownTimes", 1, kMostShownTimes);
  if (fields.has("cameraRunsFree")) map.cameraRunsFree = fields.flag("cameraRunsFree");
  if (fields.has("onBoard")) {
    const auto place = fields.numbers("onBoard", 2, -kFarthestOnBoard, kFarthestOnBoard);
    map.onBoard = PixelPos{place[0], place[1]};
  }
  if (fields.has("growsAsPainted")) map.growsAsPainted = fields.flag("growsAsPainted");
  if (fields.has("title")) map.title = fields.text("title");
  if (fields.has("walker")) map.walker = fields.id("walker");
  const auto addAll = [&](Fields& of, Id in, int depth, const auto& self) -> void {
    for (const Json& item : of.list("layers", kMostLayers)) {
      Fields one(item, file);
      if (const std::optional<LayerKind> layerKind = readKind(one)) {
        add(one, *layerKind, item, in);
      } else {
        LayerFolder folder;
        folder.id = one.id("id");
        folder.in = in;
        folder.name = one.text("name");
        if (one.has("rise")) folder.rise = one.number("rise", -kFarthestOffset, kFarthestOffset);
        folder.order = readOrder(one);
        if (!ids.insert(folder.id).second) one.refuse("two layers have the same id", item.line);
        if (depth == kDeepestLayerFolder) one.refuse("folders lie more than 16 deep in one another", item.line);
        if (one.list("layers", kMostLayers).empty()) {
          one.refuse("the folder \"" + folder.name + "\" holds no layer", item.line);
        }
        const std::size_t place = map.folders.size();
        map.folders.push_back(folder);
        if (!one.error()) self(one, folder.id, depth + 1, self);
        map.folders[place].extra = one.rest();
        if (one.error()) fields.take(*one.error());
      }
      if (fields.error()) return;
    }
  };
  addAll(fields, {}, 0, addAll);
  map.extra = fields.rest();
  return checked(fields, std::move(map));
}

}  // namespace uq
