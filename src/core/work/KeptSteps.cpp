#include "core/work/KeptSteps.h"

#include <algorithm>
#include <charconv>
#include <map>
#include <set>

#include "core/base/Squeezed.h"
#include "core/store/Documents.h"
#include "core/store/JsonText.h"
#include "core/work/KeptParts.h"

namespace uq {

namespace {

constexpr std::string_view kMagic = "steps 2\n";
constexpr std::string_view kFirstMagic = "steps 1\n";  // without ids: all were in force
constexpr std::size_t kMostBytes = std::size_t{256} << 20;  // of one text, unpacked
constexpr std::size_t kMostStretches = 2'000;               // of a selection; a larger one is not kept
constexpr std::string_view kFactsKind = "quilt";

// The id of a step in force is its number. One that was taken back has its group's in it, too: what it leans on is another
// thing each time it is taken back.
constexpr std::uint64_t kTakenBack = std::uint64_t{1} << 62;
constexpr std::uint64_t kMostNumber = (std::uint64_t{1} << 32) - 1;
std::uint64_t idOf(const UndoLine::Group& group, const Step& step) {
  return kTakenBack | (group.number & kMostNumber >> 2) << 32 | (step.number & kMostNumber);
}
std::uint64_t groupIn(std::uint64_t id) { return (id & ~kTakenBack) >> 32; }
bool isTakenBack(std::uint64_t id) { return (id & kTakenBack) != 0; }

bool isIn(const std::vector<std::uint64_t>& sorted, std::uint64_t id) {
  return std::binary_search(sorted.begin(), sorted.end(), id);
}

template <class Part>
std::string_view kindOf() {
  if constexpr (std::is_same_v<Part, QuiltFacts>) {
    return kFactsKind;
  } else {
    return kNounOf<Part>;
  }
}

Json markJson(const DeskMark& mark) {
  Json::Object said{{"map", mark.active.map.text()}, {"layer", mark.active.layer.text()}};
  Json::Array cells;
  if (mark.selection) {
    mark.selection->forEachStretch([&](CellPos first, int count) {
      for (const int number : {first.x, first.y, count}) cells.emplace_back(number);
    });
    if (cells.size() <= 3 * kMostStretches) said.emplace_back("selection", std::move(cells));
  }
  return said;
}

DeskMark markIn(const Json& json) {
  DeskMark mark(LayerAt{keptId(json, "map"), keptId(json, "layer")});
  const auto numbers = keptNumbers(keptList(json, "selection"), 3);
  if (!json.find("selection") || !numbers) return mark;
  CellSet cells;
  for (std::size_t i = 0; i < numbers->size(); i += 3) {
    const int x = (*numbers)[i];
    const int y = (*numbers)[i + 1];
    const int count = (*numbers)[i + 2];
    if (count > 0) cells = cells.united(CellSet(CellRect{x, y, x + count, y + 1}));
  }
  mark.selection = std::move(cells);
  return mark;
}

// The value that a part has in a quilt.
PartValue valueIn(const Quilt& quilt, const PartKey& key) {
  if (key.kind == PartKey::kFacts) return quilt.sharedFacts();
  PartValue value;
  PartKinds::forEach([&]<class Part>() {
    if (key.kind != PartKey::of<Part>(key.id).kind) return;
    for (const Shared<Part>& part : quilt.all<Part>()) {
      if (part->id == key.id) value = part;
    }
  });
  return value;
}

using Values = std::vector<std::pair<PartKey, PartValue>>;

PartValue& valueOf(Values& values, const PartKey& key, const Quilt& now) {
  const auto known = std::find_if(values.begin(), values.end(), [&](const auto& one) { return one.first == key; });
  if (known != values.end()) return known->second;
  return values.emplace_back(key, valueIn(now, key)).second;
}

// Which way a step leads: what it is written of, and what that leans on.
enum class Way { back, forth };
PartValue& aim(PartChange& change, Way way) { return way == Way::back ? change.before : change.after; }
const PartValue& aim(const PartChange& change, Way way) { return way == Way::back ? change.before : change.after; }
PartValue& start(PartChange& change, Way way) { return way == Way::back ? change.after : change.before; }
const PartValue& start(const PartChange& change, Way way) { return way == Way::back ? change.after : change.before; }

// Goes over a step: the values that it leads to are those that hold then.
void pass(const Step& step, Way way, const Quilt& now, Values& values) {
  for (const PartChange& change : step.changes) valueOf(values, change.key, now) = aim(change, way);
}

// The step with its values at hand; nothing where they cannot be had.
std::optional<Step> unpacked(Step step, Way way, const Quilt& now, Values& values) {
  for (PartChange& change : step.changes) {
    if (!change.packed) continue;
    start(change, way) = valueOf(values, change.key, now);
    const auto* map = std::get_if<Shared<Map>>(&start(change, way));
    if (!map) return std::nullopt;
    auto other = way == Way::back ? change.packed->before(map->read()) : change.packed->after(map->read());
    if (!other) return std::nullopt;
    aim(change, way) = Shared(std::move(*other));
    change.packed.reset();
  }
  return step;
}

void writeStep(const Step& step, std::uint64_t id, Id groupTab, Way way, const Quilt& slots, std::string& out) {
  std::vector<std::string> texts;
  Json::Array changes;
  for (const PartChange& change : step.changes) {
    KeptWriting one{{{"id", change.key.id.text()}}, texts, slots};
    const auto put = [&]<class Part>(const PartKey& key) {
      if (change.key.kind != key.kind) return;
      one.said.emplace_back("kind", std::string(kindOf<Part>()));
      const auto* part = std::get_if<Shared<Part>>(&aim(change, way));
      const auto* beside = std::get_if<Shared<Part>>(&start(change, way));
      if (part) writePart(part->read(), beside ? &beside->read() : nullptr, one);
    };
    PartKinds::forEach([&]<class Part>() { put.template operator()<Part>(PartKey::of<Part>(change.key.id)); });
    put.template operator()<QuiltFacts>(PartKey());
    changes.emplace_back(std::move(one.said));
  }
  const std::string said = writeJson(Json::Object{{"id", static_cast<std::int64_t>(id)},
                                                  {"number", static_cast<std::int64_t>(step.number)},
                                                  {"name", step.name},
                                                  {"tab", step.tab.text()},
                                                  {"groupTab", groupTab.text()},
                                                  {"across", step.across},
                                                  {"deskBefore", markJson(step.deskBefore)},
                                                  {"deskAfter", markJson(step.deskAfter)},
                                                  {"changes", std::move(changes)}});
  out += std::to_string(texts.size() + 1);
  const auto addLength = [&](const std::string& text) { out += " " + std::to_string(text.size()); };
  addLength(said);
  std::for_each(texts.begin(), texts.end(), addLength);
  out += "\n" + said;
  for (const std::string& text : texts) out += text;
}

// The records in a text, by the ids of their steps. What follows on something that is no record is left out.
void recordsIn(std::string_view text, std::map<std::uint64_t, KeptRecord>& records) {
  if (!text.starts_with(kMagic) && !text.starts_with(kFirstMagic)) return;
  text.remove_prefix(kMagic.size());
  while (!text.empty()) {
    const auto end = text.find('\n');
    if (end == std::string_view::npos) return;
    std::vector<std::size_t> lengths;
    for (const char *at = text.data(), *last = text.data() + end; at < last; ++at) {
      std::size_t number = 0;
      const auto read = std::from_chars(at, last, number);
      if (read.ec != std::errc() || number > kMostBytes) return;
      lengths.push_back(number);
      at = read.ptr;
    }
    text.remove_prefix(end + 1);
    if (lengths.size() < 2 || lengths.front() != lengths.size() - 1) return;
    std::vector<std::string_view> texts;
    for (std::size_t i = 1; i < lengths.size(); ++i) {
      if (lengths[i] > text.size()) return;
      texts.push_back(text.substr(0, lengths[i]));
      text.remove_prefix(lengths[i]);
    }
    auto said = readJson(texts.front(), "steps");
    if (!said) return;
    texts.erase(texts.begin());
    const std::int64_t id = keptWhole(*said, "id", keptWhole(*said, "number"));
    if (id > 0) records[static_cast<std::uint64_t>(id)] = {std::move(*said), std::move(texts)};
  }
}

template <class Part>
bool readChange(const Json& said, const KeptRecord& record, Way way, Quilt& slots, PartChange& change) {
  aim(change, way) = std::monostate{};
  if (said.find("file") == nullptr && said.find("document") == nullptr) return true;  // it was not there
  const auto* beside = std::get_if<Shared<Part>>(&start(change, way));
  auto part = readPart(KindTag<Part>{}, said, record, beside ? &beside->read() : nullptr, slots);
  if (!part) return false;
  if constexpr (!std::is_same_v<Part, QuiltFacts>) {
    if (part->id != change.key.id) return false;
  }
  part->revision = Revision::next();
  aim(change, way) = Shared(std::move(*part));
  return true;
}

std::optional<Step> readStep(const KeptRecord& record, Way way, Values& values, Quilt& now) {
  Step step;
  step.number = static_cast<std::uint64_t>(std::max<std::int64_t>(keptWhole(record.said, "number"), 0));
  step.name = keptText(record.said, "name");
  step.tab = keptId(record.said, "tab");
  const Json* across = record.said.find("across");
  step.across = across && across->as<bool>() && *across->as<bool>();
  const Json none = Json::Object();
  const auto mark = [&](const char* field) {
    const Json* json = record.said.find(field);
    return markIn(json ? *json : none);
  };
  step.deskBefore = mark("deskBefore");
  step.deskAfter = mark("deskAfter");
  for (const Json& said : keptList(record.said, "changes")) {
    const std::string kind = keptText(said, "kind");
    PartChange change;
    bool isRead = false;
    const auto take = [&]<class Part>() {
      if (kind != kindOf<Part>()) return;
      if constexpr (!std::is_same_v<Part, QuiltFacts>) change.key = PartKey::of<Part>(keptId(said, "id"));
      start(change, way) = valueOf(values, change.key, now);
      isRead = !step.touches(change.key) && readChange<Part>(said, record, way, now, change);
    };
    PartKinds::forEach(take);
    take.template operator()<QuiltFacts>();
    if (!isRead) return std::nullopt;
    step.changes.push_back(std::move(change));
  }
  if (step.changes.empty()) return std::nullopt;
  pass(step, way, now, values);
  return step;
}

// Reads the steps of one way; each number comes once in a line.
class WayReader {
 public:
  WayReader(std::map<std::uint64_t, KeptRecord>& records, Quilt& now, std::set<std::uint64_t>& numbers, Way way)
      : records_(records), now_(now), numbers_(numbers), way_(way) {}

