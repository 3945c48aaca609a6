#include "app/stack/StackPanel.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QSlider>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <utility>

#include "app/look/Icons.h"
#include "app/look/Panes.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/edit/LayerFacts.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr QSize kThumbnail(88, 64);  // device pixels at most
constexpr int kLeastSentences = 60;   // logical pixels
constexpr int kUsualSentences = 210;
constexpr int kUsualOverview = 82;
constexpr int kUsualCards = 398;
constexpr int kThumbnailDelay = 60;  // milliseconds after the last change

void toggle(std::set<Id>& set, Id id) {
  if (!set.erase(id)) set.insert(id);
}

}  // namespace

void toggleEye(Session& session, Id layer) {
  Desk desk = session.desk();
  toggle(desk.hidden, layer);
  session.setDesk(std::move(desk));
}

void showAlone(Session& session, Id layer) {
  Desk desk = session.desk();
  const Map* map = session.map();
  if (!map) return;
  bool wasAlone = true;
  for (const Shared<Layer>& one : map->layers)
    wasAlone = wasAlone && (one->id == layer || desk.hidden.contains(one->id));
  for (const Shared<Layer>& one : map->layers) {
    if (wasAlone || one->id == layer) {
      desk.hidden.erase(one->id);
    } else {
      desk.hidden.insert(one->id);
    }
  }
  session.setDesk(std::move(desk));
}

void toggleLock(Session& session, Id layer) {
  Desk desk = session.desk();
  toggle(desk.locked, layer);
  session.setDesk(std::move(desk));
}

StackPanel::StackPanel(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("stack"));
  auto* heading = new QHBoxLayout;
  heading->addWidget(makeTitle(tr("Stack"), this));
  others_ = new QSlider(Qt::Horizontal, this);
  others_->setObjectName(QStringLiteral("others-slider"));
  others_->setRange(0, 100);
  others_->setValue(100);
  others_->setFocusPolicy(Qt::TabFocus);
  others_->setAccessibleName(tr("How much of the other layers shows"));
  others_->setToolTip(tr("The other layers: seen at the right, faint, gone at the left"));
  connect(others_, &QSlider::valueChanged, this, [this](int value) {
    if (!session_) return;
    Desk desk = session_->desk();
    desk.fadesOthers = value < 100;
    if (value < 100) desk.othersShown = value;
    session_->setDesk(std::move(desk));
  });
  auto* others = makeSoftLabel(this);
  others->setText(tr("others"));
  others->setWordWrap(false);
  heading->addSpacing(kGap);
  heading->addWidget(others);
  heading->addWidget(others_, 1);
  heights_ = new QToolButton(this);
  heights_->setFixedSize(24, 24);
  heights_->setIconSize({16, 16});
  heights_->setStyleSheet(QStringLiteral("QToolButton { padding: 1px; }"));
  heights_->setToolTip(tr("Colour by height: layers behind the active one turn cool, those in front warm"));
  heights_->setAccessibleName(tr("Colour by height"));
  heights_->setObjectName(QStringLiteral("colour-heights"));
  heights_->setCheckable(true);
  heights_->setFocusPolicy(Qt::TabFocus);
  connect(heights_, &QToolButton::clicked, this, [this](bool on) {
    if (!session_) return;
    Desk desk = session_->desk();
    desk.tinting = on ? Tinting::byHeight : Tinting::no;
    session_->setDesk(std::move(desk));
  });
  heading->addWidget(heights_);

  auto* cards = new QWidget;
  cardsLayout_ = new QVBoxLayout(cards);
  cardsLayout_->setContentsMargins(0, 0, 0, 0);
  cardsLayout_->setSpacing(0);
  dropLine_ = new QFrame(cards);
  dropLine_->setObjectName(QStringLiteral("drop-line"));
  dropLine_->hide();
  empty_ = makeSoftLabel(cards);
  cardsLayout_->addWidget(empty_);
  cardsLayout_->addStretch();
  auto* area = area_ = new QScrollArea;
  area->setObjectName(QStringLiteral("stack-cards"));
  area->setWidget(cards);
  area->setWidgetResizable(true);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  area->setFocusPolicy(Qt::NoFocus);
  area->viewport()->setAutoFillBackground(false);
  cards->setAutoFillBackground(false);

  panes_ = new Panes(Qt::Vertical, this);
  panes_->setObjectName(QStringLiteral("stack-panes"));
  auto* sentences = new QScrollArea(panes_);
  sentences->setWidgetResizable(true);
  sentences->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  sentences->setFocusPolicy(Qt::NoFocus);
  sentences->viewport()->setAutoFillBackground(false);
  auto* told = new QWidget(sentences);
  auto* both = new QVBoxLayout(told);
  both->setContentsMargins(0, 0, 0, 0);
  facts_ = new LayerSentences(told);
  pin_ = new PinSentences(told);
  both->addWidget(facts_);
  both->addWidget(pin_);
  sentences->setWidget(told);
  told->setAutoFillBackground(false);
  pin_->hide();
  connect(pin_, &PinSentences::leadWanted, this, &StackPanel::leadWanted);
  connect(pin_, &PinSentences::handsFree, this, &StackPanel::handsFree);
  sentences->setMinimumHeight(kLeastSentences);
  connect(facts_, &LayerSentences::handsFree, this, &StackPanel::handsFree);

  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, kGap - 2, kGap - 2, kGap - 2);
  layout->setSpacing(kGap / 2);
  layout->addLayout(heading);
  layout->addWidget(panes_, 1);
  panes_->addWidget(area);
  panes_->addWidget(sentences);
  panes_->setStretchFactor(0, 1);
  panes_->setStretchFactor(1, 0);

  thumbnailTimer_.setSingleShot(true);
  thumbnailTimer_.setInterval(kThumbnailDelay);
  connect(&thumbnailTimer_, &QTimer::timeout, this, &StackPanel::redrawThumbnails);
  refresh();
}

