#include "art/DepotYard.h"

#include <QtGlobal>
#include <cstdlib>
#include <tuple>

#include "art/Scenery.h"
#include "art/Joined.h"
#include "art/Ways.h"
#include "art/Sheets.h"
#include "core/edit/DrawnPiece.h"
#include "core/edit/LayCells.h"
#include "core/edit/Seams.h"
#include "core/sheets/TileMarks.h"
#include "core/store/CellsText.h"
#include "core/store/Disk.h"
#include "core/store/Documents.h"
#include "core/edit/Rejoin.h"
#include "core/work/EditList.h"
#include "core/store/JsonText.h"
#include "raster/Blend.h"
#include "raster/PictureFile.h"
#include "raster/SheetPictures.h"

namespace uq::art {

namespace {

constexpr int kWidth = 48;
constexpr int kHeight = 32;

Sheet makeSheet(IdSource& ids, const char* name, const char* code, const DrawnSheet& drawn) {
  Sheet sheet;
  sheet.id = ids.next();
  sheet.name = name;
  sheet.file = name;
  sheet.code = code;
  sheet.picture = std::string(name) + ".png";
  sheet.pictureSize = {drawn.picture.width(), drawn.picture.height()};
  for (const auto& [number, tileName] : drawn.names) sheet.tiles[number].name = tileName;
  return sheet;
}

// The picture's bytes and the marks of its tiles; the sheet has its cut.
void keepPicture(Sheet& sheet, const QImage& picture) {
  sheet.source = PictureBytes(pngOf(picture));
  const QImage pixels = picture.convertToFormat(QImage::Format_ARGB32_Premultiplied);
  sheet.marks = Shared(marksOf(sheet, viewOf(pixels)));
}

Shared<Layer> makeLayer(IdSource& ids, const char* name, const char* role, int colour, CellGrid cells) {
  Layer layer;
  layer.id = ids.next();
  layer.name = name;
  layer.role = role;
  layer.thread.colour = colour;
  layer.file = slugFor(name, {});
  layer.cells = std::move(cells);
  return Shared(std::move(layer));
}

// Adds a map with its sheets and levels.
void addScenery(Demo& demo, IdSource& ids, const Scenery& scenery) {
  std::vector<SheetSlot> slots;
  std::vector<Id> hung;  // the same sheets, by id
  for (const MadeSheet& made : scenery.sheets) {
    Sheet sheet = makeSheet(ids, made.name.c_str(), made.code.c_str(), made.drawn);
    sheet.cut.cell = made.cell;
    sheet.stance = made.stance;
    sheet.facings = made.facings;
    for (const auto& [number, stance] : made.stances) sheet.tiles[number].stance = stance;
    keepPicture(sheet, made.drawn.picture);
    demo.pictures[pictureFile(sheet)] = made.drawn.picture;
    demo.quilt = demo.quilt.with(sheet);
    slots.push_back(*demo.quilt.slots().find(sheet.id));
    hung.push_back(sheet.id);
  }
  Map map;
  map.id = ids.next();
  map.name = scenery.name;
  map.folder = slugFor(map.name, {});
  map.grid = scenery.grid;
  map.seen = scenery.seen;
  map.bounds = scenery.bounds;
  std::map<std::string, Id> levels;
  for (const auto& [name, rise] : scenery.levels) {
    LayerFolder level;
    level.id = levels[name] = ids.next();
    level.name = name;
    level.rise = rise;
    map.folders.push_back(std::move(level));
  }
  for (const MadeLayer& made : scenery.layers) {
    CellGrid cells;
    NumberGrid lifts;
    for (const MadeLayer::Laid& one : made.laid) {
      cells.set(one.at, Cell({slots[one.sheet], one.number}, Turn{one.mirrored, 0}));
      lifts.set(one.at, one.lift);
    }
    map.layers.push_back(makeLayer(ids, made.name.c_str(), made.role.c_str(), made.colour, std::move(cells)));
    map.layers.back().edit([&](Layer& layer) {
      layer.lifts = std::move(lifts);
      layer.parallax = made.parallax;
      layer.offset = made.offset;
      layer.blend = made.blend;
      layer.opacity = made.opacity;
      if (made.hung) {
        layer.kind = LayerKind::backdrop;
        layer.file.clear();
        layer.backdrop = {hung[*made.hung], true, made.repeatsDown, Backdrop::Fit::asItIs, 100};
      }
      if (!made.level.empty()) layer.folder = levels[made.level];
    });
  }
  demo.quilt = demo.quilt.with(std::move(map));
}

SheetSlot addSheet(Demo& demo, Sheet sheet, const QImage& picture) {
  keepPicture(sheet, picture);
  demo.pictures[pictureFile(sheet)] = picture;
  const Id id = sheet.id;
  demo.quilt = demo.quilt.with(std::move(sheet));
  return *demo.quilt.slots().find(id);
}

SheetSlot addRipples(Demo& demo, IdSource& ids) {
  const DrawnSheet drawn = drawRipplesSheet();
  Sheet sheet = makeSheet(ids, "ripples", "M", drawn);
  for (unsigned look = 0; look < kRipples; ++look) {
    Frames& frames = sheet.tiles[look * kRippleFrames].frames;
    for (unsigned frame = 0; frame < kRippleFrames; ++frame) frames.push_back({look * kRippleFrames + frame, 180});
  }
  return addSheet(demo, std::move(sheet), drawn.picture);
}

void addProps(Demo& demo, IdSource& ids) {
  Sheet sheet;
  sheet.id = ids.next();
  sheet.name = sheet.file = "props";
  sheet.code = "N";
  sheet.footing = Footing::solid;
  QImage all;
  for (const DrawnProp& prop : drawQuayProps()) {
    const auto number = static_cast<std::uint32_t>(sheet.collection.size());
    sheet.tiles[number].name = prop.name;
    sheet.collection.push_back({number, slugFor(prop.name, {}) + ".png", {prop.picture.width(), prop.picture.height()},
                                PictureBytes(pngOf(prop.picture)), {}});
    demo.pictures["sheets/props/" + sheet.collection.back().file] = prop.picture;
  }
  layOutCollection(sheet);
  sheet.cut.cell = {kTile, kTile};
  const auto picture = decodeSheet(sheet);
  sheet.marks = Shared(marksOf(sheet, viewOf(*picture)));
  demo.quilt = demo.quilt.with(std::move(sheet));
}

void addLoft(Demo& demo, IdSource& ids) {
  const DrawnSheet drawn = drawLoftSheet();
  Sheet sheet = makeSheet(ids, "loft", "O", drawn);
  sheet.cut.border = 2;
  sheet.cut.gap = 2;
  for (unsigned sides = 0; sides < 16; ++sides) sheet.tiles[wallTop(sides)].footing = Footing::solid;
  for (unsigned wall = 6; wall <= 12; ++wall) sheet.tiles[wall].footing = Footing::solid;
  addSheet(demo, std::move(sheet), drawn.picture);
}

void addTrim(Demo& demo) {
  const DrawnSheet drawn = drawTrimSheet();
  IdSource ids(20261201);
  Sheet sheet = makeSheet(ids, "trim", "U", drawn);
  for (unsigned sides = 0; sides < 16; ++sides) sheet.tiles[trim::hedge + sides].footing = Footing::solid;
  addSheet(demo, std::move(sheet), drawn.picture);
}

// One list of edits on the quilt as it is.
void doEditList(Demo& demo, const char* name) {
  const std::string path = std::string(UQ_EDIT_LISTS) + "/" + name + ".json";
  const auto text = realDisk()->read(path, 1 << 20);
  const auto list = text ? readJson(*text, path) : Result<Json>(fail(text.error()));
  const auto done = list ? doEdits(demo.quilt, *list, {}, path) : Result<EditsDone>(fail(list.error()));
  if (!done) qFatal("%s", done.error().text().c_str());
  demo.quilt = done->quilt;
}

// What is made by lists of edits, as anybody could by hand or with uquilt edit: stamps, Ferry Street, Signal Loft, and
// what stands and lies on Depot Yard, whose grounds are thrown anew.
void doEditLists(Demo& demo) {
  for (const char* name : {"stamps", "ferry-street", "signal-loft", "depot-yard"}) doEditList(demo, name);
}

// Ferry Street's basin opens into the canal: its walls end where water lies on both sides.
void openBasin(Demo& demo) {
  const Map& map = *demo.quilt.mapNamed("Ferry Street");
  const LayerAt ground{map.id, map.layerNamed("Ground")->id};
  demo.quilt = demo.quilt.with(ground, rejoined(demo.quilt, ground, CellSet(map.bounds)).cells);
}

// Depot Yard's right edge is sewn to Ferry Street's left one, and Canal Locks wraps; then what stands across the stitch.
void sewTogether(Demo& demo, IdSource& ids) {
  const auto idOf = [&](const char* name) { return demo.quilt.mapNamed(name)->id; };
  const Sewing street = sewn(demo.quilt, idOf("Depot Yard"), idOf("Ferry Street"), {kWidth, 0}, ids);
  const Sewing locks = wrapped(street.quilt, idOf("Canal Locks"), false, ids);
  if (!street.why.empty() || !locks.why.empty()) qFatal("%s%s", street.why.c_str(), locks.why.c_str());
  demo.quilt = locks.quilt;
  doEditList(demo, "across-the-stitch");
}

// The maps as a city: the boxes around the pieces, by their upper left corners on the Board.
void layOnBoard(Demo& demo) {
  const std::map<std::string, PixelPos> places = {
      {"Lantern Row", {0, -1310}},  {"Depot Yard", {0, 0}},       {"Ferry Street", {kWidth * kTile, 0}},
      {"Ward Board", {-1720, -560}}, {"Signal Loft", {-640, 704}}, {"Quayside", {-360, 1310}},
      {"Roof Market", {1700, 1310}}, {"Canal Locks", {3370, 324}}};
  for (const auto& shared : std::vector(demo.quilt.maps())) {
    Map map = shared.read();
    const PixelRect box = makeGrid(map.grid)->pixelBounds(map.bounds);
    const PixelPos at = places.at(map.name);
    map.onBoard = PixelPos{at.x - box.x, at.y - box.y};
    demo.quilt = demo.quilt.with(std::move(map));
  }
}

// What is still to be built, in chalk.
void planAhead(Demo& demo, IdSource& ids) {
  struct Planned {
    const char* name;
    const char* note;
    PixelRect at;
    bool done;
  };
  for (const Planned& one : {Planned{"Glass Works", "Furnaces by the canal; the night shift hums. Reached from Ferry Street.", {3370, -560, 1000, 640}, false},
                             Planned{"Under the Arches", "Where the trams are mended. A way down from Depot Yard.", {-1720, 760, 900, 520}, false},
                             Planned{"The Tallow Stair", "Cut into Quayside instead.", {-1720, 1480, 900, 420}, true}}) {
    Id made;
    demo.quilt = withChalk(demo.quilt, one.at, ids, &made);
    demo.quilt = withChalkSaid(demo.quilt, made, one.name, one.note, one.done);
  }
}

// Ripples on the canal of Depot Yard.
void enliven(Demo& demo, SheetSlot ripples) {
  const Map& yard = *demo.quilt.mapNamed("Depot Yard");
  const LayerAt paving{yard.id, yard.layerNamed("Paving")->id};
  const LayerAt things{yard.id, yard.layerNamed("Sheds & trams")->id};
  std::vector<CellChange> water;
  const SheetSlot street = *demo.quilt.slots().find(std::find_if(demo.quilt.sheets().begin(), demo.quilt.sheets().end(), [](const auto& one) { return one->name == "street"; })->read().id);
  const unsigned firstWater = groundTile(Ground::canal, 0);
  for (int y = 0; y < kHeight; ++y) {
    for (int x = 0; x < kWidth; ++x) {
      const TileRef tile = yard.layer(paving.layer)->cells.at({x, y}).tile();
      const unsigned chance = (static_cast<unsigned>(x) * 2654435761u ^ static_cast<unsigned>(y) * 40503u) >> 7;
      const bool isWater = tile.slot == street && tile.number >= firstWater && tile.number < firstWater + kLookAlikes;
      if (!isWater || chance % 7 != 0) continue;
      if (yard.layer(things.layer)->cells.at({x, y}) != Cell()) continue;
      water.push_back({{x, y}, Cell({ripples, chance / 7 % kRipples * kRippleFrames}, {})});
    }
  }
  demo.quilt = layCells(demo.quilt, paving, water);
}

// What lies together on the Table, and where all of it comes from.
void sortIntoPiles(Demo& demo) {
  const std::map<std::string, std::string> piles = {
      {"street", "street"}, {"rails", "street"},  {"yard", "street"},  {"quay", "quay"},   {"wharf", "quay"},
      {"harbour", "quay"},  {"ripples", "quay"},  {"props", "quay"},   {"roofs", "roofs"}, {"market", "roofs"},
      {"wards", "wards"},   {"lines", "wards"},   {"meadows", "locks"}, {"locks", "locks"}, {"loft", "inside"},  {"trim", "street"},
      {"row", "row"},      {"sky", "row"},      {"towers", "row"},   {"chimneys", "row"},  {"wires", "row"}};
  for (const auto& shared : std::vector(demo.quilt.sheets())) {
    Sheet sheet = shared.read();
    sheet.origin = {piles.at(sheet.name), "Tallowmere", "the art program of this repository", "as the repository", true};
    demo.quilt = demo.quilt.with(std::move(sheet));
  }
}

}  // namespace

Demo composeDemo() {
  IdSource ids(20261123);
  QuiltFacts facts;
  facts.id = ids.next();
  facts.name = "Copperline";
  facts.screen = {448, 288};
  Demo demo{Quilt(std::move(facts)), {}};
  const auto add = [&](const char* name, const char* code, const DrawnSheet& drawn) {
    Sheet sheet = makeSheet(ids, name, code, drawn);
    keepPicture(sheet, drawn.picture);
    demo.pictures[pictureFile(sheet)] = drawn.picture;
    demo.quilt = demo.quilt.with(sheet);
    return *demo.quilt.slots().find(sheet.id);
  };
  add("street", "A", drawStreetSheet());
  add("rails", "B", drawRailsSheet());
  add("yard", "C", drawYardSheet());

  Map map;
  map.id = ids.next();
  map.name = "Depot Yard";
  map.folder = slugFor(map.name, {});
  map.grid = {GridKind::orthogonal, {kTile, kTile}};
  map.bounds = {0, 0, kWidth, kHeight};
  map.layers = {makeLayer(ids, "Paving", "ground", 2, {}),
                makeLayer(ids, "Rails", "tracks", 4, {}),
                makeLayer(ids, "Sheds & trams", "things", 1, {}),
                makeLayer(ids, "Awnings", "in front", 0, {})};
  QuiltFacts opening = demo.quilt.facts();
  opening.opensWith = map.id;
  opening.roles.insert(opening.roles.begin() + 1, "tracks");
  demo.quilt = demo.quilt.with(std::move(opening)).with(std::move(map));
  for (const Scenery& scenery : {quayside(), roofMarket(), wardBoard(), canalLocks()}) addScenery(demo, ids, scenery);
  const SheetSlot ripples = addRipples(demo, ids);
  addProps(demo, ids);
  addLoft(demo, ids);
  addTrim(demo);
  demo.quilt = withEdgings(std::move(demo.quilt));
  doEditLists(demo);
  openBasin(demo);
  enliven(demo, ripples);
  addScenery(demo, ids, lanternRow());
  sewTogether(demo, ids);
  layOnBoard(demo);
  planAhead(demo, ids);
  demo.quilt = withWays(std::move(demo.quilt), ids);
  sortIntoPiles(demo);
  return demo;
}

}  // namespace uq::art
