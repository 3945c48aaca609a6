// What is given to a game, as text; and what forms have no place for.
#include "core/store/ExchangeText.h"

#include <gmock/gmock.h>
#include <rapidcheck/gtest.h>

#include "core/HemmedMap.h"
#include "core/edit/ArrangeSheets.h"
#include "core/edit/FormLosses.h"
#include "core/edit/LayerFacts.h"
#include "core/store/CsvText.h"
#include "core/store/JsonText.h"

namespace uq::test {

namespace {

Json exported(const HemmedMap& on, CellsAs as) {
  ExchangeMapParts parts;
  parts.cells = as;
  const auto json = readJson(exchangeMapText(on.quilt, *on.quilt.map(on.map), parts), "map.json");
  EXPECT_TRUE(json.has_value());
  return json.value_or(Json());
}

// What an exported layer says of a cell.
std::int64_t numberAt(const Json& layer, const char* field, CellPos at) {
  const auto numbers = [](const Json& list) {
    std::vector<std::int64_t> all;
    for (const Json& one : *list.as<Json::Array>()) all.push_back(*one.as<std::int64_t>());
    return all;
  };
  const auto area = numbers(*layer.find("area"));
  if (at.x < area[0] || at.y < area[1] || at.x >= area[2] || at.y >= area[3] || !layer.find(field)) return 0;
  std::vector<std::int64_t> row = numbers((*layer.find(field)->as<Json::Array>())[static_cast<std::size_t>(at.y - area[1])]);
  if (*layer.find("as")->as<std::string>() == "runs") {
    std::vector<std::int64_t> plain;
    for (std::size_t i = 0; i < row.size(); i += 2) plain.insert(plain.end(), static_cast<std::size_t>(row[i]), row[i + 1]);
    row = plain;
  }
  EXPECT_EQ(row.size(), static_cast<std::size_t>(area[2] - area[0]));
  return row[static_cast<std::size_t>(at.x - area[0])];
}

}  // namespace

// Whatever lies there comes out, plain and in runs, on all grids; what lies beyond the bounds does not.
TEST(ExchangeText, SaysWhatLiesOnEveryCell) {
  EXPECT_TRUE(rc::check([] {
    HemmedMap on(*rc::gen::elementOf(std::vector<GridKind>(std::begin(kGridKinds), std::end(kGridKinds))));
    LayerCells cells;
    const auto slot = *on.quilt.slots().find(on.sheet);
    for (int i = 0; i < 40; ++i) {
      const CellPos at{*rc::gen::inRange(-3, 19), *rc::gen::inRange(-3, 19)};
      cells.lay(at, Laid{Cell({slot, static_cast<std::uint32_t>(*rc::gen::inRange(0, 3))}, Turn{*rc::gen::arbitrary<bool>(), 1}), *rc::gen::element(0, 0, 7)});
    }
    on.quilt = on.quilt.with(on.ground(), cells);
    const std::uint32_t sheet = exchangeNumbers(on.quilt).at(on.sheet);
    for (const CellsAs as : {CellsAs::plain, CellsAs::runs}) {
      const Json map = exported(on, as);
      const Json& layer = map.find("layers")->as<Json::Array>()->front();
      for (int y = -3; y < 19; ++y) {
        for (int x = -3; x < 19; ++x) {
          const Laid laid = on.bounds.contains({x, y}) ? cells.laidAt({x, y}) : Laid{};
          const std::int64_t number = laid.cell.empty() ? 0 : std::int64_t{sheet} << 22 | laid.cell.tile().number << 4 | laid.cell.turn().code();
          RC_ASSERT(numberAt(layer, "cells", {x, y}) == number);
          RC_ASSERT(numberAt(layer, "lifts", {x, y}) == laid.lift);
        }
      }
    }
  }));
}

TEST(ExchangeText, ASheetIsCalledByItsCodeWhateverElseThereIs) {
  HemmedMap on(GridKind::orthogonal);
  const auto before = exchangeNumbers(on.quilt);
  EXPECT_EQ(before.at(on.sheet), 13u * 26 + 4) << "MD";
  Sheet other;
  other.name = "Aaa";
  const SheetAdded added = addSheet(on.quilt, std::move(other), "aaa.png", on.ids);
  const auto after = exchangeNumbers(added.quilt);
  for (const auto& [id, number] : before) EXPECT_EQ(after.at(id), number);
  EXPECT_EQ(after.size(), before.size() + 1);
}

TEST(ExchangeText, ACodeThatIsTooLongForANumberGetsTheNextFreeOne) {
  HemmedMap on(GridKind::orthogonal);
  Sheet sheet = *on.quilt.sheet(on.sheet);
  sheet.code = "ZZZ";
  on.quilt = on.quilt.with(sheet);
  const auto numbers = exchangeNumbers(on.quilt);
  std::set<std::uint32_t> all;
  for (const auto& [id, number] : numbers) {
    EXPECT_LE(number, 1022u);
    EXPECT_TRUE(all.insert(number).second) << "each its own";
  }
}

TEST(ExchangeText, BoxesAreWhereTheGridHasThem) {
  for (const GridKind kind : kGridKinds) {
    HemmedMap on(kind);
    const Json map = exported(on, CellsAs::plain);
    const Json& boxes = *map.find("boxes");
    const auto way = [&](const char* name, std::size_t i) { return *(*boxes.find(name)->as<Json::Array>())[i].as<std::int64_t>(); };
    const auto grid = makeGrid(on.shape);
    for (int y = -5; y < 6; ++y) {
      for (int x = -5; x < 6; ++x) {
        const PixelRect box = grid->cellBox({x, y});
        const auto at = [&](std::size_t i) { return way("origin", i) + x * way("column", i) + y * way("row", i) + (x & 1) * way("oddColumn", i) + (y & 1) * way("oddRow", i); };
        EXPECT_EQ(box.x, at(0)) << cellsCalled(kind) << " " << x << "," << y;
        EXPECT_EQ(box.y, at(1)) << cellsCalled(kind) << " " << x << "," << y;
      }
    }
  }
}

TEST(CsvText, HasALineForEachRowAndQuotesNames) {
  HemmedMap on(GridKind::orthogonal);
  Sheet sheet = *on.quilt.sheet(on.sheet);
  sheet.tiles[5].name = "stair, \"left\"";
  on.quilt = on.quilt.with(sheet);
  LayerCells cells;
  cells.cells.set({1, 0}, Cell({*on.quilt.slots().find(on.sheet), 5}, {}));
  on.quilt = on.quilt.with(on.ground(), cells);
  const Map& map = *on.quilt.map(on.map);
  const std::string names = csvText(on.quilt, map, map.layers.front().read(), CsvAs::names);
  EXPECT_EQ(names.substr(0, names.find('\r')), ",\"stair, \"\"left\"\"\"" + std::string(14, ','));
  EXPECT_EQ(std::count(names.begin(), names.end(), '\n'), 16);
  const std::string numbers = csvText(on.quilt, map, map.layers.front().read(), CsvAs::numbers);
  EXPECT_EQ(numbers.substr(0, 2), "0,");
  EXPECT_THAT(numbers, testing::HasSubstr("," + std::to_string((13u * 26 + 4) << 22 | 5u << 4) + ","));
}

TEST(FormLosses, TellsOnlyWhatTheMapHas) {
  HemmedMap on(GridKind::orthogonal);
  EXPECT_TRUE(formLosses(on.quilt, *on.quilt.map(on.map), TargetForm::csv).empty()) << "an empty map loses nothing";
  on.quilt = withParallax(on.quilt, on.ground(), {50, 100});
  for (const TargetForm form : {TargetForm::csv, TargetForm::png, TargetForm::ora}) EXPECT_THAT(lossesInWords(on.quilt, *on.quilt.map(on.map), form), testing::HasSubstr("how layers move with the camera"));
  EXPECT_TRUE(formLosses(on.quilt, *on.quilt.map(on.map), TargetForm::json).empty());
}

}  // namespace uq::test
