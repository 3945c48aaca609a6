#include "app/table/TableLayout.h"

#include <algorithm>

#include "app/look/Theme.h"

namespace uq {

namespace {
constexpr double kNarrowest = 168;  // room for a heading
}

const TableItem* TableLayout::of(Id sheet) const {
  for (const TableItem& item : items) {
    if (item.kind == TableItem::Kind::sheet && item.sheet == sheet) return &item;
  }
  return nullptr;
}

TableLayout layOutTable(const Quilt& quilt, const std::vector<Id>& order, const std::set<std::string>& folded, const QStringList& loose, double zoom,
                        double width) {
  TableLayout layout;
  double x = kGap;
  double y = kGap / 2.0;
  double high = 0;  // of the row
  double wide = 0;
  const auto nextRow = [&] {
    if (high > 0) y += high + kGap;
    x = kGap;
    high = 0;
  };
  const auto addSheet = [&](const Sheet& sheet) {
    const QSizeF size(sheet.pictureSize.w * zoom, sheet.pictureSize.h * zoom);
    const double taken = std::max(kNarrowest, size.width());
    if (x > kGap && x + taken > width - kGap) nextRow();
    TableItem item;
    item.sheet = sheet.id;
    item.heading = {x, y, taken, kTableHeading};
    item.picture = {QPointF(x, y + kTableHeading), size};
    x += taken + kGap * 1.5;
    high = std::max(high, kTableHeading + size.height());
    wide = std::max(wide, item.picture.right());
    layout.items.push_back(std::move(item));
  };
  addSheet(chalk());
  std::string pile;
  bool isFolded = false;
  for (const Id id : order) {
    const Sheet& sheet = *quilt.sheet(id);
    if (sheet.origin.pile != pile) {
      nextRow();
      pile = sheet.origin.pile;
      isFolded = !pile.empty() && folded.contains(pile);
      if (!pile.empty()) {
        TableItem item;
        item.kind = TableItem::Kind::pile;
        item.name = pile;
        item.folded = isFolded;
        item.heading = {kGap, y, std::max(kNarrowest, width - 2 * kGap), kTableHeading};
        layout.items.push_back(std::move(item));
        high = kTableHeading - kGap / 2.0;
        nextRow();
      }
    }
    if (!isFolded) addSheet(sheet);
  }
  for (const QString& name : loose) {
    nextRow();
    TableItem item;
    item.kind = TableItem::Kind::loose;
    item.name = name.toStdString();
    item.heading = {kGap, y, std::max(kNarrowest, width - 2 * kGap), kTableHeading + 4};
    high = kTableHeading + 4 - kGap;
    layout.items.push_back(std::move(item));
  }
  nextRow();
  layout.size = {wide + kGap, y};
  return layout;
}

}  // namespace uq
