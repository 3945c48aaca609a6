#include "app/look/Icons.h"

#include <QFile>
#include <QPainter>
#include <QSvgRenderer>

namespace uq {

QIcon icon(const QString& name, const QColor& colour) {
  QFile file(QStringLiteral(":/icons/%1.svg").arg(name));
  if (!file.open(QIODevice::ReadOnly)) return {};
  QByteArray svg = file.readAll();
  svg.replace("\"#000\"", "\"" + colour.name().toUtf8() + "\"");
  QSvgRenderer renderer(svg);
  QIcon icon;
  for (int size : {16, 24, 32, 48}) {
    QPixmap pixmap(size, size);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    renderer.render(&painter);
    painter.end();
    icon.addPixmap(pixmap);
  }
  return icon;
}

}  // namespace uq
