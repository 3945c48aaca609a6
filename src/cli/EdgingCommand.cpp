#include "cli/EdgingCommand.h"

#include <iostream>
#include <optional>

#include "cli/Commands.h"
#include "cli/RegionWord.h"
#include "cli/SheetCommands.h"
#include "core/edit/EdgingCoverage.h"
#include "core/edit/Edgings.h"
#include "core/store/EdgingText.h"
#include "core/store/JsonText.h"
#include "core/store/QuiltStore.h"
#include "raster/SheetGuess.h"

namespace uq::cli {

namespace {

int refused(ExitCode code, const std::string& text) {
  std::cerr << text << "\n";
  return code;
}

Json guessJson(const Edging& edging) {
  Json::Array materials;
  for (const Material& one : edging.materials) materials.emplace_back(one.name);
  if (showsNothing(edging)) materials.emplace_back("nothing");
  Json::Array members;
  for (const EdgingMember& one : edging.members) {
    Json member = memberJson(edging, one);
    member.set("turn", static_cast<int>(one.turn.code()));
    members.push_back(std::move(member));
  }
  return Json::Object{{"decides", decidesName(edging.decides)}, {"materials", std::move(materials)}, {"members", std::move(members)}};
}

Json coverageJson(const Quilt& quilt, const Edging& edging, const EdgingCoverage& coverage) {
  Json::Array missing;
  for (const MissingShape& one : coverage.missing) {
    // What may be anything is left out of a list by its null.
    const auto places = [&](const std::vector<MaterialIndex>& shown) {
      Json::Array names;
      for (const MaterialIndex material : placesWritten(edging.grid, shown)) names.push_back(material == kAnything ? Json() : Json(materialName(edging, material)));
      return names;
    };
    Json::Object shape;
    if (one.shape.middle != kAnything) shape.emplace_back("middle", materialName(edging, one.shape.middle));
    if (!one.shape.sides.empty()) shape.emplace_back("sides", places(one.shape.sides));
    if (!one.shape.corners.empty()) shape.emplace_back("corners", places(one.shape.corners));
    shape.emplace_back("words", shapeInWords(edging, one.shape));
    const auto called = [&](const TileId& id) {
      const Sheet* sheet = quilt.sheet(id.sheet);
      return Json::Array{sheet ? sheet->name : std::string(), static_cast<int>(id.tile)};
    };
    if (one.turned) {
      Json::Array turned = called(one.turned->tile);
      turned.emplace_back(static_cast<int>(one.turned->turn.code()));
      shape.emplace_back("turned", std::move(turned));
    }
    Json::Array parts;
    for (const TileId& part : one.parts) parts.emplace_back(called(part));
    if (!parts.empty()) shape.emplace_back("parts", std::move(parts));
    missing.emplace_back(std::move(shape));
  }
  return Json::Object{{"edging", edging.name},         {"decides", decidesName(edging.decides)},    {"needed", coverage.needed},
                      {"there", coverage.there()},     {"byTurning", coverage.byTurning()},         {"fromParts", coverage.fromParts()},
                      {"pictures", coverage.pictures}, {"missing", std::move(missing)}};
}

}  // namespace

int guessEdging(const GuessOrder& order) {
  const auto region = order.region.empty() ? std::nullopt : regionFrom(order.region, 0);
  if (!order.region.empty() && !region) return refused(kUsage, "--region is X,Y,W,H: columns and rows of the cut");
  const bool writes = !order.keep.empty();
  auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt), writes ? QuiltStore::Access::write : QuiltStore::Access::read);
  if (!opened) return refused(kNotOpened, opened.error().text());
  if (writes && opened->store.readOnly()) return refused(kNotWritten, "somebody else has this quilt open: nothing was kept");
  const SheetPictures pictures = SheetPictures::load(opened->quilt, opened->problems);
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  const Sheet* sheet = sheetNamed(opened->quilt, order.sheet);
  if (!sheet) return refused(kNotOpened, "there is no sheet \"" + order.sheet + "\" in this quilt");
  const auto kind = order.grid.empty() ? Result<GridKind>(GridKind::orthogonal) : gridKindFromName(order.grid);
  if (!kind) return refused(kUsage, kind.error().reason);
  const GridShape shape = gridOfSheet(opened->quilt, *sheet, order.grid.empty() ? std::nullopt : std::optional(*kind));
  const Edging guess = guessedFromSheet(opened->quilt, pictures, *sheet, shape, region);
  if (guess.members.empty()) return refused(kNotOpened, "no tile in that region of " + sheet->name + " shows anything");
  if (order.json) {
    std::cout << writeJson(guessJson(guess));
  } else {
    std::cout << sheet->name << ": " << guess.members.size() << " tiles join by " << decidesName(guess.decides) << "\n";
    for (std::size_t i = 0; i < guess.materials.size(); ++i) std::cout << "  " << guess.materials[i].name << "\n";
    if (showsNothing(guess)) std::cout << "  nothing\n";
  }
  if (writes) {
    IdSource ids = IdSource::fromSystem();
    const auto saved = opened->store.save(addEdging(opened->quilt, guess, order.keep, ids).quilt);
    if (!saved) return refused(kNotWritten, saved.error().text());
  }
  return opened->problems.empty() ? kFine : kProblems;
}

int edgingCoverage(const CoverageOrder& order) {
  auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt), QuiltStore::Access::read);
  if (!opened) return refused(kNotOpened, opened.error().text());
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  const Edging* edging = edgingNamed(opened->quilt, order.edging);
  if (!edging) return refused(kNotOpened, "there is no edging \"" + order.edging + "\" in this quilt");
  const Sheet* sheet = edging->members.empty() ? nullptr : opened->quilt.sheet(edging->members.front().tile.sheet);
  const GridShape shape = sheet ? gridOfSheet(opened->quilt, *sheet, edging->grid) : nearestShape(edging->grid, {32, 32});
  const EdgingCoverage coverage = coverageOf(opened->quilt, *edging, *makeGrid(shape));
  if (order.json) {
    std::cout << writeJson(coverageJson(opened->quilt, *edging, coverage));
  } else {
    std::cout << edging->name << ": " << coverage.there() << " of " << coverage.needed << " shapes are there; " << coverage.pictures << " pictures would have to be drawn\n";
    for (const MissingShape& one : coverage.missing) {
      std::cout << "  " << shapeInWords(*edging, one.shape) << (one.turned ? " (by turning)" : !one.parts.empty() ? " (cut together)" : "") << "\n";
    }
  }
  return opened->problems.empty() ? kFine : kProblems;
}

}  // namespace uq::cli
