// EditArranging: what of a list of edits arranges maps, layers and folders and says what is said of them, as the Stack, the Board and
// the cards do in the window.
#pragma once

#include <string>

#include "core/work/EditMaps.h"

namespace uq {

class EditArranging : public EditMaps {
 public:
  using EditMaps::EditMaps;

 protected:
  // Does a step that is of this kind; false where it is none.
  bool ofArranging(const Json& step, const std::string& what, EditDone& done);

 private:
  void ofWholeMap(const Json& step, const std::string& what, EditDone& done);
  void sayOfMap(const Json& step, EditDone& done);
  void sayOfLayer(const Json& step, EditDone& done);
  void hang(const Json& step, EditDone& done);
  void ofLayer(const Json& step, const std::string& what, EditDone& done);
  void ofFolder(const Json& step, const std::string& what, EditDone& done);
  // The folder that a step names, by its name or id; nothing where there is none, and why is said.
  std::optional<Id> folderCalled(const Json& step, const Map& map);
  std::optional<PixelPos> pixels(const Json& step, const char* name);
};

}  // namespace uq
