// QuiltReader: what reads a quilt out of its folder, part by part (see QuiltReading.h). For the files of QuiltReading only.
#pragma once

#include <future>
#include <memory>

#include "core/store/CellsText.h"
#include "core/store/Documents.h"
#include "core/store/QuiltReading.h"

namespace uq {

class QuiltReader {
 public:
  QuiltReader(QuiltFolder& folder, Progress& progress, const Onlooker& onlooker, const ReadBefore* before)
      : folder_(folder), progress_(progress), onlooker_(onlooker), before_(before) {}

  QuiltRead readAll();

 private:
  void notRead(Error error);
  // A part that was left out: what begins with `prefix` is not written, and ids in `text` are given to nothing else.
  void leaveOut(const std::string& prefix, std::string_view text);
  // A part that was read, unless its id is that of another.
  template <class Part>
  Result<Part> unlessTaken(Result<Part> part, const std::string& file) const;
  // Leaves out a part, and says why and what is kept.
  void leaveOut(const std::string& prefix, std::string_view text, Error why, std::string kept);
  // The plain files or folders among the names of a folder; links are reported and left out.
  std::vector<std::string> names(const std::string& path, Disk::Kind kind);
  void readSheets();
  Result<void> readPlaces(Sheet& sheet);
  void readPictures(Sheet& sheet);
  void readStamps();
  // Documents that stand in a folder of their own, one a part. `kept`: what is said of those that cannot be read.
  template <class Part>
  void readFiles(Result<Part> (*read)(const Json&, const std::string&), const std::string& kept);
  void readEdgings();
  void readTargets();
  // One document in which all of something stands; nothing where there is none, or where it had to be left out.
  template <class Whole>
  std::optional<Whole> readListed(std::string_view name, Result<Whole> (*readDocument)(const Json&, const std::string&),
                                  const char* kept);
  void readLinks();
  void readPlan();
  // Tells which seams are followed by nothing, and why.
  void checkSeams();
  // A map without its cells.
  void readMap(const std::string& folder);
  // The cells of all maps, the wanted one's first.
  void readAllCells();
  // The bytes of the files of cells of a map.
  std::int64_t sizeOf(const Map& map);
  // The cells of all its layers: files are read here, one after another, and parsed by as many threads as there are
  // cores.
  void readCellsOf(Map& map);
  void readPinsOf(Map& map, std::size_t layer);
  // A map of which something could not be read.
  void takeDamage(Id map, Error error);
  struct Parsed {
    CellsRead cells;
    NumbersRead lifts;
    NumbersRead meant;
    std::map<SheetSlot, std::int64_t> missing;  // cells of sheets that are not in the quilt
    SheetSlots slots;                           // of the quilt once it was parsed
  };
  struct UnderWay {
    std::size_t layer = 0;
    std::string path;
    std::string liftsPath;
    std::string meantPath;
    std::shared_ptr<const std::string> text;  // of its cells; null where that could not be read
    std::optional<Error> failed;              // to read the file of cells, or of lifts
    std::optional<Error> liftsFailed;
    std::optional<Error> meantFailed;
    std::future<Parsed> parsing;
  };
  // Gives a layer the cells that it had when it was read before, where their files are the same.
  bool takesAsBefore(Map& map, std::size_t layer);
  UnderWay beginCells(const Map& map, std::size_t layer);
  void takeCells(Map& map, UnderWay& one);
  void checkBackdrop(const Map& map, const Layer& layer);

  QuiltFolder& folder_;
  Progress& progress_;
  const Onlooker& onlooker_;
  const ReadBefore* before_;  // may be nullptr
  QuiltRead read_;
};

template <class Part>
Result<Part> QuiltReader::unlessTaken(Result<Part> part, const std::string& file) const {
  const Part* other = part ? read_.quilt.part<Part>(part->id) : nullptr;
  if (!other) return part;
  return fail(Error::Cause::broken,
              "its id is that of the " + std::string(kNounOf<Part>) + " \"" + other->name + "\"", file);
}

}  // namespace uq
