#include "app/stack/PinSentences.h"

#include <QCheckBox>
#include <QComboBox>
#include <QCompleter>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStringListModel>
#include <QVBoxLayout>

#include "app/look/SentenceLayout.h"
#include "app/look/Widgets.h"
#include "core/edit/Doorways.h"
#include "core/edit/Pins.h"

namespace uq {

namespace {

constexpr std::size_t kMostListedEnds = 2'000;  // that are listed; others are reached by the cord

QString shown(std::string_view words) { return QString::fromUtf8(words.data(), static_cast<qsizetype>(words.size())); }

}  // namespace

PinSentences::PinSentences(QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("pin-sentences"));
  title_ = makeSoftLabel(this);
  const auto line = [](QWidget* on, const char* object, const QString& name, const QString& hint) {
    auto* field = new QLineEdit(on);
    field->setObjectName(QLatin1String(object));
    field->setAccessibleName(name);
    field->setPlaceholderText(hint);
    return field;
  };
  name_ = line(this, "pin-name", tr("Name of the spot"), tr("Add a name"));
  connect(name_, &QLineEdit::editingFinished, this, [this] {
    if (name_->isModified() && session_) session_->verbs().pins.rename(shown_.pin, name_->text().trimmed().toStdString());
    name_->setModified(false);
  });
  connect(name_, &QLineEdit::returnPressed, this, &PinSentences::handsFree);
  const auto button = [](QWidget* on, const char* object, const QString& words) {
    auto* made = new QPushButton(words, on);
    made->setObjectName(QLatin1String(object));
    return made;
  };
  lead_ = button(this, "pin-lead", tr("Door from here…"));
  connect(lead_, &QPushButton::clicked, this, &PinSentences::leadWanted);
  way_ = new QWidget(this);
  const auto combo = [](QWidget* on, const char* object, const QString& name) {
    auto* box = new QComboBox(on);
    box->setObjectName(QLatin1String(object));
    box->setAccessibleName(name);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(8);
    return box;
  };
  lies_ = combo(this, "pin-lies", tr("Where the spot lies"));
  connect(lies_, &QComboBox::activated, this, [this](int) {
    session_->verbs().pins.layAlong(shown_.pin, edgeFromName(lies_->currentData().toString().toStdString()));
  });
  target_ = combo(way_, "pin-target", tr("Where it leads"));
  connect(target_, &QComboBox::activated, this, [this](int index) {
    if (index < 0 || index >= static_cast<int>(targets_.size())) return;
    change([&](Doorway& one) {
      const bool leads = one.from == shown_;
      (leads ? one.to : one.from) = targets_[static_cast<std::size_t>(index)];
      const PinAt to = leads ? one.to : one.from;
      const Map& map = *session_->quilt().map(to.map);
      const Heading facing = proposedArrival(session_->quilt(), shown_, to.map, middleOf(*map.pin(to.pin), map.bounds));
      if (leads) one.arriving = facing;
      else if (one.back) one.back = facing;
    });
  });
  facing_ = combo(way_, "pin-facing", tr("Which way one faces on arrival"));
  facingBack_ = combo(way_, "pin-facing-back", tr("Which way one faces on coming back"));
  const auto faces = [this](QComboBox* box, bool there) {
    connect(box, &QComboBox::activated, this, [this, box, there](int) {
      const auto heading = headingFromName(box->currentData().toString().toStdString());
      if (!heading) return;
      change([&](Doorway& one) {
        const bool leads = one.from == shown_;
        if (leads == there) one.arriving = *heading;
        else one.back = *heading;
      });
    });
  };
  faces(facing_, true);
  faces(facingBack_, false);
  back_ = new QCheckBox(tr("and back"), way_);
  back_->setObjectName(QStringLiteral("pin-back"));
  connect(back_, &QCheckBox::clicked, this, [this](bool on) {
    change([&](Doorway& one) {
      if (on) one.back = proposedReturn(session_->quilt(), one.from);
      else one.back.reset();
    });
  });
  meant_ = new QCheckBox(tr("One way is meant so"), way_);
  meant_->setObjectName(QStringLiteral("pin-meant-so"));
  connect(meant_, &QCheckBox::clicked, this, [this](bool on) { change([&](Doorway& one) { one.meantSo = on; }); });
  needs_ = line(way_, "pin-needs", tr("What it takes to go through"), tr("nothing"));
  // One for good: it may be at work while what it knows changes.
  known_ = new QStringListModel(this);
  auto* completer = new QCompleter(known_, this);
  completer->setCaseSensitivity(Qt::CaseInsensitive);
  needs_->setCompleter(completer);
  sound_ = line(way_, "pin-sound", tr("What is heard"), tr("no sound"));
  note_ = line(way_, "pin-note", tr("A note"), tr("Add a note"));
  const auto says = [this](QLineEdit* field, std::string Doorway::*part) {
    connect(field, &QLineEdit::editingFinished, this, [this, field, part] {
      if (field->isModified()) change([&](Doorway& one) { one.*part = field->text().trimmed().toStdString(); });
      field->setModified(false);
    });
    connect(field, &QLineEdit::returnPressed, this, &PinSentences::handsFree);
  };
  says(needs_, &Doorway::needs);
  says(sound_, &Doorway::sound);
  says(note_, &Doorway::note);
  looks_ = button(way_, "pin-looks", {});
  connect(looks_, &QPushButton::clicked, this, [this] {
    change([&](Doorway& one) {
      if (one.picture) return one.picture.reset();
      const InHand& hand = session_->desk().inHand;
      if (!hand.isOneTile()) return;
      const TileRef tile = hand.parts().front().cell.tile();
      if (const Sheet* sheet = session_->quilt().sheetAt(tile.slot)) one.picture = {sheet->id, tile.number};
    });
  });
  through_ = button(way_, "pin-through", tr("Go through"));
  connect(through_, &QPushButton::clicked, this, [this] {
    session_->verbs().pins.follow(shown_);
    Q_EMIT handsFree();
  });
  out_ = button(way_, "pin-out", tr("Take the way out"));
  connect(out_, &QPushButton::clicked, this, [this] {
    if (const Doorway* one = doorway()) session_->verbs().pins.removeDoorway(one->id);
    Q_EMIT handsFree();
  });
  others_ = makeSoftLabel(this);
  begins_ = button(this, "pin-begins", tr("The player begins here"));
  connect(begins_, &QPushButton::clicked, this, [this] {
    session_->verbs().pins.beginHere(std::nullopt);
    Q_EMIT handsFree();
  });

