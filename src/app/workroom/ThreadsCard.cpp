#include "app/workroom/ThreadsCard.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QToolButton>

#include "app/look/Widgets.h"

namespace uq {

namespace {

constexpr QSize kSize(520, 340);  // logical pixels, at most

}  // namespace

ThreadsCard::ThreadsCard(ThreadRound* round, QWidget* parent) : Card(parent), round_(round) {
  setObjectName(QStringLiteral("threads-card"));
  setAccessibleName(tr("Loose threads"));
  makeCard(this);
  title_ = makeTitle({}, this);
  const auto combo = [this](const char* object, const QString& name) {
    auto* box = new QComboBox(this);
    box->setObjectName(QLatin1String(object));
    box->setAccessibleName(name);
    connect(box, &QComboBox::activated, this, &ThreadsCard::fill);
    return box;
  };
  maps_ = combo("threads-map", tr("On which map"));
  kinds_ = combo("threads-kind", tr("Of which kind"));
  list_ = new QListWidget(this);
  list_->setObjectName(QStringLiteral("threads-list"));
  list_->setAccessibleName(tr("Loose threads"));
  list_->setWordWrap(true);
  list_->setTextElideMode(Qt::ElideNone);
  connect(list_, &QListWidget::itemClicked, this, [this] {
    if (const LooseThread* thread = current()) Q_EMIT chosen(LooseThread(*thread));
  });
  connect(list_, &QListWidget::currentRowChanged, this, &ThreadsCard::refreshRow);
  none_ = makeSoftLabel(this);
  none_->setText(tr("Nothing hangs loose."));
  mend_ = new QPushButton(this);
  mend_->setObjectName(QStringLiteral("threads-mend"));
  connect(mend_, &QPushButton::clicked, this, [this] {
    if (const LooseThread* thread = current()) session_->verbs().pins.mend(LooseThread(*thread));
    list_->setFocus(Qt::OtherFocusReason);  // the button is about to be grey
  });
  reason_ = new QLineEdit(this);
  reason_->setObjectName(QStringLiteral("threads-reason"));
  reason_->setAccessibleName(tr("Why this kind is not to be told"));
  reason_->setPlaceholderText(tr("why this kind is meant so"));
  silence_ = new QPushButton(tr("Silence this kind"), this);
  silence_->setObjectName(QStringLiteral("threads-silence"));
  connect(reason_, &QLineEdit::textChanged, this, &ThreadsCard::refreshRow);
  connect(silence_, &QPushButton::clicked, this, [this] {
    const LooseThread* thread = current();
    if (!thread) return;
    const std::string kind(thread->kind);
    QuiltFacts facts = session_->quilt().facts();
    facts.silenced[kind] = reason_->text().trimmed().toStdString();
    session_->work().step("Silence " + kind, session_->quilt().with(std::move(facts)));
    reason_->clear();
  });
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap * 2, kGap, kGap * 2, kGap * 2);
  layout->setSpacing(kGap);
  layout->addLayout(makeCardHead(this, title_, "threads-close"));
  auto* filters = new QHBoxLayout;
  filters->addWidget(maps_, 1);
  filters->addWidget(kinds_, 1);
  layout->addLayout(filters);
  layout->addWidget(list_, 1);
  layout->addWidget(none_);
  auto* foot = new QHBoxLayout;
  foot->addWidget(mend_);
  foot->addStretch();
  foot->addWidget(reason_, 1);
  foot->addWidget(silence_);
  layout->addLayout(foot);
  if (auto* close = findChild<QToolButton*>(QStringLiteral("threads-close"))) connect(close, &QToolButton::clicked, this, &ThreadsCard::close);
  connect(round_, &ThreadRound::looked, this, [this] {
    if (isVisible()) refresh(false);
  });
  parent->installEventFilter(this);
  hide();
}

void ThreadsCard::open(Session* session) {
  if (isVisible() && session_ == session) return close();
  session_ = session;
  if (!session_) return;
  moveToCorner();
  show();
  raise();
  refresh(true);
  list_->setFocus(Qt::OtherFocusReason);
}

void ThreadsCard::close() {
  hide();
  Q_EMIT closed();
}

