#include "app/look/Icons.h"

#include <QFile>
#include <QHash>
#include <QPainter>
#include <QSvgRenderer>

namespace uq {

namespace {

QIcon drawn(const QString& name, const QColor& colour) {
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

}  // namespace

QIcon icon(const QString& name, const QColor& colour) {
  static QHash<std::pair<QString, QRgb>, QIcon> kept;
  const std::pair key(name, colour.rgb());
  const auto found = kept.constFind(key);
  return found != kept.constEnd() ? *found : *kept.insert(key, drawn(name, colour));
}

}  // namespace uq
