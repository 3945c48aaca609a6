#include "app/workroom/Columns.h"

#include <QAbstractButton>
#include <QPainter>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/Theme.h"

namespace uq {

namespace {

constexpr int kStrip = 22;                    // logical pixels: a folded column
constexpr std::array kUsual = {212, 204};     // the columns' widths at first, in windows that are not very wide
constexpr double kShare = 0.11;               // of a wide window
constexpr int kWidestAtFirst = 340;
constexpr std::array kNarrowest = {200, 190};
constexpr int kWidest = 4096;
constexpr std::array kNames = {"table", "stack"};

// What is left of a folded column: its name, upright.
class FoldedStrip : public QAbstractButton {
 public:
  FoldedStrip(const QString& name, QWidget* parent) : QAbstractButton(parent) {
    setText(name);
    setFocusPolicy(Qt::TabFocus);
    setAttribute(Qt::WA_Hover);
    setFixedWidth(kStrip);
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Expanding);
  }
  QSize sizeHint() const override { return {kStrip, kStrip}; }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter painter(this);
    const Theme& theme = Theme::current();
    painter.fillRect(rect(), underMouse() || hasFocus() ? theme.paper : theme.panel);
    if (hasFocus()) {
      painter.setPen(theme.woad);
      painter.drawRect(rect().adjusted(0, 0, -1, -1));
    }
    QFont bold = font();
    bold.setBold(true);
    painter.setFont(bold);
    painter.setPen(theme.ink);
    painter.translate(0, height());
    painter.rotate(-90);
    painter.drawText(QRect(0, 0, height() - 2 * kGap, width()), Qt::AlignRight | Qt::AlignVCenter, text());
  }
};

}  // namespace

Columns::Columns(QWidget* parent) : Panes(Qt::Horizontal, parent) {
  setObjectName(QStringLiteral("columns"));
  const QString names[] = {tr("Table"), tr("Stack")};
  for (const Side side : {Side::table, Side::stack}) {
    const std::size_t i = index(side);
    Column& one = columns_[i];
    one.holder = new QWidget(this);
    one.strip = new FoldedStrip(names[i], one.holder);
    one.strip->setObjectName(QStringLiteral("strip-") + QLatin1String(kNames[i]));
    one.strip->setAccessibleName(tr("Bring the %1 back").arg(names[i]));
    one.strip->setToolTip(one.strip->accessibleName());
    one.strip->hide();
    auto* layout = new QVBoxLayout(one.holder);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(one.strip);
    connect(one.strip, &QAbstractButton::clicked, this, [this, side] { fold(side, false); });
  }
  connect(this, &Panes::seamPressed, this, [this](int seam) { fold(seam == 1 ? Side::table : Side::stack, true); });
  connect(this, &QSplitter::splitterMoved, this, &Columns::remember);
}

void Columns::put(Side side, QWidget* part) {
  Column& one = columns_[index(side)];
  one.part = part;
  one.holder->layout()->addWidget(part);
}

void Columns::putMap(QWidget* map) {
  insertWidget(1, map);
  setStretchFactor(0, 0);
  setStretchFactor(1, 1);
  setStretchFactor(2, 0);
  arrange();
}

int Columns::widthOf(Side side) const {
  const Column& one = columns_[index(side)];
  if (one.folded) return kStrip;
  if (one.width > 0) return one.width;
  return std::max(kUsual[index(side)], std::min(kWidestAtFirst, static_cast<int>(width() * kShare)));
}

void Columns::remember() {
  for (const Side side : {Side::table, Side::stack}) {
    Column& one = columns_[index(side)];
    const int now = sizes()[side == Side::table ? 0 : 2];
    if (!one.folded && !alone_ && now != widthOf(side)) one.width = now;
  }
}

void Columns::resizeEvent(QResizeEvent* event) {
  Panes::resizeEvent(event);
  const bool suits = std::any_of(columns_.begin(), columns_.end(), [](const Column& one) { return one.width == 0; });
  if (suits && !alone_) arrange();
}

void Columns::arrange() {
  for (const Side side : {Side::table, Side::stack}) {
    Column& one = columns_[index(side)];
    one.holder->setVisible(!alone_);
    if (one.part) one.part->setVisible(!one.folded);
    one.strip->setVisible(one.folded);
    one.holder->setMinimumWidth(one.folded ? kStrip : kNarrowest[index(side)]);
    one.holder->setMaximumWidth(one.folded ? kStrip : QWIDGETSIZE_MAX);
    if (QSplitterHandle* seam = handle(side == Side::table ? 1 : 2)) seam->setEnabled(!one.folded);
  }
  const int left = widthOf(Side::table);
  const int right = widthOf(Side::stack);
  setSizes({left, std::max(1, width() - left - right - 2 * handleWidth()), right});
}

void Columns::fold(Side side, bool on) {
  if (isFolded(side) == on) return;
  columns_[index(side)].folded = on;
  arrange();
  Q_EMIT folded();
}

void Columns::showMapAlone(bool on) {
  if (alone_ == on) return;
  alone_ = on;
  arrange();
  Q_EMIT folded();
}

Json Columns::kept() const {
  Json::Object all;
  for (std::size_t i = 0; i < columns_.size(); ++i) {
    all.emplace_back(kNames[i], Json::Object{{"width", columns_[i].width}, {"folded", columns_[i].folded}});
  }
  return all;
}

void Columns::use(const Json& kept) {
  for (std::size_t i = 0; i < columns_.size(); ++i) {
    const Json* one = kept.find(kNames[i]);
    const Json* width = one ? one->find("width") : nullptr;
    const Json* folded = one ? one->find("folded") : nullptr;
    const auto* pixels = width ? width->as<std::int64_t>() : nullptr;
    const auto* isFolded = folded ? folded->as<bool>() : nullptr;
    const bool chosen = pixels && *pixels >= kNarrowest[i] && *pixels <= kWidest && *pixels != kUsual[i];
    if (pixels) columns_[i].width = chosen ? static_cast<int>(*pixels) : 0;
    if (isFolded) columns_[i].folded = *isFolded;
  }
  arrange();
  Q_EMIT this->folded();
}

}  // namespace uq
