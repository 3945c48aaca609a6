#include "core/edit/Board.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>

namespace uq {

namespace {

constexpr int kBeside = 128;   // map pixels between pieces that are laid out in a row
constexpr int kBelow = 320;    // and between rows: room for names and sizes, also where all is seen small
constexpr double kWide = 2.4;  // as much wider than high all of them are to be

PixelRect pixelsOf(const Map& map) { return makeGrid(map.grid)->pixelBounds(map.bounds); }

PixelRect shifted(PixelRect rect, PixelPos by) { return {rect.x + by.x, rect.y + by.y, rect.w, rect.h}; }

bool meet(const PixelRect& a, const PixelRect& b) {
  return a.x < b.right() && b.x < a.right() && a.y < b.bottom() && b.y < a.bottom();
}

PixelRect united(const PixelRect& a, const PixelRect& b) {
  if (a.empty()) return b;
  if (b.empty()) return a;
  const int x = std::min(a.x, b.x);
  const int y = std::min(a.y, b.y);
  return {x, y, std::max(a.right(), b.right()) - x, std::max(a.bottom(), b.bottom()) - y};
}

int bounded(std::int64_t place) {
  return static_cast<int>(std::clamp<std::int64_t>(place, -kFarthestOnBoard, kFarthestOnBoard));
}

// Lays pieces in rows from a place on, none wider than it needs to be about as high as wide.
class Rows {
 public:
  Rows(PixelPos begin, std::int64_t area) : begin_(begin), next_(begin) {
    wide_ = std::max(1, static_cast<int>(std::sqrt(static_cast<double>(area) * kWide)));
  }
  // Where map pixel 0, 0 of the next one lies.
  PixelPos place(const PixelRect& pixels) {
    const bool full = next_.x > begin_.x && next_.x + pixels.w > begin_.x + wide_;
    if (full) next_ = {begin_.x, next_.y + high_ + kBelow};
    if (full) high_ = 0;
    const PixelPos at{bounded(std::int64_t{next_.x} - pixels.x), bounded(std::int64_t{next_.y} - pixels.y)};
    next_.x = bounded(std::int64_t{next_.x} + pixels.w + kBeside);
    high_ = std::max(high_, pixels.h);
    return at;
  }

