#include "app/table/HangCard.h"

#include <QHBoxLayout>
#include <QImageReader>
#include <QKeyEvent>
#include <QPainter>
#include <QToolButton>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "app/look/Widgets.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr QSize kPicture(158, 108);  // logical pixels
constexpr int kSquares = 8;          // in which the cut is shown, across

// A small version of a picture on the disk, read no larger than it is shown.
QImage smallVersion(const QString& path) {
  QImageReader reader(path);
  reader.setScaledSize(reader.size().scaled(kPicture, Qt::KeepAspectRatio));
  return reader.read();
}

QPixmap cutPicture(const QImage& picture) {
  QPixmap shown(kPicture);
  const Theme& theme = Theme::current();
  shown.fill(theme.surround);
  QPainter painter(&shown);
  const QRectF box(QPointF((kPicture.width() - picture.width()) / 2.0, (kPicture.height() - picture.height()) / 2.0),
                   QSizeF(picture.size()));
  painter.drawImage(box.topLeft(), picture);
  const double side = std::max(8.0, box.width() / kSquares);
  QVector<QLineF> lines;
  for (double x = box.left(); x < box.right(); x += side) lines << QLineF(x, box.top(), x, box.bottom());
  for (double y = box.top(); y < box.bottom(); y += side) lines << QLineF(box.left(), y, box.right(), y);
  drawStitchLines(painter, lines, theme.ink, theme.paper);
  return shown;
}

QPixmap hungPicture(Session& session, const QImage& picture) {
  QPixmap shown(kPicture);
  shown.fill(Theme::current().surround);
  QPainter painter(&shown);
  const double high = kPicture.height() * 0.8;
  const double wide = picture.height() > 0 ? high * picture.width() / picture.height() : 0;
  for (double x = 0; wide >= 4 && x < kPicture.width(); x += wide) painter.drawImage(QRectF(x, 0, wide, high), picture);
  const SmallPicture map = smallPicture(session.painter(), session.quilt(), *session.map(), kPicture);
  painter.setOpacity(0.9);
  painter.drawImage(QPointF(0, kPicture.height() - map.picture.height() * 0.75), map.picture);
  return shown;
}

// As a piece of cloth on the Board.
QPixmap mapPicture(const QImage& picture) {
  QPixmap shown(kPicture);
  const Theme& theme = Theme::current();
  shown.fill(theme.cloth);
  QPainter painter(&shown);
  const QSizeF size = QSizeF(picture.size()).scaled(QSizeF(kPicture) * 0.8, Qt::KeepAspectRatio);
  const QRectF box(QPointF((kPicture.width() - size.width()) / 2, (kPicture.height() - size.height()) / 2), size);
  painter.fillRect(box, theme.surround);
  painter.drawImage(box, picture);
  drawStitchLines(painter, {QLineF(box.topLeft(), box.topRight()), QLineF(box.topRight(), box.bottomRight()), QLineF(box.bottomRight(), box.bottomLeft()), QLineF(box.bottomLeft(), box.topLeft())}, theme.madder, theme.paper);
  return shown;
}

}  // namespace

HangCard::HangCard(QWidget* parent) : Card(parent) {
  setObjectName(QStringLiteral("hang-card"));
  makeCard(this);
  const auto choice = [this](const char* object, const QString& text) {
    auto* button = new QToolButton(this);
    button->setObjectName(QLatin1String(object));
    button->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
    button->setIconSize(kPicture);
    button->setText(text);
    button->setAccessibleName(text);
    return button;
  };
  cut_ = choice("cut-into-tiles", tr("1  Cut into tiles"));
  hang_ = choice("hang-as-backdrop", tr("2  Hang as backdrop"));
  connect(cut_, &QToolButton::clicked, this, [this] {
    const QStringList paths = paths_;
    end();
    Q_EMIT cutWanted(paths);
  });
  connect(hang_, &QToolButton::clicked, this, [this] {
    const QStringList paths = paths_;
    end();
    Q_EMIT hangWanted(paths);
  });
  map_ = choice("map-of-picture", tr("3  Make a map of it"));
  connect(map_, &QToolButton::clicked, this, [this] {
    const QString path = paths_.value(0);
    end();
    Q_EMIT mapWanted(path);
  });
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(kGap * 2, kGap * 2, kGap * 2, kGap * 2);
  layout->setSpacing(kGap * 2);
  layout->addWidget(cut_);
  layout->addWidget(hang_);
  layout->addWidget(map_);
  hide();
}

void HangCard::open(Session& session, const QStringList& paths) {
  paths_ = paths;
  const QImage picture = smallVersion(paths.front());
  cut_->setIcon(cutPicture(picture));
  hang_->setIcon(hungPicture(session, picture));
  map_->setIcon(mapPicture(picture));
  map_->setVisible(paths.size() == 1);
  adjustSize();
  const QSize room = parentWidget()->size();
  move((room.width() - width()) / 2, (room.height() - height()) / 2);
  show();
  raise();
  hang_->setFocus(Qt::OtherFocusReason);
}

void HangCard::end() {
  paths_.clear();
  hide();
  Q_EMIT closed();
}

void HangCard::keyPressEvent(QKeyEvent* event) {
  switch (event->key()) {
    case Qt::Key_Escape: return end();
    case Qt::Key_1: return cut_->click();
    case Qt::Key_2: return hang_->click();
    case Qt::Key_3:
      if (map_->isVisible()) map_->click();
      return;
    default: QFrame::keyPressEvent(event);
  }
}

}  // namespace uq
