#include "core/store/Documents.h"

#include "core/store/StampText.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cstdio>
#include <set>
#include <type_traits>

#include "core/store/CellsText.h"

namespace uq {

namespace {

constexpr int kMostLayers = 4096;
constexpr std::size_t kLongestName = 1000;  // bytes
constexpr std::size_t kLongestPath = 4096;   // bytes
constexpr std::size_t kMostRoles = 256;
constexpr std::size_t kMostSheets = 1022;
constexpr std::size_t kMostTags = 256;  // of one tile

// Reads the fields of one object, remembers which it was asked for, and keeps the first thing that is wrong.
class Fields {
 public:
  Fields(const Json& json, std::string file) : json_(json), file_(std::move(file)) {
    if (!json.as<Json::Object>()) refuse("an object is expected here", json.line);
  }

  const Json* field(const char* name) {
    known_.insert(name);
    const Json* found = json_.find(name);
    if (!found) refuse(std::string("\"") + name + "\" is missing", json_.line);
    return found;
  }
  bool has(const char* name) const { return json_.find(name) != nullptr; }

  std::string text(const char* name, std::size_t most = kLongestName) {
    const Json* found = field(name);
    const auto* text = found ? found->as<std::string>() : nullptr;
    if (found && (!text || text->empty() || text->size() > most)) {
      refuse(std::string("\"") + name + "\" is not a text of 1 to " + std::to_string(most) + " characters",
             found->line);
    }
    return text ? *text : std::string();
  }

  // A file name without folders; returned without `ending`.
  std::string fileName(const char* name, std::string_view ending) {
    const std::string text = this->text(name);
    const bool plain =
        text.size() > ending.size() && text.size() <= 200 && text.ends_with(ending) && text.front() != '.' &&
        text.find('/') == std::string::npos &&
        std::none_of(text.begin(), text.end(), [](char c) { return static_cast<unsigned char>(c) < 32; });
    if (!plain && !error_) {
      refuse(std::string("\"") + name + "\" is not the plain name of a file", json_.find(name)->line);
    }
    return plain ? text.substr(0, text.size() - ending.size()) : std::string();
  }

  Id id(const char* name) {
    const std::string text = this->text(name);
    const auto id = Id::parse(text);
    if (!id && !error_) refuse(std::string("\"") + name + "\" is not an id", json_.find(name)->line);
    return id.value_or(Id{});
  }

  bool flag(const char* name) {
    const Json* found = field(name);
    const auto* flag = found ? found->as<bool>() : nullptr;
    if (found && !flag) refuse(std::string("\"") + name + "\" is neither true nor false", found->line);
    return flag && *flag;
  }

  int number(const char* name, int least, int most) {
    const Json* found = field(name);
    return found ? within(*found, name, least, most) : least;
  }

  // Exactly `count` numbers.
  std::vector<int> numbers(const char* name, std::size_t count, int least, int most) {
    const Json* found = field(name);
    const auto* array = found ? found->as<Json::Array>() : nullptr;
    if (found && (!array || array->size() != count)) {
      refuse(std::string("\"") + name + "\" is not a list of " + std::to_string(count) + " numbers", found->line);
      array = nullptr;
    }
    std::vector<int> numbers(count, least);
    for (std::size_t i = 0; array && i < count; ++i) numbers[i] = within((*array)[i], name, least, most);
    return numbers;
  }

  const Json::Array& list(const char* name, std::size_t most) {
    static const Json::Array none;
    const Json* found = field(name);
    const auto* array = found ? found->as<Json::Array>() : nullptr;
    if (found && (!array || array->size() > most)) {
      refuse(std::string("\"") + name + "\" is not a list of at most " + std::to_string(most), found->line);
      return none;
    }
    return array ? *array : none;
  }

  // At most `most` different texts.
  std::vector<std::string> names(const char* name, std::size_t most) {
    std::vector<std::string> names;
    for (const Json& one : list(name, most)) {
      const auto* text = one.as<std::string>();
      if (!text || text->empty() || text->size() > kLongestName) {
        refuse(std::string("\"") + name + "\" holds something that is no text of 1 to 1000 characters", one.line);
      } else if (std::find(names.begin(), names.end(), *text) != names.end()) {
        refuse("\"" + *text + "\" stands twice in \"" + name + "\"", one.line);
      } else {
        names.push_back(*text);
      }
    }
    return names;
  }

