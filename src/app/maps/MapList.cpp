#include "app/maps/MapList.h"

#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QVBoxLayout>

#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr int kMapId = Qt::UserRole;
constexpr QSize kMapPicture(108, 72);  // logical pixels

}  // namespace

MapList::MapList(QWidget* parent) : QFrame(parent, Qt::Popup) {
  setObjectName(QStringLiteral("map-list"));
  setAccessibleName(tr("Maps of this quilt"));
  makeCard(this);
  field_ = new QLineEdit(this);
  field_->setObjectName(QStringLiteral("map-filter"));
  field_->setAccessibleName(tr("Find a map by its name"));
  field_->setPlaceholderText(tr("Find a map: type a part of its name"));
  field_->installEventFilter(this);
  list_ = new QListWidget(this);
  list_->setObjectName(QStringLiteral("map-entries"));
  list_->setAccessibleName(tr("Maps that were found"));
  list_->setIconSize(kMapPicture);
  list_->setUniformItemSizes(true);
  none_ = makeSoftLabel(this);
  none_->setText(tr("No map has that in its name."));
  none_->setAlignment(Qt::AlignCenter);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(kGap, kGap, kGap, kGap);
  layout->setSpacing(kGap);
  layout->addWidget(field_);
  layout->addWidget(none_);
  layout->addWidget(list_, 1);
  connect(field_, &QLineEdit::textChanged, this, &MapList::filter);
  connect(list_, &QListWidget::itemClicked, this, &MapList::choose);
  connect(list_, &QListWidget::itemActivated, this, &MapList::choose);
  resize(420, 460);
}

void MapList::open(Session* session, QPoint middle) {
  session_ = session;
  list_->clear();
  field_->clear();
  const Theme& theme = Theme::current();
  const double ratio = devicePixelRatioF();
  for (const auto& map : session->quilt().maps()) {
    QPixmap icon((QSizeF(kMapPicture) * ratio).toSize());
    icon.fill(theme.surround);
    const SmallPicture small = smallPicture(session->painter(), session->quilt(), map.read(), icon.size());
    {
      QPainter painter(&icon);
      painter.translate((icon.width() - small.picture.width()) / 2, (icon.height() - small.picture.height()) / 2);
      const auto grid = makeGrid(map->grid);
      const PixelRect all = grid->pixelBounds(map->bounds);
      QPolygonF ground;
      for (const PixelPos at : grid->perimeter(map->bounds)) {
        ground << QPointF((at.x - all.x) * small.zoom, (at.y - all.y) * small.zoom);
      }
      painter.setPen(Qt::NoPen);
      painter.setBrush(theme.surround.lighter(150));
      painter.drawPolygon(ground);
      painter.drawImage(0, 0, small.picture);
    }
    icon.setDevicePixelRatio(ratio);
    auto* item = new QListWidgetItem(icon,
                                     tr("%1\n%2 × %3 cells of %4 × %5 px")
                                         .arg(QString::fromStdString(map->name))
                                         .arg(map->bounds.width())
                                         .arg(map->bounds.height())
                                         .arg(map->grid.cell.w)
                                         .arg(map->grid.cell.h),
                                     list_);
    item->setData(kMapId, QString::fromStdString(map->id.text()));
    if (map->id == session->desk().map) list_->setCurrentItem(item);
  }
  filter();
  move(middle - QPoint(width() / 2, 0));
  show();
  field_->setFocus();
}

void MapList::filter() {
  const QString wanted = field_->text().trimmed();
  bool any = false;
  for (int i = 0; i < list_->count(); ++i) {
    QListWidgetItem* item = list_->item(i);
    const QString name = item->text().section(QLatin1Char('\n'), 0, 0);
    item->setHidden(!name.contains(wanted, Qt::CaseInsensitive));
    any = any || !item->isHidden();
  }
  if (!list_->currentItem() || list_->currentItem()->isHidden()) {
    for (int i = list_->count(); i-- > 0;) {
      if (!list_->item(i)->isHidden()) list_->setCurrentRow(i);
    }
  }
  none_->setVisible(!any);
}

void MapList::choose() {
  const QListWidgetItem* item = list_->currentItem();
  if (!isVisible() || !item || item->isHidden()) return;
  hide();
  if (const auto id = Id::parse(item->data(kMapId).toString().toStdString())) session_->verbs().maps.goTo(*id);
}

bool MapList::eventFilter(QObject* watched, QEvent* event) {
  if (watched == field_ && event->type() == QEvent::KeyPress) {
    auto* key = static_cast<QKeyEvent*>(event);
    switch (key->key()) {
      case Qt::Key_Up:
      case Qt::Key_Down:
      case Qt::Key_PageUp:
      case Qt::Key_PageDown: QCoreApplication::sendEvent(list_, event); return true;
      case Qt::Key_Return:
      case Qt::Key_Enter: choose(); return true;
      default: break;
    }
  }
  return QFrame::eventFilter(watched, event);
}

}  // namespace uq
