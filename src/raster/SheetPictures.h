// SheetPictures: the pixels of a quilt's sheets, and its tiles by number.
//
// Holds one picture a sheet, as read; a tile is a rectangle of it. Where the sheet, its picture or the tile is missing,
// there is no picture, and who draws shows a placeholder. Pictures are read-only values: copying is cheap, and a copy
// may be used on another thread.
#pragma once

#include <QImage>
#include <QRect>
#include <map>
#include <optional>

#include "core/document/Quilt.h"
#include "core/store/Disk.h"

namespace uq {

class SheetPictures {
 public:
  // Reads the picture of each sheet of the quilt in `folder`. What is missing, broken or not of the size that its sheet
  // says is added to `problems`.
  static SheetPictures load(const Quilt& quilt, Disk& disk, const std::string& folder, Errors& problems);

  void set(Id sheet, QImage picture) { pictures_[sheet] = std::move(picture); }

  // Null when there is none.
  QImage picture(Id sheet) const;

  // The tile laid straight, at 100 %; nothing for a placeholder.
  std::optional<QImage> tile(const Quilt& quilt, TileRef tile) const;
  // The tile turned as the cell says.
  std::optional<QImage> turned(const Quilt& quilt, Cell cell) const;

 private:
  std::map<Id, QImage> pictures_;
};

// A picture mirrored across and turned clockwise by quarters.
QImage turnedPicture(const QImage& picture, Turn turn);

}  // namespace uq
