#include "app/workroom/Tape.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/NumberField.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"
#include "core/edit/Edgings.h"
#include "core/edit/Seams.h"
#include "core/edit/Stroke.h"
#include "core/document/PlanView.h"

namespace uq {

namespace {
constexpr int kTapeHeight = 40;    // logical pixels
constexpr int kFoldedOptions = 50;  // room for the button that holds them
constexpr QSize kTool(46, 30);
constexpr QSize kWidthButton(28, 28);  // of the buttons for widths
}  // namespace

Tape::Tape(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("tape"));
  setFixedHeight(kTapeHeight);
  tools_ = new QWidget(this);
  choices_ = new QWidget(this);
  folded_ = new QFrame(this, Qt::Popup);
  folded_->setObjectName(QStringLiteral("tape-folded"));
  makeCard(folded_);
  auto* lines = new QVBoxLayout(folded_);
  lines->setContentsMargins(kGap, kGap, kGap, kGap);
  lines->setSpacing(2);
  auto* places = new QHBoxLayout(this);
  places->setContentsMargins(kGap, 8, kGap, 2);
  places->setSpacing(0);
  places->setSizeConstraint(QLayout::SetNoConstraint);
  places->addWidget(tools_);
  choices_->setSizePolicy(QSizePolicy::Maximum, QSizePolicy::Preferred);
  places->addWidget(choices_);
  more_ = makePlainButton("tape-more", this);
  more_->setText(tr("More"));
  more_->setToolTip(tr("The options of the tool that have no room here"));
  connect(more_, &QToolButton::clicked, this, &Tape::unfold);
  places->addWidget(more_);
  places->addStretch();
  auto* row = new QHBoxLayout(tools_);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(1);
  for (const ActionId id : {ActionId::brush, ActionId::erase, ActionId::box, ActionId::fill, ActionId::select,
                            ActionId::line, ActionId::oval, ActionId::pins}) {
    auto* button = makeActionButton(actions->action(id), QLatin1String(actionRow(id).keys), tools_);
    button->setProperty("tight", true);
    button->setFixedSize(kTool);
    buttons_[id] = button;
    row->addWidget(button);
    connect(actions->action(id), &QAction::toggled, this, qOverload<>(&Tape::update));
  }
  row = new QHBoxLayout(choices_);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(1);
  tool_ = new QLabel(choices_);
  tool_->setObjectName(QStringLiteral("tape-tool"));
  tool_->setContentsMargins(kGap, 0, kGap / 2, 0);
  QFont bold = tool_->font();
  bold.setBold(true);
  tool_->setFont(bold);
  addPart(tool_);
  const auto addWidth = [this](const QString& name, const QString& text, const QString& tip, const std::function<void(ToolOptions&)>& choose) {
    auto* button = new QToolButton(choices_);
    button->setObjectName(QStringLiteral("tape-width-") + name);
    button->setText(text);
    button->setCheckable(true);
    button->setProperty("tight", true);
    button->setMinimumSize(kWidthButton);
    button->setFocusPolicy(Qt::TabFocus);
    button->setToolTip(tip);
    button->setAccessibleName(tip);
    connect(button, &QToolButton::clicked, this, [this, choose] {
      Desk desk = session_->desk();
      choose(desk.options);
      session_->setDesk(std::move(desk));
    });
    addPart(button);
    return button;
  };
  for (const int width : kWidths) {
    const QString number = QString::number(width);
    widths_.emplace_back(width, addWidth(number, number, tr("%n cell(s) across", nullptr, width), [width](ToolOptions& options) {
                           options.width = width;
                           options.halfCell = false;
                         }));
  }
  width_ = new NumberField(tr("Cells across: an odd number up to %1").arg(kBroadest), 1, kBroadest, 0, choices_);
  width_->setObjectName(QStringLiteral("tape-width"));
  width_->setFixedWidth(38);
  connect(width_, &NumberField::valueChanged, this, [this](double value) {
    if (!session_) return;
    Desk desk = session_->desk();
    // Of an even number the next one.
    desk.options.width = static_cast<int>(value) | 1;
    desk.options.halfCell = false;
    session_->setDesk(std::move(desk));
  });
  connect(width_, &QLineEdit::returnPressed, this, &Tape::handsFree);
  addPart(width_);
  half_ = addWidth(QStringLiteral("half"), QStringLiteral("½"), tr("Half a cell: the material comes to one corner"), [](ToolOptions& options) { options.halfCell = true; });
  addOption(ActionId::outlinesOnly, true);
  for (const ActionId id : {ActionId::selectByBox, ActionId::selectByOutline, ActionId::selectTouching,
                            ActionId::selectEverywhere, ActionId::regionsAsSeen, ActionId::throughCorners,
                            ActionId::onlyThisTile, ActionId::sameStamp, ActionId::wholePile, ActionId::allLayers, ActionId::joinsMet,
                            ActionId::boxAlongGrid}) {
    addOption(id);
  }
  addOption(ActionId::swapTiles, true);
  addOption(ActionId::onlyThisMap);
  addLift();
  refresh(nullptr);
}

