#include "app/help/KeysPage.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "app/actions/KeyLabels.h"
#include "app/actions/PhysicalKeys.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"

namespace uq {

namespace {
constexpr int kAction = Qt::UserRole;
}

KeysPage::KeysPage(QWidget* parent) : QWidget(parent, Qt::Dialog) {
  setObjectName(QStringLiteral("keys-page"));
  setWindowTitle(tr("Keys"));
  field_ = new QLineEdit(this);
  field_->setObjectName(QStringLiteral("keys-filter"));
  field_->setAccessibleName(tr("Find an action or a key"));
  field_->setPlaceholderText(tr("Find an action or a key"));
  tree_ = new QTreeWidget(this);
  tree_->setObjectName(QStringLiteral("keys-list"));
  tree_->setAccessibleName(tr("Actions and their keys"));
  tree_->setHeaderLabels({tr("Action"), tr("Keys"), tr("Acts")});
  tree_->setRootIsDecorated(false);
  tree_->setAllColumnsShowFocus(true);
  tree_->setUniformRowHeights(true);
  tree_->header()->setSectionsMovable(false);
  tree_->header()->setStretchLastSection(true);
  tree_->setColumnWidth(0, 280);
  tree_->setColumnWidth(1, 150);
  tree_->installEventFilter(this);
  said_ = makeSoftLabel(this);
  said_->setObjectName(QStringLiteral("keys-said"));
  said_->setMinimumHeight(2 * fontMetrics().height());
  change_ = new QPushButton(tr("Change the keys"), this);
  change_->setObjectName(QStringLiteral("keys-change"));
  change_->setAutoDefault(false);
  back_ = new QPushButton(tr("As it was"), this);
  back_->setObjectName(QStringLiteral("keys-reset"));
  back_->setAutoDefault(false);
  back_->setToolTip(tr("Give this action the keys that it came with"));
  auto* all = new QPushButton(tr("All as they were"), this);
  all->setObjectName(QStringLiteral("keys-reset-all"));
  all->setAutoDefault(false);
  letters_ = new QCheckBox(tr("Single letters and digits act on map and Table"), this);
  letters_->setObjectName(QStringLiteral("keys-letters"));
  exchange_ = new QCheckBox(tr("Exchange the buttons: right takes away, Ctrl+left takes into the hand"), this);
  exchange_->setObjectName(QStringLiteral("keys-exchange"));

  for (const ActionRow& row : actionTable()) {
    auto* item = new QTreeWidgetItem(tree_);
    item->setText(0, translated(row.text));
    item->setToolTip(0, translated(row.tip));
    if (row.gesture) {
      item->setText(1, QLatin1String(row.keys));
      item->setText(2, tr("by hand"));
    } else {
      item->setText(2, row.actsIn == ActsIn::anywhere ? tr("anywhere") : tr("on map and Table"));
    }
    item->setSizeHint(0, QSize(0, fontMetrics().height() + 10));
    item->setData(0, kAction, static_cast<int>(row.id));
  }
  tree_->setCurrentItem(tree_->topLevelItem(0));

  auto* buttons = new QHBoxLayout;
  buttons->addWidget(change_);
  buttons->addWidget(back_);
  buttons->addWidget(all);
  buttons->addStretch();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(2 * kGap, 2 * kGap, 2 * kGap, 2 * kGap);
  layout->setSpacing(kGap);
  layout->addWidget(field_);
  layout->addWidget(tree_, 1);
  layout->addWidget(said_);
  layout->addLayout(buttons);
  layout->addWidget(letters_);
  layout->addWidget(exchange_);
  resize(680, 620);

  KeyBindings& bindings = KeyBindings::shared();
  connect(field_, &QLineEdit::textChanged, this, &KeysPage::filter);
  connect(tree_, &QTreeWidget::currentItemChanged, this, [this] {
    asking_.reset();
    refresh();
  });
  connect(tree_, &QTreeWidget::itemDoubleClicked, this, [this] {
    if (current()) askFor(*current());
  });
  connect(change_, &QPushButton::clicked, this, [this] {
    if (current()) askFor(*current());
  });
  connect(back_, &QPushButton::clicked, this, [this] {
    if (current()) KeyBindings::shared().reset(*current());
  });
  connect(all, &QPushButton::clicked, &bindings, &KeyBindings::resetAll);
  connect(letters_, &QCheckBox::clicked, &bindings, &KeyBindings::setLettersAct);
  connect(exchange_, &QCheckBox::clicked, &bindings, &KeyBindings::setButtonsExchanged);
  connect(&bindings, &KeyBindings::changed, this, &KeysPage::refresh);
  refresh();
}

void KeysPage::open() {
  asking_.reset();
  field_->clear();
  refresh();
  if (!isVisible()) {
    const QRect over = parentWidget()->frameGeometry();
    move(over.center() - QPoint(width() / 2, height() / 2));
  }
  show();
  raise();
  activateWindow();
  field_->setFocus();
}

std::optional<ActionId> KeysPage::current() const {
  const QTreeWidgetItem* item = tree_->currentItem();
  if (!item) return std::nullopt;
  const auto id = static_cast<ActionId>(item->data(0, kAction).toInt());
  return actionRow(id).gesture ? std::nullopt : std::optional(id);
}

void KeysPage::refresh() {
  const KeyBindings& bindings = KeyBindings::shared();
  for (int i = 0; i < tree_->topLevelItemCount(); ++i) {
    QTreeWidgetItem* item = tree_->topLevelItem(i);
    const auto id = static_cast<ActionId>(item->data(0, kAction).toInt());
    if (actionRow(id).gesture) continue;
    const bool off = !bindings.lettersAct() && KeyBindings::isSingle(bindings.keys(id));
    item->setText(1, asking_ == id ? tr("press the keys…")
                     : off         ? tr("%1, off").arg(bindings.text(id))
                                   : bindings.text(id));
    QFont font = tree_->font();
    font.setBold(bindings.isChanged(id));
    item->setFont(1, font);
  }
  letters_->setChecked(bindings.lettersAct());
  exchange_->setChecked(bindings.buttonsExchanged());
  const auto id = current();
  change_->setEnabled(id.has_value());
  back_->setEnabled(id && bindings.isChanged(*id));
  if (asking_) return;
  said_->setText(id ? tr("Enter or a double click changes the keys. Bold keys are your own.")
                    : tr("This is a movement of the hand; it has no keys to change."));
}

void KeysPage::filter() {
  const QString wanted = field_->text().trimmed();
  QTreeWidgetItem* first = nullptr;
  for (int i = 0; i < tree_->topLevelItemCount(); ++i) {
    QTreeWidgetItem* item = tree_->topLevelItem(i);
    const bool fits =
        item->text(0).contains(wanted, Qt::CaseInsensitive) || item->text(1).contains(wanted, Qt::CaseInsensitive);
    item->setHidden(!fits);
    if (fits && !first) first = item;
  }
  if (first && (!tree_->currentItem() || tree_->currentItem()->isHidden())) tree_->setCurrentItem(first);
}

void KeysPage::askFor(ActionId id) {
  asking_ = id;
  contested_ = {};
  said_->setText(
      tr("Press the keys for “%1”. Esc leaves them, Backspace takes them away.").arg(translated(actionRow(id).text)));
  tree_->setFocus();
  refresh();
}

void KeysPage::press(const QKeyEvent& event) {
  const ActionId id = *asking_;
  KeyBindings& bindings = KeyBindings::shared();
  const auto done = [this] {
    asking_.reset();
    refresh();
  };
  const auto modifiers = event.modifiers() & ~Qt::KeypadModifier;
  if (event.key() == Qt::Key_Escape && modifiers == Qt::NoModifier) return done();
  if (event.key() == Qt::Key_Backspace && modifiers == Qt::NoModifier) {
    asking_.reset();
    return bindings.setKeys(id, {});
  }
  const int key = actionRow(id).actsIn == ActsIn::canvas ? physicalKey(event) : event.key();
  const QKeySequence keys(key | static_cast<int>(modifiers));
  const bool byPlace = actionRow(id).actsIn == ActsIn::canvas;
  const QString spelt = byPlace ? KeyLabels::shared().text(keys) : keys.toString(QKeySequence::NativeText);
  if (actionRow(id).actsIn == ActsIn::anywhere && KeyBindings::isSingle(keys)) {
    said_->setText(tr("%1 alone would act while you type into a field. Press it with Ctrl or Alt.").arg(spelt));
    return;
  }
  const auto other = bindings.holder(keys, id);
  if (other && contested_ != keys) {
    contested_ = keys;
    said_->setText(tr("%1 is the key of “%2”. Press it again to take it, Esc to leave it.")
                       .arg(spelt, translated(actionRow(*other).text)));
    return;
  }
  asking_.reset();
  bindings.setKeys(id, keys);
}

void KeysPage::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) {
    close();
  } else {
    QWidget::keyPressEvent(event);
  }
}

bool KeysPage::eventFilter(QObject* watched, QEvent* event) {
  if (watched != tree_) return QWidget::eventFilter(watched, event);
  if (event->type() == QEvent::ShortcutOverride && asking_) {
    event->accept();
    return true;
  }
  if (event->type() == QEvent::FocusOut && asking_) {
    asking_.reset();
    refresh();
  }
  if (event->type() != QEvent::KeyPress) return false;
  const auto& key = *static_cast<QKeyEvent*>(event);
  const bool isModifier = key.key() == Qt::Key_Control || key.key() == Qt::Key_Shift || key.key() == Qt::Key_Alt ||
                          key.key() == Qt::Key_Meta || key.key() == Qt::Key_AltGr;
  if (asking_) {
    if (!isModifier) press(key);
    return true;
  }
  const bool enter = key.key() == Qt::Key_Return || key.key() == Qt::Key_Enter;
  if (enter && current()) askFor(*current());
  return enter;
}

}  // namespace uq
