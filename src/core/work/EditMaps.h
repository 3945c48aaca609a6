// EditMaps: what of a list of edits is about whole maps: where a step is done, and the steps that make maps, layers, seams,
// pins and ways, and change sizes.
//
// Steps go on where the one before was. What a step refuses is said by EditReading; nothing counts then.
#pragma once

#include <cstdint>
#include <string>

#include "core/document/Quilt.h"
#include "core/work/EditList.h"
#include "core/work/EditReading.h"

namespace uq {

class EditMaps : public EditReading {
 public:
  EditMaps(Quilt quilt, std::string file) : EditReading(std::move(file)), quilt_(std::move(quilt)) {}

 protected:
  // Does a step that is of this kind; false where it is none.
  bool ofMaps(const Json& step, const std::string& what, EditDone& done);

  // Where the step is done: the map and layer that it says, else where the step before was; refuses where there is none.
  void goTo(const Json& step);
  // The source of the ids of what a step makes.
  IdSource idsOf(const Json& step);
  // The map that a step names, else the one where the step before was; nullptr where there is none, and why is said.
  const Map* mapOf(const Json& step);

  Quilt quilt_;
  LayerAt at_;
  std::uint64_t seed_ = 0;  // of the list

 private:
  // By its name, else by its id; nullptr where there is none.
  const Map* mapCalled(const std::string& name) const;
  // The pin of a map that a field names: by its name, its number or its id; nothing where there is none, and why is said.
  std::optional<PinAt> pinCalled(const Json& step, const char* field, const Map& map);

  void newMap(const Json& step, EditDone& done);
  void addLayer(const Json& step, EditDone& done);
  void resize(const Json& step, EditDone& done);
  void sew(const Json& step, const std::string& what, EditDone& done);
  void pin(const Json& step, EditDone& done);
  void changePin(const Json& step, const std::string& what, EditDone& done);
  void lead(const Json& step, EditDone& done);
};

}  // namespace uq
