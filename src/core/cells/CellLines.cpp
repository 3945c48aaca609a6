#include "core/cells/CellLines.h"

#include <algorithm>
#include <cstdlib>
#include <utility>
#include <vector>

namespace uq {

namespace {

// Where the cell at `to`, counted along the lines' axis, comes from; nothing where an empty one came in.
std::optional<int> whence(const CellLines& lines, int to) {
  if (to < lines.at) return to;
  if (lines.count < 0) return to - lines.count;
  return to < lines.at + lines.count ? std::nullopt : std::optional(to - lines.count);
}

// Neighbouring places of one chunk that come from neighbouring places of one chunk, along the lines' axis.
struct Run {
  int to = 0;  // within the chunk
  int from = 0;
  int count = 0;
  int chunk = 0;  // that they come from, counted along the axis
};

std::vector<Run> runsOf(const CellLines& lines, int chunk) {
  std::vector<Run> runs;
  for (int to = 0; to < kChunkSide; ++to) {
    const auto from = whence(lines, chunk * kChunkSide + to);
    if (!from) continue;
    const int home = floorDiv(*from, kChunkSide);
    const int within = *from - home * kChunkSide;
    const bool goesOn = !runs.empty() && runs.back().chunk == home && runs.back().to + runs.back().count == to &&
                        runs.back().from + runs.back().count == within;
    if (goesOn) {
      ++runs.back().count;
    } else {
      runs.push_back({to, within, 1, home});
    }
  }
  return runs;
}

void copyRow(const CellGrid::ChunkView& from, int fromX, int fromY, int count, Cell* to) {
  if (const ChunkCells* dense = from.dense()) {
    std::copy_n(dense->data() + fromY * kChunkSide + fromX, count, to);
    return;
  }
  if (from.isUniform()) {
    std::fill_n(to, count, from.uniform());
    return;
  }
  for (int i = 0; i < count; ++i) to[i] = from.cell(fromX + i, fromY);
}

ChunkCells chunkOf(const CellLines& lines, const CellGrid& cells, ChunkPos at, const std::vector<Run>& runs) {
  ChunkCells made{};
  for (const Run& run : runs) {
    const CellGrid::ChunkView from =
        cells.chunk(lines.areColumns() ? ChunkPos{run.chunk, at.cy} : ChunkPos{at.cx, run.chunk});
    if (from.blank()) continue;
    if (lines.areColumns()) {
      for (int y = 0; y < kChunkSide; ++y) copyRow(from, run.from, y, run.count, made.data() + y * kChunkSide + run.to);
    } else {
      for (int i = 0; i < run.count; ++i) {
        copyRow(from, 0, run.from + i, kChunkSide, made.data() + (run.to + i) * kChunkSide);
      }
    }
  }
  return made;
}

}  // namespace

CellRect CellLines::within(CellRect bounds) const {
  const int many = std::abs(count);
  const CellRect band =
      areColumns() ? CellRect{at, bounds.y0, at + many, bounds.y1} : CellRect{bounds.x0, at, bounds.x1, at + many};
  return count < 0 ? band.intersected(bounds) : band;
}

std::optional<CellPos> whereTo(const CellLines& lines, CellPos cell) {
  int& along = lines.areColumns() ? cell.x : cell.y;
  if (along < lines.at) return cell;
  if (lines.count < 0 && along < lines.at - lines.count) return std::nullopt;
  along += lines.count;
  return cell;
}

CellPos nearestTo(const CellLines& lines, CellPos cell) {
  if (const auto there = whereTo(lines, cell)) return *there;
  (lines.areColumns() ? cell.x : cell.y) = lines.at;
  return cell;
}

CellSet whereTo(const CellLines& lines, const CellSet& cells) {
  CellSet moved;
  cells.forEachStretch([&](CellPos first, int count) {
    // A stretch is cut by columns that come in or go: piece by piece, each of which stays together.
    for (int from = first.x; from < first.x + count;) {
      int to = first.x + count;
      if (lines.areColumns()) {
        for (const int cut : {lines.at, lines.count < 0 ? lines.at - lines.count : lines.at}) {
          if (from < cut) to = std::min(to, cut);
        }
      }
      if (const auto there = whereTo(lines, CellPos{from, first.y})) {
        moved.insert(*there, to - from);
      }
      from = to;
    }
  });
  return moved;
}

CellRect whereTo(const CellLines& lines, CellRect bounds) {
  (lines.areColumns() ? bounds.x1 : bounds.y1) += lines.count;
  return bounds;
}

CellGrid whereTo(const CellLines& lines, const CellGrid& cells) {
  if (lines.count == 0) return cells;
  // The chunks that are another one then: those behind the place, and where their cells go.
  std::vector<std::pair<int, int>> chunks;  // along the axis, across it
  cells.forEachChunk([&](const CellGrid::ChunkView& chunk) {
    const int along = lines.areColumns() ? chunk.at.cx : chunk.at.cy;
    const int across = lines.areColumns() ? chunk.at.cy : chunk.at.cx;
    const int end = (along + 1) * kChunkSide;
    if (end <= lines.at) return;
    chunks.emplace_back(along, across);
    const int first = std::max(along * kChunkSide, lines.at);
    for (const int to : {std::max(first + lines.count, lines.at), std::max(end - 1 + lines.count, lines.at)}) {
      chunks.emplace_back(floorDiv(to, kChunkSide), across);
    }
  });
  std::sort(chunks.begin(), chunks.end());
  chunks.erase(std::unique(chunks.begin(), chunks.end()), chunks.end());
  CellGrid moved = cells;
  std::vector<Run> runs;
  int runsOfChunk = 0;
  for (const auto& [along, across] : chunks) {
    if (runs.empty() || runsOfChunk != along) {
      runs = runsOf(lines, along);
      runsOfChunk = along;
    }
    const ChunkPos at = lines.areColumns() ? ChunkPos{along, across} : ChunkPos{across, along};
    moved.setChunk(at, chunkOf(lines, cells, at, runs));
  }
  return moved;
}

LayerCells whereTo(const CellLines& lines, const LayerCells& cells) {
  LayerCells moved;
  moved.cells = whereTo(lines, cells.cells);
  if (!cells.lifts.empty()) moved.lifts = NumberGrid::ofCells(whereTo(lines, cells.lifts.cells()));
  if (!cells.meant.empty()) moved.meant = NumberGrid::ofCells(whereTo(lines, cells.meant.cells()));
  return moved;
}

}  // namespace uq