QSize Tape::minimumSizeHint() const {
  return {tools_->sizeHint().width() + kFoldedOptions + 2 * kGap, kTapeHeight};
}

void Tape::arrange() {
  const int room = width() - 2 * kGap - tools_->sizeHint().width();
  const auto wide = [](const QWidget* part) { return part->sizeHint().width() + 1; };
  int all = 0;
  for (const Option& one : parts_) all += one.matters ? wide(one.part) : 0;
  // From the first option on that has no room, all are folded into one button.
  const bool folds = all > room;
  int left = room - (folds ? wide(more_) : 0);
  bool fits = true;
  int row = 0;
  int line = 0;
  for (const Option& one : parts_) {
    fits = fits && (!one.matters || (left -= wide(one.part)) >= 0);
    auto* to = fits ? choices_ : folded_;
    if (one.part->parentWidget() != to) {
      if (fits) {
        static_cast<QHBoxLayout*>(choices_->layout())->insertWidget(row, one.part);
      } else {
        static_cast<QVBoxLayout*>(folded_->layout())->insertWidget(line, one.part, 0, Qt::AlignLeft);
      }
    }
    ++(fits ? row : line);
    one.part->setVisible(one.matters);
  }
  more_->setVisible(folds);
  if (!folds) folded_->hide();
}

void Tape::unfold() {
  folded_->adjustSize();
  folded_->move(more_->mapToGlobal(QPoint(more_->width() - folded_->width(), -folded_->height() - kGap)));
  folded_->show();
}

void Tape::addPart(QWidget* part) {
  choices_->layout()->addWidget(part);
  parts_.push_back({part});
}

void Tape::show(QWidget* part, bool matters) {
  const auto one = std::find_if(parts_.begin(), parts_.end(), [&](const Option& each) { return each.part == part; });
  one->matters = matters;
}

void Tape::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  arrange();
}

QToolButton* Tape::addOption(ActionId id, bool withText) {
  auto* button = makeActionButton(actions_->action(id), translated(actionRow(id).text), choices_);
  if (!withText) button->setToolButtonStyle(Qt::ToolButtonIconOnly);
  button->setCheckable(true);
  options_[id] = button;
  addPart(button);
  return button;
}

void Tape::addLift() {
  lifted_ = makeSoftLabel(choices_);
  lifted_->setWordWrap(false);
  lift_ = new NumberField(tr("How far strokes lie above their layer, in pixels"), 0, kMostLift, 0, choices_);
  lift_->setObjectName(QStringLiteral("tape-lift"));
  connect(lift_, &NumberField::valueChanged, this, [this](double value) {
    if (!session_) return;
    if (rowsInHand(session_->quilt(), session_->desk().inHand)) session_->verbs().hand.setRows(static_cast<int>(value));
    else session_->verbs().hand.setLift(static_cast<int>(value));
  });
  connect(lift_, &QLineEdit::returnPressed, this, &Tape::handsFree);
  liftUnit_ = makeSoftLabel(choices_);
  liftUnit_->setWordWrap(false);
  QToolButton* higher = makeActionButton(actions_->action(ActionId::liftHigher), {}, choices_);
  QToolButton* lower = makeActionButton(actions_->action(ActionId::liftLower), {}, choices_);
  for (QToolButton* button : {higher, lower}) button->setToolButtonStyle(Qt::ToolButtonIconOnly);
  lifts_ = new QWidget(choices_);
  auto* row = new QHBoxLayout(lifts_);
  row->setContentsMargins(kGap, 0, 0, 0);
  row->setSpacing(2);
  for (QWidget* part : std::initializer_list<QWidget*>{lifted_, lift_, liftUnit_, higher, lower}) row->addWidget(part);
  addPart(lifts_);
}

