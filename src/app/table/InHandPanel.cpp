#include "app/table/InHandPanel.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QResizeEvent>
#include <QToolButton>
#include <algorithm>

#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/table/HandPreview.h"
#include "app/table/HeldStrip.h"
#include "app/table/OtherSides.h"
#include "core/edit/Edgings.h"
#include "core/edit/Pattern.h"

namespace uq {

namespace {
constexpr QSize kPreview(92, 88);  // logical pixels
constexpr QSize kTurn(46, 26);
}

InHandPanel::InHandPanel(Actions* actions, QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("in-hand"));
  makeCard(this);
  auto* title = makeTitle(tr("In hand"), this);
  description_ = makeSoftLabel(this);
  description_->setObjectName(QStringLiteral("in-hand-text"));
  description_->setWordWrap(false);
  description_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  preview_ = new HandPreview(this);
  preview_->setMinimumSize(kPreview);
  preview_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);

  auto* turns = new QGridLayout;
  turns->setSpacing(kGap / 2);
  const std::pair<ActionId, const char*> buttons[] = {{ActionId::turnLeft, "Q"},     {ActionId::turnRight, "E"},
                                                      {ActionId::mirrorAcross, "A"}, {ActionId::mirrorDown, "D"},
                                                      {ActionId::turnByChance, "R"}, {ActionId::throwAgain, ""}};
  for (int i = 0; i < 6; ++i) {
    auto* button = makeActionButton(actions->action(buttons[i].first), QString::fromUtf8(buttons[i].second), this);
    button->setProperty("tight", true);
    button->setFixedSize(kTurn);
    button->setIconSize({16, 16});
    button->setProperty("raised", true);
    if (!*buttons[i].second) button->setToolButtonStyle(Qt::ToolButtonIconOnly);
    button->setCheckable(buttons[i].first == ActionId::turnByChance);
    if (buttons[i].first == ActionId::turnByChance) chance_ = button;
    turns->addWidget(button, i / 2, i % 2);
  }
  turns->setRowStretch(3, 1);

  // The manner in which it is laid, and what belongs to each.
  auto* manners = new SentenceLayout({}, 1);
  const std::tuple<Manner, const char*, QString> ways[] = {{Manner::asItIs, "as-it-is", tr("As it is")},
                                                           {Manner::stretch, "stretch", tr("Stretch")},
                                                           {Manner::mix, "mix", tr("Mix")}};
  for (const auto& [manner, iconName, text] : ways) {
    auto* button = new QToolButton(this);
    button->setObjectName(QStringLiteral("manner-") + QLatin1String(iconName));
    button->setText(text);
    button->setCheckable(true);
    button->setFocusPolicy(Qt::TabFocus);
    button->setAutoRaise(true);
    connect(button, &QToolButton::clicked, this, [this, manner = manner] { session_->verbs().hand.setManner(manner); });
    manners_.emplace_back(manner, button);
    button->setProperty("tight", true);
    manners->addWidget(button);
  }
  joins_ = new QToolButton(this);
  joins_->setObjectName(QStringLiteral("manner-joins"));
  joins_->setText(tr("Joins"));
  joins_->setCheckable(true);
  joins_->setFocusPolicy(Qt::TabFocus);
  joins_->setAutoRaise(true);
  joins_->setProperty("tight", true);
  connect(joins_, &QToolButton::clicked, this, [this] {
    session_->verbs().hand.setJoins();
    refresh();
  });
  manners->addWidget(joins_);
  rule_ = new QCheckBox(this);
  rule_->setObjectName(QStringLiteral("hand-rule"));
  connect(rule_, &QCheckBox::clicked, this, [this](bool on) {
    InHand hand = session_->desk().inHand;
    (hand.manner == Manner::mix ? hand.neverAlike : hand.ends.shuffles) = on;
    session_->verbs().hand.change(std::move(hand));
  });
  empty_ = new QPushButton(tr("and nothing"), this);
  empty_->setObjectName(QStringLiteral("hand-empty"));
  empty_->setToolTip(tr("Let the mix leave cells as they are, now and then"));
  connect(empty_, &QPushButton::clicked, this, [this] {
    InHand hand = session_->desk().inHand;
    const auto none = std::find_if(hand.members.begin(), hand.members.end(),
                                   [](const MixMember& member) { return member.block.empty(); });
    if (none != hand.members.end()) {
      none->weight = std::min(none->weight + 1, kMostWeight);
    } else {
      hand.members.push_back({});
    }
    session_->verbs().hand.change(std::move(hand));
  });
  const auto stepField = [this](const QString& what, const char* name, int StretchEnds::*step) {
    auto* field = new NumberField(what, 0, kMostStretchStep, 0, this);
    field->setObjectName(QLatin1String(name));
    field->setToolTip(tr("%1; 0 its own size, more leaves gaps").arg(what));
    connect(field, &NumberField::valueChanged, this, [this, step](double value) {
      InHand hand = session_->desk().inHand;
      hand.ends.*step = static_cast<int>(value);
      hand.ends = fittingEnds(hand.ends, hand.wholeExtent());
      session_->verbs().hand.change(std::move(hand));
    });
    return field;
  };
  step_ = stepField(tr("Cells across from one repeat of the middle to the next"), "hand-step", &StretchEnds::stepAcross);
  stepDown_ = stepField(tr("Cells down from one repeat of the middle to the next"), "hand-step-down", &StretchEnds::stepDown);
  stepText_ = makeSoftLabel(this);
  stepText_->setText(tr("step"));
  stepText_->setWordWrap(false);
  auto* rules = new SentenceLayout({rule_, empty_, stepText_, step_, stepDown_});

  held_ = new HeldStrip(this);
  auto* layout = new QGridLayout(this);
  layout->setContentsMargins(kGap, kGap - 2, kGap, kGap);
  layout->setSpacing(kGap / 2);
  auto* head = new QHBoxLayout;
  head->addWidget(title);
  head->addWidget(description_, 1);
  layout->addWidget(held_, 0, 0, 1, 2);
  layout->addLayout(head, 1, 0, 1, 2);
  layout->addWidget(preview_, 2, 0);
  layout->addLayout(turns, 2, 1);
  layout->addLayout(manners, 3, 0, 1, 2);
  layout->addLayout(rules, 4, 0, 1, 2);
  sides_ = new OtherSides(this);
  layout->addWidget(sides_, 5, 0, 1, 2);
  layout->setRowStretch(2, 1);
  layout->setColumnStretch(0, 1);
  refresh();
}

