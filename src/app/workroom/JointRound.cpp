#include "app/workroom/JointRound.h"

#include <QPointer>

namespace uq {

namespace {

constexpr std::size_t kMostJoints = 10'000;  // of a layer

}  // namespace

void JointRound::next(Session& session) {
  const Map* map = session.map();
  if (!map) return;
  const Map* known = of_.map(map_);
  if (map_ == map->id && known && *known == *map && of_.sheets() == session.quilt().sheets()) return go(session);
  if (work_->isRunning()) return Q_EMIT said(tr("%1 Ask again when that has ended.").arg(work_->title()));
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
  Q_EMIT said(tr("Loose joint %1 of %2, on %3: %4 belongs there.")
                  .arg(next_ % found_.size() + 1)
                  .arg(found_.size())
                  .arg(QString::fromStdString(map.layer(layer)->name),
                       sheet ? QString::fromStdString(sheet->tileName(joint.between.number)) : QString()));
  next_ = (next_ + 1) % found_.size();
}

}  // namespace uq
