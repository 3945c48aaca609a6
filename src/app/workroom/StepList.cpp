#include "app/workroom/StepList.h"

#include <QKeyEvent>
#include <QLabel>
#include <algorithm>

#include "app/actions/KeyBindings.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"

namespace uq {

namespace {

constexpr int kNumber = Qt::UserRole;
constexpr int kWidth = 340;
constexpr int kMostHeight = 420;

// "Depot Yard and 1 more": the maps and sheets that a step touched.
QString touched(const Step& step, const Quilt& quilt) {
  QStringList names;
  for (const PartChange& change : step.changes) {
    if (const Map* map = quilt.map(change.key.id)) names << QString::fromStdString(map->name);
    if (const Sheet* sheet = quilt.sheet(change.key.id)) names << QString::fromStdString(sheet->name);
  }
  return names.join(QStringLiteral(", "));
}

}  // namespace

StepList::StepList(QWidget* parent) : QListWidget(parent) {
  setObjectName(QStringLiteral("step-list"));
  setAccessibleName(tr("What was done"));
  setWindowFlags(Qt::Popup);
  hint_ = makeSoftLabel(this);
  hint_->setObjectName(QStringLiteral("step-list-hint"));
  hint_->setWordWrap(false);
  connect(this, &QListWidget::itemClicked, this, &StepList::choose);
  connect(this, &QListWidget::itemActivated, this, &StepList::choose);
}

void StepList::open(Session* session, QPoint below) {
  session_ = session;
  clear();
  const auto add = [this](const QString& text, std::uint64_t number) {
    auto* item = new QListWidgetItem(text, this);
    item->setData(kNumber, QVariant::fromValue<qulonglong>(number));
  };
  const std::vector<Step>& steps = session->undoLine().steps();
  for (auto step = steps.rbegin(); step != steps.rend(); ++step) {
    add(tr("%1 — %2").arg(QString::fromStdString(step->name), touched(*step, session->quilt())), step->number);
  }
  add(tr("As it was opened"), 0);
  const QString keys = KeyBindings::shared().text(ActionId::listSteps);
  hint_->setText(keys.isEmpty() ? tr("Esc or a press elsewhere closes this list")
                                : tr("Esc, %1 or a press elsewhere closes this list").arg(keys));
  setCurrentRow(0);
  item(0)->setToolTip(tr("The quilt as it is now"));
  const int foot = hint_->sizeHint().height() + kGap;
  setViewportMargins(0, 0, 0, foot);
  resize(kWidth, std::min(kMostHeight, sizeHintForRow(0) * count() + 14) + foot);
  hint_->setGeometry(kGap, height() - foot, kWidth - 2 * kGap, foot);
  move(below);
  show();
  setFocus();
}

void StepList::keyPressEvent(QKeyEvent* event) {
  const QKeySequence pressed(static_cast<int>(event->key()) | static_cast<int>(event->modifiers()));
  if (event->key() == Qt::Key_Escape || pressed == KeyBindings::shared().keys(ActionId::listSteps)) {
    hide();
  } else {
    QListWidget::keyPressEvent(event);
  }
}

void StepList::choose(QListWidgetItem* item) {
  // A click and Enter may both tell of one choice.
  if (!isVisible()) return;
  const auto number = item->data(kNumber).toULongLong();
  hide();
  session_->work().returnTo(number);
}

}  // namespace uq