bool InHandPanel::drop(TileRef tile, QPoint globalAt) {
  return sides_->drop(tile, globalAt) || preview_->drop(tile, globalAt);
}

void InHandPanel::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  sides_->setSession(session);
  preview_->setSession(session);
  held_->setSession(session);
  if (session_) {
    connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
      if (change.hand || change.map || change.beside) refresh();
    });
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      if (change.any<Sheet>() || change.any<Stamp>() || !change.arranged.empty()) refresh();
    });
  }
  refresh();
}

QString InHandPanel::description() const {
  if (!session_ || session_->desk().inHand.empty()) return tr("Nothing yet. Click a tile on the Table.");
  const InHand& hand = session_->desk().inHand;
  const Stamp* stamp = session_->quilt().stamp(hand.stamp);
  if (stamp) return tr("%1, a stamp").arg(QString::fromStdString(stamp->name));
  if (const Edging* edging = session_->quilt().edging(hand.edging)) {
    return tr("%1, a material of %2").arg(QString::fromStdString(materialName(*edging, hand.material)), QString::fromStdString(edging->name));
  }
  if (hand.manner == Manner::mix) return tr("%n to choose from", nullptr, static_cast<int>(hand.members.size()));
  const Block& block = hand.block.empty() ? hand.others.front().block : hand.block;
  const TileRef first = block.parts().front().cell.tile();
  const Sheet* sheet = session_->quilt().sheetAt(first.slot);
  const QString from = sheet ? QString::fromStdString(sheet->name) : tr("a missing sheet");
  if (block.parts().size() == 1 && hand.others.empty()) {
    const QString name =
        sheet ? QString::fromStdString(sheet->tileName(first.number)) : tr("tile %1").arg(first.number);
    const Map* map = session_->map();
    const QString text = tr("%1, from %2").arg(name, from);
    if (!map) return text;
    const auto of = materialOfTile(session_->quilt(), map->grid.kind, block.parts().front().cell);
    if (!of) return text;
    return tr("%1; joins as %2").arg(text, QString::fromStdString(materialName(*of->edging, of->material)));
  }
  const CellRect extent = hand.wholeExtent();
  const QString size = tr("%1 × %2 from %3")
                           .arg(extent.width())
                           .arg(extent.height())
                           .arg(block.slots().size() > 1 ? tr("several sheets") : from);
  if (hand.others.empty()) return size;
  return tr("%1, on %n layer(s)", nullptr, static_cast<int>(hand.others.size()) + 1).arg(size);
}