void StackPanel::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  facts_->setSession(session);
  pin_->setSession(session);
  drawn_.clear();
  if (session_) {
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      if (change.facts || change.any<Map>() || change.any<Sheet>() || change.any<Doorway>()) refresh();
    });
    connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
      if (change.map || change.layer || change.sight || change.beside || change.tool || change.selection) return refresh();
      // A doorway may be shown as what is in hand.
      if (change.hand && pin_->refresh()) facts_->hide();
    });
  }
  refresh();
}

LayerCard* StackPanel::card(Id layer) const {
  for (LayerCard* one : cards_) {
    if (one->layer() == layer) return one;
  }
  return nullptr;
}

FolderCard* StackPanel::folderCard(Id folder) const {
  for (FolderCard* one : heads_) {
    if (one->folder() == folder) return one;
  }
  return nullptr;
}

Id StackPanel::farthestIn(Id folder) const {
  for (const Shared<Layer>& layer : session_->map()->layers) {
    if (session_->map()->isWithin(layer->folder, folder)) return layer->id;
  }
  return {};
}

QWidget* StackPanel::cards() const { return area_; }

void StackPanel::putBelow(QWidget* widget) {
  panes_->addWidget(widget);
  panes_->setStretchFactor(2, 0);
  panes_->setSizes({kUsualCards, kUsualSentences, kUsualOverview});
}

void StackPanel::choose(Id layer) {
  // What was pressed stays where it is.
  shownActive_ = layer;
  session_->verbs().layers.choose(layer);
}

LayerCard* StackPanel::makeCard(const StackRow& row) {
  auto* one = new LayerCard(row.id, row.depth, this);
  connect(one, &LayerCard::chosen, this, &StackPanel::choose);
  connect(one, &LayerCard::eyePressed, this, [this](Id id) { toggleEye(*session_, id); });
  connect(one, &LayerCard::aloneWanted, this, [this](Id id) { showAlone(*session_, id); });
  connect(one, &LayerCard::alsoChosen, this, [this](Id id) { session_->verbs().layers.alsoChoose(id); });
  connect(one, &LayerCard::parallaxTaken, this, [this] { session_->verbs().bar.take("Parallax"); });
  connect(one, &LayerCard::parallaxDragged, this, [this](Id, int hundredths) {
    session_->verbs().layers.change("Parallax", [hundredths](const Quilt& quilt, LayerAt at) {
      return withParallax(quilt, at, {hundredths, hundredths});
    });
  });
  connect(one, &LayerCard::parallaxLeft, this, [this] { session_->verbs().bar.leave(); });
  connect(one, &LayerCard::lockPressed, this, [this](Id id) { toggleLock(*session_, id); });
  connect(one, &LayerCard::renamed, this, [this](Id id, const QString& name) {
    session_->verbs().layers.rename(id, name.toStdString());
  });
  connect(one, &LayerCard::nameClosed, this, &StackPanel::handsFree);
  connect(one, &LayerCard::dragged, this, &StackPanel::showDropLine);
  connect(one, &LayerCard::dropped, this, &StackPanel::drop);
  cards_.push_back(one);
  return one;
}

