#include "core/edit/Hemming.h"

#include <algorithm>
#include <limits>
#include <map>
#include <set>

#include "core/edit/Chance.h"
#include "core/edit/Joiner.h"

namespace uq {

namespace {

// What it costs to lay a tile of one row, or piece, where another belongs: the less the more it looks like it.
int rowCost(HemRow wanted, HemRow has) {
  if (wanted == has) return 0;
  return has == HemRow::middle ? 4 : wanted == HemRow::middle && has == HemRow::top ? 5 : 6;
}
int pieceCost(HemPiece wanted, HemPiece has) {
  if (wanted == has) return 0;
  return has == HemPiece::middle ? 1 : wanted != HemPiece::middle && has == HemPiece::alone ? 2 : 3;
}

}  // namespace

Hemming::Hemming(const Quilt& quilt, const Edging& edging, const Grid& grid) : edging_(edging), grid_(grid), seed_(std::hash<Id>()(edging.id)) {
  for (const EdgingMember& one : edging.members) {
    if (const auto cell = cellOf(quilt, one.tile, one.turn)) members_.try_emplace(cell->bits(), &one);
  }
  for (std::size_t i = 0; i < edging.hems.size(); ++i) {
    for (const HemTile& one : edging.hems[i].tiles) {
      const auto cell = cellOf(quilt, one.tile, one.turn);
      if (!cell) continue;
      byCell_.try_emplace(cell->bits(), tiles_.size());
      tiles_.push_back({*cell, one.row, one.piece, one.weight, i});
    }
  }
}

const Hemming::Known* Hemming::hemOf(Cell cell) const {
  const auto found = cell.empty() ? byCell_.end() : byCell_.find(cell.bits());
  return found == byCell_.end() ? nullptr : &tiles_[found->second];
}

bool Hemming::isMember(Cell cell) const { return !cell.empty() && members_.contains(cell.bits()); }

bool Hemming::shows(Cell cell, MaterialIndex material) const {
  const auto found = cell.empty() ? members_.end() : members_.find(cell.bits());
  if (found == members_.end()) return false;
  const EdgingMember& member = *found->second;
  if (sidesDecide(edging_.decides)) return member.middle == material;
  return std::find(member.corners.begin(), member.corners.end(), material) != member.corners.end();
}

const Hemming::Known* Hemming::chosen(std::size_t hem, HemRow row, HemPiece piece, CellPos at) const {
  int least = std::numeric_limits<int>::max();
  int weights = 0;
  const auto cost = [&](const Known& one) { return rowCost(row, one.row) + pieceCost(piece, one.piece); };
  for (const Known& one : tiles_) {
    if (one.hem != hem) continue;
    if (cost(one) < least) least = cost(one), weights = 0;
    if (cost(one) == least) weights += one.weight;
  }
  if (weights == 0) return nullptr;
  auto left = static_cast<int>(pick(thrown(seed_ + hem, grid_.toSide(at)), static_cast<std::size_t>(weights)));
  for (const Known& one : tiles_) {
    if (one.hem == hem && cost(one) == least && (left -= one.weight) < 0) return &one;
  }
  return nullptr;
}

// One hem beside the borders of one ask.
class Hemming::Work {
 public:
  Work(const Hemming& hems, LayerCells& onto, const Ask& ask)
      : hems_(hems),
        onto_(onto),
        ask_(ask),
        hem_(hems.edging_.hems[ask.hem]),
        sides_(static_cast<int>(placesOf(hems.grid_.shape().kind))),
        // On the own layer what lies there now is what is being edited.
        now_(ask.ownLayer ? onto.cells : ask.materials.cells),
        was_(ask.materialsBefore.cells),
        before_(ask.before.cells),
        leftClockwise_(isLeftClockwise()) {}

  Hemmed run() {
    collectBorders();
    for (const CellPos border : borders_) addColumn(border);
    takeAway();
    dress();
    return std::move(hemmed_);
  }

 private:
  using Reader = CellGrid;

  CellPos across(CellPos at, int side) const { return hems_.grid_.across(at, (side + sides_) % sides_); }
  int back() const { return hem_.side + sides_ / 2; }
  bool holds(const Reader& cells, CellPos at) const { return hems_.shows(cells.at(at), hem_.material); }
  bool ends(const Reader& cells, CellPos at) const { return holds(cells, at) && !holds(cells, across(at, hem_.side)); }
  // The cell of a column so many steps from its border.
  CellPos cellOf(CellPos border, int step) const {
    CellPos at = hem_.inside ? border : across(border, hem_.side);
    for (int i = 0; i < step; ++i) at = across(at, hem_.inside ? back() : hem_.side);
    return at;
  }
  bool isColumnCell(const Reader& cells, CellPos at) const { return holds(cells, at) == hem_.inside; }
  bool isOf(const Reader& cells, CellPos at, std::size_t hem) const {
    const Known* known = hems_.hemOf(cells.at(at));
    return known && known->hem == hem;
  }

