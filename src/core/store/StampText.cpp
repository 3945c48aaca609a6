#include "core/store/StampText.h"

#include <algorithm>

#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/HandText.h"
#include "core/store/JsonText.h"

namespace uq {

namespace {

constexpr std::size_t kMostBlockParts = std::size_t{1} << 20;
constexpr std::size_t kMostParts = 64;

void addBlock(std::vector<TextFile>& files, const std::string& path, const Block& block, const Quilt& quilt) {
  CellGrid cells;
  NumberGrid lifts;
  for (const Block::Part& part : block.parts()) {
    cells.set({part.at.u, part.at.v}, part.cell);
    lifts.set({part.at.u, part.at.v}, part.lift);
  }
  files.push_back({path + ".cells", writeCells(cells, quilt)});
  if (!lifts.empty()) files.push_back({path + ".lift.cells", writeNumbers(lifts)});
}

class StampReader {
 public:
  StampReader(std::string folder, Quilt& quilt, const ReadFile& read)
      : folder_(std::move(folder)), file_(folder_ + "/stamp.json"), quilt_(quilt), read_(read) {}

  Result<Stamp> stamp() {
    const auto text = read_(file_);
    if (!text) return fail(text.error());
    if (!*text) return fail(Error::Cause::missing, "it does not exist", file_);
    auto json = readJson(**text, file_);
    if (!json) return fail(json.error());
    Stamp stamp;
    InHand& held = stamp.held;
    known_ = {"document", "version", "id",    "name", "grid",       "role",
              "manner",   "ends",    "parts", "mix",  "neverAlike", "turnsByChance"};
    if (const auto error = checkDocument(*json, "stamp", file_)) return fail(*error);
    const auto id = Id::parse(textOf(*json, "id"));
    if (!id) refuse("\"id\" is not an id", *json);
    stamp.id = id.value_or(Id());
    stamp.name = textOf(*json, "name");
    if (stamp.name.empty()) refuse("\"name\" is missing", *json);
    const auto grid = gridKindFromName(textOf(*json, "grid"));
    if (!grid) refuse("\"grid\" is no grid that this version knows", *json);
    held.grid = grid.value_or(GridKind::orthogonal);
    turnOrder_ = makeGrid(nearestShape(held.grid, {32, 32}))->turnOrder();
    held.role = textOf(*json, "role");
    if (json->find("manner")) {
      const auto manner = mannerFromName(textOf(*json, "manner"));
      if (!manner) refuse("\"manner\" is none that this version knows", *json);
      held.manner = manner.value_or(Manner::asItIs);
    }
    held.block = block("tiles");
    for (std::size_t i = 0; const Json& one : listOf(*json, "parts", kMostParts)) {
      held.others.push_back(
          {textOf(one, "role"), numberOf(one, "above", -1024, 1024), block("part-" + std::to_string(++i))});
      keepRest(one, {"role", "above"}, stamp.partExtras, i);
    }
    for (std::size_t i = 0; const Json& one : listOf(*json, "mix", kMostMembers)) {
      held.members.push_back({block("mix-" + std::to_string(++i)), std::max(1, numberOf(one, "weight", 1, kMostWeight)),
                              flagOf(one, "keepsOffRim")});
      keepRest(one, {"weight", "keepsOffRim"}, stamp.memberExtras, i);
    }
    if (const Json* ends = json->find("ends")) {
      const auto count = [&](const char* name) { return numberOf(*ends, name, 0, kFarthestCell); };
      held.ends = {count("left"),     count("right"),           count("top"), count("bottom"), count("stepAcross"),
                   count("stepDown"), flagOf(*ends, "shuffles")};
    }
    held.neverAlike = flagOf(*json, "neverAlike");
    held.turnsByChance = flagOf(*json, "turnsByChance");
    held.stamp = stamp.id;
    if (const auto* fields = json->as<Json::Object>()) {
      for (const auto& field : *fields) {
        if (std::find(known_.begin(), known_.end(), field.first) == known_.end()) stamp.extra.push_back(field);
      }
    }
    if (!error_ && held.empty()) refuse("the stamp holds no tile", *json);
    if (error_) return fail(*error_);
    stamp.file = folder_.substr(folder_.rfind('/') + 1);
    return stamp;
  }

 private:
  void refuse(std::string reason, const Json& at) {
    if (!error_) error_ = Error{Error::Cause::broken, std::move(reason), file_, at.line, {}, {}};
  }
  std::string textOf(const Json& json, const char* name) {
    const Json* found = json.find(name);
    const auto* text = found ? found->as<std::string>() : nullptr;
    if (found && (!text || text->size() > 1000)) refuse(std::string("\"") + name + "\" is no text", *found);
    return text ? *text : std::string();
  }
  int numberOf(const Json& json, const char* name, int least, int most) {
    const Json* found = json.find(name);
    const auto* number = found ? found->as<std::int64_t>() : nullptr;
    if (found && (!number || *number < least || *number > most)) {
      refuse(std::string("\"") + name + "\" is not a number " + std::to_string(least) + " to " + std::to_string(most),
             *found);
      return 0;
    }
    return number ? static_cast<int>(*number) : 0;
  }
  bool flagOf(const Json& json, const char* name) {
    const Json* found = json.find(name);
    const auto* flag = found ? found->as<bool>() : nullptr;
    if (found && !flag) refuse(std::string("\"") + name + "\" is neither true nor false", *found);
    return flag && *flag;
  }
  const Json::Array& listOf(const Json& json, const char* name, std::size_t most) {
    static const Json::Array none;
    const Json* found = json.find(name);
    const auto* list = found ? found->as<Json::Array>() : nullptr;
    if (found && (!list || list->size() > most)) {
      refuse(std::string("\"") + name + "\" is not a list of at most " + std::to_string(most), *found);
      return none;
    }
    return list ? *list : none;
  }

