#include "app/look/ColourField.h"

#include <QColorDialog>
#include <QGridLayout>
#include <QLineEdit>
#include <QMenu>
#include <QPainter>
#include <QWidgetAction>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"

namespace uq {

namespace {

constexpr int kColumns = 6;
// Times of the day and weathers, light to dark.
constexpr Colour kOffered[] = {0xffffff, 0xf6d98a, 0xe0a84e, 0xc98f86, 0x8fa46f, 0x5a9a9b,
                               0xe6dcc8, 0xc77b4a, 0xa2627c, 0x7a86a8, 0x61795a, 0x2f6b74,
                               0x8f8c86, 0x6e3b2e, 0x5b3a55, 0x3a4256, 0x3d5140, 0x1b2030};

}  // namespace

ColourField::ColourField(const QString& name, const QString& none, QWidget* parent)
    : QToolButton(parent), name_(name), none_(none) {
  setFixedSize(40, 24);
  setToolTip(name);
  setFocusPolicy(Qt::TabFocus);
  setValue(std::nullopt);
  connect(this, &QToolButton::clicked, this, &ColourField::open);
}

void ColourField::setValue(std::optional<Colour> value) {
  value_ = value;
  const QString said = value ? QString::fromStdString(colourText(*value)) : none_;
  setAccessibleName(name_ + QStringLiteral(": ") + said);
  setToolTip(accessibleName());
  update();
}

void ColourField::take(std::optional<Colour> value) {
  if (value == value_) return;
  setValue(value);
  Q_EMIT valueChanged(value);
}

void ColourField::open() {
  auto* menu = new QMenu(this);
  menu->setAttribute(Qt::WA_DeleteOnClose);
  auto* sheet = new QWidget(menu);
  auto* grid = new QGridLayout(sheet);
  grid->setContentsMargins(kGap, kGap, kGap, kGap);
  grid->setSpacing(3);
  int place = 0;
  for (const Colour colour : kOffered) {
    auto* one = new QToolButton(sheet);
    one->setObjectName(QStringLiteral("colour-%1").arg(place));
    one->setFixedSize(24, 24);
    const QString text = QString::fromStdString(colourText(colour));
    one->setAccessibleName(text);
    one->setToolTip(text);
    QPixmap swatch(18, 18);
    swatch.fill(QColor::fromRgb(colour | 0xff000000u));
    one->setIcon(swatch);
    one->setIconSize({18, 18});
    connect(one, &QToolButton::clicked, menu, [this, menu, colour] {
      menu->close();
      take(colour);
    });
    grid->addWidget(one, place / kColumns, place % kColumns);
    ++place;
  }
  auto* other = new QLineEdit(value_ ? QString::fromStdString(colourText(*value_)) : QString(), sheet);
  other->setObjectName(QStringLiteral("colour-text"));
  other->setAccessibleName(tr("Any colour, as #1b2030"));
  other->setPlaceholderText(QStringLiteral("#1b2030"));
  connect(other, &QLineEdit::returnPressed, menu, [this, menu, other] {
    if (const auto colour = colourFromText(other->text().trimmed().toLower().toStdString())) {
      menu->close();
      take(*colour);
    }
  });
  grid->addWidget(other, place / kColumns + 1, 0, 1, 4);
  auto* any = new QToolButton(sheet);
  any->setObjectName(QStringLiteral("colour-any"));
  any->setText(tr("Any colour…"));
  connect(any, &QToolButton::clicked, menu, [this, menu] {
    menu->close();
    pick();
  });
  grid->addWidget(any, place / kColumns + 2, 0, 1, kColumns);
  auto* none = new QToolButton(sheet);
  none->setObjectName(QStringLiteral("colour-none"));
  none->setText(none_);
  connect(none, &QToolButton::clicked, menu, [this, menu] {
    menu->close();
    take(std::nullopt);
  });
  grid->addWidget(none, place / kColumns + 1, 4, 1, 2);
  auto* action = new QWidgetAction(menu);
  action->setDefaultWidget(sheet);
  menu->addAction(action);
  menu->popup(mapToGlobal(QPoint(0, height())));
}

void ColourField::pick() {
  auto* dialog = new QColorDialog(QColor::fromRgb(value_.value_or(0xffffff) | 0xff000000u), window());
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->setObjectName(QStringLiteral("colour-dialog"));
  dialog->setOption(QColorDialog::DontUseNativeDialog);
  dialog->setWindowTitle(name_);
  connect(dialog, &QColorDialog::colorSelected, this, [this](const QColor& colour) { take(colour.rgb() & 0xffffffu); });
  dialog->open();
}

void ColourField::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& theme = Theme::current();
  const QRectF box = QRectF(rect()).adjusted(1.5, 1.5, -1.5, -1.5);
  painter.fillRect(box, value_ ? QColor::fromRgb(*value_ | 0xff000000u) : theme.paper);
  painter.setPen(hasFocus() ? QPen(theme.woad, 2) : QPen(theme.edge, 1));
  painter.drawRect(box);
  if (!value_) {
    painter.setPen(theme.softInk);
    painter.drawLine(box.bottomLeft(), box.topRight());
  }
}

}  // namespace uq