  const auto word = [this](QWidget* on, const QString& words) { return new QLabel(words, on); };
  auto* ways = new QVBoxLayout(way_);
  ways->setContentsMargins(0, 0, 0, 0);
  ways->addLayout(new SentenceLayout({word(way_, tr("Leads to")), target_}));
  ways->addLayout(new SentenceLayout({word(way_, tr("facing")), facing_}));
  ways->addLayout(new SentenceLayout({back_, word(way_, tr("facing")), facingBack_}));
  ways->addWidget(meant_);
  ways->addLayout(new SentenceLayout({word(way_, tr("Needs")), needs_}));
  ways->addLayout(new SentenceLayout({word(way_, tr("Looks like")), looks_}));
  ways->addLayout(new SentenceLayout({word(way_, tr("Sounds like")), sound_}));
  ways->addWidget(note_);
  ways->addLayout(new SentenceLayout({through_, out_}));
  auto* all = new QVBoxLayout(this);
  all->addWidget(title_);
  all->addWidget(name_);
  all->addLayout(new SentenceLayout({word(this, tr("Lies on")), lies_}));
  all->addWidget(way_);
  all->addWidget(others_);
  all->addWidget(lead_, 0, Qt::AlignLeft);
  all->addWidget(begins_, 0, Qt::AlignLeft);
  all->addStretch();
}

const Doorway* PinSentences::doorway() const {
  const std::vector<Id> all = doorwaysOf(session_->quilt(), shown_);
  return all.empty() ? nullptr : session_->quilt().listed<Doorway>(all.front());
}

template <class Change>
void PinSentences::change(Change&& what) {
  const Doorway* now = session_ ? doorway() : nullptr;
  if (!now) return;
  Doorway next = *now;
  what(next);
  if (!(next == *now)) session_->verbs().pins.change(next);
}

void PinSentences::fillHeadings(QComboBox* box, Id id, Heading now) {
  const Map* map = session_->quilt().map(id);
  box->clear();
  if (!map) return;
  for (const Heading one : headingsOf(map->grid.kind)) box->addItem(shown(headingName(one)), shown(headingName(one)));
  if (!sideOf(map->grid.kind, now)) box->addItem(tr("%1, which this grid has not").arg(shown(headingName(now))), shown(headingName(now)));
  box->setCurrentIndex(box->findData(shown(headingName(now))));
}

