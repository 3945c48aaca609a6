#include <gtest/gtest.h>

#include <list>
#include <set>

#include "core/Support.h"
#include "core/edit/LayCells.h"
#include "core/history/UndoLine.h"

namespace uq::test {

namespace {

// Keeps what is spilled in memory, and can be made to fail.
struct MemorySpill : Spill {
  std::string bytes;
  bool fails = false;

  Result<Place> write(std::string_view more) override {
    if (fails) return fail(Error::Cause::diskFull, "the disk is full");
    const Place place{static_cast<std::int64_t>(bytes.size()), static_cast<std::int64_t>(more.size())};
    bytes += more;
    return place;
  }
  Result<std::string> read(Place place) override {
    if (fails) return fail(Error::Cause::other, "the disk cannot be read");
    return bytes.substr(static_cast<std::size_t>(place.at), static_cast<std::size_t>(place.size));
  }
};

// A person at work: a quilt, its undo line, and the tab they are in.
struct AtWork {
  Quilt quilt = smallQuilt();
  UndoLine line;
  Id yard = quilt.mapNamed("Yard")->id;
  Id loft = quilt.mapNamed("Loft")->id;
  std::shared_ptr<MemorySpill> spill = std::make_shared<MemorySpill>();

  bool step(const char* name, Id tab, const Quilt& after) {
    line.begin(name, tab, quilt, {});
    quilt = after;
    return line.commit(quilt, {});
  }
  void lay(const char* map, const char* layer, CellPos at, const char* sheet = "rails") {
    const std::vector<CellChange> one = {{at, tileOf(quilt, sheet, static_cast<std::uint32_t>(at.x + 1))}};
    step((std::string("Brush on ") + layer).c_str(), quilt.mapNamed(map)->id,
         layCells(quilt, layerOf(quilt, map, layer), one));
  }
  bool back(Id tab) {
    const auto plan = line.planBack(tab, quilt);
    if (plan) quilt = line.takeBack(*plan, tab, quilt)->quilt;
    return plan.has_value();
  }
  bool forth(Id tab) {
    const auto plan = line.planForth(tab, quilt);
    if (plan) quilt = line.layBack(*plan, quilt)->quilt;
    return plan.has_value();
  }
  // Packs all but the newest steps, and spills what is packed beyond `most` bytes.
  void pack(std::size_t fresh, std::size_t most = kMostPackedBytes) {
    while (auto packing = line.toPack(fresh, most)) line.putPacked(UndoLine::pack(std::move(*packing), spill));
  }
  // A step that paints on both maps.
  void onBoth() {
    const std::vector<CellChange> one = {{{1, 1}, tileOf(quilt, "street", 7)}};
    Quilt after = layCells(quilt, layerOf(quilt, "Yard", "Sheds"), one);
    after = layCells(after, layerOf(quilt, "Loft", "Floor"), one);
    step("Swap everywhere", yard, after);
  }
};

}  // namespace

TEST(UndoLine, TakesBackAndLaysBack) {
  AtWork work;
  const Quilt start = work.quilt;
  work.lay("Yard", "Sheds", {0, 0});
  const Quilt one = work.quilt;
  work.lay("Yard", "Sheds", {1, 0});
  const Quilt two = work.quilt;
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_EQ(work.quilt, one);
  EXPECT_TRUE(work.quilt.mapNamed("Yard")->revision.is(one.mapNamed("Yard")->revision));
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_EQ(work.quilt, start);
  EXPECT_FALSE(work.back(work.yard));
  EXPECT_TRUE(work.forth(work.yard));
  EXPECT_TRUE(work.forth(work.yard));
  EXPECT_EQ(work.quilt, two);
  EXPECT_FALSE(work.forth(work.yard));
}

TEST(UndoLine, AnEditThatChangesNothingMakesNoStep) {
  AtWork work;
  EXPECT_FALSE(work.step("Nothing", work.yard, work.quilt));
  EXPECT_TRUE(work.line.steps().empty());
}

TEST(UndoLine, ACancelledGestureLeavesNoMark) {
  AtWork work;
  work.line.begin("Brush", work.yard, work.quilt, {});
  EXPECT_FALSE(work.line.planBack(work.yard, work.quilt));
  EXPECT_EQ(work.line.cancel(), work.quilt);
  EXPECT_FALSE(work.line.inGesture());
  EXPECT_TRUE(work.line.steps().empty());
}

TEST(UndoLine, EachMapHasItsOwnWayBack) {
  AtWork work;
  work.lay("Yard", "Sheds", {0, 0});
  work.lay("Loft", "Floor", {0, 0});
  const Quilt both = work.quilt;
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_EQ(*work.quilt.mapNamed("Loft"), *both.mapNamed("Loft"));
  EXPECT_TRUE(work.quilt.layer(layerOf(work.quilt, "Yard", "Sheds"))->cells.empty());
  EXPECT_FALSE(work.back(work.yard));
  EXPECT_TRUE(work.back(work.loft));
  EXPECT_TRUE(work.forth(work.yard));
  EXPECT_TRUE(work.forth(work.loft));
  EXPECT_EQ(work.quilt, both);
}

TEST(UndoLine, OnTheBoardTheNewestOfAllGoesFirst) {
  AtWork work;
  work.lay("Yard", "Sheds", {0, 0});
  const Quilt one = work.quilt;
  work.lay("Loft", "Floor", {0, 0});
  EXPECT_TRUE(work.back(Id{}));
  EXPECT_EQ(work.quilt, one);
}

TEST(UndoLine, NamesWhatElseWouldGoBeforeItGoes) {
  AtWork work;
  const Quilt start = work.quilt;
  work.onBoth();
  work.lay("Loft", "Floor", {3, 3});
  const auto plan = work.line.planBack(work.yard, work.quilt);
  ASSERT_TRUE(plan);
  EXPECT_TRUE(plan->reachesFarther);
  EXPECT_EQ(plan->names, (std::vector<std::string>{"Swap everywhere", "Brush on Floor"}));
  const Quilt both = work.quilt;
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_EQ(work.quilt, start);
  EXPECT_TRUE(work.forth(work.yard));
  EXPECT_EQ(work.quilt, both);
}

TEST(UndoLine, ASimpleStepNeedsNoQuestion) {
  AtWork work;
  work.lay("Yard", "Sheds", {0, 0});
  EXPECT_FALSE(work.line.planBack(work.yard, work.quilt)->reachesFarther);
}

TEST(UndoLine, AStepGoesWithTheSheetThatItPaintsWith) {
  AtWork work;
  Sheet quay;
  quay.id = IdSource(3).next();
  quay.name = "quay";
  quay.code = "C";
  quay.pictureSize = {64, 64};
  const Quilt start = work.quilt;
  // Brought in while at work on the yard; then the loft is painted with it.
  work.step("Bring in quay", work.yard, work.quilt.with(quay));
  work.lay("Loft", "Floor", {0, 0}, "quay");
  const Quilt all = work.quilt;
  const auto plan = work.line.planBack(work.yard, work.quilt);
  ASSERT_TRUE(plan);
  EXPECT_EQ(plan->names, (std::vector<std::string>{"Bring in quay", "Brush on Floor"}));
  EXPECT_TRUE(plan->reachesFarther);
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_EQ(work.quilt, start);
  EXPECT_TRUE(work.forth(work.yard));
  EXPECT_EQ(work.quilt, all);
}

TEST(UndoLine, AStepThatPaintsWithAnotherSheetStays) {
  AtWork work;
  Sheet quay;
  quay.id = IdSource(3).next();
  quay.name = "quay";
  quay.code = "C";
  quay.pictureSize = {64, 64};
  work.step("Bring in quay", work.yard, work.quilt.with(quay));
  work.lay("Loft", "Floor", {0, 0}, "rails");
  EXPECT_EQ(work.line.planBack(work.yard, work.quilt)->names, std::vector<std::string>{"Bring in quay"});
}

TEST(UndoLine, ANewStepDropsOnlyWhatItContradicts) {
  AtWork work;
  work.lay("Yard", "Sheds", {0, 0});
  work.lay("Loft", "Floor", {0, 0});
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_TRUE(work.back(work.loft));
  work.lay("Yard", "Paving", {5, 5});
  EXPECT_FALSE(work.forth(work.yard));
  EXPECT_TRUE(work.forth(work.loft));
}

// Also what shares nothing with it: nobody expects that back behind what they did since.
TEST(UndoLine, ANewStepEndsAllThatWasTakenBackInItsTab) {
  AtWork work;
  Sheet sheet = work.quilt.sheets().front().read();
  sheet.id = IdSource(4).next();
  sheet.name = "kerbs";
  work.step("Bring in kerbs", work.yard, work.quilt.with(sheet));
  EXPECT_TRUE(work.back(work.yard));
  work.lay("Yard", "Sheds", {0, 0});
  work.lay("Yard", "Sheds", {1, 0});
  EXPECT_TRUE(work.back(work.yard));
  EXPECT_TRUE(work.back(work.yard));
  int laid = 0;
  while (work.forth(work.yard)) ++laid;
  EXPECT_EQ(laid, 2);
  EXPECT_FALSE(work.quilt.sheet(sheet.id));
}

TEST(UndoLine, ANewStepDropsGroupsThatNeedADroppedOne) {
  AtWork work;
  work.onBoth();
  work.lay("Loft", "Floor", {3, 3});
  EXPECT_TRUE(work.back(work.loft));  // the stroke on Floor
  EXPECT_TRUE(work.back(work.yard));  // the swap
  work.lay("Yard", "Paving", {5, 5});
  EXPECT_FALSE(work.forth(work.loft));
}

TEST(UndoLine, RedoBringsWhatItNeeds) {
  AtWork work;
  work.onBoth();
  work.lay("Loft", "Floor", {3, 3});
  const Quilt all = work.quilt;
  EXPECT_TRUE(work.back(work.loft));
  EXPECT_TRUE(work.back(work.yard));
  const auto plan = work.line.planForth(work.loft, work.quilt);
  ASSERT_TRUE(plan);
  EXPECT_EQ(plan->names.front(), "Swap everywhere");
  while (work.forth(work.loft)) {
  }
  EXPECT_EQ(work.quilt, all);
}

TEST(UndoLine, ReturnsTheWholeQuiltToAStep) {
  AtWork work;
  work.lay("Yard", "Sheds", {0, 0});
  const Quilt one = work.quilt;
  const auto number = work.line.steps().back().number;
  work.lay("Loft", "Floor", {0, 0});
  work.lay("Yard", "Sheds", {1, 0});
  const Quilt all = work.quilt;
  work.quilt = work.line.takeBack(work.line.planReturn(number), Id{}, work.quilt)->quilt;
  EXPECT_EQ(work.quilt, one);
  EXPECT_TRUE(work.forth(Id{}));
  EXPECT_EQ(work.quilt, all);
}

TEST(UndoLine, BringsTheActiveLayerBack) {
  AtWork work;
  const LayerAt sheds = layerOf(work.quilt, "Yard", "Sheds");
  const LayerAt paving = layerOf(work.quilt, "Yard", "Paving");
  const std::vector<CellChange> one = {{{0, 0}, tileOf(work.quilt, "rails", 1)}};
  work.line.begin("Brush", work.yard, work.quilt, sheds);
  const Quilt after = layCells(work.quilt, sheds, one);
  work.line.commit(after, paving);
  const auto undone = work.line.takeBack(*work.line.planBack(work.yard, after), work.yard, after);
  EXPECT_EQ(undone->desk.active, sheds);
  EXPECT_EQ(work.line.layBack(*work.line.planForth(work.yard, undone->quilt), undone->quilt)->desk.active, paving);
}

namespace {

// The line's invariant: each map is what the newest kept step that changed it left, or what it was at the start.
void checkPresent(const AtWork& work, const Quilt& start) {
  std::list<Map> unpacked;
  for (const auto& map : work.quilt.maps()) {
    const Map* expected = start.map(map->id);
    for (const Step& step : work.line.steps()) {
      for (const PartChange& change : step.changes) {
        if (change.key != PartKey::of<Map>(map->id)) continue;
        if (change.packed) {
          unpacked.push_back(*change.packed->after(*expected));
          RC_ASSERT(*change.packed->before(unpacked.back()) == *expected);
          expected = &unpacked.back();
          continue;
        }
        RC_ASSERT(std::get<Shared<Map>>(change.before).read() == *expected);
        expected = &std::get<Shared<Map>>(change.after).read();
      }
    }
    RC_ASSERT(map.read() == *expected);
  }
}

}  // namespace

RC_GTEST_PROP(UndoLine, EachMapIsAlwaysWhatItsNewestKeptStepLeft, ()) {
  AtWork work;
  const Quilt start = work.quilt;
  std::vector<Id> tabs{Id{}, work.yard, work.loft};
  for (int i = 0, n = *rc::gen::inRange(1, 25); i < n; ++i) {
    const Id tab = *rc::gen::elementOf(tabs);
    switch (*rc::gen::inRange(0, 7)) {
      case 6: work.pack(*rc::gen::inRange<std::size_t>(0, 4), *rc::gen::element<std::size_t>(0, 1000)); break;
      case 0:
      case 1: work.back(tab); break;
      case 2: work.forth(tab); break;
      case 3: work.step("Both", tab, *editOf(*editOf(*editOf(work.quilt)))); break;
      default: work.step("Edit", tab, *editOf(work.quilt)); break;
    }
    checkPresent(work, start);
  }
  // Whatever is left can be taken back to the start, in whatever tab one is.
  while (work.back(*rc::gen::elementOf(tabs)) || work.back(Id{})) checkPresent(work, start);
  RC_ASSERT(work.quilt == start);
}

RC_GTEST_PROP(UndoLine, RandomEditsUndoneGiveTheSameBytes, ()) {
  AtWork work;
  const std::string start = bytes(work.quilt);
  std::vector<Id> tabs{Id{}, work.yard, work.loft};
  for (int i = 0, n = *rc::gen::inRange(1, 12); i < n; ++i) {
    const Id tab = *rc::gen::elementOf(tabs);
    switch (*rc::gen::inRange(0, 4)) {
      case 0: work.back(tab); break;
      case 1: work.forth(tab); break;
      default: work.step("Edit", tab, *editOf(work.quilt)); break;
    }
  }
  const std::string end = bytes(work.quilt);
  const std::size_t depth = work.line.steps().size();
  for (std::size_t i = 0; i < depth; ++i) RC_ASSERT(work.back(Id{}));
  RC_ASSERT(bytes(work.quilt) == start);
  for (std::size_t i = 0; i < depth; ++i) RC_ASSERT(work.forth(Id{}));
  RC_ASSERT(bytes(work.quilt) == end);
}

TEST(UndoLine, APackedStrokeIsSmallAndComesBackWithItsRevisions) {
  AtWork work;
  const Quilt before = work.quilt;
  std::vector<CellChange> stroke;
  for (int i = 0; i < 200; ++i) stroke.push_back({{i % 20 - 4, i / 20 - 4}, tileOf(work.quilt, "rails", 3)});
  work.step("Brush on Paving", work.yard, layCells(work.quilt, layerOf(work.quilt, "Yard", "Paving"), stroke));
  const Quilt after = work.quilt;
  work.pack(0);
  ASSERT_TRUE(work.line.steps().front().changes.front().packed);
  EXPECT_LE(work.line.steps().front().packedBytes(), 2048u);
  work.back(work.yard);
  EXPECT_EQ(work.quilt, before);
  EXPECT_TRUE(work.quilt.map(work.yard)->revision.is(before.map(work.yard)->revision));
  work.forth(work.yard);
  EXPECT_EQ(work.quilt, after);
  const LayerAt paving = layerOf(after, "Yard", "Paving");
  EXPECT_TRUE(work.quilt.layer(paving)->revision.is(after.layer(paving)->revision));
}

TEST(UndoLine, OnlyOldStepsArePacked) {
  AtWork work;
  for (std::size_t i = 0; i < kFreshSteps + 3; ++i)
    work.lay("Yard", "Paving", {static_cast<int>(i % 10), 0}, i % 20 < 10 ? "rails" : "street");
  work.pack(kFreshSteps);
  const auto& steps = work.line.steps();
  for (std::size_t i = 0; i < steps.size(); ++i) EXPECT_EQ(steps[i].packedBytes() > 0, i + kFreshSteps < steps.size());
}

TEST(UndoLine, AStepThatCannotBeSpilledStaysInMemory) {
  AtWork work;
  work.lay("Yard", "Paving", {0, 0});
  work.lay("Yard", "Paving", {1, 0});
  const Quilt before = work.quilt;
  work.spill->fails = true;
  work.pack(0, 0);
  EXPECT_EQ(work.spill->bytes, "");
  while (work.back(work.yard)) {
  }
  EXPECT_EQ(work.quilt, smallQuilt());
  while (work.forth(work.yard)) {
  }
  EXPECT_EQ(work.quilt, before);
}

TEST(UndoLine, AStepThatCannotBeReadBackIsAnErrorAndChangesNothing) {
  for (const bool cut : {false, true}) {
    AtWork work;
    work.lay("Yard", "Paving", {0, 0});
    work.lay("Yard", "Paving", {1, 0});
    work.lay("Yard", "Paving", {2, 0});
    const Quilt before = work.quilt;
    work.pack(0, 1);
    ASSERT_GT(work.spill->bytes.size(), 0u);
    if (cut) {
      work.spill->bytes.assign(work.spill->bytes.size(), 'x');
    } else {
      work.spill->fails = true;
    }
    const auto plan = work.line.planReturn(0);
    const auto outcome = work.line.takeBack(plan, work.yard, work.quilt);
    ASSERT_FALSE(outcome);
    EXPECT_FALSE(outcome.error().text().empty());
    EXPECT_EQ(work.line.steps().size(), 3u);
    EXPECT_EQ(work.quilt, before);
  }
}

namespace {

// The undo rule in its plainest words, on steps that are no more than a number, a tab and the maps they touch.
struct PlainLine {
  struct PlainStep {
    std::uint64_t number;
    Id tab;
    std::set<Id> maps;
  };
  struct PlainGroup {
    Id tab;
    std::vector<PlainStep> steps;
  };
  std::vector<PlainStep> line;
  std::vector<PlainGroup> takenBack;

