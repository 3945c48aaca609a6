#include "core/edit/Board.h"

#include <algorithm>
#include <map>
#include <cmath>
#include <cstdlib>

#include "core/edit/SewnMaps.h"

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

// Maps that are sewn together, and how they lie around the first of them, on the cloth.
struct Group {
  struct Member {
    std::size_t index;  // among the quilt's maps
    PixelPos by;        // its map pixel 0, 0 from that of the first
  };
  std::vector<Member> members;
  PixelRect covers;             // around all, from map pixel 0, 0 of the first
  std::optional<PixelPos> at;   // where that lies
};

std::vector<Group> groupsOf(const Quilt& quilt) {
  const auto sewn = SewnMaps::of(quilt);
  const auto& maps = quilt.maps();
  std::map<Id, std::size_t> index;
  for (std::size_t i = 0; i < maps.size(); ++i) index[maps[i]->id] = i;
  std::vector<bool> taken(maps.size());
  std::vector<Group> groups;
  for (std::size_t i = 0; i < maps.size(); ++i) {
    if (taken[i]) continue;
    Group group;
    const Map* says = nullptr;
    for (const Sewn& one : sewn->around(maps[i]->id)) {
      const std::size_t member = index.at(one.map);
      const Map& map = maps[member].read();
      taken[member] = true;
      const PixelPos by = pixelStep(maps[i].read(), map, one.by);
      group.members.push_back({member, by});
      group.covers = united(group.covers, shifted(pixelsOf(map), by));
      if (!map.onBoard || (says && says->id < map.id)) continue;
      says = &map;
      group.at = PixelPos{map.onBoard->x - by.x, map.onBoard->y - by.y};
    }
    groups.push_back(std::move(group));
  }
  return groups;
}

std::int64_t areaOf(const PixelRect& covers) { return std::int64_t{covers.w + kBeside} * (covers.h + kBelow); }

}  // namespace