FolderCard* StackPanel::makeHead(const StackRow& row) {
  auto* head = new FolderCard(row.id, row.depth, this);
  connect(head, &FolderCard::chosen, this, [this](Id id) { choose(farthestIn(id)); });
  connect(head, &FolderCard::foldPressed, this, [this](Id id) { session_->verbs().folders.foldUp(id); });
  connect(head, &FolderCard::eyePressed, this, [this](Id id) { session_->verbs().folders.toggleEye(id); });
  connect(head, &FolderCard::nextPressed, this, [this](Id id) {
    choose(farthestIn(id));
    session_->verbs().folders.addLevel();
  });
  connect(head, &FolderCard::renamed, this, [this](Id id, const QString& name) {
    session_->verbs().folders.rename(id, name.toStdString());
  });
  connect(head, &FolderCard::nameClosed, this, &StackPanel::handsFree);
  connect(head, &FolderCard::dragged, this, &StackPanel::showDropLine);
  connect(head, &FolderCard::dropped, this, &StackPanel::drop);
  heads_.push_back(head);
  return head;
}

Needle* StackPanel::makeNeedle(StackPlace place, BesideWalker beside, const QString& name) {
  auto* needle = new Needle(this);
  needle->setAccessibleName(name);
  needle->setToolTip(name + QLatin1Char('\n') + tr("A right click offers other kinds of layers"));
  connect(needle, &QAbstractButton::clicked, this, [this, place, beside] { session_->verbs().layers.add(place, beside); });
  connect(needle, &Needle::otherKindsWanted, this, [this, place, beside](QPoint at) { offerKinds(place, beside, at); });
  needle->setVisible(session_ && session_->map());
  needles_.push_back(needle);
  return needle;
}

void StackPanel::offerKinds(StackPlace place, BesideWalker beside, QPoint at) {
  auto* menu = new QMenu(this);
  menu->setObjectName(QStringLiteral("kinds-menu"));
  menu->setAttribute(Qt::WA_DeleteOnClose);
  menu->addAction(tr("Layer of tiles"), this, [this, place, beside] { session_->verbs().layers.add(place, beside); });
  menu->addAction(tr("Layer for pins"), this, [this, place] { session_->verbs().layers.addPins(place.index); });
  QMenu* pictures = menu->addMenu(tr("Backdrop of"));
  for (const Shared<Sheet>& sheet : session_->quilt().sheets()) {
    if (!sheet->collection.empty()) continue;
    pictures->addAction(QString::fromStdString(sheet->name).replace(QLatin1Char('&'), QLatin1String("&&")), this,
                        [this, place, id = sheet->id] { session_->verbs().layers.hangBackdrops({id}, place.index); });
  }
  pictures->setEnabled(!pictures->isEmpty());
  menu->popup(at);
}