  static bool share(const std::set<Id>& a, const std::set<Id>& b) {
    return std::any_of(a.begin(), a.end(), [&](Id id) { return b.contains(id); });
  }
  static std::set<Id> mapsOf(const PlainGroup& group) {
    std::set<Id> maps;
    for (const auto& step : group.steps) maps.insert(step.maps.begin(), step.maps.end());
    return maps;
  }
  static bool felt(const PlainStep& step, Id tab) { return tab.empty() || step.tab == tab || step.maps.contains(tab); }

  // The newest step felt in the tab, and whatever came after it on the same maps, until nothing more follows.
  std::set<std::uint64_t> back(Id tab) const {
    std::set<std::uint64_t> numbers;
    for (const auto& step : line) {
      if (felt(step, tab)) numbers = {step.number};
    }
    for (bool grows = !numbers.empty(); grows;) {
      grows = false;
      for (std::size_t i = 0; i < line.size(); ++i) {
        for (std::size_t j = i + 1; j < line.size(); ++j) {
          if (numbers.contains(line[i].number) && share(line[i].maps, line[j].maps)) {
            grows = numbers.insert(line[j].number).second || grows;
          }
        }
      }
    }
    return numbers;
  }
  // The group taken back last that is felt in the tab, and the groups taken back after it that it stands on.
  std::set<std::uint64_t> forth(Id tab) const {
    std::set<std::size_t> groups;
    for (std::size_t i = 0; i < takenBack.size(); ++i) {
      const auto& group = takenBack[i];
      const bool here = group.tab == tab || std::any_of(group.steps.begin(), group.steps.end(), [&](const auto& step) {
                          return tab.empty() || step.maps.contains(tab);
                        });
      if (here) groups = {i};
    }
    for (bool grows = !groups.empty(); grows;) {
      grows = false;
      for (std::size_t i = 0; i < takenBack.size(); ++i) {
        for (std::size_t j = i + 1; j < takenBack.size(); ++j) {
          if (groups.contains(i) && share(mapsOf(takenBack[i]), mapsOf(takenBack[j]))) {
            grows = groups.insert(j).second || grows;
          }
        }
      }
    }
    std::set<std::uint64_t> numbers;
    for (const std::size_t i : groups) {
      for (const auto& step : takenBack[i].steps) numbers.insert(step.number);
    }
    return numbers;
  }
  void takeBack(const std::set<std::uint64_t>& numbers, Id tab) {
    PlainGroup group{tab, {}};
    for (const auto& step : line) {
      if (numbers.contains(step.number)) group.steps.push_back(step);
    }
    std::erase_if(line, [&](const auto& step) { return numbers.contains(step.number); });
    takenBack.push_back(group);
  }
  void layBack(const std::set<std::uint64_t>& numbers) {
    for (auto group = takenBack.rbegin(); group != takenBack.rend(); ++group) {
      for (const auto& step : group->steps) {
        if (numbers.contains(step.number)) line.push_back(step);
      }
    }
    std::erase_if(takenBack, [&](const auto& group) { return numbers.contains(group.steps.front().number); });
  }
  // Drops what the new step contradicts, and what stands on that.
  void commit(const PlainStep& step) {
    std::set<std::size_t> gone;
    for (std::size_t i = 0; i < takenBack.size(); ++i) {
      if (takenBack[i].tab == step.tab || share(mapsOf(takenBack[i]), step.maps)) gone.insert(i);
    }
    for (bool grows = true; grows;) {
      grows = false;
      for (std::size_t i = 0; i < takenBack.size(); ++i) {
        for (std::size_t j = i + 1; j < takenBack.size(); ++j) {
          if (gone.contains(j) && share(mapsOf(takenBack[i]), mapsOf(takenBack[j])))
            grows = gone.insert(i).second || grows;
        }
      }
    }
    for (auto i = gone.rbegin(); i != gone.rend(); ++i) takenBack.erase(takenBack.begin() + static_cast<long>(*i));
    line.push_back(step);
  }
};

}  // namespace

// The same steps, in any tab, taken back, laid back and packed anyhow, go together as the plain rule says, and leave
// painted just what the steps in force painted.
RC_GTEST_PROP(UndoLine, FollowsThePlainRule, ()) {
  AtWork work;
  PlainLine plain;
  const std::vector<Id> tabs{Id{}, work.yard, work.loft};
  std::uint64_t number = 0;
  std::vector<PlainLine::PlainStep> all;
  const auto numbersOf = [](const std::optional<UndoLine::Plan>& plan) {
    return plan ? std::set<std::uint64_t>(plan->steps.begin(), plan->steps.end()) : std::set<std::uint64_t>();
  };
  // Step n lays one tile at a place of its own on the nearest layer of each map it touches.
  const auto place = [](std::uint64_t n) { return CellPos{static_cast<int>(n) % 6, static_cast<int>(n) / 6}; };
  const Cell laid = tileOf(work.quilt, "street", 1, {true, 1});
  const auto nearestOn = [&](Id map) { return LayerAt{map, work.quilt.map(map)->layers.back()->id}; };
  for (int i = 0, n = *rc::gen::inRange(1, 30); i < n; ++i) {
    const Id tab = *rc::gen::elementOf(tabs);
    switch (*rc::gen::inRange(0, 8)) {
      case 0:
      case 1:
      case 2: {
        RC_ASSERT(numbersOf(work.line.planBack(tab, work.quilt)) == plain.back(tab));
        if (work.back(tab)) plain.takeBack(plain.back(tab), tab);
        break;
      }
      case 3:
      case 4: {
        RC_ASSERT(numbersOf(work.line.planForth(tab, work.quilt)) == plain.forth(tab));
        if (work.forth(tab)) plain.layBack(plain.forth(tab));
        break;
      }
      case 5: work.pack(*rc::gen::inRange<std::size_t>(0, 5), *rc::gen::element<std::size_t>(0, 500)); break;
      default: {
        PlainLine::PlainStep step{
            ++number, tab, *rc::gen::element(std::set{work.yard}, std::set{work.loft}, std::set{work.yard, work.loft})};
        Quilt after = work.quilt;
        const std::vector<CellChange> one = {{place(number), laid}};
        for (const Id map : step.maps) after = layCells(after, nearestOn(map), one);
        RC_ASSERT(work.step("Step", tab, after));
        plain.commit(step);
        all.push_back(step);
      }
    }
    for (const auto& step : all) {
      const bool inForce =
          std::any_of(plain.line.begin(), plain.line.end(), [&](const auto& s) { return s.number == step.number; });
      for (const Id map : step.maps) {
        RC_ASSERT((work.quilt.layer(nearestOn(map))->cells.at(place(step.number)) == laid) == inForce);
      }
    }
  }
}

}  // namespace uq::test
