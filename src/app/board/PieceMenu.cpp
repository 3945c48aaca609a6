#include "app/board/PieceMenu.h"

#include <QCoreApplication>

#include "core/edit/Seams.h"

namespace uq {

namespace {

QString ofMenu(const char* text, int count = -1) {
  return QCoreApplication::translate("uq::PieceMenu", text, nullptr, count);
}

}  // namespace

QString brokenByDeleting(const Quilt& quilt, const std::set<Id>& maps) {
  std::set<Id> torn;
  for (const Id map : maps) torn.merge(seamsOf(quilt, map));
  return torn.empty() ? QString() : ofMenu("rips %n seam(s)", static_cast<int>(torn.size()));
}

void deletePieces(Session& session, const std::set<Id>& maps) { session.verbs().maps.remove(maps); }

QMenu* pieceMenu(QWidget* parent, Session& session, Id one, const std::set<Id>& all, const PieceAsks& asks) {
  auto* menu = new QMenu(parent);
  menu->setObjectName(QStringLiteral("piece-menu"));
  menu->setAttribute(Qt::WA_DeleteOnClose);
  const Quilt& quilt = session.quilt();
  const auto add = [menu](const char* name, const QString& text, const std::function<void()>& does) {
    QAction* row = menu->addAction(text);
    row->setObjectName(QLatin1String(name));
    QObject::connect(row, &QAction::triggered, menu, does);
    return row;
  };
  const int count = static_cast<int>(all.size());
  add("piece-open", ofMenu("Open"), asks.open);
  add("piece-rename", ofMenu("Rename…"), asks.rename)->setShortcut(Qt::Key_F2);
  add("piece-duplicate", count == 1 ? ofMenu("Duplicate") : ofMenu("Duplicate %n piece(s)", count),
      [&session, all, choose = asks.choose] { choose(session.verbs().maps.duplicate(all)); });
  const QString broken = brokenByDeleting(quilt, all);
  const QString what = count == 1 ? ofMenu("Delete") : ofMenu("Delete %n piece(s)", count);
  add("piece-delete", broken.isEmpty() ? what : ofMenu("%1 (%2)").arg(what, broken), asks.remove)
      ->setShortcut(Qt::Key_Delete);
  menu->addSeparator();
  add("piece-size", ofMenu("Size…"), asks.size);
  add("piece-export", ofMenu("Export the map…"), asks.exportMap);
  menu->addSeparator();
  add("piece-sew", ofMenu("Sew to the nearest edge"), [&session, all, reach = asks.reach] { session.verbs().maps.sewNearest(all, reach); });
  add("piece-rip", ofMenu("Rip off its neighbours"), [&session, all] { session.verbs().maps.rip(all); })
      ->setEnabled(!seamsAround(quilt, all).empty());
  for (const bool down : {false, true}) {
    QAction* row = add(down ? "piece-wrap-down" : "piece-wrap-across", down ? ofMenu("Wraps from top to bottom") : ofMenu("Wraps from left to right"),
                       [&session, one, down] { session.verbs().maps.wrap(one, down); });
    row->setCheckable(true);
    row->setChecked(wraps(quilt, one, down));
  }
  return menu;
}

}  // namespace uq
