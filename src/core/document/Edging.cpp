#include "core/document/Edging.h"

#include <algorithm>

namespace uq {

namespace {

constexpr std::string_view kDecidesNames[] = {"sides", "corners", "both", "path"};
constexpr std::string_view kNothingName = "nothing";

}  // namespace

std::string_view decidesName(Decides decides) { return kDecidesNames[static_cast<int>(decides)]; }

std::optional<Decides> decidesFromName(std::string_view name) {
  for (const Decides one : kDecides) {
    if (decidesName(one) == name) return one;
  }
  return std::nullopt;
}

int placesOf(GridKind grid) { return grid == GridKind::hexagonalPointy || grid == GridKind::hexagonalFlat ? 6 : 4; }

std::string materialName(const Edging& edging, MaterialIndex material) {
  const bool isThere = material >= 0 && material < static_cast<int>(edging.materials.size());
  return isThere ? edging.materials[static_cast<std::size_t>(material)].name : std::string(kNothingName);
}

std::optional<MaterialIndex> materialNamed(const Edging& edging, std::string_view name) {
  if (name == kNothingName) return kNothingSeen;
  const auto found = std::find_if(edging.materials.begin(), edging.materials.end(), [name](const Material& one) { return one.name == name; });
  if (found == edging.materials.end()) return std::nullopt;
  return static_cast<MaterialIndex>(found - edging.materials.begin());
}

bool showsNothing(const Edging& edging) {
  const auto has = [](const std::vector<MaterialIndex>& places) { return std::find(places.begin(), places.end(), kNothingSeen) != places.end(); };
  return std::any_of(edging.members.begin(), edging.members.end(),
                     [&](const EdgingMember& one) { return one.middle == kNothingSeen || has(one.sides) || has(one.corners); });
}

std::string whyNoEdging(const Edging& edging) {
  if (edging.materials.size() > static_cast<std::size_t>(kMostMaterials)) return "an edging has at most 32 materials";
  if (edging.members.size() > kMostMembersOfEdging) return "an edging has at most 4,096 members";
  for (std::size_t i = 0; i < edging.materials.size(); ++i) {
    const std::string& name = edging.materials[i].name;
    if (edging.materials[i].also.size() > kMostAlso) return "a material has at most 32 further colours";
    if (name.empty() || name == kNothingName) return "a material needs a name other than “nothing”";
    for (std::size_t j = 0; j < i; ++j) {
      if (edging.materials[j].name == name) return "two materials are called “" + name + "”";
    }
  }
  const auto count = static_cast<std::size_t>(placesOf(edging.grid));
  const auto isKnown = [&](MaterialIndex one) { return one >= kNothingSeen && one < static_cast<int>(edging.materials.size()); };
  const auto areKnown = [&](const std::vector<MaterialIndex>& places) { return std::all_of(places.begin(), places.end(), isKnown); };
  for (const EdgingMember& one : edging.members) {
    if (one.sides.size() != (sidesDecide(edging.decides) ? count : 0)) return "a member does not say its sides, or says sides that do not decide";
    if (one.corners.size() != (cornersDecide(edging.decides) ? count : 0)) return "a member does not say its corners, or says corners that do not decide";
    if (!isKnown(one.middle) || !areKnown(one.sides) || !areKnown(one.corners)) return "a member shows a material that is not in the list";
    if (one.weight < 1 || one.weight > kMostMemberWeight) return "a member's weight is from 1 to 100";
    if (!Turn::isCode(one.turn.code(), count == 6 ? 6 : 4)) return "a member is turned as its grid does not turn";
  }
  if (edging.hems.size() > kMostHems) return "an edging has at most 64 hems";
  for (std::size_t i = 0; i < edging.hems.size(); ++i) {
    const Hem& hem = edging.hems[i];
    if (std::string why = whyNoHem(hem, edging.materials.size(), static_cast<int>(count)); !why.empty()) return why;
    if (hem.around == edging.id && hem.isAround()) return "the hem “" + hem.name + "” lies all around with its own edging";
    const bool leads = i > 0 && !edging.hems[i - 1].isAround() && edging.hems[i - 1].material == hem.material &&
                       edging.hems[i - 1].side == hem.side && edging.hems[i - 1].inside == hem.inside;
    if (hem.follows && !leads) return "the hem “" + hem.name + "” follows none at the same side of its material";
  }
  return {};
}

}  // namespace uq
