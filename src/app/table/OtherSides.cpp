#include "app/table/OtherSides.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>

#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "core/edit/Facings.h"

namespace uq {

namespace {
constexpr int kMostSides = 5;
constexpr int kPlace = 34;  // logical pixels
}  // namespace

OtherSides::OtherSides(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("other-sides"));
  label_ = makeSoftLabel(this);
  auto* row = new QHBoxLayout;
  row->setSpacing(kGap / 2);
  for (int i = 0; i < kMostSides; ++i) {
    auto* place = new QToolButton(this);
    place->setObjectName(QStringLiteral("other-side-%1").arg(i + 1));
    place->setFixedSize(kPlace, kPlace);
    place->setIconSize({kPlace - 8, kPlace - 8});
    place->setCheckable(true);
    place->setProperty("raised", true);
    place->setStyleSheet(QStringLiteral("QToolButton { padding: 0; }"));
    place->setFocusPolicy(Qt::TabFocus);
    place->installEventFilter(this);
    connect(place, &QToolButton::clicked, this,
            [this, i](bool on) { session_->verbs().hand.awaitPartner(on ? std::optional(i + 1) : std::nullopt); });
    places_.push_back(place);
    row->addWidget(place);
  }
  row->addStretch();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(2);
  layout->addWidget(label_);
  layout->addLayout(row);
}

QToolButton* OtherSides::place(int steps) const {
  QToolButton* one = places_[static_cast<std::size_t>(steps - 1)];
  return one->isVisible() ? one : nullptr;
}

QImage OtherSides::pictureOf(TileRef tile) const {
  return session_->painter().pictures().tile(session_->quilt(), tile).value_or(QImage());
}

void OtherSides::refresh() {
  const Map* map = session_ ? session_->map() : nullptr;
  const Block* held = map ? &session_->desk().inHand.block : nullptr;
  // A material is laid by what lies around it, never turned.
  const bool one = held && !session_->desk().inHand.joins() && held->parts().size() == 1 && map->grid.kind != GridKind::orthogonal &&
                   held->parts().front().cell.tile().slot != kChalkSlot;
  setVisible(one);
  if (!one) return;
  const TileRef tile = held->parts().front().cell.tile();
  const int order = makeGrid(map->grid)->turnOrder();
  const auto awaited = session_->verbs().hand.awaitedPartner();
  label_->setText(awaited ? tr("Now click the tile that shows it turned right %1 × %2°.").arg(*awaited).arg(360 / order)
                          : tr("Turned right, it is the tile dropped here:"));
  for (int steps = 1; steps <= kMostSides; ++steps) {
    QToolButton* place = places_[static_cast<std::size_t>(steps - 1)];
    place->setVisible(steps < order);
    if (steps >= order) continue;
    const auto partner = partnerOf(session_->quilt(), tile, order, steps);
    const int degrees = steps * 360 / order;
    place->setChecked(awaited == steps);
    place->setIcon(partner ? QIcon(QPixmap::fromImage(pictureOf(*partner))) : QIcon());
    place->setText(partner ? QString() : tr("%1°").arg(degrees));
    const Sheet* sheet = partner ? session_->quilt().sheetAt(partner->slot) : nullptr;
    const QString is = sheet ? QString::fromStdString(sheet->tileName(partner->number)) : tr("no tile yet");
    place->setAccessibleName(tr("Turned right by %1 degrees: %2").arg(degrees).arg(is));
    place->setToolTip(tr("Turned right by %1°: %2. Drop a tile of the sheet here, or press this and click the tile. "
                         "A right click takes it away.")
                          .arg(degrees)
                          .arg(is));
  }
}

bool OtherSides::drop(TileRef tile, QPoint global) {
  if (!isVisible()) return false;
  for (int steps = 1; steps <= kMostSides; ++steps) {
    const QToolButton* one = place(steps);
    if (!one || !one->rect().contains(one->mapFromGlobal(global))) continue;
    session_->verbs().hand.setPartner(steps, tile);
    return true;
  }
  return false;
}

bool OtherSides::eventFilter(QObject* watched, QEvent* event) {
  const auto found = std::find(places_.begin(), places_.end(), watched);
  if (found == places_.end()) return false;
  const bool pressed =
      event->type() == QEvent::MouseButtonPress && static_cast<QMouseEvent*>(event)->button() == Qt::RightButton;
  const bool keyed = event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Delete;
  if (!pressed && !keyed) return false;
  session_->verbs().hand.setPartner(static_cast<int>(found - places_.begin()) + 1, std::nullopt);
  return true;
}

}  // namespace uq
