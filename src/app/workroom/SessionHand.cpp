// What of Session is the work of the hand: taking, strokes, chance, and the verbs of the selection.
#include <QClipboard>
#include <QGuiApplication>
#include <QMimeData>
#include <algorithm>

#include "app/workroom/Session.h"
#include "core/document/PlanView.h"
#include "core/cells/CellShapes.h"
#include "core/edit/ArrangeStamps.h"
#include "core/edit/FindStretch.h"
#include "core/edit/LayCells.h"
#include "core/edit/Selected.h"
#include "core/edit/Turned.h"
#include "core/store/ClipText.h"
#include "core/store/HandText.h"
#include "core/work/EditList.h"
#include "raster/Blend.h"

namespace uq {

namespace {

constexpr std::int64_t kMostLaidAtOnce = 200'000;  // cells of a shape that are laid while it is dragged
constexpr std::int64_t kMostTriedOut = 20'000;     // and before it is pressed
constexpr int kMostCopiedPixels = 16'000'000;      // of the picture for other programs

// What was copied last, in any window.
InHand& clipboard() {
  static InHand copied;
  return copied;
}
Id& clipboardOf() {
  static Id quilt;
  return quilt;
}
// Tells what was copied last from what any other program put on the clipboard, without fetching it.
constexpr const char* kCopyMark = "application/x-urban-quilt-copy";
QByteArray& copyMark() {
  static QByteArray mark;
  return mark;
}
bool isOwnCopy(const QMimeData* data) {
  return data && !copyMark().isEmpty() && data->data(QLatin1String(kCopyMark)) == copyMark();
}

// Whether the desktop's clipboard holds copied cells. A foreign clipboard is fetched once, when it has changed.
bool holdsCells() {
  static std::optional<bool> known;
  static const bool follows = [] {
    QObject::connect(QGuiApplication::clipboard(), &QClipboard::dataChanged, qApp, [] { known.reset(); });
    return true;
  }();
  Q_UNUSED(follows);
  if (!known) {
    const QMimeData* data = QGuiApplication::clipboard()->mimeData();
    known = data && (data->hasFormat(QLatin1String(kCopyMark)) ||
                     (data->hasText() && isClipText(data->text().left(64).toStdString())));
  }
  return *known;
}

QString toolName(Tool tool) {
  switch (tool) {
    case Tool::brush: return Session::tr("Brush");
    case Tool::erase: return Session::tr("Erase");
    case Tool::box: return Session::tr("Box");
    case Tool::fill: return Session::tr("Fill");
    case Tool::select: return Session::tr("Select");
    case Tool::line: return Session::tr("Line");
    case Tool::oval: return Session::tr("Oval");
  }
  return {};
}

}  // namespace

Covers Session::covers() {
  const Map* here = map();
  if (!here) return {};
  return [this, shape = here->grid](TileRef tile) { return cover_.covers(quilt(), shape, tile); };
}

void Session::chooseLayer(Id layer) {
  Desk desk = withChosenLayer(this->desk(), {this->desk().map, layer});
  desk.alsoChosen.clear();
  setDesk(std::move(desk));
}

void Session::take(InHand thing) {
  if (awaitedPartner_ && thing.isOneTile()) {
    setPartner(*awaitedPartner_, thing.parts().front().cell.tile());
    return;
  }
  awaitedPartner_.reset();
  heldBefore_.reset();
  Desk desk = this->desk();
  desk.lift = 0;
  if (desk.tool == Tool::erase || desk.tool == Tool::select) desk.tool = Tool::brush;
  desk = landingFor(std::move(desk), quilt(), thing, covers());
  desk.hold(std::move(thing));
  setDesk(std::move(desk));
}

std::optional<Session::Picked> Session::picked(PixelPos at, int behind) {
  if (!map()) return std::nullopt;
  const Quilt shown = desk().planView ? inPlan(quilt(), desk().map) : quilt();
  const Map& shownMap = *shown.map(desk().map);
  const std::vector<PickedTile> tiles = painter_.tilesAt(shown, shownMap, desk().hidden, at);
  if (tiles.empty()) return std::nullopt;
  const PickedTile& tile = tiles[static_cast<std::size_t>(behind) % tiles.size()];
  const Layer& layer = *shownMap.layer(tile.layer);
  const PixelPos plane = shownMap.planeOf(layer);
  const PixelRect place = painter_.placeOf(shown, shownMap, tile.at, tile.cell, layer.lifts.at(tile.at));
  return Picked{tile, {place.x + plane.x, place.y + plane.y, place.w, place.h}};
}

PixelRect Session::pictureToTake(PixelPos at, int behind) {
  const auto found = picked(at, behind);
  return found ? found->covers : PixelRect();
}

std::optional<Cell> Session::cellToTake(PixelPos at, int behind) {
  const auto found = picked(at, behind);
  return found ? std::optional(found->tile.cell) : std::nullopt;
}

PixelRect Session::takeFromMap(PixelPos at, int behind) {
  const auto found = picked(at, behind);
  if (!found) return {};
  takeCell(found->tile.layer, found->tile.at);
  return found->covers;
}

bool Session::takeStampAt(CellPos at) {
  const auto found = findStamp(quilt(), desk().landing(), at);
  if (!found) return false;
  take(quilt().stamp(found->stamp)->held);
  return true;
}

void Session::takeCell(Id layer, CellPos at) {
  const Layer* from = quilt().layer({desk().map, layer});
  const Cell cell = from ? from->cells.at(at) : Cell();
  if (cell.empty()) return;
  if (awaitedPartner_) return setPartner(*awaitedPartner_, cell.tile());
  heldBefore_.reset();
  Desk desk = this->desk();
  desk.hold(InHand(Block::of(cell), map()->grid.kind));
  if (desk.tool == Tool::erase || desk.tool == Tool::select) desk.tool = Tool::brush;
  desk.activeLayer[desk.map] = layer;
  desk.obeysLayer = false;
  setDesk(std::move(desk));
  // What lies above its layer is gone on with at its height.
  setLift(from->lifts.at(at));
}

void Session::takeCells(const CellSet& cells, bool allSeen, bool cuts) {
  if (!map() || inStroke()) return;
  Desk asked = desk();
  asked.options.allLayers = allSeen;
  if (allSeen) asked.locked.clear();
  const std::vector<LayerAt> layers = layersOfVerb(asked, quilt());
  auto copy = copyOf(quilt(), layers, desk().landing(), cells);
  if (!copy || copy->empty()) {
    Q_EMIT refused(copy ? tr("Nothing to take here") : tr("More than a million cells cannot be held at once"));
    return;
  }
  if (cuts) {
    if (!takesChange(layers)) return;
    if (!madeStep(onLayer(tr("Cut")), clearCells(quilt(), layers, cells), desk().landing())) return;
  }
  heldBefore_.reset();
  awaitedPartner_.reset();
  Desk desk = this->desk();
  desk.lift = 0;
  desk.tool = Tool::brush;
  desk.obeysLayer = false;
  if (!copy->others.empty()) {
    // The layer on which its own block lay.
    for (const LayerAt at : layers) {
      const auto block = copyOf(quilt(), at, cells);
      const Layer* layer = quilt().layer(at);
      if (block && *block == copy->block && layer->role == copy->role) desk.activeLayer[desk.map] = at.layer;
    }
  }
  desk.hold(std::move(*copy));
  setDesk(std::move(desk));
}

void Session::gather(const Block& more) {
  if (more.empty()) return;
  if (desk().inHand.empty()) return take(InHand(more, map() ? map()->grid.kind : GridKind::orthogonal));
  changeHand(desk().inHand.gathering(more));
  Desk desk = this->desk();
  if (desk.tool == Tool::erase || desk.tool == Tool::select) desk.tool = Tool::brush;
  setDesk(std::move(desk));
}

void Session::changeHand(InHand changed) {
  Desk desk = this->desk();
  // It takes its own place among what was held.
  const auto own = std::find(desk.held.begin(), desk.held.end(), desk.inHand);
  if (own != desk.held.end()) *own = changed;
  desk.inHand = std::move(changed);
  setDesk(std::move(desk));
}

void Session::turnHand(Turning turning) {
  if (!map()) return;
  std::string why;
  const auto ask = [&](const Block& block) {
    if (why.empty()) why = whyNoTurning(quilt(), block, turning);
    return block;
  };
  desk().inHand.changed(ask);
  if (!why.empty()) {
    Q_EMIT refused(QString::fromStdString(why));
    return;
  }
  const auto grid = makeGrid(map()->grid);
  InHand turned = desk().inHand.changed([&](const Block& block) { return turnedBlock(quilt(), *grid, block, turning); });
  // The ends go round with the block.
  StretchEnds& ends = turned.ends;
  switch (turning) {
    case Turning::mirrorAcross: std::swap(ends.left, ends.right); break;
    case Turning::mirrorDown: std::swap(ends.top, ends.bottom); break;
    case Turning::right:
      ends = {ends.bottom, ends.top, ends.left, ends.right, ends.stepDown, ends.stepAcross, ends.shuffles};
      break;
    case Turning::left:
      ends = {ends.top, ends.bottom, ends.right, ends.left, ends.stepDown, ends.stepAcross, ends.shuffles};
      break;
  }
  Desk desk = this->desk();
  desk.inHand = std::move(turned);
  setDesk(std::move(desk));
}

void Session::straightenHand() {
  Desk desk = this->desk();
  desk.inHand = desk.inHand.changed([](const Block& block) { return block.straightened(); });
  desk.inHand.turnsByChance = false;
  setDesk(std::move(desk));
}

void Session::setManner(Manner manner) {
  if (!desk().inHand.empty()) changeHand(desk().inHand.inManner(manner));
}

void Session::setChance(bool on) {
  InHand hand = desk().inHand;
  hand.turnsByChance = on;
  changeHand(std::move(hand));
}

QString Session::whyNoStroke(bool takesAway, std::optional<Tool> tool) const {
  if (const Error* damage = store_->damage(desk().map)) {
    const QString file = QString::fromStdString(damage->file);
    return tr("This map cannot be changed: %1 is damaged").arg(file.section(QLatin1Char('/'), -1));
  }
  if (!tool) return QString::fromStdString(uq::whyNoStroke(desk(), quilt(), takesAway));
  Desk asked = desk();
  asked.tool = *tool;
  return QString::fromStdString(uq::whyNoStroke(asked, quilt(), takesAway));
}

QString Session::strokeName(bool takesAway, const Landing* landing, std::optional<Tool> other) const {
  const Tool tool = other.value_or(desk().tool);
  const Layer* layer = landing && !landing->layers.empty() ? landing->quilt.layer(landing->layers.front())
                                                                : quilt().layer(desk().landing());
  const QString on = layer ? QString::fromStdString(layer->name) : QString();
  const bool away = takesAway && tool != Tool::erase && tool != Tool::select;
  if (away) return tr("Take away on %1").arg(on);
  QString name = tr("%1 on %2").arg(toolName(tool), on);
  if (landing && landing->makesLayer) name = tr("%1 on a new layer").arg(toolName(tool));
  if (landing && !landing->keeps.empty()) name += tr(", keeps %1").arg(QString::fromStdString(landing->keeps));
  return name;
}

void Session::nextChance() {
  // Any number will do that is not the one before; ids of layers come from a source of their own.
  std::hash<Id> bits;
  seed_ = bits(ids_.next());
  idSeed_ = bits(ids_.next());
}

StrokePlan Session::plan(const StrokeAsk& ask) {
  if (seed_ == 0) nextChance();
  StrokePlan plan = planOf(desk(), quilt(), ask.takesAway);
  if (ask.tool) plan.tool = *ask.tool;
  plan.seed = seed_;
  plan.ids = idSeed_;
  plan.everywhere = ask.everywhere;
  plan.covers = covers();
  plan.given = ask.given;
  if (!ask.within.empty()) {
    plan.within = plan.within.empty() ? ask.within : plan.within.intersected(ask.within);
  }
  return plan;
}

Stroke Session::tryOut(const StrokeAsk& ask) {
  StrokePlan planned = plan(ask);
  planned.mostLaid = kMostTriedOut;
  Stroke stroke(quilt(), std::move(planned));
  for (const CellPos cell : ask.path) stroke.moveTo(cell, ask.even);
  return stroke;
}

void Session::beginStroke(const StrokeAsk& ask) {
  if (inStroke() || ask.path.empty() || !whyNoStroke(ask.takesAway, ask.tool).isEmpty()) return;
  StrokePlan planned = plan(ask);
  const bool outside = !ask.within.empty() && planned.within.empty();
  if (outside) return;
  planned.mostLaid = kMostLaidAtOnce;
  if (!begin(strokeName(ask.takesAway, nullptr, ask.tool), Gesture::painting(Stroke(quilt(), std::move(planned))))) return;
  for (const CellPos cell : ask.path) moveStroke(cell, ask.even);
}

void Session::moveStroke(CellPos to, bool even) {
  if (!stroke()) return;
  work_.gesture()->moveTo(to, even);
  showGesture();
}

void Session::endStroke() {
  if (!inStroke()) return;
  std::optional<LastStroke> last;
  QString name;
  if (Gesture& gesture = *work_.gesture(); gesture.stroke()) {
    gesture.finish();
    const Stroke& stroke = *gesture.stroke();
    if (!stroke.refusal().empty()) Q_EMIT refused(QString::fromStdString(stroke.refusal()));
    if (!gesture.moves().empty()) lastPoint_ = {desk().map, gesture.moves().back().first};
    last = LastStroke{stroke.before(), stroke.plan(), gesture.moves(), stroke.stretchBox(), gesture.quilt()};
    last->plan.mostLaid = 0;
    const Landing& landing = stroke.landing();
    name = strokeName(stroke.plan().takesAway, &landing, stroke.plan().tool);
    nextChance();
  }
  const auto made = work_.finish(name.toStdString());
  if (!made) {
    tellRefusal(made.error());
  } else if (last) {
    last_ = std::move(last);
  }
  gestureHasEnded();
}

void Session::dropStroke() {
  if (!inStroke()) return;
  work_.drop();
  gestureHasEnded();
}

std::optional<CellPos> Session::lastPoint() const {
  const bool here = lastPoint_ && lastPoint_->first == desk().map;
  return here ? std::optional(lastPoint_->second) : std::nullopt;
}

bool Session::lastStands() const { return last_ && last_->after == quilt() && last_->plan.layer.map == desk().map; }

std::optional<Session::Repeated> Session::lastStroke() const {
  if (!lastStands() || !last_->plan.given.empty()) return std::nullopt;
  return Repeated{last_->before, editList({stepOf(last_->before, last_->plan, last_->moves, last_->box)})};
}

QString Session::whyNoThrow() const {
  if (!desk().selection().empty()) return {};
  if (!lastStands()) return tr("Nothing was just laid that could come out otherwise");
  return last_->plan.hand.byChance() && !last_->plan.takesAway ? QString()
                                                               : tr("Chance decided nothing in the last stroke");
}

void Session::throwAgain() {
  if (inStroke()) return;
  nextChance();
  if (!desk().selection().empty()) {
    const std::vector<LayerAt> layers = layersOfVerb(desk(), quilt());
    if (!takesChange(layers)) return;
    Quilt after = quilt();
    for (const LayerAt at : layers) after = thrownAgain(after, at, desk().selection(), desk().inHand, seed_);
    if (after == quilt()) {
      Q_EMIT refused(tr("No tile of a mix is selected: gather look-alikes first, or press R for turns"));
      return;
    }
    mapStep(onLayer(tr("Throw again")), std::move(after), desk().landing().layer);
    return;
  }
  if (const QString why = whyNoThrow(); !why.isEmpty()) {
    Q_EMIT refused(why);
    return;
  }
  LastStroke last = std::move(*last_);
  last_.reset();
  last.plan.seed = seed_;
  Stroke stroke(last.before, last.plan);
  for (const auto& [cell, even] : last.moves) stroke.moveTo(cell, even);
  if (last.box) stroke.refit(*last.box);
  stroke.finish();
  if (!madeStep(onLayer(tr("Throw again")), stroke.quilt(), desk().landing())) return;
  last.after = quilt();
  last_ = std::move(last);
}

const InHand* Session::stretchLaid() const {
  if (stroke()) return stroke()->stretchBox() ? &stroke()->plan().hand : nullptr;
  return lastStands() && last_->box ? &last_->plan.hand : nullptr;
}

std::optional<CellRect> Session::stretchBox() const {
  return stroke() ? stroke()->stretchBox() : lastStands() ? last_->box : std::nullopt;
}

void Session::beginRefit() {
  if (inStroke() || !lastStands() || !last_->box) return;
  const LastStroke last = *last_;
  Stroke stroke(last.before, last.plan);
  for (const auto& [cell, even] : last.moves) stroke.moveTo(cell, even);
  (void)begin(onLayer(tr("Stretch")), Gesture::painting(std::move(stroke), last.moves));
}

void Session::refit(CellRect box) {
  if (!stroke()) return;
  work_.gesture()->refit(box);
  if (stroke()->refusal().empty()) showGesture();
}

void Session::stepLookAlike(StretchPart part, int steps) {
  const auto box = stretchBox();
  const InHand* laid = stretchLaid();
  if (!box || !laid) return;
  InHand next = withLookAlike(quilt(), *laid, part, steps);
  if (next == *laid) {
    Q_EMIT refused(tr("No kept mix has look-alikes of this part: gather them and keep them with K"));
    return;
  }
  const auto laidAnew = [&](const Quilt& before, StrokePlan plan, const std::vector<std::pair<CellPos, bool>>& moves) {
    plan.hand = std::move(next);
    Stroke stroke(before, std::move(plan));
    for (const auto& [cell, even] : moves) stroke.moveTo(cell, even);
    if (stroke.stretchBox() != box) stroke.refit(*box);
    return stroke;
  };
  if (const Stroke* under = stroke()) {
    work_.gesture()->relay(laidAnew(under->before(), under->plan(), work_.gesture()->moves()));
    return showGesture();
  }
  LastStroke last = std::move(*last_);
  last_.reset();
  const Stroke stroke = laidAnew(last.before, last.plan, last.moves);
  last.plan = stroke.plan();
  if (!madeStep(onLayer(tr("Another look")), stroke.quilt(), desk().landing())) return;
  last.after = quilt();
  last_ = std::move(last);
  Q_EMIT deskChanged();
}

bool Session::recogniseStretch(CellPos at) {
  if (!map() || inStroke()) return false;
  const auto found = findStretch(quilt(), desk().landing(), at, desk().inHand);
  if (!found) return false;
  const auto grid = makeGrid(map()->grid);
  LastStroke last;
  const CellRect& box = found->box;
  last.before = clearCells(
      quilt(), desk().landing(),
      boxOf(*grid, grid->fromSide({box.x0, box.y0}), grid->fromSide({box.x1 - 1, box.y1 - 1}), BoxShape::alongTheGrid));
  last.plan = layingOn(desk().landing(), found->stretch);
  last.plan.tool = Tool::box;
  last.plan.seed = seed_;
  last.moves = {{grid->fromSide({box.x0, box.y0}), false}, {grid->fromSide({box.x1 - 1, box.y1 - 1}), false}};
  last.box = box;
  last.after = quilt();
  last_ = std::move(last);
  Q_EMIT deskChanged();
  return true;
}

const InHand& Session::copied() { return clipboard(); }

QString Session::onLayer(const QString& verb) const {
  const Layer* layer = quilt().layer(desk().landing());
  if (desk().options.allLayers && !desk().selection().empty()) return tr("%1 on all layers").arg(verb);
  return tr("%1 on %2").arg(verb, layer ? QString::fromStdString(layer->name) : QString());
}

bool Session::takesChange(std::span<const LayerAt> layers) {
  QString why;
  if (layers.empty()) why = tr("Every layer is hidden or locked");
  for (const LayerAt at : layers) {
    Desk asked = desk();
    asked.activeLayer[at.map] = at.layer;
    if (why.isEmpty()) why = QString::fromStdString(uq::whyNoStroke(asked, quilt(), true));
  }
  if (why.isEmpty() && store_->damage(desk().map)) why = whyNoStroke(true);
  if (!why.isEmpty()) Q_EMIT refused(why);
  return why.isEmpty();
}

void Session::step(const QString& verb, const std::function<Quilt()>& edit, std::optional<CellSet> selection) {
  if (inStroke() || !takesChange(layersOfVerb(desk(), quilt()))) return;
  (void)madeStep(onLayer(verb), edit(), desk().landing(), std::move(selection));
}

bool Session::mayHoldAll() {
  if (!map()) return false;
  if (!isTooWide(map()->bounds)) return true;
  Q_EMIT refused(tr("This map is too large for that: select a part of it by hand"));
  return false;
}

void Session::selectAll() {
  if (!mayHoldAll()) return;
  Desk desk = this->desk();
  desk.tool = Tool::select;
  desk.select(CellSet(map()->bounds));
  setDesk(std::move(desk));
}

void Session::growSelection() {
  if (!map()) return;
  Desk desk = this->desk();
  const CellSet more = grown(*makeGrid(map()->grid), desk.selection());
  desk.select(more.intersected(CellSet(more.bounds().intersected(map()->bounds))));
  setDesk(std::move(desk));
}

void Session::shrinkSelection() {
  if (!map()) return;
  Desk desk = this->desk();
  CellSet less = shrunk(*makeGrid(map()->grid), desk.selection());
  if (less.empty()) {
    Q_EMIT refused(tr("Nothing would be left of the selection"));
    return;
  }
  desk.select(std::move(less));
  setDesk(std::move(desk));
}

void Session::invertSelection() {
  if (!mayHoldAll()) return;
  Desk desk = this->desk();
  desk.tool = Tool::select;
  desk.select(CellSet(map()->bounds).without(desk.selection()));
  setDesk(std::move(desk));
}

void Session::deleteSelected() {
  step(tr("Delete"), [this] { return clearCells(quilt(), layersOfVerb(desk(), quilt()), desk().selection()); });
}

void Session::copySelected() {
  auto hand = copyOf(quilt(), layersOfVerb(desk(), quilt()), desk().landing(), desk().selection());
  if (!hand) {
    Q_EMIT refused(tr("More than a million cells cannot be held at once"));
  } else if (hand->empty()) {
    Q_EMIT refused(tr("Nothing is painted there on this layer"));
  } else {
    clipboard() = std::move(*hand);
    clipboardOf() = quilt().facts().id;
    auto* data = new QMimeData;
    std::hash<Id> bits;
    copyMark() = QByteArray::number(static_cast<qulonglong>(bits(ids_.next())));
    data->setData(QLatin1String(kCopyMark), copyMark());
    std::size_t parts = 0;
    clipboard().forEachCell([&parts](Cell) { ++parts; });
    if (parts <= kMostSpeltParts) data->setText(QString::fromStdString(clipText(clipboard(), quilt())));
    // The picture of the cells, for other programs.
    Map part = *map();
    const auto grid = makeGrid(part.grid);
    part.bounds = desk().selection().bounds();
    const std::vector<LayerAt> layers = layersOfVerb(desk(), quilt());
    std::erase_if(part.layers, [&](const Shared<Layer>& layer) {
      return std::none_of(layers.begin(), layers.end(), [&](LayerAt at) { return at.layer == layer->id; });
    });
    const PixelRect pixels = painter_.extentOf(quilt(), part, runsOf(part));
    if (std::int64_t{pixels.w} * pixels.h <= kMostCopiedPixels) {
      data->setImageData(painter_.draw(quilt(), part, runsOf(part), ViewScale{1}, ViewScale{1}.toDevice(pixels)));
    }
    QGuiApplication::clipboard()->setMimeData(data);
    Q_EMIT deskChanged();
  }
}

void Session::cutSelected() {
  const auto hand = copyOf(quilt(), layersOfVerb(desk(), quilt()), desk().landing(), desk().selection());
  copySelected();
  if (!hand || hand->empty()) return;
  step(tr("Cut"), [this] { return clearCells(quilt(), layersOfVerb(desk(), quilt()), desk().selection()); });
}

void Session::nudgeSelected(SidePos by) {
  if (!map()) return;
  step(
      tr("Move"), [this, by] { return moveCells(quilt(), layersOfVerb(desk(), quilt()), desk().selection(), by); },
      movedBy(*map(), desk().selection(), by));
}

void Session::turnSelected(Turning turning) {
  if (!map() || desk().selection().empty()) return;
  const std::vector<LayerAt> layers = layersOfVerb(desk(), quilt());
  for (const LayerAt at : layers) {
    const auto block = copyOf(quilt(), at, desk().selection());
    const std::string why = block ? whyNoTurning(quilt(), *block, turning) : "More than a million cells are too many";
    if (why.empty()) continue;
    Q_EMIT refused(QString::fromStdString(why));
    return;
  }
  TurnedCells turned = turnCells(quilt(), layers, desk().selection(), turning, turnGrip_);
  turnGrip_ = turned.grip;
  step(
      tr("Turn"), [&] { return turned.quilt; }, turned.selected);
}

void Session::fillSelected() {
  if (desk().selection().empty()) return;
  if (const QString why = whyNoStroke(false, Tool::fill); !why.isEmpty()) {
    Q_EMIT refused(why);
    return;
  }
  StrokeAsk ask;
  ask.given = desk().selection();
  ask.path = {{ask.given.bounds().x0, ask.given.bounds().y0}};
  ask.tool = Tool::fill;
  beginStroke(ask);
  endStroke();
}

void Session::selectedToLayer(int steps) {
  const Map* here = map();
  const auto index = here ? here->layerIndex(desk().landing().layer) : std::nullopt;
  const auto wanted = static_cast<std::ptrdiff_t>(index.value_or(0)) + steps;
  if (!index || wanted < 0 || wanted >= static_cast<std::ptrdiff_t>(here->layers.size())) {
    Q_EMIT refused(steps > 0 ? tr("This is the nearest layer") : tr("This is the farthest layer"));
    return;
  }
  selectedToLayer(here->layers[static_cast<std::size_t>(wanted)]->id);
}

void Session::selectedToLayer(Id layer) {
  const LayerAt from = desk().landing();
  const Layer* target = quilt().layer({from.map, layer});
  if (!target || from.layer == layer || desk().selection().empty()) return;
  const std::vector<LayerAt> both{from, {from.map, layer}};
  if (!takesChange(both)) return;
  mapStep(tr("Move to %1").arg(QString::fromStdString(target->name)),
          moveToLayer(quilt(), from, layer, desk().selection()), layer);
}

void Session::duplicateSelected() {
  auto hand = copyOf(quilt(), layersOfVerb(desk(), quilt()), desk().landing(), desk().selection());
  if (!hand || hand->empty()) {
    Q_EMIT refused(hand ? tr("Nothing is painted there on this layer")
                        : tr("More than a million cells cannot be held at once"));
    return;
  }
  const InHand before = heldBefore_.value_or(desk().inHand);
  Desk desk = this->desk();
  desk.inHand = std::move(*hand);
  desk.tool = Tool::brush;
  desk.lift = 0;
  desk.select({});
  heldBefore_ = before;
  setDesk(std::move(desk));
}

QString Session::whyNoPaste() const {
  if (!clipboard().empty() && clipboardOf() == quilt().facts().id) return {};
  return holdsCells() ? QString() : tr("Nothing was copied yet");
}

void Session::paste() {
  InHand thing = clipboard();
  const QMimeData* data = QGuiApplication::clipboard()->mimeData();
  const bool sameQuilt = clipboardOf() == quilt().facts().id;
  if (!(sameQuilt && isOwnCopy(data))) {
    const std::string text = data && data->hasText() ? data->text().toStdString() : std::string();
    if (isClipText(text)) {
      auto read = readClip(text, quilt());
      if (!read) {
        Q_EMIT refused(QString::fromStdString(read.error().reason));
        return;
      }
      thing = std::move(*read);
    } else if (!sameQuilt) {
      Q_EMIT refused(tr("More than 180,000 cells can only be pasted into the quilt that they are from"));
      return;
    }
  }
  if (thing.empty()) return;
  const InHand before = heldBefore_.value_or(desk().inHand);
  awaitedPartner_.reset();
  Desk desk = this->desk();
  desk.lift = 0;
  desk.tool = Tool::brush;
  if (!desk.obeysLayer) desk = landingFor(std::move(desk), quilt(), thing, covers());
  desk.hold(std::move(thing));
  heldBefore_ = before;
  setDesk(std::move(desk));
}

void Session::dropPaste() {
  if (!heldBefore_) return;
  Desk desk = this->desk();
  desk.inHand = std::move(*heldBefore_);
  heldBefore_.reset();
  setDesk(std::move(desk));
}

void Session::dropWork() {
  if (inStroke()) return dropStroke();
  if (awaitedPartner_) return awaitPartner({});
  if (holdsPaste()) return dropPaste();
  Desk desk = this->desk();
  if (desk.selection().empty()) {
    desk.tool = Tool::select;
  } else {
    desk.select({});
  }
  setDesk(std::move(desk));
}

void Session::beginMove() {
  std::vector<LayerAt> layers = layersOfVerb(desk(), quilt());
  if (inStroke() || desk().selection().empty() || !takesChange(layers)) return;
  (void)begin(onLayer(tr("Move")), Gesture::moving(quilt(), std::move(layers), desk().selection()));
}

void Session::moveSelected(SidePos by) {
  Gesture* gesture = work_.gesture();
  if (!gesture || gesture->kind() != Gesture::Kind::move) return;
  gesture->moveBy(by);
  showGesture();
}

void Session::deleteCell(Id layer, CellPos at) {
  const LayerAt place{desk().map, layer};
  const Layer* on = quilt().layer(place);
  if (!on || !takesChange(std::span(&place, 1))) return;
  const CellChange gone{at, Cell()};
  mapStep(tr("Delete on %1").arg(QString::fromStdString(on->name)), layCells(quilt(), place, std::span(&gone, 1)),
          desk().landing().layer);
}

void Session::moveCell(Id layer, CellPos at, Id to) {
  const std::vector<LayerAt> both{{desk().map, layer}, {desk().map, to}};
  const Layer* target = quilt().layer(both.back());
  if (!target || !takesChange(both)) return;
  mapStep(tr("Move to %1").arg(QString::fromStdString(target->name)),
          moveToLayer(quilt(), both.front(), to, CellSet({at.x, at.y, at.x + 1, at.y + 1})), to);
}

void Session::keepStamp() {
  const Stamp* own = quilt().stamp(desk().inHand.stamp);
  if (own && own->held == desk().inHand) {
    Q_EMIT refused(tr("%1 is kept already").arg(QString::fromStdString(own->name)));
    return;
  }
  InHand hand = desk().inHand;
  // So that it comes down where it lay: on a layer of this role.
  const Layer* layer = quilt().layer(desk().landing());
  if (hand.role.empty() && layer) hand.role = roleOf(quilt(), hand, covers());
  const StampKept kept = uq::keepStamp(quilt(), hand, {}, ids_);
  if (kept.stamp.empty()) return;
  const QString name = QString::fromStdString(kept.quilt.stamp(kept.stamp)->name);
  if (madeQuiltStep(tr("Keep %1").arg(name), kept.quilt)) changeHand(quilt().stamp(kept.stamp)->held);
}

void Session::correctStamp(Id id) {
  const Stamp* stamp = quilt().stamp(id);
  if (!stamp) return;
  if (madeQuiltStep(tr("Correct %1").arg(QString::fromStdString(stamp->name)),
                uq::correctStamp(quilt(), id, desk().inHand))) {
    changeHand(quilt().stamp(id)->held);
  }
}

void Session::renameStamp(Id id, const QString& name) {
  const Stamp* stamp = quilt().stamp(id);
  if (!stamp) return;
  quiltStep(tr("Rename %1").arg(QString::fromStdString(stamp->name)), uq::renameStamp(quilt(), id, name.toStdString()));
}

void Session::deleteStamp(Id id) {
  const Stamp* stamp = quilt().stamp(id);
  if (stamp) quiltStep(tr("Delete %1").arg(QString::fromStdString(stamp->name)), uq::deleteStamp(quilt(), id));
}

void Session::moveStamp(Id id, Id before) {
  const Stamp* stamp = quilt().stamp(id);
  if (stamp) quiltStep(tr("Move %1").arg(QString::fromStdString(stamp->name)), movedOnShelf(quilt(), id, before));
}

SwapAsk Session::swapAsk(TileRef from, TileRef to, SwapIn in) const {
  return {from, to, in, desk().landing(), desk().selection()};
}

std::int64_t Session::swap(TileRef from, TileRef to, SwapIn in) {
  if (inStroke()) return 0;
  const SwapAsk ask = swapAsk(from, to, in);
  if (in == SwapIn::selection || in == SwapIn::layer) {
    if (!takesChange(std::span(&ask.at, 1))) return 0;
  }
  Swapped swapped = swapTiles(quilt(), ask);
  if (swapped.cells == 0) {
    Q_EMIT refused(tr("That tile lies nowhere there"));
    return 0;
  }
  const Sheet* sheet = quilt().sheetAt(from.slot);
  const QString name = sheet ? QString::fromStdString(sheet->tileName(from.number)) : tr("a tile");
  return madeStep(tr("Swap %1").arg(name), std::move(swapped.quilt), desk().landing()) ? swapped.cells : 0;
}

}  // namespace uq
