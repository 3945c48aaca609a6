// The work of a stroke (see Stroke.h): one tool on one quilt, without the map growing. For the files of Stroke only.
#pragma once

#include "core/edit/LayAcross.h"
#include "core/edit/Region.h"
#include "core/edit/Stroke.h"

namespace uq {

class Stroke::Work {
 public:
  Work(Quilt before, StrokePlan plan);
  std::set<Id> mapsLaidOn() const;
  Laid laidAt(CellPos canvas) const;
  std::string stopsAt() const;
  void moveTo(const StrokeMove& move);
  void finish();
  void refit(CellRect box);

  bool goesByPath() const { return (plan_.tool == Tool::brush || plan_.tool == Tool::erase) && !stretches(); }

  // What it would lay, where some of that lies beyond the map's edge; nothing else.
  std::optional<CellRect> beyond() const;

  // Bounds to which the map would grow, without cells that belong to what is sewn to it or lie behind a stitch.
  CellRect besideSewn(CellRect to) const;

  Quilt before_;
  StrokePlan plan_;
  Quilt now_;
  Landing landing_;
  CellSet cells_;
  CellSet shape_;
  std::optional<CellRect> box_;
  CellSet keptCells_;
  std::string refusal_;

 private:
  std::set<Id> closedIds() const;

  bool swaps() const { return plan_.tool == Tool::fill && plan_.options.swaps && !plan_.takesAway && plan_.given.empty(); }
  bool stretches() const { return plan_.hand.manner == Manner::stretch; }
  bool mixes() const { return plan_.hand.manner == Manner::mix; }
  BoxShape boxShape() const { return plan_.box.value_or(usualBox(grid_->shape().kind)); }

  // The cells of a set that may be touched, and whether one may.
  CellSet allowed(const CellSet& cells) const;
  bool mayTouch(CellPos cell) const;
  // Whether ground lies there, as the parts laid so far left it.
  bool isGround(CellPos cell) const;
  void planLaying(SidePos anchor, std::optional<CellRect> stretched = {});

  // Where the stroke lands, judged by these cells; false where it cannot.
  bool land(const CellSet& judged, std::function<bool(const Layer&)> wipes = {});

  // Whether a copy of the block would not lie whole on a layer, or something else would go for it.
  bool wipes(const Layer& layer, const CellSet& copy) const;

  // Brush and Erase: the cells from the last place to this one, as broad as the tool.
  void brushTo(CellPos cell);

  // The same with half a cell: the corners on the way.
  void cornersTo(const CellCorner& corner);

  // One tile, one cell broad: the stroke that is made most, without sets of cells for each move.
  void brushSingle(const std::vector<CellPos>& line, const Laid& laid);

  // Shapes are worked out as far as they reach the map; their outlines need the cells beside it.
  CellRect reach() const { return patchwork_.reach().grown(kBroadest + 1); }
  // Of a line those cells from which something on the map can be reached; a block may reach far.
  std::vector<CellPos> nearMap(std::vector<CellPos> line) const;

  // Why a shape between two cells is more than can be laid at once; empty when it is not.
  std::string whyTooWide(CellPos a, CellPos b) const;

  // Line, Box, Oval, Fill and stretches: the whole shape.
  void layAnew(CellPos cell, bool even);

  // Every cell like the pressed one becomes the tile in hand, turned and lifted as it was.
  void swapAt(CellPos cell);

  // Works out the shape of the tool; where the grip of a copy lies then.
  SidePos drawShape(CellPos cell, bool even);
  RegionAsk regionAsk(CellPos cell) const;
  void stretchTo(CellPos cell, bool even);
  void layStretch(CellRect box);

  // Lays what is in hand on cells that may be touched, on all its layers.
  void lay(const CellSet& cells);
  // What a block that joins what it meets brings along, on its own map.
  void layHems(const CellSet& touched);
  std::unique_ptr<const Grid> grid_;
  std::map<Id, std::string> closed_;
  Patchwork patchwork_;
  std::optional<LayAcross> across_;  // where there are seams
  std::optional<CellPos> press_;
  std::optional<CellPos> last_;
  std::unique_ptr<Laying> laying_;
  std::optional<CellCorner> lastCorner_;
  std::vector<CellCorner> corners_;  // of this move, with half a cell
  std::vector<CellPos> way_;  // of this move, where what is in hand joins
  Quilt seen_ = before_;  // before the part that is being laid
  CellRect footprint_;  // around all that would be laid, beyond the map's edge too
  bool careful_ = false;
  bool putOff_ = false;
  bool lastEven_ = false;
};

}  // namespace uq
