#include "app/bench/HemRows.h"

#include <QApplication>
#include <QLineEdit>
#include <QMenu>
#include <QVBoxLayout>

#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"
#include "core/document/EdgingShape.h"
#include "core/edit/ArrangeHems.h"

namespace uq {

namespace {

constexpr int kRowGap = 4;

QToolButton* menuButton(const QString& object, const QString& name, QWidget* parent) {
  auto* button = new QToolButton(parent);
  button->setObjectName(object);
  button->setAccessibleName(name);
  button->setToolTip(name);
  button->setPopupMode(QToolButton::InstantPopup);
  button->setMenu(new QMenu(button));
  return button;
}

}  // namespace

HemRows::HemRows(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("bench-hems"));
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  all->setSpacing(kRowGap);
  auto* title = makeSoftLabel(this);
  title->setText(tr("Brings along"));
  all->addWidget(title);
  rows_ = new QVBoxLayout;
  rows_->setSpacing(kRowGap);
  all->addLayout(rows_);
  add_ = makePlainButton("bench-hem-add", this);
  add_->setText(tr("What is in hand, too"));
  add_->setToolTip(tr("Tiles in hand come below this material where it ends, row by row: the face of a wall, foam, a shadow. "
                      "A material of something else that joins comes all around: walls round a floor, a kerb round paving"));
  connect(add_, &QToolButton::clicked, this, &HemRows::add);
  all->addWidget(add_, 0, Qt::AlignLeft);
}

const Edging* HemRows::now() const { return session_ ? session_->quilt().edging(edging_) : nullptr; }

void HemRows::show(Session& session, const Edging& edging) {
  session_ = &session;
  if (edging_ == edging.id && shown_ == edging.hems && rows_->count() == static_cast<int>(shown_.size())) return;
  edging_ = edging.id;
  shown_ = edging.hems;
  QWidget* held = QApplication::focusWidget();
  const QString focused = held && rows_->count() > 0 && isAncestorOf(held) && held != add_ ? held->objectName() : QString();
  while (QLayoutItem* item = rows_->takeAt(0)) {
    // Later: one of them may be what is being answered.
    item->widget()->hide();
    item->widget()->setParent(nullptr);
    item->widget()->deleteLater();
    delete item;
  }
  for (std::size_t i = 0; i < shown_.size(); ++i) rows_->addWidget(makeRow(i));
  // The keyboard stays where it was; what it was on may be gone.
  if (focused.isEmpty()) return;
  auto* same = findChild<QWidget*>(focused);
  (same ? same : add_)->setFocus(Qt::TabFocusReason);
}

