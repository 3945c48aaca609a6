#include "app/stack/StackPanel.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QSlider>
#include <QVBoxLayout>
#include <utility>

#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/edit/LayerFacts.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr QSize kThumbnail(88, 64);  // device pixels at most
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
  setMinimumWidth(220);
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
  heading->addSpacing(kGap);
  nearest_ = makeSoftLabel(this);
  nearest_->setText(tr("nearest"));
  nearest_->hide();
  heading->addWidget(nearest_);

  auto* cards = new QWidget;
  cardsLayout_ = new QVBoxLayout(cards);
  cardsLayout_->setContentsMargins(0, 0, 0, 0);
  cardsLayout_->setSpacing(0);
  dropLine_ = new QFrame(cards);
  dropLine_->setObjectName(QStringLiteral("drop-line"));
  dropLine_->hide();
  empty_ = makeSoftLabel(cards);
  cardsLayout_->addWidget(empty_);
  farthest_ = makeSoftLabel(cards);
  farthest_->setText(tr("farthest"));
  farthest_->setAlignment(Qt::AlignRight);
  farthest_->hide();
  cardsLayout_->addWidget(farthest_);
  cardsLayout_->addStretch();
  auto* area = area_ = new QScrollArea(this);
  area->setWidget(cards);
  area->setWidgetResizable(true);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  area->setFocusPolicy(Qt::NoFocus);
  area->viewport()->setAutoFillBackground(false);
  cards->setAutoFillBackground(false);

  facts_ = new LayerSentences(this);
  connect(facts_, &LayerSentences::handsFree, this, &StackPanel::handsFree);

  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap, kGap, kGap, kGap);
  layout->setSpacing(kGap);
  layout->addLayout(heading);
  layout->addWidget(area, 1);
  layout->addWidget(facts_);

  thumbnailTimer_.setSingleShot(true);
  thumbnailTimer_.setInterval(kThumbnailDelay);
  connect(&thumbnailTimer_, &QTimer::timeout, this, &StackPanel::redrawThumbnails);
  refresh();
}

void StackPanel::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  facts_->setSession(session);
  drawn_.clear();
  if (session_) {
    connect(session_, &Session::quiltChanged, this, &StackPanel::refresh);
    connect(session_, &Session::deskChanged, this, &StackPanel::refresh);
  }
  refresh();
}

LayerCard* StackPanel::card(Id layer) const {
  for (LayerCard* one : cards_) {
    if (one->layer() == layer) return one;
  }
  return nullptr;
}

LevelCard* StackPanel::levelCard(Id level) const {
  for (LevelCard* one : levels_) {
    if (one->level() == level) return one;
  }
  return nullptr;
}

Id StackPanel::farthestOn(Id level) const {
  for (const Shared<Layer>& layer : session_->map()->layers) {
    if (layer->folder == level) return layer->id;
  }
  return {};
}

void StackPanel::putBelow(QWidget* widget) { layout()->addWidget(widget); }

void StackPanel::choose(Id layer) { session_->chooseLayer(layer); }

