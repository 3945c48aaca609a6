// Materials on 4096 × 4096 cells: a box and a fill mended, a stroke of width 5 move by move, and guessing a sheet. Limits:
// docs/architecture.md.
#include "bench/Measured.h"
#include "core/edit/ArrangeMaps.h"
#include "core/edit/ArrangeSheets.h"
#include "core/edit/Edgings.h"
#include "core/edit/Joiner.h"
#include "core/edit/Stroke.h"
#include "core/sheets/EdgingGuess.h"
#include "tests/core/MadeEdgings.h"

namespace uq::bench {

namespace {

constexpr int kSide = 4096;
constexpr int kBox = 1024;

// A map of the first made edging that is full, decides so and is of that grid; ground all over, three look-alikes for each middle.
struct Joined {
  test::MadeEdging made;
  Quilt quilt;
  LayerAt at;
  Id edging;

  Joined(GridKind kind, Decides decides) {
    std::uint64_t seed = 0;
    const auto suits = [&](const test::MadeEdging& one) {
      return one.set == test::MadeSet::full && one.shape.kind == kind && one.truth.decides == decides && one.truth.materials.size() == 2;
    };
    while (!suits(test::madeEdging(seed, false))) ++seed;
    made = test::madeEdging(seed, false);
    IdSource ids(1);
    Sheet sheet;
    sheet.name = "Shore";
    sheet.cut.cell = made.shape.cell;
    sheet.pictureSize = {made.columns * made.shape.cell.w, made.rows * made.shape.cell.h};
    const SheetAdded added = addSheet(quilt, std::move(sheet), "shore.png", ids);
    Edging truth = made.truth;
    for (EdgingMember& one : truth.members) one.tile.sheet = added.sheet;
    const EdgingAdded with = addEdging(added.quilt, std::move(truth), "Shore", ids);
    edging = with.edging;
    MapPlan plan;
    plan.name = "Big";
    plan.grid = made.shape;
    plan.width = plan.height = kSide;
    const MapAdded map = addMap(with.quilt, plan, ids);
    at = {map.map, map.quilt.map(map.map)->layers.front()->id};
    LayerCells cells;
    cells.lay(CellRect{0, 0, kSide, kSide}, Laid{*plainTile(map.quilt, edge(map.quilt), 1), 0});
    quilt = map.quilt.with(at, std::move(cells));
  }
  const Edging& edge(const Quilt& of) const { return *of.edging(edging); }
};

void box(benchmark::State& state, GridKind kind, Decides decides) {
  const Joined joined(kind, decides);
  const auto grid = makeGrid(joined.made.shape);
  const Layer& before = *joined.quilt.layer(joined.at);
  const CellSet cells(CellRect{500, 500, 500 + kBox, 500 + kBox});
  for (auto _ : state) {
    Joiner joiner(joined.quilt, joined.edge(joined.quilt), *grid);
    LayerCells onto = before;
    benchmark::DoNotOptimize(joiner.lay(onto, {before, cells, 0, false, {}, [](CellPos) { return true; }}));
  }
  state.SetItemsProcessed(state.iterations() * kBox * kBox);
}

// What a fill lays: much rim, few cells inside.
void ragged(benchmark::State& state, GridKind kind, Decides decides) {
  const Joined joined(kind, decides);
  const auto grid = makeGrid(joined.made.shape);
  const Layer& before = *joined.quilt.layer(joined.at);
  CellSet cells;
  std::int64_t count = 0;
  for (int y = 0; y < kBox; ++y) {
    for (int x = 0; x < kBox; ++x) {
      if ((x * 2654435761u ^ y * 2246822519u) >> 13 & 3u) cells.insert({500 + x, 500 + y}), ++count;
    }
  }
  for (auto _ : state) {
    Joiner joiner(joined.quilt, joined.edge(joined.quilt), *grid);
    LayerCells onto = before;
    benchmark::DoNotOptimize(joiner.lay(onto, {before, cells, 0, false, {}, [](CellPos) { return true; }}));
  }
  state.SetItemsProcessed(state.iterations() * count);
}

// A move of 16 cells of a stroke of width 5.
void stroke(benchmark::State& state, GridKind kind, Decides decides) {
  const Joined joined(kind, decides);
  StrokePlan plan = layingOn(joined.at, materialInHand(joined.quilt, joined.edge(joined.quilt), 0));
  plan.options.width = 5;
  Stroke one(joined.quilt, plan);
  one.moveTo({100, 100});
  CellPos at{100, 100};
  int step = 0;
  for (auto _ : state) {
    at.x += step % 64 < 32 ? 16 : -16;
    at.y += ++step % 8 == 0 ? 6 : 0;
    one.moveTo(at);
    benchmark::DoNotOptimize(one.quilt());
  }
}

void guess(benchmark::State& state) {
  std::uint64_t seed = 0;
  while (test::madeEdging(seed, false).truth.decides != Decides::both || test::madeEdging(seed, false).shape.kind != GridKind::orthogonal || test::madeEdging(seed, false).set != test::MadeSet::full) ++seed;
  const test::MadeEdging made = test::madeEdging(seed);
  std::vector<TileToGuess> tiles;
  const auto there = static_cast<std::uint32_t>(made.columns * made.rows);
  for (std::uint32_t i = 0; i < 512; ++i) tiles.push_back({{{}, i}, {made.view(), made.place(i % there)}});
  for (auto _ : state) benchmark::DoNotOptimize(guessedEdging(made.shape, tiles));
}

const bool kRegistered = [] {
  const auto on = [](const char* name, auto&& what, GridKind kind, Decides decides) {
    measured(benchmark::RegisterBenchmark(name, [what, kind, decides](benchmark::State& state) { what(state, kind, decides); }));
  };
  on("Edging/box", box, GridKind::orthogonal, Decides::corners);
  on("Edging/box_hexagons", box, GridKind::hexagonalPointy, Decides::both);
  on("Edging/fill", ragged, GridKind::orthogonal, Decides::corners);
  on("Edging/fill_hexagons", ragged, GridKind::hexagonalPointy, Decides::both);
  on("Edging/stroke", stroke, GridKind::orthogonal, Decides::corners);
  on("Edging/stroke_hexagons", stroke, GridKind::hexagonalPointy, Decides::both);
  measured("Edging/guess", guess);
  return true;
}();

}  // namespace

}  // namespace uq::bench
