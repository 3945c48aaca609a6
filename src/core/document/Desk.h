// Desk: how somebody has laid out their work on a quilt — the active map and layer, what is in hand, the tool, eyes and
// locks. A value kept beside the quilt, never inside its files. It refers by id, so it survives any edit; `validDesk`
// makes it fit a quilt again after each step.
#pragma once

#include <map>
#include <set>

#include "core/cells/CellSet.h"
#include "core/cells/CellShapes.h"
#include "core/document/NewRoom.h"
#include "core/document/Alike.h"
#include "core/document/InHand.h"
#include "core/document/Quilt.h"

namespace uq {

enum class Tool { brush, erase, box, fill, select, line, oval, pins };

// How Select finds cells.
enum class SelectBy { box, outline, touching, everywhere };

// What the tools ask for, each as it was set last.
struct ToolOptions {
  int width = 1;                // of Brush, Erase and Line, in cells across; see isWidth
  bool halfCell = false;        // of a material that corners decide, Brush and Erase lay one corner of a cell
  bool outlines = false;        // Box and Oval draw the outline only
  bool throughCorners = false;  // Fill, and Select's touching cells; on squares and diamonds
  Alike alike = Alike::mix;     // what is the same for Fill and Select
  bool swaps = false;           // Fill turns every such cell of the layer into the tile in hand, turned as it was
  std::optional<bool> asSeen;   // regions of all layers; nothing said: where the active layer is empty
  SelectBy selectBy = SelectBy::box;
  bool allLayers = false;    // what is done to a selection is done on all seen layers
  bool onlyThisMap = false;  // strokes stop at the stitches of the map
  bool joinsMet = true;      // blocks that are laid, and cells that are moved or taken away, join what they meet (Rejoin.h)
  friend bool operator==(const ToolOptions&, const ToolOptions&) = default;
};
inline constexpr int kWidths[] = {1, 3, 5, 7, 9};  // that are offered
inline constexpr int kBroadest = 31;
// Whether Brush, Erase and Line may be so many cells broad.
constexpr bool isWidth(std::int64_t cells) { return cells >= 1 && cells <= kBroadest && cells % 2 == 1; }

inline constexpr std::size_t kMostHeld = 16;
inline constexpr int kOthersShown = 22;  // per cent

// How layers are coloured to tell where they lie: not, by whether they lie below or above the active one, or by whether
// they are behind or in front of the Walker.
enum class Tinting { no, byHeight, byWalker };

struct Desk {
  Id map;                        // the map that is worked on; empty when the quilt has none
  bool onBoard = false;          // the Board is looked at, not that map
  std::map<Id, Id> activeLayer;  // by map
  InHand inHand;
  Tool tool = Tool::brush;
  ToolOptions options;
  bool obeysLayer = false;           // the active layer was chosen by hand, and what was taken since fits it
  std::string leads;                 // why what was taken last led away from such a layer, in words; until it is laid
  bool stretches = false;            // blocks that are taken are laid as stretches, until another manner is chosen
  int lift = 0;                      // by how many map pixels the next stroke lies above its layer, 0 .. kMostLift
  std::map<Id, CellSet> selections;  // by map; never empty ones
  std::set<Id> chosenPins;           // on the map that is worked on
  Id selectedStamp;                  // what is selected is this stamp, as it lies there; empty: just cells
  std::set<Id> hidden;               // layers whose eye is shut
  std::set<Id> locked;               // layers that take no stroke
  bool gridLines = true;
  bool showsJoints = false;  // loose joints in sight are marked
  bool fadesOthers = false;           // only the active layer is clear
  int othersShown = kOthersShown;     // per cent, how much of the others shows then
  Tinting tinting = Tinting::no;
  bool showsCovered = false;          // cells of the active layer that nearer ones hide
  bool showsHoles = false;            // cells where no layer shows anything
  std::set<Id> foldedUp;              // folders of layers whose cards are put away in the Stack
  std::set<Id> alsoChosen;            // layers of the map that are changed along with the active one
  NewRoom newRoom = NewRoom::empty;   // what new room gets when an edge is dragged
  bool linesOfLayer = false;          // rows and columns come in and go on the active layer alone
  bool showsAllowance = false;        // what lies outside the map's edges
  bool showsFrame = false;            // what the player's screen shows, and every layer moved as there
  std::map<Id, PixelPos> cameras;     // the upper left of that, in map pixels; by map
  bool rulers = false;
  bool playsFrames = false;           // animated tiles move
  std::optional<BoxShape> box;        // how boxes lie; empty: as is usual on the grid
  bool planView = false;              // slanted maps are shown from above
  std::set<std::string> foldedPiles;  // on the Table
  std::set<Id> joined;                // layers on which a material was laid last: there materials are taken, not tiles
  std::vector<InHand> held;           // what was in hand, the newest first; at most kMostHeld
  std::vector<Id> openMaps;           // those with a tab, in the order of their tabs; always with `map`

  // The active layer, at which the next stroke is aimed (Landing tells where it lands); both ids are empty when there is none.
  LayerAt activeAt() const;

  // Where the screen frame is on the map that is worked on, while it is shown.
  std::optional<PixelPos> camera() const;

  // What is selected on the map that is worked on; empty when nothing is.
  const CellSet& selection() const;
  // Selects cells; by themselves, or as the stamp that lies there.
  void select(CellSet cells, Id stamp = {});
  // Takes into the hand, and remembers what is taken.
  void hold(InHand thing);

  friend bool operator==(const Desk&, const Desk&) = default;
};

// Where steps are made and taken back: the tab of the map, or, as the empty id, the Board.
inline Id tabOf(const Desk& desk) { return desk.onBoard ? Id() : desk.map; }

// `desk` with whatever no longer exists in `quilt` replaced by the nearest thing that does: the first map, the map's
// nearest layer of the role "ground" or else its farthest layer, an empty hand. The map worked on gets a tab.
Desk validDesk(Desk desk, const Quilt& quilt);

}  // namespace uq
