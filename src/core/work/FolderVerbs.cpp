#include "core/work/FolderVerbs.h"

#include <algorithm>

#include "core/base/Counted.h"

namespace uq {

const LayerFolder* FolderVerbs::here() const {
  const Layer* layer = work_.quilt().layer(work_.desk().activeAt());
  return layer ? work_.map()->layerFolder(layer->folder) : nullptr;
}

void FolderVerbs::put() {
  if (!work_.map()) return;
  std::vector<Id> chosen;
  for (const LayerAt at : layers_.chosen()) chosen.push_back(at.layer);
  const FolderAdded added = foldLayers(work_.quilt(), work_.desk().map, chosen, work_.ids());
  work_.step("Put " + counted(static_cast<std::int64_t>(chosen.size()), "layer") + " in a folder", added.quilt);
}

void FolderVerbs::addLevel() {
  const LayerAdded added = uq::addLevel(work_.quilt(), work_.desk().activeAt(), work_.ids());
  const LayerAt at{work_.desk().map, added.layer};
  const Layer* layer = added.quilt.layer(at);
  if (!layer) return;
  work_.step("Add " + added.quilt.map(at.map)->layerFolder(layer->folder)->name, added.quilt, at);
}

void FolderVerbs::move(Id folder, StackPlace to) {
  const LayerFolder* moved = work_.map() ? work_.map()->layerFolder(folder) : nullptr;
  if (!moved) return;
  work_.step("Move " + moved->name + " in the Stack", moveFolder(work_.quilt(), work_.desk().map, folder, to));
}

void FolderVerbs::rename(Id folder, const std::string& name) {
  const LayerFolder* old = work_.map() ? work_.map()->layerFolder(folder) : nullptr;
  if (old) work_.step("Rename " + old->name, renameFolder(work_.quilt(), work_.desk().map, folder, name));
}

void FolderVerbs::remove() {
  const LayerFolder* gone = here();
  if (!gone) return;
  // The nearest layer behind it, else any other, is active then.
  const Map& map = *work_.map();
  Id next;
  bool passed = false;
  for (const Shared<Layer>& layer : map.layers) {
    const bool stays = !map.isWithin(layer->folder, gone->id);
    passed = passed || !stays;
    if (stays && (!passed || next.empty())) next = Id(layer->id);
  }
  work_.step("Delete " + gone->name, deleteFolder(work_.quilt(), map.id, gone->id), {map.id, next});
}

void FolderVerbs::unfold() {
  const LayerFolder* gone = here();
  if (!gone) return;
  work_.step("Take " + gone->name + " away, not its layers",
             uq::unfold(work_.quilt(), work_.desk().map, gone->id));
}

void FolderVerbs::setRise(int rise) {
  const LayerFolder* risen = here();
  if (!risen) return;
  const auto edit = [map = work_.desk().map, folder = risen->id, rise](const Quilt& before) {
    return withRise(before, map, folder, rise);
  };
  if (!bar_.takes(edit)) work_.step("Rise of " + risen->name, edit(work_.quilt()));
}

void FolderVerbs::setDrawOrder(DrawOrder order) {
  const Map* map = work_.map();
  if (!map) return;
  const LayerFolder* in = here();
  work_.step("Order of " + (in ? in->name : map->name),
             withDrawOrder(work_.quilt(), map->id, in ? in->id : Id(), order));
}

void FolderVerbs::foldUp(Id folder) {
  Desk desk = work_.desk();
  if (!desk.foldedUp.erase(folder)) desk.foldedUp.insert(folder);
  work_.setDesk(std::move(desk));
}

void FolderVerbs::toggleEye(Id folder) {
  const Map* map = work_.map();
  if (!map) return;
  Desk desk = work_.desk();
  std::vector<Id> inside;
  for (const Shared<Layer>& layer : map->layers) {
    if (map->isWithin(layer->folder, folder)) inside.push_back(layer->id);
  }
  const bool allShut =
      std::all_of(inside.begin(), inside.end(), [&](Id layer) { return desk.hidden.contains(layer); });
  for (const Id layer : inside) {
    if (allShut) {
      desk.hidden.erase(layer);
    } else {
      desk.hidden.insert(layer);
    }
  }
  work_.setDesk(std::move(desk));
}

}  // namespace uq
