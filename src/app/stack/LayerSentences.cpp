#include "app/stack/LayerSentences.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/document/PlanView.h"

namespace uq {

LayerSentences::LayerSentences(QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("layer-facts"));
  makeCard(this);
  title_ = makeTitle({}, this);
  title_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  role_ = new QComboBox(this);
  role_->setObjectName(QStringLiteral("layer-role"));
  role_->setAccessibleName(tr("What the layer is for"));
  role_->setToolTip(tr("What the layer is for: layers of one role belong together across maps"));
  connect(role_, &QComboBox::activated, this, [this](int index) {
    session_->setRole(role_->itemText(index));
    Q_EMIT handsFree();
  });
  const auto number = [this](const char* object, const QString& name, double least, double most) {
    auto* field = new NumberField(name, least, most, 0, this);
    field->setObjectName(QLatin1String(object));
    return field;
  };
  offsetX_ = number("layer-offset-x", tr("Shifted to the right by, in pixels"), -kFarthestOffset, kFarthestOffset);
  offsetY_ = number("layer-offset-y", tr("Shifted down by, in pixels"), -kFarthestOffset, kFarthestOffset);
  opacity_ = number("layer-opacity", tr("How much of the layer shows, in per cent"), 0, 100);
  const auto shift = [this] { session_->setOffset({offsetX_->wholeValue(), offsetY_->wholeValue()}); };
  connect(offsetX_, &NumberField::valueChanged, this, shift);
  connect(offsetY_, &NumberField::valueChanged, this, shift);
  connect(opacity_, &NumberField::valueChanged, this,
          [this](double value) { session_->setOpacity(static_cast<int>(value)); });
  for (NumberField* field : {offsetX_, offsetY_, opacity_}) {
    connect(field, &QLineEdit::returnPressed, this, &LayerSentences::handsFree);
  }
  levelName_ = new QLabel(this);
  rise_ = number("level-rise", tr("How far the level lies above the ground, in pixels"), -kFarthestOffset,
                 kFarthestOffset);
  risePx_ = new QLabel(this);
  order_ = new QComboBox(this);
  order_->setObjectName(QStringLiteral("draw-order"));
  order_->setAccessibleName(tr("In which order it is drawn"));
  order_->setToolTip(tr("By depth, what stands nearer covers what stands behind it, on whichever layer"));
  order_->addItems({tr("by layers"), tr("by depth")});
  orderEnd_ = new QLabel(this);
  connect(rise_, &NumberField::valueChanged, this, [this](double value) { session_->setRise(static_cast<int>(value)); });
  connect(rise_, &QLineEdit::returnPressed, this, &LayerSentences::handsFree);
  connect(order_, &QComboBox::activated, this, [this](int index) {
    session_->setDrawOrder(index == 0 ? DrawOrder::byLayers : DrawOrder::byDepth);
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
    const TilesLayer* layer = session_ ? session_->quilt().layer(session_->desk().landing()) : nullptr;
    const QString text = note_->text().trimmed();
    note_->setModified(false);
    if (layer && session_->desk().landing() == shown_ && text.toStdString() != layer->note)
      session_->setNote(shown_, text);
  });
  connect(note_, &QLineEdit::returnPressed, this, &LayerSentences::handsFree);

  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap + 2, kGap, kGap + 2, kGap);
  layout->setSpacing(5);
  layout->addWidget(title_);
  layout->addLayout(new SentenceLayout({word(tr("Tiles for")), role_}));
  layout->addLayout(new SentenceLayout({word(tr("Shifted")), offsetX_, word(tr(",")), offsetY_, word(tr("px."))}));
  layout->addLayout(new SentenceLayout({word(tr("Shows")), opacity_, word(tr("%."))}));
  layout->addLayout(new SentenceLayout({levelName_, rise_, risePx_, order_, orderEnd_}));
  layout->addWidget(told_);
  layout->addWidget(note_);
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
  role_->setCurrentText(present);
}

void LayerSentences::refresh() {
  const TilesLayer* layer = session_ ? session_->quilt().layer(session_->desk().landing()) : nullptr;
  setVisible(layer != nullptr);
  if (!layer) return;
  const LayerAt at = session_->desk().landing();
  const bool other = !(shown_ == at);
  if (other && note_->isModified()) {
    // Another card or map was chosen while a note was typed.
    note_->setModified(false);
    QMetaObject::invokeMethod(
        this,
        [this, at = shown_, text = note_->text().trimmed()] {
          if (session_) session_->setNote(at, text);
        },
        Qt::QueuedConnection);
  }
  shown_ = at;
  title_->setText(QString::fromStdString(layer->name));
  buildRoles(layer->role);
  // What is being typed is not overwritten.
  const auto show = [other](NumberField* field, int value) {
    if (other || !field->hasFocus() || !field->isModified()) field->setValue(value);
  };
  show(offsetX_, layer->offset.x);
  show(offsetY_, layer->offset.y);
  show(opacity_, layer->opacity);
  // Maps of squares or hexagons without levels have no use for an order.
  const Map& map = *session_->map();
  const LayerFolder* level = session_->level();
  levelName_->setText(level ? tr("On %1,").arg(QString::fromStdString(level->name)) : tr("The ground is drawn"));
  rise_->setVisible(level != nullptr);
  risePx_->setVisible(level != nullptr);
  risePx_->setText(tr("px up, drawn"));
  orderEnd_->setText(tr("."));
  if (level) show(rise_, level->rise);
  const DrawOrder order = level ? map.drawOrder(*level) : map.drawOrder();
  order_->setCurrentIndex(order == DrawOrder::byLayers ? 0 : 1);
  const bool matters = level || !map.folders.empty() || hasPlan(map.grid.kind);
  for (QWidget* part : {static_cast<QWidget*>(levelName_), static_cast<QWidget*>(order_),
                        static_cast<QWidget*>(orderEnd_)}) {
    part->setVisible(matters);
  }
  if (other || !note_->hasFocus()) note_->setText(QString::fromStdString(layer->note));
  told_->setText(told());
}

QString LayerSentences::told() const {
  const Map* map = session_ ? session_->map() : nullptr;
  const auto index = map ? map->layerIndex(session_->desk().landing().layer) : std::nullopt;
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
  const QString why = session_->whyNoStroke(true);
  lines << (why.isEmpty() ? tr("Strokes land here.") : why + tr("."));
  return lines.join(QLatin1Char('\n'));
}

}  // namespace uq
