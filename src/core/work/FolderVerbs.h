// FolderVerbs: what is done to the folders of layers of the desk's map, each with one step. A folder with a rise is a
// level. Without a folder being named, it is the innermost one that the active layer lies in.
// Threads: those of the Work.
#pragma once

#include <string>

#include "core/edit/Folders.h"
#include "core/edit/Levels.h"
#include "core/work/HeldBar.h"
#include "core/work/LayerVerbs.h"
#include "core/work/Work.h"

namespace uq {

class FolderVerbs {
 public:
  // All must live as long.
  FolderVerbs(Work& work, HeldBar& bar, const LayerVerbs& layers) : work_(work), bar_(bar), layers_(layers) {}

  // The innermost folder, or level, of the active layer; nullptr where it lies in none.
  const LayerFolder* here() const;

  // Puts the chosen layers in a folder.
  void put();
  // A new level comes above that of the active layer, and its layer becomes the active one.
  void addLevel();
  void move(Id folder, StackPlace to);
  void rename(Id folder, const std::string& name);
  // With the layers in it, or without them.
  void remove();
  void unfold();

  // Of the folder, by a held bar, too; and how it, or else the map, is drawn.
  void setRise(int rise);
  void setDrawOrder(DrawOrder order);

  // Folds its cards up in the Stack or shows them; shuts the eyes of all in it, or opens them where all are shut. No step.
  void foldUp(Id folder);
  void toggleEye(Id folder);

 private:
  Work& work_;
  HeldBar& bar_;
  const LayerVerbs& layers_;
};

}  // namespace uq