void ThreadsCard::refresh(bool anew) {
  listing_.take(round_->checked(), anew);
  const auto count = static_cast<int>(round_->checked().threads.size());
  int silenced = 0;
  for (const auto& [kind, left] : round_->checked().silenced) silenced += left;
  title_->setText((count == 1 ? tr("1 loose thread") : tr("%1 loose threads").arg(count)) +
                  (silenced > 0 ? tr(" · %1 silenced").arg(silenced) : QString()) +
                  (listing_.isWhole() ? QString() : tr(" · the first 1,000 are listed")));
  const auto refill = [](QComboBox* box, const QString& all, const QStringList& names) {
    const QString was = box->currentIndex() > 0 ? box->currentText() : QString();
    box->clear();
    box->addItem(all);
    box->addItems(names);
    box->setCurrentIndex(std::max(0, was.isEmpty() ? 0 : box->findText(was)));
  };
  QStringList maps;
  QStringList kinds;
  for (const LooseThread& one : listing_.rows()) {
    const Map* map = session_->quilt().map(one.map);
    if (map && !maps.contains(QString::fromStdString(map->name))) maps << QString::fromStdString(map->name);
    const QString kind = QString::fromUtf8(one.kind.data(), static_cast<qsizetype>(one.kind.size()));
    if (!kinds.contains(kind)) kinds << kind;
  }
  refill(maps_, tr("on all maps"), maps);
  refill(kinds_, tr("of all kinds"), kinds);
  fill();
}

void ThreadsCard::fill() {
  const int at = list_->currentRow();
  const QSignalBlocker quiet(list_);
  list_->clear();
  rows_.clear();
  for (std::size_t i = 0; i < listing_.rows().size(); ++i) {
    const LooseThread& one = listing_.rows()[i];
    const Map* map = session_->quilt().map(one.map);
    const QString name = map ? QString::fromStdString(map->name) : QString();
    const QString kind = QString::fromUtf8(one.kind.data(), static_cast<qsizetype>(one.kind.size()));
    if (maps_->currentIndex() > 0 && maps_->currentText() != name) continue;
    if (kinds_->currentIndex() > 0 && kinds_->currentText() != kind) continue;
    rows_.push_back(i);
    const bool loose = listing_.isLoose(one);
    auto* item = new QListWidgetItem(ThreadListing::wordsOf(session_->quilt(), one), list_);
    QFont font = item->font();
    font.setStrikeOut(!loose);
    item->setFont(font);
  }
  list_->setVisible(!rows_.empty());
  none_->setVisible(rows_.empty());
  if (at >= 0 && at < list_->count()) list_->setCurrentRow(at);
  else if (list_->count() > 0) list_->setCurrentRow(0);
  refreshRow();
}

const LooseThread* ThreadsCard::current() const {
  const int row = list_->currentRow();
  return row >= 0 && row < static_cast<int>(rows_.size()) ? &listing_.rows()[rows_[static_cast<std::size_t>(row)]] : nullptr;
}

void ThreadsCard::refreshRow() {
  const LooseThread* thread = current();
  const bool loose = thread && listing_.isLoose(*thread);
  const bool mends = loose && thread->mend != LooseThread::Mend::nothing;
  mend_->setEnabled(mends);
  mend_->setText(mends ? onButton(QString::fromStdString(thread->mendText)) : thread && !loose ? tr("Mended") : tr("By hand"));
  silence_->setEnabled(loose && !reason_->text().trimmed().isEmpty());
}

void ThreadsCard::moveToCorner() {
  const QSize room = parentWidget()->size() - QSize(2 * kGap, 2 * kGap);
  const QSize size(std::min(kSize.width(), room.width()), std::min(kSize.height(), room.height()));
  setGeometry(parentWidget()->width() - size.width() - kGap, parentWidget()->height() - size.height() - kGap, size.width(), size.height());
}

bool ThreadsCard::eventFilter(QObject* watched, QEvent* event) {
  if (watched == parentWidget() && event->type() == QEvent::Resize && isVisible()) moveToCorner();
  return Card::eventFilter(watched, event);
}

void ThreadsCard::keyPressEvent(QKeyEvent* event) {
  const bool enters = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
  if (event->key() == Qt::Key_Escape) return close();
  if (enters && list_->hasFocus() && current()) return Q_EMIT chosen(LooseThread(*current()));
  event->accept();
}

}  // namespace uq
