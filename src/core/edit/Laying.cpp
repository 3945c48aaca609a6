#include "core/edit/Laying.h"

#include <algorithm>
#include <bit>
#include <map>

#include "core/cells/CellShapes.h"
#include "core/edit/ChunkWrites.h"
#include "core/edit/JoinLaying.h"
#include "core/edit/Joiner.h"
#include "core/edit/Pattern.h"

namespace uq {

namespace {

Laid raised(Laid laid, int by) {
  laid.lift = laid.cell.empty() ? 0 : std::min(laid.lift + by, kMostLift);
  return laid;
}

void insert(CellSet& cells, ChunkPos at, const ChunkRows& rows) {
  for (int y = 0; y < kChunkSide; ++y) {
    std::uint64_t row = rows[static_cast<std::size_t>(y)];
    while (row != 0) {
      const int x = std::countr_zero(row);
      const int count = std::countr_one(row >> x);
      cells.insert({at.cx * kChunkSide + x, at.cy * kChunkSide + y}, count);
      row &= ~bitsOf(x, x + count);
    }
  }
}

// What stays since it covers its cell, by what the tiles look like. Each tile is asked about once.
class Sparing {
 public:
  explicit Sparing(Covers covers) : covers_(std::move(covers)) {}

  bool spares(const Layer* before, CellPos at, const Laid& laid) {
    if (!covers_ || !before || laid.cell.empty()) return false;
    const Cell there = before->cells.at(at);
    return !there.empty() && covers(there) && !covers(laid.cell);
  }
  explicit operator bool() const { return static_cast<bool>(covers_); }

 private:
  bool covers(Cell cell) {
    const auto [known, isNew] = known_.try_emplace(cell.tile(), false);
    if (isNew) known->second = covers_(cell.tile());
    return known->second;
  }

  Covers covers_;
  std::map<TileRef, bool> known_;
};

// A block laid again and again, or a stretch; one thing everywhere among them.
class PatternLaying : public Laying {
 public:
  explicit PatternLaying(const LayingPlan& plan)
      : grid_(plan.grid),
        pattern_(plan.quilt, plan.grid, plan.hand, plan.anchor, plan.seed),
        takesAway_(plan.takesAway),
        lift_(plan.lift),
        sparing_(plan.spares) {
    if (plan.stretched) pattern_.stretchOver(*plan.stretched);
  }

  std::optional<Laid> alike() const override { return everywhere(0); }

  CellSet whole(const CellSet& crossed) const override {
    if (pattern_.everywhere(0)) return crossed;
    CellSet copies;
    crossed.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        const CellPos cell{first.x + i, first.y};
        if (copies.contains(cell)) continue;
        for (const SidePos place : pattern_.copyUnder(grid_.toSide(cell))) copies.insert(grid_.fromSide(place));
      }
    });
    return copies;
  }

  Touched lay(LayerCells& onto, const Ask& ask) override {
    const auto same = everywhere(ask.part);
    if (!same || (ask.part == 0 && sparing_)) return layEach(onto, ask);
    onto.lay(ask.cells, *same);
    return {ask.cells, {}};
  }

 private:
  std::optional<Laid> everywhere(std::size_t part) const {
    const auto laid = pattern_.everywhere(part);
    return laid ? std::optional(takesAway_ ? Laid{} : raised(*laid, lift_)) : std::nullopt;
  }

  Touched layEach(LayerCells& onto, const Ask& ask) {
    Touched touched;
    ask.cells.forEachChunk([&](ChunkPos at, const ChunkRows* rows) {
      ChunkRows laidRows{};
      writeChunk(onto, at, rows ? *rows : kWholeChunk, [&](CellPos cell) -> std::optional<Laid> {
        auto laid = pattern_.at(ask.part, grid_.toSide(cell));
        if (!laid) return std::nullopt;
        laid = takesAway_ ? Laid{} : raised(*laid, lift_);
        if (ask.part == 0 && sparing_.spares(ask.before, cell, *laid)) {
          touched.kept.insert(cell);
          return std::nullopt;
        }
        const auto row = static_cast<std::size_t>(cell.y - at.cy * kChunkSide);
        laidRows[row] |= std::uint64_t{1} << (cell.x - at.cx * kChunkSide);
        return laid;
      });
      insert(touched.cells, at, laidRows);
    });
    return touched;
  }

  const Grid& grid_;
  Pattern pattern_;
  bool takesAway_;
  int lift_;
  Sparing sparing_;
};

// A mix: one throw a cell, one after another. What is in hand for further layers is laid as a pattern.
class MixLaying : public Laying {
 public:
  explicit MixLaying(const LayingPlan& plan)
      : grid_(plan.grid),
        mix_(plan.hand),
        mixing_(plan.quilt, plan.grid, plan.hand, plan.seed),
        lift_(plan.lift),
        sparing_(plan.spares),
        others_(plan) {}

