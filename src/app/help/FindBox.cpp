#include "app/help/FindBox.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QRegularExpression>
#include <QVBoxLayout>
#include <algorithm>

#include "app/actions/KeyBindings.h"
#include "app/help/HelpPages.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"

namespace uq {

namespace {

constexpr int kEntry = Qt::UserRole;

QStringList wordsOf(const QString& text) {
  static const QRegularExpression gaps(QStringLiteral("[^\\w%]+"), QRegularExpression::UseUnicodePropertiesOption);
  return text.toLower().split(gaps, Qt::SkipEmptyParts);
}

}  // namespace

FindBox::FindBox(Actions* actions, QWidget* parent) : QFrame(parent, Qt::Popup), actions_(actions) {
  setObjectName(QStringLiteral("find-box"));
  setAccessibleName(tr("Find help or an action"));
  makeCard(this);
  field_ = new QLineEdit(this);
  field_->setObjectName(QStringLiteral("find-field"));
  field_->setAccessibleName(tr("What do you want to do?"));
  field_->setPlaceholderText(tr("What do you want to do?"));
  field_->installEventFilter(this);
  list_ = new QListWidget(this);
  list_->setObjectName(QStringLiteral("find-list"));
  list_->setAccessibleName(tr("What was found"));
  list_->setFixedWidth(310);
  list_->setIconSize({16, 16});
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  text_ = new QLabel(this);
  text_->setObjectName(QStringLiteral("find-text"));
  text_->setTextFormat(Qt::RichText);
  text_->setWordWrap(true);
  text_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  text_->setContentsMargins(kGap, 0, kGap, 0);
  auto* body = new QHBoxLayout;
  body->setSpacing(kGap);
  body->addWidget(list_);
  body->addWidget(text_, 1);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap, kGap, kGap, kGap);
  layout->setSpacing(kGap);
  layout->addWidget(field_);
  layout->addLayout(body, 1);
  resize(720, 420);
  connect(field_, &QLineEdit::textChanged, this, &FindBox::filter);
  connect(list_, &QListWidget::currentRowChanged, this, &FindBox::showText);
  connect(list_, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) {
    // A page is only read; an action is run.
    if (entries_[item->data(kEntry).toUInt()].action) choose();
  });
}

void FindBox::buildEntries() {
  entries_.clear();
  for (const HelpPage& page : helpPages()) {
    const QString text = helpText(page.text);
    entries_.push_back({helpText(page.title), helpText(page.words), text, std::nullopt});
  }
  for (const ActionRow& row : actionTable()) {
    Entry entry{translated(row.text), wordsFor(row.id), {}, std::nullopt};
    if (row.gesture) {
      entry.text = QStringLiteral("<p>%1</p><p>%2</p>")
                       .arg(translated(row.tip).toHtmlEscaped(), tr("By hand: %1").arg(QLatin1String(row.keys)));
    } else {
      const QAction* action = actions_->action(row.id);
      const QString keys = KeyBindings::shared().text(row.id);
      entry.action = row.id;
      entry.text = QStringLiteral("<p>%1</p>").arg(translated(row.tip).toHtmlEscaped());
      if (!keys.isEmpty())
        entry.text += QStringLiteral("<p>%1</p>").arg(tr("Keys: <b>%1</b>").arg(keys.toHtmlEscaped()));
      if (row.menu != Menu::none) {
        entry.text +=
            QStringLiteral("<p>%1</p>").arg(tr("In the menu %1").arg(menuText(row.menu).remove(QLatin1Char('&'))));
      }
      entry.text += action->isEnabled()
                        ? QStringLiteral("<p><b>%1</b></p>").arg(tr("Enter does it."))
                        : QStringLiteral("<p>%1</p>").arg(tr("Not now: %1.").arg(action->toolTip().toHtmlEscaped()));
    }
    entries_.push_back(std::move(entry));
  }
  for (Entry& entry : entries_) {
    entry.titleWords = wordsOf(entry.title);
    entry.otherWords = wordsOf(entry.words);
    entry.textWords = wordsOf(entry.text);
  }
}

