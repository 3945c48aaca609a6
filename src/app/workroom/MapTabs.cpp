#include "app/workroom/MapTabs.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QScrollArea>
#include <QScrollBar>
#include <QToolButton>
#include <QWheelEvent>
#include <algorithm>
#include <utility>

#include "app/look/Icons.h"
#include "app/look/NameField.h"
#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"

namespace uq {

namespace {

constexpr double kDotInside = 5.5;  // of a map that is not saved: from the upper right corner of its tab
constexpr double kDotRadius = 2.5;
constexpr const char* kMeasured = "measured";  // the text for which a tab has its width
constexpr int kLongestName = 160;   // logical pixels, of a tab's text
constexpr int kShortestName = 58;   // where many tabs share the row
constexpr int kTabFrame = 16;       // of a tab besides its text
constexpr int kLeastBack = 104;     // of the button that takes the last step back, kept free for it
constexpr int kMostBack = 176;
constexpr int kBackShare = 6;       // it has one part in so many of the row

// As it has room in bold, which the active tab is.
QString shortened(const QWidget* on, const QString& text, int most) {
  QFont bold = on->font();
  bold.setBold(true);
  return QFontMetrics(bold).elidedText(text, Qt::ElideRight, most);
}

}  // namespace

MapTabs::MapTabs(Actions* actions, QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("tabs"));
  setFixedHeight(34);
  more_ = makeActionButton(actions->action(ActionId::newMap), {}, this);
  more_->setToolButtonStyle(Qt::ToolButtonIconOnly);
  undo_ = new QToolButton(this);
  undo_->setObjectName(QStringLiteral("back-button"));
  undo_->setFocusPolicy(Qt::TabFocus);
  undo_->setFixedWidth(kLeastBack);
  undo_->setProperty("raised", true);
  undo_->setProperty("tight", true);
  undo_->setIconSize({16, 16});
  undo_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  QSizePolicy stays = undo_->sizePolicy();
  stays.setRetainSizeWhenHidden(true);
  undo_->setSizePolicy(stays);
  connect(undo_, &QToolButton::clicked, this, &MapTabs::undoPressed);
  board_ = new QToolButton(this);
  board_->setObjectName(QStringLiteral("tab-board"));
  board_->setProperty("tight", true);
  board_->setFocusPolicy(Qt::TabFocus);
  board_->setToolTip(actions->action(ActionId::goToBoard)->toolTip());
  board_->installEventFilter(this);
  keepWidth(*board_, tr("Board"));
  board_->setText(tr("Board"));
  connect(board_, &QToolButton::clicked, this, [this] {
    if (session_) session_->verbs().maps.showBoard(true);
  });
  scroll_ = new QScrollArea(this);
  scroll_->setFrameShape(QFrame::NoFrame);
  scroll_->setFocusPolicy(Qt::NoFocus);
  scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll_->setMinimumWidth(0);
  scroll_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
  scroll_->viewport()->setAutoFillBackground(false);
  strip_ = new QWidget;
  strip_->setAutoFillBackground(false);
  strip_->installEventFilter(this);
  scroll_->setWidget(strip_);
  layout_ = new QHBoxLayout(strip_);
  layout_->setContentsMargins(kGap, 3, 0, 4);
  layout_->setSpacing(kGap / 2);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, kGap, 0);
  row->setSpacing(kGap);
  // Right behind the last tab, and never scrolled away.
  row->addSpacing(kGap);
  row->addWidget(board_);
  row->addWidget(scroll_, 1);
  row->addWidget(more_);
  row->addStretch();
  row->addWidget(undo_);
  refresh();
}

void MapTabs::setSession(Session* session) {
  if (field_) field_->drop();
  if (session_) session_->disconnect(this);
  session_ = session;
  if (session_) {
    connect(session_, &Session::quiltChanged, this, &MapTabs::refresh);
    connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
      if (change.map) refresh();
    });
  }
  refresh();
}

QToolButton* MapTabs::tab(Id map) const {
  const auto& open = session_->desk().openMaps;
  const auto place = std::find(open.begin(), open.end(), map);
  return place == open.end() ? nullptr : tabs_[static_cast<std::size_t>(place - open.begin())];
}

// As wide as the tab is when it is the active one, so that going to another map moves no tab.
void MapTabs::keepWidth(QToolButton& tab, const QString& text) {
  if (tab.property(kMeasured) == text) return;
  tab.setProperty(kMeasured, text);
  QFont bold = tab.font();
  bold.setBold(true);
  tab.setFixedWidth(QFontMetrics(bold).horizontalAdvance(text) + kTabFrame);
}

