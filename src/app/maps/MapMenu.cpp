#include "app/maps/MapMenu.h"

#include <QCoreApplication>

namespace uq {

namespace {

QString ofMenu(const char* text, int count = -1) {
  return QCoreApplication::translate("uq::MapMenu", text, nullptr, count);
}

}  // namespace

void tellOfSizes(Actions& actions, Session& session) {
  const Map* map = session.quilt().map(session.desk().map);
  if (!map) return;
  const CellRect left = session.verbs().maps.leftByCutting();
  actions.say(ActionId::cutToUsed, left == map->bounds ? ofMenu("nothing to cut")
                                                       : ofMenu("leaves %1 × %2").arg(left.width()).arg(left.height()));
  const std::int64_t cells = allowanceCells(*map);
  actions.say(ActionId::dropAllowance,
              cells == 0 ? ofMenu("it is empty") : ofMenu("%n painted cell(s)", static_cast<int>(cells)));
}

}  // namespace uq