void PinSentences::fillPlaces(const Pin& pin) {
  const Map& map = *session_->quilt().map(shown_.map);
  const CellRect cells = cellsOf(pin, map.bounds);
  lies_->clear();
  lies_->addItem(pin.edge                    ? tr("a cell")
                 : pin.over == PixelSize{1, 1} ? tr("cell %1, %2").arg(cells.x0 - map.bounds.x0).arg(cells.y0 - map.bounds.y0)
                                             : tr("%1 × %2 cells").arg(cells.width()).arg(cells.height()));
  for (const MapEdge edge : kMapEdges) {
    lies_->addItem(tr("the %1").arg(QString::fromStdString(edgeText(map.grid.kind, edge))), shown(edgeName(edge)));
  }
  lies_->setCurrentIndex(pin.edge ? 1 + static_cast<int>(*pin.edge) : 0);
}

void PinSentences::showLooks(const Doorway& doorway) {
  const auto picture = doorway.picture;
  const auto slot = picture ? session_->quilt().slots().find(picture->sheet) : std::nullopt;
  const auto image = slot ? session_->painter().pictures().turned(session_->quilt(), Cell({*slot, picture->tile}, {})) : std::nullopt;
  looks_->setIcon(image ? QIcon(QPixmap::fromImage(*image)) : QIcon());
  looks_->setText(!picture ? tr("what is in hand") : image ? tr("this, not a button") : tr("a tile that is gone"));
  looks_->setToolTip(picture ? tr("Show it as a button again") : tr("Show the doorway as the tile in hand, in place of a button"));
  looks_->setEnabled(picture || session_->desk().inHand.isOneTile());
}

void PinSentences::fillTargets() {
  target_->clear();
  targets_.clear();
  for (const Shared<Map>& map : session_->quilt().maps()) {
    for (const Shared<Layer>& layer : map->layers) {
      for (const Pin& pin : layer->pins.read()) {
        const PinAt at{map->id, pin.id};
        if (at == shown_ || targets_.size() == kMostListedEnds) continue;
        targets_.push_back(at);
        target_->addItem(tr("%1, %2").arg(QString::fromStdString(map->name), QString::fromStdString(pinText(pin)).left(60)));
      }
    }
  }
}

bool PinSentences::refresh() {
  const bool onPins = session_ && session_->desk().tool == Tool::pins && !session_->desk().onBoard;
  const PinAt pin = onPins ? session_->verbs().pins.chosen() : PinAt{};
  const Pin* found = session_ ? session_->quilt().pin(pin) : nullptr;
  setVisible(found != nullptr);
  if (!found) return false;
  const bool other = !(shown_ == pin);
  shown_ = pin;
  title_->setText(tr("Pin %1").arg(found->number));
  if (other || !name_->hasFocus() || !name_->isModified()) name_->setText(QString::fromStdString(found->name));
  fillPlaces(*found);
  const std::vector<Id> all = doorwaysOf(session_->quilt(), shown_);
  const Doorway* one = doorway();
  way_->setVisible(one != nullptr);
  lead_->setVisible(!one);
  others_->setVisible(all.size() > 1);
  others_->setText(all.size() == 2 ? tr("Another way begins or ends here.") : tr("%1 other ways begin or end here.").arg(all.size() - 1));
  if (one) {
    const bool leads = one->from == shown_;
    const PinAt there = one->beyond(shown_);
    fillTargets();
    const auto at = std::find(targets_.begin(), targets_.end(), there);
    if (at == targets_.end()) target_->addItem(tr("a spot that is gone"));
    target_->setCurrentIndex(at == targets_.end() ? target_->count() - 1 : static_cast<int>(at - targets_.begin()));
    fillHeadings(facing_, there.map, leads ? one->arriving : one->back.value_or(Heading::south));
    fillHeadings(facingBack_, shown_.map, leads ? one->back.value_or(Heading::south) : one->arriving);
    facing_->setEnabled(leads || one->back);
    facingBack_->setEnabled(!leads || one->back);
    back_->setChecked(one->back.has_value());
    meant_->setVisible(!one->back);
    meant_->setChecked(one->meantSo);
    showLooks(*one);
    for (const auto& [field, text] : {std::pair(needs_, &one->needs), std::pair(sound_, &one->sound), std::pair(note_, &one->note)}) {
      if (other || !(field->hasFocus() && field->isModified())) field->setText(QString::fromStdString(*text));
    }
    QStringList known;
    for (const std::string& need : needsSaid(session_->quilt())) known << QString::fromStdString(need);
    if (known != known_->stringList()) known_->setStringList(known);
    through_->setEnabled(arrivalFrom(session_->quilt(), shown_).has_value());
  }
  const bool starts = session_->quilt().facts().start == shown_;
  begins_->setEnabled(!starts);
  begins_->setText(starts ? tr("The player begins here.") : tr("The player begins here"));
  return true;
}

}  // namespace uq
