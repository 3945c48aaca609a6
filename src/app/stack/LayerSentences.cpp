#include "app/stack/LayerSentences.h"

#include <QAbstractItemView>
#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <tuple>
#include <utility>

#include "app/look/ColourField.h"
#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/document/PlanView.h"
#include "core/edit/Camera.h"
#include "core/edit/LayerFacts.h"
#include "core/edit/MapFacts.h"

namespace uq {

namespace {

constexpr int kNarrow = 40;  // logical pixels, for numbers of three or four signs

}  // namespace

LayerSentences::LayerSentences(QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("layer-facts"));
  makeCard(this);
  title_ = makeTitle({}, this);
  title_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  role_ = new QComboBox(this);
  role_->setObjectName(QStringLiteral("layer-role"));
  role_->setAccessibleName(tr("What the layer is for"));
  role_->setToolTip(tr("What the layer is for: layers of one role belong together across maps"));
  // A role of one's own is typed.
  role_->setEditable(true);
  role_->setMinimumContentsLength(8);  // "backdrop" whole
  role_->setInsertPolicy(QComboBox::NoInsert);
  role_->lineEdit()->setMaxLength(60);
  role_->lineEdit()->setAccessibleName(role_->accessibleName());
  connect(role_->lineEdit(), &QLineEdit::returnPressed, this, [this] {
    const std::string role = role_->currentText().trimmed().toStdString();
    if (!role.empty()) change(tr("Role"), [role](const Quilt& quilt, LayerAt at) { return withRole(quilt, at, role); });
    Q_EMIT handsFree();
  });
  connect(role_, &QComboBox::activated, this, [this](int index) {
    const std::string role = role_->itemText(index).toStdString();
    change(tr("Role"), [role](const Quilt& quilt, LayerAt at) { return withRole(quilt, at, role); });
    Q_EMIT handsFree();
  });
  const auto number = [this](const char* object, const QString& name, double least, double most, int decimals = 0,
                             bool live = true) {
    auto* field = new NumberField(name, least, most, decimals, this);
    field->setObjectName(QLatin1String(object));
    connect(field, &QLineEdit::returnPressed, this, &LayerSentences::handsFree);
    if (!live) {
      connect(field, &NumberField::dragEnded, this, &LayerSentences::handsFree);
      return field;
    }
    connect(field, &NumberField::dragBegan, this, [this, field] {
      // One step, whatever is passed on the way.
      if (session_) session_->verbs().bar.take(field->accessibleName().section(QLatin1Char(','), 0, 0).toStdString());
    });
    connect(field, &NumberField::dragEnded, this, [this] {
      if (session_) session_->verbs().bar.leave();
      Q_EMIT handsFree();
    });
    return field;
  };
  place_ = number("layer-place", tr("Its place from the farthest"), 1, 4096, 0, false);
  place_->setFixedWidth(kNarrow);
  place_->setToolTip(tr("Its place from the farthest: another number moves it there"));
  connect(place_, &NumberField::valueChanged, this, [this](double value) {
    const LayerAt at = session_->desk().activeAt();
    const auto index = session_->map()->layerIndex(at.layer);
    if (index) session_->verbs().layers.move(at.layer, static_cast<int>(value) - 1 - static_cast<int>(*index));
    refresh();
  });
  const auto hundredths = [](double value) { return static_cast<int>(std::lround(value * 100)); };
  acrossShare_ =
      number("layer-moves-across", tr("How far it moves across for one pixel of camera"), 0, kMostParallax / 100.0, 2);
  downShare_ =
      number("layer-moves-down", tr("How far it moves down for one pixel of camera"), 0, kMostParallax / 100.0, 2);
  for (NumberField* field : {acrossShare_, downShare_}) field->setFixedWidth(kNarrow);
  connect(acrossShare_, &NumberField::valueChanged, this, [this, hundredths](double value) {
    change(tr("Parallax"), [across = hundredths(value)](const Quilt& quilt, LayerAt at) {
      return withParallax(quilt, at, {across, quilt.layer(at)->parallax.down});
    });
  });
  connect(downShare_, &NumberField::valueChanged, this, [this, hundredths](double value) {
    change(tr("Parallax"), [down = hundredths(value)](const Quilt& quilt, LayerAt at) {
      return withParallax(quilt, at, {quilt.layer(at)->parallax.across, down});
    });
  });
  offsetX_ = number("layer-offset-x", tr("Shifted to the right by, in pixels"), -kFarthestOffset, kFarthestOffset);
  offsetY_ = number("layer-offset-y", tr("Shifted down by, in pixels"), -kFarthestOffset, kFarthestOffset);
  opacity_ = number("layer-opacity", tr("How much of the layer shows, in per cent"), 0, 100);
  connect(offsetX_, &NumberField::valueChanged, this, [this](double value) {
    change(tr("Shift"), [x = static_cast<int>(value)](const Quilt& quilt, LayerAt at) {
      return withOffset(quilt, at, {x, quilt.layer(at)->offset.y});
    });
  });
  connect(offsetY_, &NumberField::valueChanged, this, [this](double value) {
    change(tr("Shift"), [y = static_cast<int>(value)](const Quilt& quilt, LayerAt at) {
      return withOffset(quilt, at, {quilt.layer(at)->offset.x, y});
    });
  });
  for (NumberField* field : {offsetX_, offsetY_, opacity_}) field->setFixedWidth(kNarrow);
  connect(opacity_, &NumberField::valueChanged, this, [this](double value) {
    change(tr("Opacity"), [percent = static_cast<int>(value)](const Quilt& quilt, LayerAt at) {
      return withOpacity(quilt, at, percent);
    });
  });
  blend_ = makeChoice<Blend>("layer-blend", tr("How it is laid over what is behind it"), tr("Blend"),
                             {tr("as it is"), tr("multiplied"), tr("screened"), tr("added")},
                             {Blend::normal, Blend::multiply, Blend::screen, Blend::add},
                             [](const Quilt& quilt, LayerAt at, Blend blend) { return withBlend(quilt, at, blend); });
  tint_ = new ColourField(tr("Tint"), tr("none"), this);
  tint_->setObjectName(QStringLiteral("layer-tint"));
  connect(tint_, &ColourField::valueChanged, this, [this](std::optional<Colour> colour) {
    change(tr("Tint"),
           [tint = colour.value_or(kNoTint)](const Quilt& quilt, LayerAt at) { return withTint(quilt, at, tint); });
    Q_EMIT handsFree();
  });
  inGame_ = new QCheckBox(tr("in game"), this);
  inGame_->setToolTip(tr("The game shows it"));
  inGame_->setObjectName(QStringLiteral("layer-in-game"));
  connect(inGame_, &QCheckBox::clicked, this, [this](bool on) {
    change(tr("In the game"), [on](const Quilt& quilt, LayerAt at) { return withInGame(quilt, at, on); });
    Q_EMIT handsFree();
  });
  using Repeats = std::pair<bool, bool>;
  const auto withHung = [](const Quilt& quilt, LayerAt at, auto&& set) {
    Backdrop backdrop = quilt.layer(at)->backdrop;
    set(backdrop);
    return withBackdrop(quilt, at, backdrop);
  };
  hung_ = new QWidget(this);
  repeats_ = makeChoice<Repeats>(
      "backdrop-repeats", tr("How often the picture hangs there"), tr("Repeat"),
      {tr("once"), tr("across"), tr("down"), tr("both ways")},
      {{false, false}, {true, false}, {false, true}, {true, true}},
      [withHung](const Quilt& quilt, LayerAt at, Repeats repeats) {
        return withHung(quilt, at, [&](Backdrop& one) { std::tie(one.repeatsAcross, one.repeatsDown) = repeats; });
      });
  fit_ = makeChoice<Backdrop::Fit>("backdrop-fit", tr("How high the picture is"), tr("Fit"),
                                   {tr("its size"), tr("map high"), tr("screen high")},
                                   {Backdrop::Fit::asItIs, Backdrop::Fit::map, Backdrop::Fit::screen},
                                   [withHung](const Quilt& quilt, LayerAt at, Backdrop::Fit fit) {
                                     return withHung(quilt, at, [&](Backdrop& one) { one.fit = fit; });
                                   });
  shownAt_ = number("backdrop-shown-at", tr("At how many per cent of that size"), kLeastShownAt, kMostShownAt);
  connect(shownAt_, &NumberField::valueChanged, this, [this, withHung](double value) {
    change(tr("Size"), [withHung, percent = static_cast<int>(value)](const Quilt& quilt, LayerAt at) {
      return withHung(quilt, at, [&](Backdrop& one) { one.shownAt = percent; });
    });
  });
  levelName_ = new QLabel(this);
  rise_ =
      number("level-rise", tr("How far the level lies above the ground, in pixels"), -kFarthestOffset, kFarthestOffset);
  risePx_ = new QLabel(this);
  order_ = new QComboBox(this);
  order_->setObjectName(QStringLiteral("draw-order"));
  order_->setAccessibleName(tr("In which order it is drawn"));
  order_->setToolTip(tr("By depth, what stands nearer covers what stands behind it, on whichever layer"));
  order_->addItems({tr("by layers"), tr("by depth")});
  orderEnd_ = new QLabel(this);
  connect(rise_, &NumberField::valueChanged, this,
          [this](double value) { session_->verbs().folders.setRise(static_cast<int>(value)); });
  connect(order_, &QComboBox::activated, this, [this](int index) {
    session_->verbs().folders.setDrawOrder(index == 0 ? DrawOrder::byLayers : DrawOrder::byDepth);
    Q_EMIT handsFree();
  });
  told_ = makeSoftLabel(this);
  told_->setObjectName(QStringLiteral("layer-sentences"));
  note_ = new QLineEdit(this);
  note_->setObjectName(QStringLiteral("layer-note"));
  note_->setAccessibleName(tr("Note on the layer"));
  note_->setPlaceholderText(tr("Add a note"));
  note_->setMaxLength(static_cast<int>(kLongestNote) / 4);
  connect(note_, &QLineEdit::editingFinished, this, [this] {
    const Layer* layer = session_ ? session_->quilt().layer(session_->desk().activeAt()) : nullptr;
    const QString text = note_->text().trimmed();
    note_->setModified(false);
    if (layer && session_->desk().activeAt() == shown_ && text.toStdString() != layer->note)
      session_->verbs().layers.setNote(shown_, text.toStdString());
  });
  connect(note_, &QLineEdit::returnPressed, this, &LayerSentences::handsFree);

  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap, kGap / 2, kGap, kGap / 2);
  layout->setSpacing(3);
  layout->addWidget(title_);
  layout->addLayout(new SentenceLayout({word(tr("For")), role_, place_}));
  auto* hangs = new SentenceLayout({word(tr("Hangs")), repeats_, fit_, word(tr("at")), shownAt_, word(tr("%."))});
  hung_->setLayout(hangs);
  hangs->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(hung_);
  layout->addLayout(
      new SentenceLayout({word(tr("Moves")), acrossShare_, word(tr("↔")), downShare_, word(tr("↕"))}));
  layout->addLayout(new SentenceLayout({word(tr("Shifted")), offsetX_, word(tr(",")), offsetY_, word(tr("px."))}));
  layout->addLayout(new SentenceLayout({word(tr("Shows")), opacity_, word(tr("%")), tint_}));
  layout->addLayout(new SentenceLayout({word(tr("Laid")), blend_}));
  auto* foot = new QHBoxLayout;
  foot->addWidget(inGame_);
  foot->addWidget(note_, 1);
  layout->addLayout(foot);
  layout->addLayout(new SentenceLayout({levelName_, rise_, risePx_, order_, orderEnd_}));
  layout->addWidget(told_);
}

