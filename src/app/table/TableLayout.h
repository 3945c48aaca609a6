// TableLayout: where on the Table everything lies — Chalk, piles with their sheets, and pictures that nobody cut yet.
//
// Sheets lie beside one another as far as there is room, then below; a pile begins below what comes before it, under
// its name, and may be folded. Positions are logical pixels of the unscrolled Table at one zoom; headings keep their
// height. Cost: the sheets.
#pragma once

#include <QRectF>
#include <QString>
#include <QStringList>
#include <set>
#include <vector>

#include "core/document/Quilt.h"

namespace uq {

struct TableItem {
  enum class Kind { pile, sheet, loose };
  Kind kind = Kind::sheet;
  Id sheet;          // of a sheet
  std::string name;  // of a pile, or of a loose picture's file
  bool folded = false;
  QRectF heading;
  QRectF picture;  // of a sheet only
};

struct TableLayout {
  std::vector<TableItem> items;
  QSizeF size;

  // The item of a sheet; nullptr where its pile is folded.
  const TableItem* of(Id sheet) const;
};

inline constexpr int kTableHeading = 22;

// `zoom` in logical pixels for one of a picture, `width` that of the Table.
TableLayout layOutTable(const Quilt& quilt, const std::vector<Id>& order, const std::set<std::string>& folded, const QStringList& loose, double zoom,
                        double width);

}  // namespace uq
