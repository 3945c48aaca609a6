#include "cli/ResizeCommand.h"

#include <charconv>
#include <iostream>
#include <optional>

#include "cli/Commands.h"
#include "core/edit/Seams.h"
#include "core/grid/Grid.h"
#include "core/store/QuiltStore.h"

namespace uq::cli {

namespace {

// "64x48"; false for anything else.
bool readSize(const std::string& text, ResizeAsk& ask) {
  int width = 0;
  int height = 0;
  const char* end = text.data() + text.size();
  const auto first = std::from_chars(text.data(), end, width);
  if (first.ec != std::errc() || first.ptr == end || *first.ptr != 'x') return false;
  const auto second = std::from_chars(first.ptr + 1, end, height);
  if (second.ec != std::errc() || second.ptr != end) return false;
  ask.width = width;
  ask.height = height;
  return true;
}

// "12:3" for each; what is none of these otherwise.
std::optional<std::string> readLines(const std::vector<std::string>& texts, CellLines::Which which, bool come, CellRect bounds,
                                     ResizeAsk& ask) {
  for (const std::string& text : texts) {
    int at = 0;
    int count = 0;
    const char* end = text.data() + text.size();
    const auto first = std::from_chars(text.data(), end, at);
    const bool parted = first.ec == std::errc() && first.ptr != end && *first.ptr == ':';
    const auto second = parted ? std::from_chars(first.ptr + 1, end, count) : first;
    const bool read = parted && second.ec == std::errc() && second.ptr == end;
    if (!read || at < 0 || at > kFarthestCell || count < 1 || count > kFarthestCell) return text;
    const int corner = which == CellLines::Which::columns ? bounds.x0 : bounds.y0;
    ask.lines.push_back({which, corner + at, come ? count : -count});
  }
  return std::nullopt;
}

std::optional<std::string> readLines(const ResizeOrder& order, CellRect bounds, ResizeAsk& ask) {
  using Which = CellLines::Which;
  if (auto wrong = readLines(order.insertedColumns, Which::columns, true, bounds, ask)) return wrong;
  if (auto wrong = readLines(order.insertedRows, Which::rows, true, bounds, ask)) return wrong;
  if (auto wrong = readLines(order.removedColumns, Which::columns, false, bounds, ask)) return wrong;
  return readLines(order.removedRows, Which::rows, false, bounds, ask);
}

std::string cellsText(std::int64_t count) {
  return std::to_string(count) + (count == 1 ? " painted cell" : " painted cells");
}

}  // namespace

int resizeMap(ResizeOrder order) {
  const auto refused = [](const std::string& why, int code) {
    std::cerr << why << "\n";
    return code;
  };
  if (!order.to.empty() && !readSize(order.to, order.ask)) {
    return refused("\"" + order.to + "\" is no size. Write cells, as 64x48.", kUsage);
  }
  const auto room = newRoomFromName(order.room);
  if (!room) return refused("\"" + order.room + "\" is nothing for new room: empty, lastRow or ground.", kUsage);
  order.ask.room = *room;
  auto opened = QuiltStore::open(realDisk(), quiltFolder(order.quilt),
                                 order.dryRun ? QuiltStore::Access::read : QuiltStore::Access::write);
  if (!opened) return refused(opened.error().text(), kNotOpened);
  for (const Error& problem : opened->problems) std::cerr << problem.text() << "\n";
  const Map* map = opened->quilt.mapNamed(order.map);
  if (!map) return refused("\"" + order.map + "\" is no map of this quilt. 'uquilt info' lists them.", kNotOpened);
  if (const Error* damage = opened->store.damage(map->id)) return refused(damage->text(), kNotWritten);
  if (const auto wrong = readLines(order, map->bounds, order.ask)) {
    return refused("\"" + *wrong + "\" says no rows or columns. Write where and how many, as 12:3.", kUsage);
  }
  if (!order.layer.empty()) {
    const Layer* layer = map->layerNamed(order.layer);
    if (!layer) return refused("\"" + order.layer + "\" is no layer of this map, or several have that name.", kNotOpened);
    order.ask.linesOf = layer->id;
  }
  const Resized done = resized(opened->quilt, map->id, order.ask);
  if (!done.why.empty()) return refused(done.why + ". Nothing was changed.", kUsage);
  const PixelRect pixels = makeGrid(map->grid)->pixelBounds(done.bounds);
  std::cout << map->name << ": " << done.bounds.width() << " x " << done.bounds.height() << " cells, " << pixels.w << " x "
            << pixels.h << " px" << (order.dryRun ? ", if it were done" : "") << "\n";
  if (done.gone > 0) std::cout << "  " << cellsText(done.gone) << " removed with rows and columns\n";
  if (done.cut > 0) std::cout << "  " << cellsText(done.cut) << " cut off, kept in the seam allowance\n";
  if (done.broughtBack > 0) std::cout << "  " << cellsText(done.broughtBack) << " brought back\n";
  if (done.dropped > 0) std::cout << "  " << cellsText(done.dropped) << " of the seam allowance dropped\n";
  // What is sewn to the map goes along with its edges.
  const SeamsKept kept = withSeamsKept(opened->quilt, done.quilt);
  for (const std::string& seam : kept.opened) std::cout << "  the seam " << seam << " is opened\n";
  if (!order.dryRun && !(kept.quilt == opened->quilt)) {
    if (const auto saved = opened->store.save(kept.quilt); !saved) return refused(saved.error().text(), kNotWritten);
  }
  return opened->problems.empty() ? kFine : kProblems;
}

}  // namespace uq::cli
