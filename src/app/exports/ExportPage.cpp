#include "app/exports/ExportPage.h"

#include <QEvent>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QVBoxLayout>

#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"
#include "core/edit/Targets.h"

namespace uq {

namespace {

constexpr int kOutputHeight = 72;  // logical pixels

}  // namespace

void CardRows::setCards(std::vector<QWidget*> cards) {
  cards_ = std::move(cards);
  arrange();
}

void CardRows::arrange() {
  const int across = std::max(1, (width() + kGap) / (TargetCard::kWidth + kGap));
  int top = 0;
  for (std::size_t from = 0; from < cards_.size(); from += static_cast<std::size_t>(across)) {
    const std::size_t end = std::min(cards_.size(), from + static_cast<std::size_t>(across));
    int high = 0;
    for (std::size_t i = from; i < end; ++i) {
      cards_[i]->ensurePolished();
      cards_[i]->layout()->activate();
      high = std::max({high, cards_[i]->layout()->totalHeightForWidth(TargetCard::kWidth), cards_[i]->layout()->totalMinimumSize().height()});
    }
    for (std::size_t i = from; i < end; ++i) cards_[i]->setGeometry(static_cast<int>(i - from) * (TargetCard::kWidth + kGap), top, TargetCard::kWidth, high);
    top += high + kGap;
  }
  setMinimumHeight(top);
}

void CardRows::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  arrange();
}

ExportPage::ExportPage(Exports* exports, QWidget* parent) : Card(parent), exports_(exports) {
  setObjectName(QStringLiteral("export-page"));
  setAccessibleName(tr("Export: what goes out to the game"));
  makeCard(this);
  QLayout* head = makeCardHead(this, makeTitle(tr("Out to the game"), this), "export-page-close");
  pages_ = new QStackedWidget(this);
  list_ = new CardRows;
  forms_ = buildForms();
  scroll_ = new QScrollArea(this);
  scroll_->setFrameShape(QFrame::NoFrame);
  scroll_->setWidgetResizable(true);
  scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll_->setWidget(list_);
  for (QWidget* one : std::initializer_list<QWidget*>{scroll_->viewport(), list_}) one->setAutoFillBackground(false);
  pages_->addWidget(scroll_);
  form_ = new FormView(exports, pages_);
  pages_->addWidget(form_);
  connect(form_, &FormView::left, this, &ExportPage::showCards);
  connect(form_, &FormView::said, this, &ExportPage::said);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap + 2, kGap, kGap + 2, kGap);
  layout->setSpacing(kGap);
  layout->addLayout(head);
  layout->addWidget(forms_);
  layout->addWidget(pages_, 1);
  layout->addWidget(buildFoot());
  connect(exports_, &Exports::changed, this, [this] {
    if (isVisible()) refresh(false);
  });
  connect(exports_, &Exports::outputChanged, this, [this] {
    if (isVisible()) refreshCommand();
  });
  parent->installEventFilter(this);
  hide();
}

QWidget* ExportPage::buildForms() {
  auto* part = new QWidget(this);
  auto* line = new SentenceLayout({new QLabel(tr("New target:"), part)});
  for (const TargetForm form : kTargetForms) {
    auto* button = makePlainButton(("export-new-" + std::string(targetFormName(form))).c_str(), part);
    button->setText(formTitle(form));
    button->setToolTip(formWords(form));
    connect(button, &QToolButton::clicked, this, [this, form] { add(form); });
    line->addWidget(button);
  }
  part->setLayout(line);
  return part;
}

QWidget* ExportPage::buildFoot() {
  auto* part = new QWidget(this);
  all_ = makePlainButton("export-all", part);
  setInkedIcon(all_, QStringLiteral("export"));
  all_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
  all_->setText(tr("Export all"));
  connect(all_, &QToolButton::clicked, this, [this] {
    std::vector<Id> targets;
    for (const Shared<Target>& one : session_->quilt().all<Target>()) targets.push_back(one->id);
    if (const QString why = exports_->write(targets); !why.isEmpty()) Q_EMIT said(why + QLatin1Char('.'));
  });
  command_ = new QLineEdit(part);
  command_->setObjectName(QStringLiteral("export-command"));
  command_->setAccessibleName(tr("Command that is run after saving"));
  command_->setPlaceholderText(tr("nothing"));
  command_->setMaxLength(2000);
  command_->setToolTip(tr("A line for the shell, on this machine only; the names of the maps that changed are given to it"));
  connect(command_, &QLineEdit::editingFinished, this, [this] { exports_->setCommand(command_->text().trimmed()); });
  stop_ = makePlainButton("export-stop", part);
  stop_->setText(tr("Stop"));
  connect(stop_, &QToolButton::clicked, this, [this] {
    exports_->stopCommand();
    refreshCommand();
  });
  output_ = new QPlainTextEdit(part);
  output_->setObjectName(QStringLiteral("export-output"));
  output_->setAccessibleName(tr("What the command said"));
  output_->setReadOnly(true);
  output_->setTabChangesFocus(true);
  output_->setFixedHeight(kOutputHeight);
  QFont fixed(QStringLiteral("DejaVu Sans Mono"));
  fixed.setStyleHint(QFont::Monospace);
  output_->setFont(fixed);
  auto* line = new QHBoxLayout;
  line->addWidget(all_);
  line->addSpacing(2 * kGap);
  line->addWidget(new QLabel(tr("After saving run"), part));
  line->addWidget(command_, 1);
  line->addWidget(stop_);
  auto* layout = new QVBoxLayout(part);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(kGap);
  layout->addLayout(line);
  layout->addWidget(output_);
  return part;
}