int FindBox::found(const QString& word, const Entry& entry) {
  const auto begins = [&](const QStringList& words) {
    return std::any_of(words.begin(), words.end(), [&](const QString& one) { return one.startsWith(word); });
  };
  if (entry.title.startsWith(word, Qt::CaseInsensitive)) return 4;
  return begins(entry.titleWords) ? 3 : begins(entry.otherWords) ? 2 : begins(entry.textWords) ? 1 : 0;
}

void FindBox::open(QPoint middle, const QString& about) {
  buildEntries();
  field_->clear();
  filter(about);
  move(middle - QPoint(width() / 2, 0));
  show();
  field_->setFocus();
}

void FindBox::filter(const QString& wanted) {
  const QStringList words = wordsOf(wanted);
  struct Hit {
    int matched;
    int score;
    std::size_t entry;
  };
  std::vector<Hit> hits;
  int most = 0;
  int best = 0;
  for (std::size_t i = 0; i < entries_.size(); ++i) {
    Hit hit{0, 0, i};
    for (const QString& word : words) {
      const int how = found(word, entries_[i]);
      hit.matched += how > 0 ? 1 : 0;
      hit.score += how;
    }
    if (words == entries_[i].titleWords) hit.score += 10;
    most = std::max(most, hit.matched);
    best = std::max(best, hit.score);
    hits.push_back(hit);
  }
  // What matches all the words; of a whole sentence, what matches it best.
  const bool all = most == words.size();
  std::erase_if(hits, [&](const Hit& hit) {
    return all ? hit.matched < most : most == 0 || 2 * hit.score < best;
  });
  std::stable_sort(hits.begin(), hits.end(), [](const Hit& a, const Hit& b) { return a.score > b.score; });
  list_->clear();
  for (const Hit& hit : hits) {
    const Entry& entry = entries_[hit.entry];
    const QString keys = entry.action ? KeyBindings::shared().text(*entry.action) : QString();
    auto* item = new QListWidgetItem(keys.isEmpty() ? entry.title : tr("%1  (%2)").arg(entry.title, keys), list_);
    item->setData(kEntry, static_cast<uint>(hit.entry));
    if (entry.action && !actions_->action(*entry.action)->isEnabled()) item->setForeground(Theme::current().softInk);
    if (entry.action) item->setIcon(actions_->action(*entry.action)->icon());
  }
  list_->setCurrentRow(0);
  showText();
}

void FindBox::showText() {
  const QListWidgetItem* item = list_->currentItem();
  if (!item) {
    text_->setText(tr("<p>Nothing was found. Try another word: what would you call it?</p>"));
    return;
  }
  const Entry& entry = entries_[item->data(kEntry).toUInt()];
  text_->setText(QStringLiteral("<h3>%1</h3>%2").arg(entry.title.toHtmlEscaped(), entry.text));
}

void FindBox::choose() {
  const QListWidgetItem* item = list_->currentItem();
  if (!item || !isVisible()) return;
  const auto action = entries_[item->data(kEntry).toUInt()].action;
  if (!action || !actions_->action(*action)->isEnabled()) return;
  hide();
  actions_->action(*action)->trigger();
}

bool FindBox::eventFilter(QObject* watched, QEvent* event) {
  if (watched == field_ && event->type() == QEvent::KeyPress) {
    switch (static_cast<QKeyEvent*>(event)->key()) {
      case Qt::Key_Up:
      case Qt::Key_Down:
      case Qt::Key_PageUp:
      case Qt::Key_PageDown: QCoreApplication::sendEvent(list_, event); return true;
      case Qt::Key_Return:
      case Qt::Key_Enter: choose(); return true;
      default: break;
    }
  }
  return QFrame::eventFilter(watched, event);
}

}  // namespace uq