  // Keeps the fields of the part number `count` that nobody knows.
  static void keepRest(const Json& json, std::initializer_list<std::string_view> known, std::vector<Json::Object>& kept,
                       std::size_t count) {
    const auto* fields = json.as<Json::Object>();
    for (const Json::Field& field : fields ? *fields : Json::Object()) {
      if (std::find(known.begin(), known.end(), field.first) != known.end()) continue;
      kept.resize(count);
      kept.back().push_back(field);
    }
  }

  Block block(const std::string& name) {
    const std::string path = folder_ + "/" + name + ".cells";
    const auto text = read_(path);
    if (!text || !*text) {
      if (!error_) error_ = text ? Error{Error::Cause::missing, "it does not exist", path, 0, {}, {}} : text.error();
      return {};
    }
    CellsRead cells = readCells(**text, quilt_, turnOrder_, path);
    NumbersRead lifts;
    const std::string liftPath = folder_ + "/" + name + ".lift.cells";
    const auto lifted = read_(liftPath);
    if (!lifted && !error_) error_ = lifted.error();
    if (lifted && *lifted) lifts = readNumbers(**lifted, kMostLift, liftPath);
    if (!error_) error_ = cells.error ? cells.error : lifts.error;
    const CellRect used = cells.cells.usedBounds();
    if (!error_ && std::max(used.width(), used.height()) > kWidestBlock) {
      error_ = Error{Error::Cause::tooLarge, "its cells lie farther apart than 8,192", path, 0, {}, {}};
    }
    if (error_) return {};
    std::vector<Block::Part> parts;
    cells.cells.forEachPainted(used, [&](CellPos at, Cell cell) {
      if (parts.size() < kMostBlockParts) parts.push_back({{at.x, at.y}, cell, lifts.numbers.at(at)});
    });
    return Block(std::move(parts));
  }

  std::string folder_;
  std::string file_;
  Quilt& quilt_;
  const ReadFile& read_;
  int turnOrder_ = 4;
  std::vector<std::string> known_;
  std::optional<Error> error_;
};

}  // namespace

std::string stampFolder(const Stamp& stamp) { return "stamps/" + stamp.file; }

std::vector<TextFile> stampFiles(const Stamp& stamp, const Quilt& quilt) {
  const InHand& held = stamp.held;
  const std::string folder = stampFolder(stamp) + "/";
  Json::Object json = documentBegun("stamp");
  json.emplace_back("id", stamp.id.text());
  json.emplace_back("name", stamp.name);
  json.emplace_back("grid", gridName(held.grid));
  if (!held.role.empty()) json.emplace_back("role", held.role);
  if (held.manner != Manner::asItIs) json.emplace_back("manner", mannerName(held.manner));
  if (held.ends != StretchEnds()) json.emplace_back("ends", endsJson(held.ends));
  std::vector<TextFile> files;
  addBlock(files, folder + "tiles", held.block, quilt);
  Json::Array parts;
  for (std::size_t i = 0; const HandPart& part : held.others) {
    Json::Object one{{"role", part.role}, {"above", part.above}};
    if (i < stamp.partExtras.size()) one.insert(one.end(), stamp.partExtras[i].begin(), stamp.partExtras[i].end());
    parts.emplace_back(std::move(one));
    addBlock(files, folder + "part-" + std::to_string(++i), part.block, quilt);
  }
  if (!parts.empty()) json.emplace_back("parts", std::move(parts));
  Json::Array members;
  for (std::size_t i = 0; const MixMember& member : held.members) {
    Json::Object one{{"weight", member.weight}};
    if (member.keepsOffRim) one.emplace_back("keepsOffRim", true);
    if (i < stamp.memberExtras.size()) one.insert(one.end(), stamp.memberExtras[i].begin(), stamp.memberExtras[i].end());
    members.emplace_back(std::move(one));
    addBlock(files, folder + "mix-" + std::to_string(++i), member.block, quilt);
  }
  if (!members.empty()) json.emplace_back("mix", std::move(members));
  if (held.neverAlike) json.emplace_back("neverAlike", true);
  if (held.turnsByChance) json.emplace_back("turnsByChance", true);
  json.insert(json.end(), stamp.extra.begin(), stamp.extra.end());
  files.push_back({folder + "stamp.json", writeJson(std::move(json))});
  return files;
}

Result<Stamp> readStamp(const std::string& folder, Quilt& quilt, const ReadFile& read) {
  return StampReader("stamps/" + folder, quilt, read).stamp();
}

}  // namespace uq
