#include "app/workroom/Session.h"

#include "core/edit/Landing.h"

namespace uq {

Result<std::unique_ptr<Session>> Session::open(const std::string& folder, std::shared_ptr<Disk> disk) {
  auto opened = QuiltStore::open(std::move(disk), folder, QuiltStore::Access::write);
  if (!opened) return fail(opened.error());
  auto pictures = SheetPictures::load(opened->quilt, opened->store.disk(), folder, opened->problems);
  return std::unique_ptr<Session>(new Session(std::move(*opened), std::move(pictures)));
}

Session::Session(QuiltStore::Opened opened, SheetPictures pictures)
    : store_(std::move(opened.store)),
      quilt_(std::move(opened.quilt)),
      desk_(validDesk({}, quilt_)),
      painter_(std::move(pictures)),
      problems_(std::move(opened.problems)) {}

void Session::setQuilt(Quilt quilt) {
  quilt_ = std::move(quilt);
  asked_.clear();
  Q_EMIT quiltChanged();
  setDesk(desk_);
}

void Session::setDesk(Desk desk) {
  desk = validDesk(std::move(desk), quilt_);
  if (desk == desk_) return;
  desk_ = std::move(desk);
  Q_EMIT deskChanged();
}

void Session::take(Block block) {
  Desk desk = desk_;
  desk.inHand = std::move(block);
  desk.tool = Tool::brush;
  setDesk(std::move(desk));
}

bool Session::takeFromMap(PixelPos at) {
  if (!map()) return false;
  const auto picked = topmostAt(quilt_, *map(), painter_.pictures(), desk_.hidden, at);
  if (!picked) return false;
  Desk desk = desk_;
  desk.inHand = Block::of(picked->cell);
  desk.tool = Tool::brush;
  desk.activeLayer[desk.map] = picked->layer;
  setDesk(std::move(desk));
  return true;
}

void Session::turnHand(Turning turning) {
  if (!map()) return;
  Desk desk = desk_;
  desk.inHand = desk.inHand.turned(*makeGrid(map()->grid), turning);
  setDesk(std::move(desk));
}

void Session::straightenHand() {
  Desk desk = desk_;
  desk.inHand = desk.inHand.straightened();
  setDesk(std::move(desk));
}

QString Session::whyNoStroke(bool takesAway) const {
  if (const Error* damage = store_.damage(desk_.map)) {
    const QString file = QString::fromStdString(damage->file);
    return tr("This map cannot be changed: %1 is damaged").arg(file.section(QLatin1Char('/'), -1));
  }
  return QString::fromStdString(uq::whyNoStroke(desk_, quilt_, takesAway));
}

QString Session::strokeName(bool takesAway) const {
  const TilesLayer* layer = quilt_.layer(desk_.landing());
  const QString on = layer ? QString::fromStdString(layer->name) : QString();
  if (desk_.tool == Tool::erase) return tr("Erase on %1").arg(on);
  return takesAway ? tr("Take away on %1").arg(on) : tr("Brush on %1").arg(on);
}

void Session::beginStroke(bool takesAway, CellPos at) {
  if (stroke_ || !whyNoStroke(takesAway).isEmpty()) return;
  // Erase takes single cells; taking away with Brush takes the footprint of what is held.
  const bool oneCell = desk_.tool == Tool::erase || desk_.inHand.empty();
  const Block block = oneCell ? Block::of(Cell({1, 0}, {})) : desk_.inHand;
  undoLine_.begin(strokeName(takesAway).toStdString(), desk_.map, quilt_, desk_.landing());
  stroke_.emplace(quilt_, desk_.landing(), takesAway ? Stroke::Kind::takeAway : Stroke::Kind::lay, block);
  moveStroke(at);
}

void Session::moveStroke(CellPos to) {
  if (!stroke_) return;
  stroke_->moveTo(to);
  setQuilt(stroke_->quilt());
}

void Session::endStroke() {
  if (!stroke_) return;
  stroke_.reset();
  undoLine_.commit(quilt_, desk_.landing());
  setQuilt(quilt_);
}

void Session::dropStroke() {
  if (!stroke_) return;
  stroke_.reset();
  setQuilt(undoLine_.cancel());
}

bool Session::confirmed(const UndoLine::Plan& plan, bool back) {
  if (!plan.reachesFarther || asked_ == plan.steps) return true;
  asked_ = plan.steps;
  QStringList names;
  for (const std::string& name : plan.names) names << tr("“%1”").arg(QString::fromStdString(name));
  const QString list = names.join(tr(", "));
  Q_EMIT asksFarther(back ? tr("Undo would take back together: %1. Undo again to do it.").arg(list)
                          : tr("Redo would lay back together: %1. Redo again to do it.").arg(list));
  return false;
}

void Session::follow(const UndoLine::Outcome& outcome) {
  setQuilt(outcome.quilt);
  Desk desk = desk_;
  if (outcome.active.map == desk.map) desk.activeLayer[desk.map] = outcome.active.layer;
  setDesk(std::move(desk));
}

void Session::undo() {
  const auto plan = undoLine_.planBack(desk_.map, quilt_);
  if (plan && confirmed(*plan, true)) follow(undoLine_.takeBack(*plan, desk_.map, quilt_));
}

void Session::redo() {
  const auto plan = undoLine_.planForth(desk_.map, quilt_);
  if (plan && confirmed(*plan, false)) follow(undoLine_.layBack(*plan, quilt_));
}

Result<QuiltStore::Saved> Session::save() {
  endStroke();
  auto saved = store_.save(quilt_);
  Q_EMIT quiltChanged();
  return saved;
}

Result<void> Session::saveAs(const std::string& folder) {
  endStroke();
  if (!store_.isWhole()) {
    return fail(Error{Error::Cause::notPermitted, "parts of this quilt could not be read, and a copy would lose them",
                      store_.folder(), 0, "Nothing was written", "Mend the files that were named, or copy the folder"});
  }
  auto created = QuiltStore::create(realDisk(), folder, quilt_, store_.folder());
  if (!created) return fail(created.error());
  store_ = std::move(created->store);
  Q_EMIT quiltChanged();
  return {};
}

}  // namespace uq