QWidget* HemRows::makeRow(std::size_t index) {
  const Hem& hem = shown_[index];
  const Edging& edging = *now();
  const auto called = [index](const char* part) { return QStringLiteral("bench-hem-%1-%2").arg(index).arg(QLatin1String(part)); };
  auto* row = new QWidget(this);
  auto* upper = new QHBoxLayout;
  auto* lower = new SentenceLayout({}, 3);
  auto* lines = new QVBoxLayout(row);
  lines->setContentsMargins(0, 0, 0, 0);
  lines->setSpacing(2);
  lines->addLayout(upper);
  lines->addLayout(lower);
  auto* name = new QLineEdit(QString::fromStdString(hem.name), row);
  name->setObjectName(called("name"));
  name->setAccessibleName(tr("Name of what is brought along"));
  name->setMaxLength(250);
  connect(name, &QLineEdit::editingFinished, this, [this, index, name] {
    const QString text = name->text().trimmed();
    if (index >= shown_.size() || text.toStdString() == shown_[index].name) return;
    if (text.isEmpty()) return name->setText(QString::fromStdString(shown_[index].name));
    edit(index, tr("Name %1").arg(text), [text](Edging&, Hem& of) { of.name = text.toStdString(); });
  });
  auto* place = menuButton(called("place"), tr("Where it lies"), row);
  place->setText(QString::fromStdString(hemPlaceInWords(edging, hem)));
  for (MaterialIndex material = 0; material < static_cast<MaterialIndex>(edging.materials.size()); ++material) {
    const auto offer = [&](int side, bool inside) {
      Hem there = hem;
      there.material = material;
      there.side = side;
      there.inside = inside;
      const QString words = QString::fromStdString(hemPlaceInWords(edging, there));
      place->menu()->addAction(words, this, [this, index, material, side, inside, words] {
        const Edging* of = now();
        if (!of || index >= of->hems.size()) return;
        Edging next = of->hems[index].isAround() ? *of : withHemAt(*of, index, side, inside);
        next.hems[index].material = material;
        if (const std::string why = whyNoEdging(next); !why.empty()) return Q_EMIT said(QString::fromStdString(why));
        Q_EMIT changed(tr("Lay it %1").arg(words), next);
      });
    };
    if (hem.isAround()) {
      offer(0, false);
      continue;
    }
    for (int side = 0; side < placesOf(edging.grid); ++side) offer(side, false);
    for (int side = 0; side < placesOf(edging.grid); ++side) offer(side, true);
  }
  auto* gone = makePlainButton(qPrintable(called("gone")), row);
  gone->setText(QStringLiteral("✕"));
  gone->setAccessibleName(tr("Bring %1 along no more").arg(QString::fromStdString(hem.name)));
  gone->setToolTip(gone->accessibleName());
  connect(gone, &QToolButton::clicked, this, [this, index, was = hem.name] {
    const Edging* of = now();
    if (of && index < of->hems.size()) Q_EMIT changed(tr("Bring %1 along no more").arg(QString::fromStdString(was)), withoutHem(*of, index));
  });
  upper->addWidget(name, 1);
  upper->addWidget(gone);
  lower->addWidget(place);
  setTabOrder(name, gone);
  setTabOrder(gone, place);
  if (!hem.isAround()) {
    auto* rows = new NumberField(tr("How many rows"), 1, kMostHemRows, 0, row);
    rows->setObjectName(called("rows"));
    rows->setValue(hem.rows);
    connect(rows, &NumberField::valueChanged, this, [this, index](double value) {
      edit(index, tr("Rows brought along"), [value](Edging&, Hem& of) { of.rows = static_cast<int>(value); });
    });
    auto* unit = makeSoftLabel(row);
    unit->setWordWrap(false);
    unit->setText(tr("rows"));
    // They stay together at a line's end.
    auto* both = new QWidget(row);
    auto* beside = new QHBoxLayout(both);
    beside->setContentsMargins(0, 0, 0, 0);
    beside->setSpacing(kRowGap);
    beside->addWidget(rows);
    beside->addWidget(unit);
    lower->addWidget(both);
  }
  auto* role = menuButton(called("role"), tr("The layer on which it lies"), row);
  role->setText(hem.role.empty() ? tr("same layer") : tr("on %1").arg(QString::fromStdString(hem.role)));
  std::vector<std::string> roles = session_->quilt().facts().roles;
  roles.insert(roles.begin(), "");
  for (const std::string& one : roles) {
    role->menu()->addAction(one.empty() ? tr("same layer") : onButton(QString::fromStdString(one)), this, [this, index, one] {
      edit(index, tr("Layer of what is brought along"), [one](Edging&, Hem& of) { of.role = one; });
    });
  }
  lower->addWidget(role);
  if (!hem.isAround()) {
    auto* more = menuButton(called("more"), tr("More of it"), row);
    more->setText(QStringLiteral("…"));
    fillMore(more->menu(), index);
    lower->addWidget(more);
  }
  return row;
}

void HemRows::fillMore(QMenu* menu, std::size_t index) {
  const auto flag = [&](const QString& text, bool Hem::*member) {
    QAction* action = menu->addAction(text, this, [this, index, text, member] { edit(index, text, [member](Edging&, Hem& of) { of.*member = !(of.*member); }); });
    action->setCheckable(true);
    action->setChecked(shown_[index].*member);
  };
  flag(tr("Its height is said before it is laid"), &Hem::grows);
  flag(tr("Only where ground lies"), &Hem::stands);
  flag(tr("Begins where the one before it ends"), &Hem::follows);
}

void HemRows::edit(std::size_t index, const QString& step, const Change& change) {
  const Edging* of = now();
  if (!of || index >= of->hems.size()) return;
  Edging next = *of;
  change(next, next.hems[index]);
  if (const std::string why = whyNoEdging(next); !why.empty()) {
    Q_EMIT said(QString::fromStdString(why));
    shown_.clear();  // a field may show what was refused
    return show(*session_, *of);
  }
  if (!(next == *of)) Q_EMIT changed(step, next);
}

void HemRows::add() {
  const Edging* of = now();
  if (!of) return;
  const MaterialIndex along = along_ >= 0 && along_ < static_cast<MaterialIndex>(of->materials.size()) ? along_ : 0;
  HemOfHand found = hemOfHand(session_->quilt(), *of, along, session_->desk().inHand);
  if (found.why.empty()) {
    Edging next = *of;
    next.hems.push_back(found.hem);
    found.why = whyNoEdging(next);
    if (found.why.empty()) return Q_EMIT changed(tr("Bring %1 along").arg(QString::fromStdString(found.hem.name)), next);
  }
  Q_EMIT said(QString::fromStdString(found.why));
}

}  // namespace uq
