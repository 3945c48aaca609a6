// Edits by chance through the window, with undo, redo, saving, crashes and recovery in between: the quilt stays the same as
// what the core makes of the same edits alone, and memory does not grow. A hundred rounds in each ./check; longer by
// ./check --soak MINUTES, or until UQ_SOAK_EDITS were done.
#include <malloc.h>
#include <unistd.h>

#include <QElapsedTimer>
#include <algorithm>
#include <fstream>
#include <limits>
#include <random>

#include "app/CrashStory.h"
#include "core/Support.h"
#include "core/store/JsonText.h"
#include "core/work/EditList.h"

namespace uq::test {

namespace {

constexpr int kRoundsToACrash = 60;
constexpr int kRounds = 130;  // where nothing else is asked for
constexpr int kMostBack = 24;  // steps, in a row

std::int64_t memoryInUse() {
  malloc_trim(0);
  std::int64_t pages = 0;
  std::int64_t resident = 0;
  std::ifstream("/proc/self/statm") >> pages >> resident;
  return resident * sysconf(_SC_PAGESIZE);
}

// The first lines in which two texts differ; empty where they are the same.
std::string firstDifference(const std::string& here, const std::string& alone) {
  const auto at = std::mismatch(here.begin(), here.end(), alone.begin(), alone.end());
  if (at.first == here.end() && at.second == alone.end()) return {};
  const auto lineAt = [](const std::string& text, std::size_t place) {
    const auto begin = text.rfind('\n', std::min(place, text.size() - 1)) + 1;
    return text.substr(begin, text.find('\n', place) - begin);
  };
  const auto place = static_cast<std::size_t>(at.first - here.begin());
  return lineAt(here, place) + "\nalone:\n" + lineAt(alone, place);
}

Json placeJson(CellPos at) { return Json::Array{at.x, at.y}; }

}  // namespace

class Soak : public CrashStory {
 protected:
  int below(int end) { return std::uniform_int_distribution<int>(0, end - 1)(chance_); }
  CellPos anywhere() {
    const CellRect bounds = yard().bounds;
    return {bounds.x0 + below(bounds.width()), bounds.y0 + below(bounds.height())};
  }

  // The same without a window: the quilt before each step that can be taken back, and what was taken back.
  struct Model {
    Quilt now;
    std::vector<Quilt> back;
    std::vector<Quilt> forth;

    void step(const Quilt& after) {
      if (after == now) return;
      back.push_back(std::exchange(now, after));
      forth.clear();
    }
    void undo() {
      if (back.empty()) return;
      forth.push_back(std::exchange(now, back.back()));
      back.pop_back();
    }
    void redo() {
      if (forth.empty()) return;
      back.push_back(std::exchange(now, forth.back()));
      forth.pop_back();
    }
  };

  void doAlone(Json::Object step) {
    step.emplace_back("map", "Depot Yard");
    std::vector<Json> steps{std::move(step)};
    if (steps.front().find("do")->as<std::string>()->starts_with("select")) {
      steps.emplace_back(Json::Object{{"do", "delete"}, {"joins", true}});
    }
    last_ = editList(std::move(steps));
    const auto done = doEdits(model_.now, last_, {}, "soak");
    ASSERT_TRUE(done) << done.error().text();
    model_.step(done->quilt);
  }

