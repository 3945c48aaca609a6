#include "core/document/Chalk.h"

#include <array>

namespace uq {

namespace {

struct ChalkColour {
  const char* name;
  std::uint32_t rgb;
};

constexpr std::array<ChalkColour, kChalkColours> kColours = {{{"white chalk", 0xF2EFE6},
                                                         {"pale grey chalk", 0xC4C3BE},
                                                         {"grey chalk", 0x8B8F98},
                                                         {"slate chalk", 0x4A505E},
                                                         {"sand chalk", 0xDCC79C},
                                                         {"brown chalk", 0x8B6547},
                                                         {"red chalk", 0xBE5343},
                                                         {"orange chalk", 0xD88E45},
                                                         {"yellow chalk", 0xE3C65C},
                                                         {"lime chalk", 0xA8BC62},
                                                         {"green chalk", 0x5F9760},
                                                         {"teal chalk", 0x4A938E},
                                                         {"sky chalk", 0x83B6D2},
                                                         {"blue chalk", 0x4B6EA3},
                                                         {"violet chalk", 0x7F68A2},
                                                         {"pink chalk", 0xC88BA2}}};

}  // namespace

const Sheet& chalk() {
  static const Sheet sheet = [] {
    Sheet made;
    made.id = *Id::parse("chalkcolours");
    made.name = "Chalk";
    made.code = "CK";
    made.pictureSize = {256, 64};
    made.cut.cell = {32, 32};
    for (std::uint32_t i = 0; i < kChalkColours; ++i) made.tiles[i].name = kColours[i].name;
    return made;
  }();
  return sheet;
}

std::uint32_t chalkColour(std::uint32_t number) { return kColours[number % kChalkColours].rgb; }

}  // namespace uq