void ExportPage::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  hide();
  session_ = session;
  form_->setSession(session);
  for (TargetCard* card : cards_) delete card;
  for (OfferCard* card : offers_) delete card;
  cards_.clear();
  offers_.clear();
  list_->setCards({});
  if (!session_) return;
  // Samples are of the map that is worked on.
  connect(session_, &Session::deskChanged, this, [this](const DeskChange& change) {
    if (!isVisible() || !change.map) return;
    refresh(true);
    form_->look();
  });
  connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
    if (isVisible() && (change.any<Target>() || change.any<Map>() || change.any<Sheet>())) refresh(true);
  });
}

void ExportPage::open() {
  if (!session_) return;
  coverMap({420, 320});
  showCards();
  show();
  raise();
  refresh(true);
  refreshCommand();
  // What comes next: a form to choose, or to go out.
  auto* next = cards_.empty() ? findChild<QToolButton*>(QStringLiteral("export-new-json")) : all_;
  next->setFocus(Qt::OtherFocusReason);
}

void ExportPage::refresh(bool looks) {
  const auto& targets = session_->quilt().all<Target>();
  // Cards that stay are kept: somebody may be typing in one.
  std::vector<TargetCard*> before = std::exchange(cards_, {});
  const auto drop = [](QWidget* card) { card->hide(), card->deleteLater(); };
  for (const Shared<Target>& one : targets) {
    const auto known = std::find_if(before.begin(), before.end(), [&](const TargetCard* card) { return card->target() == one->id && card->form() == one->form; });
    const bool isNew = known == before.end();
    cards_.push_back(isNew ? newCard(one->id) : *known);
    if (!isNew) before.erase(known);
    cards_.back()->refresh(looks || isNew);
  }
  for (TargetCard* card : before) drop(card);
  if (!targets.empty()) {
    for (OfferCard* card : std::exchange(offers_, {})) drop(card);
  } else if (offers_.empty()) {
    for (const TargetForm form : kTargetForms) {
      offers_.push_back(new OfferCard(session_, form, list_));
      connect(offers_.back(), &OfferCard::wanted, this, [this, form] { add(form); });
    }
  }
  std::vector<QWidget*> shown(cards_.begin(), cards_.end());
  shown.insert(shown.end(), offers_.begin(), offers_.end());
  for (QWidget* card : shown) card->show();
  list_->setCards(std::move(shown));
  all_->setEnabled(!targets.empty());
}

TargetCard* ExportPage::newCard(Id target) {
  auto* card = new TargetCard(session_, exports_, target, list_);
  connect(card, &TargetCard::formWanted, this, &ExportPage::showForm);
  connect(card, &TargetCard::said, this, &ExportPage::said);
  return card;
}

void ExportPage::refreshCommand() {
  if (!command_->hasFocus()) command_->setText(QString::fromStdString(exports_->places().command));
  stop_->setEnabled(exports_->runsCommand());
  output_->setVisible(!exports_->output().isEmpty() || exports_->runsCommand());
  if (output_->toPlainText() != exports_->output()) {
    output_->setPlainText(exports_->output());
    output_->moveCursor(QTextCursor::End);
  }
}

void ExportPage::add(TargetForm form) {
  Target target = newTarget(session_->quilt(), form);
  if (form == TargetForm::own) begunOwn(target);
  TargetAdded added = addTarget(session_->quilt(), std::move(target), session_->work().ids());
  if (added.target.empty()) return Q_EMIT said(tr("A quilt holds at most 256 targets."));
  session_->quiltStep(tr("New target"), std::move(added.quilt));
  showCards();
  if (form == TargetForm::own) return showForm(added.target);
  for (TargetCard* card : cards_) {
    if (card->target() != added.target) continue;
    list_->arrange();
    scroll_->ensureWidgetVisible(card);
    if (auto* write = card->findChild<QToolButton*>(QStringLiteral("target-write-") + QString::fromStdString(added.target.text()))) write->setFocus(Qt::OtherFocusReason);
  }
}

void ExportPage::showForm(Id target) {
  forms_->hide();
  pages_->setCurrentWidget(form_);
  form_->open(target);
}

void ExportPage::showCards() {
  forms_->show();
  pages_->setCurrentWidget(scroll_);
}

void ExportPage::keyPressEvent(QKeyEvent* event) {
  if (event->key() != Qt::Key_Escape) return Card::keyPressEvent(event);
  if (pages_->currentWidget() == form_) {
    form_->take();
    showCards();
    all_->setFocus(Qt::OtherFocusReason);
  } else {
    hide();
  }
  event->accept();
}

bool ExportPage::eventFilter(QObject* watched, QEvent* event) {
  if (watched == parentWidget() && event->type() == QEvent::Resize && isVisible()) coverMap({420, 320});
  return Card::eventFilter(watched, event);
}

// Samples are drawn in the theme's colours.
void ExportPage::changeEvent(QEvent* event) {
  Card::changeEvent(event);
  if (event->type() == QEvent::PaletteChange && session_ && isVisible()) refresh(true);
}

void ExportPage::hideEvent(QHideEvent* event) {
  Card::hideEvent(event);
  if (event->spontaneous()) return;
  form_->take();
  Q_EMIT closed();
}

}  // namespace uq
