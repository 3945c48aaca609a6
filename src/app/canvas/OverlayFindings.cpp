#include <QPainterPath>

#include "app/canvas/Overlay.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

namespace {

constexpr double kFindingsFrom = 6;  // logical pixels a cell: smaller ones are not marked

}  // namespace

CellSet Overlay::covered() const {
  Session& session = scene_.session();
  const bool shows = desk().showsCovered && !session.inGesture();
  const Layer* layer = shows ? session.quilt().layer(desk().activeAt()) : nullptr;
  if (!layer || map().grid.cell.h * view_.zoom < kFindingsFrom) return {};
  const CellRect seen = scene_.plane(view_, *map().layer(layer->id)).cellsInSight();
  return coveredCells(session.quilt(), desk().activeAt(), seen, session.verbs().layers.hiding());
}

CellSet Overlay::holes() const {
  Session& session = scene_.session();
  const bool shows = desk().showsHoles && !session.inGesture();
  if (!shows || map().grid.cell.h * view_.zoom < kFindingsFrom) return {};
  return uq::holes(session.quilt(), desk().map, ground_.cellsInSight(), desk().hidden, session.verbs().layers.hiding());
}

std::vector<Forecast::JointAt> Overlay::joints() const {
  if (scene_.session().inGesture()) return {};
  std::vector<Forecast::JointAt> marked = forecast_.joints(pointing_);
  if (desk().showsJoints) {
    for (const Forecast::JointAt& one : forecast_.jointsInSight(view_)) marked.push_back(one);
  }
  return marked;
}

void Overlay::paintFindings(QPainter& painter) const {
  const Theme& theme = Theme::current();
  const auto mark = [&](const CellSet& cells, const Plane& plane, const QColor& colour, Qt::BrushStyle hatch) {
    QPainterPath path;
    cells.forEachStretch([&](CellPos first, int count) {
      for (int i = 0; i < count; ++i) {
        path.addPolygon(QPolygonF(plane.pointsOf(plane.grid().outline({first.x + i, first.y}))));
        path.closeSubpath();
      }
    });
    QColor wash = colour;
    wash.setAlpha(70);
    painter.fillPath(path, wash);
    painter.fillPath(path, QBrush(colour, hatch));
  };
  if (const CellSet cells = covered(); !cells.empty()) {
    const Layer& layer = *map().layer(desk().activeAt().layer);
    mark(cells, scene_.plane(view_, layer), theme.woad, Qt::BDiagPattern);
  }
  if (const CellSet open = holes(); !open.empty()) mark(open, ground_, theme.madder, Qt::FDiagPattern);
}

void Overlay::paintJoints(QPainter& painter) const {
  const std::vector<Forecast::JointAt> marked = joints();
  if (marked.empty()) return;
  const Theme& theme = Theme::current();
  const auto grid = makeGrid(scene_.session().map()->grid);
  const Quilt base = forecast_.ghostBase(pointing_);
  QVector<QLineF> lines;
  for (const auto& [on, joint] : marked) {
    const Layer* layer = base.layer({map().id, on});
    const Plane plane = layer ? scene_.plane(view_, *layer) : ground_;
    // In the plan view the same side lies elsewhere.
    const CellPos beyond = grid->across(joint.cell, joint.side);
    const std::vector<PixelPos> corners = plane.grid().outline(joint.cell);
    for (std::size_t side = 0; side < corners.size(); ++side) {
      if (plane.grid().across(joint.cell, static_cast<int>(side)) != beyond) continue;
      lines << QLineF(plane.pointOf(corners[side]), plane.pointOf(corners[(side + 1) % corners.size()]));
    }
  }
  painter.setPen(QPen(theme.ink, 4));
  painter.drawLines(lines);
  drawStitchLines(painter, lines, theme.weld, theme.paper);
}

}  // namespace uq