  void document(const char* kind) {
    const std::string is = text("document");
    if (!error_ && is != kind) {
      refuse("this is a \"" + is + "\" document where a \"" + kind + "\" is expected", json_.find("document")->line);
    }
    const std::string version = text("version");
    if (error_) return;
    int major = 0;
    int minor = 0;
    const char* end = version.data() + version.size();
    const auto dot = std::from_chars(version.data(), end, major);
    const bool spelt = dot.ec == std::errc{} && dot.ptr != end && *dot.ptr == '.' &&
                       std::from_chars(dot.ptr + 1, end, minor).ptr == end && major >= 0 && minor >= 0;
    const int line = json_.find("version")->line;
    if (!spelt) {
      refuse("\"version\" is not two numbers like \"1.0\"", line);
    } else if (major > kFormatMajor) {
      refuse("it was written by a newer version of Urban Quilt (format " + version + ")", line);
      error_->cause = Error::Cause::newer;
      error_->todo = "Open it with that version";
    }
  }

  void refuse(std::string why, int line) {
    if (!error_) error_ = Error{Error::Cause::broken, std::move(why), file_, line, {}, {}};
  }
  void take(Error error) {
    if (!error_) error_ = std::move(error).in(file_);
  }
  int line(const char* name) const {
    const Json* found = json_.find(name);
    return found ? found->line : json_.line;
  }
  const std::optional<Error>& error() const { return error_; }

  // The fields that nobody asked for.
  Json::Object rest() const {
    Json::Object rest;
    if (const auto* object = json_.as<Json::Object>()) {
      for (const auto& field : *object) {
        if (!known_.contains(field.first)) rest.push_back(field);
      }
    }
    return rest;
  }

 private:
  int within(const Json& json, const char* name, int least, int most) {
    const auto* number = json.as<std::int64_t>();
    if (number && *number >= least && *number <= most) return static_cast<int>(*number);
    refuse(std::string("\"") + name + "\" is not a whole number from " + std::to_string(least) + " to " +
               std::to_string(most),
           json.line);
    return least;
  }