void StackPanel::rebuild(const Map& map) {
  std::vector<StackRow> wanted = stackRows(map, session_ ? session_->desk().foldedUp : std::set<Id>());
  const std::size_t walkerPlace = map.walkerPlace();
  if (wanted == rows_ && walkerPlace == walkerPlace_ && !needles_.empty()) return;
  rows_ = std::move(wanted);
  walkerPlace_ = walkerPlace;
  // A card may be in the middle of telling that it was dropped.
  const auto letGo = [](QWidget* old) {
    old->setObjectName({});
    old->hide();
    old->deleteLater();
  };
  for (QWidget* old : rowCards_) letGo(old);
  for (Needle* old : needles_) letGo(old);
  if (walker_) letGo(walker_);
  walker_ = nullptr;
  cards_.clear();
  heads_.clear();
  rowCards_.clear();
  needles_.clear();
  drawn_.clear();
  int place = 0;
  const auto put = [&](QWidget* widget) { cardsLayout_->insertWidget(place++, widget); };
  for (const StackRow& row : rows_) {
    if (!walker_ && row.to <= walkerPlace) {
      walker_ = new WalkerCard(this);
      connect(walker_, &WalkerCard::pressed, this, [this] {
        Desk desk = session_->desk();
        desk.tinting = desk.tinting == Tinting::byWalker ? Tinting::no : Tinting::byWalker;
        session_->setDesk(std::move(desk));
      });
      connect(walker_, &WalkerCard::moved, this, [this](int by) {
        const std::vector<Shared<Layer>>& layers = session_->map()->layers;
        const std::size_t to = walkerPlace_ + static_cast<std::size_t>(by) - 1;
        if (to < layers.size()) session_->verbs().layers.setWalker(layers[to]->id);
      });
      connect(walker_, &WalkerCard::dragged, this, [this](QPoint at) { showDropLine({}, at); });
      connect(walker_, &WalkerCard::dropped, this, [this](QPoint at) { drop({}, at); });
      if (row.to == walkerPlace) {
        Needle* front = makeNeedle({walkerPlace, row.in}, BesideWalker::inFront, tr("Add a layer in front of the Walker"));
        front->setObjectName(QStringLiteral("needle-walker"));
        put(front);
      }
      put(walker_);
    }
    const QString name = QString::fromStdString(row.isFolder ? map.layerFolder(row.id)->name : map.layer(row.id)->name);
    Needle* needle = makeNeedle({row.to, row.in}, walker_ ? BesideWalker::behind : BesideWalker::inFront,
                                tr("Add a layer in front of %1").arg(name));
    needle->setObjectName(row.isFolder ? QStringLiteral("needle-before-%1").arg(name)
                                       : QStringLiteral("needle-%1").arg(row.to));
    put(needle);
    rowCards_.push_back(row.isFolder ? static_cast<QWidget*>(makeHead(row)) : makeCard(row));
    put(rowCards_.back());
  }
  Needle* last = makeNeedle({0, {}}, BesideWalker::asUsual, tr("Add a layer behind all"));
  last->setObjectName(QStringLiteral("needle-0"));
  put(last);
}

std::optional<StackPanel::Gap> StackPanel::gapAt(Id dragged, QPoint at) const {
  const Map& map = *session_->map();
  const bool isFolder = map.layerFolder(dragged) != nullptr;
  std::optional<Gap> nearest;
  int least = 0;
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    const StackRow& row = rows_[i];
    if (row.id == dragged) continue;
    if (isFolder && map.isWithin(row.isFolder ? row.id : row.in, dragged)) continue;
    const int off = at.y() - rowCards_[i]->geometry().center().y();
    if (nearest && std::abs(off) >= least) continue;
    least = std::abs(off);
    nearest = Gap{i, off > 0};
  }
  return nearest;
}

void StackPanel::hideDropLine() {
  dropLine_->hide();
  for (FolderCard* one : heads_) one->offerItself(false);
}

void StackPanel::showDropLine(Id dragged, QPoint at) {
  hideDropLine();
  const auto gap = gapAt(dragged, at);
  if (!gap) return;
  const StackRow& row = rows_[gap->row];
  const QRect card = rowCards_[gap->row]->geometry();
  const bool into = gap->lowerHalf && row.isFolder && !row.foldedUp;
  const StackPlace place = placeAtRow(*session_->map(), row, gap->lowerHalf, dragged);
  if (FolderCard* head = dragged.empty() ? nullptr : folderCard(place.folder)) head->offerItself(true);
  const int left = stackIndent(row.depth + (into ? 1 : 0));
  dropLine_->setGeometry(card.left() + left + 2, gap->lowerHalf ? card.bottom() + 4 : card.top() - 8,
                         card.width() - left - 4, 4);
  dropLine_->raise();
  dropLine_->show();
}

