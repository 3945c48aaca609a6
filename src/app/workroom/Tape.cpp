#include "app/workroom/Tape.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QToolButton>

#include "app/look/NumberField.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"
#include "core/document/PlanView.h"

namespace uq {

Tape::Tape(Actions* actions, QWidget* parent) : QWidget(parent), actions_(actions) {
  setObjectName(QStringLiteral("tape"));
  tools_ = new QWidget(this);
  choices_ = new QWidget(this);
  auto* places = new QGridLayout(this);
  places->setContentsMargins(kGap, 9, kGap, 3);
  places->setSpacing(0);
  places->setSizeConstraint(QLayout::SetNoConstraint);
  places->setColumnStretch(2, 1);
  auto* row = new QHBoxLayout(tools_);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(1);
  for (const ActionId id : {ActionId::brush, ActionId::erase, ActionId::box, ActionId::fill, ActionId::select,
                            ActionId::line, ActionId::oval}) {
    auto* button = makeActionButton(actions->action(id), QLatin1String(actionRow(id).keys), tools_);
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
  row->addWidget(tool_);
  for (const int width : kWidths) {
    auto* button = new QToolButton(choices_);
    button->setObjectName(QStringLiteral("tape-width-%1").arg(width));
    button->setText(QString::number(width));
    button->setCheckable(true);
    button->setFocusPolicy(Qt::TabFocus);
    button->setToolTip(tr("%n cell(s) across", nullptr, width));
    button->setAccessibleName(button->toolTip());
    connect(button, &QToolButton::clicked, this, [this, width] {
      Desk desk = session_->desk();
      desk.options.width = width;
      session_->setDesk(std::move(desk));
    });
    widths_.emplace_back(width, button);
    row->addWidget(button);
  }
  addOption(ActionId::outlinesOnly, true);
  for (const ActionId id : {ActionId::selectByBox, ActionId::selectByOutline, ActionId::selectTouching,
                            ActionId::selectEverywhere, ActionId::regionsAsSeen, ActionId::throughCorners,
                            ActionId::onlyThisTile, ActionId::allLayers, ActionId::boxAlongGrid}) {
    addOption(id);
  }
  addLift();
  refresh(nullptr);
}

QSize Tape::minimumSizeHint() const {
  return {std::max(tools_->minimumSizeHint().width(), choices_->minimumSizeHint().width()) + 2 * kGap, 46};
}

void Tape::arrange() {
  auto* places = static_cast<QGridLayout*>(layout());
  const int room = width() - 2 * kGap;
  const bool below = tools_->sizeHint().width() + choices_->sizeHint().width() > room;
  setFixedHeight(below ? 82 : 46);
  places->addWidget(tools_, 0, 0, Qt::AlignLeft);
  if (below) {
    places->addWidget(choices_, 1, 0, 1, 3, Qt::AlignLeft);
  } else {
    places->addWidget(choices_, 0, 1, Qt::AlignLeft);
  }
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
  choices_->layout()->addWidget(button);
  return button;
}

void Tape::addLift() {
  auto* lifted = makeSoftLabel(choices_);
  lifted->setText(tr("lifted"));
  lifted->setWordWrap(false);
  lift_ = new NumberField(tr("How far strokes lie above their layer, in pixels"), 0, kMostLift, 0, choices_);
  lift_->setObjectName(QStringLiteral("tape-lift"));
  connect(lift_, &NumberField::valueChanged, this, [this](double value) {
    if (session_) session_->verbs().hand.setLift(static_cast<int>(value));
  });
  connect(lift_, &QLineEdit::returnPressed, this, &Tape::handsFree);
  auto* pixels = makeSoftLabel(choices_);
  pixels->setText(tr("px"));
  pixels->setWordWrap(false);
  QToolButton* higher = makeActionButton(actions_->action(ActionId::liftHigher), {}, choices_);
  QToolButton* lower = makeActionButton(actions_->action(ActionId::liftLower), {}, choices_);
  for (QToolButton* button : {higher, lower}) button->setToolButtonStyle(Qt::ToolButtonIconOnly);
  lifts_ = {lifted, lift_, pixels, higher, lower};
  for (QWidget* part : lifts_) choices_->layout()->addWidget(part);
}

void Tape::refresh(Session* session) {
  session_ = session;
  const Map* map = session ? session->map() : nullptr;
  const Tool tool = map ? session->desk().tool : Tool::brush;
  const bool strokes = tool == Tool::brush || tool == Tool::erase;
  const bool shapes = tool == Tool::box || tool == Tool::oval;
  const bool selects = tool == Tool::select;
  const ToolOptions options = map ? session->desk().options : ToolOptions();
  const bool byLikeness =
      selects && (options.selectBy == SelectBy::touching || options.selectBy == SelectBy::everywhere);
  tool_->setText(map ? translated(actionRow(actionOf(tool)).text) : QString());
  for (const auto& [width, button] : widths_) {
    button->setVisible(map && strokes);
    button->setChecked(width == options.width);
  }
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
      {ActionId::allLayers, selects},
      {ActionId::boxAlongGrid, map && (selects || shapes) && map->grid.kind != GridKind::orthogonal}};
  for (const auto& [id, visible] : shown) {
    options_[id]->setVisible(map && visible);
    options_[id]->setChecked(actions_->action(id)->isChecked());
  }
  const bool rises = map && tool != Tool::erase && !selects &&
                     (hasPlan(map->grid.kind) || hasLevels(*map) || session->desk().lift > 0);
  for (QWidget* part : lifts_) part->setVisible(rises);
  if (map && !(lift_->hasFocus() && lift_->isModified())) lift_->setValue(session->desk().lift);
  arrange();
}

void Tape::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.panel);
  // The marks of a measuring tape along its upper edge.
  for (int x = 0, i = 0; x < width(); x += 8, ++i) {
    painter.fillRect(QRect(x, 0, 1, i % 10 == 0 ? 8 : i % 5 == 0 ? 6 : 4), theme.edge);
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