  std::optional<Step> read(std::uint64_t id) {
    const auto record = records_.find(id);
    if (record == records_.end()) return std::nullopt;
    groupTab_ = keptId(record->second.said, "groupTab");
    auto step = readStep(record->second, way_, values_, now_);
    if (!step || step->number == 0 || step->number != (isTakenBack(id) ? id & kMostNumber : id)) return std::nullopt;
    if (!numbers_.insert(step->number).second) return std::nullopt;
    if (++count_ > kFreshSteps) step->changes = UndoLine::pack({step->number, std::move(step->changes)}, nullptr).changes;
    return step;
  }
  Id groupTab() const { return groupTab_; }  // of the one that was read last

 private:
  std::map<std::uint64_t, KeptRecord>& records_;
  Quilt& now_;
  std::set<std::uint64_t>& numbers_;
  Way way_;
  Values values_;
  Id groupTab_;
  std::size_t count_ = 0;
};

// The steps of a group, whose ids stand together; nothing where one is missing.
std::optional<UndoLine::Group> readGroup(WayReader& reader, const std::vector<std::uint64_t>& ids) {
  UndoLine::Group group;
  for (const std::uint64_t id : ids) {
    auto step = reader.read(id);
    if (!step) return std::nullopt;
    group.steps.push_back(std::move(*step));
  }
  group.tab = reader.groupTab();
  return group;
}

}  // namespace

LineToKeep lineToKeep(const UndoLine& line, const std::vector<std::uint64_t>& known) {
  LineToKeep keep;
  const auto count = [&](std::uint64_t id) {
    keep.ids.push_back(id);
    if (isIn(known, id)) return false;
    keep.fresh.push_back(id);
    return true;
  };
  const auto& steps = line.steps();
  std::size_t first = steps.size();  // the oldest fresh one
  for (std::size_t i = steps.size(); i-- > 0 && keep.ids.size() < kMostKeptSteps;) {
    if (count(steps[i].number)) first = i;
  }
  std::reverse(keep.ids.begin(), keep.ids.end());
  keep.steps.assign(steps.begin() + static_cast<std::ptrdiff_t>(first), steps.end());

  const auto& groups = line.takenBack();
  std::size_t from = groups.size();
  for (std::size_t many = 0; from > 0; --from) {
    many += groups[from - 1].steps.size();
    if (many > kMostKeptSteps) break;
  }
  std::size_t firstGroup = groups.size();
  for (std::size_t i = from; i < groups.size(); ++i) {
    for (const Step& step : groups[i].steps) {
      if (count(idOf(groups[i], step))) firstGroup = std::min(firstGroup, i);
    }
  }
  keep.takenBack.assign(groups.begin() + static_cast<std::ptrdiff_t>(firstGroup), groups.end());
  std::sort(keep.fresh.begin(), keep.fresh.end());
  return keep;
}

std::string stepsText(const LineToKeep& line, const Quilt& now) {
  std::string out(kMagic);
  Values values;
  // False where the way ends.
  const auto write = [&](const Step& packed, std::uint64_t id, Id groupTab, Way way) {
    const auto step = unpacked(packed, way, now, values);
    if (!step) return false;
    if (isIn(line.fresh, id)) writeStep(*step, id, groupTab, way, now, out);
    pass(*step, way, now, values);
    return true;
  };
  for (auto step = line.steps.rbegin(); step != line.steps.rend(); ++step) {
    if (!write(*step, step->number, {}, Way::back)) break;
  }
  values.clear();
  bool goesOn = true;
  for (auto group = line.takenBack.rbegin(); group != line.takenBack.rend(); ++group) {
    for (const Step& step : group->steps) goesOn = goesOn && write(step, idOf(*group, step), group->tab, Way::forth);
  }
  return squeezed(out);
}

StepsRead readSteps(const std::vector<std::string>& texts, const std::vector<std::uint64_t>& ids, Quilt& now) {
  std::vector<std::string> whole;
  for (const std::string& text : texts) {
    if (auto one = unsqueezed(text, kMostBytes)) whole.push_back(std::move(*one));
  }
  std::map<std::uint64_t, KeptRecord> records;  // they look into `whole`
  for (const std::string& text : whole) recordsIn(text, records);
  StepsRead read;
  std::set<std::uint64_t> numbers;
  WayReader back(records, now, numbers, Way::back);
  for (auto id = ids.rbegin(); id != ids.rend(); ++id) {
    if (isTakenBack(*id)) continue;
    auto step = back.read(*id);
    if (!step) {
      read.whole = false;
      break;
    }
    read.steps.push_back(std::move(*step));
  }
  std::reverse(read.steps.begin(), read.steps.end());

  WayReader forth(records, now, numbers, Way::forth);
  for (std::size_t end = ids.size(); end > 0 && isTakenBack(ids[end - 1]);) {
    std::size_t begin = end - 1;
    while (begin > 0 && isTakenBack(ids[begin - 1]) && groupIn(ids[begin - 1]) == groupIn(ids[end - 1])) --begin;
    auto group = readGroup(forth, {ids.begin() + static_cast<std::ptrdiff_t>(begin), ids.begin() + static_cast<std::ptrdiff_t>(end)});
    if (!group) {
      read.whole = false;
      break;
    }
    read.takenBack.insert(read.takenBack.begin(), std::move(*group));
    end = begin;
  }
  return read;
}

}  // namespace uq
