#include "core/store/OutlineText.h"

#include "core/store/TemplateText.h"

namespace uq {

namespace {

std::string pointText(PixelPos at) { return std::to_string(at.x) + " " + std::to_string(at.y); }

void addPolygon(std::string& path, const std::vector<PixelPos>& corners) {
  for (std::size_t i = 0; i < corners.size(); ++i) path += (i == 0 ? "M" : "L") + pointText(corners[i]);
  path += "Z";
}

std::string pathOf(const Grid& grid, const CellGrid& cells, CellRect within) {
  std::string path;
  const bool isSquare = grid.shape().kind == GridKind::orthogonal;
  const CellRect area = cells.usedBounds().intersected(within);
  for (int y = area.y0; y < area.y1; ++y) {
    for (int x = area.x0; x < area.x1;) {
      const Cell first = cells.at({x, y});
      int end = x + 1;
      while (isSquare && !first.empty() && end < area.x1 && cells.at({end, y}) == first) ++end;
      if (first.empty()) {
        ++x;
        continue;
      }
      if (isSquare) {
        const PixelRect from = grid.cellBox({x, y});
        const PixelRect to = grid.cellBox({end - 1, y});
        addPolygon(path, {{from.x, from.y}, {to.x + to.w, from.y}, {to.x + to.w, from.y + from.h}, {from.x, from.y + from.h}});
      } else {
        addPolygon(path, grid.outline({x, y}));
      }
      x = end;
    }
  }
  return path;
}

}  // namespace

Result<std::string> outlineText(const Map& map) {
  std::int64_t count = 0;
  for (const Shared<Layer>& layer : map.layers) {
    for (const auto& [which, uses] : layer->cells.tally(map.bounds)) count += uses;
  }
  if (count > kMostDrawnCells) return fail(Error{Error::Cause::tooLarge, "more than 4,000,000 cells would be outlined", map.name, 0, "Nothing was written", "Export pictures or cells instead"});
  const auto grid = makeGrid(map.grid);
  const PixelRect box = grid->pixelBounds(map.bounds);
  std::string text = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + std::to_string(box.w) + "\" height=\"" + std::to_string(box.h) + "\" viewBox=\"" +
                     std::to_string(box.x) + " " + std::to_string(box.y) + " " + std::to_string(box.w) + " " + std::to_string(box.h) + "\">\n<title>" + escapedXml(map.name) + "</title>\n";
  for (const Shared<Layer>& layer : map.layers) {
    if (!layer->holdsTiles()) continue;
    text += "<g id=\"" + layer->id.text() + "\" data-name=\"" + escapedXml(layer->name) + "\" fill=\"none\" stroke=\"#" + (layer->inGame ? "1b2030" : "8a8f9c") + "\">\n<path d=\"" + pathOf(*grid, layer->cells, map.bounds) + "\"/>\n</g>\n";
  }
  return text + "</svg>\n";
}

}  // namespace uq
