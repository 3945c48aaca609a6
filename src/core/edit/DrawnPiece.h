// DrawnPiece: a map that somebody draws as a rectangle on the cloth, before and after it is made.
//
// Drawn against an edge that it could be sewn to, it takes grid and cell of that map and is sewn there. What it is filled
// with can be asked otherwise; it stays at its edge, or where its upper left corner is.
// Cost: the pieces on the Board; making it the cells carried over. Threads: any.
#pragma once

#include <optional>
#include <string>

#include "core/edit/ArrangeMaps.h"
#include "core/edit/Board.h"

namespace uq {

struct DrawnPiece {
  MapPlan plan;
  PixelRect at;  // as it was drawn, on the cloth
  // The map at whose edge it lies; empty: it lies alone.
  Id beside;
  enum class Edge { left, top, right, bottom } edge = Edge::right;  // of that map
  int along = 0;  // where its first row or column lies, in those of that map
  Id chalk;       // the chalk piece that is cut; empty: none
};

// What is proposed for a rectangle of the cloth: the cells of the map that it touches within `reach` map pixels, else of
// `sheet`, else of `like`. Of a chalk piece, with its name.
DrawnPiece drawnPiece(const Quilt& quilt, const PixelRect& at, const Map* like, const Sheet* sheet, int reach);
DrawnPiece cutPiece(const Quilt& quilt, Id chalk, const Map* like, const Sheet* sheet, int reach);

// Makes the map, sewn where it was drawn against an edge and `plan` can be sewn there. So many of the neighbour's last
// columns or rows are carried over: they lie again as its own first ones, on layers of their roles, which are made where they
// are missing. Nothing is added where whyNoMap says why. `unsewn` tells why a map that was drawn against an edge only lies there.
MapAdded addDrawn(const Quilt& quilt, const DrawnPiece& drawn, const MapPlan& plan, int carried, IdSource& ids,
                  std::string* unsewn = nullptr);

// Chalk pieces on the cloth. Nothing changes where there is none.
Quilt withChalk(const Quilt& quilt, const PixelRect& at, IdSource& ids, Id* made = nullptr);
Quilt withChalkSaid(const Quilt& quilt, Id chalk, const std::string& name, const std::string& note, bool done);
std::string freeChalkName(const Quilt& quilt);

}  // namespace uq
