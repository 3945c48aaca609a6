#include "app/table/InHandPanel.h"

#include <QGridLayout>
#include <QLabel>
#include <QPainter>
#include <QToolButton>
#include <set>

#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "app/table/OtherSides.h"

namespace uq {

namespace {
constexpr QSize kPreview(120, 96);  // logical pixels
}

InHandPanel::InHandPanel(Actions* actions, QWidget* parent) : QFrame(parent) {
  setObjectName(QStringLiteral("in-hand"));
  makeCard(this);
  auto* title = makeTitle(tr("In hand"), this);
  description_ = makeSoftLabel(this);
  description_->setObjectName(QStringLiteral("in-hand-text"));
  preview_ = new QLabel(this);
  preview_->setFixedSize(kPreview);
  preview_->setAccessibleName(tr("Picture of what is in hand"));

  auto* turns = new QGridLayout;
  turns->setSpacing(kGap / 2);
  const std::pair<ActionId, const char*> buttons[] = {{ActionId::turnLeft, "Q"},
                                                      {ActionId::turnRight, "E"},
                                                      {ActionId::mirrorAcross, "A"},
                                                      {ActionId::mirrorDown, "D"}};
  for (int i = 0; i < 4; ++i) {
    auto* button = makeActionButton(actions->action(buttons[i].first), QLatin1String(buttons[i].second), this);
    button->setFixedSize(60, 34);
    button->setProperty("raised", true);
    turns->addWidget(button, i / 2, i % 2);
  }
  turns->setRowStretch(2, 1);

  auto* layout = new QGridLayout(this);
  layout->setContentsMargins(kGap + 2, kGap, kGap + 2, kGap + 2);
  layout->setSpacing(kGap / 2);
  layout->addWidget(title, 0, 0, 1, 2);
  layout->addWidget(description_, 1, 0, 1, 2);
  layout->addWidget(preview_, 2, 0);
  layout->addLayout(turns, 2, 1);
  sides_ = new OtherSides(this);
  layout->addWidget(sides_, 3, 0, 1, 2);
  layout->setColumnStretch(1, 1);
  refresh();
}

void InHandPanel::setSession(Session* session) {
  if (session_) session_->disconnect(this);
  session_ = session;
  sides_->setSession(session);
  if (session_) {
    connect(session_, &Session::deskChanged, this, &InHandPanel::refresh);
    connect(session_, &Session::quiltChanged, sides_, &OtherSides::refresh);
  }
  refresh();
}

QString InHandPanel::description() const {
  if (!session_ || session_->desk().inHand.empty()) return tr("Nothing yet. Click a tile on the Table.");
  const Block& block = session_->desk().inHand.block;
  const TileRef first = block.parts().front().cell.tile();
  const Sheet* sheet = session_->quilt().sheetAt(first.slot);
  const QString from = sheet ? QString::fromStdString(sheet->name) : tr("a missing sheet");
  if (block.parts().size() == 1) {
    const QString name =
        sheet ? QString::fromStdString(sheet->tileName(first.number)) : tr("tile %1").arg(first.number);
    return tr("%1, from %2").arg(name, from);
  }
  std::set<SheetSlot> sheets;
  for (const Block::Part& part : block.parts()) sheets.insert(part.cell.tile().slot);
  const CellRect extent = block.extent();
  return tr("%1 × %2 from %3")
      .arg(extent.width())
      .arg(extent.height())
      .arg(sheets.size() > 1 ? tr("several sheets") : from);
}

QPixmap InHandPanel::preview() const {
  const double ratio = devicePixelRatioF();
  QPixmap pixmap((QSizeF(kPreview) * ratio).toSize());
  pixmap.setDevicePixelRatio(ratio);
  const Theme& theme = Theme::current();
  pixmap.fill(theme.panel);
  QPainter painter(&pixmap);
  painter.setPen(theme.edge);
  painter.drawRect(QRectF(QPointF(), QSizeF(kPreview)).adjusted(.5, .5, -.5, -.5));
  if (!session_ || session_->desk().inHand.empty() || !session_->map()) return pixmap;
  // Drawn as a small map of its own, so that it looks as it will when laid.
  const Block& block = session_->desk().inHand.block;
  Map map = *session_->map();
  const auto grid = makeGrid(map.grid);
  TilesLayer layer;
  for (const Block::Part& part : block.parts()) {
    layer.cells.set(grid->fromSide(part.at), part.cell);
    if (part.lift > 0) layer.lifts.set(grid->fromSide(part.at), part.lift);
  }
  map.bounds = layer.cells.usedBounds();
  map.folders.clear();
  map.layers = {Shared(std::move(layer))};
  const PixelRect pixels = session_->painter().extentOf(session_->quilt(), map, runsOf(map));
  const QSizeF room = QSizeF(kPreview) - QSizeF(12, 12);
  double fit = std::min({room.width() / pixels.w, room.height() / pixels.h, 2.0});
  if (fit >= 1) fit = std::floor(fit);
  const ViewScale scale{fit * ratio};
  QImage picture = session_->painter().draw(session_->quilt(), map, runsOf(map), scale, scale.toDevice(pixels));
  picture.setDevicePixelRatio(ratio);
  const QSizeF size = picture.deviceIndependentSize();
  const QPointF corner((kPreview.width() - size.width()) / 2, (kPreview.height() - size.height()) / 2);
  // Squares lie on the colour of an empty map; other cells show their own shape.
  if (map.grid.kind == GridKind::orthogonal) painter.fillRect(QRectF(corner, size), theme.surround.lighter(150));
  painter.drawImage(corner, picture);
  return pixmap;
}

void InHandPanel::refresh() {
  description_->setText(description());
  preview_->setPixmap(preview());
  sides_->refresh();
}

}  // namespace uq