template <class Edit>
void LayerSentences::change(const QString& what, Edit&& edit) {
  if (session_) session_->verbs().layers.change(what.toStdString(), std::forward<Edit>(edit));
}

template <class Value>
QComboBox* LayerSentences::makeChoice(const char* object, const QString& name, const QString& what,
                                      const QStringList& texts, const std::vector<Value>& values,
                                      const std::function<Quilt(const Quilt&, LayerAt, Value)>& edit) {
  auto* choice = new QComboBox(this);
  choice->setObjectName(QLatin1String(object));
  choice->setAccessibleName(name);
  choice->setToolTip(name);
  choice->addItems(texts);
  const auto set = [this, what, values, edit](int index) {
    const Value value = values[static_cast<std::size_t>(index)];
    change(what, [&](const Quilt& quilt, LayerAt at) { return edit(quilt, at, value); });
  };
  // While the list is open, the map shows what is pointed at.
  connect(choice, &QComboBox::highlighted, this, [this, what, set](int index) {
    if (!session_) return;
    if (!std::exchange(tries_, true)) session_->verbs().bar.take(what.toStdString());
    set(index);
  });
  connect(choice, &QComboBox::activated, this, [this, set](int index) {
    set(index);
    if (std::exchange(tries_, false)) session_->verbs().bar.leave();
    Q_EMIT handsFree();
  });
  choice->view()->installEventFilter(this);
  return choice;
}