  // A stroke of one of the tools, by hand and alone.
  void stroke() {
    static const std::pair<Qt::Key, const char*> tools[] = {{Qt::Key_1, "paint"}, {Qt::Key_2, "erase"}, {Qt::Key_3, "box"},
                                                            {Qt::Key_4, "fill"},  {Qt::Key_6, "line"},  {Qt::Key_7, "oval"}};
    const auto& [key, name] = tools[below(std::size(tools))];
    const std::string what = name;
    const auto number = static_cast<std::uint32_t>(below(14));
    session().verbs().hand.take(Block::of(Cell({kChalkSlot, number}, {})));
    session().verbs().layers.choose(yard().layers[static_cast<std::size_t>(below(3))]->id);
    hand.key(key);
    const CellPos from = anywhere();
    const CellPos to = what == "fill" ? from : anywhere();
    hand.drag(room->canvas(), {onMap(from), onMap(to)});
    Json::Object step{{"do", what}, {"layer", session().desk().activeAt().layer.text()}};
    if (what != "erase") step.emplace_back("tile", Json::Array{"chalk", static_cast<int>(number)});
    if (what == "paint" || what == "erase") {
      step.emplace_back("path", Json::Array{placeJson(from), placeJson(to)});
    } else if (what == "fill") {
      step.emplace_back("at", placeJson(from));
    } else {
      step.emplace_back("from", placeJson(from));
      step.emplace_back("to", placeJson(to));
    }
    doAlone(std::move(step));
  }
  void deleteSelected() {
    session().verbs().layers.choose(yard().layers[static_cast<std::size_t>(below(3))]->id);
    const CellPos from = anywhere();
    const CellPos to = anywhere();
    if (from == to) return;  // a click selects a thing
    hand.key(Qt::Key_5);
    hand.drag(room->canvas(), {onMap(from), onMap(to)});
    hand.key(Qt::Key_Delete);
    letGoOfSelection();
    doAlone({{"do", "select"},
             {"layer", session().desk().activeAt().layer.text()},
             {"from", placeJson(from)},
             {"to", placeJson(to)}});
  }
  void goBack() {
    for (int n = below(kMostBack); n > 0; --n) {
      hand.key(Qt::Key_Z, Qt::ControlModifier);
      model_.undo();
      ++edits_;
    }
    for (int n = below(kMostBack); n > 0; --n) {
      hand.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
      model_.redo();
      ++edits_;
    }
    letGoOfSelection();
  }
  // What was selected comes back with a step that was about it.
  void letGoOfSelection() {
    for (int tries = 0; tries < 3 && !session().desk().selection().empty(); ++tries) hand.key(Qt::Key_Escape);
    ASSERT_TRUE(session().desk().selection().empty());
  }
  void save() {
    hand.key(Qt::Key_S, Qt::ControlModifier);
    awaitWork();
    ASSERT_TRUE(session().isSaved());
  }
  void begin() {
    session().verbs().maps.goTo(yard().id);
    room->canvas()->setFocus();
    hand.key(Qt::Key_F);
  }
  void crashAndComeBack() {
    if (!session().isSaved()) waitForKeeping();
    crash();
    openDemo();
    if (strip()->isVisible()) hand.key(Qt::Key_Return);
    begin();
    expectTheSame();
    // Its cells have the slots of this run from now on, and the way back is as long as it was kept.
    const auto steps = static_cast<std::ptrdiff_t>(session().undoLine().steps().size());
    const auto known = static_cast<std::ptrdiff_t>(model_.back.size());
    ASSERT_LE(steps, known);
    model_.back.erase(model_.back.begin(), model_.back.begin() + (known - steps));
    model_.forth.clear();
    ++crashes_;
    memory_.push_back(memoryInUse());
  }
  void expectTheSame() {
    ASSERT_EQ(firstDifference(bytes(session().quilt()), bytes(model_.now)), "") << "after " << edits_ << " edits";
  }

  Model model_;
  int edits_ = 0;  // strokes, steps back and forth
  int crashes_ = 0;
  Json last_;
  std::vector<std::int64_t> memory_;

 private:
  std::mt19937 chance_{11};
};

TEST_F(Soak, EditsByChanceLeaveTheSameQuiltAsTheCoreAlone) {
  bool isSet = false;
  const int seconds = qEnvironmentVariableIntValue("UQ_SOAK_SECONDS", &isSet);
  const int most = qEnvironmentVariableIntValue("UQ_SOAK_EDITS");
  const int rounds = isSet || most > 0 ? std::numeric_limits<int>::max() : kRounds;
  const qint64 until = isSet ? seconds * qint64{1000} : std::numeric_limits<qint64>::max();
  model_.now = session().quilt();
  begin();
  QElapsedTimer time;
  time.start();
  for (int round = 1; round <= rounds && time.elapsed() < until && (most == 0 || edits_ < most) && !HasFatalFailure(); ++round) {
    ++edits_;
    switch (below(16)) {
      case 0: deleteSelected(); break;
      case 1: goBack(); break;
      case 2: below(4) == 0 ? save() : stroke(); break;
      default: stroke();
    }
    if (qEnvironmentVariableIsSet("UQ_SOAK_EACH") && !(model_.now == session().quilt())) {
      expectTheSame();
      FAIL() << writeJson(last_) << "tool " << static_cast<int>(session().desk().tool) << ", "
             << room->canvas()->tagText().toStdString();
    }
    if (round % kRoundsToACrash == 0) crashAndComeBack();
  }
  if (HasFatalFailure()) return;
  expectTheSame();
  save();
  const auto there = QuiltStore::open(realDisk(), folder(), QuiltStore::Access::read);
  ASSERT_TRUE(there);
  EXPECT_EQ(bytes(there->quilt), bytes(model_.now));
  EXPECT_GT(crashes_, 0);
  qInfo("%d edits in %lld s, %d crashes", edits_, static_cast<long long>(time.elapsed() / 1000), crashes_);
  if (memory_.size() < 8) return;
  const auto middle = [](std::vector<std::int64_t> part) {
    std::nth_element(part.begin(), part.begin() + static_cast<std::ptrdiff_t>(part.size() / 2), part.end());
    return part[part.size() / 2];
  };
  const auto quarter = static_cast<std::ptrdiff_t>(memory_.size() / 4);
  const std::int64_t warm = middle({memory_.begin() + quarter, memory_.begin() + 2 * quarter});
  const std::int64_t last = middle({memory_.end() - quarter, memory_.end()});
  qInfo("%.1f MB once warm, %.1f MB in the end", static_cast<double>(warm) / 1e6, static_cast<double>(last) / 1e6);
  EXPECT_LE(static_cast<double>(last), 1.1 * static_cast<double>(warm));
}

}  // namespace uq::test
