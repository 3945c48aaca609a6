#include "app/canvas/Forecast.h"

#include <QStringList>
#include <algorithm>

#include "core/edit/Edgings.h"
#include "core/edit/MapFacts.h"
#include "core/edit/Patchwork.h"
#include "core/edit/Turned.h"
#include "core/work/StepNames.h"

namespace uq {

namespace {

// Names may be very long; reasons are told whole.
QString shortened(const QString& text) {
  constexpr qsizetype kLongest = 56;
  return text.size() <= kLongest ? text : text.left(kLongest - 1) + QChar(0x2026);
}

constexpr std::size_t kMostForetold = 65536;  // parts of what is in hand
constexpr double kJointsFrom = 6;             // logical pixels a cell: smaller ones are not marked
constexpr std::size_t kMostJoints = 4096;     // in sight, of a layer

QString joined(const QStringList& parts) { return parts.join(QStringLiteral(" · ")); }

}  // namespace

Forecast::Forecast(const Scene& scene) : scene_(scene), joints_(scene.session().painter().pictures()) {}

const Stroke* Forecast::stroke(const Pointing& pointing) {
  Session& session = scene_.session();
  const bool idle = pointing.doing == Pointing::Doing::nothing && !session.inGesture();
  if (!pointing.cell || selects() || !idle || pointing.onStretch) return nullptr;
  if (!whyNoStroke(session.work(), pointing.takesAway).empty()) return nullptr;
  const Desk& desk = scene_.desk();
  if (desk.inHand.parts().size() > kMostForetold) return nullptr;
  const CellPos at = *pointing.cell;
  const bool same = tried_ && triedAway_ == pointing.takesAway && triedEven_ == pointing.even && triedCorner_ == pointing.corner;
  const bool here = triedAt_ == at || (desk.tool == Tool::fill && tried_ && tried_->shape().contains(at));
  if (!same || !here) {
    tried_.emplace(session.verbs().strokes.tryOut(session.verbs().strokes.askAt(at, pointing.takesAway, pointing.even, pointing.corner)));
    triedAt_ = at;
    triedCorner_ = pointing.corner;
    triedAway_ = pointing.takesAway;
    triedEven_ = pointing.even;
  }
  return &*tried_;
}

const Stroke* Forecast::strokeShown(const Pointing& pointing) {
  const Stroke* now = underWay();
  return now ? now : stroke(pointing);
}

CellSet Forecast::footprint(const Pointing& pointing) {
  CellSet cells;
  if (!pointing.cell) return cells;
  const Stroke* foretold = stroke(pointing);
  if (foretold && !foretold->cells().empty()) return foretold->cells();
  if (foretold && !foretold->shape().empty()) return foretold->shape();
  const InHand& held = scene_.desk().inHand;
  const bool lays = !selects() && !pointing.takesAway && scene_.desk().tool == Tool::brush;
  if (lays && held.parts().size() > kMostForetold) {
    // The box around it, without trying it out.
    const auto grid = makeGrid(scene_.session().map()->grid);
    const CellRect all = held.wholeExtent();
    const SidePos grip = grid->toSide(*pointing.cell);
    return boxOf(*grid, grid->fromSide(grip + SidePos{all.x0, all.y0}), grid->fromSide(grip + SidePos{all.x1 - 1, all.y1 - 1}),
                 BoxShape::alongTheGrid, scene_.session().map()->bounds);
  }
  cells.insert(*pointing.cell);
  return cells;
}

GhostCells Forecast::ghost(const Pointing& pointing) {
  GhostCells ghost{scene_.desk().activeAt().layer, {}};
  const Stroke* foretold = stroke(pointing);
  if (!foretold || foretold->plan().takesAway || foretold->landing().layers.empty()) return ghost;
  if ((!foretold->plan().hand.others.empty() && !foretold->plan().hand.joins()) || foretold->cells().count() > kMostGhost) return ghost;
  const LayerAt at = foretold->landing().layers.front();
  if (!foretold->quilt().layer(at)) return ghost;
  ghost.layer = at.layer;
  foretold->cells().forEachStretch([&](CellPos first, int count) {
    for (int i = 0; i < count; ++i) {
      const CellPos cell{first.x + i, first.y};
      const Laid laid = foretold->laidAt(cell);
      ghost.cells.push_back({cell, laid.cell, scene_.isFromAbove() ? 0 : laid.lift});
    }
  });
  return ghost;
}

Quilt Forecast::ghostBase(const Pointing& pointing) {
  const Stroke* foretold = stroke(pointing);
  if (!foretold || !foretold->landing().makesLayer) return scene_.quilt();
  return scene_.asShown(foretold->landing().quilt);
}

const Layer* Forecast::landing(const Pointing& pointing) {
  const Stroke* shown = strokeShown(pointing);
  if (shown && !shown->landing().layers.empty()) return shown->landing().quilt.layer(shown->landing().layers.front());
  return scene_.session().quilt().layer(scene_.desk().activeAt());
}

int Forecast::lift(bool takesAway) const {
  return scene_.isFromAbove() || selects() || takesAway ? 0 : scene_.desk().lift;
}

QString Forecast::whyNothing(const Pointing& pointing) {
  if (selects()) return {};
  const QString reason = QString::fromStdString(whyNoStroke(scene_.session().work(), pointing.takesAway));
  if (!reason.isEmpty()) return reason;
  const Stroke* foretold = stroke(pointing);
  if (foretold && !foretold->refusal().empty()) return QString::fromStdString(foretold->refusal());
  if (foretold && foretold->cells().empty() && !foretold->stopsAt().empty()) return QString::fromStdString(foretold->stopsAt());
  const bool outside = !scene_.desk().selection().empty() && foretold && foretold->cells().empty();
  return outside ? tr("Outside the selection") : QString();
}

QString Forecast::strokeName(bool takesAway, const Landing* landing) const {
  const Desk& desk = scene_.desk();
  return shortened(QString::fromStdString(uq::strokeName(desk, scene_.session().quilt(), desk.tool, takesAway, landing)));
}

QString Forecast::words(const Pointing& pointing) {
  using Doing = Pointing::Doing;
  if (pointing.doing == Doing::stroking || pointing.doing == Doing::refitting) {
    const Stroke* shown = strokeShown(pointing);
    return shown ? wordsOfStroke(*shown) : QString();
  }
  if (!pointing.cell || pointing.doing != Doing::nothing || pointing.looksAround) return {};
  if (selects()) return wordsOfSelecting(*pointing.cell);
  if (const QString reason = whyNothing(pointing); !reason.isEmpty()) return reason;
  if (pointing.onStretch) return tr("Drag an end to fit it anew · , and . change its look");
  return wordsOfPress(pointing);
}

QString Forecast::reached(const Stroke& stroke) const {
  QStringList parts;
  std::set<Id> maps = stroke.mapsLaidOn();
  maps.erase(scene_.desk().map);
  if (!maps.empty()) parts << tr("on %1, too").arg(QString::fromStdString(mapNames(scene_.session().quilt(), maps)));
  if (!stroke.mapsLaidOn().contains(scene_.desk().map) && !parts.isEmpty()) {
    parts = {tr("on %1").arg(QString::fromStdString(mapNames(scene_.session().quilt(), maps)))};
  }
  if (const std::string why = stroke.stopsAt(); !why.empty()) parts << QString::fromStdString(why);
  return joined(parts);
}

QString Forecast::wordsOfSelecting(CellPos cell) const {
  const Desk& desk = scene_.desk();
  const Layer* layer = scene_.session().quilt().layer(desk.activeAt());
  if (desk.selection().contains(cell) && layer) {
    return shortened(QString::fromStdString(verbName(desk, scene_.session().quilt(), "Move")));
  }
  const SelectBy by = desk.options.selectBy;
  if (by == SelectBy::touching || by == SelectBy::everywhere) {
    return tr("%1 · %n cell(s)", nullptr, static_cast<int>(scene_.session().verbs().selection.alike(cell).count())).arg(strokeName(false));
  }
  return strokeName(false);
}

QString Forecast::wordsOfPress(const Pointing& pointing) {
  const Stroke* foretold = stroke(pointing);
  QStringList parts{strokeName(pointing.takesAway, foretold ? &foretold->landing() : nullptr)};
  if (const Edging* edging = scene_.session().quilt().edging(scene_.desk().inHand.edging)) {
    parts << QString::fromStdString(materialName(*edging, scene_.desk().inHand.material));
  }
  if (const QString text = height(*pointing.cell, pointing.takesAway); !text.isEmpty()) parts << text;
  if (const QString text = foretold ? reached(*foretold) : QString(); !text.isEmpty()) parts << text;
  const Tool tool = scene_.desk().tool;
  if (foretold && tool == Tool::fill) {
    parts << tr("%n cell(s)", nullptr, static_cast<int>(foretold->cells().count()));
  }
  if (foretold && (tool == Tool::brush || tool == Tool::erase)) {
    if (const QString text = mended(*foretold); !text.isEmpty()) parts << text;
  }
  if (tool == Tool::erase || pointing.takesAway) return joined(parts);
  const InHand& held = scene_.desk().inHand;
  if (foretold && tool == Tool::brush && scene_.desk().options.width > 1 && held.manner == Manner::asItIs &&
      held.parts().size() > 1) {
    const auto each = static_cast<std::int64_t>(held.parts().size());
    const std::int64_t copies = (foretold->cells().count() + each - 1) / each;
    if (copies > 1) parts << tr("%1 copies").arg(copies);
  }
  if (const auto rows = rowsInHand(scene_.session().quilt(), held)) parts << tr("%n row(s) high", nullptr, *rows);
  if (!foretold && held.parts().size() > kMostForetold) {
    parts << tr("%n cell(s)", nullptr, static_cast<int>(held.parts().size()));
  }
  if (!scene_.desk().leads.empty()) parts << QString::fromStdString(scene_.desk().leads);
  const auto grid = makeGrid(scene_.map()->grid);
  if (const int count = withoutOtherSide(*grid, scene_.desk().inHand.block); count > 0) {
    parts << (count == 1 ? tr("1 tile has no other side") : tr("%1 tiles have no other side").arg(count));
  }
  if (const std::vector<JointAt> loose = joints(pointing); !loose.empty()) {
    const TileRef tile = loose.front().joint.between;
    const Sheet* sheet = scene_.session().quilt().sheetAt(tile.slot);
    const QString name = sheet ? QString::fromStdString(sheet->tileName(tile.number)) : QString();
    parts << tr("%n side(s) loose, %1 belongs there", nullptr, static_cast<int>(loose.size())).arg(name);
  }
  return joined(parts);
}

// Shapes say how large they are.
QString Forecast::wordsOfStroke(const Stroke& stroke) const {
  if (!stroke.refusal().empty()) return QString::fromStdString(stroke.refusal());
  const Tool tool = stroke.plan().tool;
  const bool byPath = (tool == Tool::brush || tool == Tool::erase) && !stroke.stretchBox();
  const qint64 kept = stroke.kept();
  const QString keeps = kept > 0 ? tr("%n kept", nullptr, static_cast<int>(kept)) : QString();
  const QString beyond = reached(stroke);
  if (byPath || tool == Tool::fill) return keeps.isEmpty() || beyond.isEmpty() ? keeps + beyond : joined({keeps, beyond});
  const GridKind kind = scene_.map()->grid.kind;
  CellRect all = stroke.shape().bounds();
  if (stroke.stretchBox()) all = *stroke.stretchBox();
  const bool asSeen = scene_.desk().box.value_or(usualBox(kind)) == BoxShape::asSeen;
  QString size = tr("%1 × %2").arg(all.width()).arg(all.height());
  if (tool == Tool::line && !stroke.stretchBox()) {
    size.clear();
  } else if (asSeen && !stroke.stretchBox() && kind != GridKind::orthogonal) {
    // Rows of shifted cells are not equally long.
    const CellSet& cells = stroke.shape();
    const CellRect row{all.x0, all.y0, all.x1, all.y0 + 1};
    const CellRect next{all.x0, all.y0 + 1, all.x1, all.y0 + 2};
    const auto first = cells.intersected(CellSet(row)).count();
    const auto second = cells.intersected(CellSet(next)).count();
    if (all.height() > 1 && first != second) size = tr("%1/%2 × %3").arg(first).arg(second).arg(all.height());
  }
  QStringList parts{strokeName(stroke.plan().takesAway, &stroke.landing())};
  const QString count = tr("%n cell(s)", nullptr, static_cast<int>(stroke.shape().count()));
  parts << (size.isEmpty() ? count : tr("%1 = %2").arg(size, count));
  if (const auto rows = rowsInHand(scene_.session().quilt(), stroke.plan().hand); rows && !stroke.plan().takesAway) parts << tr("%n row(s) high", nullptr, *rows);
  if (const QString beside = mended(stroke); !beside.isEmpty()) parts << beside;
  if (!keeps.isEmpty()) parts << keeps;
  if (!beyond.isEmpty()) parts << beyond;
  return joined(parts);
}

QString Forecast::mended(const Stroke& stroke) {
  if (!stroke.plan().hand.joins()) return {};
  const std::int64_t beside = stroke.cells().without(stroke.shape()).count();
  return beside > 0 ? tr("%n mended beside", nullptr, static_cast<int>(beside)) : QString();
}

QString Forecast::height(CellPos cell, bool takesAway) const {
  const Layer* layer = scene_.session().quilt().layer(scene_.desk().activeAt());
  const Map& whole = *scene_.session().map();
  const int level = layer ? whole.levelOf(*layer) : 0;
  const int lifted = selects() || takesAway ? 0 : scene_.desk().lift;
  if (level == 0 && lifted == 0) return {};
  // Beyond the edge cells are those of the map that is sewn there.
  const Quilt& quilt = scene_.session().quilt();
  const auto patch = whole.bounds.contains(cell) ? std::nullopt : Patchwork::across(quilt, whole.id).at(cell);
  const CellRect& counted = patch ? quilt.map(patch->map)->bounds : whole.bounds;
  const CellPos own = patch ? patch->onMap(cell) : cell;
  QString text = tr("%1, %2").arg(own.x - counted.x0).arg(own.y - counted.y0);
  if (level > 0) text += tr(", up %1").arg(level);
  if (level < 0) text += tr(", down %1").arg(-level);
  if (lifted > 0) text += tr(", lifted %1 px").arg(lifted);
  return text;
}

std::vector<Forecast::JointAt> Forecast::joints(const Pointing& pointing) {
  const Stroke* foretold = stroke(pointing);
  if (!foretold || foretold->cells().empty()) return {};
  const CellRect box = foretold->cells().bounds().grown(1);
  if (std::int64_t{box.width()} * box.height() > kMostGhost) return {};
  const Quilt after = foretold->quilt();
  const Map* here = after.map(scene_.desk().map);
  if (!here) return {};
  JointBook& book = joints_.bookFor(after, here->grid);
  std::vector<JointAt> marked;
  for (std::size_t i = 0; i < here->layers.size(); ++i) {
    const Id layer = here->layers[i]->id;
    const std::vector<LayerAt>& laid = foretold->landing().layers;
    if (std::find(laid.begin(), laid.end(), LayerAt{here->id, layer}) == laid.end()) continue;
    for (const LooseJoint& joint : looseJoints(book, *here, i, box, kMostGhost)) {
      const bool own = foretold->cells().contains(joint.cell) ||
                       foretold->cells().contains(book.sides().grid().across(joint.cell, joint.side));
      if (own) marked.push_back({layer, joint});
    }
  }
  return marked;
}

std::vector<Forecast::JointAt> Forecast::jointsInSight(const MapView& view) {
  const Map& here = *scene_.session().map();
  if (std::min(here.grid.cell.w, here.grid.cell.h) * view.zoom < kJointsFrom) return {};
  JointBook& book = joints_.bookFor(scene_.session().quilt(), here.grid);
  std::vector<JointAt> marked;
  for (std::size_t i = 0; i < here.layers.size(); ++i) {
    const Id layer = here.layers[i]->id;
    if (scene_.desk().hidden.contains(layer)) continue;
    const CellRect seen = scene_.plane(view, scene_.map()->layers[i].read()).cellsInSight();
    for (const LooseJoint& joint : looseJoints(book, here, i, seen, kMostJoints)) marked.push_back({layer, joint});
  }
  return marked;
}

}  // namespace uq