  const Json& json_;
  std::string file_;
  std::set<std::string> known_;
  std::optional<Error> error_;
};

template <class Part>
Result<Part> checked(const Fields& fields, Part part) {
  if (fields.error()) return fail(*fields.error());
  return part;
}

Json::Object begun(const char* document) {
  return {{"document", document}, {"version", std::to_string(kFormatMajor) + "." + std::to_string(kFormatMinor)}};
}

void append(Json::Object& object, const Json::Object& extra) {
  object.insert(object.end(), extra.begin(), extra.end());
}

Json pair(PixelSize size) { return Json::Array{size.w, size.h}; }
Json pair(PixelPos at) { return Json::Array{at.x, at.y}; }

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

Colour readColour(Fields& fields, const char* name) {
  const auto colour = colourFromText(fields.text(name));
  if (!colour) fields.refuse(std::string("\"") + name + "\" is not a colour like \"#1b2030\"", fields.line(name));
  return colour.value_or(kNoTint);
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
  if (fields.has("tint")) layer.tint = readColour(fields, "tint");
  if (fields.has("blend")) layer.blend = readNamed(fields, "blend", blendFromName);
  if (fields.has("inGame")) layer.inGame = fields.flag("inGame");
  if (fields.has("note")) layer.note = fields.text("note", kLongestNote);
  layer.extra = fields.rest();
  return layer;
}

// What differs from `plain`.
void putStance(Json::Object& object, const Stance& stance, const Stance& plain) {
  if (stance.seat != plain.seat) object.emplace_back("seat", pair(stance.seat));
  if (stance.footprint != plain.footprint) object.emplace_back("footprint", pair(stance.footprint));
}

Stance readStance(Fields& fields, Stance plain) {
  if (fields.has("seat")) {
    const auto seat = fields.numbers("seat", 2, -kFarthestSeat, kFarthestSeat);
    plain.seat = {seat[0], seat[1]};
  }
  if (fields.has("footprint")) {
    const auto cells = fields.numbers("footprint", 2, 1, kLargestFootprint);
    plain.footprint = {cells[0], cells[1]};
  }
  return plain;
}

Json texts(const std::vector<std::string>& list) {
  Json::Array array;
  for (const std::string& text : list) array.emplace_back(text);
  return array;
}

constexpr std::pair<const char*, Footing> kFootings[] = {
    {"open", Footing::open}, {"solid", Footing::solid}, {"overhead", Footing::overhead}};

const char* footingName(Footing footing) { return kFootings[static_cast<int>(footing)].first; }

Footing readFooting(Fields& fields) {
  const std::string text = fields.text("footing");
  for (const auto& [name, one] : kFootings) {
    if (text == name) return one;
  }
  fields.refuse("\"footing\" is neither \"open\" nor \"solid\" nor \"overhead\"", fields.line("footing"));
  return Footing::open;
}

Frames readFrames(Fields& fields) {
  Frames frames;
  for (const Json& item : fields.list("frames", kMostFrames)) {
    const auto* both = item.as<Json::Array>();
    const auto* number = both && both->size() == 2 ? (*both)[0].as<std::int64_t>() : nullptr;
    const auto* time = number ? (*both)[1].as<std::int64_t>() : nullptr;
    if (!time || *number < 0 || *number > kLastTileNumber || *time < 1 || *time > kLongestFrame) {
      fields.refuse("\"frames\" holds something that is no tile with 1 to 60,000 milliseconds", item.line);
      break;
    }
    frames.push_back({static_cast<std::uint32_t>(*number), static_cast<int>(*time)});
  }
  return frames;
}

// The facts that are written under a name of their own, each with its place in the sheet.
template <class Turns>
auto flagsOf(Turns& turns) {
  using Flag = std::conditional_t<std::is_const_v<Turns>, const bool, bool>;
  return std::array<std::pair<const char*, Flag&>, 3>{
      {{"mayTurn", turns.turn}, {"mayMirrorAcross", turns.mirrorAcross}, {"mayMirrorDown", turns.mirrorDown}}};
}
template <class Origin>
auto textsOf(Origin& origin) {
  using Text = std::conditional_t<std::is_const_v<Origin>, const std::string, std::string>;
  return std::array<std::pair<const char*, Text&>, 4>{
      {{"pile", origin.pile}, {"from", origin.from}, {"by", origin.by}, {"licence", origin.licence}}};
}

void readCollection(Fields& fields, const std::string& file, Sheet& sheet) {
  std::set<std::string> files;
  for (const Json& item : fields.list("collection", kLastTileNumber + 1)) {
    Fields of(item, file);
    CollectedPicture one;
    one.number = static_cast<std::uint32_t>(of.number("number", 0, static_cast<int>(kLastTileNumber)));
    one.file = of.fileName("picture", "");
    const auto size = of.numbers("size", 2, 1, kLargestPictureSide);
    one.size = {size[0], size[1]};
    one.extra = of.rest();
    if (of.error()) return fields.take(*of.error());
    if (!sheet.collection.empty() && sheet.collection.back().number >= one.number) {
      return fields.refuse("the numbers in \"collection\" do not rise", item.line);
    }
    if (!files.insert(one.file).second) return fields.refuse("two tiles have the same picture", item.line);
    sheet.collection.push_back(std::move(one));
  }
  if (sheet.collection.empty()) return fields.refuse("\"collection\" holds no picture", fields.line("collection"));
  layOutCollection(sheet);
  if (sheet.pictureSize.w > kLargestPictureSide || sheet.pictureSize.h > kLargestPictureSide) {
    fields.refuse("the pictures of the collection take more room than there is", fields.line("collection"));
  }
}

void readFacings(Fields& fields, Sheet& sheet) {
  std::set<std::int64_t> known;
  for (const Json& item : fields.list("facings", kLastTileNumber + 1)) {
    const auto* sides = item.as<Json::Array>();
    Facing facing;
    std::size_t tiles = 0;
    bool good = sides && (sides->size() == 4 || sides->size() == 6);
    for (std::size_t i = 0; good && i < sides->size(); ++i) {
      const Json& side = (*sides)[i];
      facing.emplace_back();
      if (side.as<std::nullptr_t>()) continue;
      const auto* number = side.as<std::int64_t>();
      good = number && *number >= 0 && *number <= kLastTileNumber && known.insert(*number).second;
      if (good) facing.back() = static_cast<std::uint32_t>(*number);
      ++tiles;
    }
    if (!good || tiles < 2) {
      return fields.refuse(
          "\"facings\" holds something that is no list of 4 or 6 tiles, of which at least two are there "
          "and none is in two lists",
          item.line);
    }
    sheet.facings.push_back(std::move(facing));
  }
}

}  // namespace

Json::Object documentBegun(const char* document) { return begun(document); }

std::optional<Error> checkDocument(const Json& json, const char* document, const std::string& file) {
  Fields fields(json, file);
  fields.document(document);
  return fields.error();
}

Json quiltDocument(const QuiltFacts& facts) {
  Json::Object object = begun("quilt");
  Json::Array roles;
  for (const std::string& role : facts.roles) roles.emplace_back(role);
  append(object,
         {{"id", facts.id.text()}, {"name", facts.name}, {"roles", std::move(roles)}, {"screen", pair(facts.screen)}});
  if (!facts.opensWith.empty()) object.emplace_back("opensWith", facts.opensWith.text());
  if (!facts.table.empty()) {
    Json::Array table;
    for (const Id sheet : facts.table) table.emplace_back(sheet.text());
    object.emplace_back("table", std::move(table));
  }
  if (!facts.shelf.empty()) {
    Json::Array shelf;
    for (const Id stamp : facts.shelf) shelf.emplace_back(stamp.text());
    object.emplace_back("shelf", std::move(shelf));
  }
  append(object, facts.extra);
  return object;
}

namespace {

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
  Json::Object object = begun("map");
  append(object,
         {{"id", map.id.text()}, {"name", map.name}, {"grid", gridName(map.grid.kind)}, {"cell", pair(map.grid.cell)}});
  if (map.grid.side > 0) object.emplace_back("side", map.grid.side);
  if (map.grid.firstShift) object.emplace_back("firstShift", true);
  append(object, {{"bounds", Json::Array{map.bounds.x0, map.bounds.y0, map.bounds.x1, map.bounds.y1}}});
  if (map.order) object.emplace_back("order", orderName(*map.order));
  if (map.cloth) object.emplace_back("cloth", colourText(*map.cloth));
  if (map.screen) object.emplace_back("screen", pair(*map.screen));
  if (map.shownTimes != 1) object.emplace_back("shownTimes", map.shownTimes);
  if (map.cameraRunsFree) object.emplace_back("cameraRunsFree", true);
  if (!map.title.empty()) object.emplace_back("title", map.title);
  if (map.layer(map.walker)) object.emplace_back("walker", map.walker.text());
  object.emplace_back("layers", std::move(layers));
  append(object, map.extra);
  return object;
}

Json sheetDocument(const Sheet& sheet) {
  Json::Array tiles;
  for (const auto& [number, facts] : sheet.tiles) {
    Json::Object fields = {{"number", static_cast<int>(number)}};
    if (!facts.name.empty()) fields.emplace_back("name", facts.name);
    if (!facts.tags.empty()) fields.emplace_back("tags", texts(facts.tags));
    if (facts.stance) putStance(fields, *facts.stance, sheet.stance);
    if (facts.footing) fields.emplace_back("footing", footingName(*facts.footing));
    if (!facts.frames.empty()) {
      Json::Array frames;
      for (const Frame& frame : facts.frames) {
        frames.emplace_back(Json::Array{static_cast<int>(frame.tile), frame.milliseconds});
      }
      fields.emplace_back("frames", std::move(frames));
    }
    if (facts.keep) fields.emplace_back("keep", true);
    append(fields, facts.extra);
    tiles.emplace_back(std::move(fields));
  }
  Json::Object object = begun("sheet");
  append(object, {{"id", sheet.id.text()}, {"name", sheet.name}, {"code", sheet.code}});
  if (sheet.isCollection()) {
    Json::Array all;
    for (const CollectedPicture& one : sheet.collection) {
      Json::Object item{{"number", static_cast<int>(one.number)}, {"picture", one.file}, {"size", pair(one.size)}};
      append(item, one.extra);
      all.emplace_back(std::move(item));
    }
    object.emplace_back("collection", std::move(all));
  } else {
    append(object, {{"picture", sheet.picture}, {"size", pair(sheet.pictureSize)}});
  }
  append(object,
         {{"cell", pair(sheet.cut.cell)}, {"border", sheet.cut.border}, {"gap", sheet.cut.gap}});
  if (sheet.cut.offset != PixelPos{}) object.emplace_back("offset", pair(sheet.cut.offset));
  if (sheet.care.seeThrough) object.emplace_back("seeThrough", colourText(*sheet.care.seeThrough));
  if (sheet.care.shrink != 1) object.emplace_back("shrink", sheet.care.shrink);
  if (sheet.care.enlarge != 1) object.emplace_back("enlarge", sheet.care.enlarge);
  if (sheet.care.closesRims) object.emplace_back("closesRims", true);
  putStance(object, sheet.stance, {});
  if (sheet.footing != Footing::open) object.emplace_back("footing", footingName(sheet.footing));
  for (const auto& [name, flag] : flagsOf(sheet.turns)) {
    if (!flag) object.emplace_back(name, false);
  }
  for (const auto& [name, text] : textsOf(sheet.origin)) {
    if (!text.empty()) object.emplace_back(name, text);
  }
  if (sheet.origin.maySell) object.emplace_back("maySell", *sheet.origin.maySell);
  if (!sheet.follows.empty()) object.emplace_back("follows", sheet.follows);
  if (!sheet.facings.empty()) {
    Json::Array facings;
    for (const Facing& facing : sheet.facings) {
      Json::Array sides;
      for (const auto& side : facing) {
        sides.emplace_back();
        if (side) sides.back() = static_cast<int>(*side);
      }
      facings.emplace_back(std::move(sides));
    }
    object.emplace_back("facings", std::move(facings));
  }
  object.emplace_back("tiles", std::move(tiles));
  append(object, sheet.extra);
  return object;
}

Result<QuiltFacts> readQuiltDocument(const Json& json, const std::string& file) {
  Fields fields(json, file);
  fields.document("quilt");
  QuiltFacts facts;
  facts.id = fields.id("id");
  facts.name = fields.text("name");
  // Version 1.0 has neither.
  if (fields.has("roles")) facts.roles = fields.names("roles", kMostRoles);
  if (fields.has("screen")) {
    const auto screen = fields.numbers("screen", 2, 1, kLargestScreen);
    facts.screen = {screen[0], screen[1]};
  }
  if (fields.has("opensWith")) facts.opensWith = fields.id("opensWith");
  if (fields.has("table")) {
    for (const std::string& text : fields.names("table", kMostSheets)) {
      const auto sheet = Id::parse(text);
      if (!sheet) fields.refuse("\"table\" holds something that is no id", fields.line("table"));
      facts.table.push_back(sheet.value_or(Id{}));
    }
  }
  if (fields.has("shelf")) {
    for (const std::string& text : fields.names("shelf", kMostStamps)) {
      const auto stamp = Id::parse(text);
      if (!stamp) fields.refuse("\"shelf\" holds something that is no id", fields.line("shelf"));
      facts.shelf.push_back(stamp.value_or(Id{}));
    }
  }
  facts.extra = fields.rest();
  return checked(fields, std::move(facts));
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
    if (map.layers.size() == kMostLayers) fields.refuse("the map has more than 4,096 layers", item.line);
    map.layers.emplace_back(std::move(layer));
  };
  map.order = readOrder(fields);
  if (fields.has("cloth")) map.cloth = readColour(fields, "cloth");
  if (fields.has("screen")) {
    const auto screen = fields.numbers("screen", 2, 1, kLargestScreen);
    map.screen = PixelSize{screen[0], screen[1]};
  }
  if (fields.has("shownTimes")) map.shownTimes = fields.number("shownTimes", 1, kMostShownTimes);
  if (fields.has("cameraRunsFree")) map.cameraRunsFree = fields.flag("cameraRunsFree");
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

Result<Sheet> readSheetDocument(const Json& json, const std::string& file) {
  Fields fields(json, file);
  fields.document("sheet");
  Sheet sheet;
  sheet.id = fields.id("id");
  sheet.name = fields.text("name");
  sheet.code = fields.text("code");
  if (!fields.error() && !isSheetCode(sheet.code)) {
    fields.refuse("\"code\" is not one to three capital letters", fields.line("code"));
  }
  if (fields.has("collection")) {
    readCollection(fields, file, sheet);
  } else {
    sheet.picture = fields.fileName("picture", "");
    const auto size = fields.numbers("size", 2, 1, kLargestPictureSide);
    sheet.pictureSize = {size[0], size[1]};
  }
  const auto cell = fields.numbers("cell", 2, kSmallestCell, kLargestCell);
  sheet.cut = {{cell[0], cell[1]}, fields.number("border", 0, kLargestBorder), fields.number("gap", 0, kLargestBorder), {}};
  // Version 1.2 knows none of these.
  if (fields.has("offset")) {
    const auto offset = fields.numbers("offset", 2, 0, kLargestBorder);
    sheet.cut.offset = {offset[0], offset[1]};
  }
  if (!fields.error() && sheet.tileCount() > static_cast<int>(kLastTileNumber) + 1) {
    fields.refuse("the sheet has more than 262,144 tiles", fields.line("cell"));
  }
  if (fields.has("seeThrough")) sheet.care.seeThrough = readColour(fields, "seeThrough");
  if (fields.has("shrink")) sheet.care.shrink = fields.number("shrink", 1, kMostShrink);
  if (fields.has("enlarge")) sheet.care.enlarge = fields.number("enlarge", 1, kMostShrink);
  if (fields.has("closesRims")) sheet.care.closesRims = fields.flag("closesRims");
  sheet.stance = readStance(fields, {});
  if (fields.has("footing")) sheet.footing = readFooting(fields);
  for (const auto& [name, flag] : flagsOf(sheet.turns)) {
    if (fields.has(name)) flag = fields.flag(name);
  }
  for (const auto& [name, text] : textsOf(sheet.origin)) {
    if (fields.has(name)) text = fields.text(name);
  }
  if (fields.has("maySell")) sheet.origin.maySell = fields.flag("maySell");
  if (fields.has("follows")) sheet.follows = fields.text("follows", kLongestPath);
  if (fields.has("facings")) readFacings(fields, sheet);
  for (const Json& item : fields.list("tiles", kLastTileNumber + 1)) {
    Fields tile(item, file);
    const auto number = static_cast<std::uint32_t>(tile.number("number", 0, static_cast<int>(kLastTileNumber)));
    TileFacts facts;
    if (tile.has("name")) facts.name = tile.text("name");
    if (tile.has("tags")) facts.tags = tile.names("tags", kMostTags);
    if (tile.has("seat") || tile.has("footprint")) facts.stance = readStance(tile, sheet.stance);
    if (tile.has("footing")) facts.footing = readFooting(tile);
    if (tile.has("frames")) facts.frames = readFrames(tile);
    if (tile.has("keep")) facts.keep = tile.flag("keep");
    facts.extra = tile.rest();
    if (tile.error()) return fail(*tile.error());
    if (!sheet.tiles.emplace(number, std::move(facts)).second) fields.refuse("a tile's number stands twice", item.line);
  }
  sheet.extra = fields.rest();
  return checked(fields, std::move(sheet));
}

std::string mapFile(const Map& map) { return "maps/" + map.folder + "/map.json"; }
std::string cellsFile(const Map& map, const Layer& layer) {
  return "maps/" + map.folder + "/" + layer.file + ".cells";
}

std::string liftsFile(const Map& map, const Layer& layer) {
  return "maps/" + map.folder + "/" + layer.file + ".lift.cells";
}
std::string sheetFile(const Sheet& sheet) { return "sheets/" + sheet.file + ".json"; }
std::string pictureFile(const Sheet& sheet) { return "sheets/" + sheet.picture; }
std::string pictureFile(const Sheet& sheet, const CollectedPicture& one) { return "sheets/" + sheet.file + "/" + one.file; }
std::string tilesFile(const Sheet& sheet) { return "sheets/" + sheet.file + ".tiles"; }

}  // namespace uq