bool MapTabs::namesFit(int room) const {
  int wide = 0;
  QFont bold = font();
  bold.setBold(true);
  const QFontMetrics metrics(bold);
  for (const Id id : session_ ? session_->desk().openMaps : std::vector<Id>()) {
    const Map* map = session_->quilt().map(id);
    if (map) wide += std::min(kLongestName, metrics.horizontalAdvance(QString::fromStdString(map->name))) + kTabFrame + kGap / 2;
  }
  return wide <= room;
}

void MapTabs::refresh() {
  const std::vector<Id> open = session_ ? session_->desk().openMaps : std::vector<Id>();
  while (tabs_.size() > open.size()) {
    delete tabs_.back();
    tabs_.pop_back();
  }
  while (tabs_.size() < open.size()) {
    auto* tab = new QToolButton(strip_);
    tab->setProperty("tight", true);
    tab->setFocusPolicy(Qt::TabFocus);
    tab->installEventFilter(this);
    const std::size_t index = tabs_.size();
    connect(tab, &QToolButton::clicked, this, [this, index] { session_->verbs().maps.goTo(session_->desk().openMaps[index]); });
    layout_->insertWidget(static_cast<int>(index), tab);
    tabs_.push_back(tab);
  }
  unsaved_.clear();
  // All the same, so that going from one map to another changes none.
  // Beside the gaps of the row and of the strip.
  const int room = width() - undo_->width() - board_->width() - more_->sizeHint().width() - 8 * kGap;
  const int share = open.empty() ? kLongestName : room / static_cast<int>(open.size()) - kTabFrame - kGap / 2;
  const int most = namesFit(room) ? kLongestName : std::clamp(share, kShortestName, kLongestName);
  for (std::size_t i = 0; i < open.size(); ++i) {
    const Map* map = session_->quilt().map(open[i]);
    // Between a step and its desk, a map may be gone already.
    if (!map) continue;
    const QString name = QString::fromStdString(map->name);
    const bool saved = session_->isSaved(*map);
    tabs_[i]->setObjectName(QStringLiteral("tab-") + QString::fromStdString(map->folder));
    const QString text = shortened(tabs_[i], name, most);
    keepWidth(*tabs_[i], text);
    tabs_[i]->setText(onButton(text));
    if (!saved) unsaved_.insert(map->id);
    tabs_[i]->setAccessibleName(saved ? tr("Map %1").arg(name) : tr("Map %1, not saved").arg(name));
    tabs_[i]->setToolTip(tr("%1\nDouble-click renames it, a middle click closes the tab").arg(name));
    QFont font = tabs_[i]->font();
    font.setBold(map->id == session_->desk().map && !session_->desk().onBoard);
    tabs_[i]->setFont(font);
  }
  board_->setVisible(session_ != nullptr);
  QFont font = board_->font();
  font.setBold(session_ && session_->desk().onBoard);
  board_->setFont(font);
  board_->update();
  strip_->update();
  fitStrip();
  if (session_ && shown_ != session_->desk().map) {
    shown_ = session_->desk().map;
    // Once the row has its place.
    QMetaObject::invokeMethod(this, &MapTabs::showActive, Qt::QueuedConnection);
  }
  // Within a stroke there is nothing to go back to, but the button must not flicker.
  if (session_ && session_->inGesture()) return;
  const auto plan = session_ ? session_->undoLine().planBack(tabOf(session_->desk()), session_->quilt()) : std::nullopt;
  undo_->setVisible(plan.has_value());
  if (plan) {
    const QString name = QString::fromStdString(plan->names.front());
    undo_->setIcon(icon(QStringLiteral("undo"), Theme::current().ink));
    undo_->setText(onButton(shortened(undo_, name, undo_->width() - 36)));
    undo_->setToolTip(tr("Take “%1” back").arg(name));
    undo_->setAccessibleName(tr("Back: “%1”").arg(name));
  }
}

void MapTabs::fitStrip() {
  layout_->activate();
  const int wide = strip_->sizeHint().width();
  strip_->resize(wide, height());
  scroll_->setMaximumWidth(wide);
}

void MapTabs::showActive() {
  QToolButton* active = session_ && session_->map() ? tab(session_->desk().map) : nullptr;
  if (!active) return;
  fitStrip();
  layout()->activate();
  scroll_->ensureWidgetVisible(active, kGap, 0);
}

void MapTabs::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  if (event->oldSize().width() != width()) {
    undo_->setFixedWidth(std::clamp(width() / kBackShare, kLeastBack, kMostBack));
    refresh();
  }
  QMetaObject::invokeMethod(this, &MapTabs::showActive, Qt::QueuedConnection);
}

