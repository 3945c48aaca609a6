#include "core/document/Pin.h"

namespace uq {

namespace {

constexpr std::string_view kEdgeNames[] = {"left", "top", "right", "bottom"};

}  // namespace

std::string_view edgeName(MapEdge edge) { return kEdgeNames[static_cast<int>(edge)]; }

std::optional<MapEdge> edgeFromName(std::string_view name) {
  for (const MapEdge edge : kMapEdges) {
    if (edgeName(edge) == name) return edge;
  }
  return std::nullopt;
}

const Pin* pinIn(const Pins& pins, Id id) {
  const auto found = std::lower_bound(pins.begin(), pins.end(), id, [](const Pin& pin, Id wanted) { return pin.id < wanted; });
  return found != pins.end() && found->id == id ? &*found : nullptr;
}

std::optional<MapEdge> edgeBeyond(CellRect bounds, CellPos cell, int within) {
  const bool inRow = cell.y >= bounds.y0 && cell.y < bounds.y1;
  const bool inColumn = cell.x >= bounds.x0 && cell.x < bounds.x1;
  if (inRow && cell.x < bounds.x0 && cell.x >= bounds.x0 - within) return MapEdge::left;
  if (inRow && cell.x >= bounds.x1 && cell.x < bounds.x1 + within) return MapEdge::right;
  if (inColumn && cell.y < bounds.y0 && cell.y >= bounds.y0 - within) return MapEdge::top;
  if (inColumn && cell.y >= bounds.y1 && cell.y < bounds.y1 + within) return MapEdge::bottom;
  return std::nullopt;
}

CellRect cellsOf(const Pin& pin, CellRect bounds) {
  if (!pin.edge) return pin.box();
  switch (*pin.edge) {
    case MapEdge::left: return {bounds.x0, bounds.y0, bounds.x0 + 1, bounds.y1};
    case MapEdge::top: return {bounds.x0, bounds.y0, bounds.x1, bounds.y0 + 1};
    case MapEdge::right: return {bounds.x1 - 1, bounds.y0, bounds.x1, bounds.y1};
    case MapEdge::bottom: return {bounds.x0, bounds.y1 - 1, bounds.x1, bounds.y1};
  }
  return pin.box();
}

CellPos middleOf(const Pin& pin, CellRect bounds) {
  const CellRect cells = cellsOf(pin, bounds);
  return {cells.x0 + (cells.width() - 1) / 2, cells.y0 + (cells.height() - 1) / 2};
}

}  // namespace uq
