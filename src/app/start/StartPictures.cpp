#include "app/start/StartPictures.h"

#include <QCoreApplication>
#include <QDirIterator>
#include <QFileInfo>
#include <QPainter>
#include <QPointer>
#include <algorithm>

#include "app/look/Stitches.h"
#include "app/look/Theme.h"
#include "core/store/QuiltStore.h"
#include "raster/SmallPicture.h"

namespace uq {

namespace {

constexpr QSize kMapPicture(424, 264);     // pixels
constexpr QSize kCanDoPicture(544, 320);   // pixels
constexpr QSize kWholePicture(1600, 1200);
constexpr int kMostFiles = 5000;           // of a quilt that are looked at
constexpr int kManyTiles = 150;            // of a sheet that shows what a cut is
constexpr qint64 kMostBytes = 32 << 20;    // likewise, in all
constexpr std::size_t kMostQuilts = 6;     // that are read anew

// What was drawn of the demo.
struct Demo {
  QImage canDo[StartPictures::kCanDo];
  std::vector<std::pair<QString, QImage>> maps;
};
Demo& known() {
  static Demo demo;
  return demo;
}

QImage blank(const Theme& theme) {
  QImage picture(kCanDoPicture, QImage::Format_ARGB32_Premultiplied);
  picture.fill(theme.surround);
  return picture;
}

// A part of a sheet, with the stitches of its cut.
QImage cutSheet(const Quilt& quilt, const SheetPictures& pictures, const Theme& theme) {
  QImage picture = blank(theme);
  QPainter painter(&picture);
  for (const auto& sheet : quilt.sheets()) {
    const QImage art = pictures.picture(sheet.read());
    if (sheet->isCollection() || art.isNull() || sheet->tileCount() < kManyTiles) continue;
    const int zoom = std::max(1, 64 / std::max(1, sheet->cut.cell.w));
    painter.drawImage(QRect(QPoint(), art.size() * zoom), art);
    QVector<QLineF> lines;
    for (int x = 0; x <= art.width() * zoom; x += sheet->cut.cell.w * zoom) lines << QLineF(x, 0, x, art.height() * zoom);
    for (int y = 0; y <= art.height() * zoom; y += sheet->cut.cell.h * zoom) lines << QLineF(0, y, art.width() * zoom, y);
    drawStitchLines(painter, lines, theme.madder, theme.paper, 2);
    break;
  }
  return picture;
}

// A part of a map, with a box that is being drawn and what its tag says.
QImage painted(const QImage& whole, const Theme& theme, const QFont& font) {
  QImage picture = blank(theme);
  QPainter painter(&picture);
  const QPoint middle(whole.width() / 3, whole.height() / 4);
  painter.drawImage(QRect(QPoint(), picture.size()), whole, QRect(middle, picture.size()));
  const QRectF box(160, 96, 192, 128);
  painter.fillRect(box, QColor(theme.lamp.red(), theme.lamp.green(), theme.lamp.blue(), 60));
  drawStitches(painter, box, theme.madder, theme.paper, 3);
  QFont large = font;
  large.setPixelSize(22);
  painter.setFont(large);
  const QString text = QCoreApplication::translate("uq::StartPictures", "Box on Paving · 6 × 4 = 24 cells");
  const QRectF tag(box.bottomRight() + QPointF(-120, 14), QSizeF(painter.fontMetrics().horizontalAdvance(text) + 24, 36));
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(theme.edge, 1));
  painter.setBrush(theme.paper);
  painter.drawRoundedRect(tag.translated(std::min(0.0, picture.width() - 8 - tag.right()), 0), 5, 5);
  painter.setPen(theme.ink);
  painter.drawText(tag.translated(std::min(0.0, picture.width() - 8 - tag.right()), 0), Qt::AlignCenter, text);
  return picture;
}

// The layers of a map, lifted off one another.
QImage fanned(MapPainter& painter, const Quilt& quilt, const Map& map, const Theme& theme) {
  QImage picture = blank(theme);
  QPainter onto(&picture);
  onto.setRenderHints(QPainter::SmoothPixmapTransform | QPainter::Antialiasing);
  std::vector<QImage> layers;
  for (const Shared<Layer>& layer : map.layers) {
    if (layer->holdsTiles() && layers.size() < 4) {
      layers.push_back(smallPicture(painter, quilt, map, layer.read(), {400, 300}).picture);
    }
  }
  const double step = layers.size() > 1 ? 165.0 / static_cast<double>(layers.size() - 1) : 0;
  for (std::size_t i = 0; i < layers.size(); ++i) {
    QTransform lean;
    lean.translate(140, 190 - step * static_cast<double>(i));
    lean.shear(-0.6, 0);
    lean.scale(1, 0.45);
    onto.setTransform(lean);
    const QRectF sheet(QPointF(), QSizeF(layers[i].size()));
    onto.fillRect(sheet, QColor(theme.paper.red(), theme.paper.green(), theme.paper.blue(), i == 0 ? 255 : 60));
    onto.drawImage(QPointF(), layers[i]);
    drawStitches(onto, sheet, theme.ink, theme.paper, 2);
  }
  return picture;
}

// Whether a file of the quilt is newer than the picture that was kept of it, and the whole small enough to be read for
// its picture.
bool isWorthReading(const RecentQuilt& quilt) {
  const QDateTime kept = QFileInfo(quilt.picture).lastModified();
  QDirIterator files(quilt.folder, QDir::Files, QDirIterator::Subdirectories);
  bool isNewer = false;
  qint64 bytes = 0;
  for (int i = 0; files.hasNext(); ++i) {
    files.next();
    bytes += files.fileInfo().size();
    if (i == kMostFiles || bytes > kMostBytes) return false;
    isNewer = isNewer || !kept.isValid() || files.fileInfo().lastModified() > kept;
  }
  return isNewer;
}

// The map that was worked on last, else the first one.
const Map& mapOf(const Quilt& quilt, const QString& folder) {
  const auto state = keptState(folder);
  const Json* named = state ? state->find("map") : nullptr;
  const auto* text = named ? named->as<std::string>() : nullptr;
  const auto id = text ? Id::parse(*text) : std::nullopt;
  const Map* map = id ? quilt.map(*id) : nullptr;
  return map ? *map : quilt.maps().front().read();
}

}  // namespace