void MapTabs::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  painter.fillRect(rect(), theme.panel);
  painter.fillRect(QRect(0, height() - 1, width(), 1), theme.edge);
  if (board_->isVisible()) {
    paintTab(painter, QRectF(board_->geometry()).adjusted(.5, .5, -.5, -.5), session_ && session_->desk().onBoard);
  }
}

void MapTabs::changeEvent(QEvent* event) {
  QWidget::changeEvent(event);
  // A theme gives all tabs the same font again; once all of them have it.
  const bool restyled = event->type() == QEvent::StyleChange || event->type() == QEvent::PaletteChange;
  if (restyled) QMetaObject::invokeMethod(this, &MapTabs::refresh, Qt::QueuedConnection);
}

// The paper of a tab, with stitches under the active one.
void MapTabs::paintTab(QPainter& painter, const QRectF& tab, bool active) {
  const Theme& theme = Theme::current();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(theme.edge);
  painter.setBrush(active ? theme.paper : theme.panel);
  painter.drawRoundedRect(tab, kCorner, kCorner);
  painter.setRenderHint(QPainter::Antialiasing, false);
  if (!active) return;
  drawStitchLine(painter, QLineF(tab.left() + 8, tab.bottom() - 1, tab.right() - 8, tab.bottom() - 1), theme.madder, theme.paper);
}

void MapTabs::paintTabs() {
  QPainter painter(strip_);
  const Theme& theme = Theme::current();
  painter.fillRect(QRect(0, strip_->height() - 1, strip_->width(), 1), theme.edge);
  for (std::size_t i = 0; i < tabs_.size(); ++i) {
    const QRectF tab = QRectF(tabs_[i]->geometry()).adjusted(.5, .5, -.5, -.5);
    const Id map = i < session_->desk().openMaps.size() ? session_->desk().openMaps[i] : Id();
    const bool active = !map.empty() && map == session_->desk().map && !session_->desk().onBoard;
    paintTab(painter, tab, active);
    if (unsaved_.contains(map)) {
      painter.setRenderHint(QPainter::Antialiasing);
      painter.setPen(Qt::NoPen);
      painter.setBrush(theme.ink);
      painter.drawEllipse(tab.topRight() + QPointF(-kDotInside, kDotInside), kDotRadius, kDotRadius);
    }
    painter.setRenderHint(QPainter::Antialiasing, false);
  }
}

void MapTabs::rename() {
  QToolButton* over = session_ && session_->map() && !field_ ? tab(session_->desk().map) : nullptr;
  if (!over) return;
  scroll_->ensureWidgetVisible(over, kGap, 0);
  const QRect at(over->mapTo(this, QPoint()), over->size());
  const QRect place = at.adjusted(0, 0, std::max(0, 160 - over->width()), 0);
  field_ = new NameField(QString::fromStdString(session_->map()->name), place, this,
                         [this, id = session_->desk().map](const QString& name) {
                           if (session_) session_->verbs().maps.rename(id, name.toStdString());
                         });
  field_->setObjectName(QStringLiteral("tab-name"));
  field_->setAccessibleName(tr("Name of the map"));
  connect(field_, &NameField::closed, this, [this] {
    field_->setObjectName({});
    field_ = nullptr;
    QMetaObject::invokeMethod(this, &MapTabs::handsFree, Qt::QueuedConnection);
  });
}

bool MapTabs::eventFilter(QObject* watched, QEvent* event) {
  if (watched == strip_ && event->type() == QEvent::Paint) {
    paintTabs();
    return true;
  }
  if (event->type() == QEvent::Wheel) {  // over a tab or between two
    const QPoint by = static_cast<QWheelEvent*>(event)->angleDelta();
    QScrollBar* bar = scroll_->horizontalScrollBar();
    bar->setValue(bar->value() - (by.x() != 0 ? by.x() : by.y()) / 2);
    return true;
  }
  const bool matters = event->type() == QEvent::MouseButtonRelease || event->type() == QEvent::MouseButtonDblClick;
  const auto place = matters && session_ ? std::find(tabs_.begin(), tabs_.end(), watched) : tabs_.end();
  if (place == tabs_.end()) return false;
  const Id map = session_->desk().openMaps[static_cast<std::size_t>(place - tabs_.begin())];
  if (event->type() == QEvent::MouseButtonRelease && static_cast<QMouseEvent*>(event)->button() == Qt::MiddleButton) {
    // The tab is deleted by what follows.
    QMetaObject::invokeMethod(
        this, [this, map] { session_->verbs().maps.closeTab(map); }, Qt::QueuedConnection);
    return true;
  }
  if (event->type() == QEvent::MouseButtonDblClick) {
    session_->verbs().maps.goTo(map);
    rename();
    return true;
  }
  return false;
}

}  // namespace uq