bool LayerSentences::eventFilter(QObject* watched, QEvent* event) {
  // A list that closes without a choice takes back what was tried; a choice is told right after this.
  if (event->type() == QEvent::Hide && tries_) {
    QMetaObject::invokeMethod(
        this,
        [this] {
          if (std::exchange(tries_, false) && session_) session_->verbs().bar.drop();
        },
        Qt::QueuedConnection);
  }
  return QFrame::eventFilter(watched, event);
}

void LayerSentences::buildRoles(const std::string& role) {
  const QSignalBlocker quiet(role_);
  QStringList roles;
  for (const std::string& one : session_->quilt().facts().roles) roles << QString::fromStdString(one);
  const QString present = QString::fromStdString(role);
  if (!roles.contains(present)) roles << present;
  QStringList shown;
  for (int i = 0; i < role_->count(); ++i) shown << role_->itemText(i);
  if (shown != roles) {
    role_->clear();
    role_->addItems(roles);
  }
  if (!role_->lineEdit()->isModified() || !role_->hasFocus())
    role_->setCurrentIndex(static_cast<int>(roles.indexOf(present)));
}

void LayerSentences::refresh() {
  const Layer* layer = session_ ? session_->quilt().layer(session_->desk().activeAt()) : nullptr;
  setVisible(layer != nullptr);
  if (!layer) return;
  const LayerAt at = session_->desk().activeAt();
  const bool other = !(shown_ == at);
  if (other && note_->isModified()) {
    // Another card or map was chosen while a note was typed.
    note_->setModified(false);
    QMetaObject::invokeMethod(
        this,
        [this, at = shown_, text = note_->text().trimmed()] {
          if (session_) session_->verbs().layers.setNote(at, text.toStdString());
        },
        Qt::QueuedConnection);
  }
  shown_ = at;
  const std::size_t chosen = session_->verbs().layers.chosen().size();
  // Of one layer the card that is active says the name.
  title_->setVisible(chosen > 1);
  title_->setText(
      tr("%n layer(s), as %1", nullptr, static_cast<int>(chosen)).arg(QString::fromStdString(layer->name)));
  buildRoles(layer->role);
  // What is being typed is not overwritten.
  const auto show = [other](NumberField* field, double value) {
    if (other || !field->hasFocus() || !field->isModified()) field->setValue(value);
  };
  show(place_, static_cast<double>(*session_->map()->layerIndex(layer->id) + 1));
  show(offsetX_, layer->offset.x);
  show(offsetY_, layer->offset.y);
  show(opacity_, layer->opacity);
  show(acrossShare_, layer->parallax.across / 100.0);
  show(downShare_, layer->parallax.down / 100.0);
  blend_->setCurrentIndex(static_cast<int>(layer->blend));
  tint_->setValue(layer->tint == kNoTint ? std::nullopt : std::optional(layer->tint));
  inGame_->setChecked(layer->inGame);
  hung_->setVisible(layer->kind == LayerKind::backdrop);
  repeats_->setCurrentIndex((layer->backdrop.repeatsAcross ? 1 : 0) + (layer->backdrop.repeatsDown ? 2 : 0));
  fit_->setCurrentIndex(static_cast<int>(layer->backdrop.fit));
  show(shownAt_, layer->backdrop.shownAt);
  // Maps of squares or hexagons without levels have no use for an order.
  const Map& map = *session_->map();
  const LayerFolder* level = session_->verbs().folders.here();
  levelName_->setText(!level             ? tr("The ground is drawn")
                      : level->rise != 0 ? tr("On %1,").arg(QString::fromStdString(level->name))
                                         : tr("In %1,").arg(QString::fromStdString(level->name)));
  rise_->setVisible(level != nullptr);
  risePx_->setVisible(level != nullptr);
  risePx_->setText(tr("px up, drawn"));
  orderEnd_->setText(tr("."));
  if (level) show(rise_, level->rise);
  const DrawOrder order = level ? map.drawOrder(*level) : map.drawOrder();
  order_->setCurrentIndex(order == DrawOrder::byLayers ? 0 : 1);
  const bool matters = level || !map.folders.empty() || hasPlan(map.grid.kind);
  for (QWidget* part :
       {static_cast<QWidget*>(levelName_), static_cast<QWidget*>(order_), static_cast<QWidget*>(orderEnd_)}) {
    part->setVisible(matters);
  }
  if (other || !note_->hasFocus()) note_->setText(QString::fromStdString(layer->note));
  told_->setText(told());
}

QString LayerSentences::told() const {
  const Map* map = session_ ? session_->map() : nullptr;
  const auto index = map ? map->layerIndex(session_->desk().activeAt().layer) : std::nullopt;
  if (!index) return {};
  const auto name = [&](std::size_t i) { return QString::fromStdString(map->layers[i]->name); };
  const std::size_t last = map->layers.size() - 1;
  QStringList lines;
  if (last == 0) {
    lines << tr("The only layer.");
  } else if (*index == last) {
    lines << tr("The nearest of %1 layers.").arg(last + 1);
  } else if (*index == 0) {
    lines << tr("The farthest of %1 layers.").arg(last + 1);
  } else {
    lines << tr("Behind %1, in front of %2.").arg(name(*index + 1), name(*index - 1));
  }
  for (const BackdropGap& gap : backdropGaps(session_->quilt(), *map)) {
    if (gap.layer == map->layers[*index]->id) lines << QString::fromStdString(gap.text) + tr(".");
  }
  const QString why = QString::fromStdString(whyNoStroke(session_->work(), true));
  lines << (why.isEmpty() ? tr("Strokes land here.") : why + tr("."));
  return lines.join(QLatin1Char(' '));
}

}  // namespace uq
