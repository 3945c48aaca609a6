#include "app/canvas/MapEdges.h"

#include <QCoreApplication>
#include <QStringList>
#include <array>

#include "core/edit/MapFacts.h"

namespace uq {

namespace {

QString tr(const char* text, int count = -1) { return QCoreApplication::translate("uq::MapEdges", text, nullptr, count); }

}  // namespace

HeldEdge edgeAt(const Plane& plane, CellRect bounds, QPointF at, double within) {
  const HeldEdge edge = edgeBeyond(bounds, plane.cellAt(at));
  if (!edge.any()) return {};
  for (const double reach : {within / 3, 2 * within / 3, within}) {
    for (int y = -1; y <= 1; ++y) {
      for (int x = -1; x <= 1; ++x) {
        if (!edgeBeyond(bounds, plane.cellAt(at + QPointF(x, y) * reach)).any()) return edge;
      }
    }
  }
  return {};
}

Qt::CursorShape cursorOf(const HeldEdge& edge, GridKind kind) {
  const bool across = edge.left || edge.right;
  const bool down = edge.top || edge.bottom;
  const bool falls = (edge.left && edge.top) || (edge.right && edge.bottom);  // a corner at an end of the first diagonal
  if (kind == GridKind::diamond) {
    if (across && down) return falls ? Qt::SizeVerCursor : Qt::SizeHorCursor;
    return across ? Qt::SizeFDiagCursor : Qt::SizeBDiagCursor;
  }
  if (across && down) return falls ? Qt::SizeFDiagCursor : Qt::SizeBDiagCursor;
  return across ? Qt::SizeHorCursor : Qt::SizeVerCursor;
}

QString sizeText(const Quilt& quilt, const Map& map) {
  const PixelRect pixels = makeGrid(map.grid)->pixelBounds(map.bounds);
  const PixelSize screen = screenOf(quilt, map);
  return tr("%1 × %2 = %3 × %4 px = %5 × %6 screens")
      .arg(map.bounds.width())
      .arg(map.bounds.height())
      .arg(pixels.w)
      .arg(pixels.h)
      .arg(static_cast<double>(pixels.w) / screen.w, 0, 'f', 1)
      .arg(static_cast<double>(pixels.h) / screen.h, 0, 'f', 1);
}

QString resizingText(const Quilt& quilt, const Map& map, std::int64_t cut, std::int64_t broughtBack) {
  QStringList parts{sizeText(quilt, map)};
  if (cut > 0) parts << tr("cuts %n painted cell(s), kept in the seam allowance", static_cast<int>(cut));
  if (broughtBack > 0) parts << tr("%n painted cell(s) come back", static_cast<int>(broughtBack));
  return parts.join(QStringLiteral(" · "));
}

QString wordsOf(const EdgeDrag& drag, const Quilt& quilt, const Map& map) {
  QStringList parts{resizingText(quilt, map, drag.cut(), drag.broughtBack())};
  if (!drag.refusal().empty()) parts.prepend(QString::fromStdString(drag.refusal()));
  if (!drag.sewn().empty()) {
    const QString to = QString::fromStdString(drag.sewn());
    parts << (drag.opens() ? tr("the seam to %1 opens").arg(to) : tr("%1 goes along · Ctrl: alone, and the seam opens").arg(to));
  }
  for (const std::string& seam : drag.opened()) parts << tr("opens %1").arg(QString::fromStdString(seam));
  QStringList outside;
  for (const std::string& one : drag.outside()) outside << QString::fromStdString(one);
  if (!outside.isEmpty()) parts << tr("outside then: %1").arg(outside.join(QStringLiteral(", ")));
  const std::array rooms{tr("empty"), tr("the last row again"), tr("the ground again")};
  if (drag.grows()) parts << tr("new room: %1 (keys 1, 2, 3)").arg(rooms[static_cast<std::size_t>(drag.room())]);
  return parts.join(QStringLiteral(" · "));
}

}  // namespace uq
