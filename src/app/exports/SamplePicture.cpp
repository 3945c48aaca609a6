#include "app/exports/SamplePicture.h"

#include <QPainter>

#include "app/look/Theme.h"
#include "app/workroom/Session.h"
#include "core/edit/Targets.h"

namespace uq {

SamplePicture samplePicture(Session& session, const Target& target, QSize size, double ratio) {
  const auto maps = mapsOf(session.quilt(), target);
  const Map* map = session.map();
  if (!map || std::find(maps.begin(), maps.end(), map) == maps.end()) map = maps.empty() ? nullptr : maps.front();
  const QSize room((QSizeF(size) * ratio).toSize());
  const TargetSample sample = sampleOf(session.painter(), session.quilt(), target, map ? map->id : Id(), room);
  SamplePicture made{QPixmap(room), QString::fromStdString(sample.wrong.empty() ? sample.file : sample.wrong)};
  made.pixmap.setDevicePixelRatio(ratio);
  made.pixmap.fill(sample.picture.isNull() ? Theme::current().panel : Theme::current().surround);
  QPainter painter(&made.pixmap);
  if (!sample.picture.isNull()) {
    const QSizeF shown = QSizeF(sample.picture.size()) / ratio;
    painter.drawImage(QRectF(QPointF((size.width() - shown.width()) / 2, (size.height() - shown.height()) / 2), shown), sample.picture);
    return made;
  }
  QFont fixed(QStringLiteral("DejaVu Sans Mono"));
  fixed.setStyleHint(QFont::Monospace);
  fixed.setPixelSize(11);
  painter.setFont(fixed);
  painter.setPen(sample.wrong.empty() ? Theme::current().ink : Theme::current().madder);
  const std::string text = sample.wrong.empty() ? sample.text.substr(0, 3000) : sample.wrong;
  painter.drawText(QRectF(6, 4, size.width() - 8, size.height() - 4), Qt::AlignLeft | Qt::AlignTop, QString::fromStdString(text));
  return made;
}

}  // namespace uq