 private:
  PixelPos begin_;
  PixelPos next_;
  int wide_ = 1;
  int high_ = 0;
};

std::int64_t areaOf(const Map& map) {
  const PixelRect pixels = pixelsOf(map);
  return std::int64_t{pixels.w + kBeside} * (pixels.h + kBelow);
}

}  // namespace

std::vector<Piece> piecesOf(const Quilt& quilt) {
  std::vector<Piece> pieces;
  PixelRect laid;
  std::int64_t area = 0;
  for (const Shared<Map>& map : quilt.maps()) {
    const PixelPos at = map->onBoard.value_or(PixelPos());
    pieces.push_back({map->id, at, shifted(pixelsOf(map.read()), at)});
    if (map->onBoard) {
      laid = united(laid, pieces.back().covers);
    } else {
      area += areaOf(map.read());
    }
  }
  Rows rows(laid.empty() ? PixelPos() : PixelPos{laid.x, laid.bottom() + kBelow}, area);
  for (std::size_t i = 0; i < pieces.size(); ++i) {
    const Map& map = quilt.maps()[i].read();
    if (map.onBoard) continue;
    pieces[i].at = rows.place(pixelsOf(map));
    pieces[i].covers = shifted(pixelsOf(map), pieces[i].at);
  }
  return pieces;
}

PixelRect boxAround(const std::vector<Piece>& pieces) {
  PixelRect all;
  for (const Piece& piece : pieces) all = united(all, piece.covers);
  return all;
}

std::optional<Id> pieceAt(const Quilt& quilt, const std::vector<Piece>& pieces, PixelPos at) {
  for (auto piece = pieces.rbegin(); piece != pieces.rend(); ++piece) {
    const Map* map = quilt.map(piece->map);
    if (!map || !meet(piece->covers, {at.x, at.y, 1, 1})) continue;
    const CellPos cell = makeGrid(map->grid)->cellAt({at.x - piece->at.x, at.y - piece->at.y});
    if (map->bounds.contains(cell)) return piece->map;
  }
  return std::nullopt;
}

std::set<Id> piecesIn(const std::vector<Piece>& pieces, const PixelRect& frame) {
  std::set<Id> found;
  for (const Piece& piece : pieces) {
    if (meet(piece.covers, frame)) found.insert(piece.map);
  }
  return found;
}

std::optional<Id> pieceBeside(const std::vector<Piece>& pieces, Id from, int dx, int dy) {
  const auto here = std::find_if(pieces.begin(), pieces.end(), [from](const Piece& one) { return one.map == from; });
  if (here == pieces.end()) return pieces.empty() ? std::nullopt : std::optional(pieces.front().map);
  const auto middle = [](const PixelRect& box) { return std::pair(box.x + box.w / 2.0, box.y + box.h / 2.0); };
  const auto [x, y] = middle(here->covers);
  std::optional<Id> best;
  double bestFar = 0;
  for (const Piece& piece : pieces) {
    const auto [otherX, otherY] = middle(piece.covers);
    const double ahead = (otherX - x) * dx + (otherY - y) * dy;
    const double aside = std::abs((otherX - x) * dy) + std::abs((otherY - y) * dx);
    if (piece.map == from || ahead <= 0 || aside > 2 * ahead) continue;
    const double far = ahead + 2 * aside;
    if (best && far >= bestFar) continue;
    best = piece.map;
    bestFar = far;
  }
  return best;
}

Aligned aligned(const std::vector<Piece>& pieces, const std::set<Id>& moved, PixelPos by, int reach) {
  // Along each axis the nearest pair of edges, of one that moves and one that stays.
  struct Best {
    int off = 0;
    int at = 0;  // the edge of the one that stays
    bool found = false;
    PixelRect stays;
  };
  Best across;
  Best down;
  const auto offer = [reach](Best& best, int edge, int to, const PixelRect& stays) {
    const int off = to - edge;
    if (std::abs(off) > reach || (best.found && std::abs(off) >= std::abs(best.off))) return;
    best = {off, to, true, stays};
  };
  PixelRect box;
  for (const Piece& piece : pieces) {
    if (moved.contains(piece.map)) box = united(box, shifted(piece.covers, by));
  }
  for (const Piece& piece : pieces) {
    if (moved.contains(piece.map) || box.empty()) continue;
    for (const int edge : {box.x, box.right()}) {
      for (const int to : {piece.covers.x, piece.covers.right()}) offer(across, edge, to, piece.covers);
    }
    for (const int edge : {box.y, box.bottom()}) {
      for (const int to : {piece.covers.y, piece.covers.bottom()}) offer(down, edge, to, piece.covers);
    }
  }
  Aligned result{{by.x + across.off, by.y + down.off}, {}};
  box = shifted(box, {across.off, down.off});
  if (across.found) {
    const PixelRect all = united(box, across.stays);
    result.lines.push_back({{across.at, all.y}, {across.at, all.bottom()}});
  }
  if (down.found) {
    const PixelRect all = united(box, down.stays);
    result.lines.push_back({{all.x, down.at}, {all.right(), down.at}});
  }
  return result;
}

Quilt withPiecesMoved(const Quilt& quilt, const std::set<Id>& maps, PixelPos by, const std::set<Id>& fixed) {
  if (by == PixelPos{}) return quilt;
  Quilt next = quilt;
  for (const Piece& piece : piecesOf(quilt)) {
    const Map* map = quilt.map(piece.map);
    // Whoever says nothing would be laid out anew once another one has moved: all say where they are from now on.
    const bool moves = maps.contains(piece.map);
    const PixelPos at =
        moves ? PixelPos{bounded(std::int64_t{piece.at.x} + by.x), bounded(std::int64_t{piece.at.y} + by.y)} : piece.at;
    if (map->onBoard == at || fixed.contains(piece.map)) continue;
    Map laid = *map;
    laid.onBoard = at;
    next = next.with(std::move(laid));
  }
  return next;
}

Quilt withTidyBoard(const Quilt& quilt, const std::set<Id>& fixed) {
  std::int64_t area = 0;
  for (const Shared<Map>& map : quilt.maps()) area += areaOf(map.read());
  Rows rows({}, area);
  Quilt next = quilt;
  for (const Shared<Map>& map : quilt.maps()) {
    const PixelPos at = rows.place(pixelsOf(map.read()));
    if (map->onBoard == at || fixed.contains(map->id)) continue;
    Map laid = map.read();
    laid.onBoard = at;
    next = next.with(std::move(laid));
  }
  return next;
}

}  // namespace uq
