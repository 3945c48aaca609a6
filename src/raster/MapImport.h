// MapImport: a new map made of what lies in files from elsewhere: the picture of a map, or tables of cells, one for each layer.
//
// A picture is cut back into the tiles of the quilt's sheets (PictureImport.h); what is not recognised is counted, and becomes a sheet of
// its own where that is asked for. Tables are read by CsvReading.h, the farthest layer first. Nothing happens to the quilt that is given.
// Cost: those of the two. Threads: any, with pictures of its own.
#pragma once

#include <string>
#include <vector>

#include "core/base/Progress.h"
#include "core/store/Disk.h"
#include "raster/SheetPictures.h"

namespace uq {

struct MapImportAsk {
  std::vector<std::string> files;  // one picture, or tables (.csv)
  std::string name;                // of the map; empty: after the first file
  GridShape grid;
  bool makesSheet = false;         // of pieces of a picture that are not recognised
};

struct MapImport {
  Quilt quilt;
  Id map;
  std::int64_t known = 0;    // cells
  std::int64_t unknown = 0;  // cells on which nothing lies since it is not known
  std::size_t unknownKinds = 0;             // different pieces of a picture
  std::vector<std::string> unknownNames{};  // of tables, some of them
  Id sheet{};                // that was made; its picture is among the pictures
};

// An Error names the file, or the work was cancelled.
Result<MapImport> importMap(Disk& disk, const Quilt& quilt, SheetPictures& pictures, const MapImportAsk& ask, IdSource& ids, Progress* progress = nullptr);

// Whether it is a table by its name.
bool isTableName(const std::string& path);

}  // namespace uq
