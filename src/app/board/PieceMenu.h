// PieceMenu: what can be done with the pieces that are chosen on the Board, and what each row would change or break.
#pragma once

#include <QMenu>
#include <functional>
#include <set>

#include "app/workroom/Session.h"

namespace uq {

// What the menu leaves to the Board.
struct PieceAsks {
  std::function<void()> open;
  std::function<void()> rename;
  std::function<void()> size;
  std::function<void()> exportMap;
  std::function<void()> remove;
  std::function<void(const std::set<Id>& pieces)> choose;
  int reach = 0;  // map pixels within which an edge is near
};

// A menu that deletes itself once it is closed. `one` is among `all`, which are chosen; `session` must live as long.
QMenu* pieceMenu(QWidget* parent, Session& session, Id one, const std::set<Id>& all, const PieceAsks& asks);

// "rips 2 seams": what deleting these maps takes along; empty where nothing.
QString brokenByDeleting(const Quilt& quilt, const std::set<Id>& maps);
// Takes them away, each as the verb does it.
void deletePieces(Session& session, const std::set<Id>& maps);

}  // namespace uq