std::vector<Piece> piecesOf(const Quilt& quilt) {
  std::vector<Group> groups = groupsOf(quilt);
  PixelRect laid;
  std::int64_t area = 0;
  for (const Group& group : groups) {
    if (group.at) {
      laid = united(laid, shifted(group.covers, *group.at));
    } else {
      area += areaOf(group.covers);
    }
  }
  for (const Shared<ChalkPiece>& chalk : quilt.chalkPieces()) laid = united(laid, chalk->at);
  Rows rows(laid.empty() ? PixelPos() : PixelPos{laid.x, laid.bottom() + kBelow}, area);
  std::vector<Piece> pieces(quilt.maps().size());
  for (const Group& group : groups) {
    const PixelPos at = group.at ? *group.at : rows.place(group.covers);
    for (const Group::Member& member : group.members) {
      const Map& map = quilt.maps()[member.index].read();
      const PixelPos there{at.x + member.by.x, at.y + member.by.y};
      pieces[member.index] = {map.id, there, shifted(pixelsOf(map), there)};
    }
  }
  for (const Shared<ChalkPiece>& chalk : quilt.chalkPieces()) {
    pieces.push_back({chalk->id, {chalk->at.x, chalk->at.y}, chalk->at, true});
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
  for (auto piece = pieces.rbegin(); piece != pieces.rend(); ++piece) {
    if (piece->chalk && meet(piece->covers, {at.x, at.y, 1, 1})) return piece->map;
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

std::set<Id> withSewn(const Quilt& quilt, const std::set<Id>& maps) {
  const auto sewn = SewnMaps::of(quilt);
  std::set<Id> all;
  for (const Id map : maps) {
    all.insert(map);
    if (!quilt.map(map)) continue;
    for (const Sewn& one : sewn->around(map)) all.insert(one.map);
  }
  return all;
}

namespace {

// With each piece saying where it lies, but those that are fixed.
Quilt withPlaces(const Quilt& quilt, const std::vector<Piece>& pieces, const std::set<Id>& fixed) {
  Quilt next = quilt;
  for (const Piece& piece : pieces) {
    const PixelPos at{bounded(piece.at.x), bounded(piece.at.y)};
    if (piece.chalk) {
      ChalkPiece chalk = *quilt.listed<ChalkPiece>(piece.map);
      chalk.at.x = at.x;
      chalk.at.y = at.y;
      next = next.with(std::move(chalk));
      continue;
    }
    const Map* map = quilt.map(piece.map);
    if (map->onBoard == at || fixed.contains(piece.map)) continue;
    Map placed = *map;
    placed.onBoard = at;
    next = next.with(std::move(placed));
  }
  return next;
}

}  // namespace

Quilt withPlacesSaid(const Quilt& quilt, const std::set<Id>& fixed) { return withPlaces(quilt, piecesOf(quilt), fixed); }

Quilt withPiecesMoved(const Quilt& quilt, const std::set<Id>& maps, PixelPos by, const std::set<Id>& fixed) {
  if (by == PixelPos{}) return quilt;
  const std::set<Id> held = withSewn(quilt, fixed);
  const std::set<Id> moved = withSewn(quilt, maps);
  std::vector<Piece> pieces = piecesOf(quilt);
  // No farther than is allowed, all of them alike.
  const auto within = [](int at, int step) { return bounded(std::int64_t{at} + step) - at; };
  for (const Piece& piece : pieces) {
    if (!moved.contains(piece.map) || held.contains(piece.map)) continue;
    const PixelPos may{within(piece.at.x, by.x), within(piece.at.y, by.y)};
    if (std::abs(may.x) < std::abs(by.x)) by.x = may.x;
    if (std::abs(may.y) < std::abs(by.y)) by.y = may.y;
  }
  // Whoever says nothing would be laid out anew once another one has moved: all say where they are from now on.
  for (Piece& piece : pieces) {
    if (moved.contains(piece.map) && !held.contains(piece.map)) piece.at = {piece.at.x + by.x, piece.at.y + by.y};
  }
  return withPlaces(quilt, pieces, fixed);
}

Quilt withTidyBoard(const Quilt& quilt, const std::set<Id>& fixed) {
  const std::vector<Group> groups = groupsOf(quilt);
  std::int64_t area = 0;
  for (const Group& group : groups) area += areaOf(group.covers);
  for (const Shared<ChalkPiece>& chalk : quilt.chalkPieces()) area += areaOf(chalk->at);
  Rows rows({}, area);
  std::vector<Piece> pieces;
  for (const Group& group : groups) {
    const PixelPos at = rows.place(group.covers);
    for (const Group::Member& member : group.members) {
      pieces.push_back({quilt.maps()[member.index]->id, {at.x + member.by.x, at.y + member.by.y}, {}});
    }
  }
  for (const Shared<ChalkPiece>& chalk : quilt.chalkPieces()) {
    pieces.push_back({chalk->id, rows.place({0, 0, chalk->at.w, chalk->at.h}), {}, true});
  }
  return withPlaces(quilt, pieces, fixed);
}

std::vector<LaidCord> laidCords(const Quilt& quilt, const std::vector<Piece>& pieces) {
  std::map<Id, const Piece*> on;
  for (const Piece& one : pieces) on[one.map] = &one;
  const auto endOf = [&](PinAt at) {
    LaidCord::End end{at, 0, std::nullopt};
    const auto piece = on.find(at.map);
    const Map* map = quilt.map(at.map);
    const Pin* pin = map ? map->pin(at.pin) : nullptr;
    if (piece == on.end() || !pin) return end;
    const PixelRect cell = makeGrid(map->grid)->cellBox(middleOf(*pin, map->bounds));
    end.number = pin->number;
    end.at = PixelPos{piece->second->at.x + cell.x + cell.w / 2, piece->second->at.y + cell.y + cell.h / 2};
    return end;
  };
  std::vector<LaidCord> cords;
  for (const Shared<Doorway>& doorway : quilt.doorways()) cords.push_back({doorway->id, endOf(doorway->from), endOf(doorway->to)});
  return cords;
}

}  // namespace uq
