#include "app/workroom/JointRound.h"

#include <QPointer>

#include "core/sheets/CloseJoints.h"

namespace uq {

namespace {

constexpr std::size_t kMostJoints = 10'000;  // of a layer

}  // namespace

bool JointRound::isAsFound(const Session& session) const {
  const Map* map = session.map();
  const Map* known = of_.map(map_);
  return map && map_ == map->id && known && *known == *map && of_.sheets() == session.quilt().sheets();
}

bool JointRound::mayLook(const Session& session) {
  if (!session.map()) return false;
  if (work_->isRunning()) Q_EMIT said(tr("%1 Ask again when that has ended.").arg(work_->title()));
  return !work_->isRunning();
}

void JointRound::next(Session& session) {
  if (session.map() && isAsFound(session)) return go(session);
  if (!mayLook(session)) return;
  const Map* map = session.map();
  isAtOne_ = false;
  work_->start<std::vector<MapCanvas::JointAt>>(
      LongWork::Kind::look, tr("Looking for loose joints…"),
      [quilt = session.quilt(), id = map->id, pictures = session.painter().pictures()](Progress& progress) {
        const Map& here = *quilt.map(id);
        JointFinder finder(pictures);
        std::vector<MapCanvas::JointAt> found;
        for (std::size_t i = here.layers.size(); i-- > 0;) {
          for (const LooseJoint& joint :
               looseJoints(finder.bookFor(quilt, here.grid), here, i, here.bounds, kMostJoints, &progress)) {
            found.push_back({here.layers[i]->id, joint});
          }
        }
        return found;
      },
      [this, self = QPointer(this), at = QPointer(&session), quilt = session.quilt(),
       id = map->id](std::vector<MapCanvas::JointAt> found) {
        if (!self || !at || work_->isCancelled()) return;
        of_ = quilt;
        map_ = id;
        found_ = std::move(found);
        next_ = 0;
        if (at->map() && at->map()->id == id) go(*at);
      });
}

void JointRound::close(Session& session) {
  if (!isAtOne_ || found_.empty() || !isAsFound(session)) return next(session);
  const MapCanvas::JointAt at = found_[(next_ + found_.size() - 1) % found_.size()];
  const Map& map = *session.map();
  const std::size_t index = map.layerIndex(at.layer).value_or(0);
  JointFinder finder(session.painter().pictures());
  const auto closing = closingOf(finder.bookFor(session.quilt(), map.grid), map, index, at.joint);
  if (!closing) {
    return Q_EMIT said(tr("What belongs there would leave another joint loose: this one needs a hand. Shift+J goes on."));
  }
  Layer after = map.layers[index].read();
  after.lay(closing->at, closing->cell, after.laidAt(at.joint.cell).lift);
  const Quilt before = session.quilt();
  session.verbs().layers.takeCells("Lay what belongs on " + after.name, {{map.id, at.layer}},
                                   before.with(LayerAt{map.id, at.layer}, LayerCells(after)));
  if (session.quilt() != before) goOnWith(session, at);
}

void JointRound::goOnWith(Session& session, const MapCanvas::JointAt& closed) {
  of_ = session.quilt();
  const Map& map = *session.map();
  const std::size_t index = map.layerIndex(closed.layer).value_or(0);
  JointFinder finder(session.painter().pictures());
  JointBook& book = finder.bookFor(of_, map.grid);
  // What was laid closes its neighbours, too.
  std::erase_if(found_, [&](const MapCanvas::JointAt& one) {
    if (one.layer != closed.layer) return false;
    const LayerCells& layer = map.layers[index].read();
    const CellPos beyond = book.sides().grid().across(one.joint.cell, one.joint.side);
    return !book.between(layer.cells.at(one.joint.cell), one.joint.side, layer.cells.at(beyond));
  });
  if (next_ > 0) --next_;
  isAtOne_ = false;
  if (!found_.empty()) return go(session);
  canvas_->setLit({});
  Q_EMIT said(tr("That was the last loose joint of this map."));
}

void JointRound::closeAll(Session& session) {
  if (!mayLook(session)) return;
  struct All {
    Map map;
    std::vector<LayerAt> layers;
    std::int64_t cells = 0;
    std::size_t left = 0;
  };
  work_->start<All>(
      LongWork::Kind::look, tr("Laying what belongs at loose joints…"),
      [quilt = session.quilt(), desk = session.desk(), pictures = session.painter().pictures()](Progress& progress) {
        All all{*quilt.map(desk.map), {}, 0, 0};
        JointFinder finder(pictures);
        const std::set<Id> shut = planOf(desk, quilt, false).shut;
        for (std::size_t i = all.map.layers.size(); i-- > 0 && !progress.isCancelled();) {
          const Id layer = all.map.layers[i]->id;
          if (shut.contains(layer) || !all.map.layers[i]->holdsTiles()) continue;
          Closed closed = closeJoints(finder.bookFor(quilt, all.map.grid), all.map, i, all.map.bounds,
                                      desk.selection(), kMostJoints, &progress);
          all.left += closed.left;
          if (closed.cells == 0) continue;
          all.cells += closed.cells;
          all.layers.push_back({all.map.id, layer});
          all.map = std::move(closed.map);
        }
        return all;
      },
      [this, self = QPointer(this), at = QPointer(&session), before = session.quilt()](All all) {
        if (!self || !at || work_->isCancelled()) return;
        at->whenHandsFree([this, self, at, before, all = std::move(all)] {
          if (!self || !at) return;
          const Map* now = at->quilt().map(all.map.id);
          if (!now || *now != *before.map(all.map.id) || at->desk().map != all.map.id) {
            return Q_EMIT said(tr("The map was changed meanwhile, and stays as it is: ask again."));
          }
          const QString left = all.left > 0 ? tr("%1 need a hand: Shift+J goes to them.").arg(all.left) : QString();
          if (all.cells == 0) return Q_EMIT said(left.isEmpty() ? tr("No loose joint on this map.") : left);
          at->verbs().layers.takeCells("Lay what belongs at loose joints", all.layers, at->quilt().with(all.map));
          Q_EMIT said(tr("%n cell(s) laid that belonged there. %1", nullptr, static_cast<int>(all.cells)).arg(left));
        });
      });
}

void JointRound::go(Session& session) {
  if (found_.empty()) return Q_EMIT said(tr("No loose joint on this map."));
  const LooseJoint& joint = found_[next_ % found_.size()].joint;
  const Id layer = found_[next_ % found_.size()].layer;
  const Map& map = *session.map();
  const PixelPos plane = map.planeOf(*map.layer(layer));
  const PixelRect box = makeGrid(map.grid)->cellBox(joint.cell);
  canvas_->centreOn({plane.x + box.x + box.w / 2.0, plane.y + box.y + box.h / 2.0});
  Desk desk = session.desk();
  desk.showsJoints = true;
  session.setDesk(std::move(desk));
  session.verbs().layers.choose(layer);
  const CellPos at = joint.cell;
  canvas_->setLit(CellSet(CellRect{at.x, at.y, at.x + 1, at.y + 1}));
  const Sheet* sheet = session.quilt().sheetAt(joint.between.slot);
  isAtOne_ = true;
  Q_EMIT said(tr("Loose joint %1 of %2, on %3: %4 belongs there; Ctrl+J lays it.")
                  .arg(next_ % found_.size() + 1)
                  .arg(found_.size())
                  .arg(QString::fromStdString(map.layer(layer)->name),
                       sheet ? QString::fromStdString(sheet->tileName(joint.between.number)) : QString()));
  next_ = (next_ + 1) % found_.size();
}

}  // namespace uq
