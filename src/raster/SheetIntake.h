// SheetIntake: pictures on the disk become sheets that only wait to be added to a quilt.
//
// One picture becomes a sheet, cut as it was measured. Several become one collection, each picture a tile; but such as
// are clearly sheets themselves become sheets of their own. A GIF with several frames becomes a sheet with one animated
// tile. Folders stand for the pictures in them. What cannot be read is reported, and the rest comes in.
//
// Computes with values only, on any thread, and can be cancelled. Memory: the decoded pictures, one at a time where
// they become a collection.
#pragma once

#include <QImage>
#include <string>
#include <vector>

#include "core/base/Progress.h"
#include "core/sheets/CutMeasure.h"
#include "core/sheets/PictureFindings.h"
#include "core/store/Disk.h"
#include "raster/SheetPictures.h"

namespace uq {

inline constexpr std::size_t kMostPictures = 4096;  // that are taken in at once
inline constexpr int kUsualFrame = 100;             // milliseconds, where a GIF says none

// What measuring and looking at a sheet's picture gave.
struct IntakeNotes {
  std::vector<CutProposal> proposals;  // empty for a collection
  PictureFindings findings;
  std::vector<PixelSize> sizes;        // of the pictures of a collection, before they are shrunk and fitted
  bool isLineDrawing = false;  // and may be made at any size
};
// `usual` as for measureCut.
IntakeNotes notesOn(const Sheet& sheet, const QImage& picture, PixelSize usual);

struct IntakeDraft {
  Sheet sheet;              // for addSheet
  std::string pictureName;  // of the file it came from
  QImage picture;           // the sheet's, decoded
  IntakeNotes notes;
};

struct Intake {
  std::vector<IntakeDraft> drafts;
  Errors problems;
};

// `usual` is the cell of the map that is worked on; the pictures may be files or folders.
Result<Intake> takeIn(const std::vector<std::string>& paths, PixelSize usual, Disk& disk, Progress& progress);

// The pictures among files and, read through, folders: PNG, JPEG, WebP, GIF, BMP and SVG by their endings. Files that
// are named themselves are taken whatever their ending is. At most kMostPictures; an Error beyond, and where there is
// none.
Result<std::vector<std::string>> picturesAmong(const std::vector<std::string>& paths, Disk& disk, Progress& progress);
bool isPictureName(const std::string& name);

// The sheet with another source, as it is after another program wrote its picture, or with other care: size, and marks
// in cut order. The picture goes into `pictures`.
Result<Sheet> refreshed(Sheet sheet, SheetPictures& pictures, Progress* progress = nullptr);

}  // namespace uq
