#include "app/board/WaysPanel.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/SentenceList.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/ThreadRound.h"
#include "core/edit/Doorways.h"

namespace uq {

namespace {

constexpr int kLeastWidth = 200;  // logical pixels

SentenceList* makeSentenceList(const char* object, const QString& name, QWidget* parent) {
  auto* list = new SentenceList(parent);
  list->setObjectName(QLatin1String(object));
  list->setAccessibleName(name);
  return list;
}

}  // namespace

WaysPanel::WaysPanel(BoardView* board, ThreadRound* round, QWidget* parent) : QFrame(parent), board_(board), round_(round) {
  setObjectName(QStringLiteral("ways-panel"));
  setMinimumWidth(kLeastWidth);
  waysTitle_ = makeTitle({}, this);
  waysList_ = makeSentenceList("board-ways", tr("Ways"), this);
  noWays_ = makeSoftLabel(this);
  noWays_->setText(tr("No way leads from here yet. Choose a piece, open it, and with Pins (9) press the door's cell and L: a cord comes to hand."));
  threadsTitle_ = makeTitle({}, this);
  threadsList_ = makeSentenceList("board-threads", tr("Loose threads"), this);
  noThreads_ = makeSoftLabel(this);
  noThreads_->setText(tr("Nothing hangs loose."));
  mend_ = new QPushButton(this);
  mend_->setObjectName(QStringLiteral("board-mend"));
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap, kGap, kGap, kGap);
  layout->addWidget(waysTitle_);
  layout->addWidget(waysList_, 3);
  layout->addWidget(noWays_);
  layout->addSpacing(kGap);
  layout->addWidget(threadsTitle_);
  layout->addWidget(threadsList_, 2);
  layout->addWidget(noThreads_);
  layout->addWidget(mend_, 0, Qt::AlignLeft);
  layout->addStretch();
  connect(board_, &BoardView::choiceChanged, this, &WaysPanel::refresh);
  connect(round_, &ThreadRound::looked, this, [this] {
    if (isVisible()) fillThreads(false);
  });
  connect(waysList_, &SentenceList::rowChosen, this, [this](int row) { board_->showDoorway(ways_[static_cast<std::size_t>(row)]); });
  connect(waysList_, &SentenceList::rowOpened, this, [this](int row) {
    const Doorway* doorway = session_->quilt().listed<Doorway>(ways_[static_cast<std::size_t>(row)]);
    if (!doorway) return;
    const bool isThere = session_->quilt().pin(doorway->from) != nullptr;
    Q_EMIT doorWanted(isThere ? doorway->from : doorway->to);
  });
  connect(threadsList_, &SentenceList::rowChosen, this, [this] {
    if (const LooseThread* one = thread()) board_->showDoorway(one->about);
    refreshMend();
  });
  connect(threadsList_, &SentenceList::rowOpened, this, [this] {
    if (const LooseThread* one = thread()) Q_EMIT threadWanted(LooseThread(*one));
  });
  connect(mend_, &QPushButton::clicked, this, [this] {
    if (const LooseThread* one = thread()) session_->verbs().pins.mend(LooseThread(*one));
    threadsList_->setFocus(Qt::OtherFocusReason);  // the button is about to be grey
  });
  for (SentenceList* list : {waysList_, threadsList_}) {
    connect(list, &SentenceList::handsFree, board_, qOverload<>(&QWidget::setFocus));
  }
}

void WaysPanel::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  ways_.clear();
  waysList_->show({});
  threads_ = {};
  threadsList_->show({});
  if (!session_) return;
  connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
    if (isVisible() && (change.any<Doorway>() || change.any<Map>())) fillWays();
  });
  if (isVisible()) refresh();
}

void WaysPanel::showEvent(QShowEvent* event) {
  QFrame::showEvent(event);
  refresh();
}

void WaysPanel::refresh() {
  if (!session_ || !isVisible()) return;
  // Others stand there now: none of them was chosen.
  waysList_->setCurrentIndex({});
  threadsList_->setCurrentIndex({});
  fillWays();
  fillThreads(true);
}

void WaysPanel::fillWays() {
  const std::set<Id>& chosen = board_->allChosen();
  ways_.clear();
  for (const Shared<Doorway>& doorway : session_->quilt().doorways()) {
    const bool wanted = chosen.empty() || chosen.contains(doorway->from.map) || chosen.contains(doorway->to.map);
    if (wanted) ways_.push_back(doorway->id);
  }
  const Map* one = chosen.size() == 1 ? session_->quilt().map(*chosen.begin()) : nullptr;
  const auto count = static_cast<int>(ways_.size());
  waysTitle_->setText(chosen.empty() ? tr("All ways: %1").arg(count)
                      : one          ? tr("Ways of %1: %2").arg(QString::fromStdString(one->name).left(40)).arg(count)
                                     : tr("Ways of %1 pieces: %2").arg(chosen.size()).arg(count));
  waysList_->show({count,
                   [this](int row) {
                     const Doorway* doorway = session_->quilt().listed<Doorway>(ways_[static_cast<std::size_t>(row)]);
                     return doorway ? QString::fromStdString(doorwayText(session_->quilt(), *doorway)) : QString();
                   },
                   {}});
  waysList_->setVisible(count > 0);
  noWays_->setVisible(count == 0);
}

void WaysPanel::fillThreads(bool anew) {
  const std::set<Id> chosen = board_->allChosen();
  threads_.take(round_->checked(), anew, [&](const LooseThread& one) { return chosen.empty() || chosen.contains(one.map); });
  const auto count = static_cast<int>(std::count_if(threads_.rows().begin(), threads_.rows().end(), [this](const LooseThread& one) { return threads_.isLoose(one); }));
  threadsTitle_->setText(count == 0 ? tr("Loose threads") : count == 1 ? tr("1 loose thread") : tr("%1 loose threads").arg(count));
  threadsList_->show({static_cast<int>(threads_.rows().size()),
                      [this](int row) { return ThreadListing::wordsOf(session_->quilt(), threads_.rows()[static_cast<std::size_t>(row)]); },
                      [this](int row) { return !threads_.isLoose(threads_.rows()[static_cast<std::size_t>(row)]); }});
  noThreads_->setText(chosen.empty() ? tr("Nothing hangs loose.") : tr("Nothing hangs loose here."));
  threadsList_->setVisible(!threads_.rows().empty());
  noThreads_->setVisible(threads_.rows().empty());
  mend_->setVisible(!threads_.rows().empty());
  refreshMend();
}

const LooseThread* WaysPanel::thread() const {
  const int row = threadsList_->row();
  return row >= 0 && row < static_cast<int>(threads_.rows().size()) ? &threads_.rows()[static_cast<std::size_t>(row)] : nullptr;
}

void WaysPanel::refreshMend() {
  const LooseThread* one = thread();
  const bool loose = one && threads_.isLoose(*one);
  const bool mends = loose && one->mend != LooseThread::Mend::nothing;
  mend_->setEnabled(mends);
  mend_->setText(mends ? onButton(QString::fromStdString(one->mendText)) : !one ? tr("Mend") : loose ? tr("By hand") : tr("Mended"));
}

}  // namespace uq
