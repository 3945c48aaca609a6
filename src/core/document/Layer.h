// Layer: one level of depth of a map — tiles, a backdrop, or pins — and what is said of it.
//
// All kinds share name, role, thread, place and looks; only tiles layers hold cells, only backdrops a picture. How a
// layer moves and is laid over those behind it are facts of the game, not of the view: who only wants to see less uses
// the desk. Invariants: a layer that is no tiles layer has no cells and no lifts, and only
// one for pins has pins.
// Layers carry revisions that Quilt::with draws; never draw one yourself.
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/base/Id.h"
#include "core/base/Json.h"
#include "core/base/Revision.h"
#include "core/base/Shared.h"
#include "core/cells/LayerCells.h"
#include "core/document/Pin.h"
#include "core/document/Thread.h"
#include "core/grid/Pixels.h"

namespace uq {

inline constexpr int kFarthestOffset = 1 << 16;
inline constexpr int kMostLift = 1024;               // map pixels
inline constexpr std::size_t kLongestNote = 10'000;  // bytes
inline constexpr int kMostParallax = 1000;           // hundredths
inline constexpr int kLeastShownAt = 1;              // per cent
inline constexpr int kMostShownAt = 1600;

using Colour = std::uint32_t;  // 0xRRGGBB
inline constexpr Colour kNoTint = 0xffffff;
// "#1b2030", and back.
std::string colourText(Colour colour);
std::optional<Colour> colourFromText(std::string_view text);

enum class LayerKind { tiles, backdrop, pins };
std::string_view layerKindName(LayerKind kind);
std::optional<LayerKind> layerKindFromName(std::string_view name);

// How a layer is laid over what is behind it: W3C Compositing and Blending Level 1; `add` is its operator "lighter".
enum class Blend { normal, multiply, screen, add };
std::string_view blendName(Blend blend);
std::optional<Blend> blendFromName(std::string_view name);

// By how many hundredths of a pixel a layer moves for one pixel of camera: 100 with the ground, 0 fixed to the screen,
// more nearer than the ground.
struct Parallax {
  int across = 100;  // 0 .. kMostParallax
  int down = 100;
  friend constexpr bool operator==(const Parallax&, const Parallax&) = default;
};

// The picture of a backdrop layer: the whole picture of a sheet, hung with its upper left at the layer's offset.
struct Backdrop {
  // How large it is: as it is, or as high as the map or as the screen, with its own proportions.
  enum class Fit { asItIs, map, screen };

  Id sheet;  // empty: none was chosen yet
  bool repeatsAcross = false;
  bool repeatsDown = false;
  Fit fit = Fit::asItIs;
  int shownAt = 100;  // per cent of the size that the fit gives, kLeastShownAt .. kMostShownAt
  friend bool operator==(const Backdrop&, const Backdrop&) = default;
};
std::string_view fitName(Backdrop::Fit fit);
std::optional<Backdrop::Fit> fitFromName(std::string_view name);

// The role of what everything stands on.
inline constexpr std::string_view kGroundRole = "ground";

// What lies on its cells is its LayerCells; of a layer that is no tiles layer there is nothing.
struct Layer : LayerCells {
  Id id;
  Id folder;  // empty: in none
  LayerKind kind = LayerKind::tiles;
  std::string name;
  std::string role;  // "ground", "things", "in front", …; layers of one role are partners across maps
  Thread thread;
  std::string file;  // slug: maps/<folder>/<file>.cells, or <file>.pins.json
  Backdrop backdrop;
  Shared<Pins> pins;  // of layers for pins
  PixelPos offset;  // the layer's shift in map pixels, ±kFarthestOffset
  Parallax parallax;
  int opacity = 100;      // per cent
  Colour tint = kNoTint;  // its pixels are multiplied with this
  Blend blend = Blend::normal;
  bool inGame = true;  // the game shows it
  std::string note;    // may be empty
  Json::Object extra;  // fields that this version does not know
  Revision revision;

  bool holdsTiles() const { return kind == LayerKind::tiles; }
  bool holdsPins() const { return kind == LayerKind::pins; }
  friend bool operator==(const Layer&, const Layer&) = default;
};

// By how many map pixels a layer is moved on a view that moves with the ground, while the upper left of the screen is
// at that place of the map: 0, 0 for one that moves with the ground. To whole pixels, as on the screen.
PixelPos scrolledBy(Parallax parallax, PixelPos camera);

}  // namespace uq
