#include "app/stack/RolesCard.h"

#include <QKeyEvent>
#include <QLabel>
#include <QListWidget>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/edit/Roles.h"
#include "core/edit/LayerFacts.h"

namespace uq {

namespace {
constexpr int kWide = 300;           // logical pixels
constexpr int kRole = Qt::UserRole;  // the role as the quilt has it
constexpr int kMostShown = 10;  // rows
constexpr int kListEdges = 16;  // around the rows, logical pixels
}  // namespace

RolesCard::RolesCard(QWidget* parent) : Card(parent) {
  setObjectName(QStringLiteral("roles-card"));
  makeCard(this);
  setFixedWidth(kWide);
  list_ = new QListWidget(this);
  list_->setObjectName(QStringLiteral("roles-list"));
  list_->setAccessibleName(tr("Roles, in the order in which they are offered"));
  list_->setDragDropMode(QAbstractItemView::InternalMove);
  list_->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed);
  list_->installEventFilter(this);
  connect(list_, &QListWidget::itemChanged, this, [this](QListWidgetItem* item) {
    // The list is still closing its field.
    const QString role = item->data(kRole).toString();
    QMetaObject::invokeMethod(
        this, [this, role, name = item->text().trimmed()] { rename(role, name); }, Qt::QueuedConnection);
  });
  // The list moves its row after it has told of it.
  connect(list_->model(), &QAbstractItemModel::rowsMoved, this, &RolesCard::takeOrder, Qt::QueuedConnection);
  told_ = makeSoftLabel(this);
  told_->setObjectName(QStringLiteral("roles-told"));
  told_->setWordWrap(true);
  auto* layout = new QVBoxLayout(this);
  layout->addWidget(makeTitle(tr("What layers are for"), this));
  layout->addWidget(list_);
  layout->addWidget(told_);
  hide();
}

void RolesCard::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  if (session_) {
    connect(session_, &Session::quiltChanged, this, [this](const QuiltChange& change) {
      const bool counts = change.facts || !change.arranged.empty();
      if (counts && isVisible()) refresh();
    });
  }
}

void RolesCard::open() {
  refresh();
  const QSize room = parentWidget()->size();
  move(std::max(0, (room.width() - width()) / 2), std::max(0, (room.height() - height()) / 3));
  show();
  raise();
  list_->setFocus();
}

void RolesCard::refresh() {
  const QSignalBlocker quiet(list_);
  const int row = std::max(0, list_->currentRow());
  list_->clear();
  for (const std::string& role : session_->quilt().facts().roles) {
    auto* item = new QListWidgetItem(QString::fromStdString(role), list_);
    item->setData(kRole, item->text());
    item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable | Qt::ItemIsDragEnabled);
    const std::size_t layers = layersOfRole(session_->quilt(), role);
    item->setToolTip(layers == 1 ? tr("1 layer") : tr("%1 layers").arg(layers));
  }
  list_->setCurrentRow(std::min(row, list_->count() - 1));
  list_->setFixedHeight(std::min(list_->count(), kMostShown) * std::max(24, list_->sizeHintForRow(0)) + kListEdges);
  told_->setText(
      tr("Layers of one role are partners across maps, and games read the role by its name. A drag or "
         "Alt+Up and Alt+Down give another order, a double click another name, Del drops one that no layer "
         "has."));
  adjustSize();
}

void RolesCard::takeOrder() {
  for (int row = 0; row < list_->count(); ++row) {
    const std::string role = list_->item(row)->data(kRole).toString().toStdString();
    if (session_->quilt().facts().roles[static_cast<std::size_t>(row)] == role) continue;
    // The first row that is another: either it came here, or the one that was here went farther down.
    const std::string was = session_->quilt().facts().roles[static_cast<std::size_t>(row)];
    int now = row;
    while (now < list_->count() && list_->item(now)->data(kRole).toString().toStdString() != was) ++now;
    const bool wentDown = now > row + 1;
    session_->quiltStep(tr("Order of the roles"),
                        wentDown ? moveRole(session_->quilt(), was, static_cast<std::size_t>(now))
                                 : moveRole(session_->quilt(), role, static_cast<std::size_t>(row)));
    return;
  }
}

void RolesCard::rename(const QString& old, const QString& name) {
  if (name == old) return;
  Quilt after = renameRole(session_->quilt(), old.toStdString(), name.toStdString());
  if (after == session_->quilt()) {
    refresh();
    told_->setText(name.isEmpty() ? tr("A role needs a name.") : tr("There is a role %1 already.").arg(name));
    return;
  }
  session_->quiltStep(tr("Rename the role %1").arg(old), std::move(after));
}

void RolesCard::drop(int row) {
  const QString role = list_->item(row)->data(kRole).toString();
  const std::size_t layers = layersOfRole(session_->quilt(), role.toStdString());
  if (layers > 0) {
    told_->setText(layers == 1 ? tr("1 layer is for %1: give it another role first.").arg(role)
                               : tr("%1 layers are for %2: give them another role first.").arg(layers).arg(role));
    return;
  }
  session_->quiltStep(tr("Drop the role %1").arg(role), dropRole(session_->quilt(), role.toStdString()));
}

bool RolesCard::eventFilter(QObject* watched, QEvent* event) {
  if (watched != list_ || event->type() != QEvent::KeyPress) return QFrame::eventFilter(watched, event);
  const auto* key = static_cast<QKeyEvent*>(event);
  const int row = list_->currentRow();
  if (key->key() == Qt::Key_Escape) {
    hide();
    Q_EMIT closed();
    return true;
  }
  if (row < 0) return false;
  const bool up = key->key() == Qt::Key_Up;
  if ((up || key->key() == Qt::Key_Down) && key->modifiers() & Qt::AltModifier) {
    const int to = row + (up ? -1 : 1);
    if (to < 0 || to >= list_->count()) return true;
    const std::string role = list_->item(row)->data(kRole).toString().toStdString();
    session_->quiltStep(tr("Order of the roles"), moveRole(session_->quilt(), role, static_cast<std::size_t>(to)));
    list_->setCurrentRow(to);
    return true;
  }
  if (key->key() == Qt::Key_Delete) {
    drop(row);
    return true;
  }
  return false;
}

}  // namespace uq