  // The border whose column a cell cut short, or now does.
  void addAbove(CellPos at) {
    for (int i = 0; i < kMostHemRows; ++i) {
      at = across(at, hem_.inside ? hem_.side : back());
      if (ends(now_, at) || ends(was_, at)) borders_.insert(at);
      if (holds(now_, at) != hem_.inside) return;
    }
  }

  void collectBorders() {
    const auto add = [&](CellPos at) {
      if (ends(now_, at) || ends(was_, at)) borders_.insert(at);
    };
    ask_.changed.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        const CellPos at{first.x + i, first.y};
        add(at);
        add(across(at, back()));
        if (holds(now_, at) != holds(was_, at)) addAbove(at);
      }
    });
  }

  // As it lay before, or as it lies while that counts. What follows another is looked for, since that may lie on another layer.
  Column column(CellPos border, std::size_t hem, bool now) const {
    Column found;
    const Reader& cells = now ? onto_.cells : before_;
    const Reader& materials = now ? now_ : was_;
    if (hems_.edging_.hems[hem].follows) {
      while (found.from < kMostHemRows && !isOf(cells, cellOf(border, found.from), hem) && isColumnCell(materials, cellOf(border, found.from))) ++found.from;
    }
    for (int row = 0; row < kMostHemRows; ++row) {
      const CellPos at = cellOf(border, found.from + row);
      const bool isHere = isOf(cells, at, hem);
      if (!isHere && (cells.at(at).empty() || !isColumnCell(materials, at) || hems_.isMember(cells.at(at)) || hems_.isHem(cells.at(at)))) break;
      if (isHere) found.rows = row + 1;
    }
    // One that is cut short by what stands in its way goes on behind that.
    if (found.rows > 0 && found.rows < kMostHemRows) {
      const Known* last = hems_.hemOf(cells.at(cellOf(border, found.from + found.rows - 1)));
      const CellPos next = cellOf(border, found.from + found.rows);
      if (last && last->row != HemRow::foot && (!isColumnCell(materials, next) || !ask_.may(next))) ++found.rows, found.isCut = true;
    }
    return found;
  }

  int usual(std::size_t hem) const {
    const Hem& own = hems_.edging_.hems[hem];
    return own.grows && ask_.rows > 0 ? std::min(ask_.rows, kMostHemRows) : own.rows;
  }

  // Where a border is to have how many rows.
  Column wanted(CellPos border, std::size_t hem) const {
    Column usually{0, usual(hem)};
    if (hems_.edging_.hems[hem].follows && hem > 0) {
      const Column ahead = wanted(border, hem - 1);
      usually.from = ahead.from + ahead.rows;
    }
    if (ask_.asItLies) {
      if (const Column lies = column(border, hem, true); lies.rows > 0) return lies;
    }
    if (ask_.laid.contains(border)) return usually;
    // The border that was before this one, or one beside it, if it can be seen whole; beyond the map's edge nothing could lie.
    std::optional<Column> cut;
    const auto told = [&](CellPos at) -> std::optional<Column> {
      if (!ends(was_, at) || !ask_.may(cellOf(at, 0))) return std::nullopt;
      const Column found = column(at, hem, false);
      if (found.isCut && !cut) cut = found;
      return found.isCut ? std::nullopt : std::optional(found);
    };
    if (ends(was_, border)) {
      const Column own = column(border, hem, false);
      if (!own.isCut) return own;
      cut = own;
    }
    CellPos at = border;
    for (int i = 0; i < kMostHemRows; ++i) {
      at = across(at, hem_.side);
      if (!ends(was_, at)) continue;
      if (const auto found = told(at)) return *found;
      break;
    }
    for (int side = 0; side < sides_; ++side) {
      const auto found = told(across(border, side));
      if (found && found->rows > 0) return *found;
    }
    if (cut && usually.rows < cut->rows) return *cut;
    return usually;
  }

  void addColumn(CellPos border) {
    if (ends(was_, border)) {
      const Column old = column(border, ask_.hem, false);
      for (int row = 0; row < old.rows; ++row) {
        if (const CellPos at = cellOf(border, old.from + row); isOf(before_, at, ask_.hem)) old_.insert(at);
      }
    }
    if (!ends(now_, border)) return;
    const Column next = wanted(border, ask_.hem);
    const auto passes = [&](int step) {
      const CellPos at = cellOf(border, step);
      return isColumnCell(now_, at) && (!hem_.stands || !ask_.isGround || ask_.isGround(at));
    };
    for (int step = 0; step < next.from; ++step) {
      if (!passes(step)) return;
    }
    for (int row = 0; row < next.rows; ++row) {
      if (!passes(next.from + row)) return;
      const HemRow kind = row + 1 == next.rows ? HemRow::foot : row == 0 ? HemRow::top : HemRow::middle;
      new_[cellOf(border, next.from + row)] = kind;
    }
  }

  bool isFree(CellPos at) const {
    const Cell there = onto_.cells.at(at);
    return there.empty() || hems_.isHem(there) || (ask_.ownLayer && hems_.isMember(there));
  }

  void put(CellPos at, Cell cell) {
    if (onto_.cells.at(at) == cell) return;
    onto_.lay(at, Laid{cell, 0});
    hemmed_.changed.insert(at);
  }

  void takeAway() {
    // What lay inside what was laid lies beside no border now.
    if (!ask_.ownLayer) {
      onto_.cells.forEachPainted(ask_.laid.bounds(), [&](CellPos at, Cell cell) {
        const Known* known = hems_.hemOf(cell);
        if (known && known->hem == ask_.hem && ask_.laid.contains(at)) old_.insert(at);
      });
    }
    for (const CellPos at : old_) {
      if (new_.contains(at) || !ask_.may(at)) continue;
      gone_.insert(at);
      // Something else may have been laid over it.
      if (!isOf(onto_.cells, at, ask_.hem)) continue;
      if (ask_.ownLayer) hemmed_.bared.insert(at);
      put(at, Cell());
    }
  }

  // Whether what lies clockwise of the hem's side lies to the left, or above where neither does.
  bool isLeftClockwise() const {
    const PixelRect clockwise = hems_.grid_.cellBox(across({0, 0}, hem_.side + 1));
    const PixelRect other = hems_.grid_.cellBox(across({0, 0}, hem_.side - 1));
    return clockwise.x != other.x ? clockwise.x < other.x : clockwise.y < other.y;
  }

  // Cells along the border to the left and to the right.
  std::vector<CellPos> beside(CellPos at, bool left) const {
    const int way = left == leftClockwise_ ? 1 : -1;
    std::vector<CellPos> cells{across(at, hem_.side + way)};
    if (sides_ == 6) cells.push_back(across(at, hem_.side + 2 * way));
    return cells;
  }

  // Behind a door or a window that stands in a face it goes on.
  bool goesOn(CellPos at) const { return new_.contains(at) ? ask_.may(at) : isOf(onto_.cells, at, ask_.hem); }

  void dressCell(CellPos at, HemRow row) {
    const auto runs = [&](bool left) {
      const auto cells = beside(at, left);
      return std::any_of(cells.begin(), cells.end(), [&](CellPos one) { return goesOn(one); });
    };
    const bool left = runs(true);
    const bool right = runs(false);
    const HemPiece piece = left && right ? HemPiece::middle : left ? HemPiece::right : right ? HemPiece::left : HemPiece::alone;
    const Known* wanted = hems_.chosen(ask_.hem, row, piece, at);
    if (!wanted) return;
    // A look-alike stays.
    const Known* there = hems_.hemOf(onto_.cells.at(at));
    if (there && there->hem == ask_.hem && there->row == wanted->row && there->piece == wanted->piece) return;
    put(at, wanted->cell);
  }

  void dress() {
    std::map<CellPos, HemRow> others;
    const auto addBeside = [&](CellPos at) {
      for (const bool left : {true, false}) {
        for (const CellPos one : beside(at, left)) {
          const Known* known = hems_.hemOf(onto_.cells.at(one));
          if (known && known->hem == ask_.hem && !new_.contains(one) && ask_.may(one)) others[one] = known->row;
        }
      }
    };
    for (const CellPos at : gone_) addBeside(at);
    for (const auto& [at, row] : new_) addBeside(at);
    for (const auto& [at, row] : new_) {
      if (ask_.may(at) && isFree(at)) dressCell(at, row);
    }
    for (const auto& [at, row] : others) dressCell(at, row);
  }

  const Hemming& hems_;
  LayerCells& onto_;
  const Ask& ask_;
  const Hem& hem_;
  int sides_;
  const Reader& now_;
  const Reader& was_;
  const Reader& before_;
  bool leftClockwise_;
  std::set<CellPos> borders_;
  std::set<CellPos> old_;
  std::map<CellPos, HemRow> new_;
  std::set<CellPos> gone_;
  Hemmed hemmed_;
};

Hemming::Hemmed Hemming::lay(LayerCells& onto, const Ask& ask) const {
  if (ask.hem >= edging_.hems.size() || edging_.hems[ask.hem].isAround()) return {};
  return Work(*this, onto, ask).run();
}

}  // namespace uq
