#include "core/store/StampText.h"

#include <algorithm>

#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/Fields.h"
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
    Fields fields(*json, file_);
    fields.document("stamp");
    if (fields.error()) return fail(*fields.error());
    stamp.id = fields.id("id");
    stamp.name = fields.text("name");
    (void)fields.field("grid");
    readHandFacts(fields, held);
    turnOrder_ = makeGrid(nearestShape(held.grid, {32, 32}))->turnOrder();
    held.block = block("tiles", fields);
    for (std::size_t i = 0; const Json& one : fields.listIfAny("parts", kMostParts)) {
      Fields part(one, file_);
      held.others.push_back({part.textIfAny("role"), part.numberIfAny("above", -1024, 1024, 0),
                             block("part-" + std::to_string(++i), part)});
      keepRest(part, stamp.partExtras, i);
      fields.takeFrom(part);
    }
    for (std::size_t i = 0; const Json& one : fields.listIfAny("mix", kMostMembers)) {
      Fields member(one, file_);
      Block block = this->block("mix-" + std::to_string(++i), member);
      held.members.push_back(
          {std::move(block), member.numberIfAny("weight", 1, kMostWeight, 1), member.flagIfAny("keepsOffRim")});
      keepRest(member, stamp.memberExtras, i);
      fields.takeFrom(member);
    }
    Fields ends(fields.objectIfAny("ends"), file_);
    held.ends = readEnds(ends);
    fields.takeFrom(ends);
    held.stamp = stamp.id;
    stamp.extra = fields.rest();
    if (held.empty()) fields.refuse("the stamp holds no tile", json->line);
    if (fields.error()) return fail(*fields.error());
    stamp.file = folder_.substr(folder_.rfind('/') + 1);
    return stamp;
  }

 private:
  // Keeps the fields of the part number `count` that nobody knows.
  static void keepRest(const Fields& fields, std::vector<Json::Object>& kept, std::size_t count) {
    Json::Object rest = fields.rest();
    if (rest.empty()) return;
    kept.resize(count);
    kept.back() = std::move(rest);
  }

  // The block in a file of cells beside the document; what is wrong with it is wrong with `fields`.
  Block block(const std::string& name, Fields& fields) {
    const std::string path = folder_ + "/" + name + ".cells";
    const auto text = read_(path);
    if (!text || !*text) {
      fields.take(text ? Error{Error::Cause::missing, "it does not exist", path, 0, {}, {}} : text.error());
      return {};
    }
    CellsRead cells = readCells(**text, quilt_, turnOrder_, path);
    NumbersRead lifts;
    const std::string liftPath = folder_ + "/" + name + ".lift.cells";
    const auto lifted = read_(liftPath);
    if (!lifted) fields.take(lifted.error());
    if (lifted && *lifted) lifts = readNumbers(**lifted, kMostLift, liftPath);
    if (cells.error) fields.take(*cells.error);
    if (lifts.error) fields.take(*lifts.error);
    const CellRect used = cells.cells.usedBounds();
    if (std::max(used.width(), used.height()) > kWidestBlock) {
      fields.take(Error{Error::Cause::tooLarge, "its cells lie farther apart than 8,192", path, 0, {}, {}});
    }
    if (fields.error()) return {};
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
