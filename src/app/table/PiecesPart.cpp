#include "app/table/PiecesPart.h"

#include <QEvent>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>

#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/workroom/Session.h"
#include "app/workroom/SheetWork.h"
#include "core/sheets/TileUses.h"

namespace uq {

namespace {
constexpr std::size_t kMostLit = 20'000;  // cells of a tile that are lit
}  // namespace

PiecesPart::PiecesPart(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("old-pieces"));
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(kGap / 2);
  meant_ = makePlainButton("lay-meant-tiles", this);
  meant_->installEventFilter(this);
  connect(meant_, &QToolButton::clicked, this, [this] {
    const Sheet* sheet = session_->quilt().sheet(sheet_);
    if (!sheet) return;
    Q_EMIT showsCells({});
    session_->quiltStep(tr("Lay the tiles of %1 that were meant").arg(QString::fromStdString(sheet->name)),
                        withMeantTiles(session_->quilt(), sheet_, pieces_));
  });
  unsure_ = makeSoftLabel(this);
  unsure_->setObjectName(QStringLiteral("unsure-pieces"));
  show_ = makePlainButton("show-unsure-pieces", this);
  show_->setText(tr("Show me"));
  show_->setToolTip(tr("Go from one of them on this map to the next"));
  connect(show_, &QToolButton::clicked, this, [this] {
    const auto slot = session_->quilt().slots().find(sheet_);
    const Map* map = session_->map();
    if (!slot || !map) return;
    // All places of one piece, then those of the next one that lies here.
    for (std::size_t i = 0; i < pieces_.unsure.size(); ++i) {
      const TileRef tile{*slot, pieces_.unsure[next_ % pieces_.unsure.size()]};
      if (!placesOf(*map, tile, 1).empty()) return Q_EMIT placeWanted(tile);
      ++next_;
    }
    if (!pieces_.unsure.empty()) Q_EMIT placeWanted({*slot, pieces_.unsure.front()});
  });
  layout->addWidget(meant_, 0, Qt::AlignLeft);
  layout->addWidget(unsure_);
  layout->addWidget(show_, 0, Qt::AlignLeft);
}

void PiecesPart::refresh(Session* session, Id sheet) {
  session_ = session;
  sheet_ = sheet;
  const Sheet* cut = session->quilt().sheet(sheet);
  const bool counts = cut && !cut->places->retired.empty();
  pieces_ = counts ? oldPiecesOf(session->quilt(), sheet, session->sheets().usesEverywhere()) : OldPieces();
  setVisible(!pieces_.meant.empty() || !pieces_.unsure.empty());
  meant_->setVisible(!pieces_.meant.empty());
  meant_->setText(
      tr("%n cell(s) of the old cut become the new tiles", nullptr, static_cast<int>(pieces_.meantCells)));
  meant_->setToolTip(tr("They were painted before the sheet was cut like this, and still show the old pieces"));
  unsure_->setVisible(!pieces_.unsure.empty());
  show_->setVisible(!pieces_.unsure.empty());
  const Sheet* on = session->quilt().sheet(sheet);
  QStringList names;
  for (std::size_t i = 0; i < pieces_.unsure.size() && i < 4; ++i) {
    names << QString::fromStdString(on->tileName(pieces_.unsure[i]));
  }
  if (pieces_.unsure.size() > 4) names << tr("%n more", nullptr, static_cast<int>(pieces_.unsure.size() - 4));
  unsure_->setText(tr("%n cell(s) still show pieces of the old cut that are no tile of this one: %1.", nullptr,
                      static_cast<int>(pieces_.unsureCells))
                       .arg(names.join(QStringLiteral(", "))));
}

bool PiecesPart::eventFilter(QObject* watched, QEvent* event) {
  const bool on = event->type() == QEvent::Enter || event->type() == QEvent::FocusIn;
  const bool off = event->type() == QEvent::Leave || event->type() == QEvent::FocusOut;
  const Map* map = session_ ? session_->map() : nullptr;
  const auto slot = session_ ? session_->quilt().slots().find(sheet_) : std::nullopt;
  if (watched == meant_ && on && map && slot) {
    CellSet cells;
    for (const auto& [piece, tile] : pieces_.meant) {
      for (const TileAt& at : placesOf(*map, {*slot, piece}, kMostLit)) cells.insert(at.cell);
    }
    Q_EMIT showsCells(cells);
  }
  if (watched == meant_ && off) Q_EMIT showsCells({});
  return QWidget::eventFilter(watched, event);
}

}  // namespace uq