  Touched lay(LayerCells& onto, const Ask& ask) override {
    if (ask.part != 0) return others_.lay(onto, ask);
    const bool looksAtRim = std::any_of(mix_.members.begin(), mix_.members.end(),
                                        [](const MixMember& member) { return member.keepsOffRim; });
    const CellSet rim = looksAtRim ? outlineOf(grid_, ask.shape()) : CellSet();
    CellSet laid;
    Touched touched;
    Mixing::Around around;
    around.cell = [&](SidePos at) { return onto.cells.at(grid_.fromSide(at)); };
    around.free = [&](SidePos at) {
      const CellPos cell = grid_.fromSide(at);
      if (!ask.may(cell) || laid.contains(cell) || ask.laid.contains(cell)) return false;
      return ask.reaches || ask.cells.contains(cell);
    };
    const int sides = grid_.turnOrder();
    ask.cells.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        const CellPos cell{first.x + i, first.y};
        if (laid.contains(cell)) continue;
        around.atRim = looksAtRim && rim.contains(cell);
        around.beside.clear();
        if (mix_.neverAlike) {
          for (int side = 0; side < sides; ++side) around.beside.push_back(grid_.toSide(grid_.across(cell, side)));
        }
        mixing_.throwAt(grid_.toSide(cell), around, [&](SidePos place, Laid one) {
          const CellPos at = grid_.fromSide(place);
          if (sparing_.spares(ask.before, at, one)) {
            touched.kept.insert(at);
            return;
          }
          onto.lay(at, raised(one, lift_));
          laid.insert(at);
        });
      }
    });
    // A cell that the throw left alone is thrown for, too.
    touched.cells = laid.united(ask.cells);
    return touched;
  }

 private:
  const Grid& grid_;
  InHand mix_;
  Mixing mixing_;
  int lift_;
  Sparing sparing_;
  PatternLaying others_;
};

// A block that joins what it meets, by the edgings to which its tiles belong.
class MeetLaying : public Laying {
 public:
  MeetLaying(const LayingPlan& plan, std::vector<const Edging*> edgings) : plan_{plan}, edgings_(std::move(edgings)), laying_(plan) {}

  CellSet whole(const CellSet& crossed) const override { return laying_.whole(crossed); }
  Touched lay(LayerCells& onto, const Ask& ask) override {
    Touched touched = laying_.lay(onto, ask);
    for (const Edging* edging : edgings_) {
      const CellSet mended = Joiner(plan_.quilt, *edging, plan_.grid).mend(onto, touched.cells, ask.may, true);
      touched.beside = touched.beside.united(mended.without(touched.cells));
    }
    return touched;
  }

  std::vector<const Edging*> bringsAlong() const override {
    std::vector<const Edging*> hemmed = edgings_;
    std::erase_if(hemmed, [](const Edging* one) { return one->hems.empty(); });
    return hemmed;
  }

  // Those of the grid's family to which a tile of the hand belongs.
  static std::vector<const Edging*> edgingsOf(const LayingPlan& plan) {
    std::vector<const Edging*> all;
    for (const Shared<Edging>& one : plan.quilt.edgings()) {
      if (!areOfOneFamily(one->grid, plan.grid.shape().kind)) continue;
      const Joiner joiner(plan.quilt, one.read(), plan.grid);
      const auto& parts = plan.hand.block.parts();
      if (std::any_of(parts.begin(), parts.end(), [&](const Block::Part& part) { return joiner.memberAt(part.cell); })) all.push_back(&one.read());
    }
    return all;
  }

 private:
  LayingPlan plan_;
  std::vector<const Edging*> edgings_;
  PatternLaying laying_;
};

}  // namespace

std::unique_ptr<Laying> layingFor(const LayingPlan& plan) {
  const Edging* edging = plan.hand.joins() ? plan.quilt.edging(plan.hand.edging) : nullptr;
  if (edging && areOfOneFamily(edging->grid, plan.grid.shape().kind)) return joinLaying(plan, *edging);
  if (plan.hand.manner == Manner::mix) return std::make_unique<MixLaying>(plan);
  // A stamp lies as it was kept, so that it is found again.
  if (plan.joinsMet && plan.hand.stamp.empty() && plan.hand.manner == Manner::asItIs && !plan.hand.isOneTile()) {
    if (auto edgings = MeetLaying::edgingsOf(plan); !edgings.empty()) return std::make_unique<MeetLaying>(plan, std::move(edgings));
  }
  return std::make_unique<PatternLaying>(plan);
}

}  // namespace uq