void StackPanel::rebuild(const Map& map) {
  std::vector<std::pair<Id, Id>> wanted;
  for (auto one = map.layers.rbegin(); one != map.layers.rend(); ++one) {
    wanted.emplace_back((*one)->id, (*one)->folder);
  }
  if (wanted == built_ && !needles_.empty()) return;
  built_ = wanted;
  // A card may be in the middle of telling that it was dropped.
  const auto letGo = [](QWidget* old) {
    old->setObjectName({});
    old->hide();
    old->deleteLater();
  };
  for (LayerCard* old : cards_) letGo(old);
  for (LevelCard* old : levels_) letGo(old);
  levels_.clear();
  for (Needle* old : needles_) letGo(old);
  cards_.clear();
  needles_.clear();
  drawn_.clear();
  int place = 0;
  const auto addNeedle = [&](std::size_t index) {
    auto* needle = new Needle(this);
    needle->setObjectName(QStringLiteral("needle-%1").arg(index));
    const QString name =
        index == 0 ? tr("Add a layer behind all")
                   : tr("Add a layer in front of %1").arg(QString::fromStdString(map.layers[index - 1]->name));
    needle->setAccessibleName(name);
    needle->setToolTip(name);
    connect(needle, &QAbstractButton::clicked, this, [this, index] { session_->addLayer(index); });
    needle->setVisible(session_ && session_->map());
    cardsLayout_->insertWidget(place++, needle);
    needles_.push_back(needle);
  };
  for (std::size_t index = map.layers.size(); index > 0; --index) {
    const Id level = map.layers[index - 1]->folder;
    if (!level.empty() && (index == map.layers.size() || map.layers[index]->folder != level)) {
      auto* head = new LevelCard(level, this);
      connect(head, &LevelCard::chosen, this, [this](Id id) { choose(farthestOn(id)); });
      connect(head, &LevelCard::nextPressed, this, [this](Id id) {
        choose(farthestOn(id));
        session_->addLevel();
      });
      connect(head, &LevelCard::renamed, this, [this](Id id, const QString& name) { session_->renameLevel(id, name); });
      connect(head, &LevelCard::nameClosed, this, &StackPanel::handsFree);
      cardsLayout_->insertWidget(place++, head);
      levels_.push_back(head);
    }
    addNeedle(index);
    auto* one = new LayerCard(map.layers[index - 1]->id, !level.empty(), this);
    connect(one, &LayerCard::chosen, this, &StackPanel::choose);
    connect(one, &LayerCard::eyePressed, this, [this](Id id) { toggleEye(*session_, id); });
    connect(one, &LayerCard::aloneWanted, this, [this](Id id) { showAlone(*session_, id); });
    connect(one, &LayerCard::alsoChosen, this, [this](Id id) { session_->alsoChoose(id); });
    connect(one, &LayerCard::parallaxTaken, this, [this] { session_->beginChange(tr("Parallax")); });
    connect(one, &LayerCard::parallaxDragged, this, [this](Id, int hundredths) {
      session_->changeLayers(tr("Parallax"), [hundredths](const Quilt& quilt, LayerAt at) {
        return withParallax(quilt, at, {hundredths, hundredths});
      });
    });
    connect(one, &LayerCard::parallaxLeft, this, [this] { session_->endChange(); });
    connect(one, &LayerCard::lockPressed, this, [this](Id id) { toggleLock(*session_, id); });
    connect(one, &LayerCard::renamed, this, [this](Id id, const QString& name) { session_->renameLayer(id, name); });
    connect(one, &LayerCard::nameClosed, this, &StackPanel::handsFree);
    connect(one, &LayerCard::dragged, this, &StackPanel::showDropLine);
    connect(one, &LayerCard::dropped, this, &StackPanel::drop);
    cardsLayout_->insertWidget(place++, one);
    cards_.push_back(one);
  }
  addNeedle(0);
  nearest_->setVisible(!cards_.empty());
  farthest_->setVisible(!cards_.empty());
}

std::size_t StackPanel::cardsAbove(Id dragged, QPoint at) const {
  std::size_t above = 0;
  for (const LayerCard* one : cards_) {
    if (one->layer() != dragged && one->geometry().center().y() < at.y()) ++above;
  }
  return above;
}

void StackPanel::showDropLine(Id dragged, QPoint at) {
  const std::size_t above = cardsAbove(dragged, at);
  // Below that many of the other cards.
  std::size_t seen = 0;
  int y = cards_.front()->y();
  for (const LayerCard* one : cards_) {
    if (one->layer() == dragged) continue;
    if (seen++ == above) break;
    y = one->geometry().bottom() + 1;
  }
  if (above == 0) y = cards_.front()->y();
  dropLine_->setGeometry(2, y + (above == 0 ? -6 : 4), cards_.front()->width() - 4, 4);
  dropLine_->raise();
  dropLine_->show();
}

void StackPanel::drop(Id dragged, QPoint at) {
  dropLine_->hide();
  const std::size_t above = cardsAbove(dragged, at);
  session_->moveLayer(dragged, cards_.size() - 1 - above);
}

void StackPanel::renameActive() {
  if (LayerCard* one = session_ ? card(session_->desk().landing().layer) : nullptr) one->rename();
}

void StackPanel::renameLevel() {
  const LayerFolder* level = session_ ? session_->level() : nullptr;
  if (LevelCard* one = level ? levelCard(level->id) : nullptr) one->rename();
}

void StackPanel::refresh() {
  const Map* map = session_ ? session_->map() : nullptr;
  rebuild(map ? *map : Map{});
  empty_->setVisible(cards_.empty());
  empty_->setText(map ? tr("This map has no layer yet: the + adds one.")
                      : tr("The layers of a map lie here, nearest on top."));
  const Id active = session_ ? session_->desk().landing().layer : Id{};
  for (LayerCard* one : cards_) {
    const Id id = one->layer();
    one->present(*map->layer(id), id == active, session_->desk().alsoChosen.contains(id),
                 session_->desk().hidden.contains(id), session_->desk().locked.contains(id));
  }
  const LayerFolder* level = session_ ? session_->level() : nullptr;
  for (LevelCard* one : levels_) one->present(*map->layerFolder(one->level()), level && level->id == one->level());
  facts_->refresh();
  if (std::exchange(shownActive_, active) != active && card(active)) {
    // When the sentences have taken their room.
    QMetaObject::invokeMethod(this, &StackPanel::showActive, Qt::QueuedConnection);
  }
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
