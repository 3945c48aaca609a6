#include "core/work/EditArranging.h"

#include <algorithm>

#include "core/edit/ArrangeLayers.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/Board.h"
#include "core/edit/Folders.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/Levels.h"
#include "core/edit/MapFacts.h"

namespace uq {

bool EditArranging::ofArranging(const Json& step, const std::string& what, EditDone& done) {
  if (what == "tidyBoard") {
    quilt_ = withTidyBoard(quilt_);
    done.what = "tidy the Board";
  } else if (what == "renameMap" || what == "copyMap" || what == "deleteMap" || what == "placeMap") {
    ofWholeMap(step, what, done);
  } else if (what == "map") {
    sayOfMap(step, done);
  } else if (what == "layer") {
    sayOfLayer(step, done);
  } else if (what == "copyLayer" || what == "deleteLayer" || what == "moveLayer" || what == "mergeLayer" || what == "level") {
    ofLayer(step, what, done);
  } else if (what == "addBackdrop") {
    hang(step, done);
  } else if (what == "fold" || what == "unfold" || what == "deleteFolder" || what == "folder") {
    ofFolder(step, what, done);
  } else {
    return false;
  }
  return true;
}

std::optional<PixelPos> EditArranging::pixels(const Json& step, const char* name) {
  const auto read = cell(step, name);
  return read ? std::optional(PixelPos{read->x, read->y}) : std::nullopt;
}

void EditArranging::ofWholeMap(const Json& step, const std::string& what, EditDone& done) {
  const Map* map = mapOf(step);
  if (!map) return;
  done.what = what + " " + map->name;
  const std::string name = text(step, "name");
  if (name.empty() && what == "renameMap") return refuse("“name” says what the map is called then", step);
  const bool isTaken = !name.empty() && std::any_of(quilt_.maps().begin(), quilt_.maps().end(), [&](const auto& one) { return one->name == name && one->id != map->id; });
  if (isTaken) return refuse("a map is called “" + name + "” already", step);
  if (what == "renameMap") {
    quilt_ = renameMap(quilt_, map->id, name);
  } else if (what == "deleteMap") {
    quilt_ = uq::deleteMap(quilt_, map->id);
    at_ = {};
  } else if (what == "placeMap") {
    const auto to = pixels(step, "at");
    if (!to) return;
    const auto pieces = piecesOf(quilt_);
    const auto piece = std::find_if(pieces.begin(), pieces.end(), [&](const Piece& one) { return one.map == map->id; });
    if (piece == pieces.end()) return refuse("“" + map->name + "” does not lie on the Board", step);
    quilt_ = withPiecesMoved(withPlacesSaid(quilt_), {map->id}, {to->x - piece->at.x, to->y - piece->at.y});
  } else {
    IdSource ids = idsOf(step);
    MapAdded added = duplicateMap(quilt_, map->id, ids);
    quilt_ = name.empty() ? std::move(added.quilt) : renameMap(added.quilt, added.map, name);
    at_ = {added.map, quilt_.map(added.map)->layers.empty() ? Id() : quilt_.map(added.map)->layers.front()->id};
  }
}

void EditArranging::sayOfMap(const Json& step, EditDone& done) {
  const Map* map = mapOf(step);
  if (!map) return;
  const Id id = map->id;
  done.what = "say of " + map->name;
  if (step.find("title")) quilt_ = withTitle(quilt_, id, text(step, "title"));
  if (step.find("cloth")) {
    const std::string cloth = text(step, "cloth");
    const auto colour = colourFromText(cloth);
    if (!colour && cloth != "none") return refuse("“cloth” is a colour like “#1b2030”, or none", step);
    quilt_ = withCloth(quilt_, id, colour);
  }
  if (step.find("screen")) {
    const auto size = pixels(step, "screen");
    if (!size) return;
    if (size->x < 1 || size->y < 1 || size->x > kLargestScreen || size->y > kLargestScreen) return refuse("“screen” is 1 to 16,384 pixels each way", step);
    quilt_ = withScreen(quilt_, id, PixelSize{size->x, size->y});
  }
  if (step.find("shownTimes")) quilt_ = withShownTimes(quilt_, id, bounded(step, "shownTimes", 1, kMostShownTimes, 1));
  if (step.find("cameraFree")) quilt_ = withCameraFree(quilt_, id, flag(step, "cameraFree"));
  if (step.find("grows")) quilt_ = withGrowing(quilt_, id, flag(step, "grows"));
  if (step.find("seen")) {
    const auto seen = seenFromName(text(step, "seen"));
    if (!seen) return refuse("“seen” is neither “from-above” nor “side-on”", step);
    quilt_ = withSeen(quilt_, id, *seen);
  }
  if (flag(step, "opensWith") && quilt_.facts().opensWith != id) quilt_ = withOpeningMap(quilt_, id);
}

void EditArranging::sayOfLayer(const Json& step, EditDone& done) {
  goTo(step);
  const Layer* layer = error_ ? nullptr : quilt_.layer(at_);
  if (!layer) return;
  done.what = "say of " + layer->name + " of " + quilt_.map(at_.map)->name;
  if (const std::string name = text(step, "name"); !name.empty()) quilt_ = renameLayer(quilt_, at_, name);
  if (const std::string role = text(step, "role"); !role.empty()) quilt_ = withRole(quilt_, at_, role);
  if (step.find("opacity")) quilt_ = withOpacity(quilt_, at_, bounded(step, "opacity", 0, 100, 100));
  if (step.find("inGame")) quilt_ = withInGame(quilt_, at_, flag(step, "inGame"));
  if (step.find("note")) quilt_ = withNote(quilt_, at_, text(step, "note"));
  if (step.find("tint")) {
    const auto tint = colourFromText(text(step, "tint"));
    if (!tint) return refuse("“tint” is a colour like “#1b2030”", step);
    quilt_ = withTint(quilt_, at_, *tint);
  }
  if (step.find("blend")) {
    const auto blend = blendFromName(text(step, "blend"));
    if (!blend) return refuse("there is no way to blend called “" + text(step, "blend") + "”", step);
    quilt_ = withBlend(quilt_, at_, *blend);
  }
  if (step.find("offset")) {
    const auto to = pixels(step, "offset");
    if (!to) return;
    if (std::abs(to->x) > kFarthestOffset || std::abs(to->y) > kFarthestOffset) return refuse("“offset” is at most 65,536 pixels", step);
    quilt_ = withOffset(quilt_, at_, *to);
  }
  if (step.find("parallax")) {
    const auto to = pixels(step, "parallax");
    if (!to) return;
    if (std::min(to->x, to->y) < 0 || std::max(to->x, to->y) > kMostParallax) return refuse("“parallax” is 0 to 1,000 hundredths each way", step);
    quilt_ = withParallax(quilt_, at_, {to->x, to->y});
  }
}

void EditArranging::hang(const Json& step, EditDone& done) {
  const Map* map = mapOf(step);
  if (!map) return;
  const std::string called = text(step, "sheet");
  const auto sheet = std::find_if(quilt_.sheets().begin(), quilt_.sheets().end(), [&](const auto& one) { return one->name == called || one->file == called || one->id.text() == called; });
  if (sheet == quilt_.sheets().end()) return lacks("there is no sheet “" + called + "”", step);
  const std::string fitText = text(step, "fits");
  const auto fit = fitText.empty() ? std::optional(Backdrop::Fit::asItIs) : fitFromName(fitText);
  if (!fit) return refuse("“fits” is " + std::string(fitName(Backdrop::Fit::asItIs)) + ", " + std::string(fitName(Backdrop::Fit::map)) + " or " + std::string(fitName(Backdrop::Fit::screen)), step);
  const int count = static_cast<int>(map->layers.size());
  IdSource ids = idsOf(step);
  LayerAdded added = addBackdrop(quilt_, map->id, static_cast<std::size_t>(bounded(step, "index", 0, count, 0)), (*sheet)->id, ids);
  if (added.layer.empty()) return refuse("no more layers fit on “" + map->name + "”", step);
  at_ = {map->id, added.layer};
  Backdrop hung = added.quilt.layer(at_)->backdrop;
  hung.fit = *fit;
  hung.repeatsAcross = flag(step, "repeatsAcross", hung.repeatsAcross);
  hung.repeatsDown = flag(step, "repeatsDown", hung.repeatsDown);
  quilt_ = withBackdrop(added.quilt, at_, hung);
  done.what = "hang " + (*sheet)->name + " on " + map->name;
}

void EditArranging::ofLayer(const Json& step, const std::string& what, EditDone& done) {
  goTo(step);
  const Map* map = error_ ? nullptr : quilt_.map(at_.map);
  const Layer* layer = map ? map->layer(at_.layer) : nullptr;
  if (!layer) return;
  done.what = what + " " + layer->name + " of " + map->name;
  IdSource ids = idsOf(step);
  if (what == "copyLayer" || what == "level") {
    LayerAdded added = what == "level" ? addLevel(quilt_, at_, ids) : duplicateLayer(quilt_, at_, ids);
    if (added.layer.empty()) return refuse("no more layers fit on “" + map->name + "”", step);
    quilt_ = std::move(added.quilt);
    at_.layer = added.layer;
    const Id folder = quilt_.layer(at_)->folder;
    if (const std::string name = text(step, "name"); !name.empty()) quilt_ = what == "level" ? renameFolder(quilt_, at_.map, folder, name) : renameLayer(quilt_, at_, name);
    if (what == "level" && step.find("rise")) quilt_ = withRise(quilt_, at_.map, folder, bounded(step, "rise", -kFarthestOffset, kFarthestOffset, 0));
  } else if (what == "moveLayer") {
    const int last = static_cast<int>(map->layers.size()) - 1;
    quilt_ = uq::moveLayer(quilt_, at_, static_cast<std::size_t>(bounded(step, "index", 0, last, last)));
  } else if (what == "mergeLayer") {
    if (const std::string why = whyNoMerge(quilt_, at_); !why.empty()) return refuse(why, step);
    quilt_ = mergeDown(quilt_, at_);
    at_.layer = {};
  } else {
    quilt_ = uq::deleteLayer(quilt_, at_);
    at_.layer = {};
  }
  // What goes on without a layer said goes on on the nearest.
  const Map* now = quilt_.map(at_.map);
  if (at_.layer.empty() && now && !now->layers.empty()) at_.layer = now->layers.back()->id;
}

std::optional<Id> EditArranging::folderCalled(const Json& step, const Map& map) {
  const std::string called = text(step, "folder");
  std::vector<Id> found;
  for (const LayerFolder& one : map.folders) {
    if (one.name == called || one.id.text() == called) found.push_back(one.id);
  }
  if (found.size() == 1) return found.front();
  lacks("there is no folder “" + called + "” on “" + map.name + "”, or there are several", step);
  return std::nullopt;
}

void EditArranging::ofFolder(const Json& step, const std::string& what, EditDone& done) {
  const Map* map = mapOf(step);
  if (!map) return;
  const Id id = map->id;
  if (what == "fold") {
    const Json* names = step.find("layers");
    const auto* list = names ? names->as<Json::Array>() : nullptr;
    std::vector<Id> layers;
    for (const Json& one : list ? *list : Json::Array()) {
      const auto* name = one.as<std::string>();
      const Layer* layer = name ? map->layerNamed(*name) : nullptr;
      if (!layer) return lacks("“layers” are names of layers of “" + map->name + "”", one);
      layers.push_back(layer->id);
    }
    if (layers.empty()) return refuse("“layers” says which come into the folder", step);
    IdSource ids = idsOf(step);
    FolderAdded added = foldLayers(quilt_, id, layers, ids);
    if (added.folder.empty()) return refuse("these layers cannot lie in one folder", step);
    const std::string name = text(step, "name");
    quilt_ = name.empty() ? std::move(added.quilt) : renameFolder(added.quilt, id, added.folder, name);
    done.what = "fold layers of " + map->name;
    return;
  }
  const auto folder = folderCalled(step, *map);
  if (!folder) return;
  done.what = what + " " + map->layerFolder(*folder)->name + " of " + map->name;
  if (what == "unfold") quilt_ = uq::unfold(quilt_, id, *folder);
  if (what == "deleteFolder") quilt_ = uq::deleteFolder(quilt_, id, *folder);
  if (what == "folder") {
    if (const std::string name = text(step, "name"); !name.empty()) quilt_ = renameFolder(quilt_, id, *folder, name);
    if (step.find("rise")) quilt_ = withRise(quilt_, id, *folder, bounded(step, "rise", -kFarthestOffset, kFarthestOffset, 0));
  }
  if (!quilt_.layer(at_) && !quilt_.map(id)->layers.empty()) at_ = {id, quilt_.map(id)->layers.back()->id};
}

}  // namespace uq
