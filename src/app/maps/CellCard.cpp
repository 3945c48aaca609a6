#include "app/maps/CellCard.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/canvas/MapEdges.h"
#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Widgets.h"
#include "core/edit/ArrangeMaps.h"

namespace uq {

namespace {

constexpr int kCellCardWide = 460;  // logical pixels
constexpr std::size_t kMostCellOffers = 3;

}  // namespace

CellCard::CellCard(QWidget* parent) : TrialCard("cells", kCellCardWide, tr("Change"), parent) {
  const auto number = [this](const char* object, const QString& name) {
    auto* field = new NumberField(name, kSmallestCell, kLargestCell, 0, this);
    field->setObjectName(QLatin1String(object));
    connect(field, &NumberField::valueChanged, this, &CellCard::follow);
    connect(field, &QLineEdit::textEdited, this, &CellCard::follow);
    return field;
  };
  width_ = number("cells-width", tr("How wide a cell is, in map pixels"));
  height_ = number("cells-height", tr("How high a cell is, in map pixels"));
  keeps_ = new QComboBox(this);
  keeps_->setObjectName(QStringLiteral("cells-keeps"));
  keeps_->setAccessibleName(tr("What stays"));
  keeps_->addItems({tr("all cells stay"), tr("it reaches as far as now")});
  connect(keeps_, &QComboBox::activated, this, &CellCard::follow);
  const auto word = [this](const QString& text) { return new QLabel(text, this); };
  content()->addLayout(
      new SentenceLayout({word(tr("Cells of")), width_, word(tr("×")), height_, word(tr("px;")), keeps_}));
  for (std::size_t i = 0; i < kMostCellOffers; ++i) {
    auto* offer = new QPushButton(this);
    offer->setObjectName(QStringLiteral("cells-offer-%1").arg(i));
    connect(offer, &QPushButton::clicked, this, [this, i] {
      width_->setValue(offered_[i].w);
      height_->setValue(offered_[i].h);
      follow();
    });
    offers_.push_back(offer);
    content()->addWidget(offer, 0, Qt::AlignLeft);
  }
}

void CellCard::open(Id sheet) {
  if (!session() || !session()->map()) return;
  if (isVisible() && holds()) return width_->setFocus();
  const Map map = *session()->map();
  setTitle(tr("How large are the cells of %1?").arg(QString::fromStdString(map.name)));
  width_->setValue(map.grid.cell.w);
  height_->setValue(map.grid.cell.h);
  offerFor(session()->quilt().sheet(sheet), map.grid);
  if (!begin("Cells of " + map.name)) return;
  follow();
  width_->setFocus(Qt::OtherFocusReason);
}

void CellCard::offerFor(const Sheet* sheet, const GridShape& now) {
  offered_.clear();
  std::vector<QString> texts;
  const auto offers =
      sheet && !sheet->isCollection() ? offeredShapes(now.kind, sheet->cut.cell) : std::vector<ShapeOffer>();
  for (const ShapeOffer& one : offers) {
    const PixelSize cell = one.shape.cell;
    const bool known = cell == now.cell || std::find(offered_.begin(), offered_.end(), cell) != offered_.end();
    if (known || offered_.size() == kMostCellOffers) continue;
    const QString reason = offered_.empty() && cell == sheet->cut.cell
                               ? tr("as the tiles of %1").arg(QString::fromStdString(sheet->name))
                               : QString::fromStdString(one.reason);
    texts.push_back(tr("%1 × %2: %3").arg(cell.w).arg(cell.h).arg(reason));
    offered_.push_back(cell);
  }
  for (std::size_t i = 0; i < offers_.size(); ++i) {
    offers_[i]->setVisible(i < offered_.size());
    if (i < offered_.size()) offers_[i]->setText(onButton(texts[i]));
  }
}

void CellCard::follow() {
  if (!holds()) return;
  const Map& map = mapBefore();
  const PixelSize cell{static_cast<int>(width_->typed()), static_cast<int>(height_->typed())};
  const CellsKeep keeps = keeps_->currentIndex() == 1 ? CellsKeep::reach : CellsKeep::cells;
  if (const std::string why = whyNoCell(map, cell, keeps); !why.empty()) return refuse(why);
  Quilt after = withCell(before(), map.id, cell, keeps);
  const Map shown = *after.map(map.id);
  PaintedCount count(map);
  QString words = resizingText(after, shown, count.cutBy(shown.bounds), count.broughtBackBy(shown.bounds));
  if (shown.grid.cell != cell) {
    words = tr("Such cells are %1 × %2 at the nearest · ").arg(shown.grid.cell.w).arg(shown.grid.cell.h) + words;
  }
  tryOut(std::move(after), words);
}

}  // namespace uq