// With all lines that its sentences take at this width.
QSize InHandPanel::minimumSizeHint() const {
  const QSize least = QFrame::minimumSizeHint();
  return {least.width(), std::max(least.height(), layout()->minimumHeightForWidth(std::max(width(), least.width())))};
}

void InHandPanel::resizeEvent(QResizeEvent* event) {
  QFrame::resizeEvent(event);
  if (event->oldSize().width() != width()) updateGeometry();
  showDescription();
}

void InHandPanel::showDescription() {
  const QString text = description();
  description_->setText(description_->fontMetrics().elidedText(text, Qt::ElideRight, std::max(40, description_->width())));
  description_->setToolTip(text);
}

void InHandPanel::refresh() {
  setVisible(session_ && !session_->desk().inHand.empty());
  showDescription();
  preview_->update();
  sides_->refresh();
  const InHand hand = session_ ? session_->desk().inHand : InHand();
  for (const auto& [manner, button] : manners_) {
    button->setChecked(!hand.empty() && manner == hand.manner && !hand.joins());
    button->setEnabled(!hand.empty());
  }
  const Map* map = session_ ? session_->map() : nullptr;
  QString joining = hand.joins() ? tr("Its borders come by themselves") : QString();
  if (map && !hand.empty() && hand.isOneTile()) {
    if (const auto of = materialOfTile(session_->quilt(), map->grid.kind, hand.parts().front().cell)) {
      joining = tr("Lay %1 of %2, whose borders come by themselves").arg(QString::fromStdString(materialName(*of->edging, of->material)), QString::fromStdString(of->edging->name));
    }
  }
  joins_->setChecked(hand.joins());
  joins_->setEnabled(!joining.isEmpty());
  joins_->setToolTip(joining.isEmpty() ? tr("What is in hand joins by nothing: join its sheet's tiles on the bench") : joining);
  chance_->setChecked(hand.turnsByChance);
  const bool mixes = !hand.empty() && hand.manner == Manner::mix;
  const bool stretches = !hand.empty() && hand.manner == Manner::stretch;
  rule_->setVisible(mixes || stretches);
  rule_->setText(mixes ? tr("never two alike") : tr("middle by chance"));
  rule_->setToolTip(mixes ? QString() : tr("Tiles of the middle that are in a kept mix become any of that mix"));
  rule_->setChecked(mixes ? hand.neverAlike : hand.ends.shuffles);
  empty_->setVisible(mixes);
  stepText_->setVisible(stretches);
  step_->setVisible(stretches);
  stepDown_->setVisible(stretches && !heightsOf(hand).most);
  if (!(step_->hasFocus() && step_->isModified())) step_->setValue(hand.ends.stepAcross);
  if (!(stepDown_->hasFocus() && stepDown_->isModified())) stepDown_->setValue(hand.ends.stepDown);
}

}  // namespace uq
