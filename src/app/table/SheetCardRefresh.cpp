// What of SheetCard shows the sheet as it is.
#include "app/table/SheetCard.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileInfo>
#include <QLineEdit>
#include <QToolButton>
#include <algorithm>

#include "app/look/Icons.h"
#include "app/look/NumberField.h"
#include "app/look/SentenceLayout.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/table/CutPicture.h"
#include "app/table/OddSizesPart.h"
#include "app/table/PiecesPart.h"
#include "app/table/TableView.h"
#include "app/workroom/Session.h"

namespace uq {

QString SheetCard::usedText() const {
  const auto slot = session_->quilt().slots().find(sheet_).value_or(0);
  std::int64_t cells = 0;
  int maps = 0;
  for (const auto& map : session_->quilt().maps()) {
    const TileUses uses = usesOn(map.read());
    const std::int64_t before = cells;
    for (auto at = uses.lower_bound({slot, 0}); at != uses.end() && at->first.slot == slot; ++at) cells += at->second;
    maps += cells > before ? 1 : 0;
  }
  if (cells == 0) return tr("No map uses it. Ctrl+Z brings it back.");
  return tr("%1 cells on %n map(s) are painted with it and become labelled placeholders. Ctrl+Z brings it back.",
            nullptr, maps)
      .arg(cells);
}

QString SheetCard::agreement(const Sheet& sheet) const {
  const Map* map = session_->map();
  if (!map || sheet.isCollection()) return {};
  const PixelSize cell = map->grid.cell;
  const PixelSize tile = sheet.cut.cell;
  const QString name = QString::fromStdString(map->name);
  if (tile == cell) return tr("They fit the cells of %1.").arg(name);
  if (tile.w > cell.w || tile.h > cell.h) {
    if (tile.w % cell.w == 0 && tile.h % cell.h == 0 && tile.w / cell.w == tile.h / cell.h) {
      return tr("The cells of %1 have %2 px: a tile is %3 × as large and hangs over its neighbours. If it is several "
                "tiles, choose a smaller cut.")
          .arg(name, sizeText(cell))
          .arg(tile.w / cell.w);
    }
    return tr("The cells of %1 have %2 px: the tiles are larger than that and stand on their cells.")
        .arg(name, sizeText(cell));
  }
  return tr("The cells of %1 have %2 px: the tiles are smaller and leave gaps there.").arg(name, sizeText(cell));
}

void SheetCard::refresh() {
  // A stroke changes nothing that stands here, and must not wait for it.
  if (!isVisible() || !session_ || session_->inGesture()) return;
  const Sheet* sheet = session_->quilt().sheet(sheet_);
  if (!sheet) {
    hide();
    return;
  }
  if (!name_->hasFocus()) name_->setText(QString::fromStdString(sheet->name));
  refreshCut(*sheet);
  refreshPixels(*sheet);
  refreshFacts(*sheet);
  refreshTiles(*sheet);
}

void SheetCard::refreshCut(const Sheet& sheet) {
  cut_->setVisible(!sheet.isCollection());
  if (sheet.isCollection()) return;
  const IntakeNotes* notes = session_->sheets().notes(sheet_);
  const std::vector<CutProposal> proposals = notes ? notes->proposals : std::vector<CutProposal>();
  const auto same = [](const CutProposal& a, const CutProposal& b) { return a.cut == b.cut; };
  if (!std::equal(shown_.begin(), shown_.end(), proposals.begin(), proposals.end(), same)) {
    while (QLayoutItem* item = chips_->takeAt(0)) {
      delete item->widget();
      delete item;
    }
    for (std::size_t i = 0; i < proposals.size() && i < 4; ++i) {
      auto* chip = makePlainButton("cut-chip", cut_);
      chip->setObjectName(QStringLiteral("cut-chip-%1").arg(i));
      chip->setCheckable(true);
      const PixelSize tiles = cellsOf(proposals[i].cut, sheet.pictureSize);
      chip->setText(tiles == PixelSize{1, 1} ? tr("one tile") : sizeText(proposals[i].cut.cell));
      chip->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
      chip->setIconSize({44, 44});
      chip->setIcon(cutPicture(session_->painter().pictures().picture(sheet), proposals[i].cut, chip->iconSize(), devicePixelRatioF()));
      chip->setToolTip(QString::fromStdString(proposals[i].reason));
      chip->setAccessibleName(tr("Cut into tiles of %1 pixels: %2").arg(chip->text(), chip->toolTip()));
      connect(chip, &QToolButton::clicked, this, [this, cut = proposals[i].cut] {
        session_->sheets().cut(sheet_, cut);
        refresh();
      });
      chips_->addWidget(chip);
    }
    chips_->addStretch();
    shown_ = proposals;
  }
  QString reason;
  for (std::size_t i = 0; i < shown_.size(); ++i) {
    const bool is = shown_[i].cut == sheet.cut;
    if (auto* chip = findChild<QToolButton*>(QStringLiteral("cut-chip-%1").arg(i))) chip->setChecked(is);
    if (is) reason = QString::fromStdString(shown_[i].reason);
  }
  const PixelSize rest = restOf(sheet.cut, sheet.pictureSize);
  if (reason.isEmpty()) {
    reason = tr("Cut by hand");
    if (rest.w > 0) reason += tr(", %1 px left over at the right").arg(rest.w);
    if (rest.h > 0) reason += tr(", %1 px left over at the bottom").arg(rest.h);
  }
  const PixelSize cells = cellsOf(sheet.cut, sheet.pictureSize);
  reason[0] = reason[0].toUpper();
  const bool whole = cells == PixelSize{1, 1};
  reason_->setText(whole ? reason + tr(".") : tr("%1. %2 × %3 tiles.").arg(reason).arg(cells.w).arg(cells.h));
  const auto show = [](NumberField* field, int value) {
    if (!field->hasFocus() || !field->isModified()) field->setValue(value);
  };
  show(cellW_, sheet.cut.cell.w);
  show(cellH_, sheet.cut.cell.h);
  show(border_, sheet.cut.border);
  show(gap_, sheet.cut.gap);
  show(offsetX_, sheet.cut.offset.x);
  show(offsetY_, sheet.cut.offset.y);
  pieces_->refresh(session_, sheet_);
  agreement_->setText(agreement(sheet));
  agreement_->setVisible(!agreement_->text().isEmpty());
  const Map* map = session_->map();
  // A single thing says nothing about the cells of a map.
  newMap_->setVisible(!whole && (!map || map->grid.cell != sheet.cut.cell));
  mapCell_->setVisible(!whole && map && map->grid.cell != sheet.cut.cell);
  mapCell_->setText(tr("Give this map such cells"));
  newMap_->setText(tr("New map of %1 px…").arg(sizeText(sheet.cut.cell)));
}

int SheetCard::timesTheCells(const Sheet& sheet) const {
  const Map* map = session_->map();
  if (!map || sheet.care.shrink > 1) return 1;
  const PixelSize cell = map->grid.cell;
  const PixelSize tile = sheet.isCollection() ? usualSize([&] {
    std::vector<PixelSize> sizes;
    for (const CollectedPicture& one : sheet.collection) sizes.push_back(one.size);
    return sizes;
  }()) : sheet.cut.cell;
  const int times = tile.w / std::max(1, cell.w);
  const bool whole = times > 1 && tile.w == times * cell.w && tile.h % times == 0;
  return whole && times <= kMostShrink ? times : 1;
}

void SheetCard::refreshPixels(const Sheet& sheet) {
  const IntakeNotes* notes = session_->sheets().notes(sheet_);
  const PictureFindings findings = notes ? notes->findings : PictureFindings();
  const auto twin = session_->sheets().scaledTwin(sheet_);
  const Sheet* other = twin ? session_->quilt().sheet(twin->sheet) : nullptr;
  twice_->setVisible(other != nullptr);
  if (other) {
    const QString name = QString::fromStdString(other->name);
    twice_->setText(
        twin->thisIsTwice
            ? tr("This shows the same as %1 at twice the size. All art of a game is best drawn at one scale: shrink "
                 "it, or take one of the two away.")
                  .arg(name)
            : tr("This shows the same as %1 at half the size. Keep the one that fits your cells.").arg(name));
  }
  std::vector<PixelSize> sizes = notes ? notes->sizes : std::vector<PixelSize>();
  for (PixelSize& size : sizes) size = {std::max(1, size.w / sheet.care.shrink), std::max(1, size.h / sheet.care.shrink)};
  odd_->refresh(sheet, sizes);
  const bool drawn = notes && notes->isLineDrawing;
  scale_->setVisible(drawn);
  if (drawn && (!enlarge_->hasFocus() || !enlarge_->isModified())) enlarge_->setValue(sheet.care.enlarge);
  const int toCells = findings.isSmooth ? timesTheCells(sheet) : 1;
  const int factor = sheet.care.shrink > 1         ? sheet.care.shrink
                     : twin && twin->thisIsTwice   ? 2
                     : findings.enlarged > 1       ? findings.enlarged
                                                   : toCells;
  shrink_->setVisible(factor > 1);
  shrink_->setProperty("factor", factor);
  shrink_->setText(sheet.care.shrink > 1   ? tr("Shrunk to 1 : %1").arg(factor)
                   : findings.enlarged > 1 ? tr("Every pixel is drawn %1 × %1: shrink to 1 : %1").arg(factor)
                   : toCells > 1           ? tr("Shrink to 1 : %1, as the map's cells").arg(factor)
                                           : tr("Shrink to 1 : %1").arg(factor));
  shrink_->setChecked(sheet.care.shrink > 1);
  rims_->setVisible(sheet.care.closesRims || findings.rims > 0);
  rims_->setText(sheet.care.closesRims
                     ? tr("Half-see-through rims are closed")
                     : tr("Close %n half-see-through pixel(s)", nullptr, static_cast<int>(findings.rims)));
  rims_->setChecked(sheet.care.closesRims);
  const auto colour = sheet.care.seeThrough ? sheet.care.seeThrough : findings.background;
  seeThrough_->setVisible(colour.has_value());
  if (colour) {
    seeThrough_->setProperty("colour", *colour);
    QPixmap swatch(14, 14);
    swatch.fill(QColor::fromRgb(*colour | 0xff000000u));
    seeThrough_->setIcon(swatch);
    seeThrough_->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
    const QString name = QColor::fromRgb(*colour).name();
    seeThrough_->setText(sheet.care.seeThrough ? tr("%1 is see-through").arg(name)
                                               : tr("Make %1 see-through").arg(name));
  }
  seeThrough_->setChecked(sheet.care.seeThrough.has_value());
  pick_->setVisible(!findings.hasClear || sheet.care.seeThrough);
  pixels_->setVisible(factor > 1 || findings.rims > 0 || sheet.care.closesRims || colour || !findings.hasClear ||
                      other || drawn || !odd_->isHidden());
}

void SheetCard::refreshFacts(const Sheet& sheet) {
  const auto show = [](QLineEdit* field, const std::string& text) {
    if (!field->hasFocus() || !field->isModified()) field->setText(QString::fromStdString(text));
  };
  show(pile_, sheet.origin.pile);
  show(from_, sheet.origin.from);
  show(by_, sheet.origin.by);
  show(licence_, sheet.origin.licence);
  sell_->setCurrentIndex(!sheet.origin.maySell ? 0 : *sheet.origin.maySell ? 1 : 2);
  turn_->setChecked(sheet.turns.turn);
  mirrorAcross_->setChecked(sheet.turns.mirrorAcross);
  mirrorDown_->setChecked(sheet.turns.mirrorDown);
  usualTurns_->setChecked(sheet.turns == session_->quilt().facts().turns);
  const QString original =
      sheet.follows.empty() ? session_->sheets().cameFrom(sheet_) : QString::fromStdString(sheet.follows);
  follow_->setVisible(!original.isEmpty());
  follow_->setChecked(session_->sheets().followsOriginal(sheet));
  follow_->setText(tr("Follow the original, %1").arg(QFileInfo(original).fileName()));
  follow_->setToolTip(tr("Whenever %1 is saved, the quilt's copy is refreshed").arg(original));
}

}  // namespace uq
