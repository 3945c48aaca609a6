// SheetPictures: the pixels of a quilt's sheets, and its tiles by number.
//
// One library of decoded pictures, shared by all copies of it, on any thread. A picture is found by what its sheet
// holds — the bytes of its file and what is to be done with their pixels — so a sheet that undo brings back is drawn
// with the picture it had. The few newest pictures of each sheet are kept; others are decoded again when they are asked
// for. Where a sheet, its picture or a tile is missing, there is no picture, and who draws shows a placeholder.
//
// Cost: looking up takes a lock; decoding happens at the first look, or before, by load() and set().
#pragma once

#include <QImage>
#include <memory>
#include <optional>

#include "core/base/PixelView.h"
#include "core/document/Quilt.h"
#include "core/sheets/TileSides.h"

namespace uq {

class SheetPictures {
 public:
  SheetPictures();

  // Decodes the picture of each sheet of the quilt. What is broken, or not of the size that its sheet says, is added to
  // `problems`; what is missing was reported by who read the quilt.
  static SheetPictures load(const Quilt& quilt, Errors& problems);

  // The picture of the sheet as it is now.
  void set(const Sheet& sheet, QImage picture);

  // Null when there is none.
  QImage picture(const Sheet& sheet) const;

  // The tile laid straight, at 100 %; nothing for a placeholder.
  std::optional<QImage> tile(const Quilt& quilt, TileRef tile) const;
  // The tile turned as the cell says.
  std::optional<QImage> turned(const Quilt& quilt, Cell cell) const;

 private:
  struct Library;
  std::shared_ptr<Library> library_;
};

// Where the pixels of a quilt's tiles lie, for the core to look at; nothing for chalk and placeholders. Not for several
// threads at once.
PixelsOf pixelsOf(Quilt quilt, SheetPictures pictures);

// The picture that a sheet's source, or those of its collection, decode to, treated as its care says. An Error names
// the file.
Result<QImage> decodeSheet(const Sheet& sheet);

// What `care` makes of a picture, premultiplied ARGB: whole blocks of shrink × shrink pixels become one by area
// average; a rest at the right and the bottom is left out.
QImage caredFor(QImage picture, const PixelCare& care);
// The sizes that the pictures of a collection have with its care, before those that differ are fitted to the others; an
// Error where one cannot be read. 0 × 0 for a missing one.
Result<std::vector<PixelSize>> sizesAsTheyAre(const Sheet& sheet);
// A picture of a collection at the size that it is fitted to: in the middle across, on its lower edge.
QImage fittedTo(const QImage& picture, PixelSize size, OddSizes odd);

// A picture mirrored across and turned clockwise by quarters.
QImage turnedPicture(const QImage& picture, Turn turn);

}  // namespace uq
