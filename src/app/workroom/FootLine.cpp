#include "app/workroom/FootLine.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QTimer>
#include <QToolButton>

#include "app/canvas/MapEdges.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/WorkKeeper.h"
#include "core/edit/Patchwork.h"

namespace uq {

namespace {

constexpr int kSayFor = 4000;  // milliseconds

QString handsText(std::initializer_list<ActionId> gestures) {
  QStringList texts;
  for (ActionId id : gestures) texts << translated(actionRow(id).text);
  return texts.join(QStringLiteral(" · "));
}

QString keptText(const QString& until) { return FootLine::tr("kept %1, not saved").arg(until); }

// What of the work would be there after a crash, and what is in the quilt's own folder.
QString savedText(const Session& session) {
  if (session.isComing()) return {};
  if (session.isSaved()) return session.store().readOnly() ? FootLine::tr("read only") : FootLine::tr("saved");
  const auto until = session.beside().keeper->keptUntil();
  return until ? keptText(until->toString(QStringLiteral("HH:mm"))) : FootLine::tr("not saved");
}

constexpr int kLeastHands = 60;  // logical pixels

}  // namespace

FootLine::FootLine(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("foot-line"));
  setFixedHeight(24);
  hands_ = makeSoftLabel(this);
  hands_->setObjectName(QStringLiteral("foot-hands"));
  hands_->setWordWrap(false);
  hands_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  place_ = new QLabel(this);
  place_->setObjectName(QStringLiteral("foot-place"));
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(kGap + 4, 0, kGap + 4, 0);
  layout->addWidget(hands_, 1);
  layout->addWidget(place_);
  size_ = new QToolButton(this);
  size_->setObjectName(QStringLiteral("foot-size"));
  size_->setToolTip(tr("The size of the map: press to type another one"));
  size_->setAutoRaise(true);
  size_->setFocusPolicy(Qt::TabFocus);
  connect(size_, &QToolButton::clicked, this, &FootLine::sizePressed);
  layout->addWidget(size_);
  scale_ = new QLabel(this);
  scale_->setObjectName(QStringLiteral("foot-scale"));
  layout->addWidget(scale_);
  threads_ = new QToolButton(this);
  threads_->setObjectName(QStringLiteral("foot-threads"));
  threads_->setAutoRaise(true);
  threads_->setFocusPolicy(Qt::TabFocus);
  threads_->setToolTip(tr("Loose threads: press to list them"));
  threads_->setAccessibleName(tr("Loose threads"));
  // As wide as it usually gets, so that nothing moves while somebody works.
  threads_->setMinimumWidth(threads_->fontMetrics().horizontalAdvance(tr("%1 loose").arg(888)) + 20);
  threads_->hide();
  connect(threads_, &QToolButton::clicked, this, &FootLine::threadsPressed);
  layout->addWidget(threads_);
  kept_ = makeSoftLabel(this);
  kept_->setObjectName(QStringLiteral("foot-kept"));
  kept_->setWordWrap(false);
  kept_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  // As wide as it ever gets, so that nothing moves while somebody works.
  kept_->setMinimumWidth(kept_->fontMetrics().horizontalAdvance(keptText(QStringLiteral("00:00"))));
  layout->addWidget(kept_);
}

void FootLine::say(const QString& text) {
  said_ = text;
  hands_->setText(text);
  const int mine = ++sayings_;
  QTimer::singleShot(kSayFor, this, [this, mine] {
    if (mine == sayings_) said_.clear();
  });
}

int FootLine::leastWidth() const {
  return layout()->minimumSize().width() - (threads_->isHidden() ? 0 : threads_->minimumWidth() + layout()->spacing());
}

QSize FootLine::minimumSizeHint() const { return {leastWidth(), height()}; }

void FootLine::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  // In a narrow window the count would widen it; the menu lists them, too.
  threads_->setVisible(width() >= leastWidth() + threads_->minimumWidth() + kLeastHands);
}

void FootLine::tellThreads(std::optional<int> known) {
  const int count = known.value_or(0);
  threads_->setText(!known ? QString() : tr("%1 loose").arg(count));
  threads_->setAccessibleDescription(threads_->text());
}

void FootLine::tellKept(const Session* session) {
  // While a stroke goes on it says what was so before.
  if (!session || !session->inGesture()) kept_->setText(session ? savedText(*session) : QString());
}

void FootLine::refresh(const Session* session, const MapCanvas& canvas, bool overTable) {
  const Map* map = session && !session->desk().onBoard ? session->map() : nullptr;
  if (!said_.isEmpty()) {
    hands_->setText(said_);
  } else if (!session) {
    hands_->clear();
  } else if (session->desk().onBoard) {
    hands_->setText(tr("Drag moves a piece and sews it where edges meet, a button leads a way elsewhere · double-click opens · Ctrl+drag on the cloth draws a map"));
  } else if (overTable) {
    hands_->setText(
        handsText({ActionId::takeFromTable, ActionId::takeBlockFromTable, ActionId::takeByKeys, ActionId::zoomView}));
  } else if (session->desk().tool == Tool::select) {
    hands_->setText(
        handsText({ActionId::selectCells, ActionId::moveCells, ActionId::nudgeCells, ActionId::takeFromMap}));
  } else if (session->desk().tool == Tool::pins) {
    hands_->setText(tr("Press places a spot, or chooses one · drag moves it, or chooses what it frames · Shift+drag makes a box · Ctrl+click goes through"));
  } else if (session->desk().tool == Tool::erase) {
    hands_->setText(tr("Left takes away") + QStringLiteral(" · ") +
                    handsText({ActionId::takeFromMap, ActionId::panView, ActionId::zoomView}));
  } else {
    hands_->setText(handsText(
        {ActionId::layTiles, ActionId::takeFromMap, ActionId::takeAway, ActionId::panView, ActionId::zoomView}));
  }
  QStringList parts;
  QStringList scale;
  if (map) {
    const auto grid = makeGrid(map->grid);
    const PixelRect pixels = grid->pixelBounds(map->bounds);
    if (const auto cell = canvas.hoveredCell()) {
      // Beyond the edge cells are those of the map that is sewn there.
      const bool isOwn = map->bounds.contains(*cell);
      const auto patch = isOwn ? std::nullopt : Patchwork::across(session->quilt(), map->id).at(*cell);
      const Map* under = patch ? session->quilt().map(patch->map) : map;
      const CellPos own = patch ? patch->onMap(*cell) : *cell;
      const PixelRect box = grid->cellBox(*cell);
      // People see cells counted from the map's corner.
      const int column = own.x - under->bounds.x0;
      const int row = own.y - under->bounds.y0;
      if (!isOwn) parts << QString::fromStdString(under->name);
      parts << tr("cell %1, %2").arg(column).arg(row);
      if (isOwn) parts << tr("px %1, %2").arg(box.x - pixels.x).arg(box.y - pixels.y);
    }
    scale << tr("%1 %").arg(canvas.zoom() * 100, 0, 'g', canvas.zoom() >= 1 ? 4 : 2);
    if (map->shownTimes != 1)
      scale << (canvas.zoom() == map->shownTimes ? tr("as in the game") : tr("in the game × %1").arg(map->shownTimes));
  }
  place_->setText(parts.join(QStringLiteral(" · ")));
  scale_->setText(scale.join(QStringLiteral(" · ")));
  size_->setText(map ? sizeText(session->quilt(), *map) : QString());
  size_->setVisible(map != nullptr);
}

}  // namespace uq