void StackPanel::drop(Id dragged, QPoint at) {
  hideDropLine();
  const auto gap = gapAt(dragged, at);
  if (!gap) return;
  const Map& map = *session_->map();
  const StackPlace place = placeAtRow(map, rows_[gap->row], gap->lowerHalf, dragged);
  if (dragged.empty()) {
    session_->verbs().layers.setWalker(map.layers[std::max<std::size_t>(place.index, 1) - 1]->id);
  } else if (map.layerFolder(dragged)) {
    session_->verbs().folders.move(dragged, place);
  } else {
    session_->verbs().layers.move(dragged, place);
  }
}

void StackPanel::renameActive() {
  if (LayerCard* one = session_ ? card(session_->desk().activeAt().layer) : nullptr) one->rename();
}

void StackPanel::renameLevel() {
  const LayerFolder* level = session_ ? session_->verbs().folders.here() : nullptr;
  if (FolderCard* one = level ? folderCard(level->id) : nullptr) one->rename();
}

void StackPanel::refresh() {
  const Map* map = session_ ? session_->map() : nullptr;
  rebuild(map ? *map : Map{});
  empty_->setVisible(cards_.empty());
  empty_->setText(map ? tr("This map has no layer yet: the + adds one.")
                      : tr("The layers of a map lie here, nearest on top."));
  const Id active = session_ ? session_->desk().activeAt().layer : Id{};
  for (LayerCard* one : cards_) {
    const Id id = one->layer();
    const Desk& desk = session_->desk();
    one->present(*map->layer(id), {*map->layerIndex(id) + 1, id == active, desk.alsoChosen.contains(id),
                                   desk.hidden.contains(id), desk.locked.contains(id)});
  }
  const LayerFolder* level = session_ ? session_->verbs().folders.here() : nullptr;
  for (FolderCard* one : heads_) {
    FolderCard::Shown shown;
    shown.active = level && map->isWithin(level->id, one->folder());
    shown.foldedUp = session_->desk().foldedUp.contains(one->folder());
    shown.hidden = true;
    for (const Shared<Layer>& layer : map->layers) {
      if (!map->isWithin(layer->folder, one->folder())) continue;
      ++shown.layers;
      shown.hidden = shown.hidden && session_->desk().hidden.contains(layer->id);
    }
    one->present(*map->layerFolder(one->folder()), shown);
  }
  if (walker_) {
    const auto name = [&](std::size_t index) {
      return index < map->layers.size() ? QString::fromStdString(map->layers[index]->name) : QString();
    };
    walker_->present(name(walkerPlace_ - 1), name(walkerPlace_), session_->desk().tinting == Tinting::byWalker);
  }
  facts_->refresh();
  if (pin_->refresh()) facts_->hide();
  if (std::exchange(shownActive_, active) != active && card(active)) {
    // When the sentences have taken their room.
    QMetaObject::invokeMethod(this, &StackPanel::showActive, Qt::QueuedConnection);
  }
  heights_->setIcon(icon(QStringLiteral("heights"), Theme::current().ink));
  heights_->setEnabled(map != nullptr);
  heights_->setChecked(session_ && session_->desk().tinting == Tinting::byHeight);
  const QSignalBlocker quiet(others_);
  others_->setEnabled(map != nullptr);
  others_->setValue(session_ && session_->desk().fadesOthers ? session_->desk().othersShown : 100);
  // The first pictures come at once; later ones when the hand rests.
  if (drawn_.empty()) {
    redrawThumbnails();
  } else {
    thumbnailTimer_.start();
  }
}

void StackPanel::showActive() {
  if (LayerCard* one = card(shownActive_)) area_->ensureWidgetVisible(one, 0, kGap);
}

void StackPanel::redrawThumbnails() {
  const Map* map = session_ ? session_->map() : nullptr;
  if (!map) return;
  for (LayerCard* one : cards_) {
    const Layer& layer = *map->layer(one->layer());
    const auto shown = drawn_.find(layer.id);
    if (shown != drawn_.end() && shown->second.is(layer.revision)) continue;
    one->setThumbnail(smallPicture(session_->painter(), session_->quilt(), *map, layer, kThumbnail).picture);
    drawn_[layer.id] = layer.revision;
  }
}

}  // namespace uq
