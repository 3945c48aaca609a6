// What of QuiltReading reads sheets, stamps, edgings, links and plans: all but the maps.
#include "core/edit/SewnMaps.h"
#include "core/store/EdgingText.h"
#include "core/store/TargetText.h"
#include "core/store/JsonText.h"
#include "core/store/LinksText.h"
#include "core/store/PlanText.h"
#include "core/store/QuiltReader.h"
#include "core/store/StampText.h"
#include "core/store/StoreLimits.h"
#include "core/store/TilesText.h"

namespace uq {

namespace {

constexpr std::string_view kJsonEnding = ".json";

}  // namespace

void QuiltReader::readSheets() {
  for (const std::string& name : names(std::string(kFolderOf<Sheet>), Disk::Kind::file)) {
    if (!name.ends_with(kJsonEnding)) continue;
    const std::string file = joined(kFolderOf<Sheet>, name);
    const std::string own = file.substr(0, file.size() - kJsonEnding.size());
    const auto text = folder_.read(file, kLargestDocument);
    const auto json = text ? readJson(*text, file) : Result<Json>(fail(text.error()));
    auto sheet = unlessTaken(json ? readSheetDocument(*json, file) : Result<Sheet>(fail(json.error())), file);
    if (sheet) {
      sheet->file = nameOf(own);
      if (const auto places = readPlaces(*sheet); !places) {
        sheet = fail(Error(places.error()).advising("Mend the file, or delete it if the sheet was never cut anew"));
      }
    }
    if (!sheet) {
      leaveOut(own + ".", text ? *text : std::string(), sheet.error(),
               "Its tiles stay where they are painted, shown as labelled placeholders");
      continue;
    }
    readPictures(*sheet);
    read_.quilt = read_.quilt.with(std::move(*sheet));
  }
}

void QuiltReader::readStamps() {
  const ReadFile readFile = [this](const std::string& path) -> Result<std::optional<std::string>> {
    auto text = folder_.read(path, kLargestCells);
    if (text) return std::optional(std::move(*text));
    if (text.error().cause == Error::Cause::missing) return std::optional<std::string>();
    return fail(text.error());
  };
  for (const std::string& name : names(std::string(kFolderOf<Stamp>), Disk::Kind::folder)) {
    const std::string folder = joined(kFolderOf<Stamp>, name);
    const std::string file = folder + "/stamp.json";
    const auto left = folder_.list(folder);
    if (left && left->empty()) continue;  // what a stamp that was deleted leaves behind
    auto stamp = unlessTaken(readStamp(name, read_.quilt, readFile), file);
    if (!stamp) {
      const auto text = folder_.read(file, kLargestDocument);
      leaveOut(folder, text ? *text : std::string(), stamp.error(), "The stamp is left out, and its files stay as they are");
      continue;
    }
    read_.quilt = read_.quilt.with(std::move(*stamp));
  }
}

template <class Part>
void QuiltReader::readFiles(Result<Part> (*read)(const Json&, const std::string&), const std::string& kept) {
  for (const std::string& name : names(std::string(kFolderOf<Part>), Disk::Kind::file)) {
    if (!name.ends_with(kJsonEnding)) continue;
    const std::string file = joined(kFolderOf<Part>, name);
    const auto text = folder_.read(file, kLargestDocument);
    const auto json = text ? readJson(*text, file) : Result<Json>(fail(text.error()));
    auto part = unlessTaken(json ? read(*json, file) : Result<Part>(fail(json.error())), file);
    if (!part) {
      leaveOut(file, text ? *text : std::string(), part.error(), kept);
      continue;
    }
    part->file = name.substr(0, name.size() - kJsonEnding.size());
    read_.quilt = read_.quilt.with(std::move(*part));
  }
}

void QuiltReader::readEdgings() {
  readFiles<Edging>(readEdgingDocument, "The edging is left out, the maps are as they were, and its file stays as it is");
}

void QuiltReader::readTargets() { readFiles<Target>(readTargetDocument, "The target is left out, and its file stays as it is"); }

void QuiltReader::readLinks() {
  auto links = readListed<Links>(kLinksFile, readLinksDocument,
                                 "The maps lie beside one another as if nothing were sewn, and the file stays as it is");
  if (!links) return;
  QuiltFacts facts = read_.quilt.facts();
  facts.linksExtra = std::move(links->extra);
  read_.quilt = read_.quilt.with(std::move(facts));
  for (Seam& seam : links->seams) read_.quilt = read_.quilt.with(std::move(seam));
  for (Doorway& doorway : links->doorways) read_.quilt = read_.quilt.with(std::move(doorway));
}

void QuiltReader::readPlan() {
  auto plan = readListed<WorldPlan>(kPlanFile, readPlanDocument, "The plan is left out, and the file stays as it is");
  if (!plan) return;
  QuiltFacts facts = read_.quilt.facts();
  facts.planExtra = std::move(plan->extra);
  read_.quilt = read_.quilt.with(std::move(facts));
  for (ChalkPiece& piece : plan->pieces) read_.quilt = read_.quilt.with(std::move(piece));
}

template <class Whole>
std::optional<Whole> QuiltReader::readListed(std::string_view name, Result<Whole> (*readDocument)(const Json&, const std::string&),
                                             const char* kept) {
  const std::string file(name);
  const auto text = folder_.read(file, kLargestDocument);
  if (!text && text.error().cause == Error::Cause::missing) return std::nullopt;
  const auto json = text ? readJson(*text, file) : Result<Json>(fail(text.error()));
  auto whole = json ? readDocument(*json, file) : Result<Whole>(fail(json.error()));
  if (whole) return std::move(*whole);
  leaveOut(file, text ? *text : std::string(), whole.error(), kept);
  return std::nullopt;
}

void QuiltReader::checkSeams() {
  const SewnMaps sewn(read_.quilt);
  for (const Shared<Seam>& seam : read_.quilt.seams()) {
    const std::string& why = sewn.whyWrong(seam->id);
    if (why.empty()) continue;
    read_.problems.push_back(Error{Error::Cause::broken, why, std::string(kLinksFile), 0,
                                   "The seam is kept, and nothing is painted across it", "Rip it on the Board, or mend the file"});
  }
}

Result<void> QuiltReader::readPlaces(Sheet& sheet) {
  const std::string file = tilesFile(sheet);
  const auto text = folder_.read(file, kLargestDocument);
  if (!text && text.error().cause == Error::Cause::missing) return {};
  return text ? readTiles(*text, file, sheet) : Result<void>(fail(text.error()));
}

// A picture that is missing or cannot be read stays blank, and its tiles stay.
void QuiltReader::readPictures(Sheet& sheet) {
  const auto readOne = [&](const std::string& path, PictureBytes& source) {
    auto bytes = folder_.read(path, kLargestPictureFile);
    if (bytes) {
      source = PictureBytes(std::move(*bytes));
    } else {
      Error error = bytes.error();
      error.kept = "The tiles of \"" + sheet.name + "\" stay where they are painted, shown as labelled placeholders";
      error.todo = "Put the picture back, or point to it on the Table";
      read_.problems.push_back(std::move(error));
    }
  };
  if (!sheet.isCollection()) readOne(pictureFile(sheet), sheet.source);
  for (CollectedPicture& one : sheet.collection) readOne(pictureFile(sheet, one), one.source);
}

}  // namespace uq