QString demoFolder() {
  const QString installed =
      QCoreApplication::applicationDirPath() + QLatin1String("/../share/urban-quilt/demo/copperline");
  return QFileInfo(installed).isDir() ? QDir::cleanPath(installed) : QStringLiteral(UQ_DEMO_FOLDER);
}

StartPictures::StartPictures(QObject* parent) : QObject(parent) { worker_.setMaxThreadCount(1); }

StartPictures::~StartPictures() {
  stop_->cancel();
  worker_.waitForDone();
}

template <class Tell>
void StartPictures::tell(Tell&& what) {
  QMetaObject::invokeMethod(this, std::forward<Tell>(what), Qt::QueuedConnection);
}

void StartPictures::draw(const std::vector<RecentQuilt>& quilts) {
  if (draws_) return;
  draws_ = true;
  stop_ = std::make_shared<Progress>();
  const Demo& demo = known();
  const bool isKnown = !demo.maps.empty();
  if (isKnown) {
    for (int i = 0; i < kCanDo; ++i) Q_EMIT canDo(i, demo.canDo[i]);
    for (const auto& [name, picture] : demo.maps) Q_EMIT demoMap(name, picture);
  }
  worker_.start([this, stop = stop_, quilts, isKnown, theme = Theme::current(), font = QFont()] {
    const auto opened = [&stop](const QString& folder) -> std::optional<QuiltStore::Opened> {
      if (stop->isCancelled()) return std::nullopt;
      auto quilt = QuiltStore::open(realDisk(), folder.toStdString(), QuiltStore::Access::read, stop.get());
      return quilt && !stop->isCancelled() ? std::optional(std::move(*quilt)) : std::nullopt;
    };
    if (const auto demoQuilt = isKnown ? std::nullopt : opened(demoFolder()); demoQuilt && !demoQuilt->quilt.maps().empty()) {
      Errors problems;
      const Quilt& quilt = demoQuilt->quilt;
      const SheetPictures pictures = SheetPictures::load(quilt, problems);
      MapPainter painter(pictures);
      Demo made;
      const auto squares = std::find_if(quilt.maps().begin(), quilt.maps().end(), [](const Shared<Map>& map) {
        return map->grid.kind == GridKind::orthogonal;
      });
      const Map& first = squares == quilt.maps().end() ? quilt.maps().front().read() : squares->read();
      made.canDo[bringIn] = cutSheet(quilt, pictures, theme);
      made.canDo[paint] = painted(smallPicture(painter, quilt, first, kWholePicture).picture, theme, font);
      made.canDo[layers] = fanned(painter, quilt, first, theme);
      for (const auto& map : quilt.maps()) {
        if (stop->isCancelled()) break;
        made.maps.emplace_back(QString::fromStdString(map->name),
                               smallPicture(painter, quilt, map.read(), kMapPicture).picture);
      }
      const bool whole = made.maps.size() == quilt.maps().size();
      tell([this, whole, made = std::move(made)] {
        if (whole) known() = made;
        for (int i = 0; i < kCanDo; ++i) Q_EMIT canDo(i, made.canDo[i]);
        for (const auto& [name, picture] : made.maps) Q_EMIT demoMap(name, picture);
      });
    }
    for (std::size_t i = 0; i < quilts.size() && i < kMostQuilts && !stop->isCancelled(); ++i) {
      if (!isWorthReading(quilts[i])) continue;
      const auto one = opened(quilts[i].folder);
      if (!one || one->quilt.maps().empty()) continue;
      Errors problems;
      MapPainter painter(SheetPictures::load(one->quilt, problems));
      const QImage picture =
          smallPicture(painter, one->quilt, mapOf(one->quilt, quilts[i].folder), kMapPicture).picture;
      tell([this, folder = quilts[i].folder, picture] { Q_EMIT quilt(folder, picture); });
    }
    tell([this] {
      draws_ = false;
      Q_EMIT drawn();
    });
  });
}

}  // namespace uq