void Tape::refresh(Session* session) {
  session_ = session;
  const Map* map = session ? session->map() : nullptr;
  const Tool tool = map ? session->desk().tool : Tool::brush;
  const bool strokes = tool == Tool::brush || tool == Tool::erase || tool == Tool::line;
  const bool shapes = tool == Tool::box || tool == Tool::oval;
  const bool selects = tool == Tool::select;
  const bool pins = tool == Tool::pins;
  const ToolOptions options = map ? session->desk().options : ToolOptions();
  const bool byLikeness =
      selects && (options.selectBy == SelectBy::touching || options.selectBy == SelectBy::everywhere);
  tool_->setText(map ? translated(actionRow(actionOf(tool)).text) : QString());
  const bool offersHalf = map && Stroke::mayLayCorners(session->quilt(), map->id, tool, session->desk().inHand);
  const bool halves = offersHalf && options.halfCell;
  for (const auto& [width, button] : widths_) {
    show(button, map && strokes);
    button->setChecked(width == options.width && !halves);
  }
  show(half_, offersHalf);
  half_->setChecked(halves);
  show(width_, map && strokes);
  if (!(width_->hasFocus() && width_->isModified())) width_->setValue(options.width);
  const bool corners = map && (map->grid.kind == GridKind::orthogonal || map->grid.kind == GridKind::diamond);
  const bool regions = tool == Tool::fill || byLikeness;
  const std::pair<ActionId, bool> shown[] = {
      {ActionId::outlinesOnly, shapes},
      {ActionId::selectByBox, selects},
      {ActionId::selectByOutline, selects},
      {ActionId::selectTouching, selects},
      {ActionId::selectEverywhere, selects},
      {ActionId::regionsAsSeen, regions},
      {ActionId::throughCorners, regions && corners},
      {ActionId::onlyThisTile, regions},
      {ActionId::sameStamp, regions},
      {ActionId::wholePile, regions},
      {ActionId::swapTiles, tool == Tool::fill},
      {ActionId::onlyThisMap, map && !selects && !pins && !seamsOf(session->quilt(), map->id).empty()},
      {ActionId::allLayers, selects},
      {ActionId::joinsMet, selects && map && !session->quilt().edgings().empty()},
      {ActionId::boxAlongGrid, map && (selects || shapes) && map->grid.kind != GridKind::orthogonal}};
  for (const auto& [id, visible] : shown) {
    show(options_[id], map && visible);
    options_[id]->setChecked(actions_->action(id)->isChecked());
  }
  // One place says how high: what a material brings along, else how far strokes are lifted.
  const auto rows = map ? rowsInHand(session->quilt(), session->desk().inHand) : std::nullopt;
  const bool rises = map && tool != Tool::erase && !selects && !pins &&
                     (hasPlan(map->grid.kind) || hasLevels(*map) || session->desk().lift > 0 || rows);
  lifted_->setText(rows ? tr("high") : tr("lifted"));
  liftUnit_->setText(rows ? tr("rows") : tr("px"));
  show(lifts_, rises);
  show(tool_, map != nullptr);
  if (map && !(lift_->hasFocus() && lift_->isModified())) lift_->setValue(rows.value_or(session->desk().lift));
  arrange();
}

void Tape::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.panel);
  // The marks of a measuring tape along its upper edge.
  for (int x = 0, i = 0; x < width(); x += 8, ++i) {
    painter.fillRect(QRect(x, 0, 1, i % 10 == 0 ? 7 : i % 5 == 0 ? 5 : 3), theme.edge);
  }
  for (const auto& [id, button] : buttons_) {
    if (!actions_->action(id)->isChecked()) continue;
    const QRect place(button->mapTo(this, QPoint()), button->size());
    painter.fillRect(place, theme.paper);
    drawStitchLine(painter, QLineF(place.left() + 6, place.bottom() + .5, place.right() - 6, place.bottom() + .5),
                   theme.madder, theme.paper);
  }
}

}  // namespace uq
